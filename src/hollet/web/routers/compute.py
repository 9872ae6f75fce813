"""Calculations by name, and what a typed figure means."""

from typing import Any

from fastapi import APIRouter, Body

from hollet.core.catalogue import compute, names
from hollet.core.forms import CalculationForm, compute_typed, forms
from hollet.services.figures import ConversionsView, QuantityView, conversions, read_figure
from hollet.web.models import ConversionEdit, QuantityEdit, TypedEdit
from hollet.web.routers.shop import Shared

__all__ = ["router"]

router = APIRouter()


@router.get("/compute")
def list_calculations() -> list[str]:
    """Names of all calculations."""
    return names()


@router.post("/compute/{name}")
def run_calculation(name: str, data: dict[str, Any] = Body()) -> dict[str, Any]:  # noqa: B008
    """Run one calculation; a refusal is status 422 with its reason code."""
    return compute(name, data)


@router.get("/calculations")
def list_forms() -> list[CalculationForm]:
    """The calculations that can be filled in by hand."""
    return list(forms())


@router.post("/calculations/{name}")
def run_typed(name: str, edit: TypedEdit) -> dict[str, Any]:
    """Run one calculation on what was typed into its form; a refusal is status 422 with
    its field.
    """
    return compute_typed(name, edit.typed)


@router.post("/conversions")
def convert(edit: ConversionEdit) -> ConversionsView:
    """A figure in all other units of its kind; one that cannot be read is an answer here, not an
    error.
    """
    return conversions(edit.text)


@router.post("/quantity")
def read_quantity(edit: QuantityEdit, workshop: Shared) -> QuantityView:
    """What is being typed, in the canonical unit; a figure that cannot be read is an answer here,
    not an error.
    """
    return read_figure(workshop, edit.text, edit.dimension, edit.unit, edit.tool)
