"""What carries the vehicle, the engine, the gearbox and the hubs at this moment, and whether it may
stay so overnight.

Two sources, one list: supports set and taken by hand, and what a step carries or lets go once it is
done. A body that was let go by its
mounts, or was said to be carried and no longer is, is *not known* until somebody says what carries
it.

Usual workshop rules, not a standard: a jack sinks and a hook swings, so neither holds overnight; a
stand or cradle counts on hard,
level ground only; a vehicle needs four places, its own wheels among them, or a second row of
stands; nobody goes under a jack."""

from hollet.core.book.loads import (
    BODIES,
    PLACES_FOR_VEHICLE,
    Support,
    bay_ground,
    counted_words,
    loads_now,
    taken_words,
)
from hollet.core.book.points import POINTS, Point
from hollet.core.entries import BookState
from hollet.core.procedure.words import KIND_WORDS, Carried, Ground, SupportKind
from hollet.core.quantities.quantity import Measured
from hollet.core.view import View

__all__ = ["BodyStand", "SupportPoint", "SupportView", "carried_words", "support_view"]


class SupportPoint(View):
    """One support that is in: what stands where, whether it may stay, and why not.

    `made_by` is the step that set it, where no hand did; `x` and `y` are None where nobody said at
    which point, or said one that the drawing does not have.
    """

    id: str
    kind: SupportKind
    kind_words: str
    carries: Carried
    point: str
    padding: str | None
    ground: Ground
    rated: Measured | None
    x: float | None
    y: float | None
    stays: bool
    because: str
    who: str
    time: str
    made_by: str | None = None


class BodyStand(View):
    """One body: whether it is known what carries it, fit to stand overnight or not, and why."""

    body: Carried
    name: str
    known: bool
    stays: bool
    because: str
    supports: tuple[str, ...]
    hangs: bool


class SupportView(View):
    """The map: supports, bodies (the dangerous first), the points to choose from, and one line that
    says what carries the load now.

    `title`: on how many points, and how many of them nobody placed; `taken`: bodies from which a
    hand took a support and nobody said yet that the rest carries them.
    `known`: somebody has said what carries every body; `stays`: all of it may stay overnight;
    `ground_asked`: the ground of the bay is not said.
    """

    supports: tuple[SupportPoint, ...]
    bodies: tuple[BodyStand, ...]
    points: tuple[Point, ...]
    title: str
    line: str
    known: bool
    stays: bool
    ground_asked: bool
    taken: tuple[str, ...]


def _point(support: Support) -> SupportPoint:
    known = next((p for p in POINTS if p.name.casefold() == support.point.casefold()), None)
    because = ""
    if known is not None and known.forbidden:
        because = f"never here: {known.forbidden}"
    elif support.kind in ("jack", "hook", "helper"):
        because = {
            "jack": "a jack sinks",
            "hook": "it hangs on a hook",
            "helper": "nobody holds it all night",
        }[support.kind]
    elif support.ground != "hard" and support.kind != "wheels":
        because = {
            "soft": "on soft ground it sinks",
            "slope": "on a slope it walks",
            "unknown": "nobody said what ground it stands on",
        }[support.ground]
    return SupportPoint(
        id=support.id,
        kind=support.kind,
        kind_words=KIND_WORDS[support.kind],
        carries=support.carries,
        point=support.point,
        padding=support.padding,
        ground=support.ground,
        rated=support.rated,
        x=known.x if known else None,
        y=known.y if known else None,
        stays=not because,
        because=because or "it stays",
        who=support.who,
        time=support.time,
        made_by=support.made_by,
    )


def _body(body: Carried, points: list[SupportPoint], taken: SupportKind | None) -> BodyStand:
    good, bad = [p for p in points if p.stays], [p for p in points if not p.stays]
    hangs = any(p.kind == "hook" for p in points)
    never = next((p for p in bad if p.because.startswith("never here")), None)
    if taken is not None:
        stays, because = False, taken_words(body, taken)
    elif never is not None:
        stays, because = False, f"{never.point}: {never.because}"
    elif body == "vehicle":
        stays = len(good) >= PLACES_FOR_VEHICLE
        because = (
            f"on {len(good)} places that stay"
            if stays
            else (
                f"only {len(good)} {'place' if len(good) == 1 else 'places'} that stay: it needs "
                f"{PLACES_FOR_VEHICLE}"
            )
            + (f", {bad[0].because}" if bad else "")
        )
    elif not good:
        stays, because = False, (f"{bad[0].because}, and nothing that stays is under it")
    else:
        enough = len(good) >= 2 or any(p.kind in ("cradle", "cart") for p in good)
        stays, because = (
            enough,
            f"on {', '.join(p.kind_words for p in good)}"
            if enough
            else f"one {good[0].kind_words} alone tips",
        )
    return BodyStand(
        body=body,
        name=BODIES[body],
        known=True,
        stays=stays,
        because=because,
        supports=tuple(p.id for p in points),
        hangs=hangs,
    )


def _unknown(body: Carried) -> BodyStand:
    return BodyStand(
        body=body,
        name=BODIES[body],
        known=False,
        stays=False,
        because="nobody said what carries it",
        supports=(),
        hangs=False,
    )


def support_view(state: BookState) -> SupportView:
    """The supports in force and what they mean; the dangerous first."""
    return state.remembered(("support",), state.head, lambda: _supports(state))


def _supports(state: BookState) -> SupportView:
    loads = loads_now(state)
    points = [_point(support) for support in loads.supports.values()]
    found = [_unknown(body) for body in loads.unknown()]
    found += [
        _body(body, own, loads.taken.get(body))
        for body in BODIES
        if (own := [p for p in points if p.carries == body])
    ]
    bodies = tuple(sorted(found, key=lambda b: (b.known, not b.hangs, b.stays)))
    known = bool(bodies) and all(b.known for b in bodies)
    asked = bay_ground(state) is None and any(
        p.ground == "unknown" and p.kind != "wheels" for p in points
    )
    return SupportView(
        supports=tuple(points),
        bodies=bodies,
        points=POINTS,
        title=_title(known, points),
        line=carried_words(bodies, points),
        known=known,
        stays=known and all(b.stays for b in bodies),
        ground_asked=asked,
        taken=tuple(loads.taken),
    )


def _title(known: bool, points: list[SupportPoint]) -> str:
    """On how many points it is carried; a point that the drawing cannot show is never just counted
    with the others.
    """
    if not known:
        return "Nobody said yet what carries it"
    lost = sum(p.x is None for p in points)
    on = f"Carried on {len(points)} {'point' if len(points) == 1 else 'points'}"
    return f"{on}, {lost} of them nobody placed" if lost else on


def carried_words(bodies: tuple[BodyStand, ...], points: list[SupportPoint]) -> str:
    """What carries the load, in one line, the dangerous word first."""
    if not bodies:
        return "nobody said what carries it"
    return "; ".join(
        _carried(body, [p for p in points if p.carries == body.body]) for body in bodies
    )


def _carried(body: BodyStand, own: list[SupportPoint]) -> str:
    if not body.known:
        return f"nobody said what carries the {body.name.lower()}"
    kinds = {kind: sum(p.kind == kind for p in own) for kind in dict.fromkeys(p.kind for p in own)}
    on = " and ".join(counted_words(kind, n) for kind, n in kinds.items())
    return f"{body.name.lower()} on {on}"
