"""Allowed ranges with their source, and the verdict on a figure with its uncertainty."""

import math
from collections.abc import Callable
from fractions import Fraction

from pydantic import BaseModel, ConfigDict, Field, ValidationInfo, field_validator

from hollet.core.errors import Refused
from hollet.core.quantities.plain import plain_canonical, plain_figure
from hollet.core.quantities.quantity import decimal_text, minus, round9
from hollet.core.quantities.units import Unit, find_unit, from_canonical
from hollet.core.safety import Safety
from hollet.core.verdicts import decision

__all__ = [
    "Judgement",
    "Limit",
    "SourceAnswer",
    "judge",
    "judge_lower_end",
    "places",
    "rounded_up",
    "shown",
]

VERDICTS = {"conforming": "inside", "not_conforming": "outside", "undecided": "too_close"}


class SourceAnswer(BaseModel):
    """What one source says of a limit, in the limit's unit."""

    model_config = ConfigDict(
        frozen=True, extra="forbid", json_schema_serialization_defaults_required=True
    )
    source: str
    page: str | None = None
    lo: str | None = None
    hi: str | None = None
    target: str | None = None


class Limit(BaseModel):
    """An allowed range, one- or two-sided; figures are decimal text in `unit`. Without a source it
    is assumed.

    `answers` keeps what several sources say, side by side; `settled` once somebody chose; `own`
    names who decided it himself.
    """

    model_config = ConfigDict(
        frozen=True, extra="forbid", json_schema_serialization_defaults_required=True
    )
    id: str
    name: str
    dimension: str
    unit: str
    lo: str | None = None
    hi: str | None = None
    target: str | None = None
    step: str | None = None
    condition: str | None = None
    source: str | None = None
    page: str | None = None
    own: str | None = None
    safety: Safety | None = None
    answers: tuple[SourceAnswer, ...] = ()
    settled: bool = False
    version: int = 1

    @field_validator("lo", "hi", "target", "step")
    @classmethod
    def _in_its_unit(cls, text: str | None, info: ValidationInfo) -> str | None:
        if text is None or not {"dimension", "unit"} <= info.data.keys():
            return text
        try:
            return plain_figure(text, info.data["dimension"], info.data["unit"])
        except Refused as refusal:
            raise ValueError(refusal.message) from refusal

    def with_figures(self, lo: str | None, hi: str | None, target: str | None) -> "Limit":
        """The limit with these figures, turned into its unit where they were typed in another.

        Raises
        ------
        Refused
            `limits_reversed`, and all that `plain_figure` refuses, with the field.
        """
        typed, plain = {"lo": lo, "hi": hi, "target": target}, {}
        for field, text in typed.items():
            try:
                plain[field] = text and plain_figure(text, self.dimension, self.unit)
            except Refused as refusal:
                raise Refused(refusal.reason_code, refusal.message, field=field) from refusal
        found = self.model_copy(update=plain)
        least, most = found.figure("lo"), found.figure("hi")
        if least is not None and most is not None and least > most:
            raise Refused(
                "limits_reversed", "the lower limit lies above the upper limit", field="lo"
            )
        return found

    @property
    def conflict(self) -> bool:
        """Whether sources disagree and nobody has chosen yet."""
        return not self.settled and len({(a.lo, a.hi, a.target) for a in self.answers}) > 1

    def as_said(self, answer: SourceAnswer) -> "Limit":
        """The limit as one of its sources gives it."""
        return self.model_copy(update={"lo": answer.lo, "hi": answer.hi, "target": answer.target})

    def in_force(self, answer: SourceAnswer) -> bool:
        """Whether this source's figures are the ones that hold."""
        return (answer.lo, answer.hi, answer.target) == (self.lo, self.hi, self.target)

    def common(self) -> "Limit | None":
        """The limit with the part on which all its sources agree, or None where they leave nothing
        in common.
        """
        said = [self.as_said(a) for a in self.answers]
        low = max(
            (t for t in said if t.lo is not None), key=lambda t: t.figure("lo") or 0.0, default=None
        )
        high = min(
            (t for t in said if t.hi is not None), key=lambda t: t.figure("hi") or 0.0, default=None
        )
        if low is None and high is None:
            return None
        found = self.model_copy(
            update={"lo": low.lo if low else None, "hi": high.hi if high else None, "target": None}
        )
        lo, hi = found.figure("lo"), found.figure("hi")
        return None if lo is not None and hi is not None and lo > hi else found

    @property
    def given(self) -> bool:
        """Whether there is anything to judge by."""
        return self.lo is not None or self.hi is not None

    @property
    def size(self) -> str | None:
        """The size of the vehicle that it gives, such as `84 mm`: its target, else the middle of
        its range.
        """
        text = self.target
        if text is None and self.lo is not None and self.hi is not None:
            text = decimal_text(round9((float(self.lo) + float(self.hi)) / 2))
        return None if text is None else f"{text} {self.unit}"

    def figure(self, field: str) -> float | None:
        """`lo`, `hi`, `target` or `step` in the canonical unit."""
        text = getattr(self, field)
        return None if text is None else plain_canonical(str(text), self.dimension, self.unit)

    def words(self) -> str:
        """The range in words, such as `0.030 to 0.070 mm`."""
        if self.lo is not None and self.hi is not None:
            return f"{self.lo} to {self.hi} {self.unit}"
        if self.hi is not None:
            return f"at most {self.hi} {self.unit}"
        return f"at least {self.lo} {self.unit}" if self.lo is not None else "not given"


class Judgement(BaseModel):
    """A verdict with its evidence; figures are canonical floats, texts are in the unit of the
    limit.
    """

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)
    verdict: str = Field(pattern="^(inside|outside|too_close|not_read|no_limit)$")
    side: str | None = None
    value: float | None = None
    U: float | None = None
    lo: float | None = None
    hi: float | None = None
    target: float | None = None
    unit: str = ""
    assumed: bool = False
    value_text: str = ""
    U_text: str = ""
    lo_text: str = ""
    hi_text: str = ""
    target_text: str = ""
    words: str = ""
    margins: str = ""
    needs: str | None = None
    working: tuple[str, ...] = ()


def places(limit: Limit) -> int:
    """Decimals to show: those of the step, else the most that a limit figure was written with."""
    texts = [limit.step] if limit.step else [t for t in (limit.lo, limit.hi, limit.target) if t]
    return max((len(t.partition(".")[2]) for t in texts), default=2)


def shown(value: float, limit: Limit, digits: int = 0) -> str:
    """A canonical value in the unit of the limit, as finely as it was read (`digits`), never
    coarser than the limit, never rounded onto it.
    """
    unit = find_unit(limit.unit)
    assert unit is not None
    figure = (
        value
        if unit.factor == 1 and not unit.offset
        else float(from_canonical(Fraction(value), unit))
    )
    least = max(places(limit), digits)
    edges = [float(text) for text in (limit.lo, limit.hi) if text is not None]
    for count in range(least, least + 4):
        text = decimal_text(figure, count)
        if all(
            (float(text) > edge) == (round9(figure) > edge)
            and (float(text) < edge) == (round9(figure) < edge)
            for edge in edges
        ):
            return minus(text)
    return minus(decimal_text(figure, least + 4))


def _down(value: float, limit: Limit, digits: int) -> str:
    """What is left of a difference, canonical, rounded down in the unit of the limit: never more
    than there is.
    """
    unit = find_unit(limit.unit)
    assert unit is not None
    count = max(places(limit), digits)
    return decimal_text(
        math.floor(round(value / float(unit.factor) * 10**count, 6)) / 10**count, count
    )


def _finest(limit: Limit) -> str:
    """A step of as many places as the limit's own figures have."""
    count = places(limit)
    return "1" if count == 0 else "0." + "1".rjust(count, "0")


def rounded_up(value: float, digits: int = 2) -> str:
    """An uncertainty rounded up to two significant digits."""
    return _significant(value, digits, math.ceil)


def rounded_down(value: float, digits: int = 2) -> str:
    """What a tool would need, rounded down."""
    return _significant(value, digits, math.floor)


def _significant(value: float, digits: int, direction: Callable[[float], int]) -> str:
    if value <= 0 or not math.isfinite(value):
        return "0"
    decimals = max(0, digits - 1 - math.floor(math.log10(value)))
    scaled = round(value * 10**decimals, 6)
    return decimal_text(direction(scaled) / 10**decimals, decimals)


def judge(
    value: float | None,
    big_u: float | None,
    limit: Limit,
    working: tuple[str, ...] = (),
    digits: int = 0,
) -> Judgement:
    """The verdict on `value` ± `big_u` (canonical unit) by ISO 14253-1, in words a mechanic reads.

    A value without a known uncertainty is never judged: it stays `too_close`. `digits` is how
    finely it was read, in the unit of the limit;
    what is *to spare* is what is left after the uncertainty.
    """
    lo, hi, target = limit.figure("lo"), limit.figure("hi"), limit.figure("target")
    unit = find_unit(limit.unit)
    assert unit is not None
    scale = float(unit.factor)
    base = {
        "value": value,
        "U": big_u,
        "lo": lo,
        "hi": hi,
        "target": target,
        "unit": limit.unit,
        "assumed": limit.source is None,
        "value_text": shown(value, limit, digits) if value is not None else "",
        "working": working,
        "U_text": rounded_up(big_u / scale) if big_u is not None else "",
        "lo_text": limit.lo or "",
        "hi_text": limit.hi or "",
        "target_text": limit.target or "",
    }
    if value is None:
        return Judgement(verdict="not_read", words="not read", **base)
    if not limit.given:
        return Judgement(verdict="no_limit", words="limit not given", **base)
    base["margins"] = _margins(value, limit, lo, hi, target, digits)
    nearest_hi = hi is not None and (lo is None or abs(value - hi) <= abs(value - lo))
    base["side"] = "high" if nearest_hi else "low"
    near = hi if nearest_hi else lo
    assert near is not None
    distance = abs(value - near)
    if big_u is None:
        words = "too close to call: the tool's spread is not known"
        return Judgement(verdict="too_close", words=words, **base)
    verdict = VERDICTS[decision(value, big_u, lo, hi)]
    if verdict == "outside":
        words = f"outside, {_apart(distance, limit, unit, max(digits, places(limit)))} "
        return Judgement(verdict=verdict, words=words + ("over" if nearest_hi else "under"), **base)
    if verdict == "too_close":
        zone = (
            "no tool can decide: it lies on the limit"
            if round9(distance) == 0
            else f"±{rounded_down(distance / scale)} {limit.unit}"
        )
        words = "too close to call with this tool"
        return Judgement(verdict=verdict, words=words, needs=zone, **base)
    edge = ""
    if lo is not None and hi is not None and distance < 0.2 * (hi - lo):
        edge = f", near the {'upper' if nearest_hi else 'lower'} edge"
    words = f"inside{edge}, {_spare(distance - big_u, limit, unit, digits)}"
    return Judgement(verdict=verdict, words=words, **base)


def _apart(distance: float, limit: Limit, unit: Unit, digits: int) -> str:
    """How far apart two figures are, as finely as either was written, and never nothing where there
    is something; a temperature's difference has no zero of its own.
    """
    if unit.offset == 0:
        bare = limit.model_copy(update={"lo": None, "hi": None})
        text = shown(distance, bare, digits)
        if float(text) != 0:
            return text
    return rounded_down(distance / float(unit.factor))


def _spare(left: float, limit: Limit, unit: Unit, digits: int) -> str:
    """What is left to the limit after the uncertainty."""
    text = (
        _down(left, limit, digits) if unit.offset == 0 else rounded_down(left / float(unit.factor))
    )
    return f"{text} to spare" if float(text) > 0 else "nothing to spare"


def judge_lower_end(
    value: float, big_u: float, limit: Limit, working: tuple[str, ...] = (), digits: int = 0
) -> Judgement:
    """The verdict where only the lower end is known (one feeler leaf that goes in): proven against
    a lower limit, never against an upper one.
    """
    plain = judge(value, big_u, limit, working, digits)
    if not limit.given:
        return plain
    lo, hi = limit.figure("lo"), limit.figure("hi")
    alone = "at least that: one leaf alone is the lower end of a gap, say also which does not go in"
    text = f"{plain.value_text} or more"
    if hi is not None and round9(value - big_u) > round9(hi):
        return plain.model_copy(update={"value_text": text})
    if hi is None and lo is not None and round9(value - big_u) >= round9(lo):
        return plain.model_copy(update={"value_text": text})
    return plain.model_copy(
        update={"verdict": "too_close", "words": alone, "needs": None, "value_text": text}
    )


def _margins(
    value: float,
    limit: Limit,
    lo: float | None,
    hi: float | None,
    target: float | None,
    digits: int,
) -> str:
    """How far a value lies from both limits and from the target, in words."""
    unit = find_unit(limit.unit)
    assert unit is not None
    if unit.offset:  # a difference of temperatures has no zero of its own
        return ""

    stepped = limit.model_copy(update={"step": limit.step or _finest(limit)})

    def far(figure: float | None, name: str) -> str | None:
        if figure is None:
            return None
        apart = round9(value - figure)
        if apart == 0:
            return f"on the {name}"
        much = _apart(abs(apart), stepped, unit, digits)
        return f"{much} {'over' if apart > 0 else 'under'} the {name}"

    said = [far(lo, "lower limit"), far(hi, "upper limit"), far(target, "target")]
    return ", ".join(words for words in said if words)
