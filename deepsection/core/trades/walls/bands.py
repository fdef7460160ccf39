"""Where the layers of a wall lie beside its set-out line: plain arithmetic on the document."""

from __future__ import annotations

import math
from typing import NamedTuple

from ...geometry import Axis, Point
from ..makeups.model import MakeUp
from .model import Wall


class Band(NamedTuple):
    """A layer: distances outward from the set-out line to its outside and its inside, and what it does there."""

    id: str
    outer: float
    inner: float
    structure: bool = False
    bears: bool = False


Bands = tuple[Band, ...]
"""The layers of a wall, outside first."""


def bearing_layer(make_up: MakeUp) -> int:
    """Position of the layer that carries floors and roofs, as stated.

    Where it is not stated: of two frames the outer one, which the sheathing braces; of two leaves of masonry, and of a
    frame within a leaf, the inner one. Common practice, no source. Without any structure, the outermost layer.
    """
    structure = [k for k, layer in enumerate(make_up.layers) if layer.function == "structure"]
    stated = next((k for k in structure if make_up.layers[k].id == make_up.bearing), None)
    if stated is not None or not structure:
        return stated or 0
    framed = all(make_up.layers[k].framing for k in structure)
    return structure[0 if framed else -1]


def set_out_layer(make_up: MakeUp) -> int:
    """Position of the layer that walls are usually set out on: the frame that bears; of masonry the outermost leaf."""
    bears = bearing_layer(make_up)
    if make_up.layers[bears].framing:
        return bears
    return next((k for k, layer in enumerate(make_up.layers) if layer.function == "structure"), 0)


def outline_reach(wall: Wall) -> tuple[float, float]:
    """How far out and in an outline reaches from the set-out line."""
    outs = [spot.out for spot in wall.outline]
    return max(outs), min(outs)


def layer_bands(wall: Wall, make_up: MakeUp) -> Bands:
    """The layers of a wall as distances outward from its set-out line."""
    if wall.outline:
        outer, inner = outline_reach(wall)
        return (Band(make_up.layers[0].id, outer, inner, True, True),)
    reached, faces, set_out = 0.0, list[Band](), 0.0
    bears = bearing_layer(make_up)
    for position, layer in enumerate(make_up.layers):
        if layer.id == wall.set_out.layer:
            share = {"outer": 0.0, "middle": 0.5, "inner": 1.0}[wall.set_out.face]
            set_out = reached + share * layer.thickness
        structure = layer.function == "structure"
        faces.append(Band(layer.id, reached, reached + layer.thickness, structure, structure and position == bears))
        reached += layer.thickness
    shift = set_out + wall.offset
    return tuple(band._replace(outer=shift - band.outer, inner=shift - band.inner) for band in faces)


def outward_of(wall: Wall, axis: Axis) -> Point:
    """Unit vector outward of a straight wall."""
    dx, dy = axis.direction(0.0)
    return (-dy, dx) if wall.outside == "left" else (dy, -dx)


def drift_of(wall: Wall, axis: Axis) -> Point:
    """How far a leaning wall moves in plan per mm that it rises; an arc does not lean."""
    if not wall.lean or axis.is_arc:
        return 0.0, 0.0
    (x, y), steep = outward_of(wall, axis), math.tan(math.radians(wall.lean))
    return x * steep, y * steep
