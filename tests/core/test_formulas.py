"""Results made of readings: statistics and registered calculations, how much each reading counts,
warnings along the chain, tools in doubt.
"""

import tomllib

import pytest
from hypothesis import given
from hypothesis import strategies as st

from hollet.core.checking import OPEN_END, check_against, standing, trial
from hollet.core.errors import Refused
from hollet.core.procedure.formulas import evaluate, sensitivities
from hollet.core.procedure.read import read_sheet
from hollet.core.procedure.results import ResultSpec
from tests.support import SMALL, Book, small_sheet, tool, tools

SHEET = """
[sheet]
id = "m"
title = "Measured"
about = "A bore in three depths, a gap from two depths, a flange."

[[limit]]
id = "taper"
name = "Taper"
dimension = "length"
unit = "mm"
hi = "0.050"
source = "book"

[[limit]]
id = "gap"
name = "Gap"
dimension = "length"
unit = "mm"
lo = "2.5"
hi = "5.0"
target = "3.5"
source = "book"

[[limit]]
id = "even"
name = "Even"
dimension = "length"
unit = "mm"
hi = "0.20"
source = "book"

[[step]]
id = "map"
stage = "inspect"
kind = "measure"
title = "Map"
do = "Measure."
draw = "bores"
reading = [
  { id = "t1", name = "Top across", tool = "bore gauge", nominal = "84 mm", at = [
    "1", "top", "across"] },
  { id = "t2", name = "Mid across", tool = "bore gauge", nominal = "84 mm", at = [
    "1", "mid", "across"] },
  { id = "t3", name = "Low across", tool = "bore gauge", nominal = "84 mm", at = [
    "1", "low", "across"] },
  { id = "a1", name = "Top along", tool = "bore gauge", nominal = "84 mm", at = [
    "1", "top", "along"] },
  { id = "a2", name = "Mid along", tool = "bore gauge", nominal = "84 mm", at = [
    "1", "mid", "along"] },
  { id = "a3", name = "Low along", tool = "bore gauge", nominal = "84 mm", at = [
    "1", "low", "along"] }]
result = [
  { id = "taper_1", name = "Taper 1", limit = "taper", calc = "bore_map", gives = "taper", takes = [
    { field = "thrust", of = ["t1", "t2", "t3"] },
  { field = "axial", of = ["a1", "a2", "a3"] },
  { field = "nominal", of = ["= 84 mm"] }] }]

[[step]]
id = "clutch_in"
stage = "build_up"
kind = "check"
title = "New clutch on"
do = "Bolt it."

[[step]]
id = "depths"
stage = "build_up"
kind = "measure"
title = "Depths"
do = "Measure."
[[step.reading]]
id = "da"
name = "Depth A"
tool = "depth gauge"
nominal = "57 mm"
state = "pushed back"
twice = true
[[step.reading]]
id = "db"
name = "Depth B"
tool = "depth gauge"
nominal = "53 mm"
state = "bolted"
changed_by = ["clutch_in"]
[[step.result]]
id = "gap_r"
name = "Gap"
limit = "gap"
calc = "release_bearing_gap"
gives = "gap"
takes = [{ field = "A", of = ["da"] }, { field = "B", of = ["db"] }]

[[step]]
id = "flange"
stage = "build_up"
kind = "measure"
title = "Flange"
do = "Measure."
reading = [{ id = "p1", name = "Point 1", tool = "caliper", nominal = "20 mm" },
  { id = "p2", name = "Point 2", tool = "caliper", nominal = "20 mm" },
  { id = "p3", name = "Point 3", tool = "caliper", nominal = "20 mm" }]
result = [
  { id = "even_r", name = "Even", limit = "even", how = "spread", over = ["p1", "p2", "p3"] }]
"""


@pytest.fixture
def book() -> Book:
    """The job, nothing read; a depth gauge beside the usual tools."""
    return Book(
        small_sheet(SHEET),
        {
            **tools(),
            "d1": tool(
                "d1", "depth gauge", lo="0", hi="150", mpe="0.05", resolution="0.01", s="0.02"
            ),
        },
    )


def result(book: Book, step: str, name: str):
    """A result as the bench shows it."""
    return next(r for r in book.bench(step).results if r.id == name)


def test_a_map_is_judged_by_its_calculation(book):
    """Taper of six readings: the value by hand, and U from the two readings that make it, with
    their shared setting gone.
    """
    for name, typed in (
        ("t1", "84.031"),
        ("t2", "84.012"),
        ("t3", "84.002"),
        ("a1", "84.010"),
        ("a2", "84.006"),
        ("a3", "84.001"),
    ):
        assert result(book, "map", "taper_1").judgement.verdict == "not_read"
        book.read("map", name, typed, tool="b1")
    found = result(book, "map", "taper_1")
    assert found.judgement.value == pytest.approx(0.029)
    # of each 0.002 permissible and half a last digit, rectangular, and 0.002 of repeatability; zero
    # and setting are the same in both and go
    one = 0.002**2 / 3 + 0.0005**2 / 3 + 0.002**2
    assert pytest.approx(2 * (2 * one) ** 0.5, rel=1e-9) == found.judgement.U
    assert found.judgement.verdict == "inside"
    assert found.judgement.margins == "0.021 under the upper limit"
    assert any(line.startswith("taper: 84.031 − 84.002") for line in found.judgement.working)
    assert book.bench("map").draw == "bores"


def test_readings_that_cannot_be_are_said_and_not_judged(book):
    """An outlier makes the calculation refuse: the reason stands there, no verdict does."""
    for name, typed in (
        ("t1", "86.9"),
        ("t2", "84.012"),
        ("t3", "84.002"),
        ("a1", "84.010"),
        ("a2", "84.006"),
        ("a3", "84.001"),
    ):
        book.read("map", name, typed, tool="b1", sure=True)
    found = result(book, "map", "taper_1")
    assert found.judgement.verdict == "not_read"
    assert "differ by more than 2 %" in (found.refusal or "")


def test_what_is_asked_about_a_figure(book):
    """A depth 5 % off is asked about, and so are inches typed as millimetres; a slope or a small
    figure has more room.
    """
    with pytest.raises(Refused, match="meant in inches"):
        book.read("depths", "da", "2.2441", tool="d1")
    with pytest.raises(Refused, match="Is it right"):
        book.read("depths", "da", "66", tool="d1")
    small = SHEET.replace('nominal = "20 mm"', 'nominal = "2 mm"')
    other = Book(small_sheet(small), tools())
    other.read("flange", "p1", "2.4", tool="c1")
    with pytest.raises(Refused, match="a decimal place"):
        other.read("flange", "p2", "20", tool="c1")


def test_swapped_depths_are_asked_about(book):
    """A gap below nothing that would be one the other way round: asked, not refused."""
    book.read("depths", "da", "53.4", tool="d1", sure=True)
    book.read("depths", "db", "57.2", tool="d1", sure=True)
    found = result(book, "depths", "gap_r")
    assert "less than nothing: are Depth A and Depth B swapped?" in found.warnings
    assert found.judgement.verdict == "outside"
    book.read("depths", "da", "57.2", tool="d1")
    book.read("depths", "db", "53.4", tool="d1")
    assert not any("swapped" in w for w in result(book, "depths", "gap_r").warnings)


def test_a_spread_counts_its_ends(book):
    """Widest less narrowest: the middle one does not count."""
    for name, typed in (("p1", "20.05"), ("p2", "20.11"), ("p3", "20.00")):
        book.read("flange", name, typed, tool="c1")
    found = result(book, "flange", "even_r").judgement
    one = 0.03**2 / 3 + 0.005**2 / 3 + 0.01**2  # permissible, half a last digit, repeatability
    assert found.value == pytest.approx(0.11)
    assert pytest.approx(2 * (2 * one) ** 0.5, rel=1e-9) == found.U


def test_a_changed_part_of_the_chain_is_named(book):
    """B was read before the new clutch went on: the sum warns, until it is read again; other states
    warn too.
    """
    book.read("depths", "db", "53.4", tool="d1")
    book.do("done", step="clutch_in", reason="done before the reading")
    book.read("depths", "da", "57.2", "57.2", tool="d1")
    warned = result(book, "depths", "gap_r").warnings
    assert any("Depth B was read on" in w and "before 6.01 New clutch on" in w for w in warned)
    assert not any("different states" in w for w in warned)  # each as the sheet asks for it
    book.read("depths", "da", "57.2", "57.2", tool="d1", state="hanging")
    assert any(
        "different states: bolted; hanging" in w for w in result(book, "depths", "gap_r").warnings
    )
    book.read("depths", "db", "53.3", tool="d1", state="hanging")
    assert result(book, "depths", "gap_r").warnings == ()


def test_what_to_do_next_waits_for_the_second_reading():
    """A push rod: no word of sawing while its mark was read once; then the cut, rounded down; read
    in another state than asked, it is held back again.
    """
    takes = ", ".join(
        f'{{ field = "{field}", of = ["{of}"] }}'
        for field, of in (
            ("full_mark", "full"),
            ("rest_mark", "rest"),
            ("free_play", "= 0 mm"),
            ("hydraulic_self_adjusting", "= yes"),
        )
    )
    step = f"""
[[step]]
id = "rod"
stage = "inspect"
kind = "measure"
title = "Rod"
do = "Mark."
reading = [
{{id = "full", name = "Bottom", tool = "caliper", nominal = "40 mm", state = "bled", twice = true}},
  {{ id = "rest", name = "Rest", tool = "caliper", nominal = "33 mm", state = "lever at rest" }}]
result = [
  {{ id = "cut", name = "Cut", limit = "clearance", calc = "rod_cut", gives = "cut", takes = [
    {takes}] }}]
"""
    book = Book(small_sheet(SMALL + step), tools())
    book.read("rod", "full", "41.7", tool="c1")
    book.read("rod", "rest", "33", tool="c1")
    assert result(book, "rod", "cut").advice is None
    book.read("rod", "full", "41.7", "41.7", tool="c1")
    assert result(book, "rod", "cut").advice.startswith("cut 8.5 mm off")
    book.read("rod", "rest", "33", tool="c1", state="dry")
    assert result(book, "rod", "cut").advice is None


def test_a_second_reading_is_asked_for(book):
    """Read once, the step stays open; a repeat in one line or a second reading will do."""
    book.do("done", step="clutch_in", reason="done before the reading")
    book.read("depths", "da", "57.2", tool="d1")
    book.read("depths", "db", "53.4", tool="d1")
    assert (
        book.bench("depths").base.lacking
        == "Depth A: read it a second time, there is no going back after it"
    )
    book.read("depths", "da", "57.21", tool="d1", state="pushed back")
    assert book.bench("depths").base.lacking is None
    assert next(r for r in book.bench("depths").readings if r.id == "da").taken_in == "pushed back"


def test_a_tool_found_wrong_puts_its_readings_in_doubt(book):
    """Between its last good check and the failed one nothing counts; measured again with a good
    tool, it does.
    """
    for name, typed in (("p1", "20.05"), ("p2", "20.11"), ("p3", "20.00")):
        book.read("flange", name, typed, tool="c1")
    assert result(book, "flange", "even_r").judgement.verdict == "inside"
    failed = check_against(book.shop["c1"], "25", ["25.08", "25.09"], now="2026-03-02T08:00:00Z")
    assert not failed.good
    book.shop["c1"] = failed.tool
    judged = result(book, "flange", "even_r").judgement
    assert (judged.verdict, judged.words) == (
        "too_close",
        "tool in doubt: C1 was off by 0.085 mm at its check",
    )
    assert book.open()["result:flange/even_r"] == "crank"
    good = check_against(failed.tool, "25", ["25.00"], now="2026-03-03T08:00:00Z")
    assert good.good
    book.shop["c1"] = good.tool
    assert result(book, "flange", "even_r").judgement.verdict == "too_close"
    book.now = book.now.replace(day=4)
    for name, typed in (("p1", "20.05"), ("p2", "20.11"), ("p3", "20.00")):
        book.read("flange", name, typed, tool="c1")
    assert result(book, "flange", "even_r").judgement.verdict == "inside"


def test_a_gauge_is_in_doubt_with_the_tool_that_set_it(book):
    """Micrometer M1 was off: the size of a bore read with a gauge set by it is in doubt, a taper is
    not, for there it cancels.
    """
    book.plan("limit", limit="taper", version=1, hi="0.060", source="book", same_source=True)
    for name, typed in (
        ("t1", "84.031"),
        ("t2", "84.012"),
        ("t3", "84.002"),
        ("a1", "84.010"),
        ("a2", "84.006"),
        ("a3", "84.001"),
    ):
        book.read("map", name, typed, tool="b1")
    book.shop["m1"] = check_against(
        book.shop["m1"], "80", ["80.02"], now="2026-03-02T08:00:00Z"
    ).tool
    assert result(book, "map", "taper_1").judgement.verdict == "inside"
    wear = Book(
        small_sheet(SHEET.replace('gives = "taper"', 'gives = "max_wear"')),
        {**book.shop, "m1": tools()["m1"]},
    )
    for name, typed in (
        ("t1", "84.011"),
        ("t2", "84.012"),
        ("t3", "84.002"),
        ("a1", "84.010"),
        ("a2", "84.006"),
        ("a3", "84.001"),
    ):
        wear.read("map", name, typed, tool="b1")
    assert result(wear, "map", "taper_1").judgement.verdict == "inside"
    wear.shop["m1"] = book.shop["m1"]
    assert (
        result(wear, "map", "taper_1").judgement.words
        == "tool in doubt: M1 was off by 0.0200 mm at its check"
    )


def test_checks():
    """Within the permissible error good; an offset that is kept closes the doubt and is taken off;
    the second check sees it right.
    """
    mike = tool(
        "m", "micrometer", lo="0", hi="25", mpe="0.004", s="0.001", good_at="2026-01-01T00:00:00Z"
    )
    good = check_against(mike, "10", ["10.003", "10.004"], now="2026-02-01T00:00:00Z")
    assert (good.good, good.off, good.tool.good_at, good.tool.doubts) == (
        True,
        "0.0035",
        "2026-02-01T00:00:00Z",
        (),
    )
    bad = check_against(mike, "10", ["10.012"], now="2026-02-01T00:00:00Z")
    assert (bad.good, bad.tool.good_at, bad.tool.doubts[0].since, bad.tool.doubts[0].until) == (
        False,
        "2026-01-01T00:00:00Z",
        "2026-01-01T00:00:00Z",
        OPEN_END,
    )
    kept = check_against(mike, "10", ["10.012"], now="2026-02-01T00:00:00Z", keep_offset=True)
    assert (kept.tool.offset, kept.tool.doubts[0].until) == ("0.0120", "2026-02-01T00:00:00Z")
    assert check_against(kept.tool, "20", ["20.012"], now="2026-02-02T00:00:00Z").good
    still = check_against(bad.tool, "10", ["10.013"], now="2026-02-03T00:00:00Z")
    assert len(still.tool.doubts) == 1
    for own, nominal, typed, code in (
        ({}, "30", ["30"], "out_of_range"),
        ({"mpe": None}, "10", ["10"], "no_instrument_data"),
        ({}, "10", ["ten"], "not_a_number"),
    ):
        with pytest.raises(Refused) as refusal:
            check_against(mike.model_copy(update=own), nominal, typed, now="2026-02-01T00:00:00Z")
        assert refusal.value.reason_code == code


def test_the_hands_of_the_user():
    """Ten readings: the sample deviation; all alike, half a digit is left; too few are refused."""
    mike = tool("m", "micrometer", mpe="0.004", s="0.001")
    figures = [10.001, 10.003, 10.002, 10.000, 10.002, 10.001, 10.004, 10.002, 10.001, 10.002]
    mean = sum(figures) / 10
    s = (sum((x - mean) ** 2 for x in figures) / 9) ** 0.5
    tried = trial(mike, [str(x) for x in figures], thing="a pin", who="MK")
    assert float(tried.in_hands("MK").s or 0) == pytest.approx(s, abs=6e-6)
    steadier = trial(tried, ["10.001"] * 10, thing="a pin", who="TR")
    assert 0 < float(steadier.in_hands("TR").s or 0) < s
    assert steadier.s == steadier.in_hands("MK").s == steadier.in_hands("AB").s, (
        "the widest known for hands that nobody tried"
    )
    again = trial(steadier, ["10.001"] * 10, thing="a pin", who="MK")
    assert ([h.who for h in again.hands], again.s) == (["TR", "MK"], steadier.in_hands("TR").s)
    with pytest.raises(Refused, match="at least 5 times"):
        trial(mike, ["10.001"] * 4, thing="a pin", who="MK")


def test_whether_a_tool_may_be_trusted():
    """Never checked, checked elsewhere, good, failed; a check passed later makes it good again."""
    mike = tool("m", "micrometer", mpe="0.004", s="0.001")
    assert (standing(mike).sign, standing(mike).words) == ("not_read", "never checked here")
    assert standing(mike.model_copy(update={"checked": "2025-12-01"})).words == "checked 2025-12-01"
    bad = check_against(mike, "10", ["10.009"], now="2026-01-01T00:00:00Z").tool
    assert (standing(bad).sign, standing(bad).words) == (
        "outside",
        "off by 0.0090 mm: not to be trusted",
    )
    good = check_against(bad, "10", ["10.001"], now="2026-02-01T00:00:00Z").tool
    assert (standing(good).sign, standing(good).words) == ("inside", "good 2026-02-01")


LIST = st.lists(st.integers(-500, 500).map(lambda k: k / 1000), min_size=2, max_size=6, unique=True)


@given(
    values=LIST,
    how=st.sampled_from(["largest", "smallest", "mean", "spread", "sum"]),
    shift=st.floats(-1, 1),
)
def test_how_each_reading_counts(values, how, shift):
    """A shift of all readings moves the result by the sum of what they count; the offset of one
    tool cancels in a spread.
    """
    names = [f"r{k}" for k in range(len(values))]
    spec = ResultSpec(id="x", name="X", limit="l", how=how, over=tuple(names))
    at = dict(zip(names, values, strict=True))
    counts = sensitivities(spec, at)
    moved = evaluate(spec, {name: v + shift for name, v in at.items()})[0] - evaluate(spec, at)[0]
    assert moved == pytest.approx(shift * sum(counts.values()), abs=1e-5)
    assert sum(counts.values()) == pytest.approx(
        {"spread": 0, "sum": len(values)}.get(how, 1), abs=1e-5
    )


def test_two_that_tie_count_fully():
    """Two readings alike at the top: either may be the larger one, so neither counts half."""
    spec = ResultSpec(id="x", name="X", limit="l", how="largest", over=("a", "b"))
    assert sensitivities(spec, {"a": 1.0, "b": 1.0}) == {"a": 1.0, "b": 1.0}


@pytest.mark.parametrize(
    ("old", "new", "words"),
    [
        ('calc = "bore_map"', 'calc = "bore_mop"', "bore_mop"),
        ('gives = "taper"', 'gives = "tapir"', "gives no 'tapir'"),
        ('field = "thrust"', 'field = "trust"', "takes no 'trust'"),
        ('of = ["= 84 mm"]', 'of = ["= 84 kg"]', "a unit of mass"),
        ('changed_by = ["clutch_in"]', 'changed_by = ["clutch"]', "no step here"),
        ('how = "spread", ', "", "must name one reading"),
        ('over = ["p1", "p2", "p3"]', 'over = ["p1", "p9"]', "must name one reading"),
    ],
)
def test_a_sheet_with_a_wrong_result_is_refused(old, new, words):
    """With its line, and what would be right."""
    text = SHEET.replace(old, new, 1)
    with pytest.raises(Refused) as refusal:
        read_sheet(tomllib.loads(text), text)
    assert "line " in refusal.value.message
    assert words in refusal.value.message


LIFT = (
    SHEET.replace('id = "even"\nname = "Even"', 'id = "even"\nname = "Even"\nsafety = "lifting"')
    + """
[[step]]
id = "up"
stage = "fit_in"
kind = "check"
title = "Engine up"
do = "Lift."
lifts = true
"""
)


def test_lifting_gear_is_never_accepted():
    """A sling outside its limit: no concession, and nothing is lifted until it is replaced and
    measured inside.
    """
    book = Book(small_sheet(LIFT), tools())
    for name, typed in (("p1", "20.05"), ("p2", "20.90"), ("p3", "20.00")):
        book.read("flange", name, typed, tool="c1")
    with pytest.raises(Refused, match="never accepted"):
        book.do(
            "concession",
            step="flange",
            result="even_r",
            reason="only once, very slowly",
            name="MK",
            licensed="Inspector 7",
        )
    book.do(
        "supported", support="w", support_kind="wheels", carries="vehicle", point="all four wheels"
    )
    book.hung("up")
    assert book.bench("up").base.lacking == "not ready to lift: Even is outside, 0.70 over"
    book.read("flange", "p2", "20.05", tool="c1")
    assert "two readings are 0.8500 mm apart" in book.bench("up").base.lacking
    book.read("flange", "p2", "20.05", tool="c1")
    assert book.bench("up").base.lacking is None


@pytest.mark.parametrize(
    ("safety", "rung"),
    [
        ("steering", "drive"),
        ("brakes", "drive"),
        ("wheels", "drive"),
        ("restraints", "drive"),
        ("suspension", "drive"),
        ("fuel", "fuel_on"),
    ],
)
def test_what_is_safety_critical_stays_shut_until_a_licence_is_named(safety, rung):
    """Accepted, it opens nothing; with the name and number of a licensed inspection it does.

    All of it stands with the value.
    """
    book = Book(
        small_sheet(
            SHEET.replace(
                'id = "even"\nname = "Even"', f'id = "even"\nname = "Even"\nsafety = "{safety}"'
            )
        ),
        tools(),
    )
    for name, typed in (("p1", "20.05"), ("p2", "20.90"), ("p3", "20.00")):
        book.read("flange", name, typed, tool="c1")
    book.do(
        "concession",
        step="flange",
        result="even_r",
        reason="to the inspector only",
        name="MK",
        use="one trip on a trailer",
        recheck="tomorrow",
    )
    assert book.open()["result:flange/even_r"] == rung
    assert result(book, "flange", "even_r").concession == (
        "accepted by MK: to the inspector only For: one trip on a trailer. Looked at again "
        "tomorrow."
    )
    book.do(
        "concession",
        step="flange",
        result="even_r",
        reason="inspected and passed",
        name="MK",
        licensed="Inspector 7, no. 4711",
    )
    assert "result:flange/even_r" not in book.open()


def test_a_kind_of_safety_that_is_none_is_refused():
    """A sheet names one of the seven kinds; a slip would open a gate."""
    text = SHEET.replace(
        'id = "even"\nname = "Even"', 'id = "even"\nname = "Even"\nsafety = "stearing"'
    )
    with pytest.raises(Refused, match="steering"):
        read_sheet(tomllib.loads(text), text)
