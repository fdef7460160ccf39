"""Fields of walls and of the openings in them."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import Any

from ..errors import RefusedEdit
from ..model import Opening, Project, SetOut, Wall, changed, wall_axis, wall_length, wall_points
from ..model.edits import (
    FlipWall,
    MoveOpening,
    MoveWall,
    PutOpening,
    PutWall,
    ResizeOpening,
    ReverseWall,
    SetWallLength,
    UseMakeUp,
    parted_corners,
    split_at,
)
from ..resolve import layer_bands
from ..units import parse_length
from ._arc_fields import arc_fields
from .rows import Field, Row, action_row, choice_row, length_row, level_options, number_row, text_row


def wall_fields(project: Project, wall: Wall) -> list[Row]:
    """Length, make-up, set-out face, status, foot and top of a wall."""
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

    def line_to(text: str) -> Sequence[Any]:
        """The line moved on to a face: the wall stays where it is."""
        layer, _, face = text.partition(":")
        moved = changed(wall, set_out=SetOut(layer=layer, face=face), offset=0.0)  # type: ignore[arg-type]
        # Both stacks lie alike from their own line: what one layer shifts by, the line goes the other way.
        out = layer_bands(wall, make_up)[0][1] - layer_bands(moved, make_up)[0][1]
        dx, dy = wall_axis(project, wall).direction(0.0)
        side = out if wall.outside == "left" else -out
        return [PutWall(wall=moved), MoveWall(wall=wall.id, dx=-dy * side, dy=dx * side)]

    shifted = (
        []
        if wall.bulge
        else [
            choice_row(
                "set_out_line",
                "Set-out face, wall stays",
                f"{wall.set_out.layer}:{wall.set_out.face}",
                faces,
                line_to,
            )
        ]
    )

    def top(kind: str) -> Sequence[Any]:
        return [PutWall(wall=changed(wall, top=changed(wall.top, kind=kind)))]

    parted = parted_corners(project, wall)
    part = [action_row("part", "Part its corners from the other storey", [parted])] if parted else []
    return [
        length_row(
            "length",
            "Length",
            wall_length(project, wall),
            units,
            lambda value: [SetWallLength(wall=wall.id, length=value)],
            least=0.0,
        ),
        *arc_fields(project, wall),
        choice_row(
            "make_up",
            "Make-up",
            wall.make_up,
            [(held.id, held.name) for held in project.make_ups if held.use == "wall"],
            lambda text: [UseMakeUp(wall=wall.id, make_up=text)],
        ),
        choice_row("set_out", "Set-out face", f"{wall.set_out.layer}:{wall.set_out.face}", faces, set_out),
        *shifted,
        length_row(
            "offset", "Set-out offset", wall.offset, units, lambda value: [PutWall(wall=changed(wall, offset=value))]
        ),
        choice_row(
            "status",
            "Status",
            wall.status,
            [("outer", "outer wall"), ("inner", "inner wall")],
            lambda t: [PutWall(wall=changed(wall, status=t))],
        ),
        choice_row(
            "base",
            "Stands on",
            wall.base.level,
            level_options(project),
            lambda t: [PutWall(wall=changed(wall, base=changed(wall.base, level=t)))],
        ),
        choice_row(
            "top_level",
            "Plate at",
            wall.top.level,
            level_options(project),
            lambda t: [PutWall(wall=changed(wall, top=changed(wall.top, level=t)))],
        ),
        choice_row(
            "top", "Goes up to", wall.top.kind, [("level", "the plate"), ("roof", "the plate and on to the roof")], top
        ),
        length_row(
            "top_offset",
            "Above the plate",
            wall.top.offset,
            units,
            lambda value: [PutWall(wall=changed(wall, top=changed(wall.top, offset=value)))],
        ),
        Row(
            Field("split", f"Split, from {_corner_name(project, wall, 'start')} corner", "length", ""),
            lambda text: [split_at(project, wall.id, parse_length(text, units))],
        ),
        action_row("flip", "Flip outside and inside", [FlipWall(wall=wall.id)]),
        action_row("reverse", "Turn its direction round", [ReverseWall(wall=wall.id)]),
        *part,
    ]


_FACE_WORDS = {"outer": "outside", "middle": "middle", "inner": "inside"}


def opening_fields(project: Project, opening: Opening) -> list[Row]:
    """Sizes, distances to the corners, heights and kind of a window or door."""
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
        text_row("number", "Number", opening.number, lambda t: put(number=t)),
        length_row(
            "width", "Width", opening.width, units, lambda v: [ResizeOpening(opening=opening.id, width=v)], least=0.0
        ),
        length_row("height", "Height", opening.height, units, lambda v: put(height=v), least=0.0),
        length_row("sill", "Sill above floor", opening.sill, units, lambda v: put(sill=v)),
        length_row(
            "head",
            "Head above floor",
            opening.sill + opening.height,
            units,
            lambda v: put(**_head(opening, v)),
            least=0.0,
        ),
        length_row(
            "from_start", f"To {_corner_name(project, wall, 'start')} corner", clear("start"), units, place("start")
        ),
        length_row("from_end", f"To {_corner_name(project, wall, 'end')} corner", clear("end"), units, place("end")),
        choice_row(
            "stays",
            "When the width changes",
            opening.stays,
            [("centre", "the middle stays"), ("start", "the start edge stays"), ("end", "the end edge stays")],
            lambda t: put(stays=t),
        ),
        length_row("trim", "Trim width", opening.trim, units, lambda v: put(trim=v)),
        length_row(
            "set_in",
            f"Set in from {_set_in_face(project, wall, opening)}",
            opening.set_in.distance,
            units,
            lambda v: put(set_in=changed(opening.set_in, distance=v)),
        ),
    ]
    if opening.unit == "window":
        rows += [
            number_row("bars_across", "Panes across", opening.bars_across, lambda n: put(bars_across=n)),
            number_row("bars_up", "Panes up", opening.bars_up, lambda n: put(bars_up=n)),
        ]
    else:
        rows += [
            choice_row(
                "hinge",
                "Hinge at",
                opening.hinge,
                [("start", "start edge"), ("end", "end edge")],
                lambda t: put(hinge=t),
            ),
            choice_row(
                "swing", "Swings", opening.swing, [("in", "inward"), ("out", "outward")], lambda t: put(swing=t)
            ),
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
