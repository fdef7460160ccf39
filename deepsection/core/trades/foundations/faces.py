"""Where what stands on a foundation has its faces."""

from __future__ import annotations

from dataclasses import dataclass

from ...catalog import material
from ...model import MakeUp, bearing_layer
from ..walls.planned import PlannedWall


@dataclass(frozen=True, slots=True)
class FootFaces:
    """What of a wall stands on its foundation: distances outward from its set-out line.

    `ledge`: to the outside of the outermost that stands there, cladding of brick and stone included; `structure`: to
    the outside of its outermost structure, from which foundation walls have their thickness; `outer`, `inner`: to the
    faces of the layer that bears, under which the sill plate lies.
    """

    ledge: float
    structure: float
    outer: float
    inner: float


def foot_faces(wall: PlannedWall, make_up: MakeUp) -> FootFaces:
    """Where what stands on a foundation has its faces."""
    layers = list(zip(wall.layers, make_up.layers))
    structure = [planned for planned, layer in layers if layer.function == "structure"]
    if not structure:
        return FootFaces(wall.outer, wall.outer, wall.outer, wall.inner)
    # Cladding laid in units stands on the foundation wall before the frame. Common practice, no source.
    claddings = (held for held in layers if held[1].function == "cladding")
    standing = (planned.outer for planned, layer in claddings if material(layer.material).coursing)
    outside, bears = structure[0].outer, wall.layers[bearing_layer(make_up)]
    return FootFaces(max([*standing, outside]), outside, bears.outer, bears.inner)
