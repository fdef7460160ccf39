"""Stage 2: walls in plan. Joins are solved here, per layer; solids never decide them."""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Iterator
from dataclasses import replace
from functools import lru_cache
from itertools import combinations

import shapely
from shapely.geometry import LineString, MultiPolygon, Polygon
from shapely.ops import polygonize, unary_union

from ..geometry import Line, Point, line_through, offset_line, polygons_of
from ..model import FreeJoint, HostedJoint, Joint, MakeUp, Project, Wall
from ..model.places import wall_points
from ..tolerance import TOL
from ._joins import Arm, Cap, corner_caps, square_cap, tee_cap
from .building import Diagnostic, Outline, PlannedLayer, PlannedWall, WallPlan

Bands = tuple[tuple[str, float, float, bool], ...]
"""Layers as (id, outer, inner, is structure), distances outward from the set-out line."""


SMALLEST_SPACE = 1e4
"""Free spaces smaller than this (mm2) are no rooms."""


Ends = tuple[Point, Point]
"""Start and end of the set-out line of a wall."""


@lru_cache(maxsize=64)
def plan_walls(walls: tuple[Wall, ...], joints: tuple[Joint, ...], make_ups: tuple[MakeUp, ...]) -> WallPlan:
    """Every wall with its layers in plan, outlines, free spaces, and what is wrong with them; each storey by itself."""
    document = Project.model_construct(walls=walls, joints=joints)
    groups: dict[str, list[Wall]] = defaultdict(list)
    for wall in walls:
        groups[wall.base.level].append(wall)
    plans = []
    for group in groups.values():
        used = {id for wall in group for id in (wall.start, wall.end)}
        ends = tuple(wall_points(document, wall) for wall in group)
        plans.append(_storey(tuple(group), ends, tuple(joint for joint in joints if joint.id in used), make_ups))
    return WallPlan(
        tuple(wall for plan in plans for wall in plan.walls),
        tuple(outline for plan in plans for outline in plan.outlines),
        tuple(found for plan in plans for found in plan.diagnostics),
    )


@lru_cache(maxsize=128)
def _storey(
    walls: tuple[Wall, ...], ends: tuple[Ends, ...], joints: tuple[Joint, ...], make_ups: tuple[MakeUp, ...]
) -> WallPlan:
    """The walls that stand on one level."""
    held = {make_up.id: make_up for make_up in make_ups}
    bands = {wall.id: layer_bands(wall, held[wall.make_up]) for wall in walls}
    planned = join_strips(walls, joints, bands, {wall.id: held for wall, held in zip(walls, ends)})
    return WallPlan(planned, tuple(_outlines(planned)), tuple(_crossings(planned, joints)))


def _outlines(planned: tuple[PlannedWall, ...]) -> Iterator[Outline]:
    outer = {wall.wall.id: wall for wall in planned if wall.wall.status == "outer"}
    lines = {id: LineString([wall.start, wall.end]) for id, wall in outer.items()}
    rings = list(polygonize(unary_union(list(lines.values())))) if lines else []
    # Walls that only touch leave a hairline between them; a hundredth of a millimetre closes it.
    footprint = shapely.union_all([wall.footprint.buffer(TOL.point, join_style="mitre") for wall in planned])
    along = [
        tuple(id for id, line in lines.items() if line.intersection(ring.exterior).length > line.length * TOL.shared)
        for ring in rings
    ]
    for ring, walls in zip(rings, along):
        own = [id for id in walls if sum(id in others for others in along) == 1]
        spaces = tuple(polygons_of(ring.difference(footprint), min_area=SMALLEST_SPACE))
        named = outer[(own or walls)[0]].wall
        yield Outline(named.id, named.base.level, named.top.level, ring, spaces, walls)


def layer_bands(wall: Wall, make_up: MakeUp) -> Bands:
    """The layers of a wall as distances outward from its set-out line."""
    reached, faces = 0.0, []
    set_out = 0.0
    for layer in make_up.layers:
        if layer.id == wall.set_out.layer:
            share = {"outer": 0.0, "middle": 0.5, "inner": 1.0}[wall.set_out.face]
            set_out = reached + share * layer.thickness
        faces.append((layer.id, reached, reached + layer.thickness, layer.function == "structure"))
        reached += layer.thickness
    shift = set_out + wall.offset
    return tuple((id, shift - outer, shift - inner, structure) for id, outer, inner, structure in faces)


def join_strips(
    walls: tuple[Wall, ...], joints: tuple[Joint, ...], bands: dict[str, Bands], points: dict[str, Ends]
) -> tuple[PlannedWall, ...]:
    """Strips of any bands along walls, joined where they meet. Used for walls, stem walls and footings.

    A joint on a wall that is not among these is a corner like any other.
    """
    walls = tuple(wall for wall in walls if math.dist(*points[wall.id]) > 1.0)
    by_id, by_joint = {wall.id: wall for wall in walls}, {joint.id: joint for joint in joints}
    meeting: dict[str, list[Arm]] = defaultdict(list)
    for wall in walls:
        start, end = points[wall.id]
        for at, here, there, which in ((wall.start, start, end, "start"), (wall.end, end, start, "end")):
            meeting[at].append(_arm(wall, which, line_through(here, there), bands[wall.id]))
    caps: dict[tuple[str, str], Cap] = {}
    for id, arms in meeting.items():
        joint = by_joint[id]
        if joint.join == "off":
            caps.update({(arm.wall, arm.end): square_cap(arm) for arm in arms})
        elif isinstance(joint, HostedJoint) and joint.wall in by_id:
            host = by_id[joint.wall]
            caps.update({(arm.wall, arm.end): _tee(arm, host, points[host.id], bands[host.id]) for arm in arms})
        else:
            caps.update(corner_caps(arms))
    planned = {wall.id: _strip(wall, points[wall.id], bands[wall.id], caps) for wall in walls}
    return tuple(_cut_by_tees(planned[wall.id], planned, by_joint, bands) for wall in walls)


def _frame_faces(bands: Bands) -> tuple[float, float]:
    frames = [(outer, inner) for _, outer, inner, structure in bands if structure]
    return (frames[0][0], frames[-1][1]) if frames else (bands[0][1], bands[-1][2])


def _lefts(wall: Wall, outer: float, inner: float) -> tuple[float, float]:
    """Distances to the left of start-to-end: (left, right)."""
    return (outer, inner) if wall.outside == "left" else (-inner, -outer)


def _arm(wall: Wall, end: str, line: Line, bands: Bands) -> Arm:
    left, right = _lefts(wall, bands[0][1], bands[-1][2])
    frame_left, frame_right = _lefts(wall, *_frame_faces(bands))
    if end == "end":
        left, right, frame_left, frame_right = -right, -left, -frame_right, -frame_left
    leaves = sum(structure for *_, structure in bands)
    return Arm(wall.id, end, line, left, right, frame_left, frame_right, leaves)


def _tee(arm: Arm, host: Wall, points: tuple[Point, Point], bands: Bands) -> Cap:
    faces = _lefts(host, bands[0][1], bands[-1][2])
    return tee_cap(arm, line_through(*points), faces, _lefts(host, *_frame_faces(bands)))


def _strip(wall: Wall, points: tuple[Point, Point], bands: Bands, caps: dict[tuple[str, str], Cap]) -> PlannedWall:
    line = line_through(*points)
    length = math.dist(*points)
    sign = 1.0 if wall.outside == "left" else -1.0
    start, end = caps[wall.id, "start"], caps[wall.id, "end"]
    frame = _between(start.frame, end.frame)
    skin = _between(start.skin, end.skin)
    layers = []
    for id, outer, inner, structure in bands:
        reach = 20 * (bands[0][1] - bands[-1][2]) + 1000.0
        far = [offset_line(line, sign * outer), offset_line(line, sign * inner)]
        strip = Polygon([far[0].at(-reach), far[0].at(length + reach), far[1].at(length + reach), far[1].at(-reach)])
        whole = max(
            polygons_of(strip.intersection(frame if structure else skin)), key=lambda p: p.area, default=Polygon()
        )
        layers.append(PlannedLayer(id, outer, inner, whole, whole))
    return PlannedWall(
        wall, points[0], points[1], (line.dx, line.dy), (-sign * line.dy, sign * line.dx), length, tuple(layers), skin
    )


def _between(start: tuple[Point, ...], end: tuple[Point, ...]) -> Polygon:
    """The area from one cap (left to right, looking in) to the other one."""
    polygon = Polygon([*start, *end])
    return polygon if polygon.is_valid else shapely.convex_hull(polygon)


def _cut_by_tees(
    host: PlannedWall, planned: dict[str, PlannedWall], joints: dict[str, Joint], bands: dict[str, Bands]
) -> PlannedWall:
    """A host gives way, in the layers around its structure, to the structure of walls that stand on it."""
    guests = [
        layer.polygon
        for guest in planned.values()
        for joint in (joints[guest.wall.start], joints[guest.wall.end])
        if isinstance(joint, HostedJoint) and joint.wall == host.wall.id and joint.join == "clean"
        for layer, band in zip(guest.layers, bands[guest.wall.id])
        if band[3]
    ]
    if not guests:
        return host
    taken = unary_union(guests)
    layers = tuple(
        layer if band[3] else replace(layer, polygon=_pieces(layer.polygon.difference(taken)))
        for layer, band in zip(host.layers, bands[host.wall.id])
    )
    return replace(host, layers=layers)


def _pieces(shape: shapely.Geometry) -> Polygon | MultiPolygon:
    """A polygon, or all pieces of it when a tee parts a layer."""
    pieces = list(polygons_of(shape))
    return pieces[0] if len(pieces) == 1 else MultiPolygon(pieces)


def _crossings(planned: tuple[PlannedWall, ...], joints: tuple[Joint, ...]) -> list[Diagnostic]:
    found = []
    free = {joint.id for joint in joints if isinstance(joint, FreeJoint)}
    for first, second in combinations(planned, 2):
        shared = {first.wall.start, first.wall.end} & {second.wall.start, second.wall.end} & free
        crossing = LineString([first.start, first.end]).intersection(LineString([second.start, second.end]))
        if crossing.is_empty:
            continue
        if crossing.geom_type == "Point":
            ends = [
                math.dist((crossing.x, crossing.y), point)
                for point in (first.start, first.end, second.start, second.end)
            ]
            if shared or min(ends) < TOL.point * 100:
                continue
            at = (crossing.x, crossing.y)
            message = "these two walls cross each other; end one on the other instead"
        else:
            if crossing.length < 1.0:
                continue
            at = (crossing.centroid.x, crossing.centroid.y)
            message = "these two walls lie on top of each other"
        found.append(
            Diagnostic("walls-cross", message, "blocking", first.wall.id, "line", others=(second.wall.id,), at=at)
        )
    return found
