"""What carries it, what is open, what is empty, what is bad: said falsely by no way of leaving
something out.
"""

import pytest

from hollet.core.book.order_back import Choices
from hollet.core.book.rebuild import rebuild_view
from hollet.core.book.secure import secure_view
from hollet.core.book.supports import support_view
from hollet.core.book.take_over import rebuild_changes
from hollet.core.entries import PartDecided
from hollet.core.errors import Refused
from hollet.core.procedure.changes import apply
from hollet.core.procedure.closings import plan_gaps
from hollet.core.procedure.combining import combine_sheets
from hollet.core.procedure.plan import select
from hollet.core.procedure.sheet import Sheet
from tests.core.test_passing import press, reach, refused, shelf
from tests.support import SMALL, TAKE, Book, small_sheet, tools

WHY = "it can still be reached from here"
INSPECT = """
[sheet]
id = "look"
title = "Looked at"
about = "Parts, one of them safety-critical."

[[step]]
id = "look"
stage = "inspect"
kind = "inspect"
title = "Looked at"
do = "Look."

[[step.part]]
id = "joint"
name = "Upper ball joint"
safety = "suspension"
face = [{ id = "lift", name = "lifted", on = "felt" },
  { id = "stud", name = "stud", on = "casting" }]

[[step.part]]
id = "line"
name = "Fuel line"
safety = "fuel"
face = [{ id = "pipe", name = "pipe", on = "wire" }]

[[step.part]]
id = "face"
name = "Head face"
face = [{ id = "deck", name = "deck", on = "flange" }]
"""


@pytest.fixture
def look() -> Book:
    """A build with three parts to look at."""
    return Book(small_sheet(INSPECT), tools())


def seen(
    book: Book, part: str, face: str, code: str | None = None, grade: int | None = None, **own
):
    """One look."""
    return book.do(
        "finding",
        step="look",
        part=part,
        face=face,
        code=code,
        grade=grade,
        cleaning="washed",
        **own,
    )


def hung() -> Book:
    """The engine of a shipped job on its hook, the mounts still in."""
    book = shelf("powertrain-up")
    reach(book, "mounts_undone", "lift_points_on")
    reach(book, "lift_points_on")
    book.hung("lift_points_on")
    book.do("done", step="lift_points_on", reason=WHY)
    return book


def line(book: Book) -> str:
    """What carries the load."""
    return support_view(book.state).line


def test_the_map_follows_the_steps():
    """Hung, set down, lowered in and on its mounts: without a word by hand; struck it hangs again,
    reopened it does not.
    """
    book = hung()
    assert line(book) == "engine on 2 hooks"
    book.do("done", step="mounts_undone")
    reach(book, "engine_up")
    press(book, "engine_up")
    book.do("done", step="engine_up", reason=WHY)
    press(book, "unit_set_down")
    down = book.do("done", step="unit_set_down", reason=WHY)
    assert line(book) == "engine on a cradle"
    book.do("strike", entry=down.id, reason="it still hangs")
    assert line(book) == "engine on 2 hooks"
    book.do("done", step="unit_set_down", reason=WHY)
    book.do("reopened", step="unit_set_down")
    assert line(book) == "engine on a cradle"


def test_mounts_wait_until_something_carries_the_engine():
    """Nothing hung: no reason undoes the mounts.

    Hung and taken away again: not known, and everything waits.
    """
    book = shelf("powertrain-up")
    reach(book, "mounts_undone")  # the sling is said not to be there
    refused(book, "done", "load", step="mounts_undone", reason=WHY)
    book.do(
        "supported", support="h", support_kind="helper", carries="engine", point="front lifting eye"
    )
    refused(
        book, "done", "load", step="mounts_undone", reason=WHY
    )  # hands carry nothing that is let down on them
    book.do(
        "supported", support="h", support_kind="hook", carries="engine", point="front lifting eye"
    )
    book.do("done", step="mounts_undone", reason=WHY)
    book.do(
        "supported",
        support="h",
        support_kind="hook",
        carries="engine",
        point="front lifting eye",
        gone=True,
    )
    assert line(book) == "nobody said what carries the engine"
    assert book.gate("crank").first[0].what == "Engine: nobody said what carries it"
    reach(book, "engine_up")
    press(book, "engine_up")
    refused(book, "done", "load", step="engine_up", reason=WHY)


def test_made_safe_is_the_core_s_answer():
    """Two presses make nothing safe while nobody said what carries the load, or while it hangs."""
    book = hung()
    book.do("stopped", why="a storm")
    for item in secure_view(book.state, book.time).items:
        book.do("secured", item=item.key, what=item.what)
    view = secure_view(book.state, book.time)
    assert not view.made_safe
    assert view.not_safe == "Engine: a cradle, or two stands, under it"
    empty = Book(small_sheet(), tools())
    empty.do("stopped", why="a storm")
    for item in secure_view(empty.state, empty.time).items:
        empty.do("secured", item=item.key, what=item.what)
    assert secure_view(empty.state, empty.time).not_safe == "Say what carries the load"
    empty.do(
        "supported",
        support="w",
        support_kind="wheels",
        carries="vehicle",
        point="all four wheels",
        ground="hard",
    )
    for corner in ("front left wheel", "front right wheel", "rear left wheel"):
        empty.do(
            "supported",
            support=corner.replace(" ", "-"),
            support_kind="wheels",
            carries="vehicle",
            point=corner,
        )
    assert secure_view(empty.state, empty.time).made_safe


def test_undone_asks_what_carries_it():
    """'Vehicle on stands' is not undone by one press, and not by another body; on its
    wheels it is.
    """
    book = shelf("powertrain-up")
    press(book, "vehicle_raised")
    book.do("done", step="vehicle_raised")
    item = next(i for i in book.view().left_open if i.id == "stands")
    assert item.holds_up == "vehicle"
    assert (
        "say what carries the vehicle now"
        in refused(book, "undone", "carried_by_what", item="stands").message
    )
    refused(
        book, "undone", "carried_by_what", item="stands", now_on={"body": "engine", "by": "hook"}
    )
    book.do("undone", item="stands", now_on={"body": "vehicle", "by": "wheels", "count": 4})
    assert line(book) == "vehicle on 4 of its own wheels"


def test_the_dangerous_word_comes_first():
    """What hangs before what stands; what nobody knows before both."""
    book = shelf("powertrain-up")
    press(book, "vehicle_raised")
    book.do("done", step="vehicle_raised")
    book.do(
        "supported",
        support="g",
        support_kind="stand",
        carries="gearbox",
        point="gearbox tail",
        ground="hard",
    )
    reach(book, "mounts_undone", "lift_points_on")
    book.do(
        "supported", support="h", support_kind="hook", carries="engine", point="front lifting eye"
    )
    assert book.view().carried.startswith("engine on a hook; ")
    assert support_view(book.state).ground_asked
    book.do("vehicle stands", bay="bay 1", ground="hard")
    assert not support_view(book.state).ground_asked


def test_an_old_plan_is_asked_once():
    """A plan that says nothing of loads: asked before the first lift, not at every step."""
    old = Book(small_sheet(TAKE), tools())
    assert "nobody said yet" in refused(old, "done", "load", step="shaft_off", reason=WHY).message
    old.on_wheels()
    old.do("done", step="lead_off")
    old.do("done", step="drained")
    refused(old, "done", "must_wait", step="shaft_off")


@pytest.mark.parametrize(
    ("part", "face", "code", "grade", "rung"),
    [
        ("joint", "lift", "noise", 3, "drive"),
        ("joint", "stud", "crack", 1, "drive"),
        ("line", "pipe", "brittle", 2, "fuel_on"),
        ("face", "deck", "crack", 3, None),
    ],
)
def test_a_bad_part_used_again_is_a_concession(look: Book, part, face, code, grade, rung):
    """'Looks fine' is no concession, watched no better than used again; in writing it is, and a
    safety part stays shut until inspected.
    """
    seen(look, part, face, code, grade)
    for other in look.state.plan.find_step("look").part:
        for one in other.face:
            if (other.id, one.id) != (part, face):
                seen(look, other.id, one.id)
    for choice in ("reuse", "watch"):
        refused(
            look,
            "part decided",
            "concession_asked",
            step="look",
            part=part,
            choice=choice,
            reason="looks fine",
        )
        refused(
            look,
            "part decided",
            "concession_asked",
            step="look",
            part=part,
            choice=choice,
            reason="abc",
            name="MK",
        )
    assert f"part:look/{part}" in look.open()
    look.do(
        "part decided",
        step="look",
        part=part,
        choice="watch",
        reason="once a year to the tip and back",
        name="MK",
    )
    assert look.open().get(f"part:look/{part}") == rung
    look.do(
        "part decided",
        step="look",
        part=part,
        choice="watch",
        reason="inspected, good for a year",
        name="MK",
        licensed="Inspector 7, no. 4711",
    )
    assert f"part:look/{part}" not in look.open()


def test_old_logs_used_bad_parts_again(look: Book):
    """Decided before the rule, without a name: at the gate again."""
    seen(look, "joint", "stud", "crack", 3)
    look.add(
        PartDecided(
            step="look",
            part="joint",
            part_name="Upper ball joint",
            choice="reuse",
            reason="looks fine",
            seen=2,
            faces=2,
        ),
    )
    assert look.open()["part:look/joint"] == "drive"


def test_polished_and_light_rust_are_not_bad(look: Book):
    """Some terms are never bad by themselves, corrosion only when heavy; spalling and a bent stud
    at once.
    """
    seen(look, "joint", "stud", "corrosion", 2)
    assert not look.bench("look").inspection.parts[0].bad
    seen(look, "joint", "stud", "corrosion", 3)
    assert look.bench("look").inspection.parts[0].bad


def test_a_struck_finding_asks_for_another_look(look: Book):
    """Good once, cracked later, the crack struck: not good, look again; looked again it is."""
    seen(look, "face", "deck")
    crack = seen(look, "face", "deck", "crack", 2)
    look.do("strike", entry=crack.id, reason="it was a hair")
    face = look.bench("look").inspection.parts[2].faces[0]
    assert face.state == "again"
    assert "a finding here was struck" in face.words
    seen(look, "face", "deck")
    assert look.bench("look").inspection.parts[2].faces[0].state == "good"


def test_a_passed_over_inspection_says_nothing_of_safety_parts(look: Book):
    """Skipped, the ball joint and the fuel line are not known, and their rungs stay shut."""
    look.do("skipped", step="look", reason="it is not needed on this job")
    assert (look.open()["part:look/joint"], look.open()["part:look/line"]) == ("drive", "fuel_on")
    assert "part:look/face" not in look.open()


def test_an_own_part_asks_what_hangs_on_it(look: Book):
    """A part added by hand says whether it is safety-critical."""
    own = {
        "step": "look",
        "part": "own-rod",
        "part_name": "Track rod",
        "face": "own-eye",
        "face_name": "eye",
        "on": "casting",
    }
    refused(look, "face added", "safety_asked", **own)
    look.do("face added", **own, safety="steering")
    assert look.bench("look").inspection.parts[-1].safety == "steering"


def test_drained_again_it_is_empty_again():
    """What was filled, and why it stayed empty, counts from the last draining on."""
    book = shelf("top-end")
    book.absent("vehicle_raised")
    book.do("done", step="coolant_out")
    why = {"about": "empty", "reason": "the engine is sold without its radiator"}
    book.do("decision", step="coolant_out", thing="coolant", **why)
    assert "empty:coolant" not in book.open()
    book.do("reopened", step="coolant_out")
    book.do("done", step="coolant_out")
    assert book.open()["empty:coolant"] == "fire"


def test_empty_until_it_is_filled():
    """Drained: empty, whatever else is done; oil shuts crank, coolant fire; struck or left out for
    a reason it is not.
    """
    book = shelf("top-end")
    assert "empty:engine_oil" not in book.open()
    book.absent("vehicle_raised")
    drained = book.do("done", step="engine_oil_out")
    book.do("done", step="coolant_out")
    assert (book.open()["empty:engine_oil"], book.open()["empty:coolant"]) == ("crank", "fire")
    book.do("skipped", step="engine_oil_in", reason="it is not needed on this job")
    assert book.open()["empty:engine_oil"] == "crank"
    book.do("reopened", step="engine_oil_in")
    reach(book, "engine_oil_in")
    book.read("engine_oil_in", "engine_oil_in", "4.2 L", tool="j1")
    book.do("confirmed", step="engine_oil_in", what=book.bench("engine_oil_in").level)
    book.do("done", step="engine_oil_in")
    assert "empty:engine_oil" not in book.open()
    book.do(
        "decision",
        step="coolant_out",
        about="empty",
        thing="coolant",
        reason="the engine is sold without its radiator",
    )
    assert "empty:coolant" not in book.open()
    book.do("strike", entry=drained.id, reason="only looked at")
    assert "empty:engine_oil" not in book.open()


def half_done(*without: str) -> Sheet:
    """powertrain-up as somebody would write it who forgot some steps."""
    sheet = shelf("powertrain-up").state.whole
    steps = tuple(
        s.model_copy(update={"after": tuple(a for a in s.after if a.step not in without)})
        for s in sheet.step
        if s.id not in without
    )
    return sheet.model_copy(update={"step": steps})


def gaps(*names: str) -> dict[str, str]:
    """What a plan of these shipped sheets leaves undone."""
    plan = combine_sheets([shelf(name).state.whole for name in names])
    return {gap.item: gap.kind for gap in plan_gaps(select(plan).plan)}


def test_the_plan_says_what_it_never_closes():
    """A sheet that never puts its fuel line on again and never fills its coolant says so; the
    shipped ones do both.
    """
    left = half_done("fuel_line_on", "coolant_in")
    found = {gap.item: gap.kind for gap in plan_gaps(combine_sheets([left]))}
    assert (found["fuel_caps"], found["coolant"]) == ("never_closed", "never_filled")
    for names in (("powertrain-up",), ("powertrain-up", "first-start"), ("top-end",)):
        assert not {"fuel_caps", "coolant"} & gaps(*names).keys()


@pytest.mark.parametrize(
    ("later", "kind"),
    [
        ('{ body = "vehicle", by = "wheels", count = 4 }', None),
        ('{ body = "vehicle", by = "ramp", count = 4 }', "never_lowered"),
        ('{ body = "engine", by = "mounts" }', "never_lowered"),
        ('{ body = "engine", by = "wheels" }', "never_lowered"),
    ],
)
def test_what_is_raised_is_let_down_on_its_own(later, kind):
    """Only the vehicle itself on its own wheels lets it down: not on something else, and nothing
    else on wheels or mounts.
    """
    stands = 'carries = [{ body = "vehicle", by = "stand", count = 4 }]'
    text = TAKE.replace('id = "lead_off"', f'id = "lead_off"\n{stands}', 1)
    text = text.replace('id = "lead_on"', f'id = "lead_on"\ncarries = [{later}]', 1)
    found = {gap.item: gap.kind for gap in plan_gaps(combine_sheets([small_sheet(text)]))}
    assert found.get("vehicle") == kind


def test_the_order_back_closes_between_the_right_rungs():
    """powertrain-up with first-start: the new step comes after cranking, before the fuel is on, and
    doing it closes the item.
    """
    book = Book(
        combine_sheets([half_done("fuel_line_on"), shelf("first-start").state.whole]),
        tools(),
    )
    reach(book, "fuel_capped")
    book.do("reopened", step="battery_off")
    book.do("done", step="battery_off")
    press(book, "fuel_capped")
    book.do("done", step="fuel_capped")
    view = rebuild_view(book.state)
    order = [made.step for made in view.lines]
    assert order.index("crank_oil") < order.index("back-fuel_capped") < order.index("leak_look")
    changes = rebuild_changes(book.state, Choices())
    plan = select(apply(book.state.whole, changes)).plan
    assert "fuel_caps" not in {gap.item for gap in plan_gaps(plan)}
    made = plan.find_step("back-fuel_capped")
    assert (made.stage, made.closes, made.blocks) == ("wake", ("fuel_caps",), "fuel_on")


def test_left_open_by_hand_is_closed_where_its_step_goes_back():
    """A sender wire left off at 'wires off' is cleared at 'wires on', not by the step that opened
    it; another may be named.
    """
    book = shelf("powertrain-up")
    book.do(
        "left open", step="wires_off", item="sender", what="Temperature sender wire", blocks="fire"
    )
    book.do("left open", step="wires_off", item="horn", what="Horn wire", closes_at="radiator_on")
    found = {i.id: i.clear_at for i in book.view().left_open}
    assert (found["sender"], found["horn"]) == ("wires_on", "radiator_on")


def test_looked_at_in_the_dark_is_looked_at_again_by_day(look: Book):
    """In the dark or in blown sand it stands on the list, by day the press takes it off; in the
    dark it does not.
    """
    seen(look, "face", "deck")
    assert not any(i.kind == "look_again" for i in look.view().left_open)
    look.do("surroundings", around=["dark"])
    seen(look, "line", "pipe")
    due = next(i for i in look.view().left_open if i.kind == "look_again")
    assert due.what == "Looked at: looked at in the dark"
    look.do("confirmed", step="look", what=due.box)
    assert any(i.kind == "look_again" for i in look.view().left_open)
    look.do("surroundings", around=[])
    look.do("confirmed", step="look", what=due.box)
    assert not any(i.kind == "look_again" for i in look.view().left_open)


def test_resume_names_the_last_thing_done(book: Book):
    """Not the first step that is open: the last one done, and what comes next."""
    press(book, "lead")
    book.do("done", step="lead")
    resume = book.view().resume
    assert (resume.title, resume.line) == (
        "Last done: 2.01 Lead off",
        "Next is 2.02 Head bolts out.",
    )
    book.do("started", step="ring")
    assert book.view().resume.title == "You stopped at 3.02 Ring"


def test_not_given_blocks_until_somebody_says_a_figure():
    """Measured and done, nothing to judge by: the rung stays shut."""
    book = Book(small_sheet(SMALL.replace('hi = "0.50"\n', "")), tools())
    book.read("ring", "ring", "0.36", tool="f1")
    assert "no figure" in book.bench("ring").base.lacking
    book.do("done", step="ring", reason="it is done later, on purpose")
    assert book.open()["limit:ring/gap"] == "crank"


def test_figures_are_not_read_by_one_press():
    """A step that sources the figures is done when the coming stage has none left to find, or is
    let go with a reason that is written.
    """
    text = SMALL.replace(
        'id = "lead"\nstage = "take_down"',
        'id = "sourced"\nstage = "plan"\nkind = "check"\nhunts = true\ntitle = "Figures '
        'sourced"\ndo = "Find."\n\n[[step]]\nid = "lead"\nstage = "take_down"',
        1,
    )
    bare = (
        text.replace('stage = "take_down"', 'stage = "build_up"')
        .replace('stage = "inspect"', 'stage = "build_up"')
        .replace('source = "book p. 4"\nfastener', "fastener")
    )
    with pytest.raises(Refused, match="to find for Build up"):
        Book(small_sheet(bare), tools()).do("done", step="sourced")
    Book(small_sheet(bare), tools()).do("done", step="sourced", reason="the book comes on Monday")
    Book(small_sheet(text), tools()).do("done", step="sourced")
