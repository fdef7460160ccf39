"""SVG in paper millimetres; hatches as patterns, text as text."""

from __future__ import annotations

import base64
import io
import math
from collections.abc import Iterator
from functools import lru_cache
from importlib.resources import files
from xml.sax.saxutils import escape

from fontTools.subset import Options, Subsetter
from fontTools.ttLib import TTFont

from deepsection.core.catalog import HatchFamily
from deepsection.core.drawing import PENS, Backdrop, Drawing, PlacedHatch, Region, Ring, Stroke, Text, explode, path
from deepsection.core.drawing.pictures import Picture
from deepsection.core.geometry import arc_of
from deepsection.core.sheets import SheetDrawing

from ._backdrops import backdrop_marks
from ._ink import fill_colour, grey
from .pdf import CAP_HEIGHT

MOST_ROWS = 12
_FACES = {
    "sans": "font-family=\"'IBM Plex Sans', sans-serif\"",
    "bold": 'font-family="\'IBM Plex Sans\', sans-serif" font-weight="600"',
    "mono": "font-family=\"'IBM Plex Mono', monospace\"",
}


def write_svg(sheet: SheetDrawing) -> bytes:
    """The sheet as SVG, 1 user unit = 1 mm on paper."""
    width, height = sheet.paper.width, sheet.paper.height
    body: list[str] = []
    for index, held in enumerate(sheet.placed):
        place = _Place(held.scale, held.at_x, height - held.at_y, f"v{index}")
        body.append(f'<g id="{escape(held.id)}">')
        body += place.draw(explode(held.drawing))
        for number, under in enumerate(held.drawing.backdrops):
            body += place.lay(under, sheet.picture(under), f"b{index}-{number}")
        body.append("</g>")
    body += _Place(1.0, 0.0, height, "s").draw(explode(sheet.own))
    head = (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{_n(width)}mm" height="{_n(height)}mm" '
        f'viewBox="0 0 {_n(width)} {_n(height)}"><title>{escape(sheet.name)}</title>'
        f"<style>{_faces(sheet)}</style>"
        f'<rect width="{_n(width)}" height="{_n(height)}" fill="#ffffff"/>'
    )
    return (head + "\n".join(body) + "</svg>").encode()


def _faces(sheet: SheetDrawing) -> str:
    """The glyphs that the sheet uses, as embedded fonts: it reads the same where the fonts are not installed."""
    used: dict[str, set[str]] = {}
    for drawing in (sheet.own, *(held.drawing for held in sheet.placed)):
        for mark in explode(drawing).marks:
            if isinstance(mark, Text):
                used.setdefault(mark.face, set()).update(mark.text)
    for _, picture in sheet.pictures:
        used.setdefault("sans", set()).update(*(word.text for word in picture.words))
    return "".join(embedded_face(face, "".join(sorted(glyphs))) for face, glyphs in sorted(used.items()))


@lru_cache(maxsize=64)
def embedded_face(face: str, glyphs: str) -> str:
    """A CSS font face with these glyphs of a shipped font."""
    with (files("deepsection") / "fonts" / f"{face}.ttf").open("rb") as file:
        font = TTFont(io.BytesIO(file.read()), recalcTimestamp=False)
    options = Options()
    options.hinting, options.flavor = False, "woff2"
    subsetter = Subsetter(options)
    subsetter.populate(text=glyphs)
    subsetter.subset(font)
    out = io.BytesIO()
    font.flavor = "woff2"
    font.save(out)
    name, weight = {"sans": ("IBM Plex Sans", 400), "bold": ("IBM Plex Sans", 600), "mono": ("IBM Plex Mono", 400)}[
        face
    ]
    data = base64.b64encode(out.getvalue()).decode()
    return f"@font-face{{font-family:'{name}';font-weight:{weight};src:url(data:font/woff2;base64,{data})}}"


def _n(value: float) -> str:
    return f"{value:.4f}".rstrip("0").rstrip(".") if abs(value) > 5e-5 else "0"


class _Place:
    def __init__(self, scale: float, x: float, y: float, prefix: str) -> None:
        self._scale, self._x, self._y, self._prefix = scale, x, y, prefix

    def _xy(self, x: float, y: float) -> tuple[float, float]:
        return self._x + x / self._scale, self._y - y / self._scale

    def _p(self, x: float, y: float) -> str:
        right, down = self._xy(x, y)
        return f"{_n(right)} {_n(down)}"

    def draw(self, drawing: Drawing) -> Iterator[str]:
        used = {mark.hatch for mark in drawing.marks if isinstance(mark, Region) and mark.hatch is not None}
        if used:
            yield "<defs>"
            for index in sorted(used):
                yield from self._patterns(index, drawing.hatches[index])
            yield "</defs>"
        for mark in drawing.marks:
            if isinstance(mark, Region):
                yield from self._region(mark, drawing)
            elif isinstance(mark, Stroke):
                yield f'<path d="{self._d((mark.path,), mark.closed)}" fill="none" {self._pen(mark.pen)}/>'
            elif isinstance(mark, Text) and mark.text:
                yield self._text(mark)

    def lay(self, held: Backdrop, picture: Picture, name: str) -> Iterator[str]:
        """A page of a file: its ink darkens what is there, as if it lay under it."""
        yield f'<g opacity="{_n(held.strength)}">'
        if picture.image is None:
            marks = tuple(backdrop_marks(held, picture, self._scale))
            yield from self.draw(Drawing(held.id, held.name, "plan", self._scale, marks))
        else:
            yield f'<clipPath id="{name}"><path d="{self._d((path(*held.corners),), True)}"/></clipPath>'
            (ox, oy), (ax, ay), (bx, by) = (self._xy(*held.at(x, y)) for x, y in ((0, 0), (1, 0), (0, -1)))
            tall, data = picture.height, base64.b64encode(picture.image).decode()
            turned = " ".join(f"{value:.8g}" for value in (ax - ox, ay - oy, bx - ox, by - oy, ox, oy))
            yield (
                f'<g clip-path="url(#{name})"><image transform="matrix({turned})" y="{_n(-tall)}" '
                f'width="{_n(picture.width)}" height="{_n(tall)}" preserveAspectRatio="none" '
                f'href="data:image/png;base64,{data}"/></g>'
            )
        yield "</g>"

    def _d(self, rings: tuple[Ring, ...], closed: bool) -> str:
        pieces = []
        for ring in rings:
            pieces.append(f"M{self._p(ring[0][0], ring[0][1])}")
            following = [*ring[1:], ring[0]] if closed else ring[1:]
            for (x0, y0, bulge), (x1, y1, _) in zip(ring, following):
                if bulge:
                    radius = arc_of(x0, y0, x1, y1, bulge)[2] / self._scale
                    large = 1 if abs(bulge) > 1 else 0
                    pieces.append(f"A{_n(radius)} {_n(radius)} 0 {large} {0 if bulge > 0 else 1} {self._p(x1, y1)}")
                else:
                    pieces.append(f"L{self._p(x1, y1)}")
            if closed:
                pieces.append("Z")
        return "".join(pieces)

    def _pen(self, name: str) -> str:
        pen = PENS[name]
        dash = f' stroke-dasharray="{" ".join(_n(d) for d in pen.dashes)}"' if pen.dashes else ""
        ends = 'stroke-linecap="round" stroke-linejoin="round"'
        return f'stroke="{grey(pen.grey)}" stroke-width="{_n(pen.width)}" {ends}{dash}'

    def _region(self, mark: Region, drawing: Drawing) -> Iterator[str]:
        d = self._d(mark.rings, True)
        if mark.fill:
            yield f'<path d="{d}" fill="{fill_colour(mark.fill)}" fill-rule="evenodd"/>'
        if mark.hatch is not None:
            for row in range(len(drawing.hatches[mark.hatch].families)):
                yield f'<path d="{d}" fill="url(#{self._prefix}-{mark.hatch}-{row})" fill-rule="evenodd"/>'
        if mark.pen:
            yield f'<path d="{d}" fill="none" {self._pen(mark.pen)}/>'

    def _patterns(self, index: int, hatch: PlacedHatch) -> Iterator[str]:
        pen = PENS["hatch"]
        for row, family in enumerate(hatch.families):
            width, height, lines = tile(family)
            k = 1 / self._scale
            x, y = self._x + family.base[0] * k, self._y - family.base[1] * k
            up = abs(family.offset[1]) / 2 * k
            place = f"translate({_n(x)} {_n(y)}) rotate({_n(-family.angle)}) translate(0 {_n(up)})"
            body = "".join(f"M{_n(a * k)} {_n(-v * k)}H{_n(b * k)}" for a, b, v in lines)
            yield (
                f'<pattern id="{self._prefix}-{index}-{row}" patternUnits="userSpaceOnUse" width="{_n(width * k)}" '
                f'height="{_n(height * k)}" patternTransform="{place}">'
                f'<path d="{body}" transform="translate(0 {_n(height * k)})" stroke="{grey(pen.grey)}" '
                f'stroke-width="{_n(pen.width)}"/></pattern>'
            )

    def _text(self, mark: Text) -> str:
        anchor = {"left": "start", "centre": "middle", "right": "end"}[mark.align]
        drop = {"bottom": 0.0, "middle": mark.size / 2, "top": mark.size}[mark.valign]
        place = f"translate({self._p(mark.x, mark.y)}) rotate({_n(-mark.angle)})"
        return (
            f'<text transform="{place}" y="{_n(drop)}" text-anchor="{anchor}" '
            f'font-size="{_n(mark.size / CAP_HEIGHT)}" {_FACES[mark.face]}>{escape(mark.text)}</text>'
        )


def tile(family: HatchFamily) -> tuple[float, float, list[tuple[float, float, float]]]:
    """Width, height and lines (start, end, height) of the tile that repeats a family along its direction.

    Rows shift along; the tile holds as many as bring the shift back to a whole period.
    """
    step, across = family.offset[0], abs(family.offset[1])
    shift = step if family.offset[1] > 0 else -step
    if not family.dashes:
        return 1000.0, across, [(0.0, 1000.0, across / 2)]
    period = sum(abs(dash) for dash in family.dashes)
    rows = next(
        (n for n in range(1, MOST_ROWS + 1) if math.remainder(n * shift, period) ** 2 < (0.02 * period) ** 2), MOST_ROWS
    )
    lines = []
    for row in range(rows):
        at = (row * shift) % period
        for dash in family.dashes:
            if dash > 0:
                lines += [
                    (at, at + dash, (row + 0.5) * across),
                    (at - period, at + dash - period, (row + 0.5) * across),
                ]
            at += abs(dash)
    return period, rows * across, lines
