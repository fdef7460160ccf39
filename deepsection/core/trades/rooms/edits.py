"""Edits of rooms."""

from __future__ import annotations

from typing import ClassVar, Literal

from ...document.putting import PutElement
from .model import Room


class PutRoom(PutElement):
    kind: Literal["put_room"] = "put_room"
    phrase: ClassVar[str] = "name a room"
    room: Room
