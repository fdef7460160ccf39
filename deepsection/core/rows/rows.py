"""Rows of the particulars: a labelled fact, and the edits that a typed text becomes."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from typing import Any, Literal

from ..errors import BadInput
from ..model import Project
from ..units import Units, format_length, parse_length

Kind = Literal["length", "pitch", "choice", "text", "number", "action"]


@dataclass(frozen=True, slots=True)
class Option:
    """One value of a choice."""

    value: str
    label: str


@dataclass(frozen=True, slots=True)
class Field:
    """A labelled fact. `text` is what stands in it now; `options` are those of a choice; `group` is a layer's id.

    `under` is the heading under which it stands. `exception`: it is stated against the kind that is followed.
    """

    id: str
    label: str
    kind: Kind
    text: str
    options: tuple[Option, ...] = ()
    group: str | None = None
    under: str = ""
    exception: bool = False


@dataclass(frozen=True, slots=True)
class Row:
    """A field with the edits that a new text becomes."""

    field: Field
    edits: Callable[[str], Sequence[Any]]


def length_row(
    id: str,
    label: str,
    value: float,
    units: Units,
    make: Callable[[float], Sequence[Any]],
    *,
    least: float | None = None,
    write: Callable[[float, Units], str] = format_length,
) -> Row:
    """A length; `least` is what it must exceed (mm), `write` how it reads."""

    def edits(text: str) -> Sequence[Any]:
        parsed = parse_length(text, units)
        if least is not None and parsed <= least:
            raise BadInput(
                f"{label.lower()} must be more than {format_length(least, units)}", field=id, value=text, limit=least
            )
        return make(parsed)

    return Row(Field(id, label, "length", write(value, units)), edits)


def open_length_row(
    id: str,
    label: str,
    value: float | None,
    units: Units,
    make: Callable[[float | None], Sequence[Any]],
    *,
    least: float | None = None,
) -> Row:
    """A length that may be left open: nothing is written where it is, and nothing typed leaves it open."""
    row = length_row(id, label, value or 0.0, units, make, least=least)
    field = row.field if value is not None else replace(row.field, text="")
    return Row(field, lambda text: row.edits(text) if text.strip() else make(None))


def choice_row(
    id: str, label: str, value: str, options: Sequence[tuple[str, str]], make: Callable[[str], Sequence[Any]]
) -> Row:
    """One of some values, each with its label."""

    def edits(text: str) -> Sequence[Any]:
        if text not in {option for option, _ in options}:
            raise BadInput(f"“{text}” is not one of the choices", field=id, value=text)
        return make(text)

    return Row(Field(id, label, "choice", value, tuple(Option(v, name) for v, name in options)), edits)


def text_row(id: str, label: str, value: str, make: Callable[[str], Sequence[Any]], *, empty: bool = False) -> Row:
    """Words; none only where `empty`."""

    def edits(text: str) -> Sequence[Any]:
        if not text.strip() and not empty:
            raise BadInput(f"{label.lower()} cannot be empty", field=id, value=text)
        return make(text.strip())

    return Row(Field(id, label, "text", value), edits)


def number_row(id: str, label: str, value: int, make: Callable[[int], Sequence[Any]]) -> Row:
    """A whole number."""

    def edits(text: str) -> Sequence[Any]:
        if not text.strip().isdigit():
            raise BadInput(f"{label.lower()} needs a whole number", field=id, value=text)
        return make(int(text))

    return Row(Field(id, label, "number", str(value)), edits)


def degrees_row(id: str, label: str, value: float, make: Callable[[float], Sequence[Any]]) -> Row:
    """An angle in degrees; any that means the same is taken."""

    def edits(text: str) -> Sequence[Any]:
        try:
            degrees = float(text.strip().rstrip("°").replace(",", "."))
        except ValueError:
            degrees = math.nan
        if not math.isfinite(degrees):
            raise BadInput("type an angle in degrees, such as 30", field=id, value=text)
        return make(math.remainder(degrees, 360.0))

    return Row(Field(id, label, "text", f"{value:g}°"), edits)


def action_row(id: str, label: str, edits: Sequence[Any]) -> Row:
    """Something to do, as a button."""
    return Row(Field(id, label, "action", ""), lambda _: edits)


def under(heading: str, rows: Sequence[Row]) -> list[Row]:
    """Rows under a heading."""
    return [replace(row, field=replace(row.field, under=heading)) for row in rows]


def level_options(project: Project) -> list[tuple[str, str]]:
    """Every level, as a choice."""
    return [(rung.id, rung.name) for rung in project.rungs]
