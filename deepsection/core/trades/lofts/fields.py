"""Fields of loft hatches."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from ...document.rebuilding import changed
from ...edits import PutLoftHatch
from ...model import LoftHatch, Project
from ...rows.rows import Row, choice_row, degrees_row, length_row, level_options, text_row


def hatch_fields(project: Project, hatch: LoftHatch) -> list[Row]:
    """Size of a hatch, and how its ladder comes down."""
    units = project.units

    def put(**changes: Any) -> Sequence[Any]:
        return [PutLoftHatch(hatch=changed(hatch, **changes))]

    def row(id: str, label: str) -> Row:
        return length_row(id, label, getattr(hatch, id), units, lambda v: put(**{id: v}), least=0.0)

    rows = [
        text_row("name", "Name", hatch.name, lambda t: put(name=t)),
        choice_row("level", "Reached from", hatch.level, level_options(project), lambda t: put(level=t)),
        row("length", "Length"),
        row("width", "Width"),
        row("lining", "Lining and flap"),
        degrees_row("turn", "Comes down towards, from east", hatch.turn, lambda v: put(turn=v)),
        choice_row(
            "ladder",
            "Ladder",
            hatch.ladder,
            [("folding", "a folding one"), ("none", "none")],
            lambda t: put(ladder=t),
        ),
    ]
    if hatch.ladder != "none":
        rows.append(degrees_row("pitch", "Pitch of the ladder", hatch.pitch, lambda v: put(pitch=v)))
    return rows
