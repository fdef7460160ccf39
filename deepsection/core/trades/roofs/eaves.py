"""The eaves of a roof block: where boards run along them, gutters, and downpipes."""

from __future__ import annotations

import itertools
from collections.abc import Iterator
from functools import lru_cache

import shapely
from shapely.geometry import LineString, MultiPolygon, Polygon
from shapely.geometry import box as rectangle

from ...building.parts import Part, part_key
from ...geometry import Point, moved_out, polygons_of, prism, prism_along
from ...model import RAKED, Downpipe
from ...tolerance import TOL
from ..onroofs.placed import PlacedDownpipe
from .placed import ResolvedRoof, RoofPlane
from .rafters import eave_z
from .slopes import FAR, band, local, past_rake, world

GUTTER_LOW = 10.0
"""How far the top of a gutter lies below the top of the fascia (mm)."""
GUTTER_DEEP = 0.8
"""Depth of a gutter as a share of its width, at most that of the fascia. Common practice, no source."""
SHEET = 2.0
"""Thickness of the metal of gutters (mm)."""
OFF_WALL, SHOE, NECK = 15.0, 100.0, 80.0
"""Of a downpipe: its gap to the wall, the height of its end above ground, its outlet under the gutter (mm)."""


def eave_area(roof: ResolvedRoof, plane: RoofPlane, pierced: shapely.Geometry) -> shapely.Geometry:
    """Where a slope has boards at its eave, in its own coordinates: between barges, clear of what pierces it."""
    board = roof.block.fascia_thickness
    rakes = [
        past_rake(roof, k, roof.reaches[k] - board, roof.reaches[k] + 1.0)
        for k in raked_edges(roof)
        if k not in plane.edges
    ]
    taken = shapely.union_all([*rakes, pierced])
    return local(plane, shapely.difference(plane.polygon, taken, grid_size=TOL.grid))


def fascia_area(roof: ResolvedRoof, plane: RoofPlane, area: shapely.Geometry) -> shapely.Geometry:
    """The fascia of a slope in its own coordinates; empty where it has none."""
    board = roof.block.fascia_thickness
    if not roof.has_fascia(plane.edge):
        return Polygon()
    return _wide(area.intersection(band(plane, -plane.reach, -plane.reach + board)), board * 2)


def _wide(shape: shapely.Geometry, least: float) -> shapely.Geometry:
    return MultiPolygon([piece for piece in polygons_of(shape) if piece.bounds[2] - piece.bounds[0] > least])


def raked_edges(roof: ResolvedRoof) -> list[int]:
    """The edges with barges."""
    board = roof.block.fascia_thickness
    return [k for k, edge in enumerate(roof.block.edges) if edge.kind in RAKED and roof.reaches[k] >= board]


def gutter_z(roof: ResolvedRoof, plane: RoofPlane) -> tuple[float, float]:
    """(bottom, top) of the gutter along an eave."""
    top = eave_z(plane) - GUTTER_LOW
    return top - min(roof.block.gutter * GUTTER_DEEP, roof.block.fascia_depth), top


@lru_cache(maxsize=128)
def gutter_runs(roof: ResolvedRoof) -> tuple[tuple[str, RoofPlane, Polygon], ...]:
    """(name, slope, plan) of every gutter: along all fascias, mitred where two eaves meet."""
    width = roof.block.gutter
    if not width:
        return ()
    hung = {edge for plane in roof.planes if not plane.upper and roof.has_fascia(plane.edge) for edge in plane.edges}
    inner = moved_out(roof.bearing, roof.reaches)
    outer = moved_out(roof.bearing, [reach + width * (k in hung) for k, reach in enumerate(roof.reaches)])
    quads = [
        Polygon([a[n], a[(n + 1) % len(a)], b[(n + 1) % len(b)], b[n]])
        for a, b in zip(inner, outer)
        for n in range(len(a))
    ]
    found = []
    for plane in roof.planes:
        if plane.upper:
            continue
        runs = polygons_of(fascia_area(roof, plane, eave_area(roof, plane, Polygon())))
        for number, run in enumerate(sorted(runs, key=lambda held: float(held.bounds[0]))):
            for edge in plane.edges:
                area = _run_along(roof, plane, edge, run, local(plane, quads[edge]))
                if area.area > width * width:
                    slot = f"edge:{roof.edge_id(edge)}" + (f":{number}" if number else "")
                    found += [(slot, plane, piece) for piece in polygons_of(world(plane, area))]
    return tuple(found)


def _run_along(roof: ResolvedRoof, plane: RoofPlane, edge: int, run: Polygon, quad: Polygon) -> shapely.Geometry:
    """Of the strip before an edge, what lies before a run of fascia, with the mitres at its ends."""
    first, _, last, _ = run.bounds
    x0, _, x1, _ = local(plane, LineString(roof.side(edge))).bounds
    reached = roof.block.gutter + max(0.0, plane.reach) + 1.0
    # Where the roof runs into another, or against a wall, a gutter ends with its fascia.
    on, off = (roof.block.edges[k].kind not in ("joined", "abutment") for k in roof.neighbours(edge))
    start = -FAR if on and first < x0 + reached and quad.bounds[0] < first + 1.0 else first
    end = FAR if off and last > x1 - reached and quad.bounds[2] > last - 1.0 else last
    return quad.intersection(rectangle(start, -FAR, end, FAR))


def gutter_parts(roof: ResolvedRoof) -> Iterator[Part]:
    """The channels of a roof."""
    for slot, plane, area in gutter_runs(roof):
        low, high = gutter_z(roof, plane)
        space = area.buffer(-SHEET, join_style="mitre")
        hollow = prism(area, low, high).minus([prism(space, low + SHEET, high + 1.0)])
        key = part_key(roof.block.id, "gutter", "", slot)
        yield Part(key, roof.block.id, "gutter", "steel", hollow, sums=(roof.eave.id,), function="finish")


def downpipe_parts(placed: PlacedDownpipe) -> tuple[Part, ...]:
    """One bent pipe: out of the gutter, back to the wall, and down."""
    pipe, roof, plane = placed.pipe, placed.roof, placed.plane
    outlet = plane.reach + roof.block.gutter / 2
    wall = min(roof.faces[placed.edge] + OFF_WALL + pipe.size / 2, outlet)
    top, _ = gutter_z(roof, plane)
    bends = [(outlet, top), (outlet, top - NECK), (wall, top - NECK - (outlet - wall)), (wall, placed.foot + SHOE)]
    return (_pipe(pipe, tuple(bends), placed.at(0.0), (plane.line.dx, plane.line.dy), roof.eave.id),)


@lru_cache(maxsize=256)
def _pipe(pipe: Downpipe, bends: tuple[Point, ...], at: Point, along: Point, eave: str) -> Part:
    """A pipe through bends (outward, z) from a place on an eave that runs along a direction."""
    path = LineString([bends[0], *(b for a, b in itertools.pairwise(bends) if b != a)])
    profile = path.buffer(pipe.size / 2, cap_style="flat", join_style="mitre")
    (x, y), (dx, dy), half = at, along, pipe.size / 2
    # The body lies to the right of its run; outward, that is back along the eave.
    solid = prism_along(profile, (x + dx * half, y + dy * half), (dy, -dx), pipe.size)
    key = part_key(pipe.id, "downpipe")
    return Part(key, pipe.id, "downpipe", "steel", solid, sums=(eave,), function="on_roof")
