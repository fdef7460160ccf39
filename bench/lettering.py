"""Lettering of the largest demo: what the engine takes of drawing a view."""

from __future__ import annotations

from collections.abc import Iterator
from time import perf_counter
from typing import Any
from unittest.mock import patch

from deepsection.core.drawing import Text, explode, place
from deepsection.core.resolve import resolve
from deepsection.core.view import draw_view
from deepsection.demo import larkmoor_house

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
