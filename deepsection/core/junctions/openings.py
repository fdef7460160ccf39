"""Junctions of openings with their walls: heads, jambs, sills, thresholds."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from functools import partial

from ..memo import IdentityMemo
from ..model import bearing_layer
from ..resolve import Building, PlacedOpening, PlannedWall
from ..trades.walls.framing import header_depth
from .facts import layers_of, rounded
from .junction import End, Fact, Junction
from .lines import along_wall, upright

_known: IdentityMemo[list[Junction]] = IdentityMemo(size=1024)


def opening_junctions(building: Building) -> Iterator[Junction]:
    """Around every window and door: at its head, at its two sides in one, at its sill or threshold."""
    for wall in building.plan.walls:
        openings = building.openings[wall.wall.id]
        of = (wall, *openings, building.levels, *building.placed.project.make_ups)
        yield from _known(of, partial(_of_wall, building, wall, openings))


def _of_wall(building: Building, wall: PlannedWall, openings: Sequence[PlacedOpening]) -> list[Junction]:
    return [held for placed in openings for held in _around(building, wall, placed)]


def _around(building: Building, wall: PlannedWall, placed: PlacedOpening) -> Iterator[Junction]:
    opening, design = placed.opening, placed.design
    if opening.unit == "niche":
        return
    low, high = placed.sill.total, placed.head.total
    facts: tuple[tuple[str, Fact], ...] = (
        ("unit", opening.unit),
        ("outer", wall.wall.status == "outer"),
        ("wall", layers_of(building, wall.wall.make_up)),
        ("frame at", rounded(placed.face - wall.outer)),
        ("trim", rounded(design.trim)),
        ("operation", design.operation),
        ("arch", rounded(design.arch)),
        ("curved", wall.axis.is_arc),
    )

    def ends(feature: str) -> tuple[End, ...]:
        return End(opening.id, feature), End(wall.wall.id, "opening")

    yield Junction(
        "head",
        ends("head"),
        along_wall(wall, placed.left, placed.right, wall.outer, high),
        (*facts, ("header", rounded(_header(building, wall, placed)))),
    )
    sides = (*upright(wall, placed.left, low, high), *upright(wall, placed.right, low, high))
    yield Junction("jamb", ends("jambs"), sides, facts)
    foot = "sill" if opening.unit == "window" else "threshold"
    base = building.levels[wall.wall.base.level].z
    yield Junction(
        "sill" if foot == "sill" else "threshold",
        ends(foot),
        along_wall(wall, placed.left, placed.right, wall.outer, low),
        (*facts, ("over the floor", rounded(low - base) if foot == "threshold" else 0.0)),
    )


def _header(building: Building, wall: PlannedWall, placed: PlacedOpening) -> float:
    """How deep what carries over an opening is, by its width (mm); lintels are said by their layers."""
    make_up = building.placed.make_ups[wall.wall.make_up]
    framing = make_up.layers[bearing_layer(make_up)].framing
    width = placed.right - placed.left + 2 * placed.design.rough
    return header_depth(width, bears=wall.wall.bears, flat=framing.thickness) if framing else 0.0
