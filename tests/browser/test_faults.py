"""Something is wrong, in the browser: a symptom, a test by what was seen, the cause."""

from playwright.sync_api import expect

from tests.browser.regions import Bench, api
from tests.browser.test_parts import build_named


def test_a_fault_is_split_until_its_cause_is_found(demo, mk: Bench):
    page, build = mk.page, build_named(demo, "One, clutch")
    mk.go(f"{demo.url}/builds/{build}/gate")
    page.keyboard.press("x")
    page.locator("input[name=fault-words]").fill("a click, no more")
    page.get_by_role("button", name="The starter does not turn the engine").click()
    title = page.get_by_role("heading", level=1)
    expect(title).to_have_text("The starter does not turn the engine: 13 causes left")
    expect(
        page.locator("main")
    ).to_be_focused()  # what was pressed is gone: the next Tab is the test
    page.keyboard.press("Tab")
    expect(page.get_by_role("group", name="Seen now").get_by_role("button").first).to_be_focused()
    test = page.get_by_role("region", name="The test")
    answer = test.get_by_role("button", name="Stiff all round")
    expect(answer).to_be_disabled()
    seen = test.get_by_role("group", name="Seen now")
    for button in seen.get_by_role("button").all():
        button.click()
    answer.click()
    expect(title).to_have_text("The starter does not turn the engine: 3 causes left")
    causes = page.get_by_role("region", name="Causes left")
    causes.get_by_role("listitem").filter(has_text="A bolt too long").get_by_role("button").click()
    form = page.get_by_role("form", name="The cause")
    form.locator("input[name=fault-done]").fill("ok")
    form.get_by_role("button", name="Found and mended").click()
    expect(page.get_by_role("alert")).to_contain_text("how it was looked at")
    form.locator("input[name=fault-done]").fill("the right length in, it turns free by hand")
    form.get_by_role("button", name="Found and mended").click()
    expect(page.get_by_role("region", name="Found before")).to_contain_text("a bolt too long")
    items = [i for r in api(demo.url, f"/api/builds/{build}/gate")["rungs"] for i in r["items"]]
    assert not any(item["kind"] == "fault" for item in items)
