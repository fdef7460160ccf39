"""What the command line prints of junctions: a table to read, rows for other programs."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from rich.table import Table

from deepsection.core.units import Units, format_measured
from deepsection.core.view.details.making import GroupState


def junction_rows(states: Iterable[GroupState]) -> list[dict[str, Any]]:
    """Every junction with its group, the elements that meet, its length (mm) and its details."""
    return [
        {
            "id": junction.id,
            "kind": junction.kind,
            "group": f"{state.group.about.one} {state.group.number}",
            "elements": list(junction.elements),
            "length_mm": round(junction.length, 1),
            "details": [f"detail:{one.id}" for one in state.details if one.junction == junction.id],
        }
        for state in states
        for junction in state.group.junctions
    ]


def junction_table(states: Iterable[GroupState], units: Units) -> Table:
    """Groups of junctions that are built alike: where, how many, how long, their details."""
    table = Table(box=None)
    for head in ("junctions", "where", "count", "length", "detail"):
        table.add_column(head, justify="right" if head in ("count", "length") else "left")
    for state in states:
        group = state.group
        long = format_measured(group.length, units) if group.about.counted == "metres" else ""
        where = ", ".join(dict.fromkeys(junction.elements[0] for junction in group.junctions))
        drawn = ", ".join(f"detail:{one.id}" for one in state.details) or ("none" if state.is_drawn else "")
        table.add_row(f"{group.about.one} {group.number}", where, str(group.pieces), long, drawn)
    return table
