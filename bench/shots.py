"""Takes the pictures of docs/screenshots from the demo data."""

import tempfile
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

import uuid_utils
from playwright.sync_api import sync_playwright

from bench.table import ARGS, hollet, started
from hollet.services.demo import make_demo
from tests.browser.regions import api, new_build, write

OUT = Path(__file__).parents[1] / "docs" / "screenshots"


@contextmanager
def served(folder: Path) -> Iterator[str]:
    """The address of Hollet with this data, stopped whatever happens in between."""
    with started(*hollet(folder)) as (url, _):
        yield url


def named(url: str, name: str) -> str:
    """The id of a build of the demo."""
    return next(str(b["id"]) for b in api(url, "/api/shop")["builds"] if b["name"].startswith(name))


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
            shot("money", f"{two}/money")
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
        make_demo(Path(folder) / "hanging", box_open=False)
        with served(Path(folder) / "hanging") as url:
            two = f"{url}/builds/{named(url, 'Two')}"
            shot("takedown", f"{two}/steps/bell_bolts_out")
            shot("load", f"{two}/load")
        browser.close()


if __name__ == "__main__":
    main()
