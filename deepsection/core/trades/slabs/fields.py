"""Fields of porch slabs."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from ...document.rebuilding import changed
from ...edits import PutPorchSlab
from ...errors import BadInput
from ...model import PorchSlab, Project
from ...rows.rows import Row, choice_row, degrees_row, length_row, level_options, text_row


def slab_fields(project: Project, slab: PorchSlab) -> list[Row]:
    """Height, thickness, fall and edge of a slab."""
    units = project.units
    per, unit = (304.8, "foot") if units == "ft-in" else (1000.0, "metre")

    def put(**changes: Any) -> Sequence[Any]:
        return [PutPorchSlab(slab=changed(slab, **changes))]

    def falling(value: float) -> Sequence[Any]:
        if not 0.0 <= value / per <= 0.2:
            raise BadInput("a slab falls by no more than one in five", field="fall", limit=0.2 * per)
        return put(fall=value / per)

    rows = [
        text_row("name", "Name", slab.name, lambda t: put(name=t)),
        choice_row("level", "Below", slab.level, level_options(project), lambda t: put(level=t)),
        length_row("drop", "So much below it", slab.drop, units, lambda v: put(drop=v)),
        length_row("thickness", "Thickness", slab.thickness, units, lambda v: put(thickness=v), least=0.0),
        length_row("fall", f"Fall per {unit}", slab.fall * per, units, falling),
        degrees_row("fall_to", "Falls towards, from east", slab.fall_to, lambda v: put(fall_to=v)),
        choice_row(
            "edge",
            "Free edge",
            slab.edge,
            [("plain", "as thick as the slab"), ("deep", "goes down")],
            lambda t: put(edge=t),
        ),
    ]
    if slab.edge == "deep":
        width, depth = slab.edge_width, slab.edge_depth
        rows += [
            length_row("edge_width", "Width of the edge", width, units, lambda v: put(edge_width=v), least=0.0),
            length_row("edge_depth", "Its depth below the top", depth, units, lambda v: put(edge_depth=v), least=0.0),
        ]
    return rows
