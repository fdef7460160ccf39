"""The catalogue, read once from its data files."""

from __future__ import annotations

import json
from dataclasses import dataclass
from functools import cache
from importlib.resources import files
from typing import Any, Literal

from ..errors import UnknownElement
from ..units import INCH, Units


@dataclass(frozen=True, slots=True)
class Coursing:
    """How units are laid: so many courses to a rise, each unit so long, joints included (mm); half bond."""

    length: float
    courses: int
    rise: float

    @property
    def height(self) -> float:
        """Of one course.

        >>> round(Coursing(203.2, 3, 203.2).height * 3 / INCH, 6)
        8.0
        """
        return self.rise / self.courses


@dataclass(frozen=True, slots=True)
class Material:
    """What a layer or part is made of, and how it is drawn.

    `cut` and `seen` name hatch patterns. Where two faces coincide, the lower `order` is in front:
    cladding before sheathing before frame. `coursing`: of what is laid in units, whose courses are then what is seen.
    """

    id: str
    name: str
    cut: str | None
    seen: str | None
    order: int
    tone: str
    source: str
    coursing: Coursing | None = None


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


@dataclass(frozen=True, slots=True)
class UsualSize:
    """What a new thing begins with: in projects of feet and inches, and in metric ones (mm both)."""

    of: str
    imperial: float
    metric: float
    source: str


def _read(name: str) -> dict[str, Any]:
    data: dict[str, Any] = json.loads((files(__package__) / "data" / name).read_text("utf-8"))
    return data


@cache
def materials() -> dict[str, Material]:
    """Every material by id."""
    return {row["id"]: _material(**row) for row in _read("materials.json")["materials"]}


def _material(*, id: str, seen: str | None, coursing: dict[str, Any] | None = None, **row: Any) -> Material:
    if coursing is None:
        return Material(id=id, seen=seen, **row)
    return Material(id=id, seen=f"{id}_courses", coursing=Coursing(**coursing), **row)


@cache
def hatches() -> dict[str, HatchPattern]:
    """Every hatch pattern by id; courses have the sizes of their material. The quilt is not one: its curve follows the
    cavity."""
    laid = [(held, held.coursing) for held in materials().values() if held.coursing]
    patterns = {pattern.id: pattern for pattern in (_courses(held, coursing) for held, coursing in laid)}
    for row in _read("hatches.json")["hatches"]:
        families = tuple(
            HatchFamily(angle, (base[0], base[1]), (offset[0], offset[1]), tuple(dashes))
            for angle, base, offset, dashes in row["families"]
        )
        patterns[row["id"]] = HatchPattern(row["id"], row["name"], row["size"], families, row["source"])
    return patterns


def _courses(made_of: Material, laid: Coursing) -> HatchPattern:
    """Bed joints, and the joints between units, which are half a unit apart from course to course."""
    height, half = laid.height, laid.length / 2
    beds = HatchFamily(0.0, (0.0, 0.0), (0.0, height), ())
    joints = HatchFamily(90.0, (0.0, 0.0), (height, half), (height, -height))
    return HatchPattern(f"{made_of.id}_courses", f"{made_of.name}, courses", "real", (beds, joints), made_of.source)


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


@cache
def starter_rows() -> dict[str, Any]:
    """What new projects start with, by tradition: make-ups with their sources, the rest by the ground below."""
    return _read("starters.json")


@cache
def usual_sizes() -> dict[str, UsualSize]:
    """The sizes that new things begin with, by name."""
    rows = _read("usual.json")["sizes"]
    return {row["id"]: UsualSize(row["of"], row["in"] * INCH, row["mm"], row["source"]) for row in rows}


def usual(id: str, units: Units) -> float:
    """A size that new things begin with (mm), in a project of these units. Raises: KeyError."""
    size = usual_sizes()[id]
    return size.imperial if units == "ft-in" else size.metric


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
