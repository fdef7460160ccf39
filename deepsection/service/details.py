"""What the service works out of junctions: their groups, how they are built, their details."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from deepsection.core.buildups import Wanted, set_build_ups
from deepsection.core.document.rebuilding import get_element
from deepsection.core.edits import PutDetail, PutSheet
from deepsection.core.errors import RefusedEdit, UnknownElement
from deepsection.core.model import Detail, Project
from deepsection.core.sheets import detail_sheets
from deepsection.core.view import opened
from deepsection.core.view.details.making import GroupState, group_states, missing_details
from deepsection.core.view.lines import ViewLines, junction_lines, view_lines

from .detail_schemas import BuiltOut
from .junctions import built_out
from .work import in_turn


@in_turn
def junction_groups(project: Project) -> list[GroupState]:
    """The junctions of a project, in groups of those that are built alike, each with its details."""
    held = opened(project)
    return group_states(held.project, held.building)


@in_turn
def built_at(project: Project, detail: str) -> BuiltOut:
    """How the junction of a detail is built. Raises: UnknownElement where nothing is known to be built there."""
    held = opened(project)
    junction = get_element(held.project, detail, Detail).junction
    for state in group_states(held.project, held.building):
        found = next((one for one in state.group.junctions if one.id == junction), None)
        if found is not None and state.built is not None:
            alike = [one.id for one in state.group.junctions]
            lines = junction_lines(held.building, found)
            return built_out(found, state.built, lines, alike, held.project.units)
    raise UnknownElement(f"nothing is known to be built at “{junction}”", field="junction", value=junction)


@in_turn
def building_up(project: Project, kind: str, junctions: Sequence[str] | None, wanted: Wanted) -> list[Any]:
    """The edits that change a build-up. Raises: BadInput, UnknownElement."""
    held = opened(project)
    return set_build_ups(held.project, held.building, kind, junctions, wanted)


@in_turn
def lines_of(project: Project, view: str) -> ViewLines:
    """The lines of a detail or a wall section. Raises: BadInput."""
    held = opened(project)
    return view_lines(held.project, held.building, view)


@in_turn
def all_lines(project: Project) -> list[tuple[str, ViewLines]]:
    """The lines at each group of junctions that is built."""
    held = opened(project)
    found = []
    for state in group_states(held.project, held.building):
        longest = max(state.group.junctions, key=lambda one: (one.length, one.id))
        lines = junction_lines(held.building, longest) if state.built is not None else None
        if lines is not None:
            found.append((f"{state.group.about.one} {state.group.number}", lines))
    return found


@in_turn
def detailed(project: Project, keys: Sequence[str] | None) -> list[PutDetail]:
    """The edits that draw a detail of each group of junctions that has none. Raises: RefusedEdit where all have one."""
    held = opened(project)
    edits = [PutDetail(detail=one) for one in missing_details(held.project, held.building, keys)]
    if not edits:
        raise RefusedEdit("every kind of junction that can be drawn has its detail", field="details")
    return edits


@in_turn
def details_on_sheets(project: Project) -> list[PutSheet]:
    """The edits that lay details on sheets. Raises: RefusedEdit where all lie there."""
    held = opened(project)
    return detail_sheets(held.project, held.building)
