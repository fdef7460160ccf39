"""Heights with their reasons: a total is the sum of its terms and is never stored apart."""

from __future__ import annotations

from dataclasses import dataclass

from ..memo import hashed_once

Point3 = tuple[float, float, float]


@dataclass(frozen=True, slots=True)
class SumTerm:
    """One term: what it is, its value in mm, and the element (and field) that states it.

    A `source` that holds a colon is the id of another sum.
    """

    label: str
    value: float
    source: str | None = None
    field: str | None = None


@hashed_once
@dataclass(frozen=True)
class HeightSum:
    """A height above the datum with its terms.

    `slope`: of one that is found along a slope, the points (x, y, z) from which and to which it rises or falls.

    >>> HeightSum("s", "head", (SumTerm("sill", 900.0), SumTerm("height", 1200.0))).total
    2100.0
    """

    id: str
    label: str
    terms: tuple[SumTerm, ...]
    slope: tuple[Point3, Point3] | None = None

    @property
    def total(self) -> float:
        """mm above the datum."""
        return sum(term.value for term in self.terms)

    def plus(self, id: str, label: str, *terms: SumTerm) -> HeightSum:
        """A sum that stands on this one."""
        return HeightSum(id, label, (SumTerm(self.label, self.total, self.id), *terms))
