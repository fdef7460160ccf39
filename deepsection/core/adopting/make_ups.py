"""Make-ups for walls that were read: the project's own where one is as thick, else one made to measure."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass
from typing import get_args

from ..catalog import materials
from ..errors import BadInput
from ..model import Layer, MakeUp, Project
from ..reading import FoundLayer, FoundWall
from ..trades.makeups.model import Framing, Function

AS_DRAWN = "as drawn"
"""Chosen instead of a make-up of the project: one to measure."""
SAME = 1.0
"""A make-up this close to the thickness that was drawn (mm) is the one that was meant."""
STRUCTURE = (60.0, 320.0)
"""A frame or leaf is between these (mm); otherwise the wall is of one layer. Common practice, no source."""
LINING = 30.0
"""Layers drawn up to this thick (mm), on the inside, are linings."""
LEAF = 70.0


@dataclass(frozen=True, slots=True)
class Group:
    """Walls of one thickness, outer or inner: what they are called for a choice, how many there are, and how long (mm).

    `make_up` is the id of the one proposed, or `AS_DRAWN`.
    """

    key: str
    thickness: float
    outer: bool
    layers: tuple[float, ...]
    count: int
    length: float
    make_up: str
    stack: tuple[FoundLayer, ...] = ()


def thickness_of(make_up: MakeUp) -> float:
    """All of its layers together (mm)."""
    return sum(layer.thickness for layer in make_up.layers)


def key_of(wall: FoundWall) -> str:
    """What the group of a wall is called: `300 outer`."""
    return f"{wall.thickness:g} {'outer' if wall.outer else 'inner'}"


def groups_of(project: Project, walls: Sequence[FoundWall]) -> list[Group]:
    """The thicknesses of a plan, the longest first, each with the make-up proposed."""
    held: dict[str, list[FoundWall]] = {}
    for wall in walls:
        held.setdefault(key_of(wall), []).append(wall)
    found = []
    for key, members in held.items():
        first = max(members, key=lambda wall: (len(wall.stack), len(wall.layers), wall.length))
        found.append(
            Group(
                key,
                first.thickness,
                first.outer,
                _from_outside(first),
                len(members),
                sum(wall.length for wall in members),
                _proposed(project, first),
                first.stack,
            )
        )
    return sorted(found, key=lambda group: (-group.length, group.key))


def _from_outside(wall: FoundWall) -> tuple[float, ...]:
    return wall.layers if wall.outside == "left" else wall.layers[::-1]


def _proposed(project: Project, wall: FoundWall) -> str:
    """The project's make-up of that thickness: of several, one of the right place and of as many layers as drawn."""
    if not wall.thickness:
        return _usual(project, outer=wall.outer).id
    fits = [
        held for held in project.make_ups if held.use == "wall" and abs(thickness_of(held) - wall.thickness) <= SAME
    ]
    if wall.stack:
        fits = [held for held in fits if _layered_alike(held, wall.stack)]
    usual = _usual(project, outer=wall.outer)
    if usual in fits:
        return usual.id
    placed = [held for held in fits if _is_outer(held) == wall.outer]
    return placed[0].id if placed else AS_DRAWN


def _layered_alike(make_up: MakeUp, stack: Sequence[FoundLayer]) -> bool:
    """Whether a make-up has the layers that a file names, as thick as it has them."""
    return len(make_up.layers) == len(stack) and all(
        abs(layer.thickness - held.thickness) <= SAME for layer, held in zip(make_up.layers, stack)
    )


def _is_outer(make_up: MakeUp) -> bool:
    return any(
        layer.function in ("cladding", "cavity", "sheathing") or layer.material == "render" for layer in make_up.layers
    )


def _usual(project: Project, *, outer: bool) -> MakeUp:
    """The usual make-up of outer or inner walls: the first and the last. Raises: BadInput."""
    walls = [held for held in project.make_ups if held.use == "wall"]
    if not walls:
        raise BadInput("this project has no make-up for walls", field="make_up")
    return walls[0 if outer else -1]


def made_to_measure(project: Project, group: Group, id: str) -> MakeUp:
    """A make-up as thick as drawn: of the layers that were drawn, else the usual one with another frame or leaf."""
    name = f"{'Outer' if group.outer else 'Inner'} wall {group.thickness:g}, as drawn"
    taken = {held.name for held in project.make_ups}
    name = next(text for text in (name, *(f"{name} {n}" for n in range(2, len(taken) + 3))) if text not in taken)
    layers = _drawn_layers(project, group.layers) if len(group.layers) > 1 else _stretched(project, group)
    if len(group.stack) == len(layers):
        layers = tuple(named_layer(layer, held) for layer, held in zip(layers, group.stack))
    return MakeUp(id=id, name=name, use="wall", layers=layers)


WORDS = {
    "brick": ("brick",), "block": ("block", "masonry"), "concrete": ("concrete",), "render": ("render", "stucco"),
    "plaster": ("plaster",), "gypsum": ("gypsum", "drywall", "plasterboard"), "plywood": ("plywood", "osb"),
    "softwood": ("timber", "wood", "stud", "frame", "softwood"),
    "quilt": ("wool", "quilt", "batt"), "rigid": ("insulation", "foam", "eps", "xps", "rigid"),
    "membrane": ("membrane", "barrier", "foil"), "air": ("air", "cavity"),
}  # fmt: skip
"""Words in the names of materials, for those of the catalogue. Common practice, no source."""


def named_layer(layer: Layer, held: FoundLayer, *, keep: bool = False) -> Layer:
    """A layer of the material that a file names, where the catalogue has it; what it does where that is one of ours
    (unless what it does is to be kept)."""
    known = materials()
    said = held.material.casefold()
    exact = next((id for id, own in known.items() if own.name.casefold() == said), None)
    words = set(re.findall(r"[a-z]+", said))
    material = exact or next((id for id, of in WORDS.items() if id in known and words & set(of)), layer.material)
    function = held.function if held.function in get_args(Function) and not keep else layer.function
    changes: dict[str, object] = {"name": held.name, "material": material, "function": function}
    if function != "structure" or material != layer.material:
        changes["framing"] = None
    return _changed(layer, **changes)


def _stretched(project: Project, group: Group) -> tuple[Layer, ...]:
    usual = _usual(project, outer=group.outer)
    carrying = max(
        (k for k, layer in enumerate(usual.layers) if layer.function == "structure"),
        key=lambda k: (usual.layers[k].framing is not None, k),
    )
    rest = thickness_of(usual) - usual.layers[carrying].thickness
    left = group.thickness - rest
    if STRUCTURE[0] <= left <= STRUCTURE[1]:
        return tuple(
            _changed(layer, thickness=round(left, 4)) if k == carrying else layer
            for k, layer in enumerate(usual.layers)
        )
    return (_changed(usual.layers[carrying], thickness=group.thickness),)


def _changed(layer: Layer, **changes: object) -> Layer:
    return Layer.model_validate(layer.model_dump() | changes)


def _drawn_layers(project: Project, drawn: tuple[float, ...]) -> tuple[Layer, ...]:
    """Layers for thicknesses from the outside in: leaves, cavity between them, lining; common practice, no source."""
    masonry = project.tradition == "masonry"
    last = len(drawn) - 1
    thick = [k for k, t in enumerate(drawn) if t >= LEAF]
    inner = max(
        (k for k in thick if k > 0 or len(thick) == 1),
        key=lambda k: (k, drawn[k]),
        default=max(range(len(drawn)), key=lambda k: drawn[k]),
    )
    layers = []
    for k, t in enumerate(drawn):
        id = f"layer-{k + 1}"
        if k == inner:
            framing = None if masonry else Framing(spacing=400.0, thickness=38.0, infill="quilt")
            material = "block" if masonry else "softwood"
            layers.append(
                Layer(
                    id=id,
                    name="inner leaf" if masonry else "frame",
                    material=material,
                    function="structure",
                    thickness=t,
                    framing=framing,
                )
            )
        elif k == 0 and t >= LEAF:
            layers.append(
                Layer(
                    id=id,
                    name="outer leaf",
                    material="brick",
                    function="structure" if masonry else "cladding",
                    thickness=t,
                )
            )
        elif k > inner or (k == last and t <= LINING):
            material = "plaster" if masonry else "gypsum"
            layers.append(Layer(id=id, name="lining", material=material, function="lining", thickness=t))
        elif k == 0:
            material = "render" if masonry else "lap_board"
            layers.append(
                Layer(
                    id=id,
                    name="outer face",
                    material=material,
                    function="finish" if masonry else "cladding",
                    thickness=t,
                )
            )
        elif t <= 60.0:
            layers.append(Layer(id=id, name="cavity", material="air", function="cavity", thickness=t))
        else:
            layers.append(Layer(id=id, name="insulation", material="rigid", function="insulation", thickness=t))
    return tuple(layers)
