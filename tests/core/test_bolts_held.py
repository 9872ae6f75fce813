"""Bolts and the first run held: what got too much, what the tool cannot give, clocks and figures
that cannot be talked round.
"""

from collections.abc import Callable
from datetime import datetime, timedelta

import pytest

from hollet.core.entries import Adapter, Entry
from hollet.core.entries.fold import fold
from hollet.core.entries.kinds import KINDS, lifted
from hollet.core.errors import Refused
from hollet.core.instruments import Instrument
from hollet.core.quantities.parse import measured
from hollet.core.quantities.quantity import Measured
from hollet.core.steps.run import attempt_facts, attempts_of
from hollet.core.steps.starter import cranked_s
from tests.support import SMALL, Book, small_sheet, tool, tools

A, B = "attempt-1", "attempt-2"


def refused(act: Callable[[], object], code: str) -> str:
    """The sentence with which an act is refused, by this code."""
    with pytest.raises(Refused) as refusal:
        act()
    assert refusal.value.reason_code == code
    return refusal.value.message


@pytest.fixture
def head(book: Book) -> Book:
    """The head begun out of its order with a reason, the wrench chosen."""
    book.do("started", step="head_in", reason="bore measured at the shop")
    book.wrench()
    return book


def bolt(book: Book, number: int = 1):
    """Facts of one bolt."""
    return book.joint().bolts[number - 1]


def to_the_angle(book: Book) -> None:
    """Two stages of torque on all six."""
    for _ in range(12):
        book.click(book.joint().next_bolt)


def pulled_too_far(book: Book) -> None:
    """The wrench stood at 60, and that is what it was."""
    book.click(1, typed="60", as_typed=True)


def test_too_much_is_no_figure_to_be_overwritten(head: Book):
    """Pulled to 60 at a stage of 25: pulling again at 25 is refused, the sheet's way is told."""
    pulled_too_far(head)
    assert (bolt(head).over, bolt(head).todo, bolt(head).final) == (True, "out", False)
    assert refused(lambda: head.click(1, stage=1), "over").endswith(
        "take it out and begin again with it"
    )
    refused(
        lambda: head.do("fastener", step="head_in", bolt=1, act="read", typed="25", stage=1), "over"
    )
    refused(
        lambda: head.do("fastener", step="head_in", bolt=1, act="state", tightness="snug"), "over"
    )


@pytest.mark.parametrize("stands_in", [True, False])
def test_the_sheets_way_is_led_through(stands_in: bool):
    """Out, a fresh one, again from stage 1; where the sheet asks for no fresh one, out is enough.

    Loosened alone is neither.
    """
    text = (
        SMALL
        if stands_in
        else SMALL.replace("[joint.put_right]", "[joint.put_right]\nfresh = false")
    )
    book = Book(small_sheet(text), tools())
    book.do("started", step="head_in", reason="bore measured at the shop")
    book.wrench()
    pulled_too_far(book)
    book.do("fastener", step="head_in", bolt=1, act="state", tightness="loosened again")
    refused(lambda: book.click(1), "over")
    book.do("fastener", step="head_in", bolt=1, act="state", tightness="out")
    if stands_in:
        assert bolt(book).todo == "fresh"
        refused(lambda: book.click(1), "over")
        book.do("fastener", step="head_in", bolt=1, act="fresh")
    book.click(1)
    assert (bolt(book).verdict, bolt(book).over, bolt(book).stage) == ("inside", False, 1)


def test_passed_over_is_never_final(head: Book):
    """A bolt that was passed over lets the next stage begin, and the joint is never final through
    it.
    """
    for number in range(1, 7):
        head.click(number, **({"typed": "60", "as_typed": True} if number == 2 else {}))
    head.do(
        "decision",
        step="head_in",
        about="pass_over",
        bolt=2,
        stage=1,
        reason="it can still be reached from here",
    )
    for _ in range(12):
        head.click(head.joint().next_bolt)
    assert not head.joint().final
    assert [b.number for b in head.joint().bolts if not b.final] == [2]


def test_one_bolt_makes_no_joint():
    """One of six pulled, five as found: not final, and the next one is told."""
    one = SMALL.replace(
        'stage = [{ torque = "25 Nm" }, { torque = "50 Nm" }, { angle = "90 deg" }]',
        'stage = [{ torque = "50 Nm" }]',
    )
    book = Book(small_sheet(one), tools())
    book.do("started", step="head_in", reason="bore measured at the shop")
    book.wrench()
    for pulled in range(1, 6):
        book.click(pulled)
        assert not book.joint().final
        assert book.joint().next_bolt == pulled + 1
    book.click(6)
    assert book.joint().final
    for number in range(1, 6):
        book.do("fastener", step="cover_on", bolt=number, act="state", tightness="cinched")
    assert not book.joint("cover").final


def test_forty_five_of_ninety_gets_the_rest(head: Book):
    """A bolt turned 45 of 90 degrees is told "45 more", and then has 90: not 135, and not 90
    written over 45.
    """
    to_the_angle(head)
    head.do("fastener", step="head_in", bolt=1, act="read", typed="45")
    assert (bolt(head).todo, bolt(head).more) == ("more", "45")
    assert head.joint().put_right == ("Turn it 45° more, on top of what it has",)
    body = head.do(
        "fastener", step="head_in", bolt=1, act="read", typed="45", more=True, stage=3
    ).body
    assert (body.added.value, body.gets.value) == ("45", "90")
    assert bolt(head).verdict == "inside"


def test_an_angle_typed_at_a_torque_keeps_its_own(head: Book):
    """900 at a stage of +90° is asked, not taken as 90; as typed it is 900, and over."""
    to_the_angle(head)
    refused(
        lambda: head.do("fastener", step="head_in", bolt=1, act="read", typed="900"), "odd_figure"
    )
    head.do("fastener", step="head_in", bolt=1, act="read", typed="900", as_typed=True)
    assert (bolt(head).over, bolt(head).gets) == (True, "900.0")


@pytest.mark.parametrize("typed", ["2.5", "250", "18.4", "200"])
def test_what_the_wrench_cannot_give_is_asked(head: Book, typed: str):
    """A decimal place, foot-pounds, a figure outside the range: asked before it is written, and
    nothing is written.
    """
    count = len(head.state.order)
    refused(lambda: head.click(1, typed=typed), "odd_figure")
    assert len(head.state.order) == count


def test_outside_its_range_no_wrench_says_inside(book: Book):
    """Written as typed, a figure outside the wrench's range has no verdict, and is not final."""
    book.shop["w6"] = book.shop["w1"].model_copy(
        update={
            "id": "w6",
            "code": "W6",
            "kind": "indicating wrench",
            "lo": "60",
            "hi": "300",
            "resolution": "0.1",
            "s": "0.1",
        }
    )
    book.do("started", step="head_in", reason="bore measured at the shop")
    book.wrench("w6")
    book.do("fastener", step="head_in", bolt=1, act="read", typed="25", as_typed=True)
    assert (bolt(book).verdict, bolt(book).words) == (
        "too_close",
        "outside the range of W6: no verdict",
    )


@pytest.mark.parametrize(
    "edit",
    [
        {"act": "clicked"},
        {"act": "read", "typed": "25"},
        {"act": "clicked", "typed": "25"},
        {"act": "state", "tightness": "snug"},
        {"act": "marked"},
    ],
)
def test_a_waiting_step_holds_every_way_of_writing(book: Book, edit: dict):
    """Clicked, typed, snug or marked: nothing is written while the step waits; loosening is."""
    book.wrench()
    refused(lambda: book.do("fastener", step="head_in", bolt=1, **edit), "must_wait")
    book.do("fastener", step="head_in", bolt=1, act="state", tightness="loosened again")


def test_begun_out_of_order_is_done_out_of_order(head: Book):
    """The reason that began it stands at the done step too, with what it passed: beginning first is
    no quieter way past.
    """
    for _ in range(18):
        head.click(head.joint().next_bolt)
    done = head.do("done", step="head_in").body
    assert done.reason == "bore measured at the shop"
    assert any("Bore" in words for words in done.passed)


def test_a_wrench_found_wrong_next_week_opens_the_joint_again(head: Book):
    """Bolts pulled with it stand at the gate until they are pulled anew; those pulled with another
    do not.
    """
    for _ in range(18):
        head.click(head.joint().next_bolt)
    doubt = {"since": "2026-01-01T00:00:00Z", "until": head.time, "words": "8 % low"}
    head.shop["w1"] = Instrument.model_validate({**head.shop["w1"].model_dump(), "doubts": [doubt]})
    told = head.gate("crank").reasons
    assert any(
        "W1 was 8 % low at its check, bolt 1, 2, 3, 4, 5, 6 pulled with it" in words
        for words in told
    )
    head.do("fastener", step="head_in", bolt=2, act="state", tightness="loosened again")
    assert any("bolt 1, 3, 4, 5, 6 pulled with it" in words for words in head.gate("crank").reasons)
    assert head.bench("head_in").doubts == (
        "Bolts 1, 3, 4, 5, 6: W1 was 8 % low at its check. Pull anew with a wrench that is good",
    )


def test_bolts_ahead_for_a_bench_without_a_server(head: Book):
    """The bolts that follow in this stage, so that a bench cut off moves on and takes no bolt
    twice.
    """
    for number in (1, 2):
        head.click(number)
    assert head.joint().ahead == (3, 4, 5, 6)


# --- the first run


@pytest.fixture
def ready(book: Book) -> Book:
    """All before the crank is not on this vehicle or filled."""
    book.absent("lead", "head_out", "bore", "ring", "head_in", "cover_on", "lead_on")
    for step in ("oil_in", "water"):
        book.read(step, step, "4.2 L", tool="j1")
        book.do("confirmed", step=step, what="At the mark")
        book.do("done", step=step)
    return book


def start(book: Book, attempt: str = A, **more) -> None:
    """One burst."""
    book.do("attempt started", step="crank", attempt=attempt, isolated=["Plugs out"], **more)


def sample(book: Book, t: float, **figures) -> None:
    """One sample."""
    book.do("samples", step="crank", attempt=A, samples=[{"t": t, **figures}])


def run(book: Book, attempt: str = A):
    """Facts of an attempt."""
    return attempt_facts(book.state, book.state.plan.find_step("crank"), attempt)


@pytest.mark.parametrize("typed", ["250", "10", "25", "-1"])
def test_what_the_gauge_cannot_show_is_kept_and_asked(ready: Book, typed: str):
    """Psi or kPa typed as bar: kept, asked about, and counted for nothing; no sample is refused
    while an engine turns.
    """
    start(ready)
    sample(ready, 3, oil=typed)
    facts = run(ready)
    assert facts.asked
    assert facts.asked[0].typed == typed
    assert (facts.pressure_at, facts.expected_seen) == (None, False)
    refused(
        lambda: ready.do(
            "attempt ended",
            step="crank",
            attempt=A,
            after_s=4,
            reason="pressure showed",
            passed=True,
        ),
        "not_passed",
    )


def test_the_question_is_answered_with_the_unit_or_as_typed(ready: Book):
    """10 psi is 0.69 bar, still too little; written so, the question is gone."""
    start(ready)
    sample(ready, 3, oil="10")
    sample(ready, 3.5, oil="10 psi")
    assert run(ready).asked == ()
    assert not run(ready).expected_seen
    sample(ready, 4, oil="12 bar", as_typed=True)
    assert run(ready).pressure_at == 4


def test_a_bare_figure_takes_the_unit_of_the_gauge(ready: Book):
    """A gauge in psi in the shop: 45 is 45 psi, and not asked."""
    ready.shop["g1"] = tool(
        "g1",
        "pressure gauge",
        dimension="pressure",
        unit="psi",
        lo="0",
        hi="100",
        resolution="1",
        mpe="1",
        s="1",
    )
    start(ready)
    sample(ready, 3, oil="45")
    assert run(ready).asked == ()
    assert run(ready).pressure_at == 3
    figure = ready.state.live("run", A)[-1].body.samples[0].oil
    assert (figure.typed, figure.unit) == ("45", "psi")


def test_the_total_stops_inside_the_burst(ready: Book):
    """12.4 and 12.4 s of 30: the third burst has 5.2 s, and STOP comes then, not at the
    next start.
    """
    for number, attempt in enumerate((A, "attempt-2")):
        start(ready, attempt)
        ready.do(
            "attempt ended", step="crank", attempt=attempt, after_s=12.4, reason="no pressure yet"
        )
        assert ready.bench("crank").cranked_s == pytest.approx(12.4 * (number + 1))
        ready.later(0.01)
    start(ready, "attempt-3")
    ready.do(
        "attempt ended", step="crank", attempt="attempt-3", after_s=8.0, reason="no pressure yet"
    )
    facts = run(ready, "attempt-3")
    assert facts.limit_s == pytest.approx(5.2)
    assert facts.stop.startswith("The time allowed, 5.2 s, is over")


def test_what_was_sampled_was_running(ready: Book):
    """A key said to be off at 2 s, with a sample at 9 s: the attempt lasted 9 s."""
    start(ready)
    sample(ready, 9, rpm="250")
    assert (
        ready.do(
            "attempt ended", step="crank", attempt=A, after_s=2, reason="no pressure yet"
        ).body.after_s
        == 9
    )


def test_the_starter_rests(ready: Book):
    """Between two bursts 30 s, said to be assumed; less takes a reason."""
    start(ready)
    ready.do("attempt ended", step="crank", attempt=A, after_s=5, reason="no pressure yet")
    assert "30 s, assumed" in refused(lambda: start(ready, "attempt-2"), "rest")
    assert ready.bench("crank").rest.assumed
    ready.later(0.01)
    start(ready, "attempt-2")


def test_isolated_at_once_only_while_it_is_fresh(ready: Book):
    """One press names all; not the first time, not after five minutes, not when something was
    touched.
    """
    assert not ready.bench("crank").isolate_at_once
    start(ready)
    ready.do("attempt ended", step="crank", attempt=A, after_s=5, reason="no pressure yet")
    assert ready.bench("crank").isolate_at_once
    ready.do(
        "left open", step="crank", item="x1", what="Coil lead off", blocks="fire", undo="plug it in"
    )
    assert not ready.bench("crank").isolate_at_once
    ready.later(0.01)
    start(ready, "attempt-2")
    assert ready.bench("crank").isolate_at_once
    ready.later(0.1)
    assert not ready.bench("crank").isolate_at_once


def test_a_sample_sent_late_proves_nothing_early(ready: Book):
    """2 bar that reach the server at 12 s with "second 3" on them are no oil pressure by 5 s; a
    press and the wire may take 3 s.
    """
    fire = ready.state.plan.find_step("fire")
    ready.do("attempt started", step="fire", attempt=A, reason="trying it out")
    ready.now += timedelta(seconds=12)
    ready.do("samples", step="fire", attempt=A, samples=[{"t": 3, "oil": "2 bar", "rpm": "900"}])
    late = attempt_facts(ready.state, fire, A)
    assert late.stop == "No oil pressure of 1.0 bar entered by 5 s: key off"
    assert late.pressure_at == 9.0
    assert [track.samples for track in late.tracks if track.key == "oil"] == [((3.0, 2.0),)]
    ready.do(
        "attempt ended",
        step="fire",
        attempt=A,
        after_s=12,
        reason="stopped by hand",
        cause="too late",
        change="the hand sooner",
    )
    ready.do("attempt started", step="fire", attempt=B, reason="trying it out", isolated=[])
    ready.now += timedelta(seconds=7)
    ready.do("samples", step="fire", attempt=B, samples=[{"t": 4.5, "oil": "2 bar", "rpm": "900"}])
    assert attempt_facts(ready.state, fire, B).stop is None


def test_the_key_is_off_when_the_clocks_say_so(ready: Book):
    """Key off "after 2 s", written 15 s after it went on by both clocks: 12 s count towards the
    bursts; written late from a bench without its server, what was said counts.
    """
    crank = ready.state.plan.find_step("crank")
    ready.do(
        "attempt started", step="crank", attempt=A, isolated=["Plugs out"], reason="trying it out"
    )
    ready.now += timedelta(seconds=15)
    ready.do("attempt ended", step="crank", attempt=A, after_s=2, reason="key off")
    assert attempt_facts(ready.state, crank, A).after_s == 12.0
    assert cranked_s(attempts_of(ready.state, crank)) == 12.0
    started = ready.state.live("run", A)[0]
    late = Entry(
        id="late",
        seq=99,
        time="2026-03-01T20:00:00Z",
        bench_time=(datetime.fromisoformat(started.bench_time) + timedelta(seconds=3)).isoformat(),
        who="MK",
        body=KINDS["attempt ended"].model_validate(
            {"step": "crank", "attempt": A, "after_s": 2, "reason": "key off"}
        ),
    )
    ready.do("strike", entry=ready.state.live("run", A)[-1].id, reason="written twice")
    fold(ready.state, late)
    assert attempt_facts(ready.state, crank, A).after_s == 2.0


def test_no_oil_pressure_at_its_time_is_stop(ready: Book):
    """0 at exactly the moment it is due is STOP, and nobody reading for 20 s is STOP, whatever the
    revs.
    """
    fire = ready.state.plan.find_step("fire")
    ready.do("attempt started", step="fire", attempt=A, reason="trying it out")
    ready.do("samples", step="fire", attempt=A, samples=[{"t": 5, "oil": "0", "rpm": "900"}])
    assert attempt_facts(ready.state, fire, A).stop.startswith("Oil pressure 0.0 bar")


def test_nobody_reading_is_stop_whatever_the_revs():
    """Where a run may last, a pressure older than 15 s is asked for 5 s, then STOP; the deadline
    says so beforehand.
    """
    book = Book(small_sheet(SMALL.replace('hi = "15"', 'hi = "600"')), tools())
    fire = book.state.plan.find_step("fire")
    book.do("attempt started", step="fire", attempt=A, reason="trying it out")
    book.do("samples", step="fire", attempt=A, samples=[{"t": 4, "oil": "2 bar"}])
    book.do("samples", step="fire", attempt=A, samples=[{"t": 18, "rpm": "900"}])
    facts = attempt_facts(book.state, fire, A)
    assert facts.stop is None
    assert [(d.asked_from, d.at_s) for d in facts.deadlines if d.kind == "reading"] == [(20, 25)]
    book.do("samples", step="fire", attempt=A, samples=[{"t": 26, "rpm": "900"}])
    assert (
        attempt_facts(book.state, fire, A).stop
        == "No reading of the oil pressure for 20 s: key off"
    )
    book.do("samples", step="fire", attempt=A, samples=[{"t": 27, "oil": "3 bar"}])
    assert (
        attempt_facts(book.state, fire, A).stop
        == "No reading of the oil pressure for 20 s: key off"
    )


def test_timing_is_judged_in_its_state():
    """8° before with the vacuum off is inside 6 to 10; with it on it is not what was asked; 14 is
    too early.
    """
    text = (
        SMALL.replace(
            'id = "fire"\nstage = "wake"', 'id = "fire"\nstage = "wake"\ntiming = "advance"'
        )
        + """
[[limit]]
id = "advance"
name = "Ignition timing"
dimension = "angle"
unit = "deg"
lo = "6"
hi = "10"
condition = "vacuum off"
source = "book p. 9"
"""
    )
    book = Book(small_sheet(text), tools())
    book.do("attempt started", step="fire", attempt=A, reason="trying it out")
    fire = book.state.plan.find_step("fire")
    words = []
    for k, (typed, state) in enumerate(
        (("8", "vacuum off"), ("14", "vacuum off"), ("8", "vacuum on"))
    ):
        book.do(
            "samples",
            step="fire",
            attempt=A,
            samples=[{"t": 1 + k, "timing": typed, "timing_state": state}],
        )
        words.append(attempt_facts(book.state, fire, A).words[0])
    assert "inside" in words[0]
    assert "too early" in words[1]
    assert "inside" not in words[2]


# --- figures in bodies


def bare(schema: object, path: str) -> list[str]:
    """Paths of numbers in a schema that are not named as seconds, a share or money."""
    if isinstance(schema, list):
        return [found for k, part in enumerate(schema) for found in bare(part, f"{path}.{k}")]
    if not isinstance(schema, dict):
        return []
    own = [path] if schema.get("type") == "number" and "figure" not in schema else []
    named = {
        "Quantity",
        *(["anyOf"] if "figure" in schema else []),
    }  # a quantity has its unit beside it
    return own + [
        found
        for key, part in schema.items()
        if key not in named
        for found in bare(part, f"{path}.{key}")
    ]


@pytest.mark.parametrize("kind", sorted(set(KINDS) - {"plan edited"}))
def test_no_bare_figure_in_any_body(kind: str):
    """Every figure of a body is text with its unit, or one of the few that are named.

    A plan holds a sheet, which has its own format.
    """
    assert bare(KINDS[kind].model_json_schema(), kind) == []


@pytest.mark.parametrize(
    ("kind", "old", "path", "figure"),
    [
        (
            "decision",
            {
                "step": "s",
                "about": "wrench",
                "joint": "head",
                "adapter": {"length": 60.0, "angle": 90.0},
            },
            "adapter.length",
            ("60.0", "mm", None),
        ),
        (
            "samples",
            {
                "step": "s",
                "attempt": "a",
                "samples": [{"t": 3, "oil_kpa": 250.0, "typed": "36 psi"}],
            },
            "samples.0.oil",
            ("250.0", "kPa", None),
        ),
        (
            "tried",
            {"step": "s", "part": "nut", "rung": "soak", "minutes": 480},
            "time",
            ("480", "min", None),
        ),
        (
            "supported",
            {
                "support": "j",
                "support_kind": "jack",
                "carries": "engine",
                "point": "sump",
                "rated_kg": 2000.0,
            },
            "rated",
            ("2000.0", "kg", None),
        ),
        (
            "supported",
            {"support": "j", "support_kind": "jack", "carries": "engine", "point": "sump"},
            "rated",
            None,
        ),
    ],
)
def test_old_floats_are_lifted_with_their_unit(
    kind: str, old: dict, path: str, figure: tuple | None
):
    """A body of before has its unit now, and no text that was never typed."""
    value: object = KINDS[kind].model_validate(lifted(kind, 1, old))
    for name in path.split("."):
        value = value[int(name)] if name.isdigit() else getattr(value, name)
    assert (None if value is None else (value.value, value.unit, value.typed)) == figure
    assert lifted(kind, KINDS[kind].version, {"new": 1}) == {"new": 1}


def test_an_adapter_is_typed_with_its_unit(head: Book):
    """2.5 in is 63.5 mm; 2.5 m and a weight are refused."""
    head.wrench(adapter={"length": "2.5 in", "angle": "0"})
    adapter: Adapter = head.joint().adapter
    assert (adapter.length.typed, adapter.length.figure("length")) == (
        "2.5 in",
        pytest.approx(63.5),
    )
    for length in ("2.5 m", "3 kg", "-1 mm"):
        with pytest.raises(Refused):
            head.wrench(adapter={"length": length, "angle": "0"})
    assert isinstance(measured("60 mm", "length", "mm", "x"), Measured)
