"""Fields of foundations."""

from __future__ import annotations

from ...edits import (
    PutFoundation,
    changed,
)
from ...model import Foundation, Project
from ...rows.rows import Row, length_row


def foundation_fields(project: Project, held: Foundation) -> list[Row]:
    """Sizes of a foundation wall and its footing."""
    units = project.units

    def row(id: str, label: str) -> Row:
        return length_row(
            id,
            label,
            getattr(held, id),
            units,
            lambda v: [PutFoundation(foundation=changed(held, **{id: v}))],
            least=0.0,
        )

    return [
        row("stem_thickness", "Wall thickness"),
        row("footing_width", "Footing width"),
        row("footing_depth", "Footing depth"),
    ]
