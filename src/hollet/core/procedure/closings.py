"""What a plan opens, drains and raises, and whether it closes, fills and lowers it again, between
the right rungs.
"""

from pydantic import BaseModel, ConfigDict

from hollet.core.procedure.pieces import Fluid, Opens
from hollet.core.procedure.sheet import Sheet, Step
from hollet.core.procedure.words import RUNGS

__all__ = ["Gap", "closers_of", "fills_of", "plan_gaps"]

RANK = {rung: k for k, rung in enumerate(RUNGS)}


class Gap(BaseModel):
    """One thing that the plan leaves undone: `never_closed`, `too_early`, `too_late`,
    `never_filled` or `never_lowered`; at which step it begins.
    """

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)
    kind: str
    words: str
    step: str
    number: str
    item: str
    blocks: str = "nothing"


def closers_of(plan: Sheet, item: str) -> tuple[Step, ...]:
    """The steps that close an item, in the order of the plan."""
    return tuple(step for step in plan.step if item in step.closes)


def fills_of(plan: Sheet, fluid: Fluid) -> tuple[Step, ...]:
    """The steps that fill a fluid: by its id, or in older plans by its name."""
    names = {fluid.id, fluid.name.casefold()}
    named = ((step, step.fills()) for step in plan.step)
    return tuple(s for s, fills in named if fills and {fills, fills.casefold()} & names)


def plan_gaps(plan: Sheet) -> tuple[Gap, ...]:
    """Everything opened and never closed, closed too early or too late, drained and never filled,
    raised and never let down.
    """
    place = {step.id: k for k, step in enumerate(plan.step)}
    found: dict[tuple[str, str], Gap] = {}
    for step in plan.step:
        for item in step.opens:
            gap = _opened(plan, step, item, place)
            if gap is not None:
                found.setdefault((gap.kind, item.id), gap)
    for fluid in plan.fluid:
        drains = next((s for s in plan.step if fluid.id in s.drains), None)
        if drains is not None and not any(
            place[s.id] > place[drains.id] for s in fills_of(plan, fluid)
        ):
            found[("never_filled", fluid.id)] = _gap(
                "never_filled", f"{fluid.name}: drained and never filled", drains, fluid.id
            )
    found |= {("never_lowered", gap.item): gap for gap in _raised(plan, place)}
    return tuple(found.values())


def _gap(kind: str, words: str, step: Step, item: str, blocks: str = "nothing") -> Gap:
    return Gap(kind=kind, words=words, step=step.id, number=step.number, item=item, blocks=blocks)


def _opened(plan: Sheet, step: Step, item: Opens, place: dict[str, int]) -> Gap | None:
    closers = [s for s in closers_of(plan, item.id) if place[s.id] > place[step.id]]
    if not closers:
        return _gap(
            "never_closed", f"{item.what}: opened and never closed", step, item.id, item.blocks
        )
    first, last = place[closers[0].id], place[closers[-1].id]
    runs = [run for s in plan.step if (run := s.as_run()) is not None]
    early = next((s for s in runs if item.open_for == s.rung and place[s.id] > first), None)
    if early is not None:
        return _gap(
            "too_early",
            f"{item.what}: closed at {closers[0].number}, and must be open for {early.number} "
            f"{early.title}",
            step,
            item.id,
            item.blocks,
        )
    late = next(
        (
            s
            for s in runs
            if item.blocks in RANK
            and RANK[s.rung] >= RANK[item.blocks]
            and s.rung != item.open_for
            and place[s.id] < last
        ),
        None,
    )
    if late is not None:
        return _gap(
            "too_late",
            f"{item.what}: closed at {closers[-1].number} only, after {late.number} {late.title}",
            step,
            item.id,
            item.blocks,
        )
    return None


def _raised(plan: Sheet, place: dict[str, int]) -> list[Gap]:
    """Bodies that some step sets on something and no later step sets on its wheels or mounts again;
    what came in out of its vehicle and is left on a cradle or cart is where it was.
    """
    found: dict[str, Gap] = {}
    moved = {step.moves for step in plan.step}
    taken_out = moved | ({"engine", "gearbox"} if "powertrain" in moved else set())
    last = {carry.body: carry.by for step in plan.step for carry in step.carries}
    for step in plan.step:
        for carry in step.carries:
            home = "wheels" if carry.body == "vehicle" else "mounts"
            if carry.by == home or carry.body in found:
                continue
            if carry.body not in taken_out and last[carry.body] in ("cradle", "cart"):
                continue
            down = any(
                place[s.id] > place[step.id]
                and (
                    any(c.body == carry.body and c.by == home for c in s.carries)
                    or any(r.body == carry.body and r.free for r in s.releases)
                )
                for s in plan.step
            )
            if not down:
                found[carry.body] = _gap(
                    "never_lowered", f"{step.title}: no step takes it down again", step, carry.body
                )
    return list(found.values())
