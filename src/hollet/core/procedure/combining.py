"""Several sheets into one plan: the same step once, each step before the rung it blocks and where
the vehicle is in the state it needs.
"""

from collections.abc import Iterable, Sequence
from typing import Any

from hollet.core.errors import Refused
from hollet.core.limits import Limit, SourceAnswer
from hollet.core.procedure.kinds import BaseStep
from hollet.core.procedure.numbering import numbered
from hollet.core.procedure.pieces import Caution
from hollet.core.procedure.placing import RANK, Placing
from hollet.core.procedure.plan import Plan
from hollet.core.procedure.precedence import contradiction
from hollet.core.procedure.sheet import Sheet, Step, blocks_of
from hollet.core.procedure.words import STAGES, Hours

__all__ = ["combine_sheets"]

STEP_KEYS = (
    "step",
    "recheck",
    "refits",
    "changed_by",
    "soak",
    "hand",
    "set_by",
    "again",
    "steps",
    "off_at",
    "on_at",
)
"""Keys of a sheet under which ids of steps stand."""
BOTH = (
    "compares",
    "refits",
    "requires",
    "keeps",
    "holds",
    "drains",
    "unties",
    "hidden",
    "opened_with",
)
"""What a step of two sheets has of both."""


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
    graded = len({sheet.first for sheet in sheets}) > 1
    sheets, told = _told_apart([_as_said(sheet, graded=graded) for sheet in sheets])
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
    placed = Placing(listed)
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
        tie=_once(x for s in sheets for x in s.tie),
        row=_by_id(x for s in sheets for x in s.row),
        any_vehicle=all(s.any_vehicle for s in sheets),
        step=numbered(ordered),
        sheets=tuple(s.id for s in sheets),
        facts=facts or {},
        combined=(*told, *placed.told),
    )


def _as_said(sheet: Sheet, *, graded: bool) -> Sheet:
    """The sheet with what it alone decides said on each step and joint: the rung that a step shuts
    (`graded`: where the sheets are about several), and that counts written for any vehicle are
    assumed until somebody counts.
    """
    steps = tuple(
        step
        if not graded or step.blocks or step.as_run() is not None
        else step.model_copy(update={"blocks": blocks_of(sheet, step)})
        for step in sheet.step
    )
    if sheet.any_vehicle:
        steps = tuple(step.with_usual_counts() for step in steps)
    joints = tuple(
        joint.model_copy(update={"counted": False})
        if sheet.any_vehicle and joint.counted is None
        else joint
        for joint in sheet.joint
    )
    return sheet.model_copy(update={"step": steps, "joint": joints})


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
    """A step of two sheets: what both say, each sentence once; reasons, openings, closings, loads,
    figures asked, windows and parts of both; the earlier rung, and every caution's care.
    """
    blocks = min(
        (rung for rung in (a.blocks, b.blocks) if rung), key=lambda rung: RANK[rung], default=None
    )
    after = {link.step: link for link in (*b.after, *a.after)}
    return a.model_copy(
        update={
            "do": _both_words(a.do, b.do, 2000),
            **_either(a, b),
            "after": tuple(after.values()),
            "opens": _by_id((*a.opens, *b.opens)),
            "closes": _once((*a.closes, *b.closes)),
            "tools": _once((*a.tools, *b.tools)),
            "parts": _once((*a.parts, *b.parts)),
            "last_chance": tuple({c.thing: c for c in (*b.last_chance, *a.last_chance)}.values()),
            "capture": _by_id((*a.capture, *b.capture)),
            **a.also_of(b),
            "blocks": blocks,
            "caution": _both_cautions(a.caution, b.caution),
            "moves": a.moves or b.moves,
            "stuck": a.stuck or b.stuck,
            "final": a.final or b.final,
            "hours": _both_hours(a.hours, b.hours),
            "vehicle": a.vehicle or b.vehicle,
            "lifts": a.lifts or b.lifts,
            "by_hand": all(s.by_hand for s in (a, b) if s.lifts) and (a.by_hand or b.by_hand),
            "dusty": a.dusty or b.dusty,
            "carries": a.carries or b.carries,
            "releases": a.releases or b.releases,
            "people": a.people or b.people,
            "trial": a.trial or b.trial,
            "orient": _by_id((*a.orient, *b.orient)),
            "lays": _by_id((*a.lays, *b.lays)),
            "seats": _by_id((*a.seats, *b.seats)),
            "warms": _by_id((*a.warms, *b.warms)),
            "again": _once((*a.again, *b.again)),
            **{key: _once((*getattr(a, key), *getattr(b, key))) for key in BOTH},
        }
    )


def _either(a: BaseStep, b: BaseStep) -> dict[str, object]:
    """It is there where either sheet wants it; what one of them always wants is always there."""
    if not a.when or not b.when:
        return {"when": (), "or_when": ()}
    first, *others = _once((a.when, *a.or_when, b.when, *b.or_when))
    return {"when": first, "or_when": tuple(others)}


def _both_words(a: str, b: str, most: int) -> str:
    """What two texts say, each sentence once, where there is room for it."""
    known = {sentence.casefold() for sentence in a.split(". ")} | {a.casefold()}
    more = [s for s in b.split(". ") if s.casefold() not in known and s.rstrip(".") not in a]
    both = " ".join((a, ". ".join(more))).strip()
    return both if len(both) <= most else a


def _both_cautions(a: Caution | None, b: Caution | None) -> Caution | None:
    if a is None or b is None or a == b:
        return a or b
    boxes = tuple(dict.fromkeys(box for box in (a.confirm, b.confirm) if box))
    return Caution(
        text=_both_words(a.text, b.text, 400),
        why=_both_words(a.why, b.why, 400),
        confirm=", ".join(boxes)[:400] or None,
    )


def _both_hours(a: Hours | None, b: Hours | None) -> Hours | None:
    """The longer of two estimates for the same work."""
    return max((hours for hours in (a, b) if hours is not None), default=None)


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
