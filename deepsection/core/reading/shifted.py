"""A plan that was read, laid elsewhere."""

from __future__ import annotations

from dataclasses import replace

from shapely.affinity import translate

from ..geometry import Point
from .found import FoundRoof, ReadPlan, Slope, Storey


def shifted(plan: ReadPlan, by: Point) -> ReadPlan:
    """What is built of a plan, so far to the east and north (mm); its lines, what is written in it and what is left
    over stay."""
    dx, dy = by
    if not (dx or dy):
        return plan

    def at(point: Point) -> Point:
        return point[0] + dx, point[1] + dy

    def slope(held: Slope) -> Slope:
        return replace(held, area=translate(held.area, dx, dy), c=held.c - held.a * dx - held.b * dy)

    def roof(held: FoundRoof) -> FoundRoof:
        return replace(
            held,
            outline=tuple(at(point) for point in held.outline),
            slopes=tuple(slope(one) for one in held.slopes),
            wings=tuple(roof(wing) for wing in held.wings),
        )

    def storey(held: Storey) -> Storey:
        slab = replace(held.slab, area=translate(held.slab.area, dx, dy)) if held.slab else None
        return replace(held, slab=slab)

    return replace(
        plan,
        walls=[replace(held, start=at(held.start), end=at(held.end)) for held in plan.walls],
        rooms=[replace(held, at=at(held.at)) for held in plan.rooms],
        grids=[replace(held, start=at(held.start), end=at(held.end)) for held in plan.grids],
        stairs=[
            replace(
                held,
                foot=at(held.foot),
                flights=tuple(
                    replace(flight, outline=tuple(at(point) for point in flight.outline)) for flight in held.flights
                ),
            )
            for held in plan.stairs
        ],
        roofs=[roof(held) for held in plan.roofs],
        storeys=[storey(held) for held in plan.storeys],
    )
