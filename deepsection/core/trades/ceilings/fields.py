"""Fields of ceilings."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from ...edits import PutCeiling, changed
from ...model import Ceiling, Project
from ...rows.rows import Row, choice_row, level_options
from ..floors.fields import SIZED, SPANS, angle_rows


def ceiling_fields(project: Project, held: Ceiling) -> list[Row]:
    """Bearing and direction of a ceiling."""

    def put(**changes: Any) -> Sequence[Any]:
        return [PutCeiling(ceiling=changed(held, **changes))]

    return [
        choice_row("span", "Joists run", held.span, [("roof", "as the rafters"), *SPANS], lambda t: put(span=t)),
        *angle_rows(held, put),
        choice_row("level", "Joists bear on", held.level, level_options(project), lambda t: put(level=t)),
        choice_row("sized", "Sized", held.sized, SIZED, lambda t: put(sized=t)),
    ]
