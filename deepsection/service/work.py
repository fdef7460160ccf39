"""What the routes and the command line share: buildings, refusals, benches."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from functools import lru_cache, wraps
from threading import RLock
from typing import Any, ParamSpec, TypeVar

from deepsection.core.drawing import explode
from deepsection.core.errors import RefusedEdit
from deepsection.core.model import PlacedView, Project, Sheet, apply_edits, changed
from deepsection.core.model.edits import PutSheet
from deepsection.core.particulars import Particulars, describe_element, ladder
from deepsection.core.particulars.describe import sum_table
from deepsection.core.particulars.own_heights import own_heights
from deepsection.core.resolve import Building, resolve, storeys
from deepsection.core.sheets import SheetDrawing, compose, compose_view, free_place, paper
from deepsection.core.view import (
    ComparedRow,
    compare_heights,
    draw_view,
    list_views,
    look_of,
    plan_level,
    plan_name,
    plan_snaps,
    slope_triangles,
    standing_name,
)

from .schemas import ViewWanted

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
@lru_cache(maxsize=16)
def building_of(project: Project) -> Building:
    """The building of a project; a cache and nothing more, since every stage is a pure function."""
    return resolve(project)


@in_turn
def checked_edits(project: Project, edits: Sequence[Any]) -> Project:
    """The project after edits. Raises: RefusedEdit when they add a blocking diagnostic, which is named."""
    changed = apply_edits(project, edits)
    before = {found.identity for found in building_of(project).diagnostics}
    for found in building_of(changed).diagnostics:
        if found.severity == "blocking" and found.identity not in before:
            raise RefusedEdit(
                found.message, element=found.element, field=found.field, value=found.value, limit=found.limit
            )
    return changed


@in_turn
def bench_of(project: Project, version: int, views: Sequence[ViewWanted], *, sequence: int = 0) -> dict[str, Any]:
    """Drawings and what goes with them, ready to serialise as `Bench`."""
    building = building_of(project)
    drawings = [
        explode(draw_view(building, project, view.name, view.scale or project.scale, look_deg=view.look_deg))
        for view in views
    ]
    plan = next((view for view in views if view.name.partition(":")[0] == "plan"), ViewWanted(name="plan"))
    look = plan.look_deg if plan.look_deg is not None else look_of(project, plan.name)
    return {
        "version": version,
        "sequence": sequence,
        "drawings": drawings,
        "snaps": plan_snaps(building, project, plan_level(project, plan.name), look),
        "ladder": ladder(project, building),
        "sums": [sum_table(project, building, height) for height in building.sums.values()],
        "own_heights": own_heights(project, building),
        "triangles": slope_triangles(building, look, project.units),
        "findings": [
            {"code": f.code, "message": f.message, "severity": f.severity, "element": f.element, "field": f.field}
            for f in building.diagnostics
        ],
    }


@in_turn
def compared(project: Project, one: str, other: str) -> list[ComparedRow]:
    """The heights of two views beside each other. Raises: UnknownElement."""
    building = building_of(project)
    first, second = (draw_view(building, project, name, project.scale) for name in (one, other))
    return compare_heights(first, second, project.units)


def standing(project: Project, views: Sequence[ViewWanted]) -> list[ViewWanted]:
    """The views that were asked for, with those that a change took away replaced by plain ones."""
    return [view.model_copy(update={"name": standing_name(project, view.name)}) for view in views]


def storey_items(project: Project) -> list[dict[str, Any]]:
    """The storeys of a project, low ones first, with the names of their plans."""
    return [
        {"level": held.level, "name": held.name, "plate": held.plate, "plan": plan_name(project, held.level)}
        for held in storeys(project)
    ]


def view_items(project: Project) -> list[dict[str, Any]]:
    """The views of a project with their look directions."""
    return [
        {"name": view.name, "title": view.title, "look_deg": math.fmod(look_of(project, view.name) + 360.0, 360.0)}
        for view in list_views(project)
    ]


@in_turn
def solids_of(project: Project, version: int) -> dict[str, Any]:
    """The parts that may be seen from outside as triangles, ready to serialise as `Solids`."""
    groups: dict[tuple[str, str, str], tuple[list[float], list[int]]] = {}
    for part in building_of(project).parts:
        if not part.outside or part.solid.is_empty:
            continue
        points, triangles = part.solid.mesh()
        held, corners = groups.setdefault((part.element, part.role, part.material), ([], []))
        first = len(held) // 3
        held += points.round(1).ravel().tolist()
        corners += (triangles + first).ravel().tolist()
    return {
        "version": version,
        "grade": building_of(project).ground.grade,
        "groups": [
            {"element": element, "role": role, "material": material, "points": held, "triangles": corners}
            for (element, role, material), (held, corners) in groups.items()
        ],
    }


@in_turn
def particulars_of(project: Project, element: str) -> Particulars:
    """The particulars of an element. Raises: UnknownElement."""
    return describe_element(project, building_of(project), element)


@in_turn
def sheet_of(project: Project, sheet: Sheet, date: str) -> SheetDrawing:
    """A sheet, composed."""
    return compose(project, building_of(project), sheet, date=date)


@in_turn
def view_sheet_of(project: Project, view: str, scale: float | None) -> SheetDrawing:
    """One view alone on paper of its size. Raises: UnknownElement."""
    return compose_view(project, building_of(project), view, scale or project.scale)


@in_turn
def placing(project: Project, sheet: Sheet, view: str, scale: float) -> PutSheet:
    """The edit that places a view on a sheet where there is room. Raises: UnknownElement."""
    taken = {held.id for other in project.sheets for held in other.placed}
    id = next(f"view-{number}" for number in range(1, len(taken) + 2) if f"view-{number}" not in taken)
    size = paper(sheet.paper)
    held = PlacedView(id=id, view=view, scale=scale, x=size.width / 2, y=size.height / 2)
    placed = free_place(project, building_of(project), sheet, held)
    return PutSheet(sheet=changed(sheet, placed=(*sheet.placed, placed)))
