"""What the block of evenings is drawn from."""

from hollet.core.view import View

__all__ = [
    "Comes",
    "End",
    "EveningsPlan",
    "Late",
    "PlannedEvening",
    "PlannedSlug",
    "PlannedStep",
    "Presence",
    "Runs",
    "Win",
]


class PlannedStep(View):
    """One step of a slug, with its place and why it lies there."""

    id: str
    step: str
    number: str
    name: str
    start: str
    range: str
    held: str
    slack: str
    assumed: str
    working: tuple[str, ...]


class PlannedSlug(View):
    """Work of one vehicle without a wait in between: minutes from the start of its evening."""

    id: str
    build: str
    name: str
    number: str
    vehicle: str
    words: str
    start: int
    end: int
    people: int
    chain: bool
    now: bool
    steps: tuple[PlannedStep, ...]


class Presence(View):
    """When somebody is there in an evening; `perhaps`: not asked, or not answered."""

    words: str
    start: int
    end: int
    perhaps: bool


class Comes(View):
    """A part that comes into an evening; `open_end`: nobody promised a day."""

    words: str
    open_end: bool
    build: str


class Runs(View):
    """What runs by itself from one slug to another."""

    from_slug: str
    to_slug: str
    words: str
    chain: bool


class PlannedEvening(View):
    """One evening with all that stands in it; `gap` says why nobody works in the days before."""

    key: str
    day: str
    start: str
    hours: str
    minutes: int
    slugs: tuple[PlannedSlug, ...]
    people: tuple[Presence, ...]
    comes: tuple[Comes, ...]
    gap: str


class End(View):
    """When a vehicle is done: 1, 5, 9 in 10, and in which evening each lies (none: later)."""

    build: str
    name: str
    planned: str
    one: str
    five: str
    nine: str
    one_at: int | None
    five_at: int | None
    nine_at: int | None


class Late(View):
    """One thing that holds an end up."""

    thing: str
    words: str


class Ghost(View):
    """Where a slug stands in the plan as it is, and would not in another: its evening, minutes
    from the start of it.
    """

    evening: str
    start: int
    end: int


class Won(View):
    """The evenings as they would lie then, and where what moves stands now."""

    title: str
    evenings: tuple[PlannedEvening, ...]
    runs: tuple[Runs, ...]
    ghosts: tuple[Ghost, ...]


class Win(View):
    """What would make the end earlier, and by how many days; `won` is the plan as it would be, none
    where it is no other plan.
    """

    id: str
    name: str
    words: str
    days: int
    won: Won | None = None


class DateRow(View):
    """A date that somebody said, against the plan: whether it is met, and what would have to fall
    out.
    """

    commitment: str
    what: str
    day: str
    met: bool
    words: str


class EveningsPlan(View):
    """The whole block."""

    title: str
    line: str
    evenings: tuple[PlannedEvening, ...]
    runs: tuple[Runs, ...]
    ends: tuple[End, ...]
    dates: tuple[DateRow, ...]
    late: tuple[Late, ...]
    wins: tuple[Win, ...]
    proven: bool
    proof: str
    assumed: tuple[str, ...]
