"""DXF as a page: its lines, areas and words, about its own place."""

from __future__ import annotations

from functools import lru_cache

from deepsection.core.drawing import Ring
from deepsection.core.drawing.pictures import Picture, PictureWords
from deepsection.core.errors import BadInput
from deepsection.core.geometry import Point
from deepsection.core.reading import Drawn, moved, near, unit_of

from ..dxf_drawn import read_drawn
from .pages import About

PLAIN = 1e-9


def about_dxf(data: bytes) -> About:
    """The size of what is drawn (units of the file), how long its unit is, and where it lies. Raises: BadInput."""
    drawn, (x, y), width, height, (far_x, far_y) = _read(data)
    unit = unit_of(drawn)
    reason = f"{unit.name}: {unit.reason}"
    place = x * unit.factor, y * unit.factor
    return About(((width, height),), "drawing", unit.factor, place, (x + far_x, y + far_y), reason)


def dxf_page(data: bytes, page: int) -> Picture:
    """What the file draws, from the lower left corner of it on. Raises: BadInput."""
    drawn, (x0, y0), width, height, _ = _read(data)
    seen = (s for s in drawn.strokes if s.a != s.b)
    lines = tuple(((s.a[0] - x0, s.a[1] - y0, s.bulge), (s.b[0] - x0, s.b[1] - y0, 0.0)) for s in seen)

    def placed(ring: Ring) -> Ring:
        return tuple((x - x0, y - y0, bulge) for x, y, bulge in ring)

    areas = tuple(tuple(placed(ring) for ring in held.rings) for held in drawn.areas if held.solid)
    # Of a pattern its edge is drawn.
    edges = tuple(placed((*ring, ring[0])) for held in drawn.areas if not held.solid for ring in held.rings)
    words = tuple(PictureWords(w.text, w.at[0] - x0, w.at[1] - y0, w.height, w.angle) for w in drawn.words)
    said = tuple(
        PictureWords(
            m.text, (m.a[0] + m.b[0]) / 2 - x0, (m.a[1] + m.b[1]) / 2 - y0, max(width, height) / 120, m.angle or 0.0
        )
        for m in drawn.measures
        if m.text
    )
    return Picture(width, height, (*lines, *edges), areas, (*words, *said), notes=tuple(drawn.notes))


@lru_cache(maxsize=2)
def _read(data: bytes) -> tuple[Drawn, Point, float, float, Point]:
    """What is drawn near each other, its lower left corner, how wide and high it is, and how far it was brought
    nearer to the origin (units of the file)."""
    whole = read_drawn(data)
    factor = unit_of(whole).factor
    # What lies near each other is told in mm, and shown in the unit of the file.
    kept, origin, notes = near(whole, factor)
    drawn = moved(kept, 1.0 / factor, (0.0, 0.0))
    drawn.notes += notes
    xs = [p[0] for s in drawn.strokes for p in (s.a, s.b)] + [p[0] for a in drawn.areas for r in a.rings for p in r]
    ys = [p[1] for s in drawn.strokes for p in (s.a, s.b)] + [p[1] for a in drawn.areas for r in a.rings for p in r]
    if not xs:
        raise BadInput("no lines and no areas are drawn in this file", field="file")
    x0, y0 = min(xs), min(ys)
    width, height = max(xs) - x0, max(ys) - y0
    return drawn, (x0, y0), max(width, PLAIN), max(height, PLAIN), (origin[0] / factor, origin[1] / factor)
