"""Stage 5: roof blocks as planes, with the sums behind plate, heel, eave and ridge.

Heel and span are measured at the bearing line: the outline, on the outside of the frame.
"""

from __future__ import annotations

import math
from functools import lru_cache

from shapely.geometry import Polygon

from ..geometry import Point, line_through, meet, offset_line, plane_under
from ..model import MakeUp, RoofBlock
from ..units import HeightSum, SumTerm, format_pitch
from .building import Diagnostic, Level, ResolvedRoof, RoofPlane

SQUARE_MM = 2.0
"""How far an outline may be from a rectangle."""


DEEPEST_NOTCH = 0.5
"""A birdsmouth that takes more than this share of the rafter is refused. Practice allows a quarter to a third."""


@lru_cache(maxsize=256)
def resolve_roof(
    block: RoofBlock,
    outline: tuple[Point, ...],
    bearing: tuple[float, ...],
    make_up: MakeUp,
    plate: Level,
    skin: tuple[float, ...],
    faces: tuple[float, ...],
    units: str,
) -> tuple[ResolvedRoof | None, tuple[Diagnostic, ...]]:
    """The block in place, or None with the reason.

    `outline` counter-clockwise. Per edge: `bearing`, how far outside of it the bearing line lies (inside: negative);
    from the bearing line, `skin`, what overhangs are measured from (the outside of the sheathing, the face of the
    masonry), and `faces`, the outer face of the wall below.
    """
    if fault := _fault(block, outline):
        return None, (fault,)
    corners = _moved_out(outline, bearing)
    first = next(index for index, edge in enumerate(block.edges) if edge.kind == "eave")
    eaves = (first, first + 2)
    a, b, c, d = (corners[(first + step) % 4] for step in range(4))
    run = math.dist(b, c) / 2
    structure = next((layer for layer in make_up.layers if layer.function == "structure"), make_up.layers[-1])
    plumb = structure.thickness * math.hypot(1.0, block.pitch)
    deepest = min(plumb * DEEPEST_NOTCH / block.pitch, run / 2)
    if block.seat > deepest:
        return None, (_too_deep(block, deepest, corners[first]),)
    above = sum(layer.thickness for layer in make_up.layers[: make_up.layers.index(structure)])
    heel = plate.sum.plus(
        f"heel:{block.id}",
        f"heel, {block.name}",
        SumTerm("rafter, measured plumb", plumb, block.make_up),
        SumTerm("birdsmouth", -block.seat * block.pitch, block.id, "seat"),
    )
    rise = SumTerm(f"{format_pitch(block.pitch, units)} over half span", block.pitch * run, block.id, "pitch")
    ridge = HeightSum(
        f"ridge:{block.id}",
        f"ridge, {block.name}",
        (*heel.terms, rise, SumTerm("covering, measured plumb", above * math.hypot(1.0, block.pitch), block.make_up)),
    )
    reach = block.edges[first].overhang + max(skin[eaves[0]], skin[eaves[1]])
    overhang = SumTerm("pitch x overhang", -block.pitch * reach, block.id, "overhang")
    eave = HeightSum(f"eave:{block.id}", f"eave, {block.name}", (*heel.terms, overhang))
    sides = [(first + 3) % 4, (first + 1) % 4]
    rakes = tuple(_past(block, i, skin[i]) for i in sides)
    planes = tuple(
        _plane(block, edge, start, end, heel.total, run, reach, rake)
        for edge, start, end, rake in ((eaves[0], a, b, rakes), (eaves[1], c, d, rakes[::-1]))
    )
    along = line_through(a, b)
    ridge_ends = (
        _shift(_middle(a, d), along.dx, along.dy, -rakes[0]),
        _shift(_middle(b, c), along.dx, along.dy, rakes[1]),
    )
    resolved = ResolvedRoof(
        block,
        planes,
        ridge_ends,
        plumb,
        run,
        reach,
        (rakes[0], rakes[1]),
        Polygon(outline),
        plate.sum,
        heel,
        eave,
        ridge,
        (sides[0], sides[1]),
        above * math.hypot(1.0, block.pitch),
        sum(layer.thickness for layer in make_up.layers if layer.function == "sheathing")
        * math.hypot(1.0, block.pitch),
    )
    return resolved, tuple(_without_fascia(resolved, faces))


def _moved_out(corners: tuple[Point, ...], outward: tuple[float, ...]) -> tuple[Point, ...]:
    """The corners of a rectangle whose edges have moved outward."""
    lines = [
        offset_line(line_through(start, end), -by)
        for start, end, by in zip(corners, (*corners[1:], corners[0]), outward)
    ]
    met = [meet(lines[index - 1], lines[index]) for index in range(len(lines))]
    return tuple(point or corner for point, corner in zip(met, corners))


def _past(block: RoofBlock, edge: int, skin: float) -> float:
    """How far the slopes go past an end: its overhang; up to a wall's face; or, for now, not at all."""
    treatment = block.edges[edge]
    return {"gable": treatment.overhang + skin, "joined": 0.0}.get(treatment.kind, -skin)


def _without_fascia(roof: ResolvedRoof, faces: tuple[float, ...]) -> list[Diagnostic]:
    bare = [plane.edge for plane in roof.planes if not roof.has_fascia(faces[plane.edge])]
    if not bare:
        return []
    room = max(faces[edge] for edge in bare) + roof.block.fascia_thickness - roof.reach
    return [
        Diagnostic(
            "no-room-for-fascia",
            f"the overhang of {roof.block.name} leaves no room for its fascia, so there is none; make it wider",
            "warning",
            roof.block.id,
            "overhang",
            roof.block.edges[bare[0]].overhang,
            roof.block.edges[bare[0]].overhang + room,
        )
    ]


def _fault(block: RoofBlock, corners: tuple[Point, ...]) -> Diagnostic | None:
    sides = [math.dist(corners[i], corners[(i + 1) % 4]) for i in range(4)]
    diagonals = math.dist(corners[0], corners[2]), math.dist(corners[1], corners[3])
    area = Polygon(corners).area if len(set(corners)) == 4 else 0.0
    square = (
        abs(sides[0] - sides[2]) < SQUARE_MM
        and abs(sides[1] - sides[3]) < SQUARE_MM
        and abs(diagonals[0] - diagonals[1]) < SQUARE_MM
    )
    if square and min(sides) > 300.0 and area > 0:
        return None
    return Diagnostic(
        "roof-outline",
        f"{block.name} needs a rectangle at least 300 mm wide; its outline is not one",
        "blocking",
        block.id,
        "outline",
        value=abs(diagonals[0] - diagonals[1]),
        limit=SQUARE_MM,
        at=corners[0],
    )


def _too_deep(block: RoofBlock, deepest: float, at: Point) -> Diagnostic:
    return Diagnostic(
        "birdsmouth-too-deep",
        f"the birdsmouth of {block.name} would cut through more than half of its rafters; make its seat shorter",
        "blocking",
        block.id,
        "seat",
        block.seat,
        deepest,
        at=at,
    )


def _middle(a: Point, b: Point) -> Point:
    return (a[0] + b[0]) / 2, (a[1] + b[1]) / 2


def _shift(point: Point, dx: float, dy: float, by: float) -> Point:
    return point[0] + dx * by, point[1] + dy * by


def _plane(
    block: RoofBlock, edge: int, start: Point, end: Point, z: float, run: float, reach: float, rakes: tuple[float, ...]
) -> RoofPlane:
    """The slope over the eave start-end, inward to its left; rakes lengthen it past both ends."""
    line = line_through(start, end)
    inward = (-line.dy, line.dx)
    left, right = _shift(start, line.dx, line.dy, -rakes[0]), _shift(end, line.dx, line.dy, rakes[1])
    polygon = Polygon(
        [
            _shift(left, *inward, -reach),
            _shift(right, *inward, -reach),
            _shift(right, *inward, run),
            _shift(left, *inward, run),
        ]
    )
    return RoofPlane(block.id, edge, polygon, polygon, plane_under(start, end, z, block.pitch), start, end, inward)
