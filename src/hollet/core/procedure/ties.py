"""What ties a unit to its vehicle before it moves, what parts each tie, and what carries the unit:
drawn from a sheet or a plan alone, before the first spanner.
"""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field

from hollet.core.procedure.sheet import Sheet, Step, is_danger
from hollet.core.procedure.words import TIES, Carried, SupportKind, TieKind

__all__ = ["TIES_OF", "WHOLE", "CarriedAt", "carriers_of", "guarded", "movers", "untied_by"]

_ENGINE: tuple[TieKind, ...] = (
    "battery",
    "fuel",
    "engine_oil",
    "coolant",
    "clutch",
    "throttle",
    "cruise",
    "servo_hose",
    "loom",
    "earths",
    "starter_lead",
    "steering_pump",
    "aircon",
    "exhaust",
    "links_below",
    "in_the_way",
    "bell",
    "mounts",
)
_BOX: tuple[TieKind, ...] = (
    "battery",
    "box_oil",
    "clutch",
    "loom",
    "earths",
    "starter_lead",
    "exhaust",
    "propeller_shafts",
    "drive_shafts",
    "gear_lever",
    "speed_drive",
    "bell",
    "mounts",
)
TIES_OF: dict[Carried, tuple[TieKind, ...]] = {
    "engine": _ENGINE,
    "gearbox": _BOX,
    "powertrain": tuple(kind for kind in TIES if kind in _ENGINE or kind in _BOX),
}
"""What may tie each unit; a tie that is not there is said to be absent."""


def movers(plan: Sheet) -> tuple[Step, ...]:
    """The steps that lift, lower or part a unit from its vehicle."""
    return tuple(step for step in plan.step if step.moves in TIES_OF and step.takes_off)


def untied_by(plan: Sheet, kind: TieKind) -> tuple[Step, ...]:
    """The steps that part a tie, in the order of the plan."""
    return tuple(step for step in plan.step if kind in step.unties)


def guarded(plan: Sheet, step: Step) -> set[str]:
    """The steps that nothing passes on the way to this one: those it waits for by a danger, and
    theirs.
    """
    found: set[str] = set()
    pending = [step]
    while pending:
        for link in pending.pop().after:
            other = plan.find_step(link.step)
            if other is not None and other.id not in found and is_danger(plan, link):
                found.add(other.id)
                pending.append(other)
    return found


@dataclass(slots=True)
class CarriedAt:
    """What carries each body once a step is done, by kind of support; `lost` are bodies that it
    leaves with nothing.
    """

    step: Step
    by: Mapping[Carried, tuple[SupportKind, ...]] = field(default_factory=dict)
    lost: tuple[Carried, ...] = ()


WHOLE: dict[Carried, tuple[Carried, ...]] = {
    "engine": ("powertrain",),
    "gearbox": ("powertrain",),
    "powertrain": ("engine",),
}
"""What is carried with what, where the unit hangs or stands as one."""


def carriers_of(steps: Sequence[Step]) -> Iterator[CarriedAt]:
    """What carries what along the steps, as the sheet says it; only steps that change it."""
    now: dict[Carried, tuple[SupportKind, ...]] = {}
    for step in steps:
        if not (step.carries or step.releases):
            continue
        touched: dict[Carried, None] = {}
        for release in step.releases:
            held = now.get(release.body, ("wheels",) if release.body == "vehicle" else ("mounts",))
            left = () if release.by is None else tuple(by for by in held if by != release.by)
            now[release.body] = left
            if not release.free:
                touched[release.body] = None
        for carry in step.carries:
            held = now.get(carry.body, ())
            now[carry.body] = tuple(dict.fromkeys((*held, carry.by)))
        lost = tuple(
            body
            for body in touched
            if not now.get(body) and not any(now.get(whole) for whole in WHOLE.get(body, ()))
        )
        yield CarriedAt(step, dict(now), lost)
