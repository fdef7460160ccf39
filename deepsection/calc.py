"""`deepsection calc`: the calculations by themselves, as readable tables or as JSON."""

from __future__ import annotations

import json
from dataclasses import asdict
from typing import Annotated, Any, NoReturn

import typer
from rich.console import Console
from rich.table import Table

from deepsection.core.errors import BadInput
from deepsection.core.geometry import Segment, segment, segment_through
from deepsection.core.units import Units, format_length, parse_length

calc = typer.Typer(help="Calculations by themselves: lengths, arcs.", no_args_is_help=True)
out, err = Console(highlight=False, soft_wrap=True), Console(stderr=True, highlight=False, soft_wrap=True)

AsJson = Annotated[bool, typer.Option("--json", help="One JSON object instead of a table.")]
InUnits = Annotated[str, typer.Option(help="Unit of bare numbers: ft-in or mm.")]
Fraction = Annotated[int, typer.Option(help="Inches are rounded to one part in so many: 2, 4, 8, 16, 32 or 64.")]
FRACTIONS = (1, 2, 4, 8, 16, 32, 64)


@calc.command("length")
def length_command(
    texts: Annotated[list[str], typer.Argument(metavar="TEXT...")],
    units: InUnits = "mm",
    fraction: Fraction = 16,
    as_json: AsJson = False,
) -> None:
    """Read lengths and sums as they are typed, and print them in both units."""
    rows = []
    for text in texts:
        value = _length(text, units, fraction)
        rows.append(
            {
                "text": text,
                "mm": round(value, 6),
                "metric": format_length(value, "mm"),
                "imperial": format_length(value, "ft-in", denominator=fraction),
            }
        )
    if as_json:
        typer.echo(json.dumps({"lengths": rows}))
        return
    table = Table("typed", "millimetres", "feet and inches")
    for row in rows:
        table.add_row(str(row["text"]), str(row["metric"]), str(row["imperial"]))
    out.print(table)


@calc.command("arc")
def arc_command(
    chord: Annotated[str | None, typer.Option(help="Straight from end to end.")] = None,
    rise: Annotated[str | None, typer.Option(help="From the middle of the chord to the arc.")] = None,
    point: Annotated[
        list[str] | None, typer.Option(help="x,y of a point, three times: start, a point on the arc, end.")
    ] = None,
    units: InUnits = "mm",
    fraction: Fraction = 16,
    as_json: AsJson = False,
) -> None:
    """An arc from its chord and rise, or through three points: radius, angle, length, area."""
    try:
        if point:
            found = segment_through(*_points(point, units, fraction))
        elif chord is not None and rise is not None:
            found = segment(_length(chord, units, fraction), _length(rise, units, fraction))
        else:
            raise BadInput("give --chord and --rise, or --point three times", field="chord")
    except BadInput as error:
        _refuse(error)
    facts = {name: fact for name, fact in asdict(found).items() if fact is not None}
    if as_json:
        typer.echo(json.dumps(facts))
        return
    out.print(_arc_table(found, fraction))


def _arc_table(found: Segment, fraction: int) -> Table:
    table = Table("arc", "millimetres", "feet and inches")
    for name in ("chord", "rise", "radius", "length"):
        value = getattr(found, name)
        table.add_row(name, format_length(value, "mm"), format_length(value, "ft-in", denominator=fraction))
    table.add_row("angle", f"{found.angle_deg:.3f}°", "")
    table.add_row("area under it", f"{found.area / 1e6:.4f} m²", f"{found.area / 304.8**2:.3f} sq ft")
    if found.centre:
        x, y = (format_length(value, "mm") for value in found.centre)
        u, v = (format_length(value, "ft-in", denominator=fraction) for value in found.centre)
        table.add_row("centre", f"{x}, {y}", f"{u}, {v}")
    return table


def _points(texts: list[str], units: str, fraction: int) -> Any:
    if len(texts) != 3:
        raise BadInput(f"an arc runs through three points, not {len(texts)}", field="point")
    points = []
    for text in texts:
        parts = text.split(",")
        if len(parts) != 2:
            raise BadInput(f"“{text}” is not a point: write x,y", field="point", value=text)
        points.append((_length(parts[0], units, fraction), _length(parts[1], units, fraction)))
    return points


def _length(text: str, units: str, fraction: int) -> float:
    try:
        if units not in ("ft-in", "mm"):
            raise BadInput("units are ft-in or mm", field="units", value=units)
        if fraction not in FRACTIONS:
            raise BadInput(f"a fraction is one of {', '.join(map(str, FRACTIONS))}", field="fraction", value=fraction)
        chosen: Units = "ft-in" if units == "ft-in" else "mm"
        return parse_length(text, chosen)
    except BadInput as error:
        _refuse(error)


def _refuse(error: BadInput) -> NoReturn:
    err.print(error.message, markup=False)
    raise typer.Exit(2)
