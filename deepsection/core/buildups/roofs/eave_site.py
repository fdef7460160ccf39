"""What an eave is built around: the slope, the boards, the wall below and the ceiling within, in one plane."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace

import shapely
from shapely.geometry import MultiPolygon, Polygon

from ...geometry import Point, moved_out
from ...junctions import Junction, Run
from ...model import RAKED, SLOPING
from ...resolve import Building, ResolvedRoof, RoofPlane
from ...trades.ceilings.place import CEILINGS
from ...trades.ceilings.vaults import VAULTS
from ...trades.makeups.model import Tradition
from ...trades.onroofs.placed import ROOF_FITTINGS
from ...trades.roofs.placed import ROOFS
from ...trades.roofs.rafters import SOFFIT, rafter_places, soffit_z
from ..faces import WallFaces, wall_faces
from ..lie import Lie, Trim
from .ridges import lets_air_out

WITHIN, TO_WALL = 700.0, 60.0
"""Whether a room is vaulted is asked so far inside of the bearing line; its vault ends so far before its walls' middle
(mm)."""
NEAR = 1.0
"""A rafter that ends this near to the end of a run (mm) is on it."""
CORNER = 5.0
"""A run this near to the end of its side (mm) goes around the corner."""


@dataclass(frozen=True, slots=True)
class EaveSite:
    """Distances outward from the bearing line (u) and heights (mm); thicknesses over the slope are plumb.

    `top`: of the structure at the bearing line; `reach` to the outer face of the fascia, whose board is `board` thick
    and `fascia` deep; `soffit`: its underside, where there is one; `deck`, `covering`: over the structure; `rafter`:
    plumb depth, thickness and spacing; `quilt`: height of the top of what lies on the plate between the joists;
    `board_low`: height of the underside of the ceiling's boards; `attic`: plan area for each length of eaves (mm2
    per mm); `high_vents`: whether vents stand on the roof or a ridge lets air
    out; `is_open`: the tails of its rafters show.
    """

    tradition: Tradition
    plate: float
    top: float
    pitch: float
    reach: float
    board: float
    fascia: float
    soffit: float | None
    deck: float
    covering: float
    rafter: tuple[float, float, float]
    seat: float
    gutter: float
    wall: WallFaces | None
    plates: float
    quilt: float | None
    board_low: float
    attic: float = 0.0
    high_vents: bool = False
    is_open: bool = False

    @property
    def slope(self) -> float:
        """Length along the slope for each mm in plan."""
        return math.hypot(1.0, self.pitch)

    @property
    def face(self) -> float:
        """To the outer face of the wall."""
        return self.wall.outer if self.wall else 0.0

    @property
    def inside(self) -> float:
        """To the inner face of the wall."""
        return self.wall.inner if self.wall else 0.0

    def rafter_top(self, u: float) -> float:
        """Height of the top of the structure: the underside of the deck."""
        return self.top - self.pitch * u

    def on_deck(self, u: float) -> float:
        """Height of the top of the deck, or of the structure where there is none."""
        return self.rafter_top(u) + self.deck

    @property
    def soffit_top(self) -> float | None:
        """Height of the upper face of the soffit."""
        return None if self.soffit is None else self.soffit + SOFFIT


def eave_site(building: Building, junction: Junction) -> EaveSite | None:
    """What an eave is built around; None where its slope does not come down to it."""
    found = roof_side(building, junction)
    if found is None:
        return None
    roof, edge, plane = found
    make_up = building.placed.make_ups[roof.block.make_up]
    rise = math.hypot(1.0, plane.pitch)
    deck = sum(layer.thickness for layer in make_up.layers if layer.function == "sheathing")
    framing = next((layer.framing for layer in make_up.layers if layer.framing), None)
    members = (plane.plumb_depth, framing.thickness, framing.spacing) if framing else (plane.plumb_depth, 0.0, 0.0)
    wall = next((building.plan.by_id[id] for id in junction.elements if id in building.plan.by_id), None)
    faces, plates, quilt, low = None, 0.0, None, plane.plate
    if wall is not None:
        x, y = roof.side(edge)[0]
        off = (x - wall.start[0]) * wall.stand().out[0] + (y - wall.start[1]) * wall.stand().out[1]
        faces = wall_faces(building, wall, off)
        layer = faces.frame.layer
        plates = layer.framing.thickness * layer.framing.top_plates if layer.framing else 0.0
        plates = layer.wall_plate.depth if layer.wall_plate else plates
        for ceiling in building[CEILINGS]:
            if ceiling.level.id != wall.wall.top.level or not ceiling.bays:
                continue
            over = building.placed.make_ups[ceiling.ceiling.make_up]
            joists = over.layers[over.carrying] if over.carrying is not None else None
            if joists is not None and joists.framing and joists.framing.infill:
                quilt = plane.plate + joists.thickness
            low = plane.plate - sum(held.thickness for held in over.layers if held.function in ("lining", "membrane"))
    return EaveSite(
        tradition=building.placed.project.tradition,
        plate=plane.plate,
        top=plane.heel,
        pitch=plane.pitch,
        reach=plane.reach,
        board=roof.block.fascia_thickness if roof.has_fascia(edge) else 0.0,
        fascia=roof.block.fascia_depth,
        soffit=soffit_z(roof, plane) if _has_soffit(roof, plane) else None,
        deck=deck * rise,
        covering=plane.covering,
        rafter=members,
        seat=plane.seat,
        gutter=roof.block.gutter,
        wall=faces,
        plates=plates,
        quilt=quilt,
        board_low=low,
        attic=_attic(roof),
        is_open=roof.block.tails == "open",
        high_vents=lets_air_out(building, roof.block.id)
        or any(
            held.plane.roof == roof.block.id and held.fitting.fitting == "vent"
            for held in building[ROOF_FITTINGS].fittings
        ),
    )


def _attic(roof: ResolvedRoof) -> float:
    """Plan area within the bearing lines for each length of eaves with a fascia."""
    area = Polygon(roof.bearing[0], roof.bearing[1:]).area
    eaves = [k for k, edge in enumerate(roof.block.edges) if edge.kind in SLOPING and roof.has_fascia(k)]
    long = sum(math.dist(*roof.side(k)) for k in eaves)
    return area / long if long else 0.0


def _has_soffit(roof: ResolvedRoof, plane: RoofPlane) -> bool:
    boxed = roof.block.tails == "boxed"
    return (
        boxed
        and roof.has_fascia(plane.edge)
        and plane.reach - roof.block.fascia_thickness - roof.faces[plane.edge] > 10.0
    )


def roof_side(building: Building, junction: Junction) -> tuple[ResolvedRoof, int, RoofPlane] | None:
    """The roof of an eave, the place of its edge, and the slope that comes down to it."""
    end = junction.ends[0]
    roof = next((held for held in building[ROOFS] if held.block.id == end.element), None)
    if roof is None:
        return None
    edge = next((k for k in range(len(roof.block.edges)) if roof.edge_id(k) == end.sub), None)
    plane = next((held for held in roof.planes if edge in held.edges and not held.upper), None)
    return (roof, edge, plane) if edge is not None and plane is not None else None


def eave_lies(building: Building, junction: Junction) -> list[Lie]:
    """Where the pieces of an eave lie: each of its runs along the bearing line, mitred or cut off at corners."""
    found = roof_side(building, junction)
    if found is None:
        return []
    roof, edge, plane = found
    vaults = [held.area for some in building[VAULTS].values() for held in some]
    lies = [_vaulted(_lie(roof, edge, run), vaults) for run in junction.runs]
    framing = next(
        (layer.framing for layer in building.placed.make_ups[roof.block.make_up].layers if layer.framing), None
    )
    if framing is None:
        return lies
    places = rafter_places(roof, plane, framing.thickness, framing.spacing)
    return [_with_rafters(lie, plane, [near + framing.thickness for near in places], framing.thickness) for lie in lies]


def _with_rafters(lie: Lie, plane: RoofPlane, ends: list[float], thick: float) -> Lie:
    """A run with the near faces of the rafters on it: it goes against the bearing line of its slope."""
    (sx, sy), (dx, dy) = lie.start, lie.along
    found = []
    for far in ends:
        x, y = plane.line.at(far)
        along = (x - sx) * dx + (y - sy) * dy
        if -NEAR <= along <= lie.length - thick + NEAR:
            found.append(along)
    return replace(lie, rafters=tuple(sorted(found)))


def _vaulted(lie: Lie, vaults: list[Polygon | MultiPolygon]) -> Lie:
    """A run with the stretches at which the room within is vaulted."""
    (ox, oy), (dx, dy) = lie.out, lie.along
    ends = [(x - ox * WITHIN, y - oy * WITHIN) for x, y in (lie.at(0.0), lie.at(lie.length))]
    spans = []
    for area in vaults:
        for piece in shapely.get_parts(shapely.LineString(ends).intersection(area)):
            at = [(x - ends[0][0]) * dx + (y - ends[0][1]) * dy for x, y in shapely.get_coordinates(piece).tolist()]
            if at:
                spans.append((min(at) - TO_WALL, max(at) + TO_WALL))
    return replace(lie, vaults=tuple(sorted(spans))) if spans else lie


def _lie(roof: ResolvedRoof, edge: int, run: Run) -> Lie:
    first, last = roof.side(edge)
    ox, oy = run.out
    # It goes on to the right of outward: from the end of its edge to its start.
    dx, dy = oy, -ox
    origin = last[0] * dx + last[1] * dy
    ends = sorted(x * dx + y * dy - origin for x, y, _ in (run.start, run.end))
    length = (first[0] - last[0]) * dx + (first[1] - last[1]) * dy
    side = roof.drawn_side(edge)
    drawn = sorted(x * dx + y * dy - origin for x, y in side)
    before, after = roof.neighbours(edge)
    wall: list[Trim] = []
    boards: list[Trim] = []
    past = [0.0, 0.0]
    reach = 3.0 * max(*roof.reaches, 0.0) + 1000.0
    for end, corner, neighbour, at in ((0, last, after, drawn[0]), (1, first, before, drawn[1])):
        if abs(ends[end] - at) > CORNER:
            continue
        ends[end] = 0.0 if end == 0 else length
        middle = last[0] + dx * length / 2, last[1] + dy * length / 2
        trims = _corner(roof, edge, neighbour, corner, middle)
        if trims is not None:
            wall.append(trims[0])
            boards.append(trims[1])
            past[end] = reach
    low, high = ends
    start = last[0] + dx * low, last[1] + dy * low
    return Lie(start, run.out, high - low, tuple(wall), tuple(boards), past[0], past[1])


def _corner(roof: ResolvedRoof, edge: int, neighbour: int, corner: Point, middle: Point) -> tuple[Trim, Trim] | None:
    """The planes at which pieces end at a corner, those of the wall and those of the roof's boards."""
    kind, cx, cy = roof.block.edges[neighbour].kind, *corner
    if kind in SLOPING:
        rings = moved_out(roof.bearing, roof.reaches)
        bearing = [point for ring in roof.bearing for point in ring]
        outer = [point for ring in rings for point in ring]
        k = min(range(len(bearing)), key=lambda n: math.dist(bearing[n], corner))
        mx, my = outer[k][0] - cx, outer[k][1] - cy
        size = math.hypot(mx, my)
        if size < 1.0:
            return None
        normal = -my / size, mx / size
        offset = normal[0] * cx + normal[1] * cy
        if normal[0] * middle[0] + normal[1] * middle[1] < offset:
            normal, offset = (-normal[0], -normal[1]), -offset
        return Trim(normal, offset), Trim(normal, offset)
    if kind in RAKED:
        (ax, ay), (bx, by) = roof.side(neighbour)
        size = math.dist((ax, ay), (bx, by))
        out = (by - ay) / size, -(bx - ax) / size
        # Outward of the neighbour's faces nothing is left.
        at = out[0] * cx + out[1] * cy
        reach = max(roof.reaches[neighbour] - roof.block.fascia_thickness, 0.0)
        back = -out[0], -out[1]
        return Trim(back, -(at + roof.faces[neighbour])), Trim(back, -(at + reach))
    return None
