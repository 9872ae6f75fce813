"""The first start: attempts, deadlines, STOP, and that silence is never a pass."""

import pytest

from hollet.core.entries import AttemptEnded, AttemptStarted
from hollet.core.errors import Conflict, NotFound, Refused
from hollet.core.procedure.sheet import blocks_of
from hollet.core.steps.run import attempt_facts
from tests.support import SMALL, Book, small_sheet, tools

A = "attempt-1"
B = "attempt-2"


def start(book: Book, step: str = "crank", attempt: str = A, **more) -> None:
    """Start an attempt at a rung that is shut, with the reason that takes."""
    isolated = ["Plugs out"] if step == "crank" else []
    book.do(
        "attempt started",
        step=step,
        attempt=attempt,
        isolated=isolated,
        reason="trying it out",
        **more,
    )


def sample(book: Book, t: float, step: str = "crank", attempt: str = A, **figures) -> None:
    """One sample."""
    book.do("samples", step=step, attempt=attempt, samples=[{"t": t, **figures}])


def facts(book: Book, step: str = "crank", attempt: str = A):
    """Facts of an attempt."""
    return attempt_facts(book.state, book.state.plan.find_step(step), attempt)


def opened(book: Book) -> Book:
    """Everything before the start is done or passed over, so that the rungs open."""
    for step in ("lead", "head_out", "bore", "ring", "head_in", "cover_on", "lead_on"):
        book.absent(step)
    for step in ("oil_in", "water"):
        book.read(step, step, "4.2 L", tool="j1")
        book.do("confirmed", step=step, what="At the mark")
        book.do("done", step=step)
    return book


def test_shut_rung_needs_a_reason_and_opens_nothing(book: Book):
    """At a shut rung an attempt can be logged with a reason; it stays marked and passes nothing."""
    with pytest.raises(Refused) as refusal:
        book.do("attempt started", step="crank", attempt=A, isolated=["Plugs out"])
    assert refusal.value.reason_code == "shut"
    start(book)
    sample(book, 3, oil="2 bar")
    book.do(
        "attempt ended", step="crank", attempt=A, after_s=4, reason="pressure showed", passed=True
    )
    assert facts(book).gate == "shut"
    assert not facts(book).passed
    assert "step:crank" in book.open()


def test_isolation_must_be_confirmed(book: Book):
    """What must be isolated is confirmed before each attempt."""
    with pytest.raises(Refused) as refusal:
        opened(book).do("attempt started", step="crank", attempt=A)
    assert refusal.value.reason_code == "not_isolated"


def test_pressure_passes(book: Book):
    """With pressure shown the attempt passes, and the step can be done."""
    opened(book).do("attempt started", step="crank", attempt=A, isolated=["Plugs out"])
    sample(book, 6, oil="1.2 bar")
    book.do(
        "attempt ended", step="crank", attempt=A, after_s=8, reason="pressure showed", passed=True
    )
    assert facts(book).passed
    assert facts(book).pressure_at == 6
    assert facts(book).expected_seen
    book.do("done", step="crank")
    assert book.gate("fuel_on").answer == "nothing left open"


def test_lamp_out_is_pressure_seen(book: Book):
    """The lamp going out counts where no gauge is fitted."""
    opened(book).do("attempt started", step="crank", attempt=A, isolated=["Plugs out"])
    sample(book, 6, lamp_out=True)
    book.do("attempt ended", step="crank", attempt=A, after_s=8, reason="lamp out", passed=True)
    assert facts(book).passed


@pytest.mark.parametrize("figures", [{}, {"oil": "0.4 bar"}, {"coolant": "60 C"}])
def test_silence_or_too_little_is_no_pass(book: Book, figures: dict):
    """Nothing entered, too little, or something else entered: no pass."""
    opened(book).do("attempt started", step="crank", attempt=A, isolated=["Plugs out"])
    if figures:
        sample(book, 3, **figures)
    assert not facts(book).expected_seen
    with pytest.raises(Refused) as refusal:
        book.do(
            "attempt ended", step="crank", attempt=A, after_s=8, reason="looked fine", passed=True
        )
    assert refusal.value.reason_code == "not_passed"


def test_thirty_seconds_in_all_then_look(book: Book):
    """Two bursts of 15 s without pressure: the third needs a reason."""
    opened(book)
    for attempt in (A, B):
        book.do("attempt started", step="crank", attempt=attempt, isolated=["Plugs out"])
        book.do(
            "attempt ended", step="crank", attempt=attempt, after_s=15, reason="no pressure yet"
        )
        book.later(0.01)
    assert book.bench("crank").cranked_s == 30
    with pytest.raises(Refused) as refusal:
        book.do("attempt started", step="crank", attempt="attempt-3", isolated=["Plugs out"])
    assert refusal.value.reason_code == "look_first"
    book.do(
        "attempt started",
        step="crank",
        attempt="attempt-3",
        isolated=["Plugs out"],
        reason="pump was dry, primed by hand",
    )


@pytest.mark.parametrize(
    ("figures", "words"),
    [
        ({"t": 2, "seen": "fuel leak"}, "Fuel leak"),
        ({"t": 2, "seen": "leak"}, "Leak seen"),
        ({"t": 2, "seen": "noise"}, "Noise"),
        ({"t": 9, "oil": "0.3 bar"}, "Oil pressure 0.3 bar, asked 1.0"),
        ({"t": 9, "coolant": "96 C"}, "Coolant 96 °C, limit 95"),
        ({"t": 16}, "The time allowed, 15 s, is over"),
    ],
)
def test_stop_with_its_reason(book: Book, figures: dict, words: str):
    """Each thing that stops says STOP and why."""
    start(book, "fire")
    if figures["t"] > 5:
        sample(book, 4, "fire", oil="2 bar")
    sample(book, step="fire", **figures)
    assert facts(book, "fire").stop.startswith(words)


@pytest.mark.parametrize(
    "figures",
    [
        {"t": 4, "oil": "0.3 bar"},
        {"t": 9, "coolant": "95 C"},
        {"t": 3, "rpm": "900"},
        {"t": 3, "oil": "36 psi"},
    ],
)
def test_what_does_not_stop(book: Book, figures: dict):
    """Before its time, on the limit, or another figure: no stop."""
    start(book, "fire")
    if figures["t"] > 5:
        sample(book, 4.5, "fire", oil="2 bar")
    sample(book, step="fire", **figures)
    assert facts(book, "fire").stop is None


def test_deadlines_are_given_before_they_pass(book: Book):
    """The screen knows by when what must be entered; entering it meets the deadline."""
    start(book, "fire")
    first, last = facts(book, "fire").deadlines
    assert (first.at_s, first.met, last.at_s) == (5, False, 15)
    assert first.reason == "No oil pressure of 1.0 bar entered by 5 s: key off"
    sample(book, 4.5, "fire", oil="1.5 bar")
    assert facts(book, "fire").deadlines[0].met


def test_pressure_entered_too_late_does_not_meet_it(book: Book):
    """Pressure after its time: the attempt was over its limit and cannot pass."""
    start(book, "fire")
    sample(book, 6, "fire", oil="1.5 bar")
    assert not facts(book, "fire").deadlines[0].met
    book.do("attempt ended", step="fire", attempt=A, after_s=8, reason="stopped by hand")
    assert facts(book, "fire").stop == "No oil pressure of 1.0 bar entered by 5 s: key off"


@pytest.mark.parametrize(
    ("off", "stop"), [(4.9, None), (5.0, "No oil pressure of 1.0 bar entered by 5 s: key off")]
)
def test_key_off_on_the_second_of_the_deadline(book: Book, off: float, stop: str | None):
    """Pressure that was due by 5 s and is not there at 5 s is a stop; a key off before that is
    none.
    """
    start(book, "fire")
    book.do("attempt ended", step="fire", attempt=A, after_s=off, reason="stopped by hand")
    assert facts(book, "fire").stop == stop


@pytest.mark.parametrize(
    ("off", "stop"), [(15, None), (15.1, "The time allowed, 15 s, is over: key off")]
)
def test_the_time_allowed_may_be_used_up(book: Book, off: float, stop: str | None):
    """A key off at the end of the time allowed is in time."""
    start(book, "fire")
    for t in (4, 13):
        sample(book, t, "fire", oil="2 bar")
    book.do("attempt ended", step="fire", attempt=A, after_s=off, reason="ran")
    assert facts(book, "fire").stop == stop


def test_stopped_attempt_needs_cause_and_change(book: Book):
    """Firing again is refused until the stopped attempt has a cause and a change."""
    start(book, "fire")
    sample(book, 3, "fire", seen="leak")
    book.do("attempt ended", step="fire", attempt=A, after_s=4, reason="leak")
    with pytest.raises(Refused) as refusal:
        start(book, "fire", B)
    assert refusal.value.reason_code == "no_cause"
    book.do(
        "attempt ended",
        step="fire",
        attempt=A,
        after_s=4,
        reason="leak",
        cause="clip loose",
        change="new clip",
    )
    assert facts(book, "fire").cause == "clip loose"
    start(book, "fire", B)


def test_one_attempt_at_a_time(book: Book):
    """A second attempt while one runs is a conflict; so is a second key off."""
    start(book)
    with pytest.raises(Conflict):
        start(book, attempt=B)
    book.do("attempt ended", step="crank", attempt=A, after_s=5, reason="stopped")
    with pytest.raises(Conflict):
        book.do("attempt ended", step="crank", attempt=A, after_s=6, reason="stopped")


def test_units_of_samples(book: Book):
    """Typed as mechanics write them; what cannot be read is refused and nothing is written."""
    start(book)
    sample(book, 2, oil="36 psi", rpm="250", timing="8 BTDC", coolant="68 F")
    body = book.state.live("run", A)[-1].body.samples[0]
    assert body.oil.figure("pressure") == pytest.approx(248.2113, abs=1e-3)
    assert (body.oil.typed, body.oil.value, body.oil.unit) == ("36 psi", "36", "psi")
    assert (
        body.rpm.figure("speed"),
        body.timing.figure("angle"),
        body.coolant.figure("temperature"),
    ) == (250, 8, 20)
    count = len(book.state.order)
    with pytest.raises(Refused):
        sample(book, 3, oil="2 mm")
    assert len(book.state.order) == count


def test_tracks_for_the_chart(book: Book):
    """Courses with their limits in the unit shown, oldest first."""
    start(book, "fire")
    sample(book, 6, "fire", oil="2 bar")
    sample(book, 3, "fire", oil="1 bar")
    oil = next(t for t in facts(book, "fire").tracks if t.key == "oil")
    assert oil.samples == ((3.0, 1.0), (6.0, 2.0))
    assert (oil.lo, oil.lo_from, oil.verdict) == (1.0, 5.0, "inside")


def test_unknown_attempt_and_wrong_step(book: Book):
    """A sample to no attempt; an attempt on a step that is no rung."""
    with pytest.raises(NotFound):
        sample(book, 2, oil="2 bar")
    with pytest.raises(Refused):
        book.do("attempt started", step="bore", attempt=A)


def test_dry_run_limits_fire(book: Book):
    """Without coolant fire is shut; a written decision limits it to 30 s once, and opens nothing
    above.
    """
    for step in (
        "lead",
        "head_out",
        "bore",
        "ring",
        "head_in",
        "cover_on",
        "lead_on",
        "oil_in",
        "crank",
    ):
        book.absent(step)
    assert book.gate("fire").answer == "shut"
    with pytest.raises(Refused) as refusal:
        book.do("decision", step="water", about="dry_run", seconds=45, reason="only to hear it")
    assert refusal.value.reason_code == "dry_run_too_long"
    with pytest.raises(Refused):
        book.do("decision", step="water", about="dry_run", seconds=10)
    book.do("decision", step="water", about="dry_run", seconds=10, reason="only to hear it")
    assert book.gate("fire").answer == "limited"
    assert book.gate("run_on").answer == "shut"
    book.do("left open", step="cover_on", item="rag", what="Rag in the inlet", blocks="fire")
    assert book.gate("fire").answer == "shut"  # the decision is about coolant, and nothing else
    book.do("undone", item="rag")
    assert book.gate("fire").answer == "limited"
    book.do("attempt started", step="fire", attempt=A)
    assert facts(book, "fire").limit_s == 10
    book.do("attempt ended", step="fire", attempt=A, after_s=4, reason="heard it")
    assert book.gate("fire").answer == "shut"


def test_a_run_of_seconds_has_shown_nothing(book: Book):
    """It has to last a minute, and never longer than it may: at 7 s it does not pass, whoever says
    so; as long as it had to, it does.
    """
    made = Book(small_sheet(SMALL.replace('expect = "', 'least_s = 60\nexpect = "')), tools())
    step = next(s for s in made.state.plan.step if s.as_run() is not None and s.rung == "fire")
    own = {"step": step.id, "attempt": "attempt-1"}
    made.do("attempt started", reason="to look for leaks", **own)
    made.do("samples", samples=[{"t": 2, "oil": "2 bar", "lamp_out": True}], **own)
    made.refuse("not_passed", "attempt ended", after_s=7.0, passed=True, **own)
    assert made.bench(step.id).running.least_s == 15  # never longer than it may
    made.do("attempt ended", after_s=15.0, passed=True, **own)
    facts = attempt_facts(made.state, step.as_run(), "attempt-1")
    assert facts.ended
    assert not facts.passed  # its rung was shut


@pytest.mark.parametrize(("after_s", "passed"), [(5.0, False), (61.0, True)])
def test_an_old_line_that_says_passed_proves_no_more_than_it_lasted(after_s, passed):
    made = Book(small_sheet(SMALL.replace('expect = "', 'least_s = 60\nexpect = "')), tools())
    step = next(s for s in made.state.plan.step if s.as_run() is not None and s.rung == "crank")
    own = {"step": step.id, "attempt": A}
    made.add(AttemptStarted(rung="crank", limit_s=90, **own))
    made.add(AttemptEnded(after_s=after_s, reason="seen", passed=True, **own))
    assert attempt_facts(made.state, step.as_run(), A).passed is passed


def test_an_old_line_that_says_passed_proves_nothing_without_its_pressure():
    made = Book(small_sheet(), tools())
    own = {"step": "fire", "attempt": A}
    made.add(AttemptStarted(rung="fire", limit_s=90, **own))
    made.add(AttemptEnded(after_s=61, reason="seen", passed=True, **own))
    facts = attempt_facts(made.state, made.state.plan.find_step("fire").as_run(), A)
    assert facts.stop == "No oil pressure of 1.0 bar entered by 5 s: key off"
    assert not facts.passed


def ran(made: Book, **more: object) -> object:
    """One attempt at cranking that passed, and what was told of it."""
    own = {"isolated": ["Plugs out"], "reason": "to see what it does"}
    made.do("attempt started", step="crank", attempt=A, **own)
    made.do("samples", step="crank", attempt=A, samples=[{"t": 4, "oil": "2 bar"}])
    if more:
        made.do("run told", step="crank", attempt=A, **more)
    return made.bench("crank").attempts[-1]


@pytest.mark.parametrize(
    ("told", "stop"),
    [
        ({"about": "noise", "word": "heard", "rhythm": "each turn", "place": "low"}, True),
        ({"about": "noise", "word": "heard", "rhythm": "every second turn", "place": "top"}, False),
        ({"about": "noise", "word": "none"}, False),
        ({"about": "glow", "word": "cherry"}, True),
        ({"about": "smoke", "word": "white, stays"}, True),
        ({"about": "smoke", "word": "white, gone at once"}, False),
        ({"about": "idle", "word": "hunts"}, False),
    ],
)
def test_the_run_sheet_stops_what_the_tree_stops(book: Book, told, stop):
    """A knock with the crank stops it, a tick of a valve is watched; each with its usual cause."""
    facts = ran(book, t=6.0, **told)
    assert bool(facts.stop) is stop
    row = next(row for row in facts.told if row.about == told["about"])
    assert row.word.startswith(told["word"])
    assert row.stops is stop
    assert bool(row.leads) is ("rhythm" in told or told["word"].startswith("white"))


def test_what_is_told_after_the_key_is_a_stop_too(book: Book):
    ran(book)
    book.do("attempt ended", step="crank", attempt=A, after_s=6.0, passed=True)
    assert not book.bench("crank").attempts[-1].told[0].word
    book.do("run told", step="crank", attempt=A, about="glow", word="cherry")
    last = book.bench("crank").attempts[-1]
    assert last.stop == "Pipes, cherry: key off and look"
    assert not last.passed


def test_a_noise_without_its_rhythm_is_asked(book: Book):
    ran(book)
    own = {"step": "crank", "attempt": A, "about": "noise"}
    book.refuse("no_rhythm", "run told", word="heard", **own)
    book.refuse("bad_word", "run told", word="loud", **own)


def test_a_pass_that_is_taken_back_shuts_what_it_had_opened(book: Book):
    """Its step is done; what was told since stands open, until it passes once more."""
    own = {"step": "crank", "attempt": A}
    book.add(AttemptStarted(rung="crank", limit_s=90, **own))
    book.add(AttemptEnded(after_s=6, reason="seen", passed=True, **own))
    assert attempt_facts(book.state, book.state.plan.find_step("crank").as_run(), A).passed
    book.do("run told", about="noise", word="heard", rhythm="each turn", **own)
    assert book.open()["run:crank"] == blocks_of(
        book.state.plan, book.state.plan.find_step("crank")
    )
    again = {"step": "crank", "attempt": "attempt-2"}
    book.add(AttemptStarted(rung="crank", limit_s=90, **again))
    book.add(AttemptEnded(after_s=6, reason="seen", passed=True, **again))
    assert "run:crank" not in book.open()
