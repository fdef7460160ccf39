"""Posts, columns and piers, and the beams between them."""

from __future__ import annotations

from typing import TYPE_CHECKING, Annotated, ClassVar, Literal, Self

from pydantic import Field

from ...document.declaring import About, Ref, Standing, revised
from ...document.motion import Motion
from ...document.values import Element, Id, MaterialId, Mm, NotNegative, Positive
from ..levels.model import LevelRule

if TYPE_CHECKING:
    from ...model.project import Project


class Pad(Element):
    """A square footing under a post."""

    width: Positive
    thickness: Positive


class Post(Standing):
    """An upright at a point, from a level to another: square (width x depth, turned by an angle) or round (width).

    Its `pad` lies under its foot.
    """

    about: ClassVar[About] = About(
        "post",
        "posts",
        refs=(Ref("base.level", "rungs", "foot"), Ref("top.level", "rungs", "top")),
        movable=True,
        removable=True,
        group="posts",
    )
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
    pad: Pad | None = None

    def moved(self, motion: Motion, id: str) -> Self:
        """It, moved in plan, under an id."""
        x, y = motion.at((self.x, self.y))
        return revised(self, id=id, x=x, y=y, turn=motion.angle(self.turn) % 180.0)


class BeamEnd(Element):
    """Where a beam ends: at a post, whose place it keeps to, or at a point; from there it runs so far `past`."""

    post: Id | None = None
    x: Mm = 0.0
    y: Mm = 0.0
    past: NotNegative = 0.0


class Beam(Standing):
    """A level member between two ends, under a level: its top is there, and an offset above it.

    It is of so many `plies` side by side, which share its width.
    """

    about: ClassVar[About] = About(
        "beam",
        "beams",
        refs=(Ref("top.level", "rungs", "level"), Ref("start.post", "posts", "start"), Ref("end.post", "posts", "end")),
        movable=True,
        removable=True,
        group="posts",
    )
    id: Id
    start: BeamEnd
    end: BeamEnd
    width: Positive
    depth: Positive
    plies: Annotated[int, Field(ge=1, le=8)] = 1
    material: MaterialId = "softwood"
    top: LevelRule

    def check(self, project: Project) -> None:
        """It has a length. Raises: ValueError."""
        if self.start.post and self.start.post == self.end.post:
            raise ValueError(f"{self.id}: a beam needs a length: it starts and ends at one post")

    def moved(self, motion: Motion, id: str) -> Self:
        """It, moved in plan, under an id; ends on posts go where these go."""
        ends = {}
        for which, end in (("start", self.start), ("end", self.end)):
            x, y = motion.at((end.x, end.y))
            ends[which] = end if end.post else revised(end, x=x, y=y)
        return revised(self, id=id, **ends)
