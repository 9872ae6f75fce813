"""The hand that writes the demo: entries through the services, each a little after the last, and
what a step asks for first.
"""

from collections.abc import Sequence
from datetime import datetime, timedelta
from typing import Any

from pydantic import TypeAdapter

from hollet.core.acts.base import step_named
from hollet.core.acts.kinds import AnyAct
from hollet.core.book.bags import bag_contents, next_bag
from hollet.core.procedure.planacts import PlanAct
from hollet.core.procedure.sheet import Step
from hollet.library.pictures import picture
from hollet.screens.bench import Bench
from hollet.services.builds import bench
from hollet.services.demo_takedown import AS_FOUND, LIFTS, NEW_BOLTS, PINS, SAID
from hollet.services.logging import Sent, write_entry
from hollet.services.photos import store_photo
from hollet.services.planning import desk, edit_plan
from hollet.services.takedown import takedown
from hollet.services.workshop import Workshop, utc_text

__all__ = ["DemoClock", "Script"]

EDIT: TypeAdapter[Any] = TypeAdapter(AnyAct)
ACT: TypeAdapter[Any] = TypeAdapter(PlanAct)


class DemoClock:
    """A clock that the script turns."""

    def __init__(self, now: datetime) -> None:
        self.now = now

    def __call__(self) -> datetime:
        return self.now


class Script:
    """Writes entries of one build, each a little after the last."""

    def __init__(self, workshop: Workshop, clock: DemoClock, build: str, who: str) -> None:
        self.workshop, self.clock, self.build, self.who = workshop, clock, build, who

    def write(self, wait: float = 2.0, /, **edit: Any) -> str:
        """One entry; returns its id."""
        self.clock.now += timedelta(minutes=wait)
        entry_id = self.workshop.new_id()
        sent = Sent(id=entry_id, who=self.who, bench_time=utc_text(self.clock.now), seen=10**9)
        write_entry(self.workshop, self.build, sent, EDIT.validate_python(edit))
        return entry_id

    def read(
        self,
        step: str,
        reading: str,
        *typed: str,
        tool: str,
        wait: float = 2.0,
        state: str | None = None,
        unit: str = "mm",
    ) -> None:
        """A reading with its repeats, in millimetres unless said otherwise."""
        self.write(
            wait,
            kind="reading",
            step=step,
            reading=reading,
            typed=list(typed),
            unit=unit,
            instrument=tool,
            state=state,
        )

    def decide(
        self,
        step: str,
        part: str,
        choice: str,
        reason: str,
        wait: float = 2.0,
        **costs: float | None,
    ) -> None:
        """What becomes of a part, and why."""
        self.write(
            wait, kind="part decided", step=step, part=part, choice=choice, reason=reason, **costs
        )

    def next_bag(self) -> int:
        """The next free bag."""
        return takedown(self.workshop, self.build).next_bag

    def plan(self, reason: str | None, **act: Any) -> None:
        """One act on the plan."""
        self.clock.now += timedelta(minutes=3)
        version = desk(self.workshop, self.build).version
        edit_plan(
            self.workshop,
            self.build,
            [ACT.validate_python(act)],
            who=self.who,
            version=version,
            entry_id=self.workshop.new_id(),
            reason=reason,
        )

    def picture(
        self, name: str, what: str, step: str, pins: Sequence[tuple[int, float, float, str]] = ()
    ) -> str:
        """A drawn picture into the log; returns its hash."""
        stored = store_photo(self.workshop, picture(name))
        marks = [{"n": n, "x": x, "y": y, "word": word} for n, x, y, word in pins]
        self.write(1, kind="photo", **stored.model_dump(), what=what, step=step, pins=marks)
        return stored.photo

    def before(self, step: str) -> None:
        """What a step asks for first: captures kept, bags emptied, marks compared."""
        view = bench(self.workshop, self.build, step)
        for capture in view.base.captures:
            if capture.state == "missing":
                facts = dict(AS_FOUND[capture.id])
                name = facts.pop("picture", None)
                photo = self.picture(name, capture.what, step, PINS.get(name, ())) if name else None
                self.write(2, kind="captured", step=step, capture=capture.id, photo=photo, **facts)
        for bag in view.base.refit_bags:
            lines = [
                {"count": c.left, "size": c.size, "length": c.length, "odd": c.odd}
                for c in bag.lines
                if c.left
            ]
            if not lines:
                continue
            self.write(
                1,
                kind="unbagged",
                step=step,
                bag=bag.bag,
                lines=lines,
                how="new" if step in NEW_BOLTS else "fitted",
            )
        for capture in view.base.compares:
            self.write(
                1,
                kind="compared",
                step=step,
                capture=capture.id,
                same=True,
                strokes=capture.strokes,
            )

    def step_view(self, step: str) -> Bench:
        """The bench of a step as it stands."""
        return bench(self.workshop, self.build, step)

    def _step(self, step: str) -> Step:
        with self.workshop.held(self.build) as state:
            return step_named(state, step)

    def _next_bag(self) -> int:
        with self.workshop.held(self.build) as state:
            return next_bag(bag_contents(state))

    def seen(self, step: str) -> None:
        """What points one way is looked at, each by a press."""
        for orient in self.step_view(step).base.orients:
            self.write(1, kind="confirmed", step=step, what=orient.how)

    def chances(self, step: str) -> None:
        """Last chances that no step has are seen to here."""
        view = bench(self.workshop, self.build, step)
        for chance in view.base.chances:
            if chance.state == "no step":
                self.write(
                    1,
                    kind="decision",
                    step=step,
                    about="last_chance",
                    thing=chance.thing,
                    done_here=True,
                )

    def done(self, *steps: str, minutes: float = 12.0) -> None:
        """Last chances seen, lifts said, steps confirmed where they ask for it, bagged where they
        have fasteners, and done.
        """
        for step in steps:
            self.before(step)
            self.chances(step)
            view = bench(self.workshop, self.build, step)
            for ask in self._step(step).figures():
                self.write(1, kind="said", step=step, figure=ask.id, typed=SAID[ask.id])
            if step in LIFTS:
                self.write(1, kind="lift said", step=step, **LIFTS[step])
            if view.base.caution and view.base.caution.confirm:
                self.write(kind="confirmed", step=step, what=view.base.caution.confirm)
            lines = [line.model_dump() for line in self._step(step).bagged()]
            if lines:
                self.write(
                    kind="bagged", step=step, bag=self._next_bag(), lines=lines, place="tray A"
                )
            self.write(minutes, kind="done", step=step)
