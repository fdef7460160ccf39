"""Fields of the ground."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from ...edits import (
    PutGroundSpot,
    PutGroundStep,
    changed,
)
from ...model import (
    GroundSpot,
    GroundStep,
    Project,
)
from ...rows.rows import Row, action_row, length_row


def spot_fields(project: Project, spot: GroundSpot) -> list[Row]:
    """Height and place of a point of the ground."""

    def put(**changes: Any) -> Sequence[Any]:
        return [PutGroundSpot(spot=changed(spot, **changes))]

    return [
        length_row("rise", "Above grade", spot.rise, project.units, lambda v: put(rise=v)),
        length_row("x", "East", spot.x, project.units, lambda v: put(x=v)),
        length_row("y", "North", spot.y, project.units, lambda v: put(y=v)),
    ]


def step_fields(project: Project, step: GroundStep) -> list[Row]:
    """Height and direction of a step of the ground."""

    def put(**changes: Any) -> Sequence[Any]:
        return [PutGroundStep(step=changed(step, **changes))]

    turned = {"x1": step.x2, "y1": step.y2, "x2": step.x1, "y2": step.y1}
    return [
        length_row("rise", "Height of the step", step.rise, project.units, lambda v: put(rise=v)),
        action_row("turn", "Higher on the other side", put(**turned)),
    ]
