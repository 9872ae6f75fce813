"""What opens a thing: the key of the wheel locks, the code of the radio, a special head."""

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from hollet.core.entries.base import Body, Key, Own, Short

__all__ = ["OpenerSaid", "OpenerSaidSaid"]

OpenerAnswer = Literal["here", "missing", "not on this vehicle"]


class OpenerSaidSaid(Body):
    """Whether what opens something is here, and where it lies."""

    name: Short
    answer: OpenerAnswer
    where: Annotated[str, Field(max_length=120)] = ""


class OpenerSaid(OpenerSaidSaid):
    """The same; `opener` is its name as a key."""

    called: ClassVar = "opener said"
    clocked: ClassVar = False
    begins: ClassVar = False

    opener: Own

    def subject(self) -> Key:
        return Key("opener", self.opener)

    def line(self, title: str) -> str:
        where = f", {self.where}" if self.where else ""
        return f"{self.name}: {self.answer}{where}"
