"""What the command line prints of junctions: a table to read, rows for other programs."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from typing import Any

from rich.console import Console
from rich.table import Table

from deepsection.core.units import Units, format_measured
from deepsection.core.view.continuity import LINES, Continuity
from deepsection.core.view.details.making import GroupState
from deepsection.core.view.lines import ViewLines


def junction_rows(states: Iterable[GroupState]) -> list[dict[str, Any]]:
    """Every junction with its group, the elements that meet, its length (mm) and its details."""
    return [
        {
            "id": junction.id,
            "kind": junction.kind,
            "group": f"{state.group.about.one} {state.group.number}",
            "elements": list(junction.elements),
            "build_up": state.built.build_up.id if state.built else None,
            "length_mm": round(junction.length, 1),
            "details": [f"detail:{one.id}" for one in state.details if one.junction == junction.id],
            "findings": _findings(state),
        }
        for state in states
        for junction in state.group.junctions
    ]


def _findings(state: GroupState) -> list[str]:
    """What is wrong with how a group is built, with the clauses."""
    if state.built is None:
        return []
    said = [state.built.fault] if state.built.fault else []
    return [*said, *(f"{found.words} ({found.source})" for found in state.built.rules)]


def line_rows(rows: Iterable[tuple[str, ViewLines]]) -> list[dict[str, Any]]:
    """Each line of some places: whether it is there, whether it closes, each gap with place, width (mm) and parts."""
    return [{"at": place, "lines": [_line_row(held) for held in found.lines]} for place, found in rows]


def _line_row(held: Continuity) -> dict[str, Any]:
    gaps = [
        {
            "from": [round(at, 1) for at in gap.start],
            "to": [round(at, 1) for at in gap.end],
            "width_mm": round(gap.width, 1),
            "between": list(gap.parts),
        }
        for gap in held.gaps
    ]
    state = {"line": held.line, "there": held.is_there, "closes": held.closes}
    return {**state, "bridged_mm2": round(held.bridged, 1), "gaps": gaps}


def print_lines(rows: Sequence[tuple[str, ViewLines]], out: Console) -> None:
    """What closes and what is open, place by place, and where."""
    table = Table(box=None)
    for head in ("at", *LINES):
        table.add_column(head)
    for place, found in rows:
        says = {held.line: _state(held) for held in found.lines}
        table.add_row(place, *(says.get(line, "") for line in LINES))
    out.print(table)
    for place, found in rows:
        for words in found.words:
            out.print(f"{place}: {words}", markup=False)


def _state(held: Continuity) -> str:
    if not held.is_there:
        return "-"
    return "closes" if held.closes else f"open {max(gap.width for gap in held.gaps):.0f} mm"


def junction_table(states: Iterable[GroupState], units: Units) -> Table:
    """Groups of junctions that are built alike: where, how many, how long, their details."""
    table = Table(box=None)
    for head in ("junctions", "where", "count", "length", "built as", "detail", "findings"):
        right = head in ("count", "length", "findings")
        # A name that is to be copied is never parted.
        table.add_column(head, justify="right" if right else "left", no_wrap=head == "detail")
    for state in states:
        group = state.group
        long = format_measured(group.length, units) if group.about.counted == "metres" else ""
        where = ", ".join(dict.fromkeys(junction.elements[0] for junction in group.junctions))
        drawn = ", ".join(f"detail:{one.id}" for one in state.details) or ("none" if state.is_drawn else "")
        built = state.built.build_up.name if state.built else ""
        said = str(len(_findings(state)) or "")
        table.add_row(f"{group.about.one} {group.number}", where, str(group.pieces), long, built, drawn, said)
    return table
