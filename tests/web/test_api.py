"""The doors: entries, refusals with their status, the live channel, foreign hosts, our
own schema.
"""

import json
import sys

import pytest

from hollet.core.errors import HolletError
from hollet.services.workshop import Workshop
from hollet.web.app import STATUS, create_app
from tests.services.conftest import stock
from tests.web.support import from_here


@pytest.fixture
def client(tmp_path):
    """A client of an application over a stocked workshop; `client.build` is its build."""
    workshop = Workshop(tmp_path)
    build = stock(workshop)
    with from_here(create_app(workshop)) as made:
        made.build, made.workshop = build, workshop
        yield made
    workshop.close()


def body(client, entry: dict, **own) -> dict:
    """What a screen sends."""
    return {
        "id": client.workshop.new_id(),
        "who": "MK",
        "bench_time": "2026-03-01T09:00:00+01:00",
        "seen": 999,
        "entry": entry,
        **own,
    }


def post(client, entry: dict, **own):
    """Send one entry."""
    return client.post(f"/api/builds/{client.build}/entries", json=body(client, entry, **own))


def test_append_answers_with_the_new_screen(client):
    """One call writes, judges, and gives line, frame and bench."""
    got = post(
        client,
        {
            "kind": "reading",
            "step": "ring",
            "reading": "ring",
            "typed": ["0.30 0.35 mm"],
            "unit": "mm",
            "instrument": "f1",
        },
    ).json()
    assert got["line"]["text"].startswith("Ring gap: typed 0.30 0.35 mm")
    assert got["bench"]["results"][0]["judgement"]["verdict"] == "inside"
    assert got["build"]["frame"]["written"][-1]["seq"] == got["line"]["seq"]


@pytest.mark.parametrize(
    ("entry", "own", "status", "code"),
    [
        ({"kind": "done", "step": "head_out"}, {}, 422, "danger"),
        ({"kind": "done", "step": "head_in"}, {}, 422, "must_wait"),
        ({"kind": "skipped", "step": "ring", "reason": "abc"}, {}, 422, "bad_input"),
        ({"kind": "done", "step": "nothing"}, {}, 404, "not_found"),
        ({"kind": "done", "step": "again", "colour": "red"}, {}, 422, "bad_input"),
        ({"kind": "cheer", "step": "again"}, {}, 422, "bad_input"),
        ({"kind": "done", "step": "again"}, {"who": "1"}, 422, "no_initials"),
        ({"kind": "done", "step": "again"}, {"id": "x"}, 422, "bad_input"),
        ({"kind": "done", "step": "again"}, {"bench_time": "yesterday"}, 422, "bad_input"),
        (
            {
                "kind": "reading",
                "step": "ring",
                "reading": "ring",
                "typed": ["3 Nm"],
                "unit": "mm",
                "instrument": "f1",
            },
            {},
            422,
            "dimension_mismatch",
        ),
        (
            {
                "kind": "reading",
                "step": "ring",
                "reading": "ring",
                "typed": ["nan mm"],
                "unit": "mm",
                "instrument": "f1",
            },
            {},
            422,
            "not_a_number",
        ),
        (
            {
                "kind": "reading",
                "step": "ring",
                "reading": "ring",
                "typed": ["5 mm"],
                "unit": "mm",
                "instrument": "f1",
            },
            {},
            422,
            "odd_figure",
        ),
    ],
)
def test_refusals(client, entry, own, status, code):
    """Each refusal has its status, a stable code and one sentence; nothing is written."""
    answer = post(client, entry, **own)
    assert (answer.status_code, answer.json()["reason_code"]) == (status, code)
    assert answer.json()["refuse"] is True
    assert len(answer.json()["message"]) > 10
    assert client.get(f"/api/builds/{client.build}/log").json()["total"] == 1


def test_conflict_carries_the_newer_lines(client):
    """409 with what is newer."""
    post(client, {"kind": "confirmed", "step": "lead", "what": "Extinguisher at hand"})
    answer = post(client, {"kind": "done", "step": "lead"}, seen=0)
    assert answer.status_code == 409
    assert answer.json()["newer"] == ["seen: Extinguisher at hand"]


def test_every_error_has_a_status():
    """No error of the tree is unmapped."""
    assert set(HolletError.__subclasses__()) == set(STATUS)


def test_compute_door(client):
    """The same models as the command line; refusals 422 with their code, unknown names 404."""
    assert "decide" in client.get("/api/compute").json()
    good = client.post("/api/compute/parse_quantity", json={"text": "3.5 thou"}).json()
    assert good["nominal"] == {"value": 0.0889, "unit": "mm"}
    bad = client.post("/api/compute/parse_quantity", json={"text": "2 pt"})
    assert (bad.status_code, bad.json()["refuse"], bad.json()["reason_code"]) == (
        422,
        True,
        "unit_ambiguous",
    )
    assert client.post("/api/compute/nothing", json={}).status_code == 404


def test_nan_is_refused_at_every_door(client):
    """NaN as a JSON token or as text is refused, never answered."""
    for raw in (
        '{"y": {"value": NaN, "unit": "mm"}}',
        '{"y": {"value": "NaN", "unit": "mm"}}',
        '{"y": {"value": 1e999, "unit": "mm"}}',
    ):
        answer = client.post(
            "/api/compute/decide", content=raw, headers={"content-type": "application/json"}
        )
        assert answer.status_code == 422
        assert answer.json()["reason_code"] == "not_a_finite_number"
    sample = {
        "kind": "attempt ended",
        "step": "crank",
        "attempt": "a",
        "after_s": float("nan"),
        "reason": "abc",
    }
    raw = json.dumps(body(client, sample))
    assert (
        client.post(
            f"/api/builds/{client.build}/entries",
            content=raw,
            headers={"content-type": "application/json"},
        ).status_code
        == 422
    )


@pytest.mark.parametrize(
    "headers",
    [
        {"host": "evil.example"},
        {"origin": "http://evil.example"},
        {"host": "127.0.0.1.evil.example"},
    ],
)
def test_foreign_hosts_are_refused(client, headers):
    """A page of somewhere else cannot talk to Hollet (DNS rebinding, cross-site posts)."""
    answer = client.get("/api/shop", headers=headers)
    assert (answer.status_code, answer.json()["reason_code"]) == (403, "foreign_host")


def test_large_bodies_are_refused(client):
    """What is larger than anything sensible is refused before it is read."""
    answer = client.post(
        "/api/sheets",
        content=b"x",
        headers={"content-length": "900000000", "content-type": "application/json"},
    )
    assert answer.status_code == 413


def test_unreadable_json(client):
    """Unreadable JSON is 400 with a sentence."""
    answer = client.post("/api/sheets", content=b"{", headers={"content-type": "application/json"})
    assert (answer.status_code, answer.json()["reason_code"]) == (400, "bad_input")


def test_live_channel_tells_of_new_lines(client):
    """An open screen hears of the build and its newest line."""
    with client.websocket_connect("/ws/live", headers={"host": "127.0.0.1"}) as socket:
        line = post(client, {"kind": "note", "text": "x"}).json()["line"]
        assert socket.receive_json() == {"build": client.build, "seq": line["seq"]}


def test_archive_over_the_wire(client, tmp_path):
    """Out as a file, in again into an empty Hollet."""
    data = client.get(f"/api/builds/{client.build}/archive")
    assert data.headers["content-disposition"].startswith("attachment")
    other = Workshop(tmp_path / "other")
    with from_here(create_app(other)) as second:
        answer = second.post("/api/archives", files={"file": ("b.zip", data.content)})
        assert answer.json()["id"] == client.build
        assert (
            second.post("/api/archives", files={"file": ("b.zip", b"rubbish")}).json()[
                "reason_code"
            ]
            == "bad_archive"
        )
    other.close()


def test_other_reads(client):
    """Shop, gates, limits, log, CSV, what stands on a line; unknown builds and steps are 404."""
    shop = client.get("/api/shop").json()
    assert [b["name"] for b in shop["builds"]] == ["Job"]
    assert len(shop["presets"]) >= 18
    assert len(client.get(f"/api/builds/{client.build}/gate").json()["rungs"]) == 7
    assert (
        len(client.get(f"/api/builds/{client.build}/limits").json()["rows"]) == 10
    )  # eight limits, two joints
    assert client.get(f"/api/builds/{client.build}/limits.csv").text.startswith("id,name")
    assert "[[limit]]" in client.get(f"/api/builds/{client.build}/limits.toml").text
    assert client.get(f"/api/builds/{client.build}/attempts.csv").text.startswith("attempt,rung")
    line = client.get(f"/api/builds/{client.build}/log").json()["lines"][0]
    assert client.get(f"/api/builds/{client.build}/entries/{line['id']}/stands").json() == {
        "lines": []
    }
    for path in (
        "/api/builds/nothing",
        f"/api/builds/{client.build}/steps/nothing",
        "/api/nothing",
    ):
        assert client.get(path).status_code == 404


def test_make_build_and_sheet(client):
    """A build from a sheet; a sheet with a mistake is 422 with its line."""
    made = client.post(
        "/api/builds",
        json={
            "id": client.workshop.new_id(),
            "who": "TR",
            "sheets": ["top-end"],
            "name": "N",
            "vehicle": "V",
            "about": "A",
        },
    ).json()
    assert len(made["frame"]["steps"]) == 70
    answer = client.post(
        "/api/sheets",
        json={
            "text": "[sheet]\nid = 'x'\ntitle = 'X'\nabout = 'x'\n\n"
            "[[step]]\nid = 'a'\nkind = 'chek'"
        },
    )
    assert (answer.status_code, answer.json()["message"][:6]) == (422, "line 6")


def test_demo_into_an_empty_hollet_only(client):
    """The demo is refused where there is a build."""
    assert client.post("/api/demo").status_code == 409


def test_slow_libraries_are_not_imported_at_start():
    """The server starts without scipy; it is warmed afterwards."""
    import subprocess

    code = (
        "import sys, hollet.web.app, hollet.cli.main; sys.exit('scipy' in sys.modules or "
        "'numpy' in sys.modules)"
    )
    assert subprocess.run([sys.executable, "-c", code], check=False).returncode == 0


def test_plan_over_the_wire(client):
    """Looked at without writing, taken once, refused with a code and a sentence; another version is
    a conflict.
    """
    url = f"/api/builds/{client.build}/plan"
    act = {"act": "retire", "step": "water"}
    look = client.post(f"{url}/difference", json={"who": "MK", "acts": [act]}).json()
    assert look["steps_out"] == ["8.02 Coolant: taken out of this plan"]
    body = {
        "id": client.workshop.new_id(),
        "who": "MK",
        "version": client.get(url).json()["version"],
        "acts": [act],
    }
    assert client.post(url, json=body).json()["line"]["text"] == "taken out: 8.02 Coolant"
    again = client.post(
        url, json={**body, "id": client.workshop.new_id(), "acts": [{**act, "back": True}]}
    )
    assert (again.status_code, again.json()["reason_code"]) == (409, "moved_on")
    for acts, code in (
        ([{"act": "fly"}], "bad_input"),
        ([], "bad_input"),
        (
            [{"act": "reason", "step": "lead", "waits_for": "head_out", "because": "x"}],
            "contradiction",
        ),
    ):
        answer = client.post(
            url, json={**body, "id": client.workshop.new_id(), "version": 2, "acts": acts}
        )
        assert (answer.status_code, answer.json()["reason_code"]) == (422, code)
        assert len(answer.json()["message"]) > 10


def test_gear_over_the_wire(client):
    """Said once, then guarded by its version."""
    body = {"who": "MK", "name": "Hoist", "state": "owned", "version": 0}
    assert client.post("/api/gear", json=body).json()["version"] == 1
    assert client.post("/api/gear", json=body).status_code == 409
    assert (
        client.post("/api/gear", json={**body, "state": "eaten", "version": 1}).status_code == 422
    )
    assert [g["name"] for g in client.get("/api/shop").json()["gear"]] == ["Hoist"]


def entry(client, **more) -> dict:
    """The body of a note."""
    return {
        "id": client.workshop.new_id(),
        "who": "MK",
        "bench_time": "2026-03-01T09:00:00Z",
        "seen": 0,
        "entry": {"kind": "note", "text": "x"},
        **more,
    }


@pytest.mark.parametrize(
    ("more", "field"),
    [
        ({"bench_time": "9999-99-99T99:99:99Z"}, "bench_time"),
        ({"bench_time": "٢٠٢٦-٠٣-٠١T٠٩:٠٠:٠٠Z"}, "bench_time"),
        ({"who": "ßßßßßß"}, "who"),
        ({"entry": {"kind": "note", "text": "a\ud800b"}}, "entry"),
        ({"entry": {"kind": "note", "text": "a\x00b"}}, "entry"),
    ],
)
def test_odd_texts_are_refused(client, more, field):
    """No clock shows that time, no hand has twelve initials, and half a sign cannot be kept."""
    data = json.dumps(entry(client, **more))
    answer = client.post(
        f"/api/builds/{client.build}/entries",
        content=data,
        headers={"content-type": "application/json"},
    )
    assert answer.status_code == 422
    assert answer.json()["message"]


@pytest.mark.parametrize(
    "text", ["a" + ".a" * 20_000, "a = " + "9" * 6_000, "a" + ".a" * 20_000 + " = 1"]
)
def test_sheets_that_take_too_long(client, text):
    """Keys of twenty thousand parts and numbers of six thousand digits: at once, in a sentence."""
    answer = client.post("/api/sheets", json={"text": text})
    assert (answer.status_code, answer.json()["reason_code"]) == (422, "sheet_mistake")


def test_what_is_not_there_and_what_is_asked_wrongly(client):
    """An unknown line is not found; a door asked in the wrong way says so."""
    assert client.get(f"/api/builds/{client.build}/entries/nothing/stands").status_code == 404
    assert client.get("/api/builds").status_code == 405
    assert client.get("/api/nothing").status_code == 404
