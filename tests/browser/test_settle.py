"""Heights that creep, in the browser: read again until they rest, beside the first figure."""

from playwright.sync_api import expect

from tests.browser.regions import Bench, api
from tests.browser.test_parts import build_named


def test_heights_creep_until_they_rest(demo, mk: Bench):
    page, build = mk.page, build_named(demo, "Three")
    mk.go(f"{demo.url}/builds/{build}/gate")
    page.keyboard.press("y")
    left = page.get_by_role("region", name="Rear left")
    expect(left).to_contain_text("creeps")
    expect(left).to_contain_text("−14 in 102 km, rests within 2")
    expect(page.get_by_role("region", name="Rear right")).to_contain_text("rests")
    row = page.get_by_role("row").filter(has_text="Rear left, again")
    expect(row).to_contain_text("655")
    expect(row).to_contain_text("641")
    fit = page.get_by_role("list", name="Fit to")
    expect(fit.get_by_role("listitem").first).to_contain_text("Roll: yes")
    expect(fit.get_by_role("listitem").nth(1)).to_contain_text("Tow: not yet")
    page.get_by_role("link", name="Rear left 641").click()
    base = api(demo.url, f"/api/builds/{build}/steps/heights_creep")["base"]
    assert any("Rear left: creeps" in o["words"] for o in base["obstacles"])


def test_a_complaint_waits_for_the_same_trial(demo, mk: Bench):
    page, build = mk.page, build_named(demo, "Three")
    mk.go(f"{demo.url}/builds/{build}/settle")
    block = page.get_by_role("region", name="Complaint")
    block.get_by_role("button", name="Write the complaint").click()
    block.locator("input[name=complaint-words]").fill("pulls to the left")
    block.locator("input[name=complaint-speed]").fill("at 80")
    block.get_by_role("button", name="towing").click()
    block.get_by_role("button", name="Write it").click()
    mine = block.get_by_role("article", name="pulls to the left")
    expect(mine).to_contain_text("the same trial: at 80, towing")
    mine.get_by_role("button", name="at 80").click()
    mine.get_by_role("button", name="gone").click()
    expect(mine).to_contain_text("that was another trial: at 80, towing")
    mine.get_by_role("button", name="towing").click()
    mine.get_by_role("button", name="gone").click()
    expect(mine).to_contain_text("gone, by the same trial")
    snags = page.get_by_role("region", name="Snags")
    snags.locator("input[name=snag-what]").fill("horn is weak")
    snags.get_by_role("button", name="road").click()
    snags.get_by_role("button", name="Write it").click()
    expect(snags.get_by_role("listitem")).to_contain_text("horn is weak")
    page.keyboard.press("Tab")
    page.get_by_role("button", name="The record").click()
    record = page.get_by_role("region", name="Complaint, and the same trial")
    expect(record).to_contain_text("pulls to the left")
    expect(record).to_contain_text("gone")
    expect(page.get_by_role("region", name="Open")).to_contain_text("horn is weak")
