"""The stage of loads."""

from __future__ import annotations

from ...building.placed import Stage
from .place import place_loads
from .placed import LOADS

LOAD_STAGE = Stage(LOADS, place_loads)
