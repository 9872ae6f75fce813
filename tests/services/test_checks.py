"""Tools held against a standard through the services: the log of the shop, doubt in every build,
and over the wire.
"""

import pytest

from hollet.core.errors import NotFound, Refused
from hollet.services.builds import bench, gate, make_build
from hollet.services.demo_script import DemoClock, Script
from hollet.services.tools import check_tool, edit_tool, presets, try_tool
from hollet.services.verifying import verify
from hollet.services.workshop import Workshop
from hollet.web.app import create_app
from tests.web.support import from_here


@pytest.fixture
def shop(tmp_path):
    """A workshop with a feeler and two builds whose lash was read with it."""
    workshop = Workshop(tmp_path)
    preset = next(p for p in presets() if p["name"] == "feeler leaves, 0.05 mm steps")
    edit_tool(workshop, {**preset, "id": "f1", "code": "F1"}, who="MK", version=0)
    builds = []
    for name in ("First", "Second"):
        build = make_build(
            workshop, sheets=["engine-measured"], name=name, vehicle=name, about="bench", who="MK"
        )
        script = Script(workshop, DemoClock(workshop.clock()), build, "MK")
        script.plan(
            None, act="limit", limit="rod_side", version=1, lo="0.10", hi="0.40", source="book"
        )
        script.write(
            kind="reading",
            step="rod_sides",
            reading="side_1",
            typed=["0.25 0.30"],
            unit="mm",
            instrument="f1",
        )
        builds.append(build)
    yield workshop, builds
    workshop.close()


def verdict(workshop, build):
    """The verdict on the one rod that was read."""
    return next(r.judgement for r in bench(workshop, build, "rod_sides").results if r.readings)


def test_a_failed_check_reaches_every_build(shop):
    """Inside before; after the check in doubt in both builds and at their gates; a good check later
    does not absolve what was read.
    """
    workshop, builds = shop
    assert [verdict(workshop, b).verdict for b in builds] == ["inside", "inside"]
    found = check_tool(
        workshop,
        "f1",
        standard="micrometer M1",
        nominal="0.30",
        typed=["0.35"],
        keep_offset=False,
        who="MK",
    )
    assert not found.good
    for build in builds:
        assert (
            verdict(workshop, build).words == "tool in doubt: F1 was off by 0.050 mm at its check"
        )
        assert any(
            "tool in doubt" in item.what
            for rung in gate(workshop, build).rungs
            for item in rung.items
        )
    assert check_tool(
        workshop,
        "f1",
        standard="micrometer M1",
        nominal="0.30",
        typed=["0.30"],
        keep_offset=False,
        who="MK",
    ).good
    assert verdict(workshop, builds[0]).verdict == "too_close"
    assert all(line.startswith("ok") for line in verify(workshop))


def test_the_hands_change_what_a_reading_is_worth(shop):
    """A hand that scatters widens U of what it reads afterwards; the readings before, and those of
    steadier hands, keep theirs.
    """
    workshop, (build, _) = shop
    before = verdict(workshop, build).U
    try_tool(workshop, "f1", thing="a gap", typed=["0.25"] * 10, who="mk")
    tool = try_tool(
        workshop,
        "f1",
        thing="a gap",
        typed=["0.20", "0.30", "0.25", "0.20", "0.30", "0.25"],
        who="TR",
    )
    assert [(hands.who, hands.n) for hands in tool.hands] == [("MK", 10), ("TR", 6)]
    assert float(tool.hands[1].s) == pytest.approx(0.0447, abs=1e-4)
    assert tool.s == tool.hands[1].s, "hands that nobody tried count as the widest known"
    assert before == verdict(workshop, build).U
    found = {}
    for who in ("MK", "TR", "AB"):
        script = Script(workshop, DemoClock(workshop.clock()), build, who)
        script.write(
            kind="reading",
            step="rod_sides",
            reading="side_1",
            typed=["0.25 0.30"],
            unit="mm",
            instrument="f1",
        )
        found[who] = verdict(workshop, build).U
    assert 2 * found["MK"] < found["TR"] == found["AB"]


def test_checks_over_the_wire(shop):
    """Good figures are answered, bad ones refused with a sentence; no such tool is not found."""
    workshop, (build, _) = shop
    client = from_here(create_app(workshop))
    body = {"who": "MK", "standard": "block", "nominal": "0.30", "typed": ["0.31"]}
    answer = client.post("/api/tools/f1/checked", json=body)
    assert (answer.status_code, answer.json()["good"], answer.json()["off"]) == (200, True, "0.010")
    for own, code in (
        ({"nominal": "9"}, "out_of_range"),
        ({"typed": ["wide"]}, "not_a_number"),
        ({"nominal": "1 kg"}, "dimension_mismatch"),
    ):
        refused = client.post("/api/tools/f1/checked", json=body | own)
        assert (refused.status_code, refused.json()["reason_code"]) == (422, code)
    assert (
        client.post("/api/tools/f1/checked", json=body | {"typed": ["0.30"] * 50}).status_code
        == 200
    )
    assert (
        client.post("/api/tools/f1/checked", json=body | {"typed": ["0.30"] * 51}).status_code
        == 422
    )
    assert client.post("/api/tools/zz/checked", json=body).status_code == 404
    assert (
        client.post(
            "/api/tools/f1/tried", json={"who": "MK", "thing": "a gap", "typed": ["0.2"]}
        ).json()["reason_code"]
        == "too_few_readings"
    )
    seen = client.get(f"/api/builds/{build}/inspection").json()["steps"]
    assert [step["step"] for step in seen] == ["lobes_seen"]
    text = client.get(f"/api/builds/{build}/readings.csv", params={"step": "rod_sides"}).text
    assert text.splitlines()[0].startswith("id,step,number,name,expected,kind,typed")
    assert client.post(
        f"/api/builds/{build}/readings", json={"who": "MK", "text": text}
    ).json() == {"written": 0, "unchanged": 1}
    assert client.get(f"/api/builds/{build}/sheet.pdf").content.startswith(b"%PDF")
    form = next(f for f in client.get("/api/calculations").json() if f["name"] == "belt_deflection")
    assert [field["unit"] for field in form["fields"]] == ["mm"]
    assert client.post(
        "/api/calculations/belt_deflection", json={"typed": {"span": "16 in"}}
    ).json()["deflection"]["value"] == pytest.approx(6.35)
    assert (
        client.post("/api/calculations/belt_deflection", json={"typed": {"span": "none"}}).json()[
            "field"
        ]
        == "span"
    )


def test_no_such_tool(shop):
    """Neither checked nor tried."""
    workshop, _ = shop
    with pytest.raises(NotFound):
        check_tool(
            workshop, "zz", standard="x", nominal="1", typed=["1"], keep_offset=False, who="MK"
        )
    with pytest.raises(Refused):
        try_tool(workshop, "f1", thing="x", typed=["a", "b", "c", "d", "e"], who="MK")
