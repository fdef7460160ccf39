"""What is drawn of a house: section lines, elevations of its own, notes, sheets with placed views."""

from __future__ import annotations

from typing import Annotated, ClassVar, Literal, Self

from pydantic import Field, StringConstraints

from ...document.declaring import About, Declared, PartGroup, Ref, revised
from ...document.motion import Motion
from ...document.values import Element, Id, Mm, Name, Positive


class SectionLine(Declared):
    """Where the building is cut: from start to end, looking to its left or right, to a depth.

    `members`: rafters and joists behind the cut are drawn where they are seen.
    """

    about: ClassVar[About] = About("section", "sections", movable=True, removable=True)
    id: Id
    name: Name
    x1: Mm
    y1: Mm
    x2: Mm
    y2: Mm
    look: Literal["left", "right"] = "left"
    depth: Positive = 50_000.0
    members: bool = False

    def moved(self, motion: Motion, id: str) -> Self:
        """It, moved in plan, under an id."""
        (x1, y1), (x2, y2) = motion.at((self.x1, self.y1)), motion.at((self.x2, self.y2))
        look = self.look if motion.mirror is None else ("right" if self.look == "left" else "left")
        return revised(self, id=id, x1=x1, y1=y1, x2=x2, y2=y2, look=look)


class ElevationView(Declared):
    """An elevation besides those of the four sides: seen along a direction (degrees counter-clockwise from east).

    With a `room` it shows the inside of it, from the room's point to the wall that one looks at; with `walls` these,
    each as one looks at it squarely, beside each other from left to right.
    """

    about: ClassVar[About] = About("elevation", "elevations", refs=(Ref("room", "rooms", "room"),), removable=True)
    id: Id
    name: Name
    look: Annotated[float, Field(ge=-360, le=360)]
    room: Id | None = None
    walls: Annotated[tuple[Id, ...], Field(max_length=40)] = ()


OnPaper = Annotated[float, Field(ge=-3000, le=3000)]
"""Paper mm from a place: no further than the largest sheet is long."""
NoteText = Annotated[str, StringConstraints(min_length=1, max_length=400)]

ShowKind = Literal[
    PartGroup,
    "levels",
    "heights",
    "widths",
    "numbers",
    "materials",
    "pitches",
    "stepping",
    "grid",
    "names",
    "notes",
]
"""What a view can leave out as a whole: kinds of parts, and kinds of lettering from the levels on."""


class Annotation(Element):
    """What was changed of lettering that a view writes by itself: `dx`, `dy` (paper mm) from its place, its text."""

    key: Annotated[str, StringConstraints(min_length=1, max_length=120)]
    dx: OnPaper = 0.0
    dy: OnPaper = 0.0
    text: NoteText | None = None
    hidden: bool = False

    @property
    def is_plain(self) -> bool:
        """Whether nothing is changed."""
        return not (self.dx or self.dy or self.text or self.hidden)


class ViewShow(Declared):
    """How an elevation or a section is shown: what it leaves out, what alone it shows, its lettering, its look.

    `thin` concerns the screen alone: what is printed keeps its pens. `works`: what is new, existing and to be
    removed is told apart, or the house is shown as it is before or after the works.
    """

    about: ClassVar[About] = About("setting of a view", "settings of views")
    id: Id
    view: Name
    hidden: tuple[Id, ...] = ()
    alone: tuple[Id, ...] = ()
    kinds: tuple[ShowKind, ...] = ()
    annotations: tuple[Annotation, ...] = ()
    materials: Literal["names", "keys"] = "names"
    tone: bool = False
    shade: bool = False
    thin: bool = False
    works: Literal["shown", "before", "after"] = "shown"


class Anchor(Element):
    """A place that follows its part: part key, feature of the part, distance along it."""

    part: str
    feature: Literal["top", "bottom", "left", "right", "centre"] = "centre"
    along: Mm = 0.0


class Note(Declared):
    """A note in a view, tied to a part; `dx`, `dy` lead from the anchor to the text, in paper mm.

    `last_x`, `last_y` are where the anchor last was, in the view: a lost note stays there.
    """

    about: ClassVar[About] = About("note", "notes", removable=True)
    id: Id
    view: Name
    text: NoteText
    anchor: Anchor
    dx: Mm = 12.0
    dy: Mm = 12.0
    last_x: Mm = 0.0
    last_y: Mm = 0.0


class PlacedView(Element):
    """A view on a sheet: its name, its scale (48 is 1:48), and the sheet point (mm) of its centre."""

    id: Id
    view: Name
    scale: Annotated[float, Field(ge=1, le=2000)]
    x: Mm
    y: Mm


class Sheet(Declared):
    """Paper of a standard size with placed views and a title block."""

    about: ClassVar[About] = About("sheet", "sheets", removable=True)
    id: Id
    number: Name
    name: Name
    paper: Name
    placed: tuple[PlacedView, ...] = ()
