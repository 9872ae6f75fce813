"""`hollet device`: a stand-in as a process: its script, its page, and what it is not."""

import os
import urllib.parse
import urllib.request
from collections import deque

import pytest
from typer.testing import CliRunner

from hollet.cli.device import made, run_script
from hollet.cli.main import app
from hollet.core.errors import Refused, Unavailable
from hollet.devices.protocol import read_line
from hollet.devices.standins.link import open_link
from hollet.devices.standins.page import serve_page

run = CliRunner().invoke


class Heard:
    """A link that keeps what was sent; it may be cut after so many lines."""

    name = "here"

    def __init__(self, cut_after: int = 10**9) -> None:
        self.said, self.cut_after = b"", cut_after

    def send(self, data: bytes) -> None:
        self.said += data
        if self.said.count(b"\n") > self.cut_after:
            raise Unavailable("here is gone")

    def close(self) -> None:
        self.said += b""


def spoken(link: Heard) -> list[str]:
    return [read_line(line).say for line in link.said.splitlines()]


def script(kind: str, *commands: str, seed: int = 1) -> Heard:
    """Run commands to their end, without waiting for real time."""
    link = Heard()
    run_script(
        made(kind, "X-1", seed), link, deque([*commands, "off"]), lambda: False, lambda s: None
    )
    return link


def test_a_script_is_done_one_command_after_the_other():
    """Each pull ends before the next begins; `wait` lets it say that it is here."""
    said = spoken(script("wrench", "pull 25", "pull 50 from 25", "wait 2"))
    assert said[0] == "hello"
    assert [word for word in said if word in ("begins", "ends")] == ["begins", "ends"] * 2
    assert said[-1] == "bye"
    assert said.count("here") >= 4


@pytest.mark.parametrize("kind", ["wrench", "dial"])
def test_the_same_seed_says_the_same(kind):
    commands = ("pull 25",) if kind == "wrench" else ("set 0.04", "press")
    assert script(kind, *commands).said == script(kind, *commands).said
    assert script(kind, *commands, seed=2).said != script(kind, *commands).said


@pytest.mark.parametrize(
    "command", ["fly", "pull", "pull fast", "turn 90 from 80 sings", "battery x"]
)
def test_a_command_that_it_does_not_know_is_said(command):
    with pytest.raises(Refused) as refusal:
        made("wrench", "X-1", 1).do(command)
    assert refusal.value.reason_code == "bad_command"


def test_a_line_that_is_cut_ends_it():
    with pytest.raises(Unavailable):
        run_script(made("dial", "X-1", 1), Heard(3), deque(), lambda: False, lambda s: None)


def test_what_it_is_not_and_where_nobody_answers(tmp_path):
    unknown = run(app, ["device", "hammer"])
    assert unknown.exit_code == 1
    assert "none of: wrench" in unknown.output + (unknown.stderr or "")
    nobody = run(app, ["device", "dial", "--to", "ws://127.0.0.1:1"])
    assert nobody.exit_code == 1
    assert "start Hollet first" in nobody.output + (nobody.stderr or "")
    with pytest.raises(Refused):
        open_link("ftp://here")


def test_it_speaks_into_a_serial_line(tmp_path):
    """A pseudo terminal passes for one; a script of one press, and it is off."""
    ours, theirs = os.openpty()
    file = tmp_path / "press.txt"
    file.write_text("set 0.04\nwait 0.4\npress\noff\n", "utf-8")
    done = run(app, ["device", "micrometer", "--to", os.ttyname(theirs), "--script", str(file)])
    assert done.exit_code == 0
    assert b'"pressed":true' in os.read(ours, 4000)
    os.close(ours)
    os.close(theirs)


def test_its_page_shows_and_does_and_is_no_other_pages_tool():
    """Keys and a field; what cannot be done is said; a page of another origin does nothing."""
    standin = made("dial", "D2-1", 1)
    about = {"name": "Dial", "id": "<D2>", "commands": standin.commands, "shows": "0.04 mm"}
    server = serve_page(0, lambda: about, standin.do, ("press", "zero"))
    url = f"http://127.0.0.1:{server.server_address[1]}/"

    def do(text: str, **headers) -> str:
        data = urllib.parse.urlencode({"do": text}).encode()
        with urllib.request.urlopen(urllib.request.Request(url, data, headers)) as answer:
            return answer.read().decode()

    with urllib.request.urlopen(url) as answer:
        page = answer.read().decode()
    assert "0.04 mm" in page
    assert "&lt;D2&gt;" in page
    assert "bad" not in do("zero")
    assert "set V" in do("fly")
    assert "not opened from its own address" in do("press", origin="http://evil.example")
    assert b'"pressed"' not in standin.tick(0.1).replace(b'"pressed":false', b"")
    server.shutdown()
    server.server_close()
