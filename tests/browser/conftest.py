"""Servers of their own on fresh data, Debian's Chromium, and pages that nobody else writes to."""

import shutil
import signal
import socket
import subprocess
import sys
import threading
import time
import urllib.error
import urllib.request
from pathlib import Path

import pytest
import uvicorn
from playwright.sync_api import expect

from hollet.services.demo import make_demo
from hollet.services.workshop import Workshop
from hollet.web.app import create_app
from tests.browser.regions import Bench

ARGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--use-fake-device-for-media-stream",
    "--use-fake-ui-for-media-stream",
]  # a beep in place of a voice

LONGEST = ("test_hook_to_settled", "test_gear_rung", "test_walk")
POLICY = "Content Security Policy"  # as Chromium names it when something is held back

expect.set_options(
    timeout=25_000
)  # a busy machine is no defect; what never comes fails all the same


@pytest.fixture(scope="session")
def browser_type_launch_args(browser_type_launch_args):
    """Debian's own Chromium."""
    return {**browser_type_launch_args, "executable_path": "/usr/bin/chromium", "args": ARGS}


@pytest.fixture(scope="session")
def browser_context_args(browser_context_args):
    """The size that the screens are drawn for."""
    return {
        **browser_context_args,
        "viewport": {"width": 1280, "height": 800},
        "reduced_motion": "reduce",
        # what keeps the page on the device has a test of its own; elsewhere every request is seen
        "service_workers": "block",
    }


def free_port() -> int:
    """A port that nobody listens on."""
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])


class Local:
    """A Hollet in a thread of the tests: quick to start, for all tests that do not kill it."""

    def __init__(self, folder: Path, network: bool = False) -> None:
        port = free_port()
        self.url, self.workshop = f"http://127.0.0.1:{port}", Workshop(folder)
        self.outside = f"127.0.0.2:{port}"  # this machine too, but not by the name that it trusts
        app = create_app(self.workshop, address=self.outside if network else None)
        config = uvicorn.Config(
            app,
            host="0.0.0.0" if network else "127.0.0.1",
            port=port,
            log_level="warning",
            timeout_graceful_shutdown=1,
        )
        self.server = uvicorn.Server(config)
        self.thread = threading.Thread(target=self.server.run, daemon=True)
        self.thread.start()
        answers(self.url)

    def stop(self) -> None:
        """Ask it to end, and wait."""
        self.server.should_exit = True
        self.thread.join(timeout=10)
        self.workshop.close()


def answers(url: str) -> None:
    """Wait until a server answers."""
    for _ in range(300):
        try:
            urllib.request.urlopen(url + "/api/compute", timeout=1).read()
            return
        except (urllib.error.URLError, OSError):
            time.sleep(0.05)
    raise AssertionError("the server did not answer within 15 s")


class Server:
    """A Hollet process on one data folder; it can be killed and started again on the same port."""

    def __init__(self, folder: Path) -> None:
        self.port = free_port()
        self.folder, self.url = folder, f"http://127.0.0.1:{self.port}"
        self.process: subprocess.Popen | None = None
        self.start()

    def start(self) -> None:
        """Start and wait until it answers."""
        command = [
            sys.executable,
            "-m",
            "hollet.cli.main",
            "serve",
            "--port",
            str(self.port),
            "--data",
            str(self.folder),
        ]
        self.process = subprocess.Popen(
            command, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL
        )
        answers(self.url)

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


@pytest.fixture(scope="session")
def hanging_data(tmp_path_factory) -> Path:
    """The demo while the gearbox of Two still hangs, made once."""
    folder = tmp_path_factory.mktemp("hanging")
    make_demo(folder, box_open=False)
    return folder


@pytest.fixture
def hanging(hanging_data, tmp_path):
    """A server on a copy of it."""
    shutil.copytree(hanging_data, tmp_path / "data")
    server = Local(tmp_path / "data")
    yield server
    server.stop()


@pytest.fixture
def demo(demo_data, tmp_path):
    """A server on a copy of the demo data."""
    shutil.copytree(demo_data, tmp_path / "data")
    server = Local(tmp_path / "data")
    yield server
    server.stop()


@pytest.fixture
def network(demo_data, tmp_path):
    """A server that is open to the workshop network."""
    shutil.copytree(demo_data, tmp_path / "data")
    server = Local(tmp_path / "data", network=True)
    yield server
    server.stop()


@pytest.fixture
def mortal(demo_data, tmp_path):
    """A process of its own on a copy of the demo data, to be killed."""
    shutil.copytree(demo_data, tmp_path / "data")
    server = Server(tmp_path / "data")
    yield server
    server.kill()


@pytest.fixture
def empty(tmp_path):
    """A server on an empty folder."""
    server = Local(tmp_path / "empty")
    yield server
    server.stop()


@pytest.fixture
def mk(page):
    """A page on which MK has already said who is at the bench; an error in a script, or anything
    that Hollet's own headers forbid its screens, fails the test.
    """
    problems: list[str] = []
    page.on("pageerror", lambda error: problems.append(str(error)))
    page.on("console", lambda said: problems.append(said.text) if POLICY in said.text else None)
    page.add_init_script("localStorage.setItem('hollet.who', 'MK')")
    yield Bench(page)
    assert problems == []


def pytest_collection_modifyitems(items):
    """The longest tests first, so that none of them ends alone."""
    items.sort(key=lambda item: not any(name in item.nodeid for name in LONGEST))
