"""What a drafter states of a file that lies under a view."""

from __future__ import annotations

import math
from typing import Annotated, ClassVar, Literal

from pydantic import Field, StringConstraints

from ...document.declaring import About, Declared
from ...document.values import Element, Id, Mm, Name

MOST_PAGES = 500
Digest = Annotated[str, StringConstraints(pattern=r"^[0-9a-f]{64}$")]
"""The SHA-256 of a file, by which it is kept."""
Size = Annotated[float, Field(gt=0, le=1e9)]


class PageSize(Element):
    """Width and height of a page, in the unit of its file."""

    width: Size
    height: Size


class Crop(Element):
    """What is shown of a page: a box from its lower left corner, in the unit of the file."""

    left: float
    bottom: float
    right: float
    top: float


class ModelBody(Declared):
    """What of a model was not taken over, as a grey body in the solid view.

    It is turned about the origin of the model (degrees counter-clockwise), then so far from where it stands in it (mm);
    without its walls, what stands in them, and those of its parts that were taken over (by their global ids).
    """

    about: ClassVar[About] = About("grey body", "model_bodies", removable=True)
    id: Id
    name: Name
    file: Digest
    x: Mm = 0.0
    y: Mm = 0.0
    z: Mm = 0.0
    turn: Annotated[float, Field(ge=-360, le=360)] = 0.0
    without: Annotated[tuple[Annotated[str, StringConstraints(max_length=40)], ...], Field(max_length=5000)] = ()
    shown: bool = True


class Background(Declared):
    """A page of a file under a view.

    Its lower left corner lies at (x, y): east and north in a plan, along and up in an elevation (mm). One unit of the
    file is `scale` mm there: a unit is a mm of paper, or what a drawing counts in (`counts`). `turn`: degrees
    counter-clockwise about that corner. `strength`: how dark it is, from 0 to 1.
    """

    about: ClassVar[About] = About("background", "backgrounds", removable=True)
    id: Id
    name: Name
    view: Name
    file: Digest
    pages: Annotated[tuple[PageSize, ...], Field(min_length=1, max_length=MOST_PAGES)]
    page: Annotated[int, Field(ge=0)] = 0
    counts: Literal["paper", "drawing"] = "paper"
    x: Mm = 0.0
    y: Mm = 0.0
    scale: Annotated[float, Field(gt=0, le=1e6)] = 1.0
    turn: Annotated[float, Field(ge=-360, le=360)] = 0.0
    crop: Crop | None = None
    strength: Annotated[float, Field(ge=0.05, le=1)] = 0.5
    shown: bool = True
    printed: bool = False
    snapped: bool = True

    @property
    def size(self) -> PageSize:
        """The size of the page that is shown; the last one where there are fewer."""
        return self.pages[min(self.page, len(self.pages) - 1)]

    @property
    def box(self) -> tuple[float, float, float, float]:
        """What is shown of the page: left, bottom, right, top, in the unit of the file."""
        if self.crop is None:
            return 0.0, 0.0, self.size.width, self.size.height
        return self.crop.left, self.crop.bottom, self.crop.right, self.crop.top

    def on_view(self, x: float, y: float) -> tuple[float, float]:
        """Where a point of the page lies in the view (mm)."""
        c, s = (f(math.radians(self.turn)) * self.scale for f in (math.cos, math.sin))
        return self.x + c * x - s * y, self.y + s * x + c * y

    def on_page(self, x: float, y: float) -> tuple[float, float]:
        """Which point of the page lies at a point of the view."""
        c, s = (f(math.radians(self.turn)) / self.scale for f in (math.cos, math.sin))
        return c * (x - self.x) + s * (y - self.y), -s * (x - self.x) + c * (y - self.y)
