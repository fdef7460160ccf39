"""The application: routes under /api, the front end at the root. Stateless but for its database."""

from __future__ import annotations

import os
from collections.abc import Iterable
from contextlib import asynccontextmanager
from pathlib import Path
from typing import Any

from fastapi import FastAPI, Request
from fastapi.responses import FileResponse
from fastapi.staticfiles import StaticFiles
from sqlalchemy import Engine
from starlette.exceptions import HTTPException
from starlette.middleware.gzip import GZipMiddleware
from starlette.responses import Response

from deepsection.core.memo import tune_memory
from deepsection.core.version import VERSION
from deepsection.demo import DEMOS

from . import problems
from .background_routes import router as background_routes
from .database import open_database
from .detail_routes import router as detail_routes
from .files import router as files
from .guard import HEADERS, fault_of, known_names
from .routes import router
from .store import Store
from .workers import POOL, usual_count

LARGEST_BODY = 6 * 1024 * 1024
"""Largest request body in bytes."""
LARGEST_FILE = 60 * 1024 * 1024
"""Largest file that is brought in, in bytes."""
BRINGS_FILES = ("/plan", "/plan/look", "/backgrounds", "/import")
"""Ends of the addresses that files are brought to."""
WEB = Path(__file__).resolve().parents[2] / "web" / "dist"


def default_database() -> str:
    """The SQLAlchemy URL to use: DEEPSECTION_DATABASE, or a file under the working directory."""
    return os.environ.get("DEEPSECTION_DATABASE", f"sqlite:///{Path.cwd() / '.data' / 'deepsection.db'}")


def _file_of(path: str) -> Path | None:
    """A file of the front end; None for what is none, or no path at all."""
    try:
        wanted = (WEB / path).resolve()
        return wanted if path and wanted.is_file() and WEB in wanted.parents else None
    except (ValueError, OSError):
        return None


def load_demos(store: Store) -> None:
    """Add the demo projects that are not there yet."""
    held = {item.id for item in store.list()}
    for make in DEMOS:
        project = make()
        if project.id not in held:
            store.create(project, "open the demo")


def create_app(database: str | None = None, *, demos: bool = False, hosts: Iterable[str] = ()) -> FastAPI:
    """The application on a database; with `demos`, the demo projects are added when missing.

    `hosts`: more names that the service is known by, beside those of this machine.
    """
    names = known_names(hosts)

    @asynccontextmanager
    async def lifespan(app: FastAPI) -> Any:
        engine: Engine = open_database(database or default_database())
        app.state.store = Store(engine)
        if demos:
            load_demos(app.state.store)
        tune_memory()
        POOL.open(usual_count())
        yield
        POOL.close()
        engine.dispose()

    app = FastAPI(
        title="Deep Section",
        version=VERSION,
        lifespan=lifespan,
        docs_url=None,
        redoc_url=None,
        openapi_url="/api/openapi.json",
    )
    problems.install(app)

    @app.middleware("http")
    async def guard(request: Request, call_next: Any) -> Response:
        if fault := fault_of(request, names):
            return problems.problem(403, "not from here", fault)
        length = request.headers.get("content-length", "0")
        chunked = "chunked" in request.headers.get("transfer-encoding", "")
        largest = LARGEST_FILE if request.url.path.endswith(BRINGS_FILES) else LARGEST_BODY
        if chunked or not length.isdigit() or int(length) > largest:
            return problems.problem(
                413, "too large", f"this is larger than {largest // 1024 // 1024} MB or of unknown size"
            )
        response: Response = await call_next(request)
        response.headers.update(HEADERS)
        return response

    app.add_middleware(GZipMiddleware, minimum_size=2000, compresslevel=1)
    for part in (router, detail_routes, background_routes, files):
        app.include_router(part, prefix="/api")
    if WEB.is_dir():
        app.mount("/assets", StaticFiles(directory=WEB / "assets"), name="assets")

        @app.get("/{path:path}", include_in_schema=False)
        async def page(path: str) -> FileResponse:
            if path.startswith("api/"):
                raise HTTPException(404, "there is no such address")
            return FileResponse(_file_of(path) or WEB / "index.html")

    return app
