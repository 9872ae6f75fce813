"""What asks for a part, and where from: steps, joints, fills, bags, findings, extras, a hand."""

import hashlib
import re
from collections.abc import Iterator
from dataclasses import dataclass

from hollet.core.arrivals import PartSort
from hollet.core.book.bags import bag_contents
from hollet.core.book.machined import machine_orders
from hollet.core.book.sought import given_up
from hollet.core.entries import BookState, MachineOrdered, PartWanted, ReserveWeighed
from hollet.core.entries.status import plan_of
from hollet.core.procedure.sheet import Sheet, Step
from hollet.core.safety import Safety
from hollet.core.steps.inspection import inspection_facts
from hollet.core.steps.parts import REPLACED

__all__ = ["LOST", "Want", "need_id", "wants"]

LOST = "lost"


@dataclass(frozen=True, slots=True)
class Want:
    """One reason for so many of a part: the step that needs it (none: nothing waits), why, how much
    of it is compared and where.

    `assumed`: the count is usual, nobody counted. `looked_at`: the inspection at whose bench the
    new one is laid beside the old, and the part there; `machined`: the work at a machine shop that
    brings it back; `right`: it was laid beside, or is back as it was ordered.
    """

    need: str
    name: str
    count: int
    why: str
    step: Step | None = None
    sort: PartSort | None = None
    safety: Safety | None = None
    feature: tuple[str, ...] = ()
    amount: str = ""
    assumed: bool = False
    price: float | None = None
    looked_at: tuple[str, str] | None = None
    right: bool = False
    machined: str | None = None
    wanted: PartWanted | None = None
    entry: str | None = None


def need_id(name: str) -> str:
    """The id of a need by the name of its part: the same part from two steps is one need. What the
    letters a to z do not tell apart is told apart by a mark made of the whole name.

    Examples
    --------
    >>> need_id("Head bolt M11×115"), need_id("head  bolt m11 x 115")
    ('head_bolt_m11x115', 'head_bolt_m11x115')
    >>> need_id("Öse") != need_id("Üse"), need_id("öse ") == need_id("Öse")
    (True, True)
    """
    tidy = re.sub(r"(?<=\d)\s*[x×]\s*(?=\d)", "x", " ".join(name.casefold().split()))
    plain = re.sub(r"[^0-9a-z]+", "_", tidy).strip("_")
    if plain and all(c.isascii() for c in tidy if c.isalnum()):
        return plain[:60]
    mark = hashlib.sha256(tidy.encode()).hexdigest()[:10]
    return f"{plain[:48]}_{mark}".strip("_")


def wants(state: BookState) -> tuple[Want, ...]:
    """All of them, in the order of the plan, those of a hand last.

    A part to be replaced that a step fits is that step's: it is not bought twice.
    """
    plan = plan_of(state)
    found: list[Want] = []
    for step in plan.step:
        found += _of_step(plan, step)
    found += _decided(state, plan)
    found += _extras(plan)
    found += _lost(state, plan)
    found += _sought(state, plan)
    found += _machined(state, plan)
    found += _ahead(state, plan)
    found += _by_hand(state, plan)
    fitted = {want.need for want in found if want.looked_at is None and want.step is not None}
    return tuple(want for want in found if want.looked_at is None or want.need not in fitted)


def _of_step(plan: Sheet, step: Step) -> Iterator[Want]:
    """New parts that it names, fasteners that go in once, the fluid that it fills."""
    for part in step.parts:
        yield Want(
            need=need_id(part.name),
            name=part.name,
            count=part.count,
            why=step.title,
            step=step,
            sort=part.sort,
            safety=part.safety,
            feature=part.feature,
        )
    for joint_id in step.tightens():
        joint = plan.find_joint(joint_id)
        for fastener in joint.one_use if joint is not None else ():
            assert joint is not None
            yield Want(
                need=need_id(fastener.name),
                name=fastener.name,
                count=fastener.count or len(joint.layout.names()),
                why=f"{joint.name}: they go in once",
                step=step,
                sort=fastener.sort,
                safety=joint.safety,
                assumed=joint.counted is False,
            )
    fluid_id = step.fills()
    if fluid_id is not None:
        fluid, limit = plan.find_fluid(fluid_id), plan.find_limit(step.pours())
        name = fluid.name if fluid is not None else fluid_id
        figure = (limit.target or limit.hi or limit.lo) if limit is not None else None
        amount = f"{figure} {limit.unit}" if figure and limit is not None else "amount not given"
        yield Want(
            need=need_id(name),
            name=name,
            count=1,
            why=step.title,
            step=step,
            sort="fluid",
            amount=amount,
            assumed=limit is None or limit.source is None,
        )


def _decided(state: BookState, plan: Sheet) -> Iterator[Want]:
    """Parts that were looked at and are to be replaced."""
    for step in plan.step:
        looked = step.as_inspection()
        if looked is None:
            continue
        for part in inspection_facts(state, looked).parts:
            if part.choice not in REPLACED:
                continue
            yield Want(
                need=need_id(part.name),
                name=part.name,
                count=1,
                why=f"{part.choice_words}: {part.reason}",
                step=step,
                safety=part.safety,
                price=part.price,
                looked_at=(step.id, part.id),
                right=part.right is not None,
            )


def _extras(plan: Sheet) -> Iterator[Want]:
    """What was said yes to while it is open; the last step that comes with it needs it."""
    answers = getattr(plan, "extras", {})
    for extra in plan.extra:
        if not answers.get(extra.id):
            continue
        own = [s for s in plan.step if any(c.extra == extra.id for c in s.conditions())]
        if any(s.parts for s in own):
            continue  # its own steps name what is bought
        step = own[-1] if own else plan.find_step(extra.at)
        yield Want(
            need=need_id(extra.thing),
            name=extra.thing,
            count=1,
            why=f"while it is open: {extra.because}",
            step=step,
        )


def _lost(state: BookState, plan: Sheet) -> Iterator[Want]:
    """Fasteners that are lost from their bags and not replaced."""
    for bag in bag_contents(state):
        if not bag.missing:
            continue
        back = next((s for s in plan.step if bag.owner in s.refits), None)
        sizes = ", ".join(f"{line.lost} × {line.size}" for line in bag.lines if line.lost)
        yield Want(
            need=f"bag_{bag.bag}",
            name=f"Lost from bag {bag.bag}, {bag.what}: {sizes}"[:200],
            count=bag.missing,
            why=LOST,
            step=back or plan.find_step(bag.step),
            sort="bolt",
        )


def _sought(state: BookState, plan: Sheet) -> Iterator[Want]:
    """Small things that were looked for and not found."""
    for lost in given_up(state):
        yield Want(
            need=need_id(lost.what),
            name=lost.what,
            count=lost.count,
            why=lost.why,
            step=plan.find_step(lost.step),
        )


def _machined(state: BookState, plan: Sheet) -> Iterator[Want]:
    """Parts at a machine shop: the step that needs one waits until it is back as ordered."""
    for work in machine_orders(state):
        if work.state == "off":
            continue
        placed = state.newest(MachineOrdered, "machine", work.work)
        yield Want(
            need=work.need,
            name=f"{work.part}: {work.to_do}"[:200],
            count=1,
            why=f"machine work, {work.supplier}",
            step=plan.find_step(work.step),
            safety=placed.body.safety if placed is not None else None,
            price=work.price,
            machined=work.work,
            right=work.right,
        )


def _ahead(state: BookState, plan: Sheet) -> Iterator[Want]:
    """What is bought ahead in case it is needed: no step waits for it."""
    for name, _ in state.names("money"):
        entry = state.newest(ReserveWeighed, "money", name)
        if entry is None or not entry.body.buy:
            continue
        body = entry.body
        yield Want(
            need=body.need,
            name=body.name,
            count=body.count,
            why="bought ahead, in case it is needed",
            price=body.price,
        )


def _by_hand(state: BookState, plan: Sheet) -> Iterator[Want]:
    for name, _ in state.names("need"):
        entry = state.newest(PartWanted, "need", name)
        if entry is None:
            continue
        body = entry.body
        yield Want(
            need=body.need,
            name=body.name,
            count=body.count,
            why=f"wanted by {entry.who}",
            step=plan.find_step(body.step),
            sort=body.sort,
            safety=body.safety,
            price=body.price,
            wanted=body,
            entry=entry.id,
        )
