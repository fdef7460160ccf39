"""Fields of chimneys, of roof windows, pipes and vents, and of downpipes."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from ...catalog import material
from ...edits import PutChimney, PutDownpipe, PutFitting, changed
from ...model import Chimney, Downpipe, Project, RoofFitting
from ...rows.rows import Field, Row, choice_row, length_row, level_options
from ...units import format_length, parse_length
from .model import ON_ROOFS

STACKS = ("brick", "brick_modular", "stone", "block", "block_modular", "render", "concrete")
CRICKETS = [("rule", "where it is wide enough to need one"), ("yes", "always"), ("no", "none")]


def chimney_fields(project: Project, chimney: Chimney) -> list[Row]:
    """Sizes, heights and place of a chimney."""
    units = project.units

    def put(**changes: Any) -> Sequence[Any]:
        return [PutChimney(chimney=changed(chimney, **changes))]

    def above(text: str) -> Sequence[Any]:
        return put(above=parse_length(text, units) if text.strip() else None)

    turns = sorted({0.0, 30.0, 45.0, 60.0, 90.0, chimney.turn})
    own = format_length(chimney.above, units) if chimney.above is not None else ""
    return [
        length_row("width", "Width", chimney.width, units, lambda v: put(width=v), least=0.0),
        length_row("depth", "Depth", chimney.depth, units, lambda v: put(depth=v), least=0.0),
        length_row("flue", "Flue", chimney.flue, units, lambda v: put(flue=v), least=0.0),
        Row(Field("above", "Above the roof, else by the rule", "text", own), above),
        choice_row("cricket", "Cricket behind it", chimney.cricket, CRICKETS, lambda t: put(cricket=t)),
        choice_row(
            "material",
            "Material",
            chimney.material,
            [(id, material(id).name) for id in STACKS],
            lambda t: put(material=t),
        ),
        choice_row(
            "turn",
            "Turned by",
            f"{chimney.turn:g}",
            [(f"{a:g}", f"{a:g}°") for a in turns],
            lambda t: put(turn=float(t)),
        ),
        choice_row(
            "base",
            "Stands on",
            chimney.base.level,
            level_options(project),
            lambda t: put(base=changed(chimney.base, level=t)),
        ),
        length_row(
            "base_offset",
            "Foot above that",
            chimney.base.offset,
            units,
            lambda v: put(base=changed(chimney.base, offset=v)),
        ),
        length_row("x", "From the origin, east", chimney.x, units, lambda v: put(x=v)),
        length_row("y", "From the origin, north", chimney.y, units, lambda v: put(y=v)),
    ]


def fitting_fields(project: Project, held: RoofFitting) -> list[Row]:
    """Kind, sizes and place of a roof window, a pipe or a vent."""
    units = project.units

    def put(**changes: Any) -> Sequence[Any]:
        return [PutFitting(fitting=changed(held, **changes))]

    kinds = [(kind, ON_ROOFS[kind]) for kind in ("window", "pipe", "vent")]
    rows = [choice_row("fitting", "This is a", held.fitting, kinds, lambda t: put(fitting=t))]
    if held.fitting == "pipe":
        rows.append(length_row("width", "Diameter", held.width, units, lambda v: put(width=v, length=v), least=0.0))
    else:
        rows += [
            length_row("width", "Width along the eave", held.width, units, lambda v: put(width=v), least=0.0),
            length_row("length", "Length up the slope", held.length, units, lambda v: put(length=v), least=0.0),
        ]
    return [
        *rows,
        length_row("height", "Above the covering", held.height, units, lambda v: put(height=v), least=0.0),
        length_row("x", "From the origin, east", held.x, units, lambda v: put(x=v)),
        length_row("y", "From the origin, north", held.y, units, lambda v: put(y=v)),
    ]


def downpipe_fields(project: Project, pipe: Downpipe) -> list[Row]:
    """Place and size of a downpipe."""
    units = project.units

    def put(**changes: Any) -> Sequence[Any]:
        return [PutDownpipe(pipe=changed(pipe, **changes))]

    return [
        length_row("distance", "From the start of the eave", pipe.distance, units, lambda v: put(distance=v)),
        length_row("size", "Size", pipe.size, units, lambda v: put(size=v), least=0.0),
    ]
