"""How high a wall goes, and the bodies that it is made of: pieces of its plan, and what stands in it."""

from __future__ import annotations

from dataclasses import dataclass

from shapely.geometry import MultiPolygon, Polygon

from ...building.placed import Key
from ...geometry import Plane3, Solid, bar_along, lofted, polygons_of, prism, prism_along, sheared
from ...model import MakeUp
from ..openings.leaves import outline
from ..openings.placed import PlacedOpening
from .planned import PlannedWall


@dataclass(frozen=True, slots=True)
class TopSpan:
    """A stretch of a wall under one roof (or none): from-to distances along it, and the surfaces that end it.

    Under a gable the wall is filled up to `under`, the underside of the rafters; what lies outside of its frame goes
    on up to `deck`, past the last rafter. Elsewhere it stops at the plate, and its outer layers under the rafters.
    """

    start: float
    end: float
    roof: str
    gable: bool
    under: tuple[Plane3, ...]
    deck: tuple[Plane3, ...]
    peak: float
    bears: bool = False
    """Whether rafters bear on its plate."""


@dataclass(frozen=True, slots=True)
class Slot:
    """Where the frame of another wall stands in the layers of a wall: its plan, and from-to heights."""

    area: Polygon | MultiPolygon
    low: float
    high: float


@dataclass(frozen=True, slots=True)
class WallTop:
    """How high a wall goes: its foot and plate, and the spans of its top.

    Outside of its frame it comes down to `skirt`, over the edge of the floor that it stands on; its boards are laid
    out from `courses`. Where no frame bears but masonry, this begins at `leaf`, and the floor is built into it.
    """

    base: float
    skirt: float
    courses: float
    leaf: float
    plate: float
    spans: tuple[TopSpan, ...]
    base_sum: str
    plate_sum: str
    ceiled: bool
    """Whether a ceiling closes the room at the plate, so that what lines it stops there."""
    enclosed: bool
    """Whether closed outlines hold the wall: then its inside is never seen from outside."""
    slots: tuple[Slot, ...] = ()
    """Of walls that stand on it and reach less high, or start higher; all others part its layers from foot to plate."""

    def height_at(self, wall: PlannedWall, along: float) -> float:
        """How high it goes at a distance along the wall."""
        for span in self.spans:
            if span.start <= along <= span.end and span.gable:
                x, y = wall.stand(along).at(along, 0.0)
                return min(plane.z(x, y) for plane in span.under)
        return self.plate

    def shows(self, wall: PlannedWall, position: int, make_up: MakeUp) -> bool:
        """Whether the layer at a position may be seen from outside the house, its reveals included."""
        if not self.enclosed:
            return position in (0, len(make_up.layers) - 1) or make_up.layers[position].function == "structure"
        if wall.wall.status != "outer":
            return False
        trimmed = make_up.layers[0].function == "cladding"
        return position == 0 or (not trimmed and position <= first_structure(make_up))


def first_structure(make_up: MakeUp) -> int:
    """Position of the outermost structure layer."""
    return next((i for i, held in enumerate(make_up.layers) if held.function == "structure"), 0)


def wall_bar(
    wall: PlannedWall, box: tuple[float, float, float, float], inner: float, outer: float, about: float | None = None
) -> Solid:
    """A body of a rectangle (along, z) between two distances outward from the set-out line.

    On an arc it stands square to the wall at its own middle, or at a distance along that it is built `about`.
    """
    stand = wall.stand((box[0] + box[2]) / 2 if about is None else about)
    return bar_along(box, stand.at(0.0, inner if wall.side < 0 else outer), stand.run, outer - inner)


def wall_solid(wall: PlannedWall, profile: Polygon, inner: float, outer: float, about: float = 0.0) -> Solid:
    """A body of a profile (distance along, z) between two distances outward from the set-out line."""
    stand = wall.stand(about)
    return prism_along(profile, stand.at(0.0, inner if wall.side < 0 else outer), stand.run, outer - inner)


def opening_hole(wall: PlannedWall, placed: PlacedOpening, inner: float, outer: float) -> Solid | None:
    """What an opening takes from a layer: its jambs are parallel, in arcs too. None where a niche does not reach."""
    past = 1.0 + wall.bulging(placed.right - placed.left)
    low, high = inner - past, min(outer + past, placed.back(wall))
    if high <= inner:
        return None
    if placed.design.arch > 0:
        return wall_solid(wall, outline(placed), low, high, placed.centre)
    box = (placed.left, placed.sill.total, placed.right, placed.head.total)
    return wall_bar(wall, box, low, high, placed.centre)


def standing(wall: PlannedWall, shape: Polygon | MultiPolygon, low: float, high: float, base: float) -> Solid:
    """A body over a plan at the foot of a wall, from one height to another: of a leaning wall, it leans."""
    if wall.is_plumb:
        return prism(shape, low, high)
    return lofted(polygons_of(shape), lambda point, z: wall.risen(point, z - base), low, high)


def leaning(wall: PlannedWall, body: Solid, base: float) -> Solid:
    """What is built into a wall that stands on `base`, leaning with it."""
    return sheared(body, wall.drift, base)


WALL_TOPS: Key[dict[str, WallTop]] = Key("wall tops")
