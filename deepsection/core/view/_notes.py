"""Notes tied to parts: anchor, leader and text. An anchor that is gone keeps its note at its last place."""

from __future__ import annotations

from collections.abc import Iterable, Iterator

import shapely

from ..drawing import Align, Handle, Mark, Stroke, Text, path
from ..geometry import Frame
from ..resolve import Building, Part
from ._annotations import Annotations
from .setting import Setting

SIZE = 2.5
"""Height of the lettering of notes (paper mm)."""


def anchor_point(part: Part, feature: str, along: float, frame: Frame) -> tuple[float, float]:
    """(u, v) of a feature of a part in a view: a side or the middle of its box, shifted along u."""
    x0, y0, z0, x1, y1, z1 = part.solid.bounds
    us = [x * frame.ux + y * frame.uy for x in (x0, x1) for y in (y0, y1)]
    u = {"left": min(us), "right": max(us)}.get(feature, (min(us) + max(us)) / 2) + along
    v = {"top": z1, "bottom": z0}.get(feature, (z0 + z1) / 2)
    return u, v


def note_marks(
    building: Building, setting: Setting, frame: Frame, view: str, changes: Annotations
) -> tuple[tuple[str, ...], list[Mark]]:
    """(messages about lost notes, marks of every note of the view)."""
    marks: list[Mark] = []
    lost = []
    scale = setting.scale
    for note in setting.notes:
        if note.view != view or changes.hides(f"note:{note.id}"):
            continue
        if note.anchor.part.partition("/")[0] in setting.left_out:
            continue
        part = building.part_called(note.anchor.part)
        if part is None:
            at = (note.last_x, note.last_y)
            lost.append(f"The note “{note.text}” has lost the part it points at; it stays at its last place.")
        else:
            at = anchor_point(part, note.anchor.feature, note.anchor.along, frame)
        end = (at[0] + note.dx * scale, at[1] + note.dy * scale)
        handle = Handle("move_note", note.id, "dx", "free")
        pen = "note" if part else "hidden"
        marks.append(Stroke(path(at, end), pen, part=note.id, feature="leader", handle=handle))
        align: Align = "left" if note.dx >= 0 else "right"
        shift = 1.0 * scale * (1 if note.dx >= 0 else -1)
        marks.append(Text(end[0] + shift, end[1], note.text, SIZE, align, "middle", part=note.id, handle=handle))
    return tuple(lost), marks


def note_boxes(marks: Iterable[Mark], scale: float) -> Iterator[shapely.Geometry]:
    """The paper that the texts of notes take."""
    for mark in marks:
        if isinstance(mark, Text):
            wide = len(mark.text) * SIZE * 0.6 * scale * (1 if mark.align == "left" else -1)
            x0, x1 = sorted((mark.x, mark.x + wide))
            yield shapely.box(x0, mark.y - SIZE * 0.7 * scale, x1, mark.y + SIZE * 0.7 * scale)
