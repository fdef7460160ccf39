"""PDF through ReportLab: vector, true to scale, identical bytes for identical sheets."""

from __future__ import annotations

import io
import math
from functools import cache
from importlib.resources import files
from typing import Any

from reportlab import rl_config
from reportlab.lib.colors import Color, HexColor
from reportlab.lib.units import mm
from reportlab.lib.utils import ImageReader
from reportlab.pdfbase import pdfmetrics
from reportlab.pdfbase.ttfonts import TTFont
from reportlab.pdfgen.canvas import Canvas

from deepsection.core.drawing import PENS, Backdrop, Drawing, Region, Ring, Stroke, Text, explode, path
from deepsection.core.drawing.pictures import Picture
from deepsection.core.geometry import arc_of
from deepsection.core.sheets import SheetDrawing

from ._backdrops import backdrop_marks
from ._ink import fill_colour, grey
from ._lines import family_lines

# Streams stay binary: written as letters they are a quarter larger, and take as long as all the rest.
rl_config.useA85 = 0

CAP_HEIGHT = 0.698
"""Height of capitals over the font size: a 2.5 mm letter is 2.5 mm high. Source: the font's OS/2 table."""


@cache
def register_fonts() -> None:
    """Make the shipped faces known to ReportLab, once."""
    for name in ("sans", "bold", "mono"):
        with (files("deepsection") / "fonts" / f"{name}.ttf").open("rb") as file:
            pdfmetrics.registerFont(TTFont(f"plex-{name}", io.BytesIO(file.read())))


def write_pdf(sheet: SheetDrawing) -> bytes:
    """One page of the size of the paper."""
    register_fonts()
    out = io.BytesIO()
    canvas = Canvas(out, pagesize=(sheet.paper.width * mm, sheet.paper.height * mm), invariant=1, pageCompression=1)
    canvas.setTitle(sheet.name)
    canvas.setLineCap(1)
    canvas.setLineJoin(1)
    for held in sheet.placed:
        page = _Page(canvas, held.scale, held.at_x, held.at_y)
        page.draw(explode(held.drawing))
        for under in held.drawing.backdrops:
            page.lay(under, sheet.picture(under))
    _Page(canvas, 1.0, 0.0, 0.0).draw(explode(sheet.own))
    canvas.showPage()
    canvas.save()
    return out.getvalue()


class _Page:
    """Draws marks at a place and scale of the page; all lengths leave here in points."""

    def __init__(self, canvas: Canvas, scale: float, at_x: float, at_y: float) -> None:
        self._canvas, self._scale, self._at = canvas, scale, (at_x, at_y)
        self._strength = 1.0

    def _colour(self, name: str) -> Any:
        """A colour, as strong as what is drawn with it."""
        full = HexColor(name)
        red, green, blue = (1.0 - (1.0 - value) * self._strength for value in (full.red, full.green, full.blue))
        return Color(red, green, blue)

    def _point(self, x: float, y: float) -> tuple[float, float]:
        return (self._at[0] + x / self._scale) * mm, (self._at[1] + y / self._scale) * mm

    def draw(self, drawing: Drawing) -> None:
        for mark in drawing.marks:
            if isinstance(mark, Region):
                self._region(mark, drawing)
            elif isinstance(mark, Stroke):
                self._stroke(mark)
            elif isinstance(mark, Text):
                self._text(mark)

    def lay(self, held: Backdrop, picture: Picture) -> None:
        """A page of a file: its ink darkens what is there, as if it lay under it."""
        canvas = self._canvas
        canvas.saveState()
        if picture.image is None:
            marks = tuple(backdrop_marks(held, picture, self._scale))
            self._strength = held.strength
            self.draw(Drawing(held.id, held.name, "plan", self._scale, marks))
            self._strength = 1.0
        else:
            canvas.clipPath(self._path((path(*held.corners),), True), stroke=0, fill=0)
            canvas.setFillAlpha(held.strength)
            (ox, oy), (ax, ay), (bx, by) = (self._point(*held.at(x, y)) for x, y in ((0, 0), (1, 0), (0, 1)))
            canvas.transform(ax - ox, ay - oy, bx - ox, by - oy, ox, oy)
            canvas.drawImage(ImageReader(io.BytesIO(picture.image)), 0, 0, picture.width, picture.height, mask="auto")
        canvas.restoreState()

    def _pen(self, name: str) -> None:
        pen = PENS[name]
        self._canvas.setStrokeColor(self._colour(grey(pen.grey)))
        self._canvas.setLineWidth(pen.width * mm)
        self._canvas.setDash([dash * mm for dash in pen.dashes] if pen.dashes else [])

    def _path(self, rings: tuple[Ring, ...], closed: bool) -> Any:
        path = self._canvas.beginPath()
        for ring in rings:
            path.moveTo(*self._point(ring[0][0], ring[0][1]))
            following = [*ring[1:], ring[0]] if closed else ring[1:]
            for (x0, y0, bulge), (x1, y1, _) in zip(ring, following):
                if bulge:
                    self._arc(path, x0, y0, x1, y1, bulge)
                else:
                    path.lineTo(*self._point(x1, y1))
            if closed:
                path.close()
        return path

    def _arc(self, path: Any, x0: float, y0: float, x1: float, y1: float, bulge: float) -> None:
        cx, cy, radius, start, sweep = arc_of(x0, y0, x1, y1, bulge)
        pieces = max(1, math.ceil(abs(sweep) / (math.pi / 4)))
        step = sweep / pieces
        pull = 4 / 3 * math.tan(step / 4) * radius
        for index in range(pieces):
            a, b = start + index * step, start + (index + 1) * step
            p = (cx + radius * math.cos(a) - pull * math.sin(a), cy + radius * math.sin(a) + pull * math.cos(a))
            q = (cx + radius * math.cos(b) + pull * math.sin(b), cy + radius * math.sin(b) - pull * math.cos(b))
            end = (cx + radius * math.cos(b), cy + radius * math.sin(b))
            path.curveTo(*self._point(*p), *self._point(*q), *self._point(*end))

    def _region(self, mark: Region, drawing: Drawing) -> None:
        canvas = self._canvas
        path = self._path(mark.rings, True)
        if mark.fill:
            canvas.setFillColor(self._colour(fill_colour(mark.fill)))
            canvas.drawPath(path, stroke=0, fill=1, fillMode=0)
        if mark.hatch is not None:
            canvas.saveState()
            canvas.clipPath(self._path(mark.rings, True), stroke=0, fill=0, fillMode=0)
            self._pen("hatch")
            xs = [x for x, _, _ in mark.rings[0]]
            ys = [y for _, y, _ in mark.rings[0]]
            for family in drawing.hatches[mark.hatch].families:
                dashes = [abs(dash) / self._scale * mm for dash in family.dashes]
                for x0, y0, x1, y1, phase in family_lines(family, (min(xs), min(ys), max(xs), max(ys))):
                    if dashes:
                        canvas.setDash(dashes, round(phase / self._scale * mm, 4))
                    canvas.line(*self._point(x0, y0), *self._point(x1, y1))
                canvas.setDash([])
            canvas.restoreState()
        if mark.pen:
            self._pen(mark.pen)
            canvas.drawPath(self._path(mark.rings, True), stroke=1, fill=0)

    def _stroke(self, mark: Stroke) -> None:
        self._pen(mark.pen)
        self._canvas.drawPath(self._path((mark.path,), mark.closed), stroke=1, fill=0)

    def _text(self, mark: Text) -> None:
        if not mark.text:
            return
        canvas, font = self._canvas, f"plex-{mark.face}"
        size = mark.size / CAP_HEIGHT * mm
        width = pdfmetrics.stringWidth(mark.text, font, size)
        x = {"left": 0.0, "centre": -width / 2, "right": -width}[mark.align]
        y = {"bottom": 0.0, "middle": -mark.size * mm / 2, "top": -mark.size * mm}[mark.valign]
        canvas.saveState()
        canvas.translate(*self._point(mark.x, mark.y))
        canvas.rotate(mark.angle)
        canvas.setFillColor(self._colour("#000000"))
        canvas.setFont(font, size)
        canvas.drawString(x, y, mark.text)
        canvas.restoreState()
