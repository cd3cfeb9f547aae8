"""Photos out of other hands: read by a well-kept library, turned upright, and written anew without
what their camera noted, the place above all."""

import io

from PIL import Image, ImageOps, UnidentifiedImageError

__all__ = ["is_picture", "reduced", "rewritten"]

_MOST_PIXELS, _MOST_SIDE, _QUALITY = 50_000_000, 2400, 85
_PRINTED_SIDE, _PRINTED_QUALITY = 1000, 75  # 12 cm wide on paper at some 210 dots an inch
_KINDS = {"JPEG": "image/jpeg", "PNG": "image/png"}
_BROKEN = (UnidentifiedImageError, Image.DecompressionBombError, OSError, SyntaxError, ValueError)


def is_picture(data: bytes) -> bool:
    """Whether it says of itself that it is a JPEG or PNG of a size that is read; its points are not
    looked at."""
    try:
        with Image.open(io.BytesIO(data), formats=tuple(_KINDS)) as image:
            return image.width * image.height <= _MOST_PIXELS
    except _BROKEN:
        return False


def reduced(data: bytes) -> bytes:
    """A picture as it was kept, as a JPEG small enough to stand in a page."""
    into = io.BytesIO()
    with Image.open(io.BytesIO(data), formats=tuple(_KINDS)) as image:
        image.thumbnail((_PRINTED_SIDE, _PRINTED_SIDE))
        image.save(into, "JPEG", quality=_PRINTED_QUALITY)
    return into.getvalue()


def rewritten(data: bytes) -> tuple[str, bytes] | None:
    """The kind and the bytes of a JPEG or PNG as it is kept; None where it is no such picture."""
    try:
        with Image.open(io.BytesIO(data), formats=tuple(_KINDS)) as image:
            if image.width * image.height > _MOST_PIXELS:
                return None
            kind = str(image.format)
            upright = ImageOps.exif_transpose(image).convert("RGB")
    except _BROKEN:
        return None
    upright.thumbnail((_MOST_SIDE, _MOST_SIDE))
    bare = Image.new("RGB", upright.size)
    bare.paste(upright)
    into = io.BytesIO()
    bare.save(into, kind, **({"quality": _QUALITY} if kind == "JPEG" else {"optimize": True}))
    return _KINDS[kind], into.getvalue()
