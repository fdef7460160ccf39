"""Fields of levels, foundations, floors and ceilings."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from ..model import Ceiling, Floor, Foundation, Project, Rung, changed, plate_of, rise, term_value
from ..model.edits import (
    PutCeiling,
    PutFloor,
    PutFoundation,
    PutRung,
    RemoveStorey,
    SetTerm,
    SetTotal,
    floor_terms,
    storey_above,
)
from .rows import Field, Row, action_row, choice_row, length_row, level_options, text_row


def rung_fields(project: Project, rung: Rung) -> list[Row]:
    """Name, parts and total of a level; a storey to add or to take away."""
    units = project.units
    rows = [text_row("name", "Name", rung.name, lambda t: [PutRung(rung=changed(rung, name=t))])]
    for term in rung.terms:
        count = f"{term.count} x " if term.count > 1 else ""
        rows.append(
            length_row(
                f"term:{term.id}",
                f"{count}{term.name}",
                term_value(term, project.make_ups),
                units,
                lambda v, id=term.id: [SetTerm(rung=rung.id, term=id, value=v)],  # type: ignore[misc]
            )
        )
    if rung.terms:
        base = next(held.name for held in project.rungs if held.id == rung.from_rung)
        word = "Above" if rung.direction == "up" else "Below"
        total = rise(rung, project.make_ups)
        rows.append(
            length_row("total", f"{word} {base}, in all", total, units, lambda v: [SetTotal(rung=rung.id, total=v)])
        )
    return [*rows, *_storey_actions(project, rung)]


def _storey_actions(project: Project, rung: Rung) -> list[Row]:
    """A storey more above the level of one that has none above; the one on a joist floor may go."""
    plate = plate_of(project.rungs, rung.id)
    if plate is None or any(floor.bearing == plate.id for floor in project.floors):
        return []
    rows = []
    if any(make_up.use == "floor" for make_up in project.make_ups):
        add = Field("add_storey", "Add a storey above", "action", "")
        rows.append(Row(add, lambda _: [storey_above(project, rung.id)]))
    floor = next((floor for floor in project.floors if floor.level == rung.id), None)
    if floor and any(held.id == floor.bearing and held.surface == "plate" for held in project.rungs):
        rows.append(action_row("remove_storey", "Remove this storey", [RemoveStorey(level=rung.id)]))
    return rows


def foundation_fields(project: Project, held: Foundation) -> list[Row]:
    """Sizes of a foundation wall and its footing."""
    units = project.units

    def row(id: str, label: str) -> Row:
        return length_row(
            id,
            label,
            getattr(held, id),
            units,
            lambda v: [PutFoundation(foundation=changed(held, **{id: v}))],
            least=0.0,
        )

    return [
        row("stem_thickness", "Wall thickness"),
        row("footing_width", "Footing width"),
        row("footing_depth", "Footing depth"),
    ]


_SPANS = [
    ("short", "the short way"),
    ("east-west", "east to west"),
    ("north-south", "north to south"),
]


def floor_fields(project: Project, held: Floor) -> list[Row]:
    """Make-up, bearing and direction of a joist floor."""

    def put(**changes: Any) -> Sequence[Any]:
        return [PutFloor(floor=changed(held, **changes))]

    return [
        text_row("name", "Name", held.name, lambda t: put(name=t)),
        choice_row(
            "make_up",
            "Make-up",
            held.make_up,
            [(make_up.id, make_up.name) for make_up in project.make_ups if make_up.use == "floor"],
            lambda t: [PutFloor(floor=changed(held, make_up=t)), *_rises_by(project, held, t)],
        ),
        choice_row("bearing", "Joists bear on", held.bearing, level_options(project), lambda t: put(bearing=t)),
        choice_row("span", "Joists run", held.span, _SPANS, lambda t: put(span=t)),
    ]


def _rises_by(project: Project, floor: Floor, make_up: str) -> Sequence[Any]:
    """The level of a floor, its parts taken from another make-up where they were taken from the present one."""
    rung = next(rung for rung in project.rungs if rung.id == floor.level)
    others = [term for term in rung.terms if term.layer is None or term.layer.make_up != floor.make_up]
    terms = floor_terms(next(held for held in project.make_ups if held.id == make_up))
    if len(others) == len(rung.terms) or not terms:
        return []
    free = rung.free if rung.free in {term.id for term in others} else terms[0].id
    return [PutRung(rung=changed(rung, terms=(*others, *terms), free=free))]


def ceiling_fields(project: Project, held: Ceiling) -> list[Row]:
    """Bearing and direction of a ceiling."""
    return [
        choice_row(
            "span",
            "Joists run",
            held.span,
            [("roof", "as the rafters"), *_SPANS],
            lambda t: [PutCeiling(ceiling=changed(held, span=t))],
        ),
        choice_row(
            "level",
            "Joists bear on",
            held.level,
            level_options(project),
            lambda t: [PutCeiling(ceiling=changed(held, level=t))],
        ),
    ]
