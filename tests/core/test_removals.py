"""What came off, in its order; the order back made from it; taken over as the plan."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from hollet.core.book.order_back import Choices
from hollet.core.book.rebuild import rebuild_view
from hollet.core.book.removals import find_removal, removals
from hollet.core.book.take_over import rebuild_changes
from hollet.core.entries import PlanEdited
from hollet.core.errors import Conflict, Refused
from hollet.core.procedure.changes import apply
from hollet.core.procedure.precedence import contradiction
from hollet.screens.takedown import takedown_view
from hollet.services.sheets import parse_sheet
from tests.support import TAKE, Book, small_sheet, tools

BARE = """
[sheet]
id = "bare"
title = "Bare"
about = "Nothing but the log."

[[step]]
id = "begin"
stage = "take_down"
kind = "check"
title = "Begin"
do = "Begin."
"""


@pytest.fixture
def book() -> Book:
    """A build whose cover and shaft are off, with a fan logged in between."""
    made = Book(small_sheet(TAKE), tools())
    made.on_wheels()
    made.do("done", step="lead_off")
    made.do("done", step="drained")
    made.do("captured", step="cover_off", capture="cover_mark", strokes=3, place="left edge")
    made.do("bagged", step="cover_off", bag=1, lines=[{"count": 6, "size": "M8", "length": "45"}])
    made.do("done", step="cover_off")
    off(
        made,
        "fan",
        "Fan",
        because="it is in the way of the next",
        bag=2,
        lines=[{"count": 4, "size": "M6"}],
        place="in the crate",
    )
    made.do("captured", step="shaft_off", capture="shaft_length", typed="61.5")
    made.do("done", step="shaft_off")
    return made


def off(book: Book, removal: str, what: str, **own):
    """Something came off."""
    return book.do("removed", removal=removal, what=what, **own)


def take_over(book: Book, **choices) -> None:
    """The order back becomes the plan."""
    book.add(
        PlanEdited(what="order", changes=rebuild_changes(book.state, Choices(**choices))),
    )


def place(view, step: str) -> int:
    """Where a step stands in the order back."""
    return [line.step for line in view.lines].index(step)


def test_in_the_order_of_coming_off(book: Book):
    """Steps that leave something open, steps that remove, and what was logged without one."""
    found = removals(book.state)
    assert [(r.id, r.number, r.own) for r in found] == [
        ("lead_off", "2.01", False),
        ("cover_off", "2.03", False),
        ("fan", "", True),
        ("shaft_off", "2.04", False),
    ]
    assert found[1].back == ("cover_on",)
    assert found[2].bags[0].pieces == 4
    assert found[2].back == ()


def test_the_order_back_has_a_reason_for_every_before(book: Book):
    """Shaft, fan, cover; the fan's reason is turned round, the mere order is marked as assumed."""
    view = rebuild_view(book.state)
    assert place(view, "shaft_on") < place(view, "back-fan") < place(view, "cover_on")
    fan = view.lines[place(view, "back-fan")]
    assert (fan.new, fan.stage, fan.bags) == (True, "fit_in", ("bag 2: 4 × M6",))
    assert [(w.after, w.origin, w.because) for w in fan.why] == [
        ("shaft_on", "said", "it came off first because it is in the way of the next")
    ]
    cover = view.lines[place(view, "cover_on")]
    assert {w.origin for w in cover.why} == {"sheet", "log"}
    assert view.assumed == 1
    assert all(w.because for line in view.lines for w in line.why)
    assert [o.because for o in view.one_way] == []


def test_taken_over_it_is_the_plan(book: Book):
    """The fan's way back stands in the plan with its bag, numbered behind its neighbour, and the
    shortfall is told there.
    """
    take_over(book)
    step = book.state.plan.find_step("back-fan")
    assert (step.number, step.title, step.refits) == ("7.01a", "Fan: back on", ("fan",))
    assert "bag 2, 4 × M6" in step.do
    assert [s.id for s in book.state.plan.step if s.stage == "fit_in"] == [
        "shaft_on",
        "back-fan",
        "cover_on",
    ]
    assert contradiction(book.state.plan.step) is None
    view = rebuild_view(book.state)
    assert (view.taken, view.new, view.assumed) == (True, 0, 1)
    book.do("compared", step="shaft_on", capture="shaft_length", typed="61.5")
    book.do("done", step="shaft_on")
    assert book.bench("back-fan").base.lacking == "4 of 4 M6 still in bag 2"
    assert find_removal(book.state, "fan").back_words == "7.01a Fan: back on"
    book.do("unbagged", step="back-fan", bag=2, lines=[{"count": 4, "size": "M6"}])
    book.do("done", step="back-fan")
    assert find_removal(book.state, "fan").state == "back"
    with pytest.raises(Refused) as refusal:
        take_over(book)
    assert refusal.value.reason_code == "nothing_new"


def test_taken_out_and_taken_over_again(book: Book):
    """A way back that was taken out on the plan desk comes back with its number when the order is
    taken over again.
    """
    take_over(book)
    book.plan("retire", step="back-fan", back=False, reason="not yet")
    assert find_removal(book.state, "fan").back == ()
    take_over(book)
    assert book.state.plan.find_step("back-fan").number == "7.01a"


def test_what_does_not_go_back_is_left_out(book: Book):
    """Without the fan nothing new is left."""
    view = rebuild_view(book.state, Choices(without=("fan",)))
    assert (view.new, view.off) == (0, 3)


def test_a_reason_given_later_counts(book: Book):
    """Said on the order back, it takes the place of what was assumed."""
    off(book, "belt", "Belt")
    off(book, "hose", "Hose")
    assert rebuild_view(book.state).assumed == 3
    view = rebuild_view(book.state, Choices(because={"belt": "the hose runs over it"}))
    assert view.assumed == 2
    assert "the hose runs over it" in view.lines[place(view, "back-belt")].why[0].because


def test_take_down_against_sheet():
    """The sheet has the pump on before the pipe, coming off said otherwise: both reasons, and the
    mechanic's choice.
    """
    text = TAKE.replace(
        'after = [{ step = "shaft_on", because = "the cover is over it", kind = "access closes" }]',
        "",
    ).replace(
        'id = "shaft_on"\nstage = "fit_in"',
        'id = "shaft_on"\nafter = [{ step = "cover_on", because = "the cover centres it", kind '
        '= "access closes" }]\nstage = "fit_in"',
    )
    book = Book(small_sheet(text), tools())
    book.on_wheels()
    for step in ("lead_off", "drained", "cover_off", "shaft_off"):
        book.do("done", step=step, reason="left out of this test")
    view = rebuild_view(book.state)
    told = view.contradictions[0]
    assert (told.before, told.then, told.kept) == ("shaft_on", "cover_on", "sheet")
    assert "the cover is over it" in told.take_down
    assert "the cover centres it" in told.sheet
    assert place(view, "cover_on") < place(view, "shaft_on")
    assert "not in the reverse order" in view.lines[place(view, "cover_on")].not_reversed
    chosen = Choices(take_down=(("shaft_on", "cover_on"),))
    other = rebuild_view(book.state, chosen)
    assert place(other, "shaft_on") < place(other, "cover_on")
    assert other.contradictions[0].kept == "take_down"
    take_over(book, take_down=(("shaft_on", "cover_on"),))
    ids = [s.id for s in book.state.plan.step]
    assert ids.index("shaft_on") < ids.index("cover_on")
    assert all(link.step != "cover_on" for link in book.state.plan.find_step("shaft_on").after)


def test_one_way_cautions_are_kept_apart(book: Book):
    """Oil out before the shaft for the dirt's sake: not turned round, told apart.

    (Draining is no removal, so it needs one here.)
    """
    text = TAKE.replace(
        "drains = ",
        'opens = [{ id = "plug", what = "Plug out", blocks = "crank", undo = "in" }]\ndrains = ',
    )
    made = Book(small_sheet(text), tools())
    made.on_wheels()
    for step in ("lead_off", "drained", "cover_off", "shaft_off"):
        made.do("done", step=step, reason="left out of this test")
    view = rebuild_view(made.state)
    assert [(o.because, o.why) for o in view.one_way] == [
        ("dirt would fall in", "cleaning before opening is for coming off only")
    ]


def test_the_same_thing_logged_twice(book: Book):
    """Two devices log the same removal: the second is asked, an id used again is refused."""
    with pytest.raises(Refused) as refusal:
        off(book, "fan-2", "fan")
    assert refusal.value.reason_code == "logged_already"
    assert "by MK, bag 2" in refusal.value.message
    off(book, "fan-2", "fan", sure=True)
    with pytest.raises(Conflict):
        off(book, "fan", "Other")


@pytest.mark.parametrize(
    ("own", "field"),
    [
        ({"lines": [{"count": 1, "size": "M6"}]}, "bag"),
        ({"bag": 9}, "lines"),
        ({"bag": 1, "lines": [{"count": 1, "size": "M6"}]}, "bag"),
    ],
)
def test_bag_and_lines_belong_together(book: Book, own, field):
    """Fasteners without a bag, a bag without fasteners, a bag that is taken."""
    with pytest.raises(Refused) as refusal:
        off(book, "pump", "Pump", **own)
    assert refusal.value.field == field


def test_striking_a_removal_reopens_what_stood_on_it(book: Book):
    """Without the cover off the shaft cannot be off: it counts as begun, and says why; done anew it
    is back.
    """
    done = next(
        e for e in book.state.entries.values() if e.kind == "done" and e.body.step == "cover_off"
    )
    book.do("strike", entry=done.id, reason="wrong step")
    status = book.bench("shaft_off").base.status
    assert status.status == "begun"
    assert "2.03 Cover off was struck" in status.doubt
    assert [r.id for r in removals(book.state)] == ["lead_off", "fan"]
    assert "step:shaft_off" in book.open()
    book.do("done", step="cover_off")
    assert book.bench("shaft_off").base.status.status == "done"


@settings(max_examples=40, deadline=None)
@given(st.sets(st.sampled_from(["lead_off", "drained", "cover_off", "shaft_off"])))
def test_nothing_stands_on_what_was_struck(struck):
    """Whatever is struck of four steps that stand on each other: done is what was not struck and
    stands on nothing struck.
    """
    book = Book(small_sheet(TAKE), tools())
    book.on_wheels()
    book.do("captured", step="cover_off", capture="cover_mark", strokes=3, place="left")
    book.do("captured", step="shaft_off", capture="shaft_length", typed="61.5")
    lines = {
        step: book.do("done", step=step).id
        for step in ("lead_off", "drained", "cover_off", "shaft_off")
    }
    for step in sorted(struck):
        book.do("strike", entry=lines[step], reason="wrong")
    stands_on = {
        "lead_off": (),
        "drained": (),
        "cover_off": ("lead_off", "drained"),
        "shaft_off": ("lead_off", "drained", "cover_off"),
    }
    for step, below in stands_on.items():
        expected = "done" if not struck & {step, *below} else None
        assert (book.bench(step).base.status.status == "done") == (expected == "done")
        assert (step in {r.id for r in removals(book.state)}) == (
            expected == "done" and step != "drained"
        )


def test_a_struck_removal_is_gone(book: Book):
    """Its bag is free again and nothing of it is in the order back."""
    entry = next(e for e in book.state.entries.values() if e.kind == "removed")
    book.do("strike", entry=entry.id, reason="it was not off")
    assert find_removal(book.state, "fan") is None
    assert book.bench("shaft_off").next_bag == 2
    assert rebuild_view(book.state).new == 0


@settings(max_examples=40, deadline=None)
@given(
    st.lists(
        st.tuples(
            st.booleans(), st.sampled_from([None, "access closes", "safety", "spill", "drying"])
        ),
        min_size=1,
        max_size=25,
    )
)
def test_without_a_sheet_the_order_is_the_reverse(moves):
    """Whatever came off, on the vehicle or the stand, goes back last first within its stage, each
    with a reason, and the plan holds.
    """
    book = Book(parse_sheet(BARE), tools())
    for k, (stand, kind) in enumerate(moves):
        off(
            book,
            f"r{k}",
            f"Thing {k}",
            on_stand=stand,
            because="so" if kind else None,
            reason_kind=kind,
        )
    take_over(book)
    plan = book.state.plan
    assert contradiction(plan.step) is None
    at = {step.id: k for k, step in enumerate(plan.step)}
    for step in plan.step:
        assert all(at[link.step] < at[step.id] for link in step.after)
        assert all(link.because for link in step.after)
    assert apply(plan, ()) == plan
    chained = all(kind != "drying" for _, kind in moves)
    if chained and not any(stand for stand, _ in moves):
        assert [s.id for s in plan.step[1:]] == [f"back-r{k}" for k in reversed(range(len(moves)))]


def test_parts_off_are_parts():
    """A lead off its post and a drained fluid are no parts; what a step took off and what came off
    by hand are.
    """
    book = Book(small_sheet(TAKE), tools())
    for step in ("lead_off", "drained"):
        book.do("done", step=step, reason="left out of this test")
    assert takedown_view(book.state, book.time).parts_off == 0
    book.do("removed", removal="r1", what="Fan")
    book.do("done", step="cover_off", reason="left out of this test")
    view = takedown_view(book.state, book.time)
    assert (view.parts_off, view.last_part) == (2, "Cover off")


def test_steps_put_in_behind_each_other_have_numbers_of_their_own(book: Book):
    """Two more that no sheet knows: each is numbered behind its neighbour, none twice."""
    off(book, "cowl", "Cowl", because="it is in the way of the next")
    off(book, "hose", "Hose", because="it is in the way of the next")
    take_over(book)
    numbers = [step.number for step in book.state.plan.step]
    assert len(set(numbers)) == len(numbers)
    put_in = {s.id: s.number for s in book.state.plan.step if s.id.startswith("back-")}
    assert sorted(put_in) == ["back-cowl", "back-fan", "back-hose"]


def test_a_reason_of_the_sheet_given_up_for_the_take_down_goes(book: Book):
    """Only the sheet's own reason is dropped, and only where the take-down's was chosen."""
    before = book.state.plan.find_step("cover_on").after
    take_over(book)
    after = book.state.plan.find_step("cover_on").after
    assert {a.step for a in before} <= {a.step for a in after}


PLUGS = """
[sheet]
id = "plugs"
title = "Plugs"
about = "Plugs come off on the stand and go back before it fires."

[[step]]
id = "plugs_out"
stage = "take_down"
kind = "remove"
title = "Plugs out"
do = "Out."

[[step]]
id = "water_in"
stage = "wake"
kind = "check"
title = "Water in"
do = "In."

[[step]]
id = "plugs_in"
stage = "wake"
kind = "fit"
title = "Plugs in"
do = "In."
refits = ["plugs_out"]

[[step]]
id = "fires"
stage = "wake"
kind = "check"
title = "It fires"
do = "Fire."
"""


@pytest.mark.parametrize(
    ("because", "order"),
    [
        (None, ["back-pipe", "water_in", "plugs_in", "fires"]),
        ("it is in the way of the next", ["water_in", "plugs_in", "back-pipe", "fires"]),
    ],
)
def test_an_order_without_a_reason_drags_nothing_behind_the_first_fire(because, order):
    """The pipe came off before the plugs: with a reason it goes on right behind them, without one
    where it is fitted in, never at the end of what runs.
    """
    book = Book(small_sheet(PLUGS), tools())
    off(book, "pipe", "Water pipe", because=because)
    book.do("done", step="plugs_out")
    take_over(book)
    assert [s.id for s in book.state.plan.step][1:] == order
