"""What screens send and get that is not one of the core's own models."""

from datetime import datetime
from typing import Annotated, Any, Literal

from pydantic import AfterValidator, BaseModel, ConfigDict, Field, model_validator

from hollet.core.acts.calendar import AnyShopAct
from hollet.core.acts.kinds import AnyAct
from hollet.core.book.order_back import Choices
from hollet.core.entries.shop import GearState
from hollet.core.keepable import keepable
from hollet.core.procedure.planacts import PlanAct
from hollet.core.procedure.stuck import StuckFacts
from hollet.core.running.rehearsal import HandAct
from hollet.services.devices import DeviceView
from hollet.services.logging import Sent
from hollet.services.shop import ShopFacts

__all__ = [
    "BuildEdit",
    "CheckEdit",
    "ConversionEdit",
    "DevicesView",
    "EntryEdit",
    "GearEdit",
    "LimitsFile",
    "PairEdit",
    "PlanEdit",
    "PlanLook",
    "Problem",
    "QuantityEdit",
    "ReadingsFile",
    "RebuildEdit",
    "RebuildLook",
    "RehearsalDeal",
    "RehearsalPlayed",
    "SetGaugeEdit",
    "SheetEdit",
    "ShopEdit",
    "ShopEntryEdit",
    "StandsView",
    "StuckLook",
    "TextLook",
    "ToolEdit",
    "TrialEdit",
    "TypedEdit",
    "VehicleEdit",
    "WhoEdit",
]


class Model(BaseModel):
    """Base of request models: unknown fields refused, numbers finite."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)

    @model_validator(mode="before")
    @classmethod
    def _keepable(cls, data: Any) -> Any:
        return keepable(data)


def _moment(text: str) -> str:
    datetime.fromisoformat(text)
    return text


Moment = Annotated[str, AfterValidator(_moment)]
"""A moment that a clock can show, in ISO 8601."""


class Problem(BaseModel):
    """Every refusal: a stable code, one sentence, the field, and newer lines where there are some;
    `asks`: it is a question, and the same once more, on purpose, is taken.
    """

    refuse: Literal[True] = True
    reason_code: str
    message: str
    field: str | None = None
    newer: list[str] = []
    asks: bool = False


class TypedEdit(Model):
    """What was typed into the form of a calculation, by field."""

    typed: dict[str, Annotated[str, Field(max_length=400)]] = Field(max_length=40)


Typed = Annotated[
    list[Annotated[str, Field(min_length=1, max_length=60)]], Field(min_length=1, max_length=50)
]


class CheckEdit(Model):
    """A tool held against a standard of known size; a deviation may be kept as its known offset."""

    who: str = Field(min_length=1, max_length=6)
    standard: str = Field(min_length=1, max_length=80)
    nominal: str = Field(min_length=1, max_length=40)
    typed: Typed
    keep_offset: bool = False


class TrialEdit(Model):
    """One thing read many times by one person."""

    who: str = Field(min_length=1, max_length=6)
    thing: str = Field(min_length=1, max_length=80)
    typed: Typed


class ReadingsFile(Model):
    """A CSV table of readings, as text."""

    who: str = Field(min_length=1, max_length=6)
    text: str = Field(min_length=1, max_length=2_000_000)


class EntryEdit(Model):
    """One entry from a screen; the id is a UUID of version 7 made there; `after` is the one before
    it in the screen's own queue, about the same.
    """

    id: str = Field(
        pattern=r"^[0-9a-f]{8}-[0-9a-f]{4}-7[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$"
    )
    who: str = Field(min_length=1, max_length=6)
    bench_time: Moment = Field(
        min_length=10,
        max_length=40,
        pattern=r"^[0-9]{4}-[0-9]{2}-[0-9]{2}T[0-9:.]{8,15}(Z|[+-][0-9]{2}:[0-9]{2})$",
    )
    seen: int = Field(ge=0, le=2**53)
    after: str | None = Field(default=None, max_length=36)
    entry: AnyAct

    def sent(self) -> Sent:
        """What came with the act."""
        return Sent(
            id=self.id,
            who=self.who,
            bench_time=self.bench_time,
            seen=self.seen,
            after=self.after,
        )


class WhoEdit(Model):
    """Who acts."""

    who: str = Field(min_length=1, max_length=6)


class BuildEdit(WhoEdit):
    """A new build from one sheet or several, with what is known of the vehicle."""

    id: str = Field(pattern=r"^[0-9a-f-]{36}$")
    sheets: list[str] = Field(min_length=1, max_length=12)
    facts: dict[str, str] = Field(default={}, max_length=60)
    name: str = Field(min_length=1, max_length=80)
    vehicle: str = Field(min_length=1, max_length=80)
    about: str = Field(min_length=1, max_length=200)


class VehicleEdit(WhoEdit):
    """The name and words of the vehicle of a build, and the words that were looked at."""

    name: str = Field(min_length=1, max_length=80)
    about: str = Field(min_length=1, max_length=200)
    was: str = Field(max_length=200)


class ShopEdit(WhoEdit):
    """What the shop is called, its time zone and currency, and the version that was looked at."""

    name: str = Field(min_length=1, max_length=80)
    time_zone: str = Field(min_length=1, max_length=60)
    currency: str = Field(max_length=8)
    version: int

    def facts(self) -> ShopFacts:
        """The words without who said them."""
        return ShopFacts(
            name=self.name,
            time_zone=self.time_zone,
            currency=self.currency,
            version=self.version,
        )


class SheetEdit(Model):
    """A sheet as TOML text."""

    text: str = Field(max_length=20_000_000)


class ToolEdit(WhoEdit):
    """A tool as edited; `version` is the one that was edited, 0 for a new tool."""

    tool: dict[str, Any]
    version: int = Field(ge=0, le=2**53)
    reason: str | None = None


class SetGaugeEdit(WhoEdit):
    """A gauge set with a micrometer."""

    master: str
    setting: str = Field(min_length=1, max_length=40)


Version = Annotated[int, Field(ge=0, le=2**53)]


class PlanEdit(WhoEdit):
    """Acts on the plan, taken together; `version` is that of the desk that was looked at."""

    id: str = Field(pattern=r"^[0-9a-f-]{36}$")
    version: Version
    acts: list[PlanAct] = Field(min_length=1, max_length=40)
    reason: str | None = Field(default=None, max_length=1000)


class PlanLook(WhoEdit):
    """Acts whose difference is asked for; nothing is written."""

    acts: list[PlanAct] = Field(min_length=1, max_length=40)


class LimitsFile(WhoEdit):
    """Limits to read in, as text; with `take` false only the difference is told."""

    id: str = Field(pattern=r"^[0-9a-f-]{36}$")
    text: str = Field(max_length=2_000_000)
    form: Literal["csv", "toml"]
    take: bool = False


class GearEdit(WhoEdit):
    """What is said of a tool that does not measure; `version` 0 for a new one."""

    name: str = Field(min_length=1, max_length=80)
    state: GearState
    whose: str | None = Field(default=None, max_length=80)
    back_by: str | None = Field(default=None, max_length=40)
    a_day: float | None = Field(default=None, ge=0, le=1e5)
    substitute: str | None = Field(default=None, max_length=200)
    version: Version


class RebuildLook(Model):
    """Choices whose order is asked for; nothing is written."""

    choices: Choices = Choices()


class RebuildEdit(WhoEdit):
    """The order taken over with these choices."""

    id: str = Field(pattern=r"^[0-9a-f-]{36}$")
    choices: Choices = Choices()


class StuckLook(Model):
    """A stuck part, what lies near it, and whether it is clean and dry."""

    step: str
    part: str = Field(min_length=1, max_length=200)
    facts: StuckFacts = StuckFacts()


class ShopEntryEdit(WhoEdit):
    """One line of the shop's log from a screen; the id is a UUID of version 7 made there."""

    id: str = Field(
        pattern=r"^[0-9a-f]{8}-[0-9a-f]{4}-7[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$"
    )
    entry: AnyShopAct


class TextLook(Model):
    """A line being typed."""

    text: str = Field(max_length=200)


class PairEdit(WhoEdit):
    """The code that the workshop's computer shows, and a name for this device."""

    code: str = Field(min_length=1, max_length=12)
    name: str = Field(min_length=1, max_length=40)


class DevicesView(BaseModel):
    """The address of Hollet on the workshop network, if it is open to it, and the devices."""

    address: str | None
    devices: list[DeviceView]


class QuantityEdit(Model):
    """A text being typed in a reading field."""

    text: str = Field(max_length=200)
    dimension: str | None = Field(default=None, max_length=20)
    unit: str | None = Field(default=None, max_length=20)
    tool: str | None = Field(default=None, max_length=64)


class ConversionEdit(Model):
    """A figure with its unit, as typed."""

    text: str = Field(max_length=60)


class StandsView(BaseModel):
    """What stands on a line that is about to be struck."""

    lines: list[str]


class RehearsalDeal(Model):
    """Which start: of a seed, or a new one; with a fault that is chosen, or dealt."""

    seed: Annotated[int, Field(ge=0, le=10**9)] | None = None
    fault: Annotated[str, Field(max_length=40)] | None = None


class RehearsalPlayed(Model):
    """What the hand did in a start."""

    seed: Annotated[int, Field(ge=0, le=10**9)]
    fault: Annotated[str, Field(max_length=40)] | None = None
    acts: Annotated[tuple[HandAct, ...], Field(max_length=400)]
