"""Leaks: a union that leaks twice comes apart; dry only at the end of its time; pump off in one
press at every size, with the server gone.
"""

from playwright.sync_api import Locator, expect

from tests.browser.regions import Bench, api
from tests.browser.test_parts import build_named


def as_it_is(look: Locator) -> None:
    """Pressed by its pump, and cold."""
    look.get_by_role("button", name="Under pressure").click()
    look.get_by_role("button", name="Cold").click()


def test_a_union_that_leaks_twice_comes_apart(demo, mk: Bench):
    """Primed, it drips; nipped by 30°, it is damp again: no second nip. Dry is shut for ten
    seconds, then it is said by one key.
    """
    page, build = mk.page, build_named(demo, "One: engine")
    mk.go(f"{demo.url}/builds/{build}/gate")
    page.get_by_role("button", name="Fluids and leaks").click()
    look = page.get_by_role("form", name="Look for leaks")
    expect(look).to_contain_text("no mark has grown anywhere")
    begin = look.get_by_role("button", name="It is up: look now")
    expect(begin).to_be_disabled()
    as_it_is(look)
    look.get_by_role("button", name="Hands clear of fan and belts").click()
    begin.click()
    wet = page.get_by_role("form", name="A wet place")
    wet.locator("input[name=leak-name]").fill("Cooler union")
    wet.locator("select[name=leak-joint]").select_option("flare")
    wet.get_by_role("button", name="Drips").click()
    place = page.get_by_role("region", name="Cooler union")
    expect(place).to_contain_text("drips")
    page.keyboard.press("Space")  # pump off
    expect(place).to_contain_text("nip it up once, 60° at most")
    place.locator("input[name=mend-turn]").fill("70")
    place.get_by_role("button", name="Nipped up", exact=True).click()
    expect(place.get_by_role("alert")).to_contain_text("may be drawn 60° in all")
    place.locator("input[name=mend-turn]").fill("30")
    place.get_by_role("button", name="Nipped up", exact=True).click()
    expect(place).to_contain_text("30° of 60°")
    as_it_is(look)
    look.get_by_role("button", name="Hands clear of fan and belts").click()
    begin.click()
    expect(page.get_by_role("heading", level=1)).to_contain_text("Cooler union, look 2")
    page.keyboard.press("u")
    expect(place).to_contain_text("damp")
    page.keyboard.press("y")
    expect(page.get_by_role("alert")).to_contain_text("dry is said after 10 s of looking")
    page.get_by_role("button", name="Stop it").click()
    expect(place).to_contain_text("pressure off; apart: seat, flare and thread")
    expect(place.get_by_role("button", name="Nipped up", exact=True)).to_have_count(0)
    place.get_by_role("button", name="Apart and made anew").click()
    expect(place.get_by_role("button", name="Nipped up", exact=True)).to_be_visible()
    fire = next(
        r for r in api(demo.url, f"/api/builds/{build}/gate")["rungs"] if r["rung"] == "fire"
    )
    assert any("Cooler union" in item["what"] for item in fire["items"])


def test_pump_off_is_one_press_at_every_size_and_kept_without_the_server(demo, mk: Bench):
    page, build = mk.page, build_named(demo, "Two: gearbox")
    mk.go(f"{demo.url}/builds/{build}/leaks")
    look = page.get_by_role("form", name="Look for leaks")
    for need in ("On stands before anybody is under it",):
        look.get_by_role("button", name=need).click()
    as_it_is(look)
    look.get_by_role("button", name="It is up: look now").click()
    for width, height in ((1280, 800), (820, 1180), (390, 844)):
        page.set_viewport_size({"width": width, "height": height})
        for name in ("Stop it", "It burns"):
            box = page.get_by_role("button", name=name).bounding_box()
            assert box is not None
            assert box["y"] + box["height"] <= height, f"{name} lies below {width} x {height}"
    page.set_viewport_size({"width": 1280, "height": 800})
    page.context.set_offline(True)
    page.keyboard.press("Space")
    expect(page.get_by_text("not yet saved").first).to_be_visible()
    page.context.set_offline(False)
    expect(page.get_by_role("button", name="Stop it")).to_have_count(0)
    log = api(demo.url, f"/api/builds/{build}/log")["lines"]
    assert any(line["text"].startswith("pressure off after") for line in log)
