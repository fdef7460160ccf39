"""What a roof that ends at a wall is built around, at its side or its top: faces of the wall, the slope beside it."""

from __future__ import annotations

from dataclasses import dataclass

from ...junctions import Junction, Run
from ...resolve import Building, PlannedWall, ResolvedRoof
from ...trades.makeups.model import Tradition
from ..faces import WallFaces, wall_faces
from ..lie import Lie
from .slopes import lie_along, rise_of, roof_of, slope_layers

FACES = 0.99
"""A wall faces the roof beside it where its outside turns there (cosine)."""


@dataclass(frozen=True, slots=True)
class RoofSideSite:
    """Outward of the set-out line of the wall lies the roof (mm), whose slope falls outward by `fall` for each mm, not
    at all where it ends at its side. Heights over its structure `at` a distance from the wall, plumb: of the top of its
    `deck`, of the `underlay` on that, of its `covering`.
    """

    tradition: Tradition
    wall: WallFaces
    at: float
    fall: float
    deck: float
    underlay: float
    covering: float

    def over(self, u: float, height: float) -> float:
        """How high a layer of the roof lies at a distance from the wall, of those that are named by their heights."""
        return height - self.fall * (u - self.at)


def roof_side_site(building: Building, junction: Junction) -> RoofSideSite | None:
    """What is built around at the side of a roof; None where no wall turns its outside to it."""
    found = _meeting(building, junction)
    if found is None or not _faces(junction.runs[0], found[1]):
        return None
    return _site(building, *found, junction.runs[0], 0.0, rise_of(junction.runs[0]))


def roof_side_lies(building: Building, junction: Junction) -> list[Lie]:
    """Up or down each slope, on the set-out line of the wall."""
    found = _meeting(building, junction)
    return [lie_along(run, found[1].start) for run in junction.runs] if found else []


def roof_top_site(building: Building, junction: Junction) -> RoofSideSite | None:
    """What is built around at the top of a roof that leans on a wall; None where no wall turns its outside to it."""
    found = _meeting(building, junction)
    if found is None:
        return None
    (roof, wall), run = found, junction.runs[0]
    ids = {end.sub for end in junction.ends if end.element == roof.block.id}
    plane = next((held for held in roof.planes if any(roof.edge_id(edge) in ids for edge in held.edges)), None)
    if plane is None:
        return None
    site = _site(building, roof, wall, run, plane.pitch, plane.pitch)
    middle = plane.polygon.centroid
    (ox, oy), (x, y) = wall.stand().out, wall.start
    return site if (middle.x - x) * ox + (middle.y - y) * oy > site.at else None


def roof_top_lies(building: Building, junction: Junction) -> list[Lie]:
    """Along the wall that a roof leans on, on its set-out line."""
    found = _meeting(building, junction)
    if found is None:
        return []
    out = found[1].stand().out
    return [lie_along(Run(run.start, run.end, out), found[1].start) for run in junction.runs]


def _meeting(building: Building, junction: Junction) -> tuple[ResolvedRoof, PlannedWall] | None:
    roof = roof_of(building, junction.ends[0].element)
    wall = next((building.plan.by_id[id] for id in junction.elements if id in building.plan.by_id), None)
    if roof is None or wall is None or wall.axis.is_arc or not wall.is_plumb:
        return None
    return roof, wall


def _faces(run: Run, wall: PlannedWall) -> bool:
    (ox, oy), (wx, wy) = run.out, wall.stand().out
    return ox * wx + oy * wy > FACES


def _site(
    building: Building, roof: ResolvedRoof, wall: PlannedWall, run: Run, fall: float, pitch: float
) -> RoofSideSite:
    held = slope_layers(building, roof, pitch)
    tradition = building.placed.project.tradition
    at = _off(wall, run.start)
    return RoofSideSite(tradition, wall_faces(building, wall), at, fall, held.deck, held.underlay, held.covering)


def _off(wall: PlannedWall, spot: tuple[float, float, float]) -> float:
    """How far outward of the set-out line of a wall a place lies."""
    (ox, oy), (x, y) = wall.stand().out, wall.start
    return (spot[0] - x) * ox + (spot[1] - y) * oy
