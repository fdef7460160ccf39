"""The stage of loads."""

from __future__ import annotations

from ...building.placed import Stage
from .beams import beam_advice
from .place import place_loads
from .placed import LOADS

LOAD_STAGE = Stage(LOADS, place_loads, advice=beam_advice)
