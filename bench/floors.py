"""A floor of 150 joists with three holes, and an edit of a stair with plan and section."""

from __future__ import annotations

from collections.abc import Iterator
from time import perf_counter

from deepsection.core.edits import PutStair, apply_edits, changed, put
from deepsection.core.model import FloorHole, Project
from deepsection.core.resolve import resolve
from deepsection.core.starters.projects import new_project
from deepsection.core.trades.floors.members import floor_members
from deepsection.core.trades.floors.parts import floor_parts
from deepsection.core.trades.floors.place import FLOORS
from deepsection.core.view import draw_view
from deepsection.demo import larkmoor_house
from deepsection.demo.pieces import ring
from deepsection.service.work import building_of, checked_edits


def long_house() -> Project:
    """60 m x 4.5 m on joists at 400, with three holes."""
    project = new_project("long", "Long", "mm", ground="joists")
    corners = (("sw", 0.0, 0.0), ("se", 60_200.0, 0.0), ("ne", 60_200.0, 4500.0), ("nw", 0.0, 4500.0))
    project = apply_edits(project, (ring(corners, ("south", "east", "north", "west"), project.make_ups[0].id),))
    floor = project.floors[0].id
    spots = [(10_000.0 + 15_000.0 * k, 1200.0) for k in range(3)]
    holes = [
        FloorHole(
            id=f"hole-{k}", floor=floor, corners=((x, y), (x + 2000.0, y), (x + 2000.0, y + 1000.0), (x, y + 1000.0))
        )
        for k, (x, y) in enumerate(spots)
    ]
    return put(project, *holes)


def floor_seconds() -> tuple[int, float]:
    """(joists, ms) of a floor's members and solids, with nothing remembered of them."""
    building = resolve(long_house())
    flat = building[FLOORS][0]
    make_up = building.placed.make_ups[flat.floor.make_up]
    framing = next(layer.framing for layer in make_up.layers if layer.framing)
    levels = building.levels
    floor_members.cache_clear()
    floor_parts.cache_clear()
    start = perf_counter()
    floor_parts(
        flat.floor,
        make_up,
        flat.bays,
        flat.rims,
        (flat.over, flat.below),
        levels[flat.floor.bearing],
        levels[flat.floor.level],
        flat.closed,
    )
    took = (perf_counter() - start) * 1000
    return len(floor_members(flat.bays, flat.rims, framing, flat.floor.between).of("joist")), took


def stair_seconds(rounds: int) -> Iterator[float]:
    """ms of edits of the stair of the largest demo, until its plan and the section through it are drawn."""
    project = larkmoor_house()
    names = ("plan", "section:section-c")
    for name in names:
        draw_view(building_of(project), project, name, project.scale)
    for step in range(1, rounds + 1):
        stair = project.stairs[0]
        start = perf_counter()
        project = checked_edits(project, [PutStair(stair=changed(stair, going=254.0 + step))])
        for name in names:
            draw_view(building_of(project), project, name, project.scale)
        yield (perf_counter() - start) * 1000
