"""The box of the shop: spares, donors, left-overs; and the money of a build that looks into it."""

from typing import Any

from hollet.core.acts.base import Act
from hollet.core.acts.stock import SpareMovedAct
from hollet.core.book.box import IN_THE_BOX, TAKEN, Spare, sold_for, spares
from hollet.core.book.needs import needs
from hollet.core.entries import PartTaken
from hollet.core.errors import Conflict, Unavailable
from hollet.core.view import View
from hollet.screens.moneydesk import MoneyDesk, money_desk
from hollet.services.names import build_names
from hollet.services.workshop import SHOP, Workshop

__all__ = ["BoxView", "LeftOver", "box", "in_the_box", "money"]


ORIGINS = ("spare", "donor", "left over", "taken out")


class LeftOver(View):
    """More of a part than its build needs now, or an old one that came out."""

    build: str
    build_name: str
    name: str
    count: int
    why: str


class BoxView(View):
    """All that lies in the box, and what is left over on the builds and is not in it yet."""

    spares: tuple[Spare, ...]
    left_over: tuple[LeftOver, ...]
    builds: dict[str, str]
    origins: tuple[str, ...]


def in_the_box(workshop: Workshop) -> tuple[Spare, ...]:
    """All that was ever put into the box."""

    def read() -> tuple[Spare, ...]:
        with workshop.held(SHOP) as shop:
            return spares(shop)

    return workshop.kept(("box",), workshop.heads().get(SHOP, 0), read)


def box(workshop: Workshop) -> BoxView:
    """The box, and what might go into it."""
    found, names, left = in_the_box(workshop), build_names(workshop), []
    kept = {(s.build, s.name.casefold()) for s in found}
    for build, name in names.items():
        try:
            with workshop.held(build) as state:
                every = needs(state) if state.broken is None else ()
        except Unavailable:
            continue  # the Shop says so of this build itself
        for need in every:
            over = need.on_shelf - need.wanted
            if over > 0 and need.spoken and (build, need.name.casefold()) not in kept:
                left.append(
                    LeftOver(
                        build=build,
                        build_name=name,
                        name=need.name,
                        count=over,
                        why="more of it is free than the steps need",
                    )
                )
    return BoxView(spares=found, left_over=tuple(left), builds=names, origins=ORIGINS)


def still_counted(workshop: Workshop, act: Act[Any]) -> None:
    """Refuse (`Conflict`) that a piece goes back into the box while the job for which it was taken
    still counts it as free.
    """
    if not isinstance(act, SpareMovedAct) or act.now != IN_THE_BOX:
        return
    spare = next((s for s in in_the_box(workshop) if s.spare == act.spare), None)
    jobs = [use for use in spare.uses if use.now == TAKEN] if spare is not None else []
    if spare is None or not jobs:
        return
    counted = 0
    for build, need in {(use.build, use.need) for use in jobs if use.build and use.need}:
        with workshop.held(build) as state:
            taken = state.each(PartTaken, "need", need)
            counted += sum(e.body.count for e in taken if e.body.order is None)
    if spare.count - spare.left - act.count < min(counted, spare.count):
        words = (
            f"{spare.name}: {counted} of it count as free on {jobs[-1].build_name or 'the job'}; "
            "strike there that they were taken, then put them back"
        )
        raise Conflict(words, reason_code="still_free")


def money(workshop: Workshop, build: str) -> MoneyDesk:
    """The money of a build."""
    sold = sold_for(in_the_box(workshop), build)
    with workshop.held(build) as state:
        return state.remembered(("money",), (state.head, sold), lambda: money_desk(state, sold))
