"""Where a view goes on a sheet when nobody says: the first free place, from the top left."""

from __future__ import annotations

from collections.abc import Iterator

from ..document.ids import free_among
from ..model import PlacedView, Project, Sheet
from ..resolve import Building
from .compose import footprint, place, title_block
from .paper import paper

STEP, CLEAR = 4.0, 6.0
"""Paper mm between places that are tried, and between what stands side by side."""

Box = tuple[float, float, float, float]


def free_view_ids(project: Project) -> Iterator[str]:
    """`view-1`, `view-2`, ... as far as no view on a sheet has them."""
    return free_among({held.id for sheet in project.sheets for held in sheet.placed}, "view")


def free_place(project: Project, building: Building, sheet: Sheet, view: PlacedView) -> PlacedView:
    """The view moved to the first place where it touches neither frame, title block nor another view.

    Alone on its sheet it stands in the middle above the title block. Where it fits nowhere it stays where it is.
    Raises: UnknownElement for a view or a paper that is not there.
    """
    size = paper(sheet.paper)
    held = place(project, building, view.model_copy(update={"x": 0.0, "y": 0.0}))
    left, low, right, high = footprint(held, project.units)
    x0, y0, x1, y1 = size.frame
    title = title_block(size)
    taken: list[Box] = [title]
    for other in sheet.placed:
        if other.id != view.id:
            taken.append(footprint(place(project, building, other), project.units))
    wide, tall = right - left, high - low
    if len(taken) == 1:
        at = ((x0 + x1 - wide) / 2, min((title[3] + y1 - tall) / 2, y1 - CLEAR - tall))
        if at[0] >= x0 + CLEAR and at[1] >= title[3] + CLEAR:
            return _at(view, at[0] - left, at[1] - low)
    y = y1 - CLEAR - tall
    while y >= y0 + CLEAR:
        x = x0 + CLEAR
        while x + wide <= x1 - CLEAR:
            hit = next((box for box in taken if touches((x, y, x + wide, y + tall), box)), None)
            if hit is None:
                return _at(view, x - left, y - low)
            x = max(x + STEP, hit[2] + CLEAR)
        y -= STEP
    return view


def _at(view: PlacedView, x: float, y: float) -> PlacedView:
    return view.model_copy(update={"x": round(x, 3), "y": round(y, 3)})


def touches(a: Box, b: Box) -> bool:
    """Whether two boxes on paper stand closer together than is clear."""
    return a[0] < b[2] + CLEAR and b[0] < a[2] + CLEAR and a[1] < b[3] + CLEAR and b[1] < a[3] + CLEAR
