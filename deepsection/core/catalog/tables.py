"""The catalogue, read once from its data files."""

from __future__ import annotations

import json
from dataclasses import dataclass
from functools import cache
from importlib.resources import files
from typing import Any, Literal

from ..errors import UnknownElement
from ..units import INCH


@dataclass(frozen=True, slots=True)
class Material:
    """What a layer or part is made of, and how it is drawn.

    `cut` and `seen` name hatch patterns. Where two faces coincide, the lower `order` is in front:
    cladding before sheathing before frame.
    """

    id: str
    name: str
    cut: str | None
    seen: str | None
    order: int
    tone: str
    source: str


@dataclass(frozen=True, slots=True)
class HatchFamily:
    """Parallel lines: angle (deg), a base point, the step to the next line (along, across), dashes (mm)."""

    angle: float
    base: tuple[float, float]
    offset: tuple[float, float]
    dashes: tuple[float, ...]


@dataclass(frozen=True, slots=True)
class HatchPattern:
    """A pattern, in paper mm for poche materials and real mm for things with real size."""

    id: str
    name: str
    size: Literal["real", "paper"]
    families: tuple[HatchFamily, ...]
    source: str


@dataclass(frozen=True, slots=True)
class Lumber:
    """A nominal size and its dressed thickness and depth in mm."""

    nominal: str
    thickness: float
    depth: float


def _read(name: str) -> dict[str, Any]:
    data: dict[str, Any] = json.loads((files(__package__) / "data" / name).read_text("utf-8"))
    return data


@cache
def materials() -> dict[str, Material]:
    """Every material by id."""
    return {row["id"]: Material(**row) for row in _read("materials.json")["materials"]}


@cache
def hatches() -> dict[str, HatchPattern]:
    """Every hatch pattern by id. The quilt is not one: its curve follows the cavity."""
    patterns = {}
    for row in _read("hatches.json")["hatches"]:
        families = tuple(
            HatchFamily(angle, (base[0], base[1]), (offset[0], offset[1]), tuple(dashes))
            for angle, base, offset, dashes in row["families"]
        )
        patterns[row["id"]] = HatchPattern(row["id"], row["name"], row["size"], families, row["source"])
    return patterns


@cache
def lumber() -> dict[str, Lumber]:
    """Dressed lumber by nominal size. Source: PS 20, American Softwood Lumber Standard.

    >>> round(lumber()["2x6"].depth, 2)
    139.7
    """
    rows = _read("lumber.json")["sizes"]
    return {name: Lumber(name, thickness * INCH, depth * INCH) for name, thickness, depth in rows}


@cache
def unit_rows() -> tuple[dict[str, Any], ...]:
    """The kinds of windows, doors and niches that ship, as rows: sizes `in` inches and in `mm`."""
    return tuple(_read("kinds.json")["kinds"])


def material(id: str) -> Material:
    """The material of this id. Raises: UnknownElement."""
    if id not in materials():
        raise UnknownElement(f"no material is called “{id}”", field="material", value=id)
    return materials()[id]


def hatch(id: str) -> HatchPattern:
    """The hatch pattern of this id. Raises: UnknownElement."""
    if id not in hatches():
        raise UnknownElement(f"no hatch is called “{id}”", field="hatch", value=id)
    return hatches()[id]
