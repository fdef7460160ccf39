"""Roofs: blocks over outlines, with a treatment per edge."""

from __future__ import annotations

from typing import TYPE_CHECKING, Annotated, ClassVar, Literal, Self

from pydantic import Field

from ...document.declaring import About, Declared, Ref, revised
from ...document.motion import Motion
from ...document.values import Element, Id, Mm, Name, NotNegative, Positive, RoofPitch

if TYPE_CHECKING:
    from ...model.project import Project


class Corner(Element):
    """A corner of an outline: tied to a joint, or a point of its own."""

    joint: Id | None = None
    x: Mm = 0.0
    y: Mm = 0.0


EdgeKind = Literal["eave", "gable", "half_hip", "dutch_gable", "abutment", "joined"]


SLOPING = ("eave", "dutch_gable")
"""Edges from which a slope starts at once."""


RAKED = ("gable", "half_hip")
"""Edges along which slopes end in rakes."""


class RoofEdge(Element):
    """The treatment of the roof edge that starts at the corner of the same number; `joined` runs into another roof.

    `pitch`: its own, else the block's. `raised`: how much higher than the block's its eave lies. `height` above the
    bearing line: where a half hip starts, where a gable over a hip starts, or where an eave goes on at `upper_pitch`
    (gambrel, mansard).
    """

    kind: EdgeKind
    overhang: NotNegative = 0.0
    pitch: RoofPitch | None = None
    raised: Mm = 0.0
    height: Positive | None = None
    upper_pitch: RoofPitch | None = None


OverhangFrom = Literal["bearing", "sheathing", "face"]


class RoofBlock(Declared):
    """A roof over an outline (corners counter-clockwise) and its courts (clockwise), a treatment per edge.

    Edges are numbered through the outline and then its courts. `seat` is the level cut of the birdsmouth on the plate,
    measured in from the bearing line, at the pitch of the block; it sets the heel of all edges. `offset`: how far above
    its plate level it bears. `heel`: how far above that the top of the rafters lies over the bearing line, where it is
    stated. `overhang_from`: what overhangs are measured from: the bearing line, the outside of sheathing or masonry, or
    the finished face. `gutter`: the width of the gutters along its eaves; 0 for none. `caps`: how far the
    caps of ridges and hips, and the flashings of valleys, lie on each slope; 0 for none.
    """

    about: ClassVar[About] = About(
        "roof",
        "roofs",
        refs=(
            Ref("plate", "rungs", "plate"),
            Ref("make_up", "make_ups", "make-up"),
            Ref("outline.joint", "joints", "corner"),
            Ref("courts.joint", "joints", "corner"),
        ),
        movable=True,
        removable=True,
        group="roofs",
    )
    id: Id
    name: Name
    outline: Annotated[tuple[Corner, ...], Field(min_length=3)]
    edges: Annotated[tuple[RoofEdge, ...], Field(min_length=3)]
    pitch: RoofPitch
    plate: Id
    seat: Positive
    make_up: Id
    fascia_depth: Positive
    fascia_thickness: Positive = 19.05
    courts: tuple[Annotated[tuple[Corner, ...], Field(min_length=3)], ...] = ()
    offset: Mm = 0.0
    heel: Positive | None = None
    overhang_from: OverhangFrom = "sheathing"
    gutter: NotNegative = 0.0
    caps: NotNegative = 0.0

    @property
    def rings(self) -> tuple[tuple[Corner, ...], ...]:
        """The outline and the courts."""
        return (self.outline, *self.courts)

    def check(self, project: Project) -> None:
        """It has an edge per side, one of them an eave, and what edges that turn need. Raises: ValueError."""
        count = sum(len(ring) for ring in self.rings)
        if len(self.edges) != count:
            raise ValueError(f"{self.id}: a roof with {count} corners has {count} edges, not {len(self.edges)}")
        if not any(edge.kind in SLOPING for edge in self.edges):
            raise ValueError(f"{self.id}: at least one edge is an eave: gables alone hold no roof")
        for k, edge in enumerate(self.edges, 1):
            if edge.kind in ("half_hip", "dutch_gable") and edge.height is None:
                raise ValueError(f"{self.id}: edge {k} needs the height at which it turns")
            if edge.upper_pitch is not None and (edge.height is None or edge.kind != "eave"):
                raise ValueError(f"{self.id}: edge {k} goes on at another pitch from a height above its eave")

    def moved(self, motion: Motion, id: str) -> Self:
        """It, moved in plan, under an id; corners that are tied to joints go where these go."""

        def at(corner: Corner) -> Corner:
            x, y = motion.at((corner.x, corner.y))
            return corner if corner.joint else revised(corner, x=x, y=y)

        outline, *courts = (tuple(at(corner) for corner in ring) for ring in self.rings)
        return revised(self, id=id, outline=outline, courts=tuple(courts))


ROOF_EDGES: dict[str, str] = {
    "eave": "eave",
    "gable": "gable",
    "half_hip": "half hip",
    "dutch_gable": "gable over a hip",
    "abutment": "against a wall",
    "joined": "into another roof",
}
"""What an edge of a roof can be, in words."""
