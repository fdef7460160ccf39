"""Plans that were read, told: for the screen before they are taken over, and in rows for other programs."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from typing import Any

from deepsection.core.adopting import (
    NEW,
    Adopted,
    Gone,
    Moved,
    Own,
    adopted,
    groups_of,
    key_of,
    tells_heights,
    thickness_of,
    turns_of,
)
from deepsection.core.errors import BadInput
from deepsection.core.geometry import Axis, Point
from deepsection.core.model import Project, wall_length
from deepsection.core.reading import FAR, FoundOpening, FoundStair, FoundWall, ReadPlan
from deepsection.core.resolve import storeys
from deepsection.core.units import format_length

from .plan_choices import PlanChoices

MOST_SPARE = 40_000
"""So many lines of a drawing are shown."""
DOUBT = 0.6
"""A unit found with less confidence than this is asked for."""


def look_at(project: Project, plan: ReadPlan, choices: PlanChoices) -> dict[str, Any]:
    """All that a screen shows of a plan before it is taken over."""
    storey_of = {wall: place for place, storey in enumerate(plan.storeys) for wall in storey.walls}
    known = storeys(project)
    usual = {k: held.level for k, held in enumerate(known)}
    more = NEW if not project.walls and len(plan.storeys) > len(known) and tells_heights(plan) else ""
    levels = {k: choices.storeys.get(k, usual.get(k, more)) for k in range(len(plan.storeys))}
    refused = ""
    try:
        made = adopted(project, plan, choices.kept, prefix="look")
    except BadInput as error:  # It is refused when the plan is taken over; here it is only looked at.
        made, refused = Adopted(), error.message
    layers = sorted(plan.layers)
    position = {name: k for k, name in enumerate(layers)}
    return {
        "unit": {**_unit(plan), "doubtful": plan.unit.confidence < DOUBT},
        "model": any(held.height is not None for held in plan.storeys),
        "origin": plan.origin,
        "walls": [
            {**_wall(plan, wall, storey_of.get(k)), "stands": k in made.stands or k in made.away}
            for k, wall in enumerate(plan.walls)
        ],
        "moved": [_moved(project, made, held) for held in made.moved],
        "gone": [_gone(project, made, held) for held in made.gone],
        "own": [_own(project, plan, held) for held in made.own],
        "openings": [
            {**_opening(plan, held), "stands": k in made.standing_openings} for k, held in enumerate(plan.openings)
        ],
        "rooms": [{"name": room.name, "at": room.at, "area": room.area} for room in plan.rooms],
        "grids": [{"label": held.label, "start": held.start, "end": held.end} for held in plan.grids],
        "stairs": [_stair(held, built=k in made.stairs) for k, held in enumerate(plan.stairs)],
        "levels_written": [{"text": held.text, "at": _point(held.at)} for held in plan.levels],
        "roofs": [
            {"outline": [_point(point) for point in roof.outline], "slopes": len(roof.slopes)} for roof in plan.roofs
        ],
        "turns": [] if made.known else [{"words": held.words, "degrees": held.degrees} for held in turns_of(plan)],
        "north": {"angle": plan.north.angle, "at": _point(plan.north.at)} if plan.north else None,
        "dimensions": dimension_rows(plan),
        "left": left_rows(plan),
        "layers": [{"name": name, "meaning": plan.layers[name]} for name in layers],
        "groups": [_group(project, held) for held in groups_of(project, plan.walls)],
        "make_ups": [
            {"id": held.id, "name": held.name, "thickness": thickness_of(held)}
            for held in project.make_ups
            if held.use == "wall"
        ],
        "storeys": [
            {"title": held.title, "walls": len(held.walls), "level": levels[k]} for k, held in enumerate(plan.storeys)
        ],
        "levels": [
            *({"level": held.level, "name": held.name} for held in known if held.plate),
            *([{"level": NEW, "name": "a new storey"}] if more else []),
        ],
        "notes": [*plan.remarks, *placed_words(plan), *plan.notes, *_laid(project, made)],
        "refused": refused,
        "drawn": [
            [*_point(a), *_point(b), round(bulge, 4), position.get(layer, 0), left]
            for a, b, bulge, layer, left in plan.lines[:MOST_SPARE]
        ],
    }


def _called(project: Project, id: str) -> str:
    """What a wall or an opening is called in a list."""
    opening = next((held for held in project.openings if held.id == id), None)
    if opening is not None:
        return f"{opening.unit.capitalize()} {project.number_of(opening)}"
    wall = project.walls_by_id[id]
    return f"{wall.status.capitalize()} wall, {format_length(wall_length(project, wall), project.units)} long"


def placed_words(plan: ReadPlan) -> list[str]:
    """Where a plan is drawn that is brought near to the origin."""
    far = _ways(plan.origin, 500.0, lambda by: f"{by / 1000:,.0f} m")
    return [f"it is drawn {far} of the origin, and is placed near it"] if max(map(abs, plan.origin)) > FAR else []


def _laid(project: Project, made: Adopted) -> list[str]:
    """How a plan that is read again is laid from where its file has it."""
    turn = math.remainder(made.laid.turn, 360.0)
    if not made.known:
        return []
    if turn:
        way = "left" if turn > 0.0 else "right"
        said = f"turned by {abs(turn):.1f}° to the {way} of how the file has it"
        return [f"the house stands {said}: the plan is laid over it"]
    by = _ways((made.laid.dx, made.laid.dy), 1.0, lambda by: format_length(by, project.units))
    return [f"the file counts from another place than the house: it is laid {by}"] if by else []


def _ways(by: Point, least: float, write: Callable[[float], str]) -> str:
    """How far something lies to the east or west, and to the north or south, in words; nothing below the least (mm)."""
    ways = ((by[0], "east", "west"), (by[1], "north", "south"))
    return " and ".join(f"{write(abs(far))} {up if far > 0 else down}" for far, up, down in ways if abs(far) > least)


def _in_file(made: Adopted, points: Sequence[Point]) -> list[Point]:
    """Points of the project, where the plan lies in its file."""
    return [_point(made.laid.back(point)) for point in points]


def _how(project: Project, held: Moved | Own) -> str:
    """By how much something was moved, and is wider."""
    said = [f"moved by {format_length(held.by, project.units)}"] if held.by > 1.0 else []
    if held.wider:
        more = "wider" if held.wider > 0 else "narrower"
        said.append(f"{format_length(abs(held.wider), project.units)} {more}")
    return ", ".join(said) or "elsewhere"


def _moved(project: Project, made: Adopted, held: Moved) -> dict[str, Any]:
    words = f"{_called(project, held.id)}: {_how(project, held)}"
    return {"id": held.id, "kind": held.kind, "words": words, "line": _in_file(made, held.line)}


def _own(project: Project, plan: ReadPlan, held: Own) -> dict[str, Any]:
    """What of the plan is as it was, and otherwise in the project."""
    opening = plan.openings[held.number] if held.kind == "opening" else None
    wall = plan.walls[opening.wall if opening else held.number]
    axis, half = _axis(wall), opening.width / 2 if opening else 0.0
    line = [axis.at(opening.distance - half), axis.at(opening.distance + half)] if opening else [wall.start, wall.end]
    if held.id is None:
        what = (
            f"{opening.kind.capitalize()}, {format_length(opening.width, project.units)} wide"
            if opening
            else (f"{'Outer' if wall.outer else 'Inner'} wall, {format_length(wall.length, project.units)} long")
        )
        words = f"{what}: not in the project"
    else:
        words = f"{_called(project, held.id)}: {_how(project, held)}"
    place = {"kind": held.kind, "number": held.number}
    return {**place, "words": words, "line": [_point(point) for point in line]}


def _gone(project: Project, made: Adopted, held: Gone) -> dict[str, Any]:
    return {
        "id": held.id,
        "kind": held.kind,
        "words": _called(project, held.id),
        "line": _in_file(made, held.points),
    }


def _point(point: Sequence[float]) -> tuple[float, float]:
    return round(point[0], 1), round(point[1], 1)


def _unit(plan: ReadPlan) -> dict[str, Any]:
    held = plan.unit
    return {"name": held.name, "factor": held.factor, "confidence": held.confidence, "reason": held.reason}


def _axis(wall: FoundWall) -> Axis:
    return Axis(wall.start, wall.end, wall.bulge)


def _wall(plan: ReadPlan, wall: FoundWall, storey: int | None) -> dict[str, Any]:
    axis, half = _cornered(plan, wall), max(wall.thickness, 40.0) / 2
    outline = axis.points(left=half) + axis.points(left=-half)[::-1]
    return {
        "start": _point(wall.start),
        "end": _point(wall.end),
        "bulge": wall.bulge,
        "thickness": wall.thickness,
        "length": round(wall.length, 1),
        "group": key_of(wall),
        "outer": wall.outer,
        "confidence": wall.confidence,
        "reason": wall.reason,
        "storey": storey,
        "outline": [_point(point) for point in outline],
    }


def _cornered(plan: ReadPlan, wall: FoundWall) -> Axis:
    """The axis, on to the outside of the corners that it shares."""
    if wall.bulge:
        return _axis(wall)
    axis = _axis(wall)
    more = [plan.walls[on.wall].thickness / 2 if on.kind == "corner" else 0.0 for on in (wall.start_on, wall.end_on)]
    return Axis(axis.at(-more[0]), axis.at(axis.length + more[1]))


def _opening(plan: ReadPlan, held: FoundOpening) -> dict[str, Any]:
    wall = plan.walls[held.wall]
    axis, half = _axis(wall), max(wall.thickness, 40.0) / 2
    low, high = held.distance - held.width / 2, held.distance + held.width / 2
    part = axis.part(max(low, 0.0), min(high, axis.length)) if wall.bulge else None
    sides = (
        part.points(left=half) + part.points(left=-half)[::-1]
        if part
        else [axis.at(s, left) for s, left in ((low, half), (high, half), (high, -half), (low, -half))]
    )
    return {
        "wall": held.wall,
        "distance": round(held.distance, 1),
        "width": round(held.width, 1),
        "kind": held.kind,
        "number": held.number,
        "confidence": held.confidence,
        "reason": held.reason,
        "outline": [_point(point) for point in sides],
    }


def _stair(held: FoundStair, *, built: bool) -> dict[str, Any]:
    return {
        "outlines": [[_point(point) for point in flight.outline] for flight in held.flights],
        "foot": _point(held.foot),
        "turn": held.turn,
        "risers": held.risers,
        "width": held.width,
        "going": held.going,
        "confidence": held.confidence,
        "reason": held.reason,
        "built": built,
    }


def _group(project: Project, held: Any) -> dict[str, Any]:
    return {
        "key": held.key,
        "thickness": held.thickness,
        "outer": held.outer,
        "layers": held.layers,
        "count": held.count,
        "length": round(held.length, 1),
        "make_up": held.make_up,
    }


def dimension_rows(plan: ReadPlan) -> list[dict[str, Any]]:
    """Each dimension: its text, what that says, what is drawn, and the difference (mm); the largest first."""
    rows = [
        {
            "text": held.text,
            "stated": round(held.stated, 1),
            "measured": held.measured,
            "difference": round(held.difference, 1),
            "at": _point(held.at),
        }
        for held in plan.dimensions
    ]
    return sorted(rows, key=lambda row: -abs(row["difference"]))


def left_rows(plan: ReadPlan) -> list[dict[str, Any]]:
    """What nothing was made of, by layer."""
    return [{"layer": held.layer, "what": held.what, "count": held.count} for held in plan.left]


def plan_rows(plan: ReadPlan) -> dict[str, Any]:
    """All that was read, for other programs: mm, walls at the place where the file has them."""
    east, north = plan.origin

    def at(point: Sequence[float]) -> list[float]:
        return [round(point[0] + east, 3), round(point[1] + north, 3)]

    storey_of = {wall: place for place, storey in enumerate(plan.storeys) for wall in storey.walls}
    return {
        "unit": _unit(plan),
        "origin": list(plan.origin),
        "plans": [
            {"title": held.title, "shift": list(held.shift), "walls": len(held.walls), "above_lowest": held.above}
            for held in plan.storeys
        ],
        "walls": [
            {
                "id": k,
                "start": at(wall.start),
                "end": at(wall.end),
                "bulge": round(wall.bulge, 9),
                "thickness": wall.thickness,
                "layers": list(wall.layers),
                "length": round(wall.length, 3),
                "outer": wall.outer,
                "layer": wall.layer,
                "plan": storey_of.get(k),
                "confidence": wall.confidence,
                "reason": wall.reason,
            }
            for k, wall in enumerate(plan.walls)
        ],
        "openings": [
            {
                "wall": held.wall,
                "distance": round(held.distance, 3),
                "width": round(held.width, 3),
                "kind": held.kind,
                "number": held.number,
                "height": held.height,
                "sill": held.sill,
                "confidence": held.confidence,
                "reason": held.reason,
            }
            for held in plan.openings
        ],
        "rooms": [{"name": room.name, "at": at(room.at), "area_m2": room.area} for room in plan.rooms],
        "grid": [{"label": held.label, "start": at(held.start), "end": at(held.end)} for held in plan.grids],
        "stairs": [
            {
                "foot": at(held.foot),
                "turn": held.turn,
                "width": held.width,
                "going": held.going,
                "flights": [{"risers": flight.risers, "then": flight.turn} for flight in held.flights],
                "confidence": held.confidence,
                "reason": held.reason,
            }
            for held in plan.stairs
        ],
        "heights": [
            {"text": held.text, "of": held.of, "height": held.value, "at": at(held.at)} for held in plan.levels
        ],
        "north": {"clockwise_from_up": plan.north.angle, "reason": plan.north.reason} if plan.north else None,
        "dimensions": dimension_rows(plan),
        "layers": plan.layers,
        "left_over": left_rows(plan),
        "placed": placed_words(plan),
        "remarks": plan.remarks,
        "notes": plan.notes,
    }
