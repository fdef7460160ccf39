"""Fields of wall sections: where they lie, how much they show, and what is left out of them on paper."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import Any, Literal

from ...document.ids import free_ids
from ...edits import PutWallSection, changed
from ...errors import BadInput
from ...model import InsideBreak, Project, StripBreak, WallSection, along_from_start, wall_length
from ...rows.rows import Row, action_row, choice_row, length_row, level_options, open_length_row, text_row, under
from ..levels.rises import height_of
from ..walls.end_names import corner_name
from .section_places import members_row

FIRST_INSIDE = 300.0, 150.0
"""How far inward a new break of floors begins, and how wide it is (mm)."""
SHARED = 300.0
"""Two halves of a wall section both show so much (mm) above and below the level at which they meet."""
FIRST_BREAK = 900.0, 600.0
"""How far above its level a new break begins, and how high it is (mm)."""


def wall_section_fields(project: Project, held: WallSection) -> list[Row]:
    """Name, place, direction and reach of a wall section, and its breaks."""
    units, wall = project.units, project.walls_by_id[held.wall]
    length = wall_length(project, wall)
    along = along_from_start(held, length)

    def put(**changes: Any) -> Sequence[Any]:
        return [PutWallSection(wall_section=changed(held, **changes))]

    def place(end: str) -> Callable[[float], Sequence[Any]]:
        return lambda value: put(end=end, distance=value)

    ends = {end: corner_name(project, wall, end) for end in ("start", "end")}
    looks = [(end, f"to its {name} corner") for end, name in ends.items()]
    through, at = _openings(project, held), _opening_at(project, held, along)
    return [
        text_row("name", "Name", held.name, lambda t: put(name=t)),
        length_row("from_start", f"From {ends['start']} corner", along, units, place("start")),
        length_row("from_end", f"From {ends['end']} corner", length - along, units, place("end")),
        choice_row("through", "Through the middle of", at, through, lambda t: _through(project, t, put)),
        choice_row("look", "Looks along the wall", held.look, looks, lambda t: put(look=t)),
        open_length_row("outside", "Shows outside of it", held.outside, units, lambda v: put(outside=v), least=0.0),
        open_length_row("inside", "Shows inside of it", held.inside, units, lambda v: put(inside=v), least=0.0),
        length_row("depth", "Look depth", held.depth, units, lambda v: put(depth=v), least=0.0),
        members_row(held.members, put),
        open_length_row("top", "Shows nothing above", held.top, units, lambda v: put(top=v)),
        open_length_row("bottom", "Shows nothing below", held.bottom, units, lambda v: put(bottom=v)),
        *under(
            "On paper",
            [
                _paper_row("tall", "Height", held, put),
                *_break_rows(project, held, put),
                _paper_row("wide", "Width", held, put),
                *_inside_rows(project, held, put),
            ],
        ),
        *_halves_row(project, held),
    ]  # fmt: skip


def _halves_row(project: Project, held: WallSection) -> list[Row]:
    """Two of it, one over the other, which share a stretch about the level that is nearest to its middle."""
    ends = [height_of(project.rungs, project.make_ups, rung.id) for rung in project.rungs]
    low = min(ends) if held.bottom is None else held.bottom
    high = max(ends) if held.top is None else held.top
    inner = [z for z in ends if low + SHARED < z < high - SHARED]
    if not inner:
        return []
    z = min(inner, key=lambda at: (abs(at - (low + high) / 2), at))
    name = next(str(n) for n in range(1, 1000) if str(n) not in {one.name for one in project.wall_sections})
    id = next(free_ids(project, "wall-section"))
    upper = changed(held, id=id, name=name, bottom=z - SHARED)
    lower = changed(held, top=z + SHARED)
    edits = [PutWallSection(wall_section=lower), PutWallSection(wall_section=upper)]
    return [action_row("halves", "Make two of it, one over the other", edits)]


def _openings(project: Project, held: WallSection) -> list[tuple[str, str]]:
    """The openings of its wall, to be cut through."""
    own = [opening for opening in project.openings if opening.wall == held.wall]
    return [("", "where it lies"), *((opening.id, project.number_of(opening) or opening.unit) for opening in own)]


def _opening_at(project: Project, held: WallSection, along: float) -> str:
    length = wall_length(project, project.walls_by_id[held.wall])
    own = [opening for opening in project.openings if opening.wall == held.wall]
    return next((one.id for one in own if abs(along_from_start(one, length) - along) < 1.0), "")


def _through(project: Project, id: str, put: Callable[..., Sequence[Any]]) -> Sequence[Any]:
    if not id:
        return []
    opening = project.find(id)
    return put(end=opening.end, distance=opening.distance)


def _paper_row(field: Literal["tall", "wide"], label: str, held: WallSection, put: Callable[..., Sequence[Any]]) -> Row:
    """How high or wide it may be on paper, in millimetres whatever the units of the house are."""
    now: float | None = getattr(held, field)

    def edits(text: str) -> Sequence[Any]:
        if not text.strip():
            return put(**{field: None})
        try:
            size = float(text.strip().removesuffix("mm").replace(",", "."))
        except ValueError:
            size = 0.0
        if not 40 <= size <= 3000:
            message = f"type the {label.lower()} that it may have on paper, 40 to 3000 mm, or nothing for no breaks"
            raise BadInput(message, field=field, value=text)
        return put(**{field: size})

    return text_row(field, f"{label} on paper, mm", "" if now is None else f"{now:g}", edits, empty=True)


def _break_rows(project: Project, held: WallSection, put: Callable[..., Sequence[Any]]) -> list[Row]:
    """Where it is cut short: by itself, or where it is said."""
    own, units = held.breaks, project.units
    ways = [("auto", "where it is plain, as needed"), ("own", "as stated")]

    def way(text: str) -> Sequence[Any]:
        return put(breaks=None if text == "auto" else own or ())

    def with_break(k: int, **changes: Any) -> Sequence[Any]:
        held_breaks = list(own or ())
        held_breaks[k] = changed(held_breaks[k], **changes)
        return put(breaks=tuple(held_breaks))

    rows = [choice_row("breaks", "Cut short", "auto" if own is None else "own", ways, way)]
    for k, one in enumerate(own or ()):
        named = f"Break {k + 1}"
        rest = (*(own or ())[:k], *(own or ())[k + 1 :])
        rows += [
            choice_row(f"break:{k}:level", f"{named}: above", one.level, level_options(project),
                       lambda t, k=k: with_break(k, level=t)),  # type: ignore[misc]
            length_row(f"break:{k}:above", f"{named}: begins above it by", one.above, units,
                       lambda v, k=k: with_break(k, above=v)),  # type: ignore[misc]
            length_row(f"break:{k}:tall", f"{named}: leaves out", one.tall, units,
                       lambda v, k=k: with_break(k, tall=v), least=0.0),  # type: ignore[misc]
            action_row(f"break:{k}:remove", f"Remove break {k + 1}", put(breaks=rest)),
        ]  # fmt: skip
    if own is not None:
        level = project.walls_by_id[held.wall].base.level
        above, tall = FIRST_BREAK
        made = StripBreak(level=level, above=above, tall=tall)
        rows.append(action_row("break:add", "Add a break", put(breaks=(*own, made))))
    return rows


def _inside_rows(project: Project, held: WallSection, put: Callable[..., Sequence[Any]]) -> list[Row]:
    """Where its floors and ceilings are cut short inside: by itself, or where it is said."""
    own, units = held.inside_breaks, project.units
    ways = [("auto", "where they are plain, as needed"), ("own", "as stated")]

    def way(text: str) -> Sequence[Any]:
        return put(inside_breaks=None if text == "auto" else own or ())

    def with_break(k: int, **changes: Any) -> Sequence[Any]:
        breaks = list(own or ())
        breaks[k] = changed(breaks[k], **changes)
        return put(inside_breaks=tuple(breaks))

    rows = [choice_row("inside_breaks", "Floors cut short", "auto" if own is None else "own", ways, way)]
    for k, one in enumerate(own or ()):
        named = f"Inside break {k + 1}"
        rest = (*(own or ())[:k], *(own or ())[k + 1 :])
        rows += [
            length_row(f"inside_break:{k}:inward", f"{named}: begins inward by", one.inward, units,
                       lambda v, k=k: with_break(k, inward=v), least=0.0),  # type: ignore[misc]
            length_row(f"inside_break:{k}:wide", f"{named}: leaves out", one.wide, units,
                       lambda v, k=k: with_break(k, wide=v), least=0.0),  # type: ignore[misc]
            action_row(f"inside_break:{k}:remove", f"Remove inside break {k + 1}", put(inside_breaks=rest)),
        ]  # fmt: skip
    if own is not None:
        inward, wide = FIRST_INSIDE
        made = InsideBreak(inward=inward, wide=wide)
        rows.append(action_row("inside_break:add", "Add an inside break", put(inside_breaks=(*own, made))))
    return rows
