"""Pages of PDF files: as images, with the lines on them to snap to."""

from __future__ import annotations

import ctypes
import math
from collections.abc import Iterator
from contextlib import contextmanager
from typing import Any

import pypdfium2
import pypdfium2.raw as pdfium

from deepsection.core.drawing import Ring
from deepsection.core.drawing.pictures import Picture
from deepsection.core.errors import BadInput

from .image import as_png
from .pages import FINEST, MM_PER_POINT, MOST_PIXELS, About

MOST_LINES = 100_000
"""So many lines of a page can be snapped to."""
MOST_PAGES = 500
DEEPEST = 12
"""Forms within forms are followed so far."""
CURVE = 8
"""A curve is followed in so many straight pieces."""

Matrix = tuple[float, float, float, float, float, float]
Piece = tuple[tuple[float, float], ...]


def about_pdf(data: bytes) -> About:
    """The sizes of the pages of a PDF (mm). Raises: BadInput."""
    with _opened(data) as document:
        if not 1 <= len(document) <= MOST_PAGES:
            message = f"this PDF has {len(document)} pages; it needs one, and up to {MOST_PAGES} are taken"
            raise BadInput(message, field="file", value=len(document), limit=MOST_PAGES)
        pages = tuple(_size(document, number) for number in range(len(document)))
    return About(pages)


def pdf_page(data: bytes, number: int) -> Picture:
    """A page as an image, and its lines. Raises: BadInput."""
    with _opened(data) as document:
        if number >= len(document):
            raise BadInput(f"this PDF has {len(document)} pages", field="page", value=number + 1, limit=len(document))
        width, height = _size(document, number)
        page = document[number]
        area = width * height / MM_PER_POINT**2
        scale = min(FINEST / 72.0, math.sqrt(MOST_PIXELS / area))
        image = as_png(page.render(scale=scale).to_pil())
        lines, all_of_them = _lines(page, width, height)
    notes = () if all_of_them else (f"only the first {MOST_LINES:,} lines of this page are snapped to",)
    return Picture(width, height, lines=lines, image=image, notes=notes)


@contextmanager
def _opened(data: bytes) -> Iterator[Any]:
    try:
        document = pypdfium2.PdfDocument(data)
    except pypdfium2.PdfiumError as error:
        words = "is locked by a password" if "password" in str(error).lower() else "is cut short or broken"
        raise BadInput(f"this PDF {words}", field="file") from error
    try:
        yield document
    except pypdfium2.PdfiumError as error:
        raise BadInput("a page of this PDF is broken", field="file") from error
    finally:
        document.close()


def _size(document: Any, number: int) -> tuple[float, float]:
    """Width and height of a page as it is read (mm). Raises: BadInput for a page without any."""
    width, height = (round(value * MM_PER_POINT, 4) for value in document.get_page_size(number))
    if not (1.0 <= width <= 20_000.0 and 1.0 <= height <= 20_000.0):
        raise BadInput(f"page {number + 1} of this PDF is {width:g} by {height:g} mm large", field="file")
    return width, height


def _lines(page: Any, width: float, height: float) -> tuple[tuple[Ring, ...], bool]:
    """The lines of a page (mm from its lower left corner), and whether these are all."""
    left, bottom, right, top = page.get_cropbox()
    turn = page.get_rotation() % 360
    upright: Matrix = {
        0: (1.0, 0.0, 0.0, 1.0, -left, -bottom),
        90: (0.0, -1.0, 1.0, 0.0, -bottom, right),
        180: (-1.0, 0.0, 0.0, -1.0, right, top),
        270: (0.0, 1.0, -1.0, 0.0, top, -left),
    }[turn]
    found: list[Ring] = []
    for piece in _pieces(page.raw, upright, 0):
        points = tuple((x * MM_PER_POINT, y * MM_PER_POINT, 0.0) for x, y in piece)
        if all(-1.0 <= x <= width + 1.0 and -1.0 <= y <= height + 1.0 for x, y, _ in points):
            if len(found) >= MOST_LINES:
                return tuple(found), False
            found.append(points)
    return tuple(found), True


def _pieces(holder: Any, above: Matrix, depth: int) -> Iterator[Piece]:
    """The paths on a page, or in a form on it, as chains of points."""
    count, get = (
        (pdfium.FPDFPage_CountObjects, pdfium.FPDFPage_GetObject)
        if depth == 0
        else (pdfium.FPDFFormObj_CountObjects, pdfium.FPDFFormObj_GetObject)
    )
    for index in range(count(holder)):
        held = get(holder, index)
        sort = pdfium.FPDFPageObj_GetType(held)
        if sort == pdfium.FPDF_PAGEOBJ_PATH:
            yield from _path(held, _after(_matrix(held), above))
        elif sort == pdfium.FPDF_PAGEOBJ_FORM and depth < DEEPEST:
            yield from _pieces(held, _after(_matrix(held), above), depth + 1)


def _matrix(held: Any) -> Matrix:
    found = pdfium.FS_MATRIX()
    if not pdfium.FPDFPageObj_GetMatrix(held, found):
        return 1.0, 0.0, 0.0, 1.0, 0.0, 0.0
    return found.a, found.b, found.c, found.d, found.e, found.f


def _after(first: Matrix, then: Matrix) -> Matrix:
    """One map, then another."""
    a, b, c, d, e, f = first
    p, q, r, s, t, u = then
    return a * p + b * r, a * q + b * s, c * p + d * r, c * q + d * s, e * p + f * r + t, e * q + f * s + u


def _path(held: Any, place: Matrix) -> Iterator[Piece]:
    a, b, c, d, e, f = place
    chain: list[tuple[float, float]] = []
    pull: list[tuple[float, float]] = []
    for index in range(pdfium.FPDFPath_CountSegments(held)):
        segment = pdfium.FPDFPath_GetPathSegment(held, index)
        x, y = ctypes.c_float(), ctypes.c_float()
        pdfium.FPDFPathSegment_GetPoint(segment, x, y)
        point = a * x.value + c * y.value + e, b * x.value + d * y.value + f
        sort = pdfium.FPDFPathSegment_GetType(segment)
        if sort == pdfium.FPDF_SEGMENT_MOVETO:
            if len(chain) > 1:
                yield tuple(chain)
            chain, pull = [point], []
        elif sort == pdfium.FPDF_SEGMENT_BEZIERTO:
            pull.append(point)
            if len(pull) == 3 and chain:
                chain += _curve(chain[-1], *pull)
                pull = []
        else:
            chain.append(point)
        if pdfium.FPDFPathSegment_GetClose(segment) and len(chain) > 1 and chain[0] != chain[-1]:
            chain.append(chain[0])
    if len(chain) > 1:
        yield tuple(chain)


def _curve(p0: tuple[float, float], *pulled: tuple[float, float]) -> list[tuple[float, float]]:
    p1, p2, p3 = pulled
    points = []
    for step in range(1, CURVE + 1):
        t = step / CURVE
        s = 1.0 - t
        weights = s * s * s, 3 * s * s * t, 3 * s * t * t, t * t * t
        points.append(
            (
                sum(w * p[0] for w, p in zip(weights, (p0, p1, p2, p3))),
                sum(w * p[1] for w, p in zip(weights, (p0, p1, p2, p3))),
            )
        )
    return points
