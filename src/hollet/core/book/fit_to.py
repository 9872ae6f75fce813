"""What a vehicle is fit to, by the facts that stand: roll, be towed, be driven home, be driven, go
on a long trip.
"""

from collections.abc import Sequence

from hollet.core.book.again import again_of
from hollet.core.book.complaints import complaints_of
from hollet.core.book.fluids import empty_fluids
from hollet.core.book.gates import gate_answers
from hollet.core.book.leaks import leak_places
from hollet.core.book.loads import loads_now
from hollet.core.book.one_open import OpenItem
from hollet.core.entries import BookState
from hollet.core.entries.status import SETTLED, plan_of, status_of
from hollet.core.instruments import Instrument
from hollet.core.procedure.results import ReadingSpec
from hollet.core.steps.creeping import creeps_of, read_since
from hollet.core.steps.readings import latest
from hollet.core.steps.tighten import joint_facts
from hollet.core.view import View

__all__ = ["FitCell", "fit_to"]

ROLLS = ("wheels",)
TOWS = ("wheels", "steering", "brakes", "suspension")
"""The safety parts that a vehicle needs whole to roll, and to be towed."""


class FitCell(View):
    """One thing to be fit to; `why`: what stands against it first."""

    id: str
    name: str
    fit: bool
    why: str


def fit_to(state: BookState, tools: Sequence[Instrument], now: str) -> tuple[FitCell, ...]:
    """Each in turn; what stands against one stands against all after it."""
    drive = next(g for g in gate_answers(state, tools) if g.rung == "drive")
    wheels = any(
        s.carries == "vehicle" and s.kind == "wheels" for s in loads_now(state).supports.values()
    )
    danger = next((item for item in _below(state, tools) if item.rank == "danger"), None)
    due = [row for row in again_of(state, now) if row.due]
    creep = next((c for c in creeps_of(state, tools) if c.word != "rests"), None)
    wrong = [item.what for item in drive.items if item.rank == "wrong"]
    complaint = next((c for c in complaints_of(state) if not c.answered), None)
    against = (
        (
            "roll",
            "Roll",
            _first(
                "" if wheels else "it does not stand on its wheels",
                danger.what if danger is not None else "",
                _loose(state, ROLLS),
            ),
        ),
        ("tow", "Tow", _first(_loose(state, TOWS), _no_brakes(state), *wrong)),
        ("home", "Drive home", drive.reasons[0] if drive.shut else ""),
        ("drive", "Drive", next((f"due: {row.what}" for row in due if row.safety), "")),
        (
            "trip",
            "Long trip",
            _first(
                f"{creep.name}: {creep.word}, {creep.detail}" if creep is not None else "",
                f"due: {due[0].what}" if due else "",
                _not_again(state),
                f"{complaint.words}: {complaint.waits}" if complaint is not None else "",
            ),
        ),
    )
    cells, before = [], ""
    for name, words, why in against:
        before = before or why
        cells.append(FitCell(id=name, name=words, fit=not before, why=before))
    return tuple(cells)


def _not_again(state: BookState) -> str:
    """The first step at which a figure is measured again after the first drives, and was not, or
    not since it was set anew.
    """
    for step in plan_of(state).step:
        again = [spec for spec in step.readings() if spec.first]
        if step.stage != "settle" or not again:
            continue
        if status_of(state, step).status not in SETTLED or any(_anew(state, s) for s in again):
            return f"{step.number} {step.title}: not measured again yet"
    return ""


def _anew(state: BookState, spec: ReadingSpec) -> bool:
    """Whether its first was read anew after it was measured again."""
    first, later = latest(state, spec.first or ""), latest(state, spec.id)
    return first is not None and later is not None and read_since(first, later) is None


def _first(*words: str) -> str:
    return next((word for word in words if word), "")


def _below(state: BookState, tools: Sequence[Instrument]) -> list[OpenItem]:
    return [item for gate in gate_answers(state, tools) for item in gate.items]


def _no_brakes(state: BookState) -> str:
    """Brake fluid that is out, or that comes out."""
    empty = (f"{e.name}: empty" for e in empty_fluids(state) if e.kind == "brake")
    wet = (
        f"{place.name}: {place.state}"
        for place in leak_places(state)
        if place.fluid == "brake" and not place.cleared
    )
    return next(iter([*empty, *wet]), "")


def _loose(state: BookState, parts: Sequence[str]) -> str:
    """The first joint of these safety parts that was begun, taken out or is to be tightened and is
    not final.
    """
    plan = plan_of(state)
    for step in plan.step:
        for name in step.tightens():
            joint = plan.find_joint(name)
            if joint is None or joint.safety not in parts:
                continue
            facts = joint_facts(state, joint)
            if not (facts.begun and facts.final):
                return f"{joint.name}: {facts.waits or facts.progress or 'not final'}"
    return ""
