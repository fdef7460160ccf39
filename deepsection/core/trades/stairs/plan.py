"""Stairs in plan: cut at the height of the plan, what lies above it dashed, the way up with its risers."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator

import shapely

from ...building.kind import PlanOf
from ...drawing import NUMBER, Handle, Label, Lettered, Region, Ring, Stroke, Text, around, path, rings_of, text_width
from ...geometry import Point, polygons_of
from ..walls.planned import WALLS
from .layout import Step
from .placed import STAIRS, PlacedStair
from .rail_parts import guarded_edges

ARROW = 2.0
"""Length of the barbs of the arrow (paper mm)."""
BREAK = 1.2
"""Half of the gap between the lines of the break, and of the jog in them (paper mm)."""
GUARD = 40.0
"""A guard is drawn so far beside the hole (mm)."""
SLANT = 0.45
"""The break lies so far askew, in goings."""


def stair_marks(shown: PlanOf) -> Iterator[Lettered]:
    """The stairs that start from the storey, up to the cut and dashed above it; those that arrive, seen from above."""
    for placed in shown.placed[STAIRS]:
        if placed.stair.upper == shown.level:
            yield from _arriving(shown, placed)
        elif placed.stair.level == shown.level:
            yield from _starting(shown, placed)


def _handle(placed: PlacedStair) -> Handle:
    return Handle("move_stair", placed.stair.id, "x", "free")


def _key(placed: PlacedStair) -> str:
    return f"{placed.stair.id}/stair//"


def _turned(shown: PlanOf, points: Iterable[Point]) -> Ring:
    return path(*(shown.frame.plan_to_turned(*point) for point in points))


def _going_handle(placed: PlacedStair) -> Handle | None:
    """What a drag of the last riser edits: the going, shared by the treads of its flight."""
    flight = placed.layout.flights[-1] if placed.layout.flights else None
    if flight is None or placed.stair.curve is not None or not flight.runs:
        return None
    dx, dy = flight.steps[-1].heading
    heading = round(math.degrees(math.atan2(dy, dx)), 6)
    field = f"{placed.stepping.going:.6f}:{len(flight.steps)}:{heading:g}"
    return Handle("stair_going", placed.stair.id, field, "free")


def _starting(shown: PlanOf, placed: PlacedStair) -> Iterator[Lettered]:
    """Steps below the cut; a break across the one at the cut; what is above dashed; the way up."""
    cut = shown.cut - placed.base
    steps = placed.layout.steps
    below = [step for step in steps if step.z <= cut]
    above = [step for step in steps if step.z > cut]
    yield from _steps(shown, placed, below, "edge")
    yield from _dashed(shown, placed, above)
    if below and above:
        yield from _break(shown, placed, below[-1])
    yield from _way(shown, placed, [*below[:-1]] if above else below, f"{placed.stepping.risers} up", up=True)


def _steps(shown: PlanOf, placed: PlacedStair, steps: list[Step], pen: str) -> Iterator[Lettered]:
    key, handle = _key(placed), _handle(placed)
    for step in steps:
        area = rings_of(shown.frame.turn(step.area))
        yield Region(area, fill="paper", pen=pen, part=key, feature="stair", handle=handle, sum=placed.rise.id)


def _dashed(shown: PlanOf, placed: PlacedStair, steps: list[Step]) -> Iterator[Lettered]:
    key = _key(placed)
    for step in steps:
        yield Stroke(_turned(shown, step.front), "hidden", part=key, feature="stair", sum=placed.rise.id)
        for side in (step.left, step.right):
            yield Stroke(_turned(shown, side), "hidden", part=key, feature="stair")
    if steps:
        head = _turned(shown, placed.layout.head)
        handle = _going_handle(placed)
        yield Stroke(head, "hidden", part=key, feature="stair", sum=placed.rise.id, handle=handle)


def _break(shown: PlanOf, placed: PlacedStair, step: Step) -> Iterator[Lettered]:
    """Two lines askew across a step, each with a jog in its middle."""
    left, right = (_middle(side) for side in (step.left, step.right))
    length = math.dist(left, right) or 1.0
    ux, uy = (right[0] - left[0]) / length, (right[1] - left[1]) / length
    vx, vy = -uy, ux
    lean = SLANT * placed.stepping.going
    gap = BREAK * shown.scale
    key = _key(placed)
    for aside in (-gap / 2, gap / 2):

        def at(s: float, t: float, aside: float = aside) -> Point:
            lift = lean * (1 - 2 * s / length) + aside + t
            return left[0] + ux * s + vx * lift, left[1] + uy * s + vy * lift

        middle = length / 2
        points = [at(0, 0), at(middle - gap, 0), at(middle - gap / 3, gap), at(middle + gap / 3, -gap)]
        points += [at(middle + gap, 0), at(length, 0)]
        yield Stroke(_turned(shown, points), "fine", part=key, feature="break")


def _middle(line: tuple[Point, ...]) -> Point:
    whole = shapely.LineString(line) if math.dist(line[0], line[-1]) > 1e-6 else None
    if whole is None:
        return line[0]
    point = whole.interpolate(0.5, normalized=True)
    return point.x, point.y


def _way(shown: PlanOf, placed: PlacedStair, steps: list[Step], words: str, *, up: bool) -> Iterator[Lettered]:
    """The walking line with its arrow, and the number of risers at its foot."""
    if not steps:
        return
    points: list[Point] = []
    for step in steps:
        points.append(step.front.middle)
        points += _on_way(step)
    points.append(steps[-1].back.middle)
    whole = shapely.simplify(shapely.LineString(points), 1.0)
    line = [(float(x), float(y)) for x, y in whole.coords]
    if not up:
        line.reverse()
    turned = [shown.frame.plan_to_turned(*point) for point in line]
    (x0, y0), (x1, y1) = turned[-2], turned[-1]
    length = math.dist((x0, y0), (x1, y1)) or 1.0
    dx, dy, barb = (x1 - x0) / length, (y1 - y0) / length, ARROW * shown.scale
    key, handle = _key(placed), _handle(placed)
    yield Stroke(path(*turned), "fine", part=key, feature="stair", handle=handle)
    for side in (-0.4, 0.4):
        end = (x1 - (dx + dy * side) * barb, y1 - (dy - dx * side) * barb)
        yield Stroke(path(end, (x1, y1)), "fine", part=key, feature="stair")
    (a, b), (c, d) = turned[0], turned[1]
    size = math.dist((a, b), (c, d)) or 1.0
    u, w = a - (c - a) / size * 2.2 * shown.scale, b - (d - b) / size * 2.2 * shown.scale
    text = Text(u, w, words, 1.8, "centre", "middle", 0, "mono", key)
    beside = around(text_width(words, 1.8) * shown.scale, 3.6 * shown.scale)
    yield Label(f"stepping:{placed.stair.id}", (text,), beside, NUMBER, shapely.LineString(turned[:2]))


def _on_way(step: Step) -> list[Point]:
    """Where the walking line bends on a landing or a winder."""
    (ax, ay), (bx, by) = step.front.middle, step.back.middle
    fx, fy = step.heading
    if step.kind == "tread":
        return []
    if step.kind == "winder":
        return [((ax + bx) / 2, (ay + by) / 2)]
    ahead = (bx - ax) * fx + (by - ay) * fy
    if abs(ahead) < 1e-6:
        half = math.dist(*step.front) / 2
        return [(ax + fx * half, ay + fy * half), (bx + fx * half, by + fy * half)]
    return [(ax + fx * ahead, ay + fy * ahead)]


def _arriving(shown: PlanOf, placed: PlacedStair) -> Iterator[Lettered]:
    """What is seen down through the hole, the edge of the hole, and the way down."""
    steps = list(placed.layout.steps)
    key, handle = _key(placed), _handle(placed)
    if placed.hole is None:
        yield from _steps(shown, placed, steps, "edge")
    else:
        for step in steps:
            seen = shapely.intersection(step.area, placed.hole, grid_size=1e-3)
            for piece in polygons_of(seen):
                rings = rings_of(shown.frame.turn(piece))
                yield Region(rings, fill="paper", pen="edge", part=key, feature="stair", handle=handle)
        edge = [shown.frame.plan_to_turned(*point) for point in list(placed.hole.exterior.coords)[:-1]]
        yield Stroke(path(*edge), "edge", closed=True, part=key, feature="hole", handle=handle, sum=placed.rise.id)
        walls = shapely.union_all([wall.footprint for wall in shown.placed[WALLS].on(shown.level)])
        for a, b in guarded_edges(placed, walls) if placed.stair.guard else ():
            yield Stroke(_turned(shown, _guard(a, b)), "fine", part=key, feature="rail")
        head = _turned(shown, placed.layout.head)
        yield Stroke(head, "edge", part=key, feature="stair", sum=placed.rise.id, handle=_going_handle(placed))
        steps = [step for step in steps if placed.hole.contains(shapely.Point(step.area.centroid))] or steps[-1:]
    yield from _way(shown, placed, steps, f"{placed.stepping.risers} down", up=False)


def _guard(a: Point, b: Point) -> list[Point]:
    """A guard beside an edge of the hole, on its floor."""
    length = math.dist(a, b)
    nx, ny = (b[1] - a[1]) / length * GUARD, -(b[0] - a[0]) / length * GUARD
    return [(a[0] + nx, a[1] + ny), (b[0] + nx, b[1] + ny)]
