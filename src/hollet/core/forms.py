"""The form of each calculation: its fields with kind and unit, and what was typed into them turned
into its input.

One registration gives the page of a bench tool as well; nothing about a calculation is written
twice.
"""

import re
import typing
from collections.abc import Mapping
from types import UnionType
from typing import Any, Literal

from pydantic import BaseModel, ConfigDict
from pydantic.fields import FieldInfo
from pydantic_core import PydanticUndefined

from hollet.core.catalogue import compute, names
from hollet.core.errors import NotFound, Refused
from hollet.core.quantities.parse import parse
from hollet.core.quantities.quantity import Quantities, Quantity, decimal_text
from hollet.core.quantities.units import CANONICAL
from hollet.core.registry import CALCULATIONS, Calculation

__all__ = ["CalculationForm", "FormField", "compute_typed", "form_of", "forms"]

FAMILIES = {
    "bores": "Bores and rings",
    "rings": "Bores and rings",
    "journals": "Journals and bearings",
    "gaps": "Gaps from depths",
    "lengths": "Lengths to cut",
    "gears": "Ring gear and pinion",
    "pinion": "Ring gear and pinion",
    "alignment": "Flanges, runout, preload",
    "steering": "Steering",
    "suspension": "Suspension",
    "springs": "Suspension",
    "driveline": "Driveline",
    "belts": "Pulleys and belts",
    "electrics": "Earth paths and cables",
    "ignition": "Ignition timing",
    "compression": "Compression",
    "fluids": "Fills and oil holes",
    "mixing": "Fills and oil holes",
    "flow": "Fills and oil holes",
    "valves": "Valve gear",
    "adapters": "Torque wrench",
    "generic": "Bolts without a figure",
    "preload": "Bolts without a figure",
    "trace": "Torque wrench",
    "even": "Flanges, runout, preload",
    "verdicts": "What a reading is worth",
    "budgets": "What a reading is worth",
    "watch": "First start",
    "rules": "First start",
    "slings": "Lifting",
    "links": "Lifting",
    "bearing": "Lifting",
    "buying": "Buying and fetching",
    "shims": "Shims and matching",
    "pairing": "Shims and matching",
    "valve_shims": "Shims and matching",
    "heating": "Heat and cold",
}
"""The modules whose calculations have a page among the bench tools, and what they are called."""
NO_PAGE = frozenset({"conversions", "pairs", "patterns", "rounds", "slips"})
"""Modules whose calculations the benches use, and nobody fills in by hand."""


class FormField(BaseModel):
    """One field: a figure, several, several with a name each, a whole or bare number, yes or no,
    one of a list, or a row (or rows) of the figures that `options` name.
    """

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)
    name: str
    label: str
    kind: Literal["figure", "figures", "named", "number", "yes_no", "choice", "rows", "row"]
    dimension: str | None = None
    unit: str | None = None
    default: str = ""
    options: tuple[str, ...] = ()
    needed: bool = True


class CalculationForm(BaseModel):
    """A calculation for the eye: its family, what it reckons and by which rule, its fields."""

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)
    name: str
    title: str
    family: str
    about: str
    fields: tuple[FormField, ...]


def forms() -> tuple[CalculationForm, ...]:
    """The calculations that can be filled in by hand, by family and title."""
    found = [form for form in (form_of(CALCULATIONS[name]) for name in names()) if form is not None]
    order = list(FAMILIES.values())
    return tuple(sorted(found, key=lambda form: (order.index(form.family), form.title)))


def form_of(calculation: Calculation) -> CalculationForm | None:
    """The form of one calculation, or None when nobody fills it in by hand, or when a field that it
    needs is more than a figure, a number or a choice. A module that is in neither list is a
    KeyError: no calculation loses its page unseen.
    """
    module = calculation.run.__module__.rsplit(".", 1)[-1]
    if module in NO_PAGE:
        return None
    infos = calculation.takes.model_fields
    fields = {name: _field(name, info) for name, info in infos.items()}
    if not fields or any(
        field is None and infos[name].default is not None for name, field in fields.items()
    ):
        return None
    rule = re.split("Raises\n|Example\n|[Rr]efuses", calculation.run.__doc__ or "")[0]
    about = f"{calculation.takes.__doc__ or ''} {' '.join(rule.split())}".strip().rstrip(";,")
    return CalculationForm(
        name=calculation.name,
        title=calculation.title,
        family=FAMILIES[module],
        about=about,
        fields=tuple(f for f in fields.values() if f is not None),
    )


def _field(name: str, info: FieldInfo) -> FormField | None:
    label = name.replace("_", " ")
    extra = info.json_schema_extra if isinstance(info.json_schema_extra, dict) else {}
    parts = [a for a in _alternatives(info.annotation) if a is not type(None)]
    default = None if info.default in (PydanticUndefined, None) else info.default
    if len(parts) != 1:
        return None
    (kind,) = parts
    base: dict[str, Any] = {"name": name, "label": label, "needed": default is None}
    dimension = str(extra["dimension"]) if "dimension" in extra else None
    unit = "deg BTDC" if dimension == "advance" else CANONICAL.get(dimension or "")
    options = extra.get("options")
    if isinstance(options, list):
        offered = tuple(str(option) for option in options)
        return FormField(kind="choice", options=offered, **base | {"needed": True})
    if kind is Quantity:
        text = (
            f"{decimal_text(float(str(default.value)))} {default.unit}"
            if isinstance(default, Quantity) and default.unit != "1"
            else ""
        )
        text = (
            decimal_text(float(str(default.value)))
            if isinstance(default, Quantity) and default.unit == "1"
            else text
        )
        return FormField(kind="figure", dimension=dimension, unit=unit, default=text, **base)
    if kind is Quantities:
        return FormField(kind="figures", dimension=dimension, unit=unit, **base)
    if typing.get_origin(kind) is dict and typing.get_args(kind)[1] is Quantity:
        return FormField(kind="named", unit=unit or CANONICAL["length"], **base | {"needed": True})
    listed = typing.get_origin(kind) is tuple
    model = typing.get_args(kind)[0] if listed else kind
    if extra.get("rows"):
        names = tuple(f.alias or n for n, f in model.model_fields.items())
        unit = CANONICAL["length"]
        whole = {"options": names, "unit": unit} | base | {"needed": True}
        return FormField(kind="rows" if listed else "row", **whole)
    if kind is bool:
        return FormField(
            kind="yes_no", default="yes" if default else "no", **base | {"needed": False}
        )
    if kind in (int, float):
        return FormField(kind="number", default="" if default is None else str(default), **base)
    if typing.get_origin(kind) is Literal:
        return FormField(
            kind="choice", options=tuple(typing.get_args(kind)), default=str(default or ""), **base
        )
    return None


def _alternatives(annotation: Any) -> tuple[Any, ...]:
    return (
        typing.get_args(annotation)
        if typing.get_origin(annotation) in (UnionType, typing.Union)
        else (annotation,)
    )


def compute_typed(name: str, typed: Mapping[str, str]) -> dict[str, Any]:
    """Run a calculation on what was typed into its form; a figure may carry its own unit, several
    are parted by `;` or spaces.

    Raises
    ------
    Refused
        The parser's codes with the field, and the calculation's own.
    NotFound
        No such calculation.
    """
    names()  # loads the families
    form = form_of(CALCULATIONS[name]) if name in CALCULATIONS else None
    if form is None:
        raise NotFound("calculation", name)
    data: dict[str, Any] = {}
    for field in form.fields:
        text = typed.get(field.name, "").strip()
        if text:
            data[field.name] = _value(field, text)
    return compute(name, data)


def _value(field: FormField, text: str) -> Any:
    if field.kind == "yes_no":
        return text == "yes"
    if field.kind == "choice":
        return text
    if field.kind == "number":
        try:
            return float(text.replace(",", ".")) if "." in text or "," in text else int(text)
        except ValueError as error:
            raise Refused(
                "bad_number", f"'{field.label}' must be a number (got '{text}')", field=field.name
            ) from error
    if field.kind == "figure":
        return _quantity(field, text)
    if field.kind == "named":
        named = [piece.partition(":") for piece in text.split(";") if piece.strip()]
        if any(not name.strip() or not figure.strip() for name, _, figure in named):
            raise Refused(
                "bad_number",
                f"'{field.label}': each with its name, such as 1: 1.986; 2: 1.990",
                field=field.name,
            )
        return {name.strip(): _quantity(field, figure) for name, _, figure in named}
    if field.kind in ("rows", "row"):
        rows = [_row(field, piece) for piece in re.split(r"[;\n]", text) if piece.strip()]
        return rows if field.kind == "rows" else rows[0]
    pieces = (
        [p for p in text.split(";") if p.strip()]
        if ";" in text
        else text.split()
        if all(_bare(p) for p in text.split())
        else [text]
    )
    return {
        "value": [_quantity(field, piece)["value"] for piece in pieces],
        "unit": field.unit or "mm",
    }


def _row(field: FormField, text: str) -> dict[str, Any]:
    """One row of figures in the order of its names; a count is a whole number."""
    parts = text.replace(" x ", " ").split()
    if len(parts) != len(field.options):
        words = f"'{field.label}': each as {' '.join(field.options)}, such as 0.80 3; 1.60 2"
        raise Refused("bad_number", words, field=field.name)
    found: dict[str, Any] = {}
    for name, part in zip(field.options, parts, strict=True):
        if name == "count":
            if not part.isdigit():
                words = f"'{field.label}': a count is a whole number (got '{part}')"
                raise Refused("bad_number", words, field=field.name)
            found[name] = int(part)
        else:
            found[name] = _quantity(field, part)
    return found


def _bare(piece: str) -> bool:
    return piece.replace(".", "", 1).replace("-", "", 1).isdigit()


def _quantity(field: FormField, text: str) -> dict[str, str]:
    """What was typed in the canonical unit; a field without a dimension of its own
    takes lengths.
    """
    if field.dimension == "advance":
        parsed = parse(text, "angle", "deg")
        if parsed.nominal is None:
            raise Refused(
                "bad_number", f"'{field.label}': one figure, such as 10 BTDC", field=field.name
            )
        return {
            "value": decimal_text(parsed.advance if parsed.advance is not None else parsed.nominal),
            "unit": "deg",
        }
    dimension = field.dimension or "length"
    try:
        parsed = parse(text, dimension, CANONICAL[dimension])
    except Refused as refusal:
        raise Refused(
            refusal.reason_code, f"'{field.label}': {refusal.message}", field=field.name
        ) from refusal
    if parsed.kind != "single" or parsed.nominal is None:
        raise Refused(
            "bad_number",
            f"'{field.label}': one figure, such as 12 {CANONICAL[dimension]}",
            field=field.name,
        )
    return {"value": decimal_text(parsed.nominal), "unit": CANONICAL[dimension]}
