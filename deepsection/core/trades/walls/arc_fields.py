"""Fields of the curve of a wall: its rise, and its radius to the set-out line and to either face."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import Any

from ...edits import BendWall, StraightenWall
from ...errors import RefusedEdit
from ...model import Project, Wall, layer_bands, wall_axis
from ...rows.rows import Row, action_row, length_row


def arc_fields(project: Project, wall: Wall) -> list[Row]:
    """The rise of any wall, outward from its chord; of an arc also all its radii, and how to straighten it."""
    axis, units = wall_axis(project, wall), project.units
    side = 1.0 if wall.outside == "left" else -1.0
    rise = length_row(
        "rise",
        "Bows out by",
        -axis.turn * side * axis.rise if axis.is_arc else 0.0,
        units,
        lambda value: [BendWall(wall=wall.id, rise=side * value)],
    )
    if not axis.is_arc:
        return [rise]
    bands = layer_bands(wall, next(held for held in project.make_ups if held.id == wall.make_up))
    faces = (
        ("radius", "Radius, set-out line", 0.0),
        ("radius_outside", "Radius, outside", side * bands[0].outer),
        ("radius_inside", "Radius, inside", side * bands[-1].inner),
    )

    def to_face(left: float) -> Callable[[float], Sequence[Any]]:
        def edits(radius: float) -> Sequence[Any]:
            own = radius + axis.turn * left
            if own <= 0:
                raise RefusedEdit(
                    "that radius leaves nothing of the arc: the wall is thicker", element=wall.id, value=radius
                )
            return [BendWall(wall=wall.id, radius=own)]

        return edits

    return [
        rise,
        *(
            length_row(id, label, axis.radius() - axis.turn * left, units, to_face(left), least=0.0)
            for id, label, left in faces
        ),
        action_row("straighten", "Make it straight", [StraightenWall(wall=wall.id)]),
    ]
