"""What is not yet final, as a list: joint by joint, by what closes over it next."""

from hollet.core.book.debts import AgainDue, Debt, DebtGroup, Debts, debts_of
from hollet.core.entries import BookState
from hollet.core.view import View
from hollet.core.words import counted

__all__ = ["DebtFilter", "DebtsView", "debts_view"]

ACCESS = (
    "It waits for access only. A reason lets it go on; what is behind it stays on this list, and "
    "the cover comes off again for it."
)
DANGER = "Nothing lets it go on over these but the bolts themselves."


class DebtFilter(View):
    """A choice of groups: what it is called, how many bolts are in it, which groups it shows."""

    id: str
    name: str
    count: int
    groups: tuple[str, ...]


class NextBolt(View):
    """What is done next: a joint of the first group that waits for the mechanic alone, else its
    first one.
    """

    joint: str
    step: str
    words: str


class DebtsView(View):
    """The list, its title, its filters, what is next, and how the first thing that closes may be
    passed.
    """

    title: str
    groups: tuple[DebtGroup, ...]
    again: tuple[AgainDue, ...]
    to_come: str | None
    filters: tuple[DebtFilter, ...]
    next: NextBolt | None
    passing: str | None
    ended: tuple[str, ...]


def debts_view(state: BookState, now: str) -> DebtsView:
    """Everything that is below its final state."""
    found = debts_of(state, now)
    first = found.groups[0] if found.groups else None
    every = [debt for group in found.groups for debt in group.debts]
    return DebtsView(
        title=_title(found, first),
        groups=found.groups,
        again=found.again,
        to_come=(
            f"{counted(found.to_come, 'joint')} to come, {counted(found.to_come_bolts, 'bolt')}: "
            "nobody has begun them, and their steps ask for them"
            if found.to_come
            else None
        ),
        filters=_filters(found),
        next=_next(first),
        passing=None if first is None else DANGER if first.danger else ACCESS,
        ended=tuple(f"{debt.name}: {debt.ended}" for debt in every if debt.ended is not None),
    )


def _title(found: Debts, first: DebtGroup | None) -> str:
    if first is None:
        again = sum(due.bolts for due in found.again)
        due = f" {counted(again, 'bolt is', 'bolts are')} due again." if again else ""
        return f"Every bolt that was begun is final, every lock set.{due}"
    not_final = f"{counted(found.left, 'bolt is', 'bolts are')} not final"
    which = "" if first.left == found.left else f"{first.left} "
    if first.closing == "nothing":
        return not_final
    if first.closing == "rung":
        when = first.title[0].lower() + first.title[1:]
        return f"{not_final}, {which}before {when}"
    get = "gets" if first.left == 1 else "get"
    return f"{not_final}, {which or 'and '}{get} closed over next"


def _filters(found: Debts) -> tuple[DebtFilter, ...]:
    """All of them, and those that hold some."""
    groups = found.groups
    sorts = (
        ("next", "Next cover", [g for g in groups if g.closing == "cover"][:1]),
        ("fluids", "Fluids", [g for g in groups if g.closing == "fluid"]),
        ("crank", "Crank", [g for g in groups if g.id in ("rung:crank", "rung:fire")]),
        ("ground", "Wheels down", [g for g in groups if g.id == "rung:drive"]),
        ("locks", "Locks", [g for g in groups if any(d.unlocked for d in g.debts)]),
    )
    every = DebtFilter(
        id="all", name="All", count=found.left, groups=tuple(group.id for group in groups)
    )
    some = (
        DebtFilter(
            id=name,
            name=words,
            count=found.unlocked if name == "locks" else sum(g.left for g in chosen),
            groups=tuple(g.id for g in chosen),
        )
        for name, words, chosen in sorts
        if chosen
    )
    return (every, *some)


def _next(first: DebtGroup | None) -> NextBolt | None:
    if first is None:
        return None
    debt: Debt = next((d for d in first.debts if d.alone), first.debts[0])
    bolt = f"{debt.name}, bolt {debt.next_bolt}" if debt.next_bolt is not None else debt.name
    return NextBolt(joint=debt.joint, step=debt.step, words=bolt)
