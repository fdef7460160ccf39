"""Fields of walls that are not plain: batter, lean, taper, outline, mouldings."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from typing import Any

from ...catalog import materials
from ...document.ids import free_among
from ...edits import PutWall, changed
from ...errors import BadInput
from ...model import MakeUp, Moulding, PlanSpot, Project, SectionSpot, Wall
from ...rows.pairs import Pair, read_pairs, write_pairs
from ...rows.rows import Field, Row, action_row, choice_row, length_row
from ...units import INCH, parse_length
from ..makeups.fields import OF_UNITS


def shape_fields(project: Project, wall: Wall, height: float) -> list[Row]:
    """What makes a wall of a height (mm) another than a plain one."""
    make_up = next(held for held in project.make_ups if held.id == wall.make_up)
    thick = sum(layer.thickness for layer in make_up.layers)

    def put(**changes: Any) -> Sequence[Any]:
        return [PutWall(wall=changed(wall, **changes))]

    def lean(text: str) -> Sequence[Any]:
        angle = _degrees(text)
        if angle is None:
            raise BadInput(f"“{text}” is no angle: type degrees, such as 5°", field="lean", value=text)
        return put(lean=angle)

    rows = [
        *(_batter(project, wall, side, thick, height) for side in ("outer", "inner")),
        Row(Field("lean", "Whole wall leans out, degrees", "text", f"{wall.lean:.4g}°"), lean),
    ]
    if not _framed(make_up) or wall.taper:
        label = "Thinner at its end by"
        rows.append(length_row("taper", label, wall.taper, project.units, lambda v: put(taper=v)))
    if wall.outline:
        rows.append(_outline(project, wall, put))
    for position in range(len(wall.mouldings)):
        rows += _moulding(project, wall, position)
    rows += [
        action_row(
            f"add_{kind}", f"Add a {kind}", put(mouldings=(*wall.mouldings, _usual(project, wall, kind, height)))
        )
        for kind in USUAL
    ]
    return rows


def _framed(make_up: MakeUp) -> bool:
    return any(layer.framing for layer in make_up.layers)


def _degrees(text: str) -> float | None:
    plain = text.strip().lower()
    for ending in ("°", "degrees", "deg"):
        plain = plain.removesuffix(ending).strip()
    try:
        return float(plain) if plain not in ("none", "plumb") else 0.0
    except ValueError:
        return None


def _batter(project: Project, wall: Wall, side: str, thick: float, height: float) -> Row:
    """How far a face leans in: degrees from plumb, or the thickness that it leaves at the top."""
    field, words = f"batter_{side}", "Outside" if side == "outer" else "Inside"
    other = wall.batter_inner if side == "outer" else wall.batter_outer

    def edits(text: str) -> Sequence[Any]:
        plain = text.strip().lower()
        typed = _degrees(text)
        if typed is not None and (plain.endswith(("°", "deg", "degrees")) or typed == 0.0):
            return [PutWall(wall=changed(wall, **{field: typed}))]
        if plain.endswith(("°", "deg", "degrees")):
            raise BadInput(f"“{text}” is no angle", field=field, value=text)
        top = parse_length(text, project.units)
        lean = thick - height * math.tan(math.radians(other)) - top
        if not 0 <= lean <= height or top <= 0:
            message = "type degrees, such as 5°, or a thickness at the top that is less than at the foot"
            raise BadInput(message, field=field, value=text, limit=thick)
        return [PutWall(wall=changed(wall, **{field: math.degrees(math.atan2(lean, height))}))]

    label = f"{words} leans in, degrees or top thickness"
    return Row(Field(field, label, "text", f"{getattr(wall, field):.4g}°"), edits)


def _outline(project: Project, wall: Wall, put: Callable[..., Sequence[Any]]) -> Row:
    pairs = [(spot.along, spot.out) for spot in wall.outline]

    def edits(text: str) -> Sequence[Any]:
        what = "corner: write how far along, a colon, and how far out"
        spots = [PlanSpot(along=along, out=out) for along, out in read_pairs(text, project.units, "outline", what)]
        if 0 < len(spots) < 3:
            raise BadInput("an outline has at least three corners; none makes it a plain wall", field="outline")
        return put(outline=tuple(spots))

    return Row(Field("outline", "Outline, along: out", "text", write_pairs(pairs, project.units)), edits)


# --- mouldings ----------------------------------------------------------------------------------

USUAL: dict[str, tuple[Pair, ...]] = {
    "plinth": ((0, 0), (2, 0), (2, 12), (0, 13)),
    "band": ((0, 0), (1.5, 0), (1.5, 8), (0, 9)),
    "cornice": ((0, -14), (2, -14), (2, -10), (8, -4), (8, 0), (0, 0)),
}
"""Sections to start from (out, up), in inches. Common practice, no source."""


def _usual(project: Project, wall: Wall, kind: str, height: float) -> Moulding:
    """A moulding to start from: a plinth at the foot, a band half way up, a cornice at the plate."""
    unit = INCH if project.units == "ft-in" else 25.0
    taken = {held.id for held in wall.mouldings}
    id = next(free_among(taken, kind))
    half = round(height / 2 / unit) * unit
    return Moulding(
        id=id,
        name=kind if id == f"{kind}-1" else id.replace("-", " "),
        at="plate" if kind == "cornice" else "foot",
        offset=half if kind == "band" else 0.0,
        section=tuple(SectionSpot(out=out * unit, up=up * unit) for out, up in USUAL[kind]),
    )


def _moulding(project: Project, wall: Wall, position: int) -> list[Row]:
    held, units = wall.mouldings[position], project.units
    name = held.name[:1].upper() + held.name[1:]

    def put(*mouldings: Moulding) -> Sequence[Any]:
        all = (*wall.mouldings[:position], *mouldings, *wall.mouldings[position + 1 :])
        return [PutWall(wall=changed(wall, mouldings=all))]

    def id(field: str) -> str:
        return f"moulding:{held.id}:{field}"

    def section(text: str) -> Sequence[Any]:
        pairs = read_pairs(text, units, id("section"), "corner: write how far out, a colon, and how far up")
        if len(pairs) < 3:
            raise BadInput("a section has at least three corners", field=id("section"), value=text)
        if min(out for out, _ in pairs) < 0:
            raise BadInput("a section stands out from its face: no corner lies inside the wall", field=id("section"))
        return put(changed(held, section=tuple(SectionSpot(out=out, up=up) for out, up in pairs)))

    stone = [(made.id, made.name) for made in materials().values() if made.id not in OF_UNITS or made.id == "trim"]
    places = [("foot", "the foot of the wall"), ("plate", "its plate")]
    pairs = [(spot.out, spot.up) for spot in held.section]
    return [
        Row(Field(id("section"), f"{name}, out: up", "text", write_pairs(pairs, units)), section),
        choice_row(id("at"), f"{name} from", held.at, places, lambda t: put(changed(held, at=t))),
        length_row(id("offset"), f"{name} above that", held.offset, units, lambda v: put(changed(held, offset=v))),
        choice_row(
            id("face"),
            f"{name} on",
            held.face,
            [("outer", "the outside"), ("inner", "the inside")],
            lambda t: put(changed(held, face=t)),
        ),
        choice_row(id("material"), f"{name} of", held.material, stone, lambda t: put(changed(held, material=t))),
        action_row(id("remove"), f"Take the {held.name} off", put()),
    ]
