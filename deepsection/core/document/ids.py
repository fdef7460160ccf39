"""Names of new elements that no other one has."""

from __future__ import annotations

from collections.abc import Container, Iterator
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from ..model.project import Project


def free_ids(project: Project, stem: str) -> Iterator[str]:
    """`stem-1`, `stem-2`, ... as far as no element has them."""
    return free_among({element.id for element in project.elements()}, stem)


def free_among(taken: Container[str], stem: str) -> Iterator[str]:
    """`stem-1`, `stem-2`, ... as far as they are not taken."""
    return (id for n in range(1, 100_000) if (id := f"{stem}-{n}") not in taken)
