"""Details are marked in sections and wall sections, with the number and the sheet of their drawing."""

from __future__ import annotations

from collections.abc import Callable

import pytest

from deepsection.core.drawing import Stroke, Text
from deepsection.core.edits import SetAnnotation, apply_edits, changed, put
from deepsection.core.geometry import Frame
from deepsection.core.junctions import found_junctions
from deepsection.core.model import Annotation, Project
from deepsection.core.resolve import resolve
from deepsection.core.sheets import detail_sheets
from deepsection.core.view import draw_view
from deepsection.core.view.details.making import missing_details
from deepsection.demo import fernacre_bungalow, larkmoor_house
from tests.reading import faults


def detailed(project: Project) -> Project:
    project = put(project, *missing_details(project, resolve(project)))
    return apply_edits(project, detail_sheets(project, resolve(project)))


def numbers(project: Project, view: str, scale: float) -> list[str]:
    drawing = draw_view(resolve(project), project, view, scale, on_paper=True)
    assert not faults(drawing)
    ids = {held.id for held in project.details}
    marks = [mark for mark in drawing.marks if (mark.part or "").split("/")[0] in ids]
    windows = [mark for mark in marks if isinstance(mark, Stroke) and mark.feature == "window"]
    texts = [mark.text for mark in marks if isinstance(mark, Text)]
    assert len(windows) == len([text for text in texts if "/" in text])
    return texts


def test_a_section_marks_its_eaves_feet_and_ridge_with_number_over_sheet() -> None:
    project = detailed(fernacre_bungalow())
    texts = numbers(project, "section:section-a", 50.0)
    kinds = {held.name.partition(",")[0]: held.kind for held in project.details}
    marked = [kinds[text] for text in texts if text in kinds]
    assert marked.count("eave") == 2 and marked.count("wall_foot") == 2 and marked.count("ridge") == 1
    assert not {"sill", "head"} & set(marked)
    # They follow the sheets when these are renumbered.
    sheet = next(held for held in project.sheets if held.name == "Details")
    assert any(text.endswith(f"/{sheet.number}") for text in texts)
    renamed = put(project, changed(sheet, number="D1"))
    assert any(text.endswith("/D1") for text in numbers(renamed, "section:section-a", 50.0))


def test_a_wall_section_marks_every_detail_on_its_way() -> None:
    project = detailed(larkmoor_house())
    kinds = {held.name.partition(",")[0]: held.kind for held in project.details}
    marked = {kinds[text] for text in numbers(project, "section:wall-section-1", 24.0) if text in kinds}
    assert {"eave", "head", "sill", "floor_edge", "wall_foot", "footing"} <= marked


def test_a_house_without_details_has_no_marks_and_coarse_views_no_pieces() -> None:
    project = fernacre_bungalow()
    building = resolve(project)
    plain = draw_view(building, project, "section:section-a", 50.0)
    junctions = {held.id.replace("/", "~") for held in found_junctions(building)}
    assert not [mark for mark in plain.marks if any(id in (mark.part or "") for id in junctions)]
    fine = draw_view(building, project, "section:section-a", 20.0)
    assert [mark for mark in fine.marks if any(id in (mark.part or "") for id in junctions)]


@pytest.mark.parametrize("make", [fernacre_bungalow, larkmoor_house])
def test_elevations_mark_the_details_of_the_openings_that_they_show(make: Callable[[], Project]) -> None:
    """Each detail of a head, a sill or a threshold in an outer wall is marked on one elevation at least, where its
    opening is, between the heights that it shows; what is hidden is not."""
    project = detailed(make())
    building = resolve(project)
    junctions = {held.id: held for held in found_junctions(building)}
    wanted = {
        held.id
        for held in project.details
        if held.kind in ("head", "sill", "threshold") and dict(junctions[held.junction].facts)["outer"]
    }
    found = set()
    for look, side in ((90.0, "south"), (270.0, "north"), (0.0, "west"), (180.0, "east")):
        view = f"elevation:{side}"
        numbers(project, view, 48.0)
        drawing = draw_view(building, project, view, 48.0, on_paper=True)
        frame = Frame.looking(look)
        for mark in drawing.marks:
            id = (mark.part or "").split("/")[0]
            if not (isinstance(mark, Stroke) and mark.feature == "window" and id in wanted):
                continue
            found.add(id)
            run = junctions[project.find(id).junction].runs[0]
            us = sorted(x * frame.ux + y * frame.uy for x, y, _ in (run.start, run.end))
            inside = [u for u, _, _ in mark.path][1]
            assert us[0] < inside < us[1]
            assert min(v for _, v, _ in mark.path) < run.start[2] < max(v for _, v, _ in mark.path)
            last = id, view
    assert found == wanted and len(found) >= 2
    id, view = last
    hidden = apply_edits(project, [SetAnnotation(view=view, annotation=Annotation(key=f"section:{id}", hidden=True))])
    without = draw_view(resolve(hidden), hidden, view, 48.0, on_paper=True)
    assert all((held.part or "").split("/")[0] != id for held in without.marks)
