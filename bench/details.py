"""Junctions of the largest demo found after an edit, a detail after an edit, all details on sheets as PDF."""

from __future__ import annotations

from time import perf_counter

from deepsection.core.edits import MoveOpening, apply_edits, put
from deepsection.core.junctions import found_junctions
from deepsection.core.resolve import resolve
from deepsection.core.sheets import compose, detail_sheets
from deepsection.core.view import draw_view
from deepsection.core.view.details.making import missing_details
from deepsection.demo import larkmoor_house
from deepsection.formats.writers import write_pdf


def detail_runs(rounds: int) -> dict[str, list[float]]:
    """ms of finding the junctions after a window has moved, and of the detail of an eave then."""
    project = larkmoor_house()
    project = put(project, *missing_details(project, resolve(project)))
    eave, window = project.details[0], project.openings[1]
    runs: dict[str, list[float]] = {"junctions found": [], "a detail": []}
    for step in range(1, rounds + 1):
        edited = apply_edits(project, (MoveOpening(opening=window.id, distance=window.distance + 7.0 * step),))
        building = resolve(edited)
        building.parts  # noqa: B018
        start = perf_counter()
        found_junctions(building)
        runs["junctions found"].append((perf_counter() - start) * 1000)
        start = perf_counter()
        draw_view(building, edited, f"detail:{eave.id}", 8.0, on_paper=True)
        runs["a detail"].append((perf_counter() - start) * 1000)
    return runs


def all_as_pdf() -> float:
    """ms of all details of the house, composed on their sheets and written as PDF."""
    project = larkmoor_house()
    project = put(project, *missing_details(project, resolve(project)))
    project = apply_edits(project, detail_sheets(project, resolve(project)))
    building = resolve(project)
    building.parts  # noqa: B018
    sheets = [sheet for sheet in project.sheets if sheet.name == "Details"]
    start = perf_counter()
    for sheet in sheets:
        write_pdf(compose(project, building, sheet, date="2026-01-01"))
    return (perf_counter() - start) * 1000
