"""A lift said: what hangs, on what, by which elements. Always written; what stands against it is
told at once, and holds the step.
"""

import re
from datetime import date, timedelta
from typing import Annotated, ClassVar, Literal

from pydantic import BaseModel, ConfigDict, Field

from hollet.core.acts.base import Act, step_named
from hollet.core.acts.hand import Hand
from hollet.core.entries import BookState, LiftElement, LiftSaid, StepBody
from hollet.core.errors import Refused
from hollet.core.quantities.parse import measured
from hollet.core.quantities.quantity import Measured, decimal_text
from hollet.core.steps.said import weights_said

__all__ = ["LiftSaidAct"]

Text = Annotated[str, Field(max_length=40)]
LIGHT = 0.8
"""Below this share of what was said to be carried, the mass of a lift is asked about."""
FURTHEST = timedelta(days=2 * 366)
"""No inspection of lifting gear holds for longer: a later day is asked about (assumed)."""
LEAST_KG, MOST_KG = 5.0, 20_000.0
"""What nobody slings for less, and what no workshop's gear is marked with: asked (both assumed)."""


class ElementSaid(BaseModel):
    """An element as it was typed; an empty limit is no mark."""

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)
    name: Annotated[str, Field(min_length=1, max_length=80)]
    limit: Text = ""
    left: Annotated[float, Field(gt=0, le=1)] = 1.0
    why: Annotated[str, Field(max_length=120)] = ""
    where: Literal["top", "leg"] = "leg"
    found: Annotated[str, Field(max_length=200)] = ""
    inspected_until: date | None = None

    def element(self) -> LiftElement:
        """With its figure."""
        limit = _figure(self.limit, "mass", "kg", "elements")
        if self.left < 1 and not self.why.strip():
            words = f"{self.name}: why it carries only {self.left:g} of its limit"
            raise Refused("no_words", words, field="elements")
        return LiftElement(
            name=self.name.strip(),
            limit=limit,
            left=self.left,
            why=self.why.strip(),
            where=self.where,
            found=self.found.strip(),
            inspected_until=self.inspected_until,
        )


class LiftSaidAct(Act[LiftSaid], StepBody):
    """The mass as a figure or as a range ("171 to 196"), of which the heavy end counts; lengths of
    the legs and between the eyes, or the angle measured on the loaded sling. `sure` after a mass
    or a limit that is hardly possible was asked about.
    """

    body: ClassVar = LiftSaid
    kind: Literal["lift said"]
    what: Annotated[str, Field(min_length=1, max_length=80)]
    mass: Text
    mass_from: Literal["weighed", "book", "estimate"]
    jerk: Annotated[float, Field(ge=1, le=3)] = 1.25
    legs: Annotated[int, Field(ge=1, le=4)]
    leg: Text = ""
    apart: Text = ""
    angle: Text = ""
    hook: Text = ""
    reach: Text = ""
    elements: Annotated[tuple[ElementSaid, ...], Field(max_length=20)]
    sure: bool = False

    def accepted(self, state: BookState, hand: Hand) -> LiftSaid:
        step = step_named(state, self.step)
        if not step.lifts:
            words = f"{step.number} lifts nothing"
            raise Refused("bad_entry", words, field="step")
        light, heavy = _mass(self.mass)
        elements = tuple(said.element() for said in self.elements)
        if not self.sure:
            _likely(state, heavy, elements, hand.today)
        return LiftSaid(
            step=self.step,
            what=self.what.strip(),
            heavy=heavy,
            light=light,
            mass_from=self.mass_from,
            jerk=self.jerk,
            legs=self.legs,
            leg=_figure(self.leg, "length", "mm", "leg"),
            apart=_figure(self.apart, "length", "mm", "apart"),
            angle=_figure(self.angle, "angle", "deg", "angle"),
            hook=_figure(self.hook, "length", "mm", "hook"),
            reach=_figure(self.reach, "length", "mm", "reach"),
            elements=elements,
        )


def _likely(
    state: BookState, heavy: Measured, elements: tuple[LiftElement, ...], today: date
) -> None:
    """Ask about a mass far below what the unit was said to weigh, a mark that no gear bears, and an
    inspection that holds for years.
    """
    kg, shown = heavy.figure("mass") / 1000, f"{heavy.value} {heavy.unit}"
    said = weights_said(state)
    if said and kg < LIGHT * min(weight for _, weight in said):
        name, weight = min(said, key=lambda one: one[1])
        words = (
            f"{shown} hangs here, and {name} was said to be {decimal_text(weight)} kg: is it so?"
        )
        raise Refused("odd_figure", words, field="mass")
    if not said and kg < LEAST_KG:
        raise Refused("odd_figure", f"{shown}: does it weigh no more than that?", field="mass")
    for element in elements:
        if element.limit is not None and element.limit.figure("mass") / 1000 > MOST_KG:
            words = f"{element.name}: {element.limit.shown()} is marked on it?"
            raise Refused("odd_figure", words, field="elements")
        until = element.inspected_until
        if until is not None and until > today + FURTHEST:
            words = f"{element.name}: does its tag say {until}?"
            raise Refused("odd_figure", words, field="elements")


def _figure(text: str, dimension: str, unit: str, field: str) -> Measured | None:
    if not text.strip():
        return None
    found = measured(text, dimension, unit, field)
    if found.figure(dimension) < 0:
        raise Refused("bad_number", f"'{text}': it is never below zero", field=field)
    return found


def _mass(text: str) -> tuple[Measured | None, Measured]:
    """The light end, where a range was typed, and the heavy one."""
    ends = [end.strip() for end in re.split(r"\s+to\s+|\s*–\s*", text.strip()) if end.strip()]
    if not 1 <= len(ends) <= 2:
        words = f"'{text}': what hangs weighs one figure or a range, such as 171 to 196 kg"
        raise Refused("bad_number", words, field="mass")
    unit = re.search(r"[a-zA-Z]+\s*$", ends[-1])
    bare = len(ends) == 2 and unit is not None and ends[0][-1].isdigit()
    light = _figure(f"{ends[0]} {unit[0]}" if bare and unit else ends[0], "mass", "kg", "mass")
    heavy = _figure(ends[-1], "mass", "kg", "mass")
    assert light is not None and heavy is not None, "neither end is empty"  # noqa: PT018
    if heavy.figure("mass") <= 0 or light.figure("mass") > heavy.figure("mass"):
        words = f"'{text}': above zero, and the light end first"
        raise Refused("mass_not_positive", words, field="mass")
    return (light if len(ends) == 2 else None), heavy
