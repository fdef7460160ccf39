"""Edits of ceilings."""

from __future__ import annotations

from typing import ClassVar, Literal

from ...document.putting import PutElement
from .model import Ceiling


class PutCeiling(PutElement):
    kind: Literal["put_ceiling"] = "put_ceiling"
    phrase: ClassVar[str] = "change {name}"
    ceiling: Ceiling
