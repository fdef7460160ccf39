"""Fields of levels and storeys."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any, Literal

from ...document.ids import free_among, free_ids
from ...edits import (
    AddRung,
    PutRung,
    RemoveStorey,
    SetTerm,
    SetTotal,
    changed,
    storey_above,
)
from ...errors import BadInput
from ...model import Project, Rung, Term, plate_of, rise, term_value
from ...rows.rows import Field, Row, action_row, choice_row, length_row, text_row
from ...units import parse_length


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

    def put(**changes: Any) -> Sequence[Any]:
        return [PutRung(rung=changed(rung, **changes))]

    if rung.from_rung is not None:
        rows += _part_rows(project, rung)
        rows.append(
            choice_row(
                "locked",
                "Its height",
                "locked" if rung.locked else "free",
                [("free", "may change"), ("locked", "is locked")],
                lambda t: put(locked=t == "locked"),
            )
        )
    rows.append(
        choice_row(
            "hidden",
            "In drawings",
            "hidden" if rung.hidden else "shown",
            [("shown", "shown"), ("hidden", "hidden")],
            lambda t: put(hidden=t == "hidden"),
        )
    )
    rows += [_insert_row(project, rung, direction) for direction in ("up", "down")]
    return [*rows, *_storey_actions(project, rung)]


def _part_rows(project: Project, rung: Rung) -> list[Row]:
    """Parts added to a height, or taken out of it."""
    example = 'screed: 2"' if project.units == "ft-in" else "screed: 65"

    def add(text: str) -> Sequence[Any]:
        name, colon, size = text.partition(":")
        if not (name.strip() and colon):
            raise BadInput(
                f"write what the part is, a colon and its size, such as {example}", field="add_part", value=text
            )
        value = parse_length(size, project.units)
        if value <= 0:
            raise BadInput("a part of a height must be more than nothing", field="add_part", value=text, limit=0.0)
        id = next(free_among({term.id for term in rung.terms}, "part"))
        part = Term(id=id, name=name.strip(), value=value)
        return [PutRung(rung=changed(rung, terms=(*rung.terms, part)))]

    rows = [Row(Field("add_part", f"Add a part, such as {example}", "text", ""), add)]
    loose = [("-", "none")] + [(term.id, term.name) for term in rung.terms if term.id != rung.free]
    if len(loose) > 1:

        def take(text: str) -> Sequence[Any]:
            kept = tuple(term for term in rung.terms if term.id != text)
            return [] if text == "-" else [PutRung(rung=changed(rung, terms=kept))]

        rows.append(choice_row("take_part", "Take out a part", "-", loose, take))
    return rows


def _insert_row(project: Project, rung: Rung, direction: Literal["up", "down"]) -> Row:
    """A level more, measured from this one."""
    id = next(free_ids(project, "level"))
    word = "above" if direction == "up" else "below"

    def edits(text: str) -> Sequence[Any]:
        rise = parse_length(text, project.units)
        if rise <= 0:
            raise BadInput(f"a level {word} needs a height of more than nothing", field=f"insert_{word}", value=text)
        return [AddRung(id=id, name=id.replace("-", " ").capitalize(), base=rung.id, rise=rise, direction=direction)]

    return Row(Field(f"insert_{word}", f"Insert a level {word} it, by", "length", ""), edits)


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
