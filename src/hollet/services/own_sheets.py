"""A mechanic's own copy of a sheet: what his builds put in, counted and found, and what the sheets
of a build say that they did not say when its plan was made.
"""

from collections.abc import Sequence
from datetime import date
from typing import Any

import tomli_w
from pydantic import BaseModel

from hollet.core.book.sharper import Sharper, sharpened, sharper_of
from hollet.core.entries import BookState, PlanEdited
from hollet.core.entries.status import whole_of
from hollet.core.errors import Refused
from hollet.core.procedure.changes import Change, apply
from hollet.core.procedure.combining import combine_sheets
from hollet.core.procedure.newer import News, news_of
from hollet.core.procedure.plan import Plan
from hollet.core.procedure.sheet import Sheet
from hollet.services.builds import frame
from hollet.services.sheets import find_sheet, keep_sheet
from hollet.services.workshop import Workshop

__all__ = [
    "KeptIn",
    "SheetsDesk",
    "keep_for_next_time",
    "keep_what_was_found",
    "sheet_toml",
    "sheets_desk",
]


class SheetsDesk(BaseModel):
    """The sheets of a build: what they say now and did not, what the build found that they only
    suppose; `gone` are no longer here, `apart` is why they no longer go together.
    """

    news: tuple[News, ...]
    sharper: tuple[Sharper, ...]
    gone: tuple[str, ...]
    apart: str | None
    words: str


class KeptIn(BaseModel):
    """The own copies that took in what a build found, by title."""

    titles: tuple[str, ...]


def sheets_desk(workshop: Workshop, build: str) -> SheetsDesk:
    """What is new in the sheets of a build, and what it could give them."""
    with workshop.held(build) as state:
        made_of = (state.head, workshop.store.version)
        return state.remembered(("sheets",), made_of, lambda: _desk(workshop, state))


def _desk(workshop: Workshop, state: BookState) -> SheetsDesk:
    whole = whole_of(state)
    found = {name: find_sheet(workshop, name, missing_ok=True) for name in whole.sheets}
    here = [sheet for sheet in found.values() if sheet is not None]
    gone = tuple(name for name, sheet in found.items() if sheet is None)
    news: tuple[News, ...] = ()
    apart = None
    if here and not gone:
        try:
            news = _news(state, here)
        except Refused as refusal:  # its own plan stands, whatever became of the sheets
            apart = refusal.message
    own = [_own(workshop, name) for name in whole.sheets]
    told_of = (s for sheet in own if sheet is not None for s in sharper_of(state, sheet))
    sharper = tuple({s.words: s for s in told_of}.values())
    summed = [
        f"{len(news)} new in the sheets" if news else "",
        f"{len(sharper)} to keep for the sheets" if sharper else "",
        f"{', '.join(gone)}: no longer here" if gone else "",
        "the sheets no longer go together" if apart else "",
    ]
    return SheetsDesk(
        news=news,
        sharper=sharper,
        gone=gone,
        apart=apart,
        words="; ".join(words for words in summed if words),
    )


def _news(state: BookState, sheets: Sequence[Sheet]) -> tuple[News, ...]:
    made = next((e.body.sheet for e in state.each(PlanEdited, "plan") if e.body.sheet), None)
    if made is None:
        return ()
    return news_of(made, whole_of(state), combine_sheets(sheets))


def keep_what_was_found(workshop: Workshop, build: str, *, who: str, on: date) -> KeptIn:
    """What a build counted and found goes into its owner's own copies of its sheets.

    Raises
    ------
    Refused
        `nothing_new`: the sheets say all of it already.
    """
    titles = []
    name = frame(workshop, build).name
    with workshop.held(build) as state:
        for sheet_id in whole_of(state).sheets:
            own = _own(workshop, sheet_id)
            if own is None or not sharper_of(state, own):
                continue
            mine = sharpened(state, own, who, on, name)
            titles.append(keep_sheet(workshop, sheet_toml(_as_own(mine))).title)
    if not titles:
        raise Refused(
            "nothing_new",
            "the sheets say all that was counted and found here: count a joint or a bag first",
            field="build",
        )
    return KeptIn(titles=tuple(titles))


def _own(workshop: Workshop, name: str) -> Sheet | None:
    """The own copy of a sheet, or the sheet where there is none yet."""
    own = find_sheet(workshop, f"{name}-own", missing_ok=True)
    return own or find_sheet(workshop, name, missing_ok=True)


def _as_own(sheet: Sheet) -> Sheet:
    """The next version of an own copy, told by its id and title."""
    id_ = sheet.id if sheet.id.endswith("-own") else f"{sheet.id}-own"[:60]
    title = sheet.title if sheet.title.endswith("(own copy)") else f"{sheet.title} (own copy)"
    return sheet.model_copy(update={"id": id_, "title": title[:400], "version": sheet.version + 1})


def keep_for_next_time(
    workshop: Workshop, state: BookState, acts: Sequence[Any], changes: Sequence[Change]
) -> str | None:
    """A forgotten step also goes, with its reasons, into the user's own copy of the sheet that the
    next step comes from.
    """
    if not any(act.kept() for act in acts):
        return None
    put_in = [step.id for change in changes if (step := change.put_in()) is not None]
    behind = {change.behind_step() for change in changes}
    near = behind | {step for act in acts for step in act.near()}
    for name in whole_of(state).sheets:
        own = _own(workshop, name)
        if own is None or not near & {step.id for step in own.step}:
            continue
        here = {step.id for step in own.step} | set(put_in)
        taken = (change.for_sheet(here) for change in changes)
        mine = apply(
            Plan.model_validate(own.model_dump()),
            [change for change in taken if change is not None],
        )
        return keep_sheet(workshop, sheet_toml(_as_own(mine))).title
    return None


def sheet_toml(sheet: Sheet) -> str:
    """A sheet as TOML in the documented format."""
    data = sheet.model_dump(
        exclude_none=True,
        exclude_defaults=True,
        exclude={"sheets", "facts", "ways", "extras", "parts", "retired", "combined", "helpers"},
    )
    for step in data["step"]:
        step.pop("number", None)
    head = {
        key: data.pop(key)
        for key in ("id", "title", "version", "about", "source", "look_in", "first", "any_vehicle")
        if key in data
    }
    return tomli_w.dumps({"sheet": head, **data}, multiline_strings=False)
