"""Fields of floors."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import Any

from ...catalog import usual
from ...edits import (
    PutFloor,
    PutFloorHole,
    PutRung,
    TurnJoists,
    changed,
    floor_terms,
)
from ...model import Ceiling, Deck, Floor, FloorHole, Project
from ...rows.corners import rectangle_rows
from ...rows.rows import Row, action_row, choice_row, degrees_row, length_row, level_options, text_row

SPANS = [
    ("short", "the short way"),
    ("long", "the long way"),
    ("east-west", "east to west"),
    ("north-south", "north to south"),
    ("angle", "at an angle"),
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
        *joist_fields(project, held, put),
        *_end_rows(project, held, put),
        choice_row(
            "edge",
            "Closed at its edge by",
            held.edge,
            [("rim joist", "a rim joist"), ("framed", "a short framed wall")],
            lambda t: put(edge=t, **({"edge_depth": usual("edge_depth", project.units)} if t == "framed" else {})),
        ),
        *(
            [
                length_row(
                    "edge_depth",
                    "Its studs deep",
                    held.edge_depth,
                    project.units,
                    lambda v: put(edge_depth=v),
                    least=0.0,
                )
            ]
            if held.edge == "framed"
            else []
        ),
        choice_row(
            "doubled",
            "Under walls along them",
            "two" if held.doubled else "none",
            [("two", "two more"), ("none", "none added")],
            lambda t: put(doubled=t == "two"),
        ),
    ]


def _end_rows(project: Project, held: Floor, put: Callable[..., Sequence[Any]]) -> list[Row]:
    """How the joists of a floor end, in a house of masonry."""
    if project.tradition != "masonry":
        return []
    ways = [("built in", "built in"), ("hung", "on hangers at its inside")]
    return [choice_row("ends", "Ends at masonry", held.ends, ways, lambda t: put(ends=t))]


def joist_fields(project: Project, held: Floor | Deck, put: Callable[..., Sequence[Any]]) -> list[Row]:
    """How joists run, where their layout begins, what they do over what bears them, and who sized them."""
    return [
        choice_row("span", "Joists run", held.span, SPANS, lambda t: put(span=t)),
        *angle_rows(held, put),
        action_row("turn", "Turn the joists", [TurnJoists(floor=held.id)]),
        length_row("shift", "Layout begins from a side", held.shift, project.units, lambda v: put(shift=v)),
        choice_row("lap", "Over inner bearings", held.lap, _LAPS, lambda t: put(lap=t)),
        choice_row(
            "between",
            "Between long joists",
            held.between,
            [("blocks", "rows of blocks"), ("bridging", "rows of cross bridging"), ("nothing", "nothing")],
            lambda t: put(between=t),
        ),
        choice_row("sized", "Sized", held.sized, SIZED, lambda t: put(sized=t)),
    ]


def angle_rows(held: Floor | Deck | Ceiling, put: Callable[..., Sequence[Any]]) -> list[Row]:
    """The angle of joists that run at one."""
    if held.span != "angle":
        return []
    return [degrees_row("angle", "Angle from east", held.angle, lambda value: put(angle=value))]


SIZED = [("by tables", "by tables of spans"), ("by an engineer", "by an engineer")]
_LAPS = [("lapped", "they lap"), ("butted", "they butt"), ("through", "they run through")]


def _rises_by(project: Project, floor: Floor, make_up: str) -> Sequence[Any]:
    """The level of a floor, its parts taken from another make-up where they were taken from the present one."""
    rung = next(rung for rung in project.rungs if rung.id == floor.level)
    others = [term for term in rung.terms if term.layer is None or term.layer.make_up != floor.make_up]
    terms = floor_terms(next(held for held in project.make_ups if held.id == make_up))
    if len(others) == len(rung.terms) or not terms:
        return []
    free = rung.free if rung.free in {term.id for term in others} else terms[0].id
    return [PutRung(rung=changed(rung, terms=(*others, *terms), free=free))]


def hole_fields(project: Project, hole: FloorHole) -> list[Row]:
    """Floor and size of a hole; a rectangle by its sides."""
    units = project.units

    def put(**changes: Any) -> Sequence[Any]:
        return [PutFloorHole(hole=changed(hole, **changes))]

    return [
        text_row("name", "Name", hole.name, lambda t: put(name=t)),
        choice_row(
            "floor", "In", hole.floor, [(held.id, held.name) for held in project.floors], lambda t: put(floor=t)
        ),
        *rectangle_rows(hole.corners, units, lambda corners: put(corners=corners)),
    ]
