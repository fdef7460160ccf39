"""Fields of joints: where a corner stands, or how far along its wall what ends on it does."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from ...edits import MoveJoint, PutJoint, changed
from ...model import FreeJoint, Project, TeeJoint
from ...model.places import joint_point
from ...rows.rows import Row, length_row


def joint_fields(project: Project, joint: FreeJoint | TeeJoint) -> list[Row]:
    """The place of a joint."""
    units = project.units
    if isinstance(joint, TeeJoint):
        label = f"From the {joint.end} of the wall that it stands on"

        def along(distance: float) -> Sequence[Any]:
            return [PutJoint(joint=changed(joint, distance=distance))]

        return [length_row("distance", label, joint.distance, units, along)]
    x, y = joint_point(project, joint.id)

    def move(x: float, y: float) -> Sequence[Any]:
        return [MoveJoint(joint=joint.id, x=x, y=y)]

    return [
        length_row("x", "East of the origin", x, units, lambda v: move(v, y)),
        length_row("y", "North of the origin", y, units, lambda v: move(x, v)),
    ]
