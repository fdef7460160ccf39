"""Facets of parts as faces of a view: polygons in (u, v) with their depth."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import NamedTuple

import numpy as np
import shapely
from numpy.typing import NDArray
from shapely.geometry import Polygon

from ..geometry import Facet, Point, half_plane, polygons_of, prepare_facets
from ..memo import BulkMemo
from ..resolve import Part
from ..tolerance import TOL

EDGE_ON = 1e-4
"""Facets whose normal is this close to square with the look direction are not seen."""


@dataclass(frozen=True, eq=False, slots=True)
class Face:
    """A facet in the view: polygon in (u, v), depth = a u + b v + c, its part and outward normal."""

    polygon: Polygon
    plane: tuple[float, float, float]
    part: Part
    normal: tuple[float, float, float]

    def depth(self, u: float, v: float) -> float:
        """Depth at a point of the view."""
        a, b, c = self.plane
        return a * u + b * v + c


def faces_of(parts: Sequence[Part], dx: float, dy: float) -> list[tuple[Face, ...]]:
    """Per part, the facets that look at a viewer who looks along (dx, dy); remembered with the part."""
    return _part_faces([(part, dx, dy) for part in parts])


def _make_faces(wanted: Sequence[tuple[Part, float, float]]) -> list[tuple[Face, ...]]:
    rings: list[list[Point]] = []
    return faces_from([part for part, _, _ in wanted], list(_turned(wanted, rings)), rings)


class Outline(NamedTuple):
    """A facet in a view: the index of its part, its plane, and which of the rings of all outlines are its own."""

    part: int
    facet: Facet
    plane: tuple[float, float, float]
    rings: range


def faces_from(parts: Sequence[Part], outlines: Sequence[Outline], rings: list[list[Point]]) -> list[tuple[Face, ...]]:
    """Faces per part. Polygons of all are made in one call: one by one they cost ten times as much."""
    shapes = _polygons(rings)
    valid = shapely.is_valid(shapes)
    faces: list[list[Face]] = [[] for _ in parts]
    for k, facet, plane, held in outlines:
        part = parts[k]
        if len(held) == 1 and valid[held[0]]:
            polygons = [shapes[held[0]]] if shapely.area(shapes[held[0]]) > TOL.area else []
        else:
            rings_held = [shapes[index] for index in held]
            polygons = _nested(rings_held) if valid[list(held)].all() else []
            polygons = polygons or _assemble(rings_held)
        faces[k] += [Face(polygon, plane, part, facet.normal) for polygon in polygons]
    return [tuple(held) for held in faces]


def _turned(wanted: Sequence[tuple[Part, float, float]], rings: list[list[Point]]) -> Iterator[Outline]:
    """Facets that look at the viewer; their rings are added in (u, v)."""
    prepare_facets(part.solid for part, _, _ in wanted)
    for k, (part, dx, dy) in enumerate(wanted):
        for facet in part.solid.facets:
            nx, ny, nz = facet.normal
            nd = nx * dx + ny * dy
            if nd > -EDGE_ON:
                continue
            start = len(rings)
            rings += [[(x * dy - y * dx, z) for x, y, z in ring] for ring in facet.rings if len(ring) > 2]
            plane = (-(nx * dy - ny * dx) / nd, -nz / nd, facet.offset / nd)
            yield Outline(k, facet, plane, range(start, len(rings)))


def _polygons(rings: list[list[Point]]) -> NDArray[np.object_]:
    """A polygon per ring, snapped to the grid."""
    if not rings:
        return np.empty(0, dtype=object)
    points = np.round(np.array([point for ring in rings for point in ring]) / TOL.grid) * TOL.grid
    owner = np.repeat(np.arange(len(rings)), [len(ring) for ring in rings])
    polygons: NDArray[np.object_] = shapely.polygons(shapely.linearrings(points, indices=owner))
    return polygons


_part_faces: BulkMemo[tuple[Part, float, float], tuple[Face, ...]] = BulkMemo(_make_faces, size=20_000)


def _nested(shapes: Sequence[Polygon]) -> list[Polygon]:
    """Polygons of rings that turn as the largest does, with those that turn the other way as their holes.

    None where rings are not so: then they have to be put together by overlays.
    """
    largest_first = sorted(shapes, key=lambda shape: -float(shape.area))
    turn = largest_first[0].exterior.is_ccw
    outer = [shape for shape in largest_first if shape.exterior.is_ccw == turn]
    held: list[list[shapely.LinearRing]] = [[] for _ in outer]
    for hole in (shape for shape in largest_first if shape.exterior.is_ccw != turn):
        spot = hole.representative_point()
        around = [k for k, shape in enumerate(outer) if shape.contains(spot)]
        if not around:
            return []
        held[around[-1]].append(hole.exterior)
    polygons = [Polygon(shape.exterior, holes) for shape, holes in zip(outer, held)]
    return polygons if bool(shapely.is_valid(polygons).all()) else []


def _assemble(shapes: Sequence[Polygon]) -> list[Polygon]:
    """Polygons of rings that may be outer ones or holes, in any order."""
    whole: shapely.Geometry = Polygon()
    for shape in sorted(shapes, key=lambda polygon: -polygon.area):
        whole = whole.symmetric_difference(shapely.make_valid(shape))
    return list(polygons_of(whole))


@lru_cache(maxsize=10_000)
def behind(face: Face, depth: float) -> tuple[Face, ...]:
    """The pieces of a face that lie farther than a depth from the viewer's origin."""
    a, b, c = face.plane
    x0, y0, x1, y1 = face.polygon.bounds
    values = [a * x + b * y + c - depth for x in (x0, x1) for y in (y0, y1)]
    if min(values) >= 0:
        return (face,)
    kept = half_plane((x0, y0, x1, y1), a, b, c - depth)
    if kept is None:
        return ()
    pieces = polygons_of(face.polygon.intersection(kept))
    return tuple(Face(piece, face.plane, face.part, face.normal) for piece in pieces)
