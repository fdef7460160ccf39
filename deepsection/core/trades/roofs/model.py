"""Roofs: blocks over outlines, with a treatment per edge."""

from __future__ import annotations

from typing import TYPE_CHECKING, Annotated, ClassVar, Literal, Self, TypeVar

from pydantic import Field, ValidationInfo, field_validator

from ...document.declaring import About, Ref, Standing, revised
from ...document.motion import Motion
from ...document.values import Element, Id, Mm, Name, NotNegative, Positive, RoofPitch

if TYPE_CHECKING:
    from ...model.project import Project


class Corner(Element):
    """A corner of an outline: tied to a joint, or a point of its own.

    `id` is its name within the roof for life; one that has none gets it from its roof.
    """

    id: Id | None = None
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

    `id` is its name within the roof for life; one that has none gets it from its roof. `pitch`: its own, else the
    block's. `raised`: how much higher than the block's its eave lies. `height` above the bearing line: where a half hip
    starts, where a gable over a hip starts, or where an eave goes on at `upper_pitch` (gambrel, mansard).
    """

    id: Id | None = None
    kind: EdgeKind
    overhang: NotNegative = 0.0
    pitch: RoofPitch | None = None
    raised: Mm = 0.0
    height: Positive | None = None
    upper_pitch: RoofPitch | None = None


N = TypeVar("N", Corner, RoofEdge)


def _named(things: tuple[N, ...], stem: str, taken: set[str | None]) -> tuple[N, ...]:
    """Corners or edges, each under an id of its own: the first of those that share one keeps it."""
    wanted = {thing.id for thing in things}
    made = []
    for k, thing in enumerate(things, 1):
        id = thing.id
        if id is None or id in taken:
            names = (f"{stem}{n}" for n in (k, *range(1, 10_000)))
            id = next(name for name in names if name not in taken and name not in wanted)
            thing = thing.model_copy(update={"id": id})
        taken.add(id)
        made.append(thing)
    return tuple(made)


OverhangFrom = Literal["bearing", "sheathing", "face"]


Tails = Literal["boxed", "open"]
"""Under its eaves a roof has soffits, or the tails of its rafters show."""


class RoofBlock(Standing):
    """A roof over an outline (corners counter-clockwise) and its courts (clockwise), a treatment per edge.

    Edges are numbered through the outline and then its courts. `seat` is the level cut of the birdsmouth on the plate,
    measured in from the bearing line, at the pitch of the block; it sets the heel of all edges. `offset`: how far above
    its plate level it bears. `heel`: how far above that the top of the rafters lies over the bearing line, where it is
    stated. `overhang_from`: what overhangs are measured from: the bearing line, the outside of sheathing or masonry, or
    the finished face. `gutter`: the width of the gutters along its eaves; 0 for none. `caps`: how far the
    caps of ridges and hips, and the flashings of valleys, lie on each slope; 0 for none. `tails`:
    whether soffits close its eaves and rakes from below.
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
    tails: Tails = "boxed"

    @field_validator("edges")
    @classmethod
    def _name_edges(cls, edges: tuple[RoofEdge, ...]) -> tuple[RoofEdge, ...]:
        return _named(edges, "e", set())

    @field_validator("outline")
    @classmethod
    def _name_corners(cls, outline: tuple[Corner, ...]) -> tuple[Corner, ...]:
        return _named(outline, "c", set())

    @field_validator("courts")
    @classmethod
    def _name_court_corners(
        cls, courts: tuple[tuple[Corner, ...], ...], info: ValidationInfo
    ) -> tuple[tuple[Corner, ...], ...]:
        taken = {corner.id for corner in info.data.get("outline", ())}
        return tuple(_named(ring, "c", taken) for ring in courts)

    def edge_number(self, id: str) -> int | None:
        """The place of an edge among the edges, by its id; None where it is gone."""
        return next((k for k, edge in enumerate(self.edges) if edge.id == id), None)

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
