"""Views, sheets and heights of a project, and the engineer who answers to a plan."""

from __future__ import annotations

import sys
from pathlib import Path
from typing import Annotated, cast, get_args

import typer

from deepsection.core.edits import PutBackground, changed
from deepsection.core.errors import BadInput, UnknownElement
from deepsection.core.model import Project, Sheet
from deepsection.core.sheets import SheetDrawing
from deepsection.core.units import format_length
from deepsection.core.view import list_views
from deepsection.formats.writers import WRITERS, LayerNames, write_dxf
from deepsection.service.backgrounds import laid_under, with_pictures
from deepsection.service.store import Stored
from deepsection.service.work import answered, building_of, placing, sheet_of, view_sheet_of
from deepsection.standins.engineer import review

from .shared import app, err, keep, opened, out, read, told, write


@app.command()
def views(project: str) -> None:
    """List the views and sheets of a project."""
    with told():
        held = opened().load(project).project
        for view in list_views(held):
            typer.echo(f"{view.name}\t{view.title}")
        for sheet in held.sheets:
            typer.echo(f"sheet {sheet.number}\t{sheet.name}")


@app.command()
def draw(
    project: str,
    output: Annotated[
        Path | None, typer.Option("--output", "-o", help="File to write; its ending tells the format.")
    ] = None,
    view: Annotated[str | None, typer.Option(help="A view, as `views` lists it.")] = None,
    sheet: Annotated[str | None, typer.Option(help="A sheet, by its number.")] = None,
    format: Annotated[str | None, typer.Option(help="pdf, dxf, svg, png or json.")] = None,
    scale: Annotated[float | None, typer.Option(help="Scale denominator of a view: 48 is 1:48.")] = None,
    layers: Annotated[str, typer.Option(help="Layer names of a DXF: plain, iso13567 or ncs.")] = "plain",
) -> None:
    """Draw one view or one sheet to a file; json goes to standard output when no file is given."""
    with told():
        chosen = format or (output.suffix.lstrip(".").lower() if output else "json")
        if chosen not in WRITERS:
            raise BadInput(f"“{chosen}” is no format; give pdf, dxf, svg, png or json", field="format", value=chosen)
        if layers not in get_args(LayerNames):
            raise BadInput(f"“{layers}” names no layers; give plain, iso13567 or ncs", field="layers", value=layers)
        if (view is None) == (sheet is None):
            raise BadInput("give one of --view and --sheet", field="view")
        if output is None and chosen != "json":
            raise BadInput("give a file with --output", field="output")
        store = opened()
        stored = store.load(project)
        with err.status(f"Drawing {view or sheet}…"):
            drawn = with_pictures(store, _drawn(stored, view, sheet, scale))
            named = cast(LayerNames, layers)
            data = write_dxf(drawn, named) if chosen == "dxf" else WRITERS[chosen](drawn)
        if output is None:
            sys.stdout.write(data.decode())
        else:
            write(output, data)


def _drawn(stored: Stored, view: str | None, sheet: str | None, scale: float | None) -> SheetDrawing:
    held = stored.project
    if view is not None:
        return view_sheet_of(held, view, scale)
    found = _sheet(held, sheet or "")
    drawn = sheet_of(held, found, stored.saved.date().isoformat())
    for _, message in drawn.messages:
        err.print(f"deepsection: {message}", markup=False)
    return drawn


def _sheet(held: Project, number: str) -> Sheet:
    found = next((item for item in held.sheets if item.number == number), None)
    if found is None:
        numbers = ", ".join(item.number for item in held.sheets) or "none"
        raise UnknownElement(f"there is no sheet {number}; there is {numbers}", field="sheet", value=number)
    return found


@app.command()
def place(
    project: str,
    view: Annotated[str, typer.Option(help="A view, as `views` lists it.")],
    scale: Annotated[float, typer.Option(help="Scale denominator: 48 is 1:48.")],
    sheet: Annotated[str, typer.Option(help="A sheet, by its number.")] = "A1",
) -> None:
    """Place a view on a sheet, where there is room for it."""
    with told():
        store = opened()
        stored = store.load(project)
        if not 1 <= scale <= 2000:
            raise BadInput(f"1:{scale:g} is no scale; give 1 to 2000", field="scale", value=scale)
        keep(store, stored, [placing(stored.project, _sheet(stored.project, sheet), view, scale)])


@app.command()
def heights(project: str) -> None:
    """Print every height with the sum that makes it."""
    with told():
        held = opened().load(project).project
        for height in building_of(held).sums.values():
            out.print(f"[bold]{height.label}[/bold]  {format_length(height.total, held.units)}")
            for term in height.terms:
                out.print(f"    {term.label:32} {format_length(term.value, held.units):>14}")


@app.command()
def background(
    project: str,
    file: Path,
    view: Annotated[str, typer.Option(help="A plan or an elevation, as `views` lists it.")] = "plan",
    printed: Annotated[bool, typer.Option("--printed", help="It is printed with the view, too.")] = False,
) -> None:
    """Lay a drawing or a picture (DXF, PDF, SVG, PNG, JPEG) under a view, and print its id."""
    with told():
        store = opened()
        stored = store.load(project)
        laid, about = laid_under(store, stored.project, view, file.stem, read(file))
        keep(store, stored, [PutBackground(background=changed(laid.background, printed=printed))])
        err.print(about.reason, markup=False)
        typer.echo(laid.background.id)


@app.command()
def engineer(
    project: str,
    view: Annotated[str, typer.Option(help="A structural plan, as `views` lists it.")],
    answer: Annotated[Path | None, typer.Option(help="An answer that came as a file; else the simulated one.")] = None,
) -> None:
    """Send a structural plan to the engineer, or take an answer to it; comments show until they are settled."""
    with told():
        store = opened()
        stored = store.load(project)
        text = None if answer is None else read(answer).decode(errors="replace")
        keep(store, stored, answered(stored.project, view, text))
        for held in store.load(project).project.comments:
            if held.view == view and held.status == "open":
                out.print(f"{held.by}: {held.text}", markup=False)


@app.command()
def review_plan(
    file: Annotated[Path, typer.Argument(help="A structural plan as DXF.")],
    output: Annotated[Path, typer.Option("--output", "-o", help="File to write.")],
) -> None:
    """What the simulated engineer answers to a structural plan in a file."""
    with told():
        try:
            reply = review(read(file))
        except ValueError as error:
            raise BadInput(f"the engineer could not read this plan: {error}", field="file", value=str(file)) from error
        write(output, reply)
