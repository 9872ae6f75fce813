"""A lift that is refused for its angle, and U-bolts that moved: in the browser."""

from playwright.sync_api import expect

from tests.browser.regions import Bench, api
from tests.browser.test_parts import build_named


def test_a_lift_is_refused_for_its_angle(demo, mk: Bench):
    """270 long over 480 is 27°: no lift, whatever the elements carry; longer slings open it."""
    page, build = mk.page, build_named(demo, "One: engine")
    mk.go(f"{demo.url}/builds/{build}/steps/sling_on_again")
    lift = page.get_by_role("region", name="The lift")
    expect(lift).to_contain_text("Nobody has said what hangs")
    lift.get_by_role("button", name="Say how it hangs").click()
    for name, text in {
        "lift-what": "engine",
        "lift-mass": "171 to 196 kg",
        "lift-leg": "270",
        "lift-apart": "480",
        "el-name-0": "eyes",
        "el-limit-0": "400 kg",
        "el-left-0": "0.7",
    }.items():
        lift.locator(f"input[name={name}]").fill(text)
    lift.get_by_role("button", name="It hangs so").click()
    expect(lift.get_by_role("alert")).to_contain_text("why it carries only 0.7")
    lift.locator("input[name=el-why-0]").fill("slant pull")
    lift.get_by_role("button", name="It hangs so").click()
    expect(lift.locator("h2")).to_contain_text("No lift: below 30°")
    expect(lift).to_contain_text("268 of 280 kg")
    base = api(demo.url, f"/api/builds/{build}/steps/sling_on_again")["base"]
    assert any(
        "not ready to lift" in o["words"] and o["by"] == "nothing" for o in base["obstacles"]
    )
    lift.get_by_role("button", name="It hangs otherwise").click()
    lift.locator("input[name=lift-leg]").fill("400")
    lift.get_by_role("button", name="It hangs so").click()
    expect(lift.locator("h2")).to_contain_text("Nothing said against this lift: weakest 55 % used")
    base = api(demo.url, f"/api/builds/{build}/steps/sling_on_again")["base"]
    assert not any("not ready to lift" in o["words"] for o in base["obstacles"])


def test_u_bolts_are_due_again_and_one_had_moved(demo, mk: Bench):
    """At 102 km; one lost 11, so it is looked at once more; then all held, and 800 km to go."""
    page, build = mk.page, build_named(demo, "Three")
    mk.go(f"{demo.url}/builds/{build}/steps/u_bolts_again")
    bolts = page.get_by_role("article", name="U-bolts, left")
    expect(bolts).to_contain_text("At 61320 km now")
    bolts.get_by_placeholder("3: 84, 5").fill("3: 99")
    bolts.get_by_role("button", name="These moved").click()
    expect(bolts).to_contain_text("1 of 4 moved, lost 11 N·m at most")
    expect(bolts).to_contain_text("At 61422 km 80 km")
    page.locator("input[name=odometer]").fill("61000")
    page.get_by_role("button", name="It reads this").click()
    expect(page.get_by_role("alert")).to_contain_text("less than the 61342 km")
    page.locator("input[name=odometer]").fill("61430")
    page.get_by_role("button", name="It reads this").click()
    expect(bolts).to_contain_text("At 61422 km now")
    bolts.get_by_role("button", name="All 4 held").click()
    expect(bolts).to_contain_text("At 62230 km 800 km")
    mk.go(f"{demo.url}/again", "due again")
    expect(page.get_by_role("region", name="Three: rear leaf springs")).to_contain_text("800 km")
