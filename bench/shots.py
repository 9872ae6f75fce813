"""Takes the pictures of docs/screenshots from the demo data."""

import tempfile
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path
from types import SimpleNamespace

import uuid_utils
from playwright.sync_api import Page, sync_playwright

from bench.table import ARGS, hollet, started
from hollet.devices.standins.wrench import Wrench
from hollet.services.demo import make_demo
from tests.browser.regions import api, new_build, write
from tests.browser.test_instruments import STEP, speaking, to_last_stage

OUT = Path(__file__).parents[1] / "docs" / "screenshots"


@contextmanager
def served(folder: Path) -> Iterator[str]:
    """The address of Hollet with this data, stopped whatever happens in between."""
    with started(*hollet(folder)) as (url, _):
        yield url


def named(url: str, name: str) -> str:
    """The id of a build of the demo."""
    return next(str(b["id"]) for b in api(url, "/api/shop")["builds"] if b["name"].startswith(name))


def drawn_on(url: str, build: str, look: Callable[[], object]) -> None:
    """The head at its last stage, by the wrench that sends: six bolts hold, the seventh yields."""
    decision = {"kind": "decision", "step": STEP, "about": "wrench", "wrench": "w6"}
    write(url, build, decision)
    to_last_stage(SimpleNamespace(url=url), build)
    look()  # a screen waits there: it takes what the wrench sends
    joint = f"/api/builds/{build}/steps/{STEP}"
    with speaking(url, Wrench("W6-0001", 4)) as do:
        for bolt in range(7):
            do("turn 90 from 80" if bolt < 6 else "turn 70 from 80 yields 55")
            until(lambda done=bolt + 1: api(url, joint)["joint"]["stages"][3]["done"] >= done)


def leaking(url: str, build: str) -> None:
    """A union that ran, was nipped up, was damp, was taken apart, and is looked at once more."""
    needs = [s for s in api(url, f"/api/builds/{build}/leaks")["systems"] if s["kind"] == "fuel"]
    up = {"kind": "look begun", "fluid": "fuel", "way": "pressed", "pressure": "2.4 bar"}
    up |= {"heat": "cold", "seen": needs[0]["needs"]}
    wet = {"kind": "leak seen", "fluid": "fuel", "name": "Union 2, rail rear", "joint": "flare"}
    for grade, done in (("run", {"how": "nipped", "turn": "30"}), ("damp", {"how": "apart"})):
        write(url, build, up)
        look = api(url, f"/api/builds/{build}/leaks")["looking"][0]["id"]
        write(url, build, wet | {"grade": grade, "look": look})
        write(url, build, {"kind": "look ended", "look": look})
        place = api(url, f"/api/builds/{build}/leaks")["places"][0]["id"]
        write(url, build, {"kind": "leak mended", "place": place} | done)
    write(url, build, up)


def on_its_way(url: str, build: str) -> None:
    """The unit hangs, the last move was down 20, one watcher sees 6 mm, one has not spoken."""
    points = {"MK": "hook and sling", "JB": "sump lip, cross member", "RT": "manifold, column"}
    said = {"step": "engine_in"}
    watchers = [{"who": who, "point": point} for who, point in points.items()]
    target = {"down": "118", "along": "62", "nose": "4", "least": "5"}
    begun = {"kind": "watch said", "watchers": watchers, "word": "MK"}
    write(url, build, begun | said | target)
    for who in points:
        write(url, build, {"kind": "clear said", "watcher": who} | said)
    write(url, build, {"kind": "unit moved", "way": "down", "by": "20"} | said)
    write(url, build, {"kind": "clear said", "watcher": "MK"} | said)
    gap = {"gap": "6", "between": "sump lip to cross member", "widens": "up"}
    write(url, build, {"kind": "clear said", "watcher": "JB"} | gap | said)


def rehearsed(page: Page, url: str) -> None:
    """No oil pressure, and a hand that came too late."""
    page.goto(f"{url}/rehearsal")
    page.get_by_role("button", name="Choose the fault").click()
    choice = page.get_by_role("group", name="Choose the fault")
    choice.get_by_role("button", name="No oil pressure").click()
    for key, wait in (("c", 2200), ("r", 1500), ("o", 2500), ("Space", 1700)):
        page.wait_for_timeout(wait)
        page.keyboard.press(key)
    page.get_by_text("Too late by").wait_for()


def until(asked: Callable[[], bool]) -> None:
    """Wait for what another process does."""
    for _ in range(200):
        if asked():
            return
        time.sleep(0.1)
    raise AssertionError("it never came")


def main() -> None:
    """One picture of each main view at 1280 x 800."""
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as p:
        browser = p.chromium.launch(executable_path="/usr/bin/chromium", args=ARGS)
        context = browser.new_context(
            viewport={"width": 1280, "height": 800}, reduced_motion="reduce"
        )
        context.add_init_script("localStorage.setItem('hollet.who', 'MK')")
        page = context.new_page()

        def shot(name: str, address: str, wait: int = 600, key: str = "") -> None:
            page.goto(address)
            page.locator("h1").wait_for()
            page.wait_for_timeout(wait)
            if key:
                page.keyboard.press(key)
                page.wait_for_timeout(wait)
            page.screenshot(path=OUT / f"{name}.png", animations="disabled")

        make_demo(Path(folder) / "demo")
        with served(Path(folder) / "demo") as url:
            one, two = (f"{url}/builds/{named(url, name)}" for name in ("One", "Two"))
            entry = {"kind": "tonight", "start": "19:00", "end": "21:30", "quiet_from": "21:00"}
            say = {"who": "MK", "id": str(uuid_utils.uuid7()), "entry": entry}
            api(url, "/api/shop/entries", say)
            shot("evenings", f"{url}/evenings", 9000)
            shot("shop", f"{url}/")
            shot("tighten", f"{one}/steps/head_bolts_tight")
            shot("gate", f"{one}/gate")
            shot("log", f"{one}/log")
            shot("inspect", f"{two}/steps/debris_traced")
            shot("plan", f"{one}/plan")
            shot("limits", f"{two}/limits?figure=lay_float_limit")
            shot("measure", f"{one}/steps/bore_maps")
            shot("parts", f"{one}/parts")
            shot("debts", f"{one}/debts")
            shot("settle", f"{url}/builds/{named(url, 'Three')}/settle")
            leaking(url, named(url, "One: engine"))
            shot("leaks", f"{one}/leaks")
            on_its_way(url, named(url, "One: engine"))
            shot("moving", f"{one}/steps/engine_in")
            rehearsed(page, url)
            page.screenshot(path=OUT / "rehearsal.png", animations="disabled")
            spare = new_build(url, "Measured")
            attempt = {"step": "first_fire", "attempt": "attempt-one"}
            write(
                url,
                spare,
                {"kind": "attempt started", "reason": "rehearsing with the fuel off", **attempt},
            )
            for t, oil, rpm in (
                (1, "0.1 bar", "900"),
                (2, "0.2 bar", "1250"),
                (4, "0.3 bar", "1340"),
            ):
                write(
                    url,
                    spare,
                    {
                        "kind": "samples",
                        "samples": [{"t": t, "oil": oil, "rpm": rpm, "coolant": "18 C"}],
                        **attempt,
                    },
                )
            shot("run", f"{url}/builds/{spare}/steps/first_fire", 6500)
            drawn_on(url, named(url, "One: engine"), lambda: page.goto(f"{one}/steps/{STEP}"))
            page.wait_for_timeout(800)
            page.screenshot(path=OUT / "trace.png", animations="disabled")
        make_demo(Path(folder) / "hanging", box_open=False)
        with served(Path(folder) / "hanging") as url:
            two = f"{url}/builds/{named(url, 'Two')}"
            shot("takedown", f"{two}/steps/bell_bolts_out")
            shot("load", f"{two}/load")
        browser.close()


if __name__ == "__main__":
    main()
