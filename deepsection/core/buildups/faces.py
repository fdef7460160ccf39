"""The layers of a wall where a junction lies, as distances outward."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from ..catalog import material
from ..model import Layer, bearing_layer
from ..resolve import Building, PlannedWall

WallForm = Literal["framed", "veneer", "cavity", "solid"]
"""A frame with cladding on it, a frame with a leaf before it, two leaves of masonry, and one."""


@dataclass(frozen=True, slots=True)
class LayerFace:
    """A layer between two distances outward (mm)."""

    layer: Layer
    outer: float
    inner: float

    @property
    def thick(self) -> float:
        """Its thickness (mm)."""
        return self.outer - self.inner

    @property
    def middle(self) -> float:
        """To its middle."""
        return (self.outer + self.inner) / 2


@dataclass(frozen=True, slots=True)
class WallFaces:
    """The layers of a wall from the outside in; `bears` is the place of the one that carries."""

    layers: tuple[LayerFace, ...]
    bears: int

    @property
    def outer(self) -> float:
        """To its outer face."""
        return self.layers[0].outer

    @property
    def inner(self) -> float:
        """To its inner face."""
        return self.layers[-1].inner

    @property
    def frame(self) -> LayerFace:
        """The layer that carries floors and roofs."""
        return self.layers[self.bears]

    @property
    def is_framed(self) -> bool:
        """Whether a frame carries."""
        return self.frame.layer.framing is not None

    @property
    def form(self) -> WallForm:
        """What sort of wall it is."""
        if self.is_framed:
            return "veneer" if self.leaf is not None and self.gap is not None else "framed"
        return "cavity" if self.leaf is not None else "solid"

    @property
    def leaf(self) -> LayerFace | None:
        """The leaf of masonry before the layer that carries."""
        before = self.layers[: self.bears]
        laid = (held for held in before if material(held.layer.material).coursing)
        return next((held for held in laid if held.layer.function in ("structure", "cladding")), None)

    @property
    def gap(self) -> LayerFace | None:
        """The air space behind the leaf, or behind the cladding."""
        return next((held for held in self.layers[: self.bears] if held.layer.function == "cavity"), None)

    @property
    def between(self) -> tuple[float, float] | None:
        """The outer and the inner face of all that lies between the two leaves."""
        return (self.leaf.inner, self.frame.outer) if self.leaf else None

    @property
    def boards(self) -> LayerFace | None:
        """The insulation between the two leaves, or outside of the frame."""
        return next((held for held in self.layers[: self.bears] if held.layer.function == "insulation"), None)

    @property
    def shell(self) -> float:
        """To the outer face of the outermost board or frame behind cladding, air and membranes."""
        for held in self.layers:
            if held.layer.function in ("sheathing", "insulation", "structure") and held is not self.leaf:
                return held.outer
        return self.outer


def wall_faces(building: Building, wall: PlannedWall, off: float = 0.0) -> WallFaces:
    """The layers of a wall as distances outward from a line that lies `off` outward of its set-out line."""
    make_up = building.placed.make_ups[wall.wall.make_up]
    layers = tuple(
        LayerFace(layer, planned.outer - off, planned.inner - off)
        for planned, layer in zip(wall.layers, make_up.layers)
    )
    return WallFaces(layers, bearing_layer(make_up))
