"""Browser and size figures: start to first page, opening a long build, one entry judged on screen, initial JavaScript."""

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

from playwright.sync_api import sync_playwright

from bench.test_speed import grown
from hollet.services.demo import make_demo

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
    process = subprocess.Popen([sys.executable, "-m", "hollet.cli.main", "serve", "--port", str(number), "--data", str(folder)], stdout=subprocess.DEVNULL)
    url = f"http://127.0.0.1:{number}"
    while True:
        try:
            urllib.request.urlopen(url + "/", timeout=1).read()
            return process, url, time.perf_counter() - begun
        except OSError:
            time.sleep(0.01)


def initial_javascript() -> float:
    """kB gzip of all scripts that the first page and the bench load before they are usable (every chunk but other views)."""
    left_out = re.compile(r"(GateView|LogView|LimitsView|ToolsView|NewBuildView|LostView)")
    files = [f for f in (DIST / "assets").glob("*.js") if not left_out.search(f.name)]
    return sum(len(gzip.compress(f.read_bytes())) for f in files) / 1000


def main() -> None:
    """Print the table."""
    rows: list[tuple[str, str, str]] = [("initial JavaScript, gzip", f"{initial_javascript():.0f} kB", "250 kB")]
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as p:
        make_demo(Path(folder) / "demo")
        workshop, build = grown(Path(folder) / "long", 5_000)
        workshop.close()
        serve(Path(folder) / "demo")[0].kill()
        server, url, seconds = serve(Path(folder) / "demo")
        rows.append(("second start to first page", f"{seconds:.2f} s", "1.5 s"))
        browser = p.chromium.launch(executable_path="/usr/bin/chromium", args=ARGS)
        context = browser.new_context(viewport={"width": 1280, "height": 800}, reduced_motion="reduce")
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
        rows.append(("entry acknowledged and judged on screen", f"{statistics.median(times):.0f} ms", "100 ms"))
        server.kill()
        server, url, _ = serve(Path(folder) / "long")
        page.goto(f"{url}/builds/{build}/steps/ring")
        page.locator("h1").wait_for()
        begun = time.perf_counter()
        page.goto(f"{url}/builds/{build}/steps/ring")
        page.locator("input[name=reading]").or_(page.locator(".readings")).first.wait_for()
        rows.append(("5,000 entries: open and usable in the browser", f"{time.perf_counter() - begun:.2f} s", "1 s"))
        server.kill()
        browser.close()
    shutil.rmtree(folder, ignore_errors=True)
    for name, found, limit in rows:
        print(f"{name:<48} {found:>10}   (goal {limit})")


if __name__ == "__main__":
    sys.path.insert(0, str(Path(__file__).parents[1]))
    main()
