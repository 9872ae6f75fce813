"""The shop's own tools, and what a reading taken with one is worth.

Model: reading = typed - known offset (its own, and that of the tool that set it) + zero error +
permissible error + resolution + repeatability. All but the zero
error are independent from reading to reading. The zero error belongs to one setting of one tool,
named by a zero
chain such as `M3#2`; a gauge set with a micrometer carries the chain of that micrometer, and its
setting is shared by all its readings
until it is set again. In a difference equal chains cancel (JCGM 100, F.1.2.4); permissible error
and repeatability never do.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

from hollet.core.errors import Refused
from hollet.core.quantities.parse import parse
from hollet.core.quantities.quantity import round9
from hollet.core.verdicts import coverage_factor, rectangular, sample_deviation

__all__ = [
    "Doubt",
    "Hands",
    "Instrument",
    "Share",
    "Spread",
    "combine",
    "leaf_share",
    "may_give",
    "reading_share",
    "single_reading_U",
    "zero_chain",
]

ToolKind = Literal[
    "micrometer",
    "bore gauge",
    "caliper",
    "depth gauge",
    "dial indicator",
    "feeler",
    "gauge strip",
    "rule",
    "straight edge",
    "jug",
    "pressure gauge",
    "thermometer",
    "timing light",
    "rev counter",
    "voltmeter",
    "ammeter",
    "ohmmeter",
    "angle gauge",
    "leak-down tester",
    "burette",
    "scale",
    "click wrench",
    "indicating wrench",
]


USUAL_TRAVEL_MM = 0.8
"""Travel of a bore gauge about its setting, where the tool does not say: usual for gauges with
changeable anvils.
"""
GIVES: dict[str, tuple[str, ...]] = {
    "micrometer": ("micrometer", "caliper"),
    "bore gauge": ("bore gauge", "caliper"),
    "depth gauge": ("depth gauge", "caliper"),
    "rule": ("rule", "caliper"),
}
"""Which kinds of tool may give a reading that asks for a kind; all others give only their own."""


def may_give(asked: str, kind: str) -> bool:
    """Whether a tool of this kind may give a reading that asks for `asked`."""
    return kind in GIVES.get(asked, (asked,))


class Doubt(BaseModel):
    """A stretch of time (UTC, ISO 8601) in which a tool may have been wrong: from its last good
    check to the one that it failed.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")
    since: str
    until: str
    words: str


class Hands(BaseModel):
    """How far one person's readings of one thing scatter with a tool: `s` in its unit, from `n`
    readings of `thing`.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")
    who: str
    s: str
    n: int
    thing: str


class Instrument(BaseModel):
    """One tool of the shop; figures are decimal text in `unit`, half-widths are half-widths.
    `device`: by which id it speaks for itself.
    """

    model_config = ConfigDict(
        frozen=True, extra="forbid", json_schema_serialization_defaults_required=True
    )
    id: str
    code: str
    name: str
    kind: ToolKind
    dimension: str
    unit: str
    lo: str | None = None
    hi: str | None = None
    resolution: str
    mpe: str | None = None
    mpe_percent: str | None = None
    s: str | None = None
    offset: str = "0"
    zero_error: str = "0"
    zero_no: int = 1
    set_with: "Instrument | None" = None
    setting: str | None = None
    setting_s: str | None = None
    travel: str | None = None
    grip_mm: str | None = None
    checked: str | None = None
    good_at: str | None = None
    doubts: tuple[Doubt, ...] = ()
    hands: tuple[Hands, ...] = ()
    source: str | None = None
    device: Annotated[str, Field(max_length=40)] | None = None
    version: int = 1
    retired: bool = False

    def figure(self, field: str) -> float:
        """A figure of this tool in the canonical unit (as a difference), 0 when it is not given."""
        text = getattr(self, field)
        return 0.0 if text is None else _difference(str(text), self.dimension, self.unit)

    def known_offset(self) -> float:
        """What is taken off a reading, canonical unit: by how much the tool reads high, and the
        tool with which its setting was made.
        """
        return self.figure("offset") + (
            self.set_with.figure("offset") if self.set_with is not None else 0.0
        )

    def half_travel(self) -> float | None:
        """How far a set gauge may deviate from its setting, canonical unit; the usual travel of
        bore gauges where it says nothing.
        """
        if self.travel is not None:
            return self.figure("travel")
        return USUAL_TRAVEL_MM if self.setting is not None and self.dimension == "length" else None

    def reaches(self, value: float) -> bool:
        """Whether an absolute value (canonical) lies in its range, and in its travel where it is
        set.
        """
        if not self.covers(value):
            return False
        travel = self.half_travel()
        if travel is None or self.setting is None:
            return True
        at = parse(self.setting, self.dimension, self.unit).nominal
        return at is None or round9(abs(value - float(at))) <= round9(travel)

    def permissible(self, value: float) -> float:
        """Half-width of the permissible error at `value`, canonical unit."""
        percent = float(self.mpe_percent or 0) / 100 * abs(value)
        return max(self.figure("mpe"), percent)

    def in_hands(self, who: str) -> "Instrument":
        """This tool as `who` reads it: with the scatter of their own trial, or the usual one where
        they made none.
        """
        own = next((hands.s for hands in self.hands if hands.who == who), None)
        return self if own is None else self.model_copy(update={"s": own})

    def covers(self, value: float) -> bool:
        """Whether a canonical value lies in the range of this tool."""
        low = parse(self.lo, self.dimension, self.unit).nominal if self.lo else None
        high = parse(self.hi, self.dimension, self.unit).nominal if self.hi else None
        return (low is None or value >= float(low)) and (high is None or value <= float(high))


@lru_cache(maxsize=4096)
def _difference(text: str, dimension: str, unit: str) -> float:
    parsed, zero = parse(text, dimension, unit).nominal, parse("0", dimension, unit).nominal
    assert parsed is not None
    assert zero is not None
    return float(parsed - zero)


@dataclass(frozen=True, slots=True)
class Share:
    """One contribution: standard uncertainty and degrees of freedom."""

    name: str
    u: float
    nu: float = math.inf


@dataclass(frozen=True, slots=True)
class Spread:
    """What is known of one reading: its value, its own shares, the zero error with its chain, and
    what its gauge was set with.

    `setting` belongs to one setting of one gauge: readings that name the same `setting_chain` share
    it. `bound`: the value is only the lower
    end, one feeler leaf that goes in.
    """

    value: float
    own: tuple[Share, ...]
    zero: Share
    chain: str
    setting: tuple[Share, ...] = ()
    setting_chain: str = ""
    bound: bool = False


def zero_chain(tool: Instrument) -> str:
    """The setting whose zero error a reading carries: `M3#2` for micrometer M3 after its second
    zeroing.
    """
    master = tool.set_with or tool
    return f"{master.id}#{master.zero_no}"


def reading_share(tool: Instrument, typed: Sequence[float]) -> Spread:
    """The corrected mean of repeats (canonical unit) and its shares.

    Repeatability: the tool's pooled s with k = 2 while the sample deviation is at most twice it; a
    larger sample
    deviation is used with its own n - 1 degrees of freedom.

    Raises
    ------
    Refused
        `repeatability_unknown` when there is one reading and the tool has no usual repeatability.
    """
    n = len(typed)
    mean = math.fsum(typed) / n
    value = mean - tool.known_offset()
    pooled = tool.figure("s") if tool.s is not None else None
    sample = sample_deviation(list(typed)) if n >= 2 else None
    if pooled is not None and (sample is None or sample <= 2 * pooled):
        spread = Share("repeatability", pooled / math.sqrt(n))
    elif sample is not None:
        spread = Share("repeatability", sample / math.sqrt(n), n - 1)
    else:
        raise Refused(
            "repeatability_unknown",
            f"{tool.code} has no usual repeatability: read three times, or enter it under Tools",
            field="readings",
        )
    own = [
        Share("permissible error", rectangular(tool.permissible(value))),
        Share("resolution", rectangular(tool.figure("resolution") / 2)),
        spread,
    ]
    master = tool.set_with
    setting: tuple[Share, ...] = ()
    if master is not None:
        setting = (
            Share(f"setting on {master.code}", tool.figure("setting_s")),
            Share(f"{master.code} permissible error", rectangular(master.permissible(value))),
            Share(f"{master.code} resolution", rectangular(master.figure("resolution") / 2)),
        )
    zero = Share("zero error", rectangular((master or tool).figure("zero_error")))
    return Spread(value, tuple(own), zero, zero_chain(tool), setting, f"{tool.id}#{tool.zero_no}")


def leaf_share(tool: Instrument, goes: float, does_not: float | None) -> Spread:
    """A gap by feeler leaves (canonical unit): between the thickest that goes in and the thinnest
    that does not; one alone is its lower end.

    Raises
    ------
    Refused
        `feeler_order` when the leaf that does not go in is not the thicker one.
    """
    if does_not is not None and does_not <= goes:
        raise Refused(
            "feeler_order",
            "the leaf that goes in must be thinner than the one that does not",
            field="typed",
        )
    own = [Share("leaf's permissible error", rectangular(tool.permissible(goes)))]
    own += (
        [Share("repeatability", tool.figure("s"))] if tool.hands else []
    )  # of hands that were tried with it
    zero = Share("zero error", 0.0)
    if does_not is None:
        return Spread(goes, tuple(own), zero, zero_chain(tool), bound=True)
    return Spread(
        (goes + does_not) / 2,
        (*own, Share("between the leaves", rectangular((does_not - goes) / 2))),
        zero,
        zero_chain(tool),
    )


def combine(parts: Sequence[tuple[float, Spread]]) -> tuple[float, float, float]:
    """u_c, k and U of readings with their sensitivities; equal zero chains are added before they
    are squared.

    Parameters
    ----------
    parts : sequence of (sensitivity, Spread)
        One reading: [(1, a)]. Bore minus piston: [(1, bore), (-1, piston)].
    """
    shares = [(abs(c) * share.u, share.nu) for c, spread in parts for share in spread.own]
    chains: dict[tuple[str, str], float] = {}
    for c, spread in parts:
        named = [
            ((spread.chain, "zero error"), spread.zero.u),
            *(((spread.setting_chain, share.name), share.u) for share in spread.setting),
        ]
        for key, u in named:
            chains[key] = chains.get(key, 0.0) + c * u
    u_c = math.sqrt(math.fsum(u**2 for u, _ in shares) + math.fsum(z**2 for z in chains.values()))
    rest = math.fsum(u**4 / nu for u, nu in shares if not math.isinf(nu))
    k = coverage_factor(u_c**4 / rest if rest else math.inf)
    return u_c, k, k * u_c


def single_reading_U(tool: Instrument, value: float) -> float:  # noqa: N802
    """Expanded uncertainty of one reading near `value` with this tool, infinite when its
    repeatability is unknown.
    """
    if tool.s is None:
        return math.inf
    return combine([(1, reading_share(tool, [value + tool.known_offset()]))])[2]
