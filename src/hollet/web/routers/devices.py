"""Phones and tablets: shown and revoked on this machine, paired from the device itself."""

from fastapi import APIRouter, Request, Response

from hollet.core.errors import Conflict
from hollet.services import devices
from hollet.services.devices import DeviceView, Pairing, PairingCode
from hollet.services.feed import FeedView, look
from hollet.services.traces import trace_bytes
from hollet.web.access import COOKIE
from hollet.web.models import DevicesView, PairEdit, WhoEdit
from hollet.web.routers.shop import Shared

__all__ = ["router"]

router = APIRouter()
YEAR_S = 365 * 24 * 3600


def pairing_of(request: Request) -> Pairing:
    """The pairing of this Hollet; it has one only when it was opened to the workshop network."""
    found: Pairing | None = request.app.state.pairing
    if found is None:
        raise Conflict(
            "Hollet is open on this machine only: start it with 'hollet serve --workshop'",
            reason_code="this_machine_only",
        )
    return found


@router.get("/devices")
def get_devices(request: Request, workshop: Shared) -> DevicesView:
    """All devices, and the address at which they find Hollet."""
    pairing: Pairing | None = request.app.state.pairing
    return DevicesView(
        address=pairing.address if pairing else None, devices=list(devices.all_devices(workshop))
    )


@router.get("/feed")
def get_feed(request: Request, workshop: Shared) -> FeedView:
    """What the instruments say, as the live channel tells it."""
    return look(workshop, request.app.state.feed, None)


@router.get("/traces/{trace}.csv.gz", response_class=Response)
def get_trace(trace: str, workshop: Shared) -> Response:
    """All samples of a pull, as they were kept."""
    return Response(trace_bytes(workshop, trace), media_type="application/gzip")


@router.post("/devices/code")
def new_code(request: Request) -> PairingCode:
    """A fresh code, good for ten minutes and one device."""
    return pairing_of(request).new_code()


@router.post("/devices/{device}/revoke")
def revoke(device: str, edit: WhoEdit, workshop: Shared) -> DeviceView:
    """This device may open Hollet no more."""
    return devices.revoke(workshop, device, edit.who)


@router.post("/pair")
def pair(edit: PairEdit, request: Request, response: Response) -> DeviceView:
    """Take this device in; its token goes into a cookie that scripts cannot read."""
    peer = request.client.host if request.client else ""
    paired = pairing_of(request).pair(edit.code, edit.name, edit.who, peer)
    response.set_cookie(
        COOKIE, paired.token, max_age=YEAR_S, httponly=True, samesite="strict", path="/"
    )
    return paired.device
