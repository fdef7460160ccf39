"""What the command line prints of junctions: a table to read, rows for other programs."""

from __future__ import annotations

from collections import Counter, defaultdict
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


def plan_tables(rows: dict[str, Any]) -> list[Table | str]:
    """What was read of a plan: walls by thickness, openings by width, rooms, dimensions that differ, the rest."""
    unit = rows["unit"]
    said = f"drawn in {unit['name']} ({unit['confidence']:.0%}): {unit['reason']}"
    walls: dict[tuple[float, bool], list[float]] = defaultdict(list)
    for wall in rows["walls"]:
        walls[wall["thickness"], wall["outer"]].append(wall["length"])
    by_thickness = _table("Walls", "thickness", "where", "walls", "length")
    for (thickness, outer), lengths in sorted(walls.items(), key=lambda held: -sum(held[1])):
        thick = f"{thickness:,.1f}" if thickness else "not drawn"
        by_thickness.add_row(thick, "outer" if outer else "inner", str(len(lengths)), f"{sum(lengths) / 1000:,.2f} m")
    openings: Counter[tuple[str, float]] = Counter((held["kind"], round(held["width"])) for held in rows["openings"])
    by_width = _table("Openings", "kind", "width", "openings")
    for (kind, width), count in sorted(openings.items()):
        by_width.add_row(kind, f"{width:,}", str(count))
    names = ", ".join(room["name"] for room in rows["rooms"])
    off = [held for held in rows["dimensions"] if abs(held["difference"]) > 1.0]
    checked = _table(
        f"Dimensions: {len(rows['dimensions'])} read, {len(off)} off", "text", "says", "measured", "difference"
    )
    for held in off[:20]:
        checked.add_row(
            held["text"], f"{held['stated']:,.0f}", f"{held['measured']:,.0f}", f"{held['difference']:+,.0f}"
        )
    left = _table("Left over", "layer", "what", "count")
    for held in rows["left_over"]:
        left.add_row(held["layer"], held["what"], str(held["count"]))
    found: list[Table | str] = [said, by_thickness, by_width]
    found += [f"rooms: {names}"] if names else []
    found += [_stair_words(held) for held in rows["stairs"]]
    heights = ", ".join(dict.fromkeys(held["text"] for held in rows["heights"]))
    found += [f"heights written in it: {heights}"] if heights else []
    if rows["north"]:
        found.append(f"north lies {rows['north']['clockwise_from_up']:g} degrees clockwise from up")
    found += [checked] if rows["dimensions"] else []
    return [*found, left] if rows["left_over"] else found


def _stair_words(held: dict[str, Any]) -> str:
    flights = " and ".join(str(flight["risers"]) for flight in held["flights"])
    turn = next((flight["then"] for flight in held["flights"] if flight["then"]), "")
    between = f" with a {turn} between" if turn.endswith("landing") else f" with {turn} between" if turn else ""
    sizes = f"{held['width']:,.0f} wide, treads {held['going']:,.0f}"
    return f"stair of {flights} risers{between}, {sizes}: {held['reason']}"


def _table(title: str, *heads: str) -> Table:
    table = Table(title=title, title_justify="left", title_style="bold", box=None, padding=(0, 2, 0, 0))
    for head in heads:
        table.add_column(
            head,
            justify="right"
            if head in ("thickness", "walls", "length", "width", "openings", "count", "says", "measured", "difference")
            else "left",
        )
    return table
