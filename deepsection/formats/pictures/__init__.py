"""Files that lie under views: what kind of file it is, how large its pages are, and what one of them shows.

Pages of PDF, SVG, PNG and JPEG count in mm of paper; a DXF counts in units of its own.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from functools import lru_cache
from hashlib import sha256

from deepsection.core.drawing.pictures import Picture
from deepsection.core.errors import BadInput

from .dxf import about_dxf, dxf_page
from .image import about_image, image_page
from .pages import About
from .pdf import about_pdf, pdf_page
from .svg import svg_as_pdf

MOST_BYTES = 40_000_000
"""Larger files are refused."""


@dataclass(frozen=True, slots=True)
class _Sort:
    """A sort of file: what it is called, and how it is read."""

    media: str
    about: Callable[[bytes], About]
    page: Callable[[bytes, int], Picture]


_PDF = _Sort("application/pdf", about_pdf, pdf_page)
_SVG = _Sort(
    "image/svg+xml",
    lambda data: about_pdf(svg_as_pdf(data)),
    lambda data, page: pdf_page(svg_as_pdf(data), page),
)
_PNG = _Sort("image/png", about_image, image_page)
_JPEG = _Sort("image/jpeg", about_image, image_page)
_DXF = _Sort("image/vnd.dxf", about_dxf, dxf_page)


def _sort_of(data: bytes) -> _Sort:
    """What a file is, by what is in it. Raises: BadInput."""
    if not data.strip():
        raise BadInput("this file is empty", field="file")
    if len(data) > MOST_BYTES:
        message = f"this file has {len(data) / 1e6:,.0f} MB; up to {MOST_BYTES / 1e6:,.0f} MB can lie under a view"
        raise BadInput(message, field="file", value=len(data), limit=MOST_BYTES)
    if b"%PDF-" in data[:1024]:
        return _PDF
    if data.startswith(b"\x89PNG"):
        return _PNG
    if data.startswith(b"\xff\xd8\xff"):
        return _JPEG
    if b"<svg" in data[:20_000]:
        return _SVG
    if b"SECTION" in data[:100_000]:
        return _DXF
    raise BadInput("this is neither DXF, PDF, SVG, PNG nor JPEG", field="file")


def media_of(data: bytes) -> str:
    """The media type of a file. Raises: BadInput for what cannot lie under a view."""
    return _sort_of(data).media


def about_file(data: bytes) -> About:
    """The pages of a file, and how it counts. Raises: BadInput for what is none, broken, or too much."""
    return _sort_of(data).about(data)


def picture_of(data: bytes, page: int) -> Picture:
    """What a page (from 0) shows; pages that are asked for again are remembered. Raises: BadInput."""
    return _remembered(_Held(data), page)


class _Held:
    """A file as a key: by its digest."""

    def __init__(self, data: bytes) -> None:
        self.data, self._digest = data, sha256(data).digest()

    def __hash__(self) -> int:
        return hash(self._digest)

    def __eq__(self, other: object) -> bool:
        return isinstance(other, _Held) and other._digest == self._digest


@lru_cache(maxsize=6)
def _remembered(held: _Held, page: int) -> Picture:
    return _sort_of(held.data).page(held.data, page)


__all__ = ["MOST_BYTES", "About", "about_file", "media_of", "picture_of"]
