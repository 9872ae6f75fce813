"""The doors of the instruments: WebSocket, TCP and a serial line; into the book and out again."""

import asyncio
import json
import os
import threading
import time
import tty
from concurrent.futures import ThreadPoolExecutor

import pytest
from starlette.websockets import WebSocketDisconnect

from hollet.core.entries import Fastener
from hollet.core.entries.status import plan_of
from hollet.core.steps.tighten import joint_facts
from hollet.devices.feed import Spot
from hollet.devices.protocol import encode
from hollet.devices.standins.wrench import Wrench
from hollet.services.archives import export_build, import_build
from hollet.services.builds import make_build
from hollet.services.tools import edit_tool
from hollet.services.verifying import verify
from hollet.services.workshop import Workshop
from hollet.web.app import create_app
from hollet.web.feed import listen_serial, listen_tcp
from tests.services.conftest import stock
from tests.support import SMALL, Hand, tool
from tests.web.support import from_here
from tests.web.test_access import ADDRESS, pair, phone

W6 = tool(
    "w6",
    "indicating wrench",
    dimension="torque",
    unit="N·m",
    resolution="0.1",
    mpe_percent="2",
    s="0.3",
    grip_mm="480",
    lo="10",
    hi="200",
    device="D6",
)
READ = b'{"say":"read","value":"25.2","unit":"N\xc2\xb7m","pressed":true}'


@pytest.fixture
def shop(tmp_path):
    """A build whose head waits for W6."""
    workshop = Workshop(tmp_path)
    build = stock(workshop)
    edit_tool(workshop, W6.model_dump(exclude={"version"}), who="MK", version=0)
    hand = Hand(workshop, build)
    hand.write("started", step="head_in", reason="bore measured at the shop")
    hand.write("decision", step="head_in", about="wrench", wrench="w6")
    app = create_app(workshop, address=ADDRESS)
    yield workshop, build, app
    workshop.close()


def post(app, build: str, event: str, who: str = "MK", **own):
    """What a screen sends when its wrench has sent."""
    entry = {"kind": "sent pull", "step": "head_in", "event": event} | own
    body = {"id": event, "who": who, "bench_time": "2026-03-01T09:00:00+01:00", "seen": 0}
    return from_here(app).post(f"/api/builds/{build}/entries", json={**body, "entry": entry})


def sent_to(app, build: str, *lines: bytes):
    """The frame that a screen at the head gets after a device spoke these lines."""
    spot = {"build": build, "step": "head_in", "about": "head", "tool": "w6"}
    local = {"host": "127.0.0.1"}
    with (
        from_here(app).websocket_connect("/ws/feed", headers=local) as screen,
        from_here(app).websocket_connect("/ws/device", headers=local) as device,
    ):
        screen.send_json(spot)
        until(lambda: app.state.feed._watching)
        for line in lines:
            device.send_bytes(line)
        while not (frame := screen.receive_json())["sent"]:
            assert frame["version"] < 2000
        return frame


def until(asked) -> None:
    """Wait for what another thread does."""
    for _ in range(300):
        if asked():
            return
        time.sleep(0.02)
    raise AssertionError("it never came")


def another_build(workshop) -> str:
    """Another build of the same sheet, whose head waits for the same wrench."""
    build = make_build(
        workshop, sheets=["small"], name="Job 2", vehicle="Two", about="too", who="MK"
    )
    hand = Hand(workshop, build)
    hand.write("started", step="head_in", reason="bore measured at the shop")
    hand.write("decision", step="head_in", about="wrench", wrench="w6")
    return build


def pull(command: str) -> list[bytes]:
    """A whole pull of a stand-in, line by line."""
    wrench = Wrench("D6", 4)
    wrench.do(command)
    return [line for _ in range(150) for line in wrench.tick(0.02).splitlines()]


def test_a_pull_comes_in_is_taken_by_two_screens_once_and_goes_out_again(shop, tmp_path):
    workshop, build, app = shop
    frame = sent_to(app, build, *pull("pull 25"))
    (sent,) = frame["sent"]
    assert sent["spots"] == [f"{build}/head_in/head"]
    first = post(app, build, sent["id"])
    second = post(app, build, sent["id"], who="TR")
    assert first.status_code == second.status_code == 200
    assert first.json()["line"]["seq"] == second.json()["line"]["seq"]
    bench = second.json()["bench"]["joint"]
    assert (bench["next_bolt"], bench["bolts"][0]["verdict"]) == (2, "inside")
    twin = another_build(workshop)
    assert post(app, twin, sent["id"]).json()["reason_code"] == "taken"
    other = post(app, build, sent["id"], bolt=3)
    assert other.json()["reason_code"] == "id_used"

    (file,) = (tmp_path / "traces").iterdir()
    assert from_here(app).get(f"/api/traces/{file.name}").status_code == 200
    assert from_here(app).get("/api/traces/nothing.csv.gz").status_code == 404
    assert any("ok: traces" in line for line in verify(workshop))
    elsewhere = Workshop(tmp_path / "elsewhere")
    taken = import_build(elsewhere, export_build(workshop, build))
    assert (tmp_path / "elsewhere" / "traces" / file.name).read_bytes() == file.read_bytes()
    assert export_build(elsewhere, taken) == export_build(workshop, build)
    elsewhere.close()
    file.write_bytes(b"changed")
    assert any("broken: traces" in line for line in verify(workshop))


def test_what_was_never_sent_cannot_be_written(shop):
    """No screen makes a pull up: figure and trace are the server's own."""
    _, build, app = shop
    made_up = "01890000-0000-7000-8000-000000000001"
    assert post(app, build, made_up).json()["reason_code"] == "sent_gone"
    assert post(app, build, made_up, value="25").status_code == 422
    entry = {"kind": "fastener", "step": "head_in", "bolt": 1, "act": "sent", "typed": "25"}
    body = {"id": made_up, "who": "MK", "bench_time": "2026-03-01T09:00:00+01:00", "seen": 0}
    said = from_here(app).post(f"/api/builds/{build}/entries", json={**body, "entry": entry})
    assert said.status_code == 422


def test_a_pull_that_is_drawn_as_it_runs(shop):
    _, build, app = shop
    spot = {"build": build, "step": "head_in", "about": "head", "tool": "w6"}
    local = {"host": "127.0.0.1"}
    lines = pull("pull 25")
    with (
        from_here(app).websocket_connect("/ws/feed", headers=local) as screen,
        from_here(app).websocket_connect("/ws/device", headers=local) as device,
    ):
        screen.send_json(spot)
        for line in lines[: len(lines) * 3 // 4]:
            device.send_bytes(line)
        for _ in range(40):
            drawn = screen.receive_json()["pull"]
            if drawn is not None and len(drawn["points"]) > 20:
                break
        assert drawn["turned"] > 1
        assert max(y for _, y in drawn["points"]) == pytest.approx(drawn["torque"], abs=1.5)
        assert drawn["torque"] > 7.5


def test_strangers_and_pages_are_kept_out(shop):
    """An unpaired device of the network, and a page of another origin."""
    _, _, app = shop
    with (
        pytest.raises(WebSocketDisconnect),
        phone(app).websocket_connect(f"ws://{ADDRESS}/ws/device") as device,
    ):
        device.receive_text()
    with (
        pytest.raises(WebSocketDisconnect),
        from_here(app).websocket_connect(
            "/ws/device", headers={"host": "127.0.0.1", "origin": "http://evil.example"}
        ) as device,
    ):
        device.receive_text()
    paired = pair(app)
    with paired.websocket_connect(f"ws://{ADDRESS}/ws/device") as device:
        device.send_bytes(encode(Wrench("D6", 1).hello))
        with pytest.raises(WebSocketDisconnect):
            device.receive_text()  # the cookie lets it knock, and its hello has no token
    token = paired.cookies["hollet_device"]
    with paired.websocket_connect(f"ws://{ADDRESS}/ws/device") as device:
        device.send_bytes(encode(Wrench("D6", 1).hello.model_copy(update={"token": token})))
        until(lambda: [line for line in app.state.feed.look() if line.gone is None])


def test_over_tcp(shop):
    """Lines in pieces are put together; one that is too long ends the connection."""
    _, _, app = shop
    feed = app.state.feed

    async def speak() -> None:
        server = await listen_tcp(feed, 0, "127.0.0.1")
        port = server.sockets[0].getsockname()[1]
        reader, writer = await asyncio.open_connection("127.0.0.1", port)
        hello = encode(Wrench("D6", 1).hello)
        writer.write(hello[:20])
        await writer.drain()
        await asyncio.sleep(0.05)
        writer.write(hello[20:] + READ + b"\r\n")
        await writer.drain()
        await asyncio.to_thread(until, feed.events)
        writer.write(b"x" * 100_000 + b"\n")
        assert await reader.read() == b""
        stranger_in, stranger = await asyncio.open_connection("127.0.0.1", port)
        stranger.write(b"POST / HTTP/1.1\r\n")
        assert await stranger_in.read() == b"say hello first\n"
        server.close()

    asyncio.run(speak())
    (event,) = feed.events().values()
    assert event.value.value.value == "25.2"


def test_over_a_serial_line_that_is_plugged_in_twice(shop):
    _, _, app = shop
    feed, ended = app.state.feed, threading.Event()
    ours, theirs = os.openpty()
    tty.setraw(theirs)
    thread = listen_serial(feed, os.ttyname(theirs), ended)
    hello = encode(Wrench("D6", 1).hello)
    until(lambda: feed._lines)  # what was said before the port is open is lost, as on any line
    os.write(ours, READ + b"\n" + hello + READ + b"\n")
    until(feed.events)
    assert len(feed.events()) == 1
    os.write(ours, b'{"say":"bye"}\n')
    until(lambda: not [line for line in feed.look() if line.gone is None])
    os.write(ours, hello + READ + b"\n")
    until(lambda: len(feed.events()) == 2)
    ended.set()
    thread.join(5)
    assert not thread.is_alive()
    os.close(ours)
    os.close(theirs)


def test_thirty_two_bolts_at_two_screens_and_a_wrench(tmp_path):
    """Every pull is taken by both screens at once, each bolt has it once, in the joint's order."""
    workshop = Workshop(tmp_path)
    build = stock(workshop, SMALL.replace('kind = "circle", n = 6', 'kind = "circle", n = 32'))
    edit_tool(workshop, W6.model_dump(exclude={"version"}), who="MK", version=0)
    Hand(workshop, build).write("decision", step="cover_on", about="wrench", wrench="w6")
    app = create_app(workshop)
    feed = app.state.feed
    for screen in ("one", "two"):
        feed.watch(screen, Spot(build, "cover_on", "cover", "w6"))
    key = feed.open(local=True)
    feed.heard(key, encode(Wrench("D6", 1).hello))
    said = b'{"say":"read","value":"30.%d","unit":"N\xc2\xb7m","pressed":true}'
    for bolt in range(32):
        assert feed.heard(key, said % (bolt % 9 + 1)) is None
        event = list(feed.events())[-1]
        with ThreadPoolExecutor(2) as screens:
            answers = screens.map(
                lambda who, sent=event: post(app, build, sent, who=who, step="cover_on"),
                ("MK", "TR"),
            )
        told = [(answer.status_code, answer.json().get("message")) for answer in answers]
        assert told == [(200, None)] * 2
    with workshop.held(build) as state:
        acts = state.each(Fastener, "joint", "cover")
        facts = joint_facts(state, plan_of(state).find_joint("cover"))
    assert [act.body.bolt for act in acts] == list(range(1, 33))
    assert facts.final
    assert {bolt.verdict for bolt in facts.bolts} == {"inside"}
    workshop.close()


def test_a_screen_of_a_build_that_is_gone_still_hears(shop):
    """Its line ended with an error, and no instrument was heard there any more."""
    _, _, app = shop
    feed = app.state.feed
    key = feed.open(local=True)
    hello = {"say": "hello", "hollet": 1, "id": "D6", "name": "Wrench", "measures": "torque"}
    hello |= {"unit": "N·m", "lo": "10", "hi": "200", "resolution": "0.1"}
    feed.heard(key, json.dumps(hello).encode())
    feed.heard(key, READ)  # something was sent: it is looked up in the build of the screen
    spot = {"build": "gone", "step": "head_in", "about": "head", "tool": "w6"}
    local = {"host": "127.0.0.1"}
    with from_here(app).websocket_connect("/ws/feed", headers=local) as screen:
        screen.send_json(spot)
        for _ in range(4):
            frame = screen.receive_json()
    assert frame["sent"] == []
    assert frame["pull"] is None


def test_gauges_that_hang_at_an_engine_are_live(shop):
    """What is there and speaks is live; silent, unplugged or no tool of the shop, it is not."""
    workshop, _, app = shop
    feed = app.state.feed
    gauge = tool("p1", "pressure gauge", dimension="pressure", unit="bar", lo="0", hi="10")
    known = gauge.model_copy(update={"device": "P1"}).model_dump(exclude={"version"})
    edit_tool(workshop, known, who="MK", version=0)
    hello = {"say": "hello", "hollet": 1, "measures": "pressure", "unit": "bar"}
    hello |= {"lo": "0", "hi": "10", "resolution": "0.1", "name": "Oil gauge"}
    for device in ("P1", "X9"):
        key = feed.open(local=True)
        feed.heard(key, json.dumps(hello | {"id": device}).encode())
        feed.heard(key, b'{"say":"read","value":"2.4","unit":"bar","stable":true}')
    assert {name: str(v.value.value) for name, v in workshop.live().items()} == {"p1": "2.4"}
    own = next(line for line in feed.look() if line.hello.id == "P1")
    feed.heard(own.key, b'{"say":"read","value":"12","unit":"bar","stable":true}')
    assert workshop.live() == {}  # beyond its own range
    feed.heard(own.key, b'{"say":"read","value":"2.2","unit":"bar","stable":false}')
    assert workshop.live() == {}  # not at rest
    feed.heard(own.key, b'{"say":"read","value":"2.2","unit":"bar","stable":true}')
    assert "p1" in workshop.live()
    feed.close(own.key)
    assert workshop.live() == {}
