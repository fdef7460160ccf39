"""The routes of files: sheets, views and pictures as they print, the house as a model."""

from __future__ import annotations

import re
from typing import Annotated, Literal

from fastapi import APIRouter, Query
from starlette.responses import Response

from deepsection.core.view import SCHEDULE_TITLE
from deepsection.formats.tables import MEDIA, write_csv, write_xlsx
from deepsection.formats.writers import MEDIA_TYPES, WRITERS, LayerNames, write_dxf, write_ifc, write_png

from .asking import ERRORS, Projects, composed
from .backgrounds import with_pictures
from .work import building_of, picture_of, schedule_of, view_sheet_of

Format = Literal["pdf", "dxf", "svg", "png", "json"]
router = APIRouter(responses=ERRORS)


@router.get("/projects/{id}/picture", operation_id="project_picture")
def project_picture(id: str, store: Projects) -> Response:
    """A small picture of the house from its south, for the list of projects."""
    headers = {"Cache-Control": "private, max-age=3600"}
    return Response(picture_of(store.load(id).project), media_type="image/png", headers=headers)


@router.get("/projects/{id}/sheets/{sheet}/file", operation_id="sheet_file")
def sheet_file(id: str, sheet: str, format: Format, store: Projects, layers: LayerNames = "plain") -> Response:
    """A sheet as PDF, DXF, SVG, PNG or JSON; the layers of a DXF named by a standard."""
    stored = store.load(id)
    held, drawn = composed(stored, sheet)
    drawn = with_pictures(store, drawn)
    data = write_dxf(drawn, layers) if format == "dxf" else WRITERS[format](drawn)
    return download(data, MEDIA_TYPES[format], f"{stored.project.name} {held.number}.{format}")


@router.get("/projects/{id}/sheets/{sheet}/picture", operation_id="sheet_picture")
def sheet_picture(id: str, sheet: str, store: Projects, dpi: Annotated[float, Query(ge=36, le=400)] = 200) -> Response:
    """A sheet as it prints, for the screen."""
    _, drawn = composed(store.load(id), sheet)
    return Response(
        write_png(with_pictures(store, drawn), dpi=dpi),
        media_type="image/png",
        headers={"Cache-Control": "private, max-age=3600"},
    )


@router.get("/projects/{id}/model", operation_id="model_file")
def model_file(id: str, store: Projects) -> Response:
    """The building as a model in IFC 4."""
    project = store.load(id).project
    return download(write_ifc(project, building_of(project)), "application/x-step", f"{project.name}.ifc")


@router.get("/projects/{id}/views/{view}/file", operation_id="view_file")
def view_file(
    id: str, view: str, format: Format, store: Projects, scale: Annotated[float | None, Query(ge=1, le=2000)] = None
) -> Response:
    """One view as a file, on paper of its own size."""
    project = store.load(id).project
    drawn = with_pictures(store, view_sheet_of(project, view, scale))
    return download(WRITERS[format](drawn), MEDIA_TYPES[format], f"{project.name} {drawn.name}.{format}")


@router.get("/projects/{id}/schedules/openings/file", operation_id="opening_schedule_file")
def opening_schedule_file(id: str, format: Literal["csv", "xlsx"], store: Projects) -> Response:
    """The schedule of windows and doors as a table: a row for all that are made alike."""
    project = store.load(id).project
    heads, rows = schedule_of(project)
    data = write_xlsx(SCHEDULE_TITLE, heads, rows) if format == "xlsx" else write_csv(heads, rows)
    return download(data, MEDIA[format], f"{project.name} {SCHEDULE_TITLE.lower()}.{format}")


def download(data: bytes, media: str, name: str) -> Response:
    """A file to keep, under a name that every system takes."""
    safe = re.sub(r"[^A-Za-z0-9._ -]", "-", name)
    return Response(data, media_type=media, headers={"Content-Disposition": f'inline; filename="{safe}"'})
