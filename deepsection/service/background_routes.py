"""Routes of files that lie under views."""

from __future__ import annotations

import dataclasses
from typing import Annotated, Any

import orjson
from fastapi import APIRouter, Path, Query, Request
from starlette.concurrency import run_in_threadpool
from starlette.responses import Response

from deepsection.core.edits import EDITS, describe
from deepsection.core.errors import UnknownElement

from .asking import ERRORS, Projects
from .backgrounds import BackgroundOut, PageOut, laid_under, page_of
from .keeping import as_json, at_base, state_of
from .schemas import Version
from .work import checked_edits, in_turn

router = APIRouter(responses=ERRORS)

Digest = Annotated[str, Path(pattern="^[0-9a-f]{64}$")]
Page = Annotated[int, Path(ge=0, le=10_000)]
FOREVER = {"Cache-Control": "private, max-age=31536000, immutable"}
"""What is named by its content never changes."""


@router.post("/projects/{id}/backgrounds", response_model=BackgroundOut, operation_id="lay_background")
async def lay_background(
    id: str,
    request: Request,
    store: Projects,
    base_version: Version,
    view: Annotated[str, Query(min_length=1, max_length=80)],
    name: Annotated[str, Query(max_length=200)] = "background",
) -> Response:
    """A file (DXF, PDF, SVG, PNG, JPEG) laid under a plan or an elevation, kept as one version."""
    body = await request.body()

    def lay() -> Response:
        stored = at_base(store, id, base_version)
        edit, about = laid_under(store, stored.project, view, name, body)
        project = checked_edits(stored.project, [edit])
        text = EDITS.dump_json((edit,)).decode()
        saved = store.append(id, stored.version, project, describe([edit], stored.project), text)
        return as_json({"state": state_of(saved), "background": edit.background.id, "reason": about.reason})

    return await run_in_threadpool(lay)


@router.get("/files/{digest}/pages/{page}", response_model=PageOut, operation_id="get_page")
def get_page(digest: Digest, page: Page, store: Projects) -> Response:
    """What a page of a file shows: its lines, areas and words, and whether there is an image of it."""
    shown = in_turn(page_of)(store, digest, page)
    held: dict[str, Any] = {field.name: getattr(shown, field.name) for field in dataclasses.fields(shown)}
    body = orjson.dumps(held | {"image": shown.image is not None})
    return Response(body, media_type="application/json", headers=FOREVER)


@router.get("/files/{digest}/pages/{page}/image", operation_id="get_page_image")
def get_page_image(digest: Digest, page: Page, store: Projects) -> Response:
    """A page of a file as an image. 404 for one that is drawn by its lines."""
    shown = in_turn(page_of)(store, digest, page)
    if shown.image is None:
        raise UnknownElement("this page is drawn by its lines", field="page", value=page)
    return Response(shown.image, media_type="image/png", headers=FOREVER)
