"""Fields of foundations and their steps."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from ...catalog import usual
from ...document.rebuilding import changed
from ...edits import PutFoundation, PutFoundationStep, PutSetDown
from ...model import Foundation, FoundationStep, Project, SetDown
from ...rows.corners import rectangle_rows
from ...rows.rows import Row, action_row, choice_row, length_row, text_row

NONE = "-"
FORMS = [("wall", "foundation walls on footings"), ("deep edge", "the deep edge of the slab")]


def foundation_fields(project: Project, held: Foundation) -> list[Row]:
    """Sizes of a foundation wall and its footing, and the walls that stand on it below the floor."""
    units = project.units

    def put(**changes: Any) -> Sequence[Any]:
        return [PutFoundation(foundation=changed(held, **changes))]

    def row(id: str, label: str) -> Row:
        return length_row(id, label, getattr(held, id), units, lambda v: put(**{id: v}), least=0.0)

    deep = held.form == "deep edge"
    rows = []
    if held.slab and not held.sill and not held.top:
        rows.append(choice_row("form", "Walls stand on", held.form, FORMS, lambda t: put(form=t)))
    rows += [
        *([] if deep else [row("stem_thickness", "Wall thickness")]),
        row("footing_width", "Width at its bottom" if deep else "Footing width"),
        *([] if deep else [row("footing_depth", "Footing depth")]),
    ]
    if held.slab and not any(floor.level == held.level for floor in project.floors):
        usual_deep = {name: usual(name, units) for name in ("deep_width", "deep_depth")}
        ways = [("plain", "as deep as elsewhere"), ("deep", "deeper")]
        rows.append(
            choice_row(
                "under_walls",
                "Slab under walls that bear",
                held.under_walls,
                ways,
                lambda t: put(under_walls=t, **(usual_deep if t == "deep" else {})),
            )
        )
        if held.under_walls == "deep":
            rows += [row("deep_width", "Its width at the bottom"), row("deep_depth", "Its depth in all")]
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


def set_down_fields(project: Project, down: SetDown) -> list[Row]:
    """How far a part of a slab lies lower, and its size where it is a rectangle."""
    units = project.units

    def put(**changes: Any) -> Sequence[Any]:
        return [PutSetDown(set_down=changed(down, **changes))]

    return [
        text_row("name", "Name", down.name, lambda t: put(name=t)),
        length_row("drop", "Set down by", down.drop, units, lambda v: put(drop=v), least=0.0),
        *rectangle_rows(down.corners, units, lambda corners: put(corners=corners)),
    ]
