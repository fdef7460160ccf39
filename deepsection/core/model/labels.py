"""Edits in words, for undo and the history; what edges of roofs can be, in words."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from .project import Project


def describe(edits: Sequence[Any], project: Project) -> str:
    """What a group of edits does, in a few words: `move W1`."""
    words: str = edits[0].words(project) if edits else "nothing"
    return words


ROOF_EDGES: dict[str, str] = {
    "eave": "eave",
    "gable": "gable",
    "half_hip": "half hip",
    "dutch_gable": "gable over a hip",
    "abutment": "against a wall",
    "joined": "into another roof",
}
"""What an edge of a roof can be, in words."""
