"""Tolerances, named by purpose. Millimetres unless the name says otherwise."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Tolerance:
    """One record for every threshold that an algorithm compares with."""

    point: float = 0.01
    """Two points closer than this are one point: faces close to 0.01 mm."""
    grid: float = 1e-3
    """Projected coordinates are snapped to this grid before an overlay."""
    node: float = 1e-6
    """Lines are noded on this grid where walls stand on each other: a point on a line is rarely exactly on it."""
    depth: float = 0.05
    """Depth difference that counts as a jump; below the thinnest layer (0.2 mm)."""
    cut: float = 0.005
    """How far behind the section plane solids are cut: a near face in the plane is cut."""
    area: float = 0.5
    """Regions smaller than this (mm2) are slivers."""
    sliver_width: float = 0.05
    """Regions thinner than this are slivers."""
    shared: float = 0.02
    """A wall lies on an outline when more than this share of it does."""
    parallel: float = 1e-9
    """Cross product of unit vectors below which two directions are parallel."""
    facet: float = 1e-6
    """Normals that differ by less than this belong to one plane."""
    chord: float = 0.1
    """How far a chord of a faceted arc may lie from it."""
    volume: float = 1e-3
    """Solids smaller than this (mm3) are empty: touching bodies intersect as slivers."""


TOL = Tolerance()

__all__ = ["TOL", "Tolerance"]
