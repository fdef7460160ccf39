"""The unit and scale of a drawing: from dimensions, doors, wall thicknesses, its extent, and what its header says."""

from __future__ import annotations

import math
import re
from collections.abc import Sequence

import numpy as np

from .drawn import Drawn
from .found import UnitFound
from .rails import circle_of

UNITS = {"mm": 1.0, "cm": 10.0, "m": 1000.0, "in": 25.4, "ft": 304.8}
PAPER = {
    "paper millimetres at 1:20": 20.0,
    "paper millimetres at 1:50": 50.0,
    "paper millimetres at 1:100": 100.0,
    "paper millimetres at 1:200": 200.0,
    'paper inches at 1/2" = 1\'-0"': 25.4 * 24,
    'paper inches at 1/4" = 1\'-0"': 25.4 * 48,
    'paper inches at 1/8" = 1\'-0"': 25.4 * 96,
}
DOORS = (600.0, 1100.0)
"""Leaves of doors are this wide (mm). Common practice, no source."""
WALLS = (70.0, 480.0)
EXTENT = (3500.0, 90_000.0)
_FEET = re.compile(
    r"""^\s*(?:(\d+(?:\.\d+)?)\s*(?:'|ft|′)\s*-?\s*)?(?:(\d+(?:\.\d+)?)?\s*(?:(\d+)\s*/\s*(\d+))?\s*(?:"|in|″|'')?)?\s*$"""
)
_PLAIN = re.compile(r"^\s*[~≈±]?\s*(\d+(?:[ '.,]\d{3})*(?:[.,]\d+)?)\s*(mm|cm|m)?\s*$", re.IGNORECASE)


def lengths_of(text: str) -> list[tuple[float, str]]:
    """What a dimension text may say: (mm, the unit in which it says that). Empty where it is no length.

    >>> lengths_of("3'-6\\"")
    [(1066.8, 'ft-in')]
    >>> lengths_of("3.50")[0]
    (3.5, 'mm')
    """
    text = text.strip().replace("\\P", " ").replace("”", '"').replace("’", "'")
    if ("'" in text or '"' in text) and (match := _FEET.match(text)):
        feet, inches, top, under = match.groups()
        if feet or inches or top:
            value = (
                float(feet or 0) * 12 + float(inches or 0) + (float(top) / float(under) if top and float(under) else 0)
            )
            return [(round(value * 25.4, 4), "ft-in")]
    match = _PLAIN.match(text)
    if not match:
        return []
    raw = match[1].replace(" ", "").replace("'", "")
    raw = raw.replace(",", ".") if raw.count(",") == 1 and "." not in raw else raw.replace(",", "")
    try:
        value = float(raw)
    except ValueError:
        return []
    if match[2]:
        unit = match[2].lower()
        return [(value * UNITS[unit], unit)]
    return [(value * UNITS[unit], unit) for unit in ("mm", "cm", "m", "in", "ft")]


def unit_of(drawn: Drawn, stated: str | None = None) -> UnitFound:
    """The unit of a drawing, with how sure that is; `stated` by somebody wins."""
    if stated is not None and stated in UNITS:
        return UnitFound(stated, UNITS[stated], 1.0, "as stated")
    candidates = {**UNITS, **PAPER}
    scores = {name: 0.0 for name in candidates}
    reasons: dict[str, list[str]] = {name: [] for name in candidates}
    if drawn.unit:
        scores[drawn.unit] += 1.6
        reasons[drawn.unit].append("the header says so")
        for name in PAPER:
            if (drawn.unit == "mm" and "millimetres" in name) or (drawn.unit == "in" and "inches" in name):
                scores[name] += 0.8
    for name in UNITS:
        scores[name] += 0.3
    _by_dimensions(drawn, candidates, scores, reasons)
    _by_doors(drawn, candidates, scores, reasons)
    _by_walls(drawn, candidates, scores, reasons)
    _by_extent(drawn, candidates, scores, reasons)
    order = sorted(scores, key=lambda name: -scores[name])
    best, second = order[0], order[1]
    sure = scores[best] - scores[second]
    confidence = max(0.2, min(0.99, 0.45 + 0.25 * sure))
    return UnitFound(
        best, candidates[best], round(confidence, 2), ", ".join(reasons[best]) or "nothing speaks for another"
    )


def _by_dimensions(
    drawn: Drawn, candidates: dict[str, float], scores: dict[str, float], reasons: dict[str, list[str]]
) -> None:
    """Texts of dimensions against what lies between their points."""
    votes = {name: 0 for name in candidates}
    told = 0
    for held in drawn.measures[:400]:
        measured = between(held.a, held.b, held.angle)
        said = lengths_of(held.text)
        if not said or measured <= 0:
            continue
        told += 1
        for name, factor in candidates.items():
            if any(abs(mm - measured * factor) < 0.004 * mm + 0.6 for mm, _ in said if 30.0 <= mm <= 2e5):
                votes[name] += 1
    if not told:
        return
    for name, count in votes.items():
        if count:
            share = count / told
            plain = name == drawn.unit or name not in PAPER
            scores[name] += 2.0 * share + (0.2 if plain else 0.0)
            reasons[name].append(f"{count} of {told} dimensions agree")


def _by_doors(
    drawn: Drawn, candidates: dict[str, float], scores: dict[str, float], reasons: dict[str, list[str]]
) -> None:
    radii = []
    for stroke in drawn.strokes:
        if stroke.bulge and math.radians(70) < 4 * abs(math.atan(stroke.bulge)) < math.radians(110):
            radii.append(circle_of(stroke)[1])
    _in_range(radii, DOORS, "door swings", 2.0, candidates, scores, reasons)


def _in_range(
    values: Sequence[float],
    limits: tuple[float, float],
    what: str,
    weight: float,
    candidates: dict[str, float],
    scores: dict[str, float],
    reasons: dict[str, list[str]],
) -> None:
    if not values:
        return
    held = np.asarray(values)
    for name, factor in candidates.items():
        share = float(((held * factor >= limits[0]) & (held * factor <= limits[1])).mean())
        if share > 0.25:
            scores[name] += weight * share
            typical = float(np.median(held)) * factor
            reasons[name].append(f"{what} of {typical:,.0f} mm")


def _by_walls(
    drawn: Drawn, candidates: dict[str, float], scores: dict[str, float], reasons: dict[str, list[str]]
) -> None:
    """The distance from each of the longest lines to the next parallel one, where it is small beside their length."""
    lines = [s for s in drawn.strokes if not s.bulge]
    lines.sort(key=lambda s: -math.dist(s.a, s.b))
    held = lines[:400]
    widths = [s.width for s in drawn.strokes if s.width > 0]
    if len(held) > 1:
        ends = np.array([(*s.a, *s.b) for s in held])
        run = ends[:, 2:] - ends[:, :2]
        length = np.hypot(run[:, 0], run[:, 1])
        keep = length > 0
        ends, run, length = ends[keep], run[keep], length[keep]
        unit = run / length[:, None]
        middle = (ends[:, :2] + ends[:, 2:]) / 2
        for k in range(min(len(length), 200)):
            parallel = np.abs(unit[:, 0] * unit[k, 1] - unit[:, 1] * unit[k, 0]) < 0.003
            moved = middle - middle[k]
            off = np.abs(moved[:, 0] * unit[k, 1] - moved[:, 1] * unit[k, 0])
            along = np.abs(moved[:, 0] * unit[k, 0] + moved[:, 1] * unit[k, 1])
            near = (
                parallel & (along < (length + length[k]) * 0.4) & (off > length[k] * 0.002) & (off < length[k] * 0.25)
            )
            if near.any():
                widths.append(float(off[near].min()))
    _in_range(widths, WALLS, "walls", 1.2, candidates, scores, reasons)


def _by_extent(
    drawn: Drawn, candidates: dict[str, float], scores: dict[str, float], reasons: dict[str, list[str]]
) -> None:
    spots = np.array([p for s in drawn.strokes for p in (s.a, s.b)]).reshape(-1, 2)
    if not len(spots):
        return
    size = np.percentile(spots, 97, axis=0) - np.percentile(spots, 3, axis=0)
    across = float(max(size))
    for name, factor in candidates.items():
        if EXTENT[0] <= across * factor <= EXTENT[1]:
            scores[name] += 0.7
            reasons[name].append(f"a plan of {across * factor / 1000:,.0f} m")


def between(a: tuple[float, float], b: tuple[float, float], angle: float | None) -> float:
    """The distance of two points, or its part along an angle (degrees)."""
    dx, dy = b[0] - a[0], b[1] - a[1]
    if angle is None:
        return math.hypot(dx, dy)
    return abs(dx * math.cos(math.radians(angle)) + dy * math.sin(math.radians(angle)))
