"""Take-down and rebuilding: what is off, the order back, supports, photos, stuck parts."""

from typing import Annotated

from fastapi import APIRouter, File, Request, Response, UploadFile
from fastapi.responses import FileResponse

from hollet.core.book.rebuild import RebuildView
from hollet.screens.takedown import TakeDownView
from hollet.services import front, photos, recordings, takedown
from hollet.services.labels import Which, labels
from hollet.services.photos import StoredPhoto
from hollet.services.recordings import CLIP, SOUND, Sort, StoredClip, StoredSound
from hollet.services.takedown import FastenerView, StuckDesk, SupportDesk
from hollet.web.models import RebuildEdit, RebuildLook, StuckLook, TextLook
from hollet.web.routers.shop import Shared

__all__ = ["router"]

router = APIRouter()


@router.get("/builds/{build}/takedown")
def get_takedown(build: str, workshop: Shared) -> TakeDownView:
    """All that is off, the bags, what was kept as found."""
    return takedown.takedown(workshop, build)


@router.get("/builds/{build}/labels.pdf", response_class=Response)
def get_labels(build: str, workshop: Shared, request: Request, which: Which = "bags") -> Response:
    """Labels for bags and wires, 24 a sheet; with codes where Hollet is open to the workshop."""
    pairing = request.app.state.pairing
    address = pairing.address if pairing is not None else None
    return Response(labels(workshop, build, which, address), media_type="application/pdf")


@router.post("/builds/{build}/rebuild/look")
def look_at_rebuild(build: str, look: RebuildLook, workshop: Shared) -> RebuildView:
    """The order back with these choices; nothing is written."""
    return takedown.rebuild(workshop, build, look.choices)


@router.post("/builds/{build}/rebuild")
def take_rebuild(build: str, edit: RebuildEdit, workshop: Shared) -> RebuildView:
    """Take the order back over as the plan."""
    return takedown.take_rebuild(workshop, build, edit.choices, who=edit.who, entry_id=edit.id)


@router.get("/builds/{build}/support")
def get_support(build: str, workshop: Shared) -> SupportDesk:
    """What carries the load, and what to make safe."""
    return takedown.support(workshop, build)


@router.post("/builds/{build}/stuck")
def look_at_stuck(build: str, look: StuckLook, workshop: Shared) -> StuckDesk:
    """The ladder for a stuck part."""
    return takedown.stuck(
        workshop,
        build,
        look.step,
        look.part,
        look.facts,
    )


@router.post("/fasteners")
def read_fasteners(look: TextLook) -> FastenerView:
    """What a typed line of fasteners means."""
    return takedown.fasteners(look.text)


@router.post("/photos")
def store_photo(workshop: Shared, file: Annotated[UploadFile, File()]) -> StoredPhoto:
    """Keep a photo; it is on disk when this answers."""
    return photos.store_photo(workshop, file.file.read(photos.MAX_PHOTO + 1))


@router.post("/sounds")
def store_sound(workshop: Shared, file: Annotated[UploadFile, File()]) -> StoredSound:
    """Keep a recording; it is on disk when this answers."""
    return recordings.store_sound(workshop, file.file.read(SOUND.most + 1))


@router.get("/sounds/{sound}", response_class=FileResponse)
def get_sound(sound: str, workshop: Shared) -> FileResponse:
    """A recording by its hash."""
    return _played(workshop, SOUND, sound)


@router.post("/clips")
def store_clip(workshop: Shared, file: Annotated[UploadFile, File()]) -> StoredClip:
    """Keep a clip; it is on disk when this answers."""
    return recordings.store_clip(workshop, file.file.read(CLIP.most + 1))


@router.get("/clips/{clip}", response_class=FileResponse)
def get_clip(clip: str, workshop: Shared) -> FileResponse:
    """A clip by its hash, or the part of it that a player asks for."""
    return _played(workshop, CLIP, clip)


def _played(workshop: Shared, sort: Sort, name: str) -> FileResponse:
    path, media = front.recording_of(workshop, sort, name)
    return FileResponse(
        path,
        media_type=media,
        headers={
            "Cache-Control": "private, max-age=31536000, immutable",
            "X-Content-Type-Options": "nosniff",
        },
    )


@router.get("/photos/{photo}.jpg", response_class=FileResponse)
def get_photo(photo: str, workshop: Shared) -> FileResponse:
    """A photo by its hash."""
    return FileResponse(
        photos.photo_path(workshop, photo),
        media_type="image/jpeg",
        headers={"Cache-Control": "private, max-age=31536000, immutable"},
    )
