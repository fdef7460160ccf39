"""What lettering keeps clear of: texts and heavy lines, and, where it can, dashed and light lines and hatches."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

import numpy as np
import shapely
from numpy.typing import NDArray

from .explode import exploded
from .ink import polygons, text_corners
from .marks import Mark, Ring, Stroke, Text
from .outlines import Paths, Shapes, closed, closed_area
from .pens import PENS

HEAVY = 0.25
"""Solid lines as wide as this (mm) are never written on."""
LIGHT_COST, HATCH_COST, BACKED_COST = 2.0, 0.7, 12.0
"""What it costs to stand on a light line, on a hatch, or, with blank paper between, on a heavy line."""
SOLID = frozenset(("ink", "section", "poche", "existing"))
"""Fills that nothing can be read on."""


def is_heavy(pen: str) -> bool:
    """Whether what a pen draws is never written on."""
    return PENS[pen].width >= HEAVY and not PENS[pen].dashes


class Obstacles:
    """Marks that stay where they are."""

    def __init__(self, marks: Sequence[Mark], scale: float) -> None:
        paths: list[Ring] = []
        heavy, light = _Held(), _Held()
        solids, covers, hatched = _Held(), _Held(), _Held()
        boxes: list[NDArray[np.float64]] = []
        reached: list[NDArray[np.float64]] = []
        for k, mark in enumerate(exploded(marks, scale)):
            if isinstance(mark, Text):
                reached.append(text_corners(mark, scale, 0.0))
                if mark.text:
                    boxes.append(text_corners(mark, scale))
                continue
            place = len(paths)
            if isinstance(mark, Stroke):
                (heavy if is_heavy(mark.pen) else light).add(k, place)
                paths.append(closed(mark.path) if mark.closed else mark.path)
                continue
            paths += map(closed_area, mark.rings)
            if len(mark.rings[0]) < 2:
                continue
            rings = range(place, len(paths))
            if mark.fill in SOLID:
                solids.add(k, rings)
            elif mark.fill:
                covers.add(k, rings)
            if mark.pen:
                kept = heavy if is_heavy(mark.pen) else light
                for ring in rings:
                    kept.add(k, ring)
            if mark.hatch is not None:
                hatched.add(k, rings)
        held = Paths(paths)
        self.reached = np.concatenate([held.points, *reached])
        """(n, 2) places that the marks reach, with their lettering."""
        self._texts = shapely.STRtree(polygons(boxes))
        self._solids, self._solids_at = shapely.STRtree(held.areas(solids.what)), solids.order
        self._heavy, self._heavy_at = shapely.STRtree(held.lines(heavy.what)), heavy.order
        self._light, self._light_at = shapely.STRtree(held.lines(light.what)), light.order
        self._covers, self._covers_at = shapely.STRtree(held.areas(covers.what)), covers.order
        self._hatched = shapely.STRtree(held.areas(hatched.what))

    def judge(self, boxes: Shapes, *, backed: bool) -> tuple[NDArray[np.bool_], NDArray[np.float64]]:
        """(free, cost) of boxes; what one that is not free costs is not worked out."""
        free, cost = np.ones(len(boxes), dtype=bool), np.zeros(len(boxes))
        free[self._texts.query(boxes, predicate="intersects")[0]] = False
        free[_which(free, self._shown(boxes[free], self._solids, self._solids_at))] = False
        cut = _which(free, self._shown(boxes[free], self._heavy, self._heavy_at))
        if backed:
            np.add.at(cost, cut, BACKED_COST)
        else:
            free[cut] = False
            hatched = self._hatched.query(boxes[free], predicate="intersects")[0]
            np.add.at(cost, _which(free, hatched), HATCH_COST)
        np.add.at(cost, _which(free, self._shown(boxes[free], self._light, self._light_at)), LIGHT_COST)
        return free, cost

    def writes_on(self, leaders: Shapes) -> NDArray[np.bool_]:
        """Which lines (None where there is none) run through a text."""
        crossing = np.zeros(len(leaders), dtype=bool)
        led = np.flatnonzero([leader is not None for leader in leaders])
        if len(led):
            crossing[led[self._texts.query(leaders[led], predicate="intersects")[0]]] = True
        return crossing

    def _shown(self, boxes: Shapes, lines: shapely.STRtree, order: NDArray[np.int64]) -> NDArray[np.int64]:
        """The indices of boxes that lines or areas meet which nothing drawn after them covers there, once for each."""
        crossed, line = lines.query(boxes, predicate="intersects")
        if not len(crossed) or not len(self._covers_at):
            return np.asarray(crossed)
        which = np.unique(crossed)
        cover, by = shapely.STRtree(boxes[which]).query(self._covers.geometries, predicate="covers")
        last = np.full(len(boxes), -1)
        np.maximum.at(last, which[by], self._covers_at[cover])
        return np.asarray(crossed[order[line] > last[crossed]])


def _which(free: NDArray[np.bool_], held: NDArray[np.int64]) -> NDArray[np.int64]:
    """The indices among all of those among the free ones."""
    return np.flatnonzero(free)[held]


class _Held:
    """Paths of one sort: which of all, and as the how manyth mark each is drawn."""

    def __init__(self) -> None:
        self.what: list[Any] = []
        self._at: list[int] = []

    def add(self, at: int, what: int | range) -> None:
        self.what.append(what)
        self._at.append(at)

    @property
    def order(self) -> NDArray[np.int64]:
        return np.array(self._at, dtype=np.int64)
