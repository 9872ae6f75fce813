"""What is opened is closed, what is drained is filled, what hides a port is counted out again."""

import re
from collections.abc import Iterable, Iterator, Sequence

from hollet.core.procedure.closings import RANK, fills_of
from hollet.core.procedure.facts import Condition
from hollet.core.procedure.laws.breach import Found, Law, place_of, sentences, worlds
from hollet.core.procedure.pieces import Fluid, Opens
from hollet.core.procedure.precedence import all_before
from hollet.core.procedure.sheet import Sheet, Step, blocks_of, is_danger

__all__ = ["CLOSING"]

EMPTY_SHUTS = {
    "oil": "crank",
    "coolant": "fire",
    "gear": "fire",
    "axle": "gear",
    "automatic": "crank",
    "brake": "drive",
    "clutch": "gear",
    "fuel": "fuel_on",
}
"""The latest rung that the step which fills a fluid may shut."""
COVERS = re.compile(
    r"\b(cover|cap|plug|stuff)\b (the|both|it|them|each|its|every|all|tail|port)\b", re.IGNORECASE
)
COVERING = ("cap", "cover", "stand_in", "block", "tied")
UNCOVERED_STAGES = ("take_down", "inspect", "prepare")
DRIVEN = re.compile(
    r"\bafter (the )?first drives?\b|\bafter \d+( to \d+)? km\b|\bagain after it has run\b",
    re.IGNORECASE,
)
"""A title that speaks of a drive before it."""
DRAINS = re.compile(
    r"^drain\b|\b(oil|coolant|water|fluid|petrol|fuel) (and \w+ )?(drained|let out|let off|out|"
    r"emptied)\b",
    re.IGNORECASE,
)
"""A title that says that a fluid is let out."""
NEGATED = re.compile(r"\b(never|not|no|nobody|nothing|without)\b", re.IGNORECASE)


def _conditions(steps: Iterable[Step]) -> list[Condition]:
    return [condition for step in steps for condition in step.conditions()]


def _drained(sheet: Sheet) -> Iterator[Found]:
    """What is drained is filled, whatever the vehicle and the ways."""
    place = place_of(sheet)
    for index, step in enumerate(sheet.step):
        for name in step.drains:
            fluid = sheet.find_fluid(name)
            if fluid is None:
                continue
            later = [s for s in fills_of(sheet, fluid) if place[s.id] > place[step.id]]
            for world in worlds(sheet, _conditions((step, *later))):
                if world.does(step) and not any(world.does(s) for s in later):
                    known = f" ({world.words})" if world.words else ""
                    yield ("step", index, "drains"), f"{fluid.name}: drained, never filled{known}"
                    break


def _drains(sheet: Sheet) -> Iterator[Found]:
    """A step whose title lets a fluid out says which, so that its emptiness shuts a rung."""
    for index, step in enumerate(sheet.step):
        if step.stage == "take_down" and DRAINS.search(step.title) and not step.drains:
            yield (
                ("step", index, "drains"),
                f"{step.title}: a fluid by its title, and none is named",
            )


def _trials(sheet: Sheet) -> Iterator[Found]:
    """A dry fit comes apart within its step, or stays on trial until a step takes it apart; and it
    uses up nothing that is good for one use.
    """
    closed = {name for step in sheet.step for name in step.closes}
    for index, step in enumerate(sheet.step):
        if step.trial is None:
            continue
        stays = any(item.sort == "trial" and item.id in closed for item in step.opens)
        if not stays and step.trial.apart is None:
            words = f"{step.title}: on trial, and nothing says how or where it comes apart"
            yield ("step", index, "trial"), words
        if any(part.final_only for part in step.parts):
            words = f"{step.title}: on trial, with a part that is good for one use"
            yield ("step", index, "parts"), words


def _fills(sheet: Sheet) -> Iterator[Found]:
    """A step that fills a fluid shuts a rung no later than its emptiness harms."""
    for index, step in enumerate(sheet.step):
        fluid = _fluid_of(sheet, step)
        latest = EMPTY_SHUTS.get(fluid.kind) if fluid is not None and fluid.kind else None
        shuts = blocks_of(sheet, step)
        if fluid is not None and latest and RANK.get(shuts, len(RANK)) > RANK[latest]:
            yield ("step", index, "blocks"), f"{fluid.name} empty, and {shuts} alone waits for it"


def _fluid_of(sheet: Sheet, step: Step) -> Fluid | None:
    return sheet.find_fluid(step.fills())


def _opened(sheet: Sheet) -> Iterator[Found]:
    """What a step opens is closed by another, later one, whatever the vehicle and the ways."""
    place = place_of(sheet)
    for index, step in enumerate(sheet.step):
        for item in step.opens:
            closers = [
                s for s in sheet.step if item.id in s.closes and place[s.id] > place[step.id]
            ]
            for world in worlds(sheet, _conditions((step, *closers))):
                if world.does(step) and not any(world.does(s) for s in closers):
                    known = f" ({world.words})" if world.words else ""
                    yield ("step", index, "opens"), f"{item.what}: nothing closes it{known}"
                    break
            else:
                yield from _between(sheet, index, item, closers)


def _between(sheet: Sheet, index: int, item: Opens, closers: Sequence[Step]) -> Iterator[Found]:
    """It stays open for the rung it is open for, and is closed before the rung it blocks."""
    place = place_of(sheet)
    for run in (r for s in sheet.step if (r := s.as_run()) is not None):
        at = place[run.id]
        if item.open_for == run.rung and all(place[s.id] < at for s in closers):
            yield ("step", index, "opens"), f"{item.what}: closed before {run.title} needs it open"
        late = item.blocks in RANK and RANK[run.rung] >= RANK[item.blocks]
        if late and run.rung != item.open_for and any(place[s.id] > at for s in closers):
            yield ("step", index, "opens"), f"{item.what}: closed only after {run.title}"


def _covered(sheet: Sheet) -> Iterator[Found]:
    """A port that is covered, capped, plugged or stuffed is left open in the plan, so that the
    cover is counted out again.
    """
    for index, step in enumerate(sheet.step):
        if step.stage not in UNCOVERED_STAGES:
            continue
        says = any(COVERS.search(s) and not NEGATED.search(s) for s in sentences(step.do))
        if says and not any(item.sort in COVERING for item in step.opens):
            yield (
                ("step", index, "opens"),
                f"{step.title}: its words cover something that no item keeps",
            )


def _driven(sheet: Sheet) -> Iterator[Found]:
    """What is looked at after a drive comes after all that the drive waits for."""
    driven = [k for k, step in enumerate(sheet.step) if step.vehicle == "driven"]
    for index, step in enumerate(sheet.step):
        if DRIVEN.search(step.title) and step.vehicle != "driven":
            yield ("step", index, "vehicle"), f"{step.title}: it is not said that it was driven"
    for index in driven:
        later = [s for k, s in enumerate(sheet.step) if k > index and k not in driven]
        shut = next((s for s in later if blocks_of(sheet, s) in RANK), None)
        if shut is not None:
            words = f"{sheet.step[index].title}: it stands before {shut.title}, which a drive needs"
            yield ("step", index, "stage"), words


def _still_so(sheet: Sheet) -> Iterator[Found]:
    """A step that waits for one as for a danger finds what that left so; or it waits for the step
    that ends it, too.
    """
    place = place_of(sheet)
    closers = {item: step for step in sheet.step for item in step.closes}
    for index, step in enumerate(sheet.step):
        for link in (link for link in step.after if is_danger(sheet, link)):
            waited = sheet.find_step(link.step)
            for item in waited.opens if waited is not None else ():
                ends = closers.get(item.id)
                if ends is None or not place[link.step] < place[ends.id] < place[step.id]:
                    continue
                if ends.id not in all_before(sheet, step.id):
                    words = (
                        f"{step.title}: {item.what} is ended at {ends.title} before it, "
                        "so it would wait for ever"
                    )
                    yield ("step", index, "after"), words


CLOSING = (
    Law(
        "drained",
        "what is drained is filled",
        "a step of kind fill for that fluid, after the draining",
        _drained,
    ),
    Law(
        "drains",
        "a step that lets a fluid out names it",
        "drains with the id of a [[fluid]]",
        _drains,
        safety=True,
    ),
    Law(
        "empty",
        "an empty fluid shuts the rung it would harm",
        "oil blocks crank, coolant fire, gearbox and axle oil fire or gear, brake fluid drive",
        _fills,
        safety=True,
    ),
    Law(
        "opened",
        "what opens is closed, between the right rungs",
        "another step with closes, after the rung it is open for and before the rung it blocks",
        _opened,
    ),
    Law(
        "still_so",
        "what a step needs is still so when its turn comes",
        "its place before the step that ends it, or that step in its after too",
        _still_so,
    ),
    Law(
        "driven",
        "what follows a drive comes after all that the drive needs",
        'vehicle = "driven", and its place behind every step that shuts a rung',
        _driven,
    ),
    Law(
        "covered",
        "what covers a port is counted out again",
        "opens with sort cap, cover or stand_in, and a step that closes it",
        _covered,
    ),
    Law(
        "trial",
        "a dry fit comes apart again",
        "apart in the trial, or opens with sort trial and a step that closes it; parts for one use "
        "on the step that is final",
        _trials,
    ),
)
