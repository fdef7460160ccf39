"""Stage: stairs between their levels: how they step, what they cover, the hole that their headroom needs."""

from __future__ import annotations

import math
from collections.abc import Sequence
from functools import lru_cache

import shapely
from shapely.geometry import Polygon

from ...building.diagnostics import Diagnostic
from ...errors import BadInput
from ...geometry import Point
from ...model import MakeUp, Project, Stair
from ...units import HeightSum, SumTerm, Units
from ..levels.placed import Level
from .layout import Front, StairLayout, lay_out
from .placed import PlacedStair
from .rules import RiserSet, StairRule, Stepping, choose, riser_set, riser_sets, stair_rules, usual_going

LEAST_RISE = 50.0
"""A stair rises by more than this (mm)."""
MOST_RISERS = 100
"""More risers than this has no stair in a house."""


def place_stairs(
    project: Project, levels: dict[str, Level], make_ups: dict[str, MakeUp], found: list[Diagnostic]
) -> tuple[PlacedStair, ...]:
    """The stairs that lead up; of others it is said what is wrong with them."""
    placed = []
    for stair in project.stairs:
        low, high = levels[stair.level], levels[stair.upper]
        at = (stair.x, stair.y)
        if high.z - low.z < LEAST_RISE:
            message = f"{stair.name} leads from {low.name} to {high.name}, which does not lie above it"
            rise = high.z - low.z
            found.append(Diagnostic("stair-level", message, stair.id, "upper", rise, LEAST_RISE, at=at))
            continue
        if high.z - low.z > MOST_RISERS * stair_rules()[stair.rule]["riser_max"]:
            message = f"{stair.name} would have more than {MOST_RISERS} risers: choose a level that lies nearer"
            found.append(Diagnostic("stair-level", message, stair.id, "upper", at=at))
            continue
        stepping = stepping_of(stair, high.z - low.z, project.units)
        thickness = floor_thickness(project, stair.upper, make_ups)
        placed.append(_placed(stair, low, high, stepping, thickness))
    return tuple(placed)


def stepping_of(stair: Stair, rise: float, units: Units) -> Stepping:
    """How a stair steps: as it is said, and as its rule has it where nothing is; never none, be it legal or not."""
    rule = stair_rules()[stair.rule]
    if stair.risers is not None:
        held = riser_set(rule, rise, stair.risers, units)
        return Stepping(held.risers, held.riser, stair.going or usual_going(rule, held))
    try:
        chosen = choose(rule, rise, stair.going, units)
    except BadInput:
        held = _nearest(rule, rise, units)
        return Stepping(held.risers, held.riser, stair.going or rule["going_min"])
    going = stair.going or usual_going(rule, riser_set(rule, rise, chosen.risers, units))
    return Stepping(chosen.risers, chosen.riser, going)


def _nearest(rule: StairRule, rise: float, units: Units) -> RiserSet:
    """Where none is legal with the going that is asked for: the fewest risers that are low enough."""
    sets = riser_sets(rule, rise, units)
    return next((held for held in sets if held.riser <= rule["riser_max"] + 1e-6), sets[-1])


def floor_thickness(project: Project, level: str, make_ups: dict[str, MakeUp]) -> float | None:
    """From the top of the floor at a level to its underside, linings included (mm); None where there is no floor."""
    floor = next((floor for floor in project.floors if floor.level == level), None)
    return sum(layer.thickness for layer in make_ups[floor.make_up].layers) if floor else None


@lru_cache(maxsize=256)
def _placed(stair: Stair, low: Level, high: Level, stepping: Stepping, thickness: float | None) -> PlacedStair:
    layout, rule = lay_out(stair, stepping), stair_rules()[stair.rule]
    rise = HeightSum(
        f"rise:{stair.id}",
        f"total rise of {stair.name}",
        (SumTerm(high.name, high.z, high.sum.id), SumTerm(f"less {low.name}", -low.z, low.sum.id)),
    )
    under = None if thickness is None else high.z - thickness
    hole = None
    if stair.hole and thickness is not None:
        limit = rise.total - thickness - rule["headroom"]
        # Its edge lies behind the last riser, whose board stands against the header.
        board = [_behind(layout.head, stair.riser_board)]
        hole = _rectangle_around([*_too_low(layout, stepping, limit), *board], stair.turn)
    return PlacedStair(stair, rule.name, low.z, rise, stepping, layout, under, hole)


def _too_low(layout: StairLayout, stepping: Stepping, limit: float) -> list[Polygon]:
    """The parts of the steps at which the line along the nosings lies above a limit (mm above the foot)."""
    parts = []
    for step in layout.steps:
        rises = 0.0 if step.kind == "landing" else stepping.riser
        if step.z + rises <= limit + 1e-6:
            continue
        share = (limit - step.z) / stepping.riser
        if step.kind == "tread" and share > 0:
            ends = [_between(step.front[k], step.back[k], share) for k in (0, 1)]
            parts.append(Polygon([ends[0], step.back.left, step.back.right, ends[1]]))
        else:
            parts.append(step.area)
    return parts


def _behind(front: Front, depth: float) -> Polygon:
    """A strip behind a riser."""
    (x0, y0), (x1, y1) = front
    length = math.dist(*front) or 1.0
    dx, dy = -(y1 - y0) / length * depth, (x1 - x0) / length * depth
    return Polygon([(x0, y0), (x1, y1), (x1 + dx, y1 + dy), (x0 + dx, y0 + dy)])


def _between(a: Point, b: Point, share: float) -> Point:
    return a[0] + (b[0] - a[0]) * share, a[1] + (b[1] - a[1]) * share


def _rectangle_around(parts: Sequence[Polygon], turn: float) -> Polygon | None:
    """The rectangle, along the first flight, that holds all of them: what can be framed."""
    if not parts:
        return None
    angle = math.radians(turn)
    c, s = math.cos(angle), math.sin(angle)
    points = shapely.get_coordinates(parts)
    along, across = points @ (c, s), points @ (-s, c)
    a0, a1, b0, b1 = along.min(), along.max(), across.min(), across.max()
    corners = [(a0, b0), (a1, b0), (a1, b1), (a0, b1)]
    return Polygon([(round(c * a - s * b, 6), round(s * a + c * b, 6)) for a, b in corners])
