"""How a view sees points in space, and what lies under a point of a view."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ..geometry import Frame, Point
from ..resolve import Building, Part
from ..resolve.locating import Vector, crossings

FAR = 1e6
"""From farther off than anything is built (mm)."""


@dataclass(frozen=True, slots=True)
class Sight:
    """What a view, or a panel of it, shows: along a frame, or from above with what lies ahead of it up on paper.

    `between`: from where to where along u it shows something, before it is moved by `shift` (mm). `depths`: how far
    before and behind the plane of the frame. `start`: the depth, or from above the height, at which it begins.
    """

    frame: Frame
    above: bool = False
    shift: float = 0.0
    between: tuple[float, float] = (-math.inf, math.inf)
    depths: tuple[float, float] = (-math.inf, math.inf)
    start: float = -FAR

    def seen(self, at: Vector) -> Point | None:
        """(u, v) of a point in space; None where this does not show it."""
        if self.above:
            return self.frame.plan_to_turned(at[0], at[1])
        u = at[0] * self.frame.ux + at[1] * self.frame.uy
        depth = self.frame.depth(at[0], at[1])
        shown = self.between[0] - 1 <= u <= self.between[1] + 1 and self.depths[0] <= depth <= self.depths[1]
        return (u + self.shift, at[2]) if shown else None

    def holds(self, u: float) -> bool:
        """Whether this shows what lies at u of the view."""
        return self.between[0] <= u - self.shift <= self.between[1]

    def line(self, u: float, v: float) -> tuple[Vector, Vector]:
        """(origin, direction) of the line of sight through a point of the view, from where the view begins."""
        if self.above:
            return (*self.frame.turned_to_plan(u, v), -self.start), (0.0, 0.0, -1.0)
        frame = self.frame
        # From the origin of the world along u, then to the depth at which the view begins.
        x, y = (u - self.shift) * frame.ux, (u - self.shift) * frame.uy
        depth = self.start - frame.depth(x, y)
        return (x + depth * frame.dx, y + depth * frame.dy, v), (frame.dx, frame.dy, 0.0)

    def base(self, u: float, v: float) -> Vector:
        """The point in space of a point of the view, where nothing lies there: in the plane of the frame; from above,
        on the datum."""
        (x, y, z), _ = self.line(u, v)
        if self.above:
            return x, y, 0.0
        back = -self.frame.depth(x, y)
        return x + back * self.frame.dx, y + back * self.frame.dy, z

    def beside(self, part: Part, u: float, v: float) -> Vector:
        """The point in space of a point of the view, as far off as the middle of a part is."""
        x, y, z = self.base(u, v)
        x0, y0, z0, x1, y1, z1 = part.solid.bounds
        if self.above:
            return x, y, (z0 + z1) / 2
        depth = self.frame.depth((x0 + x1) / 2, (y0 + y1) / 2)
        return x + depth * self.frame.dx, y + depth * self.frame.dy, z

    def on(self, part: Part, u: float, v: float) -> Vector | None:
        """The point of a part that one sees at a point of the view: on its surface, or where the view cuts it; None
        where it is not there."""
        origin, way = self.line(u, v)
        ahead = sorted(t for t in crossings(part, origin, way).tolist() if t > -1e-6)
        if not ahead:
            return None
        # Each surface once: a line through an edge meets two triangles.
        parted = [t for k, t in enumerate(ahead) if k == 0 or t - ahead[k - 1] > 1e-3]
        t = 0.0 if len(parted) % 2 else parted[0]
        return origin[0] + t * way[0], origin[1] + t * way[1], origin[2] + t * way[2]


def nearest_part(building: Building, sight: Sight, element: str, u: float, v: float) -> tuple[Part, Vector] | None:
    """Of an element, the part that one sees at a point of the view, and the point of it."""
    origin, way = sight.line(u, v)
    found = []
    for part in building.parts_of(element):
        at = sight.on(part, u, v)
        if at is not None:
            away = sum((a - o) * w for a, o, w in zip(at, origin, way))
            found.append((away, part.key, part, at))
    return min(found)[2:] if found else None
