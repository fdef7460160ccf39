"""Notes tied to places: a text and the line that leads from it. One that lost its place stands at its last one."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence

from shapely.geometry import Point as Spot

from ..document.anchors import Anchor, GridAnchor, JointAnchor, LevelAnchor, PartAnchor, PointAnchor
from ..drawing import FIRM, FIRST, Handle, Label, Lettered, Region, Stroke, Text, path, text_width
from ..drawing.advances import wrapped
from ..drawing.explode import circle
from ..errors import BadInput, RefusedEdit
from ..geometry import Point
from ..model import Note, Project
from ..resolve import Building, anchor_on, locate
from .sights import Sight, nearest_part

SIZE = 2.5
"""Height of the lettering of notes (paper mm)."""
LINE, WIDEST = 4.0, 62.0
"""From line to line, and how wide a note gets before it goes on in the next line (paper mm)."""
OFF: Point = (15.0, 12.0)
"""From its place to the first letter of a note that nobody has moved (paper mm)."""
MOST = 1e7
"""Farther off than anything is drawn (mm)."""
DOT = 0.45
"""Radius of the dot at which the line of a note ends (paper mm)."""
CROSS = 1.2
"""Half the size of the cross where a note last was tied (paper mm)."""


def note_lettering(
    building: Building, notes: Sequence[Note], sights: Sequence[Sight], scale: float, left_out: frozenset[str]
) -> tuple[tuple[str, ...], list[Lettered]]:
    """(messages about notes that lost their place, the lettering of all of them) of one view."""
    lost, marks = list[str](), list[Lettered]()
    for note in notes:
        if isinstance(note.anchor, PartAnchor) and note.anchor.element in left_out:
            continue
        found = locate(building, note.anchor)
        if found is None:
            lost.append(f"The note “{note.text}” has lost what it points at; it stays at its last place.")
        at = found.at if found else note.last
        places = [seen for sight in sights if (seen := sight.seen(at)) is not None] if at else [(0.0, 0.0)]
        if places:
            dot = circle(*places[0], DOT * scale)
            marks += [_label(note, places[0], scale), Region((dot,), fill="ink", part=note.id, feature="anchor")]
            if found is None:
                marks += _cross(note, places[0], scale)
    return tuple(lost), marks


def _label(note: Note, at: Point, scale: float) -> Label:
    """A note from its first letter on, on whichever side of its place it stands."""
    dx, dy = note.offset or OFF
    handle = Handle("move_note", note.id, "dx", "free")
    lines = wrapped(note.text, SIZE, WIDEST, "sans")
    x, y = at[0] + dx * scale, at[1] + dy * scale
    texts = tuple(
        Text(x, y - k * LINE * scale, line, SIZE, "left", "middle", part=note.id, handle=handle)
        for k, line in enumerate(lines)
    )
    # Right of its place or left of it, over it or under it, nearer ones first.
    across = -2 * dx - max(text_width(line, SIZE, "sans") for line in lines)
    under = LINE * (len(lines) - 1) - 2 * dy
    places = tuple(
        ((side + way * a) * scale, (high + up * b) * scale)
        for high, up in ((0.0, 1.0), (under, -1.0))
        for side, way in ((0.0, 1.0), (across, -1.0))
        for a in (0.0, 12.0, 26.0)
        for b in (0.0, 8.0, 18.0, 32.0)
    )
    rank = FIRST if note.offset is None else FIRM
    return Label(f"note:{note.id}", texts, places, rank=rank, about=Spot(at), backed=True, beside=0.0)


def _cross(note: Note, at: Point, scale: float) -> Iterator[Stroke]:
    (x, y), r = at, CROSS * scale
    for dy in (r, -r):
        yield Stroke(path((x - r, y - dy), (x + r, y + dy)), "hidden", part=note.id, feature="lost")


def anchor_at(building: Building, project: Project, sights: Sequence[Sight], of: str, u: float, v: float) -> Anchor:
    """What a note that points at a place of a view holds on to: the part, level or grid line that was meant, or the
    place itself. `of` is the part or element of the mark there. Raises: BadInput, RefusedEdit."""
    sight = next((held for held in sights if held.holds(u)), None)
    if sight is None:
        raise RefusedEdit("nothing is shown here to write a note on; click on a wall or a part")
    if max(abs(u), abs(v)) > MOST:
        raise BadInput("a note stands on the drawing, not so far from it", field="u", value=max(abs(u), abs(v)))
    part = building.by_key.get(of)
    at = sight.on(part, u, v) if part else None
    if part and at:
        return anchor_on(building, part, at)
    element = of.partition("/")[0]
    if found := nearest_part(building, sight, element, u, v):
        return anchor_on(building, *found)
    x, y, z = sight.base(u, v)
    grid = next((held for held in project.grid if held.id == element), None)
    if element in building.levels:
        return LevelAnchor(level=element, at=(x, y))
    if grid:
        c, s = math.cos(math.radians(grid.angle)), math.sin(math.radians(grid.angle))
        return GridAnchor(grid=grid.id, distance=(x - grid.x) * c + (y - grid.y) * s, height=z)
    if any(held.id == element for held in project.joints):
        return JointAnchor(joint=element, height=z)
    # Beside its surface: on an edge of it, or on what is drawn around it.
    beside = part or next(iter(building.parts_of(element)), None)
    return anchor_on(building, beside, sight.beside(beside, u, v)) if beside else PointAnchor(x=x, y=y, z=z)
