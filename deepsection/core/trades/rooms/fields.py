"""Fields of rooms."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from ...edits import (
    PutRoom,
    changed,
)
from ...model import (
    Project,
    Room,
)
from ...rows.rows import Field, Row, text_row
from ...units import format_pitch, parse_pitch


def room_fields(project: Project, room: Room) -> list[Row]:
    """Name of a room, and the pitch of its vault."""

    def put(**changes: Any) -> Sequence[Any]:
        return [PutRoom(room=changed(room, **changes))]

    def vault(text: str) -> Sequence[Any]:
        return put(vault=parse_pitch(text) if text.strip() else None)

    pitch = format_pitch(room.vault, project.units) if room.vault else ""
    return [
        text_row("name", "Name", room.name, lambda t: put(name=t)),
        Row(Field("vault", "Vaulted at pitch, else flat", "text", pitch), vault),
    ]
