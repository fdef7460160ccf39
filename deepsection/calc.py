"""`deepsection calc`: the calculations by themselves, as readable tables or as JSON."""

from __future__ import annotations

import json
import math
from collections.abc import Iterator
from dataclasses import asdict
from pathlib import Path
from typing import Annotated, Any, Literal, NoReturn

import typer
from pydantic import BaseModel, ConfigDict, Field, ValidationError
from rich.console import Console
from rich.table import Table

from deepsection.core.document.faults import told, why_unreadable
from deepsection.core.errors import BadInput, GeometryError
from deepsection.core.geometry import RoofShape, Segment, roof_over, segment, segment_through
from deepsection.core.units import FOOT, Units, format_length, parse_length

calc = typer.Typer(help="Calculations by themselves: lengths, arcs, roofs.", no_args_is_help=True)
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


class _Slope(BaseModel):
    """An edge that slopes: it rises so much for a run."""

    model_config = ConfigDict(extra="forbid")
    rise: float = Field(gt=0)
    run: float = Field(gt=0)


class _Gable(BaseModel):
    """An edge that stands."""

    model_config = ConfigDict(extra="forbid")
    gable: Literal[True]


MM = {"mm": 1.0, "cm": 10.0, "m": 1000.0, "in": 25.4, "ft": FOOT}
"""Millimetres in the units that a file may be in."""


class RoofIn(BaseModel):
    """What `calc roof` reads: edge i runs from corner i of the outline (counter-clockwise) to the next."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)
    units: Literal["mm", "cm", "m", "in", "ft"] = "mm"
    outline: list[tuple[float, float]] = Field(min_length=3, max_length=200)
    edges: list[_Slope | _Gable]
    eave_height: float = 0.0
    overhang: float = Field(default=0.0, ge=0)


@calc.command("roof")
def roof_command(
    file: Annotated[Path, typer.Argument(help="JSON: units, outline, edges, eave_height, overhang.")],
    as_json: AsJson = False,
) -> None:
    """The roof over an outline: planes, ridges, hips and valleys with their true lengths, volume."""
    try:
        data = file.read_bytes()
        if why := why_unreadable(data):
            _refuse(BadInput(f"this file {why}", field="file"))
        asked = RoofIn.model_validate_json(data)
        pitches = [None if isinstance(edge, _Gable) else edge.rise / edge.run for edge in asked.edges]
        mm = MM[asked.units]
        outline = [(x * mm, y * mm) for x, y in asked.outline]
        found = roof_over(outline, pitches, eave_height=asked.eave_height * mm, overhang=asked.overhang * mm)
    except OSError as error:
        _refuse(BadInput(f"{file} cannot be read: {error.strerror}", field="file"))
    except ValidationError as error:
        message, place = told(error.errors())
        _refuse(BadInput(f"{place}: {message.partition(': ')[2] or message}", field=place))
    except GeometryError as error:
        _refuse(BadInput(error.message, field="outline"))
    if as_json:
        typer.echo(json.dumps(_roof_json(found, asked.units)))
        return
    for table in _roof_tables(found, asked.units):
        out.print(table)


def _roof_json(found: RoofShape, units: str) -> dict[str, Any]:
    """In the unit of the file, its square and its cube."""
    mm = MM[units]
    kinds = ("ridge", "hip", "valley", "rake", "eave")
    return {
        "units": units,
        "planes": [
            {
                "edges": list(plane.edges),
                "plan_area": plane.plan_area / mm**2,
                "true_area": plane.true_area / mm**2,
                "vertices": [[value / mm for value in point] for point in plane.vertices],
            }
            for plane in found.planes
        ],
        "lines": [
            {
                "kind": line.kind,
                "planes": list(line.planes),
                "start": [value / mm for value in line.start],
                "end": [value / mm for value in line.end],
                "length": line.length / mm,
            }
            for line in found.lines
        ],
        "totals": {kind: found.total(kind) / mm for kind in kinds}
        | {
            "plan_area": sum(plane.plan_area for plane in found.planes) / mm**2,
            "true_area": sum(plane.true_area for plane in found.planes) / mm**2,
        },
        "ridge_height": found.ridge_height / mm,
        "volume": found.volume / mm**3,
    }


def _roof_tables(found: RoofShape, units: str) -> Iterator[Table]:
    imperial = units in ("in", "ft")
    system: Units = "ft-in" if imperial else "mm"

    def area(value: float) -> str:
        return f"{value / FOOT**2:.2f} sq ft" if imperial else f"{value / 1e6:.3f} m²"

    planes = Table("plane", "pitch", "plan area", "true area")
    for plane in found.planes:
        names = ", ".join(str(edge) for edge in plane.edges)
        pitch = f"{plane.pitch * 12:.4g} in 12, {math.degrees(math.atan(plane.pitch)):.2f}°"
        planes.add_row(names, pitch, area(plane.plan_area), area(plane.true_area))
    yield planes
    lines = Table("line", "between", "true length", "rises by")
    for line in found.lines:
        between = " and ".join(str(plane) for plane in line.planes)
        lengths = (line.length, line.end[2] - line.start[2])
        lines.add_row(line.kind, between, *(format_length(value, system) for value in lengths))
    yield lines
    totals = Table("all", "")
    for kind in ("ridge", "hip", "valley", "rake", "eave"):
        totals.add_row(f"{kind}s", format_length(found.total(kind), system))
    totals.add_row("plan area", area(sum(plane.plan_area for plane in found.planes)))
    totals.add_row("true area", area(sum(plane.true_area for plane in found.planes)))
    totals.add_row("ridge height", format_length(found.ridge_height, system))
    volume = f"{found.volume / FOOT**3:.2f} cu ft" if imperial else f"{found.volume / 1e9:.3f} m³"
    totals.add_row("volume over the eaves", volume)
    yield totals


def _refuse(error: BadInput) -> NoReturn:
    err.print(error.message, markup=False)
    raise typer.Exit(2)
