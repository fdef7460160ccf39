"""The command line: serve the application, load the demo, list views, draw one view or sheet."""

from __future__ import annotations

import os
import socket
from pathlib import Path
from typing import Annotated

import typer
import uvicorn
from rich.console import Console

from deepsection.core.errors import DeepSectionError
from deepsection.core.model import Project
from deepsection.core.units import format_length
from deepsection.core.view import list_views
from deepsection.formats import WRITERS
from deepsection.service.app import create_app, default_database, load_demos
from deepsection.service.database import open_database
from deepsection.service.store import Store
from deepsection.service.work import building_of, sheet_of, view_sheet_of

app = typer.Typer(
    help="Elevations, sections and sheets of houses, from the command line.", no_args_is_help=True, add_completion=False
)
out, err = Console(highlight=False), Console(stderr=True, highlight=False)


def _open() -> Store:
    store = Store(open_database(default_database()))
    load_demos(store)
    return store


@app.command()
def serve(
    host: Annotated[str, typer.Option(help="Address to listen on.")] = "127.0.0.1",
    port: Annotated[int, typer.Option(help="Port; the next free one is taken when it is in use.")] = 8420,
) -> None:
    """Serve the application with the demo projects, and print its address."""
    port = _free_port(host, port)
    out.print(f"Deep Section is ready at [bold]http://{host}:{port}/[/bold]  (stop it with Ctrl+C)")
    uvicorn.run(create_app(demos=True), host=host, port=port, log_level=os.environ.get("DEEPSECTION_LOG", "warning"))


def _free_port(host: str, port: int) -> int:
    for candidate in range(port, port + 50):
        with socket.socket() as probe:
            probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
            try:
                probe.bind((host, candidate))
            except OSError:
                continue
            return candidate
    return port


@app.command()
def projects() -> None:
    """List the projects."""
    for item in _open().list():
        out.print(f"{item.id}\t{item.name}\tversion {item.version}")


@app.command()
def views(project: str) -> None:
    """List the views of a project."""
    for view in list_views(_load(project)):
        out.print(f"{view.name}\t{view.title}")


def _load(id: str) -> Project:
    try:
        return _open().load(id).project
    except DeepSectionError as error:
        raise _failed(error) from error


def _failed(error: DeepSectionError) -> typer.Exit:
    err.print(f"deepsection: {error.message}")
    return typer.Exit(2)


@app.command()
def draw(
    project: str,
    output: Annotated[Path, typer.Option("--output", "-o", help="File to write.")],
    view: Annotated[str | None, typer.Option(help="A view, as `views` lists it.")] = None,
    sheet: Annotated[str | None, typer.Option(help="A sheet, by its number.")] = None,
    format: Annotated[str, typer.Option(help="pdf, dxf, svg, png or json.")] = "pdf",
    scale: Annotated[float | None, typer.Option(help="Scale denominator of a view: 48 is 1:48.")] = None,
) -> None:
    """Draw one view or one sheet to a file."""
    held = _load(project)
    if format not in WRITERS or (view is None) == (sheet is None):
        err.print("deepsection: give one of --view and --sheet, and a format of pdf, dxf, svg, png, json")
        raise typer.Exit(2)
    try:
        if view is not None:
            drawn = view_sheet_of(held, view, scale)
        else:
            found = next((item for item in held.sheets if item.number == sheet), None)
            if found is None:
                err.print(f"deepsection: there is no sheet {sheet}")
                raise typer.Exit(2)
            drawn = sheet_of(held, found, "")
    except DeepSectionError as error:
        raise _failed(error) from error
    output.write_bytes(WRITERS[format](drawn))


@app.command()
def heights(project: str) -> None:
    """Print every height with the sum that makes it."""
    held = _load(project)
    for height in building_of(held).sums.values():
        out.print(f"[bold]{height.label}[/bold]  {format_length(height.total, held.units)}")
        for term in height.terms:
            out.print(f"    {term.label:32} {format_length(term.value, held.units):>14}")


if __name__ == "__main__":
    app()
