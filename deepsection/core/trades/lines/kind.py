"""Lines to draw by: what construction lines and grid lines are on the screen and in plan."""

from __future__ import annotations

from ...building.kind import ElementKind
from ...model import ConstructionLine, GridLine
from .fields import construction_fields, grid_fields
from .plan import grid_marks

CONSTRUCTION = ElementKind(
    ConstructionLine,
    title=lambda project, line: ("Construction line", "to snap to; never printed"),
    fields=construction_fields,
)
GRID = ElementKind(
    GridLine,
    title=lambda project, line: (f"Grid {line.name}", "a line of the grid, through every storey"),
    fields=grid_fields,
    plan=grid_marks,
)
