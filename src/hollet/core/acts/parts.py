"""What a hand says of parts: wanted, ordered, arrived, compared, taken, refused, returned."""

from datetime import date
from typing import Annotated, ClassVar, Literal

from pydantic import BaseModel, ConfigDict, Field, StringConstraints

from hollet.core.acts.base import Act, Passing, is_thin, step_named
from hollet.core.acts.hand import Hand
from hollet.core.arrivals import PartSort
from hollet.core.book.arrivals import unit_of
from hollet.core.book.needs import Need, arrival_for, need_named, needs
from hollet.core.book.orders import OrderFacts, OrderPart, orders
from hollet.core.book.wants import need_id
from hollet.core.entries import (
    BookState,
    FeatureCompared,
    Key,
    Ordered,
    OrderMoved,
    ParcelCame,
    PartRefused,
    PartReturned,
    PartTaken,
    PartWanted,
)
from hollet.core.entries.base import Own, PhotoHash, Short
from hollet.core.entries.parts import (
    FeatureComparedSaid,
    OrderLine,
    OrderState,
    ParcelLine,
    PartTakenSaid,
    Price,
)
from hollet.core.errors import Conflict, NotFound, Refused
from hollet.core.quantities.differing import alike, apart_within
from hollet.core.safety import Safety
from hollet.core.saying import read_day, read_wanted

__all__ = [
    "FeatureComparedAct",
    "OrderMovedAct",
    "OrderedAct",
    "ParcelCameAct",
    "PartRefusedAct",
    "PartReturnedAct",
    "PartTakenAct",
    "PartWantedAct",
]

Day = Annotated[str, Field(min_length=1, max_length=40)]
Named = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=80)]
"""A few words: blanks alone are none."""
PiecesSaid = Annotated[int, Field(ge=1, le=999, strict=True)]
"""A hand says a number and no word: true is not one piece."""


def _need(state: BookState, need: str) -> Need:
    found = need_named(state, need)
    if found is None:
        raise NotFound("part", need)
    return found


def _order(state: BookState, order: str | None) -> OrderFacts:
    found = next((o for o in orders(state) if o.id == order), None)
    if found is None:
        raise NotFound("order", str(order))
    return found


def _part_of(order: OrderFacts, need: str) -> OrderPart:
    found = next((part for part in order.parts if part.need == need), None)
    if found is None:
        raise NotFound("part of this order", need)
    return found


class PartWantedAct(Act[PartWanted]):
    """A part that somebody wants, in one line."""

    body: ClassVar = PartWanted
    kind: Literal["part wanted"]
    typed: Short
    step: str | None = None
    sort: PartSort | None = None
    safety: Safety | Literal["none"] | None = None

    def accepted(self, state: BookState, hand: Hand) -> PartWanted:
        if self.step is not None:
            step_named(state, self.step)
        line = read_wanted(self.typed, hand.today)
        if self.safety is None:
            words = f"{line.name}: is it a part of steering, brakes, wheels, fuel? say it once"
            raise Refused("safety_asked", words, field="safety")
        return PartWanted(
            step=self.step,
            typed=self.typed,
            need=need_id(line.name),
            name=line.name,
            count=line.count,
            number=line.number,
            price=line.price,
            by=line.by,
            sort=self.sort,
            safety=None if self.safety == "none" else self.safety,
        )


class OrderLineSaid(BaseModel):
    """So many of a part, and what one costs."""

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)
    need: Own
    count: PiecesSaid
    price: Price | None = None


class OrderedAct(Act[Ordered]):
    """Parts asked for at a supplier; `promised` as it is said."""

    body: ClassVar = Ordered
    kind: Literal["ordered"]
    order: Own
    supplier: Named
    state: OrderState = "asked"
    lines: Annotated[tuple[OrderLineSaid, ...], Field(min_length=1, max_length=60)]
    promised: Day | None = None

    def concerns(self) -> Key:
        return Key("order", self.order)

    def accepted(self, state: BookState, hand: Hand) -> Ordered:
        if self.state == "cancelled":
            raise Refused("bad_entry", "an order begins as asked or further", field="state")
        if any(order.id == self.order for order in orders(state)):
            raise Conflict("this order is written already", reason_code="id_used")
        twice = [line.need for line in self.lines]
        if len(set(twice)) < len(twice):
            raise Refused("bad_entry", "each part stands in an order once", field="lines")
        known = {need.id: need for need in needs(state)}
        lost = next((line.need for line in self.lines if line.need not in known), None)
        if lost is not None:
            raise Refused(
                "nobody_needs",
                f"nobody needs '{lost}' on this build: write what is wanted first, then order it",
                field="lines",
            )
        return Ordered(
            order=self.order,
            supplier=self.supplier,
            state=self.state,
            lines=tuple(
                OrderLine(
                    need=line.need, name=known[line.need].name, count=line.count, price=line.price
                )
                for line in self.lines
            ),
            promised=_promised(self.promised, hand.today),
        )


def _promised(text: str | None, today: date) -> date | None:
    return read_day(text, today, "promised") if text and text.strip() else None


class OrderMovedAct(Act[OrderMoved]):
    """What was heard of an order."""

    body: ClassVar = OrderMoved
    kind: Literal["order moved"]
    order: Own
    state: OrderState
    promised: Day | None = None
    because: Annotated[str, Field(max_length=300)] | None = None

    def concerns(self) -> Key:
        return Key("order", self.order)

    def accepted(self, state: BookState, hand: Hand) -> OrderMoved:
        order = _order(state, self.order)
        if order.state == "cancelled":
            raise Conflict(f"{order.supplier}: this order is cancelled", reason_code="cancelled")
        return OrderMoved(
            order=self.order,
            state=self.state,
            promised=_promised(self.promised, hand.today),
            because=self.because,
            supplier=order.supplier,
            needs=tuple(part.need for part in order.parts),
            was=order.promised,
        )


class ParcelLineSaid(BaseModel):
    """So many of a part in the parcel."""

    model_config = ConfigDict(frozen=True, extra="forbid")
    need: Own
    count: PiecesSaid


class ParcelCameAct(Act[ParcelCame]):
    """A parcel is opened: what lies in it; nothing said, all that is still to come."""

    body: ClassVar = ParcelCame
    kind: Literal["parcel came"]
    order: Own
    lines: Annotated[tuple[ParcelLineSaid, ...], Field(max_length=60)] = ()

    def concerns(self) -> Key:
        return Key("order", self.order)

    def accepted(self, state: BookState, hand: Hand) -> ParcelCame:
        order = _order(state, self.order)
        said = {line.need: line.count for line in self.lines}
        if len(said) < len(self.lines):
            raise Refused("bad_entry", "each part stands in a parcel once", field="lines")
        lost = next((n for n in said if n not in {p.need for p in order.parts}), None)
        if lost is not None:
            raise Refused(
                "nobody_asked",
                f"'{lost}' was not asked for there: a spare, the wrong address, or a need that is "
                "not written yet",
                field="lines",
            )
        if not said:
            said = {part.need: part.to_come for part in order.parts if part.to_come}
        if not said:
            words = f"all of this order from {order.supplier} is here already"
            raise Conflict(words, reason_code="already_here")
        lines = tuple(
            ParcelLine(need=part.need, name=part.name, count=said[part.need])
            for part in order.parts
            if part.need in said
        )
        return ParcelCame(order=self.order, supplier=order.supplier, lines=lines)


class FeatureComparedAct(Act[FeatureCompared], FeatureComparedSaid):
    """One feature of a new part against the old one."""

    body: ClassVar = FeatureCompared
    kind: Literal["feature compared"]
    feature: Annotated[str, StringConstraints(strip_whitespace=True, min_length=2, max_length=60)]
    old: Named
    new: Named

    def accepted(self, state: BookState, hand: Hand) -> FeatureCompared:
        need = _need(state, self.need)
        if self.order is not None:
            _part_of(_order(state, self.order), self.need)
        unit = unit_of(self.feature)
        if self.within and not self.within_source:
            words = f"who says that it may differ by {self.within}? A book, a drawing, or you"
            raise Refused("no_source", words, field="within_source")
        fits = alike(self.old, self.new, unit)
        if self.within and not fits:
            fits = apart_within(self.old, self.new, self.within, unit, "within")
        return self.filled(name=need.name, fits=fits, unit=unit)


class PartTakenAct(Act[PartTaken], PartTakenSaid):
    """Pieces are taken as good."""

    body: ClassVar = PartTaken
    kind: Literal["part taken"]
    count: PiecesSaid
    name: Named | None = None
    reason: Passing | None = None

    def accepted(self, state: BookState, hand: Hand) -> PartTaken:
        need = _need(state, self.need)
        if need.compare_at is not None:
            words = f"{need.name}: it is laid beside the old one where that was looked at"
            raise Refused("not_here", words, field="need")
        if need.machined is not None:
            words = f"{need.name}: it is free once it is back and measured as it was ordered"
            raise Refused("not_here", words, field="need")
        if self.order is not None:
            self._there(state, need)
        arrival = arrival_for(state, self.need, self.order)
        if self.how == "in_writing":
            if self.reason is None or not self.name:
                words = "to take it in writing give the reason and a name"
                raise Refused("no_reason", words, field="reason" if self.name else "name")
            if need.safety == "lifting":
                words = f"{need.name}: lifting gear is never taken in writing, it is replaced"
                raise Refused("never_conceded", words, field="how")
            if self.licensed is not None and is_thin(self.licensed):
                words = "a licensed inspection has a name and a reference: write both"
                raise Refused("licensed_thin", words, field="licensed")
            return self.filled(part=need.name)
        if self.how == "counted" and not arrival.by_press:
            words = f"{need.name}: kind and count are not enough, it is compared feature by feature"
            raise Refused("not_compared", words, field="how")
        left = next((f for f in arrival.features if f.state != "fits"), None)
        if left is not None:
            words = f"{left.feature} is not compared" if left.todo else f"{left.feature} differs"
            raise Refused("not_compared", f"{need.name}: {words}", field="how")
        return self.filled(part=need.name, reason=None, name=None, licensed=None)

    def _there(self, state: BookState, need: Need) -> None:
        """Refuse more than lie here of that order."""
        part = _part_of(_order(state, self.order), self.need)
        taken = sum(
            e.body.count
            for e in state.each(PartTaken, "need", self.need)
            if e.body.order == self.order
        )
        here = part.arrived - part.refused - taken
        if self.count > here:
            words = f"{need.name}: {max(here, 0)} of this order lie here to be looked at"
            raise Refused("not_here", words, field="count")


class PartRefusedAct(Act[PartRefused]):
    """Pieces are not taken."""

    body: ClassVar = PartRefused
    kind: Literal["part refused"]
    need: Own
    order: Own
    count: PiecesSaid
    wrong: Passing
    photo: PhotoHash | None = None
    back_by: Day | None = None

    def concerns(self) -> Key:
        return Key("need", self.need)

    def files(self) -> tuple[tuple[str, str], ...]:
        return (("photos", self.photo),) if self.photo is not None else ()

    def accepted(self, state: BookState, hand: Hand) -> PartRefused:
        need, order = _need(state, self.need), _order(state, self.order)
        part = _part_of(order, self.need)
        if self.count > part.arrived - part.refused:
            words = f"{need.name}: {part.arrived - part.refused} of this order lie here"
            raise Refused("not_here", words, field="count")
        day = read_day(self.back_by, hand.today, "back_by") if self.back_by else None
        return PartRefused(
            need=self.need,
            order=self.order,
            count=self.count,
            wrong=self.wrong,
            photo=self.photo,
            back_by=day,
            part=need.name,
            supplier=order.supplier,
        )


class PartReturnedAct(Act[PartReturned]):
    """What became of pieces that were refused."""

    body: ClassVar = PartReturned
    kind: Literal["part returned"]
    refusal: str
    now: Literal["sent back", "refunded", "may go back until"]
    money: Price | None = None
    back_by: Day | None = None

    def accepted(self, state: BookState, hand: Hand) -> PartReturned:
        refused = next((e for e in state.all(PartRefused) if e.id == self.refusal), None)
        if refused is None:
            raise NotFound("refused part", self.refusal)
        body = refused.body
        if self.now == "may go back until" and not self.back_by:
            raise Refused("bad_day", "until which day may it go back?", field="back_by")
        return PartReturned(
            refusal=self.refusal,
            need=body.need,
            part=body.part,
            now=self.now,
            money=self.money,
            back_by=read_day(self.back_by, hand.today, "back_by") if self.back_by else None,
        )
