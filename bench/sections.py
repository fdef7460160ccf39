"""Sections of the largest demo after an edit, wall sections, six of them on a sheet as PDF, section lines dragged."""

from __future__ import annotations

from collections.abc import Iterator
from time import perf_counter

import orjson

from deepsection.core.edits import MoveOpening, apply_edits, put
from deepsection.core.model import PlacedView, Project, Sheet
from deepsection.core.resolve import resolve
from deepsection.core.sheets import compose
from deepsection.core.view import draw_view
from deepsection.core.view.cut import cut_parts
from deepsection.core.view.section_panels import section_frame, section_window
from deepsection.core.view.strips.proposals import usual_places
from deepsection.demo import larkmoor_house
from deepsection.formats.writers import write_pdf
from deepsection.service.benches import bench_of
from deepsection.service.schemas import ViewWanted
from deepsection.service.work import checked_edits

from .edits import drag_section, held_of


def section_runs(rounds: int) -> dict[str, list[float]]:
    """ms of cutting the first section after a window has moved, of drawing it, and of a wall section."""
    project = larkmoor_house()
    line, window = project.sections[0], project.openings[1]
    runs: dict[str, list[float]] = {"cut": [], "drawn": [], "wall section": []}
    for step in range(1, rounds + 1):
        edited = apply_edits(project, (MoveOpening(opening=window.id, distance=window.distance + 7.0 * step),))
        building = resolve(edited)
        building.parts  # noqa: B018
        start = perf_counter()
        cut_parts(building, section_frame(line), section_window(line))
        runs["cut"].append((perf_counter() - start) * 1000)
        for name, view, scale in (
            ("drawn", line.id, project.scale),
            ("wall section", project.wall_sections[0].id, 16.0),
        ):
            start = perf_counter()
            draw_view(building, edited, f"section:{view}", scale, on_paper=True)
            runs[name].append((perf_counter() - start) * 1000)
    return runs


def six_on_a_sheet() -> float:
    """ms of a sheet with six wall sections, composed and written as PDF."""
    project = larkmoor_house()
    bare = project.model_copy(update={"wall_sections": (), "sheets": ()})
    held = [place.wall_section for place in usual_places(bare, resolve(bare))][:6]
    placed = tuple(
        PlacedView(id=f"v{k}", view=f"section:{one.id}", scale=24.0, x=150.0 + 190.0 * k, y=400.0)
        for k, one in enumerate(held)
    )
    sheet = Sheet(id="strips", number="A1", name="Wall sections", paper="A0", placed=placed)
    full = put(bare, *held, sheet)
    building = resolve(full)
    building.parts  # noqa: B018
    assert len(placed) == 6
    start = perf_counter()
    write_pdf(compose(full, building, sheet, date="2026-01-01"))
    return (perf_counter() - start) * 1000


def section_drags(project: Project, rounds: int) -> Iterator[float]:
    """ms of previews of plan and section while the first section line is dragged, as they follow it."""
    wanted = [ViewWanted(name="plan"), ViewWanted(name=f"section:{project.sections[0].id}")]
    have = held_of(bench_of(project, 1, wanted), wanted)
    for step in range(1, rounds + 1):
        start = perf_counter()
        moved = checked_edits(project, [drag_section(project, step)])
        orjson.dumps(bench_of(moved, 1, have, project, strict=True, keep=False, draft=True))
        yield (perf_counter() - start) * 1000
