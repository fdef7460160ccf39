"""Fields of sections, elevations, notes and sheets."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from ...edits import (
    PutDetail,
    PutElevation,
    PutNote,
    PutSection,
    PutSheet,
    changed,
)
from ...model import (
    Detail,
    ElevationView,
    Note,
    Project,
    SectionLine,
    Sheet,
)
from ...rows.rows import Row, action_row, choice_row, degrees_row, length_row, open_length_row, text_row
from .model import CUT_LEVEL
from .section_places import copy_row, members_row, place_rows, step_rows


def section_fields(project: Project, line: SectionLine) -> list[Row]:
    """Name, depth and direction of a section, and what is shown behind it."""

    def put(**changes: Any) -> Sequence[Any]:
        return [PutSection(section=changed(line, **changes))]

    rooms = [("", "the house"), *((room.id, f"the inside of {room.name}") for room in project.rooms)]
    shown = choice_row("room", "Shows", line.room or "", rooms, lambda t: put(room=t or None))
    if line.room:
        return [
            text_row("name", "Name", line.name, lambda t: put(name=t)),
            shown,
            *place_rows(project, line),
            length_row("depth", "Look depth", line.depth, project.units, lambda v: put(depth=v), least=0.0),
            action_row("turn", "Look the other way", [PutSection(section=line.turned_round)]),
            copy_row(line),
        ]
    return [
        text_row("name", "Name", line.name, lambda t: put(name=t)),
        shown,
        *place_rows(project, line),
        length_row("depth", "Look depth", line.depth, project.units, lambda v: put(depth=v), least=0.0),
        open_length_row("top", "Shows nothing above", line.top, project.units, lambda v: put(top=v)),
        open_length_row("bottom", "Shows nothing below", line.bottom, project.units, lambda v: put(bottom=v)),
        members_row(line.members, put),
        action_row("turn", "Look the other way", [PutSection(section=line.turned_round)]),
        *step_rows(project, line),
        copy_row(line),
    ]


def detail_fields(project: Project, held: Detail) -> list[Row]:
    """Name of a detail, where along its junction it is cut, and how much it shows around it."""
    units = project.units

    def put(**changes: Any) -> Sequence[Any]:
        return [PutDetail(detail=changed(held, **changes))]

    level = held.kind in CUT_LEVEL
    past, on = ("past its end", "along the wall") if level else ("below it", "above it")
    sides = (("outward", "outside of it"), ("inward", "inside of it"), ("below", past), ("above", on))
    shown = [
        open_length_row(field, f"Shows {words}", getattr(held, field), units,
                        lambda v, field=field: put(**{field: v}), least=0.0)  # type: ignore[misc]
        for field, words in sides
    ]  # fmt: skip
    where = "Up its run" if level else "Along its run"
    name, along = (
        text_row("name", "Name", held.name, lambda t: put(name=t)),
        open_length_row("along", where, held.along, units, lambda v: put(along=v), least=-1.0),
    )
    if level:
        return [name, along, *shown]
    return [
        name,
        along,
        *shown,
        length_row("depth", "Look depth", held.depth, units, lambda v: put(depth=v), least=0.0),
        members_row(held.members, put),
    ]


def elevation_fields(project: Project, view: ElevationView) -> list[Row]:
    """Name of an elevation, its direction, and what it shows."""

    def put(**changes: Any) -> Sequence[Any]:
        return [PutElevation(elevation=changed(view, **changes))]

    if view.walls:
        return [text_row("name", "Name", view.name, lambda t: put(name=t))]
    rooms = [("", "the house from outside"), *((room.id, f"the inside of {room.name}") for room in project.rooms)]
    return [
        text_row("name", "Name", view.name, lambda t: put(name=t)),
        degrees_row("look", "Looks along, degrees from east", view.look, lambda value: put(look=value)),
        choice_row("room", "Shows", view.room or "", rooms, lambda t: put(room=t or None)),
    ]


def note_fields(project: Project, note: Note) -> list[Row]:
    """The words of a note."""
    return [text_row("text", "Note", note.text, lambda t: [PutNote(note=changed(note, text=t))])]


def sheet_fields(project: Project, sheet: Sheet) -> list[Row]:
    """Number and name of a sheet."""

    def put(**changes: Any) -> Sequence[Any]:
        return [PutSheet(sheet=changed(sheet, **changes))]

    return [
        text_row("number", "Sheet number", sheet.number, lambda t: put(number=t)),
        text_row("name", "Sheet name", sheet.name, lambda t: put(name=t)),
    ]
