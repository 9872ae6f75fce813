"""Words, pictures and voices: notes, spoken notes, photos and their pins, clips."""

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from hollet.core.entries.base import AtStep, Body, Key, Own, PhotoHash, Seconds, Share, Short

__all__ = [
    "Clip",
    "Note",
    "PauseSaid",
    "Photo",
    "Pin",
    "Pinned",
    "Spoken",
    "UnitNamed",
    "Worded",
]


class Pin(Body):
    """A numbered pin on a photo; x and y as shares of its width and height, a word."""

    n: Annotated[int, Field(ge=1, le=99)]
    x: Annotated[Share, Field(ge=0, le=1)]
    y: Annotated[Share, Field(ge=0, le=1)]
    word: Annotated[str, Field(max_length=40)] = ""


class Photo(AtStep):
    """A photo by the hash of its stored bytes, with its size in pixels and its pins."""

    called: ClassVar = "photo"
    never_late: ClassVar = True

    photo: PhotoHash
    width: Annotated[int, Field(ge=1, le=20_000)]
    height: Annotated[int, Field(ge=1, le=20_000)]
    what: Short
    removal: Own | None = None
    pins: Annotated[tuple[Pin, ...], Field(max_length=60)] = ()

    def subject(self) -> Key:
        return Key("photo", self.photo)

    def shown_photo(self) -> str | None:
        return self.photo

    def line(self, title: str) -> str:
        return f"photo: {self.what}" + (f", {len(self.pins)} pins" if self.pins else "")


LONGEST_CLIP_S = 20.0
"""A clip shows one thing: what takes longer is a run, and has its own log."""


class Clip(AtStep):
    """A clip with sound by the hash of its file: how long it is, what it shows, of which removal or
    part, or at which second (s) of an attempt it begins.
    """

    called: ClassVar = "clip"
    never_late: ClassVar = True

    clip: PhotoHash
    seconds: Annotated[Seconds, Field(gt=0, le=LONGEST_CLIP_S)]
    what: Short
    removal: Own | None = None
    part: Own | None = None
    attempt: Own | None = None
    at_s: Annotated[Seconds, Field(ge=0, le=86_400)] | None = None

    def subject(self) -> Key:
        return Key("clip", self.clip)

    def shown_clip(self) -> str | None:
        return self.clip

    def line(self, title: str) -> str:
        at = "" if self.at_s is None else f", from {self.at_s:.0f} s of the run on"
        return f"clip of {self.seconds:.0f} s: {self.what}{at}"


class Pinned(Body):
    """The pins of a photo as they are from now on."""

    called: ClassVar = "pinned"

    photo: PhotoHash
    pins: Annotated[tuple[Pin, ...], Field(max_length=60)]

    def subject(self) -> Key:
        return Key("photo", self.photo)

    def line(self, title: str) -> str:
        pins = ", ".join(f"{p.n} {p.word}".strip() for p in self.pins)
        return f"pins on the photo: {pins or 'none'}"


class Note(AtStep):
    """Words to the log."""

    called: ClassVar = "note"
    tells: ClassVar = True
    begins: ClassVar = False
    never_late: ClassVar = True

    text: Annotated[str, Field(min_length=1, max_length=4000)]

    def line(self, title: str) -> str:
        return self.text


UnitSort = Literal["engine", "gearbox", "transfer box", "axle"]


class UnitNamed(Body):
    """The number stamped on a unit: one that goes to another vehicle takes its past with it."""

    called: ClassVar = "unit named"
    begins: ClassVar = False
    never_late: ClassVar = True

    sort: UnitSort
    number: Annotated[str, Field(min_length=1, max_length=40)]

    def subject(self) -> Key:
        return Key("unit", self.sort)

    def line(self, title: str) -> str:
        return f"{self.sort} {self.number}, as stamped"


class Spoken(AtStep):
    """A spoken note: the recording by its hash."""

    called: ClassVar = "spoken"

    sound: PhotoHash

    def subject(self) -> Key:
        return Key("spoken", self.sound)

    def shown_sound(self) -> str | None:
        return self.sound

    def line(self, title: str) -> str:
        return "a spoken note"


class Worded(Body):
    """What a spoken note says, in words."""

    called: ClassVar = "worded"

    spoken: str
    text: Annotated[str, Field(min_length=3, max_length=4000)]

    def subject(self) -> Key:
        return Key("worded", self.spoken)

    def line(self, title: str) -> str:
        return f"the spoken note says: {self.text}"


PauseCause = Literal[
    "work", "break", "tool", "part", "search", "access", "weather", "helper", "forgotten step"
]
PAUSE_CAUSES: tuple[PauseCause, ...] = (
    "work",
    "break",
    "tool",
    "part",
    "search",
    "access",
    "weather",
    "helper",
    "forgotten step",
)
"""What a gap was: work after all, a break, or time lost and why."""


class PauseSaid(Body):
    """What a gap between two lines was."""

    called: ClassVar = "pause said"
    never_late: ClassVar = True
    begins: ClassVar = False
    clocked: ClassVar = False

    before: Annotated[str, Field(max_length=64)]
    after: Annotated[str, Field(max_length=64)]
    cause: PauseCause
    minutes: Annotated[int, Field(ge=0, le=600)] = 0

    def subject(self) -> Key:
        return Key("log", f"pause:{self.after}")

    def line(self, title: str) -> str:
        lost = "" if self.cause in ("work", "break") else "lost, "
        return f"{self.minutes} min: {lost}{self.cause}"
