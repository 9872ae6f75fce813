"""How one result is judged: both ends of several readings, a lower end alone, each source."""

import pytest

from hollet.core.errors import Refused
from hollet.core.instruments import Share, Spread, combine
from hollet.core.limits import Limit, SourceAnswer
from hollet.core.procedure.results import ResultSpec
from hollet.core.steps.judging import by_source, check_clearance, end_counts, judged_by_all

EXACT = Share("zero", 0.0)


def spread(value: float, u: float = 0.0005, *, bound: bool = False) -> Spread:
    """A reading with its own share alone; U is about twice `u`."""
    return Spread(value, (Share("own", u),), EXACT, f"tool-{value}", bound=bound)


def limit(**figures) -> Limit:
    return Limit(id="l", name="L", dimension="length", unit="mm", source="book", **figures)


def ends(**own) -> ResultSpec:
    return ResultSpec(id="r", name="R", limit="l", how="ends", over=("a", "b", "c"), **own)


def judged(spec: ResultSpec, asked: Limit, **figures: float):
    """The verdict on readings of these figures, each good to about 0.001."""
    spreads = {name: spread(value) for name, value in figures.items()}
    counts = (
        end_counts(spec, figures, spreads, asked) if spec.how == "ends" else dict.fromkeys("a", 1.0)
    )
    parts = [(count, spreads[name]) for name, count in counts.items()]
    value = sum(count * figures[name] for name, count in counts.items())
    return judged_by_all(spec, figures, spreads, parts, value, asked, (), 3), counts


@pytest.mark.parametrize(
    ("figures", "verdict", "side", "decides"),
    [
        ((0.040, 0.050, 0.060), "inside", "low", "a"),
        ((0.020, 0.050, 0.060), "outside", "low", "a"),
        ((0.040, 0.050, 0.080), "outside", "high", "c"),
        ((0.031, 0.050, 0.0705), "too_close", "high", "c"),
        # both ends outside: the one that is nearer its limit speaks first
        ((0.025, 0.050, 0.090), "outside", "low", "a"),
        ((0.010, 0.050, 0.073), "outside", "high", "c"),
        # proven outside goes before too close
        ((0.0305, 0.050, 0.080), "outside", "high", "c"),
    ],
)
def test_the_smallest_and_the_largest_each_against_its_own_limit(figures, verdict, side, decides):
    """0.030 to 0.070: the worse end decides, and its reading is the one that counts."""
    found, counts = judged(
        ends(), limit(lo="0.030", hi="0.070"), **dict(zip("abc", figures, strict=True))
    )
    assert (found.verdict, found.side) == (verdict, side)
    assert counts == {decides: 1.0}


def test_a_limit_with_one_side_looks_at_one_end():
    """At least 0.030: the smallest; at most 0.070: the largest, whatever the other end does."""
    low, low_counts = judged(ends(), limit(lo="0.030"), a=0.02, b=0.05, c=0.09)
    high, high_counts = judged(ends(), limit(hi="0.070"), a=0.02, b=0.05, c=0.06)
    assert (low.verdict, low_counts) == ("outside", {"a": 1.0})
    assert (high.verdict, high_counts) == ("inside", {"c": 1.0})


def test_what_all_have_in_common_goes_off_at_both_ends():
    """Less the plate of 1.000: its error counts once at the end that decides."""
    found, counts = judged(
        ends(less=("plate",)), limit(lo="0.030", hi="0.070"), a=1.04, b=1.05, c=1.055, plate=1.0
    )
    assert (found.verdict, counts) == ("inside", {"a": 1.0, "plate": -1.0})
    assert found.value == pytest.approx(0.04)
    both = combine([(1, spread(1.04)), (-1, spread(1.0))])[2]
    assert abs((found.U or 0) - both) < 1e-12


def test_one_leaf_alone_is_a_lower_end():
    """By itself it can prove that a gap is too large, never that it is small enough; among others
    it proves nothing.
    """
    spec = ResultSpec(id="r", name="R", limit="l", reading="a")
    alone = {"a": spread(0.08, bound=True)}
    asked = limit(lo="0.030", hi="0.070")
    over = judged_by_all(spec, {"a": 0.08}, alone, [(1.0, alone["a"])], 0.08, asked, (), 3)
    assert (over.verdict, over.value_text) == ("outside", "0.080 or more")
    inside = {"a": spread(0.05, bound=True)}
    unsure = judged_by_all(spec, {"a": 0.05}, inside, [(1.0, inside["a"])], 0.05, asked, (), 3)
    assert unsure.verdict == "too_close"
    two = {"a": spread(0.08), "b": spread(0.03, bound=True)}
    parts = [(1.0, two["a"]), (-1.0, two["b"])]
    mixed = judged_by_all(spec, {"a": 0.08, "b": 0.03}, two, parts, 0.05, asked, (), 3)
    assert (mixed.verdict, mixed.needs) == ("too_close", None)
    assert mixed.words == "one leaf alone is the lower end of a gap"


def test_sources_are_laid_side_by_side_from_the_second_on():
    """One source says nothing beside itself; of two each judges, and one of them is in force."""
    book = SourceAnswer(source="book", page="12", lo="0.030", hi="0.070")
    friend = SourceAnswer(source="friend", lo="0.030", hi="0.060")
    one = limit(lo="0.030", hi="0.070", answers=(book,))
    assert by_source(one, 0.065, 0.001) == ()
    both = by_source(one.model_copy(update={"answers": (book, friend)}), 0.065, 0.001)
    assert [(s.source, s.asks, s.verdict, s.in_force) for s in both] == [
        ("book, p. 12", "0.030 to 0.070 mm", "inside", True),
        ("friend", "0.030 to 0.060 mm", "outside", False),
    ]


@pytest.mark.parametrize(
    ("name", "readings", "value", "refused"),
    [
        ("clearance_1", 2, 0.0, True),
        ("clearance_1", 2, -0.01, True),
        ("clearance_1", 2, 0.0001, False),
        ("clearance_1", 3, -0.01, False),
        ("press_fit", 2, -0.01, False),
    ],
)
def test_a_clearance_is_above_nothing(name, readings, value, refused):
    """Of two readings; a press fit has less than nothing on purpose."""
    asked = limit(hi="0.070").model_copy(update={"id": name})
    if not refused:
        check_clearance(asked, readings, value)
        return
    with pytest.raises(Refused) as refusal:
        check_clearance(asked, readings, value)
    assert refusal.value.reason_code == "negative_clearance"


def test_only_a_length_is_a_clearance():
    """A turning torque named so is none."""
    torque = Limit(id="clearance", name="T", dimension="torque", unit="N·m", hi="2", source="book")
    check_clearance(torque, 2, -1.0)
