"""Edits of floors and ceilings."""

from __future__ import annotations

from typing import ClassVar, Literal

from ...document.putting import PutElement
from .model import Ceiling, Floor, FloorHole


class PutFloor(PutElement):
    kind: Literal["put_floor"] = "put_floor"
    phrase: ClassVar[str] = "change {name}"
    floor: Floor


class PutFloorHole(PutElement):
    kind: Literal["put_floor_hole"] = "put_floor_hole"
    phrase: ClassVar[str] = "change {name}"
    adding: ClassVar[str] = "cut a hole"
    hole: FloorHole


class PutCeiling(PutElement):
    kind: Literal["put_ceiling"] = "put_ceiling"
    phrase: ClassVar[str] = "change {name}"
    ceiling: Ceiling
