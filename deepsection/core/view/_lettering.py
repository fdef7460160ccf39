"""What elevations tell by themselves: heights as a string, numbers of openings, materials, the grid."""

from __future__ import annotations

import itertools
import math
from collections import defaultdict
from collections.abc import Iterable, Iterator, Sequence

import shapely
from shapely.geometry import Polygon

from ..catalog import material
from ..drawing import Dimension, Mark, Region, Stroke, Text, path
from ..geometry import Frame
from ..model import GridLine
from ..resolve import Building
from ..units import HeightSum, Units, format_length
from ._symbols import FACING
from .faces import Face

CHAIN, OVERALL = 6.0, 17.0
"""How far left of the ground line the string of heights and the overall one lie (paper mm)."""
LEAST = 2.0
"""Heights closer together than this on paper (mm) are not dimensioned apart."""
FIGURE, ASIDE = 2.15, 3.2
"""Width of a figure of a dimension, and how far figures that do not fit between their ends stand aside (paper mm)."""
SIZE, LETTER, PAD = 1.8, 1.15, 0.6
"""Height and width of letters, and the paper around them (paper mm)."""
BELOW = 1.0
"""Gap from a unit to its number (paper mm)."""
UNSEEN = 0.3
"""A unit of which less than this share is seen is numbered elsewhere."""
STEM, BUBBLE = 4.0, 4.0
"""Length of a grid line over the house, and radius of its bubble (paper mm)."""
ALONG = 1e-3
"""A grid line that runs this nearly along the view (sine) is seen as one upright."""


def height_string(heights: Sequence[HeightSum], low: float, u: float, scale: float, units: Units) -> Iterator[Mark]:
    """The heights from the ground up as a string at the left of a house, and the overall one beside it."""
    ridges = [height for height in heights if height.id.startswith("ridge:")]
    shown: list[HeightSum] = []
    for height in heights:
        if height.total < low or (height in ridges and height is not ridges[-1]):
            continue
        if not shown or height.total - shown[-1].total >= LEAST * scale:
            shown.append(height)
    if len(shown) < 2:
        return
    aside = 0.0
    for start, end in itertools.pairwise(shown):
        fits = len(format_length(end.total - start.total, units)) * FIGURE * scale < end.total - start.total
        # Of two that do not fit beside each other, the second stands farther aside.
        aside = 0.0 if fits else (2 * ASIDE if aside == ASIDE else ASIDE)
        yield _upright(start, end, u, CHAIN, units, aside)
    if len(shown) > 2:
        yield _upright(shown[0], shown[-1], u, OVERALL, units)


def _upright(low: HeightSum, high: HeightSum, u: float, offset: float, units: Units, raised: float = 0.0) -> Dimension:
    text = format_length(high.total - low.total, units)
    return Dimension(
        u, low.total, u, high.total, offset, text, feature="height", sum=high.id, raised=raised, gap=offset - 2.0
    )


class Lettering:
    """Words on a view, each on paper of its own, none on another."""

    def __init__(self, scale: float, taken: Iterable[shapely.Geometry] = ()) -> None:
        self._scale = scale
        self._taken = list(taken)

    def box(self, u: float, v: float, text: str) -> Polygon:
        """The paper behind a text about a point."""
        half, tall = (len(text) * LETTER / 2 + PAD) * self._scale, (SIZE / 2 + PAD) * self._scale
        return shapely.box(u - half, v - tall, u + half, v + tall)

    def free(self, box: Polygon) -> bool:
        """Whether nothing stands there yet."""
        return not any(box.intersects(other) for other in self._taken)

    def put(self, u: float, v: float, text: str, part: str, feature: str) -> Iterator[Mark]:
        """The marks of a text."""
        box = self.box(u, v, text)
        self._taken.append(box)
        x0, y0, x1, y1 = box.bounds
        back = path((x0, y0), (x1, y0), (x1, y1), (x0, y1))
        yield Region((back,), fill="paper", part=part, feature=feature)
        yield Text(u, v, text, SIZE, "centre", "middle", 0, "sans", part, feature=feature)


def opening_numbers(
    building: Building, faces: Iterable[Face], frame: Frame, lettering: Lettering, scale: float
) -> Iterator[Mark]:
    """The number of every window and door that is seen, under it."""
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
        places = [((u0 + u1) / 2, v) for v in (v0 - off, v1 + off, (v0 + v1) / 2)]
        at = next((place for place in places if lettering.free(lettering.box(*place, placed.number))), None)
        if at is not None:
            yield from lettering.put(*at, placed.number, f"{placed.opening.id}/number//", "number")


def material_names(faces: Iterable[Face], lettering: Lettering) -> Iterator[Mark]:
    """Every material with a pattern by its name, once, on the largest face that has room for it."""
    held: dict[str, list[Face]] = defaultdict(list)
    for face in faces:
        if material(face.part.material).seen is not None:
            held[face.part.material].append(face)
    for id in sorted(held):
        name = material(id).name
        for face in sorted(held[id], key=lambda face: -float(face.polygon.area)):
            at = _room_for(face.polygon, name, lettering)
            if at is not None:
                yield from lettering.put(*at, name, face.part.key, "material")
                break


def _room_for(polygon: Polygon, name: str, lettering: Lettering) -> tuple[float, float] | None:
    """A place in a face at which its name lies within it and on nothing else."""
    x0, y0, x1, y1 = polygon.bounds
    inner = polygon.representative_point()
    shares = (0.5, 0.35, 0.65, 0.2, 0.8)
    spots = [(inner.x, inner.y), *((x0 + (x1 - x0) * a, y0 + (y1 - y0) * b) for b in shares for a in shares)]
    for u, v in spots:
        box = lettering.box(u, v, name)
        if polygon.contains(box) and lettering.free(box):
            return u, v
    return None


def grid_bubbles(
    grid: Iterable[GridLine], frame: Frame, box: tuple[float, float, float, float], scale: float
) -> Iterator[Mark]:
    """The grid lines that run along the view: an upright chain line through the house with a bubble over it."""
    for line in grid:
        dx, dy = math.cos(math.radians(line.angle)), math.sin(math.radians(line.angle))
        if abs(dx * frame.dy - dy * frame.dx) > ALONG:
            continue
        u, _ = frame.plan_to_turned(line.x, line.y)
        part, top, radius = f"{line.id}/grid//", box[3] + STEM * scale, BUBBLE * scale
        yield Stroke(path((u, box[1]), (u, top)), "centre", part=part, feature="grid")
        circle = ((u - radius, top + radius, 1.0), (u + radius, top + radius, 1.0))
        yield Stroke(circle, "symbol", closed=True, part=part, feature="grid")
        size = 3.5 if len(line.name) < 3 else 2.5
        yield Text(u, top + radius, line.name, size, "centre", "middle", 0, "bold", part, feature="grid")
