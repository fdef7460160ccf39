"""The timber demo: a house with a lower workshop in line, in feet and inches. All of it is invented."""

from __future__ import annotations

from deepsection.core.model import (
    Corner,
    DrawWalls,
    FreeJoint,
    HostedJoint,
    Opening,
    PlacedView,
    Project,
    RoofBlock,
    RoofEdge,
    Room,
    SectionLine,
    Sheet,
    apply_edits,
    put,
    rebuild,
)
from deepsection.core.model.starters import new_project
from deepsection.core.units import parse_length


def _ft(text: str) -> float:
    return parse_length(text, "ft-in")


def quillback_house() -> Project:
    """Quillback House: 36' x 26' with an 18' x 20' workshop at its east gable, both at 8:12."""
    project = new_project("quillback", "Quillback House", "ft-in")
    project = rebuild(project, place="Lot 7, Sandpiper Row, Marl Inlet", author="Deep Section demo")
    project = apply_edits(project, (_main_walls(), _wing_walls(), *_partitions()))
    return put(project, *_openings(), *_rooms(), *_roofs(), *_sections(), *_sheets())


def _main_walls() -> DrawWalls:
    x, y = _ft("36'"), _ft("26'")
    joints = tuple(
        FreeJoint(id=id, x=px, y=py) for id, px, py in (("sw", 0, 0), ("se", x, 0), ("ne", x, y), ("nw", 0, y))
    )
    return DrawWalls(
        joints=joints,
        chain=("sw", "se", "ne", "nw", "sw"),
        walls=("south", "east", "north", "west"),
        make_up="wall-lap",
        base="floor",
        top="plate",
    )


def _wing_walls() -> DrawWalls:
    x, low, high = _ft("54'"), _ft("3'"), _ft("23'")
    return DrawWalls(
        joints=(
            HostedJoint(id="wing-a", wall="east", end="start", distance=low),
            FreeJoint(id="wing-b", x=x, y=low),
            FreeJoint(id="wing-c", x=x, y=high),
            HostedJoint(id="wing-d", wall="east", end="start", distance=high),
        ),
        chain=("wing-d", "wing-c", "wing-b", "wing-a"),
        walls=("wing-north", "wing-east", "wing-south"),
        make_up="wall-batten",
        base="floor",
        top="plate",
    )


def _partitions() -> tuple[DrawWalls, ...]:
    def inner(id: str, first: HostedJoint, second: HostedJoint) -> DrawWalls:
        return DrawWalls(
            joints=(first, second),
            chain=(first.id, second.id),
            walls=(id,),
            make_up="wall-inner",
            status="inner",
            base="floor",
            top="plate",
        )

    def on(id: str, wall: str, distance: str) -> HostedJoint:
        return HostedJoint(id=id, wall=wall, end="start", distance=_ft(distance))

    return (
        inner("spine", on("p1", "south", "21'"), on("p2", "north", "15'")),
        inner("bed-bath", on("p3", "spine", "14'"), on("p4", "east", "14'")),
        inner("bath-hall", on("p5", "bed-bath", "7'-6\""), on("p6", "north", "7'-6\"")),
    )


def _window(
    id: str, number: str, wall: str, at: str, width: str, height: str, head: str, across: int = 2, up: int = 2
) -> Opening:
    return Opening(
        id=id,
        wall=wall,
        end="start",
        distance=_ft(at),
        width=_ft(width),
        height=_ft(height),
        sill=_ft(head) - _ft(height),
        unit="window",
        number=number,
        bars_across=across,
        bars_up=up,
    )


def _door(id: str, number: str, wall: str, at: str, width: str, trim: float = 88.9, hinge: str = "start") -> Opening:
    return Opening.model_validate(
        dict(
            id=id,
            wall=wall,
            end="start",
            distance=_ft(at),
            width=_ft(width),
            height=_ft("6'-10\""),
            sill=0.0,
            unit="door",
            number=number,
            trim=trim,
            hinge=hinge,
        )
    )


def _openings() -> tuple[Opening, ...]:
    return (
        _window("w1", "W1", "south", "6'", "5'", "4'-6\"", "6'-10\"", 3),
        _door("d1", "D1", "south", "15'-6\"", "3'-2\""),
        _window("w2", "W2", "south", "26'", "3'", "4'", "6'-10\""),
        _window("w3", "W3", "south", "31'-6\"", "3'", "4'", "6'-10\""),
        _window("w4", "W4", "north", "4'", "2'", "3'", "6'-10\"", 1),
        _window("w5", "W5", "north", "11'-3\"", "2'", "3'", "6'-10\"", 1),
        _window("w6", "W6", "north", "21'", "6'", "3'-6\"", "6'-10\"", 3, 1),
        _door("d2", "D2", "north", "30'", "3'-2\"", hinge="end"),
        _window("w7", "W7", "west", "8'", "4'", "4'-6\"", "6'-10\""),
        _window("w8", "W8", "west", "18'", "4'", "4'-6\"", "6'-10\""),
        _window("w9", "W9", "wing-south", "13'", "5'", "3'", "6'-10\"", 3),
        _door("d3", "D3", "wing-south", "4'-6\"", "3'-6\""),
        _window("w10", "W10", "wing-east", "10'", "6'", "3'", "6'-10\"", 3),
        _door("d4", "D4", "spine", "11'", "2'-8\"", 0.0),
        _door("d5", "D5", "bed-bath", "4'", "2'-6\"", 0.0),
        _door("d6", "D6", "bath-hall", "2'", "2'-6\"", 0.0),
    )


def _rooms() -> tuple[Room, ...]:
    places = (
        ("living", "Living and kitchen", "7'-6\"", "16'"),
        ("bedroom", "Bedroom", "28'-6\"", "6'"),
        ("bath", "Bath", "32'", "21'-6\""),
        ("study", "Study", "24'-9\"", "21'-6\""),
        ("workshop", "Workshop", "45'", "15'"),
    )
    return tuple(Room(id=f"room-{id}", name=name, x=_ft(x), y=_ft(y)) for id, name, x, y in places)


def _roofs() -> tuple[RoofBlock, ...]:
    eave, gable, abutment = (
        RoofEdge(kind="eave", overhang=_ft('16"')),
        RoofEdge(kind="gable", overhang=_ft('12"')),
        RoofEdge(kind="abutment"),
    )
    seat, fascia = _ft('3 1/2"'), _ft('7 1/4"')

    def block(id: str, name: str, joints: tuple[str, ...], edges: tuple[RoofEdge, ...]) -> RoofBlock:
        return RoofBlock(
            id=id,
            name=name,
            outline=tuple(Corner(joint=joint) for joint in joints),
            edges=edges,
            pitch=8 / 12,
            plate="plate",
            seat=seat,
            make_up="roof",
            fascia_depth=fascia,
        )

    return (
        block("roof-main", "Main roof", ("sw", "se", "ne", "nw"), (eave, gable, eave, gable)),
        block("roof-wing", "Workshop roof", ("wing-a", "wing-b", "wing-c", "wing-d"), (eave, gable, eave, abutment)),
    )


def _sections() -> tuple[SectionLine, ...]:
    return (
        SectionLine(id="section-a", name="A", x1=_ft("12'"), y1=_ft("-9'"), x2=_ft("12'"), y2=_ft("35'"), look="right"),
        SectionLine(id="section-b", name="B", x1=_ft("-9'"), y1=_ft("10'"), x2=_ft("63'"), y2=_ft("10'")),
    )


def _sheets() -> tuple[Sheet, ...]:
    def at(id: str, view: str, scale: float, x: float, y: float) -> PlacedView:
        return PlacedView(id=id, view=view, scale=scale, x=x, y=y)

    return (
        Sheet(
            id="sheet-1",
            number="A1",
            name="South elevation and section",
            paper="ARCH B",
            placed=(at("v1", "elevation:south", 64, 226, 235), at("v2", "section:section-a", 64, 150, 102)),
        ),
        Sheet(
            id="sheet-2",
            number="A2",
            name="Elevations",
            paper="ARCH B",
            placed=(
                at("v3", "elevation:south", 96, 152, 244),
                at("v4", "elevation:east", 96, 361, 244),
                at("v5", "elevation:north", 96, 152, 124),
                at("v6", "elevation:west", 96, 361, 124),
            ),
        ),
    )
