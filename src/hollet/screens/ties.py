"""The register of ties of a build."""

from hollet.core.book.ties import TieRow, ties
from hollet.core.entries import BookState
from hollet.core.view import View
from hollet.core.words import counted

__all__ = ["TiesView", "ties_view"]

ORDER = ("wrong", "back", "off", "proven")


class TiesView(View):
    """Every line that was parted: what is wrong or not proven first, then what is off."""

    title: str
    rows: tuple[TieRow, ...]


def ties_view(state: BookState) -> TiesView:
    """The register as it stands."""
    rows = sorted(ties(state), key=lambda row: ORDER.index(row.state))
    count = {name: sum(row.state == name for row in rows) for name in ORDER}
    said = [f"{count['wrong']} not right"] if count["wrong"] else []
    said += [f"{count['back']} back, not proven"] if count["back"] else []
    said += [f"{count['off']} off"] if count["off"] else []
    title = f"{counted(len(rows), 'tie')}: {', '.join(said) or 'all proven'}"
    return TiesView(title=title if rows else "Nothing is parted yet", rows=tuple(rows))
