"""Where details that are cut level are, in the plan of their storey: an outlined window, number over sheet."""

from __future__ import annotations

from collections.abc import Iterator

from shapely.geometry import Polygon

from ...building.kind import PlanOf
from ...drawing import NUMBER, Label, Lettered, Stroke, Text, path
from ...resolve import Building
from ...trades.drawings.model import CUT_LEVEL
from ...trades.drawings.plan import LETTER, named
from .._annotations import Annotations
from .place import junction_of, wall_of, window_in_plan

AWAY = 3.2
"""Paper mm from a window to the middle of its number."""


def level_windows(building: Building, shown: PlanOf, changes: Annotations) -> Iterator[Lettered]:
    """Of each detail of a jamb, a corner or a wall on a wall of a storey: its window and its number."""
    project, scale = shown.project, shown.scale
    for detail in project.details:
        key = f"section:{detail.id}"
        if detail.kind not in CUT_LEVEL or changes.hides(key):
            continue
        junction = junction_of(building, detail)
        wall = wall_of(building, junction) if junction is not None else None
        if junction is None or wall is None or wall.wall.base.level != shown.level:
            continue
        ring = [shown.frame.plan_to_turned(*corner) for corner in window_in_plan(building, detail, junction)]
        part = f"{detail.id}/section//"
        yield Stroke(path(*ring), "section", closed=True, part=part, feature="window")
        x0, y0, x1, y1 = Polygon(ring).bounds
        u, w, off = (x0 + x1) / 2, y1 + AWAY * scale, AWAY * scale
        text = Text(u, w, detail.name.partition(",")[0], LETTER, "centre", "middle", 0, "bold", part, pen="section")
        spots = [(u, w), (u, y0 - off), (x1 + off, (y0 + y1) / 2), (x0 - off, (y0 + y1) / 2)]
        spots += [(a, b) for a in (x0 - off, x1 + off) for b in (y0 - off, y1 + off)]
        places = [(a - u, b - w) for a, b in spots]
        yield Label(
            key, named(project, f"detail:{detail.id}", text, scale), places, NUMBER, about=Polygon(ring), backed=True
        )
