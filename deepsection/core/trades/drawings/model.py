"""What is drawn of a house: section lines, elevations of its own, notes, sheets with placed views."""

from __future__ import annotations

import itertools
import math
from collections.abc import Sequence
from typing import TYPE_CHECKING, Annotated, ClassVar, Literal, Self

from pydantic import Field, StringConstraints

from ...document.anchors import Anchor
from ...document.declaring import About, Declared, PartGroup, Ref, revised
from ...document.motion import Motion
from ...document.values import Element, Id, Mm, Name, NotNegative, Positive, WallEnd
from ...drawing.chains import Measure
from ...units import Units

if TYPE_CHECKING:
    from ...model.project import Project


LEAST_STEP = 1.0
"""Between two steps of a section line (mm)."""


def _turned(way: tuple[float, float], turn: float) -> tuple[float, float]:
    """A way in plan, turned counter-clockwise (radians); as it is where that is nothing."""
    if not turn:
        return way
    c, s = math.cos(turn), math.sin(turn)
    return way[0] * c - way[1] * s, way[0] * s + way[1] * c


class SectionStep(Element):
    """From so far (mm) along a section line on, that lies so far ahead of where it is drawn; behind below 0.

    It may `turn` there too (degrees counter-clockwise): what follows is unfolded into the plane of what was before.
    """

    along: Positive
    ahead: Mm
    turn: Annotated[float, Field(ge=-120, le=120)] = 0.0


class SectionLine(Declared):
    """Where the building is cut: from start to end, looking to its left or right, to a depth.

    Nothing below its `bottom` or above its `top` is shown (mm over the datum); all is where these are not stated.
    `members`: rafters and joists behind the cut are drawn where they are seen. It may step sideways, into parts that
    are parallel, and bend, into parts that are unfolded. With a `room` it shows the inside of that alone.
    """

    about: ClassVar[About] = About(
        "section", "sections", refs=(Ref("room", "rooms", "room"),), movable=True, removable=True
    )
    id: Id
    name: Name
    x1: Mm
    y1: Mm
    x2: Mm
    y2: Mm
    look: Literal["left", "right"] = "left"
    depth: Positive = 50_000.0
    members: bool = False
    room: Id | None = None
    bottom: Mm | None = None
    top: Mm | None = None
    steps: Annotated[tuple[SectionStep, ...], Field(max_length=8)] = ()

    @property
    def length(self) -> float:
        """From its start to its end, steps aside (mm)."""
        return math.hypot(self.x2 - self.x1, self.y2 - self.y1)

    @property
    def parts(self) -> tuple[SectionLine, ...]:
        """The straight lines that it consists of, from its start to its end; steps past that are none."""
        long = self.length
        steps = [held for held in self.steps if held.along < long]
        ends = [0.0, *(held.along for held in steps), long]
        lies = [0.0, *(held.ahead for held in steps)]
        (x, y), (nx, ny) = (self.x1, self.y1), self.ahead
        dx, dy = ((self.x2 - self.x1) / (long or 1.0), (self.y2 - self.y1) / (long or 1.0))
        found = []
        for k, (a, b) in enumerate(itertools.pairwise(ends)):
            if k:
                by, turn = lies[k] - lies[k - 1], math.radians(steps[k - 1].turn)
                x, y = x + nx * by, y + ny * by
                dx, dy = _turned((dx, dy), turn)
                nx, ny = _turned((nx, ny), turn)
            end = (x + dx * (b - a), y + dy * (b - a))
            found.append(revised(self, x1=x, y1=y, x2=end[0], y2=end[1], steps=()))
            x, y = end
        return tuple(found)

    @property
    def turned_round(self) -> Self:
        """It, looking the other way; its steps stay where they are."""
        steps = tuple(revised(held, ahead=-held.ahead) for held in self.steps)
        return revised(self, look="right" if self.look == "left" else "left", steps=steps)

    def check(self, project: Project) -> None:
        """Its steps come one after another. Raises: ValueError."""
        alongs = [held.along for held in self.steps]
        if any(b - a < LEAST_STEP for a, b in itertools.pairwise(alongs)):
            raise ValueError(f"{self.id}: each step lies farther along the line than the one before it")

    @property
    def ahead(self) -> tuple[float, float]:
        """The unit vector across it, to the side that it looks at."""
        length = math.hypot(self.x2 - self.x1, self.y2 - self.y1) or 1.0
        dx, dy = (self.x2 - self.x1) / length, (self.y2 - self.y1) / length
        return (-dy, dx) if self.look == "left" else (dy, -dx)

    def moved(self, motion: Motion, id: str) -> Self:
        """It, moved in plan, under an id."""
        (x1, y1), (x2, y2) = motion.at((self.x1, self.y1)), motion.at((self.x2, self.y2))
        if motion.mirror is None:
            return revised(self, id=id, x1=x1, y1=y1, x2=x2, y2=y2)
        steps = tuple(revised(held, turn=-held.turn) for held in self.steps)
        look = "right" if self.look == "left" else "left"
        return revised(self, id=id, x1=x1, y1=y1, x2=x2, y2=y2, look=look, steps=steps)


class StripBreak(Element):
    """A plain stretch that a wall section leaves out on paper: from so far above a level, so high (mm)."""

    level: Id
    above: Mm
    tall: Positive


class InsideBreak(Element):
    """A plain stretch of floors and ceilings that a wall section leaves out on paper: from so far inward of the inner
    face of its wall, so wide (mm)."""

    inward: NotNegative
    wide: Positive


class WallSection(Declared):
    """A section through one wall from footing to roof, at a distance from a named end, looking to its start or end.

    It shows so much (mm) `outside` of the wall and `inside` of it: what is needed where that is not stated; nothing
    below its `bottom` or above its `top` (mm over the datum). Plain stretches of it are left out where it is higher
    than `tall` on paper (mm), or those of its `breaks` where they are stated; and of its floors where it is wider than
    `wide`, or those of its `inside_breaks`. `members`: rafters and joists behind the cut are drawn where they are seen.
    """

    about: ClassVar[About] = About(
        "wall section",
        "wall sections",
        refs=(Ref("wall", "walls", "wall"), Ref("breaks.level", "rungs", "level of a break")),
        removable=True,
    )
    id: Id
    name: Name
    wall: Id
    end: WallEnd
    distance: Mm
    look: WallEnd = "end"
    outside: Positive | None = None
    inside: Positive | None = None
    depth: Positive = 1000.0
    members: bool = True
    bottom: Mm | None = None
    top: Mm | None = None
    tall: Annotated[float, Field(ge=40, le=3000)] | None = 380.0
    wide: Annotated[float, Field(ge=40, le=3000)] | None = None
    breaks: Annotated[tuple[StripBreak, ...], Field(max_length=12)] | None = None
    inside_breaks: Annotated[tuple[InsideBreak, ...], Field(max_length=12)] | None = None


CUT_LEVEL = ("jamb", "wall_corner", "wall_on_wall")
"""Kinds of junctions that are upright: their details are cut level."""
AROUND_OPENINGS = ("head", "jamb", "sill", "threshold")
"""Kinds of junctions of openings with their walls."""


class DetailEnd(Element):
    """What meets at the junction of a detail: an element, which feature of it, and which of several such."""

    element: Id
    feature: Name
    sub: Annotated[str, StringConstraints(max_length=120)] = ""


def junction_name(kind: str, ends: Sequence[tuple[str, str, str]]) -> str:
    """The id of a junction: of its kind, and of the element, feature and sub-id of what meets there.

    An opening says all by itself: its wall may be split or joined to another one.
    """
    telling = ends[:1] if kind in AROUND_OPENINGS else ends
    return "/".join((kind, *(".".join(part for part in end if part) for end in telling)))


class Detail(Declared):
    """A window on a cut across a junction: of a kind, where its `ends` meet, at a distance along its run (mm).

    The usual place is taken where none is stated, and as much is shown `outward` and `inward` of the junction, `below`
    and `above` it (mm) as is usual for its kind. It is tied to its junction, never to those that are built alike, and
    says so where that is not there any more. `members`: rafters and joists behind the cut are drawn where seen.
    """

    about: ClassVar[About] = About("detail", "details", removable=True)
    id: Id
    name: Name
    kind: Name
    ends: Annotated[tuple[DetailEnd, ...], Field(min_length=1, max_length=4)]
    along: NotNegative | None = None
    outward: Positive | None = None
    inward: Positive | None = None
    below: Positive | None = None
    above: Positive | None = None
    depth: Positive = 600.0
    members: bool = True

    @property
    def junction(self) -> str:
        """The id of its junction."""
        return junction_name(self.kind, [(end.element, end.feature, end.sub) for end in self.ends])


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
    "strings",
    "numbers",
    "materials",
    "pitches",
    "stepping",
    "grid",
    "names",
    "notes",
]
"""What a view can leave out as a whole: kinds of parts, and kinds of lettering from the levels on."""


FigureMark = Literal["minimum", "maximum", "hold", "typical", "similar"]
FIGURE_MARKS: dict[FigureMark, str] = {
    "minimum": "MIN.",
    "maximum": "MAX.",
    "hold": "HOLD",
    "typical": "TYP.",
    "similar": "SIM.",
}
"""What is written after a figure. Common practice, no source."""


class Annotation(Element):
    """What was changed of lettering that a view writes by itself: `dx`, `dy` (paper mm) from its place, its text.

    `rank`: where there is no room for all, it stays before others, as is usual for its kind, or goes before others.
    `mark`: what a figure is besides, of those that measure: the least or the most allowed, to be held, typical of all
    that are alike, or similar.
    """

    key: Annotated[str, StringConstraints(min_length=1, max_length=120)]
    dx: OnPaper = 0.0
    dy: OnPaper = 0.0
    text: NoteText | None = None
    hidden: bool = False
    rank: Literal["first", "usual", "last"] = "usual"
    mark: FigureMark | None = None

    @property
    def is_plain(self) -> bool:
        """Whether nothing is changed."""
        return not (self.dx or self.dy or self.text or self.hidden or self.mark) and self.rank == "usual"


Density = Literal["coarser", "usual", "denser"]


class StringShow(Element):
    """A string of dimensions of a view, `side:row` as `bottom:openings`, where it differs from what the project says.

    `away`: moved so far from what it measures (paper mm). `openings`, `walls`: to what of them it measures.
    """

    name: Annotated[str, StringConstraints(min_length=3, max_length=60, pattern=r"^[a-z]+:[a-z]+$")]
    shown: Literal["usual", "shown", "hidden"] = "usual"
    away: OnPaper = 0.0
    density: Density | None = None
    openings: Literal["centres", "sides"] | None = None
    walls: Literal["frame", "structure", "finish"] | None = None

    @property
    def is_plain(self) -> bool:
        """Whether it is as the project says."""
        return self == StringShow(name=self.name)


class Dimensioning(Element):
    """The rules of all strings of dimensions of a project.

    `openings`: measured to their middles or to their sides; by tradition to the middles in timber, to the sides in
    masonry. `widths`: those of openings measured to their middles stand in a string of their own. `walls`: the faces to
    which inner walls are measured; by tradition one face of the frame in timber, both of the structure in masonry.
    `fraction` and `whole`: what figures are rounded to, parts of an inch or mm. `equal`: equal lengths side by side are
    written apart, or as one, `n x length = total`. `density`: a coarser string leaves out what is too near for its
    figure, a denser one shows openings by their sides and middles, walls by both faces.
    """

    openings: Literal["by tradition", "centres", "sides"] = "by tradition"
    widths: Literal["hidden", "shown"] = "hidden"
    walls: Literal["by tradition", "frame", "structure", "finish", "none"] = "by tradition"
    fraction: Literal[1, 2, 4, 8, 16, 32] = 16
    whole: Literal[1, 5, 10] = 1
    equal: Literal["apart", "together"] = "apart"
    density: Density = "usual"

    def measure(self, units: Units) -> Measure:
        """How all strings write their lengths."""
        return Measure(units, self.fraction, self.whole, self.equal)


LineName = Literal["weather", "air", "thermal", "vapour"]
"""What keeps out rain and wind, what is tight to air, what insulates, what is tight to vapour."""


class ViewShow(Declared):
    """How an elevation or a section is shown: what it leaves out, what alone it shows, its lettering, its look.

    `thin` concerns the screen alone: what is printed keeps its pens. `make_ups`: a plan has numbers of the make-ups of
    its walls, a section those of what it cuts, and a legend. `stacks`: a section has the layers of what it cuts beside
    it, where there is room. `lines`: those that are drawn over what is cut. `works`: what is new, existing and to be
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
    make_ups: bool = False
    stacks: bool = False
    lines: tuple[LineName, ...] = ()
    works: Literal["shown", "before", "after"] = "shown"
    strings: tuple[StringShow, ...] = ()
    """Strings of dimensions that differ from what the project says."""


class Note(Declared):
    """A note in a view, tied to a place; `offset` (paper mm) leads from there to the text, where that was moved.

    `last` is where it was in space when what it is tied to went: a note that lost its place stays there.
    """

    about: ClassVar[About] = About("note", "notes", removable=True)
    id: Id
    view: Name
    text: NoteText
    anchor: Anchor
    offset: tuple[OnPaper, OnPaper] | None = None
    last: tuple[Mm, Mm, Mm] | None = None


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
