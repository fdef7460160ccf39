"""Roof blocks together: the higher surface wins, they meet in valleys, a lower gable dies into a slope."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator, Sequence
from dataclasses import replace
from functools import lru_cache
from itertools import combinations, pairwise

import shapely
from shapely.geometry import LineString, MultiLineString, Polygon

from ...building.diagnostics import Diagnostic
from ...geometry import Point, half_plane, line_through, offset_line, polygons_of
from ...tolerance import TOL
from .placed import ResolvedRoof, RoofPlane, RoofSeam, Shape, shape_of

ON_ROOF = 60.0
"""An end runs into a roof when its middle lies within this distance of that roof's outline (mm)."""
SAME_HEIGHT = 1.0
"""Slopes meet in a valley where their heights differ by less than this (mm)."""
ON_EDGE = 0.1
"""A corner of a plan this close to a line (mm) lies on it."""
SLIVER = 100.0
"""What is left of a slope in pieces smaller than this (mm2) is none."""
NECK = 1.0
"""Pieces of a roof that hang together by less than this (mm) are two."""
SHARPEST = 50.0
"""How far the tips of pieces reach, for the width of a neck."""
FAR = 1e6
STOREY = 500.0
"""Below a block whose plate lies this much higher (mm) are rooms: the deck of the lower roof is cut away there."""


def _host_of(roof: ResolvedRoof, edge: int, roofs: tuple[ResolvedRoof, ...]) -> ResolvedRoof | None:
    """The highest other roof that an edge lies on or in."""
    (x0, y0), (x1, y1) = roof.side(edge)
    middle = shapely.Point((x0 + x1) / 2, (y0 + y1) / 2)
    near = (held for held in roofs if held.block.id != roof.block.id and held.outline.buffer(ON_ROOF).contains(middle))
    return max(near, key=lambda held: held.ridge_top.total, default=None)


@lru_cache(maxsize=256)
def carried(
    roof: ResolvedRoof, roofs: tuple[ResolvedRoof, ...]
) -> tuple[tuple[float, ...], tuple[tuple[int, str], ...], tuple[Diagnostic, ...]]:
    """Per edge, how far it is carried on to die into another roof; the roofs that edges die in; what does not meet."""
    onward, hosts, found = [0.0] * len(roof.block.edges), dict[int, str](), []
    for edge, treatment in enumerate(roof.block.edges):
        if treatment.kind != "joined":
            continue
        host = _host_of(roof, edge, roofs)
        if host is None:
            found.append(_meets_nothing(roof, edge))
            continue
        line = line_through(*roof.side(edge))
        hosts[edge] = host.block.id
        onward[edge] = max(0.0, *(-line.left_of((x, y)) for x, y in host.outline.exterior.coords))
    return tuple(onward), tuple(hosts.items()), tuple(found)


@lru_cache(maxsize=128)
def join_roofs(roofs: tuple[ResolvedRoof, ...]) -> tuple[tuple[ResolvedRoof, ...], tuple[Diagnostic, ...]]:
    """The blocks with the surfaces that are left of them, the lines that these leave and make, and what never dies."""
    if len(roofs) < 2:
        return roofs, ()
    lost: dict[tuple[str, int], list[shapely.Geometry]] = defaultdict(list)
    bared: dict[tuple[str, int], list[shapely.Geometry]] = defaultdict(list)
    pairs = list(combinations(range(len(roofs)), 2))
    joined = [(i, k) for i, k in pairs if _related(roofs[i], roofs[k])]
    for i, k in joined:
        _settle(roofs[i], roofs[k], lost, bared)
    ended = [_ended(roof, roofs, lost, bared) for roof in roofs]
    for i, k in pairs:
        if (i, k) not in joined:
            _settle(ended[i], ended[k], lost, bared)
    left = [_left(roof, roofs, lost, bared) for roof in roofs]
    held = {roof.block.id: roof for roof in roofs}
    found = [_too_high(roof, held[host], edge) for roof in left for edge, host in roof.dying if _comes_out(roof, edge)]
    found += [_hidden(roof, roofs) for roof in left if _share_left(roof) < HIDDEN]
    found += _holes(left)
    return tuple(_lowered(_with_lines(roof, left)) for roof in left), tuple(found)


def _related(a: ResolvedRoof, b: ResolvedRoof) -> bool:
    """Whether one of two roofs runs into the other."""
    return a.block.id in b.joins or b.block.id in a.joins


def _ended(
    roof: ResolvedRoof,
    roofs: tuple[ResolvedRoof, ...],
    lost: dict[tuple[str, int], list[shapely.Geometry]],
    bared: dict[tuple[str, int], list[shapely.Geometry]],
) -> ResolvedRoof:
    """A roof that runs into another one as far as it does: what was carried on past that meets no third."""
    if not roof.joins:
        return roof
    past = _all([_past(roof, k) for k, edge in enumerate(roof.block.edges) if edge.kind == "joined"])
    left = _left(roof, roofs, lost, bared)
    planes = (
        replace(plane, whole=_minus(plane.whole, _minus(past, held.polygon)))
        for plane, held in zip(roof.planes, left.planes)
    )
    return replace(roof, planes=tuple(planes))


def _comes_out(roof: ResolvedRoof, edge: int) -> bool:
    """Whether a block that was carried on into another one comes out at the far side of it."""
    line = line_through(*roof.side(edge))
    kept = [point for plane in roof.planes for piece in polygons_of(plane.polygon) for point in piece.exterior.coords]
    return max((-line.left_of((x, y)) for x, y in kept), default=0.0) > roof.reaches[edge] - ON_ROOF


def _lowered(roof: ResolvedRoof) -> ResolvedRoof:
    """A block that dies into another before its highest point, with the height at which it does."""
    if not roof.joins:
        return roof
    tops = [
        plane.covered(x, y)
        for plane in roof.planes
        for piece in polygons_of(plane.polygon)
        for x, y in piece.exterior.coords
    ]
    short = roof.ridge_top.total - max(tops, default=roof.ridge_top.total)
    if short < SAME_HEIGHT:
        return roof
    # Of the terms of a ridge, that of its slope alone is entered as a pitch.
    terms = tuple(
        replace(term, value=term.value - short) if (term.field or "").startswith("pitch") else term
        for term in roof.ridge_top.terms
    )
    return replace(roof, ridge_top=replace(roof.ridge_top, terms=terms), run=roof.run - short / roof.planes[0].pitch)


def _both(a: shapely.Geometry, b: shapely.Geometry) -> Shape:
    """What two shapes share, on a grid: their sides lie on each other but for the last digits."""
    return shape_of(polygons_of(shapely.intersection(a, b, grid_size=TOL.node)))


def _minus(a: shapely.Geometry, b: shapely.Geometry) -> Shape:
    return shape_of(polygons_of(shapely.difference(a, b, grid_size=TOL.node)))


def _all(shapes: Sequence[shapely.Geometry]) -> Shape:
    return shape_of(polygons_of(shapely.union_all(shapes, grid_size=TOL.node)))


def _parted(shape: Shape, *, wider: float = 0.0) -> Iterator[Shape]:
    """The pieces of a shape, those parted that hang together by a neck: what comes out past a ridge of one height."""
    for piece in polygons_of(shape.buffer(-NECK), min_area=SLIVER):
        own = piece.buffer(NECK + wider, join_style="mitre", mitre_limit=SHARPEST)
        yield own if wider else _both(shape, own)


def _settle(
    a: ResolvedRoof,
    b: ResolvedRoof,
    lost: dict[tuple[str, int], list[shapely.Geometry]],
    bared: dict[tuple[str, int], list[shapely.Geometry]],
) -> None:
    """What two roofs take from each other: per roof and plane, the plan that goes; and what goes of its deck."""
    under: dict[str, list[tuple[int, shapely.Geometry]]] = {a.block.id: [], b.block.id: []}
    for i, first in enumerate(a.planes):
        for j, second in enumerate(b.planes):
            shared = _both(first.whole, second.whole)
            if shared.area < SLIVER:
                continue
            if _one_plane(shared, first, second):
                guest, k = (a, i) if _guest(a, b) else (b, j)
                lost[guest.block.id, k].append(shared)
                bared[guest.block.id, k].append(shared)
                continue
            over = _above(shared, first, second)
            under[b.block.id].append((j, over))
            under[a.block.id].append((i, _minus(shared, over)))
    regions = {id: _all([shape for _, shape in held]) for id, held in under.items()}
    for low, high in ((a, b), (b, a)):
        if low.block.id in high.joins:
            _interrupt(low, high, regions[low.block.id], lost, bared)
        crossed, claimed = regions[high.block.id].buffer(SAME_HEIGHT), _claimed(low, high)
        gone = []
        runs_in = low.block.id in high.joins
        for piece in _parted(regions[low.block.id]) if runs_in else polygons_of(regions[low.block.id], min_area=SLIVER):
            if runs_in and piece.distance(high.outline) > SAME_HEIGHT:
                continue  # What was carried on comes out again at the far side: it dies before.
            crossing = piece.buffer(SAME_HEIGHT).intersection(crossed).area > SLIVER
            gone.append(_both(piece, claimed if crossing else high.outline))
        taken = _all(gone)
        if taken.is_empty:
            continue
        for k, shape in under[low.block.id]:
            lost[low.block.id, k].append(_both(shape, taken))
        if low.block.id in high.joins:
            # The deck of a roof that another runs into goes on below it, but not into rooms.
            rooms = high.outline if high.plate.total > low.plate.total + STOREY else Polygon()
            taken = _all([_minus(taken, low.outline), _minus(high.outline, low.outline), rooms])
        for k, _ in under[low.block.id]:
            bared[low.block.id, k].append(taken)


def _interrupt(
    low: ResolvedRoof,
    high: ResolvedRoof,
    over: shapely.Geometry,
    lost: dict[tuple[str, int], list[shapely.Geometry]],
    bared: dict[tuple[str, int], list[shapely.Geometry]],
) -> None:
    """The eave of a roof ends on both sides of what stands flush on the wall below it: at the cheeks of a dormer; at
    the rakes of a cross gable, to which the valleys run on past the wall. `over`: where the other lies over it.
    """
    for edge in _flush(low, high):
        side = high.side(edge)
        line, (before, after) = line_through(*side), high.neighbours(edge)
        first, last = -high.faces[before], LineString(side).length + high.faces[after]
        if _bears_alike(low, high):
            line = offset_line(line, -high.reaches[edge])
            ends = [line.along(point) for point in shapely.get_coordinates(over) if abs(line.left_of(point)) < ON_EDGE]
            if not ends:
                continue  # The rake reaches past the eave, and the valleys end there.
            first, last = min(ends), max(ends)
        out = (line.dy * FAR, -line.dx * FAR)
        corners = (line.at(first), line.at(last))
        strip = Polygon([*corners, *((x + out[0], y + out[1]) for x, y in reversed(corners))])
        for k, plane in enumerate(low.planes):
            lost[low.block.id, k].append(_both(plane.whole, strip))
            bared[low.block.id, k].append(_both(plane.whole, strip))


def _flush(low: ResolvedRoof, high: ResolvedRoof) -> list[int]:
    """The edges of a roof that stand on the outline of the one that it runs into."""
    eave = low.outline.exterior.buffer(ON_ROOF)
    edges = enumerate(high.block.edges)
    return [k for k, edge in edges if edge.kind != "joined" and eave.contains(LineString(high.drawn_side(k)))]


def _bears_alike(low: ResolvedRoof, high: ResolvedRoof) -> bool:
    """Whether two roofs bear at one height, so that their slopes meet in valleys from the bearing line on."""
    return abs(low.plate.total - high.plate.total) < SAME_HEIGHT


def _claimed(low: ResolvedRoof, high: ResolvedRoof) -> shapely.Geometry:
    """Where the surface of a higher roof may take the place of a lower one: not under an eave that hangs over it."""
    cover = _all([plane.whole for plane in high.planes])
    if low.block.id not in high.joins:
        return cover
    carried = [_past(high, k) for k, edge in enumerate(high.block.edges) if edge.kind == "joined"]
    if _bears_alike(low, high) and _flush(low, high):
        return cover
    # The overhangs of a dormer leave the eave below them alone, even where its front stands on the wall.
    beyond = Polygon() if low.outline.buffer(ON_ROOF).covers(high.outline) else _minus(cover, low.outline)
    return _all([high.outline, beyond, *(_both(cover, past) for past in carried)])


def _past(roof: ResolvedRoof, edge: int) -> Polygon:
    """Everything past an edge."""
    line = line_through(*roof.side(edge))
    corners = (line.at(-FAR), line.at(FAR))
    out = (line.dy * FAR, -line.dx * FAR)
    return Polygon([*corners, *((x + out[0], y + out[1]) for x, y in reversed(corners))])


def _above(shared: shapely.Geometry, first: RoofPlane, second: RoofPlane) -> shapely.Geometry:
    """Where, of what two slopes share in plan, the covering of the first lies over that of the second, or in it."""
    a, b, c = (p - q for p, q in zip(first.top, second.top))
    kept = half_plane(shared.bounds, a, b, c + first.covering - second.covering + 1e-6)
    return Polygon() if kept is None else _both(shared, kept)


def _one_plane(shared: Shape, first: RoofPlane, second: RoofPlane) -> bool:
    """Whether two slopes are one surface where they lie over each other."""
    x0, y0, x1, y1 = shared.bounds
    corners = ((x0, y0), (x1, y0), (x1, y1), (x0, y1))
    return all(abs(first.covered(*corner) - second.covered(*corner)) < SAME_HEIGHT for corner in corners)


def _left(
    roof: ResolvedRoof,
    roofs: tuple[ResolvedRoof, ...],
    lost: dict[tuple[str, int], list[shapely.Geometry]],
    bared: dict[tuple[str, int], list[shapely.Geometry]],
) -> ResolvedRoof:
    """A roof without what others have taken of it; of what was carried on, only what hangs on the rest is left."""
    planes = []
    for k, plane in enumerate(roof.planes):
        gone = lost.get((roof.block.id, k))
        away = bared.get((roof.block.id, k))
        polygon = _less(plane.whole, gone) if gone else plane.whole
        under = _less(plane.whole, away) if away else plane.whole
        planes.append(replace(plane, polygon=polygon, under=under))
    if roof.joins:
        hosts = [plane.whole for other in roofs if other.block.id in roof.joins for plane in other.planes]
        carried = [_past(roof, k) for k, edge in enumerate(roof.block.edges) if edge.kind == "joined"]
        loose = _minus(_all(carried), _all(hosts))
        planes = [replace(plane, polygon=_shape(_minus(plane.polygon, loose))) for plane in planes]
        pieces = _parted(_all([plane.polygon for plane in planes]), wider=SAME_HEIGHT)
        kept = _all([piece for piece in pieces if _both(piece, roof.outline).area > SLIVER])
        planes = [
            replace(plane, polygon=polygon, under=_both(plane.under, polygon.buffer(SAME_HEIGHT)))
            for plane in planes
            for polygon in [_shape(_both(plane.polygon, kept))]
        ]
    return replace(roof, planes=tuple(planes))


def _less(shape: Shape, gone: list[shapely.Geometry]) -> Shape:
    return _shape(shapely.set_precision(_minus(shape, _all(gone)), TOL.grid))


def _shape(shape: shapely.Geometry) -> Shape:
    return shape_of(polygons_of(shape, min_area=SLIVER))


def _with_lines(roof: ResolvedRoof, roofs: list[ResolvedRoof]) -> ResolvedRoof:
    """A roof with its lines as far as its slopes are left, and the valleys in which it dies into others."""
    cover = shapely.union_all([plane.polygon for plane in roof.planes]).buffer(SAME_HEIGHT)
    seams = [piece for seam in roof.seams for piece in _kept(seam, cover)]
    planes = []
    for plane in roof.planes:
        onto = []
        for other in roofs:
            if other.block.id == roof.block.id:
                continue
            for beside in other.planes:
                valleys = list(_valleys(plane, beside))
                if valleys and _guest(roof, other):
                    seams += valleys
                    onto.append(beside.top.lifted(beside.deck))
        planes.append(replace(plane, onto=tuple(onto)))
    return replace(roof, planes=tuple(planes), seams=tuple(seams))


def _guest(roof: ResolvedRoof, other: ResolvedRoof) -> bool:
    """Of two roofs that meet, the one that lies on the other."""
    if other.block.id in roof.joins:
        return True
    if roof.block.id in other.joins:
        return False
    return (roof.ridge_top.total, roof.block.id) < (other.ridge_top.total, other.block.id)


def _kept(seam: RoofSeam, cover: shapely.Geometry) -> Iterator[RoofSeam]:
    if cover.covers(LineString([seam.start[:2], seam.end[:2]])):
        yield seam
        return
    for piece in shapely.get_parts(LineString([seam.start, seam.end]).intersection(cover)):
        if piece.geom_type == "LineString" and piece.length > ON_ROOF:
            start, end = ((float(x), float(y), float(z)) for x, y, z in (piece.coords[0], piece.coords[-1]))
            yield replace(seam, start=start, end=end)


def _valleys(plane: RoofPlane, other: RoofPlane) -> Iterator[RoofSeam]:
    """The edges of a slope along which its covering is as high as the one beside it, in one piece where they are."""
    if plane.polygon.is_empty or other.polygon.is_empty or plane.polygon.distance(other.polygon) > SAME_HEIGHT:
        return
    near = other.polygon.buffer(SAME_HEIGHT)

    def meets(point: Point) -> bool:
        gap = plane.covered(*point) - other.covered(*point)
        return abs(gap) < SAME_HEIGHT and near.intersects(shapely.Point(point))

    edges = [
        LineString([p, q])
        for piece in polygons_of(plane.polygon)
        for ring in (piece.exterior, *piece.interiors)
        for p, q in pairwise(ring.coords)
        if meets(p) and meets(q) and meets(((p[0] + q[0]) / 2, (p[1] + q[1]) / 2))
    ]
    if all(abs(p - q) < 1e-9 for p, q in zip(plane.top[:2], other.top[:2])):
        return
    for line in shapely.get_parts(shapely.line_merge(MultiLineString(edges))):
        if line.length > ON_ROOF:
            ends = [(x, y, plane.covered(x, y)) for x, y in (line.coords[0], line.coords[-1])]
            start, end = sorted(ends, key=lambda point: point[2])
            yield RoofSeam("valley", plane.edges, start, end, (other.roof,))


HIDDEN = 0.01
"""A roof of which less than this share is left over its own outline lies under another one."""


def _share_left(roof: ResolvedRoof) -> float:
    kept = sum(plane.polygon.intersection(roof.outline).area for plane in roof.planes)
    return float(kept / roof.outline.area)


def _hidden(roof: ResolvedRoof, roofs: tuple[ResolvedRoof, ...]) -> Diagnostic:
    """A roof of which nothing is left."""
    over = next((other for other in roofs if other is not roof and other.outline.intersects(roof.outline)), roof)
    message = f"{roof.block.name} lies wholly under {over.block.name}: take one of them off, or raise this one"
    x, y = roof.outline.representative_point().coords[0]
    return Diagnostic("roof-hidden", message, roof.block.id, "outline", others=(over.block.id,), at=(x, y))


HOLE = 100.0
"""What roofs leave open between them is a hole from this width on (mm)."""


def _holes(roofs: list[ResolvedRoof]) -> Iterator[Diagnostic]:
    """Places within the outlines of roofs over which none of them lies: a hole to the sky."""
    covered = shapely.union_all([plane.polygon for roof in roofs for plane in roof.planes], grid_size=TOL.grid)
    # A roof that lies against a wall ends at its face.
    within = shapely.union_all([roof.outline for roof in roofs]).difference(covered.buffer(SAME_HEIGHT))
    for piece in polygons_of(within.buffer(-HOLE / 2), min_area=SLIVER):
        spot = piece.representative_point()
        near = min(roofs, key=lambda roof: roof.outline.distance(spot))
        message = (
            f"between the slopes of {near.block.name} and its neighbours a hole is left open to the sky; "
            "let one of their edges be joined, or make one roof of both"
        )
        yield Diagnostic("roof-hole", message, near.block.id, "outline", at=(spot.x, spot.y))


def _meets_nothing(roof: ResolvedRoof, edge: int) -> Diagnostic:
    (x0, y0), (x1, y1) = roof.side(edge)
    message = f"{roof.block.name} is said to run into another roof here, but there is none; make this end a gable"
    at = ((x0 + x1) / 2, (y0 + y1) / 2)
    return Diagnostic("roof-meets-nothing", message, roof.block.id, f"kind_{roof.edge_id(edge)}", at=at)


def _too_high(roof: ResolvedRoof, host: ResolvedRoof, edge: int) -> Diagnostic:
    (x0, y0), (x1, y1) = roof.side(edge)
    return Diagnostic(
        "roof-too-high",
        f"{roof.block.name} stands higher than {host.block.name}, which it runs into; "
        "let the higher one run through, and the lower one into it",
        roof.block.id,
        "pitch",
        roof.ridge_top.total,
        host.ridge_top.total,
        others=(host.block.id,),
        at=((x0 + x1) / 2, (y0 + y1) / 2),
    )
