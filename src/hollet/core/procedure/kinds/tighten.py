"""A step that tightens a joint."""

from typing import Literal

from hollet.core.procedure.kinds.base import BaseStep
from hollet.core.procedure.words import Id

__all__ = ["TightenStep"]


class TightenStep(BaseStep):
    """A joint, tightened in stages."""

    kind: Literal["tighten"]
    joint: Id

    @property
    def closes_up(self) -> bool:
        return True

    def tightens(self) -> tuple[str, ...]:
        return (self.joint,)
