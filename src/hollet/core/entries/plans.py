"""The plan made and changed, and a line struck: the two kinds that change how others are read."""

from typing import Annotated, Any, ClassVar

from pydantic import Field

from hollet.core.entries.base import Body, Key, Reason, Short
from hollet.core.procedure.changes import Change, apply
from hollet.core.procedure.plan import Plan
from hollet.core.words import counted

__all__ = ["PlanEdited", "Strike", "Turned"]


class Turned(Body):
    """A verdict that an edit of the plan turned: which result of which step, what it was, and what
    it became.
    """

    step: str
    result: str
    name: Annotated[str, Field(max_length=400)]
    was: Annotated[str, Field(max_length=40)]
    now: Annotated[str, Field(max_length=40)]


class PlanEdited(Body):
    """The plan was made (`sheet`, whole) or changed (`changes`, each with before and after); with
    the verdicts that this turned.
    """

    called: ClassVar = "plan edited"
    version: ClassVar = 2
    strikable: ClassVar = False

    what: Short
    sheet: Plan | None = None
    changes: tuple[Change, ...] = ()
    reason: str | None = None
    turned: Annotated[tuple[Turned, ...], Field(max_length=400)] = ()

    def subject(self) -> Key:
        return Key("plan")

    def also(self) -> tuple[Key, ...]:
        return tuple(Key("turned", f"{turned.step}/{turned.result}") for turned in self.turned)

    def plan_after(self, plan: Plan | None) -> Plan | None:
        """The whole plan once this is taken in."""
        if self.sheet is not None:
            return self.sheet
        return plan if plan is None else apply(plan, self.changes)

    def line(self, title: str) -> str:
        if self.sheet is not None:
            return f"plan made from: {self.sheet.title}, {counted(len(self.sheet.step), 'step')}"
        turned = "; ".join(f"{t.name} {t.was} became {t.now}" for t in self.turned)
        why = f": {self.reason}" if self.reason else ""
        return self.what + why + (f". Turned: {turned}" if turned else "")

    @classmethod
    def lift(cls, version: int, body: dict[str, Any]) -> dict[str, Any]:
        after = body.get("after")
        changes = [{"op": "limit", "before": body.get("before"), "after": after}] if after else []
        return {key: body[key] for key in ("what", "sheet", "reason") if key in body} | {
            "changes": changes
        }


class Strike(Body):
    """An earlier entry is struck; it stays readable."""

    called: ClassVar = "strike"
    never_late: ClassVar = True
    strikable: ClassVar = False

    entry: str
    reason: Reason

    def subject(self) -> Key:
        return Key("log")

    def titled(self) -> Key:
        return Key("line", self.entry)

    def strikes(self) -> str | None:
        return self.entry

    def line(self, title: str) -> str:
        return f"line {title} struck: {self.reason}"
