"""Tables. Plan tables carry a version against lost updates; `entry` is only ever inserted into."""

from sqlalchemy import ForeignKey, Integer, Text, UniqueConstraint
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column

__all__ = [
    "Base",
    "BuildRow",
    "DeviceRow",
    "EntryRow",
    "GearRow",
    "InstrumentRow",
    "SealRow",
    "SheetRow",
    "ShopRow",
    "VehicleRow",
]


class Base(DeclarativeBase):
    """Metadata of all tables."""


class ShopRow(Base):
    """The one workshop: its name and time zone."""

    __tablename__ = "shop"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    name: Mapped[str] = mapped_column(Text)
    time_zone: Mapped[str] = mapped_column(Text)
    currency: Mapped[str] = mapped_column(Text, default="", server_default="")
    version: Mapped[int] = mapped_column(Integer)


class VehicleRow(Base):
    """A vehicle; `about` is what the frame says of it, `facts` what was last known of it, JSON."""

    __tablename__ = "vehicle"
    id: Mapped[str] = mapped_column(Text, primary_key=True)
    name: Mapped[str] = mapped_column(Text)
    about: Mapped[str] = mapped_column(Text)
    version: Mapped[int] = mapped_column(Integer)
    facts: Mapped[str] = mapped_column(Text, default="{}", server_default="{}")


class BuildRow(Base):
    """A build; `plan` is the sheet as it stands now, JSON."""

    __tablename__ = "build"
    id: Mapped[str] = mapped_column(Text, primary_key=True)
    name: Mapped[str] = mapped_column(Text)
    vehicle: Mapped[str] = mapped_column(Text, ForeignKey("vehicle.id"))
    made: Mapped[str] = mapped_column(Text)
    plan: Mapped[str] = mapped_column(Text, default="")
    version: Mapped[int] = mapped_column(Integer, default=0)


class InstrumentRow(Base):
    """A tool of the shop, JSON of `core.instruments.Instrument`."""

    __tablename__ = "instrument"
    id: Mapped[str] = mapped_column(Text, primary_key=True)
    tool: Mapped[str] = mapped_column(Text)
    version: Mapped[int] = mapped_column(Integer)


class GearRow(Base):
    """A tool that does not measure, by its name in lower case: owned, borrowed, missing, broken or
    lent.
    """

    __tablename__ = "gear"
    id: Mapped[str] = mapped_column(Text, primary_key=True)
    name: Mapped[str] = mapped_column(Text)
    state: Mapped[str] = mapped_column(Text)
    whose: Mapped[str | None] = mapped_column(Text, nullable=True)
    back_by: Mapped[str | None] = mapped_column(Text, nullable=True)
    version: Mapped[int] = mapped_column(Integer)


class DeviceRow(Base):
    """A phone or tablet; of its token only the SHA-256 is kept."""

    __tablename__ = "device"
    id: Mapped[str] = mapped_column(Text, primary_key=True)
    name: Mapped[str] = mapped_column(Text)
    token_hash: Mapped[str] = mapped_column(Text, unique=True)
    made: Mapped[str] = mapped_column(Text)
    revoked: Mapped[str | None] = mapped_column(Text, nullable=True)


class SheetRow(Base):
    """A sheet that the user uploaded, TOML as it came."""

    __tablename__ = "sheet"
    id: Mapped[str] = mapped_column(Text, primary_key=True)
    title: Mapped[str] = mapped_column(Text)
    text: Mapped[str] = mapped_column(Text)
    version: Mapped[int] = mapped_column(Integer)


class EntryRow(Base):
    """One line of a log.

    `body` is the very text that was hashed; `sent` the hash of what the client sent; `rule` which
    fields the hash covers.
    """

    __tablename__ = "entry"
    __table_args__ = (UniqueConstraint("chain", "seq", name="uq_entry_chain_seq"),)
    id: Mapped[str] = mapped_column(Text, primary_key=True)
    chain: Mapped[str] = mapped_column(Text)
    seq: Mapped[int] = mapped_column(Integer)
    time: Mapped[str] = mapped_column(Text)
    bench_time: Mapped[str] = mapped_column(Text)
    who: Mapped[str] = mapped_column(Text)
    kind: Mapped[str] = mapped_column(Text)
    version: Mapped[int] = mapped_column(Integer)
    body: Mapped[str] = mapped_column(Text)
    strikes: Mapped[str | None] = mapped_column(Text, nullable=True)
    hash: Mapped[str] = mapped_column(Text)
    sent: Mapped[str] = mapped_column(Text)
    rule: Mapped[int] = mapped_column(Integer, default=1, server_default="1")


class SealRow(Base):
    """The seal of a record, by table and id; and one over how many there are."""

    __tablename__ = "seal"
    id: Mapped[str] = mapped_column(Text, primary_key=True)
    mark: Mapped[str] = mapped_column(Text)
