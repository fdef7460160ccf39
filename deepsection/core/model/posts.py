"""Posts, columns and piers, and the beams between them."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from .elements import LevelRule
from .values import Element, Id, MaterialId, Mm, Positive


class Post(Element):
    """An upright at a point, from a level to another: square (width x depth, turned by an angle) or round (width)."""

    id: Id
    x: Mm
    y: Mm
    shape: Literal["square", "round"] = "square"
    width: Positive
    depth: Positive | None = None
    turn: Annotated[float, Field(ge=-360, le=360)] = 0.0
    material: MaterialId = "softwood"
    base: LevelRule
    top: LevelRule


class BeamEnd(Element):
    """Where a beam ends: at a post, whose place it keeps to, or at a point."""

    post: Id | None = None
    x: Mm = 0.0
    y: Mm = 0.0


class Beam(Element):
    """A level member between two ends, under a level: its top is there, and an offset above it."""

    id: Id
    start: BeamEnd
    end: BeamEnd
    width: Positive
    depth: Positive
    material: MaterialId = "softwood"
    top: LevelRule
