"""DXF through ezdxf: views at real size in model space, the sheet in paper space with viewports.

Inches for projects in feet and inches, millimetres otherwise; layers by role; real HATCH and
DIMENSION entities; text as text; windows and doors as blocks. Metadata is fixed, so that equal sheets give equal bytes.
"""

from __future__ import annotations

import io
import math
from collections import defaultdict
from dataclasses import replace
from typing import Any

import ezdxf
from ezdxf import units as dxf_units

from deepsection.core.drawing import (
    PENS,
    Backdrop,
    Dimension,
    Drawing,
    Mark,
    Region,
    Ring,
    Stroke,
    Text,
    explode,
    extent,
)
from deepsection.core.drawing.explode import leader_of
from deepsection.core.drawing.pictures import Picture
from deepsection.core.sheets import PlacedDrawing, SheetDrawing
from deepsection.core.units import INCH

from ._backdrops import backdrop_marks, frame_marks
from .layers import LayerNames, layer_name

SOLID = {"ink": 7, "poche": 8, "section": 7, "existing": 9}
"""Fills that files show as solid hatches, with their colour."""
"""Fills that are drawn solid; paper and tones stay empty."""
GAP = 3000.0
"""Real mm between two views in model space."""
DIMENSION_STYLE = "DEEPSECTION"


def write_dxf(sheet: SheetDrawing, layers: LayerNames = "plain") -> bytes:
    """The sheet as a DXF file (R2018), its layers named by a standard."""
    ezdxf.options.write_fixed_meta_data_for_testing = True
    document = ezdxf.new("R2018", setup=False)
    factor = 1 / INCH if sheet.units == "ft-in" else 1.0
    document.units = dxf_units.IN if sheet.units == "ft-in" else dxf_units.MM
    document.header["$MEASUREMENT"] = 0 if sheet.units == "ft-in" else 1
    _tables(document)
    layout = document.layout("Layout1")
    layout.page_setup(size=(sheet.paper.width, sheet.paper.height), margins=(0, 0, 0, 0), units="mm")
    model, left = document.modelspace(), None
    for held in sheet.placed:
        # The first view keeps the coordinates of the house: what comes back about it finds its place.
        shift = 0.0 if left is None else left - held.drawing.bounds[0]
        space = _Space(document, model, factor, held.scale, shift, 0.0)
        space.draw(_keep_dimensions(held.drawing))
        for under in held.drawing.backdrops:
            space.lay(under, sheet.picture(under))
        _viewport(layout, held, shift, factor)
        left = shift + held.drawing.bounds[2] + GAP
    _Space(document, layout, 1.0, 1.0, 0.0, 0.0).draw(explode(sheet.own))
    for layer in [held for held in document.layers if layer_name(held.dxf.name, layers) != held.dxf.name]:
        layer.rename(layer_name(layer.dxf.name, layers))
    out = io.StringIO()
    document.write(out)
    return out.getvalue().encode()


def _keep_dimensions(drawing: Drawing) -> Drawing:
    """The drawing with symbols exploded and dimensions whole."""
    dimensions = tuple(mark for mark in drawing.marks if isinstance(mark, Dimension))
    rest = explode(replace(drawing, marks=tuple(mark for mark in drawing.marks if not isinstance(mark, Dimension))))
    return replace(rest, marks=(*rest.marks, *dimensions))


def _tables(document: Any) -> None:
    for name, font in (
        ("SANS", "IBMPlexSans-Regular.ttf"),
        ("BOLD", "IBMPlexSans-SemiBold.ttf"),
        ("MONO", "IBMPlexMono-Regular.ttf"),
    ):
        document.styles.add(name, font=font)
    for pen in PENS.values():
        linetype = "CONTINUOUS"
        if pen.dashes:
            linetype = pen.name.upper()
            steps = [dash if index % 2 == 0 else -dash for index, dash in enumerate(pen.dashes)]
            if linetype not in document.linetypes:
                document.linetypes.add(linetype, pattern=[sum(pen.dashes), *steps], description=f"{pen.name} pen")
        if pen.layer not in document.layers:
            document.layers.add(pen.layer, color=7, lineweight=round(pen.width * 100), linetype=linetype)
    if "VIEWPORTS" not in document.layers:
        document.layers.add("VIEWPORTS", color=8, plot=False)
    style = document.dimstyles.add(DIMENSION_STYLE)
    style.dxf.dimtxsty = "MONO"
    style.dxf.dimblk = ""
    style.dxf.dimtsz = 1.1
    style.dxf.dimtxt = 2.5
    style.dxf.dimexo = 1.0
    style.dxf.dimexe = 1.2
    style.dxf.dimgap = 0.8
    style.dxf.dimtad = 1


def _viewport(layout: Any, held: PlacedDrawing, shift: float, factor: float) -> None:
    x0, y0, x1, y1 = held.box()
    bounds = held.drawing.bounds
    centre = ((bounds[0] + bounds[2]) / 2 + shift, (bounds[1] + bounds[3]) / 2)
    layout.add_viewport(
        center=((x0 + x1) / 2, (y0 + y1) / 2),
        size=(x1 - x0 + 4, y1 - y0 + 4),
        view_center_point=(centre[0] * factor, centre[1] * factor),
        view_height=(y1 - y0 + 4) * held.scale * factor,
        dxfattribs={"layer": "VIEWPORTS"},
    )


class _Space:
    """Draws marks into a DXF space: real mm times `factor`, lettering at paper size times scale."""

    def __init__(self, document: Any, space: Any, factor: float, scale: float, dx: float, dy: float) -> None:
        self._document, self._space, self._factor, self._scale, self._shift = document, space, factor, scale, (dx, dy)

    def _p(self, x: float, y: float) -> tuple[float, float]:
        return (x + self._shift[0]) * self._factor, (y + self._shift[1]) * self._factor

    def _attributes(self, pen: str) -> dict[str, Any]:
        attributes: dict[str, Any] = {"layer": PENS[pen].layer}
        if PENS[pen].dashes:
            attributes["ltscale"] = self._scale * self._factor
        return attributes

    def draw(self, drawing: Drawing) -> None:
        """Every mark; what belongs to one window or door as a block."""
        units: dict[str, list[Region | Stroke]] = defaultdict(list)
        for mark in drawing.marks:
            if isinstance(mark, (Region, Stroke)) and mark.handle and mark.handle.edit == "move_opening":
                units[mark.handle.element].append(mark)
            else:
                self._mark(mark, drawing)
        for id, marks in units.items():
            self._block(id, marks, drawing)

    def lay(self, held: Backdrop, picture: Picture) -> None:
        """A page of a file, by its lines; of one that has none, its edge."""
        marks = [*backdrop_marks(held, picture, self._scale)]
        if picture.image is not None:
            words = f"{held.name}: lines alone" if marks else f"{held.name}: an image, which a DXF cannot hold"
            marks += frame_marks(held, words, self._scale)
        self.draw(Drawing(held.id, held.name, "plan", self._scale, tuple(marks)))

    def _mark(self, mark: Mark, drawing: Drawing) -> None:
        if isinstance(mark, Region):
            self._region(mark, drawing)
        elif isinstance(mark, Stroke):
            self._line(mark.path, mark.closed, mark.pen)
        elif isinstance(mark, Text):
            self._text(mark)
        elif isinstance(mark, Dimension):
            self._dimension(mark)

    def _block(self, id: str, marks: list[Region | Stroke], drawing: Drawing) -> None:
        """Marks as a block with its base at their lower left, put where they stand."""
        x0, y0, _, _ = extent(marks, self._scale)
        stem, blocks = f"UNIT-{id.upper()}", self._document.blocks
        name = next(held for held in (stem, *(f"{stem}-{n}" for n in range(2, 10_000))) if held not in blocks)
        within = _Space(self._document, blocks.new(name), self._factor, self._scale, -x0, -y0)
        for mark in marks:
            within._mark(mark, drawing)
        self._space.add_blockref(name, self._p(x0, y0), dxfattribs={"layer": PENS["edge"].layer})

    def _line(self, path: Ring, closed: bool, pen: str) -> None:
        attributes = self._attributes(pen)
        if len(path) == 2 and not closed and not path[0][2]:
            self._space.add_line(self._p(*path[0][:2]), self._p(*path[1][:2]), dxfattribs=attributes)
        else:
            points = [(*self._p(x, y), bulge) for x, y, bulge in path]
            self._space.add_lwpolyline(points, format="xyb", close=closed, dxfattribs=attributes)

    def _region(self, mark: Region, drawing: Drawing) -> None:
        if mark.hatch is not None and drawing.hatches[mark.hatch].families:
            hatch = self._space.add_hatch(color=7, dxfattribs={"layer": PENS["hatch"].layer})
            placed = drawing.hatches[mark.hatch]
            lines = []
            for family in placed.families:
                turn = math.radians(family.angle)
                along, across = (step * self._factor for step in family.offset)
                offset = (
                    along * math.cos(turn) - across * math.sin(turn),
                    along * math.sin(turn) + across * math.cos(turn),
                )
                lines.append(
                    [family.angle, self._p(*family.base), offset, [dash * self._factor for dash in family.dashes]]
                )
            hatch.set_pattern_fill(placed.name.upper(), definition=lines)
            self._boundary(hatch, mark)
        elif mark.fill in SOLID:
            hatch = self._space.add_hatch(color=SOLID[mark.fill], dxfattribs={"layer": PENS["hatch"].layer})
            self._boundary(hatch, mark)
        if mark.pen:
            for ring in mark.rings:
                self._line(ring, True, mark.pen)

    def _boundary(self, hatch: Any, mark: Region) -> None:
        for index, ring in enumerate(mark.rings):
            points = [(*self._p(x, y), bulge) for x, y, bulge in ring]
            hatch.paths.add_polyline_path(points, is_closed=True, flags=1 if index == 0 else 16)

    def _text(self, mark: Text) -> None:
        if not mark.text:
            return
        size = mark.size * self._scale * self._factor
        halign = {"left": 0, "centre": 1, "right": 2}[mark.align]
        valign = {"bottom": 1, "middle": 2, "top": 3}[mark.valign]
        text = self._space.add_text(
            mark.text,
            height=size,
            rotation=mark.angle,
            dxfattribs={"layer": PENS[mark.pen].layer, "style": mark.face.upper()},
        )
        text.dxf.halign, text.dxf.valign = halign, valign
        text.dxf.insert = text.dxf.align_point = self._p(mark.x, mark.y)

    def _dimension(self, mark: Dimension) -> None:
        style = {"dimscale": self._scale * self._factor}
        if mark.measures is not None:
            # Over a break its line is shorter than what it measures.
            style["dimlfac"] = mark.measures / math.dist((mark.x1, mark.y1), (mark.x2, mark.y2))
        dimension = self._space.add_aligned_dim(
            p1=self._p(mark.x1, mark.y1),
            p2=self._p(mark.x2, mark.y2),
            distance=mark.offset * self._scale * self._factor,
            # A blank: no figure, rather than the one that was measured.
            text=mark.text or " ",
            dimstyle=DIMENSION_STYLE,
            override=style,
            dxfattribs={"layer": PENS["dimension"].layer},
        )
        if mark.raised or mark.aside:
            paper = self._scale * self._factor
            dimension.shift_text(mark.aside * paper, mark.raised * paper)
        dimension.render()
        for stroke in leader_of(mark, self._scale):
            self._line(stroke.path, stroke.closed, stroke.pen)
