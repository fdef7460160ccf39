"""Kinds of parts, as a view can leave them out."""

from __future__ import annotations

from functools import lru_cache

from ..model import Project, ShowKind
from ..resolve import ROLES, Part


@lru_cache(maxsize=16)
def part_kinds(project: Project) -> dict[str, ShowKind]:
    """The kind of the parts of every element that stands in the building."""
    return {element.id: element.about.group for element in project.elements() if element.about.group}


def kind_of_part(part: Part, kinds: dict[str, ShowKind]) -> ShowKind | None:
    """What a part counts as."""
    return ROLES[part.role].group or kinds.get(part.element)
