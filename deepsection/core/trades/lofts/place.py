"""Stage: loft hatches in the ceilings over their storeys, with their ladders; what is wrong with them."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass

import shapely
from shapely.geometry import LineString, Polygon

from ...building.diagnostics import Diagnostic
from ...building.placed import Key, Placed
from ...geometry import Point
from ...geometry.outlines import turned_rectangle
from ...model import Ceiling
from ...units import Units, format_length
from ..floors.place import FLOORS
from ..levels.placed import LEVELS, Level
from ..levels.rises import plate_of
from ..walls.planned import WALLS
from .model import LoftHatch

LEAST = {"ft-in": (762.0, 558.8), "mm": (760.0, 560.0)}
"""The least opening of a hatch, length by width (mm). Source: IRC R807.1, 22 by 30 in, from memory; in millimetres
common practice, no source."""


@dataclass(frozen=True, slots=True)
class PlacedHatch:
    """A hatch in a ceiling: its opening in plan, the level of its storey and that at which its ceiling bears."""

    hatch: LoftHatch
    ceiling: Ceiling
    opening: Polygon
    floor: Level
    bearing: Level
    under: float
    """mm above the datum of the underside of the ceiling."""

    @property
    def framed(self) -> Polygon:
        """The opening with the lining around it: what joists leave free."""
        return self.opening.buffer(self.hatch.lining, join_style="mitre")

    @property
    def way(self) -> Point:
        """Unit vector in plan in which its ladder comes down."""
        angle = math.radians(self.hatch.turn)
        return math.cos(angle), math.sin(angle)

    @property
    def ladder(self) -> tuple[Point, Point] | None:
        """Head and foot of the middle of its ladder in plan; none without one."""
        if self.hatch.ladder == "none":
            return None
        (dx, dy), hatch = self.way, self.hatch
        run = (self.under - self.floor.z) / math.tan(math.radians(hatch.pitch))
        back = hatch.length / 2
        return (hatch.x - dx * back, hatch.y - dy * back), (hatch.x + dx * (run - back), hatch.y + dy * (run - back))


def place_hatches(placed: Placed) -> tuple[PlacedHatch, ...]:
    """The hatches that have a ceiling over them; what is wrong is added to what is found."""
    return tuple(found for hatch in placed.project.loft_hatches for found in _one(placed, hatch))


def _one(placed: Placed, hatch: LoftHatch) -> Iterator[PlacedHatch]:
    project, levels, plan = placed.project, placed[LEVELS], placed[WALLS]
    plate, at = plate_of(project.rungs, hatch.level), (hatch.x, hatch.y)
    ceiling = next((held for held in project.ceilings if plate and held.level == plate.id), None)
    opening = turned_rectangle(hatch.x, hatch.y, hatch.length, hatch.width, hatch.turn)
    spaces = [space for outline in plan.outlines_under(plate.id) for space in outline.spaces] if plate else []
    if ceiling is None or not shapely.union_all(spaces).covers(opening):
        message = f"{hatch.name} lies under no ceiling, or within a wall: move it into a room"
        placed.findings.append(Diagnostic("hatch-off", message, hatch.id, "x", at=at))
        return
    flats = (flat for flat in placed[FLOORS] if flat.under.id == ceiling.level and flat.area.intersects(opening))
    if (over := next(flats, None)) is not None:
        how = "where no loft is: reach it from the storey above, or remove it"
        message = f"{hatch.name} lies under {over.floor.name}, {how}"
        placed.findings.append(Diagnostic("hatch-off", message, hatch.id, "level", at=at))
        return
    layers = placed.make_ups[ceiling.make_up].layers
    frame = next((k for k, layer in enumerate(layers) if layer.framing), len(layers) - 1)
    under = levels[ceiling.level].z - sum(layer.thickness for layer in layers[frame + 1 :])
    held = PlacedHatch(hatch, ceiling, opening, levels[hatch.level], levels[ceiling.level], under)
    placed.findings += _faults(held, spaces, project.units)
    yield held


def _faults(held: PlacedHatch, spaces: list[Polygon], units: Units) -> Iterator[Diagnostic]:
    hatch, at = held.hatch, (held.hatch.x, held.hatch.y)
    sizes = (("length", max(hatch.length, hatch.width)), ("width", min(hatch.length, hatch.width)))
    for (field, value), least in zip(sizes, LEAST[units]):
        if value < least - 0.5:
            message = (
                f"{hatch.name} is {format_length(value, units)} {'long' if field == 'length' else 'wide'}; "
                f"{format_length(least, units)} lets somebody through"
            )
            yield Diagnostic("hatch-small", message, hatch.id, field, value, least, at=at)
            break
    if held.ladder:
        line = LineString(held.ladder)
        if not any(space.covers(line) for space in spaces):
            message = f"the ladder of {hatch.name} comes down through a wall: turn it, or make it steeper"
            yield Diagnostic("hatch-ladder", message, hatch.id, "turn", at=held.ladder[1])


HATCHES: Key[tuple[PlacedHatch, ...]] = Key("loft hatches")
