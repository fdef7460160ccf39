"""What is cut, as marks: heavy and hatched by its material."""

from __future__ import annotations

import math
from collections import defaultdict
from functools import lru_cache

import shapely
from shapely.geometry import LineString, Polygon

from ..catalog import material
from ..drawing import Mark, Region, Stroke, path, rings_of
from ..drawing.detail import SHOWN_FROM, shown_from
from ..geometry import CutFrame, Frame, polygons_of
from ._quilt import quilt_strokes
from .cut import CutPart
from .cut_lines import course_lines, membrane_marks
from .hatching import HatchTable

Point3 = tuple[float, float, float]
DIAGONALS_FROM = 0.7
"""A member this small on paper (mm) is not crossed: it would clog."""


def cut_marks(cut: list[CutPart], frame: CutFrame, scale: float, hatches: HatchTable) -> list[Mark]:
    """Regions of what is cut, whole: below the scale where layers show, one filled shape per element."""
    look = (frame.dx, frame.dy, 0.0) if isinstance(frame, Frame) else (0.0, 0.0, -1.0)
    marks: list[Mark] = []
    membranes: list[Mark] = []
    sheets: list[Mark] = []
    lumped: dict[str, list[CutPart]] = defaultdict(list)
    once = list({id(held.whole): held for held in cut}.values())
    for held in sorted(_poured(once), key=lambda held: (-material(held.part.material).order, held.part.key)):
        if not shown_from("layers", scale) and held.part.function != "unit":
            lumped[held.part.element].append(held)
        elif shown_from(held.part.function, scale):
            apart = membrane_marks(held, scale) if held.part.function == "membrane" else ()
            membranes += apart
            # Metal that lies on a membrane is not hidden by the blank paper along that.
            kind = sheets if held.part.function == "sheet" else marks
            kind += () if apart else _cut_mark(held, look, scale, hatches)
    for group in lumped.values():
        whole = shapely.union_all([held.whole.buffer(0.5, join_style="mitre") for held in group])
        for polygon in polygons_of(whole.buffer(-0.5, join_style="mitre")):
            marks.append(Region(rings_of(polygon), fill="poche", pen="cut", part=group[0].part.key, feature="cut"))
        # What is drawn as one can still be pointed at part by part.
        own = (held for held in group if shown_from(held.part.function, SHOWN_FROM["layers"]))
        marks += [Region(_rings(held.whole), part=held.part.key, feature="cut") for held in own]
    return [*marks, *membranes, *sheets]


EDGES = ("slab_edge", "upstand")
POURED = (*EDGES, "structure", "porch_slab", "slab")
"""The roles of an element that are cast with the edges of its slab: no line is drawn between them."""
SUSPENDED = ("slab", "upstand")
"""Roles that are cast as one whatever element they belong to."""


def _poured(cut: list[CutPart]) -> list[CutPart]:
    """What is cut, with slabs and their edges in one; suspended slabs with their parts at other heights."""

    def pour_of(held: CutPart) -> tuple[str, str]:
        return "" if held.part.role in SUSPENDED else held.part.element, held.part.material

    edged = {pour_of(held) for held in cut if held.part.role in EDGES}
    pours: dict[tuple[str, str], list[CutPart]] = defaultdict(list)
    kept = []
    for held in cut:
        pour = pour_of(held)
        if pour in edged and held.part.role in POURED:
            pours[pour].append(held)
        else:
            kept.append(held)
    for group in pours.values():
        whole = shapely.union_all([held.whole.buffer(0.5, join_style="mitre") for held in group])
        for piece in polygons_of(whole.buffer(-0.5, join_style="mitre")):
            own = (held for held in group if held.whole.intersects(piece))
            first = min(own, key=lambda held: (held.part.role in EDGES, held.part.key)).part
            kept.append(CutPart(first, piece, piece))
    return kept


def _cut_mark(held: CutPart, look: Point3, scale: float, hatches: HatchTable) -> list[Mark]:
    part, polygon = held.part, held.whole
    made_of = material(part.material)
    width = _narrow(polygon) / scale
    structural = part.function == "structure"
    pen = "cut" if structural and width > 2.2 else "cut_layer" if width > 0.5 else "fine"
    hatch = hatches.add(made_of.cut) if made_of.cut and made_of.cut != "quilt" and width > 0.35 else None
    marks: list[Mark] = [
        Region(_rings(polygon), fill=made_of.tone, hatch=hatch, pen=pen, part=part.key, feature="cut", handle=None)
    ]
    if made_of.cut == "quilt":
        marks += quilt_strokes(polygon, part.key)
    # Courses lie level: a level plane shows none.
    marks += course_lines(held, scale) if look[2] == 0.0 else ()
    across = part.axis is not None and abs(sum(a * b for a, b in zip(part.axis, look))) > 0.7
    if across and not hatch and width > DIAGONALS_FROM:
        marks += _diagonals(polygon, part.key)
    return marks


_rings = lru_cache(maxsize=20_000)(rings_of)


@lru_cache(maxsize=10_000)
def _narrow(polygon: Polygon) -> float:
    """The narrow side of the smallest rectangle around a polygon."""
    corners = list(shapely.oriented_envelope(polygon).exterior.coords)
    return min(math.dist(corners[0], corners[1]), math.dist(corners[1], corners[2]))


SOLID = 0.8
"""What fills less of its smallest rectangle is not crossed."""


@lru_cache(maxsize=10_000)
def _diagonals(polygon: Polygon, key: str) -> tuple[Mark, ...]:
    """Two diagonals: continuous lumber cut across; none over flanges with a web. Common practice, no source."""
    around = shapely.oriented_envelope(polygon)
    corners = list(around.exterior.coords)
    if polygon.area < SOLID * around.area:
        return ()
    lines = (LineString([corners[0], corners[2]]), LineString([corners[1], corners[3]]))
    marks: list[Mark] = []
    for line in lines:
        inside = line.intersection(polygon)
        for piece in getattr(inside, "geoms", [inside]):
            if isinstance(piece, LineString) and not piece.is_empty:
                marks.append(Stroke(path(*piece.coords), "fine", part=key, feature="lumber"))
    return tuple(marks)
