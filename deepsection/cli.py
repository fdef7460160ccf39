"""The command line: the same work without a browser, through the functions that the service uses."""

from __future__ import annotations

import json
import os
import socket
import sys
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Annotated, Any, cast, get_args

import typer
import uvicorn
from pydantic import ValidationError
from rich.console import Console
from rich.progress import Progress

from deepsection.calc import calc
from deepsection.cli_tables import junction_rows, junction_table, line_rows, plan_tables, print_lines
from deepsection.core.document.faults import why_unreadable
from deepsection.core.edits import EDITS, describe, refusal
from deepsection.core.errors import BadInput, DeepSectionError, UnknownElement
from deepsection.core.model import Project, Sheet
from deepsection.core.sheets import SheetDrawing, unplaced_details
from deepsection.core.starters.projects import Ground
from deepsection.core.trades.makeups.model import Tradition
from deepsection.core.units import Units, format_length
from deepsection.core.view import list_views
from deepsection.formats.writers import WRITERS, LayerNames, write_dxf, write_ifc
from deepsection.service import projects
from deepsection.service.app import create_app, default_database, load_demos
from deepsection.service.backgrounds import with_pictures
from deepsection.service.database import open_database
from deepsection.service.details import all_lines, detailed, details_on_sheets, junction_groups, lines_of
from deepsection.service.plan_choices import plan_choices
from deepsection.service.plan_looks import plan_rows
from deepsection.service.plans import built_words, plan_in
from deepsection.service.store import Store, Stored
from deepsection.service.work import (
    answered,
    building_of,
    checked_edits,
    draws_whole,
    placing,
    prove_parts,
    sheet_of,
    view_sheet_of,
)
from deepsection.standins.engineer import review

app = typer.Typer(
    help="Elevations, sections and sheets of houses, from the command line.", no_args_is_help=True, add_completion=False
)
app.add_typer(calc, name="calc")
out, err = Console(highlight=False, soft_wrap=True), Console(stderr=True, highlight=False, soft_wrap=True)


def _open() -> Store:
    store = Store(open_database(default_database()))
    load_demos(store)
    return store


@app.command()
def serve(
    host: Annotated[str, typer.Option(help="Address to listen on.")] = "127.0.0.1",
    port: Annotated[int, typer.Option(help="Port; the next free one is taken when it is in use.")] = 8420,
) -> None:
    """Serve the application with the demo projects, and print its address.

    It answers to 127.0.0.1, localhost, the host given, and what DEEPSECTION_HOSTS names (with commas between).
    """
    port = _free_port(host, port)
    out.print(f"Deep Section is ready at [bold]http://{host}:{port}/[/bold]  (stop it with Ctrl+C)")
    uvicorn.run(
        create_app(demos=True, hosts=(host,)),
        host=host,
        port=port,
        log_level=os.environ.get("DEEPSECTION_LOG", "warning"),
    )


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


@app.command("projects")
def list_projects(
    archived: Annotated[bool, typer.Option("--all", help="Archived ones too.")] = False,
) -> None:
    """List the projects: id, name, version."""
    for item in _open().list():
        if archived or not item.archived:
            away = "\tarchived" if item.archived else ""
            typer.echo(f"{item.id}\t{item.name}\tversion {item.version}{away}")


@app.command()
def start(
    name: str,
    units: Annotated[str | None, typer.Option(help="ft-in or mm; the starter's own when none is given.")] = None,
    starter: Annotated[str, typer.Option(help="timber or masonry.")] = "timber",
    ground: Annotated[str, typer.Option(help="slab, or joists over a crawl space.")] = "slab",
) -> None:
    """Start a project from a starter, and print its id."""
    with _told():
        chosen = _starter(units, starter, ground)
        store = _open()
        projects.refuse_taken_name(store, name)
        typer.echo(projects.start(store, name, *chosen).project.id)


@app.command()
def plan(
    file: Path,
    name: Annotated[str | None, typer.Option(help="Name of the new project; not needed to --look.")] = None,
    unit: Annotated[str | None, typer.Option(help="Unit of the file, when it is not the one found.")] = None,
    units: Annotated[str | None, typer.Option(help="ft-in or mm; the starter's own when none is given.")] = None,
    starter: Annotated[str, typer.Option(help="timber or masonry.")] = "timber",
    ground: Annotated[str, typer.Option(help="slab, or joists over a crawl space.")] = "slab",
    layer: Annotated[
        list[str] | None,
        typer.Option(help="NAME=wall, door, window, furniture ... says what a layer is; NAME=- leaves it out."),
    ] = None,
    make_up: Annotated[
        list[str] | None, typer.Option(help="“300 outer=MAKE-UP” gives walls of a thickness a make-up, or “as drawn”.")
    ] = None,
    look: Annotated[bool, typer.Option("--look", help="Read it only; start no project.")] = False,
    as_json: Annotated[bool, typer.Option("--json", help="All that was read, for other programs.")] = False,
) -> None:
    """Start a project from a floor plan in DXF or a model in IFC; prints its id, and a table to standard error."""
    with _told():
        empty = projects.fresh(name or file.stem, *_starter(units, starter, ground))
        if not look and not name:
            raise BadInput("a project needs a name; give --name, or --look to read the file only", field="name")
        store, data = _open(), _read(file)
        if name and not look:
            projects.refuse_taken_name(store, name)
        choices = plan_choices(empty, unit, layer or (), make_up or ())
        with err.status(f"Reading {file.name}"):
            found = plan_in(data, choices, empty.units)
            stored, made = (None, None) if look else projects.from_plan(store, empty, found, choices)
        rows = plan_rows(found)
        if as_json:
            built = {"project": stored.project.id, "skipped": made.skipped} if stored and made else {}
            print(json.dumps(rows | built, ensure_ascii=False, indent=1))
            return
        for table in plan_tables(rows):
            err.print(table)
        for line in rows["placed"]:
            err.print(line, markup=False)
        for line in made.skipped if made else rows["notes"]:
            err.print(f"not built: {line}", markup=False)
        if stored and made:
            err.print("built: " + ", ".join(built_words(made)), markup=False)
            typer.echo(stored.project.id)


def _starter(units: str | None, starter: str, ground: str) -> tuple[Units, Tradition, Ground]:
    traditions: dict[str, Tradition] = {"timber": "timber", "masonry": "masonry"}
    known: dict[str, Units] = {"ft-in": "ft-in", "mm": "mm"}
    grounds: dict[str, Ground] = {"slab": "slab", "joists": "joists"}
    if starter not in traditions:
        raise BadInput(f"“{starter}” is no starter; give timber or masonry", field="starter", value=starter)
    if ground not in grounds:
        raise BadInput(f"“{ground}” is no lowest floor; give slab or joists", field="ground", value=ground)
    units = units or ("mm" if starter == "masonry" else "ft-in")
    if units not in known:
        raise BadInput(f"“{units}” is no unit; give ft-in or mm", field="units", value=units)
    return known[units], traditions[starter], grounds[ground]


@app.command()
def copy(project: str) -> None:
    """Copy a project, and print the id of the copy."""
    with _told():
        typer.echo(projects.copy(_open(), project).project.id)


@app.command()
def archive(
    project: str,
    back: Annotated[bool, typer.Option("--back", help="Bring it back.")] = False,
) -> None:
    """Put a project away, or bring it back."""
    with _told():
        _open().archive(project, not back)


@app.command("export")
def export_project(
    project: str, output: Annotated[Path, typer.Option("--output", "-o", help="File to write.")]
) -> None:
    """Write a project as a project file."""
    with _told():
        store = _open()
        _write(output, projects.as_file(store, store.load(project).project))


@app.command()
def model(project: str, output: Annotated[Path, typer.Option("--output", "-o", help="File to write.")]) -> None:
    """Write the building of a project as a model in IFC 4: walls with layers, openings, and every other part."""
    with _told():
        held = _open().load(project).project
        with Progress(console=err, transient=True) as bar:
            bar.add_task(f"Building {held.name}", total=None)
            data = write_ifc(held, building_of(held))
        _write(output, data)


@app.command("import")
def import_project(file: Path) -> None:
    """Import a project file, and print the id that it got."""
    with _told():
        typer.echo(projects.bring_in(_open(), _read(file)).project.id)


@app.command()
def history(project: str) -> None:
    """What was done in a project, the latest first."""
    with _told():
        for point in _open().history(project):
            mark = f"\t[{point.mark}]" if point.mark else ""
            typer.echo(f"{point.version}\t{point.made:%Y-%m-%d %H:%M}\t{point.words}{mark}")


@app.command()
def views(project: str) -> None:
    """List the views and sheets of a project."""
    with _told():
        held = _open().load(project).project
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
    with _told():
        chosen = format or (output.suffix.lstrip(".").lower() if output else "json")
        if chosen not in WRITERS:
            raise BadInput(f"“{chosen}” is no format; give pdf, dxf, svg, png or json", field="format", value=chosen)
        if layers not in get_args(LayerNames):
            raise BadInput(f"“{layers}” names no layers; give plain, iso13567 or ncs", field="layers", value=layers)
        if (view is None) == (sheet is None):
            raise BadInput("give one of --view and --sheet", field="view")
        if output is None and chosen != "json":
            raise BadInput("give a file with --output", field="output")
        store = _open()
        stored = store.load(project)
        with err.status(f"Drawing {view or sheet}…"):
            drawn = with_pictures(store, _drawn(stored, view, sheet, scale))
            named = cast(LayerNames, layers)
            data = write_dxf(drawn, named) if chosen == "dxf" else WRITERS[chosen](drawn)
        if output is None:
            sys.stdout.write(data.decode())
        else:
            _write(output, data)


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
    with _told():
        store = _open()
        stored = store.load(project)
        if not 1 <= scale <= 2000:
            raise BadInput(f"1:{scale:g} is no scale; give 1 to 2000", field="scale", value=scale)
        _keep(store, stored, [placing(stored.project, _sheet(stored.project, sheet), view, scale)])


@app.command()
def edit(
    project: str,
    file: Annotated[Path, typer.Argument(help="Edits as JSON, a list; - reads standard input.")],
) -> None:
    """Change a project by edits in a file, all of them or none, as one step that can be undone."""
    with _told():
        store, data = _open(), sys.stdin.buffer.read() if str(file) == "-" else _read(file)
        if why := why_unreadable(data):
            raise BadInput(f"this file {why}", field="file")
        try:
            edits = EDITS.validate_json(data)
        except ValidationError as error:
            raise refusal(error) from error
        _keep(store, store.load(project), list(edits))


@app.command()
def engineer(
    project: str,
    view: Annotated[str, typer.Option(help="A structural plan, as `views` lists it.")],
    answer: Annotated[Path | None, typer.Option(help="An answer that came as a file; else the simulated one.")] = None,
) -> None:
    """Send a structural plan to the engineer, or take an answer to it; comments show until they are settled."""
    with _told():
        store = _open()
        stored = store.load(project)
        text = None if answer is None else _read(answer).decode(errors="replace")
        _keep(store, stored, answered(stored.project, view, text))
        for held in store.load(project).project.comments:
            if held.view == view and held.status == "open":
                out.print(f"{held.by}: {held.text}", markup=False)


@app.command()
def review_plan(
    file: Annotated[Path, typer.Argument(help="A structural plan as DXF.")],
    output: Annotated[Path, typer.Option("--output", "-o", help="File to write.")],
) -> None:
    """What the simulated engineer answers to a structural plan in a file."""
    with _told():
        try:
            reply = review(_read(file))
        except ValueError as error:
            raise BadInput(f"the engineer could not read this plan: {error}", field="file", value=str(file)) from error
        _write(output, reply)


@app.command()
def undo(project: str) -> None:
    """Take back what was done last, as a new version."""
    _step(project, back=True)


@app.command()
def redo(project: str) -> None:
    """Do again what was taken back last, as a new version."""
    _step(project, back=False)


def _step(project: str, *, back: bool) -> None:
    with _told():
        store = _open()
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
    with _told():
        store = _open()
        base = store.load(project).version
        goal = store.last_sound(project, base, draws_whole) if version is None else version
        done = store.back(project, base, goal)
        err.print(f"now at version {done.version}: {store.history(project)[0].words}", markup=False)


def _keep(store: Store, stored: Stored, edits: list[Any]) -> None:
    """Keep edits as the next version, and say what was done."""
    changed = checked_edits(stored.project, edits)
    prove_parts(stored.project, changed, edits)
    words = describe(edits, stored.project)
    store.append(stored.project.id, stored.version, changed, words, EDITS.dump_json(tuple(edits)).decode())
    err.print(f"done: {words}", markup=False)


@app.command()
def junctions(
    project: str,
    as_json: Annotated[bool, typer.Option("--json", help="As JSON: ids, kinds, elements, lengths, details.")] = False,
) -> None:
    """List where parts of a house meet, in groups of those that are built alike."""
    with _told():
        held = _open().load(project).project
        states = junction_groups(held)
        if as_json:
            typer.echo(json.dumps(junction_rows(states), indent=1, ensure_ascii=False))
        else:
            out.print(junction_table(states, held.units))


@app.command()
def continuity(
    project: str,
    view: Annotated[str | None, typer.Option(help="A detail or a wall section; without it, all junctions.")] = None,
    as_json: Annotated[bool, typer.Option("--json", help="As JSON: each line with its gaps and their places.")] = False,
) -> None:
    """Say of each line that keeps out weather, air, cold and vapour whether it closes, and where it is open."""
    with _told():
        held = _open().load(project).project
        rows = [(view, lines_of(held, view))] if view is not None else all_lines(held)
        if as_json:
            typer.echo(json.dumps(line_rows(rows), indent=1, ensure_ascii=False))
        else:
            print_lines(rows, out)


@app.command()
def details(
    project: str, sheets: Annotated[bool, typer.Option(help="Lay those on sheets that are on none.")] = False
) -> None:
    """Draw a detail of each group of junctions that has none; print the names of all details, to be drawn as views."""
    with _told():
        store = _open()
        stored = store.load(project)
        if any(state.is_drawn and not state.details for state in junction_groups(stored.project)):
            _keep(store, stored, list(detailed(stored.project, None)))
        stored = store.load(project)
        if sheets and unplaced_details(stored.project):
            _keep(store, stored, list(details_on_sheets(stored.project)))
        for held in store.load(project).project.details:
            typer.echo(f"detail:{held.id}\t{held.name}")


@app.command()
def heights(project: str) -> None:
    """Print every height with the sum that makes it."""
    with _told():
        held = _open().load(project).project
        for height in building_of(held).sums.values():
            out.print(f"[bold]{height.label}[/bold]  {format_length(height.total, held.units)}")
            for term in height.terms:
                out.print(f"    {term.label:32} {format_length(term.value, held.units):>14}")


@contextmanager
def _told() -> Iterator[None]:
    """Errors of ours go to standard error in one line, with exit code 2."""
    try:
        yield
    except DeepSectionError as error:
        err.print(f"deepsection: {error.message}", markup=False)
        raise typer.Exit(2) from error


def _read(file: Path) -> bytes:
    try:
        return file.read_bytes()
    except OSError as error:
        raise BadInput(f"{file} cannot be read: {error.strerror}", field="file", value=str(file)) from error


def _write(file: Path, data: bytes) -> None:
    """Write a file whole or not at all."""
    part = file.with_name(f".{file.name}.part")
    try:
        part.write_bytes(data)
        part.replace(file)
    except OSError as error:
        part.unlink(missing_ok=True)
        raise BadInput(f"{file} cannot be written: {error.strerror}", field="output", value=str(file)) from error


if __name__ == "__main__":
    app()
