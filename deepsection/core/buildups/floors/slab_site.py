"""What the steps and free edges of slabs are built around, in one plane, and where their pieces lie."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

from ...junctions import Junction, Run
from ...resolve import Building
from ...tolerance import TOL
from ...trades.decks.place import DECKS
from ...trades.floors.place import FLOORS, FloorPlan
from ...trades.makeups.model import Tradition
from ...trades.slabs.placed import SLABS
from ..lie import Lie, Trim

PAST = 1000.0
"""Pieces go so far past a corner before they are mitred there (mm)."""


@dataclass(frozen=True, slots=True)
class StepSite:
    """Outward of the edge of a part lies the slab around it (mm), and heights.

    `top`, `carries`, `under`: of the floor around it, of its slab and of the underside of that; `own_top`,
    `own_carries`, `own_under`: of the part; `upstand`: how thick what joins the two is, 0 where nothing does.
    """

    tradition: Tradition
    top: float
    carries: float
    under: float
    own_top: float
    own_carries: float
    own_under: float
    upstand: float

    @property
    def is_lower(self) -> bool:
        """Whether the part is the lower one."""
        return self.own_top < self.top


def step_site(building: Building, junction: Junction) -> StepSite | None:
    """What is built around where a slab goes on at another height."""
    floors = {held.floor.id: held for held in (*building[FLOORS], *building[DECKS])}
    own, around = (floors.get(end.element) for end in junction.ends)
    if own is None or around is None:
        return None
    part = next((held for held in around.parts if held.deck == own.floor.id), None)
    if part is None:
        return None
    (top, carries, under), (own_top, own_carries, own_under) = (_heights(building, held) for held in (around, own))
    return StepSite(
        building.placed.project.tradition,
        top,
        carries,
        under,
        own_top,
        own_carries,
        own_under,
        0.0 if part.upstand.is_empty else own_carries - own_under,
    )


def _heights(building: Building, floor: FloorPlan) -> tuple[float, float, float]:
    """Of the top of a floor, of its slab, and of the underside of that."""
    make_up = building.placed.make_ups[floor.floor.make_up]
    low = floor.top.z - make_up.depth
    thick = make_up.layers[make_up.carrying].thickness if make_up.carrying is not None else 0.0
    return floor.top.z, low + thick, low


@dataclass(frozen=True, slots=True)
class EdgeSite:
    """The free edge of a slab on the ground: `top` of the slab there, which rises inward by `fall` for each mm; its
    thickness; how deep and wide its edge is, 0 where it is plain; how far it `goes_in` from there, at the most."""

    tradition: Tradition
    top: float
    fall: float
    thickness: float
    deep: float
    wide: float
    goes_in: float

    def at(self, u: float, below: float = 0.0) -> tuple[float, float]:
        """A place under the top of the slab, at a distance from its edge."""
        return u, self.top - self.fall * u - below


def edge_site(building: Building, junction: Junction) -> EdgeSite | None:
    """What is built around at a free edge of a slab; None along its fall."""
    held = next((one for one in building[SLABS] if one.slab.id == junction.ends[0].element), None)
    facts = dict(junction.facts)
    goes_in = facts["goes in"]
    assert isinstance(goes_in, float)
    if held is None or facts["side"] == "side":
        # Along its fall nothing runs level.
        return None
    (run,), slab = junction.runs[:1], held.slab
    fall = held.top.a * run.out[0] + held.top.b * run.out[1]
    deep = slab.edge == "deep"
    return EdgeSite(
        building.placed.project.tradition,
        run.start[2],
        -fall,
        slab.thickness,
        slab.edge_depth if deep else 0.0,
        slab.edge_width if deep else 0.0,
        goes_in,
    )


def ring_lies(building: Building, junction: Junction) -> list[Lie]:
    """Along the runs of an edge or a step, at their own heights, mitred where one goes on in another."""
    first = junction.runs[0].start[2]
    return [replace(_lie(run, junction.runs), dz=run.start[2] - first) for run in junction.runs]


def _lie(run: Run, runs: Sequence[Run]) -> Lie:
    # It goes to the right of outward: from the end of its run to its start.
    first, last = run.end[:2], run.start[:2]
    middle = ((first[0] + last[0]) / 2, (first[1] + last[1]) / 2)
    trims: list[Trim] = []
    past = [0.0, 0.0]
    for end, corner in enumerate((first, last)):
        other = next((one for one in runs if one is not run and _ends_at(one, corner)), None)
        if other is None:
            continue
        mx, my = run.out[0] + other.out[0], run.out[1] + other.out[1]
        size = math.hypot(mx, my)
        if size < TOL.point:
            continue
        # The plane through the corner half way between both ways outward.
        normal = -my / size, mx / size
        offset = normal[0] * corner[0] + normal[1] * corner[1]
        if normal[0] * middle[0] + normal[1] * middle[1] < offset:
            normal, offset = (my / size, -mx / size), -offset
        trims.append(Trim(normal, offset))
        past[end] = PAST
    return Lie(first, run.out, math.dist(first, last), tuple(trims), tuple(trims), past[0], past[1])


def _ends_at(run: Run, corner: tuple[float, float]) -> bool:
    return any(math.dist(end[:2], corner) < 1.0 for end in (run.start, run.end))
