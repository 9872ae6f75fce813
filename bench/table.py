"""Browser and size figures: start to first page, opening a long build, one entry judged on screen,
initial JavaScript.
"""

import gzip
import re
import shutil
import socket
import statistics
import subprocess
import sys
import tempfile
import time
import urllib.request
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

from bench.test_speed import grown, large_sheet, wide_sheet
from hollet.services.builds import make_build
from hollet.services.demo import make_demo
from hollet.services.planning import sheet_toml
from hollet.services.sheets import save_sheet
from hollet.services.tools import edit_tool, presets
from hollet.services.workshop import Workshop

ARGS = ["--no-sandbox", "--disable-gpu", "--no-first-run", "--disable-background-networking"]
DIST = Path(__file__).parents[1] / "src" / "hollet" / "web" / "dist"


def port() -> int:
    """A free port."""
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])


def serve(folder: Path) -> tuple[subprocess.Popen, str, float]:
    """Start a server; returns it, its address and the seconds to its first page."""
    number = port()
    begun = time.perf_counter()
    process = subprocess.Popen(
        [
            sys.executable,
            "-m",
            "hollet.cli.main",
            "serve",
            "--port",
            str(number),
            "--data",
            str(folder),
        ],
        stdout=subprocess.DEVNULL,
    )
    url = f"http://127.0.0.1:{number}"
    while True:
        try:
            urllib.request.urlopen(url + "/", timeout=1).read()
            return process, url, time.perf_counter() - begun
        except OSError:
            time.sleep(0.01)


def initial_javascript() -> float:
    """kB gzip of all scripts that the first page and the bench load before they are usable (every
    chunk but other views).
    """
    left_out = re.compile(
        r"(GateView|LogView|LimitsView|ToolsView|NewBuildView|PlanView|HuntView|LostView)"
    )
    files = [f for f in (DIST / "assets").glob("*.js") if not left_out.search(f.name)]
    return sum(len(gzip.compress(f.read_bytes())) for f in files) / 1000


def scrolling(page: Page, url: str) -> float:
    """Milliseconds of script a frame while all steps of a plan desk are scrolled past, from the
    browser's own counters.
    """
    page.goto(url)
    page.get_by_role("button", name="All 300").click()
    page.locator(".rows li").nth(299).wait_for()
    session = page.context.new_cdp_session(page)
    session.send("Performance.enable")

    def script() -> float:
        return next(
            m["value"]
            for m in session.send("Performance.getMetrics")["metrics"]
            if m["name"] == "ScriptDuration"
        )

    before, frames = script(), 120
    page.evaluate(f"""async () => {{
      const now = document.querySelector('#now')
      for (let k = 0; k < {frames}; k++) {{
        now.scrollTop += 120
        await new Promise(requestAnimationFrame)
      }}
    }}""")
    return (script() - before) * 1000 / frames


def sixty(page: Page, url: str) -> float:
    """Median milliseconds from Enter to the line in Written, with all of 60 readings judged and
    drawn anew; by the browser's own clock.
    """
    page.goto(url)
    page.locator("input[name=reading]").wait_for()
    page.evaluate("""() => {
      window.took = []
      let begun = 0, before = ''
      const lines = () => [...document.querySelectorAll('.written li:not(.mut)')]
      const last = () => lines().at(-1)?.innerText ?? ''
      const press = (e) => { if (e.key === 'Enter') { begun = performance.now(); before = last() } }
      document.addEventListener('keydown', press, true)
      const seen = () => {
        if (!begun || last() === before) return
        window.took.push(performance.now() - begun)
        begun = 0
      }
      const all = { characterData: true, childList: true, subtree: true }
      new MutationObserver(seen).observe(document.querySelector('.written'), all)
    }""")
    for k in range(60):
        page.locator("h1", has_text=f"Place r{k}").wait_for()
        page.locator(".written li", has_text=f"Place r{k - 1}:" if k else "made").last.wait_for()
        page.keyboard.type("20.0")
        page.keyboard.press("Enter")
    page.wait_for_timeout(500)
    return statistics.median(page.evaluate("window.took"))


def main() -> None:
    """Print the table."""
    rows: list[tuple[str, str, str]] = [
        ("initial JavaScript, gzip", f"{initial_javascript():.0f} kB", "250 kB")
    ]
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as p:
        make_demo(Path(folder) / "demo")
        workshop, build = grown(Path(folder) / "long", 5_000)
        workshop.close()
        serve(Path(folder) / "demo")[0].kill()
        server, url, seconds = serve(Path(folder) / "demo")
        rows.append(("second start to first page", f"{seconds:.2f} s", "1.5 s"))
        browser = p.chromium.launch(executable_path="/usr/bin/chromium", args=ARGS)
        context = browser.new_context(
            viewport={"width": 1280, "height": 800}, reduced_motion="reduce"
        )
        context.add_init_script("localStorage.setItem('hollet.who', 'MK')")
        page = context.new_page()
        page.goto(url)
        page.locator("button.go").click()
        page.get_by_text("bolt 6").first.wait_for()
        times = []
        for bolt in range(6, 10):
            page.wait_for_timeout(700)
            begun = time.perf_counter()
            page.locator("button.primary").click()
            page.get_by_text(f"Bolt {bolt + 1}, stage 2").wait_for()
            times.append((time.perf_counter() - begun) * 1000)
        rows.append(
            (
                "entry acknowledged and judged on screen",
                f"{statistics.median(times):.0f} ms",
                "100 ms",
            )
        )
        server.kill()
        server, url, _ = serve(Path(folder) / "long")
        page.goto(f"{url}/builds/{build}/steps/ring")
        page.locator("h1").wait_for()
        begun = time.perf_counter()
        page.goto(f"{url}/builds/{build}/steps/ring")
        page.locator("input[name=reading]").or_(page.locator(".readings")).first.wait_for()
        rows.append(
            (
                "5,000 entries: open and usable in the browser",
                f"{time.perf_counter() - begun:.2f} s",
                "1 s",
            )
        )
        server.kill()
        workshop = Workshop(Path(folder) / "wide")
        save_sheet(workshop, sheet_toml(large_sheet()))
        wide = make_build(
            workshop, sheets=["large"], name="Wide", vehicle="One", about="300 steps", who="MK"
        )
        save_sheet(workshop, wide_sheet())
        edit_tool(
            workshop,
            {
                **next(preset for preset in presets() if preset["kind"] == "caliper"),
                "id": "c1",
                "code": "C1",
            },
            who="MK",
            version=0,
        )
        measured = make_build(
            workshop, sheets=["wide"], name="Sixty", vehicle="One", about="60 readings", who="MK"
        )
        workshop.close()
        server, url, _ = serve(Path(folder) / "wide")
        rows.append(
            (
                "60 readings: each judged and drawn",
                f"{sixty(page, f'{url}/builds/{measured}/steps/m'):.0f} ms",
                "100 ms",
            )
        )
        rows.append(
            (
                "300 steps: scripting a frame while the desk scrolls",
                f"{scrolling(page, f'{url}/builds/{wide}/plan'):.1f} ms",
                "8 ms",
            )
        )
        server.kill()
        browser.close()
    shutil.rmtree(folder, ignore_errors=True)
    for name, found, limit in rows:
        print(f"{name:<48} {found:>10}   (goal {limit})")


if __name__ == "__main__":
    sys.path.insert(0, str(Path(__file__).parents[1]))
    main()
