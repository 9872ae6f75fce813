"""The workshop's own facts: its name and time zone."""

from typing import NamedTuple

from hollet.services.workshop import Workshop
from hollet.store.models import ShopRow

__all__ = ["ShopFacts", "shop_facts"]


class ShopFacts(NamedTuple):
    """Name and time zone of the shop."""

    name: str
    time_zone: str


def shop_facts(workshop: Workshop) -> ShopFacts:
    """What the frame says of the shop."""
    with workshop.database.read() as session:
        row = session.get(ShopRow, 1)
        assert row is not None
        return ShopFacts(row.name, row.time_zone)
