"""Shade at 45 degrees: what the light from over the viewer's left shoulder does not reach.

The light runs to the right, down and away from the viewer by equal amounts, the convention of architectural shades and
shadows. What it reaches is what would be seen along it: the engine of visible surfaces answers that too, in a view of
which points (s, w) are lines of light, s = u - d and w = v + d, and d tells which is nearer to the light.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Iterator, Sequence
from functools import lru_cache

import shapely
import shapely.affinity
from shapely.geometry import Polygon

from ..drawing import Mark, Region, rings_of
from ..geometry import Frame, Point, polygons_of, prepare_facets
from ..resolve import Part
from .faces import EDGE_ON, Face, Outline, faces_from
from .hatching import HatchTable
from .visible import visible_faces

CLEAN = 1.0
"""Shade narrower than twice this (mm) is the grid that faces lie on."""

Plane = tuple[str, float, float, float, float]
"""What tells one facet from another: its part, its normal, and how far out it lies (mm)."""


def shade_marks(faces: Iterable[Face], parts: Sequence[Part], frame: Frame, hatches: HatchTable) -> Iterator[Mark]:
    """The shade on visible faces of parts, hatched."""
    lit = _lit(tuple(parts), frame.dx, frame.dy)
    hatch = hatches.add("shade")
    for face in faces:
        for polygon in _shade(face, lit.get(_plane_of(face, frame))):
            yield Region(rings_of(polygon), hatch=hatch, feature="shade")


@lru_cache(maxsize=30_000)
def _shade(face: Face, lit: shapely.Geometry | None) -> tuple[Polygon, ...]:
    dark = face.polygon if lit is None else face.polygon.difference(lit)
    opened = dark.buffer(-CLEAN, join_style="mitre").buffer(CLEAN, join_style="mitre")
    return tuple(polygons_of(opened.intersection(face.polygon)))


@lru_cache(maxsize=8)
def _lit(parts: tuple[Part, ...], dx: float, dy: float) -> dict[Plane, shapely.Geometry]:
    """Per facet, what of it the light reaches, in (u, v)."""
    rings: list[list[Point]] = []
    held = faces_from(parts, list(_lightward(parts, dx, dy, rings)), rings)
    reached: dict[Plane, list[Polygon]] = defaultdict(list)
    for piece in visible_faces([face for faces in held for face in faces], (dx, dy, "light")):
        a, b, c = piece.plane
        # From lines of light back to the view: u = s + d, v = w - d.
        matrix = [1 + a, b, -a, 1 - b, c, -c]
        back = shapely.affinity.affine_transform(piece.polygon, matrix)
        nu, nv, nd = _turned(piece.normal, dx, dy)
        reached[_name(piece.part, piece.normal, c * (nu - nv + nd))].append(back)
    return {plane: shapely.union_all([shape.buffer(0.01) for shape in shapes]) for plane, shapes in reached.items()}


def _lightward(parts: Sequence[Part], dx: float, dy: float, rings: list[list[Point]]) -> Iterator[Outline]:
    """Facets that look at the light; their rings are added in (s, w)."""
    prepare_facets(part.solid for part in parts)
    for k, part in enumerate(parts):
        for facet in part.solid.facets:
            nu, nv, nd = _turned(facet.normal, dx, dy)
            along = nu - nv + nd
            if along > -EDGE_ON:
                continue
            start = len(rings)
            for ring in facet.rings:
                if len(ring) > 2:
                    depths = ((x * dy - y * dx, z, x * dx + y * dy) for x, y, z in ring)
                    rings.append([(u - d, v + d) for u, v, d in depths])
            plane = (-nu / along, -nv / along, facet.offset / along)
            yield Outline(k, facet, plane, range(start, len(rings)))


def _turned(normal: tuple[float, float, float], dx: float, dy: float) -> tuple[float, float, float]:
    """A direction in the view: to the right, up, away."""
    x, y, z = normal
    return x * dy - y * dx, z, x * dx + y * dy


def _name(part: Part, normal: tuple[float, float, float], offset: float) -> Plane:
    x, y, z = normal
    return part.key, round(x, 3) + 0.0, round(y, 3) + 0.0, round(z, 3) + 0.0, round(offset) + 0.0


def _plane_of(face: Face, frame: Frame) -> Plane:
    _, _, nd = _turned(face.normal, frame.dx, frame.dy)
    return _name(face.part, face.normal, face.plane[2] * nd)
