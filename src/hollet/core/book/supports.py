"""What carries the vehicle, the engine, the gearbox and the hubs at this moment, and whether it may
stay so overnight.

Two sources, one list: supports set and taken by hand, and what a step carries or lets go once it is
done. A body that was let go by its
mounts, or was said to be carried and no longer is, is *not known* until somebody says what carries
it.

Usual workshop rules, not a standard: a jack sinks and a hook swings, so neither holds overnight; a
stand or cradle counts on hard,
level ground only; a vehicle needs four places, its own wheels among them, or a second row of
stands; nobody goes under a jack.
"""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field, replace

from hollet.core.entries import BookState, Entry, Supported, VehicleStands
from hollet.core.procedure.kinds import BaseStep
from hollet.core.procedure.pieces import Carry, Release
from hollet.core.procedure.words import KIND_WORDS, Carried, Ground, SupportKind
from hollet.core.quantities.quantity import Measured
from hollet.core.view import View

__all__ = [
    "BODIES",
    "POINTS",
    "BodyStand",
    "Point",
    "SupportPoint",
    "SupportView",
    "carried_words",
    "forbidden_point",
    "held_up_by",
    "loads_now",
    "not_carried",
    "place_known",
    "support_view",
]

PLURALS: dict[SupportKind, str] = {
    "wheels": "of its own wheels",
    "timber": "timber",
    "helper": "helpers' hands",
    "mounts": "its own mounts",
}
NOT_SAID = "place not said"
WHOLE: dict[Carried, tuple[Carried, ...]] = {
    "engine": ("powertrain",),
    "gearbox": ("powertrain",),
    "powertrain": ("engine",),
}
"""What is carried with what, where the unit hangs or stands as one."""
UNFIT = ("helper",)
"""What holds for a moment, and is never what a load is let down on."""
BODIES: dict[Carried, str] = {
    "vehicle": "Vehicle",
    "engine": "Engine",
    "gearbox": "Gearbox",
    "powertrain": "Engine with gearbox",
    "axle": "Axle",
    "hub": "Hub",
    "other": "Other",
}
PLACES_FOR_VEHICLE = 4


class Point(View):
    """A place to support: its body, where it lies in the plan view (0..1 from the front, 0..1 from
    the left), or why never there.
    """

    id: str
    name: str
    body: Carried
    x: float
    y: float
    forbidden: str | None = None


POINTS: tuple[Point, ...] = tuple(
    Point(id=i, name=n, body=b, x=x, y=y, forbidden=f)
    for i, n, b, x, y, f in (
        ("frame_fl", "frame, front left", "vehicle", 0.30, 0.28, None),
        ("frame_fr", "frame, front right", "vehicle", 0.30, 0.72, None),
        ("frame_rl", "frame, rear left", "vehicle", 0.66, 0.28, None),
        ("frame_rr", "frame, rear right", "vehicle", 0.66, 0.72, None),
        ("wheel_fl", "front left wheel", "vehicle", 0.16, 0.10, None),
        ("wheel_fr", "front right wheel", "vehicle", 0.16, 0.90, None),
        ("wheel_rl", "rear left wheel", "vehicle", 0.82, 0.10, None),
        ("wheel_rr", "rear right wheel", "vehicle", 0.82, 0.90, None),
        ("axle_l", "axle tube, left", "axle", 0.82, 0.30, None),
        ("axle_r", "axle tube, right", "axle", 0.82, 0.70, None),
        ("axle_mid", "axle casing", "axle", 0.82, 0.50, None),
        ("hub_l", "left hub or lower arm", "hub", 0.16, 0.24, None),
        ("hub_r", "right hub or lower arm", "hub", 0.16, 0.76, None),
        ("eye_front", "front lifting eye", "engine", 0.12, 0.50, None),
        ("eye_rear", "rear lifting eye", "engine", 0.22, 0.50, None),
        ("block_rail", "rails of the block", "engine", 0.17, 0.44, None),
        ("bell", "bell housing", "engine", 0.25, 0.50, None),
        ("box_front", "gearbox, front of the case", "gearbox", 0.32, 0.50, None),
        ("box_tail", "gearbox tail", "gearbox", 0.44, 0.50, None),
        ("unit_floor", "whole unit, on the floor", "powertrain", 0.24, 0.50, None),
        ("sill", "sill seam", "vehicle", 0.48, 0.16, "the seam folds and the vehicle comes off"),
        (
            "floor_pan",
            "floor pan, bonded panel",
            "vehicle",
            0.52,
            0.62,
            "sheet metal carries nothing",
        ),
        (
            "sump",
            "sump pan",
            "engine",
            0.19,
            0.58,
            "thin sheet: it dents, and the pump pick-up with it",
        ),
        (
            "bolts",
            "bolts and studs",
            "other",
            0.36,
            0.62,
            "weight hangs on jack or sling, never on a bolt",
        ),
        ("diff_cover", "thin axle cover", "axle", 0.90, 0.50, "it cracks and leaks"),
    )
)


class SupportPoint(View):
    """One support that is in: what stands where, whether it may stay, and why not.

    `made_by` is the step that set it, where no hand did.
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

    `taken`: bodies from which a hand took a support and nobody said yet that the rest carries them.
    `known`: somebody has said what carries every body; `stays`: all of it may stay overnight;
    `ground_asked`: the ground of the bay is not said.
    """

    supports: tuple[SupportPoint, ...]
    bodies: tuple[BodyStand, ...]
    points: tuple[Point, ...]
    line: str
    known: bool
    stays: bool
    ground_asked: bool
    taken: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class _Support:
    id: str
    kind: SupportKind
    carries: Carried
    point: str
    who: str
    time: str
    padding: str | None = None
    ground: Ground = "unknown"
    rated: Measured | None = None
    made_by: str | None = None

    @property
    def fit(self) -> bool:
        return self.kind not in UNFIT and forbidden_point(self.point) is None


@dataclass(slots=True)
class _Loads:
    """What is carried as the lines are gone through; `parted` bodies are off their mounts, `said`
    ones were said to be carried.
    """

    supports: dict[str, _Support] = field(default_factory=dict)
    parted: set[Carried] = field(default_factory=set)
    said: set[Carried] = field(default_factory=set)
    free: set[Carried] = field(default_factory=set)
    taken: dict[Carried, SupportKind] = field(default_factory=dict)

    def copy(self) -> "_Loads":
        return _Loads(
            dict(self.supports), set(self.parted), set(self.said), set(self.free), dict(self.taken)
        )

    def of(self, body: Carried) -> list[_Support]:
        return [s for s in self.supports.values() if s.carries == body]

    def under(self, body: Carried) -> list[_Support]:
        """What carries a body, also as a part of the whole unit."""
        return [
            s
            for s in self.supports.values()
            if s.carries == body or s.carries in WHOLE.get(body, ())
        ]

    def let_go(self, releases: Iterable[Release]) -> None:
        for release in releases:
            self.supports = {
                k: s
                for k, s in self.supports.items()
                if s.carries != release.body or release.by not in (None, s.kind)
            }
            if release.free:
                self.free.add(release.body)
                self.taken.pop(release.body, None)
            elif release.by in (None, "mounts"):
                self.parted.add(release.body)

    def carry(self, carries: Iterable[Carry], made_by: str, who: str, time: str) -> None:
        """Set what a step or an answer says; what stands there already of the same kind counts."""
        for carry in carries:
            self.free.discard(carry.body)
            self.taken.pop(carry.body, None)
            if carry.by == "mounts":
                self.parted.discard(carry.body)
                self.said.discard(carry.body)
                continue
            self.said.add(carry.body)
            there = [s for s in self.of(carry.body) if s.kind == carry.by]
            wanted = [p for p in carry.points if p not in {s.point for s in there}] or [
                NOT_SAID
            ] * carry.count
            for k, point in enumerate(wanted[: max(0, carry.count - len(there))], 1):
                name = f"{made_by}-{carry.body}-{carry.by}-{k}"[:60]
                self.supports[name] = _Support(
                    name, carry.by, carry.body, point, who, time, made_by=made_by
                )

    def by_hand(self, entry: Entry[Supported]) -> None:
        body = entry.body
        known = self.supports.pop(body.support, None)
        if body.gone:
            rest = self.of(known.carries) if known is not None else []
            if known is not None and rest and not _enough(known.carries, rest):
                self.taken[known.carries] = known.kind
            return
        if body.support_kind not in UNFIT:  # a helper's hands answer nothing
            self.taken.pop(body.carries, None)
        if known is None:  # a hand says where one stands that a step only counted
            loose = next(
                (
                    s
                    for s in self.of(body.carries)
                    if s.made_by is not None and s.kind == body.support_kind
                ),
                None,
            )
            if loose is not None:
                del self.supports[loose.id]
        self.said.add(body.carries)
        self.free.discard(body.carries)
        self.supports[body.support] = _Support(
            body.support,
            body.support_kind,
            body.carries,
            body.point,
            entry.who,
            entry.time,
            body.padding,
            body.ground,
            body.rated,
        )

    def unknown(self) -> list[Carried]:
        """Bodies of which nobody knows what carries them."""
        return [
            body
            for body in BODIES
            if body not in self.free
            and not self.under(body)
            and (body in self.parted or (body == "vehicle" and body in self.said))
        ]

    def after(self, step: BaseStep) -> "_Loads":
        found = self.copy()
        found.let_go(step.releases)
        found.carry(step.carries, step.id, "", "")
        return found


def _enough(body: Carried, rest: Sequence[_Support]) -> bool:
    """Whether what is left under a body is enough by itself: four places under a vehicle, else a
    cradle, a cart or two.
    """
    fit = [s for s in rest if s.fit]
    return (
        len(fit) >= PLACES_FOR_VEHICLE
        if body == "vehicle"
        else len(fit) >= 2 or any(s.kind in ("cradle", "cart") for s in fit)
    )


def loads_now(state: BookState) -> _Loads:
    """What carries what by the facts that stand."""
    return state.remembered(("loads",), state.head, lambda: _loads(state))


def _loads(state: BookState) -> _Loads:
    found = _Loads()
    hands = {entry.id: entry for entry in state.each(Supported, "load")}
    for entry in state.live("load"):
        if entry.id in hands:
            found.by_hand(hands[entry.id])
            continue
        body = entry.body
        found.let_go(body.released())
        made_by = body.at() or f"undone-{body.subject().name}"
        found.carry(body.carried(), made_by, entry.who, entry.time)
    bay = _bay_ground(state)
    if bay is not None:
        found.supports = {
            k: replace(s, ground=bay) if s.ground == "unknown" else s
            for k, s in found.supports.items()
        }
    return found


def _bay_ground(state: BookState) -> Ground | None:
    said = state.each(VehicleStands, "vehicle")
    return next((e.body.ground for e in reversed(said) if e.body.ground), None)


def held_up_by(state: BookState, step_id: str) -> tuple[Carried, ...]:
    """The bodies that a step set on something, and that still stand on it."""
    return tuple(
        dict.fromkeys(s.carries for s in loads_now(state).supports.values() if s.made_by == step_id)
    )


def not_carried(state: BookState, step: BaseStep) -> str | None:
    """Why a step that parts, lifts or lets go has to wait: what carries a body would not be known,
    or would not be fit; None when it may.

    A plan that says nothing of loads is asked once, before the first lift.
    """
    now = loads_now(state)
    if step.releases or step.lifts:
        lost = [body for body in now.unknown() if body not in {c.body for c in step.carries}]
        if lost:
            return f"nobody said what carries the {_body_word(lost[0])}"
        if now.taken:
            return _taken_words(*next(iter(now.taken.items())))
    after = now.after(step)
    for body in dict.fromkeys(r.body for r in step.releases if not r.free):
        if body in after.free or (body not in after.parted and body not in after.said):
            continue
        if not any(s.fit for s in after.under(body)) and not any(
            c.body == body and c.by == "mounts" for c in step.carries
        ):
            return f"nothing would carry the {_body_word(body)}"
    plan = state.plan
    silent = plan is not None and not any(s.carries or s.releases for s in plan.step)
    if step.lifts and silent and not state.live("load"):
        return "nobody said yet what carries what: say it once"
    return None


def _taken_words(body: Carried, kind: SupportKind) -> str:
    return f"{_counted(kind, 1)} was taken from the {_body_word(body)}: say what carries it now"


def _body_word(body: Carried) -> str:
    return BODIES[body].lower()


def place_known(point: str) -> bool:
    """Whether a support's place was said."""
    return point != NOT_SAID


def forbidden_point(point: str) -> str | None:
    """Why nothing may stand under this point, or None."""
    return next(
        (p.forbidden for p in POINTS if p.name.casefold() == point.strip().casefold()), None
    )


def _point(support: _Support) -> SupportPoint:
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
        stays, because = False, _taken_words(body, taken)
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
    asked = _bay_ground(state) is None and any(
        p.ground == "unknown" and p.kind != "wheels" for p in points
    )
    return SupportView(
        supports=tuple(points),
        bodies=bodies,
        points=POINTS,
        line=carried_words(bodies, points),
        known=known,
        stays=known and all(b.stays for b in bodies),
        ground_asked=asked,
        taken=tuple(loads.taken),
    )


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
    return f"{body.name.lower()} on {' and '.join(_counted(kind, n) for kind, n in kinds.items())}"


def _counted(kind: SupportKind, n: int) -> str:
    word = KIND_WORDS[kind]
    if n > 1:
        return f"{n} {PLURALS.get(kind, word + 's')}"
    return word if kind == "timber" or word.startswith(("its", "a ")) else f"a {word}"
