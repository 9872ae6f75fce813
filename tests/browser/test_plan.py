"""Planning in the browser: by keyboard at 1280, by touch at 820; choices, differences, late steps,
hunt list, limit book.
"""

from pathlib import Path

from playwright.sync_api import Page, expect

from tests.browser.regions import Bench, api, new_build, write
from tests.browser.test_bench import engine


def gearbox(demo) -> str:
    """The id of the gearbox build of the demo."""
    return next(
        b["id"] for b in api(demo.url, "/api/shop")["builds"] if b["name"].startswith("Two")
    )


def take(page: Page, reason: str = "") -> None:
    """Read the difference, give the reason, take it."""
    dialog = page.get_by_role("dialog").filter(has_text="What changes")
    expect(dialog.get_by_role("button", name="Take it")).to_be_visible()
    if reason:
        dialog.locator("input[name=plan-reason]").fill(reason)
    dialog.get_by_role("button", name="Take it").click()
    expect(dialog).to_be_hidden()


def test_a_powertrain_removal_is_planned(empty, mk: Bench):
    """From nothing: sheets, what is known, a way chosen, a fact changed with its difference, and
    all that is to hunt.
    """
    page = mk.page
    mk.go(empty.url + "/new", "choose what comes off")
    page.locator("input[value=powertrain-up]").focus()
    page.keyboard.press("Space")
    page.locator("input[value=first-start]").focus()
    page.keyboard.press("Space")
    mk.shows("from 2 sheets")
    page.locator("input[name=name]").fill("Engine of Three")
    page.locator("input[name=vehicle]").fill("Three")
    page.locator("select[name=fact-clutch]").select_option("cable")
    page.locator("input[name=vehicle]").press("Enter")
    mk.shows("last chances have no step")
    rows = page.locator(".rows li")
    expect(rows.filter(has_text="Clutch cable or rod off")).to_have_count(1)
    expect(rows.filter(has_text="Clutch slave")).to_have_count(0)
    expect(rows.filter(has_text="Air-conditioning compressor")).to_contain_text(
        "perhaps: Air conditioning: not known yet"
    )
    mk.key("1")
    drawer = page.get_by_role("dialog").filter(has_text="Way out")
    expect(drawer).to_contain_text("Hollet picks Engine alone, up")
    drawer.get_by_role("button", name="Choose Up, as one").click()
    dialog = page.get_by_role("dialog").filter(has_text="What changes")
    expect(dialog).to_contain_text("Shift rod marked and uncoupled")
    expect(dialog.get_by_role("button", name="Take it")).to_be_disabled()
    take(page, "the gearbox seals are due too")
    expect(page.get_by_role("button", name="Way out: Up, as one")).to_be_visible()
    expect(rows.filter(has_text="Shift rod marked")).to_have_count(1)
    page.get_by_role("button", name="The vehicle").click()
    page.locator("select[name=fact-air_conditioning]").select_option("no")
    expect(dialog).to_contain_text("Air-conditioning compressor tied aside")
    dialog.get_by_role("button", name="Leave it as it was").click()
    expect(page.locator("select[name=fact-air_conditioning]")).to_have_value("")
    page.locator("select[name=fact-air_conditioning]").select_option("no")
    take(page)
    page.keyboard.press("Escape")
    expect(rows.filter(has_text="Air-conditioning compressor")).to_have_count(0)
    page.get_by_role("button", name="left out, and why").click()
    expect(page.get_by_role("dialog").filter(has_text="Left out")).to_contain_text(
        "Air conditioning: no"
    )
    page.keyboard.press("Escape")
    expect(page.locator(".el-overlay:visible")).to_have_count(0)
    mk.key("h")
    mk.shows("to hunt")
    for word in (
        "engine hoist",
        "Gearbox oil",
        "Engine mount bolts: 2 stages",
        "3 people",
        "Flywheel, ring gear and gearbox",
    ):
        expect(page.get_by_text(word).first).to_be_visible()
    log = api(empty.url, f"/api/builds/{page.url.split('/')[4]}/log")["lines"]
    assert [line["text"] for line in log if "Way out" in line["text"]] == [
        "Way out Up, as one: the gearbox seals are due too"
    ]


def test_a_forgotten_step_is_put_in_late(demo, mk: Bench):
    """The sump is on: what has to come off again is named with its hours, and the step is kept for
    next time.
    """
    build = engine(demo)
    page = mk.page
    mk.go(f"{demo.url}/builds/{build}/plan", "130 steps")
    mk.key("i")
    dialog = page.get_by_role("dialog").filter(has_text="Put a step in")
    dialog.locator("input[name=put-title]").fill("Windage tray fitted")
    dialog.locator("textarea[name=put-do]").fill("Four bolts, tabs away from the crank.")
    dialog.locator("select[name=put-stage]").select_option("build_up")
    dialog.locator("select[name=put-before]").select_option(label="6.07 Sump on")
    dialog.locator("input[name=put-because]").fill("the sump closes it")
    expect(dialog.locator("select[name=put-behind]")).to_have_value("rod_bolts_tight")
    dialog.get_by_role("button", name="See what it changes").click()
    change = page.get_by_role("dialog").filter(has_text="What changes")
    expect(change).to_contain_text("put in: 6.06a Windage tray fitted")
    expect(change).to_contain_text("6.07 Sump on: the sump closes it")
    expect(change).to_contain_text("Off and on again: 0.8 to 1.6 h")
    take(page, "forgotten till the oil went in")
    mk.shows("131 steps")
    expect(page.get_by_role("status")).to_contain_text("(own copy)")
    expect(page.locator(".rows li").filter(has_text="Windage tray fitted")).to_contain_text("6.06a")
    mk.go(demo.url + "/new", "New build")
    expect(page.get_by_text("(own copy)")).to_be_visible()


def test_last_chance_holds_the_bench(hanging, mk: Bench):
    """What nobody reaches afterwards stands before the button: seen here, or let go with a reason,
    then it is free.
    """
    build = gearbox(hanging)
    steps = api(hanging.url, f"/api/builds/{build}")["frame"]["steps"]
    for step in steps[: [s["id"] for s in steps].index("box_in")]:
        if step["status"] not in ("done", "skipped"):
            write(
                hanging.url,
                build,
                {
                    "kind": "skipped",
                    "step": step["id"],
                    "reason": "for this test",
                    "not_applicable": True,
                },
            )
    jack = {"name": "gearbox jack", "limit": "500 kg", "where": "top"}
    lift = {"what": "Gearbox", "mass": "46 kg", "mass_from": "weighed", "legs": 1}
    write(
        hanging.url,
        build,
        {"kind": "lift said", "step": "box_in", "elements": [jack]} | lift,
    )
    mk.go(f"{hanging.url}/builds/{build}/steps/box_in", "Gearbox")
    mk.confirm_caution()
    expect(mk.page.get_by_text("After this nobody reaches")).to_be_visible()
    mk.key(" ")
    row = mk.page.locator(".closing li")
    row.filter(has_text="Pilot bearing greased").get_by_role("button", name="It is done").click()
    mk.written("seen before it closes: Pilot bearing greased")
    clip = row.filter(has_text="Clip of the release bearing")  # its own step was settled
    expect(clip.get_by_role("button", name="It is done")).to_have_count(0)
    mk.key(" ")
    mk.shows("Bolt 1, stage 1")


def test_plan_is_moved_by_drag_and_by_key(hanging, mk: Bench):
    """Dragged behind another; moved by Alt and arrow; a move against a reason is refused with that
    reason.
    """
    build = gearbox(hanging)
    page = mk.page
    mk.go(f"{hanging.url}/builds/{build}/plan", "67 steps")
    page.set_viewport_size(
        {"width": 1280, "height": 1800}
    )  # all rows in sight: nothing scrolls under the mouse
    order = [row["id"] for row in api(hanging.url, f"/api/builds/{build}/plan")["rows"]]
    page.locator("#row-speed_cable_off").drag_to(page.locator("#row-starter_off"))
    take(page)
    moved = [row["id"] for row in api(hanging.url, f"/api/builds/{build}/plan")["rows"]]
    assert moved.index("speed_cable_off") == moved.index("starter_off") + 1
    assert [s for s in moved if s != "speed_cable_off"] == [
        s for s in order if s != "speed_cable_off"
    ]
    row = page.locator("#row-levers_off .row")
    row.focus()
    page.keyboard.press("Alt+ArrowUp")
    take(page)
    after = [r["id"] for r in api(hanging.url, f"/api/builds/{build}/plan")["rows"]]
    assert after.index("levers_off") == moved.index("levers_off") - 1
    page.locator("#row-battery_off").drag_to(page.locator("#row-starter_off"))
    alert = page.get_by_role("dialog").filter(has_text="What changes").get_by_role("alert")
    expect(alert).to_contain_text(
        "waits for 2.02 Battery earth lead off: the cable is live till then"
    )


def test_two_people_edit_one_plan(hanging, mk: Bench):
    """The second is told who changed what, sees the new plan, and nothing of his is written."""
    build = gearbox(hanging)
    page = mk.page
    mk.go(f"{hanging.url}/builds/{build}/plan", "67 steps")
    page.locator("#row-starter_off .row").click()
    page.get_by_role("button", name="Take it out").click()
    dialog = page.get_by_role("dialog").filter(has_text="What changes")
    dialog.locator("input[name=plan-reason]").fill("no starter here")
    version = api(hanging.url, f"/api/builds/{build}/plan")["version"]
    body = {
        "id": "0" * 36,
        "who": "TR",
        "version": version,
        "acts": [{"act": "retire", "step": "levers_off", "back": False}],
        "reason": "column change",
    }
    api(hanging.url, f"/api/builds/{build}/plan", body)
    dialog.get_by_role("button", name="Take it").click()
    expect(dialog.get_by_role("alert")).to_contain_text("edited by TR meanwhile")
    assert [row["id"] for row in api(hanging.url, f"/api/builds/{build}/plan")["rows"]].count(
        "starter_off"
    ) == 1
    page.keyboard.press("Escape")
    mk.shows("66 steps")


def test_sources_that_disagree_are_settled(demo, mk: Bench):
    """Both drawn on one scale; key 2 takes the second; the book counts one conflict less, and both
    stay readable.
    """
    build = gearbox(demo)
    mk.go(f"{demo.url}/builds/{build}/limits", "1 in conflict")
    mk.page.get_by_role("button", name="Layshaft end float").click()
    expect(mk.page.get_by_text("The sources disagree")).to_be_visible()
    mk.key("2")
    expect(mk.page.locator("h1")).not_to_contain_text("conflict")
    expect(mk.page.locator("aside.drawer")).to_have_count(0)
    mk.page.get_by_role("button", name="Layshaft end float").click()
    expect(mk.page.locator("aside.drawer")).to_contain_text("B bearing sheet, p. 4, in force")
    assert api(demo.url, f"/api/builds/{build}/limits")["counts"]["conflict"] == 0


def test_limits_are_read_from_a_file(demo, mk: Bench, tmp_path: Path):
    """What a file changes is told before it is taken; a mistake is named with its line and changes
    nothing.
    """
    build = gearbox(demo)
    mk.go(f"{demo.url}/builds/{build}/limits", "figures")
    bad = tmp_path / "bad.csv"
    bad.write_text("id,lo\nsynchro_gap,wide\n")
    mk.page.set_input_files("input[name=limitsfile]", bad)
    expect(mk.page.get_by_role("alert")).to_contain_text("bad.csv was not taken: line 2")
    good = tmp_path / "good.csv"
    good.write_text("id,lo,hi,source\nmain_float_limit,0.05,0.20,bearing sheet\n")
    mk.page.set_input_files("input[name=limitsfile]", good)
    dialog = mk.page.get_by_role("dialog")
    expect(dialog).to_contain_text("Main shaft end float: not given becomes 0.05 to 0.20 mm")
    dialog.get_by_role("button", name="Take them").click()
    expect(mk.page.get_by_role("row", name="Main shaft end float")).to_contain_text(
        "0.05 to 0.20 mm"
    )


def test_hunted_tools_and_generic_torques(hanging, mk: Bench):
    """A tool that is here leaves the list; a generic torque is taken only as assumed, with its
    reason.
    """
    build = gearbox(hanging)
    mk.go(f"{hanging.url}/builds/{build}/hunt", "21 to hunt")
    mk.page.get_by_role("button", name="hydraulic press").click()
    mk.press("It is here")
    mk.shows("20 to hunt")
    mk.page.get_by_role("button", name="Gearbox mount bolts").click()
    expect(mk.page.get_by_text("knows neither the joint nor the friction")).to_be_visible()
    mk.press("Take the generic value as assumed")
    take(mk.page, "bench only, book is ordered")
    row = mk.page.get_by_role("button", name="Gearbox mount bolts")
    expect(row).to_contain_text("assumed")


def test_plan_desk_by_touch_on_a_tablet(demo, browser):
    """820 by 1180, fingers only: a way looked at, a step opened, an extra answered with
    its reason.
    """
    context = browser.new_context(
        viewport={"width": 820, "height": 1180}, has_touch=True, reduced_motion="reduce"
    )
    context.add_init_script("localStorage.setItem('hollet.who', 'MK')")
    page = context.new_page()
    page.goto(f"{demo.url}/builds/{engine(demo)}/plan")
    expect(page.locator("h1")).to_contain_text("130 steps")
    page.locator(".way").first.tap()
    drawer = page.get_by_role("dialog").filter(has_text="Way out")
    expect(drawer).to_contain_text("is done and belongs to the way in force")
    page.locator(".el-drawer__close-btn:visible").tap()
    page.get_by_role("radiogroup", name="Stages").get_by_text("Fit in").tap()
    page.locator("#row-mounts_in .row").tap()
    expect(page.get_by_role("dialog").filter(has_text="Engine mounts")).to_contain_text(
        "the bolts would pull the box crooked"
    )
    page.locator(".el-drawer__close-btn:visible").tap()
    page.get_by_role("button", name="While it is open").tap()
    page.locator("select[name=part-gearbox_kind]").select_option("late spline")
    take(page, "stamped on the bell")
    expect(
        page.get_by_text("flat, Ring gear fine teeth, Gearbox late spline go together")
    ).to_be_visible()
    assert page.evaluate("document.documentElement.scrollWidth <= 820")
    context.close()


def test_what_the_mechanic_knows(demo, mk):
    """By keys: four figures before a lift, one after the other; something hidden at a step; another
    way; who comes; the vehicle in other words.
    """
    build = new_build(demo.url, sheet="powertrain-up")
    mk.go(f"{demo.url}/builds/{build}/steps/weight_known", "Weight")
    expect(mk.primary()).to_be_disabled()
    mk.key("e")
    for figure in ("210 kg", "200", "2.1 m", "1850"):
        mk.page.keyboard.type(figure)
        mk.page.keyboard.press("Enter")
        expect(
            mk.page.locator(".asks").get_by_text(figure.split()[0], exact=False).first
        ).to_be_visible()
    expect(mk.page.locator(".asks .block")).to_contain_text(
        "200 kg, is less than Weight of the unit as it is lifted, 210 kg"
    )
    expect(mk.page.get_by_role("button", name="Done in another way")).to_have_count(0)
    mk.page.locator("input[name=said-gear_rating]").fill("500")
    mk.page.keyboard.press("Enter")
    expect(mk.page.locator(".asks .block")).to_have_count(0)
    mk.key(" ")
    mk.go(f"{demo.url}/builds/{build}/steps/starter_off", "Starter off")
    mk.key("n")
    dialog = mk.page.get_by_role("dialog")
    dialog.get_by_role("button", name="Hidden here").click()
    dialog.locator("input[name=add-words]").fill("a nut behind the lower bolt")
    mk.page.keyboard.press("Enter")
    expect(mk.page.get_by_text("Hidden: a nut behind the lower bolt (MK)")).to_be_visible()
    expect(dialog).to_be_hidden()
    mk.key("n")
    dialog.get_by_role("button", name="Another way").click()
    dialog.locator("input[name=add-words]").fill("How the lower bolt is reached")
    for k, name in enumerate(("From below", "Through the arch")):
        dialog.locator(f"input[name=way-{k}]").fill(name)
        dialog.locator(f"input[name=does-{k}]").fill("long bar")
    dialog.locator("input[name=add-because]").fill("the bar fits")
    dialog.get_by_role("button", name="Into the plan").click()
    expect(dialog).to_be_hidden()
    mk.go(f"{demo.url}/builds/{build}/hunt", "to hunt")
    mk.page.get_by_role("button", name="people").first.click()
    mk.page.locator("input[name=comes]").fill("Ada, Saturday")
    mk.page.keyboard.press("Enter")
    expect(mk.page.locator("input[name=comes]")).to_have_count(0)
    mk.go(f"{demo.url}/builds/{build}/plan", "steps")
    expect(mk.page.get_by_text("How the lower bolt is reached: From below").first).to_be_visible()
    mk.page.get_by_role("button", name="The vehicle: ").click()
    mk.page.locator("input[name=vehicle-about]").fill("grey, 1991, rebuilt once")
    mk.page.keyboard.press("Enter")
    expect(mk.page.get_by_role("button", name="Say it so")).to_be_disabled()
    assert api(demo.url, f"/api/builds/{build}")["about"] == "grey, 1991, rebuilt once"
