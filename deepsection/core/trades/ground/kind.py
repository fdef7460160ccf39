"""The ground: its surface, and its marks in plan."""

from __future__ import annotations

from ...building.kind import ElementKind
from ...building.placed import Stage
from ...model import GroundSpot, GroundStep
from ..levels.placed import LEVELS
from .fields import spot_fields, step_fields
from .place import GROUND, place_ground
from .plan import spot_marks, step_marks
from .sums import ground_sums

GROUND_STAGE = Stage(GROUND, place_ground, sums=lambda ground, placed: ground_sums(placed.project, placed[LEVELS]))
SPOT = ElementKind(
    GroundSpot,
    title=lambda project, spot: ("Height of the ground", "straight to the next, level beyond the outermost"),
    fields=spot_fields,
    heights=lambda spot: (f"ground:{spot.id}",),
    plan=spot_marks,
)
STEP = ElementKind(
    GroundStep,
    title=lambda project, step: ("Step of the ground", "along an endless line"),
    fields=step_fields,
    plan=step_marks,
)
