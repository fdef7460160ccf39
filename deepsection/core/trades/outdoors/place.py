"""Steps and rails: how many risers there are, and what is wrong with them."""

from __future__ import annotations

import math

from ...building.diagnostics import Diagnostic
from ...catalog import usual
from ...model import LevelRule, Project
from ...units import HeightSum, SumTerm
from ..ground.place import Ground
from ..levels.placed import Level
from .placed import PlacedRail, PlacedSteps

POST = 89.0
"""Thickness of the posts of rails (mm)."""
MOST, LONGEST = 100, 100_000.0
"""So many risers have steps at most, and so long is a rail at most (mm)."""
SETTLES = 12
"""So often the foot of steps is looked for on the ground before it is taken."""
STEEPEST = 1 / 12
"""The slope of a ramp. Source: IRC R311.8.1; Approved Document M; both from memory."""
SAME = 5.0
"""A rise less than this (mm) needs no step."""


def place_steps(
    project: Project, levels: dict[str, Level], ground: Ground, found: list[Diagnostic]
) -> tuple[PlacedSteps, ...]:
    """The steps that lead down to the ground; of others it is said what is wrong with them."""
    placed = []
    for steps in project.outside_steps:
        top, risers = _height(steps.top, levels, f"top:{steps.id}", "top of steps"), 1
        rail = (usual("rail_height", project.units), usual("rail_gap", project.units))
        held = PlacedSteps(steps, top, 0.0, 1, *rail)
        for _ in range(SETTLES):
            # The ground at their foot tells how many there are, and they how far out their foot lies.
            held = PlacedSteps(steps, top, ground.z(*held.at(held.run, 0.0)), risers, *rail)
            ramped = steps.form == "ramp"
            risers = 1 if ramped else max(1, math.ceil((top.total - held.foot) / steps.most_rise - 1e-9))
        held = PlacedSteps(steps, top, held.foot, risers, *rail)
        at = (steps.x, steps.y)
        if steps.form == "ramp" and steps.slope > STEEPEST + 1e-6:
            message = f"this ramp falls by 1 in {1 / steps.slope:.3g}: one in twelve is the steepest that is legal"
            found.append(Diagnostic("ramp-steep", message, steps.id, "slope", steps.slope, STEEPEST, at=at))
        if top.total - held.foot < SAME:
            message = "the ground here is as high as the top of these steps: none are needed"
            fault = ("steps-without-rise", message, "top_offset", top.total, held.foot)
        elif risers > MOST:
            message = "the ground lies too deep for steps here: there would be more than a hundred"
            fault = ("too-many-steps", message, "most_rise", float(risers), float(MOST))
        else:
            placed.append(held)
            continue
        code, words, field, value, limit = fault
        found.append(Diagnostic(code, words, steps.id, field, value, limit, at=at))
    return tuple(placed)


def place_rails(project: Project, levels: dict[str, Level], found: list[Diagnostic]) -> tuple[PlacedRail, ...]:
    """The rails that are longer than their posts are thick."""
    placed = []
    for rail in project.rails:
        length, at = math.dist((rail.x1, rail.y1), (rail.x2, rail.y2)), (rail.x1, rail.y1)
        if length < 2 * POST:
            message = "this rail is shorter than its two posts"
            found.append(Diagnostic("rail-too-short", message, rail.id, "x1", length, 2 * POST, at=at))
            continue
        if length > LONGEST:
            message = "this rail is longer than any house: draw it in pieces"
            found.append(Diagnostic("rail-too-long", message, rail.id, "x1", length, LONGEST, at=at))
            continue
        placed.append(PlacedRail(rail, _height(rail.base, levels, f"foot:{rail.id}", "foot of rail")))
    return tuple(placed)


def _height(rule: LevelRule, levels: dict[str, Level], id: str, label: str) -> HeightSum:
    height = levels[rule.level].sum
    return height.plus(id, label, SumTerm("offset", rule.offset, id.partition(":")[2])) if rule.offset else height
