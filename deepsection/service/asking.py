"""What all routes share: the store, the shape of refusals, sheets by their ids."""

from __future__ import annotations

from typing import Annotated, Any

from fastapi import Depends, Request

from deepsection.core.errors import UnknownElement
from deepsection.core.model import Project, Sheet
from deepsection.core.sheets import SheetDrawing

from .schemas import Problem
from .store import Store, Stored
from .work import sheet_of

ERRORS: dict[int | str, dict[str, Any]] = {code: {"model": Problem} for code in (404, 409, 413, 422)}


def _store(request: Request) -> Store:
    store: Store = request.app.state.store
    return store


Projects = Annotated[Store, Depends(_store)]


def sheet_called(project: Project, id: str) -> Sheet:
    """The sheet of an id. Raises: UnknownElement."""
    sheet = next((sheet for sheet in project.sheets if sheet.id == id), None)
    if sheet is None:
        raise UnknownElement(f"there is no sheet “{id}”", element=id)
    return sheet


def composed(stored: Stored, id: str) -> tuple[Sheet, SheetDrawing]:
    """A sheet, and what is drawn on it. Raises: UnknownElement."""
    sheet = sheet_called(stored.project, id)
    return sheet, sheet_of(stored.project, sheet, stored.saved.date().isoformat())
