"""Edits of floors and ceilings."""

from __future__ import annotations

from typing import ClassVar, Literal

from ...document.putting import PutElement
from .model import Ceiling, Floor


class PutFloor(PutElement):
    kind: Literal["put_floor"] = "put_floor"
    phrase: ClassVar[str] = "change {name}"
    floor: Floor


class PutCeiling(PutElement):
    kind: Literal["put_ceiling"] = "put_ceiling"
    phrase: ClassVar[str] = "change {name}"
    ceiling: Ceiling
