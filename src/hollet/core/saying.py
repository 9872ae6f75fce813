"""What is typed about parts in one line, and days as they are said: "2 x head gasket WG-201, 24.50,
Fri".
"""

import re
from datetime import date, timedelta

from pydantic import BaseModel, ConfigDict

from hollet.core.errors import Refused
from hollet.core.words import counted

__all__ = ["WantedLine", "day_due", "due_words", "read_day", "read_wanted"]

DAYS = ("mon", "tue", "wed", "thu", "fri", "sat", "sun")
MONTHS = ("jan", "feb", "mar", "apr", "may", "jun", "jul", "aug", "sep", "oct", "nov", "dec")
DAY_FORM = "such as Fri, 3 Dec, tomorrow or 2026-12-03"
FORM = "such as 2 x head gasket WG-201, 24.50, Fri"
FAR = timedelta(days=366 * 2)


class WantedLine(BaseModel):
    """So many of a part, its number, what one costs, and until when."""

    model_config = ConfigDict(frozen=True)
    count: int
    name: str
    number: str | None
    price: float | None
    by: date | None


def _a_day(text: str, today: date) -> date | None:
    """The day that a text names; None where it names none."""
    words = text.casefold().strip().rstrip(".")
    if words in ("today", "tonight"):
        return today
    if words == "tomorrow":
        return today + timedelta(days=1)
    ahead = re.fullmatch(r"in (\d{1,3}) (day|week)s?", words)
    if ahead:
        return today + timedelta(days=int(ahead[1]) * (7 if ahead[2] == "week" else 1))
    if words[:3] in DAYS and re.fullmatch(r"[a-z]+day|[a-z]{3}", words):
        return today + timedelta(days=(DAYS.index(words[:3]) - today.weekday() - 1) % 7 + 1)
    found = re.fullmatch(r"(\d{4})-(\d{1,2})-(\d{1,2})", words)
    if found:
        return _date(int(found[1]), int(found[2]), int(found[3]))
    named = re.fullmatch(r"(?:[a-z]{3} )?(\d{1,2}) ([a-z]{3})[a-z]*(?: (\d{4}))?", words)
    named = named or re.fullmatch(r"(?:[a-z]{3} )?(?P<m>[a-z]{3})[a-z]* (?P<d>\d{1,2})()", words)
    if named is None:
        return None
    day, month, year = (
        (named["d"], named["m"], None) if "m" in named.groupdict() else named.groups()
    )
    if month not in MONTHS:
        return None
    number = MONTHS.index(month) + 1
    if year:
        return _date(int(year), number, int(day))
    this = _date(today.year, number, int(day))
    return this if this is None or this >= today else _date(today.year + 1, number, int(day))


def _date(year: int, month: int, day: int) -> date | None:
    try:
        return date(year, month, day)
    except ValueError:
        return None


def read_day(text: str, today: date, field: str, *, past: bool = False) -> date:
    """A day as it is said; of a weekday the coming one.

    Raises
    ------
    Refused
        `bad_day`: no day, or one that is gone by (unless `past`), or more than two years ahead.

    Examples
    --------
    >>> thursday = date(2026, 11, 26)
    >>> read_day("Fri", thursday, "promised"), read_day("3 Dec", thursday, "promised")
    (datetime.date(2026, 11, 27), datetime.date(2026, 12, 3))
    >>> read_day("Thu", thursday, "promised")
    datetime.date(2026, 12, 3)
    """
    found = _a_day(text, today)
    if found is None:
        raise Refused("bad_day", f"'{text.strip()}' is no day: {DAY_FORM}", field=field)
    if found < today and not past:
        raise Refused("bad_day", f"'{text.strip()}' is gone by: {found} lies behind", field=field)
    if abs(found - today) > FAR:
        raise Refused("bad_day", f"'{text.strip()}' is more than two years away", field=field)
    return found


def read_wanted(text: str, today: date) -> WantedLine:
    """A part in one line: the count first (1 when left out), then the name and its number, then the
    price of one and the day by which it is wanted, behind commas in any order.

    Raises
    ------
    Refused
        `bad_want`, `bad_day`: what cannot be read, and what would be right.

    Examples
    --------
    >>> line = read_wanted("2 x head gasket WG-201, 24.50, Fri", date(2026, 11, 26))
    >>> line.count, line.name, line.number, line.price, line.by.isoformat()
    (2, 'head gasket', 'WG-201', 24.5, '2026-11-27')
    >>> read_wanted("roll pin", date(2026, 11, 26)).count
    1
    """
    joined = re.sub(r"(?<=\d),(?=\d\d(?:\D|$))", ".", text.strip())
    head, *rest = [part.strip() for part in joined.split(",")]
    counted = re.match(r"^(\d+)\s*(?:x|×)?\s+(?=\D)(.+)$", head)
    count, named = (int(counted[1]), counted[2].strip()) if counted else (1, head)
    if not 1 <= count <= 999:
        raise Refused("bad_want", f"'{text.strip()}': the count is 1 to 999", field="typed")
    words = named.split()
    number = None
    if len(words) > 1 and re.search(r"\d", words[-1]) and re.search(r"[A-Z]", words[-1]):
        if not re.match(r"^[Mm]\d", words[-1]):
            number = words.pop()
    name = " ".join(words)
    if not re.search(r"[^\W\d_]{2}", name):
        raise Refused("bad_want", f"'{text.strip()}' names no part: {FORM}", field="typed")
    price, by = None, None
    for part in (p for p in rest if p):
        money = re.fullmatch(r"(\d{1,6}(?:\.\d{1,2})?)(?: each)?", part)
        if money and price is None:
            price = float(money[1])
        elif by is None and (day := _a_day(part, today)) is not None:
            by = read_day(part, today, "typed") if day else None
        else:
            raise Refused(
                "bad_want", f"'{part}' is neither a price nor a day: {FORM}", field="typed"
            )
    return WantedLine(count=count, name=name[:120], number=number, price=price, by=by)


def due_words(days: int) -> str:
    """How far off a day is.

    Examples
    --------
    >>> due_words(-2), due_words(0), due_words(1), due_words(5)
    ('2 days late', 'today', 'tomorrow', 'in 5 days')
    """
    if days < 0:
        return f"{counted(-days, 'day')} late"
    return {0: "today", 1: "tomorrow"}.get(days, f"in {days} days")


def day_due(day: date) -> str:
    """A day as a desk says it: `Sat 28 Nov`."""
    return f"{day:%a} {day.day} {day:%b}"
