"""Bodies of stairs: treads, risers, what carries them, landings; a concrete flight in one."""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterator, Sequence
from functools import lru_cache

import numpy as np
import shapely
from shapely.geometry import MultiPolygon, Polygon

from ...building.parts import Part, part_key
from ...geometry import Point, Solid, polygons_of, prism, prism_along
from ...geometry.outlines import turned_rectangle
from ...tolerance import TOL
from .layout import Flight, Front, Point3, Step, straight
from .placed import PlacedStair

MARGIN = 30.0
"""A housed string stands so far above the nosings, square to its length (mm). Common practice, no source."""
LANDING_DEPTH = 184.0
"""Depth of the frame of a landing (mm). Source: PS 20, dressed 2x8, from memory."""
MONO = 100.0
"""Least thickness of a single carriage (mm). Common practice, no source."""
PANEL = 12.5
"""Thickness of the panels that close the space below (mm)."""
LEG = 89.0
"""Thickness of the legs of a landing (mm)."""
FAR = 1e5


@lru_cache(maxsize=256)
def stair_parts(placed: PlacedStair) -> tuple[Part, ...]:
    """All solids of a stair but its rails."""
    if placed.stair.build == "concrete":
        return tuple(_concrete(placed))
    parts = [*_boards(placed), *_landings(placed)]
    for flight in placed.layout.flights:
        parts += _strings(placed, flight) if placed.stair.build == "housed" else _carriages(placed, flight)
        if placed.stair.below == "closed":
            parts += _panels(placed, flight)
    return tuple(part for part in parts if not part.solid.is_empty)


def _part(
    placed: PlacedStair, role: str, slot: str, solid: Solid, axis: Point | None = None, function: str = "structure"
) -> Part:
    stair = placed.stair
    material = "gypsum" if role == "stair_panel" else stair.material
    if stair.build == "concrete":
        material = "concrete"
    key = part_key(stair.id, role, "", slot)
    along = None if axis is None else (*axis, 0.0)
    sums = (placed.rise.id,)
    return Part(key, stair.id, role, material, solid, along, sums, outside=False, function=function)


def _boards(placed: PlacedStair) -> Iterator[Part]:
    """Treads with their nosings, and the boards between them, where the risers are closed."""
    stair, layout, rise = placed.stair, placed.layout, placed.stepping.riser
    below: Step | None = None
    for step in layout.steps:
        top = placed.base + step.z
        role = "stair_landing" if step.kind == "landing" else "tread"
        board = _between_strings(placed, step, step.area) if role == "tread" else step.area
        board = _joined(board, _nosing(placed, step.front, below or step))
        below = step
        yield _part(placed, role, str(step.number), prism(board, top - stair.tread, top))
        if not stair.open_risers:
            low, high = top - rise, top - stair.tread
            yield _part(placed, "riser", str(step.number), prism(_riser(placed, step, step.front), low, high))
    if stair.hole and placed.hole is not None:
        strip = _strip(layout.head, _ahead(layout.head), 0.0, stair.riser_board)
        edge = _joined(strip, _nosing(placed, layout.head, below)) if below else strip
        yield _part(placed, "tread", "head", prism(edge, placed.head - stair.tread, placed.head))
        if not stair.open_risers:
            board = _between_strings(placed, below, strip) if below and below.kind != "landing" else strip
            yield _part(placed, "riser", "head", prism(board, placed.head - rise, placed.head - stair.tread))


def _ahead(front: Front) -> Point:
    """The way up over a riser."""
    (x0, y0), (x1, y1) = front.left, front.right
    length = math.dist(*front) or 1.0
    return -(y1 - y0) / length, (x1 - x0) / length


def _strip(front: Front, heading: Point, start: float, end: float) -> Polygon:
    """A strip along a riser, from so far before it to so far behind it."""
    (dx, dy), corners = heading, []
    for side, ahead in ((front.right, start), (front.right, end), (front.left, end), (front.left, start)):
        corners.append((side[0] + dx * ahead, side[1] + dy * ahead))
    return Polygon(corners)


def _nosing(placed: PlacedStair, front: Front, below: Step) -> Polygon | MultiPolygon:
    """What of a tread stands out over the riser below it."""
    if not placed.stair.nosing:
        return Polygon()
    strip = _strip(front, _ahead(front), -placed.stair.nosing, 0.0)
    return strip if below.kind == "landing" else _between_strings(placed, below, strip)


def _joined(area: Polygon | MultiPolygon, more: Polygon | MultiPolygon) -> MultiPolygon:
    return _polygons(shapely.union_all([area, more], grid_size=TOL.grid))


def _riser(placed: PlacedStair, step: Step, front: Front) -> Polygon:
    board = _strip(front, _ahead(front), 0.0, placed.stair.riser_board)
    return board if step.kind == "landing" else _between_strings(placed, step, board)


def _between_strings(placed: PlacedStair, step: Step, area: Polygon) -> Polygon | MultiPolygon:
    """What of a board lies between housed strings; on carriages all of it."""
    if placed.stair.build != "housed":
        return area
    inset = placed.stair.string
    whole: Polygon | MultiPolygon = area
    for line, side in ((step.left, -1.0), (step.right, 1.0)):
        for a, b in itertools.pairwise(line):
            length = math.dist(a, b)
            if length > TOL.grid:
                whole = shapely.intersection(whole, _beside(a, b, side, inset), grid_size=TOL.grid)
    return MultiPolygon(list(polygons_of(whole)))


def _beside(a: Point, b: Point, side: float, inset: float) -> Polygon:
    """The half plane so far to a side (1 left, -1 right) of a line."""
    length = math.dist(a, b)
    dx, dy = (b[0] - a[0]) / length, (b[1] - a[1]) / length
    nx, ny = -dy * side, dx * side
    corners = []
    for s, t in ((-FAR, inset), (FAR, inset), (FAR, FAR), (-FAR, FAR)):
        corners.append((a[0] + dx * s + nx * t, a[1] + dy * s + ny * t))
    return Polygon(corners)


def _sides(flight: Flight) -> tuple[tuple[str, tuple[Point3, ...]], ...]:
    return ("left", flight.left), ("right", flight.right)


def _strings(placed: PlacedStair, flight: Flight) -> Iterator[Part]:
    """Housed strings: a band along the nosings at each side, mitred where they bend."""
    stair = placed.stair
    for side, line in _sides(flight):
        pieces = straight(line)
        for k, piece in enumerate(pieces):
            run, length, points = _unrolled(piece)
            if length < TOL.grid:
                continue
            slope = math.hypot(1.0, (points[-1][1] - points[0][1]) / length)
            up, down = MARGIN * slope, (stair.depth - MARGIN) * slope
            band = Polygon([*((s, z + up) for s, z in points), *((s, z - down) for s, z in reversed(points))])
            high = points[-1][1] + up
            low, ends = flight.low, (-FAR, FAR)
            shape = band.intersection(shapely.box(ends[0], low, ends[1], high))
            solid = _upright(placed, shape, piece[0], run, length, side, stair.string)
            for at, other in ((piece[0], pieces[k - 1] if k else None), (piece[-1], _next(pieces, k))):
                if other is not None:
                    solid = _mitred(solid, at, run, _unrolled(other)[0], is_end=at == piece[-1])
            yield _part(placed, "string", f"{flight.number}:{side}:{k}", solid, run)


def _next(pieces: Sequence[tuple[Point3, ...]], k: int) -> tuple[Point3, ...] | None:
    return pieces[k + 1] if k + 1 < len(pieces) else None


def _mitred(solid: Solid, at: Point3, run: Point, other: Point, *, is_end: bool) -> Solid:
    """A string cut off in the plane that halves the angle to the next one."""
    sx, sy = run[0] + other[0], run[1] + other[1]
    size = math.hypot(sx, sy) or 1.0
    nx, ny = (-sx / size, -sy / size) if is_end else (sx / size, sy / size)
    return solid.beside((nx, ny), nx * at[0] + ny * at[1])


def _unrolled(piece: Sequence[Point3]) -> tuple[Point, float, list[Point]]:
    """The way of a straight piece, its length, and its points as (distance, height)."""
    (x, y, _), (x1, y1, _) = piece[0], piece[-1]
    length = math.dist((x, y), (x1, y1))
    run = ((x1 - x) / length, (y1 - y) / length) if length else (1.0, 0.0)
    return run, length, [(math.dist((x, y), point[:2]), point[2]) for point in piece]


def _upright(
    placed: PlacedStair,
    shape: Polygon | MultiPolygon,
    start: Point3,
    run: Point,
    length: float,
    side: str,
    thickness: float,
) -> Solid:
    """An upright board whose shape is given along a side of a flight; it lies within the flight."""
    raised = shapely.transform(MultiPolygon(list(polygons_of(shape))), lambda at: at + np.array([0.0, placed.base]))
    if side == "left":
        return prism_along(raised, (start[0], start[1]), run, thickness)
    turned = shapely.transform(raised, lambda at: at * np.array([-1.0, 1.0]) + np.array([length, 0.0]))
    end = (start[0] + run[0] * length, start[1] + run[1] * length)
    return prism_along(turned, end, (-run[0], -run[1]), thickness)


def saw_tooth(placed: PlacedStair, steps: Sequence[Step], low: float) -> Polygon | MultiPolygon:
    """The shape of a cut string below straight treads: (distance from the first riser, z above the foot)."""
    stair, stepping = placed.stair, placed.stepping
    rise, going, back = stepping.riser, stepping.going, 0.0 if stair.open_risers else stair.riser_board
    tops = [(step.z - stair.tread) for step in steps]
    corners: list[Point] = [(back, tops[0] - rise)]
    for k, z in enumerate(tops):
        corners += [(k * going + back, z), ((k + 1) * going + back, z)]
    slope = rise / going
    drop = placed.throat * math.hypot(1.0, slope)
    end = len(steps) * going + back

    def under(s: float) -> float:
        return tops[0] - rise + (s - back) * slope - drop

    corners += [(end, under(end)), (back, under(back))]
    return Polygon(corners).intersection(shapely.box(-FAR, low, FAR, FAR))


def carriage_places(placed: PlacedStair) -> list[float]:
    """How far left of the middle of a flight the middles of its carriages lie."""
    stair = placed.stair
    if stair.build == "mono":
        return [0.0]
    between = stair.width - stair.string
    bays = max(1, math.ceil(between / stair.carriages - 1e-9))
    return [between / 2 - k * between / bays for k in range(bays + 1)]


def _carriages(placed: PlacedStair, flight: Flight) -> Iterator[Part]:
    """Cut strings under the straight pieces of a flight."""
    stair = placed.stair
    thickness = max(stair.string, MONO) if stair.build == "mono" else stair.string
    if placed.throat < 1.0:
        return
    for k, steps in enumerate(flight.runs):
        low = flight.low if steps[0] is flight.steps[0] else 0.0
        shape = saw_tooth(placed, steps, low)
        raised = shapely.transform(MultiPolygon(list(polygons_of(shape))), lambda at: at + np.array([0.0, placed.base]))
        run, (mx, my) = steps[0].heading, steps[0].front.middle
        for j, left in enumerate(carriage_places(placed)):
            aside = left + thickness / 2
            origin = (mx - run[1] * aside, my + run[0] * aside)
            solid = prism_along(raised, origin, run, thickness)
            yield _part(placed, "carriage", f"{flight.number}:{k}:{j}", solid, run)


def _landings(placed: PlacedStair) -> Iterator[Part]:
    """The frames of landings, on legs."""
    stair = placed.stair
    for step in placed.layout.landings:
        top = placed.base + step.z - stair.tread
        low = max(placed.base, top - LANDING_DEPTH)
        board = 0.0 if stair.open_risers else stair.riser_board
        inner = step.area.difference(_strip(step.front, _ahead(step.front), -1.0, board))
        rim = inner.difference(inner.buffer(-stair.string, join_style="mitre"))
        slot = str(step.number)
        for k, piece in enumerate(polygons_of(rim)):
            yield _part(placed, "landing_frame", f"{slot}:rim:{k}", prism(piece, low, top))
        within = inner.buffer(-stair.string, join_style="mitre")
        for k, joist in enumerate(_across(within, step.heading, stair.carriages, stair.string)):
            yield _part(placed, "landing_frame", f"{slot}:{k}", prism(joist, low, top), step.heading)
        for k, (x, y) in enumerate(_corners(within)):
            turn = math.degrees(math.atan2(step.heading[1], step.heading[0]))
            around = turned_rectangle(x, y, 2 * LEG, 2 * LEG, turn)
            leg = shapely.intersection(around, within, grid_size=TOL.grid)
            if low - placed.base > TOL.grid:
                yield _part(placed, "newel", f"{slot}:leg:{k}", prism(_polygons(leg), placed.base, low))


def _polygons(shape: shapely.Geometry) -> MultiPolygon:
    return MultiPolygon(list(polygons_of(shape)))


def _corners(area: Polygon) -> list[Point]:
    """The corners at which legs have room beside each other."""
    if area.is_empty:
        return []
    kept: list[Point] = []
    for x, y in list(shapely.simplify(area, 1.0).exterior.coords)[:-1]:
        if all(math.dist((x, y), other) > 2 * LEG for other in kept):
            kept.append((float(x), float(y)))
    return kept


def _across(area: Polygon, heading: Point, spacing: float, thickness: float) -> Iterator[MultiPolygon]:
    """Members along a direction, at a spacing at most."""
    points = shapely.get_coordinates(area)
    if not len(points):
        return
    aside = points @ (-heading[1], heading[0])
    bays = max(1, math.ceil((aside.max() - aside.min()) / spacing))
    for k in range(1, bays):
        middle = aside.min() + (aside.max() - aside.min()) * k / bays
        corners = []
        for s, t in ((-FAR, -1), (FAR, -1), (FAR, 1), (-FAR, 1)):
            off = middle + t * thickness / 2
            corners.append((heading[0] * s - heading[1] * off, heading[1] * s + heading[0] * off))
        member = _polygons(shapely.intersection(Polygon(corners), area, grid_size=TOL.grid))
        if not member.is_empty:
            yield member


def _panels(placed: PlacedStair, flight: Flight) -> Iterator[Part]:
    """What closes the space below a flight, at its sides."""
    stair = placed.stair
    for side, line in _sides(flight):
        for k, piece in enumerate(straight(line)):
            run, length, points = _unrolled(piece)
            slope = math.hypot(1.0, (points[-1][1] - points[0][1]) / length) if length else 1.0
            down = (stair.depth - MARGIN) * slope if stair.build == "housed" else stair.depth * slope
            shape = Polygon([(0.0, 0.0), *((s, max(0.0, z - down)) for s, z in points), (length, 0.0)])
            if shape.area > TOL.area:
                solid = _upright(placed, shape.buffer(0), piece[0], run, length, side, PANEL)
                yield _part(placed, "stair_panel", f"{flight.number}:{side}:{k}", solid, function="lining")


def _concrete(placed: PlacedStair) -> Iterator[Part]:
    """Flights with a waist, landings as slabs; winders each on its own."""
    stair, stepping = placed.stair, placed.stepping
    slope = stepping.riser / stepping.going
    plumb = stair.depth * math.hypot(1.0, slope)
    for flight in placed.layout.flights:
        low = flight.low - stair.depth if flight.low else 0.0
        for k, steps in enumerate(flight.runs):
            corners: list[Point] = [(0.0, steps[0].z - stepping.riser)]
            for j, step in enumerate(steps):
                corners += [(j * stepping.going, step.z), ((j + 1) * stepping.going, step.z)]
            end = len(steps) * stepping.going
            foot = steps[0].z - stepping.riser - plumb
            corners += [(end, foot + end * slope), (0.0, foot)]
            shape = Polygon(corners).intersection(shapely.box(-FAR, low, FAR, FAR))
            raised = shapely.transform(_polygons(shape), lambda at: at + np.array([0.0, placed.base]))
            run = steps[0].heading
            solid = prism_along(raised, steps[0].front.left, run, stair.width)
            yield _part(placed, "stair_flight", f"{flight.number}:{k}", solid, run)
        for step in flight.steps:
            if step.kind == "winder":
                z = placed.base + step.z
                under = max(placed.base + low, z - stepping.riser - plumb)
                yield _part(placed, "stair_flight", f"winder:{step.number}", prism(step.area, under, z))
    for step in placed.layout.landings:
        z = placed.base + step.z
        low = max(placed.base, z - stair.depth)
        yield _part(placed, "stair_landing", str(step.number), prism(step.area, low, z))
