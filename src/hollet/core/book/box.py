"""The box of the shop: what lies in it, what it fits, for which job pieces were taken."""

import re

from pydantic import computed_field

from hollet.core.book.wants import need_id
from hollet.core.entries import BookState, SpareKept, SpareMoved
from hollet.core.view import View

__all__ = ["Spare", "SpareUse", "for_need", "sold_for", "spares"]

IN_THE_BOX = "back in the box"
TAKEN = "taken for a job"


class SpareUse(View):
    """Pieces that left the box: for which job, or sold for how much."""

    now: str
    count: int
    build: str | None
    build_name: str
    need: str | None
    money: float | None


class Spare(View):
    """One thing in the box; `left` pieces of `count` lie there."""

    spare: str
    name: str
    count: int
    left: int
    fits: str
    condition: str
    where: str
    origin: str
    build: str | None
    uses: tuple[SpareUse, ...]

    @computed_field
    @property
    def words(self) -> str:
        """How many lie there, how they are, where, and where they came from."""
        where = f", {self.where}" if self.where else ""
        fits = f", fits {self.fits}" if self.fits else ""
        return f"{self.left} in the box, {self.condition}{fits}{where} ({self.origin})"


def spares(shop: BookState) -> tuple[Spare, ...]:
    """All that was ever put into the box, what still lies there first."""
    found = []
    for name, _ in shop.names("spare"):
        kept = shop.newest(SpareKept, "spare", name)
        if kept is None:
            continue
        body = kept.body
        moves = [e.body for e in shop.each(SpareMoved, "spare", name)]
        gone = sum(m.count if m.now != IN_THE_BOX else -m.count for m in moves)
        found.append(
            Spare(
                spare=name,
                name=body.name,
                count=body.count,
                left=max(0, body.count - gone),
                fits=body.fits,
                condition=body.condition,
                where=body.where,
                origin=body.origin,
                build=body.build,
                uses=tuple(
                    SpareUse(
                        now=m.now,
                        count=m.count,
                        build=m.build,
                        build_name=m.build_name,
                        need=m.need,
                        money=m.money,
                    )
                    for m in moves
                ),
            )
        )
    return tuple(sorted(found, key=lambda s: (s.left == 0, s.name.casefold())))


def _words(text: str) -> set[str]:
    return set(re.findall(r"[a-z0-9]{3,}", text.casefold()))


def for_need(found: tuple[Spare, ...], name: str, build: str) -> tuple[Spare, ...]:
    """What may serve for a part, by its name: the same part first, then what shares every word of
    the shorter name; and what was taken for this job.
    """
    own = need_id(name)
    wanted = _words(name)

    def serves(spare: Spare) -> bool:
        words = _words(spare.name)
        return bool(words and wanted) and (words <= wanted or wanted <= words)

    fitting = [s for s in found if s.left and (need_id(s.name) == own or serves(s))]
    job = (TAKEN, build, own)
    taken = [s for s in found if any((u.now, u.build, u.need) == job for u in s.uses)]
    return tuple({s.spare: s for s in (*taken, *fitting)}.values())


def sold_for(found: tuple[Spare, ...], build: str) -> float:
    """What left-overs of a build were sold for."""
    return sum(
        use.money or 0.0
        for spare in found
        if spare.build == build
        for use in spare.uses
        if use.now == "sold"
    )
