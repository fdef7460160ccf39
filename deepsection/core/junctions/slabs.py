"""Junctions of slabs: at walls, at their free edges, at their parts that lie at another height."""

from __future__ import annotations

import itertools
from collections import defaultdict
from collections.abc import Iterator

import shapely
from shapely.geometry import LineString, Polygon
from shapely.geometry.polygon import orient

from ..geometry import Plane3, polygons_of
from ..resolve import Building
from ..trades.decks.place import DECKS
from ..trades.floors.place import FLOORS, FloorPlan
from ..trades.floors.set_downs import SlabPart
from ..trades.slabs.placed import SLABS, PlacedSlab
from .facts import layers_of, rounded
from .junction import End, Fact, Junction, Run

TOUCH = 40.0
"""A slab lies at a wall when it is this near to its outer face (mm)."""
ALONG = 3 * TOUCH
"""And along it when that holds over more than this."""
SHORT = 1.0
"""What is no longer than this (mm) is no run."""
INWARD = 1500.0
"""How far a slab goes on inward of its edge is asked so far (mm)."""
LEVEL = 1e-4
"""An edge is level where its top rises by less for each mm along it."""


def slab_junctions(building: Building) -> Iterator[Junction]:
    """Porch slabs at walls and at their free edges, steps in suspended slabs."""
    yield from _porches(building)
    for held in building[SLABS]:
        yield from _edges(held, building.plan.house)
    decks = {held.floor.id: held for held in building[DECKS]}
    for floor in building[FLOORS]:
        for part in floor.parts:
            yield _step(building, floor, part, decks[part.deck])


def _edges(held: PlacedSlab, house: shapely.Geometry) -> Iterator[Junction]:
    """The free edges of a slab, those to which it falls, those from which it does, and those along its fall apart."""
    slab, by_side = held.slab, defaultdict[str, list[Run]](list)
    for run in (run for piece in polygons_of(held.area) for run in _free(piece, house, held.top)):
        by_side[_side(run, held.top)].append(run)
    for side, runs in sorted(by_side.items()):
        facts: tuple[tuple[str, Fact], ...] = (
            ("side", side),
            ("fall", rounded(slab.fall, 5)),
            ("thickness", rounded(slab.thickness)),
            ("edge depth", rounded(slab.edge_depth if slab.edge == "deep" else 0.0)),
            ("edge width", rounded(slab.edge_width if slab.edge == "deep" else 0.0)),
            ("goes in", rounded(min(_goes_in(run, held.area) for run in runs))),
        )
        yield Junction("slab_edge", (End(slab.id, "free", side),), tuple(runs), facts)


def _goes_in(run: Run, area: shapely.Geometry) -> float:
    """How far a slab goes on inward of the middle of an edge (mm)."""
    (x, y, _), (ox, oy) = run.middle, run.out
    inward = LineString([(x - ox * SHORT, y - oy * SHORT), (x - ox * INWARD, y - oy * INWARD)])
    first = min(shapely.get_parts(inward.intersection(area)), key=shapely.Point(x, y).distance, default=None)
    return SHORT + first.length if first is not None else 0.0


def _side(run: Run, top: Plane3) -> str:
    """Which edge of a slab it is: `low` or `high` at the ends of its fall, `level` where it has none, else `side`."""
    if abs(run.end[2] - run.start[2]) > LEVEL * run.length:
        return "side"
    fall = top.a * run.out[0] + top.b * run.out[1]
    return "level" if abs(fall) <= LEVEL else "low" if fall < 0 else "high"


def _free(area: Polygon, house: shapely.Geometry, top: Plane3) -> Iterator[Run]:
    """The sides of an area that lie along no wall, at the height of its top, outward."""
    near = house.buffer(TOUCH, join_style="mitre")
    for line in _sides(area):
        # Where one only ends at a wall it is free as far as that.
        along = [piece for piece in shapely.get_parts(line.intersection(near)) if piece.length > ALONG]
        for piece in shapely.get_parts(line.difference(shapely.union_all(along)) if along else line):
            yield from _run(piece, top)


def _sides(area: Polygon) -> Iterator[LineString]:
    """The sides of an area, what lies outward at their right."""
    for first, last in itertools.pairwise(orient(area).exterior.coords):
        yield LineString([first, last])


def _run(line: LineString, top: Plane3) -> Iterator[Run]:
    if line.length > SHORT:
        (x0, y0), (x1, y1) = line.coords[0][:2], line.coords[-1][:2]
        out = (y1 - y0) / line.length, -(x1 - x0) / line.length
        yield Run((x0, y0, top.z(x0, y0)), (x1, y1, top.z(x1, y1)), out)


def _step(building: Building, floor: FloorPlan, part: SlabPart, own: FloorPlan) -> Junction:
    """Around a part of a slab where the slab goes on: outward lies what is around it."""
    around = shapely.union_all([bay.region for bay in floor.bays]).union(part.area)
    goes_on = around.buffer(-SHORT, join_style="mitre")
    flat = Plane3(0.0, 0.0, floor.top.z)
    runs = tuple(
        run
        for line in _sides(part.area)
        for piece in shapely.get_parts(line.intersection(goes_on))
        if isinstance(piece, LineString)
        for run in _run(piece, flat)
    )
    facts: tuple[tuple[str, Fact], ...] = (
        ("floor", layers_of(building, floor.floor.make_up)),
        ("part", layers_of(building, own.floor.make_up)),
        ("drop", rounded(floor.top.z - own.top.z)),
        ("joined", not part.upstand.is_empty),
    )
    return Junction("slab_step", (End(part.deck, "edge"), End(floor.floor.id, "around")), runs, facts)


def _porches(building: Building) -> Iterator[Junction]:
    """Where a porch slab lies along an outer wall."""
    for held in building[SLABS]:
        for wall in building.plan.on(held.slab.level):
            if wall.wall.status != "outer":
                continue
            face = LineString([wall.at(0.0, wall.outer), wall.at(wall.length, wall.outer)])
            touched = face.intersection(held.area.buffer(TOUCH))
            if wall.axis.is_arc or touched.length <= ALONG:
                continue
            out = wall.stand().out
            runs = []
            for piece in shapely.get_parts(touched):
                (x0, y0), (x1, y1) = piece.coords[0], piece.coords[-1]
                runs.append(Run((x0, y0, held.top.z(x0, y0)), (x1, y1, held.top.z(x1, y1)), out))
            facts: tuple[tuple[str, Fact], ...] = (
                ("wall", layers_of(building, wall.wall.make_up)),
                ("drop", rounded(held.slab.drop)),
                ("thickness", rounded(held.slab.thickness)),
                ("edge", held.slab.edge),
            )
            yield Junction("porch_slab", (End(held.slab.id, "edge"), End(wall.wall.id, "side")), tuple(runs), facts)
