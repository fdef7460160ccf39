"""Where anchors are: a point, an edge or a face in space, and the anchor of a point of a part."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal, TypeVar

import numpy as np
from numpy.typing import NDArray

from ..building.parts import Part
from ..building.roles import ROLES
from ..document.anchors import Anchor, GridAnchor, JointAnchor, LevelAnchor, PartAnchor, PartEnd, PartLevel, PartSide
from ..document.rebuilding import changed, put
from ..model import Project
from ..model.places import joint_point
from .building import Building
from .ownframes import OwnFrame, own_frame

Vector = tuple[float, float, float]
UP: Vector = (0.0, 0.0, 1.0)
N = TypeVar("N")
HAIR = 1.0
"""How near to a place the heights of a part are looked for (mm)."""
NEAR = 1.0
"""A point within this distance (mm) of the middle of a part is in its middle."""


@dataclass(frozen=True, slots=True)
class Located:
    """Where an anchor is (mm): a point; with a `direction` the edge that runs through it so; with a `normal` the face
    that stands square to it there."""

    at: Vector
    direction: Vector | None = None
    normal: Vector | None = None


def locate(building: Building, anchor: Anchor) -> Located | None:
    """Where an anchor is; None where what it holds on to is gone."""
    project = building.placed.project
    if isinstance(anchor, PartAnchor):
        part = part_of(building, anchor)
        return None if part is None else _on_part(building, part, anchor)
    if isinstance(anchor, LevelAnchor):
        if anchor.level not in building.levels:
            return None
        z = building.levels[anchor.level].z + anchor.rise
        return Located((0.0, 0.0, z), normal=UP) if anchor.at is None else Located((*anchor.at, z))
    if isinstance(anchor, GridAnchor):
        line = next((held for held in project.grid if held.id == anchor.grid), None)
        if line is None:
            return None
        dx, dy = math.cos(math.radians(line.angle)), math.sin(math.radians(line.angle))
        along, z = anchor.distance or 0.0, anchor.height or 0.0
        at = (line.x + along * dx, line.y + along * dy, z)
        if anchor.distance is None and anchor.height is None:
            return Located(at, normal=(-dy, dx, 0.0))
        if anchor.distance is None or anchor.height is None:
            return Located(at, direction=UP if anchor.height is None else (dx, dy, 0.0))
        return Located(at)
    if isinstance(anchor, JointAnchor):
        if all(held.id != anchor.joint for held in project.joints):
            return None
        at = (*joint_point(project, anchor.joint), anchor.height or 0.0)
        return Located(at, direction=UP if anchor.height is None else None)
    return Located((anchor.x, anchor.y, anchor.z))


def keeping_places(before: Building, after: Building, project: Project) -> Project:
    """A project of which the notes that a change bereft of their place say where it was."""
    lost = []
    for note in project.notes:
        if locate(after, note.anchor) is None:
            found = locate(before, note.anchor)
            if found is not None and found.at != note.last:
                lost.append(changed(note, last=found.at))
    return put(project, *lost) if lost else project


def part_of(building: Building, anchor: PartAnchor) -> Part | None:
    """The part of an anchor, or the one that stands in for it: of its layer in another piece, or of its role."""
    found = building.by_key.get(anchor.key)
    if found is not None:
        return found
    alike = [part for part in building.parts_of(anchor.element) if part.role == anchor.role and part.axis is None]
    layer = f"{anchor.element}/{anchor.role}/{anchor.layer}/"
    return next((part for part in alike if part.key.startswith(layer)), next(iter(alike), None))


def _on_part(building: Building, part: Part, anchor: PartAnchor) -> Located:
    frame = own_frame(building, part)
    (start, inside, bottom), (end, outside, top) = _box(part, frame)
    along = {"start": start + anchor.distance, "end": end - anchor.distance}.get(
        anchor.end or "", (start + end) / 2 + anchor.distance
    )
    out = {"outside": outside - anchor.inset, "inside": inside + anchor.inset}.get(
        anchor.side or "", (inside + outside) / 2 - anchor.inset
    )
    if anchor.level is not None and anchor.end is not None and anchor.side is not None:
        bottom, top = _heights(part, frame, along, out, (start, inside, bottom), (end, outside, top))
    z = {"bottom": bottom, "top": top}.get(anchor.level or "", (bottom + top) / 2) + anchor.rise
    forward, outward = frame.directions(along)
    axes: tuple[Vector, Vector, Vector] = ((*forward, 0.0), (*outward, 0.0), UP)
    given = [anchor.end is not None, anchor.side is not None, anchor.level is not None]
    direction = axes[given.index(False)] if sum(given) == 2 else None
    normal = axes[given.index(True)] if sum(given) == 1 else None
    return Located((*frame.at(along, out), z), direction, normal)


def _box(part: Part, frame: OwnFrame) -> tuple[Vector, Vector]:
    """The least and the greatest of its own coordinates; a sheet of a wall goes from end to end of the wall."""
    own = frame.own(part.solid.mesh()[0])
    (start, inside, bottom), (end, outside, top) = own.min(axis=0).tolist(), own.max(axis=0).tolist()
    if frame.whole and part.axis is None:
        start, end = 0.0, frame.axis.length
    return (start, inside, bottom), (end, outside, top)


def _heights(part: Part, frame: OwnFrame, along: float, out: float, low: Vector, high: Vector) -> tuple[float, float]:
    """(underside, top) of a part where it is so far along and out: where it slopes, there; beside it, of its box."""
    # Of all that is within a hair of the place: a plumb line along a face may meet it or not.
    hits = [
        t
        for a in (-HAIR, HAIR)
        for b in (-HAIR, HAIR)
        for t in crossings(part, (*frame.at(along + a, out + b), 0.0), UP).tolist()
    ]
    return (min(hits), max(hits)) if hits else (low[2], high[2])


def crossings(part: Part, origin: Vector, direction: Vector) -> NDArray[np.float64]:
    """(n,) where a line meets the surface of a part: how far along it from the origin, in lengths of its direction."""
    points, triangles = part.solid.mesh()
    a, b, c = (points[triangles[:, k]] for k in range(3))
    way = np.asarray(direction, dtype=np.float64)
    across = np.cross(way, c - a)
    det = np.einsum("ij,ij->i", b - a, across)
    met = np.abs(det) > 1e-9
    inverse = np.divide(1.0, det, out=np.zeros_like(det), where=met)
    to = np.asarray(origin, dtype=np.float64) - a
    u = np.einsum("ij,ij->i", to, across) * inverse
    turned = np.cross(to, b - a)
    v = turned @ way * inverse
    edge = 1e-9
    met &= (u >= -edge) & (v >= -edge) & (u + v <= 1.0 + edge)
    return np.asarray((np.einsum("ij,ij->i", turned, c - a) * inverse)[met])


def anchor_on(building: Building, part: Part, point: Vector) -> PartAnchor:
    """The anchor of a point of a part: measured from its nearest end, side and level; from the middle of what stands as
    a post does."""
    frame = own_frame(building, part)
    along, out, z = frame.own(np.array([point]))[0].tolist()
    low, high = _box(part, frame)
    bottom, top = _heights(part, frame, along, out, low, high)
    upright = ROLES[part.role].upright
    ends: tuple[PartEnd, PartEnd] = ("start", "end")
    sides: tuple[PartSide, PartSide] = ("inside", "outside")
    levels: tuple[PartLevel, PartLevel] = ("bottom", "top")
    end, distance = _nearest(along, low[0], high[0], ends, middle=upright)
    side, inset = _nearest(out, low[1], high[1], sides, middle=upright)
    level, rise = _nearest(z, bottom, top, levels)
    return PartAnchor.on(
        part.key,
        end=end,
        distance=distance,
        side=side,
        inset=-inset if side == "middle" else inset,
        level=level,
        rise=-rise if level == "top" else rise,
    )


def _nearest(
    value: float, low: float, high: float, names: tuple[N, N], *, middle: bool = False
) -> tuple[N | Literal["middle"], float]:
    """From which of its ends a coordinate is measured, and how far inwards; from the middle, how far on."""
    if middle or abs(2 * value - low - high) < NEAR:
        return "middle", value - (low + high) / 2
    return (names[0], value - low) if value - low < high - value else (names[1], high - value)
