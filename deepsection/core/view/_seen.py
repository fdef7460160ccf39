"""Visible faces as marks: regions with hatch and tone, strokes with pen, part and height sum."""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Iterable, Sequence
from functools import lru_cache

import shapely
from shapely.geometry import LineString, MultiPolygon, Polygon
from shapely.geometry import box as rectangle

from ..catalog import material
from ..drawing import Mark, Region, Ring, Stroke, rings_of
from ..geometry import Frame, Point, polygons_of
from ..resolve import ROLES, Building, Part
from ..tolerance import TOL
from ._earth import Earth
from ._handles import LineHandles, face_handle
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
    if earth.flat is None:
        return _above_slope(faces, earth, dug)
    v, kept = earth.flat, list[Face]()
    for face, (x0, low, x1, high) in zip(faces, boxes_of(faces)):
        if low >= v:
            kept.append(face)
        elif dug is not None and not dug.is_empty:
            air = dug.union(rectangle(x0 - 1, v, x1 + 1, max(high, v) + 1))
            pieces = polygons_of(face.polygon.intersection(air))
            kept += [Face(piece, face.plane, face.part, face.normal) for piece in pieces]
        elif high > v:
            kept += _above(face, v)
    return kept


def _above_slope(faces: Sequence[Face], earth: Earth, dug: Polygon | MultiPolygon | None) -> list[Face]:
    hidden = earth.body if dug is None or dug.is_empty else earth.body.difference(dug)
    kept: list[Face] = []
    for face, (_, low, _, high) in zip(faces, boxes_of(faces)):
        if low >= earth.high:
            kept.append(face)
        elif high > earth.low or dug is not None:
            pieces = polygons_of(face.polygon.difference(hidden))
            kept += [Face(piece, face.plane, face.part, face.normal) for piece in pieces]
    return kept


@lru_cache(maxsize=10_000)
def _above(face: Face, v: float) -> tuple[Face, ...]:
    x0, _, x1, y1 = face.polygon.bounds
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
    marks: list[Mark] = []
    faces = _unbent(faces)
    ordered = sorted(faces, key=lambda face: (-_middle_depth(face), face.part.key))
    for face in ordered:
        made_of = material(face.part.material)
        tone = made_of.tone if (toned or face.part.material in TONED) and not beyond else None
        hatch = None if beyond or made_of.seen is None else hatches.add_face(made_of.seen, face, frame)
        marks.append(
            Region(
                _rings(face),
                fill=tone or "paper",
                hatch=hatch,
                part=face.part.key,
                feature="face",
                depth=round(_middle_depth(face), 3),
                handle=face_handle(face.part),
            )
        )
    return marks


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
) -> list[Mark]:
    """One stroke per edge, above the earth; level ones carry the height sum that they lie at."""
    marks: list[Mark] = []
    levels = [(level.z, level.sum.id) for level in building.levels.values()]
    handles = LineHandles(building)
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
        found = None if v is None else _height_at(v, beside, levels, building.totals)
        line = ((*start, 0.0), (*end, 0.0))
        marks.append(
            Stroke(line, pen or _pen(edge), part=part.key, feature="edge", sum=found, handle=handles.of(part, v))
        )
    return marks


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


def _height_at(
    v: float, parts: Iterable[Part], levels: Iterable[tuple[float, str]], totals: dict[str, float]
) -> str | None:
    """The id of the sum that explains a height: one of the parts' own first, then a level."""
    for part in parts:
        for id in part.sums:
            if abs(totals.get(id, FAR) - v) < SAME_HEIGHT:
                return id
    for z, id in levels:
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
