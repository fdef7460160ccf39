"""Roofs of a model: the slopes that are seen from above, put together to outlines with eaves and gables.

Knows no file and no house. Lengths in millimetres; a plane is z = a x + b y + c.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence

import numpy as np
import shapely
from numpy.typing import NDArray
from shapely import STRtree
from shapely.geometry import LineString, Polygon
from shapely.geometry import Point as Spot
from shapely.geometry.base import BaseGeometry
from shapely.geometry.polygon import orient

from deepsection.core.geometry import Point, polygons_of

from .found import FoundRoof, FoundRoofEdge, Slope
from .groups import Groups

STEEPEST, FLATTEST = 6.0, 0.02
"""Slopes rise so much per unit of length; what is steeper is a wall, what is flatter no slope."""
SAME_SLOPE, SAME_PLANE = 0.004, 3.0
"""Triangles are of one slope when its fall differs by no more, and its height there by no more (mm)."""
LEAST = 0.2e6
"""A smaller slope (mm2) is none: a cap, a saddle behind a chimney."""
CRACK = 30.0
"""Slopes that come this near to each other (mm) meet."""
GRID = 0.01
"""Areas are worked out on a grid so fine (mm)."""
STEP = 40.0
"""And their heights differ there by no more (mm)."""
HOLE = 4e6
"""Holes of no more (mm2) are of chimneys and windows."""
SMALL = 10e6
"""Smaller roofs (mm2) are those of dormers and porches."""
STRAIGHT = 15.0
"""A corner that lies so near (mm) to the line between its neighbours is none: slopes are drawn a little off."""
DOWN, ALONG = math.cos(math.radians(3)), math.sin(math.radians(3))


def slopes_of(bodies: Iterable[tuple[str, NDArray[np.float64], NDArray[np.int64]]]) -> list[Slope]:
    """The slopes among the upper sides of bodies (name, points, triangles), each in one piece."""
    held: list[tuple[float, float, float, list[tuple[str, BaseGeometry]]]] = []
    for name, points, triangles in bodies:
        corners = points[triangles]
        normals = np.cross(corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0])
        up = normals[:, 2] > 0.1 * np.linalg.norm(normals, axis=1)
        for triangle, (nx, ny, nz) in zip(corners[up], normals[up].tolist()):
            a, b = -nx / nz, -ny / nz
            x, y, z = triangle.mean(axis=0).tolist()
            if not FLATTEST <= math.hypot(a, b) <= STEEPEST:
                continue
            home = next(
                (
                    group
                    for group in held
                    if math.hypot(group[0] - a, group[1] - b) < SAME_SLOPE
                    and abs(group[0] * x + group[1] * y + group[2] - z) < SAME_PLANE
                ),
                None,
            )
            if home is None:
                home = a, b, z - a * x - b * y, []
                held.append(home)
            home[3].append((name, Polygon(triangle[:, :2])))
    found: list[Slope] = []
    for a, b, c, shapes in held:
        whole = shapely.union_all([shape.buffer(0) for _, shape in shapes], grid_size=GRID)
        # Boards and tiles beside each other are one slope.
        closed = whole.buffer(CRACK / 2, join_style="mitre").buffer(-CRACK / 2, join_style="mitre")
        # Widening and narrowing leaves corners beside corners, with which areas are not worked out well.
        for piece in polygons_of(shapely.set_precision(closed, GRID)):
            if piece.area > LEAST:
                of = frozenset(name for name, shape in shapes if shape.intersects(piece))
                found.append(Slope(piece, a, b, c, of))
    return _uppermost(found)


def _uppermost(slopes: Sequence[Slope]) -> list[Slope]:
    """Those that no other covers: sheathing lies under tiles."""
    tree = STRtree([slope.area for slope in slopes])
    found = []
    for k, slope in enumerate(slopes):
        spot = slope.area.representative_point()
        others = (slopes[n] for n in tree.query(spot, predicate="within").tolist() if n != k)
        over = (other for other in others if other.z(spot) > slope.z(spot))
        hidden = any(other.area.intersection(slope.area).area > 0.8 * slope.area.area for other in over)
        if not hidden:
            found.append(slope)
    return found


def roofs_of(slopes: Sequence[Slope]) -> tuple[list[FoundRoof], list[str]]:
    """Slopes that meet at one height, as roofs; and for the others why they are none, in words."""
    tree = STRtree([slope.area for slope in slopes])
    groups = Groups(len(slopes))
    for k, slope in enumerate(slopes):
        for n in tree.query(slope.area, predicate="dwithin", distance=CRACK).tolist():
            if n > k and _meet(slope, slopes[n]):
                groups.join(n, k)
    found: list[FoundRoof] = []
    said: list[str] = []
    small = 0
    for first in sorted({groups.of(k) for k in range(len(slopes))}):
        members = [slopes[k] for k in range(len(slopes)) if groups.of(k) == first]
        roof = _roof(members, slopes)
        if isinstance(roof, FoundRoof) and Polygon(roof.outline).area >= SMALL:
            found.append(roof)
        elif isinstance(roof, str) and sum(slope.area.area for slope in members) >= SMALL:
            said.append(roof)
        else:
            small += 1
    if small:
        what = "a small roof, such as of a dormer" if small == 1 else f"{small} small roofs, such as of dormers"
        said.append(f"{what}: not taken over, draw {'it' if small == 1 else 'them'} by hand")
    return sorted(found, key=lambda roof: -Polygon(roof.outline).area), said


def _meet(one: Slope, other: Slope) -> bool:
    """Whether two slopes touch along a line at which both are as high."""
    seam = one.area.buffer(CRACK).intersection(other.area.buffer(CRACK))
    if seam.area < CRACK * 150.0:
        return False
    spots = [seam.representative_point(), *(Spot(at) for piece in polygons_of(seam) for at in piece.exterior.coords)]
    near = sum(abs(one.z(spot) - other.z(spot)) < STEP + 2 * CRACK * (one.pitch + other.pitch) for spot in spots)
    return near > 0.7 * len(spots)


def _roof(members: list[Slope], slopes: Sequence[Slope]) -> FoundRoof | str:
    whole = shapely.union_all([slope.area.buffer(CRACK, join_style="mitre") for slope in members]).buffer(
        -CRACK, join_style="mitre"
    )
    pieces = list(polygons_of(whole))
    size = f"a roof of {sum(slope.area.area for slope in members) / 1e6:,.0f} m² in plan"
    if len(pieces) != 1:
        return f"{size}: its slopes do not hang together"
    if any(_court(Polygon(ring), slopes) for ring in pieces[0].interiors):
        return f"{size}: it has a court"
    ring = _straightened([(float(x), float(y)) for x, y in orient(pieces[0]).exterior.coords[:-1]])
    wings = _wings(members)
    edges = []
    for a, b in zip(ring, [*ring[1:], ring[0]]):
        edge = _edge(a, b, members)
        if edge is None and wings:
            return FoundRoof(tuple(ring), (), tuple(members), wings)
        if edge is None:
            at = f"{(a[0] + b[0]) / 2000:,.1f}, {(a[1] + b[1]) / 2000:,.1f} m"
            return f"{size}: its edge at {at} is neither an eave nor a gable"
        edges.append(edge)
    if not any(edge.kind == "eave" for edge in edges):
        return f"{size}: it has no eave"
    return FoundRoof(tuple(ring), tuple(edges), tuple(members), wings)


def _court(hole: Polygon, slopes: Sequence[Slope]) -> bool:
    """Whether a hole in a roof goes to the ground: it is not that of a chimney or a window, nor covered by a dormer."""
    covered = sum(float(slope.area.intersection(hole).area) for slope in slopes)
    return bool(hole.area > HOLE) and covered < 0.5 * hole.area


def _wings(members: Sequence[Slope]) -> tuple[FoundRoof, ...]:
    """The roofs of two slopes against each other of which a roof consists; none where there is another slope."""
    free = sorted(members, key=lambda slope: -slope.area.area)
    found = []
    while free:
        one = free.pop(0)
        other = next((slope for slope in free if _against(one, slope)), None)
        if other is None:
            return ()
        free.remove(other)
        found.append(_wing(one, other))
    return tuple(sorted(found, key=lambda wing: -Polygon(wing.outline).area)) if len(found) > 1 else ()


def _against(one: Slope, other: Slope) -> bool:
    """Whether two slopes fall away from one ridge."""
    facing = (one.a * other.a + one.b * other.b) / one.pitch / other.pitch
    if facing > -DOWN:
        return False
    seam = one.area.buffer(CRACK).intersection(other.area.buffer(CRACK))
    return bool(seam.area > CRACK * 600.0) and _meet(one, other)


def _wing(one: Slope, other: Slope) -> FoundRoof:
    """Two slopes as a roof over a rectangle: eaves along, gables across, or ends that run into what lies there."""
    ux, uy = one.b / one.pitch, -one.a / one.pitch  # Along the ridge; `one` falls to the left of it or to the right.
    corners = shapely.get_coordinates([one.area, other.area])
    along, across = corners @ np.array((ux, uy)), corners @ np.array((-uy, ux))
    s0, s1, c0, c1 = (float(v) for v in (along.min(), along.max(), across.min(), across.max()))
    whole = shapely.union_all([one.area.buffer(CRACK), other.area.buffer(CRACK)])

    def at(s: float, c: float) -> Point:
        return s * ux - c * uy, s * uy + c * ux

    def closed(s: float) -> bool:
        ends = whole.intersection(LineString((at(s, c0), at(s, c1))).buffer(CRACK / 2))
        return bool(ends.area > 0.9 * CRACK * (c1 - c0))

    # An end that runs into another roof begins where its eaves do: from there on it goes as far as that other lets it.
    eaves = along[(across < c0 + CRACK) | (across > c1 - CRACK)]
    first, last = closed(s0), closed(s1)
    s0, s1 = s0 if first else float(eaves.min()), s1 if last else float(eaves.max())
    ring = at(s0, c0), at(s1, c0), at(s1, c1), at(s0, c1)
    edges = []
    for k, (a, b) in enumerate(zip(ring, (*ring[1:], ring[0]))):
        middle = Spot((a[0] + b[0]) / 2, (a[1] + b[1]) / 2)
        if k % 2 == 0:
            slope = min((one, other), key=lambda held: held.z(middle))
            edges.append(FoundRoofEdge("eave", slope.pitch, slope.z(middle)))
        else:
            ends = last if k == 1 else first
            edges.append(FoundRoofEdge("gable" if ends else "joined", None, max(one.z(middle), other.z(middle))))
    return FoundRoof(ring, tuple(edges), (one, other))


def _straightened(ring: list[Point]) -> list[Point]:
    """A ring without corners that are none, and without the small steps of caps and tiles."""
    changed = True
    while changed and len(ring) > 3:
        changed = False
        for k in range(len(ring)):
            before, at, after = ring[k - 1], ring[k], ring[(k + 1) % len(ring)]
            away = LineString((before, after)).distance(Spot(at)) if before != after else 0.0
            if away < STRAIGHT:
                ring = ring[:k] + ring[k + 1 :]
                changed = True
                break
    return ring


def _edge(a: Point, b: Point, members: list[Slope]) -> FoundRoofEdge | None:
    """What an edge of an outline is, by how the slopes fall beside it; none where that is neither along nor across."""
    long = math.dist(a, b)
    out = (b[1] - a[1]) / long, -(b[0] - a[0]) / long
    inside = min(2 * CRACK, long / 4)
    beside: list[Slope] = []
    for share in (0.1, 0.3, 0.5, 0.7, 0.9):
        spot = Spot(a[0] + (b[0] - a[0]) * share - out[0] * inside, a[1] + (b[1] - a[1]) * share - out[1] * inside)
        near = min(members, key=lambda slope: slope.area.distance(spot))
        if near.area.distance(spot) < 2 * CRACK and near not in beside:
            beside.append(near)
    if not beside:
        return None
    falls = [-(slope.a * out[0] + slope.b * out[1]) / slope.pitch for slope in beside]
    middle = Spot((a[0] + b[0]) / 2, (a[1] + b[1]) / 2)
    if len(beside) == 1 and falls[0] > DOWN:
        return FoundRoofEdge("eave", beside[0].pitch, beside[0].z(middle))
    if all(abs(fall) < ALONG for fall in falls) or (len(beside) == 1 and falls[0] < -DOWN):
        return FoundRoofEdge("gable", None, max(slope.z(middle) for slope in beside))
    return None
