"""Two on the gear rung, on a build of its own: the gearbox out and in again past the screen, then
the rung in the browser, shut until the brake holds the wheels.
"""

import re
import uuid
from typing import Any

from playwright.sync_api import expect

from tests.browser.hands import BOOK, Hands, Past
from tests.browser.regions import Bench, api

WHY = "looked at by two of us, and it is so"
SAID = {"unit_weight": "80", "box_weight": "60", "gear_rating": "1000", "jack_rating": "500"}


class Through(Past):
    """Every step of a plan past the screen, each by what its bench asks for."""

    def finish(self, step: str) -> None:
        """All that it asks for told, and done; what only order holds is passed by a reason."""
        for _ in range(8):
            bench = self.bench(step)
            if bench["base"]["settled"]:
                return
            self.tell(step, bench)
            base = self.bench(step)["base"]
            if all(o["by"] == "reason" for o in base["obstacles"]):
                if base["obstacles"] and base["other_box"]:
                    self.write(step, "confirmed", what=base["other_box"])
                self.write(step, "done", **({"reason": WHY} if base["obstacles"] else {}))
                return
        raise AssertionError(f"{step}: {[o['words'] for o in base['obstacles']]}")

    def tell(self, step: str, bench: Any) -> None:
        """Boxes, captures, figures, bolts, readings, the fluid: whatever is missing."""
        base = bench["base"]
        if base["box"] and not base["confirmed"]:
            self.write(step, "confirmed", what=base["box"])
        for capture in base["captures"]:
            if capture["todo"]:
                about = {"about": "capture", "thing": capture["id"]}
                self.write(step, "decision", reason="drawn in the paper book", **about)
        for asked in bench.get("asks") or ():
            if asked["words"] is None:
                typed = SAID.get(asked["id"], "100")
                self.write(step, "said", figure=asked["id"], typed=typed, sure=True)
        for count in base["counts"]:
            if count["out"] is None:
                self.write(step, "counted out", item=count["item"], out=count["count"])
        for orient in base["orients"]:
            if not orient["seen"]:
                self.write(step, "confirmed", what=orient["how"])
        if base["lifts"] and base["lift"] is None:
            strap = {"name": "strap", "limit": "500 kg", "where": "leg"}
            how = {"mass": "60 kg", "mass_from": "weighed", "legs": 2, "leg": "900 mm"}
            about = {"what": "gearbox", "apart": "500 mm", "elements": [strap], "sure": True}
            self.write(step, "lift said", **how, **about)
        self.around(step)
        self.walk(step, bench.get("sweep"))
        joint = bench.get("joint")
        if joint and not base["waits"]:
            if joint["waits"] and joint["condition"]:
                self.write(step, "confirmed", what=joint["condition"])
            self.tight(step)
        self.figure(step, bench)

    def walk(self, step: str, sweep: Any) -> None:
        """Every place right, every line that is back seen."""
        for place in sweep["places"] if sweep else ():
            if place["left"]:
                things = [thing["id"] for thing in place["things"]]
                self.write(step, "swept", things=things, found="right")
        for tie in sweep["ties"] if sweep else ():
            self.write(None, "tie proven", item=tie["item"], how="seen")

    def figure(self, step: str, bench: Any) -> None:
        """Readings of 1 within limits that hold them; a fluid to its level."""
        for result in bench.get("results", ()):
            if result["limit"]["lo"] is None and result["limit"]["hi"] is None:
                self.limit(result["limit"]["id"], hi="1000")
        tools = {tool["id"]: tool for tool in bench.get("tools", ())}
        for spec in bench.get("readings", ()):
            if spec["entry"] is None:
                tool = tools[spec["tools"][0]]
                own = {"typed": ["1"], "unit": tool["unit"], "instrument": tool["id"]}
                own |= {"state": spec["state"], "datum": spec["datum"], "sure": True}
                self.write(step, "reading", reading=spec["id"], **own)
        if bench["kind"] == "fill" and not bench["typed"]:
            amount = bench["amount"]
            if amount["lo"] is None and amount["hi"] is None:
                about = {"limit": amount["id"], "version": amount["version"], "source": BOOK}
                self.plan(act="limit", lo="2", hi="4", **about)
            own = {"typed": ["3"], "unit": "L", "instrument": "j1", "sure": True}
            self.write(step, "reading", reading=step, **own)
            self.write(step, "confirmed", what=bench["level"])


def test_two_on_the_gear_rung(demo, mk: Bench):
    """Shut while nobody has proven the brake, by name; then free, tried, and stopped by hand."""
    page = mk.page
    made = {"id": str(uuid.uuid4()), "who": "TR", "name": "Two: on the gear rung", "vehicle": "Two"}
    sheets = {"sheets": ["gearbox-out", "timing-gear"], "about": "on stands"}
    build = api(demo.url, "/api/builds", made | sheets)["id"]
    past = Through(demo.url, build)
    hands = Hands(mk, past)
    for row in hands.rows():
        if row["id"] == "brakes_proven":
            break
        past.finish(row["id"])
    hands.go("gear_tried")
    expect(
        page.get_by_text(re.compile("nobody has proven the brake", re.IGNORECASE))
    ).to_be_visible()
    hands.step("brakes_proven")
    hands.step("gears_dead")
    gear = next(
        r for r in api(demo.url, f"/api/builds/{build}/gate")["rungs"] if r["rung"] == "gear"
    )
    assert not gear["shut"], gear["reasons"]
    hands.run("gear_tried", rpm="850")
    hands.off("gear_tried")
    attempts = hands.bench("gear_tried")["attempts"]
    assert [a["passed"] for a in attempts] == [True]
