"""Fault trees: what a symptom can come from, the tests that split the causes, what stops it at
once.
"""

from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field, model_validator

from hollet.core.procedure.words import Rung

__all__ = [
    "ALWAYS",
    "Engine",
    "Colour",
    "FaultCause",
    "FaultTest",
    "Rhythm",
    "Symptom",
    "TestAnswer",
]

Engine = Literal["still", "crank", "run", "lifted", "drive"]
"""What the engine does during a test: stands, is cranked, runs, runs with the driven wheels free on
stands, drives.
"""
Rhythm = Literal["each turn", "every second turn", "steady", "follows the wheels", "once"]
"""The beat of a noise against the crank, or the wheels."""
Colour = Literal["white", "blue", "black", "grey", "none"]
CLEAR = "hands, sleeves and hair clear of fan and belts"
STANDS_OFF = ("out of gear, or the lever in park", "wheels chocked", "nobody under it", CLEAR)
ALWAYS: dict[Engine, tuple[str, ...]] = {
    "still": (),
    "crank": STANDS_OFF,
    "run": (
        *STANDS_OFF,
        "outdoors, or doors wide open and the gas led out",
        "extinguisher in reach",
    ),
    "lifted": (
        "on stands",
        "brakes proven",
        "a second person with a task",
        "outdoors, or doors wide open and the gas led out",
        "extinguisher in reach",
    ),
    "drive": ("brakes proven",),
}
"""What is seen before every test of this kind, whether its sheet says so or not."""
GEARED = ("gear", "selector", "lever to each place", "reverse")


class FaultCause(BaseModel):
    """A cause: temporary or left open (T), changed or slipped in the rebuild (R), age (A); how
    usual (3 usual, 1 rare); and what proves it. Of a noise its sound, rhythm and place, of smoke
    its colour, and what is done until it is proven.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")
    id: str
    kind: Literal["T", "R", "A"]
    weight: Annotated[int, Field(ge=1, le=3)]
    what: str
    proof: str
    sound: str = ""
    rhythm: Rhythm | None = None
    place: str = ""
    colour: Colour | None = None
    act: Literal["stop", "watch"] | None = None


class TestAnswer(BaseModel):
    """One answer of a test: the causes that it leaves, another symptom to `go` to, or neither: it
    says nothing, the next test.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")
    words: str
    causes: tuple[str, ...] = ()
    go: str | None = None


class FaultTest(BaseModel):
    """A test that splits the causes: what is done, what is seen before, whether it is a reading."""

    model_config = ConfigDict(frozen=True, extra="forbid")
    id: str
    do: str
    needs: tuple[str, ...]
    engine: Engine
    record: Literal["reading", "finding"]
    answer: Annotated[tuple[TestAnswer, ...], Field(min_length=1)]

    def before(self) -> tuple[str, ...]:
        """Everything seen before it; where a gear is the test, being out of gear is not asked."""
        geared = any(word in self.do for word in GEARED)
        always = tuple(w for w in ALWAYS[self.engine] if not (geared and w == STANDS_OFF[0]))
        return tuple(dict.fromkeys((*self.needs, *always)))


class FaultStop(BaseModel):
    """When it is stopped at once, and what then."""

    model_config = ConfigDict(frozen=True, extra="forbid")
    when: str
    then: str


class Symptom(BaseModel):
    """One symptom: the rungs at which it shows, its causes, its tests with the best splitter first,
    what stops it at once.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")
    id: str
    name: str
    rungs: Annotated[tuple[Rung, ...], Field(min_length=1)]
    cause: Annotated[tuple[FaultCause, ...], Field(min_length=1)]
    test: tuple[FaultTest, ...] = ()
    stop: tuple[FaultStop, ...] = ()

    @model_validator(mode="after")
    def _whole(self) -> "Symptom":
        known = [cause.id for cause in self.cause]
        if len(set(known)) < len(known):
            raise ValueError(f"'{self.id}' has a cause twice")
        for test in self.test:
            lost = [c for answer in test.answer for c in answer.causes if c not in known]
            if lost:
                raise ValueError(f"'{self.id}', test '{test.id}': no cause is called {lost[0]}")
            if not any(answer.causes or answer.go for answer in test.answer):
                raise ValueError(f"'{self.id}', test '{test.id}' splits nothing")
        return self
