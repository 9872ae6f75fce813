"""A step that tightens a joint, or a group of joints in an order."""

from collections.abc import Iterator
from typing import TYPE_CHECKING, Literal

from hollet.core.procedure.groups import Group, group_laws
from hollet.core.procedure.kinds.base import BaseStep
from hollet.core.procedure.words import Id

if TYPE_CHECKING:
    from hollet.core.procedure.sheet import Sheet

__all__ = ["TightenStep"]


class TightenStep(BaseStep):
    """A joint, tightened in stages; of a `group` it is the one that is locked first."""

    kind: Literal["tighten"]
    joint: Id
    group: Group | None = None

    @property
    def closes_up(self) -> bool:
        return True

    def tightens(self) -> tuple[str, ...]:
        return (self.joint, *(self.group.then if self.group is not None else ()))

    def also_of(self, other: BaseStep) -> dict[str, object]:
        return {"group": self.group or other.locks()}

    def locks(self) -> Group | None:
        return self.group

    def laws(self, sheet: "Sheet") -> Iterator[tuple[str, str]]:
        yield from super().laws(sheet)
        if self.group is not None:
            waits = {link.step for link in self.after}
            yield from group_laws(self.group, self.joint, waits, sheet)
