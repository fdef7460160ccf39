"""Edits of plans as they were read."""

from __future__ import annotations

from typing import ClassVar, Literal

from ...document.putting import PutElement
from .model import PlanRead


class PutPlanRead(PutElement):
    kind: Literal["put_plan_read"] = "put_plan_read"
    phrase: ClassVar[str] = "keep what a plan showed"
    adding: ClassVar[str] = "keep what a plan showed"
    read: PlanRead
