"""The first start rehearsed in the browser: a hand in time and a hand too late, one press at every
size; no log grows.
"""

from playwright.sync_api import Page, expect

from tests.browser.regions import Bench, api
from tests.browser.test_parts import build_named


def begin(page: Page, fault: str) -> None:
    page.keyboard.press("f")
    choice = page.get_by_role("group", name="Choose the fault")
    choice.get_by_role("button", name=fault).click()
    expect(page.get_by_role("button", name="STOP")).to_be_visible()


def test_a_start_is_rehearsed_and_nothing_is_written(demo, mk: Bench):
    page, build = mk.page, build_named(demo, "One: engine")
    head = api(demo.url, f"/api/builds/{build}")["frame"]["head"]
    mk.go(f"{demo.url}/rehearsal")
    begin(page, "The lamp lies")
    page.wait_for_timeout(3000)
    page.keyboard.press("p")
    expect(page.get_by_role("button", name="Lamp")).to_contain_text("out")
    page.wait_for_timeout(1000)
    page.keyboard.press("o")
    expect(page.get_by_role("button", name="Oil")).to_contain_text("0.3")
    page.wait_for_timeout(1300)
    page.keyboard.press("Space")
    expect(page.get_by_role("heading", name="Key back in time")).to_be_visible()
    strip = page.get_by_role("region", name="Rehearsal")
    expect(strip.get_by_role("listitem").filter(has_text="The lamp lies")).to_contain_text(
        "in time"
    )
    expect(page.get_by_text("on a rebuilt engine only the gauge is pressure")).to_be_visible()
    page.keyboard.press("a")  # the same once more, and nobody turns the key
    expect(page.get_by_role("button", name="STOP")).to_be_visible()
    expect(page.get_by_role("heading", name="The key was not turned back")).to_be_visible()
    expect(page.get_by_text("Too late by")).to_be_visible()
    assert api(demo.url, f"/api/builds/{build}")["frame"]["head"] == head


def test_stop_is_in_reach_at_every_size_and_goes_before_a_focused_gauge(demo, mk: Bench):
    page = mk.page
    mk.go(f"{demo.url}/rehearsal")
    begin(page, "Revs stay up")
    for width, height in ((1280, 800), (820, 1180), (390, 844)):
        page.set_viewport_size({"width": width, "height": height})
        box = page.get_by_role("button", name="STOP").bounding_box()
        assert box is not None
        assert box["y"] + box["height"] <= height, f"STOP lies below {width} x {height}"
    page.set_viewport_size({"width": 1280, "height": 800})
    page.get_by_role("button", name="Revs").click()
    page.wait_for_timeout(200)
    page.keyboard.press("Space")  # the key, not the gauge once more
    expect(page.get_by_role("button", name="Deal another")).to_be_visible()
