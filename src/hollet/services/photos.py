"""Photos in: checked, turned upright, made smaller, written anew without what a camera adds (place,
time, owner).
"""

import io
from pathlib import Path

from pydantic import BaseModel

from hollet.core.errors import NotFound, Refused
from hollet.services.workshop import Workshop
from hollet.store import files

__all__ = ["MAX_PHOTO", "StoredPhoto", "photo_path", "reencode", "store_photo"]

MAX_PHOTO = 25_000_000
MAX_PIXELS = 60_000_000
LONG_EDGE = 1600
QUALITY = 85
FORMATS = ("JPEG", "PNG", "WEBP", "GIF", "BMP")


class StoredPhoto(BaseModel):
    """A photo as it is kept: the hash that names it, and its size in pixels."""

    photo: str
    width: int
    height: int


def reencode(data: bytes) -> tuple[bytes, int, int]:
    """The photo as JPEG, upright, its longer edge at most 1600 px, with no metadata; and its width
    and height.

    Raises
    ------
    Refused
        `too_large` over 25 MB or 60 million pixels; `no_photo` for anything that is no picture or
        is damaged.
    """
    from PIL import Image, ImageOps, UnidentifiedImageError

    if len(data) > MAX_PHOTO:
        raise Refused(
            "too_large",
            f"the photo is larger than {MAX_PHOTO // 1_000_000} MB: set the camera to a smaller "
            "size",
            field="file",
        )
    Image.init()
    try:
        with Image.open(io.BytesIO(data), formats=FORMATS) as opened:
            if opened.width * opened.height > MAX_PIXELS:
                raise Refused(
                    "too_large",
                    f"the photo has {opened.width} × {opened.height} pixels, 60 million at "
                    "most: set the camera to a smaller size",
                    field="file",
                )
            upright = ImageOps.exif_transpose(opened).convert("RGB")
    except (
        UnidentifiedImageError,
        OSError,
        SyntaxError,
        ValueError,
        Image.DecompressionBombError,
    ) as error:
        raise Refused(
            "no_photo",
            "this is no photo that can be read: take it again, as JPEG, PNG or WebP",
            field="file",
        ) from error
    upright.thumbnail((LONG_EDGE, LONG_EDGE))
    out = io.BytesIO()
    clean = Image.new("RGB", upright.size)
    clean.paste(upright)
    clean.save(out, "JPEG", quality=QUALITY, optimize=True)
    return out.getvalue(), clean.width, clean.height


def store_photo(workshop: Workshop, data: bytes) -> StoredPhoto:
    """Re-encode and keep a photo; it is synced to disk when this returns.

    Its entry in a log is written apart.
    """
    stored, width, height = reencode(data)
    return StoredPhoto(photo=files.keep(workshop.store.folder, stored), width=width, height=height)


def photo_path(workshop: Workshop, photo: str) -> Path:
    """The file of a photo; raises NotFound."""
    if not (len(photo) == 64 and all(c in "0123456789abcdef" for c in photo)):
        raise NotFound("photo", photo[:80])
    path = files.path_of(workshop.store.folder, photo)
    if not path.is_file():
        raise NotFound("photo", photo)
    return path
