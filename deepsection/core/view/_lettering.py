"""Words on a view: numbers of openings, names or keys of materials."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Iterator

import numpy as np
import shapely
from shapely.geometry import Polygon

from ..catalog import material
from ..drawing import LESSER, NUMBER, Label, Mark, Region, Text, around, text_width
from ..geometry import Frame, Point
from ..resolve import Building
from ._annotations import Annotations, annotated
from ._symbols import FACING
from .faces import Face

SIZE, PAD = 1.8, 0.6
"""Height of letters, and the paper around them (paper mm)."""
BELOW = 1.0
"""Gap from a unit to its number (paper mm)."""
UNSEEN = 0.3
"""A unit of which less than this share is seen is numbered elsewhere."""
RING = 2.2
"""Radius of the ring around the key of a material (paper mm)."""
LEGEND_ROW, LEGEND_GAP = 5.5, 9.0
"""From one row of the legend to the next, and from the drawing to the first (paper mm)."""


def opening_numbers(building: Building, faces: Iterable[Face], frame: Frame, scale: float) -> Iterator[Label]:
    """The number of every window and door that is seen, under it; over it or on it where that is taken."""
    seen: dict[str, list[Polygon]] = defaultdict(list)
    for face in faces:
        if face.part.function == "unit":
            seen[face.part.element].append(face.polygon)
    for wall, placed in ((held, each) for held in building.plan.walls for each in building.openings[held.wall.id]):
        pieces = seen.get(placed.opening.id)
        out = wall.stand(placed.centre).out
        if not pieces or not placed.number or out[0] * frame.dx + out[1] * frame.dy > FACING:
            continue
        u0, v0, u1, v1 = shapely.total_bounds(pieces).tolist()
        tall = placed.head.total - placed.sill.total
        if sum(piece.area for piece in pieces) < UNSEEN * tall * (u1 - u0):
            continue
        off = (BELOW + SIZE / 2 + PAD) * scale
        id, about = placed.opening.id, shapely.box(u0, v0, u1, v1)
        # A door stands on the ground: its number fits on its leaf, below the middle.
        within = v0 + (v1 - v0) * (0.25 if placed.opening.unit == "door" else 0.5)
        spots = (v0 - off, within, v1 + off) if placed.opening.unit == "door" else (v0 - off, v1 + off, within)
        u, v = (u0 + u1) / 2, spots[0]
        text = Text(u, v, placed.number, SIZE, "centre", "middle", part=f"{id}/number//", feature="number")
        beside = around(text_width(placed.number, SIZE, "sans") * scale, 2 * SIZE * scale)
        places = (*((0.0, spot - v) for spot in spots), *((du, spots[-1] - v + dv) for du, dv in beside))
        yield Label(f"number:{id}", (text,), places, NUMBER, about, backed=True)


def material_keys(faces: Iterable[Face]) -> dict[str, str]:
    """The key of every material with a pattern."""
    held = {face.part.material for face in faces}
    named = sorted(id for id in held if material(id).seen is not None)
    return {id: str(number) for number, id in enumerate(named, 1)}


def material_words(
    faces: Iterable[Face], scale: float, changes: Annotations, keys: dict[str, str] | None = None
) -> Iterator[Label]:
    """Every material with a pattern, once, by its name, or by its key, on the largest face that has room for it."""
    held: dict[str, list[Face]] = defaultdict(list)
    for face in faces:
        if material(face.part.material).seen is not None:
            held[face.part.material].append(face)
    for id in sorted(held):
        key = f"material:{id}"
        text = changes.change(key).text or (material(id).name if keys is None else keys[id])
        half = RING if keys is not None else text_width(text, SIZE, "sans") / 2 + PAD
        tall = RING if keys is not None else SIZE / 2 + PAD
        largest = sorted(held[id], key=lambda face: -float(face.polygon.area))[:LARGEST]
        spots = [(u, v, face) for face in largest for u, v in _room_in(face, half * scale, tall * scale)]
        if not spots and any(changes.shift(key)):
            inner = largest[0].polygon.representative_point()
            spots = [(inner.x, inner.y, largest[0])]
        if not spots:
            continue
        u, v, face = spots[0]
        words = Text(u, v, text, SIZE, "centre", "middle", part=face.part.key, feature="material")
        shifts = tuple((x - u, y - v) for x, y, _ in spots)
        marks: tuple[Mark, ...] = (words,)
        if keys is not None:
            ring = ((u - RING * scale, v, 1.0), (u + RING * scale, v, 1.0))
            marks = (Region((ring,), fill="paper", pen="symbol", part=face.part.key, feature="material"), words)
        about = shapely.MultiPolygon([held.polygon for held in largest])
        yield Label(key, marks, shifts, LESSER, about, backed=keys is None)


LARGEST = 12
"""So many of the largest faces of a material are tried for its name."""


def _room_in(face: Face, half: float, tall: float) -> Iterator[Point]:
    """Places in a face at which a box about them lies in it, a middle one first."""
    x0, y0, x1, y1 = face.polygon.bounds
    inner = face.polygon.representative_point()
    shares = (0.5, 0.35, 0.65, 0.2, 0.8)
    spots = np.array([(inner.x, inner.y), *((x0 + (x1 - x0) * a, y0 + (y1 - y0) * b) for b in shares for a in shares)])
    boxes = shapely.box(spots[:, 0] - half, spots[:, 1] - tall, spots[:, 0] + half, spots[:, 1] + tall)
    shapely.prepare(face.polygon)
    yield from ((u, v) for u, v in spots[shapely.contains(face.polygon, boxes)].tolist())


def legend(keys: dict[str, str], u: float, v: float, scale: float) -> Iterator[Mark]:
    """What the keys of materials stand for, in rows from a point down."""
    row = v - LEGEND_GAP * scale
    for id, key in keys.items():
        ring = ((u, row, 1.0), (u + 2 * RING * scale, row, 1.0))
        marks: list[Mark] = [
            Region((ring,), fill="paper", pen="symbol", feature="legend"),
            Text(u + RING * scale, row, key, SIZE, "centre", "middle", feature="legend"),
            Text(u + (2 * RING + 1.5) * scale, row, material(id).name, 2.5, "left", "middle", feature="legend"),
        ]
        yield from annotated(marks, f"legend:{id}")
        row -= LEGEND_ROW * scale
