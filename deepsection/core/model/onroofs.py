"""What goes through roofs or hangs on them: chimneys, roof windows, pipes and vents, downpipes."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from .elements import LevelRule
from .values import Element, Id, MaterialId, Mm, NotNegative, Positive

Turned = Annotated[float, Field(ge=-360, le=360)]


class Chimney(Element):
    """A stack from a level up through the roof: width x depth about its middle, turned by an angle.

    Its top lies as high as the published rule of the tradition asks, or `above` the highest covering that it passes.
    A `cricket` sheds water behind it: `rule` where it is wide enough to need one.
    """

    id: Id
    x: Mm
    y: Mm
    width: Positive
    depth: Positive
    turn: Turned = 0.0
    flue: Positive = 200.0
    material: MaterialId = "brick"
    base: LevelRule
    above: Positive | None = None
    cricket: Literal["rule", "yes", "no"] = "rule"


class RoofFitting(Element):
    """A roof window, a pipe or a vent on the highest slope over its middle.

    A window and a vent measure width along the eave and length up the slope; a pipe is as wide as its diameter, and
    `height` is how far pipes and vents stand above the covering.
    """

    id: Id
    fitting: Literal["window", "pipe", "vent"]
    x: Mm
    y: Mm
    width: Positive
    length: Positive
    height: Positive = 150.0


class Downpipe(Element):
    """A pipe from the gutter of a roof edge down the wall: square, its middle at a distance from the edge's start."""

    id: Id
    roof: Id
    edge: Annotated[int, Field(ge=0, le=500)]
    distance: NotNegative
    size: Positive = 75.0
