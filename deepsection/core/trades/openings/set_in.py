"""How deep a unit stands in its wall, where nothing is said: behind the cladding; in inner walls its frame fills it."""

from __future__ import annotations

from ...model import Layer, MakeUp, Opening, Wall
from .model import SetIn


def fills_wall(wall: Wall, opening: Opening) -> bool:
    """Whether the frame is as deep as the wall: that of a door in an inner wall, unless it is set in otherwise."""
    return wall.status == "inner" and opening.unit == "door" and opening.set_in == SetIn()


def set_in_layer(wall: Wall, opening: Opening, make_up: MakeUp) -> Layer:
    """The layer that a unit is set in from: as stated, else the first that is no cladding."""
    layers = make_up.layers
    stated = next((held for held in layers if held.id == opening.set_in.layer), None)
    if stated is not None or fills_wall(wall, opening):
        return stated or layers[0]
    return next((held for held in layers if held.function in ("sheathing", "structure")), layers[0])
