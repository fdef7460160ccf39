"""Walls of a model, storey by storey: joined as those of a drawing are, with the openings that stand in them.

Knows no file: `Model` is what stands in one, `read_model` says what that is as a plan.
"""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from deepsection.core.errors import BadInput
from deepsection.core.geometry import Axis, Point, arc_of

from .found import (
    EndOn,
    FoundGrid,
    FoundLayer,
    FoundOpening,
    FoundRoof,
    FoundRoom,
    FoundSlab,
    FoundWall,
    Left,
    OpeningKind,
    ReadPlan,
    Storey,
    UnitFound,
)
from .joints import joined
from .network import enclosed, outsides
from .rails import Rail
from .runs import Run
from .strips import Strip

SAME_WAY = math.radians(0.05)
"""Walls whose directions differ by less run along each other."""
LAYERED = 2.0
"""Layers count where they are together as thick as the body of their wall, to this (mm)."""
SURE = 0.99
IN_FACE = 0.5
"""Upright faces this near to each other are one face of a wall (mm)."""
WHOLE = 0.7
"""And these are as long as so much of all of it, whatever leans or stands out."""
ROUNDS = 6
"""So often what does not fit an arc is left out of it."""
LEAST_SWEEP = math.radians(2)
FACES = 0.2
"""Both faces of a straight wall have so much of its length times its height."""


@dataclass(frozen=True, slots=True)
class ModelOpening:
    """A hole in a wall from lo to hi along it (mm), between two heights; what fills it, and its stated size."""

    lo: float
    hi: float
    bottom: float
    top: float
    kind: OpeningKind
    number: str = ""
    width: float | None = None
    height: float | None = None


@dataclass(frozen=True, slots=True)
class ModelWall:
    """A wall by the middle of its body (mm), its thickness and heights, its layers, its openings. Of an arc its `bulge`
    is tan(angle / 4), positive turning left.

    `stack` is from the outside in, or from its left to its right where `directed`. `outer`: as stated, or not at all.
    """

    start: Point
    end: Point
    thickness: float
    bottom: float
    top: float
    stack: tuple[FoundLayer, ...] = ()
    directed: bool = False
    outer: bool | None = None
    openings: tuple[ModelOpening, ...] = ()
    bulge: float = 0.0


@dataclass(frozen=True, slots=True)
class ModelStorey:
    """A storey: its name, its height above the origin (mm), its walls, and the names of its rooms."""

    name: str
    elevation: float
    walls: tuple[ModelWall, ...]
    rooms: tuple[FoundRoom, ...] = ()
    slab: FoundSlab | None = None


@dataclass(slots=True)
class Model:
    """All that is read of a model. `lines` are outlines seen from above, with what they belong to."""

    unit: UnitFound
    storeys: list[ModelStorey] = field(default_factory=list)
    roofs: list[FoundRoof] = field(default_factory=list)
    grids: list[FoundGrid] = field(default_factory=list)
    left: list[Left] = field(default_factory=list)
    notes: list[str] = field(default_factory=list)
    lines: list[tuple[Point, Point, str]] = field(default_factory=list)


def read_model(model: Model) -> ReadPlan:
    """A model as a plan of several storeys. Raises: BadInput where it has no walls."""
    plan = ReadPlan(model.unit, (0.0, 0.0))
    held = [storey for storey in model.storeys if storey.walls]
    if not held:
        raise BadInput("no walls that can be taken over stand in this model", field="file")
    lowest = plan.base = held[0].elevation
    for storey in held:
        first = len(plan.walls)
        walls, rooms = _storey(storey, first)
        plan.walls += walls
        plan.enclosed += rooms
        for number, wall in enumerate(storey.walls):
            plan.openings += _openings(storey, wall, plan.walls[first + number], first + number)
        plan.rooms += storey.rooms
        tall = sorted(wall.top - storey.elevation for wall in storey.walls)
        plan.storeys.append(
            Storey(
                storey.name,
                (0.0, 0.0),
                tuple(range(first, len(plan.walls))),
                storey.elevation - lowest,
                tall[len(tall) // 2],
                storey.slab,
            )
        )
    plan.grids, plan.left, plan.notes = model.grids, list(model.left), model.notes
    plan.roofs = model.roofs
    if lost := sum(len(storey.rooms) for storey in model.storeys if not storey.walls):
        plan.left.append(Left("spaces", "on storeys without walls", lost))
    plan.layers = {name: "nothing" if name != WALLS else "wall" for name in {name for *_, name in model.lines}}
    plan.lines = [(a, b, 0.0, name, name != WALLS) for a, b, name in model.lines]
    return plan


WALLS = "walls"
"""What the outlines of walls are called among the lines of a model."""


def _storey(storey: ModelStorey, first: int) -> tuple[list[FoundWall], int]:
    """The walls of a storey as in plans, their positions counted from `first`; and how many rooms they enclose."""
    runs = _runs(storey.walls)
    ends = joined(runs, whole=True)
    around = enclosed(runs, ends)
    found = []
    for wall, run, (a, b), (outer, outside) in zip(storey.walls, runs, ends, outsides(runs, around)):
        sweep = (b.s - a.s) / run.rail.radius if run.rail.radius else 0.0
        start, end = ((float(x), float(y)) for x, y in (run.at(a.s), run.at(b.s)))
        stack = wall.stack if abs(sum(held.thickness for held in wall.stack) - wall.thickness) <= LAYERED else ()
        if wall.directed and outside == "right":
            stack = stack[::-1]
        steps = tuple(held.thickness for held in (stack if outside == "left" else stack[::-1]))
        on = [EndOn(held.kind, held.other + first if held.other >= 0 else -1) for held in (a, b)]
        found.append(
            FoundWall(
                start,
                end,
                math.tan(sweep / 4),
                round(wall.thickness, 4),
                steps if len(steps) > 1 else (),
                SURE,
                "the model says so",
                WALLS,
                on[0],
                on[1],
                outer if wall.outer is None else wall.outer,
                outside,  # type: ignore[arg-type]
                stack,
            )
        )
    return found, len(around.rooms)


def _runs(walls: Sequence[ModelWall]) -> list[Run]:
    """Each wall along the direction that those parallel to it share."""
    directions: list[float] = []
    runs: list[Run] = []
    for number, wall in enumerate(walls):
        if wall.bulge:
            # An arc runs along with nothing else.
            runs.append(_arc_run(wall, len(walls) + number))
            continue
        way = math.atan2(wall.end[1] - wall.start[1], wall.end[0] - wall.start[0])
        track = next(
            (n for n, other in enumerate(directions) if abs(math.remainder(way - other, math.pi)) < SAME_WAY), None
        )
        if track is None:
            track = len(directions)
            directions.append(way)
        # Along its own direction, so that its start comes first.
        rail = Rail((0.0, 0.0), way)
        s0, c = rail.spot(wall.start)
        s1, _ = rail.spot(wall.end)
        strip = Strip(track, (), s0, s1, c - wall.thickness / 2, c + wall.thickness / 2, 1.0, 1.0, layer=WALLS)
        runs.append(Run(track, rail, c, wall.thickness, [(s0, s1)], [strip], ends=[s0, s1]))
    return runs


def _arc_run(wall: ModelWall, track: int) -> Run:
    """An arc along the circles about its centre, which it runs along to the left."""
    cx, cy, radius, first, sweep = arc_of(*wall.start, *wall.end, wall.bulge)
    rail = Rail((cx, cy), first, radius)
    s1 = sweep * radius
    half = wall.thickness / 2
    strip = Strip(track, (), 0.0, s1, -half, half, 1.0, 1.0, layer=WALLS)
    return Run(track, rail, 0.0, wall.thickness, [(0.0, s1)], [strip], ends=[0.0, s1])


def _openings(storey: ModelStorey, wall: ModelWall, found: FoundWall, number: int) -> list[FoundOpening]:
    """The openings of a wall, along its axis as it is found."""
    dx, dy = (b - a for a, b in zip(wall.start, wall.end))
    long = math.hypot(dx, dy) or 1.0
    # Where the wall as it was modelled begins, along the axis that runs from joint to joint.
    shift = ((wall.start[0] - found.start[0]) * dx + (wall.start[1] - found.start[1]) * dy) / long
    if found.bulge:
        shift = -Axis(wall.start, wall.end, wall.bulge).along(found.start)
    made = []
    for held in wall.openings:
        width, height = _stated(held.width, held.hi - held.lo), _stated(held.height, held.top - held.bottom)
        made.append(
            FoundOpening(
                number,
                (held.lo + held.hi) / 2 + shift,
                width,
                held.kind,
                SURE,
                "the model says so",
                held.number,
                height,
                max(held.bottom - storey.elevation, 0.0),
            )
        )
    return made


def _stated(size: float | None, hole: float) -> float:
    """The size of what fills a hole, where that fits it; that of the hole where it does not, or is not stated."""
    return size if size and abs(size - hole) < 0.35 * size else hole


def straight_wall(
    points: NDArray[np.float64], triangles: NDArray[np.int64], thickness: float = 0.0, way: float | None = None
) -> tuple[Point, Point, float, float] | None:
    """The middle line in plan of the body of a wall (mm), a bulge of none, and its thickness; None where it is not
    straight.

    Its faces are the upright ones with most of its area, along its stated `way` (radians), else along that of most
    faces. Of a wall whose `thickness` is stated they are as far apart, whatever stands out from them.
    """
    corners = points[triangles]
    normals = np.cross(corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0])
    areas = np.linalg.norm(normals, axis=1) / 2
    upright = (areas > 1.0) & (abs(normals[:, 2]) < 1e-3 * np.maximum(areas, 1e-9))
    if not upright.any():
        return None
    corners, normals, areas = corners[upright], normals[upright] / areas[upright, None] / 2, areas[upright]
    if way is None:
        turns = np.mod(np.arctan2(normals[:, 1], normals[:, 0]) - math.pi / 2, math.pi)
        steps = np.round(turns / SAME_WAY).astype(int) % round(math.pi / SAME_WAY)
        best = np.bincount(steps, areas).argmax()
        way = float(np.average(turns[steps == best], weights=areas[steps == best]))
    cos, sin = math.cos(way), math.sin(way)
    across = normals[:, 1] * cos - normals[:, 0] * sin
    along = corners[:, :, 0] * cos + corners[:, :, 1] * sin
    depth = (corners[:, :, 1] * cos - corners[:, :, 0] * sin).mean(axis=1)
    found: dict[tuple[bool, int], float] = defaultdict(float)
    for side, place, area in zip((across > 0).tolist(), np.round(depth / IN_FACE).tolist(), areas.tolist()):
        found[side, int(place)] += area
    faced = abs(across) > 0.9999
    tall = points[:, 2].max() - points[:, 2].min()
    long = float(np.ptp(points[:, 0] * cos + points[:, 1] * sin))
    lows = [place for (left, place), area in found.items() if not left and area >= FACES * tall * long]
    highs = [place for (left, place), area in found.items() if left and area >= FACES * tall * long]
    pairs = [(low, high) for low in lows for high in highs if high > low]
    if thickness:
        stated = [pair for pair in pairs if abs((pair[1] - pair[0]) * IN_FACE - thickness) <= LAYERED]
        # What is far from as thick as its layers is another face of it.
        pairs = stated or [pair for pair in pairs if (pair[1] - pair[0]) * IN_FACE <= 1.6 * thickness]
    if not pairs:
        return None
    low, high = max(pairs, key=lambda pair: (min(found[False, pair[0]], found[True, pair[1]]), pair[1] - pair[0]))
    mine = [
        faced & (abs(depth - place * IN_FACE) < IN_FACE) & ((across > 0) == left)
        for left, place in ((False, low), (True, high))
    ]
    c0, c1 = (float(np.average(depth[held], weights=areas[held])) for held in mine)
    s0, s1 = float(along[mine[0] | mine[1]].min()), float(along[mine[0] | mine[1]].max())
    if s1 - s0 < WHOLE * long:
        return None
    c = (c0 + c1) / 2
    return (s0 * cos - c * sin, s0 * sin + c * cos), (s1 * cos - c * sin, s1 * sin + c * cos), 0.0, c1 - c0


def arc_wall(
    points: NDArray[np.float64], triangles: NDArray[np.int64], thickness: float
) -> tuple[Point, Point, float, float] | None:
    """The middle line in plan of the body of a wall that is an arc (mm), its bulge and its thickness; None where it is
    no arc of that thickness.

    The bisectors of the chords of its faces cross in its centre.
    """
    faces = points[triangles]
    normals = np.cross(faces[:, 1] - faces[:, 0], faces[:, 2] - faces[:, 0])
    upright = abs(normals[:, 2]) < 1e-3 * np.linalg.norm(normals, axis=1)
    corners = faces[upright][:, :, :2]
    sides = np.stack((corners, np.roll(corners, -1, axis=1)), axis=2).reshape(-1, 2, 2)
    chords = sides[:, 1] - sides[:, 0]
    lengths = np.linalg.norm(chords, axis=1)
    seen = lengths > 5.0
    sides, chords, lengths = sides[seen], chords[seen], lengths[seen]
    if len(sides) < 12:
        return None
    ways, middles = chords / lengths[:, None], sides.mean(axis=1)
    keep = np.ones(len(sides), dtype=bool)
    centre = np.zeros(2)
    for _ in range(ROUNDS):
        centre, *_ = np.linalg.lstsq(ways[keep], (ways[keep] * middles[keep]).sum(axis=1), rcond=None)
        off = abs(((centre - middles) * ways).sum(axis=1))
        keep = off <= max(2.0 * float(np.median(off[keep])), 0.5)
        if keep.sum() < 12:
            return None
    ends = sides[keep].reshape(-1, 2) - centre
    radii = np.linalg.norm(ends, axis=1)
    counts: dict[int, int] = defaultdict(int)
    for place in np.round(radii / IN_FACE).tolist():
        counts[int(place)] += 1
    pairs = [
        (low, high)
        for low in counts
        for high in counts
        if abs((high - low) * IN_FACE - thickness) <= LAYERED and min(counts[low], counts[high]) >= 6
    ]
    if not pairs:
        return None
    low, high = max(pairs, key=lambda pair: min(counts[pair[0]], counts[pair[1]]))
    mine = [abs(radii - place * IN_FACE) < IN_FACE for place in (low, high)]
    r0, r1 = (float(radii[held].mean()) for held in mine)
    held = ends[mine[0] | mine[1]]
    ahead = held.mean(axis=0)
    turns = np.arctan2(ahead[0] * held[:, 1] - ahead[1] * held[:, 0], held @ ahead)
    a0, a1, way = float(turns.min()), float(turns.max()), math.atan2(ahead[1], ahead[0])
    if not LEAST_SWEEP < a1 - a0 < math.radians(300):
        return None
    radius = (r0 + r1) / 2
    start, end = (
        (float(centre[0]) + radius * math.cos(way + turn), float(centre[1]) + radius * math.sin(way + turn))
        for turn in (a0, a1)
    )
    return start, end, math.tan((a1 - a0) / 4), r1 - r0
