"""The first start rehearsed: dealt, and judged. Nothing is written anywhere."""

import secrets

from hollet.core.errors import NotFound
from hollet.core.running.rehearsal import Deal, HandAct, Played, deal, judge_hand
from hollet.core.view import View
from hollet.library.lore import lore

__all__ = ["FaultName", "dealt", "fault_names", "played"]

SEEDS = 10_000


class FaultName(View):
    """A start that can be practised, by its name; `fault`: something is wrong in it."""

    id: str
    name: str
    fault: bool


def fault_names() -> tuple[FaultName, ...]:
    """All starts that ship."""
    return tuple(FaultName(id=s.id, name=s.name, fault=s.due_s is not None) for s in lore().scene)


def _known(fault: str | None) -> None:
    if fault is not None and all(scene.id != fault for scene in lore().scene):
        raise NotFound("fault", fault)


def dealt(seed: int | None, fault: str | None) -> Deal:
    """A start: of a seed, or a new one; raises NotFound for a fault that is none."""
    _known(fault)
    return deal(lore().scene, secrets.randbelow(SEEDS) if seed is None else seed, fault)


def played(seed: int, fault: str | None, acts: tuple[HandAct, ...]) -> Played:
    """How it went; raises NotFound for a fault that is none."""
    _known(fault)
    return judge_hand(lore().scene, seed, fault, acts)
