"""What is not yet final: the desk, and the list on paper."""

from hollet.core.book.debts import AgainDue, Debt
from hollet.exchange.list_pdf import list_pdf
from hollet.exchange.paper import ListGroup, ListRow
from hollet.screens.debts import DebtsView, debts_view
from hollet.services.names import build_names
from hollet.services.workshop import Workshop

__all__ = ["debt_list", "debts"]


def debts(workshop: Workshop, build: str) -> DebtsView:
    """Every fastener below its final state, and what closes over it next."""
    with workshop.held(build) as state:
        return debts_view(state, workshop.now())


def debt_list(workshop: Workshop, build: str) -> bytes:
    """The same on paper, to tick at the bench; as PDF."""
    view = debts(workshop, build)
    groups = [ListGroup(group.title, tuple(map(_row, group.debts))) for group in view.groups]
    if view.again:
        groups.append(ListGroup("Due again", tuple(map(_due, view.again))))
    if view.to_come is not None:
        what, _, why = view.to_come.partition(": ")
        groups.append(ListGroup("To come", (ListRow(what, why, box=False),)))
    printed = workshop.local().strftime("%Y-%m-%d %H:%M")
    name = build_names(workshop)[build]
    return list_pdf(f"Not yet final: {name}", view.title, printed, groups)


def _row(debt: Debt) -> ListRow:
    left = [bolt for bolt in debt.bolts if bolt.state != "final"] or list(debt.bolts)
    bolts = ", ".join(str(bolt.number) for bolt in left)
    which = "every bolt" if len(left) == len(debt.bolts) else f"bolts {bolts} of {len(debt.bolts)}"
    small = f"{debt.step_number}, {which}: {debt.reason}"
    return ListRow(debt.name, small, debt.waits)


def _due(due: AgainDue) -> ListRow:
    return ListRow(due.name, f"{due.bolts} at {due.step_number} {due.title}")
