"""Errors as problem details: the one place where branches of the error tree meet HTTP."""

from __future__ import annotations

import logging
from typing import Any

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from starlette.exceptions import HTTPException

from deepsection.core.document.faults import told
from deepsection.core.errors import (
    BadInput,
    DeepSectionError,
    GeometryError,
    StaleVersion,
    UnknownElement,
    UnknownVersion,
)

from .guard import HEADERS
from .schemas import Problem

log = logging.getLogger("deepsection")

_STATUS: tuple[tuple[type[DeepSectionError], int, str], ...] = (
    (StaleVersion, 409, "changed elsewhere"),
    (UnknownElement, 404, "not found"),
    (UnknownVersion, 422, "unknown version"),
    (GeometryError, 422, "cannot be built"),
    (BadInput, 422, "cannot be taken"),
    (DeepSectionError, 400, "not possible"),
)


def problem(status: int, title: str, detail: str, **place: Any) -> JSONResponse:
    """A problem-details response."""
    body = Problem(type="about:blank", title=title, status=status, detail=detail, **place)
    return JSONResponse(body.model_dump(exclude_none=True), status, HEADERS, media_type="application/problem+json")


def install(app: FastAPI) -> None:
    """Teach the application to answer every error as problem details, without a stack trace."""

    @app.exception_handler(DeepSectionError)
    async def _ours(_: Request, error: DeepSectionError) -> JSONResponse:
        status, title = next((status, title) for kind, status, title in _STATUS if isinstance(error, kind))
        return problem(
            status, title, error.message, element=error.element, field=error.field, value=error.value, limit=error.limit
        )

    @app.exception_handler(RequestValidationError)
    async def _shape(_: Request, error: RequestValidationError) -> JSONResponse:
        message, path = told(error.errors())
        return problem(422, "cannot be taken", message, field=path or None)

    @app.exception_handler(HTTPException)
    async def _http(_: Request, error: HTTPException) -> JSONResponse:
        return problem(
            error.status_code, "not found" if error.status_code == 404 else "not possible", str(error.detail)
        )

    @app.exception_handler(Exception)
    async def _rest(_: Request, error: Exception) -> JSONResponse:
        log.exception("unexpected error", exc_info=error)
        return problem(500, "went wrong", "something went wrong here; nothing was changed, and the fault was noted")
