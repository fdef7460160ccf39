"""What of many shapes lies in a box."""

from __future__ import annotations

import numpy as np
import shapely
from shapely.geometry import Polygon

from ..geometry import polygons_of
from .marks import Ring, path
from .outlines import Shapes

Extent = tuple[float, float, float, float]
"""A box: left, low, right, high (mm)."""
SHORTEST = 1e-6
"""What is shorter (mm) is no line."""


def made_valid(areas: Shapes) -> Shapes:
    """(n,) areas, those whose rings cross themselves mended."""
    wrong = ~shapely.is_valid(areas)
    if wrong.any():
        areas = areas.copy()
        areas[wrong] = shapely.buffer(areas[wrong], 0.0)
    return areas


def areas_within(areas: Shapes, extent: Extent) -> list[list[Polygon]]:
    """What lies in a box of each of (n,) valid areas."""
    return [list(polygons_of(shape)) for shape in shapely.intersection(areas, shapely.box(*extent))]


def lines_within(lines: Shapes, extent: Extent) -> list[list[Ring]]:
    """What lies in a box of each of (n,) lines, in as few lines as can be."""
    found: list[list[Ring]] = [[] for _ in lines]
    points, owner = shapely.get_coordinates(lines, return_index=True)
    # The quick way, which holds for lines alone, leaves out what runs along an edge of the box.
    along = np.zeros(len(lines), dtype=bool)
    along[owner[((points == extent[:2]) | (points == extent[2:])).any(axis=1)]] = True
    within = np.empty(len(lines), dtype=object)
    within[along] = shapely.intersection(lines[along], shapely.box(*extent))
    within[~along] = shapely.clip_by_rect(lines[~along], *extent)
    pieces, of = shapely.get_parts(within, return_index=True)
    long = shapely.length(pieces) > SHORTEST
    pieces, of = pieces[long], of[long]
    if not len(pieces):
        return found
    kept, group = np.unique(of, return_inverse=True)
    joined, place = shapely.get_parts(
        shapely.line_merge(shapely.multilinestrings(pieces, indices=group)), return_index=True
    )
    ends, owner = shapely.get_coordinates(joined, return_index=True)
    for own, way in zip(kept[place].tolist(), np.split(ends, np.flatnonzero(np.diff(owner)) + 1)):
        found[own].append(path(*way.tolist()))
    return found
