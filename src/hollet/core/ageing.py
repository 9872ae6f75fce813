"""What is suspect for its age alone: long standing, an unknown history, the kind of fuel.

Even when it looks good.
"""

from collections.abc import Mapping

from pydantic import BaseModel, ConfigDict

__all__ = ["Suspect", "suspects"]

LONG = ("over a year", "over five years", "nobody knows")
YEARS = ("over five years", "nobody knows")


class Suspect(BaseModel):
    """A kind of part that is not to be trusted for looking good, the reason, and what to do about
    it.
    """

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)
    thing: str
    because: str
    do: str


RULES: tuple[tuple[str, tuple[str, ...], Suspect], ...] = (
    (
        "standing",
        LONG,
        Suspect(
            thing="Fuel and what it stood in",
            because="petrol turns to gum, water gathers at the bottom",
            do="drain it, look into tank, pump and filter",
        ),
    ),
    (
        "standing",
        LONG,
        Suspect(
            thing="Brake and clutch fluid",
            because="it takes up water through hoses and vent",
            do="renew it from a fresh, closed container",
        ),
    ),
    (
        "standing",
        LONG,
        Suspect(
            thing="Bores and rings",
            because="a ring rusts to its bore where it stood",
            do="oil through the plug holes, turn by hand before anything cranks",
        ),
    ),
    (
        "standing",
        YEARS,
        Suspect(
            thing="Shaft seals and rubber hoses",
            because="a lip hardens and takes the shape of the shaft",
            do="renew what is reached only now, even if it is soft",
        ),
    ),
    (
        "standing",
        YEARS,
        Suspect(
            thing="Valve guides and stems",
            because="varnish and rust make a valve stick, and a piston meets it",
            do="turn by hand, watch every valve close",
        ),
    ),
    (
        "standing",
        YEARS,
        Suspect(
            thing="Tyres and belts",
            because="cords and rubber age while standing",
            do="look at the date, renew belts",
        ),
    ),
    (
        "history",
        ("gaps", "unknown"),
        Suspect(
            thing="Timing belt or chain tensioner",
            because="nobody can say when it was done",
            do="reckon it as due",
        ),
    ),
    (
        "history",
        ("gaps", "unknown"),
        Suspect(
            thing="All fluids",
            because="of unknown kind, perhaps mixed",
            do="drain, look, fill by the book",
        ),
    ),
    (
        "history",
        ("unknown",),
        Suspect(
            thing="Oversizes and shims already fitted",
            because="somebody may have been inside",
            do="measure everything, trust no standard size",
        ),
    ),
    (
        "fuel_spirit",
        ("up to 10 %", "more", "nobody knows"),
        Suspect(
            thing="Fuel hoses, diaphragms, float and pump seals",
            because="spirit in the fuel swells old rubber and eats zinc",
            do="renew with material made for it",
        ),
    ),
    (
        "fuel_spirit",
        ("more", "nobody knows"),
        Suspect(
            thing="Valve seats and fuel pump",
            because="it burns leaner and takes up water",
            do="check mixture and seats",
        ),
    ),
)


def suspects(facts: Mapping[str, str]) -> tuple[Suspect, ...]:
    """What the facts `standing`, `history` and `fuel_spirit` make suspect; nothing is suspect for a
    fact that nobody gave.
    """
    return tuple(suspect for fact, values, suspect in RULES if facts.get(fact) in values)
