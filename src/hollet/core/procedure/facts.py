"""Facts of a vehicle, and conditions on them: a step applies, does not, or nobody knows yet; each
answer with its evidence.
"""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
from typing import Annotated, Literal

from pydantic import Field, model_validator

from hollet.core.procedure.words import Id, Part, Words

__all__ = ["FACTS", "Applies", "Condition", "Fact", "Known", "applies"]

Answer = Literal["yes", "no", "unknown"]


class Fact(Part):
    """One thing to know of a vehicle: its values, or a year when there are none."""

    id: Id
    name: Words
    value: tuple[str, ...] = ()
    asks: Words | None = None


def _yes_no(fact: str, name: str) -> Fact:
    return Fact(id=fact, name=name, value=("yes", "no"))


_SPRINGS = ("coil", "leaf", "torsion bar", "air")
FACTS = {
    fact.id: fact
    for fact in (
        Fact(id="drive", name="Driven wheels", value=("front", "rear", "four")),
        Fact(id="engine_position", name="Engine", value=("front", "mid", "rear")),
        Fact(id="fuel", name="Fuel", value=("petrol", "diesel")),
        Fact(id="fuel_feed", name="Fuel feed", value=("carburettor", "injection")),
        Fact(id="ignition", name="Ignition", value=("points", "electronic", "coil packs", "none")),
        Fact(id="clutch", name="Clutch actuation", value=("cable", "rod", "hydraulic", "none")),
        Fact(id="gearbox", name="Gearbox", value=("manual", "automatic")),
        Fact(id="front_springs", name="Front springs", value=_SPRINGS),
        Fact(id="rear_springs", name="Rear springs", value=_SPRINGS),
        Fact(id="rear_axle", name="Rear axle", value=("live", "independent", "dead beam")),
        Fact(id="camshaft_drive", name="Camshaft drive", value=("chain", "belt", "gears")),
        _yes_no("transfer_case", "Transfer case"),
        _yes_no("air_conditioning", "Air conditioning"),
        _yes_no("cruise_control", "Cruise control"),
        _yes_no("speed_cable", "Speedometer cable"),
        _yes_no("power_steering", "Power steering"),
        _yes_no("turbo", "Turbocharger"),
        Fact(id="year", name="Model year"),
        Fact(
            id="standing",
            name="Stood still",
            value=("in use", "months", "over a year", "over five years", "nobody knows"),
        ),
        Fact(id="damp", name="Where it stood", value=("dry", "damp", "nobody knows")),
        Fact(id="valve_seats", name="Valve seats", value=("hard", "soft", "nobody knows")),
        Fact(id="history", name="History", value=("known", "gaps", "unknown")),
        Fact(
            id="fuel_spirit",
            name="Spirit in the fuel",
            value=("none", "up to 10 %", "more", "nobody knows"),
        ),
    )
}


class Condition(Part):
    """What must hold: a fact, the way chosen of a school, an extra said yes to, or an option of a
    part.

    Exactly one of `fact`, `school`, `extra` and `part`; values by `one_of`, a year by `since` and
    `until` (both included).
    """

    fact: Id | None = None
    school: Id | None = None
    extra: Id | None = None
    part: Id | None = None
    one_of: tuple[str, ...] = ()
    since: Annotated[int, Field(ge=1880, le=2200)] | None = None
    until: Annotated[int, Field(ge=1880, le=2200)] | None = None

    @model_validator(mode="after")
    def _one_subject(self) -> "Condition":
        if sum(x is not None for x in (self.fact, self.school, self.extra, self.part)) != 1:
            raise ValueError("a condition names exactly one of fact, school, extra and part")
        if self.extra is None and not self.one_of and self.since is None and self.until is None:
            raise ValueError("a condition needs one_of, since or until")
        if self.since is not None and self.until is not None and self.since > self.until:
            raise ValueError("since lies after until")
        return self


@dataclass(frozen=True, slots=True)
class Known:
    """What is known when conditions are looked at; `names` gives words for ids."""

    facts: Mapping[str, str] = field(default_factory=dict)
    ways: Mapping[str, str] = field(default_factory=dict)
    extras: Mapping[str, bool] = field(default_factory=dict)
    parts: Mapping[str, str] = field(default_factory=dict)
    names: Mapping[str, str] = field(default_factory=dict)


@dataclass(frozen=True, slots=True)
class Applies:
    """Whether all conditions hold, and the words that say why."""

    answer: Answer
    because: tuple[str, ...] = ()


def _one(condition: Condition, known: Known) -> tuple[Answer, str]:
    subject = condition.fact or condition.school or condition.extra or condition.part or ""
    name = known.names.get(subject, subject)
    if condition.extra is not None:
        wanted = known.extras.get(condition.extra)
        said = {True: "wanted", False: "not wanted", None: "nobody has said yes to it"}[wanted]
        return ("yes" if wanted else "no"), f"{name}: {said}"
    source = known.facts if condition.fact else known.ways if condition.school else known.parts
    value = source.get(subject)
    if value is None:
        return "unknown", f"{name}: not known yet"
    words = f"{name}: {known.names.get(f'{subject}.{value}', value)}"
    if condition.one_of:
        return ("yes" if value in condition.one_of else "no"), words
    year = int(value) if value.isdecimal() else None
    if year is None:
        return "unknown", f"{name}: '{value}' is no year"
    holds = (condition.since is None or year >= condition.since) and (
        condition.until is None or year <= condition.until
    )
    return ("yes" if holds else "no"), words


def applies(conditions: Iterable[Condition], known: Known) -> Applies:
    """All conditions together: one "no" decides; else one unknown leaves it unknown.

    Examples
    --------
    >>> known = Known(facts={"drive": "rear"}, names={"drive": "Driven wheels"})
    >>> applies([Condition(fact="drive", one_of=("four",))], known)
    Applies(answer='no', because=('Driven wheels: rear',))
    """
    found = [_one(condition, known) for condition in conditions]
    for answer in ("no", "unknown"):
        because = tuple(words for said, words in found if said == answer)
        if because:
            return Applies("no" if answer == "no" else "unknown", because)
    return Applies("yes", tuple(words for _, words in found))
