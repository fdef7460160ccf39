"""What lettering keeps clear of: texts and heavy lines, and, where it can, dashed and light lines and hatches."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

import numpy as np
import shapely
from numpy.typing import NDArray

from .explode import exploded
from .ink import polygons, text_corners
from .marks import Mark, Region, Ring, Stroke, Text
from .outlines import Shapes, areas_of, closed, lines_of
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
        heavy: list[tuple[int, Ring]] = []
        light: list[tuple[int, Ring]] = []
        boxes: list[NDArray[np.float64]] = []
        solids: list[tuple[int, tuple[Ring, ...]]] = []
        covers: list[tuple[int, tuple[Ring, ...]]] = []
        hatched: list[tuple[Ring, ...]] = []
        for k, mark in enumerate(exploded(marks, scale)):
            if isinstance(mark, Text):
                if mark.text:
                    boxes.append(text_corners(mark, scale))
            elif isinstance(mark, Stroke):
                (heavy if is_heavy(mark.pen) else light).append((k, closed(mark.path) if mark.closed else mark.path))
            elif isinstance(mark, Region) and len(mark.rings[0]) > 1:
                if mark.fill in SOLID:
                    solids.append((k, mark.rings))
                elif mark.fill:
                    covers.append((k, mark.rings))
                if mark.pen:
                    kept = heavy if is_heavy(mark.pen) else light
                    kept += ((k, closed(ring)) for ring in mark.rings)
                if mark.hatch is not None:
                    hatched.append(mark.rings)
        self._texts = shapely.STRtree(polygons(boxes))
        self._solids, self._solids_at = shapely.STRtree(areas_of([held for _, held in solids])), _orders(solids)
        self._heavy, self._heavy_at = shapely.STRtree(lines_of([held for _, held in heavy])), _orders(heavy)
        self._light, self._light_at = shapely.STRtree(lines_of([held for _, held in light])), _orders(light)
        self._covers, self._covers_at = shapely.STRtree(areas_of([held for _, held in covers])), _orders(covers)
        self._hatched = shapely.STRtree(areas_of(hatched))

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


def _orders(held: Sequence[tuple[int, Any]]) -> NDArray[np.int64]:
    return np.array([k for k, _ in held], dtype=np.int64)
