"""Sums of the bench that are kept at a step: whether what went in is still so."""

import math
from collections.abc import Mapping
from typing import Any

from pydantic import computed_field

from hollet.core.catalogue import names
from hollet.core.entries import BookState, Entry, SumKept
from hollet.core.entries.status import plan_of
from hollet.core.entries.sums import SumAnswer, SumInput
from hollet.core.errors import NotFound, Refused
from hollet.core.forms import compute_typed, form_of
from hollet.core.quantities.quantity import decimal_text, round9
from hollet.core.quantities.units import CANONICAL, find_unit
from hollet.core.registry import CALCULATIONS
from hollet.core.steps.readings import latest, reading_mean
from hollet.core.steps.said import said_figures
from hollet.core.view import View

__all__ = ["KeptSum", "Reckoned", "Source", "kept_sums", "reckoned", "sources"]

DIGITS = 6


class Source(View):
    """A figure of the build that a sum may take by its name."""

    id: str
    name: str
    dimension: str
    text: str


class Reckoned(View):
    """A sum as it comes out: its figures, its answers, its working."""

    title: str
    inputs: tuple[SumInput, ...]
    answers: tuple[SumAnswer, ...]
    working: tuple[str, ...]


class KeptSum(View):
    """A sum that is kept at a step; `changed` says which figure is another one now, and `now` what
    comes out with it.
    """

    id: str
    step: str
    calc: str
    title: str
    inputs: tuple[SumInput, ...]
    answers: tuple[SumAnswer, ...]
    changed: tuple[str, ...]
    now: tuple[SumAnswer, ...]
    refusal: str | None
    who: str
    time: str

    @computed_field
    @property
    def holds(self) -> bool:
        """Whether all that went in is still so."""
        return not self.changed


def sources(state: BookState) -> tuple[Source, ...]:
    """Readings, sizes of the vehicle and figures that were said, as they stand now."""
    plan, found = plan_of(state), []
    for step in plan.step:
        for spec in step.readings():
            entry = latest(state, spec.id)
            if entry is not None and entry.body.instrument is not None:
                dimension = entry.body.tool().dimension
                text = f"{decimal_text(round9(reading_mean(entry)))} {CANONICAL[dimension]}"
                found.append(_source(f"reading:{spec.id}", spec.name, dimension, text))
        for figure in said_figures(state, step):
            if figure.words is not None:
                name = f"said:{figure.id}"
                unit = find_unit(figure.unit)
                dimension = unit.dimension if unit is not None else ""
                found.append(_source(name, figure.name, dimension, figure.words))
    for limit in plan.limit:
        if limit.target is not None:
            text = limit.size or f"{limit.target} {limit.unit}"
            found.append(_source(f"limit:{limit.id}", limit.name, limit.dimension, text))
    return tuple(found)


def _source(name: str, title: str, dimension: str, text: str) -> Source:
    return Source(id=name, name=title, dimension=dimension, text=text)


def reckoned(
    state: BookState, calc: str, typed: Mapping[str, str], taken: Mapping[str, str]
) -> Reckoned:
    """A sum with the figures that were typed, and those that are taken from the build by name.

    Raises
    ------
    NotFound
        No such calculation, field or figure.
    Refused
        What the calculation refuses.
    """
    names()
    form = form_of(CALCULATIONS[calc]) if calc in CALCULATIONS else None
    if form is None:
        raise NotFound("calculation", calc)
    known = {source.id: source for source in sources(state)}
    fields = {field.name: field for field in form.fields}
    for field, name in taken.items():
        if field not in fields:
            raise NotFound("field", field)
        if name not in known:
            raise NotFound("figure", name)
        if known[name].dimension != fields[field].dimension:
            words = f"{known[name].name} is no {fields[field].dimension}"
            raise Refused("dimension_mismatch", words, field=field)
    inputs = tuple(
        SumInput(
            field=field.name,
            label=field.label,
            typed=known[taken[field.name]].text
            if field.name in taken
            else typed.get(field.name, "").strip()[:600],
            source=taken.get(field.name),
            source_name=known[taken[field.name]].name if field.name in taken else None,
        )
        for field in form.fields
        if field.name in taken or typed.get(field.name, "").strip()
    )
    door = compute_typed(calc, {i.field: i.typed for i in inputs})
    return Reckoned(
        title=form.title,
        inputs=inputs,
        answers=tuple(
            SumAnswer(name=key.replace("_", " "), text=_shown(leaf)[:600])
            for key, leaf in door.items()
            if key != "working"
        ),
        working=tuple(str(line)[:600] for line in door["working"])[:60],
    )


def _shown(leaf: Mapping[str, Any]) -> str:
    value, unit = leaf["value"], leaf.get("unit", "1")
    listed = value if isinstance(value, list) else [value]
    text = ", ".join(_word(item) for item in listed)
    return f"{text} {unit}" if unit not in ("1", "") else text


def _word(value: Any) -> str:
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, float | int) and math.isfinite(value):
        return f"{value:.{DIGITS}g}"
    return str(value).replace("_", " ")


def kept_sums(state: BookState, step: str) -> tuple[KeptSum, ...]:
    """The sums that are kept at a step, each as it was kept last."""
    found = (entry for entry in state.newest_of(SumKept, "sum") if entry.body.step == step)
    return tuple(_kept(state, entry) for entry in found)


def _kept(state: BookState, entry: Entry[SumKept]) -> KeptSum:
    body, known = entry.body, {source.id: source for source in sources(state)}
    changed = []
    for item in body.inputs:
        source = known.get(item.source) if item.source is not None else None
        if item.source is not None and source is None:
            changed.append(f"{item.source_name} is not there any more")
        elif source is not None and source.text != item.typed:
            changed.append(f"{item.source_name} was {item.typed} and is {source.text}")
    now: tuple[SumAnswer, ...] = ()
    refusal = None
    if changed:
        taken = {i.field: i.source for i in body.inputs if i.source in known}
        typed = {i.field: i.typed for i in body.inputs if i.source is None}
        try:
            now = reckoned(state, body.calc, typed, {k: v for k, v in taken.items() if v}).answers
        except (Refused, NotFound) as error:
            refusal = error.message
    return KeptSum(
        id=body.sum,
        step=body.step,
        calc=body.calc,
        title=body.title,
        inputs=body.inputs,
        answers=body.answers,
        changed=tuple(changed),
        now=now,
        refusal=refusal,
        who=entry.who,
        time=entry.time,
    )
