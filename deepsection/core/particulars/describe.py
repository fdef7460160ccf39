"""All that the particulars pane shows of one element."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Any, Literal

from ..catalog import material
from ..document.command import all_named
from ..model import (
    MakeUp,
    Project,
    Wall,
)
from ..resolve import Building, Diagnostic
from ..rows.outcome import OutcomeTable
from ..rows.rows import Field
from ..trades.loads.placed import LOADS
from ..units import HeightSum, Units, format_length, format_thickness
from .fields import declaration_of, fields_of


@dataclass(frozen=True, slots=True)
class SumRow:
    """A term of a height, as text."""

    label: str
    text: str
    source: str | None


@dataclass(frozen=True, slots=True)
class SumTable:
    """Where a height comes from."""

    id: str
    label: str
    total: str
    rows: tuple[SumRow, ...]


@dataclass(frozen=True, slots=True)
class StripLayer:
    """One layer of the make-up strip; `share` of the whole thickness."""

    id: str
    name: str
    material: str
    function: str
    thickness: str
    share: float
    tone: str
    hatch: str | None


@dataclass(frozen=True, slots=True)
class Strip:
    """A make-up at true scale, outside (or top) first; `face` is where the set-out line lies, 0 to 1."""

    make_up: str
    name: str
    total: str
    layers: tuple[StripLayer, ...]
    face: float | None
    face_label: str | None


@dataclass(frozen=True, slots=True)
class Check:
    """Something found wrong with the building here."""

    severity: Literal["blocking", "warning"]
    message: str
    element: str
    source: str | None = None


@dataclass(frozen=True, slots=True)
class CarriedBy:
    """A step of a load on its way down: what carries it there, in words and by ids."""

    words: str
    elements: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Particulars:
    """Title, fields, sums, outcome, what carries it, strip and checks of an element."""

    element: str
    title: str
    subtitle: str
    removable: bool
    fields: tuple[Field, ...]
    sums: tuple[SumTable, ...]
    outcome: tuple[OutcomeTable, ...]
    carried: tuple[CarriedBy, ...]
    strip: Strip | None
    checks: tuple[Check, ...]


def describe_element(
    project: Project, building: Building, element: str, findings: Sequence[Diagnostic] | None = None
) -> Particulars:
    """The particulars of an element by id, or of the `project`, with what was found of it: all that is wrong with the
    building where nothing is given.

    Raises: UnknownElement.
    """
    held = project if element == "project" else project.find(element)
    kind = declaration_of(held)
    title, subtitle = kind.title(project, held)
    proofs = [id for id in building.sums if id.startswith(f"proof:{element}:")]
    sums = [building.sums[id] for id in (*kind.heights(held), *proofs) if id in building.sums]
    checks = tuple(
        Check(found.severity, found.message, found.element, found.source)
        for found in (building.diagnostics if findings is None else findings)
        if element == "project" or element == found.element or element in found.others
    )
    return Particulars(
        element,
        title,
        subtitle,
        kind.removable(project, held),
        tuple(row.field for row in fields_of(project, held)),
        tuple(sum_table(project, building, height) for height in sums),
        tuple(kind.outcome(building.placed, held)),
        tuple(CarriedBy(all_named(step, project), step) for step in building[LOADS].down_from(element)),
        _strip(project, held, kind.make_up(project, held)),
        checks,
    )


def sum_table(project: Project, building: Building, height: HeightSum) -> SumTable:
    """A height sum as rows of text."""
    return _sum_table(height, project.units)


@lru_cache(maxsize=4096)
def _sum_table(height: HeightSum, units: Units) -> SumTable:
    rows = tuple(SumRow(term.label, format_length(term.value, units), term.source) for term in height.terms)
    return SumTable(height.id, height.label, format_length(height.total, units), rows)


def _strip(project: Project, held: Any, id: str | None) -> Strip | None:
    if id is None:
        return None
    make_up: MakeUp = next(found for found in project.make_ups if found.id == id)
    total = sum(layer.thickness for layer in make_up.layers)
    face, label, reached = None, None, 0.0
    layers = []
    for layer in make_up.layers:
        if isinstance(held, Wall) and layer.id == held.set_out.layer:
            face = (reached + {"outer": 0.0, "middle": 0.5, "inner": 1.0}[held.set_out.face] * layer.thickness) / total
            label = {"outer": "outside of ", "middle": "middle of ", "inner": "inside of "}[
                held.set_out.face
            ] + layer.name
        reached += layer.thickness
        made_of = material(layer.framing.infill if layer.framing and layer.framing.infill else layer.material)
        layers.append(
            StripLayer(
                layer.id,
                layer.name,
                made_of.name,
                layer.function,
                format_thickness(layer.thickness, project.units),
                layer.thickness / total,
                made_of.tone,
                made_of.cut,
            )
        )
    return Strip(make_up.id, make_up.name, format_length(total, project.units), tuple(layers), face, label)
