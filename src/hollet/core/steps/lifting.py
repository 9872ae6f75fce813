"""A lift as it was said: what each element carries of its limit, and everything that stands against
it. It never says that a lift is safe.
"""

import math
from datetime import date, datetime, timedelta

from hollet.core.entries import BookState, LiftElement, LiftSaid
from hollet.core.entries.status import plan_of
from hollet.core.errors import Refused
from hollet.core.lifting.slings import FLATTEST_DEG, checked_angle, leg_share
from hollet.core.procedure.kinds import BaseStep
from hollet.core.procedure.words import Carried
from hollet.core.quantities.quantity import Measured, round9
from hollet.core.view import View

__all__ = ["UNSAID", "LiftFacts", "LiftRow", "lift_of", "unit_of"]

ALONE = 90.0
HOLDS = timedelta(hours=12)
UNSAID = "nobody said what hangs, how, and what each part of the gear may carry"
OLD = "it was said more than 12 hours ago: look how it hangs, and say it anew"


class LiftRow(View):
    """One element, weakest first: its number on the drawing, what it may carry and carries, the
    share that is used, and why nothing is lifted by it.
    """

    number: int
    name: str
    how: str
    load: str
    share: float | None
    where: str
    stop: str | None


class LiftFacts(View):
    """The lift: everything against it in `stops`; the angle, drawn as it is; a leg's load."""

    title: str
    what: str
    about: str
    stops: tuple[str, ...]
    angle: float | None
    flattest: float
    legs: int
    leg_load: str
    rows: tuple[LiftRow, ...]
    working: tuple[str, ...]


def lift_of(state: BookState, step: BaseStep, now: str) -> LiftFacts | None:
    """What was said last of the lift at a step; of a step at which nobody said anything, what was
    said last of the same unit in its stage: it hangs there still. None where nobody said anything.
    After half a day (`now`, UTC) nobody knows any more how it hangs.
    """
    said = state.newest(LiftSaid, "lift", step.id)
    if said is None:
        same = {s.id for s in plan_of(state).step if s.stage == step.stage and _same(s, step)}
        near = [e for e in state.all(LiftSaid) if e.body.step in same]
        said = max(near, key=lambda e: e.seq, default=None)
    if said is None:
        return None
    age = datetime.fromisoformat(now) - datetime.fromisoformat(said.time)
    return _facts(said.body, OLD if age > HOLDS else "", date.fromisoformat(now[:10]))


def _same(a: BaseStep, b: BaseStep) -> bool:
    """Whether two steps lift the same unit; an engine may go as one with its gearbox."""
    bodies = {unit_of(a), unit_of(b)}
    return len(bodies) == 1 or bodies == {"engine", "powertrain"}


def unit_of(step: BaseStep) -> Carried:
    """What a step lifts: what it moves, else what it carries or lets go; never the vehicle."""
    said = (step.moves, *(c.body for c in step.carries), *(r.body for r in step.releases))
    return next((body for body in said if body is not None and body != "vehicle"), "other")


def _facts(said: LiftSaid, old: str, today: date) -> LiftFacts:
    mass, jerk = said.heavy.figure("mass") / 1000, said.jerk
    angle, bad = _angle(said)
    share = None
    try:
        if angle is not None and 0 < angle <= ALONE:
            share = leg_share(said.legs, angle)[0]  # told below 30° too: it shows what it would be
        if angle is not None and not bad:
            checked_angle(angle, "angle")
    except Refused as refusal:
        bad = refusal.message
    leg = mass * share * jerk if share is not None else None
    rows = sorted(
        (_row(k, element, mass * jerk, leg, today) for k, element in enumerate(said.elements, 1)),
        key=lambda row: (row.stop is None, -(row.share or 0.0)),
    )
    stops = tuple(
        stop
        for stop in (
            old,
            bad,
            *(f"{row.name}: {row.stop}" for row in rows if row.stop is not None),
            _headroom(said),
            None if said.elements else "name every element between the load and the beam",
        )
        if stop
    )
    light = f"the heavy end of {_kg(said.light)} to {_kg(said.heavy)}" if said.light else ""
    known = {"weighed": "weighed", "book": "by the book", "estimate": "an estimate"}
    return LiftFacts(
        title=_title(stops, rows),
        what=f"{said.what}, {_kg(said.heavy)} kg",
        about=f"{_kg(said.heavy)} kg, {light or known[said.mass_from]}, taken × {jerk:g} for jerks",
        stops=stops,
        angle=round(angle, 1) if angle is not None else None,
        flattest=FLATTEST_DEG,
        legs=said.legs,
        leg_load=f"{math.ceil(round9(leg))} kg" if leg is not None else "",
        rows=tuple(rows),
        working=_working(said, mass, angle, leg),
    )


def _kg(mass: Measured) -> str:
    return str(math.ceil(round9(mass.figure("mass") / 1000)))


def _title(stops: tuple[str, ...], rows: list[LiftRow]) -> str:
    """At most two things against it, and how many more; never that it is right."""
    if stops:
        more = f", and {len(stops) - 2} more" if len(stops) > 2 else ""
        return f"No lift: {'; '.join(stops[:2])}{more}"
    worst = max((row.share or 0.0 for row in rows), default=0.0)
    return f"Nothing said against this lift: weakest {math.ceil(round9(worst * 100))} % used"


def _angle(said: LiftSaid) -> tuple[float | None, str]:
    """The angle to the horizontal, and why it cannot be."""
    if said.angle is not None:
        return said.angle.figure("angle"), ""
    if said.legs == 1:
        return ALONE, ""
    if said.leg is None or said.apart is None:
        return None, "the angle of the legs is not known: measure it, or both lengths"
    leg, apart = said.leg.figure("length"), said.apart.figure("length")
    if leg <= 0 or not 0 <= apart < 2 * leg:
        return None, "the legs do not reach over the eyes"
    return math.degrees(math.acos(apart / (2 * leg))), ""


def _headroom(said: LiftSaid) -> str | None:
    if said.hook is None or said.reach is None:
        return None
    short = said.hook.figure("length") - said.reach.figure("length")
    return f"the hook reaches {short:.0f} mm too low" if round9(short) > 0 else None


def _row(
    number: int, element: LiftElement, whole: float, leg: float | None, today: date
) -> LiftRow:
    """What an element carries of what it may, in kg: loads up, limits down."""
    load = leg if element.where == "leg" else whole
    may = element.limit.figure("mass") / 1000 * element.left if element.limit else None
    stop = None
    if element.limit is None or may is None or may <= 0:
        stop = "no marked limit, no lift"
    elif element.found.strip():
        stop = f"{element.found.strip()}: it lifts nothing"
    elif element.inspected_until is not None and element.inspected_until < today:
        stop = f"its inspection ended on {element.inspected_until}: it lifts nothing"
    share = load / may if load is not None and may else None
    if stop is None and share is not None and round9(share) > 1:
        stop = "more than it may carry"
    carried = f"{math.ceil(round9(load))}" if load is not None else "?"
    why = f", {element.why}" if element.why else ""
    limit = element.limit.shown() if element.limit else "no mark"
    until = element.inspected_until
    tag = f", inspected until {until}" if until is not None else ", no inspection on its tag"
    return LiftRow(
        number=number,
        name=element.name,
        how=f"{limit}{f' × {element.left:g}' if element.left != 1 else ''}{why}{tag}",
        load=f"{carried} of {math.floor(round9(may))} kg" if may else f"{carried} kg",
        share=round(share, 4) if share is not None else None,
        where=element.where,
        stop=stop,
    )


def _working(
    said: LiftSaid, mass: float, angle: float | None, leg: float | None
) -> tuple[str, ...]:
    if angle is None or leg is None:
        return ()
    carrying = min(said.legs, 2)
    return (
        f"{mass:g} kg × {said.jerk:g} ÷ ({carrying} × sin {angle:.1f}°) = {leg:.1f} kg a leg",
        *(("four legs count as two: a rigid load hangs on two",) if said.legs > 2 else ()),
    )
