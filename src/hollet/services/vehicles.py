"""Vehicles across their builds: what each can do, and which bay it occupies.

The newest answer of any open build counts.
"""

from dataclasses import replace

from pydantic import BaseModel, Field

from hollet.core.book.standing import cannot_do
from hollet.core.entries import Entry, Note, VehicleStands
from hollet.core.errors import Conflict, NotFound, Refused, Unavailable
from hollet.services.workshop import Workshop
from hollet.store.protocols import Books
from hollet.store.records import VehicleRecord

__all__ = ["VehicleStanding", "describe", "vehicle_name", "vehicle_named", "vehicle_of", "vehicles"]

CAN = {
    "rolls": "does not roll",
    "steers": "does not steer",
    "brakes": "does not brake",
    "starts": "does not start",
}


class VehicleStanding(BaseModel):
    """Whether a vehicle rolls, steers, brakes and starts (None: nobody said), its bay, and who else
    was said to stand there. What the steps of its builds tell goes before what was said; `why` has
    the reason.
    """

    rolls: bool | None = None
    steers: bool | None = None
    brakes: bool | None = None
    starts: bool | None = None
    bay: str | None = None
    who: str = ""
    time: str = ""
    clash: str = ""
    why: dict[str, str] = Field(default_factory=dict)

    def can(self) -> tuple[str, ...]:
        """Its answers in words; what its steps tell comes with the reason."""
        return tuple(
            key if getattr(self, key) else f"{words}: {self.why[key]}" if key in self.why else words
            for key, words in CAN.items()
            if getattr(self, key) is not None
        )


def _builds(workshop: Workshop) -> dict[str, list[str]]:

    def read() -> dict[str, list[str]]:
        with workshop.store.read() as books:
            names = {vehicle.id: vehicle.name for vehicle in books.vehicles.all()}
            found: dict[str, list[str]] = {}
            for build in books.builds.all():
                found.setdefault(names[build.vehicle], []).append(build.id)
            return found

    return workshop.kept(("vehicles",), workshop.store.version, read)


def vehicle_named(books: Books, name: str) -> VehicleRecord | None:
    """The vehicle of this name."""
    return next((v for v in books.vehicles.all() if v.name == name), None)


def vehicle_name(workshop: Workshop, build: str) -> str:
    """The vehicle of a build; raises NotFound."""
    found = next(
        (vehicle for vehicle, builds in _builds(workshop).items() if build in builds), None
    )
    if found is None:
        raise NotFound("build", build)
    return found


def describe(workshop: Workshop, build: str, *, name: str, about: str, was: str, who: str) -> None:
    """Change the name and words of the vehicle of a build; the log of that build keeps both, for
    all builds of the vehicle they change.

    Raises
    ------
    Conflict
        Somebody changed the words since `was` was looked at.
    Refused
        `name_used`: another vehicle has that name.
    """
    name, about = name.strip(), about.strip()
    if not name or not about:
        raise Refused(
            "bad_entry",
            "the vehicle needs a name and a few words, such as van, 1.6 petrol",
            field="about" if name else "name",
        )

    def keep(books: Books) -> None:
        row = _row(books, build)
        if (row.name, row.about) != (old, was):
            raise Conflict(
                f"the vehicle was described anew by somebody else: {row.name}, {row.about}",
                reason_code="moved_on",
            )
        other = vehicle_named(books, name)
        if other is not None and other.id != row.id:
            raise Refused("name_used", f"another vehicle is called {name} already", field="name")
        books.vehicles.put(replace(row, name=name, about=about, version=row.version + 1))

    with workshop.held(build) as state:
        with workshop.store.read() as books:
            row = _row(books, build)
            old, now = row.name, row.about
        if (old, now) != (name, about):
            words = f"the vehicle: {old}, {now} became {name}, {about}"
            workshop.write(build, state, workshop.draft(build, Note(text=words), who), also=keep)


def _row(books: Books, build: str) -> VehicleRecord:
    built = books.builds.get(build)
    row = books.vehicles.get(built.vehicle) if built is not None else None
    if row is None:
        raise NotFound("build", build)
    return row


def _said(workshop: Workshop, build: str, head: int) -> list[Entry[VehicleStands]]:
    def said() -> list[Entry[VehicleStands]]:
        try:
            with workshop.held(build) as state:
                return list(state.each(VehicleStands, "vehicle"))
        except Unavailable:  # a build that cannot be read says nothing
            return []

    return workshop.kept(("vehicle", build), head, said)


def _standing(workshop: Workshop, builds: list[str], heads: dict[str, int]) -> VehicleStanding:
    found = VehicleStanding()
    said = (e for build in builds for e in _said(workshop, build, heads.get(build, 0)))
    for entry in sorted(said, key=lambda e: e.time):
        update = {
            key: value for key in (*CAN, "bay") if (value := getattr(entry.body, key)) is not None
        }
        found = found.model_copy(update={**update, "who": entry.who, "time": entry.time})
    why = {
        key: words
        for build in builds
        for key, words in _cannot(workshop, build, heads.get(build, 0)).items()
    }
    return found.model_copy(update={**dict.fromkeys(why, False), "why": why})


def _cannot(workshop: Workshop, build: str, head: int) -> dict[str, str]:
    """What the steps of a build tell that its vehicle cannot do; kept while its log stands."""

    def read() -> dict[str, str]:
        try:
            with workshop.held(build) as state:
                return cannot_do(state) if state.broken is None else {}
        except Unavailable:  # a build that cannot be read says nothing
            return {}

    return workshop.kept(("cannot", build), head, read)


def vehicle_of(workshop: Workshop, vehicle: str) -> VehicleStanding:
    """How a vehicle stands.

    No build may be held while this is called: it holds one after another.
    """
    return _standing(workshop, _builds(workshop).get(vehicle, []), workshop.heads())


def vehicles(workshop: Workshop) -> dict[str, VehicleStanding]:
    """How each vehicle stands, and which other one was said to stand in its bay.

    No build may be held while this is called: it holds one after another.
    """
    heads = workshop.heads()
    found = {name: _standing(workshop, own, heads) for name, own in _builds(workshop).items()}
    bays: dict[str, list[str]] = {}
    for name, stands in found.items():
        if stands.bay:
            bays.setdefault(stands.bay.casefold(), []).append(name)
    for names in bays.values():
        for name in names:
            other = next((n for n in names if n != name), None)
            if other is not None:
                words = f"{other} was said to stand in {found[name].bay} too"
                found[name] = found[name].model_copy(update={"clash": words})
    return found
