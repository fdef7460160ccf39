"""Comments on a plan from outside of the office, tied to places, shown until they are settled."""

from __future__ import annotations

from typing import Annotated, ClassVar, Literal, Self

from pydantic import StringConstraints

from ...document.declaring import About, Declared, revised
from ...document.motion import Motion
from ...document.values import Id, Mm, Name

CommentText = Annotated[str, StringConstraints(min_length=1, max_length=500)]


class Comment(Declared):
    """A comment at a place of the plan that a view shows; `answer` is what was done about it."""

    about: ClassVar[About] = About("comment", "comments", movable=True, removable=True)
    id: Id
    view: Name
    x: Mm
    y: Mm
    text: CommentText
    by: Name = "engineer"
    status: Literal["open", "settled"] = "open"
    answer: Annotated[str, StringConstraints(max_length=500)] = ""

    def moved(self, motion: Motion, id: str) -> Self:
        """It, moved in plan, under an id."""
        x, y = motion.at((self.x, self.y))
        return revised(self, id=id, x=x, y=y)
