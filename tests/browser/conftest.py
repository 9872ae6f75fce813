"""Servers of their own on fresh data, Debian's Chromium, and pages that nobody else writes to."""

import shutil
import signal
import socket
import subprocess
import sys
import time
import urllib.error
import urllib.request
from pathlib import Path

import pytest

from hollet.services.demo import make_demo
from tests.browser.regions import Bench

ARGS = ["--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking", "--disable-component-update", "--disable-sync"]


@pytest.fixture(scope="session")
def browser_type_launch_args(browser_type_launch_args):
    """Debian's own Chromium."""
    return {**browser_type_launch_args, "executable_path": "/usr/bin/chromium", "args": ARGS}


@pytest.fixture(scope="session")
def browser_context_args(browser_context_args):
    """The size that the screens are drawn for."""
    return {**browser_context_args, "viewport": {"width": 1280, "height": 800}, "reduced_motion": "reduce"}


class Server:
    """A Hollet process on one data folder; it can be killed and started again on the same port."""

    def __init__(self, folder: Path) -> None:
        with socket.socket() as probe:
            probe.bind(("127.0.0.1", 0))
            self.port = probe.getsockname()[1]
        self.folder, self.url = folder, f"http://127.0.0.1:{self.port}"
        self.process: subprocess.Popen | None = None
        self.start()

    def start(self) -> None:
        """Start and wait until it answers."""
        command = [sys.executable, "-m", "hollet.cli.main", "serve", "--port", str(self.port), "--data", str(self.folder)]
        self.process = subprocess.Popen(command, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL)
        for _ in range(300):
            try:
                urllib.request.urlopen(self.url + "/api/compute", timeout=1).read()
                return
            except (urllib.error.URLError, OSError):
                time.sleep(0.05)
        raise AssertionError("the server did not answer within 15 s")

    def kill(self) -> None:
        """As a power cut would."""
        assert self.process is not None
        self.process.send_signal(signal.SIGKILL)
        self.process.wait(timeout=10)


@pytest.fixture(scope="session")
def demo_data(tmp_path_factory) -> Path:
    """The demo data, made once."""
    folder = tmp_path_factory.mktemp("demo")
    make_demo(folder)
    return folder


@pytest.fixture
def demo(demo_data, tmp_path):
    """A server on a copy of the demo data."""
    shutil.copytree(demo_data, tmp_path / "data")
    server = Server(tmp_path / "data")
    yield server
    server.kill()


@pytest.fixture
def empty(tmp_path):
    """A server on an empty folder."""
    server = Server(tmp_path / "empty")
    yield server
    server.kill()


@pytest.fixture
def mk(page):
    """A page on which MK has already said who is at the bench; errors in its console fail the test."""
    problems: list[str] = []
    page.on("pageerror", lambda error: problems.append(str(error)))
    page.add_init_script("localStorage.setItem('hollet.who', 'MK')")
    yield Bench(page)
    assert problems == []
