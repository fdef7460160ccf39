"""The layers of what a section cuts, beside it where there is room."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Iterator, Sequence
from typing import Any

import numpy as np
import shapely
from shapely.geometry import LineString, Polygon

from ..drawing import LAST, Dimension, Label, Lettered, Stroke, Text, text_width
from ..drawing.outlines import closed
from ..geometry import Point
from ..model import MakeUp, Project
from ..resolve import Building, Part
from ..trades.makeups.wording import layer_words
from ._makeups import make_ups_of

ROW, SIZE, STEP, REACH = 3.4, 2.0, 4.0, 90.0
"""Of the layers of a make-up beside a section: from row to row, the height of letters, how far apart their places are
tried, and how far from what they are about at the most (paper mm)."""
TRIED = 6
"""So many pieces that are built by a make-up are tried for a place beside one of them."""
PLACES = 250
"""So many places are tried for the layers of a make-up."""


def section_stacks(
    building: Building,
    cut: Iterable[tuple[Part, Polygon]],
    marks: Iterable[Lettered],
    reach: float,
    scale: float,
) -> Iterator[Label]:
    """The layers of each make-up that a section cuts, in their order, led to the largest of what is built so.

    They stand in the air, on no line of some marks, not farther than `reach` (mm) past what is cut; their leaders cross
    nothing that is.
    """
    project, made = building.placed.project, building.placed.make_ups
    found: dict[str, list[Polygon]] = defaultdict(list)
    for part, polygon in cut:
        found[part.element].append(polygon)
    whole = {id: shapely.union_all(held).buffer(1.0, join_style="mitre") for id, held in found.items()}
    built: dict[str, list[tuple[str, Polygon]]] = defaultdict(list)
    for id, make_up in make_ups_of(project, found).items():
        built[make_up] += [(id, piece) for piece in shapely.get_parts(whole[id]).tolist()]
    x0, y0, x1, y1 = shapely.total_bounds(list(whole.values())).tolist()
    air = _Air(whole, [line for mark in marks for line in _lines(mark)], (x0 - reach, y0, x1 + reach, y1 + reach))
    for make_up, pieces in built.items():
        pieces.sort(key=lambda held: (-held[1].area, held[0]))
        labels = (_stack(made[make_up], id, about, air, project, scale) for id, about in pieces[:TRIED])
        # Where no place is free it is left out, and named.
        yield next((label for label in labels if label.within is None), None) or _stack(
            made[make_up], *pieces[0], air, project, scale
        )


class _Air:
    """What is free of a section: beside what is cut of each element, off all lines, on a page."""

    def __init__(self, whole: dict[str, Any], lines: Sequence[LineString], page: tuple[float, ...]) -> None:
        self._whole, self._lines, self.page = whole, shapely.STRtree(lines), page

    def spots(self, element: str, about: Polygon, wide: float, tall: float, far: float, step: float) -> list[Point]:
        """Left upper corners of boxes about a piece of an element, the nearest first."""
        x0, y0, x1, y1 = about.bounds
        lefts = np.arange(max(x0 - wide - far, self.page[0]), min(x1 + far, self.page[2] - wide), step)
        tops = np.arange(max(y0 - far, self.page[1] + tall), min(y1 + tall + far, self.page[3]), step)
        spots = np.array(np.meshgrid(lefts, tops)).reshape(2, -1).T
        boxes = shapely.box(spots[:, 0], spots[:, 1] - tall, spots[:, 0] + wide, spots[:, 1])
        leaders = shapely.shortest_line(boxes, about)
        others = shapely.union_all([held for id, held in self._whole.items() if id != element])
        shapely.prepare(others)
        free = ~shapely.intersects(others, boxes) & ~shapely.crosses(leaders, others)
        free &= ~shapely.intersects(boxes, self._whole[element])
        free[self._lines.query(boxes, predicate="intersects")[0]] = False
        away = shapely.length(leaders)
        return [tuple(spots[k].tolist()) for k in np.argsort(away, kind="stable").tolist() if free[k]]


def _lines(mark: Lettered) -> Iterator[LineString]:
    """What a mark draws of lines."""
    if isinstance(mark, Stroke) and len(mark.path) > 1:
        yield LineString([(x, y) for x, y, _ in (closed(mark.path) if mark.closed else mark.path)])
    elif isinstance(mark, Dimension):
        yield LineString([(mark.x1, mark.y1), (mark.x2, mark.y2)])


def _stack(make_up: MakeUp, id: str, about: Polygon, air: _Air, project: Project, scale: float) -> Label:
    """The layers of a make-up beside a piece of an element; nowhere where there is no room."""
    rows = [make_up.name, *(layer_words(layer, project.units) for layer in make_up.layers)]
    wide = max(text_width(words, SIZE, "sans" if k else "bold") for k, words in enumerate(rows)) * scale
    row = ROW * scale
    near = air.spots(id, about, wide, len(rows) * row, REACH * scale, STEP * scale)[:PLACES]
    left, top = near[0] if near else about.bounds[:2]
    texts = tuple(
        Text(left, top - (k + 0.5) * row, words, SIZE, "left", "middle",
             face="sans" if k else "bold", part=make_up.id, feature="note")
        for k, words in enumerate(rows)
    )  # fmt: skip
    places = [(x - left, y - top) for x, y in near] or [(0.0, 0.0)]
    return Label(f"stack:{make_up.id}", texts, places, LAST, about=about, within=None if near else Polygon())
