"""Small houses for tests, with numbers that can be checked by hand."""

from __future__ import annotations

import math
from typing import Any

from deepsection.core.drawing import Drawing
from deepsection.core.edits import (
    DrawRoof,
    DrawSetDown,
    DrawWalls,
    LayFloor,
    apply_edits,
    changed,
    put,
    rebuild,
    storey_above,
)
from deepsection.core.geometry import Side, side_direction
from deepsection.core.model import (
    BaseRule,
    Corner,
    Foundation,
    FreeJoint,
    Layer,
    MakeUp,
    Opening,
    Project,
    RoofBlock,
    RoofEdge,
    SetOut,
    Stair,
    TeeJoint,
    TopRule,
    Wall,
)
from deepsection.core.resolve import Building
from deepsection.core.starters.projects import Ground, new_project
from deepsection.core.units import Units
from deepsection.core.view import Setting, draw_elevation


def box_house(width: float, depth: float, units: Units = "mm", *, make_up: str = "wall-lap") -> Project:
    """Four outer walls, counter-clockwise from the south, their frames' outside on a width x depth rectangle."""
    corners = (("sw", 0.0, 0.0), ("se", width, 0.0), ("ne", width, depth), ("nw", 0.0, depth))
    return chain_house(corners, ("south", "east", "north", "west"), units, make_up=make_up)


def joist_house(width: float, depth: float, units: Units = "mm") -> Project:
    """The box house on joists over a crawl space, with a gable roof of 1 in 2 whose eaves lie south and north."""
    corners = (("sw", 0.0, 0.0), ("se", width, 0.0), ("ne", width, depth), ("nw", 0.0, depth))
    house = chain_house(corners, ("south", "east", "north", "west"), units, ground="joists")
    return gable(house, 0.5, overhang=400.0, rake=300.0)


def two_storeys(width: float, depth: float, units: Units = "mm") -> Project:
    """The joist house with a second storey over all of it."""
    house = joist_house(width, depth, units)
    return engineered(apply_edits(house, (storey_above(house, "floor"),)))


def cavity_box(width: float, depth: float) -> Project:
    """Four cavity walls on a slab, counter-clockwise from the south, set out on a width x depth rectangle."""
    corners = (("sw", 0.0, 0.0), ("se", width, 0.0), ("ne", width, depth), ("nw", 0.0, depth))
    walls = DrawWalls(
        joints=tuple(FreeJoint(id=id, x=x, y=y) for id, x, y in corners),
        chain=("sw", "se", "ne", "nw", "sw"),
        walls=("south", "east", "north", "west"),
        make_up="wall-cavity",
        base="floor",
        top="plate",
    )
    return apply_edits(engineered(new_project("m", "Block house", "mm", "masonry")), (walls,))


def block_house(upper: str = "floor-concrete", *, ground: bool = False, inner: bool = False) -> Project:
    """Two storeys of cavity walls, 8 x 6 m to the outer leaves: 7300 x 5300 within the inner ones.

    The upper floor is of a make-up; with beams and blocks over the `ground`, and an `inner` wall of block that bears,
    4.5 m from the west.
    """
    house = cavity_box(8000.0, 6000.0)
    if ground:
        house = apply_edits(house, (LayFloor(id="ground", level="floor", x=2000.0, y=2000.0),))
    if inner:
        house = with_inner(house, "inner", ("south", 4500.0), ("north", 3500.0), "floor")
        house = put(house, changed(house.find("inner"), bearing="yes"))
    storey = storey_above(house, "floor")
    return engineered(apply_edits(house, (changed(storey, make_up=upper, floor="upper"),)))


SHOWER = ((2000.0, 2000.0), (3500.0, 2000.0), (3500.0, 3200.0), (2000.0, 3200.0))
"""1500 x 1200 in the middle of a slab of 200 under 25 of insulation and 65 of screed."""


def slab_house(
    corners: Any = SHOWER, drop: float = 100.0, thickness: float = 200.0, house: Project | None = None
) -> Project:
    """A house of 7300 x 5300 within its leaves, a part of its upper slab set down."""
    house = house or block_house()
    level = house.find("upper").level
    house = apply_edits(house, (DrawSetDown(id="low", level=level, corners=corners),))
    own = next(held for held in house.make_ups if held.id == "floor-concrete")
    slab = own.layers[own.carrying or 0]
    layers = tuple(changed(layer, thickness=thickness) if layer is slab else layer for layer in own.layers)
    other = changed(own, id="other", name="other slab", layers=layers)
    return put(house, other, changed(house.decks[0], make_up="other", drop=drop))


def with_inner(house: Project, id: str, one: tuple[str, float], other: tuple[str, float], base: str) -> Project:
    """A house with an inner wall of block from a place on a wall, so far from its start, to one on another wall."""
    ends = {f"{id}-{k}": at for k, at in enumerate((one, other), 1)}
    wall = DrawWalls(
        joints=tuple(TeeJoint(id=tee, wall=on, end="start", distance=far) for tee, (on, far) in ends.items()),
        chain=tuple(ends),
        walls=(id,),
        make_up="wall-inner",
        status="inner",
        base=base,
        top="plate",
    )
    return apply_edits(house, (wall,))


def engineered(project: Project) -> Project:
    """With floors and ceilings whose joists an engineer sized: they may span as far as a test asks."""
    laid = (*project.floors, *project.ceilings)
    return put(project, *(changed(held, sized="by an engineer") for held in laid))


def stair_house(units: Units = "mm", **stair: Any) -> Project:
    """Two storeys of 9 x 7 m with a stair up from (2 m, 3.5 m) to the east, between the first level and the next."""
    house = two_storeys(9000.0, 7000.0, units)
    upper = next(floor.level for floor in house.floors if floor.level != "floor")
    facts = {"id": "way-up", "level": "floor", "upper": upper, "x": 2000.0, "y": 3500.0, "width": 940.0} | stair
    return put(house, Stair.model_validate(facts))


def chain_house(
    corners: tuple[tuple[str, float, float], ...],
    walls: tuple[str, ...],
    units: Units = "mm",
    *,
    make_up: str = "wall-lap",
    ground: Ground = "slab",
) -> Project:
    """A closed chain of outer walls through corners."""
    ids = tuple(id for id, _, _ in corners)
    draw = DrawWalls(
        joints=tuple(FreeJoint(id=id, x=x, y=y) for id, x, y in corners),
        chain=(*ids, ids[0]),
        walls=walls,
        make_up=make_up,
        base="floor",
        top="plate",
    )
    return apply_edits(engineered(new_project("p", "House", units, ground=ground)), (draw,))


def l_house(ground: Ground = "slab") -> Project:
    """An L in millimetres: 12 m x 6.5 m with a 7 m x 3 m leg at its north-west."""
    corners = (
        ("a", 0.0, 0.0),
        ("b", 12000.0, 0.0),
        ("c", 12000.0, 6500.0),
        ("d", 7000.0, 6500.0),
        ("e", 7000.0, 9500.0),
        ("f", 0.0, 9500.0),
    )
    return chain_house(corners, ("w1", "w2", "w3", "w4", "w5", "w6"), ground=ground)


def gable(project: Project, pitch: float, *, overhang: float = 0.0, rake: float = 0.0, seat: float = 90.0) -> Project:
    """The box house with a gable roof whose eaves lie south and north."""
    eave, end = RoofEdge(kind="eave", overhang=overhang), RoofEdge(kind="gable", overhang=rake)
    roof = RoofBlock(
        id="roof-1",
        name="Main roof",
        outline=tuple(Corner(joint=joint) for joint in ("sw", "se", "ne", "nw")),
        edges=(eave, end, eave, end),
        pitch=pitch,
        plate="plate",
        seat=seat,
        make_up="roof",
        fascia_depth=190.0,
    )
    return put(project, roof)


def roof_block(
    id: str,
    name: str,
    corners: tuple[tuple[float, float], ...],
    pitch: float,
    *,
    overhang: float = 400.0,
    rake: float = 300.0,
    ridge: str = "x",
) -> RoofBlock:
    """A gable roof over a rectangle, counter-clockwise from its south-west corner, ridge along x or y."""
    eave, end = RoofEdge(kind="eave", overhang=overhang), RoofEdge(kind="gable", overhang=rake)
    return RoofBlock(
        id=id,
        name=name,
        outline=tuple(Corner(x=x, y=y) for x, y in corners),
        edges=(eave, end, eave, end) if ridge == "x" else (end, eave, end, eave),
        pitch=pitch,
        plate="plate",
        seat=90.0,
        make_up="roof",
        fascia_depth=190.0,
    )


def rectangle(x0: float, y0: float, x1: float, y1: float) -> tuple[tuple[float, float], ...]:
    """Corners counter-clockwise from the south-west."""
    return (x0, y0), (x1, y0), (x1, y1), (x0, y1)


def roofed_l(pitch: float = 0.5, leg_pitch: float | None = None) -> Project:
    """An L of 12 m x 6 m with a leg 5 m wide and 4 m deep at its north-west, running into the main slope."""
    corners = (
        ("a", 0.0, 0.0),
        ("b", 12000.0, 0.0),
        ("c", 12000.0, 6000.0),
        ("d", 5000.0, 6000.0),
        ("e", 5000.0, 10000.0),
        ("f", 0.0, 10000.0),
    )
    house = chain_house(corners, ("w1", "w2", "w3", "w4", "w5", "w6"))
    main = roof_block("roof-main", "Main roof", rectangle(0, 0, 12000, 6000), pitch)
    leg = roof_block("roof-leg", "Leg roof", rectangle(0, 6000, 5000, 10000), leg_pitch or pitch)
    return apply_edits(house, (DrawRoof(roof=main), DrawRoof(roof=leg)))


def window(
    id: str, wall: str, at: float, *, width: float = 1200.0, height: float = 1200.0, sill: float = 900.0
) -> Opening:
    """A window measured from the start of its wall."""
    return Opening(
        id=id,
        wall=wall,
        end="start",
        distance=at,
        width=width,
        height=height,
        sill=sill,
        unit="window",
        number=id.upper(),
    )


def plain_wall(*, opening: Opening | None = None, angle_deg: float = 0.0) -> Project:
    """One wall of one layer, 6000 x 200 x 2700, standing on grade: check value 10 of the reference table."""
    turn = math.radians(angle_deg)
    x, y = 6000.0 * math.cos(turn), 6000.0 * math.sin(turn)
    base = new_project("p", "One wall", "mm")
    solid = MakeUp(
        id="solid",
        name="concrete",
        use="wall",
        layers=(Layer(id="core", name="concrete", material="concrete", function="structure", thickness=200.0),),
    )
    rungs = tuple(
        rung.model_copy(
            update={
                "terms": (rung.terms[0].model_copy(update={"value": 2700.0}),),
                "free": rung.terms[0].id,
                "from_rung": "grade",
            }
        )
        if rung.id == "plate"
        else rung
        for rung in base.rungs
    )
    base = rebuild(base, rungs=rungs, foundations=(), ceilings=())
    wall = Wall(
        id="w",
        start="a",
        end="b",
        make_up="solid",
        set_out=SetOut(layer="core", face="outer"),
        outside="right",
        base=BaseRule(level="grade"),
        top=TopRule(kind="level", level="plate"),
    )
    built = put(base, solid, FreeJoint(id="a", x=0.0, y=0.0), FreeJoint(id="b", x=x, y=y), wall)
    return put(built, opening) if opening else built


__all__ = [
    "Foundation",
    "box_house",
    "chain_house",
    "gable",
    "joist_house",
    "l_house",
    "plain_wall",
    "put",
    "rectangle",
    "roof_block",
    "roofed_l",
    "two_storeys",
    "window",
]


def side_view(building: Building, side: Side) -> Drawing:
    """The elevation of a side at 1:50, in millimetres."""
    return draw_elevation(building, f"elevation:{side}", f"{side} elevation", side_direction(side), Setting(50, "mm"))
