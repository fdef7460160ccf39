"""Solids of a roof block: covering, fascia, barges, soffits, the small gable over a hip; its frame is in `rafters`."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from functools import lru_cache

import shapely
from shapely.geometry import LineString, MultiPolygon, Polygon

from ...building.parts import Part, part_key
from ...geometry import Solid, line_through, polygons_of, prism, slab
from ...model import MakeUp
from ..onroofs.parts import Penetration
from .eaves import eave_area, fascia_area, gutter_parts, raked_edges
from .placed import ResolvedRoof, RoofPlane, SeamKind
from .rafters import SOFFIT, SOFFIT_UP, eave_z, roof_frame, soffit_z
from .slopes import FAR, band, local, past_rake, place, sheets, world

CAPPED: tuple[SeamKind, ...] = ("ridge", "hip", "valley")
CAP = 2.0
"""Thickness of flashings (mm)."""
NARROWEST = 10.0
"""A soffit narrower than this (mm) is none."""


@lru_cache(maxsize=128)
def roof_parts(roof: ResolvedRoof, make_up: MakeUp, holes: tuple[Penetration, ...] = ()) -> tuple[Part, ...]:
    """Every part of a roof block; `holes` are what goes through it."""
    structure = next((layer for layer in make_up.layers if layer.function == "structure"), make_up.layers[-1])
    parts: list[Part] = []
    taken = shapely.union_all([hole.outline for hole in holes])
    for plane in roof.planes:
        parts += _covering(roof, plane, make_up, holes)
        parts += _eave_boards(roof, plane, taken)
    if structure.framing:
        parts += roof_frame(roof, structure, tuple((hole.id, hole.clear) for hole in holes if not hole.clear.is_empty))
    parts += gutter_parts(roof)
    parts += _caps(roof, taken)
    for edge in range(len(roof.block.edges)):
        parts += _barges(roof, edge, taken)
    parts += _small_gables(roof)
    return tuple(parts)


def _make(
    roof: ResolvedRoof, role: str, material: str, solid: Solid, layer: str = "", slot: str = "", **more: object
) -> Part:
    own = slot.split(":")[1] if slot.startswith("edge:") else ""
    edge = roof.block.edge_number(own) if own else None
    eave = roof.eave if edge is None else roof.eave_of(edge)
    sums = (roof.ridge_top.id, eave.id)
    return Part(part_key(roof.block.id, role, layer, slot), roof.block.id, role, material, solid, sums=sums, **more)  # type: ignore[arg-type]


def _covering(roof: ResolvedRoof, plane: RoofPlane, make_up: MakeUp, holes: tuple[Penetration, ...]) -> Iterator[Part]:
    slope = (1.0 + plane.pitch**2) ** 0.5
    reached = 0.0
    above = []
    for layer in make_up.layers:
        if layer.function == "structure":
            break
        above.append(layer)
    first = local(plane, plane.whole).bounds[0]
    for layer in reversed(above):
        low = plane.top.lifted(reached)
        reached += layer.thickness * slope
        area = plane.under if layer.function == "sheathing" else plane.polygon
        if area.is_empty:
            continue
        solid = slab(area, low, layer.thickness * slope).minus([hole.body for hole in holes if hole.meets(area)])
        yield _make(
            roof,
            "roofing" if layer is make_up.layers[0] else layer.function,
            layer.material,
            solid,
            layer.id,
            roof.slot_of(plane),
            origin=(*place(plane, first, -plane.reach), eave_z(plane)),
            function=layer.function,
            outside=True,
        )


def _eave_boards(roof: ResolvedRoof, plane: RoofPlane, pierced: shapely.Geometry) -> Iterator[Part]:
    """Fascia and soffit, where this slope still comes down to its eave; barges take their thickness off."""
    board, top, z = roof.block.fascia_thickness, eave_z(plane), soffit_z(roof, plane)
    area = eave_area(roof, plane, pierced)
    face = roof.faces[plane.edge]
    fascia = fascia_area(roof, plane, area)
    if fascia.is_empty:
        return
    solid = prism(world(plane, fascia), top - roof.block.fascia_depth, top)
    yield _make(roof, "fascia", "trim", solid, slot=roof.slot_of(plane), function="finish")
    if roof.block.tails == "boxed" and plane.reach - board - face > NARROWEST:
        soffit = area.intersection(band(plane, -plane.reach + board, -face))
        yield _make(
            roof,
            "soffit",
            "trim",
            prism(world(plane, soffit), z, z + SOFFIT),
            slot=roof.slot_of(plane),
            function="finish",
        )


def _barges(roof: ResolvedRoof, edge: int, pierced: shapely.Geometry) -> Iterator[Part]:
    """The boards along a rake, slope by slope, with the returns that close the ends of the eaves; their soffits."""
    if edge not in raked_edges(roof):
        return
    board, depth, reach = roof.block.fascia_thickness, roof.block.fascia_depth, roof.reaches[edge]
    face = roof.faces[edge]
    outer = past_rake(roof, edge, reach - board, reach)
    # Where two rakes meet at a corner, the next one runs through.
    after = roof.neighbours(edge)[1]
    raked = after in raked_edges(roof)
    taken = past_rake(roof, after, roof.reaches[after] - board, roof.reaches[after] + 1.0) if raked else Polygon()
    taken = taken.union(pierced)
    width = reach - board - face
    inner = past_rake(roof, edge, face, reach - board) if width > NARROWEST else None
    for plane in roof.planes:
        if edge in plane.edges:
            continue
        wall = -roof.faces[plane.edge]
        boxed = roof.block.tails == "boxed" and plane.reach + wall > NARROWEST and not (plane.upper and not plane.reach)
        area = local(plane, plane.polygon.intersection(outer).difference(taken))
        closed = area.intersection(band(plane, -FAR, wall)) if boxed else Polygon()
        rest = area.intersection(band(plane, wall, FAR)) if boxed else area
        solids = [*sheets(plane, rest, 0.0, depth), *sheets(plane, closed, 0.0, depth, eave_z(plane) - depth)]
        slot = f"{roof.edge_id(edge)}:{roof.slot_of(plane)}"
        yield from _boards(roof, "barge", f"edge:{slot}", solids)
        if inner is not None and roof.block.tails == "boxed":
            low = depth - SOFFIT_UP
            under = local(plane, plane.polygon.intersection(inner).difference(pierced)).intersection(
                band(plane, wall, FAR)
            )
            yield from _boards(roof, "soffit", f"rake:{slot}", sheets(plane, under, low - SOFFIT, low))
            if boxed:
                # Towards the wall the end of the eave's box is closed under the soffit of the rake.
                side = plane.polygon.intersection(inner).difference(pierced)
                end = local(plane, side).intersection(band(plane, wall - board, wall))
                foot = soffit_z(roof, plane) + SOFFIT
                yield from _boards(roof, "barge", f"return:{slot}", sheets(plane, end, 0.0, depth, foot))


def _boards(roof: ResolvedRoof, role: str, slot: str, solids: Iterable[Solid]) -> Iterator[Part]:
    """Boards of one kind, those after the first by their number."""
    for number, solid in enumerate(solids):
        yield _make(roof, role, "trim", solid, slot=slot + (f":{number}" if number else ""), function="finish")


def _caps(roof: ResolvedRoof, pierced: shapely.Geometry) -> Iterator[Part]:
    """What covers ridges and hips and lines valleys: strips of metal along the lines, on the covering of each slope."""
    width = roof.block.caps
    for kind in CAPPED if width else ():
        lines = [LineString([seam.start[:2], seam.end[:2]]) for seam in roof.of(kind)]
        strip = shapely.union_all([line.buffer(width, cap_style="flat") for line in lines]).difference(pierced)
        for plane in roof.planes:
            area = plane.polygon.intersection(strip)
            pieces = list(polygons_of(area, min_area=width * width))
            if pieces:
                solid = slab(MultiPolygon(pieces), plane.top.lifted(plane.covering), CAP)
                yield _make(
                    roof, f"{kind}_flashing", "steel", solid, slot=roof.slot_of(plane), function="finish", outside=True
                )


def _small_gables(roof: ResolvedRoof) -> Iterator[Part]:
    """The upright panel of a gable over a hip."""
    board = roof.block.fascia_thickness
    for k, edge in enumerate(roof.block.edges):
        if edge.kind != "dutch_gable":
            continue
        for number, seam in enumerate(held for held in roof.of("break") if held.edges == (k,)):
            line = line_through(*roof.side(k))
            ends = sorted((seam.start[:2], seam.end[:2]), key=line.along)
            inward = (-line.dy * board, line.dx * board)
            panel = Polygon([*ends, *((x + inward[0], y + inward[1]) for x, y in reversed(ends))])
            solid = prism(panel, seam.start[2], roof.ridge_top.total)
            for plane in roof.planes:
                if k not in plane.edges and plane.whole.intersects(panel):
                    solid = solid.below(plane.top)
            slot = f"edge:{roof.edge_id(k)}" + (f":{number}" if number else "")
            yield _make(roof, "gable_panel", "trim", solid, slot=slot, function="finish", outside=True)
