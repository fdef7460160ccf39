"""The plan, turned so that the drawn side faces down, and the points it offers to snap to.

It is drawn from the wall plan alone, so that it can follow a drag without any solid being built.
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

import shapely
from shapely.geometry import Polygon
from shapely.ops import unary_union

from ..drawing import Drawing, Handle, Mark, Region, Stroke, Symbol, Text, every_ring, extent, path
from ..geometry import Frame, polygons_of
from ..model import ConstructionLine, GridLine, MakeUp, Project, SectionLine
from ..model.labels import ROOF_EDGES
from ..resolve import Building, PlacedOpening, PlannedWall, Storey, storeys
from ..units import FOOT, Units, format_area
from ._clearings import lettered, pieces_between
from ._onroofs import plan_marks
from ._openings import opening_marks, plan_hole
from ._outdoors import outdoor_marks
from ._posts import post_marks
from ._roofs import VALLEY_CLEAR, RoofSide, roof_marks, roof_sides
from ._shapes import shape_marks
from ._site import site_marks
from ._strings import dimension_strings
from .detail import shown_from

CUT_HEIGHT = 4 * FOOT
"""Height of the plan's cut above the floor. Common practice, no source."""


WORTH_SEEING = 30.0
"""A piece of a wall below shorter than this (mm) is not drawn."""
MEMBRANE = 2.0
"""Layers thinner than this (mm) are not drawn in plan."""


@dataclass(frozen=True, slots=True)
class SnapPoint:
    """A point in the turned plan to snap to, with what it is and the joint or wall it belongs to."""

    u: float
    w: float
    kind: Literal["joint", "middle"]
    label: str
    joint: str | None = None
    wall: str | None = None


@dataclass(frozen=True, slots=True)
class SnapLine:
    """The set-out line of a wall in the turned plan, start to end; `bulge` of an arc as in paths."""

    u1: float
    w1: float
    u2: float
    w2: float
    wall: str
    bulge: float = 0.0


@dataclass(frozen=True, slots=True)
class GuideLine:
    """A construction line in the turned plan: through a point, in a unit direction."""

    u: float
    w: float
    du: float
    dw: float
    id: str
    label: str = "a construction line"


@dataclass(frozen=True, slots=True)
class Snaps:
    """What the plan offers to snap to; `axes` are the lines of all storeys, along which openings are dragged.

    `sides` are the edges of the roofs over the storey, `treatments` what an edge can be.
    """

    points: tuple[SnapPoint, ...]
    lines: tuple[SnapLine, ...]
    axes: tuple[SnapLine, ...]
    guides: tuple[GuideLine, ...] = ()
    sides: tuple[RoofSide, ...] = ()
    treatments: tuple[tuple[str, str], ...] = tuple(ROOF_EDGES.items())


def draw_plan(building: Building, project: Project, level: str, name: str, look_deg: float, scale: float) -> Drawing:
    """The plan of a storey, by the level that its walls stand on, turned so that the look direction points up."""
    frame = Frame.looking(look_deg)
    storey = next(held for held in storeys(project) if held.level == level)
    make_ups = {held.id: held for held in project.make_ups}
    walls = tuple(wall.at_rise(CUT_HEIGHT - wall.wall.base.offset) for wall in building.plan.on(level))
    base = building.levels[level].z if walls else 0.0
    marks: list[Mark] = list(_below_marks(building, project, storey, frame))
    # Under the walls: of a wall that stands on a grid line, the wall is what a click means.
    marks += site_marks(building, project, level, frame, scale)
    marks += shape_marks(building, level, base + CUT_HEIGHT, frame)
    for wall in walls:
        marks += _wall_marks(wall, building.openings[wall.wall.id], make_ups[wall.wall.make_up], base, frame, scale)
    marks += roof_marks(tuple(roof for roof in building.roofs if roof.block.plate == storey.plate), frame)
    for wall in walls:
        for placed in building.openings[wall.wall.id]:
            marks += opening_marks(wall, make_ups[wall.wall.make_up], placed, frame, scale)
    marks += post_marks(building, level, base + CUT_HEIGHT, frame)
    marks += outdoor_marks(building, level, frame, scale)
    marks += plan_marks(building, base + CUT_HEIGHT, storey.plate, frame)
    for held in building.rooms:
        if held.level == level:
            at = (held.room.x, held.room.y)
            marks += _room_marks(held.room.name, held.room.id, held.area, at, frame, scale, project.units)
    marks += dimension_strings(building, project, level, frame, scale)
    boxes = lettered(marks, scale) if project.sections else []
    for line in project.sections:
        marks += _section_marks(line, boxes, frame, scale)
    return Drawing(
        name=name,
        title=plan_title(storey),
        kind="plan",
        scale=scale,
        marks=tuple(marks),
        bounds=extent(marks, scale),
        look=(frame.dx, frame.dy),
        messages=() if walls else (_empty(project, storey),),
    )


def plan_title(storey: Storey) -> str:
    """The plan's name: that of the floor it shows."""
    return f"{storey.name} plan"


def _empty(project: Project, storey: Storey) -> str:
    """What a plan without walls says."""
    such = "34'" if project.units == "ft-in" else "9.6m"
    start = "Draw the outer walls" if not project.walls else f"{storey.name} has no walls yet. Draw them"
    return f"{start}: choose Outer wall, click the first corner, then type a length such as {such}."


def storey_below(project: Project, storey: Storey) -> str | None:
    """The level of the storey whose walls carry the floor of this one; None for the lowest."""
    floor = next((floor for floor in project.floors if floor.level == storey.level), None)
    carrying = (held.level for held in storeys(project) if floor and held.plate == floor.bearing)
    return next(carrying, None)


def _below_marks(building: Building, project: Project, storey: Storey, frame: Frame) -> Iterator[Mark]:
    """The outside of the walls below, dashed, where those of this storey do not stand on them."""
    below = storey_below(project, storey)
    if below is None:
        return
    own = shapely.union_all([wall.footprint for wall in building.plan.on(storey.level)])
    outer = [wall.footprint for wall in building.plan.on(below) if wall.wall.status == "outer"]
    if not outer:
        return
    house = shapely.union_all([Polygon(piece.exterior) for piece in polygons_of(unary_union(outer))])
    seen = shapely.line_merge(house.boundary.difference(own.buffer(VALLEY_CLEAR)))
    for line in shapely.get_parts(frame.turn(seen)):
        closed = bool(line.is_ring)
        points = list(line.coords)[: -1 if closed else None]
        if line.length > WORTH_SEEING:
            yield Stroke(path(*points), "hidden", closed=closed, feature="below")


@lru_cache(maxsize=1024)
def _wall_marks(
    wall: PlannedWall, openings: tuple[PlacedOpening, ...], make_up: MakeUp, base: float, frame: Frame, scale: float
) -> tuple[Mark, ...]:
    """The cut wall: structure filled, the layers around it as lines where the scale allows."""
    holes = [
        plan_hole(wall, placed) for placed in openings if placed.sill.total < base + CUT_HEIGHT < placed.head.total
    ]
    gone = unary_union(holes) if holes else None
    handle = Handle("move_wall", wall.wall.id, "line", "across")
    marks: list[Mark] = []
    layers = [pair for pair in zip(make_up.layers, wall.layers) if pair[0].thickness > MEMBRANE]
    if not shown_from("layers", scale):
        groups = [(_without(wall.footprint, gone), "poche", "cut", "structure")]
    else:
        groups = [
            (
                _without(planned.polygon, gone),
                "poche" if layer.function == "structure" else "paper",
                "cut_layer" if layer.function == "structure" else "fine",
                layer.id,
            )
            for layer, planned in layers
        ]
        groups.sort(key=lambda group: group[1] == "poche")
    circles = _face_circles(wall, frame)
    for shape, fill, pen, layer_id in groups:
        key = f"{wall.wall.id}/wall/{layer_id}/"
        for rings in every_ring(frame.turn(shape), circles):
            marks.append(Region(rings, fill=fill, pen=pen, part=key, feature="cut", handle=handle))
    return tuple(marks)


def _without(shape: shapely.Geometry, gone: shapely.Geometry | None) -> shapely.Geometry:
    return shape if gone is None else shape.difference(gone)


def _face_circles(wall: PlannedWall, frame: Frame) -> list[tuple[float, float, float]]:
    """The faces of an arc in the turned plan, as circles (u, w, radius)."""
    if wall.axis.centre is None:
        return []
    u, w = frame.plan_to_turned(*wall.axis.centre)
    faces = {face for layer in wall.layers for face in (layer.outer, layer.inner)}
    return [(u, w, wall.axis.radius(wall.side * face)) for face in sorted(faces)]


def _room_marks(
    name: str, id: str, area: float | None, at: tuple[float, float], frame: Frame, scale: float, units: Units
) -> list[Mark]:
    u, w = frame.plan_to_turned(*at)
    size = "not enclosed" if area is None else format_area(area, units)
    return [
        Text(u, w + 0.6 * scale, name, 2.8, "centre", "bottom", 0, "bold", id),
        Text(u, w - 0.6 * scale, size, 2.2, "centre", "top", 0, "mono", id),
    ]


def _section_marks(line: SectionLine, boxes: list[Polygon], frame: Frame, scale: float) -> list[Mark]:
    """The line of a section, which stops before lettering, and a mark at each of its ends."""
    from_to = (line.x1, line.y1), (line.x2, line.y2)
    id, name, look = line.id, line.name, line.look
    a, b = (frame.plan_to_turned(*point) for point in from_to)
    length = math.dist(a, b) or 1.0
    dx, dy = (b[0] - a[0]) / length, (b[1] - a[1]) / length
    side = (-dy, dx) if look == "left" else (dy, -dx)
    angle = math.degrees(math.atan2(side[1], side[0]))
    marks: list[Mark] = [
        Stroke(
            path(*piece),
            "section",
            part=f"{id}/section//",
            feature="line",
            handle=Handle("move_section", id, "line", "across"),
        )
        for piece in pieces_between(a, b, boxes, scale)
    ]
    for end, point, out in (("start", a, (-dx, -dy)), ("end", b, (dx, dy))):
        marks.append(Symbol("section", point[0], point[1], (name,), angle, out, part=f"{id}/section//{end}"))
    return marks


def plan_snaps(building: Building, project: Project, level: str, look_deg: float) -> Snaps:
    """Ends and middles of set-out lines, and the lines themselves, in the turned plan of a storey.

    The ends of walls below are offered too, so that walls can stand on each other.
    """
    frame = Frame.looking(look_deg)
    points: dict[str, SnapPoint] = {}
    middles = []

    def ends(walls: tuple[PlannedWall, ...], label: str) -> None:
        for wall in walls:
            for joint, point in ((wall.wall.start, wall.start), (wall.wall.end, wall.end)):
                u, w = frame.plan_to_turned(*point)
                points.setdefault(joint, SnapPoint(u, w, "joint", label, joint, wall.wall.id))

    own = building.plan.on(level)
    ends(own, "end of wall")
    storey = next(held for held in storeys(project) if held.level == level)
    ends(building.plan.on(storey_below(project, storey) or ""), "end of wall below")
    for wall in own:
        middles.append(_middle_snap(wall, frame))
    axes = tuple(_line_snap(wall, frame) for wall in building.plan.walls)
    guides = (
        *(_guide(held, frame) for held in project.construction if held.level in (None, level)),
        *(_guide(held, frame, f"grid {held.name}") for held in project.grid),
    )
    sides = roof_sides([roof for roof in building.roofs if roof.block.plate == storey.plate], frame)
    return Snaps((*points.values(), *middles), tuple(_line_snap(wall, frame) for wall in own), axes, guides, sides)


@lru_cache(maxsize=4096)
def _line_snap(wall: PlannedWall, frame: Frame) -> SnapLine:
    ends = (frame.plan_to_turned(*point) for point in (wall.start, wall.end))
    (u1, w1), (u2, w2) = ends
    return SnapLine(u1, w1, u2, w2, wall.wall.id, wall.wall.bulge)


@lru_cache(maxsize=4096)
def _middle_snap(wall: PlannedWall, frame: Frame) -> SnapPoint:
    middle = frame.plan_to_turned(*wall.at(wall.length / 2))
    return SnapPoint(*middle, "middle", "middle of wall", None, wall.wall.id)


def _guide(line: ConstructionLine | GridLine, frame: Frame, label: str = "a construction line") -> GuideLine:
    angle = math.radians(line.angle)
    along = frame.plan_to_turned(math.cos(angle), math.sin(angle))
    return GuideLine(*frame.plan_to_turned(line.x, line.y), *along, line.id, label)
