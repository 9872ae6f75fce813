"""Left open and the gates: everything that must be cleared, by the first rung it blocks; what is
dangerous first, then what is wrong, open, not reached."""

from collections.abc import Sequence

from pydantic import BaseModel, ConfigDict, computed_field

from hollet.core.book.one_open import RANKS, OpenItem
from hollet.core.book.open_items import open_items
from hollet.core.entries import BookState, Decision
from hollet.core.entries.status import plan_of
from hollet.core.instruments import Instrument
from hollet.core.procedure.words import RUNGS, STAGES
from hollet.core.steps.run import attempts_of

__all__ = [
    "GATE_LINE",
    "GateAnswer",
    "StageGroup",
    "dry_run_decision",
    "gate_answers",
    "stage_groups",
]

GATE_LINE = "The vehicle maker's manual, local codes and licensed practice go first."


class StageGroup(BaseModel):
    """Steps of one stage that are merely not reached: the stage, how many, and their items."""

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)
    stage: str
    words: str
    items: tuple[OpenItem, ...]


class GateAnswer(BaseModel):
    """May I? `shut`, `limited` (with its limit) or `nothing left open`; `items` are what shuts this
    rung itself, the worst first.

    `first` are those that are dangerous, wrong or open; `not_reached` groups the steps by stage.
    """

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)
    rung: str
    name: str
    answer: str
    limit: str | None = None
    reasons: tuple[str, ...] = ()
    items: tuple[OpenItem, ...] = ()
    first: tuple[OpenItem, ...] = ()
    not_reached: tuple[StageGroup, ...] = ()
    check_open: tuple[str, ...] = ()

    @computed_field
    @property
    def shut(self) -> bool:
        """Whether the rung may not be climbed."""
        return self.answer == "shut"

    @computed_field
    @property
    def limited(self) -> bool:
        """Whether it may be climbed within its limit only."""
        return self.answer == "limited"


def dry_run_decision(state: BookState) -> float | None:
    """Seconds of the one run without coolant that was decided in writing and not used
    yet, or None.
    """
    plan = plan_of(state)
    for step in plan.step:
        if not step.cools():
            continue
        decided = [e for e in state.each(Decision, "step", step.id) if e.body.about == "dry_run"]
        if decided:
            runs = (
                a
                for s in plan.step
                if (run := s.as_run()) is not None and run.rung == "fire"
                for a in attempts_of(state, run)
            )
            if not any(a.started >= decided[-1].time for a in runs):
                return float(decided[-1].body.seconds or 0.0)
    return None


def gate_answers(
    state: BookState, tools: Sequence[Instrument] = (), items: tuple[OpenItem, ...] | None = None
) -> tuple[GateAnswer, ...]:
    """The seven rungs in order; what blocks a rung blocks all above it."""
    plan = plan_of(state)
    items = open_items(state, tools) if items is None else items
    dry = dry_run_decision(state)
    coolant = {f"step:{step.id}" for step in plan.step if step.cools()}
    coolant |= {f"empty:{fluid.id}" for fluid in plan.fluid if fluid.kind == "coolant"}
    answers = []
    below: list[OpenItem] = []
    for rung, name in RUNGS.items():
        own = [item for item in items if item.blocks == rung]
        own.sort(
            key=lambda i: (RANKS.index(i.rank), i.clear_number or i.step_number or "9.99", i.kind)
        )
        reasons = [*below, *own]
        must_be_open = tuple(item.what for item in items if item.open_for == rung)
        if not reasons:
            answer, limit = "nothing left open", None
            runs = (run for s in plan.step if (run := s.as_run()) is not None)
            for step in runs:
                if step.rung == rung and rung == "run_on":
                    held = plan.find_limit(step.time_limit)
                    if held and held.hi:
                        answer, limit = "limited", f"{held.hi} {held.unit} at most"
        elif rung == "fire" and dry is not None and all(item.id in coolant for item in reasons):
            answer, limit = (
                "limited",
                f"one run of {dry:g} s at most without coolant, then a full cool-down",
            )
        else:
            answer, limit = "shut", None
        words = tuple(item.what for item in sorted(reasons, key=lambda i: RANKS.index(i.rank))[:40])
        answers.append(
            GateAnswer(
                rung=rung,
                name=name,
                answer=answer,
                limit=limit,
                reasons=words,
                items=tuple(own),
                check_open=must_be_open,
                first=tuple(i for i in own if i.rank != "not_reached"),
                not_reached=stage_groups(own),
            )
        )
        below += own
    return tuple(answers)


def stage_groups(items: Sequence[OpenItem]) -> tuple[StageGroup, ...]:
    """The steps among some items that are merely not reached, by stage."""
    found = []
    for stage, name in STAGES.items():
        own = tuple(item for item in items if item.rank == "not_reached" and item.stage == stage)
        if own:
            found.append(
                StageGroup(
                    stage=stage,
                    words=f"{name}: {len(own)} {'step' if len(own) == 1 else 'steps'}",
                    items=own,
                )
            )
    return tuple(found)
