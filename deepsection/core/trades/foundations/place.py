"""Stage: foundations under the walls of their storeys, with the steps with which they follow the ground."""

from __future__ import annotations

import itertools
from dataclasses import dataclass

from ...building.diagnostics import Diagnostic
from ...building.placed import Key, Placed
from ...geometry import Point
from ...memo import hashed_once
from ...model import Foundation, FoundationStep, Layer, MakeUp, Project, SetDown, bearing_layer
from ...units import Units, format_length
from ..levels.placed import LEVELS, Level
from ..walls.planned import WALLS, Outline, PlannedWall, WallPlan
from .faces import FootFaces, foot_faces
from .stretches import Stretch, overlap, stretches_of

SHORTEST = 25.0
"""Studs of pony walls are no shorter than this (mm)."""


@dataclass(frozen=True, slots=True)
class FoundationLevels:
    """The levels of a foundation: top of its wall, of its sill plate (where it has one), of its ground, its footing."""

    top: Level
    sill: Level | None
    ground: Level
    footing: Level


@hashed_once
@dataclass(frozen=True)
class PlacedFoundation:
    """A foundation under the outer walls of its storey.

    `feet`: where what stands on it has its faces, per wall; `stretches`: per wall, between its `steps`.
    """

    foundation: Foundation
    slab: MakeUp | None
    pony: MakeUp | None
    walls: tuple[PlannedWall, ...]
    feet: tuple[FootFaces, ...]
    outlines: tuple[Outline, ...]
    levels: FoundationLevels
    steps: tuple[FoundationStep, ...]
    stretches: tuple[tuple[Stretch, ...], ...]
    units: Units
    inner: tuple[PlannedWall, ...] = ()
    """The inner walls that bear and stand on its slab."""
    set_downs: tuple[SetDown, ...] = ()

    @property
    def footing_top(self) -> float:
        """mm above the datum, where no step lowers it."""
        return self.levels.footing.z + self.foundation.footing_depth

    def stem_top(self, stretch: Stretch) -> float:
        """mm above the datum of the foundation wall of a stretch: under pony walls it steps with its footing."""
        return self.levels.top.z - (stretch.drop if self.pony else 0.0)

    def ground_at(self, point: Point) -> float:
        """mm above the datum of the ground within its walls at a place: under pony walls it steps with them."""
        lower = sum(step.drop for step in self.steps if self.pony and step.line.left_of(point) > 0)
        return self.levels.ground.z - lower

    @property
    def slab_depth(self) -> float:
        """How thick the layer of its slab is that carries (mm); 0 where none does."""
        at = self.slab.carrying if self.slab else None
        return self.slab.layers[at].thickness if self.slab and at is not None else 0.0

    @property
    def slab_under(self) -> float | None:
        """mm above the datum of the underside of that layer; none where no layer carries."""
        at = self.slab.carrying if self.slab else None
        if self.slab is None or at is None:
            return None
        return self.levels.ground.z - sum(layer.thickness for layer in self.slab.layers[: at + 1])

    @property
    def plate(self) -> float:
        """The thickness of a plate of pony walls; 0 without them."""
        layer = framed_layer(self.pony) if self.pony else None
        return layer.framing.thickness if layer and layer.framing else 0.0

    @property
    def plates(self) -> float:
        """The height that the plates of a pony wall take, that on the foundation wall included."""
        layer = framed_layer(self.pony) if self.pony else None
        if not (layer and layer.framing):
            return 0.0
        return (1 + layer.framing.bottom_plates + layer.framing.top_plates) * layer.framing.thickness

    def gap(self, stretch: Stretch) -> float:
        """The height between the foundation wall of a stretch and what its sill carries."""
        return self.levels.sill.z - self.stem_top(stretch) if self.levels.sill else 0.0

    def is_pony(self, stretch: Stretch) -> bool:
        """Whether there is room for a framed wall on a stretch; where there is none, plates fill the gap."""
        return self.pony is not None and self.gap(stretch) >= self.plates + SHORTEST

    def overlap(self, drop: float) -> float:
        """How far the footing above a step runs on over the one below it (mm)."""
        return overlap(drop, self.foundation.footing_depth, self.units)


def framed_layer(make_up: MakeUp) -> Layer | None:
    """The layer that bears, where it is framed; else the first that is."""
    bears = make_up.layers[bearing_layer(make_up)]
    return bears if bears.framing else next((layer for layer in make_up.layers if layer.framing), None)


def place_foundations(placed: Placed) -> tuple[PlacedFoundation, ...]:
    """Every foundation; what is wrong with its steps and pony walls is added to what is found."""
    project, plan, levels, make_ups = placed.project, placed[WALLS], placed[LEVELS], placed.make_ups
    found = []
    for foundation in project.foundations:
        steps = tuple(step for step in project.foundation_steps if step.foundation == foundation.id)
        walls = tuple(wall for wall in plan.on(foundation.level) if wall.wall.status == "outer")
        held = PlacedFoundation(
            foundation,
            make_ups[foundation.slab] if foundation.slab else None,
            make_ups[foundation.pony] if foundation.pony else None,
            walls,
            tuple(foot_faces(wall, make_ups[wall.wall.make_up]) for wall in walls),
            plan.outlines_on(foundation.level),
            FoundationLevels(
                levels[foundation.top or foundation.level],
                levels[foundation.sill] if foundation.sill else None,
                levels[foundation.slab_level or foundation.level],
                levels[foundation.footing],
            ),
            steps,
            tuple(stretches_of(wall, steps, foundation.bears_on) for wall in walls),
            project.units,
            _inner(plan, project, foundation),
            tuple(down for down in project.set_downs if down.foundation == foundation.id),
        )
        found.append(held)
        placed.findings += _step_faults(held)
        placed.findings += _pony_faults(held, make_ups)
    return tuple(found)


def _inner(plan: WallPlan, project: Project, foundation: Foundation) -> tuple[PlannedWall, ...]:
    """The inner walls that bear on a slab: those of its level, where no floor lies."""
    if any(floor.level == foundation.level for floor in project.floors):
        return ()
    return tuple(
        wall
        for wall in plan.on(foundation.level)
        if wall.wall.status == "inner" and wall.wall.bears and not wall.wall.base.on_roof and not wall.wall.base.offset
    )


def _step_faults(held: PlacedFoundation) -> list[Diagnostic]:
    """Steps that no wall of their foundation crosses, and those too near to the next."""
    found = []
    name, units = held.foundation.name, held.units
    for step in held.steps:
        alone = [stretches_of(wall, (step,), held.foundation.bears_on) for wall in held.walls]
        if held.walls and len({stretch.drop for own in alone for stretch in own}) < 2:
            message = f"this step crosses no wall of {name}: all of it lies on one side"
            found.append(Diagnostic("step-misses", message, step.id, "drop", at=(step.x1, step.y1)))
    for wall, own in zip(held.walls, held.stretches):
        for before, after in itertools.pairwise(own):
            low = max(before, after, key=lambda stretch: stretch.drop)
            rise = abs(after.drop - before.drop)
            needs, limit = held.overlap(rise), held.stem_top(low) - held.footing_top + low.drop
            if rise > limit:
                message = (
                    f"{name} steps down by {format_length(rise, units)} here, more than its wall is high: make it "
                    f"{format_length(limit, units)} at most, or two steps"
                )
                at = wall.at(after.first)
                found.append(Diagnostic("step-high", message, held.foundation.id, "footing_depth", rise, limit, at=at))
            runs = min(low.last, wall.length) - max(low.first, 0.0)
            if runs + 1.0 < needs:
                message = (
                    f"the footing between steps of {name} is {format_length(runs, units)} long here: that above runs "
                    f"on over it by {format_length(needs, units)}; move the steps apart"
                )
                at = wall.at((max(low.first, 0.0) + min(low.last, wall.length)) / 2)
                found.append(Diagnostic("steps-near", message, held.foundation.id, "footing_depth", runs, needs, at=at))
    return found


def _pony_faults(held: PlacedFoundation, make_ups: dict[str, MakeUp]) -> list[Diagnostic]:
    """Pony walls without room for studs, and such as are thinner than the wall above."""
    if held.pony is None or held.levels.sill is None:
        return []
    found, units, name = [], held.units, held.foundation.name
    own = framed_layer(held.pony)
    for wall, stretches in zip(held.walls, held.stretches):
        for stretch in stretches:
            gap = held.gap(stretch)
            if 2 * held.plate + 1.0 < gap and not held.is_pony(stretch):
                needs = held.plates + SHORTEST
                message = (
                    f"pony walls of {name} have {format_length(gap, units)} here, no room for studs between their "
                    f"plates: leave {format_length(needs, units)}, or two plates' height"
                )
                middle = (max(stretch.first, 0.0) + min(stretch.last, wall.length)) / 2
                at = wall.at(middle)
                found.append(Diagnostic("pony-low", message, held.foundation.id, "pony", gap, needs, at=at))
        above = framed_layer(make_ups[wall.wall.make_up])
        if (
            own
            and above
            and above.framing
            and own.thickness + 1.0 < above.thickness
            and any(held.is_pony(stretch) for stretch in stretches)
        ):
            message = (
                f"the studs of {held.pony.name} are {format_length(own.thickness, units)} deep, less than the "
                f"{format_length(above.thickness, units)} of the wall above"
            )
            found.append(
                Diagnostic(
                    "pony-thin", message, held.foundation.id, "pony", own.thickness, above.thickness,
                    (wall.wall.id,), at=wall.at(wall.length / 2),
                )
            )  # fmt: skip
            break
    return found


FOUNDATIONS: Key[tuple[PlacedFoundation, ...]] = Key("foundations")
