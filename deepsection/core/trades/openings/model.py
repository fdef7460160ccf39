"""Openings, and the kinds that they follow: one definition shared by many, with exceptions on single ones."""

from __future__ import annotations

from typing import TYPE_CHECKING, Annotated, Any, ClassVar, Literal, Self

from pydantic import Field, StringConstraints, model_validator

from ...document.declaring import About, Declared, Ref, Standing
from ...document.values import Element, Id, Mm, Name, NotNegative, Positive, WallEnd

if TYPE_CHECKING:
    from ...model.project import Project

Unit = Literal["window", "door", "niche"]
Operation = Literal[
    "fixed", "casement", "awning", "sliding", "vertical", "hinged", "double", "pocket", "bifold", "overhead", "plain"
]
"""How a unit opens. `vertical` slides up and down; `plain` is an opening with a lining and nothing in it."""

OPERATIONS: dict[Unit, tuple[Operation, ...]] = {
    "window": ("fixed", "casement", "awning", "sliding", "vertical"),
    "door": ("hinged", "double", "sliding", "pocket", "bifold", "overhead", "plain"),
    "niche": ("plain",),
}
"""The operations of each unit; the first is that of a unit without a kind."""

Panels = Annotated[int, Field(ge=1, le=8)]
Share = Annotated[float, Field(ge=0.1, le=0.9)]
Bars = Annotated[int, Field(ge=1, le=8)]
Words = Annotated[str, StringConstraints(max_length=120, strip_whitespace=True, pattern=r"^[^\r\n\t]*$")]
"""A line of the schedule that is free: who makes it, and what else is to be said."""
LeafFace = Literal["panelled", "flush", "glazed"]
SideLights = Literal["none", "start", "end", "both"]
Shutters = Literal["none", "pair"]
Returns = Literal["layers", "none"]


class Design(Element):
    """What a unit is. Sizes are those of the unit, over its frame, side lights included.

    `panels`: lights side by side in a group, or leaves of a sliding or folding door. `share`: of the first leaf of two.
    `arch`: rise of the head, within the height. `rough`: clearance on each side and above, between frame and framing.
    `returns`: whether the layers of the wall that turn into reveals do so here. `depth`: of a niche.
    """

    operation: Operation
    width: Positive
    height: Positive
    panels: Panels = 1
    share: Share = 0.5
    arch: NotNegative = 0.0
    leaf: LeafFace = "panelled"
    bars_across: Bars = 1
    bars_up: Bars = 1
    trim: NotNegative = 88.9
    side_lights: SideLights = "none"
    side_width: Positive = 300.0
    shutters: Shutters = "none"
    returns: Returns = "layers"
    threshold: NotNegative = 0.0
    rough: NotNegative = 0.0
    depth: Positive = 100.0


DESIGN_FIELDS = tuple(Design.model_fields)


class Kind(Declared):
    """A shared definition of windows, doors or niches, with the number that those which follow it show.

    `maker`, `note`: what a schedule says of it, in words.
    """

    about: ClassVar[About] = About("kind", "kinds", numbered=True, removable=True)
    id: Id
    name: Name
    number: Name
    unit: Unit
    design: Design
    maker: Words = ""
    note: Words = ""

    @model_validator(mode="after")
    def _opens(self) -> Self:
        _check_operation(self.id, self.unit, self.design.operation)
        return self


class SetIn(Element):
    """How deep a unit stands: a distance inward from a face of a layer."""

    layer: Id | None = None
    face: Literal["outer", "inner"] = "outer"
    distance: Mm = 0.0


class Opening(Standing):
    """A hole in a wall with what stands in it. `sill` is above the level of the wall's foot.

    What it does not state itself it has from its kind; what it states beside a kind are exceptions.
    """

    about: ClassVar[About] = About(
        "opening",
        "openings",
        refs=(Ref("wall", "walls", "wall"), Ref("kind", "kinds", "kind")),
        numbered=True,
        removable=True,
        group="openings",
    )
    id: Id
    wall: Id
    end: WallEnd
    distance: Mm
    sill: NotNegative
    unit: Unit
    kind: Id | None = None
    number: Name | None = None
    stays: Literal["start", "centre", "end"] = "centre"
    set_in: SetIn = SetIn()
    hinge: Literal["start", "end"] = "start"
    swing: Literal["in", "out"] = "in"
    drawn_swing: Annotated[float, Field(ge=0, le=180)] = 90.0
    operation: Operation | None = None
    width: Positive | None = None
    height: Positive | None = None
    panels: Panels | None = None
    share: Share | None = None
    arch: NotNegative | None = None
    leaf: LeafFace | None = None
    bars_across: Bars | None = None
    bars_up: Bars | None = None
    trim: NotNegative | None = None
    side_lights: SideLights | None = None
    side_width: Positive | None = None
    shutters: Shutters | None = None
    returns: Returns | None = None
    threshold: NotNegative | None = None
    rough: NotNegative | None = None
    depth: Positive | None = None
    maker: Words | None = None
    note: Words | None = None

    @model_validator(mode="after")
    def _stated(self) -> Self:
        if self.kind is None and (self.width is None or self.height is None or self.number is None):
            raise ValueError(f"{self.id}: an opening without a kind needs its width, height and number")
        if self.operation is not None:
            _check_operation(self.id, self.unit, self.operation)
        return self

    @property
    def exceptions(self) -> dict[str, Any]:
        """What it states of its design itself."""
        return {name: getattr(self, name) for name in DESIGN_FIELDS if getattr(self, name) is not None}

    def check(self, project: Project) -> None:
        """The kind that it follows is one of its own sort. Raises: ValueError."""
        kind = project.kind_of(self)
        if kind and kind.unit != self.unit:
            raise ValueError(f"{self.id}: a {self.unit} cannot follow a kind of {kind.unit}s")

    def label_in(self, project: Project) -> str:
        """Its number, or that of its kind."""
        return project.number_of(self)

    def title_in(self, project: Project) -> str:
        """What it is called beside others: its number may be that of its kind."""
        return f"{self.unit} {project.number_of(self)}"


def _check_operation(id: str, unit: Unit, operation: Operation) -> None:
    if operation not in OPERATIONS[unit]:
        raise ValueError(f"{id}: a {unit} does not open that way ({operation})")


def usual_design(unit: Unit) -> dict[str, Any]:
    """What a unit without a kind is where it states nothing: all but its width and height."""
    usual = {name: field.default for name, field in Design.model_fields.items() if not field.is_required()}
    return usual | {"operation": OPERATIONS[unit][0]}


def design_of(opening: Opening, kind: Kind | None) -> Design:
    """What stands in an opening: its kind's design, but for its exceptions."""
    base = dict(kind.design) if kind else usual_design(opening.unit)
    return Design.model_validate(base | opening.exceptions)


def words_of(opening: Opening, kind: Kind | None) -> tuple[str, str]:
    """(maker, note) of an opening: its own, or those of its kind."""
    maker = kind.maker if opening.maker is None and kind else opening.maker
    note = kind.note if opening.note is None and kind else opening.note
    return maker or "", note or ""


def number_of(opening: Opening, kind: Kind | None) -> str:
    """What is written beside an opening: its own number, or that of its kind."""
    return opening.number or (kind.number if kind else "")
