"""The table of fields: per kind of element, label, kind, present text, and the edits of a new text."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from typing import Any

from ..errors import BadInput
from ..model import (
    Beam,
    Ceiling,
    Chimney,
    ConstructionLine,
    Downpipe,
    ElevationView,
    Floor,
    Foundation,
    FreeJoint,
    GridLine,
    GroundSpot,
    GroundStep,
    HostedJoint,
    Kind,
    MakeUp,
    Note,
    Opening,
    OutsideSteps,
    Post,
    Project,
    Rail,
    RoofBlock,
    RoofFitting,
    Room,
    Rung,
    SectionLine,
    Sheet,
    Wall,
    changed,
)
from ..model.edits import (
    PutConstruction,
    PutElevation,
    PutGrid,
    PutGroundSpot,
    PutGroundStep,
    PutNote,
    PutRoom,
    PutSection,
    PutSheet,
    SetProject,
)
from ..units import format_pitch, parse_pitch
from ._joint_fields import joint_fields
from ._make_up_fields import make_up_fields
from ._on_roof_fields import chimney_fields, downpipe_fields, fitting_fields
from ._opening_fields import kind_fields, opening_fields
from ._outdoor_fields import rail_fields, steps_fields
from ._post_fields import beam_fields, post_fields
from ._roof_fields import roof_fields
from ._storey_fields import ceiling_fields, floor_fields, foundation_fields, rung_fields
from ._wall_fields import wall_fields
from .rows import Field, Row, action_row, choice_row, length_row, text_row


def fields_of(project: Project, element: Any) -> list[Row]:
    """Every field of an element, in the order in which it is shown."""
    make = _TABLE.get(type(element))
    return make(project, element) if make else []


def _section(project: Project, line: SectionLine) -> list[Row]:
    def put(**changes: Any) -> Sequence[Any]:
        return [PutSection(section=changed(line, **changes))]

    return [
        text_row("name", "Name", line.name, lambda t: put(name=t)),
        length_row("depth", "Look depth", line.depth, project.units, lambda v: put(depth=v), least=0.0),
        choice_row(
            "members",
            "Rafters and joists behind the cut",
            "shown" if line.members else "left out",
            [("left out", "left out"), ("shown", "shown")],
            lambda t: put(members=t == "shown"),
        ),
        action_row("turn", "Look the other way", put(look="right" if line.look == "left" else "left")),
    ]


def _elevation(project: Project, view: ElevationView) -> list[Row]:
    def put(**changes: Any) -> Sequence[Any]:
        return [PutElevation(elevation=changed(view, **changes))]

    def look(text: str) -> Sequence[Any]:
        try:
            degrees = float(text.strip().rstrip("°").replace(",", "."))
        except ValueError:
            raise BadInput("type an angle in degrees, such as 30", field="look", value=text) from None
        return put(look=math.remainder(degrees, 360.0))

    if view.walls:
        return [text_row("name", "Name", view.name, lambda t: put(name=t))]
    rooms = [("", "the house from outside"), *((room.id, f"the inside of {room.name}") for room in project.rooms)]
    return [
        text_row("name", "Name", view.name, lambda t: put(name=t)),
        Row(Field("look", "Looks along, degrees from east", "text", f"{view.look:g}°"), look),
        choice_row("room", "Shows", view.room or "", rooms, lambda t: put(room=t or None)),
    ]


def _room(project: Project, room: Room) -> list[Row]:
    def put(**changes: Any) -> Sequence[Any]:
        return [PutRoom(room=changed(room, **changes))]

    def vault(text: str) -> Sequence[Any]:
        return put(vault=parse_pitch(text) if text.strip() else None)

    pitch = format_pitch(room.vault, project.units) if room.vault else ""
    return [
        text_row("name", "Name", room.name, lambda t: put(name=t)),
        Row(Field("vault", "Vaulted at pitch, else flat", "text", pitch), vault),
    ]


def _note(project: Project, note: Note) -> list[Row]:
    return [text_row("text", "Note", note.text, lambda t: [PutNote(note=changed(note, text=t))])]


def _sheet(project: Project, sheet: Sheet) -> list[Row]:
    def put(**changes: Any) -> Sequence[Any]:
        return [PutSheet(sheet=changed(sheet, **changes))]

    return [
        text_row("number", "Sheet number", sheet.number, lambda t: put(number=t)),
        text_row("name", "Sheet name", sheet.name, lambda t: put(name=t)),
    ]


def _through(project: Project, line: ConstructionLine | GridLine, put: Callable[..., Sequence[Any]]) -> list[Row]:
    return [
        length_row("x", "Through, east", line.x, project.units, lambda v: put(x=v)),
        length_row("y", "Through, north", line.y, project.units, lambda v: put(y=v)),
    ]


def _construction(project: Project, line: ConstructionLine) -> list[Row]:
    def put(**changes: Any) -> Sequence[Any]:
        return [PutConstruction(line=changed(line, **changes))]

    return _through(project, line, put)


def _grid(project: Project, line: GridLine) -> list[Row]:
    def put(**changes: Any) -> Sequence[Any]:
        return [PutGrid(line=changed(line, **changes))]

    return [
        text_row("name", "Name", line.name, lambda t: put(name=t)),
        *_through(project, line, put),
    ]


def _ground_spot(project: Project, spot: GroundSpot) -> list[Row]:
    def put(**changes: Any) -> Sequence[Any]:
        return [PutGroundSpot(spot=changed(spot, **changes))]

    return [
        length_row("rise", "Above grade", spot.rise, project.units, lambda v: put(rise=v)),
        length_row("x", "East", spot.x, project.units, lambda v: put(x=v)),
        length_row("y", "North", spot.y, project.units, lambda v: put(y=v)),
    ]


def _ground_step(project: Project, step: GroundStep) -> list[Row]:
    def put(**changes: Any) -> Sequence[Any]:
        return [PutGroundStep(step=changed(step, **changes))]

    turned = {"x1": step.x2, "y1": step.y2, "x2": step.x1, "y2": step.y1}
    return [
        length_row("rise", "Height of the step", step.rise, project.units, lambda v: put(rise=v)),
        action_row("turn", "Higher on the other side", put(**turned)),
    ]


def _project(project: Project, _: Project) -> list[Row]:
    return [
        text_row("name", "Project", project.name, lambda t: [SetProject(name=t)]),
        text_row("place", "Place", project.place, lambda t: [SetProject(place=t)], empty=True),
        text_row("author", "Drawn by", project.author, lambda t: [SetProject(author=t)], empty=True),
        choice_row(
            "units",
            "Units",
            project.units,
            [("ft-in", "feet and inches"), ("mm", "millimetres")],
            lambda t: [SetProject(units=t)],  # type: ignore[arg-type]
        ),
    ]


_TABLE: dict[type, Callable[[Project, Any], list[Row]]] = {
    MakeUp: make_up_fields,
    FreeJoint: joint_fields,
    HostedJoint: joint_fields,
    Wall: wall_fields,
    Opening: opening_fields,
    Kind: kind_fields,
    Post: post_fields,
    Beam: beam_fields,
    OutsideSteps: steps_fields,
    Rail: rail_fields,
    RoofBlock: roof_fields,
    Chimney: chimney_fields,
    RoofFitting: fitting_fields,
    Downpipe: downpipe_fields,
    Rung: rung_fields,
    SectionLine: _section,
    ElevationView: _elevation,
    Room: _room,
    Foundation: foundation_fields,
    Floor: floor_fields,
    Ceiling: ceiling_fields,
    Note: _note,
    ConstructionLine: _construction,
    GridLine: _grid,
    GroundSpot: _ground_spot,
    GroundStep: _ground_step,
    Sheet: _sheet,
    Project: _project,
}
