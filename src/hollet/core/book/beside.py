"""Old against new: what of a part is laid side by side before the new one is fitted, and what
differs.
"""

from fractions import Fraction
from typing import Literal

from hollet.core.book.entries import Entry
from hollet.core.book.fold import BookState
from hollet.core.book.views import View
from hollet.core.errors import Refused
from hollet.core.findings import BESIDE, IN_THE_BOX
from hollet.core.procedure.sheet import InspectPart
from hollet.core.quantities.parse import parse
from hollet.core.quantities.quantity import decimal_text
from hollet.core.quantities.units import CANONICAL

__all__ = ["BesideFacts", "alike", "besides", "differing", "laid_words"]


class BesideFacts(View):
    """One feature: what the old and the new part show, the difference in words; open, same,
    differs, or differs and will do.
    """

    feature: str
    state: Literal["open", "same", "differs", "will_do"]
    words: str
    entry: str | None = None
    who: str = ""


def besides(state: BookState, step: str, part: InspectPart) -> tuple[BesideFacts, ...]:
    """The features that its kinds of face ask for, then those the mechanic named himself; the
    newest look at each counts.
    """
    asked = dict.fromkeys(
        [feature for face in part.face for feature in BESIDE.get(face.on, ())] + [IN_THE_BOX]
    )
    laid = {
        entry.body.feature: entry
        for entry in state.live(f"part:{step}/{part.id}")
        if entry.kind == "laid beside"
    }
    return tuple(
        _facts(feature, laid.get(feature))
        for feature in (*asked, *(f for f in laid if f not in asked))
    )


def _facts(feature: str, entry: Entry | None) -> BesideFacts:
    if entry is None:
        return BesideFacts(feature=feature, state="open", words="")
    body = entry.body
    return BesideFacts(
        feature=feature,
        state="same" if body.same else "will_do" if body.why else "differs",
        words=laid_words(body.old, body.new, body.same, body.why),
        entry=entry.id,
        who=entry.who,
    )


def laid_words(old: str, new: str, same: bool, why: str | None) -> str:
    """Both as typed, how far apart they are where both are figures, and what was said of it."""
    apart = _apart(old, new)
    said = "same" if same else "differs"
    return (
        f"old {old}, new {new}: "
        f"{said}{f', {apart}' if apart else ''}{f'; it will do: {why}' if why else ''}"
    )


def alike(old: str, new: str) -> bool:
    """Whether both read the same: equal figures, in whatever unit, or equal words."""
    by = _difference(old, new)
    return by[0] == 0 if by else old.casefold().split() == new.casefold().split()


def _apart(old: str, new: str) -> str | None:
    """The new figure less the old in words, or None where they are equal or no figures
    of one kind.
    """
    by = _difference(old, new)
    return (
        f"{decimal_text(abs(by[0]))} {CANONICAL[by[1]]} {'more' if by[0] > 0 else 'less'}"
        if by and by[0]
        else None
    )


def _difference(old: str, new: str) -> tuple[Fraction, str] | None:
    """The new figure less the old in the canonical unit, and the dimension; None where the two are
    no figures of one kind.
    """
    try:
        was = parse(old)
        now = parse(
            new, was.dimension, was.shown.name if was.shown else None
        )  # "2 in" and "2": the unit holds for both
    except Refused:  # words such as "one lip": nothing to reckon
        return None
    if (
        was.nominal is None
        or now.nominal is None
        or was.dimension != now.dimension
        or was.dimension is None
    ):
        return None
    return now.nominal - was.nominal, was.dimension


def differing(found: tuple[BesideFacts, ...]) -> BesideFacts | None:
    """The first feature in which the new part differs, and nobody has said that it will do."""
    return next((item for item in found if item.state == "differs"), None)
