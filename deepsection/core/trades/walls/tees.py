"""How a wall gives way, in the layers around its structure, to the structure of walls that stand on it."""

from __future__ import annotations

from dataclasses import replace
from typing import TypeAlias

import numpy as np
import shapely
from numpy.typing import NDArray
from shapely.geometry import MultiPolygon, Polygon
from shapely.ops import unary_union

from ...geometry import polygons_of
from ...model import Bands
from ...tolerance import TOL
from .planned import PlannedLayer, PlannedWall

Shape: TypeAlias = Polygon | MultiPolygon
Numbers: TypeAlias = NDArray[np.float64]

MANY = 8
"""Fewer frames than this are cut out one by one: an overlay is quick enough, and takes any shape."""


def cut_by_tees(host: PlannedWall, guests: list[PlannedWall], bands: dict[str, Bands]) -> PlannedWall:
    """The host with its lining and cladding cut away where the frames of its guests stand in them."""
    frames = [
        layer.polygon for guest in guests for layer, band in zip(guest.layers, bands[guest.wall.id]) if band.structure
    ]
    frames = [frame for frame in frames if not frame.is_empty]
    if not frames:
        return host
    points, owner = shapely.get_coordinates(frames, return_index=True)
    placed = _on_host(host, points)
    starts = np.flatnonzero(np.diff(owner, prepend=-1))
    first, last = (reach.reduceat(placed[:, 0], starts) for reach in (np.minimum, np.maximum))
    order = np.argsort(first)
    apart = bool((last[order][:-1] < first[order][1:]).all())
    frames = [frames[k] for k in order]
    quads = None
    if apart and len(frames) >= MANY and len(points) == 5 * len(frames) and not host.axis.is_arc:
        quads = placed.reshape(-1, 5, 2)[order, :4]

    def cut(layer: PlannedLayer) -> Shape:
        parted = _parted(host, layer, quads) if quads is not None else None
        if parted is not None:
            return parted
        taken = shapely.multipolygons(frames) if apart and len(frames) > 1 else unary_union(frames)
        return pieces(shapely.difference(layer.polygon, taken, grid_size=TOL.node))

    low, high = placed[:, 1].min(), placed[:, 1].max()
    layers = tuple(
        layer if band.structure or layer.outer < low or layer.inner > high else replace(layer, polygon=cut(layer))
        for layer, band in zip(host.layers, bands[host.wall.id])
    )
    return replace(host, layers=layers)


def pieces(shape: shapely.Geometry) -> Shape:
    """A polygon, or all pieces of it when something parts it."""
    held = list(polygons_of(shape))
    return held[0] if len(held) == 1 else MultiPolygon(held)


def _on_host(host: PlannedWall, points: Numbers) -> Numbers:
    """Points in the coordinates of a wall: how far along, and how far outward."""
    if host.axis.is_arc:
        placed = [(host.axis.along((x, y)), host.side * host.axis.left_of((x, y))) for x, y in points.tolist()]
        return np.array(placed)
    x, y = points[:, 0] - host.start[0], points[:, 1] - host.start[1]
    dx, dy = host.run
    return np.column_stack([x * dx + y * dy, host.side * (y * dx - x * dy)])


def _off_host(host: PlannedWall, alongs: Numbers, outs: Numbers) -> Numbers:
    """The inverse for a straight wall, for arrays of any shape: x and y in a last axis."""
    dx, dy = host.run
    left = host.side * outs
    return np.stack([host.start[0] + alongs * dx - left * dy, host.start[1] + alongs * dy + left * dx], axis=-1)


def _parted(host: PlannedWall, layer: PlannedLayer, quads: Numbers) -> Shape | None:
    """A layer of a straight wall as the pieces between the frames that part it; None unless each of them does.

    `quads` are the corners of the frames (n, 4, 2) in coordinates of the host, in order along it. The piece between
    two neighbours is a quadrilateral, found without an overlay: that is what makes a wall with many guests quick.
    """
    faces = np.array([layer.outer, layer.inner])
    sides = _sides(quads, faces)
    own = _on_host(host, shapely.get_coordinates(layer.polygon))[:, 0]
    if sides is None or ((own > sides[0].min()) & (own < sides[-1].max())).any():
        return None
    before, after = sides[:-1, 1], sides[1:, 0]
    gaps = np.concatenate([before, after[:, ::-1]], axis=1)
    between = shapely.polygons(_off_host(host, gaps, np.broadcast_to([*faces, *faces[::-1]], gaps.shape)))
    # The ends keep the joins of the wall: the layer less all that lies past its first, or before its last frame.
    ends = []
    for side, far in ((sides[0, 0], own.max() + SPARE), (sides[-1, 1], own.min() - SPARE)):
        wide = faces + np.array([SPARE, -SPARE])
        edge = side[0] + (side[1] - side[0]) / (faces[1] - faces[0]) * (wide - faces[0])
        past = Polygon(_off_host(host, np.array([*edge, far, far]), np.array([*wide, *wide[::-1]])))
        ends.append(list(polygons_of(layer.polygon.difference(past))))
    held: Shape = shapely.multipolygons([*ends[0], *between, *ends[1]])
    return held


SPARE = 1.0
"""What is cut off reaches this far past what it is cut from (mm)."""


def _sides(quads: Numbers, faces: Numbers) -> Numbers | None:
    """How far along the two sides of each frame cross two faces: (n, first or last, face); None when one does not."""
    steps = np.roll(quads, -1, axis=1) - quads
    rise = np.abs(steps[:, :, 1])
    odd = rise[:, 0] + rise[:, 2] < rise[:, 1] + rise[:, 3]
    chosen = odd[:, None] + np.array([0, 2])
    rows = np.arange(len(quads))[:, None]
    start, step = quads[rows, chosen], steps[rows, chosen]
    reach = np.sort(np.stack([start[..., 1], start[..., 1] + step[..., 1]]), axis=0)
    if (reach[0] > faces.min() + TOL.point).any() or (reach[1] < faces.max() - TOL.point).any():
        return None
    at = start[..., :1] + step[..., :1] / step[..., 1:] * (faces - start[..., 1:])
    order = np.argsort(at.sum(axis=2), axis=1)
    found = at[rows, order]
    in_turn = (found[:, 0] < found[:, 1]).all() and (found[:-1, 1] < found[1:, 0]).all()
    return found if in_turn else None
