"""The table of fields: per kind of element, label, kind, present text, and the edits of a new text."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Any, Literal

from ..errors import BadInput, RefusedEdit
from ..model import (
    Ceiling,
    Floor,
    Foundation,
    Note,
    Opening,
    Project,
    RoofBlock,
    Room,
    Rung,
    SectionLine,
    SetOut,
    Sheet,
    Wall,
    changed,
    plate_of,
    rise,
    term_value,
    wall_length,
    wall_points,
)
from ..model.edits import (
    FlipWall,
    MoveOpening,
    PutCeiling,
    PutFloor,
    PutFoundation,
    PutNote,
    PutOpening,
    PutRoof,
    PutRoom,
    PutRung,
    PutSection,
    PutSheet,
    PutWall,
    RemoveStorey,
    ResizeOpening,
    SetProject,
    SetTerm,
    SetTotal,
    SetWallLength,
    UseMakeUp,
    floor_terms,
    storey_above,
)
from ..units import Units, format_length, format_pitch, parse_length, parse_pitch

Kind = Literal["length", "pitch", "choice", "text", "number", "action"]


@dataclass(frozen=True, slots=True)
class Option:
    """One value of a choice."""

    value: str
    label: str


@dataclass(frozen=True, slots=True)
class Field:
    """A labelled fact. `text` is what stands in it now; `options` are those of a choice."""

    id: str
    label: str
    kind: Kind
    text: str
    options: tuple[Option, ...] = ()


@dataclass(frozen=True, slots=True)
class Row:
    """A field with the edits that a new text becomes."""

    field: Field
    edits: Callable[[str], Sequence[Any]]


def fields_of(project: Project, element: Any) -> list[Row]:
    """Every field of an element, in the order in which it is shown."""
    return _TABLE[type(element)](project, element)


def _length(
    id: str,
    label: str,
    value: float,
    units: Units,
    make: Callable[[float], Sequence[Any]],
    *,
    least: float | None = None,
) -> Row:
    def edits(text: str) -> Sequence[Any]:
        parsed = parse_length(text, units)
        if least is not None and parsed <= least:
            raise BadInput(
                f"{label.lower()} must be more than {format_length(least, units)}", field=id, value=text, limit=least
            )
        return make(parsed)

    return Row(Field(id, label, "length", format_length(value, units)), edits)


def _choice(
    id: str, label: str, value: str, options: Sequence[tuple[str, str]], make: Callable[[str], Sequence[Any]]
) -> Row:
    def edits(text: str) -> Sequence[Any]:
        if text not in {option for option, _ in options}:
            raise BadInput(f"“{text}” is not one of the choices", field=id, value=text)
        return make(text)

    return Row(Field(id, label, "choice", value, tuple(Option(v, name) for v, name in options)), edits)


def _text(id: str, label: str, value: str, make: Callable[[str], Sequence[Any]], *, empty: bool = False) -> Row:
    def edits(text: str) -> Sequence[Any]:
        if not text.strip() and not empty:
            raise BadInput(f"{label.lower()} cannot be empty", field=id, value=text)
        return make(text.strip())

    return Row(Field(id, label, "text", value), edits)


def _number(id: str, label: str, value: int, make: Callable[[int], Sequence[Any]]) -> Row:
    def edits(text: str) -> Sequence[Any]:
        if not text.strip().isdigit():
            raise BadInput(f"{label.lower()} needs a whole number", field=id, value=text)
        return make(int(text))

    return Row(Field(id, label, "number", str(value)), edits)


def _action(id: str, label: str, edits: Sequence[Any]) -> Row:
    return Row(Field(id, label, "action", ""), lambda _: edits)


def _levels(project: Project) -> list[tuple[str, str]]:
    return [(rung.id, rung.name) for rung in project.rungs]


def _wall(project: Project, wall: Wall) -> list[Row]:
    units = project.units
    make_up = next(held for held in project.make_ups if held.id == wall.make_up)
    faces = [
        (f"{layer.id}:{face}", f"{_FACE_WORDS[face]} of {layer.name}")
        for layer in make_up.layers
        for face in ("outer", "middle", "inner")
    ]

    def set_out(text: str) -> Sequence[Any]:
        layer, _, face = text.partition(":")
        return [PutWall(wall=changed(wall, set_out=SetOut(layer=layer, face=face)))]  # type: ignore[arg-type]

    def top(kind: str) -> Sequence[Any]:
        return [PutWall(wall=changed(wall, top=changed(wall.top, kind=kind)))]

    return [
        _length(
            "length",
            "Length",
            wall_length(project, wall),
            units,
            lambda value: [SetWallLength(wall=wall.id, length=value)],
            least=0.0,
        ),
        _choice(
            "make_up",
            "Make-up",
            wall.make_up,
            [(held.id, held.name) for held in project.make_ups if held.use == "wall"],
            lambda text: [UseMakeUp(wall=wall.id, make_up=text)],
        ),
        _choice("set_out", "Set-out face", f"{wall.set_out.layer}:{wall.set_out.face}", faces, set_out),
        _length(
            "offset", "Set-out offset", wall.offset, units, lambda value: [PutWall(wall=changed(wall, offset=value))]
        ),
        _choice(
            "status",
            "Status",
            wall.status,
            [("outer", "outer wall"), ("inner", "inner wall")],
            lambda t: [PutWall(wall=changed(wall, status=t))],
        ),
        _choice(
            "base",
            "Stands on",
            wall.base.level,
            _levels(project),
            lambda t: [PutWall(wall=changed(wall, base=changed(wall.base, level=t)))],
        ),
        _choice(
            "top_level",
            "Plate at",
            wall.top.level,
            _levels(project),
            lambda t: [PutWall(wall=changed(wall, top=changed(wall.top, level=t)))],
        ),
        _choice(
            "top", "Goes up to", wall.top.kind, [("level", "the plate"), ("roof", "the plate and on to the roof")], top
        ),
        _length(
            "top_offset",
            "Above the plate",
            wall.top.offset,
            units,
            lambda value: [PutWall(wall=changed(wall, top=changed(wall.top, offset=value)))],
        ),
        _action("flip", "Flip outside and inside", [FlipWall(wall=wall.id)]),
    ]


_FACE_WORDS = {"outer": "outside", "middle": "middle", "inner": "inside"}


def _opening(project: Project, opening: Opening) -> list[Row]:
    units = project.units
    wall = next(held for held in project.walls if held.id == opening.wall)
    length = wall_length(project, wall)

    def put(**changes: Any) -> Sequence[Any]:
        return [PutOpening(opening=changed(opening, **changes))]

    def clear(end: str) -> float:
        along = opening.distance if opening.end == end else length - opening.distance
        return along - opening.width / 2

    def place(end: str) -> Callable[[float], Sequence[Any]]:
        return lambda value: [MoveOpening(opening=opening.id, distance=value + opening.width / 2, end=end)]  # type: ignore[arg-type]

    rows = [
        _text("number", "Number", opening.number, lambda t: put(number=t)),
        _length(
            "width", "Width", opening.width, units, lambda v: [ResizeOpening(opening=opening.id, width=v)], least=0.0
        ),
        _length("height", "Height", opening.height, units, lambda v: put(height=v), least=0.0),
        _length("sill", "Sill above floor", opening.sill, units, lambda v: put(sill=v)),
        _length(
            "head",
            "Head above floor",
            opening.sill + opening.height,
            units,
            lambda v: put(**_head(opening, v)),
            least=0.0,
        ),
        _length(
            "from_start", f"To {_corner_name(project, wall, 'start')} corner", clear("start"), units, place("start")
        ),
        _length("from_end", f"To {_corner_name(project, wall, 'end')} corner", clear("end"), units, place("end")),
        _choice(
            "stays",
            "When the width changes",
            opening.stays,
            [("centre", "the middle stays"), ("start", "the start edge stays"), ("end", "the end edge stays")],
            lambda t: put(stays=t),
        ),
        _length("trim", "Trim width", opening.trim, units, lambda v: put(trim=v)),
        _length(
            "set_in",
            f"Set in from {_set_in_face(project, wall, opening)}",
            opening.set_in.distance,
            units,
            lambda v: put(set_in=changed(opening.set_in, distance=v)),
        ),
    ]
    if opening.unit == "window":
        rows += [
            _number("bars_across", "Panes across", opening.bars_across, lambda n: put(bars_across=n)),
            _number("bars_up", "Panes up", opening.bars_up, lambda n: put(bars_up=n)),
        ]
    else:
        rows += [
            _choice(
                "hinge",
                "Hinge at",
                opening.hinge,
                [("start", "start edge"), ("end", "end edge")],
                lambda t: put(hinge=t),
            ),
            _choice("swing", "Swings", opening.swing, [("in", "inward"), ("out", "outward")], lambda t: put(swing=t)),
        ]
    return rows


def _set_in_face(project: Project, wall: Wall, opening: Opening) -> str:
    """The name of the layer from which a unit is set in: by default the first that is no cladding."""
    layers = next(held for held in project.make_ups if held.id == wall.make_up).layers
    named = next((layer for layer in layers if layer.id == opening.set_in.layer), None)
    usual = next((layer for layer in layers if layer.function in ("sheathing", "structure")), layers[0])
    return (named or usual).name


def _head(opening: Opening, head: float) -> dict[str, float]:
    """Heads line up: a typed head moves a window and keeps its height; a door keeps its sill."""
    if opening.unit == "door" or opening.sill == 0:
        return {"height": head - opening.sill}
    sill = head - opening.height
    if sill < 0:
        raise RefusedEdit(
            "that head would put the sill below the floor",
            element=opening.id,
            field="head",
            value=head,
            limit=opening.height,
        )
    return {"sill": sill}


def _corner_name(project: Project, wall: Wall, end: str) -> str:
    """Compass name of a wall's end: where it lies as seen from the middle of the wall."""
    start, stop = wall_points(project, wall)
    here, there = (start, stop) if end == "start" else (stop, start)
    dx, dy = here[0] - there[0], here[1] - there[1]
    if abs(dx) >= abs(dy):
        return "east" if dx > 0 else "west"
    return "north" if dy > 0 else "south"


def _roof(project: Project, roof: RoofBlock) -> list[Row]:
    units = project.units
    eaves = [index for index, edge in enumerate(roof.edges) if edge.kind == "eave"]
    gables = [index for index in range(4) if index not in eaves]

    def put(**changes: Any) -> Sequence[Any]:
        return [PutRoof(roof=changed(roof, **changes))]

    def edges(which: Sequence[int], **changes: Any) -> Sequence[Any]:
        return put(edges=tuple(changed(edge, **changes) if i in which else edge for i, edge in enumerate(roof.edges)))

    def end_kind(index: int) -> Callable[[str], Sequence[Any]]:
        return lambda text: edges(
            [index], kind=text, overhang=roof.edges[index].overhang or (304.8 if text == "gable" else 0.0)
        )

    rows = [
        _text("name", "Name", roof.name, lambda t: put(name=t)),
        Row(
            Field("pitch", "Pitch", "pitch", format_pitch(roof.pitch, units)), lambda text: put(pitch=parse_pitch(text))
        ),
        _length("overhang", "Eave overhang", roof.edges[eaves[0]].overhang, units, lambda v: edges(eaves, overhang=v)),
        _length(
            "rake",
            "Gable overhang",
            max(roof.edges[index].overhang for index in gables),
            units,
            lambda v: edges([i for i in gables if roof.edges[i].kind == "gable"], overhang=v),
        ),
        _length("fascia", "Fascia depth", roof.fascia_depth, units, lambda v: put(fascia_depth=v), least=0.0),
        _length("seat", "Birdsmouth seat", roof.seat, units, lambda v: put(seat=v), least=0.0),
        _choice("plate", "Sits on", roof.plate, _levels(project), lambda t: put(plate=t)),
        _action("turn", "Turn the ridge the other way", put(edges=(roof.edges[3], *roof.edges[:3]))),
    ]
    words = [("gable", "gable"), ("abutment", "against a wall"), ("joined", "into another roof")]
    rows += [_choice(f"end_{i}", f"End {n}", roof.edges[i].kind, words, end_kind(i)) for n, i in enumerate(gables, 1)]
    return rows


def _rung(project: Project, rung: Rung) -> list[Row]:
    units = project.units
    rows = [_text("name", "Name", rung.name, lambda t: [PutRung(rung=changed(rung, name=t))])]
    for term in rung.terms:
        count = f"{term.count} x " if term.count > 1 else ""
        rows.append(
            _length(
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
            _length("total", f"{word} {base}, in all", total, units, lambda v: [SetTotal(rung=rung.id, total=v)])
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
        rows.append(_action("remove_storey", "Remove this storey", [RemoveStorey(level=rung.id)]))
    return rows


def _section(project: Project, line: SectionLine) -> list[Row]:
    def put(**changes: Any) -> Sequence[Any]:
        return [PutSection(section=changed(line, **changes))]

    return [
        _text("name", "Name", line.name, lambda t: put(name=t)),
        _length("depth", "Look depth", line.depth, project.units, lambda v: put(depth=v), least=0.0),
        _action("turn", "Look the other way", put(look="right" if line.look == "left" else "left")),
    ]


def _room(project: Project, room: Room) -> list[Row]:
    return [_text("name", "Name", room.name, lambda t: [PutRoom(room=changed(room, name=t))])]


def _foundation(project: Project, held: Foundation) -> list[Row]:
    units = project.units

    def row(id: str, label: str) -> Row:
        return _length(
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


def _floor(project: Project, held: Floor) -> list[Row]:
    def put(**changes: Any) -> Sequence[Any]:
        return [PutFloor(floor=changed(held, **changes))]

    return [
        _text("name", "Name", held.name, lambda t: put(name=t)),
        _choice(
            "make_up",
            "Make-up",
            held.make_up,
            [(make_up.id, make_up.name) for make_up in project.make_ups if make_up.use == "floor"],
            lambda t: [PutFloor(floor=changed(held, make_up=t)), *_rises_by(project, held, t)],
        ),
        _choice("bearing", "Joists bear on", held.bearing, _levels(project), lambda t: put(bearing=t)),
        _choice("span", "Joists run", held.span, _SPANS, lambda t: put(span=t)),
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


def _ceiling(project: Project, held: Ceiling) -> list[Row]:
    return [
        _choice(
            "span",
            "Joists run",
            held.span,
            [("roof", "as the rafters"), *_SPANS],
            lambda t: [PutCeiling(ceiling=changed(held, span=t))],
        ),
        _choice(
            "level",
            "Joists bear on",
            held.level,
            _levels(project),
            lambda t: [PutCeiling(ceiling=changed(held, level=t))],
        ),
    ]


def _note(project: Project, note: Note) -> list[Row]:
    return [_text("text", "Note", note.text, lambda t: [PutNote(note=changed(note, text=t))])]


def _sheet(project: Project, sheet: Sheet) -> list[Row]:
    def put(**changes: Any) -> Sequence[Any]:
        return [PutSheet(sheet=changed(sheet, **changes))]

    return [
        _text("number", "Sheet number", sheet.number, lambda t: put(number=t)),
        _text("name", "Sheet name", sheet.name, lambda t: put(name=t)),
    ]


def _project(project: Project, _: Project) -> list[Row]:
    return [
        _text("name", "Project", project.name, lambda t: [SetProject(name=t)]),
        _text("place", "Place", project.place, lambda t: [SetProject(place=t)], empty=True),
        _text("author", "Drawn by", project.author, lambda t: [SetProject(author=t)], empty=True),
        _choice(
            "units",
            "Units",
            project.units,
            [("ft-in", "feet and inches"), ("mm", "millimetres")],
            lambda t: [SetProject(units=t)],  # type: ignore[arg-type]
        ),
    ]


_TABLE: dict[type, Callable[[Project, Any], list[Row]]] = {
    Wall: _wall,
    Opening: _opening,
    RoofBlock: _roof,
    Rung: _rung,
    SectionLine: _section,
    Room: _room,
    Foundation: _foundation,
    Floor: _floor,
    Ceiling: _ceiling,
    Note: _note,
    Sheet: _sheet,
    Project: _project,
}

__all__ = ["Field", "Option", "Row", "fields_of"]
