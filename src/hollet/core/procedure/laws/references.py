"""What a sheet must keep to be read at all: ids are its own, everything named is there, and no
reason goes in a circle. The first breach refuses it.
"""

from collections.abc import Callable, Iterable, Iterator, Sequence

from hollet.core.errors import HolletError, Refused
from hollet.core.procedure.facts import Condition
from hollet.core.procedure.laws.breach import Found, Path
from hollet.core.procedure.mistakes import mistake
from hollet.core.procedure.precedence import contradiction
from hollet.core.procedure.sheet import Sheet, Step
from hollet.core.quantities.parse import parse

__all__ = ["check_references"]

TABLES = (
    "option",
    "school",
    "extra",
    "agreement",
    "limit",
    "joint",
    "setting",
    "fluid",
    "trace",
    "step",
)


def check_references(sheet: Sheet, text: str = "") -> None:
    """Refuse doubled ids, links to nothing, conditions on nothing, circles and contradictions, each
    with its line.
    """
    for law in LAWS:
        breach = next(iter(law(sheet)), None)
        if breach is not None:
            raise mistake(text, *breach)


def _twice(ids: Iterable[tuple[Path, str]], what: str) -> Iterator[Found]:
    seen: set[str] = set()
    for path, name in ids:
        if name in seen:
            yield path, f"the id '{name}' is used twice; each {what} needs its own"
        seen.add(name)


def _own_ids(sheet: Sheet) -> Iterator[Found]:
    for table in TABLES:
        listed = enumerate(getattr(sheet, table))
        yield from _twice((((table, k, "id"), item.id) for k, item in listed), table)


def _take_down(sheet: Sheet) -> Iterator[Found]:
    """What take-down and refit name: steps put back, captures compared, what must be open, settings
    and fluids.
    """
    steps = list(enumerate(sheet.step))
    captures = [(("step", k, "capture"), c.id) for k, step in steps for c in step.capture]
    yield from _twice(captures, "capture")
    fluids = {fluid.id for fluid in sheet.fluid}
    known: dict[str, tuple[set[str], str]] = {
        "refits": ({step.id for step in sheet.step}, "step here"),
        "compares": ({name for _, name in captures}, "capture of a step here"),
        "requires": (_opened(sheet), "thing a step leaves open"),
        "keeps": ({setting.id for setting in sheet.setting}, "setting of this sheet"),
        "holds": (fluids, "fluid of this sheet"),
        "drains": (fluids, "fluid of this sheet"),
    }
    for index, step in steps:
        for key, (names, what) in known.items():
            for name in getattr(step, key):
                if name not in names:
                    yield ("step", index, key), f"'{name}' is no {what}"


def _opened(sheet: Sheet) -> set[str]:
    return {item.id for step in sheet.step for item in step.opens}


def _parts(sheet: Sheet) -> list[tuple[Path, str]]:
    """The parts that are looked at, each with its place in the sheet."""
    looked = [(k, step.as_inspection()) for k, step in enumerate(sheet.step)]
    return [
        (("step", k, "part"), part.id)
        for k, inspection in looked
        if inspection is not None
        for part in inspection.part
    ]


def _traces(sheet: Sheet) -> Iterator[Found]:
    """Parts have their own ids; stations and flows lead to what is there."""
    parts = _parts(sheet)
    yield from _twice(parts, "part")
    for index, trace in enumerate(sheet.trace):
        stations = [station.id for station in trace.station]
        if len(set(stations)) < len(stations):
            yield ("trace", index, "station"), "two stations have one id"
        for flow in trace.flow:
            if flow.start not in stations or flow.to not in stations:
                words = f"the flow from '{flow.start}' to '{flow.to}' leads to no station of this"
                yield ("trace", index, "flow"), f"{words} trace"
        for station in trace.station:
            if station.part is not None and station.part not in {name for _, name in parts}:
                words = f"'{station.part}' is no part that is inspected here"
                yield ("trace", index, "station"), words


def _steps(sheet: Sheet) -> Iterator[Found]:
    steps, opened = {step.id for step in sheet.step}, _opened(sheet)
    for index, step in enumerate(sheet.step):
        for key, words in _of_step(step, sheet, steps, opened):
            yield ("step", index, key), words
        yield from _conditions(step.conditions(), sheet, ("step", index, "when"))
        for part in step.parts:
            yield from _conditions(part.when, sheet, ("step", index, "parts"))


def _of_step(
    step: Step, sheet: Sheet, steps: set[str], opened: set[str]
) -> Iterator[tuple[str, str]]:
    for link in step.after:
        if link.step not in steps and not link.if_there:
            yield "after", f"'{step.id}' waits for '{link.step}', which is no step here"
        if link.lasts is not None and not _is_time(link.lasts):
            yield "after", f"'{link.lasts}' is no time, such as 12 h"
    for chance in step.last_chance:
        if chance.step is not None and chance.step not in steps:
            yield "last_chance", f"'{chance.step}' is no step here"
    for item in step.closes:
        if item not in opened:
            yield "closes", f"'{item}' is never opened by a step"
    if step.hours is not None and step.hours[0] > step.hours[1]:
        yield "hours", "the lower figure comes first, such as [0.5, 1]"
    soak = step.stuck.soak if step.stuck else None
    if soak is not None and soak not in steps:
        yield "stuck", f"'{soak}' is no step here"
    yield from step.laws(sheet)


def _is_time(text: str) -> bool:
    try:
        parse(text, "time")
    except HolletError:
        return False
    return True


def _ties(sheet: Sheet) -> Iterator[Found]:
    for index, tie in enumerate(sheet.tie):
        yield from _conditions(tie.when, sheet, ("tie", index, "when"))


def _rechecks(sheet: Sheet) -> Iterator[Found]:
    steps = {step.id for step in sheet.step}
    for index, joint in enumerate(sheet.joint):
        if joint.recheck and joint.recheck not in steps:
            words = f"'{joint.recheck}' is not a step of this sheet"
            yield ("joint", index, "recheck"), words
        names = [name for group in joint.group for name in group]
        if joint.group and sorted(names) != sorted(joint.layout.names()):
            words = "the groups must name every bolt of the joint once"
            yield ("joint", index, "group"), words


def _choices(sheet: Sheet) -> Iterator[Found]:
    for index, school in enumerate(sheet.school):
        if school.find(school.pick) is None:
            ways = ", ".join(way.id for way in school.way)
            yield ("school", index, "pick"), f"'{school.pick}' is no way of this school: {ways}"
        yield from _conditions(school.when, sheet, ("school", index, "when"))
        for way in school.way:
            yield from _conditions(way.needs, sheet, ("school", index, "way"))
    steps = {step.id for step in sheet.step}
    for index, extra in enumerate(sheet.extra):
        if extra.at not in steps:
            yield ("extra", index, "at"), f"'{extra.at}' is no step here"
        yield from _conditions(extra.when, sheet, ("extra", index, "when"))


def _agreements(sheet: Sheet) -> Iterator[Found]:
    steps = {step.id for step in sheet.step}
    for index, agreement in enumerate(sheet.agreement):
        if agreement.step not in steps:
            yield ("agreement", index, "step"), f"'{agreement.step}' is no step here"
        for row in agreement.allowed:
            pairs = list(zip(row, agreement.part, strict=False))
            known = all(item in part.option for item, part in pairs)
            if len(row) != len(agreement.part) or not known:
                words = f"{list(row)} must name one option of each part, in their order"
                yield ("agreement", index, "allowed"), words
        yield from _conditions(agreement.when, sheet, ("agreement", index, "when"))


def _variants(sheet: Sheet) -> Iterator[Found]:
    for index, variant in enumerate(sheet.variant):
        limit = sheet.find_limit(variant.limit)
        if limit is None:
            words = f"'{variant.limit}' is not a limit of this sheet"
            yield ("variant", index, "limit"), words
        else:
            try:
                limit.with_figures(variant.lo, variant.hi, variant.target)
            except Refused as refusal:
                yield ("variant", index, refusal.field or "lo"), refusal.message
        yield from _conditions(variant.when, sheet, ("variant", index, "when"))


def _conditions(conditions: Sequence[Condition], sheet: Sheet, path: Path) -> Iterator[Found]:
    """A condition on a fact, school, extra or part that does not exist, or on a value that it
    cannot have.
    """
    for condition in conditions:
        breach, values = _named(condition, sheet)
        if breach is not None:
            yield path, breach
        for value in condition.one_of:
            if values is not None and value not in values:
                yield path, f"'{value}' cannot be: {', '.join(values)}"


def _named(condition: Condition, sheet: Sheet) -> tuple[str | None, tuple[str, ...] | None]:
    """Why what a condition names is not there, and the values that it may have."""
    facts = sheet.all_facts()
    if condition.fact is not None:
        fact = facts.get(condition.fact)
        if fact is None:
            return f"'{condition.fact}' is no fact: {', '.join(facts)}", None
        return None, fact.value or None
    if condition.school is not None:
        school = sheet.find_school(condition.school)
        if school is None:
            return f"'{condition.school}' is no school of this sheet", None
        return None, tuple(way.id for way in school.way)
    if condition.extra is not None:
        known = condition.extra in {extra.id for extra in sheet.extra}
        return (None if known else f"'{condition.extra}' is no extra of this sheet"), None
    parts = (part for agreement in sheet.agreement for part in agreement.part)
    part = next((part for part in parts if part.id == condition.part), None)
    if part is None:
        return f"'{condition.part}' is no part of an agreement of this sheet", None
    return None, part.option


def _order(sheet: Sheet) -> Iterator[Found]:
    found = contradiction(sheet.step)
    if found:
        at = next(k for k, step in enumerate(sheet.step) if step.id == found.chain[0])
        circle = found.chain[0] == found.chain[-1]
        words = "the reasons run in a circle: " if circle else "a reason goes against the stages: "
        yield ("step", at, "after"), words + found.words()


LAWS: tuple[Callable[[Sheet], Iterator[Found]], ...] = (
    _own_ids,
    _take_down,
    _traces,
    _steps,
    _ties,
    _rechecks,
    _choices,
    _agreements,
    _variants,
    _order,
)
