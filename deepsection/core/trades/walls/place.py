"""Stage: walls in plan. Joins are solved here, per layer; solids never decide them."""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Iterator
from dataclasses import replace
from functools import lru_cache

import shapely
from shapely.geometry import LineString, Polygon
from shapely.ops import polygonize, unary_union

from ...building.diagnostics import Diagnostic
from ...geometry import Axis, Point, largest, polygons_of
from ...model import Bands, FreeJoint, Joint, MakeUp, Project, TeeJoint, Wall, layer_bands, outline_reach
from ...model.places import wall_axis
from ...tolerance import TOL
from .joins import SMOOTH, Arm, Cap, corner_caps, on_corner, square_cap, tee_cap
from .planned import Outline, PlannedLayer, PlannedWall, WallPlan
from .shapes import PLUMB, end_drift, outline_area, shape_faults, skew_axis
from .tees import cut_by_tees, pieces

SMALLEST_SPACE = 1e4
"""Free spaces smaller than this (mm2) are no rooms."""


SIDE = 5.0
"""What a wall is cut to at its ends reaches this far past its faces (mm), which bound it by themselves."""


@lru_cache(maxsize=64)
def plan_walls(walls: tuple[Wall, ...], joints: tuple[Joint, ...], make_ups: tuple[MakeUp, ...]) -> WallPlan:
    """Every wall with its layers in plan, outlines, free spaces, and what is wrong with them; each storey by itself."""
    document = Project.model_construct(walls=walls, joints=joints)
    groups: dict[tuple[str, bool], list[Wall]] = defaultdict(list)
    for wall in walls:
        groups[wall.base.level, wall.base.on_roof].append(wall)
    plans = []
    for group in groups.values():
        used = {id for wall in group for id in (wall.start, wall.end)}
        axes = tuple(wall_axis(document, wall) for wall in group)
        plans.append(_storey(tuple(group), axes, tuple(joint for joint in joints if joint.id in used), make_ups))
    return WallPlan(
        tuple(wall for plan in plans for wall in plan.walls),
        tuple(outline for plan in plans for outline in plan.outlines),
        tuple(found for plan in plans for found in plan.diagnostics),
    )


@lru_cache(maxsize=128)
def _storey(
    walls: tuple[Wall, ...], axes: tuple[Axis, ...], joints: tuple[Joint, ...], make_ups: tuple[MakeUp, ...]
) -> WallPlan:
    """The walls that stand on one level."""
    held = {make_up.id: make_up for make_up in make_ups}
    bands = {wall.id: layer_bands(wall, held[wall.make_up]) for wall in walls}
    planned = join_strips(walls, joints, bands, {wall.id: held for wall, held in zip(walls, axes)})
    faults = (*_crossings(planned, joints), *_tight(planned), *_short(planned), *shape_faults(planned, held))
    return WallPlan(planned, tuple(_outlines(planned)), faults)


@lru_cache(maxsize=4096)
def _closed_up(wall: PlannedWall) -> Polygon:
    return wall.footprint.buffer(TOL.point, join_style="mitre")


def _outlines(planned: tuple[PlannedWall, ...]) -> Iterator[Outline]:
    outer = {wall.wall.id: wall for wall in planned if wall.wall.status == "outer"}
    lines = {id: _chords(wall.axis) for id, wall in outer.items()}
    rings = list(polygonize(shapely.unary_union(list(lines.values()), grid_size=TOL.node))) if lines else []
    # Walls that only touch leave a hairline between them; a hundredth of a millimetre closes it.
    around = shapely.union_all([_closed_up(wall) for wall in planned if wall.wall.id in outer])
    within = [_closed_up(wall) for wall in planned if wall.wall.id not in outer]
    parting = unary_union(within) if not within or _any_meet(within) else shapely.multipolygons(within)
    edges = [ring.exterior.buffer(TOL.point) for ring in rings]
    along = [
        tuple(id for id, line in lines.items() if line.intersection(edge).length > line.length * TOL.shared)
        for edge in edges
    ]
    for ring, walls in zip(rings, along):
        if not walls:
            continue  # A sliver between walls that cross: that is said of them.
        own = [id for id in walls if sum(id in others for others in along) == 1]
        spaces = tuple(polygons_of(ring.difference(around).difference(parting), min_area=SMALLEST_SPACE))
        named = outer[(own or walls)[0]].wall
        yield Outline(named.id, named.base.level, named.top.level, ring, spaces, walls)


def _any_meet(shapes: list[Polygon]) -> bool:
    pairs = shapely.STRtree(shapes).query(shapes, predicate="intersects")
    return len(pairs[0]) > len(shapes)


def join_strips(
    walls: tuple[Wall, ...], joints: tuple[Joint, ...], bands: dict[str, Bands], axes: dict[str, Axis]
) -> tuple[PlannedWall, ...]:
    """Strips of any bands along walls, joined where they meet. Used for walls, stem walls and footings.

    A joint on a wall that is not among these is a corner like any other.
    """
    walls = tuple(wall for wall in walls if axes[wall.id].chord > 1.0)
    by_id, by_joint = {wall.id: wall for wall in walls}, {joint.id: joint for joint in joints}
    meeting: dict[str, list[Arm]] = defaultdict(list)
    ends: dict[str, list[Wall]] = defaultdict(list)
    for wall in walls:
        for at, which in ((wall.start, "start"), (wall.end, "end")):
            ends[at].append(wall)
            if not wall.outline:
                meeting[at].append(_arm(wall, which, axes[wall.id], bands[wall.id]))
    caps: dict[tuple[str, str], Cap] = {}
    hosts: list[tuple[str, str]] = []
    outer = frozenset(wall.id for wall in walls if wall.status == "outer")
    for id, arms in meeting.items():
        joint = by_joint[id]
        host = by_id.get(joint.wall) if isinstance(joint, TeeJoint) else None
        if joint.join == "apart":
            caps.update({(arm.wall, arm.end): square_cap(arm) for arm in arms})
        elif host is not None and not host.outline:
            held = _arm(host, "start", axes[host.id], bands[host.id])
            caps.update({(arm.wall, arm.end): _tee(arm, held) for arm in arms})
        else:
            ending = on_corner(arms, outer)
            meeting_there = [arm for arm in arms if all(arm is not one for one, _ in ending)]
            caps.update(corner_caps(meeting_there, joint.through if isinstance(joint, FreeJoint) else None))
            caps.update({(arm.wall, arm.end): _tee(arm, held) for arm, held in ending})
            hosts += [(held.wall, arm.wall) for arm, held in ending]

    def drifts(wall: Wall) -> tuple[Point, Point]:
        found = []
        for at in (wall.start, wall.end):
            joint = by_joint[at]
            host = by_id.get(joint.wall) if isinstance(joint, TeeJoint) else None
            others = [other for other in (*((host,) if host else ()), *ends[at]) if other.id != wall.id]
            met = [(other, axes[other.id]) for other in others] if joint.join == "joined" else []
            found.append(end_drift(wall, axes[wall.id], met))
        return found[0], found[1]

    leaning = any(wall.lean for wall in walls)
    planned = {}
    for wall in walls:
        id, axis = wall.id, axes[wall.id]
        if wall.outline:
            planned[id] = _outlined(wall, axis, bands[id])
        else:
            moved = drifts(wall) if leaning else PLUMB
            planned[id] = _strip(wall, axis, bands[id], caps[id, "start"], caps[id, "end"], moved)
    guests: dict[str, list[PlannedWall]] = defaultdict(list)
    for wall in walls:
        for joint in (by_joint[wall.start], by_joint[wall.end]):
            if isinstance(joint, TeeJoint) and joint.join == "joined":
                guests[joint.wall].append(planned[wall.id])
    for host_id, guest in hosts:
        guests[host_id].append(planned[guest])
    joined = tuple(cut_by_tees(planned[wall.id], guests[wall.id], bands) for wall in walls)
    outlined = [planned[wall.id] for wall in walls if wall.outline]
    return tuple(_give_way(wall, outlined) for wall in joined) if outlined else joined


def _outlined(wall: Wall, axis: Axis, bands: Bands) -> PlannedWall:
    """A wall with an outline of its own; bands that reach farther out make it so much wider all around."""
    id, outer, inner = bands[0][:3]
    area = outline_area(wall, axis, outer - outline_reach(wall)[0])
    area = area if area.is_valid else largest(area.buffer(0))
    return PlannedWall(wall, axis, (PlannedLayer(id, outer, inner, area, area),), area)


def _give_way(wall: PlannedWall, outlined: list[PlannedWall]) -> PlannedWall:
    """What meets a wall with an outline of its own ends on it."""
    if wall.wall.outline or not any(wall.footprint.intersects(other.footprint) for other in outlined):
        return wall
    taken = unary_union([other.footprint for other in outlined])
    layers = tuple(
        replace(layer, polygon=pieces(layer.polygon.difference(taken)), whole=largest(layer.whole.difference(taken)))
        for layer in wall.layers
    )
    return replace(wall, layers=layers, footprint=largest(wall.footprint.difference(taken)))


def _frame_faces(bands: Bands) -> tuple[float, float]:
    frames = [(band.outer, band.inner) for band in bands if band.structure]
    return (frames[0][0], frames[-1][1]) if frames else (bands[0].outer, bands[-1].inner)


def _bearing(bands: Bands) -> int:
    """Position of the layer that carries."""
    return next((i for i, band in enumerate(bands) if band.bears), 0)


def _lefts(wall: Wall, outer: float, inner: float) -> tuple[float, float]:
    """Distances to the left of start-to-end: (left, right)."""
    return (outer, inner) if wall.outside == "left" else (-inner, -outer)


_tee = lru_cache(maxsize=8192)(tee_cap)


@lru_cache(maxsize=8192)
def _arm(wall: Wall, end: str, axis: Axis, bands: Bands) -> Arm:
    """A wall as it goes out from one of its ends; `axis` runs from its start to its end."""
    left, right = _lefts(wall, bands[0].outer, bands[-1].inner)
    frame_left, frame_right = _lefts(wall, *_frame_faces(bands))
    skew, inside_left = skew_axis(wall, axis, bands[_bearing(bands)].inner), wall.outside == "right"
    if end == "end":
        left, right, frame_left, frame_right = -right, -left, -frame_right, -frame_left
        axis, skew, inside_left = axis.reversed(), skew.reversed() if skew else None, not inside_left
    leaves = sum(band.structure for band in bands)
    mitred = bool(wall.batter_outer or wall.batter_inner or wall.lean)
    return Arm(wall.id, end, axis, left, right, frame_left, frame_right, mitred, leaves, skew, inside_left)


@lru_cache(maxsize=4096)
def _strip(
    wall: Wall, axis: Axis, bands: Bands, start: Cap, end: Cap, drifts: tuple[Point, Point] = PLUMB
) -> PlannedWall:
    sign = 1.0 if wall.outside == "left" else -1.0
    left, right = _lefts(wall, bands[0].outer, bands[-1].inner)
    frame = _between(axis, start.frame, end.frame, left, right)
    skin = _between(axis, start.skin, end.skin, left, right)
    ends = tuple(axis.along(point) for cap in (start, end) for point in (*cap.skin, *cap.frame))
    first, last = _reach(axis, ends, left - right)
    bearing = _bearing(bands)
    skew = skew_axis(wall, axis, bands[bearing].inner)
    if skew:
        first, last = min(ends) - SIDE, max(ends) + SIDE

    def piece(outer: float, inner: float, within: Polygon, lines: tuple[Axis, Axis]) -> Polygon:
        if skew:
            along = [
                (line.at(first, sign * face), line.at(last, sign * face)) for line, face in zip(lines, (outer, inner))
            ]
            band = Polygon([*along[0], *reversed(along[1])])
            return largest(band.intersection(within)) if band.is_valid else Polygon()
        strip = axis.strip(first, last, sign * outer, sign * inner, ends if axis.is_arc else ())
        return largest(shapely.intersection(strip, within, grid_size=TOL.node))

    layers = []
    for position, (id, outer, inner, structure, _) in enumerate(bands):
        lines = (skew if skew and position > bearing else axis, skew if skew and position >= bearing else axis)
        whole = piece(outer, inner, frame if structure else skin, lines)
        if skew:
            outer = max(outer, outer + wall.taper) if position > bearing else outer
            inner = min(inner, inner + wall.taper) if position >= bearing else inner
        layers.append(PlannedLayer(id, outer, inner, whole, whole))
    footprint = piece(bands[0].outer, bands[-1].inner, skin, (axis, axis)) if axis.is_arc else skin
    return PlannedWall(wall, axis, tuple(layers), footprint, drifts)


def _reach(axis: Axis, ends: tuple[float, ...], thickness: float) -> tuple[float, float]:
    """From-to distances along that hold all of a wall; an arc must not come round to itself."""
    if axis.is_arc:
        return min(ends) - 1.0, max(ends) + 1.0
    reach = 20 * thickness + 1000.0
    return -reach, axis.length + reach


def _between(axis: Axis, start: tuple[Point, ...], end: tuple[Point, ...], left: float, right: float) -> Polygon:
    """The area from one cap (left to right, looking in) to the other one; along an arc, past its faces."""
    ring = [*start, *end]
    if axis.is_arc:
        there = axis.points(axis.along(start[-1]), axis.along(end[0]), right - SIDE)
        back = axis.points(axis.along(start[0]), axis.along(end[-1]), left + SIDE)
        ring = [*start, *there, *end, *reversed(back)]
    polygon = Polygon(ring)
    return polygon if polygon.is_valid else shapely.convex_hull(polygon)


def _tight(planned: tuple[PlannedWall, ...]) -> Iterator[Diagnostic]:
    """Arcs whose inner face would turn inside out."""
    for wall in planned:
        reach = max(wall.side * wall.axis.turn * face for face in (wall.outer, wall.inner))
        if wall.axis.is_arc and wall.axis.radius() - reach < SIDE:
            message = "the radius of this arc is less than the wall is thick on its hollow side; give it a wider one"
            least, radius = reach + SIDE, wall.axis.radius()
            at = wall.axis.at(wall.length / 2)
            yield Diagnostic("arc-too-tight", message, wall.wall.id, "radius", radius, least, at=at)


def _short(planned: tuple[PlannedWall, ...]) -> Iterator[Diagnostic]:
    """Walls that are thicker than they are long; a piece that runs on in another one may be short."""
    ending: dict[str, list[PlannedWall]] = defaultdict(list)
    for wall in planned:
        for joint in (wall.wall.start, wall.wall.end):
            ending[joint].append(wall)

    def runs_on(wall: PlannedWall) -> bool:
        (dx, dy) = wall.run
        beside = (other for joint in (wall.wall.start, wall.wall.end) for other in ending[joint] if other is not wall)
        return any(abs(dx * other.run[1] - dy * other.run[0]) < TOL.parallel * 1e3 for other in beside)

    for wall in planned:
        thick = wall.outer - wall.inner
        if wall.length < thick and not wall.wall.outline and not runs_on(wall):
            message = "this wall is shorter than it is thick: make it longer, or draw it by its outline"
            at = wall.at(wall.length / 2)
            yield Diagnostic("wall-too-short", message, wall.wall.id, "length", wall.length, thick, at=at)


def _crossings(planned: tuple[PlannedWall, ...], joints: tuple[Joint, ...]) -> list[Diagnostic]:
    found = []
    free = {joint.id for joint in joints if isinstance(joint, FreeJoint)}
    lines = [_chords(wall.axis) for wall in planned]
    near = shapely.STRtree(lines).query(lines, predicate="dwithin", distance=SHARED) if lines else ((), ())
    for i, j in sorted(pair for pair in zip(*near) if pair[0] < pair[1]):
        first, second = planned[i], planned[j]
        shared = {first.wall.start, first.wall.end} & {second.wall.start, second.wall.end} & free
        complaint = _crossing(first.axis, second.axis, bool(shared))
        if complaint:
            message, at = complaint
            others = (second.wall.id,)
            found.append(Diagnostic("walls-cross", message, first.wall.id, "line", others=others, at=at))
    return found


@lru_cache(maxsize=8192)
def _crossing(first: Axis, second: Axis, shared: bool) -> tuple[str, Point] | None:
    """What is wrong where the lines of two walls meet, and where; None when they meet at ends."""
    if on_top := _shared_stretch(first, second):
        return "these two walls lie on top of each other", on_top
    ends = (first.start, first.end, second.start, second.end)
    for piece in shapely.get_parts(_chords(first).intersection(_chords(second))):
        if piece.is_empty:
            continue
        if piece.geom_type != "Point" and piece.length >= 1.0:
            return "these two walls lie on top of each other", (piece.centroid.x, piece.centroid.y)
        at = (piece.centroid.x, piece.centroid.y)
        apart = min(math.dist(at, end) for end in ends)
        straight = not (first.is_arc or second.is_arc)
        if not (shared and straight) and apart > TOL.chord + TOL.point * 100:
            return "these two walls cross each other; end one on the other instead", at
    return None


SHARED = 1.0
"""Straight walls lie on each other when they do over more than this (mm), this close to each other."""


def _shared_stretch(first: Axis, second: Axis) -> Point | None:
    """The middle of what two straight walls share, however their corners are rounded; None when nothing."""
    if first.is_arc or second.is_arc:
        return None
    (dx, dy), (ex, ey) = first.direction(0.0), second.direction(0.0)
    if abs(dx * ey - dy * ex) > SMOOTH:
        return None
    low, high = sorted(first.along(point) for point in (second.start, second.end))
    low, high = max(low, 0.0), min(high, first.length)
    if high - low <= SHARED:
        return None
    middle = first.at((low + high) / 2)
    return middle if abs(second.left_of(middle)) < SHARED else None


@lru_cache(maxsize=4096)
def _chords(axis: Axis) -> LineString:
    return axis.line_string()
