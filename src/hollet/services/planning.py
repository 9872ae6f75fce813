"""Planning: the plan desk of a build, the difference before a change is taken, the change itself,
the limit book in and out.
"""

import tomllib
from collections.abc import Sequence
from typing import Any

import tomli_w
from pydantic import BaseModel

from hollet.core import entries as b
from hollet.core.entries import BookState, PlanEdited
from hollet.core.entries.status import plan_of, statuses
from hollet.core.errors import Conflict, Refused
from hollet.core.limits import Limit
from hollet.core.procedure.changes import Change, LimitChange, apply
from hollet.core.procedure.drafting import draft
from hollet.core.procedure.plan import Plan, select
from hollet.core.procedure.read import read_sheet
from hollet.core.steps.results import results_of
from hollet.exchange.csv import read_table, table
from hollet.screens.difference import Difference, change_words, difference
from hollet.screens.limitbook import LimitBook, limit_book
from hollet.screens.plandesk import PlanView, plan_view
from hollet.screens.sentences import LogLine, line_of
from hollet.services.gear import gear_of
from hollet.services.own_sheets import keep_for_next_time
from hollet.services.workshop import Workshop, with_plan

__all__ = [
    "Edited",
    "desk",
    "edit_plan",
    "limits",
    "limits_csv",
    "limits_toml",
    "preview",
    "read_limits",
]

COLUMNS = (
    "id",
    "name",
    "condition",
    "dimension",
    "unit",
    "lo",
    "hi",
    "target",
    "source",
    "page",
    "state",
)


class Edited(BaseModel):
    """The line written, the verdicts that turned, the desk as it is now, and where the change was
    kept for next time.
    """

    line: LogLine
    turned: tuple[str, ...]
    desk: PlanView
    kept_in: str | None = None


def desk(workshop: Workshop, build: str) -> PlanView:
    """The plan desk."""
    with workshop.held(build) as state:
        gear, made_of = gear_of(workshop), (state.head, workshop.store.version)
        return state.remembered(("desk",), made_of, lambda: plan_view(state, gear))


def preview(workshop: Workshop, build: str, acts: Sequence[Any], who: str) -> Difference:
    """What the acts would change; nothing is written."""
    with workshop.held(build) as state:
        return difference(state, _drafted(state, acts, who), gear_of(workshop))


def edit_plan(
    workshop: Workshop,
    build: str,
    acts: Sequence[Any],
    *,
    who: str,
    version: int,
    entry_id: str,
    reason: str | None = None,
) -> Edited:
    """Change the plan: plan, entry and the vehicle's facts in one transaction.

    Raises
    ------
    Conflict
        Somebody edited the plan since `version` (the figures of a limit are guarded by their own
        version).
    Refused, NotFound
        As `core.procedure.drafting` says; `no_reason` where a fact with done steps behind it
        changes.
    """
    with workshop.held(build) as state:
        known = state.entries.get(entry_id)
        if known is not None:
            return Edited(
                line=line_of(state, known), turned=(), desk=plan_view(state, gear_of(workshop))
            )
        if any(act.guarded for act in acts) and state.edits != version:
            last = state.each(PlanEdited, "plan")[-1]
            raise Conflict(
                f"the plan was edited by {last.who} meanwhile "
                f"({line_of(state, last).text[:120]}): look again, then change it",
                reason_code="moved_on",
            )
        changes = _drafted(state, acts, who)
        gear = gear_of(workshop)
        found = difference(state, changes, gear)
        if found.standing and not (reason or "").strip():
            raise Refused(
                "no_reason",
                f"{found.standing[0]} has lines in the log and would leave the plan: give a reason",
                field="reason",
            )
        kept_in = keep_for_next_time(workshop, state, acts, changes)
        return _write(workshop, build, state, changes, who, entry_id, reason).model_copy(
            update={"kept_in": kept_in}
        )


def _drafted(state: BookState, acts: Sequence[Any], who: str) -> tuple[Change, ...]:
    plan = state.whole
    assert plan is not None
    done = {step for step, status in statuses(state).items() if status.status == "done"}
    changes: list[Change] = []
    for act in acts:
        made = draft(plan, act, done, who)
        plan = apply(plan, made)
        changes += made
    return tuple(changes)


def _write(
    workshop: Workshop,
    build: str,
    state: BookState,
    changes: Sequence[Change],
    who: str,
    entry_id: str,
    reason: str | None,
) -> Edited:
    plan = state.whole
    assert plan is not None
    old = _verdicts(workshop, state)
    body = b.PlanEdited(
        what=change_words(plan, changes) or "plan edited",
        changes=tuple(changes),
        reason=reason or None,
    )
    after = apply(plan, changes)
    turned = _turned(workshop, state, old, after)
    written = workshop.draft(
        build, body.model_copy(update={"turned": turned}), who, entry_id=entry_id
    )
    facts = after.facts if after.facts != plan.facts else None
    entry = workshop.write(build, state, written, also=with_plan(build, after, facts))
    return Edited(
        line=line_of(state, entry),
        turned=tuple(f"{t.name}: {t.was} became {t.now}" for t in turned),
        desk=plan_view(state, gear_of(workshop)),
    )


Verdicts = dict[tuple[str, str], tuple[str, str]]
WORDS = {"too_close": "too close to call", "no_limit": "not judged", "not_read": "not read"}


def _verdicts(workshop: Workshop, state: BookState) -> Verdicts:
    """Name and verdict of every result that is read, by step and result."""
    tools = tuple(workshop.tools().values())
    return {
        (step.id, result.id): (
            f"{step.number} {result.name}",
            WORDS.get(result.judgement.verdict, result.judgement.verdict),
        )
        for step in plan_of(state).step
        for result in results_of(state, step, tools)
        if result.readings
    }


def _turned(
    workshop: Workshop, state: BookState, old: Verdicts, after: Plan
) -> tuple[b.Turned, ...]:
    """The verdicts that the plan as it will be turns; the state is put back as it was."""
    kept = state.whole, state.selection
    state.whole, state.selection = after, select(after)
    try:
        new = _verdicts(workshop, state)
    finally:
        state.whole, state.selection = kept
    return tuple(
        b.Turned(step=step, result=result, name=name, was=was, now=new[step, result][1])
        for (step, result), (name, was) in old.items()
        if (step, result) in new and new[step, result][1] != was
    )


def limits(workshop: Workshop, build: str) -> LimitBook:
    """The limit book of a build."""
    with workshop.held(build) as state:
        return limit_book(state, tuple(workshop.tools().values()))


def limits_csv(workshop: Workshop, build: str) -> str:
    """The limits as CSV, one line each, in the order of the steps."""
    book = limits(workshop, build)
    rows = [
        (
            x.id,
            x.name,
            x.condition or "",
            x.dimension,
            x.unit,
            x.lo or "",
            x.hi or "",
            x.target or "",
            x.source or "",
            x.page or "",
            row.state,
        )
        for row in book.rows
        if (x := row.limit) is not None
    ]
    return table(COLUMNS, rows)


def limits_toml(workshop: Workshop, build: str) -> str:
    """The limits and joints as TOML, the tables of a sheet."""
    with workshop.held(build) as state:
        plan = plan_of(state)
        keep: dict[str, Any] = {"exclude_none": True, "exclude_defaults": True}
        return tomli_w.dumps(
            {
                "limit": [x.model_dump(**keep) for x in plan.limit],
                "joint": [j.model_dump(**keep) for j in plan.joint],
            }
        )


def read_limits(
    workshop: Workshop, build: str, text: str, form: str, *, who: str, entry_id: str, take: bool
) -> Difference:
    """Read limits from CSV or TOML into the build; with `take` false only the difference is told.

    Figures whose id is known are changed, others are new. Nothing is written of a file with a
    mistake.

    Raises
    ------
    Refused
        `bad_file`: the line or table, the field, and what would be right; `nothing_new`.
    """
    with workshop.held(build) as state:
        plan = state.whole
        assert plan is not None
        listed = _from_csv(text) if form == "csv" else _from_toml(text)
        changes = []
        for place, data in listed:
            before = plan.find_limit(str(data.get("id", "")))
            changed = _read_limit(place, data, before)
            if (
                before is not None
                and before.given
                and before.source
                and (changed.lo, changed.hi, changed.target, changed.unit)
                != (before.lo, before.hi, before.target, before.unit)
                and (changed.source, changed.page) == (before.source, before.page)
            ):
                raise Refused(
                    "bad_file",
                    f"{place}: {before.name} changes from {before.words()} to "
                    f"{changed.words()}, and its source is still {before.source}: "
                    "name where the new figure comes from",
                    field="source",
                )
            if before is None or _figures(changed) != _figures(before):
                changes.append(LimitChange(before=before, after=changed))
        if not changes:
            raise Refused(
                "nothing_new",
                "every figure of the file is in the book already: nothing was changed",
                field="file",
            )
        found = difference(state, changes, gear_of(workshop))
        told = [
            f"{c.after.name}: "
            + (f"{c.before.words()} becomes " if c.before else "new, ")
            + c.after.words()
            for c in changes
        ]
        if take:
            _write(workshop, build, state, changes, who, entry_id, "read from a file")
        return found.model_copy(update={"figures": tuple(told)})


def _figures(limit: Limit) -> tuple[Any, ...]:
    return limit.lo, limit.hi, limit.target, limit.unit, limit.source, limit.page, limit.condition


def _from_csv(text: str) -> list[tuple[str, dict[str, Any]]]:
    rows = read_table(text, COLUMNS[:-1])
    return [
        (f"line {k}", {key: row[key] or None for key in COLUMNS[:-1] if key in row})
        for k, row in rows
    ]


def _from_toml(text: str) -> list[tuple[str, dict[str, Any]]]:
    try:
        data = tomllib.loads(text)
    except (tomllib.TOMLDecodeError, RecursionError) as error:
        raise Refused("bad_file", f"not readable as TOML: {error}", field="file") from error
    listed = data.get("limit")
    if not isinstance(listed, list) or not all(isinstance(item, dict) for item in listed):
        raise Refused(
            "bad_file", "the file must have [[limit]] tables, as a sheet has", field="file"
        )
    return [(f"limit {k}", item) for k, item in enumerate(listed, 1)]


def _read_limit(place: str, data: dict[str, Any], before: Limit | None) -> Limit:
    base = before.model_dump() if before else {}
    named = {key: value for key, value in data.items() if key in COLUMNS[:-1]}
    merged = {
        **base,
        **named,
        "version": (before.version if before else 0) + 1,
        "settled": True,
        "own": None,
    }
    trial = {
        "sheet": {"id": "x", "title": "x", "about": "x"},
        "limit": [{k: v for k, v in merged.items() if v is not None}],
        "step": [{"id": "x", "stage": "plan", "kind": "check", "title": "x", "do": "x"}],
    }
    try:
        return read_sheet(trial).limit[0]
    except Refused as refusal:
        raise Refused(
            "bad_file", f"{place}: {refusal.message.removeprefix('limit.1.')}", field="file"
        ) from refusal
