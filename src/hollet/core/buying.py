"""Small sums of buying and fetching: a part bought ahead against the wait for it, and the way to
fetch something against the fuel and the hour.
"""

from hollet.core.errors import Refused
from hollet.core.registry import Input, Result, calculation

__all__ = [
    "CHANCES",
    "BuyAhead",
    "FetchTrip",
    "buy_ahead",
    "chance_by_readings",
    "fetch_trip",
]

CHANCES = {"hardly": 0.1, "perhaps": 0.4, "likely": 0.8}
"""The three keys; assumed, for nobody counted."""


def chance_by_readings(beyond: int, of: int) -> float:
    """The chance that the next one lies beyond, `beyond` of `of` having done so: the rule of
    succession, (k + 1) / (n + 2), which never says never.

    Examples
    --------
    >>> chance_by_readings(2, 4), chance_by_readings(0, 0)
    (0.5, 0.5)
    """
    return (beyond + 1) / (of + 2)


class BuyAhead(Input):
    """What a part costs, how likely it is needed (0 to 1), how many days one waits for it then,
    what a day of waiting is worth, and what it still fetches if it is not needed.
    """

    price: float
    chance: float
    wait_days: float
    a_day: float = 0
    resale: float = 0


class BuyAheadResult(Result):
    """What it costs on average when bought now, and when bought only once it is needed."""

    now: float
    later: float
    better: str


def _money(value: float, field: str) -> float:
    if value < 0:
        raise Refused("negative_money", f"'{field}' must be zero or more", field=field)
    return value


@calculation("A part bought ahead, or when it is needed")
def buy_ahead(i: BuyAhead) -> BuyAheadResult:
    """now = price - (1 - p) resale; later = p (price + days x what a day is worth); expected cost.

    Refuses `negative_money`, `bad_chance` (not from 0 to 1), `negative_wait`.

    Example
    -------
    >>> found = buy_ahead(BuyAhead(price=4.2, chance=0.4, wait_days=6, a_day=5))
    >>> found.now, round(found.later, 2), found.better
    (4.2, 13.68, 'now')
    """
    price, a_day = _money(i.price, "price"), _money(i.a_day, "a_day")
    resale = _money(i.resale, "resale")
    if not 0 <= i.chance <= 1:
        raise Refused("bad_chance", "'chance' must lie between 0 and 1", field="chance")
    if i.wait_days < 0:
        raise Refused("negative_wait", "'wait_days' must be zero or more", field="wait_days")
    now = price - (1 - i.chance) * resale
    later = i.chance * (price + i.wait_days * a_day)
    back = f" - {1 - i.chance:.2f} x {resale:.2f} back" if resale else ""
    return BuyAheadResult(
        now=now,
        later=later,
        better="now" if now <= later else "later",
        working=(
            f"now: {price:.2f}{back} = {now:.2f}",
            f"only when it is needed: {i.chance:.2f} x ({price:.2f} + {i.wait_days:g} days x "
            f"{a_day:.2f}) = {later:.2f}",
        ),
    )


class FetchTrip(Input):
    """A way there and back: km one way, km/h on average, minutes of stops in all and of loading
    there, km that the tank reaches and that stay in it, and in how many minutes the place closes.
    """

    distance_km: float
    speed_km_h: float
    tank_reaches_km: float
    closes_in_min: float
    stops_min: float = 0
    loading_min: float = 15
    reserve_km: float = 50


class FetchTripResult(Result):
    """The whole way in km and time in minutes; the latest moment to leave; km to spare."""

    way_km: float
    away_min: float
    leave_within_min: float
    to_spare_km: float
    in_time: bool
    fuel_enough: bool


@calculation("Fetching something: time and fuel")
def fetch_trip(i: FetchTrip) -> FetchTripResult:
    """way = 2 d; away = 2 d / v + stops + loading; leave within = closing - d / v - half the stops;
    to spare = tank - way - reserve.

    Refuses `no_way` (a distance or speed of zero or less), `negative_time`, `negative_range`.

    Example
    -------
    >>> found = fetch_trip(FetchTrip(distance_km=60, speed_km_h=60, tank_reaches_km=200,
    ...     closes_in_min=120))
    >>> found.way_km, found.away_min, found.leave_within_min, found.to_spare_km
    (120.0, 135.0, 60.0, 30.0)
    """
    for field in ("distance_km", "speed_km_h"):
        if getattr(i, field) <= 0:
            raise Refused("no_way", f"'{field}' must be more than zero", field=field)
    for field in ("stops_min", "loading_min", "closes_in_min"):
        if getattr(i, field) < 0:
            raise Refused("negative_time", f"'{field}' must be zero or more", field=field)
    for field in ("tank_reaches_km", "reserve_km"):
        if getattr(i, field) < 0:
            raise Refused("negative_range", f"'{field}' must be zero or more", field=field)
    one_way = i.distance_km / i.speed_km_h * 60
    away = 2 * one_way + i.stops_min + i.loading_min
    leave = i.closes_in_min - one_way - i.stops_min / 2
    left = i.tank_reaches_km - 2 * i.distance_km - i.reserve_km
    late = "it closes before you are there"
    empty = "the tank does not reach there and back with the reserve: fill up on the way"
    return FetchTripResult(
        way_km=2 * i.distance_km,
        away_min=away,
        leave_within_min=leave,
        to_spare_km=left,
        in_time=leave >= 0,
        fuel_enough=left >= 0,
        working=(
            f"one way {one_way:.0f} min, there and back with stops and loading {away:.0f} min",
            f"leave within {leave:.0f} min" if leave >= 0 else late,
            f"{left:.0f} km to spare" if left >= 0 else empty,
        ),
    )
