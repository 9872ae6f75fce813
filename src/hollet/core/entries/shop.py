"""Entries of the shop's own log: its tools, its gear, its devices."""

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from hollet.core.entries.base import Body, Key, Money, Short
from hollet.core.instruments import Instrument

__all__ = ["DeviceEdited", "GearEdited", "ToolChecked", "ToolEdited", "ToolTried"]


GearState = Literal["owned", "borrowed", "rented", "missing", "broken", "faulty", "lent"]


class ToolEdited(Body):
    """A tool of the shop as it is from now on (shop log only)."""

    called: ClassVar = "tool edited"

    tool: Instrument
    reason: str | None = None

    def subject(self) -> Key:
        return Key("tool", self.tool.id)

    def line(self, title: str) -> str:
        return f"tool {self.tool.code}: {self.tool.name}"


class ToolChecked(Body):
    """A tool held against a standard: what it showed, by how much it was off, and whether that is
    permissible (shop log only).
    """

    called: ClassVar = "tool checked"

    tool: str
    code: Short
    standard: Short
    nominal: str
    typed: Annotated[tuple[Short, ...], Field(min_length=1, max_length=50)]
    off: str
    unit: str
    good: bool
    kept_offset: bool = False

    def subject(self) -> Key:
        return Key("tool", self.tool)

    def line(self, title: str) -> str:
        good = "permissible" if self.good else "not permissible"
        kept = ", kept as its known offset" if self.kept_offset else ""
        off = f"off by {self.off} {self.unit}, {good}{kept}"
        return f"{self.code} on {self.standard} {self.nominal}: {off}"


class ToolTried(Body):
    """The hands of one person with a tool: one thing read many times, and the deviation that came
    of it (shop log only).
    """

    called: ClassVar = "tool tried"

    tool: str
    code: Short
    thing: Short
    typed: Annotated[tuple[Short, ...], Field(min_length=5, max_length=50)]
    s: str
    unit: str

    def subject(self) -> Key:
        return Key("tool", self.tool)

    def line(self, title: str) -> str:
        return f"{self.code} on {self.thing}, {len(self.typed)} readings: s = {self.s} {self.unit}"


class GearEdited(Body):
    """A tool that does not measure, as it is from now on; what a rented one costs a day, and what
    goes instead of it at which risk (shop log only).
    """

    called: ClassVar = "gear edited"

    name: Short
    state: GearState
    whose: str | None = None
    back_by: str | None = None
    a_day: Annotated[Money, Field(ge=0, le=1e5)] | None = None
    substitute: Annotated[str, Field(max_length=200)] | None = None

    def subject(self) -> Key:
        return Key("gear", self.name.casefold())

    def line(self, title: str) -> str:
        whose = f", {self.whose}" if self.whose else ""
        back = f", back by {self.back_by}" if self.back_by else ""
        a_day = f", {self.a_day:.2f} a day" if self.a_day is not None else ""
        instead = f"; instead of it {self.substitute}" if self.substitute else ""
        return f"{self.name}: {self.state}{whose}{back}{a_day}{instead}"


class DeviceEdited(Body):
    """A phone or tablet that may or may no longer open this Hollet over the workshop network (shop
    log only).
    """

    called: ClassVar = "device edited"

    device: str
    name: Short
    state: Literal["paired", "revoked"]

    def subject(self) -> Key:
        return Key("device", self.device)

    def line(self, title: str) -> str:
        return f"{self.name}: {self.state}"
