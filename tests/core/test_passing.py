"""The rule of passing, attacked: no way past a danger, through skipping, order, not applicable,
plan edits, time or old logs.
"""

from contextlib import suppress

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from hollet.core.acts.base import is_thin
from hollet.core.book.dangers import live_dangers, proven
from hollet.core.book.secure import secure_view
from hollet.core.book.spoken import spoken_notes
from hollet.core.entries import Done, Skipped
from hollet.core.errors import Conflict, HolletError, NotFound, Refused
from hollet.core.procedure.drafting import draft
from hollet.library.shelf import sheet_text
from hollet.screens.difference import difference
from hollet.screens.plan_questions import Gear
from hollet.screens.turned import turned_of
from tests.support import ACT, SMALL, Book, small_sheet, tool, tools

PASSED = "it is not needed on this job"


SOUND = "a" * 64


def shelf(name: str) -> Book:
    """A build of one shipped sheet."""
    return Book(small_sheet(sheet_text(name)), tools())


def refused(book: Book, kind: str, code: str, **edit) -> Refused:
    """The act is refused with this code."""
    with pytest.raises(Refused) as refusal:
        book.do(kind, **edit)
    assert refusal.value.reason_code == code
    return refusal.value


def press(book: Book, step: str) -> None:
    """Press the box of a step's caution, if it has one."""
    box = book.bench(step).base.box
    if box:
        book.do("confirmed", step=step, what=box)


def reach(book: Book, step: str, *without: str) -> None:
    """Everything before a step is dealt with properly, but for the steps named."""
    found = book.state.plan.find_step(step)
    for link in found.after:
        if (
            link.step in without
            or book.state.plan.find_step(link.step) is None
            or book.bench(link.step).base.settled
        ):
            continue
        reach(book, link.step, *without)
        press(book, link.step)
        book.absent(link.step)


@pytest.mark.parametrize("how", [{"not_applicable": False}, {"not_applicable": True}])
def test_a_spring_that_is_not_caught_is_never_passed(how):
    """Skipped or not applicable, the spring is not caught: the joint waits, whatever is said, and
    says what is live, not a number.
    """
    book = shelf("front-suspension")
    reach(book, "lower_joint_apart", "spring_caught")
    book.do("skipped", step="spring_caught", reason=PASSED, **how)
    press(book, "lower_joint_apart")
    message = refused(
        book,
        "done",
        "danger",
        step="lower_joint_apart",
        reason="done out of order for a good reason",
    ).message
    assert "the spring is not caught" in message
    wait = next(w for w in book.bench("lower_joint_apart").base.waits if w.danger)
    assert (wait.step, wait.box) == (
        "spring_caught",
        "the spring is caught, jack under the arm: seen now",
    )


def test_a_box_is_pressed_never_argued_away():
    """The spring is caught; the joint's own box is not pressed: no reason passes it."""
    book = shelf("front-suspension")
    reach(book, "lower_joint_apart")
    refused(
        book, "done", "box", step="lower_joint_apart", reason="done out of order for a good reason"
    )
    press(book, "lower_joint_apart")
    book.do("done", step="lower_joint_apart")
    assert proven(book.state, "lower_joint_apart")


def test_fuel_is_not_opened_with_the_battery_on():
    """Neither the reason nor the box alone: the battery must be off, and still be off."""
    book = shelf("powertrain-up")
    refused(
        book, "done", "danger", step="fuel_capped", reason="done out of order for a good reason"
    )
    press(book, "fuel_capped")
    refused(
        book, "done", "danger", step="fuel_capped", reason="done out of order for a good reason"
    )
    book.do("done", step="battery_off")
    book.do("undone", item="battery_lead")
    refused(book, "done", "danger", step="fuel_capped")
    book.do("reopened", step="battery_off")
    book.do("done", step="battery_off")
    refused(book, "done", "box", step="fuel_capped")  # the undoing took the press with it
    press(book, "fuel_capped")
    book.do("done", step="fuel_capped")


def test_what_was_ended_in_its_place_holds_up_nobody():
    """The stop was in the hole, and is out again by the step that takes it out: the lead goes on.
    Taken out by hand before the mark was painted, nobody knows, and it waits.
    """
    book = shelf("timing-gear")
    own = {"dimension": "angle", "unit": "deg", "resolution": "0.1", "mpe": "0.1", "s": "0.05"}
    book.shop["a1"] = tool("a1", "angle gauge", **own)
    book.do("done", step="battery_off")
    press(book, "tdc_proven")
    for reading in ("stop_forward", "stop_back"):
        state = "stop in cylinder 1, turned by hand"
        book.read("tdc_proven", reading, "12.0", tool="a1", state=state)
    book.plan("limit", limit="mark_true", version=1, lo=None, hi="2", source="book")
    book.do("done", step="tdc_proven")
    refused(book, "done", "danger", step="battery_on")
    book.do("undone", item="stop_in_hole")
    refused(book, "done", "danger", step="battery_on", reason="it was out as I came in")
    book.do("done", step="marks_painted")
    book.do("done", step="battery_on")


def test_done_in_another_way_asks_for_words_and_the_box():
    """Words alone prove nothing; with the step's own words pressed, seen now, it is proven."""
    book = shelf("gearbox-out")
    book.do("done", step="battery_off")
    book.absent("vehicle_raised")
    assert book.bench("engine_held").base.other_box == "Engine held at the rear: seen now"
    reach(book, "box_mount_off", "engine_held")
    refused(book, "done", "danger", step="box_mount_off", reason="it is done in another way")
    book.do("done", step="engine_held")  # nothing in its way: plainly done
    assert proven(book.state, "engine_held")
    one = shelf("top-end")
    reach(one, "shorts")
    refused(one, "done", "not_complete", step="shorts")
    refused(one, "done", "box", step="shorts", reason="it is done in another way")
    one.do("confirmed", step="shorts", what="Shorts before the battery goes on: seen now")
    one.do("done", step="shorts", reason="it is done in another way")
    assert proven(one.state, "shorts")


def test_not_there_answers_that_thing_alone(book: Book):
    """Said by name and where it was looked for; struck, what stood on it waits again."""
    refused_thin = {"step": "lead", "thing": "Battery", "looked": "abc"}
    with pytest.raises(ValueError, match="ten characters"):
        book.do("not there", **refused_thin)
    said = book.do(
        "not there", step="lead", thing="Battery", looked="no battery in the tray, none in the boot"
    )
    assert book.bench("lead").base.status.status == "not_there"
    book.do("done", step="head_out")
    with pytest.raises(Conflict):
        book.do("not there", step="lead", thing="Battery", looked="no battery in the tray")
    book.do("strike", entry=said.id, reason="it was under the seat")
    assert not proven(book.state, "lead")
    assert [d.step for d in live_dangers(book.state)] == ["head_out"]


def test_what_has_happened_is_a_fact_and_no_pass(book: Book):
    """Always told; not done, satisfies nothing, first in header and gate until somebody says what
    holds it now.
    """
    book.do("happened", step="head_out")
    bench = book.bench("head_out")
    assert not bench.base.settled
    assert bench.base.status.doubt == "it has happened without: not so: lead off; it is live"
    assert [d.words for d in book.view().dangers] == ["not so: lead off; it is live"]
    assert book.gate("power_on").reasons[0] == "Head bolts out: not so: lead off; it is live"
    assert book.view().resume.hangs.startswith("Head bolts out: not so")
    book.do("confirmed", step="head_out", what=book.view().dangers[0].box)
    assert book.view().dangers == ()
    with pytest.raises(Refused, match="nothing dangerous"):
        book.do("happened", step="again")


def test_a_press_holds_for_twelve_hours_and_not_past_a_stop(book: Book):
    """By the server's clock; a stop, a reopening or the lead on again ends it too."""
    press(book, "lead")
    assert book.bench("lead").base.confirmed_by == "MK"
    book.later(11.9)
    assert book.bench("lead").base.confirmed
    book.later(0.2)
    assert not book.bench("lead").base.confirmed
    refused(book, "done", "box", step="lead", reason="pressed this morning already")
    press(book, "lead")
    book.do("stopped", why="a call")
    assert not book.bench("lead").base.confirmed
    book.do("gone on")
    press(book, "lead")
    book.do("done", step="lead")
    book.do("reopened", step="lead")
    assert not book.bench("lead").base.confirmed


def test_an_old_log_that_passed_a_danger_proves_nothing(book: Book):
    """Written before the rule: done stays done, its danger is named until somebody sees to it."""
    book.add(Skipped(step="lead", reason="abc"))
    book.add(Done(step="head_out", reason="abc"))
    assert book.bench("head_out").base.status.status == "done"
    assert not proven(book.state, "head_out")
    danger = book.view().dangers[0]
    assert (danger.step, danger.words) == ("head_out", "not so: lead off; it is live")
    book.do("confirmed", step="head_out", what=danger.box)
    assert book.view().dangers == ()
    assert proven(book.state, "head_out")


def test_a_spoken_note_is_a_reason_for_order_alone(book: Book):
    """It passes what keeps an order, names itself, and waits on the card for its words; where
    somebody can be hurt it is no reason.
    """
    note = book.do("spoken", step="bore", sound=SOUND)
    other = book.do("spoken", step="lead", sound="b" * 64)
    assert refused(book, "skipped", "say_in_words", step="lead", spoken=other.id).field == "reason"
    with pytest.raises(NotFound):
        book.do("skipped", step="bore", spoken=other.id)
    with pytest.raises(Refused, match="by a key or in words"):
        book.do("skipped", step="bore")
    skipped = book.do("skipped", step="bore", spoken=note.id)
    assert (skipped.body.reason, skipped.body.spoken) == ("said aloud", note.id)
    told = secure_view(book.state, book.time).card
    assert [line for line in told if "In words still" in line] == [
        f"In words still: what was said at 3.01, {note.time[11:16]} UTC, MK",
        f"In words still: what was said at 2.01, {other.time[11:16]} UTC, MK",
    ]
    book.do("worded", spoken=note.id, text="the shop has measured it")
    assert [(n.number, n.words) for n in spoken_notes(book.state)] == [
        ("3.01", "the shop has measured it"),
        ("2.01", None),
    ]
    book.do("strike", entry=other.id, reason="nothing was said")
    assert not [
        line for line in secure_view(book.state, book.time).card if "In words still" in line
    ]
    with pytest.raises(NotFound):
        book.do("worded", spoken=other.id, text="nothing at all")


def test_an_old_build_says_what_turned(book: Book):
    """Lines of before, judged by the rules of today: named once, with their step; a build of today
    names nothing, a danger seen to is not named.
    """
    assert turned_of(book.state, tuple(book.shop.values())) == ()
    book.add(Skipped(step="lead", reason="abc"))
    old = book.add(Done(step="head_out", reason="abc"))
    told = turned_of(book.state, tuple(book.shop.values()))
    assert [(t.step, t.words) for t in told if t.step] == [
        ("head_out", "Head bolts out: not so: lead off; it is live")
    ]
    book.do("confirmed", step="head_out", what=book.view().dangers[0].box)
    assert not [t for t in turned_of(book.state, tuple(book.shop.values())) if t.step]
    book.do("strike", entry=old.id, reason="it was never so")
    assert turned_of(book.state, tuple(book.shop.values())) == ()


def test_an_old_done_without_its_box_is_named(book: Book):
    """The lead taken off by an old log, the extinguisher never seen."""
    book.add(Done(step="lead", reason="abc", opens=book.state.plan.find_step("lead").opens))
    assert [d.words for d in book.view().dangers] == ["not seen: Extinguisher at hand"]


def test_a_danger_ends_with_the_thing_itself(book: Book):
    """Passed, and made good after it: nothing is live any more; so is what was put back since."""
    book.add(Done(step="head_out", reason="abc"))
    assert book.view().dangers
    press(book, "lead")
    book.do("done", step="lead")
    assert book.view().dangers == ()


def test_a_safety_reason_is_not_edited_away(book: Book):
    """Taking it out is refused; a better one takes its place and says who decided; a worse kind
    does not.
    """
    with pytest.raises(Refused) as refusal:
        book.plan("reason", step="head_out", waits_for="lead", because=None)
    assert refusal.value.reason_code == "safety_kept"
    with pytest.raises(Refused) as refusal:
        book.plan(
            "reason",
            step="head_out",
            waits_for="lead",
            because="it hides the nut",
            kind="access closes",
        )
    assert refusal.value.reason_code == "safety_kept"
    book.plan(
        "reason",
        step="head_out",
        waits_for="lead",
        because="the starter cable lies on it",
        kind="safety",
    )
    link = book.state.plan.find_step("head_out").after[0]
    assert (link.because, link.said_by, link.origin) == (
        "the starter cable lies on it",
        "MK",
        "sheet",
    )


def test_taking_the_safety_step_out_of_the_plan_passes_nothing(book: Book):
    """Retired by hand it satisfies nothing; the difference says who stays held; said not to be
    there it is answered.
    """
    changes = draft(
        book.state.whole, ACT.validate_python({"act": "retire", "step": "lead"}), set(), "MK"
    )
    assert difference(book.state, changes, Gear()).not_there == (
        "2.01 Lead off: 2.02 Head bolts out stay held until it is said not to be there",
    )
    book.plan("retire", step="lead")
    refused(book, "done", "danger", step="head_out", reason="the lead was off already")
    book.absent("lead")
    book.do("done", step="head_out")


def test_a_fact_that_takes_a_safety_step_out_lists_it():
    """The same statement as not there, and the steps are told before it is taken."""
    text = SMALL.replace(
        'id = "lead"\nstage', 'id = "lead"\nwhen = [{ fact = "fuel", one_of = ["petrol"] }]\nstage'
    )
    book = Book(small_sheet(text), tools())
    changes = draft(
        book.state.whole,
        ACT.validate_python({"act": "fact", "fact": "fuel", "value": "diesel"}),
        set(),
        "MK",
    )
    told = difference(book.state, changes, Gear()).not_there
    assert told == (
        (
            "2.01 Lead off: 2.02 Head bolts out wait for it no more: it is said not to be on this "
            "vehicle"
        ),
    )


@pytest.mark.parametrize(
    "reason", ["abc", "aaaaaaaaaa", "abc abc abc", "..........", "ten  chars", "yes yes yes yes"]
)
def test_thin_reasons_pass_nothing(book: Book, reason: str):
    """Three letters, one word, the same word over: refused at every act that passes something."""
    thin = is_thin(reason)
    acts = [
        ("skipped", {"step": "ring"}),
        ("done", {"step": "head_in"}),
        ("attempt started", {"step": "crank", "attempt": "attempt-1"}),
        ("decision", {"step": "head_in", "about": "pass_over"}),
    ]
    for kind, own in acts:
        if thin:
            with pytest.raises(ValueError, match="reason"):
                book.do(kind, **own, reason=reason)
    assert thin == (reason != "ten  chars")


def test_acts_that_only_tell_never_ask(book: Book):
    """Key off, stopped, left open, reopened: no reason is asked for."""
    press(book, "lead")
    book.do("done", step="lead")
    book.do("reopened", step="lead")
    book.do("left open", step="ring", item="rag", what="Rag in port 3")
    book.do("stopped", why="a call")
    book.do(
        "attempt started",
        step="fire",
        attempt="attempt-1",
        reason="for a trial of some seconds only",
    )
    book.do("attempt ended", step="fire", attempt="attempt-1", after_s=3)


def test_drying_is_waited_for_and_passed_by_a_reason():
    """One night of oil, from when it was done; until then the step waits, an hour later too; a
    reason passes it.
    """
    book = shelf("front-suspension")
    reach(book, "track_rod_ends_off", "soak_evening")
    book.do("done", step="soak_evening")
    for capture in ("rod_left", "rod_right"):
        book.do("captured", step="track_rod_ends_off", capture=capture, typed="312 mm")
    wait = book.bench("track_rod_ends_off").base.waits[0]
    assert "8 h left of 8 h, one night assumed" in wait.because
    book.later(1)
    refused(book, "done", "must_wait", step="track_rod_ends_off")
    book.later(7.1)
    book.do("done", step="track_rod_ends_off")


def test_a_joint_passed_over_stays_at_the_gate(book: Book):
    """Skipping the tightening leaves no rung free; said never to have been undone it does."""
    book.do("skipped", step="head_in", reason=PASSED)
    assert book.open()["joint:head"] == "crank"
    book.do("done", step="head_in", reason="it is done in another way")
    assert book.open()["joint:head"] == "crank"
    book.do("reopened", step="head_in")
    book.absent("head_in")
    assert "joint:head" not in book.open()


@settings(max_examples=25, deadline=None)
@given(
    st.lists(
        st.sampled_from(["skip", "na", "retire", "done", "other", "reopen", "undo"]), max_size=8
    )
)
def test_no_sequence_of_excuses_opens_the_head(excuses: list[str]):
    """Whatever is tried with the lead but pressing its box, the head bolts wait."""
    book = Book(small_sheet(), tools())
    acts = {
        "skip": lambda: book.do("skipped", step="lead", reason=PASSED),
        "na": lambda: book.do("skipped", step="lead", reason=PASSED, not_applicable=True),
        "retire": lambda: book.plan("retire", step="lead"),
        "done": lambda: book.do("done", step="lead"),
        "other": lambda: book.do("done", step="lead", reason="it is done in another way"),
        "reopen": lambda: book.do("reopened", step="lead"),
        "undo": lambda: book.do("undone", item="lead"),
    }
    for excuse in excuses:
        with suppress(HolletError):
            acts[excuse]()
    with pytest.raises(Refused):
        book.do("done", step="head_out", reason="the lead was off already")


def test_dangers_come_before_order():
    """What can hurt stands first, whatever the sheet names first."""
    text = """
[[step]]
id = "late"
stage = "settle"
kind = "check"
title = "Late"
do = "Last."
after = [
  { step = "head_out", because = "it is in the way", kind = "access closes" },
  { step = "lead", because = "it is live", kind = "safety" },
]
"""
    book = Book(small_sheet(SMALL + text), tools())
    assert [(w.step, w.danger) for w in book.bench("late").base.waits] == [
        ("lead", True),
        ("head_out", False),
    ]
