"""What the foot of an outer wall and its footing are built around, in one plane."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace

import shapely

from ..junctions import Junction, Run
from ..model import Layer
from ..resolve import Building, PlannedWall
from ..trades.foundations.place import FOUNDATIONS, PlacedFoundation
from ..trades.foundations.stretches import Stretch
from ..trades.makeups.model import Tradition
from .faces import WallFaces, wall_faces
from .lie import Lie, Trim

SAMPLES = (0.1, 0.3, 0.5, 0.7, 0.9)
"""Shares of a wall at which the ground before it is read."""
OUT = 300.0
"""So far before the wall (mm)."""
LOW, BESIDE = 20.0, 20.0
"""An opening whose sill is no higher over the foot of its wall (mm) parts what lies there; a wall that comes this near
to another runs into it."""


@dataclass(frozen=True, slots=True)
class GroundLayer:
    """A layer on the ground within, between two heights (mm)."""

    layer: Layer
    high: float
    low: float


@dataclass(frozen=True, slots=True)
class FootSite:
    """Distances outward from the set-out line of the wall, heights (mm).

    `over`: the least that the top of the foundation stands over the ground before the wall.
    `base`: what the wall stands on, `top`: the top of the foundation wall, `foot_top` and `foot_low`: of the footing;
    `stem`, `footing`: outer and inner faces; `plate`: the thickness of the sill plate, 0 without one; `deep`: whether
    the slab's own edge carries; `pony`: whether framed walls stand between; `steps`: whether it steps; `ground`: the
    highest ground before the wall; `slab`: what lies on the ground within, from the top down.
    """

    tradition: Tradition
    wall: WallFaces
    base: float
    top: float
    foot_top: float
    foot_low: float
    stem: tuple[float, float]
    footing: tuple[float, float]
    ledge: float
    plate: float
    bolts: bool
    deep: bool
    pony: bool
    steps: bool
    ground: float
    over: float
    slab: tuple[GroundLayer, ...]

    @property
    def on_slab(self) -> bool:
        """Whether the floor is a slab on the ground at the foot of the wall."""
        return bool(self.slab) and abs(self.slab[0].high - self.base) < 60.0 and self.carrying is not None

    @property
    def carrying(self) -> GroundLayer | None:
        """The layer of concrete on the ground."""
        return next((held for held in self.slab if held.layer.function == "structure"), None)

    @property
    def barrier(self) -> GroundLayer | None:
        """The membrane on the ground."""
        return next((held for held in self.slab if held.layer.function == "membrane"), None)

    @property
    def insulation(self) -> GroundLayer | None:
        """The insulation of the floor."""
        return next((held for held in self.slab if held.layer.function == "insulation"), None)


def foundation_of(building: Building, junction: Junction) -> tuple[PlannedWall, PlacedFoundation] | None:
    """The wall of a foot or a footing, and the foundation under it."""
    ids = {end.element for end in junction.ends}
    wall = next((building.plan.by_id[id] for id in sorted(ids) if id in building.plan.by_id), None)
    held = next((one for one in building[FOUNDATIONS] if one.foundation.id in ids), None)
    return (wall, held) if wall is not None and held is not None else None


def foot_site(building: Building, junction: Junction) -> FootSite | None:
    """What is built around at the foot of an outer wall; None where it stands on no foundation of its own, or leans."""
    found = foundation_of(building, junction)
    if found is None:
        return None
    wall, placed = found
    if not wall.is_plumb:
        return None
    at = next(k for k, held in enumerate(placed.walls) if held.wall.id == wall.wall.id)
    held, feet, stretches = placed.foundation, placed.feet[at], placed.stretches[at]
    highest = min(stretches, key=lambda stretch: stretch.drop)
    wide = held.footing_width if held.form == "deep edge" else held.stem_thickness
    stem = feet.ledge, feet.structure - wide
    margin = 0.0 if held.form == "deep edge" else (held.footing_width - held.stem_thickness) / 2
    drop = highest.drop
    layers, high = list[GroundLayer](), placed.levels.ground.z
    for layer in placed.slab.layers if placed.slab else ():
        layers.append(GroundLayer(layer, high, high - layer.thickness))
        high -= layer.thickness
    spots = [wall.at(wall.length * share, wall.outer + OUT) for share in SAMPLES]
    heights = [building.ground.z(x, y) for x, y in spots]
    base = building.levels[wall.wall.base.level].z + wall.wall.base.offset
    return FootSite(
        tradition=building.placed.project.tradition,
        wall=wall_faces(building, wall),
        base=base,
        top=placed.stem_top(highest),
        foot_top=placed.footing_top - drop,
        foot_low=placed.levels.footing.z - drop,
        stem=stem,
        footing=(stem[0] + margin, stem[1] - margin),
        ledge=feet.ledge,
        plate=placed.levels.sill.z - placed.stem_top(highest) if placed.levels.sill else 0.0,
        bolts=held.form != "deep edge",
        deep=held.form == "deep edge",
        pony=placed.is_pony(highest),
        steps=len(stretches) > 1,
        ground=max(heights),
        over=min(_top_at(placed, stretches, wall.length * share) - z for share, z in zip(SAMPLES, heights)),
        slab=tuple(layers),
    )


def _top_at(placed: PlacedFoundation, stretches: tuple[Stretch, ...], along: float) -> float:
    """Height of the top of a foundation wall at a distance along it."""
    held = next((one for one in stretches if one.first <= along <= one.last), stretches[0])
    return placed.stem_top(held)


def foot_lies(building: Building, junction: Junction) -> list[Lie]:
    """Along the wall on its set-out line, mitred with the outer walls at its ends."""
    found = foundation_of(building, junction)
    if found is None:
        return []
    wall, placed = found
    whole = wall_lies(building, wall, junction.runs)
    at = next(k for k, held in enumerate(placed.walls) if held.wall.id == wall.wall.id)
    stretches = placed.stretches[at]
    # Without pony walls only the footing steps: what lies at the foot of the wall is level.
    if len(whole) != 1 or len(stretches) < 2 or (junction.kind == "wall_foot" and placed.pony is None):
        return whole
    highest = min(stretch.drop for stretch in stretches)
    return [_stretch(whole[0], wall, stretch, highest) for stretch in stretches]


def _stretch(lie: Lie, wall: PlannedWall, stretch: Stretch, highest: float) -> Lie:
    """What of a run lies on a stretch of a foundation, so much lower than on the highest one."""
    ends = sorted(along_lie(lie, wall.at(min(max(at, 0.0), wall.length))) for at in (stretch.first, stretch.last))
    low, high = max(ends[0], 0.0), min(ends[1], lie.length)
    gaps = tuple((a - low, b - low) for a, b in lie.gaps)
    return replace(
        lie,
        start=lie.at(low),
        length=high - low,
        before=lie.before if low < 1.0 else 0.0,
        after=lie.after if high > lie.length - 1.0 else 0.0,
        gaps=gaps,
        dz=highest - stretch.drop,
    )


def wall_lies(building: Building, wall: PlannedWall, runs: tuple[Run, ...], *, parted: bool = False) -> list[Lie]:
    """Along a wall on its set-out line: mitred at corners with other outer walls of its storey, with gaps at doors.

    `parted`: and with gaps where other walls run into it.
    """
    base = building.levels[wall.wall.base.level].z + wall.wall.base.offset
    found = _lies(building, wall, runs)
    doors = [held for held in building.openings[wall.wall.id] if held.sill.total < base + LOW]
    inside = building.plan.sheltered(wall)
    if len(found) != 1 or not (doors or parted or inside):
        return found
    (lie,) = found
    if inside:
        spans = (sorted(along_lie(lie, wall.at(at)) for at in span) for span in inside)
        beyond = wall_faces(building, wall).frame.outer - 1.0
        lie = replace(lie, sheltered=tuple((low, high) for low, high in spans), beyond=beyond)
    if not (doors or parted):
        return [lie]
    gaps = []
    for held in doors:
        ends = [along_lie(lie, wall.at(at)) for at in (held.left, held.right)]
        gaps.append((min(ends) - held.design.rough, max(ends) + held.design.rough))
    if parted:
        gaps += list(_walls_into(building, wall, lie))
    return [replace(lie, gaps=tuple(merged(gaps)), over=base)]


def along_lie(lie: Lie, point: tuple[float, float]) -> float:
    """The distance of a place along a run."""
    dx, dy = lie.along
    return (point[0] - lie.start[0]) * dx + (point[1] - lie.start[1]) * dy


def merged(spans: list[tuple[float, float]]) -> list[tuple[float, float]]:
    """Spans in order, those that overlap as one."""
    found: list[tuple[float, float]] = []
    for low, high in sorted(spans):
        if found and low <= found[-1][1]:
            found[-1] = found[-1][0], max(found[-1][1], high)
        else:
            found.append((low, high))
    return found


def _walls_into(building: Building, wall: PlannedWall, lie: Lie) -> Iterator[tuple[float, float]]:
    """Where other walls of its storey stand beside the faces of a wall: from-to along it."""
    beside = wall.footprint.buffer(BESIDE, join_style="mitre")
    for other in building.plan.on(wall.wall.base.level):
        if other is wall or not other.footprint.intersects(beside):
            continue
        at = [along_lie(lie, (x, y)) for x, y in shapely.get_coordinates(other.footprint.intersection(beside)).tolist()]
        if at:
            yield min(at), max(at)


def _lies(building: Building, wall: PlannedWall, runs: tuple[Run, ...]) -> list[Lie]:
    if wall.axis.is_arc:
        found = []
        for run in runs:
            (x0, y0, _), (x1, y1, _) = run.start, run.end
            a, b = wall.axis.along((x0, y0)), wall.axis.along((x1, y1))
            dx, dy = run.out[1], -run.out[0]
            first, last = wall.at(a), wall.at(b)
            if (last[0] - first[0]) * dx + (last[1] - first[1]) * dy < 0:
                first, last = last, first
            length = (last[0] - first[0]) * dx + (last[1] - first[1]) * dy
            found.append(Lie(first, run.out, length))
        return found
    out = wall.stand().out
    dx, dy = out[1], -out[0]
    start, end = wall.start, wall.end
    if (end[0] - start[0]) * dx + (end[1] - start[1]) * dy < 0:
        start, end = end, start
    trims: list[Trim] = []
    past = [0.0, 0.0]
    middle = (start[0] + end[0]) / 2, (start[1] + end[1]) / 2
    for k, corner in enumerate((start, end)):
        trim = _mitre(building, wall, corner, middle)
        if trim is not None:
            trims.append(trim)
            past[k] = 2000.0
    return [Lie(start, out, wall.length, tuple(trims), tuple(trims), past[0], past[1])]


def _mitre(
    building: Building, wall: PlannedWall, corner: tuple[float, float], middle: tuple[float, float]
) -> Trim | None:
    """The plane that parts two walls at a corner; None where none, or one that runs straight on, ends there."""
    level = wall.wall.base.level
    for other in building.plan.walls:
        if other is wall or other.wall.status != "outer" or other.wall.base.level != level:
            continue
        ends = {"start": other.start, "end": other.end}
        here = next((name for name, at in ends.items() if abs(at[0] - corner[0]) + abs(at[1] - corner[1]) < 1.0), None)
        if here is None:
            continue
        along = 0.0 if here == "start" else other.length
        ox, oy = other.stand(along).out
        wx, wy = wall.stand().out
        # The plane holds the corners at which faces equally far out meet.
        mx, my = wx + ox, wy + oy
        size = (mx * mx + my * my) ** 0.5
        if size < 0.1 or abs(wx * oy - wy * ox) < 0.02:
            return None
        normal = -my / size, mx / size
        offset = normal[0] * corner[0] + normal[1] * corner[1]
        if normal[0] * middle[0] + normal[1] * middle[1] < offset:
            return Trim((-normal[0], -normal[1]), -offset)
        return Trim(normal, offset)
    return None
