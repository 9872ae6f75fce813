"""Taking down by keys, by touch and from a phone; bags, marks, the order back, and stopping at
once.
"""

import re

from playwright.sync_api import expect

from hollet.library.pictures import picture
from tests.browser.regions import Bench, api, new_build, write

PHOTO = {"name": "p.jpg", "mimeType": "image/jpeg", "buffer": picture("front_cover")}


def build_named(server, name: str) -> str:
    """A build of the demo by the beginning of its name."""
    return next(
        b["id"] for b in api(server.url, "/api/shop")["builds"] if b["name"].startswith(name)
    )


def log_off(bench: Bench, what: str, line: str = "") -> None:
    """Log a removal with the keyboard alone."""
    bench.key("w")
    bench.page.keyboard.type(what)
    if line:
        bench.page.keyboard.press("Enter")
        bench.page.keyboard.type(line)
        bench.page.keyboard.press("Enter")
        expect(bench.page.get_by_role("img", name="Fasteners to scale")).to_be_visible()
    bench.key(" ")
    bench.written(f"off: {what}")


def test_without_a_sheet_by_keys_alone(demo, mk):
    """Five things off, the order back with a reason for each, taken over by one key; a shortfall is
    said at refit.
    """
    build = new_build(demo.url, "Bare", "as-it-comes")
    mk.go(f"{demo.url}/builds/{build}/off", "What came off?")
    log_off(mk, "Fan cowl", "4 m6x12")
    log_off(mk, "Fan", "4 m6x16")
    log_off(mk, "Fan belt")
    mk.key("w")
    mk.page.keyboard.type("Pump")
    mk.page.get_by_role("button", name="M6×16", exact=True).press("Enter")
    mk.key("3")
    mk.page.get_by_role("button", name="it would spill").press("Enter")
    mk.key("PageDown")
    mk.written("off: Pump, bag 3: 3 × M6×16. Off first because it would spill")
    log_off(mk, "Pipe left")
    mk.key("u")
    mk.shows("The order back: 5 steps to put in")
    titles = mk.page.locator("ol > li .what p:first-child b")
    assert titles.all_inner_texts()[:5] == [
        "Pipe left: back on",
        "Pump: back on",
        "Fan belt: back on",
        "Fan: back on",
        "Fan cowl: back on",
    ]
    expect(mk.page.get_by_text("it came off first because it would spill")).to_be_visible()
    mk.press("assumed: say why")
    mk.reason("the belt runs round the fan", "That is why")
    expect(mk.page.get_by_text("the belt runs round the fan")).to_be_visible()
    mk.key(" ")
    mk.shows("The plan holds the order back")
    steps = api(demo.url, f"/api/builds/{build}")["frame"]["steps"]
    assert next((s["number"], s["title"]) for s in steps if s["stage"] == "fit_in") == (
        "7.01",
        "Pipe left: back on",
    )
    fan = next(s["id"] for s in steps if s["title"] == "Fan: back on")
    mk.go(f"{demo.url}/builds/{build}/steps/{fan}", "Fan: back on")
    mk.press("One out")
    expect(mk.page.get_by_text("3 of 4 M6×16 still in bag 2").first).to_be_visible()
    mk.press("One is lost")
    expect(mk.page.get_by_text("1 lost from bag 2")).to_be_visible()
    mk.press("All 2 out")
    mk.press("Replaced")
    mk.reason("a new one, 8.8", "Replaced")
    expect(mk.page.get_by_text("All out of bag 2.")).to_be_visible()


def test_by_touch_on_a_tablet(hanging, browser):
    """At the bell bolts: sizes and counts by touch, a pin on the photo, the odd one named; into bag
    5.
    """
    context = browser.new_context(
        viewport={"width": 820, "height": 1180}, has_touch=True, reduced_motion="reduce"
    )
    context.add_init_script("localStorage.setItem('hollet.who', 'TR')")
    bench = Bench(context.new_page())
    build = build_named(hanging, "Two")
    bench.go(f"{hanging.url}/builds/{build}/steps/bell_bolts_out", "Bell")
    page = bench.page
    page.get_by_role("button", name="one M12×55 less").tap()
    page.get_by_role("button", name="M10×40", exact=True).tap()
    expect(page.locator(".beside")).to_contain_text("6 pieces")
    page.locator(".picture").tap(position={"x": 30, "y": 30})
    page.locator("input[name=pinword]").fill("dowel")
    page.get_by_role("button", name="Kept", exact=True).tap()
    bench.written("7 dowel")
    bench.primary().tap()
    bench.written("done: Bell-housing bolts out")
    bags = api(hanging.url, f"/api/builds/{build}/takedown")["bags"]
    assert [(line["count"], line["size"], line["length"]) for line in bags[-1]["lines"]] == [
        (3, "M12", "55"),
        (2, "M12", "75"),
        (1, "M10", "40"),
    ]
    context.close()


def test_from_a_paired_phone(network, mk, browser):
    """The code on this machine lets the phone in; it logs with a photo; taken out, it is asked to
    pair again.
    """
    mk.go(f"{network.url}/phones", "0 phones and tablets")
    mk.key(" ")
    expect(mk.page.locator("svg[aria-label*='to scan']")).to_be_visible()
    code = mk.page.locator(".digits").inner_text()
    context = browser.new_context(
        viewport={"width": 390, "height": 844},
        has_touch=True,
        is_mobile=True,
        reduced_motion="reduce",
    )
    phone = Bench(context.new_page())
    page = phone.page
    phone.go(f"http://{network.outside}/", "This device is not paired yet")
    page.locator("input[name=code]").fill(code)
    page.locator("input[name=device]").fill("phone of TR")
    page.locator("input[name=who]").fill("TR")
    phone.primary().tap()
    phone.in_shop()
    build = build_named(network, "One")
    phone.go(f"http://{network.outside}/builds/{build}/off", "What came off?")
    page.get_by_role("button", name="Heat shield", exact=True).tap()
    page.get_by_role("button", name="left", exact=True).tap()
    page.get_by_role("button", name="M6×20", exact=True).tap()
    page.locator("input[name=photo]").set_input_files(PHOTO)
    expect(page.locator(".picture img")).to_be_visible()
    phone.primary().tap()
    phone.written("off: Heat shield left, bag 37")
    assert page.evaluate("document.documentElement.scrollWidth <= 390")
    box = phone.primary().bounding_box()
    assert box is not None
    assert 640 < box["y"] + box["height"] <= 844
    view = api(network.url, f"/api/builds/{build}/takedown")
    removal = next(r for r in view["removals"] if r["what"] == "Heat shield left")
    assert [p["removal"] for p in view["photos"]][-1] == removal["id"]
    mk.page.reload()
    mk.press("Take out phone of TR")
    expect(mk.page.get_by_text("taken out")).to_be_visible()
    page.goto(f"http://{network.outside}/")
    phone.shows("This device is not paired yet")
    context.close()


def test_what_must_be_kept_first(demo, mk):
    """The starter: held back until its wires are kept; a stroke short at refit stands in the gates
    until it is put right.
    """
    build = new_build(demo.url, "Marks", "gearbox-out")
    write(demo.url, build, {"kind": "done", "step": "battery_off", "reason": "for the test"})
    mk.go(f"{demo.url}/builds/{build}/steps/starter_off", "Starter off")
    expect(mk.primary()).to_be_disabled()
    mk.key("k")
    mk.page.get_by_role("dialog").get_by_role("button", name="Kept as found").click()
    expect(mk.page.get_by_role("alert")).to_contain_text("name each terminal")
    mk.page.keyboard.press("Escape")
    mk.keep_as_found("wires")
    expect(
        mk.page.locator("p.quiet", has_text="Kept as found: Starter terminals, B: black")
    ).to_be_visible()
    expect(mk.primary()).to_be_enabled()
    write(
        demo.url,
        build,
        {
            "kind": "captured",
            "step": "prop_shaft_off",
            "capture": "prop_mark",
            "strokes": 3,
            "place": "flange",
        },
    )
    mk.go(f"{demo.url}/builds/{build}/steps/prop_shaft_on", "")
    mk.press("It differs")
    mk.reason("the yoke was turned", "It differs")
    expect(mk.page.locator(".mark.differs")).to_contain_text("the yoke was turned")
    mk.page.get_by_role("button", name="one stroke less, Flange to flange").click()
    mk.press("In line")
    expect(mk.page.locator(".mark.differs")).to_contain_text("2 of 3 strokes in line")
    mk.go(f"{demo.url}/builds/{build}/gate", "")
    expect(mk.page.get_by_text("not as found, 2 of 3 strokes in line").first).to_be_visible()


def test_stop_at_once(hanging, mk):
    """One key and one touch: the list, each made safe by Space, the card; then on with the work."""
    build = build_named(hanging, "Two")
    mk.go(f"{hanging.url}/builds/{build}/steps/bell_bolts_out", "Bell")
    mk.key("s")
    mk.shows("Carried on 7 points")
    expect(mk.page.get_by_text("no, 2 of 3 would move")).to_be_visible()
    mk.key(" ")
    mk.press("up")
    mk.press("a storm")
    mk.shows("Secure now, 1 of")
    mk.page.get_by_role("group", name="Ground").get_by_role("button", name="hard").click()
    for point in ("gearbox tail", "rails of the block"):
        mk.page.locator("select[name=point]").select_option(point)
        mk.page.get_by_role("button", name="cradle", exact=True).click()
        mk.press("It stands there")
        expect(mk.page.get_by_text(f"cradle at {point}")).to_be_visible()
    done = mk.page.locator(".items .done")
    before = done.count()
    for k in range(mk.page.locator(".items li").count() - before):
        mk.key(" ")
        expect(done).to_have_count(before + k + 1)
    mk.shows("Made safe")
    mk.page.goto(f"{hanging.url}/builds/{build}/steps/bell_bolts_out")
    expect(mk.page.get_by_text("Work is stopped.")).to_be_visible()
    mk.press("What to make safe") if mk.page.get_by_role(
        "button", name="What to make safe"
    ).count() else mk.page.get_by_role("link", name="What to make safe").click()
    mk.shows("Made safe")
    mk.key("PageDown")
    mk.shows("Carried on")
    dark = mk.page.get_by_role("button", name="dark", exact=True)
    dark.click()  # at once, while "gone on" may still be on its way: it waits its turn
    expect(dark).to_have_attribute("aria-pressed", "true")
    mk.go(f"{hanging.url}/builds/{build}/steps/bell_bolts_out", "Bell")
    expect(mk.page.get_by_text("Dark:")).to_be_visible()


def test_forbidden_and_stuck(hanging, mk):
    """No support under the sill; heat stays shut after soaking, wiped or not, until it has waited,
    and near a seal; a blow asks for the nut first.
    """
    build = build_named(hanging, "Two")
    mk.go(f"{hanging.url}/builds/{build}/load", "Carried on")
    assert mk.page.locator("select[name=point] option[disabled]").count() >= 4
    mk.go(f"{hanging.url}/builds/{build}/steps/bell_bolts_out", "Bell")
    mk.key("u")
    dialog = mk.page.get_by_role("dialog")
    expect(dialog.get_by_text("2 Soak")).to_be_visible()
    dialog.get_by_role("button", name="2 Soak").click()
    dialog.get_by_role("button", name="Soaking now").click()
    expect(dialog.get_by_role("button", name="9 Heat")).to_be_disabled()
    dialog.locator("input[name=wiped]").check()
    expect(dialog.get_by_text("wipe it dry and wait 15 min").first).to_be_visible()
    expect(dialog.get_by_role("button", name="9 Heat")).to_be_disabled()
    expect(dialog.get_by_role("button", name="6 Strike")).to_be_disabled()
    dialog.locator("select[name=nut]").select_option("level")
    expect(dialog.get_by_role("button", name="6 Strike")).to_be_enabled()
    dialog.locator("input[value=seal]").check()
    expect(dialog.get_by_text("not here: rubber seal").first).to_be_visible()


def test_the_server_is_gone_in_the_middle_of_a_photo(mortal, mk):
    """The photo waits in the browser over a reload, and is written once when the server is back."""
    build = next(
        b["id"] for b in api(mortal.url, "/api/shop")["builds"] if b["name"].startswith("Two")
    )
    mk.go(f"{mortal.url}/builds/{build}/steps/bell_bolts_out", "Bell")
    before = len(api(mortal.url, f"/api/builds/{build}/takedown")["photos"])
    mortal.kill()
    mk.page.locator("input[name=photo]").set_input_files(PHOTO)
    expect(mk.page.get_by_text("not yet saved: photo")).to_be_visible()
    mortal.start()
    mk.page.reload()
    mk.written("photo: Bell-housing bolts out")
    assert len(api(mortal.url, f"/api/builds/{build}/takedown")["photos"]) == before + 1


def test_a_photo_waits_over_refusals(hanging, mk):
    """Too large for the server, then not paired any more, then too many requests: the photo stays
    on the device, over a reload too, and goes when it may.
    """
    build = build_named(hanging, "Two")
    refusal = {"refuse": True, "reason_code": "x", "message": "not now", "field": None, "newer": []}
    status = [413]
    mk.page.route(
        "**/api/photos",
        lambda route: (
            route.fulfill(status=status[0], json=refusal) if status[0] else route.fallback()
        ),
    )
    mk.go(f"{hanging.url}/builds/{build}/steps/bell_bolts_out", "Bell")
    before = len(api(hanging.url, f"/api/builds/{build}/takedown")["photos"])
    mk.page.locator("input[name=photo]").first.set_input_files(PHOTO)
    refused = mk.page.locator(".notwritten")
    expect(refused).to_contain_text("Not written (photo): not now")
    mk.page.reload()
    expect(refused).to_contain_text("Not written (photo): not now")
    status[0] = 401
    mk.press("Write it again")
    mk.shows("This device is not paired yet")
    status[0] = 429
    mk.go(f"{hanging.url}/builds/{build}/steps/bell_bolts_out", "Bell")
    expect(
        mk.page.get_by_text(re.compile(r"Not written \(photo\)|not yet saved: photo")).first
    ).to_be_visible()
    if refused.count():
        mk.press("Write it again")
    expect(mk.page.get_by_text("not yet saved: photo")).to_be_visible()
    mk.page.unroute("**/api/photos")  # it is tried again by itself
    mk.written("photo: Bell-housing bolts out")
    expect(refused).to_have_count(0)
    assert len(api(hanging.url, f"/api/builds/{build}/takedown")["photos"]) == before + 1


def test_a_note_is_spoken(hanging, mk):
    """V held at a step, and a reason for order said aloud: both are kept, can be heard, and are put
    into words where the evening closes; not where somebody can be hurt.
    """
    build = build_named(hanging, "Two")
    mk.go(f"{hanging.url}/builds/{build}/steps/shaft_play_felt", "Shafts turned")
    mk.page.keyboard.down("v")
    expect(mk.page.get_by_text("Listening: let V go")).to_be_visible()
    mk.page.wait_for_timeout(400)
    mk.page.keyboard.up("v")
    mk.written("a spoken note")
    mk.press("Skip")
    say = mk.page.get_by_role("dialog").get_by_role("button", name="Hold and say it")
    say.dispatch_event("pointerdown")
    expect(mk.page.get_by_role("button", name="Listening")).to_be_visible()
    mk.page.wait_for_timeout(400)
    mk.page.get_by_role("button", name="Listening").dispatch_event("pointerup")
    expect(mk.page.get_by_role("dialog")).to_be_hidden()
    expect(mk.page.locator("h1")).not_to_contain_text("Shafts turned")
    lines = api(hanging.url, f"/api/builds/{build}/log?step=shaft_play_felt")["lines"]
    assert [line["text"] for line in lines[:3]] == [
        "skipped: Shafts turned, floats read before opening, said aloud",
        "a spoken note",
        "a spoken note",
    ]
    mk.go(f"{hanging.url}/builds/{build}/steps/engine_held", "Engine held")
    mk.go(f"{hanging.url}/builds/{build}/steps/box_out", "drawn back")
    mk.press("Skip")
    expect(mk.page.get_by_role("dialog")).to_be_visible()
    expect(
        mk.page.get_by_role("dialog").get_by_role("button", name="Hold and say it")
    ).to_have_count(0)
    mk.page.keyboard.press("Escape")
    mk.go(f"{hanging.url}/builds/{build}/load", "Carried on")
    forms = mk.page.get_by_label("Spoken, not in words yet").locator("form")
    expect(forms).to_have_count(2)
    forms.first.locator("input").fill("no play that a hand can feel")
    forms.first.get_by_role("button", name="In words").click()
    expect(forms).to_have_count(1)
    sound = next(line["sound"] for line in lines if line["sound"])
    answer = mk.page.request.get(f"{hanging.url}/api/sounds/{sound}")
    assert (answer.headers["content-type"], answer.body()[:4]) == (
        "audio/webm",
        b"\x1a\x45\xdf\xa3",
    )


def test_two_devices_at_one_removal(hanging, mk):
    """The other one was quicker: this screen's bag is not written, says why, and can be dropped;
    nothing is lost silently.
    """
    build = build_named(hanging, "Two")
    mk.page.route_web_socket(
        "**/ws/live", lambda socket: None
    )  # this screen hears nothing of the other
    mk.go(f"{hanging.url}/builds/{build}/steps/bell_bolts_out", "Bell")
    mk.quiet()
    write(
        hanging.url,
        build,
        {
            "kind": "bagged",
            "step": "bell_bolts_out",
            "bag": 7,
            "lines": [{"count": 6, "size": "M12"}],
        },
    )
    mk.primary().click()
    expect(mk.page.get_by_text("Not written (bagged):")).to_be_visible()
    expect(mk.page.locator(".notwritten")).to_contain_text("1 newer line stands there")
    mk.press("Drop it")
    expect(mk.page.get_by_text("Bag 7").first).to_be_visible()
    assert [
        b["bag"]
        for b in api(hanging.url, f"/api/builds/{build}/takedown")["bags"]
        if b["owner"] == "bell_bolts_out"
    ] == [7]


def test_find_by_key(demo, mk):
    """A slash, a word, Enter: at the step; a bag by its number."""
    build = build_named(demo, "One")
    mk.go(f"{demo.url}/builds/{build}/steps/head_bolts_tight", "bolt 6")
    mk.key("/")
    expect(mk.page.locator("input[name=find]")).to_be_focused()
    mk.page.keyboard.type("starter cable")
    mk.page.keyboard.press("Enter")
    mk.shows("Bolt 1, stage 1")
    assert mk.page.url.endswith("/steps/starter_on")
    mk.key("/")
    expect(mk.page.locator("input[name=find]")).to_be_focused()
    mk.page.keyboard.type("bag 12")
    expect(
        mk.page.get_by_role("button", name="Bag 12: Oil pressure switch, 1 of 1 in it")
    ).to_be_visible()
    mk.page.keyboard.press("Enter")
    expect(mk.page.get_by_role("region", name="Bag 12")).to_contain_text("Goes back at 7.20a")
