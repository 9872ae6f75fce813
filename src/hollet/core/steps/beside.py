"""Old against new: what of a part is laid side by side before the new one is fitted, and what
differs.
"""

from collections.abc import Sequence
from typing import Literal

from pydantic import computed_field

from hollet.core.entries import BookState, Entry, LaidBeside
from hollet.core.findings import IN_THE_BOX
from hollet.core.procedure.kinds.inspect import InspectPart
from hollet.core.quantities.differing import laid_words
from hollet.core.view import View

__all__ = ["BesideFacts", "besides", "differing"]


class BesideFacts(View):
    """One feature: what the old and the new part show, the difference in words; open, same,
    differs, or differs and will do.
    """

    feature: str
    state: Literal["open", "same", "differs", "will_do"]
    words: str
    entry: str | None = None
    who: str = ""

    @computed_field
    @property
    def todo(self) -> bool:
        """Whether nobody compared it yet."""
        return self.state == "open"

    @computed_field
    @property
    def accepted(self) -> bool:
        """Whether it differs and somebody said why that will do."""
        return self.state == "will_do"


def besides(state: BookState, step: str, part: InspectPart) -> tuple[BesideFacts, ...]:
    """The features that its kinds of face ask for, then those the mechanic named himself; the
    newest look at each counts.
    """
    asked = dict.fromkeys(
        [feature for face in part.face for feature in state.lore.beside.get(face.on, ())]
        + [IN_THE_BOX]
    )
    laid = {
        entry.body.feature: entry for entry in state.each(LaidBeside, "part", f"{step}/{part.id}")
    }
    return tuple(
        _facts(feature, laid.get(feature))
        for feature in (*asked, *(f for f in laid if f not in asked))
    )


def _facts(feature: str, entry: Entry[LaidBeside] | None) -> BesideFacts:
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


def differing(found: Sequence[BesideFacts]) -> BesideFacts | None:
    """The first feature in which the new part differs, and nobody has said that it will do."""
    return next((item for item in found if item.state == "differs"), None)
