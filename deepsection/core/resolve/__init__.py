"""From the model to the building, in stages.

levels -> wall plan -> openings -> floors -> roof planes -> wall tops -> members and solids. No stage reads a
later one; each is memoised on exactly the values that it reads, so an edit rebuilds what it touches.
"""

from .building import (
    Building,
    Diagnostic,
    Level,
    Outline,
    Part,
    PlacedOpening,
    PlannedLayer,
    PlannedWall,
    RoomSpace,
    Storey,
    WallPlan,
    part_key,
)
from .checks import CHECKS, Check
from .ground.surface import Ground
from .levels import resolve_levels, storeys, sum_id
from .onroofs.model import PlacedChimney, PlacedDownpipe, PlacedFitting
from .openings.leaves import Leaf
from .openings.leaves import leaves as unit_leaves
from .openings.returns import returns_of
from .resolve import STAGES, resolve, room_space
from .roles import ROLES, Role
from .roofs.eaves import gutter_runs
from .roofs.model import ResolvedRoof, RoofPlane, RoofSeam
from .walls.make_up_names import derived_name
from .walls.mouldings import moulding_plan
from .walls.plan import plan_walls

__all__ = [
    "CHECKS",
    "ROLES",
    "STAGES",
    "Building",
    "Check",
    "Diagnostic",
    "Ground",
    "Leaf",
    "Level",
    "Outline",
    "Part",
    "PlacedChimney",
    "PlacedDownpipe",
    "PlacedFitting",
    "PlacedOpening",
    "PlannedLayer",
    "PlannedWall",
    "ResolvedRoof",
    "Role",
    "RoofPlane",
    "RoofSeam",
    "RoomSpace",
    "Storey",
    "WallPlan",
    "derived_name",
    "gutter_runs",
    "moulding_plan",
    "part_key",
    "plan_walls",
    "resolve",
    "resolve_levels",
    "returns_of",
    "room_space",
    "storeys",
    "sum_id",
    "unit_leaves",
]
