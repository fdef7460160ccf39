"""What goes through roofs or hangs on them: chimneys, roof windows, pipes and vents, downpipes."""

from __future__ import annotations

from typing import TYPE_CHECKING, Annotated, ClassVar, Literal, Self

from pydantic import Field

from ...document.declaring import About, Ref, Standing, revised
from ...document.motion import Motion
from ...document.values import Id, MaterialId, Mm, NotNegative, Positive
from ..levels.model import LevelRule

if TYPE_CHECKING:
    from ...model.project import Project

ON_ROOFS: dict[str, str] = {
    "chimney": "chimney",
    "window": "roof window",
    "pipe": "pipe",
    "vent": "vent",
    "downpipe": "downpipe",
}
"""What goes through a roof or hangs on it, in words."""

Turned = Annotated[float, Field(ge=-360, le=360)]


class Chimney(Standing):
    """A stack from a level up through the roof: width x depth about its middle, turned by an angle.

    Its top lies as high as the published rule of the tradition asks, or `above` the highest covering that it passes.
    A `cricket` sheds water behind it: `rule` where it is wide enough to need one.
    """

    about: ClassVar[About] = About(
        "chimney",
        "chimneys",
        refs=(Ref("base.level", "rungs", "foot"),),
        movable=True,
        removable=True,
        group="on_roofs",
    )
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

    def check(self, project: Project) -> None:
        """Its flue fits into it. Raises: ValueError."""
        if self.flue >= min(self.width, self.depth):
            raise ValueError(f"{self.id}: the flue is wider than the chimney; make one of them smaller")

    def moved(self, motion: Motion, id: str) -> Self:
        """It, moved in plan, under an id."""
        x, y = motion.at((self.x, self.y))
        return revised(self, id=id, x=x, y=y, turn=motion.angle(self.turn) % 180.0)


class RoofFitting(Standing):
    """A roof window, a pipe or a vent on the highest slope over its middle.

    A window and a vent measure width along the eave and length up the slope; a pipe is as wide as its diameter, and
    `height` is how far pipes and vents stand above the covering.
    """

    about: ClassVar[About] = About("roof fitting", "roof fittings", movable=True, removable=True, group="on_roofs")
    id: Id
    fitting: Literal["window", "pipe", "vent"]
    x: Mm
    y: Mm
    width: Positive
    length: Positive
    height: Positive = 150.0

    @property
    def label(self) -> str:
        """What it is called in lists."""
        return ON_ROOFS[self.fitting]

    def moved(self, motion: Motion, id: str) -> Self:
        """It, moved in plan, under an id."""
        x, y = motion.at((self.x, self.y))
        return revised(self, id=id, x=x, y=y)


class Downpipe(Standing):
    """A pipe from the gutter of a roof edge down the wall: square, its middle at a distance from the edge's start."""

    about: ClassVar[About] = About(
        "downpipe", "downpipes", refs=(Ref("roof", "roofs", "roof"),), removable=True, group="gutters"
    )
    id: Id
    roof: Id
    edge: Id
    distance: NotNegative
    size: Positive = 75.0

    @property
    def label(self) -> str:
        """What it is called in lists."""
        return ON_ROOFS["downpipe"]
