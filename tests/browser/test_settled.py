"""Three rechecked and settled, on a copy of its own: the nut drawn again, heights read until they
rest, every joint looked at as often as it has to be, and the record.
"""

from datetime import UTC, datetime, timedelta

from playwright.sync_api import expect

from tests.browser.hands import Hands, Past
from tests.browser.regions import Bench, api
from tests.browser.test_parts import build_named

AGAIN = ("nuts_again", "u_bolts_again")


def test_three_is_rechecked_and_settled(demo, mk: Bench):
    page, build = mk.page, build_named(demo, "Three")
    past = Past(demo.url, build)
    hands = Hands(mk, past)
    rungs = {r["rung"]: r for r in api(demo.url, f"/api/builds/{build}/gate")["rungs"]}
    assert rungs["drive"]["shut"]
    assert "U-bolts, right" in " ".join(rungs["drive"]["reasons"])
    past.write("u_bolts_final_right", "confirmed", what="Chocked both ways, no jack in it")
    past.tight("u_bolts_final_right")
    for days, km in ((3, "61420"), (30, "62010")):
        demo.workshop.clock = lambda days=days: datetime.now(UTC) + timedelta(days=days)
        driven(hands, km, "640")
        found = [o["words"] for o in past.bench("heights_creep")["base"]["obstacles"]]
        assert any("over a shorter way" in words for words in found) is (days == 3), found
    for step in (*AGAIN, "heights_creep"):
        hands.step(step)
    rungs = api(demo.url, f"/api/builds/{build}/gate")["rungs"]
    assert [r["reasons"] for r in rungs if r["shut"]] == []
    mk.go(f"{demo.url}/builds/{build}/settle")
    expect(page.get_by_role("region", name="Rear left")).to_contain_text("rests")
    fit = page.get_by_role("list", name="Fit to")
    expect(fit.get_by_role("listitem").nth(3)).to_contain_text("Drive: yes")
    mk.go(f"{demo.url}/builds/{build}/record")
    expect(page.get_by_role("region", name="Open")).to_contain_text("nothing is open")


def driven(hands: Hands, km: str, left: str) -> None:
    """The dial read, every joint that is due seen to hold, the heights read again."""
    page, mk = hands.page, hands.mk
    for step in AGAIN:
        hands.go(step)
        looks = page.get_by_role("region", name="Looked at again")
        if step == AGAIN[0]:
            looks.locator("input[name=odometer]").fill(km)
            looks.get_by_role("button", name="It reads this").click()
            mk.written(f"odometer: {km} km")
        for joint in hands.bench(step)["base"]["looks"]["joints"]:
            assert joint["ready"], joint["waits"]
            looks.get_by_role("article", name=joint["name"], exact=True).get_by_role(
                "button", name="held"
            ).click()
            mk.written(f"{joint['name']} looked at again")
    height = {"creep_l": left, "creep_r": "650"}
    hands.past.read("heights_creep", "r1", height)
