"""Projects: listed, started, read from plans, copied, archived, and carried in and out as files."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Annotated

import typer
from rich.progress import Progress

from deepsection.core.errors import BadInput
from deepsection.core.starters.projects import Ground
from deepsection.core.trades.makeups.model import Tradition
from deepsection.core.units import Units
from deepsection.formats.writers import write_ifc
from deepsection.service import projects
from deepsection.service.plan_choices import plan_choices, turned_as
from deepsection.service.plan_looks import plan_rows
from deepsection.service.plans import built_words, plan_in
from deepsection.service.work import building_of

from .shared import app, err, opened, read, told, write
from .tables import plan_tables


@app.command("projects")
def list_projects(
    archived: Annotated[bool, typer.Option("--all", help="Archived ones too.")] = False,
) -> None:
    """List the projects: id, name, version."""
    for item in opened().list():
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
    with told():
        chosen = _starter(units, starter, ground)
        store = opened()
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
    lay: Annotated[
        str | None, typer.Option(help="square: walls along the sheet; north: north up; as drawn when left out.")
    ] = None,
    look: Annotated[bool, typer.Option("--look", help="Read it only; start no project.")] = False,
    as_json: Annotated[bool, typer.Option("--json", help="All that was read, for other programs.")] = False,
) -> None:
    """Start a project from a floor plan in DXF or a model in IFC; prints its id, and a table to standard error."""
    with told():
        empty = projects.fresh(name or file.stem, *_starter(units, starter, ground))
        if not look and not name:
            raise BadInput("a project needs a name; give --name, or --look to read the file only", field="name")
        store, data = opened(), read(file)
        if name and not look:
            projects.refuse_taken_name(store, name)
        choices = plan_choices(empty, unit, layer or (), make_up or ())
        with err.status(f"Reading {file.name}"):
            found = plan_in(data, choices, empty.units)
            if lay is not None:
                choices = choices.model_copy(update={"turn": turned_as(found, lay)})
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
        for line in rows["remarks"]:
            err.print(f"look at this: {line}", markup=False)
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
    with told():
        typer.echo(projects.copy(opened(), project).project.id)


@app.command()
def archive(
    project: str,
    back: Annotated[bool, typer.Option("--back", help="Bring it back.")] = False,
) -> None:
    """Put a project away, or bring it back."""
    with told():
        opened().archive(project, not back)


@app.command("export")
def export_project(
    project: str, output: Annotated[Path, typer.Option("--output", "-o", help="File to write.")]
) -> None:
    """Write a project as a project file."""
    with told():
        store = opened()
        write(output, projects.as_file(store, store.load(project).project))


@app.command()
def model(project: str, output: Annotated[Path, typer.Option("--output", "-o", help="File to write.")]) -> None:
    """Write the building of a project as a model in IFC 4: walls with layers, openings, and every other part."""
    with told():
        held = opened().load(project).project
        with Progress(console=err, transient=True) as bar:
            bar.add_task(f"Building {held.name}", total=None)
            data = write_ifc(held, building_of(held))
        write(output, data)


@app.command("import")
def import_project(file: Path) -> None:
    """Import a project file, and print the id that it got."""
    with told():
        typer.echo(projects.bring_in(opened(), read(file)).project.id)
