"""The timber demo: a house with a lower workshop in line, in feet and inches. All of it is invented."""

from __future__ import annotations

from deepsection.core.edits import DrawWalls, apply_edits, put, rebuild
from deepsection.core.model import FreeJoint, Opening, Project, RoofBlock, RoofEdge, Room, SectionLine, Sheet
from deepsection.core.starters.projects import new_project
from deepsection.core.units import parse_length

from .pieces import door, eave, engineered, four_sides, gable, on, partition, ring, sheet, tied, window


def _ft(text: str) -> float:
    return parse_length(text, "ft-in")


def quillback_house() -> Project:
    """Quillback House: 36' x 26' with an 18' x 20' workshop at its east gable, both at 8:12."""
    project = new_project("quillback", "Quillback House", "ft-in")
    project = rebuild(project, place="Lot 7, Sandpiper Row, Marl Inlet", author="Deep Section demo")
    project = apply_edits(project, (_main_walls(), _wing_walls(), *_partitions()))
    return put(project, *engineered(project), *_openings(), *_rooms(), *_roofs(), *_sections(), *_sheets())


def _main_walls() -> DrawWalls:
    x, y = _ft("36'"), _ft("26'")
    corners = (("sw", 0.0, 0.0), ("se", x, 0.0), ("ne", x, y), ("nw", 0.0, y))
    return ring(corners, ("south", "east", "north", "west"), "wall-lap")


def _wing_walls() -> DrawWalls:
    x, low, high = _ft("54'"), _ft("3'"), _ft("23'")
    return DrawWalls(
        joints=(
            on("wing-a", "east", low),
            FreeJoint(id="wing-b", x=x, y=low),
            FreeJoint(id="wing-c", x=x, y=high),
            on("wing-d", "east", high),
        ),
        chain=("wing-d", "wing-c", "wing-b", "wing-a"),
        walls=("wing-north", "wing-east", "wing-south"),
        make_up="wall-batten",
        base="floor",
        top="plate",
    )


def _partitions() -> tuple[DrawWalls, ...]:
    return (
        partition("spine", on("p1", "south", _ft("21'")), on("p2", "north", _ft("15'"))),
        partition("bed-bath", on("p3", "spine", _ft("14'")), on("p4", "east", _ft("14'"))),
        partition("bath-hall", on("p5", "bed-bath", _ft("7'-6\"")), on("p6", "north", _ft("7'-6\""))),
    )


HEAD = _ft("6'-10\"")
"""Windows and doors line up at their heads."""


def _window(id: str, wall: str, at: str, width: str, height: str, across: int = 2, up: int = 2) -> Opening:
    return window(id, wall, _ft(at), _ft(width), _ft(height), HEAD, bars_across=across, bars_up=up)


def _door(id: str, wall: str, at: str, width: str, trim: float = 88.9, hinge: str = "start") -> Opening:
    return door(id, wall, _ft(at), _ft(width), HEAD, trim=trim, hinge=hinge)


def _openings() -> tuple[Opening, ...]:
    return (
        _window("w1", "south", "6'", "5'", "4'-6\"", 3),
        _door("d1", "south", "15'-6\"", "3'-2\""),
        _window("w2", "south", "26'", "3'", "4'"),
        _window("w3", "south", "31'-6\"", "3'", "4'"),
        _window("w4", "north", "4'", "2'", "3'", 1),
        _window("w5", "north", "11'-3\"", "2'", "3'", 1),
        _window("w6", "north", "21'", "6'", "3'-6\"", 3, 1),
        _door("d2", "north", "30'", "3'-2\"", hinge="end"),
        _window("w7", "west", "8'", "4'", "4'-6\""),
        _window("w8", "west", "18'", "4'", "4'-6\""),
        _window("w9", "wing-south", "13'", "5'", "3'", 3),
        _door("d3", "wing-south", "4'-6\"", "3'-6\""),
        _window("w10", "wing-east", "10'", "6'", "3'", 3),
        _door("d4", "spine", "11'", "2'-8\"", 0.0),
        _door("d5", "bed-bath", "4'", "2'-6\"", 0.0),
        _door("d6", "bath-hall", "2'", "2'-6\"", 0.0),
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
    edge, end, abutment = eave(_ft('16"')), gable(_ft('12"')), RoofEdge(kind="abutment")
    seat, fascia = _ft('3 1/2"'), _ft('7 1/4"')

    def block(id: str, name: str, joints: tuple[str, ...], edges: tuple[RoofEdge, ...]) -> RoofBlock:
        return RoofBlock(
            id=id,
            name=name,
            outline=tied(*joints),
            edges=edges,
            pitch=8 / 12,
            plate="plate",
            seat=seat,
            make_up="roof",
            fascia_depth=fascia,
        )

    return (
        block("roof-main", "Main roof", ("sw", "se", "ne", "nw"), (edge, end, edge, end)),
        block("roof-wing", "Workshop roof", ("wing-a", "wing-b", "wing-c", "wing-d"), (edge, end, edge, abutment)),
    )


def _sections() -> tuple[SectionLine, ...]:
    return (
        SectionLine(id="section-a", name="A", x1=_ft("12'"), y1=_ft("-9'"), x2=_ft("12'"), y2=_ft("35'"), look="right"),
        SectionLine(id="section-b", name="B", x1=_ft("-9'"), y1=_ft("10'"), x2=_ft("63'"), y2=_ft("10'")),
    )


def _sheets() -> tuple[Sheet, ...]:
    return (
        sheet(
            1,
            "South elevation and section",
            "ARCH B",
            ("elevation:south", 64, 226, 232),
            ("section:section-a", 128, 130, 86),
        ),
        sheet(
            2,
            "Elevations",
            "ARCH B",
            *four_sides(128, (134, 334), (244, 124)),
        ),
    )
