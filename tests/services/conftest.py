"""A workshop on disk with the small sheet, the tools and one build."""

import pytest

from hollet.services.builds import make_build
from hollet.services.sheets import save_sheet
from hollet.services.tools import edit_tool
from hollet.services.workshop import Workshop
from tests.support import SMALL, Hand, tools


@pytest.fixture
def workshop(tmp_path):
    """An open workshop in an empty folder."""
    made = Workshop(tmp_path / "data")
    yield made
    made.close()


def stock(workshop: Workshop, sheet: str = SMALL) -> str:
    """Sheet, tools and one build; returns the build's id."""
    save_sheet(workshop, sheet)
    for tool in tools().values():
        edit_tool(workshop, tool.model_dump(exclude={"version"}), who="MK", version=0)
    return make_build(
        workshop, sheets=["small"], name="Job", vehicle="One", about="on the bench", who="MK"
    )


@pytest.fixture
def hand(workshop) -> Hand:
    """A hand that writes to the one build."""
    return Hand(workshop, stock(workshop))
