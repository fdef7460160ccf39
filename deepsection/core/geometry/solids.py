"""Solids: a small typed wrap of the solid engine (manifold3d). Millimetres, z up.

A `Solid` is immutable and lazy: nothing is evaluated before its shape is asked for. `reach` is known
beforehand, so that most bodies of a house (studs behind their cladding) never are. Cuts need no
engine at all: the section of a difference is the difference of the sections.
"""

from __future__ import annotations

import math
from abc import ABC, abstractmethod
from collections.abc import Callable, Iterable, Sequence
from functools import cached_property
from itertools import pairwise
from typing import Any, NamedTuple

import manifold3d
import numpy as np
import shapely
from numpy.typing import NDArray
from shapely.affinity import affine_transform
from shapely.geometry import MultiPolygon, Polygon
from shapely.geometry.base import BaseGeometry

from ..tolerance import TOL
from .boxes import Box, Boxes, Plane3
from .facets import Facet, Matrix, extruded_facets, mesh_facets, meshes_facets
from .frames import CutFrame, Frame, LevelFrame
from .plane import Point, half_plane, polygons_of, ring_of

FEW = 9
"""Outlines of so many points, the first twice, are looked at for being convex."""
Side = tuple[float, float, float]
"""A side of a convex outline: the unit normal to its inside, and how far along that it lies."""


FAR = 1e7
"""Farther than anything is built (mm)."""


class Solid(ABC):
    """A closed body. Compare and cache by identity: it is made by stages that are memoised.

    `reach` is a box that holds it, not always tightly; `bounds` is tight.
    """

    reach: Box

    @abstractmethod
    def _build(self) -> Any:
        """The body in the solid engine."""

    @abstractmethod
    def cut(self, frame: Frame) -> BaseGeometry:
        """Area in (u, v) where the plane of the frame, set back by `TOL.cut`, cuts this; may be empty."""

    def level(self, z: float) -> BaseGeometry:
        """Area in plan where a level plane just over a height cuts this; may be empty."""
        return rings_as_areas(self.manifold.slice(z + TOL.cut).to_polygons())

    def section(self, frame: CutFrame) -> BaseGeometry:
        """Area in (u, v) where the plane of an upright or a level frame cuts this; may be empty."""
        return self.cut(frame) if isinstance(frame, Frame) else frame.turn(self.level(frame.z))

    @cached_property
    def manifold(self) -> Any:
        """The body in the solid engine, made once.

        Worked out here and now: the library puts its work off, takes all that a body was made of at once, and is then
        off by some tenths of a millimetre where bodies share faces.
        """
        made = self._build()
        made.num_tri()
        return made

    @cached_property
    def bounds(self) -> Box:
        """The tight box around the body."""
        return Box(*self.manifold.bounding_box())

    @cached_property
    def volume(self) -> float:
        """mm3."""
        return float(self.manifold.volume())

    @cached_property
    def is_empty(self) -> bool:
        """True when nothing solid is left: touching bodies intersect as slivers."""
        return bool(self.manifold.is_empty()) or self.volume < TOL.volume

    @cached_property
    def facets(self) -> tuple[Facet, ...]:
        """Flat faces, each with its boundary rings."""
        return mesh_facets(*self.mesh())

    def mesh(self) -> tuple[NDArray[np.float64], NDArray[np.int_]]:
        """(n, 3) float points and (m, 3) int triangles, counter-clockwise from outside."""
        mesh = self.manifold.to_mesh64()
        points = np.asarray(mesh.vert_properties, dtype=float)[:, :3]
        triangles = np.asarray(mesh.tri_verts, dtype=int)
        alias = np.arange(len(points))
        alias[np.asarray(mesh.merge_from_vert, dtype=int)] = np.asarray(mesh.merge_to_vert, dtype=int)
        return points, alias[triangles]

    def minus(self, others: Iterable[Solid], *, singly: bool = False) -> Solid:
        """This solid without the others.

        `singly`: one after the other, for sloping bodies that share faces. All at a time are joined first, which is
        quicker, and the library then leaves slivers of some hundredths of a millimetre over whole faces of such.
        """
        bodies = tuple(other for other in others if _overlap(self.reach, other.reach))
        return _Difference(self, bodies, singly) if bodies else self

    def below(self, plane: Plane3) -> Solid:
        """What lies under a sloping plane."""
        heights = [plane.z(x, y) for x, y in self.reach.corners()]
        if min(heights) >= self.reach.z1:
            return self
        reach = self.reach._replace(z1=max(self.reach.z0, min(self.reach.z1, max(heights))))
        return _Trimmed(self, (plane.a, plane.b, -1.0), -plane.c, reach)

    def above(self, plane: Plane3) -> Solid:
        """What lies over a sloping plane."""
        heights = [plane.z(x, y) for x, y in self.reach.corners()]
        if max(heights) <= self.reach.z0:
            return self
        reach = self.reach._replace(z0=min(self.reach.z1, max(self.reach.z0, min(heights))))
        return _Trimmed(self, (-plane.a, -plane.b, 1.0), plane.c, reach)

    def beside(self, normal: Point, offset: float) -> Solid:
        """What lies on the side of an upright plane where normal . (x, y) > offset."""
        nx, ny = normal
        return _Trimmed(self, (nx, ny, 0.0), offset, self.reach)


def prepare_facets(solids: Iterable[Solid]) -> None:
    """The facets of many bodies, made at once and kept with them."""
    missing = [solid for solid in solids if type(solid).facets is Solid.facets and "facets" not in solid.__dict__]
    for solid, facets in zip(missing, meshes_facets([solid.mesh() for solid in missing])):
        solid.__dict__["facets"] = facets


def reaches_of(solids: Iterable[Solid]) -> Boxes:
    """(n, 6): the box around each body."""
    return np.array([solid.reach for solid in solids], dtype=np.float64).reshape(-1, 6)


class _Extrusion(Solid):
    """A profile drawn out from 0 to `length` along the third axis of a rigid motion."""

    def __init__(self, profile: Callable[[], BaseGeometry], length: float, matrix: Matrix, reach: Box) -> None:
        self._profile, self._length, self._matrix, self.reach = profile, length, matrix, reach

    @cached_property
    def _polygons(self) -> tuple[Polygon, ...]:
        return tuple(polygons_of(self._profile()))

    @property
    def is_empty(self) -> bool:
        """Known without the engine."""
        return not self._polygons or self._length < TOL.grid

    def _build(self) -> Any:
        rings = [np.array(ring) for polygon in self._polygons for ring in ring_of(polygon)]
        section = manifold3d.CrossSection(rings, manifold3d.FillRule.Positive)
        return manifold3d.Manifold.extrude(section, self._length).transform(self._matrix)

    @cached_property
    def facets(self) -> tuple[Facet, ...]:
        """Flat faces, each with its boundary rings."""
        return extruded_facets([ring_of(polygon) for polygon in self._polygons], self._length, self._matrix)

    def level(self, z: float) -> BaseGeometry:
        """The profile itself, or the thickness over what of it stands at that height."""
        (px, qx, hx, x0), (py, qy, hy, y0), (_, qz, hz, z0) = self._matrix
        z += TOL.cut
        if abs(hz) > 0.5:
            if not z0 <= z < z0 + self._length:
                return Polygon()
            return _joined([affine_transform(polygon, [px, qx, py, qy, x0, y0]) for polygon in self._polygons])
        if abs(qz) < 0.5:
            return super().level(z - TOL.cut)
        line = LineInPlan(0.0, (z - z0) / qz, 1.0, 0.0)
        spans = [span for polygon in self._polygons for span in line.spans(polygon)]
        bars = [shapely.box(first, 0.0, last, self._length) for first, last in spans]
        return _joined([affine_transform(bar, [px, hx, py, hy, x0, y0]) for bar in bars])

    @cached_property
    def _rectangle(self) -> tuple[float, float, float, float] | None:
        """The profile where it is one rectangle along its axes, as most members have it; else None."""
        if len(self._polygons) != 1 or len(self._polygons[0].interiors):
            return None
        points = shapely.get_coordinates(self._polygons[0]).tolist()
        x0, y0, x1, y1 = self._polygons[0].bounds
        corners = {(x, y) for x, y in points}
        square = len(points) == 5 and corners == {(x0, y0), (x1, y0), (x1, y1), (x0, y1)}
        return (x0, y0, x1, y1) if square else None

    @cached_property
    def _sides(self) -> tuple[tuple[Side, ...] | None, ...]:
        """Of each polygon of the profile its sides, where it is a convex outline of few corners, as most are."""
        return tuple(_convex_sides(polygon) for polygon in self._polygons)

    def cut(self, frame: Frame) -> BaseGeometry:
        """The cut in (u, v), worked out in the coordinates of the profile."""
        (px, qx, hx, x0), (py, qy, hy, y0), (_, qz, _, _) = self._matrix
        depth = frame.x0 * frame.dx + frame.y0 * frame.dy + TOL.cut
        bx, by = frame.dx * depth - x0, frame.dy * depth - y0
        # Along the cut, u -> (p, q, h) in the body is linear; p and h lie level, and q up, unless it is upright.
        if abs(qz) > 0.5:
            s, ds = bx * px + by * py, frame.ux * px + frame.uy * py
            t, dt = bx * hx + by * hy, frame.ux * hx + frame.uy * hy
            if self._rectangle is not None:
                return _cut_bar(self._rectangle, self._length, (s, ds), (t, dt))
            return _cut_standing(self._polygons, self._length, (s, ds), (t, dt))
        line = LineInPlan(
            bx * px + by * py, bx * qx + by * qy, frame.ux * px + frame.uy * py, frame.ux * qx + frame.uy * qy
        )
        z0, z1 = self.reach.z0, self.reach.z1
        pairs = zip(self._polygons, self._sides)
        spans = [span for polygon, sides in pairs for span in (line.within(sides) if sides else line.spans(polygon))]
        return _joined([shapely.box(u0, z0, u1, z1) for u0, u1 in spans])


def _convex_sides(polygon: Polygon) -> tuple[Side, ...] | None:
    """The sides of a convex outline of few corners; else None."""
    points = shapely.get_coordinates(polygon.exterior).tolist()
    if len(polygon.interiors) or len(points) > FEW:
        return None
    if not polygon.exterior.is_ccw:
        points.reverse()
    sides = []
    for (x0, y0), (x1, y1) in pairwise(points):
        length = math.hypot(x1 - x0, y1 - y0)
        if length == 0.0:
            continue
        nx, ny = (y0 - y1) / length, (x1 - x0) / length
        offset = nx * x0 + ny * y0
        if any(nx * x + ny * y < offset - TOL.parallel for x, y in points):
            return None
        sides.append((nx, ny, offset))
    return tuple(sides)


class LineInPlan(NamedTuple):
    """The cut as a line in a profile: p = p0 + u dp, q = q0 + u dq."""

    p0: float
    q0: float
    dp: float
    dq: float

    def within(self, sides: Sequence[Side]) -> list[tuple[float, float]]:
        """Where (in u) the line lies within the sides of a convex outline."""
        low, high = -FAR, FAR
        for nx, ny, offset in sides:
            step, short = nx * self.dp + ny * self.dq, offset - nx * self.p0 - ny * self.q0
            if step > TOL.parallel:
                low = max(low, short / step)
            elif step < -TOL.parallel:
                high = min(high, short / step)
            elif short > 0.0:
                return []
        return [(low, high)] if high - low > TOL.grid else []

    def spans(self, polygon: Polygon) -> list[tuple[float, float]]:
        """Where (in u) the line lies within a polygon."""
        x0, y0, x1, y1 = polygon.bounds
        middle = ((x0 + x1) / 2 - self.p0) * self.dp + ((y0 + y1) / 2 - self.q0) * self.dq
        reach = x1 - x0 + y1 - y0
        ends = [(self.p0 + u * self.dp, self.q0 + u * self.dq) for u in (middle - reach, middle + reach)]
        crossing = polygon.intersection(shapely.linestrings(ends))
        spans = []
        for piece in shapely.get_parts(crossing):
            if piece.geom_type == "LineString" and piece.length > TOL.grid:
                us = [(x - self.p0) * self.dp + (y - self.q0) * self.dq for x, y in piece.coords]
                spans.append((min(us), max(us)))
        return spans


def _joined(shapes: list[BaseGeometry]) -> BaseGeometry:
    """Some areas as one."""
    return shapes[0] if len(shapes) == 1 else shapely.union_all(shapes)


def _through(length: float, across: tuple[float, float]) -> tuple[float, float] | None:
    """From-to (in u) within the thickness of a body that stands upright; None beside it."""
    t, dt = across
    if abs(dt) > TOL.parallel:
        low, high = sorted(((0.0 - t) / dt, (length - t) / dt))
        return low, high
    return (-FAR, FAR) if 0.0 <= t < length else None


def _cut_bar(
    rectangle: tuple[float, float, float, float],
    length: float,
    along: tuple[float, float],
    across: tuple[float, float],
) -> BaseGeometry:
    """As `_cut_standing`, of a rectangle (from, low, to, high)."""
    (s, ds), within, (s0, z0, s1, z1) = along, _through(length, across), rectangle
    if within is None:
        return Polygon()
    low, high = within
    if abs(ds) > TOL.parallel:
        near, far = sorted(((s0 - s) / ds, (s1 - s) / ds))
        low, high = max(low, near), min(high, far)
    elif not s0 <= s <= s1:
        return Polygon()
    return shapely.box(low, z0, high, z1) if low < high and z1 - z0 > TOL.grid else Polygon()


def _cut_standing(
    polygons: tuple[Polygon, ...], length: float, along: tuple[float, float], across: tuple[float, float]
) -> BaseGeometry:
    """The cut of a body whose profile (s, z) stands upright: s and t (its thickness) are linear in u."""
    (s, ds), within = along, _through(length, across)
    if within is None:
        return Polygon()
    low, high = within
    shapes: list[BaseGeometry] = []
    for polygon in polygons:
        _, z0, _, z1 = polygon.bounds
        if abs(ds) > TOL.parallel:
            mapped = shapely.transform(polygon, lambda points: np.column_stack(((points[:, 0] - s) / ds, points[:, 1])))
            shapes.append(mapped if low == -FAR else mapped.intersection(shapely.box(low, z0 - 1, high, z1 + 1)))
            continue
        upright = shapely.linestrings([(s, z0 - 1), (s, z1 + 1)])
        for piece in shapely.get_parts(polygon.intersection(upright)):
            if piece.geom_type == "LineString" and piece.length > TOL.grid:
                zs = [z for _, z in piece.coords]
                shapes.append(shapely.box(low, min(zs), high, max(zs)))
    return _joined(shapes)


class _Difference(Solid):
    """A body without others."""

    def __init__(self, body: Solid, taken: tuple[Solid, ...], singly: bool) -> None:
        self._body, self._taken, self._singly, self.reach = body, taken, singly, body.reach

    def _build(self) -> Any:
        bodies = [self._body.manifold, *(other.manifold for other in self._taken)]
        if not self._singly:
            return manifold3d.Manifold.batch_boolean(bodies, manifold3d.OpType.Subtract)
        left = bodies[0]
        for body in bodies[1:]:
            left = left - body
            left.num_tri()
        return left

    def cut(self, frame: Frame) -> BaseGeometry:
        """The section of a difference is the difference of the sections."""
        shape = self._body.cut(frame)
        if shape.is_empty:
            return shape
        gone = [other.cut(frame) for other in self._taken if crosses(other.reach, frame)]
        gone = [other for other in gone if not other.is_empty]
        return shape.difference(_joined(gone)) if gone else shape

    def level(self, z: float) -> BaseGeometry:
        """The same of level sections."""
        shape = self._body.level(z)
        if shape.is_empty:
            return shape
        gone = [other.level(z) for other in self._taken if other.reach.z0 <= z + TOL.cut <= other.reach.z1]
        gone = [other for other in gone if not other.is_empty]
        return shape.difference(_joined(gone)) if gone else shape


class _Trimmed(Solid):
    """What of a body lies where normal . point > offset."""

    def __init__(self, body: Solid, normal: tuple[float, float, float], offset: float, reach: Box) -> None:
        self._body, self._normal, self._offset, self.reach = body, normal, offset, reach

    def _build(self) -> Any:
        size = float(np.linalg.norm(self._normal))
        x, y, z = (value / size for value in self._normal)
        return self._body.manifold.trim_by_plane((x, y, z), self._offset / size)

    def cut(self, frame: Frame) -> BaseGeometry:
        """The section of the body on the kept side of a line."""
        shape = self._body.cut(frame)
        if shape.is_empty:
            return shape
        nx, ny, nz = self._normal
        depth = frame.x0 * frame.dx + frame.y0 * frame.dy + TOL.cut
        kept = half_plane(
            shape.bounds,
            nx * frame.ux + ny * frame.uy,
            nz,
            (nx * frame.dx + ny * frame.dy) * depth - self._offset,
        )
        return Polygon() if kept is None else shape.intersection(kept)

    def level(self, z: float) -> BaseGeometry:
        """The same of a level section."""
        shape = self._body.level(z)
        if shape.is_empty:
            return shape
        nx, ny, nz = self._normal
        kept = half_plane(shape.bounds, nx, ny, nz * (z + TOL.cut) - self._offset)
        return Polygon() if kept is None else shape.intersection(kept)


def rings_as_areas(rings: Iterable[Any]) -> BaseGeometry:
    """What the engine gives of a slice: outlines counter-clockwise, holes clockwise."""
    polygons = [Polygon(ring) for ring in rings if len(ring) > 2]
    solid = [ring for ring in polygons if ring.exterior.is_ccw]
    holes = [ring for ring in polygons if not ring.exterior.is_ccw]
    whole = shapely.union_all(solid)
    return whole.difference(shapely.union_all(holes)) if holes else whole


def _overlap(a: Box, b: Box) -> bool:
    return all(a[axis] < b[axis + 3] and b[axis] < a[axis + 3] for axis in range(3))


def crosses(reach: Box, frame: CutFrame) -> bool:
    """Whether the plane of a frame, as it cuts, goes through a box."""
    if isinstance(frame, LevelFrame):
        return reach.z0 <= frame.z + TOL.cut <= reach.z1
    depths = [frame.depth(x, y) for x, y in reach.corners()]
    return min(depths) <= TOL.cut <= max(depths)


def prism(shape: Polygon | MultiPolygon, z0: float, z1: float) -> Solid:
    """An upright body over plan polygons (holes allowed) from z0 to z1."""
    x0, y0, x1, y1 = shape.bounds
    matrix = ((1.0, 0.0, 0.0, 0.0), (0.0, 1.0, 0.0, 0.0), (0.0, 0.0, 1.0, z0))
    return _Extrusion(lambda: shape, z1 - z0, matrix, Box(x0, y0, z0, x1, y1, z1))


def prism_along(profile: Polygon | MultiPolygon, origin: Point, run: Point, thickness: float) -> Solid:
    """A profile in an upright plane (holes allowed), given thickness.

    Profile points are (distance along the unit vector `run` from `origin`, z); the body lies to the
    right of `run`, from the plane to `thickness` away.
    """
    return _standing(lambda: profile, profile.bounds, origin, run, thickness)


def bar_along(box: tuple[float, float, float, float], origin: Point, run: Point, thickness: float) -> Solid:
    """As `prism_along`, of a rectangle (from, low, to, high): a stud, a plate, a joist."""
    return _standing(lambda: shapely.box(*box), box, origin, run, thickness)


def _standing(
    profile: Callable[[], BaseGeometry],
    bounds: tuple[float, float, float, float],
    origin: Point,
    run: Point,
    thickness: float,
) -> Solid:
    (x, y), (rx, ry), (s0, z0, s1, z1) = origin, run, bounds
    matrix = ((rx, 0.0, ry, x), (ry, 0.0, -rx, y), (0.0, 1.0, 0.0, 0.0))
    xs = [x + rx * s + ry * t for s in (s0, s1) for t in (0.0, thickness)]
    ys = [y + ry * s - rx * t for s in (s0, s1) for t in (0.0, thickness)]
    return _Extrusion(profile, thickness, matrix, Box(min(xs), min(ys), z0, max(xs), max(ys), z1))
