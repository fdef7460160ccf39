"""PNG and JPEG as pages: as large as their resolution says."""

from __future__ import annotations

import io
import math

import numpy as np
from PIL import Image, ImageChops, ImageOps

from deepsection.core.drawing.pictures import Picture
from deepsection.core.errors import BadInput

from .pages import MOST_PIXELS, About

USUAL_DPI = 96.0
"""Of images that do not say it. Source: CSS Values and Units, 5.2: 1 px = 1/96 in."""
MOST_READ = 80_000_000
"""Images of more pixels are not unpacked."""


def about_image(data: bytes) -> About:
    """The size of an image on paper (mm). Raises: BadInput."""
    width, height, dpi = _size(opened_image(data))
    return About(((width / dpi[0] * 25.4, height / dpi[1] * 25.4),))


def image_page(data: bytes, page: int) -> Picture:
    """The image, of a resolution that a screen and a printer can use. Raises: BadInput."""
    held = opened_image(data)
    width, height, dpi = _size(held)
    try:
        image = ImageOps.exif_transpose(held)
        shown = as_png(image)
    except Exception as error:  # What a broken file can do to a reader has no end.
        raise BadInput("this image is cut short or broken", field="file") from error
    return Picture(width / dpi[0] * 25.4, height / dpi[1] * 25.4, image=shown)


def as_png(image: Image.Image) -> bytes:
    """The ink of an image on white, no larger than is shown."""
    if image.mode in ("RGBA", "LA", "PA") or "transparency" in image.info:
        clear = image.convert("RGBA")
        ground = Image.new("RGBA", clear.size, "white")
        image = Image.alpha_composite(ground, clear)
    image = image.convert("RGB")
    many = image.width * image.height
    if many > MOST_PIXELS:
        by = math.sqrt(MOST_PIXELS / many)
        image = image.resize((max(1, int(image.width * by)), max(1, int(image.height * by))))
    out = io.BytesIO()
    _ink(image).save(out, format="PNG", compress_level=1)
    return out.getvalue()


def _ink(image: Image.Image) -> Image.Image:
    """What darkens white paper of an image, and how much: on white it looks as it did, and white is clear."""
    red, green, blue = image.split()
    clear = ImageChops.darker(ImageChops.darker(red, green), blue)
    alpha = ImageChops.invert(clear)
    black = Image.new("L", image.size, 0)
    lightest = ImageChops.lighter(ImageChops.lighter(red, green), blue)
    if ImageChops.difference(lightest, clear).getbbox() is None:
        return Image.merge("LA", (black, alpha))
    # Most of a page is white or grey: only what has a colour is worked out.
    least, most = np.asarray(clear), np.asarray(lightest)
    places = np.nonzero(least != most)
    part = 255.0 - least[places].astype(np.float32)
    own = []
    for channel in (red, green, blue):
        shown = np.zeros(least.shape, dtype=np.uint8)
        over = np.asarray(channel)[places].astype(np.float32) - least[places]
        shown[places] = np.round(over * 255.0 / part).astype(np.uint8)
        own.append(Image.fromarray(shown))
    return Image.merge("RGBA", (*own, alpha))


def opened_image(data: bytes) -> Image.Image:
    """An image that is not too large, unpacked when it is asked for its pixels. Raises: BadInput."""
    try:
        image = Image.open(io.BytesIO(data), formats=("PNG", "JPEG"))
        # Some of what is asked of an image before it is drawn stands at its end.
        image.getexif()
    except Image.DecompressionBombError as error:
        raise BadInput("this image has too many pixels", field="file", limit=MOST_READ) from error
    except Exception as error:
        raise BadInput("this image is cut short or broken", field="file") from error
    if image.width * image.height > MOST_READ:
        message = f"this image has {image.width * image.height / 1e6:,.0f} million pixels; up to "
        raise BadInput(f"{message}{MOST_READ / 1e6:,.0f} million are shown", field="file", limit=MOST_READ)
    return image


def _size(image: Image.Image) -> tuple[int, int, tuple[float, float]]:
    """Width and height as it is looked at (px), and dots per inch along them."""
    stated = image.info.get("dpi", (USUAL_DPI, USUAL_DPI))
    dpi = [float(value) if 1.0 < float(value) < 10_000.0 else USUAL_DPI for value in stated]
    if image.getexif().get(0x0112, 1) >= 5:
        return image.height, image.width, (dpi[1], dpi[0])
    return image.width, image.height, (dpi[0], dpi[1])
