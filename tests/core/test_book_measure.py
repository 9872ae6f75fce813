"""Measuring in a build: verdicts with the tool's own uncertainty, slips, concessions that lapse."""

import pytest

from hollet.core.errors import NotFound, Refused
from tests.support import SMALL, Book, small_sheet, tool, tools


def measured(book: Book, piston: str = "83.958", cylinder: str = "84.006") -> None:
    """Piston with the micrometer, cylinder with the gauge that was set with it."""
    book.read("bore", "piston", piston, tool="m1")
    book.read("bore", "cylinder", cylinder, tool="b1")


def test_clearance_is_bore_minus_piston(book: Book):
    """84.006 - 83.958 = 0.048; the shared zero error cancels, everything else adds in squares."""
    measured(book)
    judged = book.clearance().judgement
    assert (judged.value_text, judged.verdict) == ("0.048", "inside")
    own = 4 * 0.002**2 / 3 - 0.002**2 / 3 + 3 * (0.0005**2 / 3) + 2 * 0.002**2 + 0.001**2
    assert pytest.approx(2 * own**0.5, rel=1e-6) == judged.U
    assert any("cancels" in line for line in judged.working)
    assert "84.0060 − 83.9580 = 0.0480 mm" in judged.working


def test_a_limit_in_thou_is_judged_and_worked_in_millimetres():
    """Written in thou, the limit judges the same clearance; the working says mm behind its mm
    figures.
    """
    text = SMALL.replace(
        'unit = "mm"\nlo = "0.030"\nhi = "0.070"\ntarget = "0.045"',
        'unit = "thou"\nlo = "1.2"\nhi = "2.8"\ntarget = "1.8"',
    )
    book = Book(small_sheet(text), tools())
    measured(book)
    judged = book.clearance().judgement
    assert (judged.verdict, judged.value_text, judged.unit) == ("inside", "1.89", "thou")
    assert judged.lo == pytest.approx(0.03048)
    assert "84.0060 − 83.9580 = 0.0480 mm" in judged.working


def test_each_source_judges_the_reading(book: Book):
    """Two sources: the clearance of 0.066 is inside by one and outside by the other; the one in
    force is marked, and so is what nobody chose.
    """
    measured(book, piston="83.940")
    assert book.clearance().sources == ()
    book.plan(
        "answer",
        limit="clearance",
        version=1,
        lo="0.020",
        hi="0.050",
        target=None,
        source="sheet 9",
        page="4",
    )
    found = book.clearance()
    assert [(s.source, s.asks, s.verdict, s.in_force) for s in found.sources][1] == (
        "sheet 9, p. 4",
        "0.020 to 0.050 mm",
        "outside",
        False,
    )
    assert [s.in_force for s in found.sources] == [True, False]
    assert found.sources[0].verdict == found.judgement.verdict
    assert not found.limit.settled


def test_zeroing_between_keeps_the_zero_error(book: Book):
    """With the micrometer zeroed after the piston was read the zero error counts twice."""
    measured(book)
    shared = book.clearance().judgement.U
    master = book.shop["m1"].model_copy(update={"zero_no": 2})
    book.shop |= {"m1": master, "b1": book.shop["b1"].model_copy(update={"set_with": master})}
    book.read("bore", "cylinder", "84.006", tool="b1")
    later = book.clearance().judgement
    assert pytest.approx(shared**2 + 4 * 2 * 0.003**2 / 3, rel=1e-6) == later.U**2
    assert any("not shared" in line for line in later.working)


def test_gauge_reads_deviations(book: Book):
    """Under half the setting a figure is a deviation from it; both ways give the same bore."""
    measured(book, cylinder="0.006 mm")
    assert book.clearance().judgement.value_text == "0.048"
    entry = book.state.live("reading", "cylinder")[-1]
    assert (entry.body.typed, entry.body.deviation_from.value) == (("0.006 mm",), "84")
    book.read("bore", "cylinder", ".25 thou", tool="b1")
    assert book.state.live("reading", "cylinder")[-1].body.values[0].value == "0.00635"


@pytest.mark.parametrize(
    ("cylinder", "verdict"),
    [
        ("84.006", "inside"),
        ("84.025", "too_close"),
        ("84.062", "outside"),
        ("83.975", "outside"),
        ("83.989", "too_close"),
    ],
)
def test_three_verdicts(book: Book, cylinder: str, verdict: str):
    """Inside, outside and too close to call, on both sides."""
    measured(book, cylinder=cylinder)
    assert book.clearance().judgement.verdict == verdict


def test_too_close_names_the_tool_that_would_settle_it(book: Book):
    """A better gauge of the shop is named, a worse one is not."""
    measured(book, cylinder="84.0215")
    assert book.clearance().judgement.verdict == "too_close"
    assert book.clearance().settled_by == ("B1 and M1, each read 3 times",)
    book.shop["b9"] = tool("b9", "bore gauge", lo="50", hi="150", mpe="0.0005", s="0.0005")
    book.shop["b8"] = tool("b8", "bore gauge", lo="50", hi="150", mpe="0.02", s="0.01")
    assert book.clearance().settled_by == ("B9",)


def test_impossible_clearance_asks_which_figure(book: Book):
    """A piston larger than its bore is asked about; kept as typed it is no verdict but a question;
    both readings stay written.
    """
    with pytest.raises(Refused, match="is not smaller than"):
        measured(book, piston="84.020")
    book.read("bore", "cylinder", "84.006", tool="b1", sure=True)
    result = book.clearance()
    assert result.judgement.verdict == "not_read"
    assert "which of the two figures" in result.refusal
    assert "result:bore/c" in book.open()


@pytest.mark.parametrize(
    ("typed", "words"),
    [
        ("8.4006", "a decimal place"),
        ("840.06", "a decimal place"),
        ("3.3073", "meant in inches"),
        ("70", "Is it right?"),
    ],
)
def test_slips_are_asked_not_refused(book: Book, typed: str, words: str):
    """A bore of 8.4 in place of 84 mm is asked about; sure of it, it is written as typed."""
    book.shop["b1"] = book.shop["b1"].model_copy(update={"setting": None})
    with pytest.raises(Refused) as refusal:
        book.read("bore", "cylinder", typed, tool="b1")
    assert refusal.value.reason_code == "odd_figure"
    assert words in refusal.value.message
    book.read("bore", "cylinder", typed, tool="b1", sure=True)
    assert book.state.live("reading", "cylinder")[-1].body.typed == (typed,)


@pytest.mark.parametrize(
    ("typed", "slip"),
    [
        ("0.013", "meant in inches"),
        ("3.3", "a decimal place"),
        ("0.03", "a decimal place"),
        ("14", "meant in thou"),
    ],
)
def test_the_nearest_slip_of_a_gap_is_named(book: Book, typed: str, slip: str):
    """A ring gap of 0.35 mm expected: 0.013 in is 0.33 mm, 3.3 and 0.03 are a place off, 14 thou
    are 0.36.
    """
    with pytest.raises(Refused, match=slip):
        book.read("ring", "ring", typed, tool="f1")


@pytest.mark.parametrize(
    ("typed", "odd"), [("0.30", False), ("0.85", False), ("3.5", True), ("0.035", True)]
)
def test_gaps_are_odd_only_when_far_off(book: Book, typed: str, odd: bool):
    """A gap a little outside is a verdict; ten times off is a slip."""
    if odd:
        with pytest.raises(Refused):
            book.read("ring", "ring", typed, tool="f1")
    else:
        book.read("ring", "ring", typed, tool="f1")
        assert book.bench("ring").results[0].judgement.verdict in ("inside", "outside", "too_close")


def test_repeats_show_that_something_moves(book: Book):
    """Repeats that scatter far more than the tool does are remarked upon."""
    book.read("bore", "piston", "83.950", "83.970", tool="m1")
    assert "does something move" in book.bench("bore").readings[0].moves
    assert book.bench("bore").readings[0].value_text == "83.9600"


@pytest.mark.parametrize(
    ("unit", "typed", "moves"),
    [
        ("mm", ("83.950", "83.958"), False),  # four times 0.002: as much as it usually does
        ("mm", ("83.950", "83.959"), True),
        ("in", ("3.3051", "3.3054"), False),  # 0.0076 mm
        ("in", ("3.3051", "3.3055"), True),  # 0.0102 mm
        ("mm", ("83.950",), False),
    ],
)
def test_how_far_repeats_may_lie_apart(book: Book, unit, typed, moves):
    """Compared in the unit of the tool's own repeatability, whatever was typed."""
    book.read("bore", "piston", *(f"{text} {unit}" for text in typed), tool="m1")
    assert (book.bench("bore").readings[0].moves is not None) is moves


def test_unknown_repeatability_has_no_verdict(book: Book):
    """A tool without a usual repeatability gives no verdict from one reading, and says
    what to do.
    """
    book.shop["m1"] = book.shop["m1"].model_copy(update={"s": None})
    measured(book)
    result = book.clearance()
    assert result.judgement.verdict == "too_close"
    assert "read three times" in result.refusal


def test_units_as_typed(book: Book):
    """Inches, thou and millimetres in one step; the typed text is kept."""
    book.read("bore", "piston", "3.3054 in", tool="m1")
    reading = book.bench("bore").readings[0]
    assert (reading.typed, reading.value_text) == (("3.3054 in",), "83.9572")
    with pytest.raises(Refused) as refusal:
        book.read("bore", "piston", "84 Nm", tool="m1")
    assert refusal.value.reason_code == "dimension_mismatch"


def test_concession_holds_for_one_reading_and_one_limit(book: Book):
    """A concession closes its result; measuring again or editing the limit lets it lapse, and says
    so.
    """
    measured(book, cylinder="84.062")
    assert "result:bore/c" in book.open()
    book.do("concession", step="bore", result="c", reason="few miles a year", name="MK")
    assert book.clearance().conceded
    assert "result:bore/c" not in book.open()
    book.read("bore", "cylinder", "84.063", tool="b1")
    assert not book.clearance().conceded
    assert "lapsed" in book.clearance().lapsed
    book.do("concession", step="bore", result="c", reason="few miles a year", name="MK")
    book.plan(
        "limit",
        limit="clearance",
        version=1,
        lo="0.030",
        hi="0.075",
        target="0.045",
        source="book p. 1",
        same_source=True,
    )
    assert not book.clearance().conceded


def test_a_source_found_later_keeps_the_concession(book: Book):
    """Only figures count: a limit that merely gets its source changes no concession."""
    measured(book, cylinder="84.062")
    book.do("concession", step="bore", result="c", reason="few miles a year", name="MK")
    book.plan(
        "limit",
        limit="clearance",
        version=1,
        lo="0.030",
        hi="0.070",
        target="0.045",
        source="other book",
    )
    assert book.clearance().conceded


def test_safety_concession_keeps_its_rung_shut(book: Book):
    """Fuel conceded keeps fuel on shut until a licensed inspection is named."""
    book.read("ring", "ring", "0.85", tool="f1")
    book.do("concession", step="ring", result="g", reason="it will do for now", name="MK")
    assert book.open()["result:ring/g"] == "fuel_on"
    book.do(
        "concession",
        step="ring",
        result="g",
        reason="it will do for now",
        name="MK",
        licensed="Test station 12, sheet 4",
    )
    assert "result:ring/g" not in book.open()


@pytest.mark.parametrize(
    ("edit", "error", "code"),
    [
        ({"reason": "short", "name": "MK"}, Exception, None),
        ({"reason": "long enough a reason", "name": "MK"}, Refused, "not_complete"),
    ],
)
def test_concession_needs_reading_and_reason(book: Book, edit: dict, error: type, code: str | None):
    """Nothing is accepted unread or without a written reason."""
    with pytest.raises(error) as raised:
        book.do("concession", step="bore", result="c", **edit)
    assert code is None or raised.value.reason_code == code


def test_inside_needs_no_concession(book: Book):
    """What is inside cannot be conceded."""
    measured(book)
    with pytest.raises(Refused) as refusal:
        book.do("concession", step="bore", result="c", reason="just to be sure", name="MK")
    assert refusal.value.reason_code == "not_outside"


def test_disposition_is_kept_and_superseded(book: Book):
    """The last decision stands, and does not close the result."""
    measured(book, cylinder="84.062")
    book.do("disposition", step="bore", result="c", choice="rework")
    assert book.clearance().disposition == "rework"
    assert "result:bore/c" in book.open()
    book.do("disposition", step="bore", result="c", choice="measure_again")
    assert book.clearance().disposition == "measure_again"


@pytest.mark.parametrize(("reading", "instrument"), [("nothing", "m1"), ("piston", "nothing")])
def test_unknown_names(book: Book, reading: str, instrument: str):
    """An unknown reading or tool is not found."""
    with pytest.raises(NotFound):
        book.do(
            "reading",
            step="bore",
            reading=reading,
            typed=["83.9"],
            unit="mm",
            instrument=instrument,
        )


def test_tool_choices_say_what_a_tool_can_do(book: Book):
    """Before reading: what fits the range, what is too wide, what sets the verdict."""
    bench = book.bench("oil_in")
    assert [(t.code, t.can) for t in bench.tools] == [("J1", True)]
    by = {t.code: t for t in book.bench("bore").tools}
    assert set(by) == {"M1", "B1", "C1"}
    assert by["B1"].setting == "84.000"
