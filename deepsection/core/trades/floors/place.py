"""Stage: joist floors and ceilings in plan: what they cover, what carries them, which way their joists run."""

from __future__ import annotations

import itertools
from collections import defaultdict
from collections.abc import Iterator
from dataclasses import dataclass, field
from functools import lru_cache

import shapely
from shapely.geometry import MultiPolygon, Polygon

from ...building.diagnostics import Diagnostic
from ...building.placed import Key
from ...geometry import Point, largest, line_through, meet, offset_line, polygons_of
from ...model import Ceiling, Deck, Floor, Foundation, MakeUp, bearing_layer
from ...tolerance import TOL
from ..levels.placed import Level
from ..posts.placed import PlacedBeam
from ..roofs.placed import ResolvedRoof
from ..roofs.slopes import FAR, band, world
from ..walls.planned import Outline, PlannedWall, WallPlan
from .bays import Bay, Boards, Rim, Trim, direction_of
from .holes import square_to
from .supports import Support, bearing_beams, bearing_walls, supports_in
from .turned import Turned

ON_PLATE = 150.0
"""Half of the width (mm) below which what is left of a bay is the plate of a wall."""
SMALLEST_HOLE = 1e4
"""What lies less (mm2) within a floor is no hole of it."""
SMALLEST_BAY = 1e6
"""A place smaller than this (mm2) gets no ceiling joists of its own."""
HANGS_OUT = 5e4
"""A floor may pass what carries it by this much (mm2) before it is pointed out."""
RISE_TOLERANCE = 0.5
"""The ladder and a make-up may differ by this much (mm) before it is pointed out."""


@dataclass(frozen=True, slots=True)
class FloorPlan:
    """A joist floor or deck in plan: bays, rim joists, the boards below it; whether walls stand on it.

    `top` and `under` are the levels of its top and of what its joists bear on.
    """

    floor: Floor | Deck
    top: Level
    under: Level
    outlines: tuple[Outline, ...]
    bays: tuple[Bay, ...]
    rims: tuple[Rim, ...]
    below: tuple[Boards, ...]
    closed: bool
    bearing: Polygon | MultiPolygon = field(default_factory=Polygon)
    """What joists bear on, in plan."""

    @property
    def area(self) -> Polygon | MultiPolygon:
        """All that it covers."""
        return shapely.union_all([bay.region for bay in self.bays])

    @property
    def covered(self) -> Polygon | MultiPolygon:
        """The same without its holes."""
        return shapely.union_all([bay.covered for bay in self.bays])

    @property
    def outlined(self) -> Polygon | MultiPolygon:
        """The same, to the set-out lines of the walls around it."""
        return shapely.union_all([outline.polygon for outline in self.outlines])


def plan_floor(
    floor: Floor,
    plan: WallPlan,
    make_ups: dict[str, MakeUp],
    foundations: tuple[Foundation, ...],
    levels: dict[str, Level],
    holes: tuple[tuple[str, Polygon], ...],
    set_in: tuple[Deck, ...],
    beams: tuple[PlacedBeam, ...],
    found: list[Diagnostic],
) -> FloorPlan:
    """A floor under the outlines that stand on it, or over those that carry it; what is wrong goes to what is found.

    Around what is `set_in` it is framed as around a hole.
    """
    on, under = plan.outlines_on(floor.level), plan.outlines_under(floor.bearing)
    founded = any(floor.bearing in (held.sill, held.top) and held.level == floor.level for held in foundations)
    outlines = on or under
    joists = next((layer for layer in make_ups[floor.make_up].layers if layer.framing), None)
    framing = joists.framing if joists else None
    regions = [(outline, within_bearing(outline, plan, make_ups)) for outline in outlines]
    carried = shapely.union_all([within_bearing(outline, plan, make_ups) for outline in (on if founded else under)])
    found += _faults(floor, plan, framing is None, regions, carried, levels, make_ups)
    hanging = [] if founded or carried.is_empty else _hanging(regions, carried)
    bays: list[Bay] = []
    rims: list[Rim] = []
    walls = plan.by_id
    carrying = {id: walls[id] for outline in (on if founded else under) for id in outline.walls}
    ends = [held.layers[bearing_layer(make_ups[held.wall.make_up])].polygon for held in carrying.values()]
    borne = shapely.union_all(ends)
    bears = list(bearing_walls(plan, make_ups, floor.bearing))
    bears += bearing_beams(beams, levels[floor.bearing], joists.thickness) if joists else ()
    if hanging:
        # Joists run out over the walls below.
        bears += bearing_walls(plan, make_ups, floor.bearing, "outer")
    for outline, region in regions:
        along = direction_of(floor, region, walls[outline.name].start)
        own = [deck for deck in set_in if region.contains(deck.outline.centroid)]
        around = (*holes, *((deck.id, to_edges(deck.outline, region, along)) for deck in own))
        bays.append(
            Bay(
                f"outline:{outline.name}",
                region,
                along,
                holes=_holes_in(region, along, around),
                supports=_within(supports_in(bears, region, along), region),
                along=_walls_along(plan, floor.level, region, along, make_ups) if floor.doubled else (),
                lap=floor.lap,
                shift=floor.shift,
                borne=borne if any(piece.intersects(region) for piece in hanging) else None,
            )
        )
        if framing:
            beside = tuple(walls[id] for id in outline.walls)
            faces = tuple(_bearing_line(wall, make_ups) for wall in beside)
            rims += _rims(region, beside, faces, framing.thickness)
    whole = shapely.union_all([bay.region for bay in bays])
    open_ = shapely.union_all([hole for bay in bays for _, hole in bay.holes])
    below = tuple(
        Boards(f"outline:{outline.name}", _pieces(MultiPolygon(outline.spaces).intersection(whole).difference(open_)))
        for outline in under
        if outline.spaces
    )
    found += _hangs_out(floor, levels[floor.bearing], hanging, bays)
    bearing = shapely.union_all([*ends, *(held.area for bay in bays for held in bay.supports)])
    top, under_it = levels[floor.level], levels[floor.bearing]
    return FloorPlan(floor, top, under_it, outlines, tuple(bays), tuple(rims), below, bool(on), bearing)


def to_edges(outline: Polygon, region: Polygon, along: Point) -> Polygon:
    """The rectangle along joists that holds an outline, its sides moved out to the edge of a region where they nearly
    reach it."""
    turned = Turned(along)
    a0, a1, s0, s1 = turned.box(outline)
    beyond = {
        "a0": (a0 - DRAWN_TO, a0, s0, s1),
        "a1": (a1, a1 + DRAWN_TO, s0, s1),
        "s0": (a0, a1, s0 - DRAWN_TO, s0),
        "s1": (a0, a1, s1, s1 + DRAWN_TO),
    }
    ends = {side for side, box in beyond.items() if _ends_in(region, turned.rectangle(*box))}
    return turned.rectangle(
        a0 - DRAWN_TO * ("a0" in ends),
        a1 + DRAWN_TO * ("a1" in ends),
        s0 - DRAWN_TO * ("s0" in ends),
        s1 + DRAWN_TO * ("s1" in ends),
    )


def _ends_in(region: Polygon, strip: Polygon) -> bool:
    """Whether a region ends within a strip."""
    return bool(region.intersection(strip).area < NEARLY * strip.area)


DRAWN_TO = 400.0
"""What is drawn as near as this (mm) to the edge of a floor was drawn to the wall there."""
NEARLY = 0.98
"""A strip of which a floor covers less than this share has its edge in it."""


def _walls_along(
    plan: WallPlan, level: str, region: Polygon, along: tuple[float, float], make_ups: dict[str, MakeUp]
) -> tuple[tuple[str, float], ...]:
    """The inner walls on a floor that run along its joists, with the places of their middles across."""
    found: list[tuple[str, float]] = []
    for wall in plan.on(level):
        (x, y), (dx, dy) = wall.at(wall.length / 2), wall.run
        if wall.wall.status != "inner" or wall.axis.is_arc or abs(dx * along[1] - dy * along[0]) > IN_LINE:
            continue
        if region.contains(shapely.Point(x, y)):
            layer = wall.layers[bearing_layer(make_ups[wall.wall.make_up])]
            x, y = wall.at(wall.length / 2, (layer.outer + layer.inner) / 2)
            place = x * along[1] - y * along[0]
            # Walls in line with each other stand on the same joists.
            if all(abs(place - other) > SAME_JOISTS for _, other in found):
                found.append((wall.wall.id, place))
    return tuple(found)


SAME_JOISTS = 100.0
"""Walls as near as this (mm) to the same line stand on the same joists."""
IN_LINE = 0.02
"""A wall runs along joists where it leaves their direction by less than this (rad)."""


def _holes_in(
    region: Polygon, along: tuple[float, float], holes: tuple[tuple[str, Polygon], ...]
) -> tuple[tuple[str, Polygon], ...]:
    """The holes of a bay, each square to its joists, as far as they lie within it."""
    found = []
    for name, hole in holes:
        inside = largest(shapely.intersection(square_to(along, hole), region, grid_size=TOL.node))
        if inside.area > SMALLEST_HOLE:
            found.append((name, inside))
    return tuple(found)


@lru_cache(maxsize=64)
def _rims(
    region: Polygon, walls: tuple[PlannedWall, ...], faces: tuple[float, ...], thickness: float
) -> tuple[Rim, ...]:
    """The edge of a floor, wall by wall; each runs past the corner at which the next one stops.

    `faces`: outward distance of the bearing line, per wall.
    """
    ring = region.difference(region.buffer(-thickness, join_style="mitre"))
    rims = []
    for wall, face in zip(walls, faces):
        past = abs(face) + thickness + 1.0
        along = wall.strip(-past, wall.length + past, face - thickness, face)
        area = _pieces(shapely.intersection(ring, along, grid_size=TOL.node))
        if not area.is_empty:
            rims.append(Rim(wall.wall.id, wall.run, area))
            ring = _pieces(shapely.difference(ring, along, grid_size=TOL.node))
    return tuple(rims)


def _hanging(regions: list[tuple[Outline, Polygon]], carried: Polygon | MultiPolygon) -> list[Polygon]:
    """The places of a floor that lie out over what carries it."""
    out = shapely.union_all([region for _, region in regions]).difference(carried)
    return [piece for piece in polygons_of(out) if piece.area > HANGS_OUT]


def _within(supports: tuple[Support, ...], region: Polygon) -> tuple[Support, ...]:
    """Those that do not lie along the edge of a region: there joists end."""
    inner = region.buffer(-ON_PLATE)
    return tuple(held for held in supports if held.sort != "wall" or shapely.LineString(held.line).intersects(inner))


def _hangs_out(floor: Floor, bearing: Level, hanging: list[Polygon], bays: list[Bay]) -> Iterator[Diagnostic]:
    """A place that lies out over what carries it, and whose joists run across no wall there."""
    across = shapely.union_all([held.area for bay in bays for held in bay.supports])
    for piece in hanging:
        if across.is_empty or across.distance(piece) > ON_PLATE:
            x, y = piece.representative_point().coords[0]
            message = (
                f"part of {floor.name} hangs out: nothing carries it at {bearing.name}, and its joists run along the "
                "wall there: turn them, or carry them"
            )
            yield Diagnostic("floor-hangs-out", message, floor.id, "bearing", piece.area, HANGS_OUT, at=(x, y))


def _faults(
    floor: Floor,
    plan: WallPlan,
    unframed: bool,
    regions: list[tuple[Outline, Polygon]],
    carried: Polygon | MultiPolygon,
    levels: dict[str, Level],
    make_ups: dict[str, MakeUp],
) -> list[Diagnostic]:
    def fault(
        code: str, message: str, field: str, value: float | None = None, limit: float | None = None
    ) -> Diagnostic:
        at = tuple(regions[0][1].representative_point().coords[0]) if regions else None
        return Diagnostic(code, message, floor.id, field, value, limit, at=at)

    bearing, level = levels[floor.bearing], levels[floor.level]
    if unframed:
        return [fault("floor-unframed", f"the make-up of {floor.name} has no joists", "make_up")]
    found = []
    if not regions and plan.on(floor.level):
        message = f"the joists of {floor.name} span nothing: the outer walls on it do not close"
        found.append(fault("floor-spans-nothing", message, "bearing"))
    if carried.is_empty and regions:
        message = f"the joists of {floor.name} span nothing: no closed walls reach up to {bearing.name}"
        found.append(fault("floor-spans-nothing", message, "bearing"))
    layers = make_ups[floor.make_up].layers
    frame = next(k for k, layer in enumerate(layers) if layer.framing)
    depth, rise = sum(layer.thickness for layer in layers[: frame + 1]), level.z - bearing.z
    if abs(depth - rise) > RISE_TOLERANCE:
        message = (
            f"{floor.name}: its layers do not fill the height from {bearing.name} to {level.name}; "
            "take the parts of that height from its make-up"
        )
        found.append(fault("floor-rise", message, "make_up", depth, rise))
    return found


@dataclass(frozen=True, slots=True)
class CeilingPlan:
    """A ceiling in plan: bays of joists, and the boards below them."""

    ceiling: Ceiling
    bays: tuple[Bay, ...]
    boards: tuple[Boards, ...]


def plan_ceiling(
    ceiling: Ceiling,
    plan: WallPlan,
    make_ups: dict[str, MakeUp],
    floors: tuple[FloorPlan, ...],
    roofs: tuple[ResolvedRoof, ...],
    gables: Polygon | MultiPolygon,
    vaulted: Polygon | MultiPolygon,
    beams: tuple[PlacedBeam, ...],
    holes: tuple[tuple[str, Polygon], ...],
    level: Level,
) -> CeilingPlan:
    """A ceiling over the walls that reach up to it, where no floor lies on them; joists run along the rafters.

    None lie over what is `vaulted`; they are framed around `holes`.
    """
    floored = shapely.union_all([held.area for held in floors if held.under.id == ceiling.level])
    over = [roof for roof in roofs if roof.block.plate == ceiling.level and not roof.block.offset]
    bays, boards = [], []
    depth = next((layer.thickness for layer in make_ups[ceiling.make_up].layers if layer.framing), 0.0)
    bears = [*bearing_walls(plan, make_ups, ceiling.level), *bearing_beams(beams, level, depth)]
    for outline in plan.outlines_under(ceiling.level):
        start = plan.by_id[outline.name].start
        slot = f"outline:{outline.name}"
        rest = within_bearing(outline, plan, make_ups).difference(shapely.union_all([gables, floored]))
        if vaulted.intersects(rest):
            # No joists on the plates alone, beside what is vaulted.
            rest = rest.difference(vaulted).buffer(-ON_PLATE).buffer(ON_PLATE, join_style="mitre")
        for roof in sorted(over, key=lambda roof: -roof.ridge_top.total):
            region = largest(rest.intersection(roof.outline))
            if region.area > SMALLEST_BAY:
                trims = tuple(_trims(roof, region, sum(layer.thickness for layer in make_ups[ceiling.make_up].layers)))
                along = roof.planes[0].inward if ceiling.span == "roof" else direction_of(ceiling, region, start)
                own = supports_in(bears, region, along)
                around = _holes_in(region, along, holes)
                bays.append(Bay(f"{slot}:{roof.block.id}", region, along, trims, holes=around, supports=own))
                rest = rest.difference(roof.outline.buffer(TOL.point, join_style="mitre"))
        region = largest(rest)
        if region.area > SMALLEST_BAY:
            along = direction_of(ceiling, region, start)
            around = _holes_in(region, along, holes)
            bays.append(Bay(slot, region, along, holes=around, supports=supports_in(bears, region, along)))
        if outline.spaces:
            boards.append(Boards(slot, _pieces(MultiPolygon(outline.spaces).difference(floored.union(vaulted)))))
    return CeilingPlan(ceiling, tuple(bays), tuple(boards))


def _trims(roof: ResolvedRoof, region: Polygon, depth: float) -> Iterator[Trim]:
    """The feet of the slopes over a region, as far in as they lie below the top of what is so deep."""
    for plane in roof.planes:
        inward = (roof.plate.total + depth - plane.heel) / plane.pitch
        foot = plane.whole.intersection(world(plane, band(plane, -FAR, inward)))
        if inward > 0 and not plane.upper and foot.intersects(region):
            yield Trim(plane.top, foot)


def within_bearing(outline: Outline, plan: WallPlan, make_ups: dict[str, MakeUp]) -> Polygon:
    """What lies within the bearing lines of an outline's walls: as far as joists reach."""
    walls = [plan.by_id[id] for id in outline.walls]
    return moved_to(outline.polygon, tuple(walls), tuple(_bearing_line(wall, make_ups) for wall in walls))


def _bearing_line(wall: PlannedWall, make_ups: dict[str, MakeUp]) -> float:
    """How far outward of its set-out line the outside of the layer lies that bears."""
    return wall.layers[bearing_layer(make_ups[wall.wall.make_up])].outer


@lru_cache(maxsize=256)
def moved_to(polygon: Polygon, walls: tuple[PlannedWall, ...], faces: tuple[float, ...]) -> Polygon:
    """A ring of set-out lines with each side moved out to the face of the wall that it runs along."""
    if len(set(faces)) == 1:
        return polygon.buffer(faces[0], join_style="mitre") if faces[0] else polygon
    ring = list(shapely.orient_polygons(polygon).exterior.coords)
    lines = []
    for start, end in itertools.pairwise(ring):
        middle = shapely.Point((start[0] + end[0]) / 2, (start[1] + end[1]) / 2)
        beside = min(zip(walls, faces), key=lambda held: held[0].axis.line_string().distance(middle))
        lines.append((offset_line(line_through(start, end), -beside[1]), start))
    corners = []
    for k, (line, start) in enumerate(lines):
        before = lines[k - 1][0]
        met = meet(before, line)
        # Walls that run on in line with each other part at a step.
        corners += [met] if met else [before.at(before.along(start)), line.at(line.along(start))]
    return largest(Polygon(corners).buffer(0))


def floor_edges(
    floors: tuple[Floor, ...], foundations: tuple[Foundation, ...], levels: dict[str, Level]
) -> dict[str, float]:
    """Per level of a joist floor, the height down to which cladding covers its edge: the plate, or the foundation."""
    edges = {floor.level: levels[floor.bearing].z for floor in floors}
    for held in foundations:
        if held.level in edges and held.sill and held.top:
            edges[held.level] = levels[held.top].z
    return edges


def course_starts(
    floors: tuple[Floor, ...],
    edges: dict[str, float],
    plan: WallPlan,
    levels: dict[str, Level],
    make_ups: dict[str, MakeUp],
) -> dict[str, float]:
    """Per wall, the height at which its courses and boards start: where they stand.

    On a wall of the storey below that has the same outside they run through from there.
    """
    bearings = {floor.level: floor.bearing for floor in floors}
    below: dict[tuple[str, str], list[PlannedWall]] = defaultdict(list)
    for wall in plan.walls:
        if wall.wall.status == "outer" and not wall.wall.base.offset:
            below[wall.wall.top.level, _outside(wall, make_ups)].append(wall)

    def start(wall: PlannedWall, above: frozenset[str] = frozenset()) -> float:
        level = wall.wall.base.level
        under = below.get((bearings.get(level, ""), _outside(wall, make_ups)), [])
        stands_on = next((held for held in under if held.wall.id not in above and _stacked(held, wall)), None)
        if stands_on is None:
            return edges.get(level, levels[level].z)
        return start(stands_on, above | {wall.wall.id})

    return {wall.wall.id: start(wall) for wall in plan.walls}


def _outside(wall: PlannedWall, make_ups: dict[str, MakeUp]) -> str:
    """The material of what is seen of a wall from outside."""
    return make_ups[wall.wall.make_up].layers[0].material


STACKED = 300.0
"""A wall stands on another one that runs along it within this distance (mm)."""


def _stacked(below: PlannedWall, above: PlannedWall) -> bool:
    """Whether the middle of a wall lies over another one that runs the same way, or one of an arc over an arc."""
    (ax, ay), (bx, by) = above.run, below.run
    along = below.axis.is_arc or above.axis.is_arc or abs(ax * by - ay * bx) < TOL.parallel * 1e3
    middle = shapely.Point(above.at(above.length / 2))
    return along and below.axis.line_string().distance(middle) < STACKED


def _pieces(shape: shapely.Geometry) -> MultiPolygon:
    return MultiPolygon(list(polygons_of(shape)))


FLOORS: Key[tuple[FloorPlan, ...]] = Key("floors")
