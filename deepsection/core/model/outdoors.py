"""What stands before a house: steps up to a floor, and rails."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from ..units import INCH, Units
from .elements import LevelRule
from .values import Element, Id, MaterialId, Mm, NotNegative, Positive

RISE: dict[Units, float] = {"ft-in": 7.75 * INCH, "mm": 220.0}
"""Highest risers. Source: IRC R311.7.5.1 (7 3/4 in); Approved Document K, private stairs (220 mm); both from memory."""
RAIL_HEIGHT: dict[Units, float] = {"ft-in": 36.0 * INCH, "mm": 900.0}
RAIL_GAP: dict[Units, float] = {"ft-in": 4.0 * INCH, "mm": 100.0}
"""Rails and the gaps of their balusters. Source: IRC R312.1.2, R312.1.3; Approved Document K; both from memory."""


class OutsideSteps(Element):
    """Steps from the ground up to a level, all of one rise, at most `most_rise`.

    `x`, `y` is the middle of their upper edge, `turn` (degrees counter-clockwise from east) the way down; `landing`
    is how deep the uppermost tread is, at the level itself; none when one steps over a sill. `rails` stand at the
    sides as one comes up.
    """

    id: Id
    x: Mm
    y: Mm
    turn: Annotated[float, Field(ge=-360, le=360)] = 0.0
    width: Positive
    going: Annotated[float, Field(ge=100, le=3000)]
    most_rise: Annotated[float, Field(ge=50, le=1000)]
    landing: NotNegative = 0.0
    top: LevelRule
    material: MaterialId = "concrete"
    rails: Literal["none", "left", "right", "both"] = "none"


class Rail(Element):
    """A level rail between two points: its height over a level, balusters at most `gap` apart."""

    id: Id
    x1: Mm
    y1: Mm
    x2: Mm
    y2: Mm
    base: LevelRule
    height: Annotated[float, Field(ge=200, le=5000)]
    gap: Annotated[float, Field(ge=10, le=5000)]
    material: MaterialId = "softwood"
