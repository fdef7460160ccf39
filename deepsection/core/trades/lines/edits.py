"""Edits of construction lines and the grid."""

from __future__ import annotations

from typing import ClassVar, Literal

from ...document.putting import PutElement
from .model import ConstructionLine, GridLine


class PutConstruction(PutElement):
    kind: Literal["put_construction"] = "put_construction"
    phrase: ClassVar[str] = "draw a construction line"
    line: ConstructionLine


class PutGrid(PutElement):
    kind: Literal["put_grid"] = "put_grid"
    phrase: ClassVar[str] = "change grid line {name}"
    adding: ClassVar[str] = "draw grid line {name}"
    line: GridLine
