"""How windows and doors open, as elevations show it: the apex at the hinge side, arrows for what slides.

Solid lines open towards the viewer, dashed ones away from him: common practice, no source.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Sequence
from functools import lru_cache

import shapely
from shapely.geometry import Polygon

from ..drawing import Handle, Mark, Stroke, path
from ..geometry import Frame, Point
from ..resolve import ROLES, Building, Leaf, PlacedOpening, unit_leaves
from .faces import Face

FACING = -0.2
"""Openings that turn away from the viewer by more (cosine) show no symbol."""
ARROW = 60.0
"""Length of the barbs of an arrow (mm)."""


def opening_symbols(building: Building, faces: Iterable[Face], frame: Frame) -> list[Mark]:
    """Symbols of the openings that are seen, clipped to what is seen of their leaves."""
    seen: dict[str, list[Polygon]] = defaultdict(list)
    for face in faces:
        if ROLES[face.part.role].opens:
            seen[face.part.element].append(face.polygon)
    marks: list[Mark] = []
    for wall in building.plan.walls:
        for placed in building.openings[wall.wall.id]:
            stand = wall.stand(placed.centre)
            facing = stand.out[0] * frame.dx + stand.out[1] * frame.dy
            if placed.opening.id not in seen or facing > FACING:
                continue
            x, y = stand.at(0.0, placed.face)
            u0, du = x * frame.ux + y * frame.uy, stand.run[0] * frame.ux + stand.run[1] * frame.uy
            marks += _of_unit(placed, tuple(seen[placed.opening.id]), u0, du)
    return marks


@lru_cache(maxsize=2000)
def _of_unit(placed: PlacedOpening, seen: tuple[Polygon, ...], u0: float, du: float) -> tuple[Mark, ...]:
    """The symbols of an opening whose wall starts at u0 and advances by du, clipped to what is seen of it."""
    marks: list[Mark] = []
    area = shapely.union_all(seen)
    pen = "hidden" if placed.opening.swing == "in" else "fine"
    for leaf in unit_leaves(placed):
        for line in _lines(placed, leaf):
            drawn = [(u0 + along * du, z) for along, z in line]
            hinged = leaf.action in ("start", "end", "top")
            marks += _clipped(drawn, area, placed, pen if hinged else "fine")
    return tuple(marks)


def _lines(placed: PlacedOpening, leaf: Leaf) -> list[list[Point]]:
    """The symbol of a leaf, as lines of (distance along the wall, z)."""
    a, b, c, d = leaf.left, leaf.low, leaf.right, leaf.high
    if leaf.action == "fixed" and placed.design.arch and leaf.high > placed.head.total - placed.design.arch:
        return []
    middle = ((a + c) / 2, (b + d) / 2)
    if leaf.action == "start":
        return [[(c, d), (a, middle[1]), (c, b)]]
    if leaf.action == "end":
        return [[(a, d), (c, middle[1]), (a, b)]]
    if leaf.action == "top":
        return [[(a, b), (middle[0], d), (c, b)]]
    ways: dict[str, Point] = {"along": (1.0, 0.0), "back": (-1.0, 0.0), "up": (0.0, 1.0), "down": (0.0, -1.0)}
    return _arrow(middle, ways[leaf.action], min(c - a, d - b) * 0.25) if leaf.action in ways else []


def _arrow(middle: Point, way: Point, reach: float) -> list[list[Point]]:
    (x, y), (dx, dy) = middle, way
    tail, tip = (x - dx * reach, y - dy * reach), (x + dx * reach, y + dy * reach)
    barb = min(ARROW, reach)
    sides = [
        (tip[0] - dx * barb - sign * dy * barb / 2, tip[1] - dy * barb + sign * dx * barb / 2) for sign in (-1.0, 1.0)
    ]
    return [[tail, tip], [sides[0], tip, sides[1]]]


def _clipped(line: Sequence[Point], area: shapely.Geometry, placed: PlacedOpening, pen: str) -> list[Mark]:
    found: list[Mark] = []
    for piece in shapely.get_parts(shapely.line_merge(shapely.LineString(line).intersection(area))):
        if piece.geom_type == "LineString" and piece.length > 1.0:
            found.append(
                Stroke(
                    path(*piece.coords),
                    pen,
                    part=f"{placed.opening.id}/leaf//",
                    feature="opens",
                    handle=Handle("move_opening", placed.opening.id, "distance", "along"),
                )
            )
    return found
