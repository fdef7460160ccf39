"""Wall sections in plan: a short line across their wall, with an arrow that looks along it, and their name."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import replace

from ...building.kind import PlanOf
from ...drawing import NUMBER, Handle, Label, Lettered, Stroke, Symbol, Text, path
from ...model import Project, along_from_start
from ..walls.planned import WALLS

OUT, IN = 7.0, 4.0
"""Paper mm that the line runs past the outer and the inner face."""
LETTER, WHERE = 3.0, 1.8
"""Height of the name of a section, and of where its drawing is."""
PLACES = ((3.6, -2.4), (3.6, 2.8), (6.5, 0.0), (9.0, -3.0), (9.0, 3.0), (13.0, 0.0), (-22.0, 0.0))
"""Where the name stands: paper mm past the end of the line, and beside it in the look direction."""


def sheet_number(project: Project, view: str) -> str:
    """The number of a view on the first sheet that has it, over the number of that sheet; nothing where none has it."""
    for sheet in project.sheets:
        for number, held in enumerate(sheet.placed, 1):
            if held.view == view:
                return f"{number}/{sheet.number}"
    return ""


def named(project: Project, view: str, name: Text, scale: float) -> tuple[Text, ...]:
    """The name of a section at its mark, and where its drawing is below that."""
    where = sheet_number(project, view)
    if not where:
        return (name,)
    below = name.y - (name.size / 2 + WHERE * 0.8) * scale
    return name, replace(name, y=below, text=where, size=WHERE, face="sans")


def wall_section_marks(shown: PlanOf) -> Iterator[Lettered]:
    """Every wall section through a wall of the storey."""
    scale, frame = shown.scale, shown.frame
    for held in shown.project.wall_sections:
        wall = shown.placed[WALLS].by_id[held.wall]
        along = along_from_start(held, wall.length)
        if wall.wall.base.level != shown.level or not 0.0 <= along <= wall.length:
            continue
        outside = frame.plan_to_turned(*wall.at(along, wall.outer + OUT * scale))
        inside = frame.plan_to_turned(*wall.at(along, wall.inner - IN * scale))
        length = math.dist(outside, inside)
        out = ((outside[0] - inside[0]) / length, (outside[1] - inside[1]) / length)
        # Along the wall, to where it looks.
        ahead = frame.plan_to_turned(*wall.at(along + (1.0 if held.look == "end" else -1.0), wall.outer + OUT * scale))
        size = math.dist(ahead, outside) or 1.0
        side = ((ahead[0] - outside[0]) / size, (ahead[1] - outside[1]) / size)
        part, handle = f"{held.id}/section//", Handle("move_wall_section", held.id, "distance", "along")
        yield Stroke(path(outside, inside), "section", part=part, feature="line", handle=handle)
        angle = math.degrees(math.atan2(side[1], side[0]))
        yield Symbol("section", outside[0], outside[1], (), angle, out, part=f"{part}end")
        spots = [(out[0] * a + side[0] * b, out[1] * a + side[1] * b) for a, b in PLACES]
        u, w = outside[0] + spots[0][0] * scale, outside[1] + spots[0][1] * scale
        text = Text(u, w, held.name, LETTER, "centre", "middle", 0, "bold", f"{part}end", pen="section")
        places = [((du - spots[0][0]) * scale, (dw - spots[0][1]) * scale) for du, dw in spots]
        words = named(shown.project, f"section:{held.id}", text, scale)
        yield Label(f"section:{held.id}", words, places, NUMBER, backed=True)
