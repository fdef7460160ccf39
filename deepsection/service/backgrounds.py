"""Files that lie under views: laid there, looked at, and brought to the sheets that print them."""

from __future__ import annotations

import math
from dataclasses import replace
from pathlib import PurePath
from typing import Any

import numpy as np
from numpy.typing import NDArray
from pydantic import BaseModel

from deepsection.core.adopting import Adopted
from deepsection.core.document.motion import Motion
from deepsection.core.drawing.pictures import Picture, PictureWords
from deepsection.core.edits import PutBackground, PutModelBody
from deepsection.core.errors import BadInput, DeepSectionError
from deepsection.core.geometry import Frame
from deepsection.core.memo import LruCache
from deepsection.core.model import Background, ModelBody, Project
from deepsection.core.reading import ReadPlan
from deepsection.core.sheets import SheetDrawing
from deepsection.core.trades.backgrounds.model import PageSize
from deepsection.core.view import drawn, lies_over_files, look_of, opened
from deepsection.formats.apart import rest_in
from deepsection.formats.pictures import About, about_file, picture_of

from .projects import new_id
from .schemas import State
from .store import Store
from .work import in_turn

Vertex = tuple[float, float, float]


class BackgroundOut(BaseModel):
    """The version in which a file lies under a view, its element, and what tells how large it is."""

    state: State
    background: str
    reason: str


class PageWords(BaseModel):
    """Lettering of a page: where its middle lies, how high it is, how it is turned (degrees)."""

    text: str
    x: float
    y: float
    height: float
    angle: float


class PageOut(BaseModel):
    """What a page of a file shows, from its lower left corner, in the unit of the file: paths of (x, y, bulge).

    Where there is an `image` of it, the lines are there to be snapped to alone.
    """

    width: float
    height: float
    image: bool
    lines: list[list[Vertex]]
    areas: list[list[list[Vertex]]]
    words: list[PageWords]
    notes: list[str]


def page_of(store: Store, digest: str, page: int) -> Picture:
    """What a page of a file shows. Raises: UnknownElement, BadInput."""
    return picture_of(store.file(digest), page)


@in_turn
def laid_under(store: Store, project: Project, view: str, name: str, data: bytes) -> tuple[PutBackground, About]:
    """The edit that lays a file under a view: a drawing where it lies itself, paper at the scale of the project, about
    the middle of the house.

    Raises: UnknownElement for a view that is not there, BadInput for what cannot lie under it.
    """
    if not lies_over_files(project, view):
        raise BadInput("a file can lie under plans of storeys, the roof plan and elevations", field="view", value=view)
    about = about_file(data)
    # What cannot be shown is refused now, not when it is printed.
    picture_of(data, 0)
    scale = about.scale or project.scale
    wide, high = (size * scale for size in about.pages[0])
    plan = view.startswith("plan")
    if about.at is not None and plan:
        x, y = about.at
    else:
        x, y = _middle(project, view, plan)
        x, y = x - wide / 2, y - high / 2
    return _laid(store, data, about, view, name, scale, (x, y)), about


def under_plan(store: Store, plan: ReadPlan, made: Adopted, view: str, name: str, data: bytes) -> PutBackground:
    """The edit that lays the drawing of a plan under what was read of it, to be drawn over. Raises: BadInput."""
    about, factor = about_file(data), plan.unit.factor
    x, y = (corner * factor - origin for corner, origin in zip(about.corner, plan.origin))
    return _laid(store, data, about, view, name, factor, made.laid.at((x, y)), made.laid.turn)


def grey_body(store: Store, plan: ReadPlan, made: Adopted, project: Project, name: str, data: bytes) -> PutModelBody:
    """The edit that shows what of a model was not taken over, where its lowest storey has come to lie."""
    first = min(made.placed)
    up = opened(project).building.levels[made.level].z - plan.base - plan.storeys[first].above
    return PutModelBody(
        body=ModelBody(
            id=new_id("body", "body"),
            name=PurePath(name).stem.strip()[:120] or "model",
            file=store.put_file(data),
            x=made.laid.dx,
            y=made.laid.dy,
            z=up,
            turn=made.laid.turn,
            without=tuple(sorted(made.model_parts)),
        )
    )


_bodies: LruCache[tuple[str, tuple[str, ...]], tuple[NDArray[np.float64], list[int]]] = LruCache(size=4)


def bodies_beside(store: Store, project: Project) -> list[dict[str, Any]]:
    """The grey bodies of a project as groups of triangles for the solid view; a file that is gone has none."""
    groups = []
    for held in project.model_bodies:
        if not held.shown:
            continue
        known = _bodies.get((held.file, held.without))
        if known is None:
            try:
                rest = rest_in(store.file(held.file), held.without)
            except DeepSectionError:
                continue
            known = rest[0], rest[1].ravel().tolist()
            _bodies.put((held.file, held.without), known)
        points, triangles = known
        turn = Motion(turn=held.turn)
        turned = points @ np.array([(*turn.along(1.0, 0.0), 0.0), (*turn.along(0.0, 1.0), 0.0), (0.0, 0.0, 1.0)])
        moved = np.add(turned, (held.x, held.y, held.z)).round(1).ravel().tolist()
        groups.append(
            {"element": held.id, "role": "background", "material": "", "points": moved, "triangles": triangles}
        )
    return groups


def _laid(
    store: Store,
    data: bytes,
    about: About,
    view: str,
    name: str,
    scale: float,
    at: tuple[float, float],
    turn: float = 0.0,
) -> PutBackground:
    """The edit that lays the first page of a file, which is kept, at a scale with its lower left corner at a place, and
    turned about it."""
    laid = Background(
        id=new_id("background", "background"),
        name=PurePath(name).stem.strip()[:120] or "background",
        view=view,
        file=store.put_file(data),
        pages=tuple(PageSize(width=width, height=height) for width, height in about.pages),
        counts=about.counts,
        x=at[0],
        y=at[1],
        scale=scale,
        turn=math.remainder(turn, 360.0),
    )
    return PutBackground(background=laid)


def _middle(project: Project, view: str, plan: bool) -> tuple[float, float]:
    """The middle of what a view shows, where a background counts: in a plan east and north, else along and up (mm)."""
    drawing, _ = drawn(opened(project), view, project.scale)
    if not drawing.marks:
        return 0.0, 0.0
    u0, v0, u1, v1 = drawing.bounds
    middle = (u0 + u1) / 2, (v0 + v1) / 2
    return Frame.looking(look_of(project, view)).turned_to_plan(*middle) if plan else middle


def with_pictures(store: Store, sheet: SheetDrawing) -> SheetDrawing:
    """A sheet with what lies under its views; of a file that is not here, or broken, its edge says so."""
    if not sheet.pages:
        return sheet
    sizes = {(held.file, held.page): held.box for view in sheet.placed for held in view.drawing.backdrops}
    return replace(sheet, pictures=tuple((page, _picture(store, page, sizes[page])) for page in sorted(sheet.pages)))


def _picture(store: Store, page: tuple[str, int], box: tuple[float, float, float, float]) -> Picture:
    try:
        return page_of(store, *page)
    except DeepSectionError:
        x0, y0, x1, y1 = box
        ring = ((x0, y0, 0.0), (x1, y0, 0.0), (x1, y1, 0.0), (x0, y1, 0.0), (x0, y0, 0.0))
        cross = ((x0, y0, 0.0), (x1, y1, 0.0)), ((x0, y1, 0.0), (x1, y0, 0.0))
        words = PictureWords(
            "this background is not here", (x0 + x1) / 2, (y0 + y1) / 2, max((y1 - y0) / 30, (x1 - x0) / 40), 0.0
        )
        return Picture(x1, y1, (ring, *cross), words=(words,))
