"""The framing plan of a joist floor: its members to scale, what bears them, holes with sizes, a schedule."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import pairwise

import shapely

from ..building.kind import PlanOf
from ..drawing import LETTER, Dimension, Drawing, Mark, extent
from ..geometry import Frame
from ..model import Floor
from ..resolve import Building
from ..trades.floors.framing_plan import framing_marks, members_of
from ..trades.floors.place import FLOORS, FloorPlan
from ..trades.floors.schedule_plan import schedule_marks
from ..trades.levels.placed import LEVELS
from ..trades.lines.plan import grid_marks
from ..units import format_length

STRINGS = (7.0, 14.0)
"""How far strings of dimensions lie from the floor (paper mm)."""
RAISED = 3.0
"""How far a narrow figure is raised (paper mm)."""
SAME = 20.0
"""Places as near as this (mm) are one in a string."""
BELOW = 8.0
"""Paper mm between the plan and its schedule."""


def framing_title(floor: Floor) -> str:
    """The plan's name: that of its floor."""
    return f"{floor.name} framing"


def draw_framing_plan(building: Building, floor: Floor, name: str, look_deg: float, scale: float) -> Drawing:
    """The framing of a floor, turned so that the look direction points up."""
    placed, frame = building.placed, Frame.looking(look_deg)
    z = placed[LEVELS][floor.level].z
    shown = PlanOf(placed, floor.level, None, z, z, frame, scale)
    flat = next((held for held in placed[FLOORS] if held.floor.id == floor.id), None)
    held = members_of(shown, flat) if flat else None
    marks: list[Mark] = []
    if flat and held:
        marks += framing_marks(shown, flat, *held)
        marks += _strings(shown, flat)
        x0, y0, _, _ = extent(marks, scale)
        marks += schedule_marks(shown, flat, *held, (x0, y0 - BELOW * scale))
    marks += grid_marks(shown)
    message = f"{floor.name} has no joists yet: it needs closed outer walls on it, and a make-up with joists."
    return Drawing(
        name=name,
        title=framing_title(floor),
        kind="plan",
        scale=scale,
        marks=tuple(marks),
        bounds=extent(marks, scale),
        look=(frame.dx, frame.dy),
        messages=() if marks else (message,),
    )


def _strings(shown: PlanOf, flat: FloorPlan) -> Iterator[Mark]:
    """Below and at the left: from edge to edge of the bays over what bears them, and over all."""
    box = shown.frame.turn(flat.area).bounds
    for axis in (0, 1):
        places = sorted(_places(shown, flat, axis))
        apart = [at for k, at in enumerate(places) if not k or at - places[k - 1] > SAME]
        if apart and places[-1] - apart[-1] > 0.0:
            apart[-1] = places[-1]
        chains = [list(pairwise(apart)), [(apart[0], apart[-1])]] if len(apart) > 2 else [list(pairwise(apart))]
        for offset, chain in zip(STRINGS, chains):
            high = False
            for a, b in chain:
                (u0, w0), (u1, w1) = ((a, box[1]), (b, box[1])) if axis == 0 else ((box[0], b), (box[0], a))
                text = format_length(b - a, shown.project.units)
                # Of figures wider than their measure, each other one is raised past its neighbour.
                high = len(text) * LETTER * shown.scale > b - a and not high
                raised, key = (RAISED if high else 0.0), f"{flat.floor.id}/bearing//"
                yield Dimension(u0, w0, u1, w1, -offset, text, part=key, feature="string", raised=raised)


def _places(shown: PlanOf, flat: FloorPlan, axis: int) -> Iterator[float]:
    """Where the edges of bays, and the middles of what bears them across, lie along an axis of the drawing."""
    for bay in flat.bays:
        points = shapely.get_coordinates(shown.frame.turn(bay.region))
        yield from (float(points[:, axis].min()), float(points[:, axis].max()))
        for support in bay.supports:
            ends = [shown.frame.plan_to_turned(*point)[axis] for point in (support.line[0], support.line[-1])]
            if abs(ends[0] - ends[1]) < SAME:
                yield sum(ends) / 2
