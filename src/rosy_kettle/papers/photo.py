"""A photo made small: decoded from few formats within limits, and written anew without anything but its pixels."""

from __future__ import annotations

import io
import warnings

from PIL import Image, ImageOps, UnidentifiedImageError

from rosy_kettle.core.errors import InputError

__all__ = ["smaller_photo"]

FORMATS = ("JPEG", "PNG", "WEBP")
MOST_PIXELS = 60_000_000  # no telephone takes larger pictures; looked at before a pixel is decoded
SIDE_PX = 1280
QUALITY = 82


def smaller_photo(data: bytes) -> bytes:
    """Return a photo as a JPEG of at most 1280 px a side, upright, without metadata or comments.

    Raises
    ------
    InputError
        If it is no JPEG, PNG or WebP, is broken, or holds too many pixels.
    """
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("ignore", Image.DecompressionBombWarning)  # our own limit is looked at next
            image = Image.open(io.BytesIO(data), formats=FORMATS)
        with image:
            if image.width * image.height > MOST_PIXELS:
                raise InputError("That photo has more than 60 million pixels; send a smaller one.", quantity="photo")
            image.draft("RGB", (SIDE_PX, SIDE_PX))
            image.thumbnail((SIDE_PX, SIDE_PX))  # small before it is turned, so that little memory is used
            upright = ImageOps.exif_transpose(image).convert("RGB")
    except (UnidentifiedImageError, OSError, ValueError, SyntaxError, Image.DecompressionBombError) as error:
        if isinstance(error, InputError):
            raise
        raise InputError("That file is no photo; choose a JPEG, PNG or WebP.", quantity="photo") from error
    upright.info.clear()
    buffer = io.BytesIO()
    upright.save(buffer, "JPEG", quality=QUALITY)
    return buffer.getvalue()
