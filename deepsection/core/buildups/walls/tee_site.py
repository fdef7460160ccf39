"""What is built around where a wall ends on another one, in plan: u from that along the wall, v outward of it."""

from __future__ import annotations

from dataclasses import dataclass

from ...junctions import Junction
from ...resolve import Building, PlannedWall
from ...trades.makeups.model import Tradition
from ..faces import LayerFace, WallFaces, wall_faces
from ..lie import UprightLie

SQUARE = 0.999
"""A wall ends square on another one, or nearly (cosine)."""


@dataclass(frozen=True, slots=True)
class TeeSite:
    """The wall that ends, whose outside is towards positive v, and the layers of the one that it ends on from the face
    that it meets inward, as distances u; whether that face is an outside, and whether both are outer walls.
    """

    tradition: Tradition
    wall: WallFaces
    layers: tuple[LayerFace, ...]
    bears: LayerFace
    is_framed: bool
    is_outside: bool
    are_outer: bool

    @property
    def face(self) -> float:
        """The face that is met."""
        return self.layers[0].outer

    @property
    def middle(self) -> float:
        """The middle of what carries in the wall that ends."""
        return self.wall.frame.middle

    def before(self, material: str) -> LayerFace | None:
        """The layer of a material between the face that is met and what carries."""
        return next(
            (held for held in self.layers if held.layer.material == material and held.inner >= self.bears.outer - 0.1),
            None,
        )


def _walls(building: Building, junction: Junction) -> tuple[PlannedWall, float, PlannedWall, float] | None:
    """The wall that ends and where along it, the one that it ends on and where along that; None where not square."""
    wall, on = (building.plan.by_id.get(end.element) for end in junction.ends)
    if wall is None or on is None or wall.axis.is_arc or on.axis.is_arc or not (wall.is_plumb and on.is_plumb):
        return None
    at = 0.0 if wall.wall.start == junction.ends[0].sub else wall.length
    there = on.axis.along(wall.at(at, 0.0))
    (dx, dy), (ox, oy) = wall.axis.direction(at), on.stand(there).out
    return (wall, at, on, there) if abs(dx * ox + dy * oy) > SQUARE else None


def _away(wall: PlannedWall, at: float, on: PlannedWall, there: float) -> float:
    """1 where a wall goes away from the outside of the one that it ends on, else -1."""
    (dx, dy), (ox, oy) = wall.axis.direction(at), on.stand(there).out
    way = 1.0 if at == 0.0 else -1.0
    return 1.0 if (dx * ox + dy * oy) * way > 0 else -1.0


def tee_site(building: Building, junction: Junction) -> TeeSite | None:
    """What is built around where a wall ends on another one; None where it does not end square on it."""
    found = _walls(building, junction)
    if found is None:
        return None
    wall, at, on, there = found
    faces, outside = wall_faces(building, on), _away(wall, at, on, there) > 0
    layers = faces.layers if outside else tuple(LayerFace(h.layer, -h.inner, -h.outer) for h in reversed(faces.layers))
    carries = faces.frame.layer
    bears = next(held for held in layers if held.layer is carries)
    return TeeSite(
        building.placed.project.tradition,
        wall_faces(building, wall),
        layers,
        bears,
        faces.is_framed,
        outside,
        wall.wall.status == on.wall.status == "outer",
    )


def tee_lies(building: Building, junction: Junction) -> list[UprightLie]:
    """Up the wall that ends, from the set-out line of the other one."""
    found = _walls(building, junction)
    if found is None:
        return []
    wall, at, on, there = found
    way, (ox, oy) = _away(wall, at, on, there), on.stand(there).out
    run = junction.runs[0]
    low, high = sorted((run.start[2], run.end[2]))
    return [UprightLie(on.at(there, 0.0), (way * ox, way * oy), wall.stand(at).out, low, high)]
