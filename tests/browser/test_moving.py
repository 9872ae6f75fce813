"""A unit going in, by keyboard: placed, each voice, a move, a touch, back."""

from playwright.sync_api import expect

from tests.browser.regions import Bench, api
from tests.browser.test_parts import build_named


def test_a_unit_goes_in_move_by_move(demo, mk: Bench):
    page, build = mk.page, build_named(demo, "One: engine")
    mk.go(f"{demo.url}/builds/{build}/steps/engine_in")
    page.get_by_role("button", name="Everybody has a watch point").click()
    watch = page.get_by_role("form", name="Who watches what")
    watch.locator("input[name=watch-who-0]").fill("MK")
    watch.locator("input[name=watch-who-1]").fill("JB")
    watch.locator("input[name=watch-down]").fill("118")
    watch.locator("input[name=watch-word]").fill("MK")
    watch.get_by_role("button", name="Everybody is placed").click()
    moves = page.get_by_role("region", name="Moves")
    expect(moves).to_contain_text("Moves: shut till MK, JB have spoken")
    page.keyboard.press("ArrowDown")
    expect(moves.get_by_role("alert")).to_contain_text("down: shut till MK, JB have spoken")
    expect(moves.get_by_role("button", name="It was moved all the same")).to_be_visible()
    page.keyboard.press("Space")
    expect(moves).to_contain_text("Moves: shut till JB has spoken")
    page.keyboard.press("Space")
    expect(moves).to_contain_text("Moves: open")
    page.keyboard.type("20")
    expect(moves).to_contain_text("20, now the arrow")
    page.keyboard.press("ArrowDown")
    title = page.get_by_role("heading", level=1)
    expect(title).to_have_text("Last: down 20. Stopped, looking")
    on_its_way = page.get_by_role("region", name="On its way")
    expect(on_its_way).to_contain_text("98 mm")
    for width, height in ((1280, 800), (820, 1180)):
        page.set_viewport_size({"width": width, "height": height})
        for name in ("MK says clear", "It touches", "Secure now"):
            box = moves.get_by_role("button", name=name).bounding_box()
            assert box is not None
            assert box["y"] + box["height"] <= height, f"{name} lies below {width} x {height}"
    page.set_viewport_size({"width": 1280, "height": 800})
    page.keyboard.press("x")
    moves.locator("input[name=touch-where]").fill("sump lip")
    moves.get_by_role("button", name="JB says so").click()
    expect(title).to_have_text("It touches, JB: sump lip")
    page.keyboard.press("ArrowRight")
    expect(moves.get_by_role("alert")).to_contain_text("back the way it came")
    page.keyboard.press("ArrowUp")  # back is never shut; twenty holds
    expect(title).to_have_text("Last: up 20. Stopped, looking")
    for voice in ("MK, JB have", "JB has"):
        expect(moves).to_contain_text(f"shut till {voice} spoken")
        page.keyboard.press("Space")
    expect(title).to_have_text("Last: up 20. All clear")
    base = api(demo.url, f"/api/builds/{build}/steps/engine_in")["base"]
    assert any("118 mm down still to go" in o["words"] for o in base["obstacles"])
