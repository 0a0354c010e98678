"""Photos as data addresses: looked at by their content, whatever they call themselves."""

from __future__ import annotations

import re
from base64 import b64decode
from io import BytesIO

from PIL import Image, ImageOps

from piecing.errors import PhotoImpossible

__all__ = ["is_photo", "jpeg_of"]

_ADDRESS = re.compile(r"data:image/(?:jpeg|png|webp);base64,[A-Za-z0-9+/]+=*")
_BROKEN = (OSError, ValueError, SyntaxError, Image.DecompressionBombError)
_MOST_PIXELS = 40_000_000


def _open(address: str) -> Image.Image:
    return Image.open(BytesIO(b64decode(address.split(",", 1)[1])), formats=("JPEG", "PNG", "WEBP"))


def is_photo(address: str, longest: int, widest: int) -> bool:
    """Whether it can be shown, has so many characters at most and so many pixels a side."""
    if len(address) > longest or not _ADDRESS.fullmatch(address):
        return False
    try:
        with _open(address) as picture:
            small = max(picture.size) <= widest
            picture.verify()
    except _BROKEN:
        return False
    return small


def jpeg_of(address: str, longest: int, widest: int) -> tuple[bytes, int, int]:
    """The picture anew as a JPEG of so many pixels a side at most, and its size. What a camera wrote beside it, such as where it was
    taken, stays behind. Raises ``PhotoImpossible``."""
    if len(address) > longest:
        raise PhotoImpossible(
            "This photo is larger than {most} MB. Choose a smaller one.", most=f"{longest * 3 / 4e6:.1f}"
        )
    if not _ADDRESS.fullmatch(address):
        raise PhotoImpossible("This is no photo that can be shown. JPEG, PNG and WebP can.")
    try:
        with _open(address) as picture:
            if picture.width * picture.height > _MOST_PIXELS:
                raise PhotoImpossible("This photo has more than 40 million points. Choose a smaller one.")
            upright = ImageOps.exif_transpose(picture).convert("RGB")
    except _BROKEN:
        raise PhotoImpossible("This is no photo that can be shown. JPEG, PNG and WebP can.") from None
    upright.thumbnail((widest, widest))
    out = BytesIO()
    upright.save(out, "JPEG", quality=82)
    return out.getvalue(), upright.width, upright.height
