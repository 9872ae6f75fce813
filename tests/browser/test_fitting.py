"""Fits and groups in the browser: shims out of the drawer, valves changed about, a shaft that is
locked in its order, a bolt for one use.
"""

from playwright.sync_api import expect

from tests.browser.regions import Bench, api, limit, new_build, refused, write
from tests.browser.test_measuring import read
from tests.browser.test_parts import build_named

NAMES = [f"set_{k}_{v}" for k in range(1, 5) for v in ("in", "out")]
LASHES = (
    "0.10 0.11",
    "0.24 0.25",
    "0.30 0.31",
    "0.36 0.37",
    "0.19 0.20",
    "0.24 0.25",
    "0.20 0.21",
    "0.26 0.27",
)


def test_shims_out_of_the_drawer(demo, mk: Bench):
    """Two depths, the kit as on paper, the proposal by Space; inside after the last reading."""
    page = mk.page
    build = new_build(demo.url, "Gap", "running-gear-measured")
    limit(demo.url, build, "bearing_gap", lo="1.50", hi="2.50")
    for reading, tool, typed in (
        ("depth_a", "t1", "62.41"),
        ("depth_a", "t1", "62.42"),
        ("depth_b", "t1", "49.14"),
        ("depth_b", "t1", "49.13"),
        ("bar_thick", "m1", "10.002"),
    ):
        read(demo.url, build, "release_gap", tool, {reading: typed})
    read(demo.url, build, "release_gap", "c1", {"plate_thick": "0"})
    mk.go(f"{demo.url}/builds/{build}/steps/release_gap", "what lies in the drawer?")
    page.locator("input[name=kit]").fill("0.25 x 0")
    page.locator("input[name=kit]").press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("1 to 99 of one size")
    page.locator("input[name=kit]").fill("0.25 x 2, 0.50, 1.00 x 2")
    page.locator("input[name=kit]").press("Enter")
    mk.written("Shims behind the release bearing, in the drawer")
    expect(page.get_by_text("Put in, thick one first")).to_be_visible()
    page.get_by_role("button", name="1.50").press("Enter")
    expect(page.locator(".huge")).to_contain_text("1.50")
    page.get_by_role("button", name="1.25").press("Enter")
    mk.key(" ")
    mk.written("1.00, 0.25 in")
    mk.shows("once more with the shims in")


def test_valves_changed_about(demo, mk: Bench):
    """Eight lashes, eight shims in one line; the moves in their order; held until read again."""
    page = mk.page
    build = new_build(demo.url, "Valves", "engine-measured")
    limit(demo.url, build, "lash_in", lo="0.15", hi="0.25")
    limit(demo.url, build, "lash_out", lo="0.20", hi="0.30")
    for name, typed in zip(NAMES, LASHES, strict=True):
        read(demo.url, build, "lash_shimmed", "f1", {name: typed})
    write(demo.url, build, {"kind": "done", "step": "lash_found", "reason": "read on paper before"})
    mk.go(f"{demo.url}/builds/{build}/steps/lash_shimmed", "how thick are they?")
    fields = {
        "shims": "2.65 2.60 2.50",
        "spares": "2.60 2.55",
        "sold_from": "2.00",
        "sold_to": "3.20",
        "sold_each": "0.05",
    }
    for name, typed in fields.items():
        page.locator(f"input[name={name}]").fill(typed)
    page.locator("input[name=shims]").press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("3 shims for 8 valves")
    expect(page.locator("input[name=spares]")).to_have_value("2.60 2.55")
    page.locator("input[name=shims]").fill("2.65 2.60 2.50 2.55 2.60 2.70 2.60 2.65")
    page.locator("input[name=shims]").press("Enter")
    mk.shows("to change about")
    expect(page.get_by_role("region", name="As one hand does it")).to_contain_text("lift out")
    mk.key(" ")
    mk.written("Valve lash set by shims:")
    mk.shows("Valve 1 inlet")
    bench = api(demo.url, f"/api/builds/{build}/steps/lash_shimmed")
    held = next(r for r in bench["results"] if r["name"] == "1 inlet")
    assert held["judgement"]["words"] == "read before its shim was changed: read it again"


def test_a_shaft_locked_in_the_wrong_order(demo, mk: Bench):
    """The bearing before the box is refused; told all the same, it has to come loose."""
    page, build = mk.page, build_named(demo, "One, clutch")
    step = {"kind": "fastener", "step": "joints_lock"}
    early = {**step, "joint": "shaft_bearing", "bolt": 1, "act": "state", "tightness": "snug"}
    answer = refused(demo.url, build, early)
    assert answer["reason_code"] == "locked_too_early"
    assert "is locked before Bearing screws of the shaft" in answer["message"]
    mk.go(f"{demo.url}/builds/{build}/steps/joints_lock", "Shaft locked")
    expect(page.get_by_role("img", name="Lock B: Joint at the steering box")).to_be_visible()
    mk.key(" ")
    mk.written("bolt 1, stage 1: wrench 32, bolt 32.0")
    expect(page.get_by_role("img", name="Mark B")).to_be_visible()
    mk.key(" ")
    mk.written("bolt 1 marked")
    expect(page.get_by_role("img", name="Lock C")).to_be_visible()
    write(
        demo.url,
        build,
        {"kind": "reopened", "step": "insertion_read", "reason": "it moved as the box was locked"},
    )
    page.reload()
    mk.shows("A, B were tight before the place was found: loosen them")
    expect(page.locator(".m-early")).to_have_count(2)


def test_a_bolt_for_one_use_is_not_used_twice(demo, mk: Bench):
    """Drawn, loosened: the bench asks for a fresh one, and takes no click before."""
    page, build = mk.page, build_named(demo, "One, clutch")
    loose = {"kind": "fastener", "step": "joints_lock", "joint": "column_joint", "bolt": 1}
    write(demo.url, build, {**loose, "act": "state", "tightness": "loosened again"})
    mk.go(f"{demo.url}/builds/{build}/steps/joints_lock")
    expect(page.get_by_text("is for one use and had it").first).to_be_visible()
    answer = refused(demo.url, build, {**loose, "act": "clicked", "stage": 1})
    assert answer["reason_code"] == "one_use"
    page.get_by_role("button", name="Put bolt 1 right").click()
    page.get_by_role("button", name="It is out").click()
    mk.written("bolt 1 out")
    page.get_by_role("button", name="Put bolt 1 right").click()
    page.get_by_role("button", name="A fresh one is in its place").click()
    mk.written("bolt 1: a fresh one in its place")
    mk.key(" ")
    mk.written("bolt 1, stage 1: wrench 32")
