"""The documents say what there is."""

import doctest
import importlib
import pkgutil
import runpy
from pathlib import Path

import pytest

import hollet.core
from hollet.cli.main import app
from hollet.core.catalogue import names
from hollet.core.entries.kinds import KINDS
from hollet.core.procedure.joints import Joint
from hollet.core.procedure.kinds.check import CheckStep
from hollet.core.procedure.kinds.fill import FillStep
from hollet.core.procedure.kinds.inspect import InspectPart, InspectStep
from hollet.core.procedure.kinds.measure import MeasureStep
from hollet.core.procedure.kinds.remove import RemoveStep
from hollet.core.procedure.kinds.run import RunStep
from hollet.core.procedure.results import ReadingSpec, ResultSpec, Take
from hollet.core.procedure.sheet import Sheet
from hollet.core.procedure.tracing import Station, Trace
from hollet.core.registry import CALCULATIONS
from hollet.exchange.archive import FIELDS, FORMAT

DOCS = Path(__file__).parents[1] / "docs"
README = (DOCS.parent / "README.md").read_text("utf-8")


def test_every_entry_kind_is_described():
    """Each kind stands in the table of kinds."""
    text = (DOCS / "entry-kinds.md").read_text("utf-8")
    assert [kind for kind in KINDS if f"`{kind}`" not in text] == []


@pytest.mark.parametrize(
    "model",
    [
        Sheet,
        Joint,
        CheckStep,
        InspectStep,
        InspectPart,
        Trace,
        Station,
        RemoveStep,
        MeasureStep,
        FillStep,
        RunStep,
        ReadingSpec,
        ResultSpec,
        Take,
    ],
)
def test_every_key_of_a_sheet_is_described(model):
    """Each key that a sheet may hold stands in the format."""
    text = (DOCS / "sheet-format.md").read_text("utf-8")
    assert [key for key in model.model_fields if key not in text and key != "number"] == []


def test_archive_fields_are_described():
    """The format's name and every field."""
    text = (DOCS / "archive.md").read_text("utf-8")
    assert FORMAT in text
    assert [field for field in FIELDS if f"`{field}`" not in text] == []


def test_readme_names_commands_and_pictures():
    """Every command a user needs, and a link to every picture that is kept."""
    named = {command.callback.__name__ for command in app.registered_commands} - {"openapi", "demo"}
    assert [name for name in sorted(named) if f"hollet {name}" not in README] == []
    assert [
        p.name
        for p in sorted((DOCS / "screenshots").glob("*.png"))
        if f"docs/screenshots/{p.name}" not in README
    ] == []


MODULES = [m.name for m in pkgutil.walk_packages(hollet.core.__path__, "hollet.core.")]


@pytest.mark.parametrize("name", MODULES)
def test_examples_run(name):
    """Every example in the core gives what stands below it."""
    assert doctest.testmod(importlib.import_module(name)).failed == 0


def test_every_calculation_has_an_example():
    """A stranger sees what goes in and what comes out; of tables and texts a line says it."""
    names()
    without = {n for n, c in CALCULATIONS.items() if ">>>" not in (c.run.__doc__ or "")}
    assert without == {"dry_run_request", "first_run_monitor", "stages"}


def test_the_picture_of_the_house_is_drawn_from_the_code():
    """The layers and rooms as they stand: `make house` draws them anew."""
    drawn = runpy.run_path(str(DOCS / "house.py"))["drawn"]()
    assert (DOCS / "house.svg").read_text("utf-8") == drawn
    for name in ("cli", "screens", "store", "acts", "verdicts", "measuring"):
        assert f">{name}</text>" in drawn
