"""Stage: floors in plan: what they cover, what carries them, which way they span."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field
from functools import lru_cache

import shapely
from shapely.geometry import MultiPolygon, Polygon

from ...building.diagnostics import Diagnostic
from ...building.placed import Key
from ...geometry import Point, polygons_of
from ...memo import hashed_once
from ...model import Deck, Floor, Foundation, MakeUp, bearing_layer
from ...tolerance import TOL
from ..levels.placed import Level
from ..posts.placed import PlacedBeam
from ..walls.planned import Outline, PlannedLayer, PlannedWall, WallPlan
from .bays import Bay, Boards, Rim, RimRole, direction_of, without
from .holes import holes_in, holes_of_slab
from .profiles import is_timber
from .reach import bearing_ring, floor_reach, is_masonry, within_bearing
from .set_downs import SlabPart, slab_parts
from .supports import Support, bearing_beams, bearing_walls, supports_in
from .turned import Turned

ON_PLATE = 150.0
"""Half of the width (mm) below which what is left of a bay is the plate of a wall."""
HANGS_OUT = 5e4
"""A floor may pass what carries it by this much (mm2) before it is pointed out."""
RISE_TOLERANCE = 0.5
"""The ladder and a make-up may differ by this much (mm) before it is pointed out."""


@hashed_once
@dataclass(frozen=True)
class FloorPlan:
    """A floor or deck in plan: bays, rim joists, the boards below it and the layers over it; whether walls stand on it.

    `top` and `under` are the levels of its top and of what its joists bear on.
    """

    floor: Floor | Deck
    top: Level
    under: Level
    outlines: tuple[Outline, ...]
    bays: tuple[Bay, ...]
    rims: tuple[Rim, ...]
    below: tuple[Boards, ...]
    over: tuple[Boards, ...]
    closed: bool
    bearing: Polygon | MultiPolygon = field(default_factory=Polygon)
    """What joists bear on, in plan."""
    parts: tuple[SlabPart, ...] = ()
    """Of a slab, what lies at another height in it."""
    upstand: SlabPart | None = None
    """Of such a part, how it is joined to the slab around it."""

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


@lru_cache(maxsize=32)
def plan_floor(
    floor: Floor,
    plan: WallPlan,
    make_ups_of: tuple[MakeUp, ...],
    foundations: tuple[Foundation, ...],
    levels_of: tuple[Level, ...],
    holes: tuple[tuple[str, Polygon], ...],
    set_in: tuple[Deck, ...],
    beams: tuple[PlacedBeam, ...],
) -> tuple[FloorPlan, tuple[Diagnostic, ...]]:
    """A floor under the outlines that stand on it, or over those that carry it; what is wrong with it.

    Around what is `set_in` joists are framed as around a hole; a slab has its parts.
    """
    make_ups, levels = {held.id: held for held in make_ups_of}, {held.id: held for held in levels_of}
    found: list[Diagnostic] = []
    on, under = plan.outlines_on(floor.level), plan.outlines_under(floor.bearing)
    founded = any(floor.bearing in (held.sill, held.top) and held.level == floor.level for held in foundations)
    make_up, walls = make_ups[floor.make_up], plan.by_id
    carrying = make_up.layers[make_up.carrying] if make_up.carrying is not None else None
    framing, timber = carrying.framing if carrying else None, is_timber(carrying)
    lying = [_lies(floor, outline, plan, make_ups, framed=framing is not None) for outline in on or under]
    bases = on if founded else under
    carried = shapely.union_all([floor_reach(outline, plan, make_ups)[0] for outline in bases])
    found += _faults(floor, plan, lying, carried, levels, make_ups)
    hanging = [] if founded or carried.is_empty else _hanging(lying, carried)
    bays: list[Bay] = []
    rims: list[Rim] = []
    parts: list[SlabPart] = []
    below_it = {id: walls[id] for outline in bases for id in outline.walls}
    ends = [_bearing(held, make_ups).polygon for held in below_it.values()]
    # Where other walls run into them, too.
    ends += [bearing_ring(outline, plan, make_ups) for outline in bases]
    borne = shapely.union_all(ends)
    bears = list(bearing_walls(plan, make_ups, floor.bearing))
    bears += bearing_beams(beams, levels[floor.bearing], carrying.thickness) if carrying else ()
    if hanging:
        # Joists run out over the walls below.
        bears += bearing_walls(plan, make_ups, floor.bearing, "outer")
    for held in lying:
        region, along = held.region, held.along
        supports = _within(_supports(bears, region, along, framed=framing is not None), region)
        if framing:
            own = [deck for deck in set_in if region.contains(deck.outline.centroid)]
            around = (*holes, *((deck.id, to_edges(deck.outline, region, along)) for deck in own))
            opened = holes_in(region, along, around)
        else:
            opened = holes_of_slab(region, holes)
            solid = shapely.union_all([borne, *(support.area for support in supports)])
            through = shapely.union_all([hole for _, hole in opened])
            clear = without(held.over, standing_on(plan, floor.level, make_ups))
            in_it = tuple(slab_parts(floor, set_in, region, clear, solid, through, levels, make_ups, found))
            opened += tuple((part.deck, part.area) for part in in_it)
            parts += in_it
        bays.append(
            Bay(
                f"outline:{held.outline.name}",
                region,
                along,
                holes=opened,
                supports=supports,
                along=_walls_along(plan, floor.level, region, along, make_ups) if floor.doubled else (),
                lap=floor.lap if timber else "butted",
                shift=floor.shift,
                hung=_hung(region, held.outline, walls, make_ups) if floor.ends == "hung" else None,
                borne=borne if any(piece.intersects(region) for piece in hanging) else None,
            )
        )
        if framing and timber:
            beside = tuple(walls[id] for id in held.outline.walls if not is_masonry(walls[id], make_ups))
            faces = tuple(_bearing(wall, make_ups).outer for wall in beside)
            framed = floor.edge == "framed"
            thick = floor.edge_depth if framed else framing.thickness
            rims += _rims(region, beside, faces, thick, "framed_edge" if framed else "rim_joist")
    whole = shapely.union_all([bay.region for bay in bays])
    open_ = shapely.union_all([hole for bay in bays for _, hole in bay.holes])
    bare = shapely.union_all([open_, *(part.upstand for part in parts if part.lower)])
    below = tuple(
        Boards(f"outline:{outline.name}", _pieces(MultiPolygon(outline.spaces).intersection(whole).difference(bare)))
        for outline in under
        if outline.spaces
    )
    found += _hangs_out(floor, levels[floor.bearing], hanging, bays)
    bearing = shapely.union_all([*ends, *(held.area for bay in bays for held in bay.supports)])
    standing = [open_, *([] if timber else standing_on(plan, floor.level, make_ups))]
    over = tuple(Boards(bay.slot, without(held.over, standing)) for bay, held in zip(bays, lying))
    made = FloorPlan(
        floor,
        levels[floor.level],
        levels[floor.bearing],
        tuple(on or under),
        tuple(bays),
        tuple(rims),
        below,
        over,
        bool(on),
        bearing,
        tuple(parts),
    )
    return made, tuple(found)


def _supports(bears: list[Support], region: Polygon, along: Point, *, framed: bool) -> tuple[Support, ...]:
    """What bears a floor within a region: of joists what they cross, of slabs all."""
    own = supports_in(bears, region, along)
    if framed:
        return own
    names = {held.name for held in own}
    across = supports_in(bears, region, (along[1], -along[0]))
    return (*own, *(held for held in across if held.name not in names))


@dataclass(frozen=True, slots=True)
class _Lying:
    """Where a floor lies in an outline: what carries it, the layers over that, the way that it spans."""

    outline: Outline
    region: Polygon
    over: Polygon
    along: Point


def _lies(floor: Floor, outline: Outline, plan: WallPlan, make_ups: dict[str, MakeUp], *, framed: bool) -> _Lying:
    along = direction_of(floor, within_bearing(outline, plan, make_ups), plan.by_id[outline.name].start)
    hung = floor.ends == "hung"
    region, over = floor_reach(outline, plan, make_ups, along if framed else None, hung=hung)
    return _Lying(outline, region, over, along)


HANGS_AT = 5.0
"""What hangs on a wall ends as near to it as this (mm)."""


def _hung(
    region: Polygon, outline: Outline, walls: dict[str, PlannedWall], make_ups: dict[str, MakeUp]
) -> MultiPolygon | None:
    """The faces of the masonry around a region on which joists hang."""
    masonry = [_bearing(walls[id], make_ups).polygon for id in outline.walls if is_masonry(walls[id], make_ups)]
    faces = _pieces(shapely.union_all(masonry).intersection(region.buffer(HANGS_AT, join_style="mitre")))
    return None if faces.is_empty else faces


def _bearing(wall: PlannedWall, make_ups: dict[str, MakeUp]) -> PlannedLayer:
    return wall.layers[bearing_layer(make_ups[wall.wall.make_up])]


def standing_on(plan: WallPlan, level: str, make_ups: dict[str, MakeUp]) -> list[Polygon | MultiPolygon]:
    """The masonry of inner walls, which stands on what carries a floor of concrete; the layers on that end at it."""
    inner = (wall for wall in plan.on(level) if wall.wall.status == "inner" and is_masonry(wall, make_ups))
    return [_bearing(wall, make_ups).polygon for wall in inner]


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
            layer = _bearing(wall, make_ups)
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


@lru_cache(maxsize=64)
def _rims(
    region: Polygon, walls: tuple[PlannedWall, ...], faces: tuple[float, ...], thickness: float, role: RimRole
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
            rims.append(Rim(wall.wall.id, wall.run, area, role))
            ring = _pieces(shapely.difference(ring, along, grid_size=TOL.node))
    return tuple(rims)


def _hanging(lying: list[_Lying], carried: Polygon | MultiPolygon) -> list[Polygon]:
    """The places of a floor that lie out over what carries it."""
    out = shapely.union_all([held.region for held in lying]).difference(carried)
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
    lying: list[_Lying],
    carried: Polygon | MultiPolygon,
    levels: dict[str, Level],
    make_ups: dict[str, MakeUp],
) -> list[Diagnostic]:
    def fault(
        code: str, message: str, field: str, value: float | None = None, limit: float | None = None
    ) -> Diagnostic:
        at = tuple(lying[0].region.representative_point().coords[0]) if lying else None
        return Diagnostic(code, message, floor.id, field, value, limit, at=at)

    bearing, level = levels[floor.bearing], levels[floor.level]
    make_up = make_ups[floor.make_up]
    if make_up.carrying is None:
        return [fault("floor-unframed", f"the make-up of {floor.name} has no joists and no slab", "make_up")]
    found = []
    what = "the joists of " if make_up.layers[make_up.carrying].framing else ""
    spans = "span" if what else "spans"
    if not lying and plan.on(floor.level):
        message = f"{what}{floor.name} {spans} nothing: the outer walls on it do not close"
        found.append(fault("floor-spans-nothing", message, "bearing"))
    if carried.is_empty and lying:
        message = f"{what}{floor.name} {spans} nothing: no closed walls reach up to {bearing.name}"
        found.append(fault("floor-spans-nothing", message, "bearing"))
    depth, rise = make_up.depth, level.z - bearing.z
    if abs(depth - rise) > RISE_TOLERANCE:
        message = (
            f"{floor.name}: its layers do not fill the height from {bearing.name} to {level.name}; "
            "take the parts of that height from its make-up"
        )
        found.append(fault("floor-rise", message, "make_up", depth, rise))
    return found


def _pieces(shape: shapely.Geometry) -> MultiPolygon:
    return MultiPolygon(list(polygons_of(shape)))


FLOORS: Key[tuple[FloorPlan, ...]] = Key("floors")
