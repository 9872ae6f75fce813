"""The Shop: builds, sheets, tools, archives."""

from typing import Annotated

from fastapi import APIRouter, Depends, File, Request, UploadFile

from hollet.core.checking import Checked
from hollet.core.entries import GearEdited
from hollet.core.errors import Refused
from hollet.core.instruments import Instrument
from hollet.services import front, gear, sheets, shop, tools
from hollet.services.builds import BuildCard
from hollet.services.front import ShopView
from hollet.services.gear import GearView
from hollet.services.sheets import SheetCard, SheetLook
from hollet.services.shop import ShopFacts
from hollet.services.workshop import Workshop
from hollet.web.models import (
    BuildEdit,
    CheckEdit,
    GearEdit,
    SetGaugeEdit,
    SheetEdit,
    ShopEdit,
    ToolEdit,
    TrialEdit,
    WhoEdit,
)

__all__ = ["Shared", "router"]

router = APIRouter()
MAX_ARCHIVE = 300_000_000


def shared(request: Request) -> Workshop:
    """The workshop that this application serves."""
    return request.app.state.workshop  # type: ignore[no-any-return]


Shared = Annotated[Workshop, Depends(shared)]


@router.get("/shop")
def get_shop(workshop: Shared) -> ShopView:
    """All builds, sheets and tools."""
    return front.shop_view(workshop)


@router.post("/shop")
def edit_shop(edit: ShopEdit, workshop: Shared) -> ShopFacts:
    """Say anew what the shop is called, where its clock stands, and in what it counts."""
    return shop.edit_shop(workshop, edit.facts(), edit.who)


@router.post("/builds")
def make_build(edit: BuildEdit, workshop: Shared) -> BuildCard:
    """A new build from a sheet."""
    return front.made(
        workshop,
        sheets=edit.sheets,
        name=edit.name,
        vehicle=edit.vehicle,
        about=edit.about,
        who=edit.who,
        build_id=edit.id,
        facts=edit.facts,
    )


@router.post("/sheets")
def save_sheet(edit: SheetEdit, workshop: Shared) -> SheetCard:
    """Check and keep an uploaded sheet."""
    return sheets.save_sheet(workshop, edit.text)


@router.post("/sheets/check")
def check_sheet(edit: SheetEdit) -> SheetLook:
    """Hold a sheet against the laws; nothing is kept."""
    return sheets.look_at_sheet(edit.text)


@router.post("/archives")
def read_archive(workshop: Shared, file: Annotated[UploadFile, File()]) -> BuildCard:
    """Read an archive of a build in."""
    data = file.file.read(MAX_ARCHIVE + 1)
    if len(data) > MAX_ARCHIVE:
        raise Refused(
            "bad_archive",
            f"the archive was not read in: it is larger than {MAX_ARCHIVE // 1_000_000} MB",
            field="file",
        )
    return front.imported(workshop, data)


@router.post("/demo")
def read_demo(workshop: Shared) -> ShopView:
    """Put the demo builds into an empty Hollet."""
    from hollet.services.demo import fill_demo

    fill_demo(workshop)
    return get_shop(workshop)


@router.post("/tools")
def edit_tool(edit: ToolEdit, workshop: Shared) -> Instrument:
    """Keep a new or edited tool."""
    return tools.edit_tool(
        workshop, edit.tool, who=edit.who, version=edit.version, reason=edit.reason
    )


@router.post("/tools/{tool}/zeroed")
def zero_tool(tool: str, edit: WhoEdit, workshop: Shared) -> Instrument:
    """The tool was zeroed again."""
    return tools.zero_tool(workshop, tool, who=edit.who)


@router.post("/tools/{tool}/set")
def set_gauge(tool: str, edit: SetGaugeEdit, workshop: Shared) -> Instrument:
    """A gauge was set with a micrometer."""
    return tools.set_gauge(workshop, tool, edit.master, edit.setting, who=edit.who)


@router.post("/tools/{tool}/checked")
def check_tool(tool: str, edit: CheckEdit, workshop: Shared) -> Checked:
    """The tool held against a standard."""
    return tools.check_tool(
        workshop,
        tool,
        standard=edit.standard,
        nominal=edit.nominal,
        typed=edit.typed,
        keep_offset=edit.keep_offset,
        who=edit.who,
    )


@router.post("/tools/{tool}/tried")
def try_tool(tool: str, edit: TrialEdit, workshop: Shared) -> Instrument:
    """One thing read many times: the hands of the user."""
    return tools.try_tool(workshop, tool, thing=edit.thing, typed=edit.typed, who=edit.who)


@router.post("/gear")
def edit_gear(edit: GearEdit, workshop: Shared) -> GearView:
    """Say of a tool whether it is owned, borrowed, missing, broken or lent."""
    said = GearEdited(**edit.model_dump(exclude={"who", "version"}))
    return gear.edit_gear(workshop, said, version=edit.version, who=edit.who)
