"""Visible faces as marks: regions with hatch and tone, strokes with pen, part and height sum."""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Iterable, Sequence
from dataclasses import replace
from functools import lru_cache

import numpy as np
import shapely
from shapely.geometry import LineString, MultiPolygon, Polygon
from shapely.geometry import box as rectangle

from ..catalog import material
from ..drawing import Mark, Region, Ring, Stroke, rings_of
from ..geometry import Frame, Point, polygons_of
from ..memo import BulkMemo
from ..resolve import ROLES, Building, Part
from ..tolerance import TOL
from ._earth import Earth
from ._handles import Heights, face_handle, heights_of
from .edges import Edge, visible_edges
from .faces import Face, faces_of
from .hatching import HatchTable, is_level
from .visible import visible_faces

TONED = {"glass", "door_leaf"}
"""Materials whose own tone is shown; everything else is paper."""

SAME_HEIGHT = 0.02
"""A line lies at a height sum when it is this close to it (mm)."""

FAR = 1e9


@lru_cache(maxsize=64)
def seen_faces(parts: tuple[Part, ...], dx: float, dy: float) -> tuple[tuple[Face, ...], tuple[Edge, ...]]:
    """Visible faces and edges of parts along a direction; cached, since parts keep their identity."""
    faces = tuple(visible_faces([face for held in faces_of(parts, dx, dy) for face in held], (dx, dy, "outside")))
    return faces, visible_edges(faces)


def clipped_above(faces: Sequence[Face], earth: Earth, dug: Polygon | MultiPolygon | None = None) -> list[Face]:
    """The faces without what lies in the earth, but for what is seen in spaces that are dug out."""
    is_dug = dug is not None and not dug.is_empty
    if earth.flat is not None and not is_dug:
        return [piece for face in faces for piece in _above(face, earth.flat)]
    boxes = boxes_of(faces)
    left, right = min((box[0] for box in boxes), default=0.0) - 1, max((box[2] for box in boxes), default=0.0) + 1
    low, high = min((box[1] for box in boxes), default=0.0) - 1, max((box[3] for box in boxes), default=0.0) + 1
    if earth.flat is not None:
        air = rectangle(left, earth.flat, right, max(high, earth.flat + 1))
    else:
        air = rectangle(left, min(low, earth.low - 1), right, max(high, earth.high + 1)).difference(earth.body)
    air = air.union(dug) if dug is not None and is_dug else air
    ground = earth.high
    low_ones = [face for face, box in zip(faces, boxes) if box[1] < ground]
    kept = dict(zip(map(id, low_ones), _in_air([(face, air) for face in low_ones])))
    return [piece for face in faces for piece in kept.get(id(face), (face,))]


def _cut_by_earth(wanted: Sequence[tuple[Face, Polygon | MultiPolygon]]) -> list[tuple[Face, ...]]:
    polygons = np.array([face.polygon for face, _ in wanted], dtype=object)
    rest = shapely.intersection(polygons, np.array([air for _, air in wanted], dtype=object))
    return [
        tuple(Face(piece, face.plane, face.part, face.normal) for piece in polygons_of(left))
        for (face, _), left in zip(wanted, rest)
    ]


_in_air: BulkMemo[tuple[Face, Polygon | MultiPolygon], tuple[Face, ...]] = BulkMemo(_cut_by_earth, size=10_000)
"""What of faces lies in the air: the same faces and the same air make the same pieces, and these the same lines."""


@lru_cache(maxsize=10_000)
def _above(face: Face, v: float) -> tuple[Face, ...]:
    x0, y0, x1, y1 = face.polygon.bounds
    if y0 >= v or y1 <= v:
        return (face,) if y0 >= v else ()
    pieces = polygons_of(face.polygon.intersection(rectangle(x0 - 1, v, x1 + 1, y1 + 1)))
    return tuple(Face(piece, face.plane, face.part, face.normal) for piece in pieces)


@lru_cache(maxsize=30_000)
def _middle_depth(face: Face) -> float:
    return face.depth(*face.polygon.centroid.coords[0])


@lru_cache(maxsize=30_000)
def _rings(face: Face) -> tuple[Ring, ...]:
    return rings_of(face.polygon)


def face_regions(
    faces: Sequence[Face], frame: Frame, hatches: HatchTable, *, beyond: bool = False, toned: bool = False
) -> list[Mark]:
    """One region per visible face, far ones first; `toned` gives each the tone of its material."""
    if beyond:
        return list(_plain_regions(tuple(faces)))
    own, marks = _hatched_regions(tuple(faces), frame, hatches.scale, hatches.shift, toned)
    index = hatches.join(own)
    if index == list(range(len(index))):
        return list(marks)
    return [mark if mark.hatch is None else replace(mark, hatch=index[mark.hatch]) for mark in marks]


@lru_cache(maxsize=64)
def _plain_regions(faces: tuple[Face, ...]) -> tuple[Region, ...]:
    return tuple(_region(face, None, None) for face in _far_first(faces))


@lru_cache(maxsize=64)
def _hatched_regions(
    faces: tuple[Face, ...], frame: Frame, scale: float, shift: float, toned: bool
) -> tuple[HatchTable, tuple[Region, ...]]:
    hatches, marks = HatchTable(scale, shift), []
    for face in _far_first(faces):
        made_of = material(face.part.material)
        tone = made_of.tone if toned or face.part.material in TONED else None
        hatch = None if made_of.seen is None else hatches.add_face(made_of.seen, face, frame)
        marks.append(_region(face, tone, hatch))
    return hatches, tuple(marks)


def _far_first(faces: Sequence[Face]) -> list[Face]:
    return sorted(_unbent(faces), key=lambda face: (-_middle_depth(face), face.part.key))


def _region(face: Face, tone: str | None, hatch: int | None) -> Region:
    return Region(
        _rings(face),
        fill=tone or "paper",
        hatch=hatch,
        part=face.part.key,
        feature="face",
        depth=round(_middle_depth(face), 3),
        handle=face_handle(face.part),
    )


def _unbent(faces: Sequence[Face]) -> list[Face]:
    """The faces, with the chords of a bent part as one where its pattern runs level: lines without a seam."""
    if not any(face.part.curve for face in faces):
        return list(faces)
    bent: dict[str, list[Face]] = defaultdict(list)
    kept: list[Face] = []
    for face in faces:
        seen = material(face.part.material).seen
        level = abs(face.normal[2]) < 1e-9 and (seen is None or is_level(seen))
        if face.part.curve and level:
            bent[face.part.key].append(face)
        else:
            kept.append(face)
    for group in bent.values():
        kept += _joined(tuple(group))
    return kept


@lru_cache(maxsize=1000)
def _joined(chords: tuple[Face, ...]) -> tuple[Face, ...]:
    whole = shapely.union_all([face.polygon for face in chords], grid_size=TOL.grid)
    middle = chords[len(chords) // 2]
    return tuple(Face(piece, middle.plane, middle.part, middle.normal) for piece in polygons_of(whole))


def edge_strokes(
    edges: Iterable[Edge], building: Building, *, pen: str | None = None, earth: Earth | None = None
) -> tuple[Mark, ...]:
    """One stroke per edge, above the earth; level ones carry the height sum that they lie at."""
    return _strokes(tuple(edges), heights_of(building), pen, earth)


@lru_cache(maxsize=64)
def _strokes(edges: tuple[Edge, ...], heights: Heights, pen: str | None, earth: Earth | None) -> tuple[Mark, ...]:
    marks: list[Mark] = []
    ground = earth.high if earth else -FAR
    for edge in edges:
        start, end = edge.start, edge.end
        part = edge.face.part
        if earth is not None and (start[1] < ground or end[1] < ground):
            shown = _out_of_earth(start, end, earth)
            if shown is None:
                continue
            start, end = shown
        v = start[1] if abs(end[1] - start[1]) < SAME_HEIGHT else None
        beside = [part, edge.other.part] if edge.other else [part]
        found = None if v is None else _height_at(v, beside, heights)
        line = ((*start, 0.0), (*end, 0.0))
        handle = heights.handle_of(part, v)
        marks.append(Stroke(line, pen or _pen(edge), part=part.key, feature="edge", sum=found, handle=handle))
    return tuple(marks)


def _out_of_earth(start: Point, end: Point, earth: Earth) -> tuple[Point, Point] | None:
    """The piece above the earth of an edge that reaches below its top; the longest, where a slope parts it."""
    (x0, y0), (x1, y1) = start, end
    floor = earth.flat
    if floor is None:
        pieces = [piece for piece in shapely.get_parts(LineString([start, end]).difference(earth.body)) if piece.length]
        longest = max(pieces, key=lambda piece: piece.length, default=None)
        if longest is None or longest.length < SAME_HEIGHT:
            return None
        a, b = longest.coords[0], longest.coords[-1]
        return (a, b) if math.dist(a, start) < math.dist(b, start) else (b, a)
    if max(y0, y1) < floor + SAME_HEIGHT:
        return None
    if min(y0, y1) < floor:
        t = (floor - y0) / (y1 - y0)
        cut = (x0 + (x1 - x0) * t, floor)
        return (cut, end) if y0 < floor else (start, cut)
    return start, end


def _pen(edge: Edge) -> str:
    if edge.pen == "edge" and ROLES[edge.face.part.role].fine:
        return "crease"
    return edge.pen


def _height_at(v: float, parts: Iterable[Part], heights: Heights) -> str | None:
    """The id of the sum that explains a height: one of the parts' own first, then a level."""
    for part in parts:
        for id in part.sums:
            if abs(heights.total.get(id, FAR) - v) < SAME_HEIGHT:
                return id
    for z, id in heights.levels:
        if abs(z - v) < SAME_HEIGHT:
            return id
    return None


def boxes_of(faces: Sequence[Face]) -> list[tuple[float, float, float, float]]:
    """x0, y0, x1, y1 of each face."""
    boxes: list[tuple[float, float, float, float]] = shapely.bounds([face.polygon for face in faces]).tolist()
    return boxes


def bounds_of(faces: Sequence[Face]) -> tuple[float, float, float, float]:
    """x0, y0, x1, y1 of faces; zeros when there are none."""
    if not faces:
        return 0.0, 0.0, 0.0, 0.0
    x0, y0, x1, y1 = shapely.total_bounds([face.polygon for face in faces])
    return float(x0), float(y0), float(x1), float(y1)
