"""Junctions of a house, their details, and the lines that run on through them."""

from __future__ import annotations

import json
from typing import Annotated

import typer

from deepsection.core.sheets import unplaced_details
from deepsection.service.details import all_lines, detailed, details_on_sheets, junction_groups, lines_of

from .shared import app, keep, opened, out, told
from .tables import junction_rows, junction_table, line_rows, print_lines


@app.command()
def junctions(
    project: str,
    as_json: Annotated[bool, typer.Option("--json", help="As JSON: ids, kinds, elements, lengths, details.")] = False,
) -> None:
    """List where parts of a house meet, in groups of those that are built alike."""
    with told():
        held = opened().load(project).project
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
    with told():
        held = opened().load(project).project
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
    with told():
        store = opened()
        stored = store.load(project)
        if any(state.is_drawn and not state.details for state in junction_groups(stored.project)):
            keep(store, stored, list(detailed(stored.project, None)))
        stored = store.load(project)
        if sheets and unplaced_details(stored.project):
            keep(store, stored, list(details_on_sheets(stored.project)))
        for held in store.load(project).project.details:
            typer.echo(f"detail:{held.id}\t{held.name}")
