"""What the head, sill or threshold of an opening is built around, in one plane."""

from __future__ import annotations

from dataclasses import dataclass

from ...junctions import Junction
from ...resolve import Building, PlacedOpening, PlannedWall
from ...trades.makeups.model import Tradition
from ...trades.openings.leaves import frame_depth
from ...trades.openings.returns import returns_of
from ..faces import WallFaces, wall_faces
from ..lie import Lie, UprightLie


@dataclass(frozen=True, slots=True)
class OpeningSite:
    """Distances outward from the set-out line of the wall, heights of sill and head (mm).

    `frame_out`, `frame_in`: faces of the unit's frame; `gap`: clearance around it; `trim`: width of the boards around
    it outside; `base`: the floor; `lintel`: the depth of the lintels over it, 0 where there are none; `plain`: its head
    is not level, or it is `bare`: without a frame; `closed`: how thick what a leaf turns into the cavity is.
    """

    tradition: Tradition
    unit: str
    wall: WallFaces
    outer_wall: bool
    low: float
    high: float
    width: float
    frame_out: float
    frame_in: float
    gap: float
    trim: float
    base: float
    lintel: float
    plain: bool
    bare: bool = False
    closed: float = 0.0

    @property
    def shell(self) -> float:
        """To the outer face of the sheathing."""
        return self.wall.shell


def placed_opening(building: Building, junction: Junction) -> tuple[PlannedWall, PlacedOpening] | None:
    """The opening of a junction and its wall."""
    wall = building.plan.by_id.get(junction.ends[1].element)
    held = building.openings[wall.wall.id] if wall else ()
    placed = next((one for one in held if one.opening.id == junction.ends[0].element), None)
    return (wall, placed) if wall is not None and placed is not None else None


def opening_site(building: Building, junction: Junction) -> OpeningSite | None:
    """What is built around at an opening."""
    found = placed_opening(building, junction)
    if found is None:
        return None
    wall, placed = found
    faces = wall_faces(building, wall)
    returned = returns_of(wall, building.placed.make_ups[wall.wall.make_up], placed)
    lintels = [held.layer.lintels.depth for held in faces.layers if held.layer.lintels]
    trimmed = faces.layers[0].layer.function == "cladding"
    return OpeningSite(
        tradition=building.placed.project.tradition,
        unit=placed.opening.unit,
        wall=faces,
        outer_wall=wall.wall.status == "outer",
        low=placed.sill.total,
        high=placed.head.total,
        width=placed.right - placed.left,
        frame_out=placed.face,
        frame_in=placed.face - frame_depth(placed),
        gap=placed.design.rough,
        trim=placed.design.trim if trimmed else 0.0,
        base=building.levels[wall.wall.base.level].z,
        lintel=max(lintels, default=0.0),
        plain=placed.design.operation == "plain" or placed.design.arch > 0,
        closed=max((held.thickness for held in returned if held.closes), default=0.0),
        bare=placed.design.operation == "plain",
    )


def jamb_lies(building: Building, junction: Junction) -> list[UprightLie]:
    """Up the two sides of an opening, from its sill to its head."""
    found = placed_opening(building, junction)
    if found is None:
        return []
    wall, placed = found
    stand, (low, high) = wall.stand(placed.centre), (placed.sill.total, placed.head.total)
    (ax, ay), sides = stand.run, ((placed.left, -1.0), (placed.right, 1.0))
    return [UprightLie(stand.at(at), stand.out, (way * ax, way * ay), low, high) for at, way in sides]


def opening_lies(building: Building, junction: Junction) -> list[Lie]:
    """From jamb to jamb, along the wall."""
    found = placed_opening(building, junction)
    if found is None:
        return []
    wall, placed = found
    stand = wall.stand(placed.centre)
    (x0, y0), (x1, y1) = stand.at(placed.left), stand.at(placed.right)
    dx, dy = stand.out[1], -stand.out[0]
    start = (x0, y0) if (x1 - x0) * dx + (y1 - y0) * dy > 0 else (x1, y1)
    return [Lie(start, stand.out, placed.right - placed.left)]
