"""What a plane cuts, and what is seen behind it."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
import shapely
from numpy.typing import NDArray
from shapely.geometry import Polygon

from ..drawing.cropping import Window
from ..geometry import CutFrame, Frame, LevelFrame, polygons_of
from ..memo import BulkMemo
from ..resolve import ROLES, Building, Part
from ..tolerance import TOL
from ._seen import boxes_of
from .faces import Face, behind, faces_of
from .visible import visible_faces


@dataclass(frozen=True, eq=False, slots=True)
class CutPart:
    """A part, the polygon in which a plane cuts it, and what of that lies in the window."""

    part: Part
    whole: Polygon
    polygon: Polygon


def _make_cuts(wanted: Sequence[tuple[Part, CutFrame]]) -> list[tuple[Polygon, ...]]:
    """The polygons in which a plane cuts each part, on the grid."""
    shapes = np.array([part.solid.section(frame) for part, frame in wanted], dtype=object)
    # A rectangle stays one on the grid, and needs no overlay for that.
    plain = shapely.get_num_coordinates(shapes) == 5
    plain &= np.abs(shapely.area(shapes) - shapely.area(shapely.envelope(shapes))) < TOL.grid**2
    plain &= np.ptp(shapely.bounds(shapes).reshape(-1, 2, 2), axis=1).min(axis=1) > 2 * TOL.grid
    shapes[plain] = shapely.set_precision(shapes[plain], TOL.grid, mode="pointwise")
    try:
        shapes[~plain] = shapely.set_precision(shapes[~plain], TOL.grid)
    except shapely.errors.GEOSException:  # An edge of one runs back over itself, by less than the grid.
        shapes[~plain] = shapely.set_precision(shapely.make_valid(shapes[~plain]), TOL.grid)
    return [tuple(polygons_of(shape)) for shape in shapes]


_cuts = BulkMemo(_make_cuts, size=20_000)


def cut_parts(building: Building, frame: CutFrame, window: Window) -> list[CutPart]:
    """What the plane cuts, within a window; of what a break leaves out too."""
    found: list[CutPart] = []
    if window.high <= window.low or window.right <= window.left:
        return found
    low, high, left, right, bottom, top = _reaches(building.reaches, frame)
    near = (low <= TOL.cut) & (high >= TOL.cut) & (right > window.left) & (left < window.right)
    near &= (top > window.low) & (bottom < window.high)
    inside = (left >= window.left) & (right <= window.right) & (bottom >= window.low) & (top <= window.high)
    held = np.flatnonzero(near).tolist()
    for k, cut in zip(held, _cuts([(building.parts[k], frame) for k in held])):
        part = building.parts[k]
        for whole in cut:
            shown = [whole] if inside[k] else polygons_of(whole.intersection(window.outline))
            found += [CutPart(part, whole, piece) for piece in shown]
    return found


def _reaches(boxes: NDArray[np.float64], frame: CutFrame) -> tuple[NDArray[np.float64], ...]:
    """Nearest and farthest depth, leftmost and rightmost u, lowest and highest place of the box around each part."""
    x0, y0, z0, x1, y1, z1 = boxes.T
    if isinstance(frame, LevelFrame):
        # In a level plane depth goes up.
        u, v = frame.to_view(np.stack([x0, x1, x1, x0]), np.stack([y0, y0, y1, y1]))
        return z0 - frame.z, z1 - frame.z, u.min(axis=0), u.max(axis=0), v.min(axis=0), v.max(axis=0)
    x, y = np.stack([x0, x1, x1, x0]), np.stack([y0, y0, y1, y1])
    depth = (x - frame.x0) * frame.dx + (y - frame.y0) * frame.dy
    u = x * frame.ux + y * frame.uy
    return depth.min(axis=0), depth.max(axis=0), u.min(axis=0), u.max(axis=0), z0, z1


def beyond_faces(
    building: Building,
    frame: Frame,
    cut: list[CutPart],
    window: Window,
    depth: float,
    *,
    members: bool = False,
) -> list[Face]:
    """What is seen behind the plane, to the look depth, where nothing is cut in front of it: whole where it reaches
    past the window.

    `members`: those of roofs, floors and ceilings too.
    """
    plane = frame.x0 * frame.dx + frame.y0 * frame.dy + TOL.cut
    low, high, left, right, bottom, top = _reaches(building.reaches, frame)
    near = (high > TOL.cut) & (low <= depth) & (right >= window.left) & (left <= window.right)
    near &= (top >= window.low) & (bottom <= window.high)
    shown = ("seen", "as a member") if members else ("seen",)
    held = [k for k in np.flatnonzero(near).tolist() if ROLES[building.parts[k].role].beyond in shown]
    faces: list[Face] = []
    for k, own in zip(held, faces_of([building.parts[k] for k in held], frame.dx, frame.dy)):
        faces += own if low[k] >= TOL.cut else [piece for face in own for piece in behind(face, plane)]
    seen = _past(visible_faces(faces, (frame.dx, frame.dy, "beyond", members)), cut)
    return [
        face
        for face, (x0, y0, x1, y1) in zip(seen, boxes_of(seen))
        if x0 < window.right and x1 > window.left and y0 < window.high and y1 > window.low
    ]


def _past(faces: list[Face], cut: list[CutPart]) -> list[Face]:
    """What of visible faces is left beside what is cut before them."""
    if not faces or not cut:
        return faces
    by_element: dict[str, list[Polygon]] = defaultdict(list)
    for held in cut:
        by_element[held.part.element].append(held.whole)
    occluders = np.array(
        [occluder for held in by_element.values() for occluder in _occluders(tuple(held))], dtype=object
    )
    k, n = shapely.STRtree(occluders).query([face.polygon for face in faces], predicate="intersects")
    before: dict[int, list[Polygon]] = defaultdict(list)
    for face, occluder in zip(k.tolist(), n.tolist()):
        before[face].append(occluders[occluder])
    hidden = [(faces[index], tuple(held)) for index, held in before.items()]
    left = dict(zip(before, _left_pieces(hidden)))
    return [piece for index, face in enumerate(faces) for piece in left.get(index, (face,))]


def _cut_away(wanted: Sequence[tuple[Face, tuple[Polygon, ...]]]) -> list[tuple[Face, ...]]:
    """Faces without the polygons before each."""
    occluders = np.array([held[0] if len(held) == 1 else shapely.union_all(held) for _, held in wanted], dtype=object)
    rest = shapely.difference(np.array([face.polygon for face, _ in wanted], dtype=object), occluders)
    return [
        tuple(
            Face(piece, face.plane, face.part, face.normal)
            for piece in polygons_of(shape)
            if piece.area / piece.length > TOL.sliver_width / 2
        )
        for (face, _), shape in zip(wanted, rest)
    ]


_left_pieces: BulkMemo[tuple[Face, tuple[Polygon, ...]], tuple[Face, ...]] = BulkMemo(_cut_away, size=10_000)


@lru_cache(maxsize=1000)
def _occluders(polygons: tuple[Polygon, ...]) -> tuple[Polygon, ...]:
    """What is cut of an element; the same cut makes the same occluders, so that what they hide stays known."""
    # They lie on the grid already: a plain union is exact there, and much cheaper than one that snaps.
    return tuple(polygons_of(shapely.union_all(shapely.set_precision(np.array(polygons), 0.0))))
