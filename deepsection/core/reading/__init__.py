"""Plans out of somebody else's drawing: walls with their thickness, openings with their width, and what is left.

Knows no file and no house of ours. `Drawn` is what stands on the paper; `read_plan` says what it shows.
"""

from .added import Marked, with_openings
from .drawn import Area, Drawn, Measure, Placed, Stroke, Words, moved
from .found import (
    Checked,
    FoundGrid,
    FoundLayer,
    FoundLevel,
    FoundNorth,
    FoundOpening,
    FoundRoof,
    FoundRoom,
    FoundSlab,
    FoundStair,
    FoundWall,
    Left,
    ReadPlan,
    UnitFound,
)
from .layers import MEANINGS, Meaning, meaning_of
from .near import FAR, near
from .plans import hull_of
from .reading import read_plan
from .units import unit_of

__all__ = [
    "FAR",
    "MEANINGS",
    "Area",
    "Checked",
    "Drawn",
    "FoundGrid",
    "FoundLayer",
    "FoundLevel",
    "FoundNorth",
    "FoundOpening",
    "FoundRoof",
    "FoundRoom",
    "FoundSlab",
    "FoundStair",
    "FoundWall",
    "Left",
    "Marked",
    "Meaning",
    "Measure",
    "Placed",
    "ReadPlan",
    "Stroke",
    "UnitFound",
    "Words",
    "hull_of",
    "meaning_of",
    "moved",
    "near",
    "read_plan",
    "unit_of",
    "with_openings",
]
