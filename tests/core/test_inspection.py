"""Inspecting: faces and what holds of them, debris down the flow, decisions that stay provisional,
patterns that prove nothing.
"""

import tomllib

import pytest
from hypothesis import given
from hypothesis import strategies as st

from hollet.core.ageing import suspects, with_offers
from hollet.core.book.open_items import open_items
from hollet.core.errors import Conflict, NotFound, Refused
from hollet.core.findings import SURFACES
from hollet.core.procedure.combining import combine_sheets
from hollet.core.procedure.plan import select
from hollet.core.procedure.read import read_sheet
from hollet.core.procedure.tracing import Flow, Station, Trace, downstream
from hollet.core.steps.inspection import inspection_view
from hollet.library.lore import lore
from hollet.library.shelf import sheet_text
from tests.support import Book, small_sheet, tool, tools

SHEET = """
[sheet]
id = "box"
title = "Box"
about = "Three bearings, a gear, a filter."

[[limit]]
id = "gap"
name = "Gap"
dimension = "length"
unit = "mm"
lo = "0.02"
hi = "0.08"
source = "book"

[[trace]]
id = "oil"
name = "Oil"
station = [{ id = "a", name = "Bearing A", part = "a", x = 0, y = 0 },
  { id = "gear", name = "Gear", part = "gear", x = 50, y = 0 },
  { id = "mesh", name = "Screen", x = 60, y = 0, filter = true },
  { id = "b", name = "Bearing B", part = "b", x = 90, y = 0 },
  { id = "far", name = "Far case", part = "far", x = 99, y = 0 }]
flow = [{ start = "a", to = "gear" },
  { start = "a", to = "mesh" },
  { start = "mesh", to = "b" },
  { start = "b", to = "a" },
  { start = "b", to = "far" }]

[[step]]
id = "gaps"
stage = "inspect"
kind = "measure"
title = "Gaps"
do = "Measure."
reading = [{ id = "g1", name = "Gap 1", tool = "micrometer", nominal = "0.05 mm" },
  { id = "g2", name = "Gap 2", tool = "micrometer", nominal = "0.05 mm" },
  { id = "g3", name = "Gap 3", tool = "micrometer", nominal = "0.05 mm" },
  { id = "g4", name = "Gap 4", tool = "micrometer", nominal = "0.05 mm" }]
result = [{ id = "r1", name = "Gap 1", limit = "gap", reading = "g1" },
  { id = "r2", name = "Gap 2", limit = "gap", reading = "g2" },
  { id = "r3", name = "Gap 3", limit = "gap", reading = "g3" },
  { id = "r4", name = "Gap 4", limit = "gap", reading = "g4" }]

[[step]]
id = "look"
stage = "inspect"
kind = "inspect"
title = "All faces"
do = "Look."
trace = "oil"

[[step.part]]
id = "a"
name = "Bearing A"
price = 40
wrong = 400
face = [{ id = "rollers", name = "rollers", on = "rolling" },
  { id = "seat", name = "seat", on = "journal" }]

[[step.part]]
id = "b"
name = "Bearing B"
price = 30
wrong = 400
face = [{ id = "rollers", name = "rollers", on = "rolling" }]

[[step.part]]
id = "gear"
name = "Gear"
face = [{ id = "drive", name = "drive side", on = "teeth" },
  { id = "coast", name = "coast side", on = "teeth" }]

[[step.part]]
id = "far"
name = "Far case"
only_traced = true
wrong = 900
face = [{ id = "floor", name = "floor", on = "casting" }]
"""
SHELLS = "\n".join(
    (
        f'[[step.part]]\nid = "s{k}"\nname = "Shell {k}"\ngroup = "Shells"\nposition = '
        f'"{k}"\nclearance = ["gaps", "r{k}"]\nface = [{{ id = "run", name = "running", on = '
        f'"shell" }}]\n'
    )
    for k in range(1, 5)
)


@pytest.fixture
def book() -> Book:
    """The box, nothing seen."""
    return Book(small_sheet(SHEET), tools())


def see(
    book: Book, part: str, face: str, code: str | None = None, grade: int | None = None, **more
) -> None:
    """One look."""
    book.do(
        "finding",
        step="look",
        part=part,
        face=face,
        code=code,
        grade=grade,
        **{"cleaning": "washed", **more},
    )


def part_of(book: Book, part: str):
    """A part as the bench shows it."""
    return next(p for p in book.bench("look").inspection.parts if p.id == part)


def test_every_face_is_asked_for(book):
    """Seen faces count; the step cannot be done before the last, and says which is next."""
    with pytest.raises(Refused, match="5 of 5 faces not seen, first Bearing A, rollers"):
        book.do("done", step="look")
    see(book, "a", "rollers")
    facts = book.bench("look").inspection
    assert (facts.seen, facts.total, facts.next_part, facts.next_face) == (1, 5, "a", "seat")
    for part, face in (("a", "seat"), ("b", "rollers"), ("gear", "drive"), ("gear", "coast")):
        see(book, part, face)
    book.do("done", step="look")
    assert book.bench("look").base.settled


def test_dirty_unsure_and_light_are_not_good(book):
    """Nothing seen on a dirty face is no verdict; a sure grade 2 is bad; an unsure one is looked at
    again.
    """
    see(book, "a", "rollers", cleaning="as it came")
    see(book, "a", "seat", "fret", 2, confidence="unsure")
    see(book, "b", "rollers", "dent", 2)
    see(book, "gear", "drive", "pit_tooth", 1)
    states = {
        f"{p.id}/{f.id}": f.state for p in book.bench("look").inspection.parts for f in p.faces
    }
    assert states == {
        "a/rollers": "again",
        "a/seat": "again",
        "b/rollers": "bad",
        "gear/drive": "again",
        "gear/coast": "not_seen",
    }
    assert part_of(book, "a").faces[0].words == "nothing found yet, but it was dirty"


def test_a_cleaner_look_replaces_a_dirty_one_and_both_stay_readable(book):
    """Dents found after washing beat the dirty look; two terms of one look stand side by side; the
    earlier is not lost.
    """
    see(book, "a", "rollers", cleaning="as it came")
    see(book, "a", "rollers", "dent", 2)
    see(book, "a", "rollers", "tint", 3)
    face = part_of(book, "a").faces[0]
    assert face.words == "Dents, anywhere, several; Heat tint, blue or grey"
    assert [s.words for s in face.earlier] == ["nothing found, as it came"]
    see(book, "a", "rollers")
    face = part_of(book, "a").faces[0]
    assert face.state == "good"
    assert len(face.earlier) == 3


def test_a_dirty_look_never_clears_what_a_clean_one_showed(book):
    """Dents seen after washing stay, whatever a dirty look says later; new damage counts in
    whatever state it is seen.
    """
    see(book, "a", "rollers", "dent", 2)
    see(book, "a", "rollers", cleaning="as it came")
    assert part_of(book, "a").faces[0].words == "Dents, anywhere, several"
    see(book, "a", "rollers", "crack", 3, cleaning="wiped")
    assert part_of(book, "a").faces[0].words == "Dents, anywhere, several; Crack, through"
    see(book, "a", "rollers", cleaning="washed")
    assert part_of(book, "a").faces[0].state == "good"


def test_what_failed_puts_the_parts_in_the_order_of_the_flow(book):
    """Downstream of A: gear, screen, B behind the screen, the far case that nobody had listed."""
    assert [p.id for p in book.bench("look").inspection.parts] == ["a", "b", "gear"]
    book.do("traced", step="look", station="a")
    facts = book.bench("look").inspection
    assert [(p.mark, p.id) for p in facts.parts] == [
        ("F", "a"),
        ("1", "gear"),
        ("3", "b"),
        ("4", "far"),
    ]
    assert part_of(book, "b").reached == "chips came this way, past Screen"
    assert facts.total == 6
    book.do("traced", step="look", station=None)
    assert book.bench("look").inspection.total == 5
    with pytest.raises(NotFound):
        book.do("traced", step="look", station="z")


def test_good_but_downstream_is_asked_once_more(book):
    """A part that is good where chips went by, and was only wiped, keeps the step open until it is
    washed.
    """
    book.do("traced", step="look", station="b")
    for part, face in (
        ("a", "rollers"),
        ("a", "seat"),
        ("gear", "drive"),
        ("gear", "coast"),
        ("b", "rollers"),
    ):
        see(book, part, face)
    see(book, "far", "floor", cleaning="wiped")
    assert (
        book.bench("look").base.lacking
        == "Far case: good, and chips came this way: wash it and look again"
    )
    see(book, "far", "floor", cleaning="washed")
    assert book.bench("look").base.lacking is None


def test_a_verdict_is_provisional_until_the_other_side_is_seen(book):
    """Decided on one face: provisional; a bad second face overturns it; the earlier stays; replaced
    is shut until it is done.
    """
    see(book, "a", "rollers")
    book.do("part decided", step="look", part="a", choice="reuse", reason="looks new")
    assert part_of(book, "a").provisional
    see(book, "a", "seat", "fret", 3)
    part = part_of(book, "a")
    assert (part.provisional, part.needs, part.since) == (
        False,
        True,
        "seen since it was decided: Fretting, heavy, washed, seat",
    )
    book.do(
        "part decided", step="look", part="a", choice="replace", reason="seat is gone too", price=44
    )
    part = part_of(book, "a")
    assert [d.words for d in part.decided] == [
        "use it again: looks new",
        "replace: seat is gone too",
    ]
    assert not part.needs
    assert book.open()["part:look/a"] == "crank"
    with pytest.raises(Refused) as refusal:
        book.do("part put right", step="look", part="a", how="new one, same width and bore")
    assert refusal.value.reason_code == "not_compared"
    lay(book, "width", "14 mm", "14 mm", same=True)
    book.do("part put right", step="look", part="a", how="new one, same width and bore")
    assert "part:look/a" not in book.open()


def test_chips_reach_a_part_of_another_step():
    """A part that is looked at in a step of its own says so too, as soon as something upstream
    broke up, and no longer when the trace is taken back.
    """
    other = (
        '\n[[step]]\nid = "later"\nstage = "inspect"\nkind = "inspect"\ntitle = "Far case '
        'alone"\ndo = "Look."\n\n[[step.part]]\nid = "far"\nname = "Far case"\nface = [{ id = '
        '"lid", name = "lid", on = "casting" }]\n'
    )
    first, _, rest = SHEET.partition('[[step.part]]\nid = "far"')
    book = Book(small_sheet(first + other.lstrip()), tools())
    assert rest
    assert book.bench("later").inspection.parts[0].reached is None
    book.do("traced", step="look", station="a")
    assert book.bench("later").inspection.parts[0].reached == "chips came this way, past Screen"
    see_lid = {"step": "later", "part": "far", "face": "lid", "cleaning": "wiped"}
    book.do("finding", **see_lid)
    assert (
        book.bench("later").base.lacking
        == "Far case: good, and chips came this way, past Screen: wash it and look again"
    )
    book.do("traced", step="look", station=None)
    assert book.bench("later").base.lacking is None


def lay(
    book: Book, feature: str, old: str, new: str, *, same: bool, why: str | None = None
) -> None:
    """One feature of bearing A, old against new."""
    book.do(
        "laid beside", step="look", part="a", feature=feature, old=old, new=new, same=same, why=why
    )


def test_the_new_part_is_laid_beside_the_old(book):
    """Features come from its faces; a difference shuts the gate also after the part was put right,
    till somebody says why it will do; the log keeps all.
    """
    assert part_of(book, "a").beside == ()
    book.do("part decided", step="look", part="a", choice="replace", reason="pitted")
    asked = [b.feature for b in part_of(book, "a").beside]
    assert asked == [
        "outside diameter",
        "bore",
        "width",
        "number on it",
        "letters of clearance",
        "seals or shields",
        "diameters",
        "length",
        "keyways and holes",
        "all that belongs to it",
    ]
    lay(book, "outside diameter", "47 mm", "47 mm", same=True)
    lay(book, "width", "14 mm", "0.6 in", same=False)
    lay(book, "lip", "to the outside", "to the outside", same=True)
    found = {b.feature: (b.state, b.words) for b in part_of(book, "a").beside}
    assert found["outside diameter"] == ("same", "old 47 mm, new 47 mm: same")
    assert found["width"] == (
        "differs",
        "old 14 mm, new 0.6 in: differs, 1.24 mm more",
    )  # 0.6 x 25.4 - 14
    assert found["lip"] == ("same", "old to the outside, new to the outside: same")
    book.do(
        "laid beside", step="look", part="a", feature="bore", old="2 in", new="50.8 mm"
    )  # equal figures need no word
    assert part_of(book, "a").beside[1].state == "same"
    book.do(
        "laid beside", step="look", part="a", feature="bore", old="2 in", new="2.0"
    )  # the unit holds for both
    with pytest.raises(Refused, match="do not read alike"):
        book.do("laid beside", step="look", part="a", feature="bore", old="2 in", new="51 mm")
    book.do("part put right", step="look", part="a", how="new one pressed on")
    assert (
        next(i.what for i in open_items(book.state, ()) if i.id == "part:look/a")
        == "Bearing A, width: old 14 mm, new 0.6 in: differs, 1.24 mm more"
    )
    lay(book, "width", "14 mm", "0.6 in", same=False, why="spacer ring turned down by as much")
    assert "part:look/a" not in book.open()
    assert part_of(book, "a").beside[2].state == "will_do"


def test_nothing_is_put_right_before_it_is_decided(book):
    """And undecided or looking deeper keeps the step open."""
    with pytest.raises(Refused, match="decide first"):
        book.do("part put right", step="look", part="b", how="new one")
    for part, face in (("a", "rollers"), ("a", "seat"), ("gear", "drive"), ("gear", "coast")):
        see(book, part, face)
    see(book, "b", "rollers", "dent", 2)
    assert book.bench("look").base.lacking == "Bearing B: found, and nothing is decided"
    book.do("part decided", step="look", part="b", choice="deeper", reason="open the cage first")
    assert book.bench("look").base.lacking == "Bearing B: look deeper"
    book.do(
        "part decided",
        step="look",
        part="b",
        choice="watch",
        reason="low load, once a year",
        name="MK",
    )
    assert book.bench("look").base.lacking is None


def test_what_was_found_bad_stays_at_the_gate_when_the_step_is_passed_over(book):
    """Skipped, or done all the same: a part found bad and not decided is still named."""
    see(book, "b", "rollers", "dent", 2)
    book.do("skipped", step="look", reason="no time left for it")
    assert book.open()["part:look/b"] == "crank"
    book.do(
        "part decided",
        step="look",
        part="b",
        choice="watch",
        reason="low load, once a year",
        name="MK",
    )
    assert "part:look/b" not in book.open()


def test_cleaned_and_good_is_done_by_looking(book):
    """Clean and look again is put right by a clean look that finds nothing."""
    see(book, "b", "rollers", "corrosion", 2, cleaning="wiped")
    book.do("part decided", step="look", part="b", choice="clean", reason="wash, then look")
    assert "part:look/b" in book.open()
    see(book, "b", "rollers", cleaning="polished")
    assert part_of(book, "b").right == "looked at again clean, and good"
    assert "part:look/b" not in book.open()


def test_own_faces_and_parts(book):
    """What no sheet names: another face, another part; the same face twice is refused; struck, it
    is gone.
    """
    book.do(
        "face added",
        step="look",
        part="a",
        part_name="x",
        face="own-cage",
        face_name="cage",
        on="rolling",
    )
    entry = book.do(
        "face added",
        step="look",
        part="own-vent",
        part_name="Vent",
        face="own-hose",
        face_name="hose",
        on="seal",
        safety="none",
    )
    assert [f.name for f in part_of(book, "a").faces] == ["rollers", "seat", "cage"]
    assert part_of(book, "own-vent").faces[0].own
    with pytest.raises(Conflict):
        book.do(
            "face added",
            step="look",
            part="own-vent",
            part_name="Vent",
            face="own-hose",
            face_name="hose",
            on="seal",
            safety="none",
        )
    book.do("strike", entry=entry.id, reason="not there")
    assert all(p.id != "own-vent" for p in book.bench("look").inspection.parts)


def test_bad_findings_are_refused(book):
    """No grade, no such term, part, face or photo: one sentence, nothing written."""
    head = book.state.head
    with pytest.raises(Refused, match="1 one or two, 2 several or 3 all round"):
        see(book, "a", "rollers", "dent")
    for part, face, more in (
        ("z", "x", {}),
        ("a", "z", {}),
        ("a", "rollers", {"code": "nonsense", "grade": 1}),
        ("a", "rollers", {"photo": "0" * 64}),
    ):
        with pytest.raises(NotFound):
            see(book, part, face, **more)
    assert book.state.head == head


def test_money(book):
    """Decided, the worst of what is open, and what it costs if what is used again is not good."""
    see(book, "a", "rollers", "spall", 3)
    see(book, "a", "seat")
    see(book, "b", "rollers", "dent", 1)
    book.do("part decided", step="look", part="a", choice="replace", reason="broken up")
    book.do("part decided", step="look", part="b", choice="watch", reason="one light dent")
    money = inspection_view(book.state).exposure
    assert (
        money.decided,
        money.if_wrong,
        money.worst_open,
        money.open_parts,
        money.without_price,
    ) == (40, 400, 0, 1, ("Gear",))


def shells(gaps: tuple[str, ...], grades: tuple[int, ...]) -> Book:
    """Four shells with measured gaps and grades of wear."""
    book = Book(
        small_sheet(SHEET + SHELLS),
        {**tools(), "m3": tool("m3", "micrometer", lo="0", hi="25", mpe="0.002", s="0.001")},
    )
    for k, gap in enumerate(gaps, start=1):
        book.read("gaps", f"g{k}", gap, tool="m3", sure=True)
    for k, grade in enumerate(grades, start=1):
        see(book, f"s{k}", "run", "score" if grade else None, grade or None)
    return book


@pytest.mark.parametrize(
    ("gaps", "grades", "says"),
    [
        (
            ("0.02", "0.05", "0.06", "0.07"),
            (3, 0, 0, 0),
            "the worst one (1) is the tightest: clearance may be the reason",
        ),
        (
            ("0.05", "0.02", "0.06", "0.09"),
            (0, 0, 3, 0),
            (
                "the worst (3) is neither the tightest (2) nor the loosest (4): clearance does not "
                "explain it"
            ),
        ),
        (
            ("0.05", "0.02", "0.06", "0.09"),
            (0, 0, 0, 2),
            "the worst one (4) is the loosest: reason or result, clearance alone does not tell",
        ),
        (
            ("0.050", "0.051", "0.052", "0.050"),
            (0, 2, 0, 0),
            (
                "their clearances differ by no more than the tools can tell: clearance explains "
                "nothing here"
            ),
        ),
        (
            ("0.05", "0.02", "0.06", "0.09"),
            (2, 2, 2, 2),
            "all of them alike: look for what they share, oil and filter, not for the one place",
        ),
        (("0.05", "0.02", "0.06", "0.09"), (0, 0, 0, 0), None),
    ],
)
def test_what_a_pattern_says(gaps, grades, says):
    """Clearance and wear side by side; where the pattern does not support the conclusion, that is
    said.
    """
    (table,) = inspection_view(shells(gaps, grades).state).tables
    assert table.says == ((says,) if says else ())
    assert [row.grade for row in table.rows] == list(grades)


def test_two_things_changed_prove_nothing():
    """A cause file with one thing varied and another changed warns, on the table too; settled is
    kept.
    """
    book = shells(("0.02", "0.05", "0.06", "0.07"), (3, 0, 0, 0))
    book.do("cause", cause="oil", what="Thin oil", step="look")
    book.do("evidence", cause="oil", sort="varied", text="Thinner oil")
    book.do("evidence", cause="oil", sort="changed", text="New pump")
    view = inspection_view(book.state)
    assert "2 things were changed at once (Thinner oil; New pump)" in (view.causes[0].doubt or "")
    assert view.tables[0].says[-1] == view.causes[0].doubt
    assert not view.causes[0].settled
    book.do("evidence", cause="oil", sort="settled", text="Same wear with the old oil")
    assert inspection_view(book.state).causes[0].settled
    with pytest.raises(NotFound):
        book.do("evidence", cause="water", sort="for", text="milky oil")


def test_age_makes_suspects():
    """Nothing for facts that nobody gave; long standing and an unknown history name rubber, fluids
    and guides.
    """
    assert suspects(lore().ageing, {}) == ()
    assert (
        suspects(lore().ageing, {"standing": "in use", "history": "known", "fuel_spirit": "none"})
        == ()
    )
    old = {s.thing for s in suspects(lore().ageing, {"standing": "over five years"})}
    assert {"Shaft seals", "Brake and clutch fluid", "Valve guides and stems"} <= old
    assert "Petrol and what it stood in" not in old  # nobody said what it runs on
    petrol = suspects(lore().ageing, {"standing": "months", "fuel": "petrol"})
    assert "Petrol and what it stood in" in {s.thing for s in petrol}
    assert {s.thing for s in suspects(lore().ageing, {"standing": "over a year"})} < old


def shipped(name: str):
    """A sheet that ships."""
    return read_sheet(tomllib.loads(sheet_text(name)), sheet_text(name))


def test_what_is_suspect_for_its_age_is_offered_where_the_work_reaches_it():
    """Offered at the first of its steps that the plan has, once the facts say so, and never twice;
    a plan that reaches nothing is offered nothing.
    """
    plan = with_offers(combine_sheets([shipped("gearbox-out")]), lore().ageing)
    told = plan.model_copy(update={"facts": {"standing": "over five years"}})
    assert not [x for x in select(plan).plan.extra if x.suspect]
    shown = [x for x in select(told).plan.extra if x.suspect]
    assert "Shaft seals" in {x.thing for x in shown}
    here = {step.id for step in plan.step}
    assert all(x.at in here and x.because.startswith("suspect for its age: ") for x in shown)
    assert with_offers(plan, lore().ageing) == plan
    bare = combine_sheets([shipped("running-gear-measured")])
    assert with_offers(bare, lore().ageing) == bare


def test_every_term_is_whole():
    """Each term stands on a kind of face, and each kind of face has terms; three grades, a usual
    end.
    """
    assert len(lore().finding) >= 30
    for surface in SURFACES:
        assert len(lore().codes_for(surface)) >= 3, surface
    for code in lore().finding:
        assert len(set(code.grades)) == 3
        assert code.usual, code.id


GRAPH = st.lists(
    st.tuples(st.integers(0, 7), st.integers(0, 7)).filter(lambda f: f[0] != f[1]),
    min_size=1,
    max_size=20,
)


@given(flows=GRAPH, failed=st.integers(0, 7), filters=st.sets(st.integers(0, 7)))
def test_downstream_is_all_that_can_be_reached_nearest_first(flows, failed, filters):
    """Against an independent search: the same places, in order of distance, numbered
    without a gap.
    """
    trace = Trace(
        id="t",
        name="T",
        station=tuple(
            Station(id=f"s{k}", name=f"S{k}", x=0, y=0, filter=k in filters) for k in range(8)
        ),
        flow=tuple(Flow(start=f"s{a}", to=f"s{b}") for a, b in flows),
    )
    far = {failed: 0}
    edge = {failed}
    while edge:
        edge = {b for a, b in flows if a in edge and b not in far}
        far |= {b: max(far.values()) + 1 for b in edge}
    found = downstream(trace, f"s{failed}")
    assert {r.station: r.distance for r in found} == {
        f"s{k}": d for k, d in far.items() if k != failed
    }
    assert [r.distance for r in found] == sorted(r.distance for r in found)
    assert [r.n for r in found] == list(range(1, len(found) + 1))
    for r in found:
        assert set(r.filters) <= {f"S{k}" for k in filters}


@pytest.mark.parametrize(
    ("bad", "words"),
    [
        ('trace = "oil"', 'trace = "water"'),
        ('to = "far" }', 'to = "nowhere" }'),
        ('part = "b"', 'part = "zz"'),
        ('id = "seat", name', 'id = "rollers", name'),
    ],
)
def test_a_sheet_with_a_wrong_inspection_is_refused(bad, words):
    """A trace, a station, a part or a face that is not there, with what would be right."""
    text = SHEET.replace(bad, words, 1)
    with pytest.raises(Refused):
        read_sheet(tomllib.loads(text), text)
