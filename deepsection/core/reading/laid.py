"""A plan that was read, laid elsewhere."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace

from shapely.affinity import affine_transform
from shapely.geometry.base import BaseGeometry

from ..geometry import Point
from .found import FoundRoof, FoundStair, ReadPlan, Slope, Storey


@dataclass(frozen=True, slots=True)
class Laid:
    """Turned about 0, 0 (degrees counter-clockwise), then so far to the east and north (mm)."""

    east: float = 0.0
    north: float = 0.0
    turn: float = 0.0

    def at(self, point: Point) -> Point:
        """Where a point of the file comes to lie."""
        x, y = self.along(point)
        return x + self.east, y + self.north

    def back(self, point: Point) -> Point:
        """Which point of the file comes to lie there."""
        c, s = self._cos_sin
        x, y = point[0] - self.east, point[1] - self.north
        return c * x + s * y, c * y - s * x

    def along(self, way: Point) -> Point:
        """What becomes of a way."""
        c, s = self._cos_sin
        return c * way[0] - s * way[1], s * way[0] + c * way[1]

    def area(self, held: BaseGeometry) -> BaseGeometry:
        """Where an area comes to lie."""
        c, s = self._cos_sin
        moved: BaseGeometry = affine_transform(held, (c, -s, s, c, self.east, self.north))
        return moved

    @property
    def _cos_sin(self) -> Point:
        return (math.cos(math.radians(self.turn)), math.sin(math.radians(self.turn))) if self.turn else (1.0, 0.0)


def laid(plan: ReadPlan, where: Laid) -> ReadPlan:
    """What is built of a plan, elsewhere; its lines, what is written in it and what is left over stay."""
    if where == Laid():
        return plan
    at = where.at

    def slope(held: Slope) -> Slope:
        a, b = where.along((held.a, held.b))
        return replace(held, area=where.area(held.area), a=a, b=b, c=held.c - a * where.east - b * where.north)

    def roof(held: FoundRoof) -> FoundRoof:
        return replace(
            held,
            outline=tuple(at(point) for point in held.outline),
            slopes=tuple(slope(one) for one in held.slopes),
            wings=tuple(roof(wing) for wing in held.wings),
        )

    def stair(held: FoundStair) -> FoundStair:
        flights = tuple(replace(one, outline=tuple(at(point) for point in one.outline)) for one in held.flights)
        turn = round(math.remainder(held.turn + where.turn, 360.0), 4)
        return replace(held, foot=at(held.foot), turn=turn, flights=flights)

    def storey(held: Storey) -> Storey:
        slab = replace(held.slab, area=where.area(held.slab.area)) if held.slab else None
        return replace(held, shift=where.along(held.shift), slab=slab)

    return replace(
        plan,
        walls=[replace(held, start=at(held.start), end=at(held.end)) for held in plan.walls],
        rooms=[replace(held, at=at(held.at)) for held in plan.rooms],
        grids=[replace(held, start=at(held.start), end=at(held.end)) for held in plan.grids],
        stairs=[stair(held) for held in plan.stairs],
        roofs=[roof(held) for held in plan.roofs],
        storeys=[storey(held) for held in plan.storeys],
    )
