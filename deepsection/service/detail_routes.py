"""Routes of junctions, of how they are built, and of their details."""

from __future__ import annotations

from typing import Any

from fastapi import APIRouter
from starlette.responses import Response

from deepsection.core.buildups import Wanted

from .asking import ERRORS, Projects
from .detail_schemas import BuildUpIn, BuiltOut, DetailsIn, JunctionGroupOut
from .details import building_up, built_at, detailed, details_on_sheets, junction_groups
from .junctions import group_out
from .keeping import at_base, keep
from .schemas import Result, StepIn

router = APIRouter(responses=ERRORS)


@router.get("/projects/{id}/junctions", response_model=list[JunctionGroupOut], operation_id="get_junctions")
def get_junctions(id: str, store: Projects) -> Any:
    """Where parts of the house meet, in groups of those that are built alike, each with its details."""
    project = store.load(id).project
    return [group_out(state, project.units) for state in junction_groups(project)]


@router.get("/projects/{id}/built", response_model=BuiltOut, operation_id="get_built")
def get_built(id: str, detail: str, store: Projects) -> Any:
    """How the junction of a detail is built: its build-up, parameters, pieces, lines, and what rules say."""
    return built_at(store.load(id).project, detail)


@router.post("/projects/{id}/built", response_model=Result, operation_id="set_built")
def set_built(id: str, sent: BuildUpIn, store: Projects) -> Response:
    """Another build-up, a parameter, or a piece at junctions or at all of a kind, kept as one version."""
    stored = at_base(store, id, sent.base_version)
    wanted = Wanted(
        build_up=None if sent.usual else sent.build_up,
        parameter=sent.parameter,
        text=sent.text,
        piece=sent.piece,
        on=sent.on,
    )
    edits = building_up(stored.project, sent.kind, sent.junctions, wanted)
    return keep(store, stored, edits, sent.views, "change a build-up" if len(edits) > 1 else None)


@router.post("/projects/{id}/details", response_model=Result, operation_id="draw_details")
def draw_details(id: str, sent: DetailsIn, store: Projects) -> Response:
    """A detail of each group of junctions that has none, kept as one version."""
    stored = at_base(store, id, sent.base_version)
    edits = detailed(stored.project, sent.keys)
    words = "draw the details of this house" if len(edits) > 1 else None
    return keep(store, stored, edits, sent.views, words)


@router.post("/projects/{id}/detail-sheets", response_model=Result, operation_id="lay_out_details")
def lay_out_details(id: str, sent: StepIn, store: Projects) -> Response:
    """Details that are on no sheet laid on new ones, kept as one version."""
    stored = at_base(store, id, sent.base_version)
    return keep(store, stored, details_on_sheets(stored.project), sent.views, "lay details on sheets")
