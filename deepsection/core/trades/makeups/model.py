"""Make-ups: ordered layers, and how they are framed."""

from __future__ import annotations

from typing import TYPE_CHECKING, Annotated, ClassVar, Literal

from pydantic import Field, StringConstraints

from ...document.declaring import About, Declared
from ...document.values import Element, Id, MaterialId, Name, NotNegative, Positive

if TYPE_CHECKING:
    from ...model.project import Project


Tradition = Literal["timber", "masonry"]


Function = Literal["structure", "sheathing", "membrane", "insulation", "cavity", "cladding", "lining", "finish"]


Profile = Literal["solid", "I", "open", "T"]
"""Of members: solid, an I-joist, an open-web joist, a concrete beam that blocks lie on."""


class Framing(Element):
    """Members of a structure layer. Their depth is the thickness of the layer.

    An I-joist is as thick as stated at its flanges, whose depth is `flange`, and between them as thick as its `web`.
    An open-web joist has chords in their place, with webs between. A concrete beam is an upturned T: its toes are
    `flange` high, and what fills the bays (blocks) lies on them beside its web.
    """

    spacing: Annotated[float, Field(ge=50, le=1e5)]
    thickness: Annotated[float, Field(ge=5, le=1e4)]
    bottom_plates: Annotated[int, Field(ge=0, le=3)] = 1
    top_plates: Annotated[int, Field(ge=0, le=3)] = 2
    infill: MaterialId | None = None
    profile: Profile = "solid"
    flange: Positive = 38.1
    web: Positive = 9.5

    @property
    def timber(self) -> bool:
        """Whether its members are of wood: not beams of concrete."""
        return self.profile != "T"


class WallPlate(Element):
    """The timber bedded on top of a masonry leaf, under the rafters. Its width is that of the leaf."""

    depth: Positive
    material: MaterialId = "softwood"


class Lintels(Element):
    """What carries a leaf over its openings: depth, and how far it bears on each side."""

    depth: Positive
    bearing: Positive
    material: MaterialId = "concrete"


class Sheets(Element):
    """What a layer of a floor is laid in: its long sides lie across the joists (mm)."""

    length: Annotated[float, Field(ge=300, le=1e4)]
    width: Annotated[float, Field(ge=100, le=1e4)]


LayerNote = Annotated[str, StringConstraints(min_length=1, max_length=200, strip_whitespace=True)]


class Layer(Element):
    """One sheet of a make-up. With `reveal`, it turns into the reveals of openings, up to a gap before their frame.

    `note`: what every drawing says of it, where that is not what its name and sizes say.
    """

    id: Id
    name: Name
    material: MaterialId
    function: Function
    thickness: Positive
    framing: Framing | None = None
    wall_plate: WallPlate | None = None
    lintels: Lintels | None = None
    sheets: Sheets | None = None
    reveal: Literal["no", "frame"] = "no"
    reveal_gap: NotNegative = 0.0
    note: LayerNote | None = None


class MakeUp(Declared):
    """Ordered layers: outside to inside for walls, top to bottom for floors, ceilings and roofs.

    `bearing`: of walls, the structure layer that carries floors and roofs; `bearing_layer` says which where it is not
    stated. `corner_boards`: of walls, the width of the boards on their outside corners; 0 for none.
    """

    about: ClassVar[About] = About("make-up", "make-ups", removable=True)
    id: Id
    name: Name
    use: Literal["wall", "slab", "floor", "ceiling", "roof"]
    layers: Annotated[tuple[Layer, ...], Field(min_length=1)]
    corner_boards: NotNegative = 0.0
    bearing: Id | None = None

    @property
    def carrying(self) -> int | None:
        """Position of the layer that carries, of floors: the framed one, else the first that is structure."""
        framed = (k for k, layer in enumerate(self.layers) if layer.framing)
        solid = (k for k, layer in enumerate(self.layers) if layer.function == "structure")
        return next(framed, next(solid, None))

    @property
    def is_slab(self) -> bool:
        """Whether it is carried by a layer without members, of floors."""
        return self.carrying is not None and self.layers[self.carrying].framing is None

    @property
    def depth(self) -> float:
        """From the top of a floor down to what its joists or its slab bear on (mm); all of it where nothing carries."""
        last = len(self.layers) if self.carrying is None else self.carrying + 1
        return sum(layer.thickness for layer in self.layers[:last])

    def check(self, project: Project) -> None:
        """Its layers are told apart by their ids. Raises: ValueError."""
        if len({layer.id for layer in self.layers}) != len(self.layers):
            raise ValueError(f"{self.id}: two layers have one id")
