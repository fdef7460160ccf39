"""Solids of a roof block: covering, rafters with birdsmouths, ridge board, fascia, barges, soffits."""

from __future__ import annotations

import math
from collections.abc import Iterator
from functools import lru_cache

from shapely.geometry import Polygon
from shapely.geometry import box as rectangle
from shapely.ops import unary_union

from ..geometry import Point, line_through, prism, prism_along
from ..model import MakeUp
from ._walls import stations
from .building import Part, ResolvedRoof, RoofPlane, part_key

RIDGE_BOARD = 38.1
SOFFIT = 9.5
SOFFIT_UP = 12.0
"""Ridge board and soffit board in mm; the soffit lies this far above the foot of the fascia. Common practice."""

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
        solid = prism(plane.polygon, roof.eave.total - 1000, roof.ridge_top.total + 1000).below(high).above(low)
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
    """(slot, near edge) of rafters along the first eave, measured from its start."""
    first = max(0.0, -roof.rakes[0])
    last = _length(roof.planes[0]) - max(0.0, -roof.rakes[1])
    return stations(first, last, spacing, thickness)


def _rafters(
    roof: ResolvedRoof, plane: RoofPlane, layer: str, material: str, thickness: float, spacing: float
) -> Iterator[Part]:
    block, length = roof.block, _length(plane)
    profile = rafter_profile(roof)
    rise = math.hypot(1.0, block.pitch)
    axis = (plane.inward[0] / rise, plane.inward[1] / rise, block.pitch / rise)
    for slot, near in rafter_stations(roof, thickness, spacing):
        along = near if plane is roof.planes[0] else length - near - thickness
        solid = prism_along(profile, _at(plane, along), plane.inward, thickness)
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
    return max(_list(Polygon(points).difference(rectangle(-_FAR, -_FAR, 0.0, level))), key=lambda piece: piece.area)


def _list(shape: Polygon) -> list[Polygon]:
    return [shape] if isinstance(shape, Polygon) else list(shape.geoms)


def _soffit_z(roof: ResolvedRoof) -> float:
    return roof.eave.total - roof.block.fascia_depth + SOFFIT_UP


def _ridge_board(roof: ResolvedRoof, layer: str, material: str) -> Part:
    plane = roof.planes[0]
    top = structure_top(roof, roof.run - RIDGE_BOARD / 2)
    first, last = max(0.0, -roof.rakes[0]), _length(plane) - max(0.0, -roof.rakes[1])
    profile = rectangle(roof.run - RIDGE_BOARD / 2, top - roof.plumb_depth, roof.run + RIDGE_BOARD / 2, top)
    solid = prism_along(profile, _at(plane, first), plane.inward, last - first)
    along = line_through(plane.eave_start, plane.eave_end)
    return _make(
        roof, "ridge_board", material, solid, layer, axis=(along.dx, along.dy, 0.0), outside=False, function="structure"
    )


def _eave_boards(roof: ResolvedRoof, plane: RoofPlane, faces: tuple[float, ...]) -> Iterator[Part]:
    block, rakes = roof.block, _rakes(roof, plane)
    board = block.fascia_thickness
    top = roof.eave.total
    trims = tuple(board if rake > 0 else 0.0 for rake in rakes)
    start, length = -rakes[0] + trims[0], _length(plane) + sum(rakes) - sum(trims)
    if not roof.has_fascia(faces[plane.edge]):
        return
    fascia = rectangle(-roof.reach, top - block.fascia_depth, -roof.reach + board, top)
    slot = f"edge:{plane.edge}"
    yield _make(
        roof,
        "fascia",
        "trim",
        prism_along(fascia, _at(plane, start), plane.inward, length),
        slot=slot,
        function="finish",
    )
    z = _soffit_z(roof)
    if roof.reach - board - faces[plane.edge] > 10:
        soffit = rectangle(-roof.reach + board, z, -faces[plane.edge], z + SOFFIT)
        yield _make(
            roof,
            "soffit",
            "trim",
            prism_along(soffit, _at(plane, start), plane.inward, length),
            slot=slot,
            function="finish",
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
    return max(_list(unary_union(pieces)), key=lambda piece: piece.area)
