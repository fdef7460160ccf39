"""What was done in a project: edits, and the way back and forth through its versions."""

from __future__ import annotations

import sys
from pathlib import Path
from typing import Annotated

import typer
from pydantic import ValidationError

from deepsection.core.document.faults import why_unreadable
from deepsection.core.edits import EDITS, refusal
from deepsection.core.errors import BadInput
from deepsection.service.work import draws_whole

from .shared import app, err, keep, opened, read, told


@app.command()
def history(project: str) -> None:
    """What was done in a project, the latest first."""
    with told():
        for point in opened().history(project):
            mark = f"\t[{point.mark}]" if point.mark else ""
            typer.echo(f"{point.version}\t{point.made:%Y-%m-%d %H:%M}\t{point.words}{mark}")


@app.command()
def edit(
    project: str,
    file: Annotated[Path, typer.Argument(help="Edits as JSON, a list; - reads standard input.")],
) -> None:
    """Change a project by edits in a file, all of them or none, as one step that can be undone."""
    with told():
        store, data = opened(), sys.stdin.buffer.read() if str(file) == "-" else read(file)
        if why := why_unreadable(data):
            raise BadInput(f"this file {why}", field="file")
        try:
            edits = EDITS.validate_json(data)
        except ValidationError as error:
            raise refusal(error) from error
        keep(store, store.load(project), list(edits))


@app.command()
def undo(project: str) -> None:
    """Take back what was done last, as a new version."""
    _step(project, back=True)


@app.command()
def redo(project: str) -> None:
    """Do again what was taken back last, as a new version."""
    _step(project, back=False)


def _step(project: str, *, back: bool) -> None:
    with told():
        store = opened()
        done = store.step(project, store.load(project).version, back)
        err.print(f"now at version {done.version}: {store.history(project)[0].words}", markup=False)


@app.command()
def goto(
    project: str,
    version: Annotated[
        int | None, typer.Argument(help="As `history` counts; the last that draws when left out.")
    ] = None,
) -> None:
    """Go back to any version, as a new one: nothing in between is lost."""
    with told():
        store = opened()
        base = store.load(project).version
        goal = store.last_sound(project, base, draws_whole) if version is None else version
        done = store.back(project, base, goal)
        err.print(f"now at version {done.version}: {store.history(project)[0].words}", markup=False)
