"""The ladder for a stuck part: from soaking to cutting, what each rung may harm, and when to stop
and get the right tool.

The rungs and their order are usual workshop practice. Heat is refused near fuel, dampers, seals and
heat-treated steering and suspension
parts, and after penetrating oil or cleaner until it is wiped off and the wait is over.
"""

from collections.abc import Sequence, Set
from typing import Literal

from pydantic import BaseModel, ConfigDict, computed_field

__all__ = ["NEAR", "Near", "Rung", "StuckFacts", "StuckRung", "StuckView", "Try", "stuck_ladder"]

StuckRung = Literal[
    "soak", "counter_hold", "partial_nut", "strike", "wedge", "puller", "heat", "cut"
]
Near = Literal["fuel", "damper", "seal", "heat_treated", "battery", "airbag", "alloy"]
NEAR: dict[Near, str] = {
    "fuel": "fuel line, tank or vapour",
    "damper": "damper or gas spring",
    "seal": "rubber seal, boot or bush",
    "heat_treated": "steering or suspension part, spring or other heat-treated part",
    "battery": "battery, charging or not",
    "airbag": "airbag or pretensioner",
    "alloy": "light-alloy housing",
}
SOAK_MIN = 8 * 60.0
STOP_TRIES = 3
NO_HEAT: tuple[Near, ...] = ("fuel", "damper", "seal", "heat_treated", "battery", "airbag")


class Rung(BaseModel):
    """One rung: what to do, what it may harm, when to stop."""

    model_config = ConfigDict(frozen=True, extra="forbid")
    id: StuckRung
    name: str
    do: str
    harm: str
    stop: str
    most_minutes: float


class Try(BaseModel):
    """One try that was made: the rung, minutes, whether it came, and how long ago it was, in
    minutes.
    """

    model_config = ConfigDict(frozen=True)
    rung: StuckRung
    minutes: float
    came: bool = False
    ago_minutes: float = 0.0


class StuckFacts(BaseModel):
    """What lies near the part; whether cleaner was on it; `wiped`: wiped dry, and the wait of 15
    min is over.
    """

    model_config = ConfigDict(frozen=True)
    near: tuple[Near, ...] = ()
    cleaned: bool = False
    wiped: bool = False


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


def stuck_ladder(
    rungs: Sequence[Rung], tries: Sequence[Try], facts: StuckFacts
) -> tuple[StuckView, ...]:
    """Each rung with what was tried and whether it is refused, and why.

    Heat is refused near `fuel`, `damper`, `seal`, `heat_treated`, `battery` and `airbag`, and, when
    anything was soaked or cleaned, until
    it is wiped dry and the wait is over. A rung is enough after `STOP_TRIES` tries or its own
    minutes.
    """
    near = set(facts.near)
    found = []
    for rung in rungs:
        own = [t for t in tries if t.rung == rung.id]
        minutes = sum(t.minutes for t in own)
        refusal = _refused(rung.id, near, tries, facts)
        state: Literal["free", "tried", "refused", "enough"]
        if refusal:
            state, words = "refused", refusal
        elif own and not own[-1].came and (len(own) >= STOP_TRIES or minutes > rung.most_minutes):
            state, words = "enough", f"{len(own)} tries, {minutes:g} min: {rung.stop}"
        elif own:
            state, words = "tried", "it came" if own[-1].came else _tried(own, minutes)
        else:
            state, words = "free", ""
        found.append(
            StuckView(
                **rung.model_dump(exclude={"most_minutes"}),
                state=state,
                words=words,
                tries=len(own),
                minutes=minutes,
            )
        )
    return tuple(found)


def _tried(own: Sequence[Try], minutes: float) -> str:
    soaking = own[-1].ago_minutes
    if own[-1].rung == "soak" and soaking < SOAK_MIN:
        return f"soaking for {soaking / 60:.1f} h; 8 h do most of it"
    return f"{len(own)} {'try' if len(own) == 1 else 'tries'}, {minutes:g} min, did not come"


def _refused(rung: str, near: Set[Near], tries: Sequence[Try], facts: StuckFacts) -> str:
    if rung == "heat":
        bad = next((NEAR[name] for name in NO_HEAT if name in near), None)
        if bad:
            return f"no heat here: {bad} is near"
        if (facts.cleaned or any(t.rung == "soak" for t in tries)) and not facts.wiped:
            return "wipe it dry first, then wait 15 min: no flame on penetrating oil or cleaner"
    if rung == "strike" and "airbag" in near:
        return "no blows near an airbag or pretensioner"
    if rung == "cut" and "fuel" in near:
        return "no sparks near fuel: cut by hand saw only after the fuel is out of the way"
    if rung == "cut" and near & {"airbag", "damper"}:
        return "never cut or drill a damper, a gas spring or an airbag"
    return ""
