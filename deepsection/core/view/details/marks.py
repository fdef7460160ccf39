"""Where details are: outlined windows in sections and wall sections, at every junction that a detail serves."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from weakref import WeakKeyDictionary

from shapely.geometry import Point as Spot
from shapely.geometry import Polygon, box

from ...building.placed import Placed
from ...drawing import NUMBER, Label, Lettered, Stroke, Text, path
from ...drawing.cropping import Window
from ...geometry import Frame
from ...junctions import Junction, Run
from ...model import Detail
from ...resolve import Building
from ...trades.drawings.plan import LETTER, named
from ..composing import Composition
from ..cut import CutPart
from .making import group_states
from .place import window_around

SMALL = ("eave", "rake", "ridge", "floor_edge", "wall_foot")
"""What a building section marks: the rest is marked in wall sections."""
LARGE = 30.0
"""From this scale on all are marked."""
ACROSS = 0.98
"""A plane cuts a junction square from this cosine on."""
REACH = 400.0
"""What is drawn is a detail's when the junction lies this near to what is cut (mm)."""
NAME_UP = 4.5
"""Paper mm from a window up to the number on it."""
ROUND = 2.0
"""Radius of the corners of a window (paper mm)."""

_serving: WeakKeyDictionary[Placed, list[tuple[Junction, Detail]]] = WeakKeyDictionary()


def served(building: Building) -> list[tuple[Junction, Detail]]:
    """Every junction that has a detail, of its own or of one that is built alike."""
    found = _serving.get(building.placed)
    if found is None:
        found = []
        for state in group_states(building.placed.project, building) if building.placed.project.details else ():
            own = {held.junction: held for held in state.details}
            if state.details and state.is_drawn:
                found += [(one, own.get(one.id, state.details[0])) for one in state.group.junctions]
        _serving[building.placed] = found
    return found


def detail_outlines(view: Composition, frame: Frame, window: Window, cut: Sequence[CutPart]) -> Iterator[Lettered]:
    """Around each junction that a plane cuts square: the window of its detail, its number and where it is drawn."""
    scale = view.setting.scale
    shapes = [one.whole for one in cut]
    done: list[tuple[str, float, float]] = []
    for junction, detail in served(view.building):
        if (scale > LARGE and junction.kind not in SMALL) or view.changes.hides(f"section:{detail.id}"):
            continue
        for run in junction.runs:
            at = _crossing(run, frame)
            if at is None or not (window.holds(*at) and window.shows_across(at[0])) or not _on(shapes, at):
                continue
            near = any(id == detail.id and math.dist(at, (u, v)) < REACH for id, u, v in done)
            if near:
                continue
            done.append((detail.id, *at))
            yield from _outlined(view, junction, detail, run, frame, window, at)


def _crossing(run: Run, frame: Frame) -> tuple[float, float] | None:
    """Where a plane cuts a run square (u, v)."""
    (x0, y0, z0), (x1, y1, z1) = run.start, run.end
    a, b = frame.depth(x0, y0), frame.depth(x1, y1)
    if a * b > 0 or abs(a - b) < 1.0 or abs(run.out[0] * frame.ux + run.out[1] * frame.uy) < ACROSS:
        return None
    share = a / (a - b)
    x, y, z = x0 + (x1 - x0) * share, y0 + (y1 - y0) * share, z0 + (z1 - z0) * share
    return x * frame.ux + y * frame.uy, z


def _on(shapes: Sequence[Polygon], at: tuple[float, float]) -> bool:
    spot = Spot(at)
    return any(shape.distance(spot) < REACH for shape in shapes)


def _outlined(
    view: Composition,
    junction: Junction,
    detail: Detail,
    run: Run,
    frame: Frame,
    window: Window,
    at: tuple[float, float],
) -> Iterator[Lettered]:
    scale, (u, v) = view.setting.scale, at
    outward, inward, below, above = window_around(view.building, detail, junction)
    side = 1.0 if run.out[0] * frame.ux + run.out[1] * frame.uy > 0 else -1.0
    x0, x1 = sorted(window.across(edge) for edge in (u + side * outward, u - side * inward))
    y0, y1 = window.at(v - below), window.at(v + above)
    part, key = f"{detail.id}/section//", f"section:{detail.id}"
    radius = min(ROUND * scale, (x1 - x0) / 4, (y1 - y0) / 4)
    ring = box(x0 + radius, y0 + radius, x1 - radius, y1 - radius).buffer(radius, quad_segs=4)
    points = [(float(x), float(y)) for x, y in ring.exterior.coords[:-1]]
    yield Stroke(path(*points), "section", closed=True, part=part, feature="window")
    out = x1 if side > 0 else x0
    number = detail.name.partition(",")[0]
    text = Text(out, y1 + NAME_UP * scale, number, LETTER, "centre", "middle", 0, "bold", part, pen="section")
    words = named(view.building.placed.project, f"detail:{detail.id}", text, scale)
    inside = (x0 + x1 - 2 * out) / 2
    down = y0 - y1 - (NAME_UP + LETTER) * scale
    spots = [(0.0, 0.0), (inside, 0.0), (2 * inside, 0.0), (side * 6 * scale, -6 * scale)]
    spots += [(du, down) for du in (0.0, inside, 2 * inside)]
    yield Label(key, words, spots, NUMBER, about=box(x0, y0, x1, y1), backed=True)
