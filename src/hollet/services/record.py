"""The record of a build: on the screen, and on paper."""

from collections.abc import Iterator
from textwrap import wrap

from hollet.exchange.list_pdf import list_pdf
from hollet.exchange.paper import ListGroup, ListRow
from hollet.screens.record import RecordRow, RecordSection, RecordView, record_view
from hollet.services.names import build_names
from hollet.services.workshop import Workshop

__all__ = ["record", "record_paper"]

WIDE = 52
"""Letters on a line of the paper, beside the figure at its right."""


def record(workshop: Workshop, build: str, *, owner: bool = False) -> RecordView:
    """What the log of a build comes to."""
    with workshop.held(build) as state:
        tools = tuple(workshop.tools().values())
        return record_view(state, tools, workshop.now(), owner=owner)


def record_paper(workshop: Workshop, build: str, *, owner: bool = False) -> bytes:
    """The same as PDF; for the owner without notes and struck lines."""
    view = record(workshop, build, owner=owner)
    printed = workshop.local().strftime("%Y-%m-%d %H:%M")
    name = build_names(workshop)[build]
    about = f"{view.title}. {view.about}"
    return list_pdf(f"Record: {name}", about, printed, [_group(s) for s in view.sections])


def _group(section: RecordSection) -> ListGroup:
    rows = tuple(line for row in section.rows for line in _lines(row))
    return ListGroup(section.title, rows or (ListRow(section.none, box=False),))


def _lines(row: RecordRow) -> Iterator[ListRow]:
    """A row, its words on as many lines as they need: nothing of a record is cut off."""
    first, *more = wrap(row.what, WIDE) or [""]
    yield ListRow(first, row.small if not more else "", row.right, box=False)
    for k, line in enumerate(more, 1):
        yield ListRow(line, row.small if k == len(more) else "", box=False)
