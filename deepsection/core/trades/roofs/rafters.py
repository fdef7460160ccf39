"""The frame of a roof: rafters and jacks, ridge boards, hips and valleys."""

from __future__ import annotations

import math
from collections.abc import Iterator

import shapely
from shapely.geometry import LineString, Polygon
from shapely.geometry import box as rectangle

from ...building.parts import Part, part_key
from ...geometry import Plane3, largest, polygons_of, prism, prism_along
from ...model import RAKED, Layer
from ...tolerance import TOL
from ..walls.framing import stations
from .holes import Holes, hole_frames
from .placed import ResolvedRoof, RoofPlane, RoofSeam
from .slopes import FAR, along_plane, cut_to, local, past_rake, place, sheets

RIDGE_BOARD = 38.1
SOFFIT = 9.5
SOFFIT_UP = 12.0
"""Ridge board and soffit board in mm; the soffit lies this far above the foot of the fascia. Common practice."""
SHORTEST = 150.0
"""No jack is shorter than this in plan (mm): it would be blocking."""
LOWER = 40.0
"""A rafter whose neighbour begins so much (mm) higher up the slope is seen beside it."""
RIPPED = 0.6
"""A rafter that a trimmer leaves less than this share of its thickness is left out: the trimmer does for it."""
OPPOSITE = 1e-3
"""Cosine by which a slope runs against another one; of slopes that are square to it, rounding tells nothing."""
BOARDED = ("ridge", "hip", "valley")


def roof_frame(roof: ResolvedRoof, layer: Layer, holes: Holes = ()) -> Iterator[Part]:
    """Every member of a framed roof block; what `holes` name is kept clear, with trimmers and headers around them."""
    outside, boards = _outside(roof), _boards(roof)
    for plane in roof.planes:
        yield from _rafters(roof, plane, layer, boards, outside, holes)
    counts: dict[str, int] = {}
    for seam in boards:
        for solid, axis in _board(roof, seam, outside.union(shapely.union_all([hole for _, hole in holes]))):
            slot = "" if not counts.get(seam.kind) else str(counts[seam.kind])
            counts[seam.kind] = counts.get(seam.kind, 0) + 1
            role = "ridge_board" if seam.kind == "ridge" else f"{seam.kind}_rafter"
            yield _member(roof, role, layer, slot, solid, axis)


def rafter_places(roof: ResolvedRoof, plane: RoofPlane, thickness: float, spacing: float) -> list[float]:
    """The near edges of the rafters along the bearing line of a slope (mm), where nothing goes through."""
    region = _region(plane, _boards(roof), _outside(roof))
    return [] if region.is_empty else [near for _, near in _stations(roof, plane, region, thickness, spacing)]


def _outside(roof: ResolvedRoof) -> shapely.Geometry:
    """What lies past the walls at rakes, in plan."""
    rakes = [
        past_rake(roof, k, 0.0, reach + 1.0)
        for k, (edge, reach) in enumerate(zip(roof.block.edges, roof.reaches))
        if edge.kind in RAKED and reach > 0
    ]
    return shapely.union_all(rakes) if rakes else Polygon()


def _boards(roof: ResolvedRoof) -> list[RoofSeam]:
    """The lines with a board or a rafter in them."""
    return [seam for seam in roof.seams if seam.kind in BOARDED and not seam.others and len(seam.edges) > 1]


def _region(plane: RoofPlane, boards: list[RoofSeam], outside: shapely.Geometry) -> shapely.Geometry:
    """Where the rafters of a slope lie, in its own coordinates."""
    lines = [LineString([seam.start[:2], seam.end[:2]]) for seam in boards if set(seam.edges) & set(plane.edges)]
    gone = [line.buffer(RIDGE_BOARD / 2, cap_style="flat") for line in lines]
    taken = shapely.union_all([outside, *gone])
    return local(plane, shapely.difference(plane.under, taken, grid_size=TOL.grid))


def _member(
    roof: ResolvedRoof,
    role: str,
    layer: Layer,
    slot: str,
    solid: object,
    axis: tuple[float, float, float],
    *,
    outside: bool = False,
) -> Part:
    return Part(
        part_key(roof.block.id, role, layer.id, slot), roof.block.id, role, layer.material, solid, axis,  # type: ignore[arg-type]
        (roof.ridge_top.id, roof.eave.id), outside=outside, function="structure",
    )  # fmt: skip


def _rafters(
    roof: ResolvedRoof,
    plane: RoofPlane,
    layer: Layer,
    boards: list[RoofSeam],
    outside: shapely.Geometry,
    holes: Holes,
) -> Iterator[Part]:
    assert layer.framing is not None
    thickness, spacing = layer.framing.thickness, layer.framing.spacing
    region = _region(plane, boards, outside)
    if region.is_empty:
        return
    rise = math.hypot(1.0, plane.pitch)
    axis = (plane.inward[0] / rise, plane.inward[1] / rise, plane.pitch / rise)
    laid = _stations(roof, plane, region, thickness, spacing)
    members = [("rafter", str(slot), near) for slot, near in laid]
    for frame in hole_frames(plane, region, holes, tuple(near for _, near in laid), thickness):
        region = region.difference(frame.open)
        members = [*(("trimmer", where, near) for where, near in frame.trimmers), *members]
        for where, area in frame.headers:
            for count, solid in enumerate(sheets(plane, area, 0.0, plane.plumb_depth)):
                name = f"{roof.slot_of(plane)}:{where}" + (f":{count}" if count else "")
                yield _member(roof, "header", layer, name, solid, (*plane.line[2:], 0.0))
    cut = []
    for role, slot, near in members:
        strip = rectangle(near, -FAR, near + thickness, FAR)
        pieces = [piece for piece in polygons_of(region.intersection(strip)) if _is_member(piece, thickness)]
        if role == "trimmer":
            region = region.difference(strip)
        cut.append((role, slot, near, sorted(pieces, key=lambda piece: float(piece.bounds[1]))))
    seen = _at_ends([(near, pieces[0].bounds[1]) for role, _, near, pieces in cut if role == "rafter" and pieces])
    for role, slot, near, pieces in cut:
        for number, piece in enumerate(pieces):
            first, _, last, _ = piece.bounds
            body = prism_along(_profile(roof, plane, piece), place(plane, first), plane.inward, last - first)
            solid = cut_to(body, plane, piece)
            if piece.bounds[1] > plane.seat:
                for deck in plane.onto:
                    solid = solid.above(deck)
            name = f"{roof.slot_of(plane)}:{slot}:{number}" if number else f"{roof.slot_of(plane)}:{slot}"
            yield _member(roof, role, layer, name, solid, axis, outside=role == "rafter" and near in seen)


def _at_ends(feet: list[tuple[float, float]]) -> set[float]:
    """The near edges of those of some rafters (near edge, foot) that do not lie between two that come down as low: they
    are seen from the side, where no wall and no panel closes the roof, as over a porch."""
    standing = sorted(feet)
    low = [math.inf, *(foot for _, foot in standing), math.inf]
    return {near for k, (near, foot) in enumerate(standing, 1) if max(low[k - 1], low[k + 1]) > foot + LOWER}


def _is_member(piece: Polygon, thickness: float) -> bool:
    """Whether what is left of a rafter (own coordinates) is long and wide enough for one."""
    first, low, last, high = piece.bounds
    return bool(high - max(low, 0.0) >= SHORTEST and last - first >= RIPPED * thickness)


def _stations(
    roof: ResolvedRoof, plane: RoofPlane, region: shapely.Geometry, thickness: float, spacing: float
) -> list[tuple[int, float]]:
    """(slot, near edge) of the rafters of a slope along its bearing line.

    Opposite slopes are laid out from one side, so that their rafters face each other at the ridge; one that runs into
    another roof from its other end.
    """
    inside = region.intersection(rectangle(-FAR, 0.0, FAR, FAR))
    if inside.is_empty:
        return []
    first, _, last, _ = inside.bounds
    found = stations(first, last, spacing, thickness)
    lead, line = roof.planes[0].line, plane.line
    backward = lead.dx * line.dx + lead.dy * line.dy < -OPPOSITE
    before, after = (roof.block.edges[k].kind == "joined" for k in roof.neighbours(plane.edge))
    if before != after:
        backward = before
    return [(slot, last - (near - first) - thickness) for slot, near in found] if backward else found


def _profile(roof: ResolvedRoof, plane: RoofPlane, piece: Polygon) -> Polygon:
    """A rafter in its own plane (inward, z): plumb tail cut level over a soffit, birdsmouth, plumb cuts.

    Without an overhang it ends plumb at the bearing line; a jack starts at a valley, an upper one at the break.
    """
    _, low, _, head = piece.bounds
    tail = min(0.0, roof.block.fascia_thickness - plane.reach)

    def top(inward: float) -> float:
        return plane.heel + plane.pitch * inward

    def foot(inward: float) -> float:
        return top(inward) - plane.plumb_depth

    if plane.upper and not plane.reach:
        start = max(low, 0.0)
    elif low > max(plane.seat, 1.0):
        start = low
    else:
        start = tail if low < tail + 1.0 else 0.0
    if plane.seat and start <= 0.0 and not plane.upper and head > plane.seat:
        under = [
            (start, foot(start)),
            (0.0, foot(0.0)),
            (0.0, plane.plate),
            (plane.seat, plane.plate),
            (head, foot(head)),
        ]
        under = under[1:] if start == 0.0 else under
    else:
        under = [(start, foot(start)), (head, foot(head))]
    shape = Polygon([*under, (head, top(head)), (start, top(start))])
    if start >= 0.0 or roof.block.tails == "open":
        return shape
    return largest(shape.difference(rectangle(-FAR, -FAR, 0.0, soffit_z(roof, plane) + SOFFIT)))


def eave_z(plane: RoofPlane) -> float:
    """The top of the structure at the outer face of the fascia."""
    return plane.heel - plane.pitch * plane.reach


def soffit_z(roof: ResolvedRoof, plane: RoofPlane) -> float:
    """The underside of the soffit of a slope."""
    return eave_z(plane) - roof.block.fascia_depth + SOFFIT_UP


def _board(
    roof: ResolvedRoof, seam: RoofSeam, outside: shapely.Geometry
) -> Iterator[tuple[object, tuple[float, float, float]]]:
    """The board in a ridge, between the walls; the rafter in a hip or a valley, from the bearing lines up."""
    beside = [plane for plane in roof.planes if set(plane.edges) & set(seam.edges)]
    if not beside:
        return
    depth = max(plane.plumb_depth for plane in beside)
    line = LineString([seam.start[:2], seam.end[:2]])
    if seam.kind == "ridge":
        kept = line.difference(outside)
    else:
        kept = line.intersection(Polygon(roof.bearing[0], roof.bearing[1:]).buffer(1.0))
    length = seam.length or 1.0
    axis = tuple((b - a) / length for a, b in zip(seam.start, seam.end))
    for piece in shapely.get_parts(kept):
        if piece.geom_type != "LineString" or piece.length < SHORTEST:
            continue
        strip = piece.buffer(RIDGE_BOARD / 2, cap_style="flat")
        if seam.kind == "ridge":
            top = seam.start[2] - max(plane.pitch for plane in beside) * RIDGE_BOARD / 2
            solid = prism(strip, top - depth, top)
            for deck in {deck for plane in beside for deck in plane.onto}:
                solid = solid.above(deck)
        else:
            along = along_plane(seam.start, seam.end)
            low, high = min(seam.start[2], seam.end[2]) - depth - 1.0, max(seam.start[2], seam.end[2]) + 1.0
            solid = prism(strip, low, high).above(along.lifted(-depth)).above(Plane3(0.0, 0.0, roof.plate.total))
            solid = solid.below(along)
            for plane in beside if seam.kind == "hip" else ():
                solid = solid.below(plane.top)
        yield solid, axis  # type: ignore[misc]
