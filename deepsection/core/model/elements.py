"""The elements of a project: what the drafter states. Millimetres and degrees; no geometry here."""

from __future__ import annotations

from typing import Annotated, Literal, Self

from pydantic import Field, StringConstraints, model_validator

from .values import Element, Face, Id, MaterialId, Mm, Name, NotNegative, Positive, WallEnd

# --- walls and rooms -------------------------------------------------------------------------


class FreeJoint(Element):
    """A place in plan where walls start, end or meet; `through` names the wall that is to pass, of two."""

    kind: Literal["free"] = "free"
    id: Id
    x: Mm
    y: Mm
    join: Literal["clean", "off"] = "clean"
    through: Id | None = None


class HostedJoint(Element):
    """A tee: a joint on a wall, at a distance from one of its ends, along its set-out line."""

    kind: Literal["hosted"] = "hosted"
    id: Id
    wall: Id
    end: WallEnd
    distance: NotNegative
    join: Literal["clean", "off"] = "clean"


Joint = Annotated[FreeJoint | HostedJoint, Field(discriminator="kind")]


class SetOut(Element):
    """The face of a layer that lies on the set-out line."""

    layer: Id
    face: Face = "outer"


class LevelRule(Element):
    """A height: an offset above a level."""

    level: Id
    offset: Mm = 0.0


class BaseRule(LevelRule):
    """The foot of a wall. A wall `on_roof` stands on the roof that it meets above its level."""

    on_roof: bool = False


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


class Wall(Element):
    """A wall between two joints, straight or an arc; its make-up runs from its outside inward.

    Its thickness is that at its foot; a batter of its outer or inner face makes it thinner going up. `lean` tilts it
    as a whole, outward when positive. `taper` is how much thinner its bearing layer is at its end than at its start,
    taken from the inside. An `outline` of its own is all of its plan: then it is of one layer.
    """

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


class ConstructionLine(Element):
    """An endless straight line in plan to snap to: through a point, at an angle counter-clockwise from east."""

    id: Id
    x: Mm
    y: Mm
    angle: Annotated[float, Field(ge=-360, le=360)]
    level: Id | None = None


class GridLine(Element):
    """A named line of the grid, through every storey: a point on it, and an angle counter-clockwise from east."""

    id: Id
    name: Annotated[str, StringConstraints(min_length=1, max_length=6, strip_whitespace=True)]
    x: Mm
    y: Mm
    angle: Annotated[float, Field(ge=-360, le=360)]


RoofPitch = Annotated[float, Field(ge=0.005, le=6.0)]


class Room(Element):
    """A named space: the one that encloses the point, on the storey of a level or the lowest one.

    `vault`: the pitch at which its ceiling rises from the plates, under a roof that bears on them; flat when none.
    """

    id: Id
    name: Name
    x: Mm
    y: Mm
    level: Id | None = None
    vault: RoofPitch | None = None


# --- make-ups -----------------------------------------------------------------------------------

Tradition = Literal["timber", "masonry"]
Function = Literal["structure", "sheathing", "membrane", "insulation", "cavity", "cladding", "lining", "finish"]


class Framing(Element):
    """Members of a structure layer. Their depth is the thickness of the layer."""

    spacing: Annotated[float, Field(ge=50, le=1e5)]
    thickness: Annotated[float, Field(ge=5, le=1e4)]
    bottom_plates: Annotated[int, Field(ge=0, le=3)] = 1
    top_plates: Annotated[int, Field(ge=0, le=3)] = 2
    infill: MaterialId | None = None


class WallPlate(Element):
    """The timber bedded on top of a masonry leaf, under the rafters. Its width is that of the leaf."""

    depth: Positive
    material: MaterialId = "softwood"


class Lintels(Element):
    """What carries a leaf over its openings: depth, and how far it bears on each side."""

    depth: Positive
    bearing: Positive
    material: MaterialId = "concrete"


class Layer(Element):
    """One sheet of a make-up. With `reveal`, it turns into the reveals of openings, up to a gap before their frame."""

    id: Id
    name: Name
    material: MaterialId
    function: Function
    thickness: Positive
    framing: Framing | None = None
    wall_plate: WallPlate | None = None
    lintels: Lintels | None = None
    reveal: Literal["no", "frame"] = "no"
    reveal_gap: NotNegative = 0.0


class MakeUp(Element):
    """Ordered layers: outside to inside for walls, top to bottom for floors, ceilings and roofs.

    `bearing`: of walls, the structure layer that carries floors and roofs; `bearing_layer` says which where it is not
    stated. `corner_boards`: of walls, the width of the boards on their outside corners; 0 for none.
    """

    id: Id
    name: Name
    use: Literal["wall", "slab", "floor", "ceiling", "roof"]
    layers: Annotated[tuple[Layer, ...], Field(min_length=1)]
    corner_boards: NotNegative = 0.0
    bearing: Id | None = None


# --- heights ------------------------------------------------------------------------------------


class LayerRef(Element):
    """A layer of a make-up."""

    make_up: Id
    layer: Id


class Term(Element):
    """One part of a rise sum: `count` times `value`, or the thickness of a layer, which then states it alone."""

    id: Id
    name: Name
    value: Mm = 0.0
    layer: LayerRef | None = None
    count: Annotated[int, Field(ge=1, le=99)] = 1


class Rung(Element):
    """A level: a sum of parts above (or below) another rung. Only the datum has none.

    `free` names the term that absorbs a typed total. A `locked` sum keeps its total: another value for a part goes at
    the cost of the free one. A `hidden` level is not drawn.
    """

    id: Id
    name: Name
    surface: Literal["grade", "deck", "slab", "plate", "sill", "foundation", "finish", "footing"]
    from_rung: Id | None = None
    direction: Literal["up", "down"] = "up"
    terms: tuple[Term, ...] = ()
    free: Id | None = None
    locked: bool = False
    hidden: bool = False


# --- roof, foundation, ceiling ------------------------------------------------------------------


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


class RoofBlock(Element):
    """A roof over an outline (corners counter-clockwise) and its courts (clockwise), a treatment per edge.

    Edges are numbered through the outline and then its courts. `seat` is the level cut of the birdsmouth on the plate,
    measured in from the bearing line, at the pitch of the block; it sets the heel of all edges. `offset`: how far above
    its plate level it bears. `heel`: how far above that the top of the rafters lies over the bearing line, where it is
    stated. `overhang_from`: what overhangs are measured from: the bearing line, the outside of sheathing or masonry, or
    the finished face. `gutter`: the width of the gutters along its eaves; 0 for none. `caps`: how far the
    caps of ridges and hips, and the flashings of valleys, lie on each slope; 0 for none.
    """

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


class Foundation(Element):
    """Foundation wall and strip footing below the outer walls of a storey, and the ground layers within.

    The wall reaches up to `top`, by default to the level of the storey; a sill plate lies on it up to the level `sill`.
    The slab, or what else covers the ground, has its top at `slab_level`, by default that of the storey.
    """

    id: Id
    name: Name
    level: Id
    footing: Id
    stem_thickness: Positive
    footing_width: Positive
    footing_depth: Positive
    slab: Id | None = None
    slab_level: Id | None = None
    top: Id | None = None
    sill: Id | None = None


JoistSpan = Literal["short", "east-west", "north-south"]


class Floor(Element):
    """A joist floor under the outer walls of a storey: its top is the level, its joists bear at another.

    A rim joist closes it along the outside of the frames. `span` is the direction in which joists run.
    """

    id: Id
    name: Name
    level: Id
    bearing: Id
    make_up: Id
    span: JoistSpan = "short"


class Ceiling(Element):
    """A flat ceiling whose joists bear at a level, over every closed outline of outer walls that reaches it.

    Joists run along the rafters above, or as `span` says.
    """

    id: Id
    name: Name
    level: Id
    make_up: Id
    span: Literal["roof"] | JoistSpan = "roof"
