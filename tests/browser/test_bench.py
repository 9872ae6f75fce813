"""The benches by keyboard and touch: interruption, other figures, measuring and deciding, the first
start's STOP.
"""

import re

import pytest
from playwright.sync_api import expect

from tests.browser.regions import Bench, api, new_build, write


def engine(demo) -> str:
    """The id of the engine build of the demo."""
    return next(
        b["id"] for b in api(demo.url, "/api/shop")["builds"] if b["name"].startswith("One")
    )


def test_resumes_at_the_right_bolt(mortal, mk: Bench):
    """Shop, one press, the right bolt; after reload, a killed server and in a second window still
    the right one.
    """
    mk.go_shop(mortal.url)
    expect(mk.page.get_by_text("You stopped at bolt 6, stage 2")).to_have_count(1)
    mk.key("w")
    mk.shows("You stopped at bolt 6, stage 2, ").shows("min ago")
    expect(mk.page.locator(".hero")).to_contain_text("44")
    expect(mk.page.locator(".plate")).to_contain_text("31")
    second = Bench(mk.page.context.new_page()).go(mk.page.url, "bolt 6")
    mk.key(" ")
    mk.shows("Bolt 7, stage 2")
    mk.written("bolt 6, stage 2: wrench 44, bolt 50.3")
    second.shows("Bolt 7")
    mk.page.reload()
    mk.shows("Bolt 7, stage 2")
    mortal.kill()
    mortal.start()
    mk.page.reload()
    mk.shows("Bolt 7, stage 2")


def test_double_press_is_one_bolt(demo, mk: Bench):
    """A double click and a bouncing pedal write one line."""
    mk.go(f"{demo.url}/builds/{engine(demo)}", "bolt 6")
    mk.primary().dblclick()
    mk.shows("Bolt 7")
    mk.page.wait_for_timeout(700)
    mk.page.keyboard.press("PageDown")
    mk.page.keyboard.press("PageDown")
    mk.shows("Bolt 8")
    mk.page.wait_for_timeout(300)
    mk.shows("Bolt 8")


def test_pedal_strikes_and_c_checks_the_last_bolt(demo, mk: Bench):
    """Left, left, right asks for the reason of a strike and pulls no bolt; C writes the last bolt
    once more.
    """
    mk.go(f"{demo.url}/builds/{engine(demo)}", "bolt 6")
    mk.key("c")
    mk.page.get_by_role("dialog").get_by_role("button", name="It clicked without moving").click()
    mk.written("bolt 5, stage 2: wrench 44, bolt 50.3, checked again, it clicked without moving")
    mk.shows("Bolt 6, stage 2")
    mk.key("PageUp")
    mk.page.keyboard.press("PageUp")
    mk.page.keyboard.press("PageDown")
    dialog = mk.page.get_by_role("dialog")
    expect(dialog).to_contain_text("checked again")
    dialog.get_by_role("button", name="wrong figure").click()
    expect(dialog).to_be_hidden()
    mk.shows("Bolt 6, stage 2")


def test_bolt_outside_waits_at_the_next_stage(demo, mk: Bench):
    """Bolt 4 is over: the stage goes on, stage 3 waits; left with a reason it starts, and another
    figure is judged.
    """
    build = engine(demo)
    for bolt in range(6, 10):
        write(
            demo.url,
            build,
            {
                "kind": "fastener",
                "step": "head_bolts_tight",
                "bolt": bolt,
                "act": "clicked",
                "stage": 2,
            },
        )
    mk.go(f"{demo.url}/builds/{build}/steps/head_bolts_tight", "Bolt 10, stage 2")
    mk.key("e")
    mk.page.locator("input[name=other]").fill("46")
    mk.page.locator("input[name=other]").press("Enter")
    mk.written("wrench 46, bolt 52.6")
    mk.shows("Stage 3 waits until bolt 4 is put right")
    mk.press("Put bolt 4 right")
    expect(mk.page.get_by_text("begin again with it at stage 1")).to_be_visible()
    mk.page.get_by_role("dialog").get_by_role("button", name="Leave it, with a reason").click()
    mk.reason("well below the next stage", "Left with this reason")
    mk.shows("Stage 3 waits until bolt 10")
    mk.press("Put bolt 10 right")
    mk.page.get_by_role("dialog").get_by_role("button", name="It is out").click()
    for stage in (1, 2):
        mk.shows(f"Bolt 10, stage {stage}")
        mk.key(" ")
    mk.shows("Bolt 1, stage 3")


def test_what_waits_is_kept_in_the_browser(mortal, mk: Bench):
    """With the server gone an entry waits, survives a reload, and is written once when the server
    is back.
    """
    mk.go(f"{mortal.url}/builds/{engine(mortal)}", "bolt 6")
    mortal.kill()
    mk.key(" ")
    mk.written("not yet saved: fastener")
    mortal.start()
    mk.page.reload()
    mk.shows("Bolt 7")
    expect(mk.page.get_by_text("not yet saved: fastener")).to_have_count(0)
    lines = [
        line
        for line in api(mortal.url, f"/api/builds/{engine(mortal)}/log?step=head_bolts_tight")[
            "lines"
        ]
        if "bolt 6, stage 2" in line["text"]
    ]
    assert len(lines) == 1


def test_refused_entry_is_kept_until_dropped(demo, mk: Bench):
    """Two screens at one bolt: the later press is not written, says why, and can be dropped."""
    build = engine(demo)
    mk.go(f"{demo.url}/builds/{build}", "bolt 6")
    mk.page.route("**/ws/**", lambda route: route.abort())
    mk.page.evaluate("window.dispatchEvent(new Event('offline'))")
    with mk.page.expect_response("**/entries") as answer:
        write(
            demo.url,
            build,
            {
                "kind": "fastener",
                "step": "head_bolts_tight",
                "bolt": 6,
                "act": "clicked",
                "stage": 2,
            },
        )
        mk.page.locator("button.primary").dispatch_event("click")
    if answer.value.status == 409:
        expect(mk.page.get_by_text("Not written (fastener)")).to_be_visible()
        mk.press("Drop it")
        expect(mk.page.get_by_text("Not written (fastener)")).to_have_count(0)
    lines = [
        line
        for line in api(demo.url, f"/api/builds/{build}/log?step=head_bolts_tight")["lines"]
        if "bolt 6, stage 2" in line["text"]
    ]
    assert len(lines) == 1


def test_measure_judge_and_accept(demo, mk: Bench):
    """Thou and inches, a slip that is asked about, three verdicts, the working, and a concession in
    writing.
    """
    build = new_build(demo.url)
    mk.go(f"{demo.url}/builds/{build}/steps/bores", "Piston 1")
    mk.page.locator("input[name=reading]").fill("3.3054 in")
    expect(mk.page.locator("#figure")).to_contain_text("exactly 83.95716 mm")
    mk.read("3.3054 in")
    mk.page.locator("input[name=reading]").fill("8.3957")
    mk.page.locator("input[name=reading]").press("Enter")
    expect(mk.page.get_by_text("a decimal place off?")).to_be_visible()
    expect(mk.page.locator("input[name=reading]")).to_have_value("8.3957")
    mk.read("83.958")
    for typed in ("83.958", "83.958", *("84.006", "84.025", "2.4 thou", "84.006") * 2):
        mk.quiet().read(typed)  # the same figure twice is two readings only once the first is kept
    words = [mk.page.locator(".lanes .words").nth(k) for k in range(4)]
    for lane, expected in zip(
        words, ("inside", "too close to call", "outside", "inside"), strict=True
    ):
        expect(lane).to_contain_text(expected)
    expect(mk.page.locator("section.decision h2")).to_contain_text("Cylinder 4")
    mk.press("Cylinder 3")
    mk.page.locator("summary", has_text="Working").first.click()
    expect(mk.page.get_by_text("2.4 thou from the setting 84").first).to_be_visible()
    expect(mk.page.get_by_text("it cancels")).to_be_visible()
    mk.key("a")
    mk.key("4")
    mk.reason("Engine is sold with the van, stated in the bill", "Accepted")
    expect(mk.page.locator(".lanes .words").nth(2)).to_contain_text("accepted in writing")


def test_limit_edit_judges_again(demo, mk: Bench):
    """A limit edited on the figures page turns a verdict and says so; a bad figure is refused at
    its field.
    """
    build = engine(demo)
    mk.go(f"{demo.url}/builds/{build}/limits", "figures")
    mk.page.get_by_role("button", name="Piston to bore", exact=True).click()
    dialog = mk.page.locator("aside.drawer")
    dialog.locator("input[name=hi]").fill("0.05 bar")
    dialog.get_by_role("button", name="Write it").click()
    expect(dialog.get_by_role("alert")).to_contain_text("takes a length")
    dialog.locator("input[name=hi]").fill("0.050")
    dialog.get_by_role("button", name="Write it").click()
    dialog.get_by_role("button", name="It stands so in the same place").click()
    expect(mk.page.get_by_text("Cylinder 2: too close to call became outside")).to_be_visible()
    write(demo.url, build, {"kind": "note", "text": "still here"})


def test_silence_stops(demo, mk: Bench):
    """Nobody enters oil pressure: the screen says STOP and why; the attempt needs a cause before
    the next.
    """
    build = new_build(demo.url)
    mk.go(f"{demo.url}/builds/{build}/steps/first_fire", "Fire")
    write(
        demo.url,
        build,
        {
            "kind": "attempt started",
            "step": "first_fire",
            "attempt": "attempt-one",
            "reason": "rehearsing with the fuel off",
        },
    )
    mk.shows("Attempt 1")
    mk.page.wait_for_timeout(4000)
    mk.shows("STOP")
    expect(
        mk.page.get_by_text("No oil pressure of 1.0 bar entered by 5 s: key off").first
    ).to_be_visible()
    expect(mk.page.get_by_text("Pump relay out")).to_be_visible()
    mk.page.wait_for_timeout(600)  # past the fifth second, not on it
    mk.key("PageUp")
    mk.written("No oil pressure of 1.0 bar entered by 5 s")
    expect(mk.page.get_by_text("Attempt 1 was stopped")).to_be_visible()
    mk.page.locator("input[name=cause]").fill("sender plug off")
    mk.page.locator("input[name=change]").fill("plugged in")
    mk.press("Written")
    expect(mk.page.get_by_text("Attempt 1 was stopped")).to_have_count(0)


@pytest.mark.parametrize(("width", "height"), [(1280, 800), (820, 1180), (390, 844)])
def test_stop_and_what_is_seen_stand_on_the_first_screen(demo, mk: Bench, width, height):
    """While it runs, at every size and without scrolling: STOP and what is seen."""
    page, build = mk.page, new_build(demo.url)
    began = {"kind": "attempt started", "step": "first_fire", "attempt": "attempt-size"}
    write(demo.url, build, began | {"reason": "rehearsing with the fuel off"})
    page.set_viewport_size({"width": width, "height": height})
    mk.go(f"{demo.url}/builds/{build}/steps/first_fire")
    for name in ("STOP|Key is off", "Flames", "Fuel leak", "Leak", "Noise", "Smoke"):
        box = page.get_by_role("button", name=re.compile(f"^({name})")).first.bounding_box()
        assert box is not None, name
        assert box["y"] >= 0, (name, box)
        assert box["y"] + box["height"] <= height, (name, box)
    page.get_by_role("button", name=re.compile("^(STOP|Key is off)")).click()
    mk.written("key off after")


def test_a_clip_is_kept_also_when_the_key_goes_off_in_it(demo, mk: Bench):
    """One key begins it and one keeps it; the second of the run stands with it. The engine is
    stopped while another is on: that one is kept too.
    """
    build = new_build(demo.url)
    mk.go(f"{demo.url}/builds/{build}/steps/first_fire", "Fire")
    began = {"kind": "attempt started", "step": "first_fire", "attempt": "attempt-clip"}
    write(demo.url, build, began | {"reason": "rehearsing with the fuel off"})
    mk.shows("Attempt 1")
    mk.key("c")
    expect(mk.page.get_by_role("button", name="Recording, press to keep it")).to_be_visible()
    mk.page.wait_for_timeout(900)
    mk.key("c")
    mk.written("clip of 1 s: attempt 1, from")
    mk.key("c")
    expect(mk.page.get_by_role("button", name="Recording, press to keep it")).to_be_visible()
    mk.page.wait_for_timeout(900)
    mk.key("PageUp")
    expect(mk.page.get_by_label("clip: attempt 1")).to_have_count(2)
    clips = api(demo.url, f"/api/builds/{build}/steps/first_fire")["base"]["clips"]
    assert {c["attempt"] for c in clips} == {"attempt-clip"}
    assert clips[0]["at_s"] < clips[1]["at_s"]
    answer = mk.page.request.get(
        f"{demo.url}/api/clips/{clips[1]['clip']}", headers={"Range": "bytes=0-3"}
    )
    found = (answer.status, answer.headers["content-type"], answer.body())
    assert found == (206, "video/webm", b"\x1a\x45\xdf\xa3")


def test_two_samples_over_a_slow_wire(demo, mk: Bench):
    """The second figure is typed while the first is still on its way: both are written, and the key
    off after them.
    """
    build = new_build(demo.url)
    mk.go(f"{demo.url}/builds/{build}/steps/first_fire", "Fire")
    write(
        demo.url,
        build,
        {
            "kind": "attempt started",
            "step": "first_fire",
            "attempt": "attempt-two",
            "reason": "rehearsing with the fuel off",
        },
    )
    mk.shows("Attempt 1")
    mk.page.context.new_cdp_session(mk.page).send(
        "Network.emulateNetworkConditions",
        {"offline": False, "latency": 500, "downloadThroughput": -1, "uploadThroughput": -1},
    )
    field = mk.page.locator("input[name=oil]")
    for figure in ("1.5", "1.8"):
        field.fill(figure)
        field.press("Enter")
    expect(field).to_have_value("")
    mk.key("PageUp")
    expect(mk.page.get_by_text("Attempt 1").first).to_be_visible()
    mk.written("key off after")
    said = [
        line["text"] for line in api(demo.url, f"/api/builds/{build}/log?step=first_fire")["lines"]
    ]
    assert [
        figure for figure in ("1.5 bar", "1.8 bar") if any(figure in line for line in said)
    ] == ["1.5 bar", "1.8 bar"], said


def test_shut_rung_is_logged_with_a_reason(demo, mk: Bench):
    """Cranking is shut: an attempt needs a reason, is marked, and opens nothing."""
    build = new_build(demo.url)
    mk.go(f"{demo.url}/builds/{build}/steps/crank_oil", "Crank")
    mk.confirm_caution()
    for box in mk.page.locator(".isolate .el-checkbox").all():
        box.click()
    mk.primary().click()
    mk.reason("to see the lamps only", "Log this attempt all the same")
    mk.shows("Attempt 1")
    mk.key(" ")
    mk.written("key off after")
    expect(mk.page.get_by_text("gate was shut.")).to_be_visible()
    gates = api(demo.url, f"/api/builds/{build}/gate")["rungs"]
    assert gates[1]["answer"] == "shut"


def test_dry_run_only_in_writing(demo, mk: Bench):
    """Coolant: without it fire stays shut; the written decision is shown on the gate."""
    build = new_build(demo.url)
    mk.go(f"{demo.url}/builds/{build}/steps/coolant_in", "Coolant")
    mk.press("Decide one dry run in writing")
    mk.reason("to hear the tappets before the radiator comes", "Decided")
    expect(mk.page.get_by_text("one run of 30 s at most without coolant").first).to_be_visible()


def test_a_reload_while_hollet_is_stopped(mortal, browser):
    """The last bench is there as it was kept, and says so; a bolt waits over two reloads; back
    again, everything is fresh and the bolt is written.
    """
    context = browser.new_context(
        viewport={"width": 1280, "height": 800}, reduced_motion="reduce", service_workers="allow"
    )
    context.add_init_script("localStorage.setItem('hollet.who', 'MK')")
    bench = Bench(context.new_page())
    page = bench.page
    gone = page.get_by_text("Hollet cannot be reached. This is as it stood at")
    here = f"{mortal.url}/builds/{engine(mortal)}/steps/head_bolts_tight"
    bench.go(here, "bolt 6")
    page.wait_for_function("() => navigator.serviceWorker.controller !== null")
    page.wait_for_function("async () => (await (await caches.open('shell')).keys()).length > 20")
    page.reload()  # now every answer goes through it
    bench.shows("bolt 6").quiet()
    expect(gone).to_have_count(0)
    mortal.kill()
    page.reload()
    bench.shows("bolt 6")
    expect(gone).to_be_visible()
    bench.key(" ")
    expect(page.get_by_text("not yet saved: fastener")).to_be_visible()
    page.reload()
    expect(page.get_by_text("not yet saved: fastener")).to_be_visible()
    expect(gone).to_be_visible()
    mortal.start()
    page.reload()
    bench.written("bolt 6, stage 2: wrench 44, bolt 50.3")
    bench.shows("Bolt 7")
    expect(gone).to_have_count(0)
    context.close()


def test_what_was_typed_comes_back_with_its_refusal(demo, mk: Bench):
    """A note, a thing left open and a strike that the server refuses: the dialog stands there again
    with all that was typed, and says why.
    """
    refused = {"reason_code": "x", "message": "not in words that can be kept", "newer": []}
    mk.go(f"{demo.url}/builds/{engine(demo)}", "bolt 6")
    entries = "**/api/builds/*/entries"
    mk.page.route(entries, lambda route: route.fulfill(status=422, json=refused))
    dialog = mk.page.get_by_role("dialog")

    mk.key("n")
    dialog.locator("textarea").fill("gasket is the old kind")
    dialog.get_by_role("button", name="Into the log").click()
    expect(dialog.get_by_role("alert")).to_contain_text("not in words that can be kept")
    expect(dialog.locator("textarea")).to_have_value("gasket is the old kind")
    mk.key("Escape")
    expect(dialog).to_be_hidden()

    mk.key("o")
    dialog.locator("input[name=what]").fill("Breather hose off")
    dialog.get_by_role("button", name="Left open").click()
    expect(dialog.get_by_role("alert")).to_contain_text("not in words that can be kept")
    expect(dialog.locator("input[name=what]")).to_have_value("Breather hose off")
    mk.key("Escape")
    expect(dialog).to_be_hidden()

    mk.key("Backspace")
    dialog.get_by_label("or another reason").fill("the wrench slipped")
    dialog.get_by_role("button", name="Strike it").click()
    expect(dialog.get_by_role("alert")).to_contain_text("not in words that can be kept")
    expect(dialog.get_by_label("or another reason")).to_have_value("the wrench slipped")
    mk.page.unroute(entries)
    dialog.get_by_role("button", name="Strike it").click()
    mk.written("struck")
