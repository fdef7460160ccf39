"""Fields of foundations and their steps."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from ...document.rebuilding import changed
from ...edits import PutFoundation, PutFoundationStep
from ...model import Foundation, FoundationStep, Project
from ...rows.rows import Row, action_row, choice_row, length_row

NONE = "-"


def foundation_fields(project: Project, held: Foundation) -> list[Row]:
    """Sizes of a foundation wall and its footing, and the walls that stand on it below the floor."""
    units = project.units

    def put(**changes: Any) -> Sequence[Any]:
        return [PutFoundation(foundation=changed(held, **changes))]

    def row(id: str, label: str) -> Row:
        return length_row(id, label, getattr(held, id), units, lambda v: put(**{id: v}), least=0.0)

    rows = [
        row("stem_thickness", "Wall thickness"),
        row("footing_width", "Footing width"),
        row("footing_depth", "Footing depth"),
    ]
    if held.sill:
        framed = [
            (make_up.id, make_up.name)
            for make_up in project.make_ups
            if make_up.use == "wall" and any(layer.framing for layer in make_up.layers)
        ]
        options = [(NONE, "none: plates only"), *framed]
        rows.append(
            choice_row("pony", "Pony walls", held.pony or NONE, options, lambda t: put(pony=None if t == NONE else t))
        )
    return rows


def step_fields(project: Project, step: FoundationStep) -> list[Row]:
    """Which foundation it steps, how far down and to which side."""

    def put(**changes: Any) -> Sequence[Any]:
        return [PutFoundationStep(step=changed(step, **changes))]

    turned = {"x1": step.x2, "y1": step.y2, "x2": step.x1, "y2": step.y1}
    rows = [
        length_row("drop", "Steps down by", step.drop, project.units, lambda v: put(drop=v), least=0.0),
        action_row("turn", "Lower on the other side", put(**turned)),
    ]
    if len(project.foundations) > 1:
        options = [(held.id, held.name) for held in project.foundations]
        rows.insert(0, choice_row("foundation", "Foundation", step.foundation, options, lambda t: put(foundation=t)))
    return rows
