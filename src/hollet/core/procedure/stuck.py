"""The ladder for a stuck part: from what still holds it to what is left when it broke; what each
rung may harm, and when to stop and get the right tool.

The rungs and their order are usual workshop practice, and so are spans: rules of thumb, the maker's
figure goes first. What was once said of a part, that a tyre is near or that nobody knows the
cleaner, holds for every later try on it.
"""

from collections.abc import Mapping, Sequence
from typing import Literal

from pydantic import BaseModel, ConfigDict, Field, computed_field

__all__ = [
    "CLEANERS",
    "NEAR",
    "NUTS",
    "Cleaner",
    "Near",
    "Nut",
    "Rung",
    "StuckFacts",
    "StuckRung",
    "StuckView",
    "Try",
    "all_said",
    "stuck_ladder",
]

StuckRung = Literal[
    "held_by",
    "soak",
    "counter_hold",
    "work",
    "impact",
    "strike",
    "wedge",
    "puller",
    "heat",
    "flame",
    "saw",
    "cut",
    "broken",
]
Near = Literal[
    "fuel",
    "battery",
    "airbag",
    "damper",
    "tyre",
    "sealed",
    "pressure",
    "loaded_spring",
    "heat_treated",
    "alloy",
    "magnesium",
    "plated",
    "lining",
    "open_bearing",
    "seal",
    "rubber_mount",
    "wiring",
    "sensor",
    "hot",
]
NEAR: dict[Near, str] = {
    "fuel": "fuel or its vapour",
    "battery": "battery",
    "airbag": "airbag or pretensioner",
    "damper": "damper or gas spring",
    "tyre": "wheel with its tyre on",
    "sealed": "hollow, plugged or filled part",
    "pressure": "brake, steering or refrigerant line",
    "loaded_spring": "loaded spring, part under tension",
    "heat_treated": "steering, suspension, heat-treated part",
    "alloy": "light alloy",
    "magnesium": "magnesium",
    "plated": "zinc or cadmium",
    "lining": "brake or clutch lining, disc face",
    "open_bearing": "bearing, open or one that stays",
    "seal": "rubber seal or boot",
    "rubber_mount": "rubber mount or bush",
    "wiring": "wiring",
    "sensor": "oxygen sensor",
    "hot": "a hot exhaust",
}
Cleaner = Literal["none", "without chlorine", "with chlorine", "nobody knows"]
CLEANERS: tuple[Cleaner, ...] = ("none", "without chlorine", "with chlorine", "nobody knows")
"""From the harmless to the worst: the worst that was said of a part holds."""
Nut = Literal["level", "no thread", "bare"]
NUTS: dict[Nut, str] = {
    "level": "a nut is on, level with the thread end",
    "no thread": "no thread end is struck or pulled",
    "bare": "the thread end is bare",
}
SOAK_MIN = 8 * 60.0
"""Minutes in which penetrating oil does most of what it does: a rule of thumb, 2 to 24 h."""

WAIT_MIN = 15.0
"""Minutes from the last oil, wiped off, to the first flame or spark: a rule of thumb."""

_BURNS: tuple[Near, ...] = (
    "fuel",
    "battery",
    "airbag",
    "damper",
    "tyre",
    "sealed",
    "pressure",
    "loaded_spring",
    "magnesium",
    "lining",
    "wiring",
)
_HEAT: tuple[Near, ...] = (*_BURNS, "heat_treated", "seal", "rubber_mount")
_BURSTS: tuple[Near, ...] = ("airbag", "damper", "sealed", "pressure", "loaded_spring", "lining")
_REFUSED: Mapping[StuckRung, tuple[Near, ...]] = {
    "soak": ("lining", "rubber_mount", "sensor", "hot"),
    "impact": ("airbag", "alloy", "magnesium", "heat_treated"),
    "strike": ("airbag", "damper", "alloy", "magnesium", "sealed", "open_bearing"),
    "puller": ("airbag",),
    "heat": _HEAT,
    "flame": (*_HEAT, "alloy"),
    "saw": _BURSTS,
    "cut": _BURNS,
    "broken": _BURSTS,
}
_WARNED: Mapping[tuple[StuckRung, Near], str] = {
    ("soak", "seal"): "by a brush, not on the rubber: it swells",
    ("strike", "heat_treated"): (
        "a taper joint: on the boss from the side, a heavy hammer held against it, never on the "
        "thread"
    ),
    ("wedge", "seal"): "a fork wedge cuts the boot: only where boot or joint is replaced",
    ("heat", "alloy"): (
        "hot air or oven and a temperature stick: at most 120 °C near a bearing, 150 °C bare (rule "
        "of thumb 100 to 180); alloy shows no colour before it sags"
    ),
    ("heat", "plated"): "fresh air: its fume makes ill",
    ("flame", "plated"): "fresh air: its fume makes ill",
    ("cut", "plated"): "fresh air: its fume makes ill",
    ("heat", "open_bearing"): "covered; reckoned as spoilt and named",
    ("flame", "open_bearing"): "covered; reckoned as spoilt and named",
    ("cut", "open_bearing"): "covered from the dust",
    ("cut", "seal"): "covered from the sparks",
}
_SPARKS: tuple[StuckRung, ...] = ("heat", "flame", "cut")
_NEEDS_NUT: tuple[StuckRung, ...] = ("strike", "puller")
_POISON = "chlorinated or unknown cleaner stays in every gap and makes poison gas: never again here"


class Rung(BaseModel):
    """One rung: what to do, what it may harm, when to stop: after so many minutes, minutes, or
    tries.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")
    id: StuckRung
    name: str
    do: str
    harm: str
    stop: str
    most_minutes: float
    most_tries: int | None = None


class StuckFacts(BaseModel):
    """What lies near the part; which cleaner was on it; `wiped`: wiped dry, and the wait of 15 min
    is over; `nut`: what stands on the thread that a blow or a puller would meet.
    """

    model_config = ConfigDict(frozen=True)
    near: tuple[Near, ...] = Field((), max_length=len(NEAR))
    cleaner: Cleaner = "none"
    wiped: bool = False
    nut: Nut | None = None


class Try(BaseModel):
    """One try that was made: the rung, minutes, whether it came, how long ago it was, in minutes,
    and what was said with it. `wait`: a soak that a step of the sheet began.
    """

    model_config = ConfigDict(frozen=True)
    rung: str
    minutes: float
    came: bool = False
    ago_minutes: float = 0.0
    near: tuple[Near, ...] = ()
    cleaner: Cleaner = "none"


class StuckView(BaseModel):
    """One rung as it stands now: `state` is free, tried, refused or enough."""

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)
    id: StuckRung
    name: str
    do: str
    harm: str
    stop: str
    state: Literal["free", "tried", "refused", "enough"]
    words: str
    tries: int
    minutes: float

    @computed_field
    @property
    def refused(self) -> bool:
        """Whether it may not be tried here and now."""
        return self.state == "refused"

    @computed_field
    @property
    def long(self) -> bool:
        """Whether its tries are hours of soaking, not minutes of work."""
        return self.id == "soak"


def all_said(tries: Sequence[Try], facts: StuckFacts) -> StuckFacts:
    """The facts with all that was said of this part before: nothing near it goes away for not being
    said again, and the worst cleaner holds.
    """
    near = {n for t in tries for n in t.near} | set(facts.near)
    worst = max((t.cleaner for t in tries), key=CLEANERS.index, default=facts.cleaner)
    cleaner = max(worst, facts.cleaner, key=CLEANERS.index)
    return facts.model_copy(
        update={"near": tuple(n for n in NEAR if n in near), "cleaner": cleaner}
    )


def stuck_ladder(
    rungs: Sequence[Rung], tries: Sequence[Try], facts: StuckFacts
) -> tuple[StuckView, ...]:
    """Each rung with what was tried and whether it is refused, and why.

    Heat, flame and sparks are refused near all that burns, bursts or loses its strength; when
    anything was soaked or cleaned, until it is wiped dry and the wait is over; and for good where
    the cleaner had chlorine or nobody knows. A blow and a puller ask for the nut first. A rung is
    enough after its own minutes or tries; soaking by its hours alone.
    """
    said = all_said(tries, facts)
    found = []
    for rung in rungs:
        own = [t for t in tries if t.rung == rung.id]
        minutes = sum(t.minutes for t in own)
        most = rung.most_tries
        refusal = _refused(rung.id, tries, said)
        state: Literal["free", "tried", "refused", "enough"]
        if refusal:
            state, words = "refused", refusal
        elif (
            own
            and not own[-1].came
            and (minutes > rung.most_minutes or (most is not None and len(own) >= most))
        ):
            state, words = "enough", f"{_spent(own, minutes)}: {rung.stop}"
        elif own:
            state, words = "tried", "it came" if own[-1].came else _tried(own, minutes)
        else:
            state, words = "free", ""
        warned = [_WARNED[rung.id, n] for n in said.near if (rung.id, n) in _WARNED]
        if state != "refused":
            words = "; ".join(w for w in (words, *dict.fromkeys(warned)) if w)
        found.append(
            StuckView(
                **rung.model_dump(exclude={"most_minutes", "most_tries"}),
                state=state,
                words=words,
                tries=len(own),
                minutes=minutes,
            )
        )
    return tuple(found)


def _spent(own: Sequence[Try], minutes: float) -> str:
    if own[-1].rung == "soak":
        return f"soaked for {minutes / 60:.0f} h"
    return f"{len(own)} {'try' if len(own) == 1 else 'tries'}, {minutes:g} min"


def _tried(own: Sequence[Try], minutes: float) -> str:
    soaking = own[-1].ago_minutes
    if own[-1].rung == "soak" and soaking < SOAK_MIN:
        return f"soaking for {soaking / 60:.1f} h; 8 h do most of it (rule of thumb 2 to 24)"
    return f"{_spent(own, minutes)}, did not come"


def _refused(rung: StuckRung, tries: Sequence[Try], said: StuckFacts) -> str:
    bad = next((NEAR[n] for n in said.near if n in _REFUSED.get(rung, ())), None)
    if bad is not None:
        return f"not here: {bad} is near"
    if rung in _SPARKS:
        if said.cleaner in ("with chlorine", "nobody knows"):
            return _POISON
        wet = [t.ago_minutes for t in tries if t.rung == "soak"]
        if wet and min(wet) < WAIT_MIN:
            return f"soaked {min(wet):.0f} min ago: wipe it dry and wait {WAIT_MIN:g} min"
        if (wet or said.cleaner != "none") and not said.wiped:
            return (
                "wipe it dry first, then wait 15 min: no flame and no spark on oil, cleaner or "
                "their vapour"
            )
    if rung in _NEEDS_NUT and said.nut is None:
        return "say first what stands on the thread end"
    if rung in _NEEDS_NUT and said.nut == "bare":
        return "a bare thread end mushrooms: run a nut on, level with it, first"
    return ""
