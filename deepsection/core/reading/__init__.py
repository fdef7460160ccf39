"""Plans out of somebody else's drawing: walls with their thickness, openings with their width, and what is left.

Knows no file and no house of ours. `Drawn` is what stands on the paper; `read_plan` says what it shows.
"""

from .drawn import Area, Drawn, Measure, Placed, Stroke, Words
from .found import Checked, FoundGrid, FoundOpening, FoundRoom, FoundWall, Left, ReadPlan, UnitFound
from .layers import MEANINGS, Meaning, meaning_of
from .reading import read_plan

__all__ = [
    "MEANINGS",
    "Area",
    "Checked",
    "Drawn",
    "FoundGrid",
    "FoundOpening",
    "FoundRoom",
    "FoundWall",
    "Left",
    "Meaning",
    "Measure",
    "Placed",
    "ReadPlan",
    "Stroke",
    "UnitFound",
    "Words",
    "meaning_of",
    "read_plan",
]
