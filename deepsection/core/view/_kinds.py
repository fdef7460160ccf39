"""Kinds of parts, as a view can leave them out."""

from __future__ import annotations

from functools import lru_cache

from ..model import Project, ShowKind
from ..resolve import Part

_OF_ROLE: dict[str, ShowKind] = {
    "gutter": "gutters",
    "corner_board": "trims",
    "moulding": "trims",
    "trim": "trims",
    "shutter": "trims",
}
"""Roles that are told apart from the rest of their element."""


@lru_cache(maxsize=16)
def part_kinds(project: Project) -> dict[str, ShowKind]:
    """The kind of the parts of every element that stands in the building."""
    return {element.id: element.about.group for element in project.elements() if element.about.group}


def kind_of_part(part: Part, kinds: dict[str, ShowKind]) -> ShowKind | None:
    """What a part counts as."""
    return _OF_ROLE.get(part.role) or kinds.get(part.element)
