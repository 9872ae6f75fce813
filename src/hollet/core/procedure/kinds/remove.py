"""A step that takes something off."""

from typing import ClassVar, Literal

from hollet.core.procedure.kinds.base import BaseStep
from hollet.core.procedure.pieces import BagLine
from hollet.core.procedure.words import Id

__all__ = ["RemoveStep"]


class RemoveStep(BaseStep):
    """Something taken off, its fasteners into a bag."""

    kind: Literal["remove"]
    bag: tuple[BagLine, ...] = ()
    joint: Id | None = None
    on_stand: bool = False

    takes_off: ClassVar[bool] = True
    done_words: ClassVar[str] = "It is off"

    def bagged(self) -> tuple[BagLine, ...]:
        return self.bag

    def takes_out(self) -> str | None:
        return self.joint

    def stands(self) -> bool:
        return self.on_stand
