"""Fields of levels, foundations, floors and ceilings."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any, Literal

from ..errors import BadInput
from ..model import Ceiling, Floor, Foundation, Project, Rung, Term, changed, plate_of, rise, term_value
from ..model.edits import (
    AddRung,
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
from ..model.ids import free_among, free_ids
from ..units import parse_length
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
