"""Before a unit moves everything that ties it is parted, and something carries it."""

import re
from collections.abc import Iterator, Sequence

from hollet.core.procedure.facts import Condition
from hollet.core.procedure.laws.breach import Found, Law, index_of, worlds
from hollet.core.procedure.plan import Plan
from hollet.core.procedure.sheet import Sheet, Step
from hollet.core.procedure.ties import TIES_OF, WHOLE, carriers_of, guarded, movers, untied_by
from hollet.core.procedure.words import TIES, TieKind

__all__ = ["LOADS"]

MOVES = re.compile(
    r"^(the )?(engine|gearbox|box|transmission|powertrain|unit|axle)( and (engine|gearbox|box))?,? "
    r"(as one )?(out|off|up|down|lifted|lowered|raised|hoisted|pulled|drawn|slid|dropped)\b",
    re.IGNORECASE,
)
"""A title that says that a whole unit moves."""


def _named(sheet: Sheet) -> Iterator[Found]:
    """A step that lifts a unit out says which unit it moves, or which hands lift it."""
    for index, step in enumerate(sheet.step):
        if step.moves is not None or len(step.people) > 1:
            continue
        if step.lifts and step.takes_off:
            yield ("step", index, "moves"), f"{step.title}: it lifts, and does not say what moves"
        elif step.stage == "take_down" and MOVES.search(step.title):
            words = f"{step.title}: a unit moves by its title, and nothing says so"
            yield ("step", index, "moves"), words


def _ties(sheet: Sheet) -> Iterator[Found]:
    for mover in movers(sheet):
        safe = guarded(sheet, mover)
        for kind in TIES_OF[mover.moves or "engine"]:
            found = _tie(sheet, mover, kind, safe)
            if found is not None:
                yield ("step", index_of(sheet)[mover.id], "after"), found


def _tie(sheet: Sheet, mover: Step, kind: TieKind, safe: set[str]) -> str | None:
    """Why one tie may still hold when its unit moves. A plan of several sheets may part a tie at
    two units; then one of them is enough.
    """
    one_sheet = not isinstance(sheet, Plan) or len(sheet.sheets) < 2
    parted = untied_by(sheet, kind)
    said = [tie for tie in sheet.tie if tie.kind == kind and tie.moves == mover.moves]
    asked: list[Condition] = [c for s in (mover, *parted) for c in s.conditions()]
    asked += [c for tie in said for c in tie.when]
    for world in worlds(sheet, asked):
        if not world.does(mover) or any(world.has(tie.when) for tie in said):
            continue
        here = [step for step in parted if world.does(step)]
        known = f" ({world.words})" if world.words else ""
        if not here:
            if any(world.lacks(step.conditions()) for step in parted):
                continue
            return f"{TIES[kind]}: neither parted nor said to be absent{known}"
        free = [step for step in here if step.id not in safe and step.id != mover.id]
        absent = any(world.lacks(step.conditions()) for step in parted)
        if free and (one_sheet or (len(free) == len(here) and not absent)):
            return f"{TIES[kind]}: it does not wait for {free[0].title}, for safety{known}"
    return None


def _carried(sheet: Sheet) -> Iterator[Found]:
    """No step leaves a unit with nothing under it, and what moves is carried by then."""
    place = index_of(sheet)
    moving = [step for step in sheet.step if step.moves is not None]
    asked = [c for s in sheet.step if s.carries or s.releases or s.moves for c in s.conditions()]
    seen: set[str] = set()
    for world in worlds(sheet, asked):
        here = [step for step in sheet.step if world.does(step)]
        known = f" ({world.words})" if world.words else ""
        for at in carriers_of(here):
            for body in at.lost:
                if at.step.id not in seen:
                    seen.add(at.step.id)
                    words = f"{at.step.title}: nothing carries the {body} after it{known}"
                    yield ("step", place[at.step.id], "releases"), words
        for step in moving:
            if step in here and step.id not in seen and not _holds(step, here):
                seen.add(step.id)
                words = f"{step.title}: nothing carries the {step.moves} when it moves{known}"
                yield ("step", place[step.id], "carries"), words


def _holds(step: Step, here: Sequence[Step]) -> bool:
    """Whether something but its mounts carries what a step moves, by then or by the step itself."""
    assert step.moves is not None
    bodies = (step.moves, *WHOLE.get(step.moves, ()))
    for earlier in (step, *reversed(here[: here.index(step)])):
        if any(c.body in bodies and c.by != "mounts" for c in earlier.carries):
            return True
        if any(r.body in bodies and r.by is None for r in earlier.releases):
            return False
    return False


LOADS = (
    Law(
        "moves",
        "a step that moves a whole unit names it",
        "moves, such as engine, gearbox, powertrain, axle or hub; or people for what hands lift",
        _named,
        safety=True,
    ),
    Law(
        "ties",
        "everything that ties a unit is parted before it moves",
        "a step with unties that the move waits for with kind safety or load needed, or a [[tie]] "
        "that says it is absent or goes with it",
        _ties,
        safety=True,
    ),
    Law(
        "carried",
        "something carries what is lifted, lowered or parted",
        "carries on the step, or on one before it that still holds; the new carrier first, then "
        "releases",
        _carried,
        safety=True,
    ),
)
