"""Edits of kites."""

from __future__ import annotations

from typing import ClassVar, Literal

from ...document.putting import PutElement
from .model import Kite


class PutKite(PutElement):
    kind: Literal["put_kite"] = "put_kite"
    phrase: ClassVar[str] = "change a kite"
    adding: ClassVar[str] = "fly a kite"
    kite: Kite
