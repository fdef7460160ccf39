"""What a roof comes to: its slopes with their areas, its lines with their lengths, the space below it."""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Iterator

from shapely.geometry import Polygon

from ...geometry import compass, line_through, polygons_of
from ...rows.outcome import OutcomeRow, OutcomeTable
from ...units import FOOT, Units, format_area, format_length, format_pitch
from .placed import ResolvedRoof, RoofPlane, RoofSeam

LEAST = 1e4
"""A slope smaller than this (mm2) is not listed."""
ORDER = ("ridge", "hip", "valley", "break", "eave", "rake")


def roof_outcome(roof: ResolvedRoof, units: Units) -> tuple[OutcomeTable, ...]:
    """Slopes, lines and space of a roof block, as they are left where blocks meet."""
    return _slopes(roof, units), *_lines(roof, units), _space(roof, units)


def _slopes(roof: ResolvedRoof, units: Units) -> OutcomeTable:
    rows, plan, true = [], 0.0, 0.0
    for plane in roof.planes:
        area = plane.polygon.area
        if area < LEAST:
            continue
        slope = math.hypot(1.0, plane.pitch)
        plan, true = plan + area, true + area * slope
        side = compass(plane.line.dy, -plane.line.dx).capitalize()
        name = f"{side} slope, {format_pitch(plane.pitch, units)}" + (", above the break" if plane.upper else "")
        rows.append(OutcomeRow(name, format_area(area * slope, units)))
    rows.append(OutcomeRow("seen from above", format_area(plan, units)))
    return OutcomeTable("Area of the slopes", format_area(true, units), tuple(rows))


def _lines(roof: ResolvedRoof, units: Units) -> Iterator[OutcomeTable]:
    """Per kind of line, those of one length together; hips and valleys with their angle to the eave, in plan."""
    held: dict[str, list[RoofSeam]] = defaultdict(list)
    for seam in roof.seams:
        held[seam.kind].append(seam)
    for kind in ORDER:
        if not held[kind]:
            continue
        alike: dict[tuple[str, str], int] = defaultdict(int)
        for seam in held[kind]:
            alike[_angle(roof, seam), format_length(seam.length, units)] += 1
        rows = tuple(
            OutcomeRow(f"{count} x {kind}{angle}" if count > 1 else f"{kind}{angle}", length)
            for (angle, length), count in alike.items()
        )
        total = sum(seam.length for seam in held[kind])
        yield OutcomeTable(f"Length of {kind}s", format_length(total, units), rows)


def _angle(roof: ResolvedRoof, seam: RoofSeam) -> str:
    if seam.kind not in ("hip", "valley"):
        return ""
    plane = next((held for held in roof.planes if set(held.edges) & set(seam.edges)), None)
    run = math.dist(seam.start[:2], seam.end[:2])
    if plane is None or run < 1.0:
        return ""
    line = line_through(seam.start[:2], seam.end[:2])
    cross, dot = line.dx * plane.line.dy - line.dy * plane.line.dx, line.dx * plane.line.dx + line.dy * plane.line.dy
    plan = math.degrees(math.atan2(abs(cross), abs(dot)))
    rise = math.degrees(math.atan2(abs(seam.end[2] - seam.start[2]), run))
    return f", {plan:.1f}° in plan, rising {rise:.1f}°"


def _space(roof: ResolvedRoof, units: Units) -> OutcomeTable:
    """From what it bears on up to the top of its structure, within its bearing lines."""
    within = Polygon(roof.bearing[0], roof.bearing[1:])
    volume = sum(_under(plane, within, roof.plate.total) for plane in roof.planes)
    text = f"{volume / FOOT**3:.0f} cu ft" if units == "ft-in" else f"{volume / 1e9:.1f} m³"
    return OutcomeTable("Space below the slopes", text, ())


def _under(plane: RoofPlane, within: Polygon, floor: float) -> float:
    """Volume (mm3): of a slope, area times the height over the middle."""
    pieces = polygons_of(plane.whole.intersection(within))
    return sum(float(piece.area) * (plane.top.z(piece.centroid.x, piece.centroid.y) - floor) for piece in pieces)
