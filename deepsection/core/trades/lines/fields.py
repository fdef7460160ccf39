"""Fields of construction lines and grid lines."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import Any

from ...edits import (
    PutConstruction,
    PutGrid,
    changed,
)
from ...model import (
    ConstructionLine,
    GridLine,
    Project,
)
from ...rows.rows import Row, length_row, text_row


def _through(project: Project, line: ConstructionLine | GridLine, put: Callable[..., Sequence[Any]]) -> list[Row]:
    return [
        length_row("x", "Through, east", line.x, project.units, lambda v: put(x=v)),
        length_row("y", "Through, north", line.y, project.units, lambda v: put(y=v)),
    ]


def construction_fields(project: Project, line: ConstructionLine) -> list[Row]:
    """The place that a construction line goes through."""

    def put(**changes: Any) -> Sequence[Any]:
        return [PutConstruction(line=changed(line, **changes))]

    return _through(project, line, put)


def grid_fields(project: Project, line: GridLine) -> list[Row]:
    """Name of a grid line, and the place that it goes through."""

    def put(**changes: Any) -> Sequence[Any]:
        return [PutGrid(line=changed(line, **changes))]

    return [
        text_row("name", "Name", line.name, lambda t: put(name=t)),
        *_through(project, line, put),
    ]
