"""The workshop's own facts: its name, time zone and currency."""

from dataclasses import asdict
from zoneinfo import ZoneInfo, ZoneInfoNotFoundError

from pydantic import BaseModel

from hollet.core.entries import Note
from hollet.core.errors import Conflict, Refused
from hollet.services.workshop import SHOP, Workshop
from hollet.store.records import ShopRecord

__all__ = ["ShopFacts", "edit_shop", "shop_facts"]


class ShopFacts(BaseModel):
    """Name and time zone of the shop, and the currency in which it counts ('' while
    nobody said).
    """

    name: str
    time_zone: str
    currency: str
    version: int


def shop_facts(workshop: Workshop) -> ShopFacts:
    """What the frame says of the shop."""
    with workshop.store.read() as books:
        record = books.shop.get(1)
        assert record is not None
        return ShopFacts.model_validate(asdict(record))


def edit_shop(workshop: Workshop, facts: ShopFacts, who: str) -> ShopFacts:
    """Say anew what the shop is called, where its clock stands and in what it counts; `version` is
    the one that was looked at.

    Raises
    ------
    Refused
        `no_such_zone`: no time zone of that name; `bad_entry`: no name.
    Conflict
        Somebody said it anew meanwhile.
    """
    name, currency = facts.name.strip(), facts.currency.strip()
    if not name:
        raise Refused("bad_entry", "the shop needs a name, such as Workshop", field="name")
    try:
        ZoneInfo(facts.time_zone)
    except (ZoneInfoNotFoundError, ValueError) as error:
        raise Refused(
            "no_such_zone",
            f"'{facts.time_zone}' is no time zone: continent and town, such as Europe/London",
            field="time_zone",
        ) from error
    draft = workshop.draft(
        SHOP,
        Note(
            text=f"the shop: {name}, {facts.time_zone}, counts in {currency or 'no currency said'}"
        ),
        who,
    )
    with workshop.store.write() as books:
        record = books.shop.get(1)
        assert record is not None
        if record.version != facts.version:
            raise Conflict(
                "the shop was described anew by somebody else: look again", reason_code="moved_on"
            )
        books.shop.put(ShopRecord(1, name, facts.time_zone, currency, record.version + 1))
        books.log.append(draft)
    workshop.tell("", 0)
    return shop_facts(workshop)
