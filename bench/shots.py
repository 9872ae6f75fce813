"""Takes the pictures of docs/screenshots from the demo data."""

import tempfile
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path
from types import SimpleNamespace

import uuid_utils
from playwright.sync_api import sync_playwright

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
            shot("back", f"{one}/back")
            shot("plan", f"{one}/plan")
            shot("limits", f"{two}/limits?figure=lay_float_limit")
            shot("measure", f"{one}/steps/bore_maps")
            shot("tools", f"{url}/tools")
            shot("parts", f"{one}/parts")
            shot("debts", f"{one}/debts")
            fitting = f"{url}/builds/{named(url, 'One, clutch')}"
            shot("group", f"{fitting}/steps/joints_lock")
            shot("shims", f"{fitting}/steps/gap_and_shims", key="e")
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
