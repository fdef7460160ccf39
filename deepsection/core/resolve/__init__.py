"""From the model to the building, in stages.

levels -> wall plan -> openings -> floors -> roof planes -> wall tops -> members and solids. No stage reads a
later one; each is memoised on exactly the values that it reads, so an edit rebuilds what it touches.
"""

from ..building.checks import CHECKS, Check
from ..building.diagnostics import Diagnostic
from ..building.parts import Part, part_key
from ..building.roles import ROLES, Role
from ..trades.ground.place import Ground
from ..trades.levels.place import resolve_levels, storeys, sum_id
from ..trades.levels.placed import Level, Storey
from ..trades.makeups.names import derived_name
from ..trades.onroofs.placed import PlacedChimney, PlacedDownpipe, PlacedFitting
from ..trades.openings.leaves import Leaf
from ..trades.openings.leaves import leaves as unit_leaves
from ..trades.openings.placed import PlacedOpening
from ..trades.openings.returns import returns_of
from ..trades.roofs.eaves import gutter_runs
from ..trades.roofs.placed import ResolvedRoof, RoofPlane, RoofSeam
from ..trades.rooms.place import room_space
from ..trades.rooms.placed import RoomSpace
from ..trades.walls.mouldings import moulding_plan
from ..trades.walls.place import plan_walls
from ..trades.walls.planned import Outline, PlannedLayer, PlannedWall, WallPlan
from .building import Building
from .locating import Located, anchor_on, keeping_places, locate
from .resolve import SOLIDS, redrawn, resolve

__all__ = [
    "CHECKS",
    "ROLES",
    "SOLIDS",
    "Building",
    "Check",
    "Diagnostic",
    "Ground",
    "Leaf",
    "Level",
    "Located",
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
    "anchor_on",
    "derived_name",
    "gutter_runs",
    "keeping_places",
    "locate",
    "moulding_plan",
    "part_key",
    "plan_walls",
    "redrawn",
    "resolve",
    "resolve_levels",
    "returns_of",
    "room_space",
    "storeys",
    "sum_id",
    "unit_leaves",
]
