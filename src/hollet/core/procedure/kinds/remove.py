"""A step that takes something off."""

from typing import ClassVar, Literal, Self

from hollet.core.procedure.kinds.base import BaseStep
from hollet.core.procedure.pieces import BagSpec
from hollet.core.procedure.words import Id

__all__ = ["RemoveStep"]


class RemoveStep(BaseStep):
    """Something taken off, its fasteners into a bag."""

    kind: Literal["remove"]
    bag: tuple[BagSpec, ...] = ()
    joint: Id | None = None
    on_stand: bool = False

    takes_off: ClassVar[bool] = True
    done_words: ClassVar[str] = "It is off"

    def bag_specs(self) -> tuple[BagSpec, ...]:
        return self.bag

    def with_usual_counts(self) -> Self:
        bag = tuple(
            spec if spec.counted is not None else spec.model_copy(update={"counted": False})
            for spec in self.bag
        )
        return self.model_copy(update={"bag": bag})

    def takes_out(self) -> tuple[str, ...]:
        named = (self.joint, *(line.joint for line in self.bag))
        return tuple(dict.fromkeys(name for name in named if name is not None))

    def stands(self) -> bool:
        return self.on_stand
