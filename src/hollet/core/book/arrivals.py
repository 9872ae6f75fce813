"""What arrived, feature by feature: what of it is free, refused, or still to look at."""

from collections.abc import Sequence
from datetime import date
from typing import Literal

from pydantic import computed_field

from hollet.core.arrivals import ArrivalRule, Care, Shape
from hollet.core.book.wants import Want
from hollet.core.entries import (
    BookState,
    Entry,
    FeatureCompared,
    PartRefused,
    PartReturned,
    PartTaken,
)
from hollet.core.quantities.differing import laid_words, lengths_of
from hollet.core.safety import shut_words
from hollet.core.saying import day_due
from hollet.core.view import View

__all__ = [
    "Arrival",
    "FeatureFacts",
    "RefusedFacts",
    "Taken",
    "arrival_of",
    "refused_of",
    "rule_of",
    "stays_shut_words",
    "taken_of",
    "unit_of",
]


class FeatureFacts(View):
    """One feature, old against new; open, fits, or differs. `written` is its line."""

    feature: str
    state: Literal["open", "fits", "differs"]
    old: str = ""
    new: str = ""
    words: str = ""
    unit: str | None = None
    old_mm: float | None = None
    new_mm: float | None = None
    within: str | None = None
    within_source: str | None = None
    entry: str | None = None
    who: str = ""

    @computed_field
    @property
    def todo(self) -> bool:
        """Whether nobody compared it yet."""
        return self.state == "open"

    @computed_field
    @property
    def differs(self) -> bool:
        """Whether the new one is another than the old, by more than it may."""
        return self.state == "differs"


class RefusedFacts(View):
    """Pieces refused: what is wrong, until when they may go back, whether they went."""

    entry: str
    need: str
    name: str
    order: str
    supplier: str
    count: int
    wrong: str
    back_by: date | None
    photo: str | None
    now: str
    money: float | None
    time: str

    @computed_field
    @property
    def here(self) -> bool:
        """Whether it still lies in the shop."""
        return self.now == "refused"

    @computed_field
    @property
    def back_words(self) -> str:
        """By when it must be back, in words."""
        return f"back by {day_due(self.back_by)}" if self.back_by else ""

    @computed_field
    @property
    def owed(self) -> bool:
        """Whether its money is still to come back."""
        return self.now != "refunded"


class Taken(View):
    """Pieces that count as free, how so, and from which order; `in_writing` is a concession, and
    `licensed` who inspected it.
    """

    count: int
    order: str | None
    in_writing: str | None
    licensed: bool
    seq: int


class Arrival(View):
    """How a part is compared: by one press or feature by feature, and how far that is."""

    sort: str
    sort_name: str
    shape: Shape
    care: Care
    features: tuple[FeatureFacts, ...]

    @computed_field
    @property
    def by_press(self) -> bool:
        """Whether kind and count are all that is looked at."""
        return self.care == "press"

    @computed_field
    @property
    def fits(self) -> bool:
        """Whether every feature was compared and fits."""
        return all(f.state == "fits" for f in self.features)


MEASURED = ("length", "diameter", "bore", "width", "thickness", "offset", "wall")


def unit_of(feature: str) -> str | None:
    """The unit that a bare figure of a feature has: mm where its name says a size.

    Examples
    --------
    >>> unit_of("outside diameter"), unit_of("bore or splines"), unit_of("thread and pitch")
    ('mm', None, None)
    """
    words = feature.casefold().split()
    return "mm" if "or" not in words and any(word in MEASURED for word in words) else None


def _short(body: FeatureCompared) -> str:
    """What came of it in few words: the same, or by how much it differs, and what it may."""
    same = body.fits and not body.within
    words = laid_words(body.old, body.new, same, None, body.unit).partition(": ")[2]
    if body.within:
        words += f", {'within' if body.fits else 'more than'} {body.within}"
    return words


def rule_of(state: BookState, wants: Sequence[Want]) -> ArrivalRule:
    """The sort that the sheet says, or the one of its name; what a hand says only where no step of
    the plan wants it too.
    """
    planned = [want for want in wants if want.wanted is None]
    said = next((want.sort for want in planned or wants if want.sort is not None), None)
    return state.lore.arrival_of(wants[0].name, said)


def arrival_of(state: BookState, wants: Sequence[Want], order: str | None, made: bool) -> Arrival:
    """How pieces of an order (none: off the shelf) are compared. Safety parts and what was made to
    order go feature by feature, whatever their sort.
    """
    rule = rule_of(state, wants)
    asked = tuple(feature for want in wants for feature in want.feature)
    care: Care = rule.care
    if made or asked or any(want.safety for want in wants):
        care = "features"
    said: dict[str, Entry[FeatureCompared]] = {
        entry.body.feature: entry
        for entry in state.each(FeatureCompared, "need", wants[0].need)
        if entry.body.order == order
    }
    names = dict.fromkeys((*asked, *rule.feature)) if care == "features" else {}
    found = (_feature(name, said.get(name)) for name in dict.fromkeys((*names, *said)))
    return Arrival(
        sort=rule.sort, sort_name=rule.name, shape=rule.shape, care=care, features=tuple(found)
    )


def _feature(name: str, entry: Entry[FeatureCompared] | None) -> FeatureFacts:
    if entry is None:
        return FeatureFacts(feature=name, state="open", unit=unit_of(name))
    body = entry.body
    mm = lengths_of(body.old, body.new, body.unit)
    return FeatureFacts(
        feature=name,
        state="fits" if body.fits else "differs",
        old=body.old,
        new=body.new,
        unit=body.unit,
        words=_short(body),
        old_mm=mm[0] if mm else None,
        new_mm=mm[1] if mm else None,
        within=body.within,
        within_source=body.within_source,
        entry=entry.id,
        who=entry.who,
    )


def taken_of(state: BookState, wants: Sequence[Want], made: frozenset[str]) -> tuple[Taken, ...]:
    """What was taken and still holds: by one press only where that is enough today, compared only
    while every feature fits.
    """
    found = []
    for entry in state.each(PartTaken, "need", wants[0].need):
        body = entry.body
        arrival = arrival_of(state, wants, body.order, body.order in made)
        holds = {
            "counted": arrival.by_press and arrival.fits,
            "compared": arrival.fits,
            "in_writing": True,
        }[body.how]
        if holds:
            written = f"{body.name}: {body.reason}" if body.how == "in_writing" else None
            found.append(
                Taken(
                    count=body.count,
                    order=body.order,
                    in_writing=written,
                    licensed=bool(body.licensed),
                    seq=entry.seq,
                )
            )
    return tuple(found)


def refused_of(state: BookState, need: str) -> tuple[RefusedFacts, ...]:
    """Pieces refused, with what became of them."""
    later = state.each(PartReturned, "need", need)
    found = []
    for entry in state.each(PartRefused, "need", need):
        body = entry.body
        about = [e.body for e in later if e.body.refusal == entry.id]
        went = [b.now for b in about if b.now != "may go back until"]
        dates = [b.back_by for b in about if b.back_by is not None]
        money = [b.money for b in about if b.money is not None]
        found.append(
            RefusedFacts(
                entry=entry.id,
                need=need,
                name=body.part,
                order=body.order,
                supplier=body.supplier,
                count=body.count,
                wrong=body.wrong,
                back_by=dates[-1] if dates else body.back_by,
                photo=body.photo,
                now=went[-1] if went else "refused",
                money=money[-1] if money else None,
                time=entry.time,
            )
        )
    return tuple(found)


def stays_shut_words(wants: Sequence[Want]) -> str | None:
    """The rung that a safety part taken in writing keeps shut, in words."""
    safety = next((want.safety for want in wants if want.safety), None)
    return None if safety is None else shut_words(safety)
