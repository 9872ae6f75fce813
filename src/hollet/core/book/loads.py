"""What carries what, by the facts that stand."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field, replace

from hollet.core.book.points import NOT_SAID, forbidden_point
from hollet.core.entries import BookState, Entry, Supported, VehicleStands
from hollet.core.procedure.kinds import BaseStep
from hollet.core.procedure.pieces import Carry, Release
from hollet.core.procedure.words import KIND_WORDS, Carried, Ground, SupportKind
from hollet.core.quantities.quantity import Measured

__all__ = [
    "BODIES",
    "PLACES_FOR_VEHICLE",
    "Support",
    "bay_ground",
    "counted_words",
    "held_up_by",
    "loads_now",
    "not_carried",
    "taken_words",
]

PLURALS: dict[SupportKind, str] = {
    "wheels": "of its own wheels",
    "timber": "timber",
    "helper": "helpers' hands",
    "mounts": "its own mounts",
}


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


@dataclass(frozen=True, slots=True)
class Support:
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

    supports: dict[str, Support] = field(default_factory=dict)
    parted: set[Carried] = field(default_factory=set)
    said: set[Carried] = field(default_factory=set)
    free: set[Carried] = field(default_factory=set)
    taken: dict[Carried, SupportKind] = field(default_factory=dict)

    def copy(self) -> "_Loads":
        return _Loads(
            dict(self.supports), set(self.parted), set(self.said), set(self.free), dict(self.taken)
        )

    def of(self, body: Carried) -> list[Support]:
        return [s for s in self.supports.values() if s.carries == body]

    def under(self, body: Carried) -> list[Support]:
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
                self.supports[name] = Support(
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
        if known is None:  # a hand says where one stands that a step set there or only counted
            same = [
                s
                for s in self.of(body.carries)
                if s.made_by is not None
                and s.kind == body.support_kind
                and s.point in (body.point, NOT_SAID)
            ]
            if same:
                del self.supports[min(same, key=lambda s: s.point == NOT_SAID).id]
        self.said.add(body.carries)
        self.free.discard(body.carries)
        self.supports[body.support] = Support(
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


def _enough(body: Carried, rest: Sequence[Support]) -> bool:
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
    bay = bay_ground(state)
    if bay is not None:
        found.supports = {
            k: replace(s, ground=bay) if s.ground == "unknown" else s
            for k, s in found.supports.items()
        }
    return found


def bay_ground(state: BookState) -> Ground | None:
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
            return taken_words(*next(iter(now.taken.items())))
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


def taken_words(body: Carried, kind: SupportKind) -> str:
    return (
        f"{counted_words(kind, 1)} was taken from the {_body_word(body)}: say what carries it now"
    )


def _body_word(body: Carried) -> str:
    return BODIES[body].lower()


def counted_words(kind: SupportKind, n: int) -> str:
    word = KIND_WORDS[kind]
    if n > 1:
        return f"{n} {PLURALS.get(kind, word + 's')}"
    return word if kind == "timber" or word.startswith(("its", "a ")) else f"a {word}"
