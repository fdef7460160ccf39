"""Slots in walls: how high those reach in which other walls stand."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator
from dataclasses import replace

import shapely

from ...model import MakeUp, Project, TeeJoint
from ...tolerance import TOL
from .bodies import Slot, WallTop
from .planned import PlannedWall, WallPlan


def with_slots(
    project: Project, plan: WallPlan, make_ups: dict[str, MakeUp], tops: dict[str, WallTop]
) -> dict[str, WallTop]:
    """The tops of walls, with the slots of walls that stand on them and reach less high, or start above their foot."""
    hosts = {joint.id: joint.wall for joint in project.joints if isinstance(joint, TeeJoint)}
    slots: dict[str, list[Slot]] = defaultdict(list)
    for guest in plan.walls:
        for joint, along in ((guest.wall.start, 0.0), (guest.wall.end, guest.length)):
            host = hosts.get(joint)
            if host in tops:
                low, high = tops[guest.wall.id].base, tops[guest.wall.id].height_at(guest, along)
                if high < tops[host].plate - TOL.point or low > tops[host].base + TOL.point:
                    slots[host].append(Slot(shapely.union_all(list(_frames(guest, make_ups))), low, high))
    return {id: replace(top, slots=tuple(slots[id])) if id in slots else top for id, top in tops.items()}


def _frames(wall: PlannedWall, make_ups: dict[str, MakeUp]) -> Iterator[shapely.Geometry]:
    for planned, layer in zip(wall.layers, make_ups[wall.wall.make_up].layers):
        if layer.function == "structure":
            yield planned.polygon
