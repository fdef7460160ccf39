"""Junctions: where parts of a building meet in a way that needs construction. Found, never drawn."""

from .found import found_junctions, junction_called
from .groups import JunctionGroup, grouped
from .junction import End, Junction, Run
from .kinds import JUNCTION_KINDS, JunctionKind

__all__ = [
    "JUNCTION_KINDS",
    "End",
    "Junction",
    "JunctionGroup",
    "JunctionKind",
    "Run",
    "found_junctions",
    "grouped",
    "junction_called",
]
