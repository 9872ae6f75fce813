"""One from the hook to settled, on a copy of its own: hung, in, tight, filled, cranked, fired, run,
cold again, lowered, driven, looked at again.
"""

from datetime import UTC, datetime, timedelta

from playwright.sync_api import expect

from tests.browser.hands import LASH, Hands, to_the_hook
from tests.browser.regions import Bench, api
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
    page, build = mk.page, build_named(demo, "One: engine")
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
    hands.fill("engine_oil_in", "4.2")
    hands.fill("coolant_in", "6.0")
    hands.step("feel_round")
    past.limit("no_short", lo="20 Ω")
    hands.go("shorts")
    page.keyboard.type("180")
    page.keyboard.press("Enter")
    mk.written("180")
    hands.step("shorts")
    hands.step("battery_on")
    climb(hands)
    settle(hands, demo)


def climb(hands: Hands) -> None:
    """Power, crank, fuel, fire, run; each rung is free once what shuts it is done."""
    for step in ("power_on", "crank_oil"):
        hands.run(step, oil="2.6", rpm="260")
        hands.off(step)
    for step in ("fuel_line_on", "plugs_in"):
        if step == "plugs_in":
            hands.past.figures(step)
        hands.step(step)
    hands.run("leak_look", oil="0")
    hands.off_after("leak_look", 64, oil="0.5")
    hands.step("spark_on")
    for step, coolant in (("first_fire", "24"), ("first_run", "84")):
        hands.run(step, oil="2.6", rpm="1300", coolant=coolant)
        if step == "first_run":
            hands.mk.key("i")
            hands.mk.written("idle: steady")
            hands.off_after(step, 95, oil="2.6", rpm="1300", coolant=coolant)
        else:
            hands.off(step)


def settle(hands: Hands, demo) -> None:
    """Cold again means a night; after a drive means that something says so."""
    mk, page = hands.mk, hands.page
    hands.step("bonnet_on")
    hands.go("cold_look")
    expect(page.get_by_text("it ran a short while ago")).to_be_visible()
    night = timedelta(hours=10)
    demo.workshop.clock = lambda: datetime.now(UTC) + night
    hands.step("cold_look")
    hands.sheet("lash_again", {f"again_{k}_{n}": LASH[k][0] for k in LASH for n in range(1, 5)})
    hands.step("vehicle_lowered")
    hands.go("mounts_again")
    expect(page.get_by_text("nothing says that it was driven")).to_be_visible()
    for km in ("81200", "81263"):
        page.locator("input[name=odometer]").fill(km)
        page.get_by_role("button", name="It reads this").click()
        mk.written(f"odometer: {km} km")
    hands.step("mounts_again")
    hands.step("check_500")
    rungs = api(hands.url, f"/api/builds/{hands.build}/gate")["rungs"]
    assert [r["rung"] for r in rungs if r["shut"]] == []
    mk.go(f"{hands.url}/builds/{hands.build}/settle")
    again = page.get_by_role("row").filter(has_text="Inlet 1, again")
    expect(again).to_contain_text("as it was")
    mk.go(f"{hands.url}/builds/{hands.build}/record")
    expect(page.get_by_role("heading", level=1)).to_be_visible()
