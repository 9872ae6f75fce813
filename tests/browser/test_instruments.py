"""Instruments that send, in the browser: a wrench, its trace, two screens, a dial, and silence."""

import threading
from collections import deque
from contextlib import contextmanager

import pytest
from playwright.sync_api import expect

from hollet.cli.device import run_script
from hollet.devices.standins.gauge import Gauge
from hollet.devices.standins.link import open_link
from hollet.devices.standins.wrench import Wrench
from tests.browser.regions import Bench, api, write
from tests.browser.test_parts import build_named

STEP = "head_bolts_tight"


@contextmanager
def speaking(url: str, standin):
    """A stand-in that speaks to a server; what it gives takes commands."""
    commands: deque[str] = deque()
    ended = threading.Event()
    link = open_link(url.replace("http", "ws"))
    thread = threading.Thread(target=run_script, args=(standin, link, commands, ended.is_set))
    thread.start()
    try:
        yield commands.append
    finally:
        ended.set()
        thread.join(10)
        link.close()


@pytest.fixture
def head(demo, mk: Bench):
    """The head of One, with W6 in hand, drawn on."""
    build = build_named(demo, "One: engine")
    decision = {"kind": "decision", "step": STEP, "about": "wrench", "wrench": "w6"}
    write(demo.url, build, decision)
    mk.go(f"{demo.url}/builds/{build}/steps/{STEP}")
    return build


def joint(demo, build: str) -> dict:
    """The head as the server has it."""
    return api(demo.url, f"/api/builds/{build}/steps/{STEP}")["joint"]


def to_last_stage(demo, build: str) -> None:
    """Bolt 4 put right, and all at stage 3, by typed figures."""

    def said(bolt: int, **own) -> None:
        write(demo.url, build, {"kind": "fastener", "step": STEP, "bolt": bolt, **own})

    def read(bolt: int, figure: str) -> None:
        said(bolt, act="read", typed=figure)

    for bolt in range(6, 11):
        read(bolt, "50.1")
    said(4, act="state", tightness="out")
    read(4, "25.1")
    read(4, "50.1")
    for bolt in range(1, 11):
        read(bolt, "80.2")


def test_a_wrench_sends_and_the_hand_stays_dirty(demo, mk: Bench, head: str):
    """Nothing is pressed: the bolt that is next gets what was pulled, drawn as it runs."""
    page = mk.page
    expect(page.get_by_text("W6 is not heard")).to_be_visible()
    with speaking(demo.url, Wrench("W6-0001", 4)) as do:
        expect(page.get_by_text("W6 sends, battery 71 %")).to_be_visible()
        do("pull 50 from 25")
        expect(page.get_by_role("region", name="Torque and angle")).to_be_visible()
        mk.written("bolt 6, stage 2: 50.")
        mk.shows("Bolt 7, stage 2")
        do("pull 56 from 25")
        mk.written("bolt 7, stage 2: 56.")
        expect(page.get_by_text("Put bolt 4 right")).to_be_visible()
        do("silent 4")
        expect(page.get_by_text("W6 is silent: hold")).to_be_visible()
    expect(page.get_by_text("W6 is unplugged or out of reach: hold")).to_be_visible()
    assert [b["verdict"] for b in joint(demo, head)["bolts"]][5:7] == ["inside", "outside"]


def test_a_bolt_that_yields_is_out_and_a_fresh_one_begins_anew(demo, mk: Bench, head: str):
    """Three good ones, then one whose climb falls: out, fresh, from stage 1; the others wait."""
    page = mk.page
    to_last_stage(demo, head)
    mk.go(f"{demo.url}/builds/{head}/steps/{STEP}")
    with speaking(demo.url, Wrench("W6-0001", 4)) as do:
        for bolt in (1, 2, 3):
            mk.shows(f"Bolt {bolt}, stage 4")
            do("turn 90 from 80")
            mk.written(f"bolt {bolt}, stage 4: 90")
        do("turn 75 from 80 yields 60")
        mk.shows("Bolt 4 yields at 6")
        expect(page.get_by_text("where 3 bolts of this stage went")).to_be_visible()
        expect(mk.primary()).to_contain_text("Bolt 4 is out")
        do("turn 90 from 80")
        expect(page.get_by_role("alert").first).to_contain_text("It comes out first")
        mk.key(" ")
        mk.shows("a fresh one in its place first")
        expect(mk.primary()).to_contain_text("A fresh one is in")
        mk.key(" ")
        mk.shows("Bolt 4, stage 1")
        for pull in ("pull 25", "pull 50 from 25", "pull 80 from 50", "turn 90 from 80"):
            stage = joint(demo, head)["next_stage"]
            do(pull)
            mk.written(f"bolt 4, stage {stage}")
        mk.shows("Bolt 5, stage 4")
    bolt = joint(demo, head)["bolts"][3]
    assert (bolt["stage"], bolt["verdict"], bolt["broken"]) == (4, "inside", False)


def test_two_screens_and_one_wrench_write_one_line(demo, mk: Bench, head: str, browser):
    """Both show the same bolt; the pull is one line. A pull that was another bolt's goes there."""
    other = browser.new_context(viewport={"width": 820, "height": 1180}).new_page()
    other.add_init_script("localStorage.setItem('hollet.who', 'TR')")
    other.goto(f"{demo.url}/builds/{head}/steps/{STEP}")
    expect(other.get_by_text("W6 is not heard")).to_be_visible()
    with speaking(demo.url, Wrench("W6-0001", 4)) as do:
        for page in (mk.page, other):
            expect(page.get_by_text("W6 sends, battery 71 %")).to_be_visible()
        before = api(demo.url, f"/api/builds/{head}/log")["total"]
        for bolt in (6, 7):
            do("pull 50 from 25")
            mk.written(f"bolt {bolt}, stage 2: 50.")
            expect(other.locator(".written li").last).to_contain_text(f"bolt {bolt}, stage 2: 50.")
        assert api(demo.url, f"/api/builds/{head}/log")["total"] == before + 2
    mk.key("k")
    mk.reason("8", "It was this one")
    mk.written("bolt 8, stage 2")
    mk.shows("Bolt 7, stage 2")
    assert [b["stage"] for b in joint(demo, head)["bolts"]][6:8] == [1, 2]
    other.context.close()


def test_a_dial_sends_by_its_button(demo, mk: Bench):
    """Held until it is zeroed; then the reading is taken; what was sent elsewhere is asked."""
    page, build = mk.page, build_named(demo, "Two: rear axle")
    with speaking(demo.url, Gauge("dial", "D2-0001", 2)) as do:
        mk.go(f"{demo.url}/builds/{build}/steps/runout_set")
        do("press")
        for _ in range(500):  # it is heard before anybody waits for it
            if demo.workshop.sent():
                break
            page.wait_for_timeout(20)
        tools = page.locator("select.entry").first
        tools.select_option("d2")
        asked = page.get_by_text("Is it for here?")
        expect(asked).to_be_visible()
        expect(page.get_by_text("was not zeroed since it is on").first).to_be_visible()
        page.get_by_role("button", name="Not for here").click()
        expect(asked).to_be_hidden()
        do("zero")
        do("set 0.02")
        do("press")
        mk.written("Crown wheel runout: sent 0.0")
    body = api(demo.url, f"/api/builds/{build}/steps/runout_set")["results"][0]
    assert body["judgement"]["verdict"] == "inside"


def test_a_device_is_a_tool_of_the_shop_once_somebody_says_so(demo, mk: Bench):
    page = mk.page
    with speaking(demo.url, Gauge("micrometer", "MX-9", 2)):
        page.goto(f"{demo.url}/tools")
        heard = page.get_by_role("region", name="Instruments that send")
        expect(heard).to_contain_text("MX-9")
        heard.get_by_label("MX-9 is").select_option("m3")
        expect(page.get_by_text("M3 speaks for itself now.")).to_be_visible()
        expect(heard).to_contain_text("M3 sends")
    expect(heard).to_contain_text("unplugged")


def test_a_second_stroke_goes_where_the_mechanic_says(demo, mk: Bench, head: str):
    """40 of 50 on bolt 6, then a pull to 50: nobody guesses; bolt 6 it was, and 7 is still next."""
    page = mk.page
    with speaking(demo.url, Wrench("W6-0001", 4)) as do:
        expect(page.get_by_text("W6 sends, battery 71 %")).to_be_visible()
        do("pull 40 from 25")
        mk.written("bolt 6, stage 2: 40.")
        do("pull 50 from 40")
        expect(page.get_by_text("Say which bolt", exact=False).first).to_be_visible()
        assert joint(demo, head)["bolts"][6]["stage"] == 1
        page.get_by_role("button", name="Say which bolt").click()
        mk.reason("6", "It was this one")
        mk.written("bolt 6, stage 2: 50.")
    bolts = joint(demo, head)["bolts"]
    assert (bolts[5]["verdict"], bolts[6]["stage"]) == ("inside", 1)


def test_gauges_that_send_stop_an_engine_without_a_hand(demo, mk: Bench):
    """Oil and revs come by themselves each second; the pressure falls, and it is STOP."""
    build = build_named(demo, "One: engine")
    attempt = "attempt-by-gauges"
    began = {"kind": "attempt started", "step": "fire", "attempt": attempt, "isolated": []}
    step = first_run(demo, build)
    mk.go(f"{demo.url}/builds/{build}/steps/{step}")
    with (
        speaking(demo.url, Gauge("oil", "P1-0001", 7)) as oil,
        speaking(demo.url, Gauge("revs", "N1-0001", 8)) as revs,
    ):
        oil("set 2.4")
        revs("set 1300")
        mk.page.wait_for_timeout(1200)
        write(demo.url, build, began | {"step": step, "reason": "to see the gauges send"})
        chart = mk.page.get_by_role("img", name="Courses over time")
        expect(chart).to_be_visible()
        expect(mk.page.get_by_text("2.4 bar", exact=True)).to_be_visible()
        oil("set 0.1")
        expect(mk.page.get_by_role("heading", level=1)).to_have_text("STOP")
        mk.page.keyboard.press("Space")
    log = api(demo.url, f"/api/builds/{build}/log")["lines"]
    assert any("sent by P1, N1" in line["text"] for line in log)


def first_run(demo, build: str) -> str:
    """The rung that fires, and its limits given."""
    rows = api(demo.url, f"/api/builds/{build}/plan")["rows"]
    return next(row["id"] for row in rows if row["kind"] == "run" and "fire" in row["id"])
