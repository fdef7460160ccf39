"""Where the layers of a wall lie beside its set-out line: plain arithmetic on the document."""

from __future__ import annotations

import math

from ..geometry import Axis, Point
from .elements import MakeUp, Wall

Bands = tuple[tuple[str, float, float, bool], ...]
"""Layers as (id, outer, inner, is structure), distances outward from the set-out line."""


def outline_reach(wall: Wall) -> tuple[float, float]:
    """How far out and in an outline reaches from the set-out line."""
    outs = [spot.out for spot in wall.outline]
    return max(outs), min(outs)


def layer_bands(wall: Wall, make_up: MakeUp) -> Bands:
    """The layers of a wall as distances outward from its set-out line."""
    if wall.outline:
        outer, inner = outline_reach(wall)
        return ((make_up.layers[0].id, outer, inner, True),)
    reached, faces = 0.0, []
    set_out = 0.0
    for layer in make_up.layers:
        if layer.id == wall.set_out.layer:
            share = {"outer": 0.0, "middle": 0.5, "inner": 1.0}[wall.set_out.face]
            set_out = reached + share * layer.thickness
        faces.append((layer.id, reached, reached + layer.thickness, layer.function == "structure"))
        reached += layer.thickness
    shift = set_out + wall.offset
    return tuple((id, shift - outer, shift - inner, structure) for id, outer, inner, structure in faces)


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
