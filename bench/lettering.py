"""Lettering of the largest demo: what the engine takes of drawing a view, and a plan that follows a drag."""

from __future__ import annotations

from collections.abc import Iterator
from time import perf_counter
from typing import Any
from unittest.mock import patch

import orjson

from deepsection.core.drawing import Text, explode, place
from deepsection.core.edits import MoveWall
from deepsection.core.model import Project, wall_length
from deepsection.core.resolve import resolve
from deepsection.core.view import draw_view
from deepsection.demo import larkmoor_house
from deepsection.service.benches import bench_of
from deepsection.service.schemas import ViewWanted
from deepsection.service.work import checked_edits

from .edits import held_of

VIEWS = ("plan", "elevation:south", "section:section-a")


def lettering_seconds(rounds: int) -> Iterator[tuple[str, int, list[float]]]:
    """(view, number of texts, ms of placing them) at the scale of the project, nothing remembered of them."""
    project = larkmoor_house()
    building = resolve(project)
    for name in VIEWS:
        runs: list[float] = []

        def timed(*given: Any, runs: list[float] = runs) -> Any:
            start = perf_counter()
            held = place(*given)
            runs.append((perf_counter() - start) * 1000)
            return held

        with patch("deepsection.core.view._annotations.place", timed):
            drawings = [draw_view(building, project, name, project.scale) for _ in range(rounds)]
        yield name, sum(isinstance(mark, Text) for mark in explode(drawings[0]).marks), runs


def drag_seconds(project: Project, status: str, rounds: int) -> Iterator[float]:
    """ms of previews of the plan, with lettering, while the longest wall of a status is dragged."""
    wanted = [ViewWanted(name="plan")]
    have = held_of(bench_of(project, 1, wanted), wanted)
    walls = (wall for wall in project.walls if wall.status == status)
    wall = max(walls, key=lambda held: wall_length(project, held))
    for step in range(1, rounds + 1):
        start = perf_counter()
        moved = checked_edits(project, [MoveWall(wall=wall.id, dx=0.0, dy=-7.0 * step)])
        orjson.dumps(bench_of(moved, 1, have, project, keep=False))
        yield (perf_counter() - start) * 1000
