"""When something is looked at again, as mechanics write it: a distance, days, or a day."""

import re
from datetime import date

from hollet.core.errors import Refused
from hollet.core.procedure.joints import LookWhen
from hollet.core.quantities.parse import measured

__all__ = ["read_when"]

DAYS = {"day": 1, "week": 7, "month": 30, "year": 365}
FORM = "a distance, a time or a day: 1000 km, 3 weeks, 2027-03-01, each trip, or two of them"


def read_when(text: str, today: date) -> LookWhen:
    """A distance, a span or a day, or several, whichever comes first.

    Raises
    ------
    Refused
        `bad_when`: nothing of the kind in it, or a day that is past.

    Examples
    --------
    >>> found = read_when("at 1000 km or 3 weeks", date(2026, 3, 1))
    >>> found.km, found.days
    (1000, 21)
    """
    km = re.search(r"(\d[\d ]*(?:\.\d+)?)\s*(km|mi|miles?)\b", text, re.IGNORECASE)
    span = re.search(r"(\d+)\s*(day|week|month|year)s?\b", text, re.IGNORECASE)
    day = re.search(r"\b(\d{4}-\d{2}-\d{2})\b", text)
    cycles = re.search(r"(\d+)\s*heat cycles?\b", text, re.IGNORECASE)
    found: dict[str, int] = {}
    if km is not None:
        figure = measured(km[1].replace(" ", ""), "distance", km[2].lower()[:2], "recheck")
        found["km"] = round(figure.figure("distance"))
    if span is not None:
        found["days"] = int(span[1]) * DAYS[span[2].lower()]
    if day is not None:
        left = (_day(day[1]) - today).days
        found["days"] = min(left, int(found.get("days", left)))
    if re.search(r"\btomorrow\b", text, re.IGNORECASE):
        found["days"] = 1
    if re.search(r"\b(each|every|before (the|a)) trip\b", text, re.IGNORECASE):
        found["trip"] = True
    if cycles is not None:
        found["cycles"] = int(cycles[1])
    if not found or any(value <= 0 for value in found.values()):
        raise Refused("bad_when", f"'{text}': say when in {FORM}", field="recheck")
    return LookWhen.model_validate(found)


def _day(text: str) -> date:
    try:
        return date.fromisoformat(text)
    except ValueError as error:
        raise Refused("bad_when", f"'{text}' is no day: {FORM}", field="recheck") from error
