"""A mechanic who finishes any step of a plan in the browser, by what its bench offers; and who gets
a build as far as the hook beforehand, past the screen.
"""

import re
from typing import Any

import uuid_utils
from playwright.sync_api import Locator, expect

from tests.browser.regions import Bench, api, write

BOOK = "Dunlin workshop book p. 40"


class Hands:
    """One build, one page; `step` finishes a step, whatever its kind."""

    def __init__(self, mk: Bench, past: "Past") -> None:
        self.mk, self.page, self.past = mk, mk.page, past
        self.url, self.build = past.url, past.build

    def bench(self, step: str) -> Any:
        """What the server says of a step."""
        return self.past.bench(step)

    def rows(self) -> list[Any]:
        """The plan as it stands."""
        return list(api(self.url, f"/api/builds/{self.build}/plan")["rows"])

    def go(self, step: str) -> None:
        self.mk.go(f"{self.url}/builds/{self.build}/steps/{step}")

    def step(self, step: str) -> None:
        """Open it, deal with what it asks for, and call it done."""
        self.go(step)
        for _ in range(60):
            bench = self.bench(step)
            if bench["base"]["settled"]:
                return
            if bench.get("joint"):
                self.past.wrench(step)
            if not self._one(bench):
                self._primary(step, bench)

    def _one(self, bench: Any) -> bool:
        """Press one thing that the step asks for; false where nothing is left but its button."""
        page = self.page
        bags = page.get_by_role("button", name=re.compile(r"^All \d+ out$"))
        alike = page.get_by_role("button", name=re.compile("^(As found|In line)$"))
        chances = page.get_by_role("button", name="It is done", exact=True)
        base = bench["base"]
        if any(b["left"] for b in base["refit_bags"]):
            return self._press(bags)
        if any(c["state"] == "kept" for c in base["compares"]):
            return self._press(alike)
        if any(c["todo"] for c in base["chances"]):
            return self._press(chances)
        if base["box"] and not base["confirmed"]:
            return self._press(page.locator("button.confirm:not(.yes)"))
        for asked in bench.get("asks", ()):
            if asked["words"] is None:
                field = page.locator(f"input[name=said-{asked['id']}]")
                field.fill("3")
                field.press("Enter")
                expect(field).to_have_value("")
                return True
        joint = bench.get("joint")
        if joint is not None and joint["waits"] and joint["condition"]:
            return self._press(page.get_by_role("button", name="It is so", exact=True))
        return self._walk(bench.get("sweep"))

    def _walk(self, sweep: Any) -> bool:
        """What is left of a walk round: a place by its key, a thing alone, a tie that is back."""
        place = next((p for p in sweep["places"] if p["left"]), None) if sweep else None
        if place is not None:
            walk = self.page.get_by_role("region", name="The walk round")
            every = walk.get_by_role("button", name="seen here now")
            good = place["things"][0]["good"]
            one = walk.get_by_role("listitem").get_by_role("button", name=good, exact=True)
            (every if place["left"] > 1 else one).click()
            path = walk.get_by_role("group", name="Places")
            expect(path.get_by_role("button", name=place["name"])).to_contain_text("seen")
        elif sweep and sweep["ties"]:
            return self._press(self.page.get_by_role("button", name="Seen, its own place"))
        return bool(sweep and (place or sweep["ties"]))

    def _press(self, buttons: Locator) -> bool:
        """The first of some buttons; it is gone, or another stands there, when it was taken."""
        before = buttons.count()
        buttons.first.click()
        expect(buttons).to_have_count(max(0, before - 1))
        return True

    def _primary(self, step: str, bench: Any) -> None:
        """Space, and wait until the server has it."""
        own = "unfinished" if bench.get("joint") else ""  # its bolts are drawn by this very press
        held = [o["words"] for o in bench["base"]["obstacles"] if o["code"] != own]
        assert not held, f"{step} is held: {held}"
        expect(self.mk.primary()).to_be_enabled()
        seen = bench["base"]["seen"]
        self.mk.key(" ")
        for _ in range(100):
            now = self.bench(step)["base"]
            if now["seen"] != seen or now["settled"]:
                self.mk.quiet()
                return
            self.page.wait_for_timeout(50)
        raise AssertionError(f"{step}: nothing came of the press: {self.page.url}")

    def fill(self, step: str, amount: str) -> None:
        """So much poured in, the level seen."""
        self.go(step)
        self.page.keyboard.type(amount)
        self.page.keyboard.press("Enter")
        self.mk.written(amount)
        self.page.locator("button.level").click()
        expect(self.page.locator("button.level")).to_be_disabled()
        self.step(step)

    def sheet(self, step: str, figures: dict[str, str]) -> None:
        """A whole sheet of figures in the state that it asks for, by Enter alone."""
        self.go(step)
        self.mk.key("w")
        region = self.page.get_by_role("region", name="Type the sheet in")
        region.get_by_role("button", name="all read").click()
        for name, typed in figures.items():
            field = region.locator(f"input[name=in-{name}]")
            expect(field).to_be_focused()
            field.fill(typed)
            field.press("Enter")
        self.mk.written(next(reversed(figures.values())))
        self.step(step)

    def run(self, step: str, **figures: str) -> None:
        """Climb a rung: what is isolated seen, started, read once, key off as passed."""
        self.go(step)
        while self._one(self.bench(step)):
            pass
        for box in self.page.locator(".isolate .el-checkbox").all():
            box.click()
        self.mk.key(" ")
        self.mk.shows("Attempt")
        for name, typed in figures.items():
            self.page.locator(f"input[name={name}]").fill(typed)
        self.page.get_by_role("button", name="Entered").click()
        self.page.get_by_role("button", name="Lamp out").click()
        self.mk.written("lamp out")

    def off(self, step: str) -> None:
        """Key off; what was expected was seen, so it passes; then the step."""
        self.mk.key(" ")
        self.mk.written("key off after")
        self.step(step)

    def off_after(self, step: str, seconds: int, **figures: str) -> None:
        """Key off after longer than a test can wait, read every ten seconds, told past the screen;
        then the step.
        """
        running = self.bench(step)["running"]["id"]
        read = [{"t": t, **figures} for t in range(10, seconds, 10)]
        self.past.write(step, "samples", attempt=running, samples=read)
        told = {"after_s": seconds, "reason": "seen enough", "passed": True}
        self.past.write(step, "attempt ended", attempt=running, **told)
        self.step(step)


class Past:
    """The same build past the screen: figures out of the book, and what lies before the hook."""

    def __init__(self, url: str, build: str) -> None:
        self.url, self.build = url, build

    def write(self, step: str | None, kind: str, **own: Any) -> None:
        """One entry, at a step or at none."""
        at = {} if step is None else {"step": step}
        write(self.url, self.build, {"kind": kind, **at, **own})

    def bench(self, step: str) -> Any:
        return api(self.url, f"/api/builds/{self.build}/steps/{step}")

    def plan(self, **act: Any) -> None:
        """One change of the plan."""
        version = api(self.url, f"/api/builds/{self.build}/plan")["version"]
        said = {"id": str(uuid_utils.uuid7()), "who": "TR", "version": version, "acts": [act]}
        api(self.url, f"/api/builds/{self.build}/plan", said | {"reason": "found in the book"})

    def figures(self, step: str) -> None:
        """What the book says of a joint, and the bolts counted; a wrench that holds it."""
        joint = self.bench(step)["joint"]
        if any(stage["text"] == "not given" for stage in joint["stages"]):
            many = len(joint["stages"])
            own = [f"{25 * (k + 1) // many} N·m" for k in range(many)]
            about = {"joint": joint["id"], "version": joint["version"], "tolerance": "10 %"}
            self.plan(act="joint", stage=own, source=BOOK, **about)
            joint = self.bench(step)["joint"]
        if not joint["counted"]:
            about = {"joint": joint["id"], "version": joint["version"]}
            self.plan(act="count", bolts=len(joint["bolts"]), **about)

    def limit(self, name: str, **said: str) -> None:
        """A figure out of the book."""
        version = next(
            r["limit"]["version"]
            for row in api(self.url, f"/api/builds/{self.build}/plan")["rows"]
            for r in self.bench(row["id"]).get("results", ())
            if r["limit"]["id"] == name
        )
        self.plan(act="limit", limit=name, version=version, source=BOOK, **said)

    def wrench(self, step: str) -> None:
        """The first wrench that holds the stage that comes."""
        bench = self.bench(step)
        mine = (bench["joint"]["wrench"] or {}).get("id")
        usable = [w["id"] for w in bench["wrenches"] if w["usable"]]
        if usable and mine not in usable:
            self.write(step, "decision", about="wrench", wrench=usable[0])

    def tight(self, step: str) -> None:
        """Every bolt to its end, what is outside taken out and put in anew."""
        self.figures(step)
        for _ in range(100):
            self.wrench(step)
            bench = self.bench(step)
            joint = bench["joint"]
            if joint["begun"] and joint["final"]:
                return
            at = {"bolt": (joint["outside"] or [joint["next_bolt"]])[0]}
            if joint["outside"]:
                self.write(step, "fastener", act="state", tightness="out", **at)
            elif joint["next_stage"] is None:
                self.write(step, "fastener", act="marked" if joint["to_mark"] else "locked", **at)
            elif (
                joint["stages"][joint["next_stage"] - 1]["kind"] == "torque" and not bench["reads"]
            ):
                self.write(step, "fastener", act="clicked", stage=joint["next_stage"], **at)
            else:
                turned = {"stage": joint["next_stage"], "typed": bench["setting"]["figure"]}
                self.write(step, "fastener", act="read", **turned, **at)
        raise AssertionError(f"{step} never ends: {self.bench(step)['joint']['progress']}")

    def read(self, step: str, tool: str, figures: dict[str, str], unit: str = "mm") -> None:
        """Figures of a step, each in the state that its sheet asks for."""
        specs = {r["id"]: r for r in self.bench(step)["readings"]}
        for name, typed in figures.items():
            state, datum = specs[name]["state"], specs[name]["datum"]
            own = {"typed": [typed], "unit": unit, "state": state, "datum": datum}
            self.write(step, "reading", reading=name, instrument=tool, **own)

    def around(self, step: str) -> None:
        """Bags emptied, marks compared, what nobody reaches later seen."""
        base = self.bench(step)["base"]
        for bag in base["refit_bags"]:
            keys = ("size", "length", "odd", "holes")
            lines = [
                {"count": line["left"], **{k: line[k] for k in keys if line[k]}}
                for line in bag["lines"]
                if line["left"]
            ]
            if lines:
                self.write(step, "unbagged", bag=bag["bag"], lines=lines)
        for mark in base["compares"]:
            if mark["state"] == "kept":
                self.write(step, "compared", capture=mark["id"], same=True)
        for chance in base["chances"]:
            if chance["todo"]:
                own = {"about": "last_chance", "thing": chance["thing"], "done_here": True}
                self.write(step, "decision", **own)

    def part(self, need: str, order: str) -> None:
        """A parcel came, and the part is as the old one, feature by feature."""
        self.write(None, "parcel came", order=order)
        desk = api(self.url, f"/api/builds/{self.build}/parts")
        rows = [row["need"] for group in desk["groups"] for row in group["rows"]]
        found = next(row for row in rows if row["id"] == need)
        for feature in found["arrival"]["features"]:
            alike = "12.5 mm" if feature["unit"] else "as the old one"
            own = {"feature": feature["feature"], "old": alike, "new": alike}
            self.write(None, "feature compared", need=need, order=order, **own)
        self.write(None, "part taken", need=need, order=order, count=1, how="compared")


LASH = {"in": ("0.19 0.21", "inlet"), "ex": ("0.24 0.26", "exhaust")}
SUMMER = "the gauge cannot tell; one season at low revs, then it is rebuilt"


def to_the_hook(url: str, build: str) -> Past:
    """One, built up and ready to be hung: shells in, bolts final, lash set, parcels here."""
    past = Past(url, build)
    past.read("rod_shells", "m1", {"s3_lower": "1.494"})
    past.write("rod_shells", "done")
    for step, result in (
        ("main_strips", "strip_4_r"),
        ("bore_maps", "round_2"),
        ("bore_maps", "taper_2"),
    ):
        past.write(step, "concession", result=result, reason=SUMMER, name="MK")
    for step in ("main_strips", "bore_maps"):
        past.write(step, "done")
    past.write("lash_shimmed", "not there", thing="Shims", looked="rockers with screws, no buckets")
    for row in api(url, f"/api/builds/{build}/plan")["rows"]:
        step = row["id"]
        if row["stage"] != "build_up" or past.bench(step)["base"]["settled"]:
            continue
        past.around(step)
        if row["kind"] == "tighten":
            past.tight(step)
        if step == "valve_lash":
            past.read(step, "f2", {f"{k}_{n}": LASH[k][0] for k in LASH for n in range(1, 5)})
        past.write(step, "done")
    past.part("oil_cooler_pipe", "pipe")
    past.part("key_switch", "switch")
    past.write(None, "undone", item="temp-sender")
    return past
