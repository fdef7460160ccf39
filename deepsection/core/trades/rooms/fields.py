"""Fields of rooms."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from ...document.ids import free_ids
from ...edits import PutRoom, PutSection, changed
from ...model import Project, Room, SectionLine
from ...rows.rows import Field, Row, action_row, text_row
from ...units import format_pitch, parse_pitch

LETTERS = "ABCDEFGHJKLMNPQRSTUVWXYZ"
"""Names of sections, without those that are taken for figures."""
HALF = 750.0
"""The line of a section of a room reaches so far from the room's name (mm); what it shows goes from wall to wall."""


def _across(project: Project, room: Room) -> SectionLine:
    """A section of a room through where its name stands, looking north."""
    taken = {line.name for line in project.sections}
    name = next((letter for letter in LETTERS if letter not in taken), f"S{len(taken) + 1}")
    (x1, x2), y = (room.x - HALF, room.x + HALF), room.y
    return SectionLine(id=next(free_ids(project, "section")), name=name, x1=x1, y1=y, x2=x2, y2=y, room=room.id)


def room_fields(project: Project, room: Room) -> list[Row]:
    """Name of a room, the pitch of its vault, and a section of it."""

    def put(**changes: Any) -> Sequence[Any]:
        return [PutRoom(room=changed(room, **changes))]

    def vault(text: str) -> Sequence[Any]:
        return put(vault=parse_pitch(text) if text.strip() else None)

    pitch = format_pitch(room.vault, project.units) if room.vault else ""
    return [
        text_row("name", "Name", room.name, lambda t: put(name=t)),
        Row(Field("vault", "Vaulted at pitch, else flat", "text", pitch), vault),
        action_row("section", "Draw a section of it", [PutSection(section=_across(project, room))]),
    ]
