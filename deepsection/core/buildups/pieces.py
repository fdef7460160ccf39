"""Pieces of a build-up: profiles run along a junction, sheets that follow faces, fixings at a spacing, fills."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import shapely
from shapely.geometry import LineString, Polygon
from shapely.geometry import box as rectangle

from ..geometry import Point, largest

Does = Literal["weather", "air", "thermal", "vapour", "drainage", "fire", "structure"]
"""What a piece does: the lines that have to close around a house, and what drains, stops fire and carries."""

Drawn = Literal["structure", "membrane", "insulation", "finish", "sheet", "sheathing"]
"""How it is drawn where it is cut."""

MEMBERS = ("rafter", "trimmer", "joist", "trimmer_joist", "header_joist", "hip_rafter", "valley_rafter")
"""Roles of what lies at a spacing under roofs and over ceilings: what runs along stands between them."""
BUILT = (*MEMBERS, "plate", "stud", "structure", "infill", "lining", "wall_plate", "header", "cladding", "sheathing",
         "rough_sill", "blocking")  # fmt: skip
"""Roles of what other walls and floors have where they run into a junction."""
ROOFED = ("roofing", "sheathing", "ridge_flashing", "hip_flashing", "valley_flashing")
"""Roles of lower roofs that come before a wall."""

METAL, SKIN = 1.0, 0.8
"""Thickness of flashings, of membranes and tapes as they are drawn (mm)."""

STRIP, DETAIL = 26.0, 12.6
"""Tiers: what shows from wall sections on (1:25), and what shows in details alone (1:12)."""


@dataclass(frozen=True, slots=True)
class Piece:
    """One piece in the plane across its junction (u outward, v up; mm): what it is, and what its drawing says of it.

    `shape` runs along the junction, past its two ends by `past`; with `every` it stands at that spacing, `wide` along
    the run, the first one `first` from its start, or `first` past each rafter where it stands `at_rafters`; `even`: the
    last one as far from its end, none farther apart. `ends`: where the run ends at a corner of the house: at the faces
    of the wall, or with the boards of the roof. `takes`: the roles of parts that give way to it, and to `clears`, which
    it keeps free; `yields`: those that it gives way to itself. `within`: it is there under a level ceiling alone, or
    under a vault. `inlaid`: the role of what it is a part of, and is nowhere beyond. `axis`: lumber that runs along.
    `runs`: on which of the runs of its junction it is; on all where none is named. It shows from a scale of 1:`tier`
    on.
    """

    id: str
    note: str
    role: str
    material: str
    shape: Polygon
    drawn: Drawn = "finish"
    does: tuple[Does, ...] = ()
    tier: float = DETAIL
    past: tuple[float, float] = (0.0, 0.0)
    ends: Literal["wall", "roof", "run"] = "wall"
    every: float = 0.0
    wide: float = 0.0
    first: float = 0.0
    even: bool = False
    at_rafters: bool = False
    takes: tuple[str, ...] = ()
    yields: tuple[str, ...] = ()
    clears: Polygon | None = None
    axis: bool = False
    inlaid: str = ""
    within: Literal["", "ceiling", "vault"] = ""
    runs: tuple[int, ...] = ()


def block(u0: float, u1: float, v0: float, v1: float) -> Polygon:
    """A rectangle between two distances outward and two heights, in any order."""
    return rectangle(min(u0, u1), min(v0, v1), max(u0, u1), max(v0, v1))


def sheet(points: Sequence[Point], thick: float) -> Polygon:
    """A sheet along a line of faces, lying at its left: a membrane, a flashing."""
    line = LineString(points)
    return largest(line.buffer(thick, cap_style="flat", join_style="mitre", single_sided=True))


def under(points: Sequence[Point]) -> Polygon:
    """What corners enclose, in order."""
    shape = shapely.remove_repeated_points(Polygon(points), 1e-6)
    return shape if shape.is_valid else largest(shapely.make_valid(shape))


def bead(u: float, v: float, size: float) -> Polygon:
    """A bead of sealant around a place, with flattened sides."""
    return shapely.Point(u, v).buffer(size / 2, quad_segs=2)
