"""Two sides of a house beside each other: which heights each shows, and where they differ."""

from __future__ import annotations

from collections import defaultdict
from dataclasses import dataclass

from ..drawing import Drawing
from ..units import HeightSum, Units, format_length

GROUPS = {
    "head": "heads of openings",
    "sill": "sills",
    "eave": "eaves",
    "top": "tops of walls",
    "foot": "feet of walls",
    "ground": "ground",
    "moulding": "mouldings",
}
"""Heights of which a side may show several, by what their ids begin with; all others are a row each."""


@dataclass(frozen=True, slots=True)
class ShownHeight:
    """A height as a view shows it: its text, in real mm, and the sum that explains it."""

    text: str
    z: float
    sum: str


@dataclass(frozen=True, slots=True)
class ComparedRow:
    """A height in two views, low ones first. `differ`: both show it, and not alike."""

    label: str
    one: tuple[ShownHeight, ...]
    other: tuple[ShownHeight, ...]
    differ: bool


def compare_heights(one: Drawing, other: Drawing, units: Units) -> list[ComparedRow]:
    """The heights of two elevations or sections, row by row, high ones first."""
    left, right = _heights(one), _heights(other)
    rows = []
    for label in {*left, *right}:
        a, b = _shown(left.get(label, []), units), _shown(right.get(label, []), units)
        differ = bool(a and b) and {held.text for held in a} != {held.text for held in b}
        rows.append(ComparedRow(label, a, b, differ))
    return sorted(rows, key=lambda row: -max(held.z for held in (*row.one, *row.other)))


def _heights(drawing: Drawing) -> dict[str, list[HeightSum]]:
    """The sums that marks of a drawing lie at, by what they are."""
    shown = {mark.sum for mark in drawing.marks if mark.sum}
    found: dict[str, list[HeightSum]] = defaultdict(list)
    for height in drawing.sums:
        if height.id in shown:
            found[GROUPS.get(height.id.partition(":")[0], height.label)].append(height)
    return found


def _shown(heights: list[HeightSum], units: Units) -> tuple[ShownHeight, ...]:
    """Equal heights once, low ones first."""
    found: dict[str, ShownHeight] = {}
    for height in sorted(heights, key=lambda held: held.total):
        text = format_length(height.total, units)
        found.setdefault(text, ShownHeight(text, height.total, height.id))
    return tuple(found.values())
