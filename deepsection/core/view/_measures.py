"""What elevations measure by themselves: heights and widths as strings with the overall, and the grid."""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterable, Iterator, Sequence

import shapely

from ..drawing import Dimension, Mark, Stroke, Text, path
from ..geometry import Frame, line_through
from ..model import GridLine
from ..resolve import ROLES, Building
from ..units import INCH, HeightSum, Units, format_length, rounded
from ._annotations import annotated
from .faces import Face

CHAIN, OVERALL = 6.0, 17.0
"""How far left of the ground line the string of heights and the overall one lie (paper mm)."""
LEAST = 2.0
"""Heights closer together than this on paper (mm) are not dimensioned apart."""
FIGURE, ASIDE = 2.15, 3.8
"""Width of a figure of a dimension, and how far figures that do not fit between their ends stand aside (paper mm)."""
WIDTHS = 8.0
"""How far below what is drawn the string of widths lies (paper mm)."""
SQUARE_ON = 0.9999
"""A wall is measured, and an eave marked, when it faces the viewer so squarely (cosine)."""
AT_END = 30.0
"""An eave or rake ends where a view does when it comes this close (mm): boards lie on its end."""
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
        elif len(shown) > 1 and height in ridges:
            # Of two that stand so close, the ridge is what the overall height runs to.
            shown[-1] = height
    if len(shown) < 2:
        return
    aside = farthest = 0.0
    for start, end in itertools.pairwise(shown):
        fits = len(_between(start, end, units)) * FIGURE * scale < end.total - start.total
        # Of two that do not fit beside each other, the second stands farther aside.
        aside = 0.0 if fits else (2 * ASIDE if aside == ASIDE else ASIDE)
        farthest = max(farthest, aside)
        yield _upright(start, end, u, CHAIN, units, f"height:{end.id}", aside)
    if len(shown) > 2:
        overall = OVERALL + max(0.0, farthest - ASIDE)
        yield _upright(shown[0], shown[-1], u, overall, units, "height:overall")


def _between(low: HeightSum, high: HeightSum, units: Units) -> str:
    """The height from one level to another, from both as they are written at their marks, so that strings add up."""
    step = INCH / 16 if units == "ft-in" else 1.0
    return format_length((rounded(high.total / step) - rounded(low.total / step)) * step, units)


def _upright(
    low: HeightSum, high: HeightSum, u: float, offset: float, units: Units, key: str, raised: float = 0.0
) -> Dimension:
    text = _between(low, high, units)
    return Dimension(
        u, low.total, u, high.total, offset, text,
        feature="height", sum=high.id, raised=raised, gap=offset - 2.0, annotation=key,
    )  # fmt: skip


def width_string(
    building: Building, faces: Iterable[Face], frame: Frame, v: float, scale: float, units: Units
) -> Iterator[Mark]:
    """The overall width of the walls that one looks at squarely, and how far eaves reach past them, under a house."""
    ends = [
        x * frame.ux + y * frame.uy
        for wall in building.plan.walls
        if wall.wall.status == "outer" and not wall.axis.is_arc
        for out in (wall.stand().out,)
        if -(out[0] * frame.dx + out[1] * frame.dy) > SQUARE_ON
        for x, y in (wall.start, wall.end)
    ]
    if not ends:
        return
    reach = [face.polygon for face in faces if ROLES[face.part.role].overhangs]
    low, high = min(ends), max(ends)
    far = shapely.total_bounds(reach).tolist() if reach else [low, 0.0, high, 0.0]
    left, right = min(far[0], low), max(far[2], high)
    places = [
        ("left", left, _measured_from(building, frame, left, low, -1.0)),
        ("overall", low, high),
        ("right", _measured_from(building, frame, right, high, 1.0), right),
    ]
    aside = 0.0
    for name, start, end in places:
        if end - start < LEAST * scale:
            continue
        text = format_length(end - start, units)
        fits = len(text) * FIGURE * scale < end - start
        aside = 0.0 if fits else -(len(text) * FIGURE / 2 + 1.0) * (1 if name == "left" else -1)
        yield Dimension(
            start, v, end, v, -WIDTHS, text,
            feature="width", aside=aside, gap=WIDTHS - 2.0, annotation=f"width:{name}",
        )  # fmt: skip


def _measured_from(building: Building, frame: Frame, end: float, wall: float, way: float) -> float:
    """Where the overhang that ends at a place is measured from: the face that its roof says; else the wall's line."""
    for roof in building.roofs:
        for k, edge in enumerate(roof.block.edges):
            (x0, y0), (x1, y1) = roof.side(k)
            line = line_through((x0, y0), (x1, y1))
            outward = line.dy * frame.ux - line.dx * frame.uy
            at = x0 * frame.ux + y0 * frame.uy + way * roof.reaches[k]
            if outward * way > SQUARE_ON and abs(at - end) < AT_END and edge.overhang:
                return end - way * edge.overhang
    return wall


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
        circle = ((u - radius, top + radius, 1.0), (u + radius, top + radius, 1.0))
        size = 3.5 if len(line.name) < 3 else 2.5
        marks: list[Mark] = [
            Stroke(path((u, box[1]), (u, top)), "centre", part=part, feature="grid"),
            Stroke(circle, "symbol", closed=True, part=part, feature="grid"),
            Text(u, top + radius, line.name, size, "centre", "middle", 0, "bold", part, feature="grid"),
        ]
        yield from annotated(marks, f"grid:{line.id}")
