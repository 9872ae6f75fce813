"""What a change of a plan is: the plan after it, and its words."""

from abc import abstractmethod
from collections.abc import Callable, Set
from typing import NamedTuple

from hollet.core.procedure.plan import Plan
from hollet.core.procedure.sheet import Step
from hollet.core.procedure.words import Part

__all__ = ["Edit", "Names", "at_step"]


class Names(NamedTuple):
    """What steps, facts, schools, ways, extras and parts are called in a plan."""

    steps: dict[str, str]
    others: dict[str, str]

    def step(self, name: str) -> str:
        """A step by its number and short title."""
        return self.steps.get(name, name)

    def of(self, name: str | None) -> str:
        """Anything else."""
        return self.others.get(name or "", name or "")


class Edit(Part):
    """Base of all changes: what the plan is after it, and what it is in words."""

    @abstractmethod
    def applied(self, plan: Plan) -> Plan:
        """The plan after the change; about something that is not there it changes nothing."""

    @abstractmethod
    def words(self, names: Names) -> str:
        """The change in words, for the log."""

    def put_in(self) -> Step | None:
        """The step that it puts in."""
        return None

    def at(self) -> str | None:
        """The step that it is about."""
        return None

    def behind_step(self) -> str | None:
        """The step behind which it puts one in."""
        return None

    def for_sheet(self, steps: Set[str]) -> "Edit | None":
        """The change as a sheet with these steps takes it over."""
        return self if self.at() in steps else None

    def redrawn(self) -> str | None:
        """The joint whose bolts it draws anew."""
        return None

    def order(self) -> tuple[tuple[str, ...], tuple[str, ...]] | None:
        """The order of all steps as it was and is, where it changes that alone."""
        return None


def at_step(plan: Plan, name: str, update: Callable[[Step], dict[str, object]]) -> Plan:
    """The plan with one step changed."""
    steps = (s.model_copy(update=update(s)) if s.id == name else s for s in plan.step)
    return plan.model_copy(update={"step": tuple(steps)})
