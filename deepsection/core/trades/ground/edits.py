"""Edits of the ground."""

from __future__ import annotations

from typing import ClassVar, Literal

from ...document.putting import PutElement
from .model import GroundSpot, GroundStep


class PutGroundSpot(PutElement):
    kind: Literal["put_ground_spot"] = "put_ground_spot"
    phrase: ClassVar[str] = "change a height of the ground"
    adding: ClassVar[str] = "give a height of the ground"
    spot: GroundSpot


class PutGroundStep(PutElement):
    kind: Literal["put_ground_step"] = "put_ground_step"
    phrase: ClassVar[str] = "change a step of the ground"
    adding: ClassVar[str] = "step the ground"
    step: GroundStep
