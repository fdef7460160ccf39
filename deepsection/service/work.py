"""What the routes and the command line share: buildings, refusals, benches."""

from __future__ import annotations

import logging
import math
from collections.abc import Callable, Iterator, Sequence
from contextlib import contextmanager
from functools import lru_cache, wraps
from threading import RLock
from typing import Any, ParamSpec, TypeVar

from deepsection.core.edits import PutNote, PutSheet, apply_edits, changed
from deepsection.core.errors import BadInput, DeepSectionError, RefusedEdit
from deepsection.core.model import Note, PlacedView, Project, Sheet
from deepsection.core.model.places import refuse_giants
from deepsection.core.particulars import Particulars, describe_element
from deepsection.core.resolve import Building, keeping_places, storeys
from deepsection.core.sheets import (
    SheetDrawing,
    aligned,
    compose,
    compose_picture,
    compose_view,
    free_place,
    free_view_ids,
    paper,
    usual_set,
)
from deepsection.core.view import (
    ComparedRow,
    anchor_in,
    built,
    compare_heights,
    draw_view,
    figure_edits,
    lies_over_files,
    list_views,
    look_of,
    opened,
    opening_table,
    plan_name,
    standing_name,
    without_faults,
)
from deepsection.core.view.strips.proposals import Proposal, usual_places
from deepsection.formats.plan_comments import read_answer
from deepsection.formats.writers import write_dxf, write_png
from deepsection.standins.engineer import review

from .schemas import FigureIn, NoteIn, ViewWanted
from .workers import POOL

log = logging.getLogger("deepsection")

P = ParamSpec("P")
T = TypeVar("T")

geometry = RLock()
"""Held while geometry is worked out: solids and prepared polygons evaluate on demand and are shared by
cached stages, and the engines beneath do not allow that from two threads at once."""


def in_turn(function: Callable[P, T]) -> Callable[P, T]:
    """The function, run under the geometry lock."""

    @wraps(function)
    def run(*args: P.args, **kwargs: P.kwargs) -> T:
        with geometry:
            return function(*args, **kwargs)

    return run


@in_turn
def building_of(project: Project) -> Building:
    """The building of a project, as far as it can be built; remembered, since every stage is a pure function."""
    return opened(project).building


@in_turn
def checked_edits(project: Project, edits: Sequence[Any]) -> Project:
    """The project after edits. Raises: RefusedEdit when they add a blocking finding, which is named."""
    before = opened(project)
    with refusing(edits):
        changed = apply_edits(project, edits)
        refuse_giants(changed)
        POOL.follow(changed)
        if not before.left_out:
            built(changed)
    known = {found.identity for found in before.faults}
    for found in opened(changed).faults:
        if found.severity == "blocking" and found.identity not in known:
            raise RefusedEdit(
                found.message, element=found.element, field=found.field, value=found.value, limit=found.limit
            )
    return changed


@in_turn
def remembering(before: Project, after: Project) -> Project:
    """A changed project whose notes remember where they were, those that the change bereft of their place."""
    return keeping_places(building_of(before), building_of(after), after) if after.notes else after


def place_of(edits: Sequence[Any]) -> tuple[str | None, list[str]]:
    """The element that edits speak of, and their largest numbers: where to look for what cannot be computed."""
    element, numbers = None, []
    for edit in edits:
        for name, value in edit:
            held = getattr(value, "id", value)
            if element is None and name != "kind" and isinstance(held, str):
                element = held
            fields = value if hasattr(value, "model_fields_set") else [(name, value)]
            for field, number in fields:
                if isinstance(number, float) and (abs(number) > 1e4 or 0 < abs(number) < 0.1):
                    numbers.append(f"{field.replace('_', ' ')} {number:g}")
    return element, numbers[:3]


@contextmanager
def refusing(edits: Sequence[Any]) -> Iterator[None]:
    """Whatever cannot be computed within is a refusal of these edits, never an error of the service."""
    try:
        yield
    except DeepSectionError:
        raise
    except Exception as error:
        log.exception("refused: %s cannot be computed", [edit.kind for edit in edits])
        element, numbers = place_of(edits)
        told = f" ({', '.join(numbers)})" if numbers else ""
        message = f"the house cannot be built with this{told}, so nothing was changed; try a more usual size or place"
        raise RefusedEdit(message, element=element) from error


@in_turn
def prove_parts(base: Project, project: Project, edits: Sequence[Any]) -> None:
    """Make every part of what edits make of a project, before it is kept.

    Raises: RefusedEdit where that fails, unless it failed before.
    """
    try:
        with refusing(edits):
            building_of(project).parts  # noqa: B018
    except RefusedEdit:
        try:
            building_of(base).parts  # noqa: B018
        except Exception:
            return
        raise


@in_turn
def draws_whole(project: Project) -> bool:
    """Whether everything of a project can be built and every view of it drawn."""
    try:
        building = built(project)
        for view in list_views(project):
            draw_view(building, project, view.name, project.scale)
    except Exception:
        return False
    return True


@in_turn
def compared(project: Project, one: str, other: str) -> list[ComparedRow]:
    """The heights of two views beside each other. Raises: UnknownElement."""
    building = building_of(project)
    first, second = (draw_view(building, project, name, project.scale) for name in (one, other))
    return compare_heights(first, second, project.units)


def standing(project: Project, views: Sequence[ViewWanted]) -> list[ViewWanted]:
    """The views that were asked for, with those that a change took away replaced by plain ones."""
    named = [(view, standing_name(project, view.name)) for view in views]
    return [v if v.name == name else v.model_copy(update={"name": name, "have": None}) for v, name in named]


def storey_items(project: Project) -> list[dict[str, Any]]:
    """The storeys of a project, low ones first, with the names of their plans."""
    return [
        {"level": held.level, "name": held.name, "plate": held.plate, "plan": plan_name(project, held.level)}
        for held in storeys(project)
    ]


@lru_cache(maxsize=16)
def element_items(project: Project) -> list[dict[str, Any]]:
    """Every element with its name and what may be done with it; what may not is left out."""
    items = []
    for collection in project.collections:
        for element in getattr(project, collection):
            about = element.about
            can = {"movable": about.movable, "removable": about.removable, "hideable": about.group is not None}
            item = {"id": element.id, "name": element.title_in(project), "kind": collection}
            if getattr(element, "state", "new") != "new":
                item["state"] = element.state
            items.append(item | {name: True for name, value in can.items() if value})
    return items


def view_items(project: Project) -> list[dict[str, Any]]:
    """The views of a project with their look directions."""
    return [
        {
            "name": view.name,
            "title": view.title,
            "look_deg": math.fmod(look_of(project, view.name) + 360.0, 360.0),
            "over_files": lies_over_files(project, view.name),
        }
        for view in list_views(project)
    ]


Triangles = dict[tuple[str, str, str], tuple[list[float], list[int]]]
"""Points and triangles by element, role and material."""


def _triangles(building: Building) -> Triangles:
    """What may be seen from outside, as triangles."""
    groups: Triangles = {}
    for part in building.parts:
        if not part.outside or part.solid.is_empty:
            continue
        points, triangles = part.solid.mesh()
        held, corners = groups.setdefault((part.element, part.role, part.material), ([], []))
        first = len(held) // 3
        held += points.round(1).ravel().tolist()
        corners += (triangles + first).ravel().tolist()
    return groups


@in_turn
def solids_of(project: Project, version: int) -> dict[str, Any]:
    """The parts that may be seen from outside as triangles, ready to serialise as `Solids`."""
    held = opened(project)
    try:
        building, groups = held.building, _triangles(held.building)
    except Exception:
        log.exception("the solid view of %s is not whole", project.id)
        rest = without_faults(held.project, lambda candidate: _triangles(built(candidate))) or held.project
        building = built(rest)
        groups = _triangles(building) if rest is not held.project else {}
    return {
        "version": version,
        "grade": building.ground.grade,
        "groups": [
            {"element": element, "role": role, "material": material, "points": held, "triangles": corners}
            for (element, role, material), (held, corners) in groups.items()
        ],
    }


@in_turn
def particulars_of(project: Project, element: str) -> Particulars:
    """The particulars of an element. Raises: UnknownElement."""
    held = opened(project)
    return describe_element(project, held.building, element, held.findings)


@in_turn
def sheet_of(project: Project, sheet: Sheet, date: str) -> SheetDrawing:
    """A sheet, composed; what cannot be drawn is left out and named."""
    held = opened(project)
    return compose(held.project, held.building, sheet, date=date)


@in_turn
def view_sheet_of(project: Project, view: str, scale: float | None) -> SheetDrawing:
    """One view alone on paper of its size. Raises: UnknownElement."""
    held = opened(project)
    return compose_view(held.project, held.building, view, scale or project.scale)


@in_turn
def answered(project: Project, view: str, answer: str | None) -> list[Any]:
    """The edits that take an engineer's answer to a structural plan: one that came as a file, or that of the simulated
    engineer, who is sent the plan. Raises: BadInput, UnknownElement."""
    look = look_of(project, view)
    if not view.startswith("plan:structure:"):
        raise BadInput("an engineer is sent the structural plan of a floor", field="view", value=view)
    if answer is not None:
        return [read_answer(answer.encode(), view, look)]
    held = opened(project)
    try:
        reply = review(write_dxf(compose_view(held.project, held.building, view, project.scale)))
    except ValueError as error:
        raise BadInput(f"the engineer could not read this plan: {error}", field="view", value=view) from error
    return [read_answer(reply, view, look)]


@in_turn
def figured(project: Project, sent: FigureIn) -> list[Any]:
    """The edits that make what a figure measures as long as was typed.

    Raises: BadInput, RefusedEdit, UnknownElement.
    """
    return [*figure_edits(project, sent.view, sent.key, sent.text, sent.scale, sent.look_deg)]


@in_turn
def noting(project: Project, sent: NoteIn) -> PutNote:
    """The edit that ties a note to what lies at a place of a view: a new one, or one that is there anew.

    Raises: UnknownElement, RefusedEdit, BadInput.
    """
    held = next((note for note in project.notes if note.id == sent.id), None)
    anchor = anchor_in(building_of(project), project, sent.view, sent.of, sent.u, sent.v, sent.look_deg)
    if held is not None:
        return PutNote(note=changed(held, view=sent.view, anchor=anchor, text=sent.text or held.text, last=None))
    if not sent.text.strip():
        raise BadInput("a note needs words", field="text")
    return PutNote(note=Note(id=sent.id, view=sent.view, text=sent.text, anchor=anchor))


@in_turn
@lru_cache(maxsize=64)
def picture_of(project: Project) -> bytes:
    """A small picture of a house from its south, as PNG."""
    held = opened(project)
    return write_png(compose_picture(held.project, held.building, "elevation:south"), dpi=120)


@in_turn
def schedule_of(project: Project) -> tuple[tuple[str, ...], list[tuple[str | int, ...]]]:
    """(heads, rows) of the schedule of windows and doors; how many there are as numbers."""
    return opening_table(building_of(project))


@in_turn
def laid_out(project: Project) -> list[Any]:
    """The edits that lay out the usual set of sheets. Raises: RefusedEdit."""
    held = opened(project)
    return usual_set(held.project, held.building)


@in_turn
def aligning(project: Project, sheet: Sheet) -> PutSheet:
    """The edit that puts views of a sheet on common levels. Raises: RefusedEdit."""
    held = opened(project)
    return PutSheet(sheet=aligned(held.project, held.building, sheet))


@in_turn
def places_of(project: Project) -> list[Proposal]:
    """Wall sections that would be usual."""
    held = opened(project)
    return usual_places(held.project, held.building)


@in_turn
def placing(project: Project, sheet: Sheet, view: str, scale: float) -> PutSheet:
    """The edit that places a view on a sheet where there is room. Raises: UnknownElement."""
    id = next(free_view_ids(project))
    size = paper(sheet.paper)
    held = PlacedView(id=id, view=view, scale=scale, x=size.width / 2, y=size.height / 2)
    placed = free_place(project, building_of(project), sheet, held)
    return PutSheet(sheet=changed(sheet, placed=(*sheet.placed, placed)))
