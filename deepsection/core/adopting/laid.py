"""A plan that was read, laid elsewhere."""

from __future__ import annotations

import math
from dataclasses import replace

from shapely.affinity import affine_transform
from shapely.geometry.base import BaseGeometry

from ..document.motion import Motion
from ..reading import FoundRoof, FoundStair, ReadPlan
from ..reading.found import Slope, Storey

STILL = Motion()


def laid(plan: ReadPlan, where: Motion) -> ReadPlan:
    """What is built of a plan, moved without a mirror; its lines, what is written in it and what is left over stay."""
    if where == STILL:
        return plan
    at, (east, north) = where.at, where.at((0.0, 0.0))

    def area(held: BaseGeometry) -> BaseGeometry:
        (ux, uy), (vx, vy) = where.along(1.0, 0.0), where.along(0.0, 1.0)
        moved: BaseGeometry = affine_transform(held, (ux, vx, uy, vy, east, north))
        return moved

    def slope(held: Slope) -> Slope:
        a, b = where.along(held.a, held.b)
        return replace(held, area=area(held.area), a=a, b=b, c=held.c - a * east - b * north)

    def roof(held: FoundRoof) -> FoundRoof:
        return replace(
            held,
            outline=tuple(at(point) for point in held.outline),
            slopes=tuple(slope(one) for one in held.slopes),
            wings=tuple(roof(wing) for wing in held.wings),
        )

    def stair(held: FoundStair) -> FoundStair:
        flights = tuple(replace(one, outline=tuple(at(point) for point in one.outline)) for one in held.flights)
        turn = math.remainder(where.angle(held.turn), 360.0)
        return replace(held, foot=at(held.foot), turn=turn, flights=flights)

    def storey(held: Storey) -> Storey:
        slab = replace(held.slab, area=area(held.slab.area)) if held.slab else None
        return replace(held, shift=where.along(*held.shift), slab=slab)

    return replace(
        plan,
        walls=[replace(held, start=at(held.start), end=at(held.end)) for held in plan.walls],
        rooms=[replace(held, at=at(held.at)) for held in plan.rooms],
        grids=[replace(held, start=at(held.start), end=at(held.end)) for held in plan.grids],
        stairs=[stair(held) for held in plan.stairs],
        roofs=[roof(held) for held in plan.roofs],
        storeys=[storey(held) for held in plan.storeys],
    )
