"""What lies under a view: pages of files, as the backgrounds of the project say."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

from ..drawing import Backdrop, Drawing
from ..geometry import Frame
from ..model import Background, Project


def over_files(drawing: Drawing, project: Project, look: float | None, on_paper: bool) -> Drawing:
    """The drawing with what lies under it; of a plan, drawn along `look` (degrees), with what is turned with it.

    On paper lies what is printed, and the drawing is as large as to hold that.
    """
    under = tuple(_under(project, drawing.name, look, on_paper))
    if not under:
        return drawing
    if not on_paper and drawing.marks:
        return replace(drawing, backdrops=under)
    points = [point for held in under for point in held.corners]
    if drawing.marks:
        x0, y0, x1, y1 = drawing.bounds
        points += [(x0, y0), (x1, y1)]
    xs, ys = [x for x, _ in points], [y for _, y in points]
    return replace(drawing, backdrops=under, bounds=(min(xs), min(ys), max(xs), max(ys)))


def _under(project: Project, name: str, look: float | None, on_paper: bool) -> Iterator[Backdrop]:
    frame = None if look is None else Frame.looking(look)
    for held in project.backgrounds:
        if held.view == name and held.shown and (held.printed or not on_paper):
            yield _backdrop(held, frame)


def _backdrop(held: Background, frame: Frame | None) -> Backdrop:
    (ox, oy), (ax, ay), (bx, by) = (
        frame.plan_to_turned(*held.on_view(*at)) if frame else held.on_view(*at)
        for at in ((0.0, 0.0), (1.0, 0.0), (0.0, 1.0))
    )
    place = ax - ox, ay - oy, bx - ox, by - oy, ox, oy
    page = min(held.page, len(held.pages) - 1)
    return Backdrop(held.id, held.name, held.file, page, place, held.box, held.strength, held.printed, held.snapped)
