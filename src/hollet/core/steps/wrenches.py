"""What to set on a wrench for a stage of a joint, and what the bolt gets from it."""

import math

from pydantic import BaseModel, ConfigDict, computed_field

from hollet.core.entries import Adapter
from hollet.core.errors import Refused
from hollet.core.instruments import Instrument
from hollet.core.limits import Judgement, Limit, judge
from hollet.core.procedure.joints import READ_OFF, Feel, Joint, stage_range
from hollet.core.quantities.parse import parse
from hollet.core.quantities.quantity import decimal_text, round9
from hollet.core.tightening.adapters import in_usable_range, lever_ratio

__all__ = [
    "ASSUMED_TOLERANCE",
    "OFFERS",
    "Setting",
    "can_give",
    "felt_state",
    "judge_click",
    "lever_of",
    "nearest_mark",
    "setting_for",
    "snug_of",
    "stage_ask",
    "stage_figure",
    "tolerance_of",
    "torque_limit",
    "wrench_holds",
]

ASSUMED_TOLERANCE = 10.0  # percent, where neither sheet nor source gives one; always marked assumed


class Setting(BaseModel):
    """The figure for the hand: what to set, what the bolt gets, and how that lies in
    the tolerance.
    """

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)
    kind: str
    figure: str
    unit: str
    set_to: float | None = None
    gets: float | None = None
    judgement: Judgement | None = None
    working: tuple[str, ...] = ()
    refusal: str | None = None
    note: str | None = None

    @computed_field
    @property
    def turns(self) -> bool:
        """Whether the stage asks for an angle, not for a torque."""
        return self.kind == "angle"

    @computed_field
    @property
    def reads_off(self) -> bool:
        """Whether its figure is read off the bolt: its length, or the torque it keeps turning
        at.
        """
        return self.kind in READ_OFF

    @computed_field
    @property
    def feels(self) -> bool:
        """Whether it asks for a state that is felt or seen, not for a figure."""
        return self.kind == "feel"


def stage_ask(joint: Joint, number: int) -> tuple[str, float | None, str]:
    """Kind (`torque`, `angle`, `stretch`, `turning` or `feel`), canonical figure and text of a
    stage, from 1; the middle of a range, no figure where it is not given yet, or asks for none.
    """
    stage = joint.stage[number - 1]
    text = stage.asked()
    if felt_state(joint, number) is not None:
        return "feel", None, text if stage.given() else joint.final
    kind, _ = stage.figure()
    if not stage.given():
        return kind, None, text
    return kind, float(stage_range(stage)[1]), text


def felt_state(joint: Joint, number: int) -> Feel | None:
    """In which state a stage leaves a bolt that asks for no figure: what it says; or, of a joint
    that is final without a figure, that.
    """
    stage = joint.stage[number - 1]
    if stage.given() or joint.final == "torqued":
        return stage.state()
    return joint.final


def stage_figure(kind: str, asked: float | None, text: str) -> str:
    """What a stage asks, as short as it can be said."""
    if kind in READ_OFF:
        return text.removeprefix(READ_OFF[kind]).strip()
    if asked is not None:
        return decimal_text(round(asked, 1))
    return text if kind == "feel" else "–"


SNUG_SHARE, FIRST_SHARE = 0.95, 0.3
"""Of the torque that the bolt has from the stage before, and of the first one (rules of thumb)."""


def snug_of(joint: Joint, number: int) -> tuple[float, float]:
    """From which torque on a pull of this stage is judged, and the torque that it is held against,
    both in N·m: an angle counts from where the bolt begins to move at what it had.
    """
    asked = [stage_ask(joint, k) for k in range(1, number + 1)]
    torques = [figure for kind, figure, _ in asked if kind == "torque" and figure is not None]
    kind, own, _ = asked[-1]
    before = torques[-2] if kind == "torque" and len(torques) > 1 else None
    if kind == "torque":
        held = own or 0.0
        return (before * SNUG_SHARE if before is not None else held * FIRST_SHARE), held
    held = torques[-1] if torques else 0.0
    return held * SNUG_SHARE, held


READS: dict[str, tuple[str, ...]] = {
    "stretch": ("micrometer", "caliper", "dial indicator"),
    "turning": ("indicating wrench",),
}
"""Which tools can read what a stage asks that is read off the bolt."""
OFFERS = {
    "stretch": "a micrometer over the whole bolt, or a dial set to zero on it while it was free",
    "turning": "a wrench whose scale is read while it turns",
}


def can_give(kind: str, tool: Instrument) -> bool:
    """Whether a tool can be taken for a stage of this kind."""
    return tool.kind in READS[kind] if kind in READS else "wrench" in tool.kind


def tolerance_of(joint: Joint, number: int = 0) -> tuple[float, bool]:
    """Tolerance in percent, and whether it is assumed; of a stage that asks for a range it is half
    of that range.
    """
    if number and joint.stage[number - 1].figure()[0] in READ_OFF:
        lo, middle, hi = stage_range(joint.stage[number - 1])
        if hi > lo:
            return float((hi - middle) / middle * 100), joint.source is None
    if joint.tolerance is None:
        return ASSUMED_TOLERANCE, True
    parsed = parse(joint.tolerance, "percent", "%")
    assert parsed.nominal is not None
    return float(parsed.nominal), joint.source is None


def torque_limit(joint: Joint, asked: float, unit: str) -> Limit:
    """The band round a torque."""
    percent, assumed = tolerance_of(joint)
    spread = asked * percent / 100
    digits = 1 if unit == "N·m" else 2
    return Limit(
        id="torque",
        name=joint.name,
        dimension="torque",
        unit=unit,
        lo=decimal_text(round9(asked - spread)),
        hi=decimal_text(round9(asked + spread)),
        target=decimal_text(round9(asked)),
        step="0." + "1".rjust(digits, "0"),
        source=None if assumed else joint.source,
    )


def nearest_mark(value: float, graduation: float) -> float:
    """The nearest mark of a wrench; halves go up."""
    return round9(math.floor(value / graduation + 0.5) * graduation) if graduation else value


def setting_for(
    joint: Joint, stage: int, wrench: Instrument | None, adapter: Adapter | None
) -> Setting:
    """What to set for a stage: T L/(L + E cos theta), the nearest mark, and what the bolt gets
    worked back from it.
    """
    kind, asked, text = stage_ask(joint, stage)
    if kind == "feel":
        return Setting(kind=kind, figure=text, unit="", note="no figure: by hand and eye")
    if asked is None:
        return _refused(
            kind,
            "–",
            f"the torque of stage {stage} is not given yet: find it and write it into the limit "
            "book, with its source",
        )
    figure = decimal_text(asked)
    if kind in READ_OFF:
        return _read_off(kind, text, wrench)
    if kind == "angle":
        note = f"turn {text} on top of the torque"
        return Setting(kind=kind, figure=figure, unit="°", gets=asked, note=note)
    if wrench is None or not can_give(kind, wrench):
        return _refused(kind, figure, "choose a wrench: its setting follows from it")
    try:
        ratio, lines = _lever(wrench, adapter, asked)
        mark = nearest_mark(asked * ratio, wrench.figure("resolution"))
        _in_range(wrench, mark)
    except Refused as refusal:
        return _refused(kind, figure, refusal.message)
    gets = mark / ratio
    working = (
        *lines,
        f"nearest mark {decimal_text(mark)}",
        f"bolt gets {decimal_text(mark)} ÷ {ratio:.4f} = {decimal_text(gets, 1)}",
    )
    limit = torque_limit(joint, asked, "N·m")
    return Setting(
        kind=kind,
        figure=decimal_text(mark),
        unit="N·m",
        set_to=mark,
        gets=gets,
        judgement=judge_click(gets, wrench.permissible(gets), limit, working),
        working=working,
    )


def _read_off(kind: str, text: str, tool: Instrument | None) -> Setting:
    """What is read off the bolt itself, with a tool that can."""
    figure, _, unit = text.removeprefix(READ_OFF[kind]).strip().rpartition(" ")
    note = f"read with {OFFERS[kind]}"
    fits = tool is not None and can_give(kind, tool)
    return Setting(
        kind=kind,
        figure=figure or unit,
        unit=unit if figure else "",
        note=note if fits else None,
        refusal=None if fits else f"choose what it is read with: {OFFERS[kind]}",
    )


def _refused(kind: str, figure: str, why: str) -> Setting:
    return Setting(kind=kind, figure=figure, unit="N·m", refusal=why)


def lever_of(wrench: Instrument, adapter: Adapter | None) -> float:
    """What the wrench shows for each newton metre at the bolt.

    Raises
    ------
    Refused
        `length_not_positive`: an adapter on a wrench whose length is not known.
    """
    return _lever(wrench, adapter, 1.0)[0]


def _lever(
    wrench: Instrument, adapter: Adapter | None, asked: float
) -> tuple[float, tuple[str, ...]]:
    """What to set for each newton metre asked, and how that was worked out."""
    length = adapter.length.figure("length") if adapter is not None else 0.0
    if adapter is None or not length:
        return 1.0, ()
    angle = adapter.angle.figure("angle")
    grip = float(wrench.grip_mm or 0)
    if not grip:
        raise Refused(
            "length_not_positive",
            f"enter the length of {wrench.code}, drive to grip, under Tools",
            field="grip_mm",
        )
    ratio = lever_ratio(grip, length, angle)
    arm = decimal_text(round9(grip / ratio), 0) if angle == 0 else decimal_text(grip / ratio, 1)
    return ratio, (f"{asked:g} × {grip:g} ÷ {arm} = {decimal_text(asked * ratio, 1)}",)


def _in_range(wrench: Instrument, mark: float) -> None:
    full = float(parse(wrench.hi or "0", "torque", wrench.unit).nominal or 0)
    if not in_usable_range(mark, full):
        raise Refused(
            "no_wrench_in_range",
            f"{decimal_text(mark)} N·m lies outside 20 to 100 % of {wrench.code} "
            f"({decimal_text(full * 0.2)} to {decimal_text(full)} N·m): take another wrench or "
            "turn the adapter. With this one the bolt can be logged snug or cinched, not torqued",
            field="wrench",
        )


def judge_click(gets: float, deviation: float, limit: Limit, working: tuple[str, ...]) -> Judgement:
    """A click is an act: what the bolt nominally gets against the tolerance; the wrench's deviation
    is the whisker.

    A wrench wider than the tolerance gives at best *too close*.
    """
    plain = judge(gets, 0.0, limit, working)
    verdict = "outside" if plain.verdict == "outside" else "inside"
    words = plain.words if verdict == plain.verdict else "inside, on the limit"
    lo, hi = limit.figure("lo"), limit.figure("hi")
    if (
        verdict == "inside"
        and lo is not None
        and hi is not None
        and round9(deviation) > round9((hi - lo) / 2)
    ):
        verdict, words = "too_close", "too close to call: the wrench is wider than the tolerance"
    return plain.model_copy(
        update={
            "verdict": verdict,
            "words": words,
            "U": deviation,
            "U_text": decimal_text(deviation, 1),
        }
    )


def wrench_holds(wrench: Instrument, percent: float) -> bool:
    """Whether the wrench's permissible deviation fits into the joint's tolerance."""
    return wrench.mpe_percent is None or float(wrench.mpe_percent) <= percent
