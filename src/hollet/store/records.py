"""What the store keeps, as plain values: a line of a log, and the rows of the plan's tables."""

from dataclasses import dataclass

from hollet.core.entries import Body

__all__ = [
    "BuildRecord",
    "DeviceRecord",
    "Draft",
    "GearRecord",
    "InstrumentRecord",
    "Line",
    "PlanRecord",
    "Record",
    "SheetRecord",
    "ShopRecord",
    "VehicleRecord",
]


@dataclass(frozen=True, slots=True)
class Draft:
    """An entry before it has its place in a chain."""

    id: str
    chain: str
    time: str
    bench_time: str
    who: str
    body: Body
    sent: str = ""


@dataclass(slots=True)
class Line:
    """One stored entry, read as plain values: a log of 100,000 is read in one go.

    `body` is the very text that was hashed; `sent` the hash of what the client sent; `rule` says
    which fields the hash covers.
    """

    id: str
    chain: str
    seq: int
    time: str
    bench_time: str
    who: str
    kind: str
    version: int
    body: str
    hash: str
    sent: str
    strikes: str | None
    rule: int


@dataclass(frozen=True, slots=True)
class ShopRecord:
    """The one workshop, id 1: its name, time zone and currency."""

    id: int
    name: str
    time_zone: str
    currency: str
    version: int


@dataclass(frozen=True, slots=True)
class VehicleRecord:
    """A vehicle; `about` is what the frame says of it, `facts` what was last known of it, JSON."""

    id: str
    name: str
    about: str
    facts: str
    version: int


@dataclass(frozen=True, slots=True)
class BuildRecord:
    """A build, without its plan."""

    id: str
    name: str
    vehicle: str
    made: str


@dataclass(frozen=True, slots=True)
class PlanRecord:
    """The plan of a build as it stands now, JSON; it is put after its build."""

    id: str
    plan: str
    version: int


@dataclass(frozen=True, slots=True)
class InstrumentRecord:
    """A tool of the shop, JSON of `core.instruments.Instrument`."""

    id: str
    tool: str
    version: int


@dataclass(frozen=True, slots=True)
class GearRecord:
    """A tool that does not measure, by its name in lower case."""

    id: str
    name: str
    state: str
    whose: str | None
    back_by: str | None
    version: int


@dataclass(frozen=True, slots=True)
class DeviceRecord:
    """A phone or tablet; of its token only the SHA-256 is kept."""

    id: str
    name: str
    token_hash: str
    made: str
    revoked: str | None


@dataclass(frozen=True, slots=True)
class SheetRecord:
    """A sheet that the user uploaded, TOML as it came."""

    id: str
    title: str
    text: str
    version: int


Record = (
    ShopRecord
    | VehicleRecord
    | BuildRecord
    | PlanRecord
    | InstrumentRecord
    | GearRecord
    | DeviceRecord
    | SheetRecord
)
