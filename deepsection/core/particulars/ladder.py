"""The height ladder as it is shown: levels and ridges, high ones first, with the parts between them."""

from __future__ import annotations

from dataclasses import dataclass

from ..model import Project, term_value
from ..resolve import Building
from ..units import format_length


@dataclass(frozen=True, slots=True)
class LadderTerm:
    """A part of a rise sum; `free` marks the one that absorbs a typed total."""

    id: str
    label: str
    text: str
    free: bool


@dataclass(frozen=True, slots=True)
class LadderRung:
    """A rung: a level of the ladder, or (not `stated`) a height that follows from a roof."""

    id: str
    element: str
    sum: str
    label: str
    z: float
    text: str
    stated: bool
    terms: tuple[LadderTerm, ...]


def ladder(project: Project, building: Building) -> tuple[LadderRung, ...]:
    """Every rung, the highest first."""
    units = project.units
    rungs = []
    for rung in (held for held in project.rungs if not held.hidden):
        level = building.levels[rung.id]
        terms = tuple(
            LadderTerm(
                term.id,
                f"{term.count} x {term.name}" if term.count > 1 else term.name,
                format_length(term_value(term, project.make_ups), units),
                term.id == rung.free,
            )
            for term in rung.terms
        )
        rungs.append(
            LadderRung(rung.id, rung.id, level.sum.id, rung.name, level.z, format_length(level.z, units), True, terms)
        )
    for roof in building.roofs:
        height = roof.ridge_top
        own = tuple(LadderTerm("", term.label, format_length(term.value, units), False) for term in height.terms[1:])
        label = height.label[:1].upper() + height.label[1:]
        rungs.append(
            LadderRung(
                height.id, roof.block.id, height.id, label, height.total, format_length(height.total, units), False, own
            )
        )
    return tuple(sorted(rungs, key=lambda rung: -rung.z))
