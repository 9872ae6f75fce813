"""What a hand does beside the sheet: a carrier between its packs, one part changed, a part that
goes in first, what was altered, a sum that is kept, rows of an exchange, rags counted.
"""

from playwright.sync_api import expect

from tests.browser.regions import Bench, api, new_build, refused, write
from tests.browser.test_measuring import read
from tests.browser.test_parts import build_named


def test_a_carrier_whose_shim_moved_is_read_anew(demo, mk: Bench):
    """Packs typed, a slip of the decimal asked; the old backlash proves nothing."""
    page, build = mk.page, build_named(demo, "Two: rear axle")
    write(
        demo.url,
        build,
        {"kind": "reopened", "step": "backlash_set", "reason": "the pattern lies at the heel"},
    )
    mk.go(f"{demo.url}/builds/{build}/steps/backlash_set", "Backlash 0.16 mm: inside")
    mk.key("k")
    page.locator("input[name=pack_near]").fill("17.6")
    page.locator("input[name=pack_far]").fill("2.14")
    page.locator("input[name=pack_far]").press("Enter")
    page.get_by_role("button", name="Yes, as typed").wait_for()
    page.locator("input[name=pack_near]").fill("1.76")
    page.locator("input[name=pack_far]").press("Enter")
    mk.written("1.76")
    bench = api(demo.url, f"/api/builds/{build}/steps/backlash_set")
    assert bench["carrier"]["verdict"] != "inside"
    assert not bench["carrier"]["ready"]
    answer = refused(demo.url, build, {"kind": "done", "step": "backlash_set"})
    assert "Backlash" in answer["message"]


def test_one_bearing_changed_asks_for_what_hangs_on_it(demo, mk: Bench):
    """By one press the readings behind it are out of date, and their steps are not done."""
    page, build = mk.page, build_named(demo, "Two: rear axle")
    mk.go(f"{demo.url}/builds/{build}/steps/zero_play")
    page.get_by_text("If one part alone is changed").click()
    page.get_by_role("button", name="It was changed").first.click()
    mk.written("carrier bearing")
    bench = api(demo.url, f"/api/builds/{build}/steps/backlash_set")
    assert bench["base"]["status"]["status"] != "done"
    assert all(r["judgement"]["verdict"] != "inside" for r in bench["results"])


def test_this_first(demo, mk: Bench):
    """One key and the part: a step before the one in hand; why is asked at the end."""
    page, build = mk.page, build_named(demo, "Two: rear axle")
    mk.go(f"{demo.url}/builds/{build}/steps/runout_set")
    mk.key("n")
    page.get_by_role("button", name="This first").first.click()
    page.locator("input[name=first-part]").fill("Oil catcher behind the wheel")
    page.locator("input[name=first-part]").press("Enter")
    mk.shows("Oil catcher behind the wheel")
    held = api(demo.url, f"/api/builds/{build}/steps/runout_set")["base"]["waits"]
    assert [w for w in held if "Oil catcher" in str(w)]
    mk.go(f"{demo.url}/", "")
    mk.in_shop()
    mk.key("x")
    card = page.get_by_role("dialog", name="Close the evening")
    expect(card).to_contain_text("Oil catcher behind the wheel")


def test_a_wire_is_tied_only_when_it_is_proven(demo, mk: Bench):
    """On the list of what is not as it left the works: joined, proven in words, then tied."""
    page, build = mk.page, build_named(demo, "One, clutch")
    mk.go(f"{demo.url}/builds/{build}/changed", "1 still to be settled").quiet()
    page.get_by_role("button", name="It is proven").click()
    expect(page.locator("p.problem")).to_contain_text("say how it was proven")
    page.locator("input[name=wire-proof]").fill("lamp lit while the loom was moved")
    page.get_by_role("button", name="It is proven").click()
    expect(page.get_by_text("proven, its ties loose", exact=True)).to_be_visible()
    page.get_by_role("button", name="Ties final").click()
    mk.shows("2 things not as they left the works")
    expect(page.locator("h1")).not_to_contain_text("still")


def test_a_sum_kept_says_when_what_went_in_changed(demo, mk: Bench):
    """A reading of the build taken by its name; read anew, the sum says so at its step."""
    page, build = mk.page, build_named(demo, "Two: rear axle")
    mk.go(f"{demo.url}/builds/{build}/steps/runout_set")
    mk.key("n")
    page.get_by_role("button", name="A sum").click()
    page.get_by_role("link", name="Reckon it").click()
    page.locator("input[name=sought]").fill("backlash factor")
    page.get_by_role("button", name="Backlash factor, learnt").click()
    page.locator("select[name=from-before]").select_option(label="Backlash, tooth 1, 0.15 mm")
    page.locator("input[name=after]").fill("0.27")
    page.locator("input[name=move]").fill("0.14")
    page.locator("input[name=move]").press("Enter")
    page.get_by_role("button", name="Keep it at the step").click()
    page.get_by_role("link", name="Back to the step").click()
    kept = page.get_by_role("region", name="Sums kept here")
    expect(kept).to_contain_text("Backlash, tooth 1")
    read(demo.url, build, "backlash_set", "d1", {"lash_1": "0.18"})
    page.reload()
    expect(kept).to_contain_text("Backlash, tooth 1 was 0.15 mm and is 0.18 mm")


def test_rags_are_counted_out(demo, mk: Bench):
    """Three went in and two came out: it stays open, and says so."""
    page, build = mk.page, build_named(demo, "Two: rear axle")
    rags = {
        "kind": "left open",
        "step": "runout_set",
        "item": "rags",
        "what": "Rags in the tubes",
        "blocks": "gear",
        "undo": "out, counted",
        "sort": "cover",
        "count": 3,
    }
    write(demo.url, build, rags)
    mk.go(f"{demo.url}/builds/{build}/steps/runout_set")
    mk.key("l")
    page.locator("input[name=out-rags]").fill("2")
    row = page.get_by_role("listitem").filter(has_text="Rags in the tubes")
    row.get_by_role("button", name="Undone").click()
    expect(page.get_by_text("3 went in, 2 came out").first).to_be_visible()
    frame = api(demo.url, f"/api/builds/{build}")["frame"]
    assert [i["what"] for i in frame["left_open"] if i["id"] == "rags"]


def test_rows_that_nobody_decided_hold_the_end(demo, mk: Bench):
    """A row is said in two presses; the list closes only when nothing is left on the old one."""
    page, build = mk.page, new_build(demo.url, "Exchange", "engine-dressed")
    mk.go(f"{demo.url}/builds/{build}/steps/swap_rows")
    row = page.get_by_role("region", name="Rows").get_by_role("button", name="Water pump")
    expect(row).to_contain_text("assumed")
    row.click()
    page.get_by_role("button", name="on the bench").click()
    page.locator("input[name=row-place]").fill("bench, tray B")
    page.get_by_role("button", name="It is so").click()
    mk.written("water pump, thermostat: renewed, on the bench")
    expect(row).to_contain_text("on the bench")
    bench = api(demo.url, f"/api/builds/{build}/steps/rows_closed")
    assert bench["base"]["waits"]
