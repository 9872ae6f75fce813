"""Tightening in a build: which bolt is next, what each has, what waits to be put right, when the
joint is final.
"""

import math
from collections.abc import Sequence

from pydantic import BaseModel, ConfigDict

from hollet.core.book.entries import Adapter, Entry
from hollet.core.book.fold import BookState
from hollet.core.book.measure import in_doubt
from hollet.core.book.status import plan_of
from hollet.core.errors import Refused
from hollet.core.instruments import Instrument, reading_share, single_reading_U
from hollet.core.limits import Judgement, Limit, judge
from hollet.core.procedure.sheet import Joint, Sheet, TightenStep
from hollet.core.quantities.parse import parse
from hollet.core.quantities.quantity import Quantity, canonical, decimal_text, round9
from hollet.core.tightening.adapters import in_usable_range, lever_ratio
from hollet.core.tightening.patterns import circle_point, head_point

__all__ = [
    "ASSUMED_TOLERANCE",
    "OVER",
    "BoltFacts",
    "JointFacts",
    "Setting",
    "StageFacts",
    "doubted_bolts",
    "joint_facts",
    "setting_for",
    "stage_ask",
    "tolerance_of",
]

OVER = "Take it out, put a fresh one in its place, and begin again with it at stage 1"
"""What puts a bolt right that got too much, where the sheet does not say."""
ASSUMED_TOLERANCE = 10.0  # percent, where neither sheet nor source gives one; always marked assumed


class StageFacts(BaseModel):
    """One round: what is asked, how many bolts have it."""

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)
    number: int
    kind: str
    figure: str
    text: str
    done: int


class BoltFacts(BaseModel):
    """One fastener: tightness, stage reached, verdict of its latest act, what is set and due.

    `over`: it got more than was asked and is not put right yet; `todo` is the next act of putting
    it right (`out`, `fresh`, `again`, `more`),
    `more` what is still to be turned of an angle, in degrees.
    """

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)
    number: int
    place: str
    x: float
    y: float
    tightness: str = "as found"
    stage: int = 0
    stages: tuple[str, ...] = ()
    verdict: str = ""
    over: bool = False
    todo: str | None = None
    more: str | None = None
    gets: str = ""
    words: str = ""
    side: str | None = None
    locked: bool = False
    marked: bool = False
    passed_over: bool = False
    final: bool = False
    waits: bool = False
    recheck: bool = False
    entry: str | None = None


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


class JointFacts(BaseModel):
    """The joint as it stands; `ahead` are the bolts of the stage in hand that follow each other
    from here, the next one first.
    """

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)
    id: str
    name: str
    bolts: tuple[BoltFacts, ...]
    stages: tuple[StageFacts, ...]
    begun: bool
    final: bool
    next_bolt: int | None = None
    next_stage: int | None = None
    ahead: tuple[int, ...] = ()
    to_mark: bool = False
    waits: str | None = None
    condition: str | None = None
    final_words: str = ""
    last_bolt: int | None = None
    put_right: tuple[str, ...] = ()
    outside: tuple[int, ...] = ()
    progress: str = ""
    tolerance: float = ASSUMED_TOLERANCE
    tolerance_assumed: bool = True
    wrench: Instrument | None = None
    adapter: Adapter | None = None
    wrench_reason: str | None = None


def stage_ask(joint: Joint, number: int) -> tuple[str, float | None, str]:
    """Kind (`torque` or `angle`), canonical figure and text of a stage, from 1; no figure where it
    is not given yet.
    """
    stage = joint.stage[number - 1]
    kind = "angle" if stage.angle else "torque"
    text = stage.torque or stage.angle or ""
    if not text:
        return kind, None, "not given"
    parsed = parse(text, kind)
    assert parsed.nominal is not None
    return kind, float(parsed.nominal), text


def tolerance_of(joint: Joint) -> tuple[float, bool]:
    """Tolerance in percent, and whether it is assumed."""
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
    if asked is None:
        return Setting(
            kind=kind,
            figure="–",
            unit="N·m",
            refusal=f"the torque of stage {stage} is not given yet: find it and write it "
            "into the limit book, with its source",
        )
    if kind == "angle":
        return Setting(
            kind=kind,
            figure=decimal_text(asked),
            unit="°",
            gets=asked,
            note=f"turn {text} on top of the torque",
        )
    if wrench is None:
        return Setting(
            kind=kind,
            figure=decimal_text(asked),
            unit="N·m",
            refusal="choose a wrench: its setting follows from it",
        )
    try:
        ratio = 1.0
        lines: list[str] = []
        length, angle = (
            (adapter.length.figure("length"), adapter.angle.figure("angle"))
            if adapter is not None
            else (0.0, 0.0)
        )
        if length:
            grip = float(wrench.grip_mm or 0)
            if not grip:
                raise Refused(
                    "length_not_positive",
                    f"enter the length of {wrench.code}, drive to grip, under Tools",
                    field="grip_mm",
                )
            ratio = lever_ratio(grip, length, angle)
            arm = (
                decimal_text(round9(grip / ratio), 0)
                if angle == 0
                else decimal_text(grip / ratio, 1)
            )
            lines.append(f"{asked:g} × {grip:g} ÷ {arm} = {decimal_text(asked * ratio, 1)}")
        mark = nearest_mark(asked * ratio, wrench.figure("resolution"))
        lines.append(f"nearest mark {decimal_text(mark)}")
        full = float(parse(wrench.hi or "0", "torque", wrench.unit).nominal or 0)
        if not in_usable_range(mark, full):
            raise Refused(
                "no_wrench_in_range",
                f"{decimal_text(mark)} N·m lies outside 20 to 100 % of {wrench.code} "
                f"({decimal_text(full * 0.2)} to {decimal_text(full)} N·m): take another wrench "
                "or turn the adapter. "
                "With this one the bolt can be logged snug or cinched, not torqued",
                field="wrench",
            )
    except Refused as refusal:
        return Setting(kind=kind, figure=decimal_text(asked), unit="N·m", refusal=refusal.message)
    gets = mark / ratio
    lines.append(f"bolt gets {decimal_text(mark)} ÷ {ratio:.4f} = {decimal_text(gets, 1)}")
    deviation = wrench.permissible(gets)
    judgement = _click(gets, deviation, torque_limit(joint, asked, "N·m"), tuple(lines))
    return Setting(
        kind=kind,
        figure=decimal_text(mark),
        unit="N·m",
        set_to=mark,
        gets=gets,
        judgement=judgement,
        working=tuple(lines),
    )


def _click(gets: float, deviation: float, limit: Limit, working: tuple[str, ...]) -> Judgement:
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


def act_verdict(joint: Joint, entry: Entry) -> Judgement | None:
    """The verdict on one torqued act, by the torque asked and the tolerance in force when it was
    done.
    """
    body = entry.body
    if body.asked is None or body.gets is None or body.tolerance_percent is None:
        return None
    dimension = "angle" if body.asked.unit == "deg" else "torque"
    asked, gets = canonical(body.asked, dimension, "asked"), canonical(body.gets, dimension, "gets")
    spread = asked * body.tolerance_percent / 100
    limit = Limit(
        id="t",
        name=joint.name,
        dimension=dimension,
        unit=body.asked.unit,
        lo=decimal_text(round9(asked - spread)),
        hi=decimal_text(round9(asked + spread)),
        target=decimal_text(asked),
        step="0.1",
        source=None if body.tolerance_assumed else "sheet",
    )
    if body.wrench is not None and not body.wrench.covers(
        canonical(body.set_to or body.gets, "torque", "set_to")
    ):
        return judge(gets, None, limit).model_copy(
            update={
                "verdict": "too_close",
                "words": f"outside the range of {body.wrench.code}: no verdict",
            }
        )
    if body.act == "read" and body.wrench is not None:
        try:
            spread_of = reading_share(body.wrench, [gets])
            big_u = single_reading_U(body.wrench, spread_of.value)
        except Refused:
            return judge(gets, None, limit)
        return judge(gets, big_u, limit)
    return _click(gets, body.wrench.permissible(gets) if body.wrench else 0.0, limit, ())


def joint_facts(state: BookState, joint: Joint) -> JointFacts:
    """The whole joint from the live acts on it; remembered until one is added or struck, or its
    steps move on.
    """
    named = state.remembered(("joint steps",), 0, lambda: _steps_of_joints(plan_of(state)))
    steps = (*named.get(joint.id, ()), *((joint.recheck,) if joint.recheck else ()))
    fingerprint = (
        state.seen.get(f"joint:{joint.id}", 0),
        *(state.seen.get(f"step:{step}", 0) for step in steps),
    )
    return state.remembered(
        ("joint", joint.id),
        fingerprint,
        lambda: _joint_facts(state, joint, named.get(joint.id, ())),
    )


def _steps_of_joints(plan: Sheet) -> dict[str, tuple[str, ...]]:
    """The tightening steps of each joint."""
    found: dict[str, tuple[str, ...]] = {}
    for step in plan.step:
        if isinstance(step, TightenStep):
            found[step.joint] = (*found.get(step.joint, ()), step.id)
    return found


def _joint_facts(state: BookState, joint: Joint, steps: tuple[str, ...]) -> JointFacts:
    order = joint.sequence()
    acts: dict[int, list[Entry]] = {number: [] for number in range(1, len(order) + 1)}
    passed: set[tuple[int, int]] = set()
    wrench, adapter, reason = None, None, None
    for entry in state.live(f"joint:{joint.id}"):
        body = entry.body
        if entry.kind == "decision" and body.about == "wrench":
            wrench, adapter, reason = body.wrench, body.adapter, body.reason
        elif entry.kind == "decision" and body.about == "pass_over":
            passed.add((body.bolt, body.stage))
        elif entry.kind == "done":
            for listed in acts.values():
                listed.append(entry)
        elif entry.kind == "fastener" and body.bolt in acts:
            acts[body.bolt].append(entry)
    places = _places(joint)
    bolts = tuple(
        _bolt(joint, number, order[number - 1], places, acts[number], passed) for number in acts
    )
    asks = {k: stage_ask(joint, k) for k in range(1, len(joint.stage) + 1)}
    stages = tuple(
        StageFacts(
            number=k,
            kind=kind,
            figure=decimal_text(round(asked, 1)) if asked is not None else "–",
            text=text,
            done=sum(bolt.stage >= k for bolt in bolts),
        )
        for k, (kind, asked, text) in asks.items()
    )
    reached = min(bolt.stage for bolt in bolts)
    met = joint.wait_for is None or any(
        e.kind == "confirmed" and e.body.what == joint.wait_for
        for step in steps
        for e in state.of_step(step)
    )
    condition = None if met or reached < len(stages) - 1 else joint.wait_for
    due = joint.recheck is not None and not any(
        e.kind in ("done", "skipped") for e in state.of_step(joint.recheck)
    )
    bolts = tuple(
        b.model_copy(
            update={
                "waits": not met and b.stage == len(stages) - 1 and b.tightness != "as found",
                "recheck": due and b.final and b.tightness != "as found",
            }
        )
        for b in bolts
    )
    begun = any(bolt.tightness not in ("as found", "out") for bolt in bolts)
    if begun:  # once one of them is pulled, those that nobody touched are not final with it
        bolts = tuple(
            b.model_copy(update={"final": False}) if b.tightness == "as found" else b for b in bolts
        )
    final = begun and all(bolt.final for bolt in bolts)
    percent, assumed = tolerance_of(joint)
    last = next(
        (
            e.body
            for e in reversed(state.live(f"joint:{joint.id}"))
            if e.kind == "fastener" and e.body.stage
        ),
        None,
    )
    facts = JointFacts(
        id=joint.id,
        name=joint.name,
        bolts=bolts,
        stages=stages,
        begun=begun,
        final=final,
        tolerance=percent,
        tolerance_assumed=assumed,
        wrench=wrench,
        adapter=adapter,
        wrench_reason=reason,
        progress=_progress(bolts, stages),
        final_words=_final_words(joint, stages),
        condition=condition,
        last_bolt=last.bolt if last is not None and asks[last.stage][0] == "torque" else None,
    )
    if joint.final != "torqued" or final:  # nothing to lead through
        return facts
    outside = tuple(
        b.number
        for b in bolts
        if (b.over or (b.verdict in ("outside", "too_close") and b.stage == max(reached, 1)))
        and not b.passed_over
    )
    if reached < len(stages):
        following = next(b.number for b in bolts if b.stage == reached)
        stage = reached + 1
        behind = [b for b in bolts if b.stage == reached]
        blocked = tuple(
            b.number
            for b in behind
            if b.verdict in ("outside", "too_close") and b.stage and not b.passed_over
        )
        fresh = next((b for b in behind if b.over and b.stage == 0), None)
        if fresh is not None:  # loosened or taken out, and not replaced yet
            return facts.model_copy(
                update={
                    "outside": (fresh.number,),
                    "put_right": _advice(joint, bolts, (fresh.number,)),
                    "waits": f"bolt {fresh.number} got too much: a fresh one in its place first",
                }
            )
        if len(behind) == len(bolts) and blocked:
            return facts.model_copy(
                update={
                    "outside": blocked,
                    "put_right": _advice(joint, bolts, blocked),
                    "waits": f"stage {stage} waits until bolt {blocked[0]} is put right "
                    "or passed over",
                }
            )
        if condition and stage == len(stages):
            return facts.model_copy(
                update={
                    "outside": blocked,
                    "put_right": _advice(joint, bolts, blocked),
                    "waits": f"the last stage waits: {condition}",
                }
            )
        live = tuple(
            b.number
            for b in bolts
            if (b.over or b.verdict in ("outside", "too_close")) and not b.passed_over
        )
        ahead = tuple(b.number for b in bolts if b.stage == reached)
        return facts.model_copy(
            update={
                "next_bolt": following,
                "next_stage": stage,
                "ahead": ahead,
                "outside": live,
                "put_right": _advice(joint, bolts, live),
            }
        )
    if outside:
        return facts.model_copy(
            update={
                "outside": outside,
                "put_right": _advice(joint, bolts, outside),
                "waits": f"bolt {outside[0]} waits to be put right or passed over",
            }
        )
    unmarked = next((b.number for b in bolts if joint.mark and not b.marked), None)
    return facts.model_copy(update={"next_bolt": unmarked, "to_mark": unmarked is not None})


def doubted_bolts(state: BookState, joint: Joint, tools: Sequence[Instrument]) -> dict[int, str]:
    """Bolts that stand as a wrench in doubt left them, by number, with what is wrong with the
    wrench.
    """
    stands: dict[int, dict[int, str | None]] = {}
    for entry in state.live(f"joint:{joint.id}"):
        body = entry.body
        if entry.kind == "done":  # a removal took them all out
            stands.clear()
        elif entry.kind == "fastener" and body.stage:
            stands.setdefault(body.bolt, {})[body.stage] = in_doubt(entry, body.wrench, tools)
        elif entry.kind == "fastener" and body.act not in ("marked", "locked"):
            stands.pop(body.bolt, None)
    return {
        bolt: words
        for bolt, stages in stands.items()
        for words in [next((w for w in stages.values() if w), None)]
        if words
    }


def _final_words(joint: Joint, stages: tuple[StageFacts, ...]) -> str:
    """What is final for this joint, such as "torqued at stage 4 and marked"."""
    words = f"torqued at stage {len(stages)}" if joint.final == "torqued" else joint.final
    return (
        words
        + (" and marked" if joint.mark else "")
        + (f", {joint.wait_for}" if joint.wait_for else "")
    )


def _places(joint: Joint) -> dict[str, tuple[float, float]]:
    names = joint.layout.names()
    if joint.layout.kind == "head":
        return {name: head_point(name, joint.layout.columns or 0, 1.0, 1.0) for name in names}
    if joint.layout.kind == "circle":
        return {name: circle_point(int(name), len(names)) for name in names}
    return dict(joint.layout.points)


def _bolt(
    joint: Joint,
    number: int,
    place: str,
    places: dict[str, tuple[float, float]],
    acts: list[Entry],
    passed: set[tuple[int, int]],
) -> BoltFacts:
    tightness, stage, locked, marked = "as found", 0, False, False
    over, since = False, 0
    latest: Entry | None = None
    stages: list[str] = []
    for entry in acts:
        body = entry.body
        if entry.kind == "done":  # a removal took the whole joint out
            tightness, stage, latest, locked, marked, stages, over = (
                "out",
                0,
                None,
                False,
                False,
                [],
                False,
            )
        elif body.act == "fresh":
            tightness, stage, latest, locked, marked, stages, over = (
                "out",
                0,
                entry,
                False,
                False,
                [],
                False,
            )
        elif body.act == "marked":
            marked = True
        elif body.act == "locked":
            locked = True
        elif body.tightness == "torqued" and body.stage:
            tightness, stage, latest = f"torqued stage {body.stage}", body.stage, entry
            stages = stages[: body.stage - 1]
            judgement = act_verdict(joint, entry)
            stages.append(judgement.verdict if judgement else "inside")
            if (
                not over
                and judgement is not None
                and judgement.verdict == "outside"
                and judgement.side == "high"
            ):
                over, since = True, body.stage
        else:
            tightness, latest = body.tightness, entry
            if body.tightness in ("out", "loosened again", "left out on purpose", "by hand"):
                stage, locked, marked, stages = 0, False, False, []
            if body.tightness == "out" and not joint.put_right.fresh:
                over = False
    judged = (
        act_verdict(joint, latest)
        if latest is not None and tightness.startswith("torqued")
        else None
    )
    last_stage = len(joint.stage)
    verdict = judged.verdict if judged else ""
    passed_over = (number, stage) in passed or (
        over and any(n == number and s >= since for n, s in passed)
    )
    good = verdict in ("", "inside") and not over  # a bolt passed over is never final
    final = {
        "torqued": stage == last_stage and good,
        "cinched": tightness == "cinched" or (stage > 0 and good),
        "snug": tightness in ("snug", "cinched") or stage > 0,
    }[joint.final]
    if tightness == "as found":
        final = True
    elif (joint.mark and not marked) or over:
        final = False
    todo, more = _todo(joint, over, tightness, judged)
    x, y = places[place]
    return BoltFacts(
        number=number,
        place=place,
        x=x,
        y=y,
        tightness=tightness,
        stage=stage,
        stages=tuple(stages),
        verdict=verdict,
        gets=judged.value_text if judged else "",
        words=judged.words if judged else "",
        side=judged.side if judged else None,
        locked=locked,
        marked=marked,
        passed_over=passed_over,
        final=final,
        over=over,
        todo=todo,
        more=more,
        entry=latest.id if latest else None,
    )


def _todo(
    joint: Joint, over: bool, tightness: str, judged: Judgement | None
) -> tuple[str | None, str | None]:
    """The next act of putting a bolt right: one that got too much goes out, and a fresh one in; one
    that got too little is pulled again, or turned on.
    """
    if over:
        return ("fresh" if tightness == "out" else "out"), None
    if judged is None or judged.verdict not in ("outside", "too_close") or judged.side == "high":
        return ("again" if judged is not None and judged.verdict == "too_close" else None), None
    if judged.unit == "deg" and judged.target is not None and judged.value is not None:
        return "more", decimal_text(round9(judged.target - judged.value))
    return "again", None


def _advice(
    joint: Joint, bolts: tuple[BoltFacts, ...], outside: tuple[int, ...]
) -> tuple[str, ...]:
    lines = []
    for number in outside:
        bolt = bolts[number - 1]
        if bolt.more is not None:
            lines.append(f"Turn it {bolt.more}° more, on top of what it has")
            continue
        said = joint.put_right.over if bolt.over or bolt.side == "high" else joint.put_right.under
        said = said or (OVER if bolt.over else None)
        lines.append(
            said
            or (
                "The sheet does not say what puts it right: look in the vehicle's manual, or leave "
                "it with a reason"
            )
        )
    return tuple(lines)


def _progress(bolts: tuple[BoltFacts, ...], stages: tuple[StageFacts, ...]) -> str:
    """Such as "5 of 10 at stage 2"."""
    highest = max(bolt.stage for bolt in bolts)
    if highest == 0:
        loose = sum(
            bolt.tightness in ("out", "loosened again", "by hand", "left out on purpose")
            for bolt in bolts
        )
        return f"{loose} of {len(bolts)} loose" if loose else f"{len(bolts)} as found"
    count = sum(bolt.stage == highest for bolt in bolts)
    whole = count == len(bolts)
    if whole and highest == len(stages):
        return f"all {count} at stage {highest}, {sum(not b.final for b in bolts)} not final"
    return f"{count} of {len(bolts)} at stage {highest}"


def quantity_of(value: float, unit: str) -> Quantity:
    """A figure for a body, as decimal text."""
    return Quantity(value=decimal_text(round9(value)), unit=unit)
