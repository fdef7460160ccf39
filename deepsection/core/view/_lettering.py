"""Words on a view, each on paper of its own: numbers of openings, names or keys of materials, none on another."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from typing import NamedTuple

import shapely
from shapely.geometry import Polygon
from shapely.ops import nearest_points

from ..catalog import material
from ..drawing import Mark, Region, Stroke, Text, path
from ..geometry import Frame
from ..resolve import Building
from ._annotations import Annotations, annotated
from ._symbols import FACING
from .faces import Face

SIZE, LETTER, PAD = 1.8, 1.15, 0.6
"""Height and width of letters, and the paper around them (paper mm)."""
BELOW = 1.0
"""Gap from a unit to its number (paper mm)."""
UNSEEN = 0.3
"""A unit of which less than this share is seen is numbered elsewhere."""
RING = 2.2
"""Radius of the ring around the key of a material (paper mm)."""
LEGEND_ROW, LEGEND_GAP = 5.5, 9.0
"""From one row of the legend to the next, and from the drawing to the first (paper mm)."""


class Place(NamedTuple):
    """Where a word may stand, and what it speaks of there."""

    u: float
    v: float
    about: Polygon
    part: str


@dataclass(frozen=True, slots=True)
class Word:
    """A text that a view writes: its key, and the places that it may take, in order.

    `within`: it stands on what it speaks of, and nowhere else. `ringed`: it is a key, in a ring.
    """

    key: str
    text: str
    feature: str
    places: Sequence[Place]
    within: bool = False
    ringed: bool = False


class Lettering:
    """Writes words where there is room; those that the drafter moved first, where he wants them."""

    def __init__(self, scale: float, changes: Annotations, taken: Iterable[shapely.Geometry] = ()) -> None:
        self._scale, self._changes = scale, changes
        self._taken = list(taken)

    def write(self, words: Iterable[Word]) -> Iterator[Mark]:
        """The marks of words; a word without room is left out."""
        shown = [word for word in words if not self._changes.hides(word.key)]
        moved = [word for word in shown if any(self._changes.shift(word.key))]
        for word in moved:
            (u, v, about, part), (du, dv) = word.places[0], self._changes.shift(word.key)
            yield from annotated(self._put(word, Place(u + du, v + dv, about, part), led=True), word.key)
        for word in shown:
            if word not in moved:
                at = next((place for place in word.places if self._fits(word, place)), None)
                if at is not None:
                    yield from annotated(self._put(word, at), word.key)

    def _text(self, word: Word) -> str:
        return self._changes.change(word.key).text or word.text

    def _fits(self, word: Word, at: Place) -> bool:
        box = self._box(word, at.u, at.v)
        return not any(box.intersects(other) for other in self._taken) and (not word.within or at.about.contains(box))

    def _box(self, word: Word, u: float, v: float) -> Polygon:
        """The paper behind a word about a point."""
        half = RING if word.ringed else len(self._text(word)) * LETTER / 2 + PAD
        tall = RING if word.ringed else SIZE / 2 + PAD
        return shapely.box(
            u - half * self._scale, v - tall * self._scale, u + half * self._scale, v + tall * self._scale
        )

    def _put(self, word: Word, at: Place, *, led: bool = False) -> Iterator[Mark]:
        u, v, about, part = at
        box = self._box(word, u, v)
        self._taken.append(box)
        x0, y0, x1, y1 = box.bounds
        near = about.buffer(2 * BELOW * self._scale, join_style="mitre")
        if led and not near.intersects(box):
            # Away from what it speaks of, a word is led back to it.
            start, end = nearest_points(box, about.representative_point() if word.within else about)
            yield Stroke(path(start.coords[0], end.coords[0]), "note", part=part, feature="leader")
        if word.ringed:
            radius = (x1 - x0) / 2
            ring = ((x0, v, 1.0), (x0 + 2 * radius, v, 1.0))
            yield Region((ring,), fill="paper", pen="symbol", part=part, feature=word.feature)
        else:
            back = path((x0, y0), (x1, y0), (x1, y1), (x0, y1))
            yield Region((back,), fill="paper", part=part, feature=word.feature)
        yield Text(u, v, self._text(word), SIZE, "centre", "middle", 0, "sans", part, feature=word.feature)


def opening_numbers(building: Building, faces: Iterable[Face], frame: Frame, scale: float) -> Iterator[Word]:
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
        places = [Place((u0 + u1) / 2, v, about, f"{id}/number//") for v in spots]
        yield Word(f"number:{id}", placed.number, "number", places)


def material_keys(faces: Iterable[Face]) -> dict[str, str]:
    """The key of every material with a pattern."""
    held = {face.part.material for face in faces}
    named = sorted(id for id in held if material(id).seen is not None)
    return {id: str(number) for number, id in enumerate(named, 1)}


def material_words(faces: Iterable[Face], keys: dict[str, str] | None = None) -> list[Word]:
    """Every material with a pattern, once, by its name, or by its key, on the largest face that has room for it."""
    held: dict[str, list[Face]] = defaultdict(list)
    for face in faces:
        if material(face.part.material).seen is not None:
            held[face.part.material].append(face)
    words = []
    for id in sorted(held):
        text = material(id).name if keys is None else keys[id]
        largest = sorted(held[id], key=lambda face: -float(face.polygon.area))
        places = [place for face in largest[:LARGEST] for place in _places(face)]
        words.append(Word(f"material:{id}", text, "material", places, True, keys is not None))
    return words


LARGEST = 12
"""So many of the largest faces of a material are tried for its name."""


def _places(face: Face) -> Iterator[Place]:
    """Places for a name in a face, a middle one first."""
    x0, y0, x1, y1 = face.polygon.bounds
    inner = face.polygon.representative_point()
    shares = (0.5, 0.35, 0.65, 0.2, 0.8)
    for u, v in ((inner.x, inner.y), *((x0 + (x1 - x0) * a, y0 + (y1 - y0) * b) for b in shares for a in shares)):
        yield Place(u, v, face.polygon, face.part.key)


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
