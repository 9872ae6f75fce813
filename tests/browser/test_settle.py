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
