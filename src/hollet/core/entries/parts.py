"""Parts from the wish to the shelf: wanted, ordered, on the way, arrived, compared, taken or
refused.
"""

from datetime import date
from typing import Annotated, Any, ClassVar, Literal

from pydantic import BaseModel, BeforeValidator, ConfigDict, Field
from pydantic_core import PydanticCustomError

from hollet.core.arrivals import PartSort
from hollet.core.entries.base import Body, Key, Money, Own, PhotoHash, Reason, Short
from hollet.core.quantities.differing import laid_words
from hollet.core.safety import Safety

__all__ = [
    "FeatureCompared",
    "FeatureComparedSaid",
    "OrderLine",
    "OrderMoved",
    "OrderMovedSaid",
    "Ordered",
    "ParcelCame",
    "ParcelLine",
    "PartRefused",
    "PartRefusedSaid",
    "PartReturned",
    "PartTaken",
    "PartTakenSaid",
    "PartWanted",
]


def _number(value: Any) -> Any:
    """A hand says a number and no word: true is not one."""
    if isinstance(value, bool):
        raise PydanticCustomError("not_a_price", "must be a number, such as 24.50")
    return value


Price = Annotated[Money, Field(ge=0, le=1e6), BeforeValidator(_number)]
Pieces = Annotated[int, Field(ge=1, le=999)]
OrderState = Literal[
    "asked",
    "quoted",
    "in design",
    "proof to approve",
    "being made",
    "shipped",
    "cancelled",
]
HowTaken = Literal["counted", "compared", "in_writing"]


def money_words(price: float | None) -> str:
    return "" if price is None else f", {price:.2f} each"


def day_words(day: date) -> str:
    """A day as it is said in the log: `8 Dec 2026`."""
    return f"{day.day} {day:%b %Y}"


class PartWanted(Body):
    """A part that somebody wants, in one line as typed, and for which step: nobody is at work there
    yet. `safety` none where it is no safety part.
    """

    called: ClassVar = "part wanted"
    clocked: ClassVar = False
    begins: ClassVar = False

    need: Own
    name: Short
    typed: Short
    step: str | None = None
    count: Pieces = 1
    number: Annotated[str, Field(max_length=60)] | None = None
    price: Price | None = None
    by: date | None = None
    sort: PartSort | None = None
    safety: Safety | None = None

    def subject(self) -> Key:
        return Key("need", self.need)

    def line(self, title: str) -> str:
        number = f" {self.number}" if self.number else ""
        by = f", by {day_words(self.by)}" if self.by else ""
        return f"wanted: {self.count} × {self.name}{number}{money_words(self.price)}{by}"


class OrderLine(BaseModel):
    """So many of a part at a price each."""

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)
    need: Own
    name: Short
    count: Pieces
    price: Price | None = None


class Ordered(Body):
    """Parts asked for or ordered at a supplier."""

    called: ClassVar = "ordered"
    clocked: ClassVar = False

    order: Own
    supplier: Short
    state: OrderState
    lines: Annotated[tuple[OrderLine, ...], Field(min_length=1, max_length=60)]
    promised: date | None = None

    def subject(self) -> Key:
        return Key("order", self.order)

    def also(self) -> tuple[Key, ...]:
        return tuple(Key("need", line.need) for line in self.lines)

    def line(self, title: str) -> str:
        what = ", ".join(
            f"{line.count} × {line.name}{money_words(line.price)}" for line in self.lines
        )
        promised = f", promised for {day_words(self.promised)}" if self.promised else ""
        return f"{self.supplier}, {self.state}: {what}{promised}"


class OrderMovedSaid(Body):
    """What was heard of an order: where it stands, and for when it is promised now."""

    order: Own
    state: OrderState
    promised: date | None = None
    because: Annotated[str, Field(max_length=300)] | None = None

    def subject(self) -> Key:
        return Key("order", self.order)


class OrderMoved(OrderMovedSaid):
    """An order as it stands now; `was` is the day for which it was promised before."""

    called: ClassVar = "order moved"
    clocked: ClassVar = False

    supplier: Short
    needs: tuple[Own, ...]
    was: date | None = None

    def also(self) -> tuple[Key, ...]:
        return tuple(Key("need", need) for need in self.needs)

    def line(self, title: str) -> str:
        said = f"{self.supplier}: {self.state}"
        if self.promised and self.was and self.promised != self.was:
            said += f", now promised for {day_words(self.promised)}, was {day_words(self.was)}"
        elif self.promised:
            said += f", promised for {day_words(self.promised)}"
        return said + (f": {self.because}" if self.because else "")


class ParcelLine(BaseModel):
    """So many of a part that lay in a parcel."""

    model_config = ConfigDict(frozen=True, extra="forbid")
    need: Own
    name: Short
    count: Pieces


class ParcelCame(Body):
    """A parcel of an order, and what lay in it: here, and not compared."""

    called: ClassVar = "parcel came"
    clocked: ClassVar = False
    never_late: ClassVar = True

    order: Own
    supplier: Short
    lines: Annotated[tuple[ParcelLine, ...], Field(min_length=1, max_length=60)]

    def subject(self) -> Key:
        return Key("order", self.order)

    def also(self) -> tuple[Key, ...]:
        return tuple(Key("need", line.need) for line in self.lines)

    def line(self, title: str) -> str:
        what = ", ".join(f"{line.count} × {line.name}" for line in self.lines)
        return f"parcel from {self.supplier}: {what}, not compared yet"


class FeatureComparedSaid(Body):
    """One feature of a new part against the old one or the drawing, each as typed; `within` is how
    far they may differ, by the word of whoever says so.
    """

    need: Own
    order: Own | None = None
    feature: Annotated[str, Field(min_length=2, max_length=60)]
    old: Annotated[str, Field(min_length=1, max_length=80)]
    new: Annotated[str, Field(min_length=1, max_length=80)]
    within: Annotated[str, Field(max_length=40)] | None = None
    within_source: Annotated[str, Field(max_length=120)] | None = None

    def subject(self) -> Key:
        return Key("need", self.need)


class FeatureCompared(FeatureComparedSaid):
    """The same with what came of it: `fits` where it is the same, or differs by no more than
    `within`; bare figures have the `unit`.
    """

    called: ClassVar = "feature compared"
    clocked: ClassVar = False

    name: Short
    fits: bool
    unit: Annotated[str, Field(max_length=8)] | None = None

    def line(self, title: str) -> str:
        same = self.fits and not self.within
        words = laid_words(self.old, self.new, same, None, self.unit)
        kept = f", within {self.within}" if self.within and self.fits else ""
        over = f", more than {self.within}" if self.within and not self.fits else ""
        return f"{self.name}, {self.feature}: {words}{kept}{over}"


class PartTakenSaid(Body):
    """So many pieces taken as good; `order` none: off the shelf."""

    need: Own
    order: Own | None = None
    count: Pieces
    how: HowTaken
    reason: Reason | None = None
    name: Short | None = None
    licensed: Annotated[str, Field(max_length=200)] | None = None

    def subject(self) -> Key:
        return Key("need", self.need)


class PartTaken(PartTakenSaid):
    """Pieces that are free for their step: kind and count seen, compared feature by feature, or
    taken in writing.
    """

    called: ClassVar = "part taken"
    clocked: ClassVar = False

    part: Short

    def line(self, title: str) -> str:
        how = {
            "counted": "kind and count right",
            "compared": "compared, fits",
            "in_writing": f"taken in writing by {self.name}: {self.reason}",
        }[self.how]
        licensed = f", inspected: {self.licensed}" if self.licensed else ""
        shelf = "" if self.order else " off the shelf"
        return f"{self.count} × {self.part}{shelf}: {how}{licensed}"


class PartRefusedSaid(Body):
    """Pieces that are not taken, what is wrong with them, and by when they must be back."""

    need: Own
    order: Own
    count: Pieces
    wrong: Reason
    photo: PhotoHash | None = None
    back_by: date | None = None

    def subject(self) -> Key:
        return Key("need", self.need)

    def also(self) -> tuple[Key, ...]:
        return (Key("order", self.order),)


class PartRefused(PartRefusedSaid):
    """A bad arrival."""

    called: ClassVar = "part refused"
    clocked: ClassVar = False

    part: Short
    supplier: Short

    def shown_photo(self) -> str | None:
        return self.photo

    def line(self, title: str) -> str:
        by = f", back by {day_words(self.back_by)}" if self.back_by else ", back by a day not known"
        return f"{self.count} × {self.part} from {self.supplier} refused: {self.wrong}{by}"


class PartReturned(Body):
    """What became of pieces that were refused: sent back, money back (how much), or until when they
    may go back.
    """

    called: ClassVar = "part returned"
    clocked: ClassVar = False

    refusal: str
    need: Own
    part: Short = "part"
    now: Literal["sent back", "refunded", "may go back until"]
    money: Price | None = None
    back_by: date | None = None

    def subject(self) -> Key:
        return Key("need", self.need)

    def line(self, title: str) -> str:
        money = f", {self.money:.2f} back" if self.money is not None else ""
        by = f" {day_words(self.back_by)}" if self.back_by else ""
        return f"{self.part}: {self.now}{by}{money}"
