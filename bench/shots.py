"""Takes the pictures of docs/screenshots from the demo data."""

import tempfile
from pathlib import Path

from playwright.sync_api import sync_playwright

from bench.table import ARGS, serve
from hollet.services.demo import make_demo
from tests.browser.regions import api, new_build, write

OUT = Path(__file__).parents[1] / "docs" / "screenshots"


def main() -> None:
    """One picture of each main view at 1280 x 800."""
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as p:
        make_demo(Path(folder) / "demo")
        server, url, _ = serve(Path(folder) / "demo")
        browser = p.chromium.launch(executable_path="/usr/bin/chromium", args=ARGS)
        context = browser.new_context(viewport={"width": 1280, "height": 800}, reduced_motion="reduce")
        context.add_init_script("localStorage.setItem('hollet.who', 'MK')")
        page = context.new_page()
        build = next(b["id"] for b in api(url, "/api/shop")["builds"] if b["name"].startswith("One"))

        def shot(name: str, path: str, wait: int = 600) -> None:
            page.goto(url + path)
            page.locator("h1").wait_for()
            page.wait_for_timeout(wait)
            page.screenshot(path=OUT / f"{name}.png", animations="disabled")

        shot("shop", "/")
        shot("tighten", f"/builds/{build}/steps/head_bolts_tight")
        shot("gate", f"/builds/{build}/gate")
        shot("log", f"/builds/{build}/log")
        gearbox = next(b["id"] for b in api(url, "/api/shop")["builds"] if b["name"].startswith("Two"))
        shot("inspect", f"/builds/{gearbox}/steps/debris_traced")
        shot("back", f"/builds/{build}/back")
        shot("plan", f"/builds/{build}/plan")
        shot("limits", f"/builds/{gearbox}/limits?figure=lay_float_limit")
        shot("measure", f"/builds/{build}/steps/bore_maps")
        shot("tools", "/tools")
        spare = new_build(url, "Measured")
        attempt = {"step": "first_fire", "attempt": "attempt-one"}
        write(url, spare, {"kind": "attempt started", "reason": "rehearsal", **attempt})
        for t, oil, rpm in ((1, "0.1 bar", "900"), (2, "0.2 bar", "1250"), (4, "0.3 bar", "1340")):
            write(url, spare, {"kind": "samples", "samples": [{"t": t, "oil": oil, "rpm": rpm, "coolant": "18 C"}], **attempt})
        shot("run", f"/builds/{spare}/steps/first_fire", 6500)
        server.kill()
        make_demo(Path(folder) / "hanging", box_open=False)
        server, url, _ = serve(Path(folder) / "hanging")
        gearbox = next(b["id"] for b in api(url, "/api/shop")["builds"] if b["name"].startswith("Two"))
        shot("takedown", f"/builds/{gearbox}/steps/bell_bolts_out")
        shot("load", f"/builds/{gearbox}/load")
        server.kill()
        browser.close()


if __name__ == "__main__":
    main()
