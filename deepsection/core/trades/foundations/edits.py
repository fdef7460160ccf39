"""Edits of foundations."""

from __future__ import annotations

from typing import ClassVar, Literal

from ...document.putting import PutElement
from .model import Foundation


class PutFoundation(PutElement):
    kind: Literal["put_foundation"] = "put_foundation"
    phrase: ClassVar[str] = "change the foundation"
    foundation: Foundation
