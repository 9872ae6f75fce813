"""No figure of one engine stands in a sheet for any: it is a size of the limit book or a reading,
and what is usual is said to be.
"""

import re
from collections.abc import Iterator
from typing import get_args

from hollet.core.instruments import ToolKind
from hollet.core.procedure.laws.breach import Found, Law, sentences
from hollet.core.procedure.sheet import Sheet

__all__ = ["FIGURES"]

BAKED = re.compile(r"^=\s*[-+]?\d")
ANY = re.compile(r"\bany (vehicle|engine|gearbox|axle)\b", re.IGNORECASE)
FIGURE = re.compile(
    r"\b\d+([.,]\d+)?\s*(mm|µm|cm|in|inch|thou|N·m|Nm|ft·lb|lb·ft|bar|psi|kPa|°C|K|Ω|ohm|V|L|litres?|km|kg|%|r/min|rpm|degrees|deg)\b"
)
KINDS: tuple[str, ...] = get_args(ToolKind)
USUAL = re.compile(r"\b(rule of thumb|usual|assumed|by the book|of the book)\b", re.IGNORECASE)


def _baked(sheet: Sheet) -> Iterator[Found]:
    for index, step in enumerate(sheet.step):
        for result in step.results():
            for source in (s for take in result.takes for s in take.of):
                if BAKED.match(source):
                    words = f"{result.name}: '{source}' is a figure of one vehicle inside a sum"
                    yield ("step", index, "result"), words


def _nominals(sheet: Sheet) -> Iterator[Found]:
    if not sheet.any_vehicle:
        return
    for index, step in enumerate(sheet.step):
        for reading in step.readings():
            if reading.nominal is not None:
                words = f"{reading.name}: '{reading.nominal}' is expected of any vehicle"
                yield ("step", index, "reading"), words


def _tools(sheet: Sheet) -> Iterator[Found]:
    for index, step in enumerate(sheet.step):
        for reading in step.readings():
            if reading.tool not in KINDS:
                words = (
                    f"{reading.name}: no tool of the kind '{reading.tool}' exists, nothing reads it"
                )
                yield ("step", index, "reading"), words


def _said(sheet: Sheet) -> Iterator[Found]:
    """A sheet that speaks of any vehicle says so, and its figures in words are marked as usual."""
    if ANY.search(sheet.about) and not sheet.any_vehicle:
        yield ("sheet", "any_vehicle"), "the sheet is about any vehicle and does not say so"
    if not sheet.any_vehicle:
        return
    for index, step in enumerate(sheet.step):
        for key, text in (("do", step.do), ("why", step.why or "")):
            loose = (
                s for s in sentences(_joined(text)) if FIGURE.search(s) and not USUAL.search(s)
            )
            for sentence in loose:
                yield ("step", index, key), f"'{sentence}': a figure, and not said to be usual"
    for index, limit in enumerate(sheet.limit):
        given = limit.lo or limit.hi or limit.target
        if given and limit.source is not None and limit.own is None:
            words = f"{limit.name}: a figure with a source, in a sheet of no vehicle"
            yield ("limit", index, "source"), words


def _joined(text: str) -> str:
    """A text whose decimal points do not end a sentence."""
    return re.sub(r"(?<=\d)\.(?=\d)", ",", text)


FIGURES = (
    Law(
        "baked",
        "no figure is baked into a sum",
        "size with the id of a limit whose target is that size, or a reading",
        _baked,
        safety=True,
    ),
    Law(
        "expected",
        "a sheet for any vehicle expects no size",
        "size with the id of a limit, or no nominal at all",
        _nominals,
    ),
    Law(
        "tool",
        "a reading asks for a tool that there is",
        f"one of {', '.join(KINDS)}",
        _tools,
    ),
    Law(
        "assumed",
        "what is usual is said to be usual",
        "any_vehicle = true; and rule of thumb, usual or assumed in the sentence with the figure",
        _said,
    ),
)
