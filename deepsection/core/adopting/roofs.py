"""Roofs of a model over walls that stand: blocks whose slopes come to lie where the model has them, or none."""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass

import shapely
from shapely.geometry import LineString, Polygon
from shapely.geometry import Point as Spot

from ..document.rebuilding import changed
from ..edits import PutRoof
from ..errors import BadInput, GeometryError, RefusedEdit
from ..geometry import Point, line_through, meet, offset_line, polygons_of
from ..model import Corner, Project, RoofBlock, RoofEdge, joint_point, wall_axis
from ..reading import FoundRoof
from ..reading.found import Slope
from ..reading.roofed import GRID, slopes_of
from ..resolve import Building, resolve, storeys
from ..trades.roofs.edits.proposing import usual_block

WITHIN = 20.0
"""A roof is taken over when it comes to lie so near (mm) to where the model has it."""
REACH, BEHIND = 1600.0, 60.0
"""A roof overhangs its wall by no more than this, and begins no more behind it (mm)."""
NO_WALL = 300.0
"""Where no wall stands below an edge, it hangs over so much (mm)."""
ROUNDS = 3
TIED = 3.0
SAME_FALL = 0.02
SPARE = 0.05e6
"""So much of a roof, seen from above (mm2), may lie elsewhere than in the model: a saddle, a cap."""
OVER_PLATE = 1500.0
"""Slopes lie so far (mm) above the plate that they bear on, at most."""


@dataclass(slots=True)
class _Off:
    """How a block lies against a roof: heights per edge, lengths per edge, and the most of all (mm)."""

    heights: list[float]
    lengths: list[float]
    most: float


@dataclass(slots=True)
class Roofed:
    """The edits that put roofs on, each with the names of what they stand for in the model; why others are not put on,
    in words."""

    edits: list[tuple[PutRoof, frozenset[str]]]
    said: list[str]


def roofs_built(project: Project, found: Sequence[FoundRoof], prefix: str) -> Roofed:
    """The roofs of a model that come to lie over the walls of a project where the model has them."""
    edits: list[tuple[PutRoof, frozenset[str]]] = []
    said: list[str] = []
    make_up = next((held.id for held in project.make_ups if held.use == "roof"), None)
    for number, roof in enumerate(found, 1):
        size = f"a roof of {Polygon(roof.outline).area / 1e6:,.0f} m² in plan"
        if make_up is None:
            said.append(f"{size}: this project has no make-up of a roof")
            continue
        if any(_covers(project, held, roof) for held in project.roofs):
            continue
        why = "its outline is no plain one"
        for parts in ([roof] if roof.edges else [], roof.wings):
            if not parts:
                continue
            try:
                made = _together(project, parts, make_up, f"{prefix}-roof{number}")
            except (RefusedEdit, BadInput, GeometryError, ValueError) as error:
                why = str(error)
                continue
            for edit, part in zip(made, parts):
                edits.append((edit, frozenset().union(*(slope.of for slope in part.slopes))))
                project = edit.apply(project)
            break
        else:
            said.append(f"{size}: {why}")
    return Roofed(edits, said)


def _together(project: Project, roofs: Sequence[FoundRoof], make_up: str, prefix: str) -> list[PutRoof]:
    """The blocks of roofs, those after the first running into the ones before. Raises: RefusedEdit and others."""
    made = []
    for number, roof in enumerate(roofs, 1):
        block = _block(project, roof, make_up, prefix if number == 1 else f"{prefix}-{number}")
        block, most = _fitted(project, roof, block)
        if most > WITHIN:
            raise RefusedEdit(f"it would lie up to {most:,.0f} mm off where the model has it")
        edit = PutRoof(roof=block)
        project = edit.apply(project)
        made.append(edit)
    spare = _beyond(resolve(project), {edit.roof.id for edit in made}, roofs)
    if spare > SPARE:
        raise RefusedEdit(f"{spare / 1e6:,.1f} m² of it would lie otherwise than the model has it")
    return made


def _beyond(building: Building, ids: set[str], roofs: Sequence[FoundRoof]) -> float:
    """How much of roofs, seen from above, lies outside of where the model has them, or otherwise than there (mm2).

    Where a dormer or a chimney comes through a roof of the model, it lies over whatever is below.
    """
    made = _covering(building, ids)
    slopes = [slope for roof in roofs for slope in roof.slopes]
    there = shapely.union_all([slope.area.buffer(WITHIN) for slope in slopes])
    filled = shapely.union_all([Polygon(piece.exterior) for piece in polygons_of(there)])
    spare = float(shapely.union_all([slope.area for slope in made]).difference(filled).area)
    for slope in slopes:
        spot = slope.area.representative_point()
        same = [
            held.area.buffer(WITHIN)
            for held in made
            if math.hypot(held.a - slope.a, held.b - slope.b) < SAME_FALL and abs(held.z(spot) - slope.z(spot)) < WITHIN
        ]
        spare += float(slope.area.difference(shapely.union_all(same)).area)
    return spare


def _covering(building: Building, ids: set[str]) -> list[Slope]:
    """The slopes of what covers roofs."""
    return slopes_of(
        (part.key, *part.solid.mesh())
        for part in building.parts
        if part.element in ids and part.role == "roofing" and not part.solid.is_empty
    )


def _covers(project: Project, held: RoofBlock, roof: FoundRoof) -> bool:
    """Whether a roof stands already where one of the model is."""
    corners = [joint_point(project, c.joint) if c.joint else (c.x, c.y) for c in held.outline]
    return bool(Polygon(corners).intersection(Polygon(roof.outline)).area > 0.5 * Polygon(roof.outline).area)


def _block(project: Project, roof: FoundRoof, make_up: str, id: str) -> RoofBlock:
    """A block over the walls below, as the model has its edges. Raises: RefusedEdit."""
    plate = _plate(project, roof)
    ring = roof.outline
    sides = list(zip(ring, (*ring[1:], ring[0])))
    backs = [0.0 if edge.kind == "joined" else _back(project, side, plate) for edge, side in zip(roof.edges, sides)]
    lines = [offset_line(line_through(*side), back) for side, back in zip(sides, backs)]
    corners = []
    for k in range(len(ring)):
        # Where two edges follow each other in one line, the corner is where it was.
        at = meet(lines[k - 1], lines[k]) or lines[k].at(0.0)
        tied = next((j.id for j in project.joints if math.dist(joint_point(project, j.id), at) < TIED), None)
        corners.append(Corner(joint=tied) if tied else Corner(x=round(at[0], 2), y=round(at[1], 2)))
    pitches = Counter(round(edge.pitch, 5) for edge in roof.edges if edge.pitch)
    pitch = pitches.most_common(1)[0][0]
    edges = [
        RoofEdge(
            kind=edge.kind,
            overhang=round(max(back, 0.0), 2),
            pitch=round(edge.pitch, 5) if edge.pitch and abs(edge.pitch - pitch) > 1e-4 else None,
        )
        for edge, back in zip(roof.edges, backs)
    ]
    return usual_block(project, make_up, id, [corners], edges, plate, pitch)


def _plate(project: Project, roof: FoundRoof) -> str:
    """The plate below the eaves of a roof. Raises: RefusedEdit."""
    levels = resolve(project).levels
    low = min(edge.z for edge in roof.edges if edge.kind == "eave")
    area = Polygon(roof.outline)
    best: tuple[float, str] | None = None
    for held in storeys(project):
        under = any(
            wall.base.level == held.level and area.intersects(LineString(_ends(project, wall.id)))
            for wall in project.walls
        )
        if held.plate is None or not under:
            continue
        away = abs(low - levels[held.plate].z)
        if away < OVER_PLATE and (best is None or away < best[0]):
            best = away, held.plate
    if best is None:
        raise RefusedEdit("no walls stand below it whose plate it could bear on")
    return best[1]


def _ends(project: Project, wall: str) -> tuple[Point, Point]:
    axis = wall_axis(project, project.walls_by_id[wall])
    return axis.start, axis.end


def _back(project: Project, side: tuple[Point, Point], plate: str) -> float:
    """How far an edge lies outside of the line of the outer walls below it: of most of their length."""
    edge, long = line_through(*side), math.dist(*side)
    lines: list[tuple[float, float]] = []
    for wall in project.walls:
        if wall.status != "outer" or wall.bulge or wall.top.level != plate:
            continue
        start, end = _ends(project, wall.id)
        away = edge.left_of(start), edge.left_of(end)
        first, last = sorted((edge.along(start), edge.along(end)))
        shared = min(last, long) - max(first, 0.0)
        if abs(away[0] - away[1]) > 0.01 * math.dist(start, end) or shared < 0.3 * min(long, last - first):
            continue
        if -BEHIND < away[0] < REACH:
            lines.append((away[0], shared))
    if not lines:
        return NO_WALL
    return max(lines, key=lambda one: (sum(held[1] for held in lines if abs(held[0] - one[0]) < TIED), -one[0]))[0]


def _fitted(project: Project, roof: FoundRoof, block: RoofBlock) -> tuple[RoofBlock, float]:
    """The block with heel and overhangs by which it comes to lie where the model has it, and how far off it stays.

    Heights and outlines are linear in them, so what is off after one round is what to change. Raises: RefusedEdit.
    """
    off = _Off([], [], math.inf)
    for _ in range(ROUNDS):
        building = resolve(PutRoof(roof=block).apply(project))
        held = next((placed for placed in building.roofs if placed.block.id == block.id), None)
        if held is None:
            raise RefusedEdit("its outline holds no roof")
        off = _measured(roof, building, block)
        if off.most < 0.5:
            break
        bears = held.plate.total + block.offset
        heel = held.heel.total - bears + off.heights[_first_eave(block)]
        if heel <= 1.0:
            raise RefusedEdit(f"its rafters would lie {1.0 - heel:,.0f} mm too deep on the plate")
        level = off.heights[_first_eave(block)]
        edges = []
        for edge, height, length in zip(block.edges, off.heights, off.lengths):
            if edge.kind == "joined":
                edges.append(edge)
                continue
            if edge.kind == "gable" and edge.overhang + length < -1.0:
                # It ends at the face of a wall that goes on up.
                edges.append(changed(edge, kind="abutment", overhang=0.0))
                continue
            raised = edge.raised + (height - level if edge.kind == "eave" else 0.0)
            overhang = max(edge.overhang + length, 0.0)
            edges.append(changed(edge, raised=round(raised, 2), overhang=round(overhang, 2)))
        block = changed(block, heel=round(heel, 3), edges=tuple(edges))
    return block, off.most


def _first_eave(block: RoofBlock) -> int:
    return next(k for k, edge in enumerate(block.edges) if edge.kind == "eave")


def _measured(roof: FoundRoof, building: Building, block: RoofBlock) -> _Off:
    """How far the block lies from where the model has the roof. Raises: RefusedEdit where they have other slopes."""
    made = _covering(building, {block.id})
    if not made:
        raise RefusedEdit("nothing of it could be covered")
    most = 0.0
    of: list[float] = []
    for slope in roof.slopes:
        mine = max(made, key=lambda held: held.area.intersection(slope.area, grid_size=GRID).area)
        shared = mine.area.intersection(slope.area, grid_size=GRID)
        if shared.area < 0.5 * slope.area.area or math.hypot(mine.a - slope.a, mine.b - slope.b) > 0.02:
            raise RefusedEdit("its slopes meet otherwise than those of a roof of these eaves and gables")
        spots = [Spot(at) for at in shapely.get_coordinates(shared)]
        away = [slope.z(spot) - mine.z(spot) for spot in spots]
        most = max(most, *(abs(height) for height in away))
        of.append(sum(away) / len(away))
    ring = roof.outline
    whole = shapely.union_all([held.area.buffer(30.0, join_style="mitre") for held in made]).buffer(
        -30.0, join_style="mitre"
    )
    heights, lengths = list[float](), list[float]()
    for edge, a, b in zip(roof.edges, ring, (*ring[1:], ring[0])):
        middle = (a[0] + b[0]) / 2, (a[1] + b[1]) / 2
        k = min(range(len(roof.slopes)), key=lambda n: roof.slopes[n].area.distance(Spot(middle)))
        heights.append(of[k])
        # One that runs into another roof goes as far as that lets it.
        lengths.append(_short(whole, a, b) if edge.kind != "joined" else 0.0)
    most = max(most, *(abs(length) for length in lengths))
    return _Off(heights, lengths, most)


def _short(whole: Polygon, a: Point, b: Point) -> float:
    """How far an outline ends before an edge, across it at its middle; beyond it: negative."""
    long = math.dist(a, b)
    out = (b[1] - a[1]) / long, -(b[0] - a[0]) / long
    best = math.inf
    for share in (0.35, 0.5, 0.65):
        x, y = a[0] + (b[0] - a[0]) * share, a[1] + (b[1] - a[1]) * share
        ray = LineString([(x - out[0] * 3000, y - out[1] * 3000), (x + out[0] * 3000, y + out[1] * 3000)])
        hits = shapely.get_coordinates(whole.boundary.intersection(ray)).tolist()
        ends = [(hx - x) * out[0] + (hy - y) * out[1] for hx, hy in hits]
        if ends:
            best = min(best, -min(ends, key=abs), key=abs)
    if not math.isfinite(best):
        raise RefusedEdit("its outline cannot be followed")
    return best
