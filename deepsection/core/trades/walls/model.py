"""Walls in plan, the joints where they meet, and how high they go."""

from __future__ import annotations

from typing import TYPE_CHECKING, Annotated, ClassVar, Literal, Self

from pydantic import Field, model_validator

from ...document.declaring import About, Declared, Ref, Standing
from ...document.values import Element, Face, Id, MaterialId, Mm, Name, NotNegative, Positive, WallEnd
from ..levels.model import BaseRule

if TYPE_CHECKING:
    from ...model.project import Project


class FreeJoint(Declared):
    """A place in plan where walls start, end or meet; `through` names the wall that is to pass, of two."""

    about: ClassVar[About] = About("joint", "joints", refs=(Ref("through", "walls", "the wall that passes"),))
    kind: Literal["free"] = "free"
    id: Id
    x: Mm
    y: Mm
    join: Literal["joined", "apart"] = "joined"
    through: Id | None = None


class TeeJoint(Declared):
    """A tee: a joint on a wall, at a distance from one of its ends, along its set-out line."""

    about: ClassVar[About] = About("joint", "joints", refs=(Ref("wall", "walls", "host"),))
    kind: Literal["tee"] = "tee"
    id: Id
    wall: Id
    end: WallEnd
    distance: NotNegative
    join: Literal["joined", "apart"] = "joined"


Joint = Annotated[FreeJoint | TeeJoint, Field(discriminator="kind")]


class SetOut(Element):
    """The face of a layer that lies on the set-out line."""

    layer: Id
    face: Face = "outer"


class TopStep(Element):
    """From a distance along the wall on, its top lies higher (or lower) than at its start."""

    distance: Positive
    rise: Mm


class TopRule(Element):
    """The head of a wall: at a level, at a level and on up to the underside of a roof, or a height above its foot.

    `end_rise` rakes it: so much higher is it at its end than at its start. `steps` step it.
    """

    kind: Literal["level", "roof", "fixed"] = "level"
    level: Id
    offset: Mm = 0.0
    height: Positive | None = None
    end_rise: Mm = 0.0
    steps: Annotated[tuple[TopStep, ...], Field(max_length=40)] = ()

    @model_validator(mode="after")
    def _stated(self) -> Self:
        if self.kind == "fixed" and self.height is None:
            raise ValueError("a wall with a height of its own needs that height")
        if self.end_rise and self.steps:
            raise ValueError("a wall is raked or stepped, not both")
        if [step.distance for step in self.steps] != sorted({step.distance for step in self.steps}):
            raise ValueError("steps of a wall run from its start to its end, each at a place of its own")
        return self


Bulge = Annotated[float, Field(ge=-2.5, le=2.5)]
"""tan(angle / 4) of an arc that turns left (negative: right); 0 is straight."""


Batter = Annotated[float, Field(ge=0, le=45)]
"""How far a face leans inward going up: degrees from plumb."""


class PlanSpot(Element):
    """A corner of a free outline: distance along the set-out line from its start, and outward from it."""

    along: Mm
    out: Mm


class SectionSpot(Element):
    """A corner of a moulding's section: how far it stands out from the face of its wall, and how far up."""

    out: NotNegative
    up: Mm


class Moulding(Element):
    """A section run along a face of a wall: a plinth, a band, a cornice.

    It is measured up from the foot of its wall or from its plate. Its section is a closed ring of corners.
    """

    id: Id
    name: Name
    face: Literal["outer", "inner"] = "outer"
    at: Literal["foot", "plate"] = "foot"
    offset: Mm = 0.0
    material: MaterialId = "stone"
    section: Annotated[tuple[SectionSpot, ...], Field(min_length=3, max_length=40)]

    @model_validator(mode="after")
    def _stands_out(self) -> Self:
        if max(spot.out for spot in self.section) < 1.0:
            raise ValueError(f"the section of the {self.name} has to stand out from its wall")
        turn = sum(a.out * b.up - b.out * a.up for a, b in zip(self.section, (*self.section[1:], self.section[0])))
        if abs(turn) < 2.0:
            raise ValueError(f"the section of the {self.name} holds no area")
        return self


class Wall(Standing):
    """A wall between two joints, straight or an arc; its make-up runs from its outside inward.

    Its thickness is that at its foot; a batter of its outer or inner face makes it thinner going up. `lean` tilts it
    as a whole, outward when positive. `taper` is how much thinner its bearing layer is at its end than at its start,
    taken from the inside. An `outline` of its own is all of its plan: then it is of one layer.
    """

    about: ClassVar[About] = About(
        "wall",
        "walls",
        refs=(
            Ref("start", "joints", "start"),
            Ref("end", "joints", "end"),
            Ref("make_up", "make_ups", "make-up"),
            Ref("base.level", "rungs", "foot"),
            Ref("top.level", "rungs", "top"),
        ),
        movable=True,
        removable=True,
        group="walls",
    )
    id: Id
    start: Id
    end: Id
    bulge: Bulge = 0.0
    make_up: Id
    set_out: SetOut
    offset: Mm = 0.0
    outside: Literal["left", "right"] = "left"
    status: Literal["outer", "inner"] = "outer"
    bearing: Literal["inferred", "yes", "no"] = "inferred"
    batter_outer: Batter = 0.0
    batter_inner: Batter = 0.0
    lean: Annotated[float, Field(ge=-45, le=45)] = 0.0
    taper: Mm = 0.0
    outline: Annotated[tuple[PlanSpot, ...], Field(max_length=60)] = ()
    mouldings: Annotated[tuple[Moulding, ...], Field(max_length=20)] = ()
    base: BaseRule
    top: TopRule

    @model_validator(mode="after")
    def _mouldings_differ(self) -> Self:
        if len({held.id for held in self.mouldings}) != len(self.mouldings):
            raise ValueError(f"{self.id}: two mouldings have one id")
        return self

    @property
    def bears(self) -> bool:
        """Whether it carries floors or a roof: as stated, or by its status. Common practice, no source."""
        return self.status == "outer" if self.bearing == "inferred" else self.bearing == "yes"

    def check(self, project: Project) -> None:
        """It is set out on a layer that it has, and it has a length. Raises: ValueError."""
        make_up = next(held for held in project.make_ups if held.id == self.make_up)
        if all(layer.id != self.set_out.layer for layer in make_up.layers):
            raise ValueError(f"{self.id}: set-out face names “{self.set_out.layer}”, which is not in the project")
        start, end = project.joints_by_id[self.start], project.joints_by_id[self.end]
        if start is end:
            raise ValueError(f"{self.id}: a wall needs a length: it starts and ends at one point")
        if not (isinstance(start, FreeJoint) and isinstance(end, FreeJoint)):
            return
        if abs(start.x - end.x) + abs(start.y - end.y) < 1.0:
            raise ValueError(f"{self.id}: a wall needs a length: its ends lie on one point")

    @property
    def title(self) -> str:
        """What it is called beside others."""
        return f"{self.status} wall"
