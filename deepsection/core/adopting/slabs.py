"""Floors of a model: a make-up as thick as its slab, of its layers, and the holes in it."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from shapely.geometry import Polygon

from ..edits import PutFloorHole
from ..geometry import polygons_of
from ..model import Layer, MakeUp, Project
from ..reading import FoundSlab
from ..trades.floors.model import FloorHole
from .make_ups import SAME, named_layer, thickness_of

LAYERED = 2.0
"""Layers count where they are together as thick as the slab, to this (mm)."""
LEAST_HOLE, MOST_HOLE = 0.2e6, 40e6
"""Smaller holes (mm2) are for pipes; larger ones are no holes."""
MOST_CORNERS = 40


def floor_make_up(project: Project, slab: FoundSlab, id: str) -> tuple[MakeUp, bool]:
    """The make-up of a floor that is a slab, and whether it is a new one.

    One of the project that is as thick, else one of the layers that the model names, else of concrete alone; where
    floors are of timber and the model names no layers, the usual joists, as deep as that makes them.
    """
    known = [held for held in project.make_ups if held.use == "floor" and held.carrying is not None]
    stack = slab.stack if abs(sum(held.thickness for held in slab.stack) - slab.thickness) <= LAYERED else ()
    name = f"Floor {slab.thickness:g}, as modelled"
    for held in known:
        alike = not stack or [layer.thickness for layer in held.layers] == [layer.thickness for layer in stack]
        if (abs(thickness_of(held) - slab.thickness) <= SAME and alike) or held.name == name:
            return held, False
    if stack:
        bearing = max(range(len(stack)), key=lambda k: stack[k].thickness)
        layers = tuple(
            named_layer(_plain(k, held.thickness, bearing), held, keep=k == bearing) for k, held in enumerate(stack)
        )
    else:
        joists = next((held for held in known if held.layers[held.carrying or 0].framing), None)
        layers = _deeper(joists, slab.thickness) if joists and project.tradition == "timber" else ()
    layers = layers or (_plain(0, slab.thickness, 0),)
    return MakeUp(id=id, name=name, use="floor", layers=layers), True


def _plain(k: int, thickness: float, bearing: int) -> Layer:
    name, material, function = (
        ("slab", "concrete", "structure")
        if k == bearing
        else ("screed", "concrete", "finish")
        if k < bearing
        else ("lining", "plaster", "lining")
    )
    return Layer.model_validate(
        {"id": f"layer-{k + 1}", "name": name, "material": material, "function": function, "thickness": thickness}
    )


JOISTS = (140.0, 420.0)


def _deeper(usual: MakeUp, thickness: float) -> tuple[Layer, ...]:
    """The layers of a joist floor with joists as deep as makes it that thick; none where these are too odd."""
    carrying = usual.carrying
    if carrying is None:
        return ()
    depth = usual.layers[carrying].thickness + thickness - thickness_of(usual)
    if not JOISTS[0] <= depth <= JOISTS[1]:
        return ()
    return tuple(
        Layer.model_validate({**layer.model_dump(), "name": f"{depth:g} joists", "thickness": round(depth, 3)})
        if k == carrying
        else layer
        for k, layer in enumerate(usual.layers)
    )


def holes_in(project: Project, slabs: Sequence[tuple[str, FoundSlab]], prefix: str) -> list[Any]:
    """Edits for the holes of slabs in the floors of their levels; those that a stair cuts itself are left to it."""
    edits: list[Any] = []
    for level, slab in slabs:
        floor = next((held for held in project.floors if held.level == level), None)
        if floor is None:
            continue
        there = [Polygon(hole.corners) for hole in project.floor_holes if hole.floor == floor.id]
        for piece in polygons_of(slab.area):
            for ring in piece.interiors:
                hole = Polygon(ring).simplify(1.0)
                corners = [(round(float(x), 2), round(float(y), 2)) for x, y in hole.exterior.coords[:-1]]
                known = any(other.intersection(hole).area > 0.5 * hole.area for other in there)
                if LEAST_HOLE <= hole.area <= MOST_HOLE and len(corners) <= MOST_CORNERS and not known:
                    id = f"{prefix}-hole{len(edits) + 1}"
                    edits.append(PutFloorHole(hole=FloorHole(id=id, floor=floor.id, corners=tuple(corners))))
    return edits
