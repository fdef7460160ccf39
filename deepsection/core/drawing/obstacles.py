"""What lettering keeps clear of: texts and heavy lines, and, where it can, dashed and light lines and hatches."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

import numpy as np
import shapely
from numpy.typing import NDArray

from ..geometry import flatten
from .explode import exploded
from .ink import polygons, text_corners
from .marks import Mark, Region, Ring, Stroke, Text
from .pens import PENS

HEAVY = 0.25
"""Solid lines as wide as this (mm) are never written on."""
LIGHT_COST, HATCH_COST, BACKED_COST = 2.0, 0.7, 12.0
"""What it costs to stand on a light line, on a hatch, or, with blank paper between, on a heavy line."""
SOLID = frozenset(("ink", "section", "poche", "existing"))
"""Fills that nothing can be read on."""

Shapes = NDArray[Any]


def is_heavy(pen: str) -> bool:
    """Whether what a pen draws is never written on."""
    return PENS[pen].width >= HEAVY and not PENS[pen].dashes


class Obstacles:
    """Marks that stay where they are."""

    def __init__(self, marks: Sequence[Mark], scale: float) -> None:
        heavy: list[tuple[int, Any]] = []
        light: list[tuple[int, Any]] = []
        boxes: list[NDArray[np.float64]] = []
        solids: list[tuple[int, Any]] = []
        covers: list[tuple[int, Any]] = []
        hatched: list[Any] = []
        for k, mark in enumerate(exploded(marks, scale)):
            if isinstance(mark, Text):
                if mark.text:
                    boxes.append(text_corners(mark, scale))
            elif isinstance(mark, Stroke):
                (heavy if is_heavy(mark.pen) else light).append((k, points_of(mark.path, closed=mark.closed)))
            elif isinstance(mark, Region) and len(mark.rings[0]) > 1:
                if mark.fill in SOLID:
                    solids.append((k, [points_of(ring, closed=True) for ring in mark.rings]))
                elif mark.fill:
                    covers.append((k, [points_of(ring, closed=True) for ring in mark.rings]))
                if mark.pen:
                    kept = heavy if is_heavy(mark.pen) else light
                    kept += ((k, points_of(ring, closed=True)) for ring in mark.rings)
                if mark.hatch is not None:
                    hatched.append([points_of(ring, closed=True) for ring in mark.rings])
        self._texts = shapely.STRtree(polygons(boxes))
        self._solids, self._solids_at = shapely.STRtree(_areas([held for _, held in solids])), _orders(solids)
        self._heavy, self._heavy_at = shapely.STRtree(_lines([held for _, held in heavy])), _orders(heavy)
        self._light, self._light_at = shapely.STRtree(_lines([held for _, held in light])), _orders(light)
        self._covers, self._covers_at = shapely.STRtree(_areas([held for _, held in covers])), _orders(covers)
        self._hatched = shapely.STRtree(_areas(hatched))

    def judge(self, boxes: Shapes, leaders: Shapes, *, backed: bool) -> tuple[NDArray[np.bool_], NDArray[np.float64]]:
        """(free, cost) of places: boxes, and lines that lead from them (None where there is none)."""
        free, cost = np.ones(len(boxes), dtype=bool), np.zeros(len(boxes))
        free[self._texts.query(boxes, predicate="intersects")[0]] = False
        free[self._shown(boxes, self._solids, self._solids_at)] = False
        led = np.flatnonzero([leader is not None for leader in leaders])
        if len(led):
            free[led[self._texts.query(leaders[led], predicate="intersects")[0]]] = False
        cut = self._shown(boxes, self._heavy, self._heavy_at)
        if backed:
            np.add.at(cost, cut, BACKED_COST)
        else:
            free[cut] = False
            np.add.at(cost, self._hatched.query(boxes, predicate="intersects")[0], HATCH_COST)
        np.add.at(cost, self._shown(boxes, self._light, self._light_at), LIGHT_COST)
        return free, cost

    def _shown(self, boxes: Shapes, lines: shapely.STRtree, order: NDArray[np.int64]) -> NDArray[np.int64]:
        """The indices of boxes that lines or areas meet which nothing drawn after them covers there, once for each."""
        crossed, line = lines.query(boxes, predicate="intersects")
        if not len(crossed) or not len(self._covers_at):
            return np.asarray(crossed)
        which = np.unique(crossed)
        by, cover = self._covers.query(boxes[which], predicate="covered_by")
        last = np.full(len(boxes), -1)
        np.maximum.at(last, which[by], self._covers_at[cover])
        return np.asarray(crossed[order[line] > last[crossed]])


def points_of(ring: Ring, *, closed: bool) -> list[tuple[float, float]]:
    """The points of a path, arcs in short pieces."""
    whole = (*ring, ring[0]) if closed else ring
    return flatten(whole) if any(bulge for *_, bulge in ring) else [(x, y) for x, y, _ in whole]


def _orders(held: Sequence[tuple[int, Any]]) -> NDArray[np.int64]:
    return np.array([k for k, _ in held], dtype=np.int64)


def _lines(paths: Sequence[list[tuple[float, float]]]) -> Shapes:
    kept = [path if len(path) > 1 else path * 2 for path in paths]
    if not kept:
        return np.empty(0, dtype=object)
    index = np.repeat(np.arange(len(kept)), [len(path) for path in kept])
    points = np.array([point for path in kept for point in path], dtype=np.float64)
    return np.asarray(shapely.linestrings(points, indices=index))


def _areas(held: Sequence[Sequence[list[tuple[float, float]]]]) -> Shapes:
    """Areas by their rings, the outer one first."""
    rings = [ring if len(ring) > 3 else [*ring, ring[-1]] for rings in held for ring in rings]
    if not rings:
        return np.empty(0, dtype=object)
    owner = np.repeat(np.arange(len(held)), [len(rings) for rings in held])
    index = np.repeat(np.arange(len(rings)), [len(ring) for ring in rings])
    made = shapely.linearrings(np.array([point for ring in rings for point in ring], dtype=np.float64), indices=index)
    whole: Shapes = np.asarray(shapely.polygons(made, indices=owner))
    return whole
