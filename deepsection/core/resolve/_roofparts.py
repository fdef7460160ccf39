"""Solids of a roof block: covering, rafters with birdsmouths, ridge board, fascia, barges, soffits."""

from __future__ import annotations

import math
from collections.abc import Iterator
from functools import lru_cache

import shapely
from shapely.geometry import MultiPolygon, Polygon
from shapely.geometry import box as rectangle
from shapely.ops import unary_union

from ..geometry import Point, largest, line_through, prism, prism_along
from ..model import MakeUp
from ..tolerance import TOL
from ._framing import stations
from .building import Part, ResolvedRoof, RoofPlane, part_key

RIDGE_BOARD = 38.1
SOFFIT = 9.5
SOFFIT_UP = 12.0
"""Ridge board and soffit board in mm; the soffit lies this far above the foot of the fascia. Common practice."""

TAIL_AT = 60.0
"""How far outside of the bearing line (mm) it is asked whether another roof covers a rafter's tail."""

_FAR = 1e5


@lru_cache(maxsize=128)
def roof_parts(roof: ResolvedRoof, make_up: MakeUp, faces: tuple[float, ...]) -> tuple[Part, ...]:
    """Every part of a roof block. `faces`: per edge, from the outline to the outer face of the wall below."""
    structure = next((layer for layer in make_up.layers if layer.function == "structure"), make_up.layers[-1])
    parts: list[Part] = []
    for plane in roof.planes:
        parts += _covering(roof, plane, make_up)
        if structure.framing:
            parts += _rafters(
                roof, plane, structure.id, structure.material, structure.framing.thickness, structure.framing.spacing
            )
        parts += _eave_boards(roof, plane, faces)
    if structure.framing:
        parts.append(_ridge_board(roof, structure.id, structure.material))
    parts += _barges(roof, faces)
    return tuple(parts)


def _make(
    roof: ResolvedRoof, role: str, material: str, solid: object, layer: str = "", slot: str = "", **more: object
) -> Part:
    sums = (roof.ridge_top.id, roof.eave.id)
    return Part(part_key(roof.block.id, role, layer, slot), roof.block.id, role, material, solid, sums=sums, **more)  # type: ignore[arg-type]


def structure_top(roof: ResolvedRoof, inward: float) -> float:
    """Height of the top of the structure at a distance inward from a bearing line."""
    return roof.heel.total + roof.block.pitch * min(inward, 2 * roof.run - inward)


def _length(plane: RoofPlane) -> float:
    return math.dist(plane.eave_start, plane.eave_end)


def _rakes(roof: ResolvedRoof, plane: RoofPlane) -> tuple[float, float]:
    return roof.rakes if plane is roof.planes[0] else (roof.rakes[1], roof.rakes[0])


def _at(plane: RoofPlane, along: float) -> Point:
    return line_through(plane.eave_start, plane.eave_end).at(along)


def _covering(roof: ResolvedRoof, plane: RoofPlane, make_up: MakeUp) -> Iterator[Part]:
    slope = math.hypot(1.0, roof.block.pitch)
    reached = 0.0
    above = []
    for layer in make_up.layers:
        if layer.function == "structure":
            break
        above.append(layer)
    for layer in reversed(above):
        low, high = plane.top.lifted(reached), plane.top.lifted(reached + layer.thickness * slope)
        reached += layer.thickness * slope
        area = plane.under if layer.function == "sheathing" else plane.polygon
        solid = prism(area, roof.eave.total - 1000, roof.ridge_top.total + 1000).below(high).above(low)
        yield _make(
            roof,
            "roofing" if layer is make_up.layers[0] else layer.function,
            layer.material,
            solid,
            layer.id,
            f"edge:{plane.edge}",
            origin=(*_eave_edge(roof, plane), roof.eave.total),
            function=layer.function,
            outside=True,
        )


def _eave_edge(roof: ResolvedRoof, plane: RoofPlane) -> Point:
    x, y = _at(plane, -_rakes(roof, plane)[0])
    return x - plane.inward[0] * roof.reach, y - plane.inward[1] * roof.reach


def rafter_stations(roof: ResolvedRoof, thickness: float, spacing: float) -> list[tuple[int, float]]:
    """(slot, near edge) of rafters along the first eave, measured from its start.

    They are laid out from the gable towards an end that runs into another roof, and on until its ridge dies there.
    """
    length = _length(roof.planes[0])
    first, last = max(0.0, -roof.rakes[0]), length - max(0.0, -roof.rakes[1])
    if not roof.joins:
        return stations(first, last, spacing, thickness)
    join = roof.joins[0]
    reach = last - first + join.reach
    found = [(slot, near) for slot, near in stations(0.0, reach + spacing, spacing, thickness) if near < reach]
    if join.end == 1:
        return [(slot, first + near) for slot, near in found]
    return [(slot, last - near - thickness) for slot, near in found]


def _rafters(
    roof: ResolvedRoof, plane: RoofPlane, layer: str, material: str, thickness: float, spacing: float
) -> Iterator[Part]:
    block, length = roof.block, _length(plane)
    profile = rafter_profile(roof)
    bare = largest(profile.intersection(rectangle(0.0, -_FAR, _FAR, _FAR)))
    rise = math.hypot(1.0, block.pitch)
    axis = (plane.inward[0] / rise, plane.inward[1] / rise, block.pitch / rise)
    covered = unary_union(roof.guests)
    for slot, near in rafter_stations(roof, thickness, spacing):
        along = near if plane is roof.planes[0] else length - near - thickness
        x, y = _at(plane, along + thickness / 2)
        tail = shapely.Point(x - plane.inward[0] * TAIL_AT, y - plane.inward[1] * TAIL_AT)
        solid = prism_along(bare if covered.contains(tail) else profile, _at(plane, along), plane.inward, thickness)
        for join in roof.joins:
            if near + thickness < 0 or near > length:
                solid = solid.above(join.deck)
        yield _make(
            roof,
            "rafter",
            material,
            solid,
            layer,
            f"edge:{plane.edge}:{slot}",
            axis=axis,
            outside=False,
            function="structure",
        )


def rafter_profile(roof: ResolvedRoof) -> Polygon:
    """A rafter in its own plane (inward, z): plumb tail cut level over the soffit, birdsmouth, plumb ridge cut.

    Without an overhang it ends plumb at the bearing line.
    """
    block, plate = roof.block, roof.plate.total
    tail, head = min(0.0, block.fascia_thickness - roof.reach), roof.run - RIDGE_BOARD / 2

    def top(inward: float) -> float:
        return roof.heel.total + block.pitch * inward

    points = [
        (tail, top(tail) - roof.plumb_depth),
        (0.0, top(0.0) - roof.plumb_depth),
        (0.0, plate),
        (block.seat, plate),
        (head, top(head) - roof.plumb_depth),
        (head, top(head)),
        (tail, top(tail)),
    ]
    level = _soffit_z(roof) + SOFFIT
    return largest(Polygon(points).difference(rectangle(-_FAR, -_FAR, 0.0, level)))


def _soffit_z(roof: ResolvedRoof) -> float:
    return roof.eave.total - roof.block.fascia_depth + SOFFIT_UP


def _ridge_board(roof: ResolvedRoof, layer: str, material: str) -> Part:
    plane = roof.planes[0]
    top = structure_top(roof, roof.run - RIDGE_BOARD / 2)
    first, last = max(0.0, -roof.rakes[0]), _length(plane) - max(0.0, -roof.rakes[1])
    for join in roof.joins:
        first, last = (first - join.reach, last) if join.end == 0 else (first, last + join.reach)
    profile = rectangle(roof.run - RIDGE_BOARD / 2, top - roof.plumb_depth, roof.run + RIDGE_BOARD / 2, top)
    solid = prism_along(profile, _at(plane, first), plane.inward, last - first)
    for join in roof.joins:
        solid = solid.above(join.deck)
    along = line_through(plane.eave_start, plane.eave_end)
    return _make(
        roof, "ridge_board", material, solid, layer, axis=(along.dx, along.dy, 0.0), outside=False, function="structure"
    )


def _eave_boards(roof: ResolvedRoof, plane: RoofPlane, faces: tuple[float, ...]) -> Iterator[Part]:
    """Fascia and soffit, where this slope still comes down to its eave."""
    if not roof.has_fascia(faces[plane.edge]):
        return
    board, top, z = roof.block.fascia_thickness, roof.eave.total, _soffit_z(roof)
    slot = f"edge:{plane.edge}"
    spans = _eave_spans(roof, plane)
    fascia = _strips(plane, spans, -roof.reach, -roof.reach + board)
    yield _make(roof, "fascia", "trim", prism(fascia, top - roof.block.fascia_depth, top), slot=slot, function="finish")
    if roof.reach - board - faces[plane.edge] > 10:
        soffit = _strips(plane, spans, -roof.reach + board, -faces[plane.edge])
        yield _make(roof, "soffit", "trim", prism(soffit, z, z + SOFFIT), slot=slot, function="finish")


def _eave_spans(roof: ResolvedRoof, plane: RoofPlane) -> list[tuple[float, float]]:
    """From-to distances along the eave where the slope reaches its lower edge; barges take their thickness off."""
    board, rakes = roof.block.fascia_thickness, _rakes(roof, plane)
    line = line_through(plane.eave_start, plane.eave_end)
    low, high = -rakes[0], _length(plane) + rakes[1]
    edge = shapely.LineString(_eave_corner(plane, at, roof.reach) for at in (low, high))
    shared = edge.intersection(plane.polygon.boundary.buffer(TOL.point * 5))
    spans = []
    for piece in shapely.get_parts(shared):
        ends = sorted(line.along(point) for point in piece.coords) if piece.geom_type == "LineString" else [0.0, 0.0]
        if ends[-1] - ends[0] > board * 2:
            spans.append((ends[0], ends[-1]))
    return [
        (
            start + (board if rakes[0] > 0 and start < low + 2 else 0.0),
            end - (board if rakes[1] > 0 and end > high - 2 else 0.0),
        )
        for start, end in spans
    ]


def _eave_corner(plane: RoofPlane, along: float, outward: float) -> Point:
    x, y = _at(plane, along)
    return x - plane.inward[0] * outward, y - plane.inward[1] * outward


def _strips(plane: RoofPlane, spans: list[tuple[float, float]], outer: float, inner: float) -> MultiPolygon:
    """Rectangles along an eave between two distances inward from the bearing line."""
    return MultiPolygon(
        [
            Polygon(
                [_eave_corner(plane, at, -inward) for at, inward in ((a, outer), (b, outer), (b, inner), (a, inner))]
            )
            for a, b in spans
        ]
    )


def _barges(roof: ResolvedRoof, faces: tuple[float, ...]) -> Iterator[Part]:
    block, plane = roof.block, roof.planes[0]
    length = _length(plane)
    ends = (
        ((plane.edge + 3) % 4, roof.rakes[0], -roof.rakes[0]),
        ((plane.edge + 1) % 4, roof.rakes[1], length + roof.rakes[1]),
    )
    for side, (edge, rake, edge_along) in enumerate(ends):
        if block.edges[edge].kind != "gable" or rake < block.fascia_thickness:
            continue
        near = edge_along if side == 0 else edge_along - block.fascia_thickness
        profile = _barge_profile(roof, faces)
        solid = prism_along(profile, _at(plane, near), plane.inward, block.fascia_thickness)
        solid = solid.minus(prism(guest, roof.eave.total - _FAR, roof.ridge_top.total + _FAR) for guest in roof.guests)
        yield _make(roof, "barge", "trim", solid, slot=f"edge:{edge}", function="finish")
        width = rake - block.fascia_thickness - faces[edge]
        if width > 10:
            start = -faces[edge] - width if side == 0 else length + faces[edge]
            low = block.fascia_depth - SOFFIT_UP
            band = _band(roof, low - SOFFIT, low, -faces[plane.edge])
            yield _make(
                roof,
                "soffit",
                "trim",
                prism_along(band, _at(plane, start), plane.inward, width),
                slot=f"rake:{edge}",
                function="finish",
            )


def _band(roof: ResolvedRoof, above: float, below: float, start: float) -> Polygon:
    """An inverted V between two plumb depths under the top of the structure."""
    ridge, end = roof.run, 2 * roof.run - start
    line = [(start, structure_top(roof, start)), (ridge, structure_top(roof, ridge)), (end, structure_top(roof, end))]
    return Polygon([*((x, z - below) for x, z in line), *((x, z - above) for x, z in reversed(line))])


def _barge_profile(roof: ResolvedRoof, faces: tuple[float, ...]) -> Polygon:
    """The barge board with the returns that close the ends of the eaves."""
    depth = roof.block.fascia_depth
    pieces = [_band(roof, 0.0, depth, -roof.reach)]
    foot = roof.eave.total - depth
    for mirror, edge in ((False, roof.planes[0].edge), (True, roof.planes[1].edge)):
        face = -faces[edge]
        if roof.reach + face < 10:
            continue
        triangle = [
            (-roof.reach, foot),
            (face, foot),
            (face, structure_top(roof, face) - depth + 1),
            (-roof.reach, foot + 1),
        ]
        if mirror:
            triangle = [(2 * roof.run - x, z) for x, z in triangle]
        pieces.append(Polygon(triangle))
    return largest(unary_union(pieces))
