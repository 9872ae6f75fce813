"""What carries the vehicle, the engine, the gearbox and the hubs at this moment, and whether it may stay so overnight.

Usual workshop rules, not a standard: a jack sinks and a hook swings, so neither holds overnight; a stand or cradle counts on hard,
level ground only; a vehicle needs four places, its own wheels among them, or a second row of stands; nobody goes under a jack.
"""

from hollet.core.book.entries import Carried, Entry, Ground, SupportKind
from hollet.core.book.fold import BookState
from hollet.core.book.views import View

__all__ = ["BODIES", "POINTS", "BodyStand", "Point", "SupportPoint", "SupportView", "carried_words", "forbidden_point", "support_view"]

KIND_WORDS: dict[SupportKind, str] = {"stand": "stand", "jack": "jack", "hook": "hook", "cradle": "cradle", "wheels": "its own wheel", "ramp": "ramp",
                                      "timber": "timber", "helper": "a helper's hands"}  # fmt: skip
BODIES: dict[Carried, str] = {"vehicle": "Vehicle", "engine": "Engine", "gearbox": "Gearbox", "powertrain": "Engine with gearbox", "axle": "Axle", "hub": "Hub", "other": "Other"}
PLACES_FOR_VEHICLE = 4


class Point(View):
    """A place to support: its body, where it lies in the plan view (0..1 from the front, 0..1 from the left), or why never there."""

    id: str
    name: str
    body: Carried
    x: float
    y: float
    forbidden: str | None = None


POINTS: tuple[Point, ...] = tuple(
    Point(id=i, name=n, body=b, x=x, y=y, forbidden=f)
    for i, n, b, x, y, f in (
        ("frame_fl", "frame, front left", "vehicle", 0.30, 0.28, None), ("frame_fr", "frame, front right", "vehicle", 0.30, 0.72, None),
        ("frame_rl", "frame, rear left", "vehicle", 0.66, 0.28, None), ("frame_rr", "frame, rear right", "vehicle", 0.66, 0.72, None),
        ("wheel_fl", "front left wheel", "vehicle", 0.16, 0.10, None), ("wheel_fr", "front right wheel", "vehicle", 0.16, 0.90, None),
        ("wheel_rl", "rear left wheel", "vehicle", 0.82, 0.10, None), ("wheel_rr", "rear right wheel", "vehicle", 0.82, 0.90, None),
        ("axle_l", "axle tube, left", "axle", 0.82, 0.30, None), ("axle_r", "axle tube, right", "axle", 0.82, 0.70, None),
        ("axle_mid", "axle casing", "axle", 0.82, 0.50, None),
        ("hub_l", "left hub or lower arm", "hub", 0.16, 0.24, None), ("hub_r", "right hub or lower arm", "hub", 0.16, 0.76, None),
        ("eye_front", "front lifting eye", "engine", 0.12, 0.50, None), ("eye_rear", "rear lifting eye", "engine", 0.22, 0.50, None),
        ("block_rail", "rails of the block", "engine", 0.17, 0.44, None), ("bell", "bell housing", "engine", 0.25, 0.50, None),
        ("box_front", "gearbox, front of the case", "gearbox", 0.32, 0.50, None), ("box_tail", "gearbox tail", "gearbox", 0.44, 0.50, None),
        ("unit_floor", "whole unit, on the floor", "powertrain", 0.24, 0.50, None),
        ("sill", "sill seam", "vehicle", 0.48, 0.16, "the seam folds and the vehicle comes off"),
        ("floor_pan", "floor pan, bonded panel", "vehicle", 0.52, 0.62, "sheet metal carries nothing"),
        ("sump", "sump pan", "engine", 0.19, 0.58, "thin sheet: it dents, and the pump pick-up with it"),
        ("bolts", "bolts and studs", "other", 0.36, 0.62, "weight hangs on jack or sling, never on a bolt"),
        ("diff_cover", "thin axle cover", "axle", 0.90, 0.50, "it cracks and leaks"),
    )
)  # fmt: skip


class SupportPoint(View):
    """One support that is in: what stands where, whether it may stay, and why not."""

    id: str
    kind: SupportKind
    kind_words: str
    carries: Carried
    point: str
    padding: str | None
    ground: Ground
    rated_kg: float | None
    x: float | None
    y: float | None
    stays: bool
    because: str
    who: str
    time: str


class BodyStand(View):
    """One body: fit to stand overnight or not, and why."""

    body: Carried
    name: str
    stays: bool
    because: str
    supports: tuple[str, ...]
    hangs: bool


class SupportView(View):
    """The map: supports, bodies, the points to choose from, and one line that says what carries the load now."""

    supports: tuple[SupportPoint, ...]
    bodies: tuple[BodyStand, ...]
    points: tuple[Point, ...]
    line: str
    stays: bool


def forbidden_point(point: str) -> str | None:
    """Why nothing may stand under this point, or None."""
    return next((p.forbidden for p in POINTS if p.name.casefold() == point.strip().casefold()), None)


def _in_force(state: BookState) -> list[Entry]:
    last: dict[str, Entry] = {}
    for entry in state.live("support"):
        last.pop(entry.body.support, None)
        last[entry.body.support] = entry
    return [entry for entry in last.values() if not entry.body.gone]


def _point(entry: Entry) -> SupportPoint:
    body = entry.body
    known = next((p for p in POINTS if p.name.casefold() == body.point.casefold()), None)
    because = ""
    if known is not None and known.forbidden:
        because = f"never here: {known.forbidden}"
    elif body.support_kind in ("jack", "hook", "helper"):
        because = {"jack": "a jack sinks", "hook": "it hangs on a hook", "helper": "nobody holds it all night"}[body.support_kind]
    elif body.ground != "hard" and body.support_kind != "wheels":
        because = {"soft": "on soft ground it sinks", "slope": "on a slope it walks", "unknown": "nobody said what ground it stands on"}[body.ground]
    return SupportPoint(id=body.support, kind=body.support_kind, kind_words=KIND_WORDS[body.support_kind], carries=body.carries, point=body.point, padding=body.padding,
                        ground=body.ground, rated_kg=body.rated_kg, x=known.x if known else None, y=known.y if known else None,
                        stays=not because, because=because or "it stays", who=entry.who, time=entry.time)  # fmt: skip


def _body(body: Carried, points: list[SupportPoint]) -> BodyStand:
    good, bad = [p for p in points if p.stays], [p for p in points if not p.stays]
    hangs = any(p.kind == "hook" for p in points)
    never = next((p for p in bad if p.because.startswith("never here")), None)
    if never is not None:
        stays, because = False, f"{never.point}: {never.because}"
    elif body == "vehicle":
        stays = len(good) >= PLACES_FOR_VEHICLE
        because = (f"on {len(good)} places that stay" if stays else
                   f"only {len(good)} {'place' if len(good) == 1 else 'places'} that stay: it needs {PLACES_FOR_VEHICLE}" + (f", {bad[0].because}" if bad else ""))  # fmt: skip
    elif not good:
        stays, because = False, (f"{bad[0].because}, and nothing that stays is under it")
    else:
        enough = len(good) >= 2 or any(p.kind == "cradle" for p in good)
        stays, because = enough, f"on {', '.join(p.kind_words for p in good)}" if enough else f"one {good[0].kind_words} alone tips"
    return BodyStand(body=body, name=BODIES[body], stays=stays, because=because, supports=tuple(p.id for p in points), hangs=hangs)


def support_view(state: BookState) -> SupportView:
    """The supports in force and what they mean."""
    points = [_point(entry) for entry in _in_force(state)]
    bodies = tuple(_body(body, own) for body in BODIES if (own := [p for p in points if p.carries == body]))
    return SupportView(supports=tuple(points), bodies=bodies, points=POINTS, line=carried_words(bodies, points), stays=all(b.stays for b in bodies))


def carried_words(bodies: tuple[BodyStand, ...], points: list[SupportPoint]) -> str:
    """What carries the load, in one line."""
    if not bodies:
        return "nobody said what carries it"
    parts = []
    for body in bodies:
        own = [p for p in points if p.carries == body.body]
        kinds = {kind: sum(p.kind_words == kind for p in own) for kind in dict.fromkeys(p.kind_words for p in own)}
        parts.append(f"{body.name.lower()} on " + " and ".join(f"{n} {kind}s" if n > 1 else kind if kind == "timber" or kind.startswith(("its", "a ")) else f"a {kind}" for kind, n in kinds.items()))
    return "; ".join(parts)
