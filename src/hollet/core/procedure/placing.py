"""Where each step of several sheets lies: before the rung it blocks, and where the vehicle is in
the state it needs.
"""

from collections.abc import Iterator, Sequence

from hollet.core.procedure.kinds.run import RunStep
from hollet.core.procedure.pieces import After
from hollet.core.procedure.precedence import in_order
from hollet.core.procedure.sheet import Step
from hollet.core.procedure.words import RUNGS, STAGE_RANK, STAGES, VEHICLE_STATES

__all__ = ["RANK", "Placing"]

RANK = {rung: k for k, rung in enumerate((*RUNGS, "nothing"))}


class Placing:
    """Where each step lies. A rule that would break a reason, or an earlier rule, gives way."""

    def __init__(self, steps: Sequence[Step]) -> None:
        self.steps = {step.id: step for step in steps}
        self.waits = {
            step.id: {link.step for link in step.after if link.step in self.steps} for step in steps
        }
        self.told: list[str] = []
        self.base = [step.id for step in in_order(steps)]

    def placed(self) -> tuple[Step, ...]:
        """The steps in their order."""
        self._states()
        self._closings()
        self._reached_while_open()
        self._before_rungs()
        self._last_before_live()
        self._after_driving()
        return in_order(tuple(self.steps.values()), self.waits)

    def _waits_on(self, later: str) -> set[str]:
        """All that a step waits for, and what that waits for."""
        found: set[str] = set()
        pending = [later]
        while pending:
            for step in self.waits[pending.pop()] - found:
                found.add(step)
                pending.append(step)
        return found

    def _rank(self, step: str) -> int:
        return STAGE_RANK[self.steps[step].stage]

    def _behind(self, later: str, earlier: str) -> bool:
        """Lay one step behind another, where stages and reasons let it."""
        if (
            later == earlier
            or self._rank(earlier) > self._rank(later)
            or later in self._waits_on(earlier)
        ):
            return False
        self.waits[later].add(earlier)
        return True

    def _reason(self, later: str, earlier: str, because: str, kind: str = "setting kept") -> bool:
        """Like `_behind`, and the reason is kept in the plan."""
        if not self._behind(later, earlier):
            return False
        step = self.steps[later]
        if all(link.step != earlier for link in step.after):
            self.steps[later] = step.model_copy(
                update={"after": (*step.after, After(step=earlier, because=because, kind=kind))}
            )
        return True

    def _to_stage(self, step: str, stage: str) -> bool:
        """Move a step to another stage, where nothing it waits for comes later and nothing that
        waits for it earlier.
        """
        rank = STAGE_RANK[stage]
        fits = all(self._rank(other) <= rank for other in self.waits[step]) and all(
            self._rank(other) >= rank for other in self.steps if step in self.waits[other]
        )
        if fits:
            self.steps[step] = self.steps[step].model_copy(update={"stage": stage})
        return fits

    def _runs(self) -> Iterator[RunStep]:
        for step in self.base:
            run = self.steps[step].as_run()
            if run is not None:
                yield run

    # states of the vehicle

    def _states(self) -> None:
        place = {step: k for k, step in enumerate(self.base)}
        carried = [s for s in self.base if any(c.body == "vehicle" for c in self.steps[s].carries)]
        on_wheels = [
            s
            for s in carried
            if all(c.by == "wheels" for c in self.steps[s].carries if c.body == "vehicle")
        ]
        raised = next((s for s in carried if s not in on_wheels), None)
        lowered = next(
            (s for s in reversed(on_wheels) if raised is not None and place[s] > place[raised]),
            None,
        )
        off = next(
            (
                s
                for s in self.base
                if self.steps[s].takes_off and (raised is None or place[s] > place[raised])
            ),
            None,
        )
        ran = [run.id for run in self._runs() if run.rung in ("fire", "run_on")]
        cranked = [run.id for run in self._runs() if run.rung == "crank"]
        for step in self.base:
            state = self.steps[step].vehicle
            if state == "ride height" and raised is not None:
                self._at_ride_height(step, raised, lowered, place)
            elif state == "assembled" and off is not None and place[step] > place[off]:
                self._earlier(step, off, state)
                if raised is not None:
                    self._behind(step, raised)
            elif state == "warm" and ran:
                self._later(step, ran[-1], state)
            elif state == "cranking" and cranked:
                self._later(step, cranked[0], state)

    def _at_ride_height(
        self, step: str, raised: str, lowered: str | None, place: dict[str, int]
    ) -> None:
        if place[step] < place[raised]:
            self._reason(raised, step, VEHICLE_STATES["ride height"])
        elif self._rank(step) < STAGE_RANK["build_up"]:
            self._earlier(step, raised, "ride height")
        elif lowered is not None:
            self._later(step, lowered, "ride height")

    def _earlier(self, step: str, than: str, state: str) -> None:
        """As found: before the step that ends the state."""
        was = self.steps[step].stage
        if than in self._waits_on(step) or not (
            was == self.steps[than].stage or self._to_stage(step, self.steps[than].stage)
        ):
            self.told.append(
                f"{self.steps[step].title}: {VEHICLE_STATES[state]}, and no place in this plan "
                "gives that. Move it, or read it before the work begins"
            )
            return
        if self._reason(than, step, VEHICLE_STATES[state]) and was != self.steps[step].stage:
            self.told.append(
                f"{self.steps[step].title}: {VEHICLE_STATES[state]}; moved from {STAGES[was]} "
                f"to before {self.steps[than].title}"
            )

    def _later(self, step: str, than: str, state: str) -> None:
        """Behind the step that brings the state; what waits for it goes along, and blocks nothing
        that has been by then.
        """
        run = self.steps[than]
        moved = [
            step,
            *(
                other
                for other in self.base
                if step in self._waits_on(other) and self._rank(other) < STAGE_RANK[run.stage]
            ),
        ]
        was = {one: self.steps[one].stage for one in moved}
        for one in moved:
            if self._rank(one) < STAGE_RANK[run.stage]:
                self.steps[one] = self.steps[one].model_copy(update={"stage": run.stage})
        if not self._reason(step, than, VEHICLE_STATES[state]):
            for one, stage in was.items():
                self.steps[one] = self.steps[one].model_copy(update={"stage": stage})
            self.told.append(
                f"{self.steps[step].title}: {VEHICLE_STATES[state]}, and no place in this plan "
                "gives that"
            )
            return
        behind = [
            step,
            *(
                other
                for other in self.base
                if step in self._waits_on(other) and self.steps[other].as_run() is None
            ),
        ]
        rung = run.as_run()
        if rung is None:
            return
        for one in behind:
            blocks = self.steps[one].blocks
            if not blocks or RANK[blocks] > RANK[rung.rung]:
                continue
            after_it = (*RUNGS, "nothing")[RANK[rung.rung] + 1]
            self.steps[one] = self.steps[one].model_copy(update={"blocks": after_it})
            self.told.append(
                f"{self.steps[one].title}: {VEHICLE_STATES[state]}; lies after {run.title} and "
                f"blocks {RUNGS.get(after_it, after_it)}"
            )

    # what is closed between which rungs

    def _closings(self) -> None:
        opened = [item for step in self.steps.values() for item in step.opens]
        for item in opened:
            for closer in [s for s in self.base if item.id in self.steps[s].closes]:
                for run in self._runs():
                    if run.rung == item.open_for:
                        if self._rank(closer) < STAGE_RANK[run.stage]:
                            self._to_stage(closer, run.stage)
                        self._behind(closer, run.id)
                    elif RANK[run.rung] >= RANK[item.blocks]:
                        self._behind(run.id, closer)

    def _reached_while_open(self) -> None:
        """What another sheet's opening gave access to is finished before that closes."""
        closers = {
            item.id: [s for s in self.base if item.id in self.steps[s].closes]
            for step in self.steps.values()
            for item in step.opens
        }
        gates = {
            (link.step, step.id)
            for step in self.steps.values()
            for link in step.after
            if link.if_there and link.step in self.steps and self.steps[link.step].opens
        }
        for opener, reached in sorted(gates):
            behind = [s for s in self.base if s == reached or reached in self._waits_on(s)]
            for item in self.steps[opener].opens:
                for closer in closers[item.id]:
                    for step in behind:
                        if (
                            self.steps[step].stage == self.steps[closer].stage
                            and step != closer
                            and item.id not in self.steps[step].closes
                            and self.steps[step].vehicle != "driven"
                        ):
                            self._reason(
                                closer,
                                step,
                                "it is not reached any more once this is on",
                                "access closes",
                            )

    def _before_rungs(self) -> None:
        """Each step before the first run of the rung that it blocks."""
        for run in self._runs():
            for step in self.base:
                blocks = self.steps[step].blocks
                if blocks and self.steps[step].as_run() is None and RANK[run.rung] >= RANK[blocks]:
                    self._behind(run.id, step)

    def _after_driving(self) -> None:
        """What is looked at after a drive lies behind all that the drive waits for."""
        driven = [step for step in self.base if self.steps[step].vehicle == "driven"]
        for step in self.base:
            other = self.steps[step]
            if step not in driven and (other.blocks in RUNGS or other.as_run() is not None):
                for later in driven:
                    self._behind(later, step)

    def _last_before_live(self) -> None:
        """The battery lead, and what stays open for one rung and shuts the next, is joined last:
        behind all that blocks the same rung; the lead behind every other connection too.
        """
        leads = {
            item.id
            for step in self.steps.values()
            if "battery" in step.unties
            for item in step.opens
        }
        closing = {
            item.id: item
            for step in self.steps.values()
            for item in step.opens
            if item.blocks in RUNGS
        }
        for closer in self.base:
            items = [closing[item] for item in self.steps[closer].closes if item in closing]
            rungs = {
                item.blocks
                for item in items
                if item.open_for
                or (item.blocks == "power_on" and self.steps[closer].stage == "wake")
            }
            is_lead = not leads.isdisjoint(self.steps[closer].closes)
            for step in self.base:
                other = self.steps[step]
                first = is_lead and leads.isdisjoint(other.closes)
                if (
                    other.blocks in rungs
                    and (first or not any(item in closing for item in other.closes))
                    and other.as_run() is None
                ):
                    self._reason(
                        closer,
                        step,
                        f"what makes {RUNGS[str(other.blocks)]} possible is joined last",
                        "safety" if other.blocks == "power_on" else "setting kept",
                    )
