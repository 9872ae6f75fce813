"""Whole builds out and in; the demo; backups and the check of everything."""

from datetime import UTC, datetime

import pytest

from hollet.core.errors import Conflict, Refused
from hollet.exchange.archive import pack, unpack
from hollet.services import builds, planning
from hollet.services.archives import attempts_csv, export_build, import_build
from hollet.services.demo import fill_demo, make_demo
from hollet.services.inspection import inspection
from hollet.services.logging import log_of
from hollet.services.restoring import restore_backup
from hollet.services.settle import settling
from hollet.services.sheets import keep_sheet
from hollet.services.verifying import verify
from hollet.services.workshop import Workshop
from tests.support import SMALL

NOW = datetime(2026, 3, 20, 12, 0, tzinfo=UTC)


@pytest.fixture
def empty(tmp_path):
    """A second, empty Hollet."""
    made = Workshop(tmp_path / "empty")
    yield made
    made.close()


@pytest.fixture(scope="module")
def demo(tmp_path_factory):
    """The demo, made at a fixed moment."""
    folder = tmp_path_factory.mktemp("demo")
    make_demo(folder, NOW)
    made = Workshop(folder, lambda: NOW)
    yield made
    made.close()


def test_out_and_in_is_the_same(hand, empty):
    """The same state, and byte for byte the same log."""
    hand.write("left open", step="bore", item="i", what="rag")
    note = hand.write("note", text="Ω ≤ 5, “so”")
    hand.write("strike", entry=note.id, reason="wrong place")
    data = export_build(hand.workshop, hand.build)
    assert import_build(empty, data) == hand.build
    assert export_build(empty, hand.build) == data
    assert builds.frame(empty, hand.build).frame == builds.frame(hand.workshop, hand.build).frame
    assert all(line.startswith("ok") for line in verify(empty))


def test_in_twice_is_refused(hand):
    """A build that is here already is not read in."""
    with pytest.raises(Conflict) as conflict:
        import_build(hand.workshop, export_build(hand.workshop, hand.build))
    assert conflict.value.reason_code == "build_here"


def test_two_vehicles_of_one_name(hand, empty):
    """The shop has its own One already: the one read in gets another name, and neither is taken for
    the other.
    """
    name = builds.frame(hand.workshop, hand.build).vehicle
    keep_sheet(empty, SMALL)
    mine = builds.make_build(
        empty, sheets=["small"], name="Mine", vehicle=name, about="mine", who="MK"
    )
    theirs = import_build(empty, export_build(hand.workshop, hand.build))
    assert [builds.frame(empty, build).vehicle for build in (mine, theirs)] == [name, f"{name} (2)"]
    assert (
        builds.frame(
            empty,
            builds.make_build(
                empty, sheets=["small"], name="More", vehicle=name, about="x", who="MK"
            ),
        ).about
        == "mine"
    )


@pytest.mark.parametrize("doctor", ["body", "who", "drop", "kind", "name"])
def test_doctored_archives(hand, empty, doctor):
    """A changed word, a missing line, a strange kind: nothing is written."""
    hand.write("note", text="x")
    unpacked = unpack(export_build(hand.workshop, hand.build))
    facts, entries = unpacked.build, unpacked.entries
    if doctor == "drop":
        entries = entries[1:]
    elif doctor == "name":
        facts = {**facts, "name": 5}
    else:
        entries[1] = {**entries[1], doctor: entries[1][doctor] + " "}
    with pytest.raises(Refused) as refusal:
        import_build(empty, pack({k: v for k, v in facts.items() if k != "format"}, entries, {}))
    assert refusal.value.reason_code == "bad_archive"
    assert builds.cards(empty) == ()


def test_attempts_as_csv(hand):
    """One line a sample, assumed limits marked, an attempt without samples too."""
    for attempt in ("attempt-1", "attempt-2"):
        hand.write("attempt started", step="fire", attempt=attempt, reason="=trying it out")
        if attempt == "attempt-1":
            hand.write(
                "samples",
                step="fire",
                attempt=attempt,
                samples=[{"t": 3, "oil": "2 bar", "rpm": "900"}],
            )
        hand.write("attempt ended", step="fire", attempt=attempt, after_s=4, reason="=stopped")
    rows = attempts_csv(hand.workshop, hand.build).splitlines()
    assert len(rows) == 4
    assert rows[1].startswith("1,fire,")
    assert "'=stopped" in rows[1]
    assert "3.0,Revs,900.0,r/min," in rows[1]


def one_of(demo):
    """The engine of the demo."""
    return next(card for card in builds.cards(demo) if card.name.startswith("One"))


def test_demo_is_as_promised(demo):
    """Five builds; the engine stopped at bolt 6 of stage 2, 47 to 48 minutes ago, with covers and
    bracket in; the springs wait for one nut and for heights that rest; a shaft is half locked; a
    carrier is set.
    """
    cards = builds.cards(demo)
    found = {card.name.split(":")[0]: card for card in reversed(cards)}
    engine, springs = found["One"], found["Three"]
    gearbox, axle = (
        next(c for c in cards if c.name == f"Two: {n}") for n in ("gearbox", "rear axle")
    )
    assert engine.frame.resume.title == "You stopped at bolt 6, stage 2"
    age = NOW - datetime.fromisoformat(engine.frame.resume.since)
    assert 46 <= age.total_seconds() / 60 <= 48
    left = [i.what for i in engine.frame.left_open]
    assert len(left) == 31
    assert "Temporary bracket on the chain" in left
    assert sum("cover in" in what for what in left) == 2
    assert gearbox.frame.current == "synchro_gaps"
    assert (engine.bay, gearbox.bay) == ("bay 1", "bay 2")
    assert gearbox.frame.carried_stays
    for build, most in ((engine.id, 20), (gearbox.id, 30)):
        desk = planning.desk(demo, build)
        assert desk.schools[0].chosen or desk.schools[1].chosen
        assert 5 <= len(desk.hunt) <= most
    assert planning.limits(demo, gearbox.id).counts["conflict"] == 1
    assert all(line.startswith("ok") for line in verify(demo))
    shut = {rung.rung: [i.what for i in rung.items] for rung in builds.gate(demo, springs.id).rungs}
    assert any("U-bolts, right" in what for what in shut["drive"])
    fitting = found["One, clutch and steering"]
    shims = builds.bench(demo, fitting.id, "gap_and_shims")
    assert [r.judgement.verdict for r in shims.results] == ["inside"]
    assert shims.packs[0].put_words == "1.00 + 0.25 in: 2.027 mm"
    assert builds.bench(demo, fitting.id, "shaft_tried").base.trial.fits == "yes"
    shaft = builds.bench(demo, fitting.id, "joints_lock").group
    assert [m.state for m in shaft.members] == ["locked", "now", "loose", "loose"]
    assert sum(i.sort in ("cap", "cover") for i in fitting.frame.left_open) == 2
    carrier = builds.bench(demo, axle.id, "backlash_set").carrier
    assert (carrier.verdict, [r.lash for r in carrier.rounds]) == ("inside", ["0.260", "0.160"])
    assert axle.frame.current == "runout_set"
    crept = {c.name: c.word for c in settling(demo, springs.id).creeps}
    assert crept == {"Rear left": "creeps", "Rear right": "rests"}


def test_demo_figures(demo):
    """Cylinder 2 too close and accepted; bolt 4 over by 4.6; the struck line stays."""
    build = one_of(demo).id
    results = builds.bench(demo, build, "bores").results
    assert [r.judgement.verdict for r in results] == ["inside", "too_close", "inside", "inside"]
    assert results[1].conceded
    bolts = builds.bench(demo, build, "head_bolts_tight").joint.bolts
    assert (bolts[3].verdict, bolts[3].words) == ("outside", "outside, 4.6 over")
    assert log_of(demo, build).struck == 1
    assert builds.gate(demo, build).line.startswith("The vehicle maker's manual")


def test_demo_only_into_an_empty_hollet(demo):
    """The demo never mixes with builds that are there."""
    with pytest.raises(Conflict):
        fill_demo(demo)


def test_backup_and_restore(hand, tmp_path):
    """Restored, the later line is gone, and the database before it is kept."""
    file = hand.workshop.store.backup(tmp_path / "copy.sqlite")
    hand.write("note", text="later")
    folder = hand.workshop.store.folder
    hand.workshop.close()
    kept = restore_backup(file, folder, NOW)
    assert kept is not None
    assert kept.exists()
    again = Workshop(folder)
    assert log_of(again, hand.build).total == 1
    again.close()


def test_restoring_rubbish_changes_nothing(hand, tmp_path):
    """A file that is no backup is refused and the database stays."""
    bad = tmp_path / "bad.sqlite"
    bad.write_bytes(b"rubbish" * 1000)
    folder, build = hand.workshop.store.folder, hand.build
    hand.workshop.close()
    with pytest.raises(Refused, match="no Hollet database"):
        restore_backup(bad, folder, NOW)
    hand.workshop = Workshop(folder)
    assert log_of(hand.workshop, build).total == 1


def test_verify_finds_a_doctored_plan(hand):
    """A plan table that does not follow from the log is named."""
    from sqlalchemy import text

    with hand.workshop.store.write() as books:
        books.session.execute(
            text("UPDATE build SET plan = replace(plan, 'Small job', 'Smaller job')")
        )
    assert [line for line in verify(hand.workshop) if line.startswith("broken")] == [
        "broken: plan of Job, rebuilt from its log",
        "broken: the plan of the build Job was changed past Hollet",
    ]


def test_the_findings_of_the_demo(demo):
    """Two: traced from the front layshaft bearing, all faces seen, one thing left to decide, an
    overturned decision kept.
    """
    build = next(card.id for card in builds.cards(demo) if card.name.startswith("Two"))
    view = inspection(demo, build)
    debris = next(s for s in view.steps if s.step == "debris_traced")
    assert (debris.seen, debris.total, debris.trace.failed) == (35, 35, "lay_front")
    assert [p.name for p in debris.parts if p.needs] == ["Transfer case bearings"]
    gears = next(p for p in debris.parts if p.id == "lay_gears")
    assert [d.words.split(":")[0] for d in gears.decided] == ["use it again", "use it and watch"]
    assert (view.exposure.decided, view.exposure.worst_open, view.exposure.open_parts) == (
        240,
        900,
        1,
    )  # 48 + 44 + 62 + 4 + 74 and 8 for the seals; the case was only washed


def test_the_new_bearing_of_the_demo_differs(demo):
    """Two: laid beside the old one it is wider; nobody said that it will do, so its part stays at
    the gate. One: all faces of the engine seen, nothing left to decide.
    """
    cards = builds.cards(demo)
    two, one = (
        next(card.id for card in cards if card.name.startswith(name)) for name in ("Two", "One")
    )
    bearing = next(
        p for p in builds.bench(demo, two, "debris_traced").inspection.parts if p.id == "lay_front"
    )
    assert {b.feature: b.state for b in bearing.beside if b.state != "open"} == {
        "outside diameter": "same",
        "bore": "same",
        "width": "differs",
    }
    assert (
        next(b.words for b in bearing.beside if b.feature == "width")
        == "old 14 mm, new 15.25 mm: differs, 1.25 mm more"
    )
    engine = inspection(demo, one)
    assert (engine.seen, engine.to_decide) == (engine.total, 0)
    bores = next(t for t in engine.tables if t.group == "Bores")
    assert [row.grade for row in bores.rows] == [0, 2, 0, 0]
    assert any("loosest" in line for line in bores.says)


def test_the_measurements_of_the_demo(demo):
    """One: four bores mapped and one taper accepted, five mains by strip and one too close, eight
    shells and one outside.
    """
    build = one_of(demo).id
    found = {
        step: builds.bench(demo, build, step).results
        for step in ("bore_maps", "main_strips", "rod_shells")
    }
    assert [len(found[step]) for step in found] == [12, 5, 12]
    assert [r.name for r in found["bore_maps"] if r.conceded] == ["Taper 2"]
    assert [r.name for r in found["main_strips"] if r.judgement.verdict == "too_close"] == [
        "Main 4"
    ]
    assert [r.name for r in found["rod_shells"] if r.judgement.verdict == "outside"] == [
        "Rod 3, lower"
    ]
