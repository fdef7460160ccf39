"""Windows, doors and niches in plan: jambs, glass, leaves with their swing or slide, and the number outside."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import replace
from functools import lru_cache

from shapely.geometry import Polygon

from ...building.kind import PlanOf
from ...drawing import NUMBER, Handle, Label, Lettered, Mark, Region, Stroke, Text, path, rings_of
from ...drawing.detail import shown_from
from ...geometry import Frame, Point
from ...model import MakeUp
from ..walls.planned import WALLS, PlannedWall
from .leaves import Leaf
from .leaves import leaves as unit_leaves
from .placed import OPENINGS, PlacedOpening
from .returns import returns_of

TRACK = 46.0
"""Between the two tracks of sliding leaves (mm). Common practice, no source."""
LEAF = 45.0
"""Thickness of a leaf (mm). Common practice, no source."""
FOLDED = 20.0
"""Angle from the wall at which folding leaves are drawn, half open (deg). Common practice, no source."""


def plan_hole(wall: PlannedWall, placed: PlacedOpening) -> Polygon:
    """What an opening takes from the cut wall."""
    past = 1.0 + wall.bulging(placed.right - placed.left)
    outer = min(wall.outer + past, placed.back(wall))
    return wall.stand(placed.centre).panel(placed.left, placed.right, wall.inner - past, outer)


class _Plan:
    """Draws in the frame of one opening: points are (distance along the wall, distance outward)."""

    def __init__(self, wall: PlannedWall, placed: PlacedOpening, frame: Frame, scale: float) -> None:
        self.wall, self.placed, self.frame, self.scale = wall, placed, frame, scale
        self.stand = wall.stand(placed.centre)
        self.handle = Handle("move_opening", placed.opening.id, "distance", "along")
        self.key = f"{placed.opening.id}/{placed.opening.unit}//"
        self.marks: list[Mark] = []
        self.labels: list[Label] = []
        self.hole = frame.turn(plan_hole(wall, placed))

    def at(self, along: float, outward: float) -> Point:
        return self.frame.plan_to_turned(*self.stand.at(along, outward))

    def line(self, *points: Point, pen: str, feature: str = "opening", closed: bool = False) -> None:
        turned = path(*(self.at(*point) for point in points))
        self.marks.append(Stroke(turned, pen, closed=closed, part=self.key, feature=feature, handle=self.handle))

    def arc(self, centre: Point, start: Point, end: Point) -> None:
        """The arc from start to end around a centre, by the short way."""
        c, a, b = (self.at(*point) for point in (centre, start, end))
        turn = (a[0] - c[0]) * (b[1] - c[1]) - (a[1] - c[1]) * (b[0] - c[0])
        along = (a[0] - c[0]) * (b[0] - c[0]) + (a[1] - c[1]) * (b[1] - c[1])
        bulge = math.tan(math.atan2(turn, along) / 4)
        vertices = ((a[0], a[1], bulge), (b[0], b[1], 0.0))
        self.marks.append(Stroke(vertices, "fine", part=self.key, feature="swing", handle=self.handle))


@lru_cache(maxsize=4096)
def opening_marks(
    wall: PlannedWall, make_up: MakeUp, placed: PlacedOpening, frame: Frame, scale: float
) -> tuple[Lettered, ...]:
    """An opening as the plan shows it, with its number outside of the wall."""
    plan = _Plan(wall, placed, frame, scale)
    left, right = placed.left, placed.right
    area = plan_hole(wall, placed).intersection(plan.stand.panel(left, right, wall.inner, wall.outer))
    plan.marks.append(
        Region(rings_of(frame.turn(area)), fill="paper", part=plan.key, feature="opening", handle=plan.handle)
    )
    if placed.opening.unit == "niche":
        back = placed.back(wall)
        plan.line((left, wall.inner), (left, back), (right, back), (right, wall.inner), pen="edge")
    else:
        for along in (left, right):
            plan.line((along, wall.inner_at(along)), (along, wall.outer), pen="edge")
        draw = _window if placed.opening.unit == "window" else _door
        draw(plan)
        if shown_from("layers", scale):
            _returned(plan, make_up)
    outside = 4.2 if wall.wall.status == "outer" else 3.0
    tag = plan.at(placed.centre, wall.outer + outside * scale)
    if placed.number:
        text = Text(*tag, placed.number, 2.0, "centre", "middle", 0, "mono", plan.key, feature="number")
        plan.labels.append(
            Label(f"number:{placed.opening.id}", (text,), _beside(plan, tag, outside), NUMBER, plan.hole, beside=8.0)
        )
    return (*plan.marks, *plan.labels)


def _beside(plan: _Plan, tag: Point, outside: float) -> tuple[Point, ...]:
    """Shifts of a number: along its opening, farther out, inside, beside its opening."""
    wall, placed, scale = plan.wall, plan.placed, plan.scale
    half = (placed.right - placed.left) / 2
    ways = (0.0, -0.5 * half, 0.5 * half, -half, half, -half - 4.0 * scale, half + 4.0 * scale)
    rows = (wall.outer + outside * scale, wall.outer + (outside + 4.0) * scale, wall.inner - outside * scale)
    found = [plan.at(placed.centre + way, row) for row in rows for way in ways]
    return tuple((u - tag[0], w - tag[1]) for u, w in found)


def _returned(plan: _Plan, make_up: MakeUp) -> None:
    """Layers that turn into the reveals: at both jambs, beside the opening where they close its cavity."""
    for held in returns_of(plan.wall, make_up, plan.placed):
        left, right = plan.placed.left, plan.placed.right
        t = -held.thickness if held.closes else held.thickness
        for x0, x1 in ((left, left + t), (right - t, right)):
            ring = ((x0, held.inner), (x1, held.inner), (x1, held.outer), (x0, held.outer))
            turned = path(*(plan.at(*point) for point in ring))
            fill, pen = ("poche", "cut_layer") if held.function == "structure" else ("paper", "fine")
            marks = Region((turned,), fill=fill, pen=pen, part=f"{plan.placed.opening.id}/return/{held.layer}/")
            plan.marks.append(replace(marks, feature="return", handle=plan.handle))


def _window(plan: _Plan) -> None:
    placed, wall = plan.placed, plan.wall
    face, back = placed.face, placed.face - 90.0
    lights = unit_leaves(placed)
    for outward, pen in ((face, "edge"), (back, "edge"), (wall.outer, "fine")):
        plan.line((placed.left, outward), (placed.right, outward), pen=pen)
    inside = ((along, wall.inner_at(along)) for along in (placed.left, placed.right))
    plan.line(*inside, pen="fine")
    sides = sorted({round(edge, 3) for light in lights for edge in (light.left, light.right)})
    if placed.design.operation == "sliding":
        for light in lights:
            plan.line(*_slab(light, face - 20.0 - light.track * TRACK, 25.0), pen="fine", closed=True)
        return
    plan.line((placed.left, (face + back) / 2), (placed.right, (face + back) / 2), pen="fine")
    for edge in sides[1:-1]:
        plan.line((edge, face), (edge, back), pen="fine")


def _slab(leaf: Leaf, face: float, depth: float) -> tuple[Point, ...]:
    return (leaf.left, face), (leaf.right, face), (leaf.right, face - depth), (leaf.left, face - depth)


def _door(plan: _Plan) -> None:
    placed, wall = plan.placed, plan.wall
    operation = placed.design.operation
    if operation == "plain":
        for outward in (wall.outer, wall.inner):
            plan.line((placed.left, outward), (placed.right, outward), pen="hidden")
        return
    for leaf in unit_leaves(placed):
        if leaf.slot.startswith("side"):
            plan.line(*_slab(leaf, placed.face, 90.0), pen="edge", closed=True)
            plan.line((leaf.left, placed.face - LEAF), (leaf.right, placed.face - LEAF), pen="fine")
        elif leaf.action in ("start", "end"):
            _swing(plan, leaf)
        elif operation == "sliding":
            plan.line(*_slab(leaf, placed.face - 20.0 - leaf.track * TRACK, LEAF - 10), pen="edge", closed=True)
        elif leaf.action == "pocket":
            _pocket(plan, leaf)
    if operation == "bifold":
        _folded(plan)
    elif operation == "overhead":
        _overhead(plan)


def _swing(plan: _Plan, leaf: Leaf) -> None:
    """The open leaf, as far as it is drawn open, and the arc of its edge."""
    opening, wall = plan.placed.opening, plan.wall
    side, way = (wall.inner, -1.0) if opening.swing == "in" else (wall.outer, 1.0)
    alone = leaf.slot == "leaf" and plan.placed.design.side_lights == "none"
    ends = (plan.placed.left, plan.placed.right) if alone else (leaf.left, leaf.right)
    hinge, strike = ends if leaf.action == "start" else ends[::-1]
    width = strike - hinge
    angle = math.radians(opening.drawn_swing)
    tip = (hinge + width * math.cos(angle), side + way * abs(width) * math.sin(angle))
    plan.line((hinge, side), tip, pen="edge", feature="leaf")
    if opening.drawn_swing > 0:
        plan.arc((hinge, side), tip, (strike, side))


def _pocket(plan: _Plan, leaf: Leaf) -> None:
    """The leaf half drawn out, and dashed where the wall takes it in."""
    middle = (plan.wall.inner + plan.wall.outer) / 2
    width = leaf.right - leaf.left
    back = -1.0 if plan.placed.opening.hinge == "start" else 1.0
    near, far = (leaf.left, leaf.right) if back < 0 else (leaf.right, leaf.left)
    low, high = middle - LEAF / 2, middle + LEAF / 2
    half = (near + far) / 2
    plan.line((near, low), (half, low), (half, high), (near, high), pen="edge", feature="leaf")
    hidden = near + back * width
    plan.line((near, low), (hidden, low), (hidden, high), (near, high), pen="hidden", feature="leaf")


def _folded(plan: _Plan) -> None:
    """Folding leaves, half open: pairs that lean against each other from the jambs."""
    placed, wall = plan.placed, plan.wall
    held = [leaf for leaf in unit_leaves(placed) if leaf.action == "fold"]
    way = -1.0 if placed.opening.swing == "in" else 1.0
    side = wall.inner if way < 0 else wall.outer
    each = held[0].right - held[0].left
    reach = each * math.sin(math.radians(90 - FOLDED)) * way
    step = each * math.cos(math.radians(90 - FOLDED))
    pairs = len(held) // 2
    from_start = (pairs + 1) // 2 if pairs > 1 else int(placed.opening.hinge == "start")
    for count, jamb, along in ((from_start, held[0].left, 1.0), (pairs - from_start, held[-1].right, -1.0)):
        for k in range(count):
            foot = jamb + along * 2 * k * step
            peak, end = (foot + along * step, side + reach), (foot + along * 2 * step, side)
            plan.line((foot, side), peak, end, pen="edge", feature="leaf")


def _overhead(plan: _Plan) -> None:
    """The closed leaf, and dashed where it lies under the ceiling when open."""
    placed, wall = plan.placed, plan.wall
    plan.line((placed.left, placed.face), (placed.right, placed.face), pen="edge", feature="leaf")
    plan.line((placed.left, placed.face - LEAF), (placed.right, placed.face - LEAF), pen="fine", feature="leaf")
    depth = wall.inner - (placed.head.total - placed.sill.total)
    corners = ((placed.left, wall.inner), (placed.left, depth), (placed.right, depth), (placed.right, wall.inner))
    plan.line(*corners, pen="hidden", feature="leaf")


def opening_plan_marks(shown: PlanOf) -> Iterator[Lettered]:
    """The openings in the walls of the storey."""
    placed = shown.placed
    for wall in placed[WALLS].on(shown.level):
        make_up, cut = placed.make_ups[wall.wall.make_up], wall.at_rise(shown.cut - shown.base - wall.wall.base.offset)
        for opening in placed[OPENINGS][wall.wall.id]:
            yield from opening_marks(cut, make_up, opening, shown.frame, shown.scale)
