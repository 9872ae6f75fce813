"""Every way of a school changes something, every setting says what is lost with it, and a step
shuts the rung that it really endangers.
"""

from collections.abc import Iterator, Sequence
from typing import Any

from hollet.core.procedure.closings import RANK
from hollet.core.procedure.facts import Condition
from hollet.core.procedure.laws.breach import Found, Law, all_conditions
from hollet.core.procedure.schools import School
from hollet.core.procedure.sheet import Sheet, Step, blocks_of

__all__ = ["CHOOSING"]

UNDER_WAY = ("steering", "brakes", "suspension", "wheels")
"""What a vehicle can stand without while its engine turns."""


def _asks(when: Sequence[Condition], school: str, way: str) -> bool | None:
    """Whether a thing is there on a way; None where the school says nothing of it."""
    said = [way in c.one_of for c in when if c.school == school]
    return all(said) if said else None


def _signature(sheet: Sheet, school: School, way: str) -> frozenset[str]:
    """All that is there on a way of a school, of what depends on the school."""
    things: list[tuple[str, Sequence[Condition]]] = [(s.id, s.conditions()) for s in sheet.step]
    things += [(f"part {s.id} {p.name}", p.when) for s in sheet.step for p in s.parts]
    tables: tuple[tuple[str, Sequence[Any]], ...] = (
        ("extra", sheet.extra),
        ("school", sheet.school),
        ("agreement", sheet.agreement),
    )
    things += [(f"{name} {item.id}", item.when) for name, table in tables for item in table]
    things += [(f"figure {v.limit} {k}", v.when) for k, v in enumerate(sheet.variant)]
    return frozenset(name for name, when in things if _asks(when, school.id, way))


def _schools(sheet: Sheet) -> Iterator[Found]:
    for index, school in enumerate(sheet.school):
        seen: dict[frozenset[str], str] = {}
        for way in school.way:
            changes = _signature(sheet, school, way.id)
            if changes in seen:
                words = f"'{seen[changes]}' and '{way.name}' change nothing between them"
                yield ("school", index, "way"), words
            seen.setdefault(changes, way.name)


def _held_by(sheet: Sheet) -> Iterator[Found]:
    for index, school in enumerate(sheet.school):
        for way in school.way:
            if not way.held_by:
                yield ("school", index, "way"), f"'{way.name}': nobody is said to do it so"


def _options(sheet: Sheet) -> Iterator[Found]:
    """A fact that a sheet asks about decides something."""
    asked = {c.fact for c in all_conditions(sheet)}
    for index, option in enumerate(sheet.option):
        if option.id not in asked:
            yield ("option", index, "id"), f"{option.name}: it is asked about, and decides nothing"


def _settings(sheet: Sheet) -> Iterator[Found]:
    kept = {name for step in sheet.step for name in step.keeps}
    for index, setting in enumerate(sheet.setting):
        if setting.id not in kept:
            yield ("setting", index, "id"), f"{setting.what}: no step keeps it"
        if setting.blocks == "nothing":
            yield ("setting", index, "blocks"), f"{setting.what}: no rung is lost with it"


def _rungs(sheet: Sheet) -> Iterator[Found]:
    """Springs, brakes and wheels stop a drive; they do not stop an engine that stands on the
    floor.
    """
    for index, step in enumerate(sheet.step):
        safety = _safety(sheet, step)
        shuts = blocks_of(sheet, step)
        if safety in UNDER_WAY and RANK.get(shuts, len(RANK)) < RANK["gear"]:
            words = f"{step.title}: of the {safety}, and it shuts {shuts}"
            yield ("step", index, "blocks"), words


def _safety(sheet: Sheet, step: Step) -> str | None:
    """What a step is safety-critical for: its joint, what it looks at, or what it judges."""
    joints = [sheet.find_joint(name) for name in step.tightens()]
    limits = [sheet.find_limit(result.limit) for result in step.results()]
    inspected = step.as_inspection()
    parts = inspected.part if inspected is not None else ()
    said = [item.safety for item in (*joints, *limits, *parts) if item is not None]
    return next((name for name in said if name), None)


CHOOSING = (
    Law(
        "school",
        "every way of a school changes something",
        "when = [{ school = ..., one_of = [...] }] on a step, part, extra or figure of that way",
        _schools,
    ),
    Law(
        "option",
        "an option decides something",
        "when = [{ fact = ..., one_of = [...] }] on what depends on it, or no option",
        _options,
    ),
    Law("held_by", "a school says who does it so", "held_by on each way", _held_by),
    Law(
        "setting",
        "a setting says what is lost with it",
        "keeps on the step at which it is at risk, and the rung in blocks",
        _settings,
    ),
    Law(
        "rung",
        "a step shuts the rung that it endangers",
        'blocks = "drive" (or "gear"), or first = "drive" for the whole sheet',
        _rungs,
    ),
)
