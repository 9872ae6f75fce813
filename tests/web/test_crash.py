"""kill -9 in the middle of 200 appends: no acknowledged entry is lost, no half entry is left."""

import json
import os
import signal
import socket
import subprocess
import sys
import threading
import time
import urllib.error
import urllib.request
from http.client import HTTPException

from hollet.services.logging import log_of
from hollet.services.verifying import verify
from hollet.services.workshop import Workshop
from tests.services.conftest import stock

KILL_AFTER = 60


def free_port() -> int:
    """A port nobody listens on."""
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])


def start(folder, port: int) -> subprocess.Popen:
    """A server process on the folder, answering."""
    process = subprocess.Popen(
        [
            sys.executable,
            "-m",
            "hollet.cli.main",
            "serve",
            "--port",
            str(port),
            "--data",
            str(folder),
        ],
        stdout=subprocess.DEVNULL,
        stderr=subprocess.DEVNULL,
    )
    for _ in range(200):
        try:
            urllib.request.urlopen(f"http://127.0.0.1:{port}/api/compute", timeout=1).read()
            return process
        except (urllib.error.URLError, OSError):
            time.sleep(0.05)
    raise AssertionError("the server did not answer within 10 s")


def send(port: int, build: str, entry_id: str, number: int) -> bool:
    """Whether a note was acknowledged."""
    body = {
        "id": entry_id,
        "who": "MK",
        "bench_time": "2026-03-01T09:00:00Z",
        "seen": 0,
        "entry": {"kind": "note", "text": f"line {number}"},
    }
    request = urllib.request.Request(
        f"http://127.0.0.1:{port}/api/builds/{build}/entries",
        json.dumps(body).encode(),
        {"content-type": "application/json"},
    )
    try:
        return urllib.request.urlopen(request, timeout=5).status == 200
    except (urllib.error.URLError, OSError, HTTPException):
        return False


def test_kill_nine(tmp_path):
    """Everything acknowledged before the kill is there afterwards, in one whole chain; resending
    adds no line twice.
    """
    workshop = Workshop(tmp_path)
    build = stock(workshop)
    ids = [workshop.new_id() for _ in range(200)]
    workshop.close()
    port = free_port()
    server = start(tmp_path, port)
    acknowledged = []
    for number, entry_id in enumerate(ids):
        if (
            number == KILL_AFTER
            # counted, not timed, so that a slow machine kills in the middle too; the moment within
            # an
            # append is left to chance
        ):
            threading.Timer(0.004, lambda: os.kill(server.pid, signal.SIGKILL)).start()
        if not send(port, build, entry_id, number):
            break
        acknowledged.append(entry_id)
    server.wait(timeout=10)
    assert KILL_AFTER <= len(acknowledged) < 200, "the kill must fall into the middle"
    again = start(tmp_path, port)
    assert all(send(port, build, entry_id, number) for number, entry_id in enumerate(ids))
    again.terminate()
    again.wait(timeout=10)
    checked = Workshop(tmp_path)
    assert all(line.startswith("ok") for line in verify(checked))
    log = log_of(checked, build, limit=1000)
    assert log.total == 201
    assert {line.id for line in log.lines} >= set(ids)
    checked.close()
