"""Several sheets into one plan: the same step once, each step before the rung it blocks and where
the vehicle is in the state it needs.
"""

from collections.abc import Iterable, Iterator, Sequence
from typing import Any

from hollet.core.errors import Refused
from hollet.core.limits import Limit, SourceAnswer
from hollet.core.procedure.kinds import BaseStep
from hollet.core.procedure.kinds.run import RunStep
from hollet.core.procedure.numbering import numbered
from hollet.core.procedure.pieces import After
from hollet.core.procedure.plan import Plan
from hollet.core.procedure.precedence import contradiction, in_order
from hollet.core.procedure.sheet import Sheet, Step
from hollet.core.procedure.words import RUNGS, STAGE_RANK, STAGES, VEHICLE_STATES

__all__ = ["combine_sheets"]

RANK = {rung: k for k, rung in enumerate((*RUNGS, "nothing"))}
STEP_KEYS = ("step", "recheck", "refits", "changed_by")
"""Keys of a sheet under which ids of steps stand."""


def combine_sheets(sheets: Sequence[Sheet], facts: dict[str, str] | None = None) -> Plan:
    """One plan of several sheets; a step that two of them bring is there once, with the reasons of
    both.

    One id that two sheets use for different things stays two steps. A step lies before the rung it
    blocks; what is reached only
    while something is off lies before that goes back; readings that need the vehicle in a state lie
    where it is in it. What was moved
    or told apart stands in `combined`, in words.

    Raises
    ------
    Refused
        `contradiction`: the sheets' reasons cannot all be kept, with the chain; `no_sheet`.
    """
    if not sheets:
        raise Refused("no_sheet", "choose at least one sheet", field="sheets")
    sheets, told = _told_apart(sheets)
    steps: dict[str, Any] = {}
    for sheet in sheets:
        for step in sheet.step:
            bare = step.model_copy(update={"number": ""})
            steps[step.id] = _both(steps[step.id], bare) if step.id in steps else bare
    listed = tuple(steps.values())
    found = contradiction(listed)
    if found:
        raise Refused(
            "contradiction", f"the sheets contradict each other: {found.words()}", field="sheets"
        )
    placed = _Placing(listed)
    ordered = placed.placed()
    limits: dict[str, Limit] = {}
    for sheet in sheets:
        for limit in sheet.limit:
            limits[limit.id] = (
                _two_sources(limits[limit.id], limit) if limit.id in limits else limit
            )
    first = sheets[0]
    return Plan(
        id=first.id if len(sheets) == 1 else "+".join(s.id for s in sheets)[:60].replace("+", "_"),
        title=first.title
        if len(sheets) == 1
        else ", with ".join(s.title.split(":")[0] for s in sheets)[:400],
        about=" ".join(s.about for s in sheets)[:2000],
        source=first.source,
        version=first.version,
        look_in=_once(name for s in sheets for name in s.look_in),
        first=_first(sheets),
        option=_by_id(f for s in sheets for f in s.option),
        school=_by_id(x for s in sheets for x in s.school),
        extra=_by_id(x for s in sheets for x in s.extra),
        agreement=_by_id(x for s in sheets for x in s.agreement),
        limit=tuple(limits.values()),
        variant=tuple(v for s in sheets for v in s.variant),
        joint=_by_id(j for s in sheets for j in s.joint),
        setting=_by_id(x for s in sheets for x in s.setting),
        fluid=_by_id(x for s in sheets for x in s.fluid),
        trace=_by_id(x for s in sheets for x in s.trace),
        step=numbered(ordered),
        sheets=tuple(s.id for s in sheets),
        facts=facts or {},
        combined=(*told, *placed.told),
    )


def _first(sheets: Sequence[Sheet]) -> Any:
    """The first rung that any of them is about; one that does not say may hold an engine."""
    rungs = [sheet.first or "crank" for sheet in sheets]
    first = min(rungs, key=lambda rung: RANK[rung])
    return None if first == "crank" else first


def _once(items: Iterable[Any]) -> tuple[Any, ...]:
    return tuple(dict.fromkeys(items))


def _by_id(items: Iterable[Any]) -> tuple[Any, ...]:
    found: dict[str, Any] = {}
    for item in items:
        found.setdefault(item.id, item)
    return tuple(found.values())


def _told_apart(sheets: Sequence[Sheet]) -> tuple[list[Sheet], tuple[str, ...]]:
    """The sheets, with a step renamed where another sheet uses its id in another stage or for
    another kind of work; and what was renamed.
    """
    known: dict[str, tuple[Step, Sheet]] = {}
    taken = {step.id for sheet in sheets for step in sheet.step}
    found, told = [], []
    for sheet in sheets:
        names: dict[str, str] = {}
        for step in sheet.step:
            other = known.get(step.id)
            if other is not None and (other[0].stage, other[0].kind) != (step.stage, step.kind):
                names[step.id] = next(
                    name
                    for name in (f"{step.id[:56]}_{k}" for k in range(2, 99))
                    if name not in taken
                )
                taken.add(names[step.id])
                told.append(
                    f"{step.title} is one thing in {_name(other[1])} ({STAGES[other[0].stage]}) "
                    f"and another in {_name(sheet)} ({STAGES[step.stage]}): "
                    "both are in the plan, take one out if they are the same"
                )
        mine = _renamed(sheet, names) if names else sheet
        for step in mine.step:
            known.setdefault(step.id, (step, mine))
        found.append(mine)
    return found, tuple(told)


def _name(sheet: Sheet) -> str:
    return sheet.title.split(":")[0]


def _renamed(sheet: Sheet, names: dict[str, str]) -> Sheet:
    """The sheet with some steps under other ids, wherever it names them."""

    def walk(item: Any, key: str) -> Any:
        if isinstance(item, dict):
            return {k: walk(v, k) for k, v in item.items()}
        if isinstance(item, list | tuple):
            return [walk(v, key) for v in item]
        return names.get(item, item) if key in STEP_KEYS and isinstance(item, str) else item

    data = {
        key: [walk(item, "") for item in value] if isinstance(value, list | tuple) else value
        for key, value in sheet.model_dump().items()
    }
    for step in data["step"]:
        step["id"] = names.get(step["id"], step["id"])
        for part in step.get("part", []):
            if part["clearance"]:
                part["clearance"] = [
                    names.get(part["clearance"][0], part["clearance"][0]),
                    part["clearance"][1],
                ]
    for extra in data["extra"]:
        extra["at"] = names.get(extra["at"], extra["at"])
    return type(sheet).model_validate(data)


def _both(a: BaseStep, b: BaseStep) -> BaseStep:
    """A step of two sheets: the words of the first; reasons, openings, closings, loads, figures
    asked, windows and parts of both; the earlier rung, and every caution's care.
    """
    blocks = min(
        (rung for rung in (a.blocks, b.blocks) if rung), key=lambda rung: RANK[rung], default=None
    )
    after = {link.step: link for link in (*b.after, *a.after)}
    return a.model_copy(
        update={
            "after": tuple(after.values()),
            "opens": _by_id((*a.opens, *b.opens)),
            "closes": _once((*a.closes, *b.closes)),
            "tools": _once((*a.tools, *b.tools)),
            "parts": _once((*a.parts, *b.parts)),
            "last_chance": tuple({c.thing: c for c in (*b.last_chance, *a.last_chance)}.values()),
            "capture": _by_id((*a.capture, *b.capture)),
            **a.also_of(b),
            "blocks": blocks,
            "caution": a.caution or b.caution,
            "vehicle": a.vehicle or b.vehicle,
            "lifts": a.lifts or b.lifts,
            "dusty": a.dusty or b.dusty,
            "carries": a.carries or b.carries,
            "releases": a.releases or b.releases,
            "people": a.people or b.people,
            **{
                key: _once((*getattr(a, key), *getattr(b, key)))
                for key in ("compares", "refits", "requires", "keeps", "holds", "drains", "hidden")
            },
        }
    )


def _two_sources(a: Limit, b: Limit) -> Limit:
    """Two sheets on one figure: the first is in force, both answers are kept side by side."""
    if (a.lo, a.hi, a.target) == (b.lo, b.hi, b.target) or not (b.given or b.target):
        return a
    if not (a.given or a.target):
        return b
    said = [
        SourceAnswer(source=x.source or "no source", page=x.page, lo=x.lo, hi=x.hi, target=x.target)
        for x in (a, b)
    ]
    return a.model_copy(update={"answers": _once((*a.answers, *said))})


class _Placing:
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

    def _last_before_live(self) -> None:
        """The battery lead, and what stays open for one rung and shuts the next, is joined last:
        behind all that blocks the same rung.
        """
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
            for step in self.base:
                other = self.steps[step]
                if (
                    other.blocks in rungs
                    and not any(item in closing for item in other.closes)
                    and other.as_run() is None
                ):
                    self._reason(
                        closer,
                        step,
                        f"what makes {RUNGS[str(other.blocks)]} possible is joined last",
                        "safety" if other.blocks == "power_on" else "setting kept",
                    )
