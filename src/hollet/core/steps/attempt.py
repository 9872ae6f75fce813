"""What is told of one attempt at a rung."""

from pydantic import BaseModel, ConfigDict, computed_field

__all__ = ["AttemptFacts", "Deadline", "OpenFigure", "ToldRow", "TrackFacts"]


class Deadline(BaseModel):
    """By `at_s` something must have been entered, else STOP with `reason`; from `asked_from` it is
    asked for. Silence is never a pass.
    """

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)
    at_s: float
    asked_from: float | None = None
    kind: str
    reason: str
    what: str
    met: bool = False


class OpenFigure(BaseModel):
    """A figure that was kept and is asked about: it counts for nothing until it is written again
    with its unit, or as typed.
    """

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)
    t: float
    question: str
    typed: str
    key: str


class TrackFacts(BaseModel):
    """One measured course: samples as [t, value] in the unit shown, with its limits."""

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)
    key: str
    name: str
    unit: str
    lo: float | None = None
    hi: float | None = None
    lo_from: float = 0.0
    samples: tuple[tuple[float, float], ...] = ()
    verdict: str = "not_read"


class ToldRow(BaseModel):
    """One row of the run sheet: what was told last, at which second, what it may be; `word` is
    empty where nobody said anything.
    """

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)
    about: str
    name: str
    word: str = ""
    t: float | None = None
    stops: bool = False
    leads: tuple[str, ...] = ()
    choices: tuple[str, ...] = ()


class AttemptFacts(BaseModel):
    """One attempt as it stands; `stop` is the first reason to turn the key back."""

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)
    id: str
    number: int
    step: str
    rung: str
    started: str
    who: str
    isolated: tuple[str, ...]
    expected: str
    limit_s: float
    gate: str
    gate_reasons: tuple[str, ...]
    deadlines: tuple[Deadline, ...]
    tracks: tuple[TrackFacts, ...]
    stop: str | None = None
    stop_at: float | None = None
    ended: bool = False
    after_s: float | None = None
    end_reason: str | None = None
    passed: bool = False
    said_passed: bool = False
    cause: str | None = None
    change: str | None = None
    lamp_out: bool = False
    pressure_at: float | None = None
    expected_seen: bool = False
    last_s: float = 0.0
    least_s: float = 0.0
    asked: tuple[OpenFigure, ...] = ()
    words: tuple[str, ...] = ()
    told: tuple[ToldRow, ...] = ()

    @computed_field
    @property
    def against_gate(self) -> bool:
        """Whether it was started although its rung was shut."""
        return self.gate == "shut"

    @computed_field
    @property
    def pressure_by(self) -> float | None:
        """Until when oil pressure must show, in seconds; None once it did."""
        return next((d.at_s for d in self.deadlines if d.kind == "pressure" and not d.met), None)
