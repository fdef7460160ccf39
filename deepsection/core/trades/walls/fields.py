"""Fields of walls."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from ...document.ids import free_ids
from ...edits import (
    FlipWall,
    MoveWall,
    OffsetWall,
    PutJoint,
    PutWall,
    ReverseWall,
    RoundCorner,
    SetWallLength,
    UseMakeUp,
    changed,
    parted_corners,
    split_at,
)
from ...errors import BadInput
from ...model import FreeJoint, Project, SetOut, Wall, layer_bands, wall_axis, wall_length
from ...rows.rows import Field, Row, action_row, choice_row, length_row, level_options, under
from ...units import parse_length
from .arc_fields import arc_fields
from .end_names import corner_name
from .saved_fields import saving_fields
from .shape_fields import shape_fields
from .top_fields import top_fields, wall_height


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
        out = layer_bands(wall, make_up)[0].outer - layer_bands(moved, make_up)[0].outer
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
            "bearing",
            "Bearing",
            wall.bearing,
            [("inferred", f"{'yes' if wall.status == 'outer' else 'no'}, by its status"), ("yes", "yes"), ("no", "no")],
            lambda t: [PutWall(wall=changed(wall, bearing=t))],
        ),
        *under("Saved walls", saving_fields(project, wall)),
        *under("Heights", _height_fields(project, wall)),
        *under("Shape", shape_fields(project, wall, wall_height(project, wall))),
        *under("Joins and copies", _join_fields(project, wall)),
    ]


def _height_fields(project: Project, wall: Wall) -> list[Row]:
    return [
        choice_row(
            "base",
            "Stands on",
            wall.base.level,
            level_options(project),
            lambda t: [PutWall(wall=changed(wall, base=changed(wall.base, level=t)))],
        ),
        length_row(
            "base_offset",
            "Foot above that",
            wall.base.offset,
            project.units,
            lambda v: [PutWall(wall=changed(wall, base=changed(wall.base, offset=v)))],
        ),
        *top_fields(project, wall),
    ]


def _join_fields(project: Project, wall: Wall) -> list[Row]:
    def parallel(text: str) -> Sequence[Any]:
        joints = free_ids(project, "joint")
        ends, id = (next(joints), next(joints)), next(free_ids(project, "wall"))
        return [OffsetWall(wall=wall.id, id=id, joints=ends, distance=parse_length(text, project.units))]

    parted = parted_corners(project, wall)
    part = [action_row("part", "Detach its corners from the other storey", [parted])] if parted else []
    return [
        *(_join_row(project, wall, end) for end in ("start", "end")),
        *(row for end in ("start", "end") for row in _round_rows(project, wall, end)),
        Row(
            Field("split", f"Split, from {corner_name(project, wall, 'start')} corner", "length", ""),
            lambda text: [split_at(project, wall.id, parse_length(text, project.units))],
        ),
        Row(Field("offset_by", "Parallel wall, outward by", "length", ""), parallel),
        action_row("flip", "Flip outside and inside", [FlipWall(wall=wall.id)]),
        action_row("reverse", "Turn its direction round", [ReverseWall(wall=wall.id)]),
        *part,
    ]


def _round_rows(project: Project, wall: Wall, end: str) -> list[Row]:
    """A corner of two straight walls can be rounded."""
    joint = project.find(wall.start if end == "start" else wall.end)
    meeting = [w for w in project.walls if joint.id in (w.start, w.end)]
    if not isinstance(joint, FreeJoint) or len(meeting) != 2 or any(w.bulge for w in meeting):
        return []
    ids, arc = free_ids(project, "round"), next(free_ids(project, "wall"))
    joints = (next(ids), next(ids))

    def edits(text: str) -> Sequence[Any]:
        radius = parse_length(text, project.units)
        if radius <= 0:
            raise BadInput("a rounded corner needs a radius", field=f"round_{end}", value=text, limit=0.0)
        return [RoundCorner(joint=joint.id, radius=radius, wall=arc, joints=joints)]

    label = f"Round its {corner_name(project, wall, end)} corner, radius"
    return [Row(Field(f"round_{end}", label, "length", ""), edits)]


def _join_row(project: Project, wall: Wall, end: str) -> Row:
    """How a wall meets others at one of its ends."""
    joint = project.find(wall.start if end == "start" else wall.end)
    others = [w for w in project.walls if joint.id in (w.start, w.end) and w.id != wall.id]
    options = [("joined", "joined"), ("apart", "each ends by itself")]
    corner = isinstance(joint, FreeJoint) and len(others) == 1
    if corner:
        options += [("through", "this wall passes"), ("butts", "the other wall passes")]
    held = joint.join
    if corner and held == "joined" and joint.through:
        held = "through" if joint.through == wall.id else "butts"

    def edits(text: str) -> Sequence[Any]:
        join = "apart" if text == "apart" else "joined"
        passing = {"through": wall.id, "butts": others[0].id if others else None}.get(text)
        more = {"through": passing} if isinstance(joint, FreeJoint) else {}
        return [PutJoint(joint=changed(joint, join=join, **more))]

    return choice_row(f"join_{end}", f"Join at its {corner_name(project, wall, end)} end", held, options, edits)


_FACE_WORDS = {"outer": "outside", "middle": "middle", "inner": "inside"}
