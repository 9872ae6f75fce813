"""Speed as a user meets it, beside a bare application in the same run: start, an entry, the views,
one bolt in the browser, long builds; and how much JavaScript the first page loads.
"""

import gzip
import json
import os
import re
import socket
import statistics
import subprocess
import sys
import tempfile
import time
import urllib.request
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

import uuid_utils
from playwright.sync_api import Browser, Page, sync_playwright

from bench.test_speed import grown, large_sheet, wide_sheet
from hollet.services.builds import make_build
from hollet.services.demo import make_demo
from hollet.services.own_sheets import sheet_toml
from hollet.services.sheets import save_sheet
from hollet.services.tools import edit_tool, presets
from hollet.services.workshop import Workshop

ARGS = ["--no-sandbox", "--disable-gpu", "--no-first-run", "--disable-background-networking"]
ROOT = Path(__file__).parents[1]
DIST = ROOT / "src" / "hollet" / "web" / "dist"
Rows = list[tuple[str, str, str]]


def port() -> int:
    """A free port."""
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])


@contextmanager
def started(*command: str) -> Iterator[tuple[str, float]]:
    """A server on a port of its own: its address, and the seconds to its first page. The last two
    words of a command are its option for the port, and the port.
    """
    number = port()
    begun = time.perf_counter()
    process = subprocess.Popen(
        [sys.executable, "-m", *(word.replace("PORT", str(number)) for word in command)],
        stdout=subprocess.DEVNULL,
        cwd=ROOT,
        env={**os.environ, "PYTHONDONTWRITEBYTECODE": ""},  # as a user starts it the second time
    )
    url = f"http://127.0.0.1:{number}"
    try:
        while True:
            try:
                urllib.request.urlopen(url + "/", timeout=1).read()
                break
            except OSError:
                time.sleep(0.005)
        yield url, time.perf_counter() - begun
    finally:
        process.kill()
        process.wait()


def hollet(folder: Path) -> tuple[str, ...]:
    """Hollet on a folder."""
    return ("hollet.cli.main", "serve", "--port", "PORT", "--data", str(folder))


def bare(folder: Path) -> tuple[str, ...]:
    """The bare application on a file in a folder."""
    return ("bench.bare", "PORT", str(folder / "bare.sqlite"))


def asked(url: str, body: Any = None) -> Any:
    """One call, JSON in and out."""
    data = None if body is None else json.dumps(body).encode()
    request = urllib.request.Request(url, data, {"content-type": "application/json"})
    return json.load(urllib.request.urlopen(request, timeout=10))


def median_ms(what: Callable[[int], object], rounds: int = 40) -> float:
    """Median milliseconds of one round."""
    what(-1)
    took = []
    for k in range(rounds):
        begun = time.perf_counter()
        what(k)
        took.append((time.perf_counter() - begun) * 1000)
    return statistics.median(took)


def starts(folder: Path) -> Rows:
    """Start to first page, as a ratio."""
    own, limit = [], []
    for _ in range(5):
        with started(*hollet(folder / "demo")) as (_, seconds):
            own.append(seconds)
        with started(*bare(folder)) as (_, seconds):
            limit.append(seconds)
    ratio = statistics.median(own) / statistics.median(limit)
    return [(f"start to first page, {min(own):.2f} s, against bare", f"{ratio:.1f}x", "1.5x")]


def build_of(url: str, name: str) -> str:
    """The build of this name."""
    return next(b["id"] for b in asked(f"{url}/api/shop")["builds"] if b["name"].startswith(name))


def entry(kind: str, **own: Any) -> dict[str, Any]:
    """An entry as a screen sends it."""
    return {
        "id": str(uuid_utils.uuid7()),
        "who": "MK",
        "bench_time": "2026-03-01T09:00:00Z",
        "seen": 10**9,
        "entry": {"kind": kind, **own},
    }


def served(folder: Path) -> Rows:
    """An entry acknowledged with frame and bench, as a ratio; and the views, warm."""
    with started(*bare(folder)) as (url, _):
        row = {"body": "x" * 200}
        limit = median_ms(lambda k: asked(f"{url}/rows", {"id": f"{time.time_ns()}", **row}))
    with started(*hollet(folder / "demo")) as (url, _):
        build = build_of(url, "One")
        here = f"{url}/api/builds/{build}"
        step = asked(here)["frame"]["current"]
        note = lambda _: asked(f"{here}/entries", entry("note", text="x", step=step))  # noqa: E731
        own = median_ms(note)
        found: Rows = [
            (f"an entry acknowledged, {own:.1f} ms, against bare", f"{own / limit:.1f}x", "5x")
        ]
        views = {
            "frame": here,
            "bench": f"{here}/steps/{step}",
            "gate": f"{here}/gate",
            "plan": f"{here}/plan",
            "log page": f"{here}/log",
        }
        for name, address in views.items():
            goal = "8 ms" if name == "log page" else "3 ms"
            took = median_ms(lambda _, at=address: asked(at))
            found.append((f"{name} of the demo build, warm, over HTTP", f"{took:.1f} ms", goal))
    return found


def long_logs(folder: Path) -> Rows:
    """The log page of a build of 100,000 lines."""
    workshop, build = grown(folder / "long", 100_000)
    workshop.close()
    with started(*hollet(folder / "long")) as (url, _):
        took = median_ms(lambda _: asked(f"{url}/api/builds/{build}/log"), 10)
    return [("log page of 100,000 lines, warm, over HTTP", f"{took:.1f} ms", "8 ms")]


def initial_javascript() -> float:
    """kB gzip of all scripts that the first page and the bench load before they are usable (every
    chunk but other views).
    """
    left_out = re.compile(
        r"(GateView|LogView|LimitsView|ToolsView|NewBuildView|PlanView|HuntView|LostView)"
    )
    files = [f for f in (DIST / "assets").glob("*.js") if not left_out.search(f.name)]
    return sum(len(gzip.compress(f.read_bytes())) for f in files) / 1000


def page_of(browser: Browser) -> Page:
    """A page of somebody who has said who is at the bench."""
    context = browser.new_context(viewport={"width": 1280, "height": 800}, reduced_motion="reduce")
    context.add_init_script("localStorage.setItem('hollet.who', 'MK')")
    return context.new_page()


WATCH = """([where, key]) => {
  window.took = []
  let begun = 0, before = ''
  const last = () => [...document.querySelectorAll(where)].at(-1)?.innerText ?? ''
  const press = (e) => { if (e.key === key) { begun = performance.now(); before = last() } }
  document.addEventListener('keydown', press, true)
  const seen = () => {
    if (!begun || last() === before) return
    window.took.push(performance.now() - begun)
    begun = 0
  }
  const all = { characterData: true, childList: true, subtree: true }
  new MutationObserver(seen).observe(document.body, all)
}"""
"""By the browser's own clock: from a key to the line that says what was written."""


def bolts(page: Page, url: str) -> float:
    """Median milliseconds from the key to the bolt acknowledged and judged in Written."""
    page.goto(url)
    page.locator("button.go").click()
    page.get_by_text("bolt 6").first.wait_for()
    page.evaluate(WATCH, [".written li:not(.mut)", " "])
    for bolt in range(6, 10):
        page.wait_for_timeout(900)
        page.keyboard.press(" ")
        page.get_by_text(f"Bolt {bolt + 1}, stage 2").wait_for()
    return statistics.median(page.evaluate("window.took"))


def scrolling(page: Page, url: str) -> float:
    """Milliseconds of script a frame while all steps of a plan desk are scrolled past, from the
    browser's own counters.
    """
    page.goto(url)
    page.get_by_role("radiogroup", name="Stages").get_by_text("All 300").click()
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
    page.evaluate(WATCH, [".written li:not(.mut)", "Enter"])
    for k in range(60):
        page.locator("h1", has_text=f"Place r{k}").wait_for()
        page.locator(".written li", has_text=f"Place r{k - 1}:" if k else "made").last.wait_for()
        page.keyboard.type("20.0")
        page.keyboard.press("Enter")
    page.wait_for_timeout(500)
    return statistics.median(page.evaluate("window.took"))


def wide(folder: Path) -> tuple[str, str]:
    """A shop with a build of 300 steps and one of 60 readings."""
    workshop = Workshop(folder / "wide")
    save_sheet(workshop, sheet_toml(large_sheet()))
    save_sheet(workshop, wide_sheet())
    caliper = next(preset for preset in presets() if preset["kind"] == "caliper")
    edit_tool(workshop, {**caliper, "id": "c1", "code": "C1"}, who="MK", version=0)
    made = [
        make_build(workshop, sheets=[sheet], name=sheet, vehicle="One", about="a van", who="MK")
        for sheet in ("large", "wide")
    ]
    workshop.close()
    return made[0], made[1]


def in_the_browser(folder: Path, browser: Browser) -> Rows:
    """What a mechanic waits for on the screen."""
    page, found = page_of(browser), []
    with started(*hollet(folder / "demo")) as (url, _):
        goal, took = "60 ms", bolts(page, url)
        found.append(("one bolt, key to judged on screen", f"{took:.0f} ms", goal))
    steps, readings = wide(folder)
    with started(*hollet(folder / "wide")) as (url, _):
        took = sixty(page, f"{url}/builds/{readings}/steps/m")
        found.append(("60 readings: each judged and drawn", f"{took:.0f} ms", "100 ms"))
        took = scrolling(page, f"{url}/builds/{steps}/plan")
        found.append(("300 steps: script a frame while scrolling", f"{took:.1f} ms", "8 ms"))
    return found


def main() -> None:
    """Print the table."""
    with tempfile.TemporaryDirectory() as name, sync_playwright() as p:
        folder = Path(name)
        make_demo(folder / "demo")
        rows: Rows = [("initial JavaScript, gzip", f"{initial_javascript():.0f} kB", "250 kB")]
        rows += starts(folder) + served(folder) + long_logs(folder)
        browser = p.chromium.launch(executable_path="/usr/bin/chromium", args=ARGS)
        rows += in_the_browser(folder, browser)
        browser.close()
    for what, found, goal in rows:
        print(f"{what:<56} {found:>10}   (goal {goal})")


if __name__ == "__main__":
    main()
