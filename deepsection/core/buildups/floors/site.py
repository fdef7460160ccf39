"""What the edge of a floor or a ceiling, the foot of an inner wall and a porch slab are built around, in one plane."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from ...junctions import Junction, found_junctions
from ...resolve import Building, PlannedWall
from ...trades.ceilings.place import CEILINGS
from ...trades.floors.place import FLOORS
from ...trades.makeups.model import Tradition
from ...trades.slabs.placed import SLABS
from ..along_walls import wall_lies
from ..faces import WallFaces, wall_faces
from ..lie import Lie

Lies = Literal["across", "along", "none"]


@dataclass(frozen=True, slots=True)
class FloorSite:
    """Distances outward from the set-out line of the wall (mm), and heights.

    `top`, `under`: of the floor, and of what its joists bear on; `carries`: the top of its joists; `rim`: thickness of
    the rim joist, 0 without one; `lie`: how its joists lie at the wall; `hung`: whether they hang on it; `below`:
    whether a wall stands under it, not a foundation; `joist`: thickness and spacing; `board`: of the
    boards under it; `slab`: thickness of its slab, 0 with joists.
    """

    tradition: Tradition
    wall: WallFaces
    top: float
    under: float
    carries: float
    rim: float
    lie: Lies
    hung: bool
    below: bool
    joist: tuple[float, float]
    board: float = 0.0
    slab: float = 0.0


def wall_of(building: Building, junction: Junction) -> PlannedWall | None:
    """The wall at a junction; none that leans."""
    held = (building.plan.by_id.get(end.element) for end in junction.ends)
    wall = next((one for one in held if one is not None), None)
    return wall if wall is not None and wall.is_plumb else None


def _fact(junction: Junction, name: str) -> object:
    return dict(junction.facts).get(name)


def floor_site(building: Building, junction: Junction) -> FloorSite | None:
    """What is built around at the edge of a floor."""
    wall = wall_of(building, junction)
    floor = next((one for one in building[FLOORS] if one.floor.id == junction.ends[0].element), None)
    if wall is None or floor is None:
        return None
    make_up = building.placed.make_ups[floor.floor.make_up]
    at = make_up.carrying
    if at is None:
        return None
    framing = make_up.layers[at].framing
    above = sum(layer.thickness for layer in make_up.layers[:at])
    board = sum(held.thickness for held in make_up.layers[at + 1 :] if held.function == "lining")
    rims = [rim for rim in floor.rims if rim.wall == wall.wall.id and rim.role == "rim_joist"]
    lie = _fact(junction, "joists")
    below = _fact(junction, "on") == "wall"
    return FloorSite(
        tradition=building.placed.project.tradition,
        wall=wall_faces(building, wall),
        top=floor.top.z,
        under=floor.under.z,
        carries=floor.top.z - above,
        rim=framing.thickness if rims and framing else 0.0,
        lie="across" if lie == "across" else "along" if lie == "along" else "none",
        hung=getattr(floor.floor, "ends", "built in") == "hung",
        below=below,
        joist=(framing.thickness, framing.spacing) if framing and framing.timber else (0.0, 0.0),
        board=board,
        slab=make_up.layers[at].thickness if make_up.is_slab else 0.0,
    )


@dataclass(frozen=True, slots=True)
class CeilingSite:
    """As of a floor: `plate`: the height on which the joists of the ceiling bear; `board`: thickness of its boards;
    `quilt`: height of the top of what lies between them, where anything does."""

    tradition: Tradition
    wall: WallFaces
    plate: float
    board: float
    quilt: float | None
    plates: float
    lie: Lies
    gable: bool


def ceiling_site(building: Building, junction: Junction) -> CeilingSite | None:
    """What is built around where a ceiling lies at an outer wall."""
    wall = wall_of(building, junction)
    ceiling = next((one for one in building[CEILINGS] if one.ceiling.id == junction.ends[0].element), None)
    if wall is None or ceiling is None:
        return None
    make_up = building.placed.make_ups[ceiling.ceiling.make_up]
    joists = make_up.layers[make_up.carrying] if make_up.carrying is not None else None
    faces = wall_faces(building, wall)
    layer = faces.frame.layer
    plates = layer.framing.thickness * layer.framing.top_plates if layer.framing else 0.0
    filled = joists is not None and joists.framing is not None and joists.framing.infill is not None
    lie = _fact(junction, "joists")
    return CeilingSite(
        tradition=building.placed.project.tradition,
        wall=faces,
        plate=ceiling.level.z,
        board=sum(held.thickness for held in make_up.layers if held.function in ("lining", "membrane")),
        quilt=ceiling.level.z + joists.thickness if filled and joists is not None else None,
        plates=layer.wall_plate.depth if layer.wall_plate else plates,
        lie="across" if lie == "across" else "along" if lie == "along" else "none",
        gable=not _has_eave(building, wall.wall.id),
    )


def _has_eave(building: Building, wall: str) -> bool:
    """Whether a slope comes down to a wall: then the eave says how the ceiling meets it."""
    return any(held.kind == "eave" and wall in held.elements for held in found_junctions(building))


@dataclass(frozen=True, slots=True)
class InnerSite:
    """The foot of an inner wall: `base`: what it stands on; `slab`: whether that is concrete on the ground."""

    tradition: Tradition
    wall: WallFaces
    base: float
    slab: bool
    bears: bool


def inner_site(building: Building, junction: Junction) -> InnerSite | None:
    """What is built around at the foot of an inner wall."""
    wall = wall_of(building, junction)
    if wall is None:
        return None
    base = building.levels[wall.wall.base.level].z + wall.wall.base.offset
    on_floor = any(end.feature == "top" for end in junction.ends)
    return InnerSite(
        building.placed.project.tradition, wall_faces(building, wall), base, not on_floor, bool(wall.wall.bears)
    )


@dataclass(frozen=True, slots=True)
class PorchSite:
    """A porch slab at a wall: `top` of the slab there, `low`: its underside, `base`: the foot of the wall."""

    tradition: Tradition
    wall: WallFaces
    top: float
    low: float
    base: float


def porch_site(building: Building, junction: Junction) -> PorchSite | None:
    """What is built around where a porch slab lies at a wall."""
    wall = wall_of(building, junction)
    held = next((one for one in building[SLABS] if one.slab.id == junction.ends[0].element), None)
    if wall is None or held is None:
        return None
    top = min(z for run in junction.runs for z in (run.start[2], run.end[2]))
    base = building.levels[wall.wall.base.level].z + wall.wall.base.offset
    return PorchSite(
        building.placed.project.tradition, wall_faces(building, wall), top, top - held.slab.thickness, base
    )


def along_wall_lies(building: Building, junction: Junction) -> list[Lie]:
    """Along the wall of a junction on its set-out line, mitred with the outer walls at its ends."""
    wall = wall_of(building, junction)
    return wall_lies(building, wall, junction.runs) if wall is not None else []


def inner_lies(building: Building, junction: Junction) -> list[Lie]:
    """Along an inner wall, between the doors in it and the walls that run into it."""
    wall = wall_of(building, junction)
    return wall_lies(building, wall, junction.runs, parted=True) if wall is not None else []


def porch_lies(building: Building, junction: Junction) -> list[Lie]:
    """Along the wall as far as the slab lies at it."""
    wall = wall_of(building, junction)
    return lies_at(junction, wall.outer) if wall is not None else []


def lies_at(junction: Junction, face: float) -> list[Lie]:
    """Along the set-out line of a wall, for runs that lie so far outward of it (mm)."""
    found = []
    for run in junction.runs:
        (ox, oy), dx, dy = run.out, run.out[1], -run.out[0]
        ends = sorted(((x, y) for x, y, _ in (run.start, run.end)), key=lambda at: at[0] * dx + at[1] * dy)
        (x, y), (x1, y1) = ends
        start = x - ox * face, y - oy * face
        found.append(Lie(start, run.out, (x1 - x) * dx + (y1 - y) * dy))
    return found
