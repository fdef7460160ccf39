"""Edits of foundations."""

from __future__ import annotations

from typing import ClassVar, Literal

from ...document.putting import PutElement
from .model import Foundation, FoundationStep


class PutFoundation(PutElement):
    kind: Literal["put_foundation"] = "put_foundation"
    phrase: ClassVar[str] = "change the foundation"
    foundation: Foundation


class PutFoundationStep(PutElement):
    kind: Literal["put_foundation_step"] = "put_foundation_step"
    phrase: ClassVar[str] = "change a step of the foundation"
    adding: ClassVar[str] = "step the foundation"
    step: FoundationStep
