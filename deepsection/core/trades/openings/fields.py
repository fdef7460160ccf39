"""Fields of windows, doors and niches, and of the kinds that they follow."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import replace
from typing import Any

from ...document.ids import free_ids
from ...edits import (
    AddSteps,
    CentreOpening,
    CentreUnderGable,
    ClearExceptions,
    CopyOpening,
    FollowKind,
    MakeKind,
    MirrorOpening,
    MoveOpening,
    PutKind,
    PutOpening,
    RepeatOpening,
    ResizeOpening,
    SpreadOpenings,
    changed,
    copies_of,
    gable_peak,
)
from ...errors import BadInput, RefusedEdit
from ...model import OPERATIONS, Design, Kind, Opening, Project, wall_length
from ...rows.rows import Field, Row, action_row, choice_row, length_row, number_row, text_row, under
from ...units import Units, parse_length
from ..walls.end_names import corner_name, wall_name
from .model import usual_design
from .placing_fields import placing_fields
from .set_in import set_in_layer

OPERATION_WORDS = {
    "fixed": "fixed",
    "casement": "casement, hung at the side",
    "awning": "awning, hung at the top",
    "sliding": "sliding",
    "vertical": "sliding up and down",
    "hinged": "hinged, one leaf",
    "double": "hinged, two leaves",
    "pocket": "sliding into the wall",
    "bifold": "folding",
    "overhead": "overhead, in sections",
    "plain": "plain opening",
}
_LEAVES = ("hinged", "double", "pocket", "bifold", "overhead")
_STRAIGHT = ("sliding", "bifold", "overhead", "pocket")
"""Operations that need a level head."""

Put = Callable[..., Sequence[Any]]


def _design_rows(project: Project, unit: str, design: Design, put: Put) -> list[Row]:
    """What a unit is, as fields named like those of its design; those that its operation does not have are left out."""
    units, operation = project.units, design.operation

    def length(id: str, label: str, *, least: float | None = None) -> Row:
        return length_row(id, label, getattr(design, id), units, lambda v: put(**{id: v}), least=least)

    def choice(id: str, label: str, options: Sequence[tuple[str, str]]) -> Row:
        return choice_row(id, label, getattr(design, id), options, lambda t: put(**{id: t}))

    def number(id: str, label: str) -> Row:
        return number_row(id, label, getattr(design, id), lambda n: put(**{id: n}))

    if unit == "niche":
        return [length("depth", "Depth", least=0.0)]
    glazed = unit == "window" or operation == "sliding" or (design.leaf == "glazed" and operation in _LEAVES)
    rows = [choice("operation", "Opens", [(held, OPERATION_WORDS[held]) for held in OPERATIONS[unit]])]  # type: ignore[index]
    if unit == "window" or operation in ("sliding", "bifold"):
        rows.append(number("panels", "Lights" if unit == "window" else "Leaves"))
    if operation == "double":
        shares = [("0.5", "both alike"), ("0.6", "the first, 3 to 2"), ("0.67", "the first, 2 to 1")]
        shares += [("0.4", "the second, 3 to 2"), ("0.33", "the second, 2 to 1")]
        if f"{design.share:g}" not in dict(shares):
            shares.append((f"{design.share:g}", f"{design.share:.0%} the first"))
        rows.append(choice_row("share", "Wider leaf", f"{design.share:g}", shares, lambda t: put(share=float(t))))
    if operation in _LEAVES:
        kinds = [("panelled", "panelled"), ("flush", "flush"), ("glazed", "glazed")]
        rows.append(choice("leaf", "Leaf", kinds if operation != "overhead" else kinds[:2]))
    if operation not in _STRAIGHT:
        rows.append(length("arch", "Arched head, rise"))
    if glazed:
        rows += [number("bars_across", "Panes across"), number("bars_up", "Panes up")]
    if unit == "door" and operation in ("hinged", "double"):
        sides = [
            ("none", "none"),
            ("start", "at the start edge"),
            ("end", "at the end edge"),
            ("both", "on both sides"),
        ]
        rows.append(choice("side_lights", "Side lights", sides))
        if design.side_lights != "none":
            rows.append(length("side_width", "Side light width", least=0.0))
    if unit == "window":
        rows.append(choice("shutters", "Shutters", [("none", "none"), ("pair", "a pair")]))
    elif operation != "plain":
        rows.append(length("threshold", "Threshold"))
    returns = [("layers", "as its wall's layers say"), ("none", "none")]
    return [
        *rows,
        length("trim", "Trim width"),
        length("rough", "Rough opening, more by"),
        choice("returns", "Returns", returns),
    ]


def opening_fields(project: Project, opening: Opening) -> list[Row]:
    """Kind, sizes, distances to the corners, heights and design of a window, door or niche."""
    units, design, kind = project.units, project.design_of(opening), project.kind_of(opening)
    wall = next(held for held in project.walls if held.id == opening.wall)
    length = wall_length(project, wall)

    def put(**changes: Any) -> Sequence[Any]:
        """What is as the kind has it, or as usual, is no exception."""
        plain = dict(kind.design) if kind else usual_design(opening.unit)
        plain = {name: fact for name, fact in plain.items() if kind or getattr(opening, name) is None}
        given = {name: None if name in plain and plain[name] == value else value for name, value in changes.items()}
        if kind and given.get("number") == kind.number:
            given["number"] = None
        return [PutOpening(opening=changed(opening, **given))]

    def clear(end: str) -> float:
        along = opening.distance if opening.end == end else length - opening.distance
        return along - design.width / 2

    def place(end: str) -> Callable[[float], Sequence[Any]]:
        return lambda value: [MoveOpening(opening=opening.id, distance=value + design.width / 2, end=end)]  # type: ignore[arg-type]

    def resize(value: float) -> Sequence[Any]:
        return [ResizeOpening(opening=opening.id, width=value)]

    head = opening.sill + design.height
    stay = [("centre", "the middle stays"), ("start", "the start edge stays"), ("end", "the end edge stays")]
    rows = [
        *_kind_rows(project, opening),
        text_row("number", "Number", project.number_of(opening), lambda t: put(number=t)),
        length_row("width", "Width", design.width, units, resize, least=0.0),
        length_row("height", "Height", design.height, units, lambda v: put(height=v), least=0.0),
        length_row("sill", "Sill above floor", opening.sill, units, lambda v: put(sill=v)),
        length_row("head", "Head above floor", head, units, lambda v: put(**_head(opening, design, v)), least=0.0),
        length_row(
            "from_start", f"To {corner_name(project, wall, 'start')} corner", clear("start"), units, place("start")
        ),
        length_row("from_end", f"To {corner_name(project, wall, 'end')} corner", clear("end"), units, place("end")),
        choice_row("stays", "When the width changes", opening.stays, stay, lambda t: put(stays=t)),
        *_design_rows(project, opening.unit, design, put),
    ]
    if opening.unit != "niche":
        rows += _standing_rows(project, opening, put)
    rows += under("Schedule", _schedule_rows(project, opening, kind))
    rows += under("Placing and copies", [*placing_fields(project, opening), *_arranging_rows(project, opening)])
    own = {name for name in ("number", "maker", "note") if getattr(opening, name) is not None}
    held = set(opening.exceptions) | own if opening.kind else set()
    return [replace(row, field=replace(row.field, exception=True)) if row.field.id in held else row for row in rows]


def _schedule_rows(project: Project, opening: Opening, kind: Kind | None) -> list[Row]:
    """What a schedule says of it in words; as its kind says, where it says nothing else itself."""

    def put(name: str) -> Callable[[str], Sequence[Any]]:
        usual = getattr(kind, name) if kind else ""
        return lambda text: [PutOpening(opening=changed(opening, **{name: None if text == usual else text}))]

    maker, note = project.words_of(opening)
    return [
        text_row("maker", "Maker", maker, put("maker"), empty=True),
        text_row("note", "Note", note, put("note"), empty=True),
    ]


def _standing_rows(project: Project, opening: Opening, put: Put) -> list[Row]:
    """How a unit stands in its wall, and on which side it hangs."""
    wall = next(held for held in project.walls if held.id == opening.wall)
    make_up = next(held for held in project.make_ups if held.id == wall.make_up)
    layers = make_up.layers
    face = f"{set_in_layer(wall, opening, make_up).id}:{opening.set_in.face}"
    words = {"outer": "outside", "inner": "inside"}
    faces = [(f"{layer.id}:{side}", f"{words[side]} of {layer.name}") for layer in layers for side in words]

    def from_face(text: str) -> Sequence[Any]:
        layer, _, side = text.partition(":")
        kept = opening.set_in.layer if text == face else layer
        return put(set_in=changed(opening.set_in, layer=kept, face=side))

    rows = [
        choice_row("set_in_face", "Set in from", face, faces, from_face),
        length_row(
            "set_in",
            "Set in by",
            opening.set_in.distance,
            project.units,
            lambda v: put(set_in=changed(opening.set_in, distance=v)),
        ),
    ]
    design = project.design_of(opening)
    ends = [("start", "start edge"), ("end", "end edge")]
    if design.operation in ("hinged", "pocket") or (design.operation == "casement" and design.panels == 1):
        label = "Slides into" if design.operation == "pocket" else "Hinge at"
        rows.append(choice_row("hinge", label, opening.hinge, ends, lambda t: put(hinge=t)))
    if design.operation in ("hinged", "double", "bifold", "casement", "awning"):
        ways = [("in", "inward"), ("out", "outward")]
        rows.append(choice_row("swing", "Swings", opening.swing, ways, lambda t: put(swing=t)))
    if design.operation in ("hinged", "double"):
        angles = [
            (f"{a:g}", f"{a:g}°" if a else "closed") for a in sorted({0.0, 30.0, 45.0, 90.0, opening.drawn_swing})
        ]
        rows.append(
            choice_row(
                "drawn_swing",
                "Drawn open in plan",
                f"{opening.drawn_swing:g}",
                angles,
                lambda t: put(drawn_swing=float(t)),
            )
        )
    return rows


def _arranging_rows(project: Project, opening: Opening) -> list[Row]:
    """Ways to have more of it, in line on its wall."""

    def repeat(text: str) -> Sequence[Any]:
        count, _, spacing = (part.strip() for part in text.lower().partition("at"))
        if not count.isdigit() or not 1 <= int(count) <= MOST_COPIES or not spacing:
            message = f"say how many more and at which spacing, such as 3 at {REPEATS[project.units]}"
            raise BadInput(message, field="repeat", value=text)
        ids = copies_of(project, opening, int(count))
        return [RepeatOpening(opening=opening.id, ids=ids, spacing=parse_length(spacing, project.units))]

    def spread(text: str) -> Sequence[Any]:
        if not text.strip().isdigit() or not 2 <= int(text) <= MOST_COPIES:
            raise BadInput("say how many of them the wall should have, from 2 up", field="spread", value=text)
        return [SpreadOpenings(opening=opening.id, ids=copies_of(project, opening, int(text) - 1))]

    copy = copies_of(project, opening, 1)[0]
    walls = [(wall.id, wall_name(project, wall)) for wall in project.walls if wall.id != opening.wall]

    def onto(text: str) -> Sequence[Any]:
        if text == NO_KIND:
            return []
        return [CopyOpening(opening=opening.id, id=copy, wall=text, end=opening.end, distance=opening.distance)]

    return [
        Row(Field("repeat", "Repeat, such as 3 at " + REPEATS[project.units], "text", ""), repeat),
        Row(Field("spread", "Spread over the wall, how many", "number", ""), spread),
        choice_row("copy_to", "Copy it onto", NO_KIND, [(NO_KIND, "no other wall"), *walls], onto),
        *(
            [action_row("steps", "Steps to it", [AddSteps(door=opening.id, id=next(free_ids(project, "steps")))])]
            if opening.unit == "door" and project.walls_by_id[opening.wall].status == "outer"
            else []
        ),
        action_row("centre", "Centre it between its neighbours", [CentreOpening(opening=opening.id)]),
        *(
            [action_row("centre_gable", "Centre it under the gable", [CentreUnderGable(opening=opening.id)])]
            if gable_peak(project, opening) is not None
            else []
        ),
        action_row("mirror", "Mirror it about the wall's middle", [MirrorOpening(opening=opening.id, id=copy)]),
    ]


MOST_COPIES = 50
REPEATS: dict[Units, str] = {"ft-in": "6'", "mm": "1800"}
NO_KIND = "-"


def _kind_rows(project: Project, opening: Opening) -> list[Row]:
    """The kind that an opening follows, and how to leave it, return to it, or make one."""
    kinds = [(kind.id, kind.name) for kind in project.kinds if kind.unit == opening.unit]
    rows = [
        choice_row(
            "kind",
            "Kind",
            opening.kind or NO_KIND,
            [(NO_KIND, "of its own"), *kinds],
            lambda t: [FollowKind(opening=opening.id, follows=None if t == NO_KIND else t)],
        )
    ]
    if opening.kind is None:
        id = next(free_ids(project, "kind"))
        name = f"{project.number_of(opening)}, {OPERATION_WORDS[project.design_of(opening).operation]}"
        make = action_row("make_kind", "Make a kind of it", [MakeKind(opening=opening.id, id=id, name=name)])
        return [*rows, make]
    if opening.exceptions or opening.number:
        rows.append(action_row("clear", "As its kind in everything", [ClearExceptions(opening=opening.id)]))
    return rows


def kind_fields(project: Project, kind: Kind) -> list[Row]:
    """Name, number, sizes and design of a kind: all that follow it change with it."""
    units, design = project.units, kind.design

    def put(**changes: Any) -> Sequence[Any]:
        return [PutKind(design=changed(kind, design=changed(design, **changes)))]

    copy = next(free_ids(project, "kind"))
    return [
        text_row("name", "Name", kind.name, lambda t: [PutKind(design=changed(kind, name=t))]),
        text_row("number", "Number", kind.number, lambda t: [PutKind(design=changed(kind, number=t))]),
        length_row("width", "Width", design.width, units, lambda v: put(width=v), least=0.0),
        length_row("height", "Height", design.height, units, lambda v: put(height=v), least=0.0),
        *_design_rows(project, kind.unit, design, put),
        *under(
            "Schedule",
            [
                text_row("maker", "Maker", kind.maker, lambda t: [PutKind(design=changed(kind, maker=t))], empty=True),
                text_row("note", "Note", kind.note, lambda t: [PutKind(design=changed(kind, note=t))], empty=True),
            ],
        ),
        action_row(
            "copy", "Copy it as a new kind", [PutKind(design=changed(kind, id=copy, name=f"{kind.name}, copy"))]
        ),
    ]


def _head(opening: Opening, design: Design, head: float) -> dict[str, float]:
    """Heads line up: a typed head moves a window and keeps its height; a door keeps its sill."""
    if opening.unit == "door" or opening.sill == 0:
        return {"height": head - opening.sill}
    sill = head - design.height
    if sill < 0:
        raise RefusedEdit(
            "that head would put the sill below the floor",
            element=opening.id,
            field="head",
            value=head,
            limit=design.height,
        )
    return {"sill": sill}
