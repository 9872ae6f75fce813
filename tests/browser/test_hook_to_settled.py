"""One from the hook to settled, on a copy of its own: hung, in, tight, filled, cranked, fired, run,
cold again, lowered, driven, looked at again.
"""

from datetime import UTC, datetime

from playwright.sync_api import expect

from tests.browser.hands import Hands, to_the_hook
from tests.browser.regions import Bench
from tests.browser.test_parts import build_named


def hang(hands: Hands) -> None:
    """Nothing is lifted before it is said how it hangs."""
    page = hands.page
    hands.go("sling_on_again")
    lift = page.get_by_role("region", name="The lift")
    expect(lift).to_contain_text("Nobody has said what hangs")
    expect(hands.mk.primary()).to_be_disabled()
    lift.get_by_role("button", name="Say how it hangs").click()
    for name, text in {
        "lift-what": "engine without its gearbox",
        "lift-mass": "142 kg",
        "lift-leg": "600",
        "lift-apart": "480",
        "el-name-0": "sling S2",
        "el-limit-0": "500 kg",
    }.items():
        lift.locator(f"input[name={name}]").fill(text)
    lift.get_by_role("button", name="It hangs so").click()
    expect(lift.locator("h2")).to_contain_text("Nothing said against this lift")
    hands.step("sling_on_again")


def lower(hands: Hands) -> None:
    """In by three moves of 40, each voice heard."""
    page = hands.page
    hands.go("engine_in")
    page.get_by_role("button", name="Everybody has a watch point").click()
    watch = page.get_by_role("form", name="Who watches what")
    watch.locator("input[name=watch-who-0]").fill("MK")
    watch.locator("input[name=watch-who-1]").fill("JB")
    watch.locator("input[name=watch-down]").fill("80")
    watch.locator("input[name=watch-word]").fill("MK")
    watch.get_by_role("button", name="Everybody is placed").click()
    moves = page.get_by_role("region", name="Moves")
    for left in ("40 mm", "there"):
        for voice in ("MK, JB have", "JB has"):
            expect(moves).to_contain_text(f"Moves: shut till {voice} spoken")
            page.keyboard.press("Space")
        expect(moves).to_contain_text("Moves: open")
        page.keyboard.type("40")
        expect(moves).to_contain_text("40, now the arrow")
        page.keyboard.press("ArrowDown")
        expect(page.get_by_role("region", name="On its way")).to_contain_text(left)
    for voice in ("MK, JB have", "JB has"):
        expect(moves).to_contain_text(f"shut till {voice} spoken")
        page.keyboard.press("Space")
    hands.step("engine_in")


def test_one_from_hook_to_settled(demo, mk: Bench):
    build = build_named(demo, "One: engine")
    past = to_the_hook(demo.url, build)
    hands = Hands(mk, past)
    for step in ("centre_again", "ready_to_lift"):
        hands.step(step)
    hang(hands)
    lower(hands)
    for row in hands.rows():
        step = row["id"]
        if row["stage"] == "fit_in" and not hands.bench(step)["base"]["settled"]:
            if row["kind"] == "tighten":
                past.figures(step)
            hands.step(step)
    print("fit in", datetime.now(UTC))
