"""`deepsection calc`: the calculations by themselves, as readable tables or as JSON."""

from __future__ import annotations

import json
import math
from collections.abc import Iterator
from dataclasses import asdict
from pathlib import Path
from typing import Annotated, Any, Literal, NoReturn, TypeVar

import typer
from pydantic import BaseModel, ConfigDict, Field, ValidationError
from rich.console import Console
from rich.table import Table

from deepsection.core.document.faults import told, why_unreadable
from deepsection.core.errors import BadInput, GeometryError
from deepsection.core.geometry import RoofShape, Segment, roof_over, segment, segment_through
from deepsection.core.trades.floors.spans import JoistCase, joist_span, published_spans
from deepsection.core.trades.stairs.rules import RiserSet, StairRule, Stepping, choose, riser_sets, stair_rules
from deepsection.core.units import FOOT, INCH, Units, format_length, parse_length

calc = typer.Typer(help="Calculations by themselves: lengths, arcs, roofs, stairs, spans.", no_args_is_help=True)
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
    asked = _read(file, RoofIn)
    try:
        pitches = [None if isinstance(edge, _Gable) else edge.rise / edge.run for edge in asked.edges]
        mm = MM[asked.units]
        outline = [(x * mm, y * mm) for x, y in asked.outline]
        found = roof_over(outline, pitches, eave_height=asked.eave_height * mm, overhang=asked.overhang * mm)
    except GeometryError as error:
        _refuse(BadInput(error.message, field="outline"))
    if as_json:
        typer.echo(json.dumps(_roof_json(found, asked.units)))
        return
    for table in _roof_tables(found, asked.units):
        out.print(table)


class StairIn(BaseModel):
    """What `calc stair` reads."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)
    rule: Literal["irc", "adk"]
    units: Literal["in", "mm"]
    total_rise: float = Field(gt=0)
    going: float | None = Field(default=None, gt=0)
    floor_thickness: float | None = Field(default=None, ge=0)
    headroom: float | None = Field(default=None, gt=0)


@calc.command("stair")
def stair_command(
    file: Annotated[Path, typer.Argument(help="JSON: rule, units, total_rise; going, floor_thickness, headroom.")],
    as_json: AsJson = False,
) -> None:
    """The legal numbers of risers of a private stair, the fewest with its goings, and the hole in the floor."""
    asked = _read(file, StairIn)
    mm, system = MM[asked.units], _system(asked.units)
    rule = stair_rules()[asked.rule]
    answer: dict[str, Any] = {"rule": rule.name, "units": asked.units, "legal_sets": [], "chosen": None}
    try:
        sets = riser_sets(rule, asked.total_rise * mm, system)
        answer["legal_sets"] = [_set_json(held, mm) for held in sets if held.is_legal]
        answer["landings"] = max(0, math.ceil(asked.total_rise * mm / rule.get("flight_rise", math.inf) - 1e-9) - 1)
        chosen = choose(rule, asked.total_rise * mm, None if asked.going is None else asked.going * mm, system)
    except BadInput as error:
        if as_json:
            typer.echo(json.dumps(answer | {"breaks": error.message}))
        _refuse(error)
    headroom = (asked.headroom or rule["headroom"] / mm) * mm
    answer["chosen"] = _stepping_json(chosen, mm)
    answer |= {"opening_length": None, "opening_beyond_foot": None}
    if asked.floor_thickness is not None:
        length = chosen.opening_length(headroom, asked.floor_thickness * mm)
        answer |= {"opening_length": length / mm, "opening_beyond_foot": length > chosen.total_run}
    if as_json:
        typer.echo(json.dumps(answer))
        return
    out.print(_sets_table(sets, chosen, rule, system))
    out.print(_stepping_table(chosen, answer, mm, system))


def _set_json(held: RiserSet, mm: float) -> dict[str, Any]:
    high = None if held.going_max is None else held.going_max / mm
    return {"risers": held.risers, "riser": held.riser / mm, "going_min": held.going_min / mm, "going_max": high}


def _stepping_json(chosen: Stepping, mm: float) -> dict[str, Any]:
    return {
        "risers": chosen.risers,
        "riser": chosen.riser / mm,
        "treads": chosen.treads,
        "going": chosen.going / mm,
        "total_run": chosen.total_run / mm,
        "pitch_deg": chosen.pitch_deg,
        "two_r_plus_g": chosen.two_r_plus_g / mm,
    }


def _sets_table(sets: tuple[RiserSet, ...], chosen: Stepping, rule: StairRule, system: Units) -> Table:
    table = Table("risers", "of", "goings", rule.name)
    for held in sets:
        low = format_length(held.going_min, system)
        goings = f"from {low}" if held.going_max is None else f"{low} to {format_length(held.going_max, system)}"
        mark = "chosen" if held.risers == chosen.risers else "legal"
        table.add_row(
            str(held.risers),
            format_length(held.riser, system),
            goings if held.is_legal else "",
            mark if held.is_legal else held.why,
        )
    return table


def _stepping_table(chosen: Stepping, answer: dict[str, Any], mm: float, system: Units) -> Table:
    table = Table("chosen", "")
    table.add_row("risers", f"{chosen.risers} of {format_length(chosen.riser, system)}")
    table.add_row("treads", f"{chosen.treads} of {format_length(chosen.going, system)}")
    table.add_row("total run", format_length(chosen.total_run, system))
    table.add_row("pitch", f"{chosen.pitch_deg:.2f}°")
    table.add_row("2 R + G", format_length(chosen.two_r_plus_g, system))
    if answer["opening_length"] is not None:
        beyond = ", beyond the foot of the stair" if answer["opening_beyond_foot"] else ""
        table.add_row("hole in the floor", format_length(answer["opening_length"] * mm, system) + beyond)
    return table


class SpanIn(BaseModel):
    """What `calc span` reads: inches, psi and pounds per square foot."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)
    member: str = "joist"
    b: float = Field(gt=0, le=1000)
    d: float = Field(gt=0, le=1000)
    spacing: float = Field(gt=0, le=1000)
    Fb: float = Field(gt=0)
    E: float = Field(gt=0)
    C_F: float = Field(default=1.0, gt=0)
    C_r: float = Field(default=1.0, gt=0)
    C_D: float = Field(default=1.0, gt=0)
    live_psf: float = Field(gt=0)
    dead_psf: float = Field(ge=0)
    deflection: float = Field(default=360.0, gt=0)
    deflection_load: Literal["live", "total"] = "live"


@calc.command("span")
def span_command(
    file: Annotated[Path, typer.Argument(help="JSON: member, b, d, spacing, Fb, E, factors, loads, deflection.")],
    as_json: AsJson = False,
) -> None:
    """The longest span of a joist from first principles, and what published tables say of the same one."""
    asked = _read(file, SpanIn)
    case = JoistCase(**asked.model_dump(exclude={"member"}))
    span, tables = joist_span(case), published_spans(case)
    if as_json:
        facts: dict[str, Any] = {"L_bending": span.L_bending, "L_deflection": span.L_deflection}
        published = [{"table": held.table, "species": held.species, "span": held.span} for held in tables]
        facts |= {"max_span": span.max_span, "governs": span.governs, "published": published}
        typer.echo(json.dumps({"member": asked.member} | facts))
        return
    table = Table(asked.member, "longest span", "source")
    whole = "NDS, simply supported, uniform load"
    table.add_row("bending", format_length(span.L_bending * INCH, "ft-in"), whole)
    table.add_row(
        f"deflection, L/{asked.deflection:g} under {asked.deflection_load} load",
        format_length(span.L_deflection * INCH, "ft-in"),
        whole,
    )
    table.add_row(f"{span.governs} governs", format_length(span.max_span * INCH, "ft-in"), "")
    for held in tables:
        table.add_row(held.species, format_length(held.span * INCH, "ft-in"), held.table)
    out.print(table)


A = TypeVar("A", bound=BaseModel)


def _read(file: Path, asked: type[A]) -> A:
    """What a file asks. Ends the command with words when it cannot be read."""
    try:
        data = file.read_bytes()
        if why := why_unreadable(data):
            _refuse(BadInput(f"this file {why}", field="file"))
        return asked.model_validate_json(data)
    except OSError as error:
        _refuse(BadInput(f"{file} cannot be read: {error.strerror}", field="file"))
    except ValidationError as error:
        message, place = told(error.errors())
        _refuse(BadInput(f"{place}: {message.partition(': ')[2] or message}", field=place))


def _system(units: str) -> Units:
    return "ft-in" if units in ("in", "ft") else "mm"


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
    system = _system(units)

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
