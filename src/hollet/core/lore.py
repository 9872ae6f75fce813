"""What the shop knows and no sheet says: terms of findings, what is laid old beside new, what is
suspect for its age, the ladder for a stuck part, what the surroundings mean. It ships as data; here
is what it must hold to be taken.
"""

from collections.abc import Iterable, Sequence
from typing import Literal, get_args

from pydantic import BaseModel, ConfigDict, model_validator

from hollet.core.ageing import AgeRule
from hollet.core.arrivals import ArrivalRule, PartSort, sort_of
from hollet.core.faults import Symptom
from hollet.core.findings import FindingCode, Surface
from hollet.core.leaks import LeakJoint, LeakSystem
from hollet.core.procedure.pieces import FluidKind
from hollet.core.procedure.stuck import Rung, StuckRung
from hollet.core.running.rehearsal import Scene

__all__ = ["Around", "Lore", "Surrounding"]

Around = Literal["wind", "dust", "cold", "damp", "dark", "noise"]
ELSE = "else"


class Surrounding(BaseModel):
    """One condition around the bench, and what it means by what the step is."""

    model_config = ConfigDict(frozen=True, extra="forbid")
    id: Around
    name: str
    means: dict[str, str]

    def words(self, traits: Sequence[str]) -> str:
        """What it means for a step with these traits, the first that it has words for."""
        return next((self.means[t] for t in traits if t in self.means), self.means[ELSE])


class Lore(BaseModel):
    """All of it, checked when it is loaded."""

    model_config = ConfigDict(frozen=True, extra="forbid")
    finding: tuple[FindingCode, ...]
    beside: dict[Surface, tuple[str, ...]]
    ageing: tuple[AgeRule, ...]
    stuck: tuple[Rung, ...]
    around: tuple[Surrounding, ...]
    arrival: tuple[ArrivalRule, ...]
    leak_system: tuple[LeakSystem, ...]
    leak_joint: tuple[LeakJoint, ...]
    scene: tuple[Scene, ...]
    symptom: tuple[Symptom, ...]

    @model_validator(mode="after")
    def _whole(self) -> "Lore":
        """Each term once; every kind of face has terms; every rung and condition is there once."""
        _once("finding", (code.id for code in self.finding))
        _each("stuck", (rung.id for rung in self.stuck), get_args(StuckRung))
        _each("around", (condition.id for condition in self.around), get_args(Around))
        _each("arrival", (rule.sort for rule in self.arrival), get_args(PartSort))
        _each("leak_system", (s.kind for s in self.leak_system), get_args(FluidKind))
        _once("scene", (scene.id for scene in self.scene))
        _once("symptom", (symptom.id for symptom in self.symptom))
        known = [symptom.id for symptom in self.symptom]
        for symptom in self.symptom:
            for test in symptom.test:
                lost = [a.go for a in test.answer if a.go is not None and a.go not in known]
                if lost:
                    raise ValueError(f"'{symptom.id}' goes to {lost[0]}, which is no symptom")
        _once("leak_joint", (joint.id for joint in self.leak_joint))
        bare = [on for on in get_args(Surface) if not self.codes_for(on)]
        if bare:
            raise ValueError(f"no term of a finding for {bare[0]}")
        silent = [condition.id for condition in self.around if ELSE not in condition.means]
        if silent:
            raise ValueError(f"'{silent[0]}' must say what it means for all other steps, as 'else'")
        return self

    def code(self, code_id: str) -> FindingCode | None:
        """The term with this id."""
        return next((code for code in self.finding if code.id == code_id), None)

    def arrival_of(self, name: str, sort: PartSort | None = None) -> ArrivalRule:
        """What is compared of a part of this sort, or of the sort that its name says."""
        wanted = sort or sort_of(name, self.arrival)
        return next(rule for rule in self.arrival if rule.sort == wanted)

    def system(self, kind: FluidKind) -> LeakSystem:
        """How a system of this fluid is looked at and bled."""
        return next(system for system in self.leak_system if system.kind == kind)

    def symptom_of(self, symptom: str) -> Symptom | None:
        """The fault tree of a symptom."""
        return next((found for found in self.symptom if found.id == symptom), None)

    def leak_joint_of(self, joint: str) -> LeakJoint | None:
        """What tightening may do to a joint of this sort."""
        return next((found for found in self.leak_joint if found.id == joint), None)

    def codes_for(self, surface: Surface) -> tuple[FindingCode, ...]:
        """The terms that belong to a kind of face, the commonest first."""
        return tuple(code for code in self.finding if surface in code.on)


def _once(what: str, names: Iterable[str]) -> None:
    found: set[str] = set()
    for name in names:
        if name in found:
            raise ValueError(f"'{what}' has {name} twice")
        found.add(name)


def _each(what: str, names: Iterable[str], wanted: Sequence[str]) -> None:
    given = tuple(names)
    _once(what, given)
    lost = [name for name in wanted if name not in given]
    if lost:
        raise ValueError(f"'{what}' lacks {lost[0]}")
