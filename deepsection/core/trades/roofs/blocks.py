"""Stage: roof blocks as planes, with the sums behind plate, heel, eave and ridge.

Heel and span are measured at the bearing line: the outline, on the outside of the frame.
"""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Iterator
from dataclasses import replace
from functools import lru_cache

from shapely.geometry import Polygon

from ...building.diagnostics import Diagnostic
from ...errors import GeometryError
from ...geometry import Plane, Plane3, Point, RoofShape, Slope, Turn, compass, line_through, moved_out, roof_shape
from ...model import SLOPING, Layer, MakeUp, RoofBlock
from ...units import HeightSum, SumTerm, Units, format_length, format_pitch
from ..levels.placed import Level
from .placed import ResolvedRoof, RoofPlane, RoofSeam, shape_of

DEEPEST_NOTCH = 0.5
"""A birdsmouth that takes more than this share of the rafter is refused. Practice allows a quarter to a third."""
MEETING = 1.0
"""Fascias meet at a corner when their heights differ by less than this (mm)."""

Rings = tuple[tuple[Point, ...], ...]


def carried(make_up: MakeUp) -> tuple[Layer, float]:
    """Of a roof the layer that carries, and how thick what lies on it is (mm, square to the slope)."""
    structure = next((layer for layer in make_up.layers if layer.function == "structure"), make_up.layers[-1])
    return structure, sum(layer.thickness for layer in make_up.layers[: make_up.layers.index(structure)])


def over_plate(make_up: MakeUp, pitch: float, seat: float) -> float:
    """How far the top of a roof lies over its plate at the bearing line (mm, plumb): rafter, less its birdsmouth, and
    what lies on it."""
    structure, above = carried(make_up)
    return (structure.thickness + above) * math.hypot(1.0, pitch) - seat * pitch


@lru_cache(maxsize=256)
def resolve_roof(
    block: RoofBlock,
    rings: Rings,
    bearing: tuple[float, ...],
    make_up: MakeUp,
    plate: Level,
    skin: tuple[float, ...],
    faces: tuple[float, ...],
    units: Units,
    onward: tuple[float, ...],
) -> tuple[ResolvedRoof | None, tuple[Diagnostic, ...]]:
    """The block in place, or None with the reason.

    `rings`: the outline counter-clockwise, courts clockwise. Per edge: `bearing`, how far outside of it the bearing
    line lies (inside: negative); from the bearing line, `skin`, what overhangs are measured from (the outside of the
    sheathing, the face of the masonry), and `faces`, the outer face of the wall below; `onward`, how far an edge that
    runs into another roof is carried on.
    """
    try:
        lines = tuple(tuple(ring) for ring in moved_out(rings, bearing))
    except GeometryError as error:
        return None, (_no_roof(block, rings, str(error)),)
    structure, above = carried(make_up)
    sheathing = sum(layer.thickness for layer in make_up.layers if layer.function == "sheathing")
    plumb = structure.thickness * math.hypot(1.0, block.pitch)
    bears = plate.sum
    if block.offset:
        above_plate = SumTerm(f"above {plate.name}", block.offset, block.id, "offset")
        bears = bears.plus(f"bearing:{block.id}", f"bearing, {block.name}", above_plate)
    parts: tuple[SumTerm, ...] = (
        SumTerm("rafter, measured plumb", plumb, block.make_up),
        SumTerm("birdsmouth", -block.seat * block.pitch, block.id, "seat"),
    )
    if block.heel is not None:
        parts = (SumTerm("heel, as stated", block.heel, block.id, "heel"),)
    heel = bears.plus(f"heel:{block.id}", f"heel, {block.name}", *parts)
    reaches = _reaches(block, skin, onward)
    slopes = [_slope(block, k, reach) for k, reach in enumerate(reaches)]
    try:
        shape = roof_shape(lines, slopes, heel.total)
    except GeometryError as error:
        return None, (_no_roof(block, rings, str(error)),)
    sides = [(a, b) for ring in lines for a, b in zip(ring, (*ring[1:], ring[0]))]

    def placed(pieces: list[Plane]) -> RoofPlane:
        plane = pieces[0]
        k, slope = plane.edges[0], math.hypot(1.0, plane.pitch)
        depth = structure.thickness * slope
        line, height = plane.base
        start, end = (line.at(line.along(point)) for point in sides[k])
        # The notch goes in to where the underside of the rafter comes up to the plate.
        at_plate = bears.total + block.edges[k].raised
        seat = max(0.0, (at_plate - height + depth) / plane.pitch) if not plane.upper else 0.0
        polygon = shape_of(Polygon([(x, y) for x, y, _ in piece.vertices]) for piece in pieces)
        a, b = -plane.pitch * line.dy, plane.pitch * line.dx
        top = Plane3(a, b, height - a * line.x - b * line.y)
        reach = 0.0 if plane.upper and slopes[k].pitch else reaches[k]
        return RoofPlane(
            block.id, plane.edges, plane.upper, plane.pitch, polygon, polygon, polygon, top, start, end, height, reach,
            at_plate, seat, depth, above * slope, sheathing * slope,
        )  # fmt: skip

    pieces: dict[tuple[bool, tuple[int, ...]], list[Plane]] = defaultdict(list)
    for plane in shape.planes:
        if plane.plan_area > 1.0:
            pieces[plane.upper, plane.edges].append(plane)
    planes = tuple(placed(held) for held in pieces.values())
    ridge, run = _ridge(block, shape, heel, above, units)
    roof = ResolvedRoof(
        block,
        Polygon(rings[0], rings[1:]),
        lines,
        planes,
        tuple(RoofSeam(held.kind, held.planes, held.start, held.end) for held in shape.lines),
        faces,
        reaches,
        bears,
        heel,
        tuple(_eaves(block, sides, reaches, heel)),
        ridge,
        run,
        proofs=tuple(_proofs(block, shape, heel, above, units)),
    )
    deepest = min(plumb * DEEPEST_NOTCH / block.pitch, run / 2)
    if block.heel is None and block.seat > deepest:
        return None, (_too_deep(block, deepest, lines[0][0]),)
    return roof, (*_without_fascia(roof), *_apart(roof))


def _reaches(block: RoofBlock, skin: tuple[float, ...], onward: tuple[float, ...]) -> tuple[float, ...]:
    """Per edge, how far slopes go past the bearing line; eaves of one overhang go equally far."""
    widest = max((skin[k] for k, edge in enumerate(block.edges) if edge.kind in SLOPING), default=0.0)
    past = {"abutment": lambda k: -skin[k], "joined": lambda k: onward[k]}
    return tuple(
        past[edge.kind](k)
        if edge.kind in past
        else edge.overhang + (widest if edge.kind in SLOPING else skin[k])
        for k, edge in enumerate(block.edges)
    )  # fmt: skip


def _slope(block: RoofBlock, k: int, reach: float) -> Slope:
    edge = block.edges[k]
    pitch = edge.pitch or block.pitch
    if edge.kind == "half_hip":
        return Slope(None, reach, turn=Turn(edge.height or 0.0, pitch))
    if edge.kind not in SLOPING:
        return Slope(None, reach)
    turn = Turn(edge.height, edge.upper_pitch) if edge.height and (edge.upper_pitch or edge.kind != "eave") else None
    return Slope(pitch, reach, edge.raised, turn)


def _eaves(
    block: RoofBlock, sides: list[tuple[Point, Point]], reaches: tuple[float, ...], heel: HeightSum
) -> Iterator[tuple[int, HeightSum]]:
    """Per sloping edge, the height of its eave; equal ones are one sum."""
    found: list[HeightSum] = []
    for k, edge in enumerate(block.edges):
        if edge.kind not in SLOPING:
            continue
        overhang = SumTerm("pitch x overhang", -(edge.pitch or block.pitch) * reaches[k], block.id, "overhang")
        raised = (SumTerm("raised by", edge.raised, block.id, f"raised_{edge.id}"),) if edge.raised else ()
        id = f"eave:{block.id}:{edge.id}" if found else f"eave:{block.id}"
        name = f"eave {k + 1}, {block.name}" if found else f"eave, {block.name}"
        height = HeightSum(id, name, (*heel.terms, *raised, overhang))
        line = line_through(*sides[k])
        x, y = line.at(math.dist(*sides[k]) / 2)
        out = (x + line.dy * reaches[k], y - line.dx * reaches[k])
        height = replace(height, slope=((x, y, heel.total + edge.raised), (*out, height.total)))
        same = next((held for held in found if abs(held.total - height.total) < MEETING / 100), None)
        if same is None:
            found.append(height)
        yield k, same or height


def _ridge(block: RoofBlock, shape: RoofShape, heel: HeightSum, above: float, units: Units) -> tuple[HeightSum, float]:
    """The height of the highest point with its terms, and its distance from the bearing line of its slope."""
    top = max(z for plane in shape.planes for *_, z in plane.vertices)
    plane = next(plane for plane in shape.planes if max(z for *_, z in plane.vertices) > top - 1e-6)
    edge = block.edges[plane.edges[0]]
    pitches = {held.pitch for held in shape.planes}
    even = len(pitches) == 1 and len(shape.planes) > 1 and not any(held.raised for held in block.edges)
    over = "half span" if even else "run"
    terms = [SumTerm("raised by", edge.raised, block.id, f"raised_{edge.id}")] if edge.raised else []
    turned, inward = 0.0, 0.0
    if plane.upper:
        turned = edge.height or 0.0
        inward = turned / (edge.pitch or block.pitch) if edge.kind == "eave" else 0.0
        terms.append(SumTerm("up to the break", turned, block.id, f"height_{edge.id}"))
    rise = top - heel.total - edge.raised - turned
    field = "pitch" if plane.pitch == block.pitch else f"pitch_{edge.id}"
    terms.append(SumTerm(f"{format_pitch(plane.pitch, units)} over {over}", rise, block.id, field))
    terms.append(SumTerm("covering, measured plumb", above * math.hypot(1.0, plane.pitch), block.make_up))
    # The head of a lean-to is no ridge.
    name = f"{'ridge' if len(shape.planes) > 1 else 'head'}, {block.name}"
    line, base = plane.base
    points = [vertex for vertex in plane.vertices if vertex[2] > top - 1e-6]
    x, y = (sum(point[n] for point in points) / len(points) for n in (0, 1))
    foot = line.at(line.along((x, y)))
    height = HeightSum(f"ridge:{block.id}", name, (*heel.terms, *terms), ((*foot, base), (x, y, top)))
    return height, inward + rise / plane.pitch


def _proofs(block: RoofBlock, shape: RoofShape, heel: HeightSum, above: float, units: Units) -> Iterator[HeightSum]:
    """The drafter's proof: the height of each ridge, found from the slope at each of its sides."""
    ridges = [line for line in shape.lines if line.kind == "ridge" and len(line.planes) > 1]
    for number, ridge in enumerate(ridges, 1):
        x, y = ((a + b) / 2 for a, b in zip(ridge.start[:2], ridge.end[:2]))
        for k in ridge.planes:
            planes = [plane for plane in shape.planes if k in plane.edges]
            plane = min(planes, key=lambda held: abs(held.z(x, y) - ridge.start[2]))
            line, height = plane.base
            edge = block.edges[k]
            terms = [SumTerm("raised by", edge.raised, block.id, f"raised_{edge.id}")] if edge.raised else []
            if plane.upper:
                terms.append(
                    SumTerm("up to the break", height - heel.total - edge.raised, block.id, f"height_{edge.id}")
                )
            run = line.left_of((x, y))
            words = f"{format_pitch(plane.pitch, units)} over {format_length(run, units)}"
            terms.append(
                SumTerm(words, plane.pitch * run, block.id, "pitch" if edge.pitch is None else f"pitch_{edge.id}")
            )
            terms.append(SumTerm("covering, measured plumb", above * math.hypot(1.0, plane.pitch), block.make_up))
            side = compass(line.dy, -line.dx)
            name = f"ridge {number} from the {side}" if len(ridges) > 1 else f"ridge from the {side}"
            slope = ((*line.at(line.along((x, y))), height), (x, y, plane.z(x, y)))
            yield HeightSum(f"proof:{block.id}:{number}:{edge.id}", name, (*heel.terms, *terms), slope)


def _no_roof(block: RoofBlock, rings: Rings, why: str) -> Diagnostic:
    message = f"{block.name} cannot be roofed: {why}"
    return Diagnostic("roof-outline", message, block.id, "outline", at=rings[0][0])


def _without_fascia(roof: ResolvedRoof) -> list[Diagnostic]:
    bare = [k for k, edge in enumerate(roof.block.edges) if edge.kind in SLOPING and not roof.has_fascia(k)]
    if not bare:
        return []
    room = max(roof.faces[k] - roof.reaches[k] for k in bare) + roof.block.fascia_thickness
    message = f"the overhang of {roof.block.name} leaves no room for its fascia, so there is none; make it wider"
    overhang = roof.block.edges[bare[0]].overhang
    return [
        Diagnostic(
            "no-room-for-fascia", message, roof.block.id, "overhang", overhang, overhang + room,
            at=roof.side(bare[0])[0],
        )
    ]  # fmt: skip


def _apart(roof: ResolvedRoof) -> Iterator[Diagnostic]:
    """Corners at which the fascias of two eaves come at different heights."""
    for k, height in roof.eaves:
        _, after = roof.neighbours(k)
        other = dict(roof.eaves).get(after)
        if other is None or abs(other.total - height.total) < MEETING:
            continue
        message = (
            f"the fascias of {roof.block.name} meet at different heights here: change the overhang, the pitch "
            "or how much one of the two eaves is raised"
        )
        yield Diagnostic(
            "fascias-apart", message, roof.block.id, f"overhang_{roof.edge_id(after)}", other.total, height.total,
            at=roof.side(after)[0],
        )  # fmt: skip


def _too_deep(block: RoofBlock, deepest: float, at: Point) -> Diagnostic:
    return Diagnostic(
        "birdsmouth-too-deep",
        f"the birdsmouth of {block.name} would cut through more than half of its rafters; make its seat shorter",
        block.id,
        "seat",
        block.seat,
        deepest,
        at=at,
    )
