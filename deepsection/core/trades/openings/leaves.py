"""How the unit in an opening is divided: its outline, and its lights or leaves with the way each of them opens.

Everything here lies in the plane of the wall: (distance along the wall, z), mm.
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

import shapely
from shapely.geometry import Polygon
from shapely.geometry import box as rectangle

from ...geometry import Axis, largest, polygons_of
from .placed import PlacedOpening

FRAME_FACE = 44.0
"""Width of a frame, or of a post between two lights, as seen from outside. Common practice, no source."""

FRAME_DEPTH, DOOR_DEEPER, TRACK = 90.0, 20.0, 46.0
"""Depth of a frame, how much deeper that of a door is, and what a further track adds. Common practice, no source."""

Action = Literal["fixed", "start", "end", "top", "along", "back", "up", "down", "fold", "lift", "pocket"]
"""How a leaf opens: hinged at the start or end of the wall or at its top; sliding along, back, up or down; folding;
lifting under the ceiling; sliding into the wall."""


@dataclass(frozen=True, slots=True)
class Leaf:
    """One light or leaf: its rectangle before the arch cuts it, how it opens, and its track (0 is the outer one)."""

    slot: str
    left: float
    low: float
    right: float
    high: float
    action: Action
    track: int = 0
    glazed: bool = True

    @property
    def box(self) -> Polygon:
        """Its rectangle as a polygon."""
        return rectangle(self.left, self.low, self.right, self.high)


@lru_cache(maxsize=4096)
def outline(placed: PlacedOpening) -> Polygon:
    """The opening's outline: a rectangle, or one with an arched head (a segment of a circle)."""
    x0, x1, y0, y1 = placed.left, placed.right, placed.sill.total, placed.head.total
    arch = min(placed.design.arch, placed.design.width / 2, placed.design.height)
    if arch <= 0:
        return rectangle(x0, y0, x1, y1)
    spring = y1 - arch
    # Drawn from right to left, an arc above its chord turns left.
    crown = Axis((x1, spring), (x0, spring), 2 * arch / (x1 - x0)).points()
    ring = [(x0, y0), (x1, y0), *crown]
    return Polygon([point for k, point in enumerate(ring) if math.dist(point, ring[k - 1]) > 1e-6])


def frame_depth(placed: PlacedOpening) -> float:
    """From the outside of a unit's frame to its back."""
    tracks = max((leaf.track for leaf in leaves(placed)), default=0)
    if placed.deep:
        return max(placed.deep, FRAME_DEPTH + tracks * TRACK if tracks else 0.0)
    return FRAME_DEPTH + tracks * TRACK + (DOOR_DEEPER if placed.opening.unit == "door" else 0.0)


def inset(shape: Polygon, face: float, *, open_foot: bool = False) -> Polygon:
    """The outline less a border; with `open_foot` the border stops at the foot."""
    if open_foot:
        x0, y0, x1, _ = shape.bounds
        shape = shape.union(rectangle(x0, y0 - 2 * face, x1, y0 + 1.0))
    inner = largest(shape.buffer(-face, join_style="mitre"))
    if not open_foot:
        return inner
    return largest(inner.intersection(rectangle(x0, y0, x1, shape.bounds[3])))


@lru_cache(maxsize=4096)
def leaves(placed: PlacedOpening) -> tuple[Leaf, ...]:
    """The lights or leaves within the frame, side lights first and last."""
    design, door = placed.design, placed.opening.unit == "door"
    x0, x1 = placed.left + FRAME_FACE, placed.right - FRAME_FACE
    y0 = placed.sill.total + (design.threshold if door else FRAME_FACE)
    y1 = placed.head.total - FRAME_FACE
    found: list[Leaf] = []
    for side in ("start", "end"):
        if design.side_lights in (side, "both"):
            if side == "start":
                found.append(Leaf("side:start", x0, y0, x0 + design.side_width, y1, "fixed"))
                x0 += design.side_width + FRAME_FACE
            else:
                found.append(Leaf("side:end", x1 - design.side_width, y0, x1, y1, "fixed"))
                x1 -= design.side_width + FRAME_FACE
    divided = _door_leaves if door else _window_lights
    return (*found, *divided(placed, x0, y0, x1, y1))


def _window_lights(placed: PlacedOpening, x0: float, y0: float, x1: float, y1: float) -> Iterator[Leaf]:
    design = placed.design
    count = design.panels
    if design.operation == "sliding":
        yield from _sliding(max(count, 2), x0, y0, x1, y1)
        return
    each = (x1 - x0 - FRAME_FACE * (count - 1)) / count
    for k in range(count):
        left = x0 + k * (each + FRAME_FACE)
        right = left + each
        if design.operation == "vertical":
            meeting = (y0 + y1) / 2
            yield Leaf(f"upper:{k}", left, meeting - MEETING / 2, right, y1, "down", 0)
            yield Leaf(f"lower:{k}", left, y0, right, meeting + MEETING / 2, "up", 1)
        else:
            yield Leaf(f"light:{k}", left, y0, right, y1, _light_action(placed, k))


MEETING = 45.0
"""How far sliding sashes overlap where they meet. Common practice, no source."""


def _light_action(placed: PlacedOpening, k: int) -> Action:
    """Casements of a group hang at the outer sides; the middle one of three or more is fixed."""
    design, count = placed.design, placed.design.panels
    if design.operation == "awning":
        return "top"
    if design.operation == "fixed":
        return "fixed"
    if count == 1:
        return placed.opening.hinge
    if k == 0:
        return "start"
    return "end" if k == count - 1 else "fixed"


def _sliding(count: int, x0: float, y0: float, x1: float, y1: float) -> Iterator[Leaf]:
    """Sashes on two tracks; the first of two is fixed, as are the outer ones of three and four."""
    each = (x1 - x0 + MEETING * (count - 1)) / count
    moving: dict[int, dict[int, Action]] = {2: {1: "back"}, 3: {1: "along"}, 4: {1: "back", 2: "along"}}
    actions = moving.get(count, {k: "along" for k in range(1, count, 2)})
    for k in range(count):
        left = x0 + k * (each - MEETING)
        action = actions.get(k, "fixed")
        yield Leaf(f"sash:{k}", left, y0, left + each, y1, action, 1 if action != "fixed" else 0)


JOINT = 1.5
"""Half of the joint between two leaves. Common practice, no source."""


def _door_leaves(placed: PlacedOpening, x0: float, y0: float, x1: float, y1: float) -> Iterator[Leaf]:
    design, glazed = placed.design, placed.design.leaf == "glazed"
    if design.operation == "hinged":
        yield Leaf("leaf", x0, y0, x1, y1, placed.opening.hinge, glazed=glazed)
    elif design.operation == "double":
        part = x0 + (x1 - x0) * design.share
        yield Leaf("leaf:start", x0, y0, part - JOINT, y1, "start", glazed=glazed)
        yield Leaf("leaf:end", part + JOINT, y0, x1, y1, "end", glazed=glazed)
    elif design.operation == "sliding":
        yield from _sliding(min(max(design.panels, 2), 4), x0, y0, x1, y1)
    elif design.operation == "pocket":
        yield Leaf("leaf", x0, y0, x1, y1, "pocket", glazed=glazed)
    elif design.operation == "bifold":
        count = 2 * math.ceil(max(design.panels, 2) / 2)
        stops = [x0 + (x1 - x0) * k / count for k in range(count + 1)]
        for k, (left, right) in enumerate(itertools.pairwise(stops)):
            yield Leaf(f"leaf:{k}", left + JOINT, y0, right - JOINT, y1, "fold", glazed=glazed)
    elif design.operation == "overhead":
        rows = 4 if y1 - y0 < 2600 else 5
        stops = [y0 + (y1 - y0) * k / rows for k in range(rows + 1)]
        for k, (low, high) in enumerate(itertools.pairwise(stops)):
            yield Leaf(f"section:{k}", x0, low + JOINT, x1, high - JOINT, "lift", glazed=False)


def posts(placed: PlacedOpening) -> Polygon | None:
    """The posts of the frame between lights that stand side by side; None when there are none."""
    found = []
    level = sorted((leaf for leaf in leaves(placed)), key=lambda leaf: leaf.left)
    for first, second in itertools.pairwise(level):
        if abs(second.left - first.right - FRAME_FACE) < 0.5:
            found.append(rectangle(first.right, placed.sill.total, second.left, placed.head.total))
    if not found:
        return None
    shape = shapely.union_all(found).intersection(outline(placed))
    return largest(shape) if len(list(polygons_of(shape))) == 1 else shape
