"""The masonry demo: an L-shaped bungalow in millimetres. All of it is invented."""

from __future__ import annotations

from deepsection.core.edits import DrawRoof, DrawWalls, apply_edits, put, rebuild
from deepsection.core.model import Corner, Opening, Project, RoofBlock, Room, SectionLine, SetIn, Sheet, WallSection
from deepsection.core.starters.projects import new_project

from .pieces import door, eave, engineered, gable, on, partition, ring, sheet, strips_sheet, wall_sections, window

SET_BACK = SetIn(layer="outer", face="outer", distance=70.0)


def fernacre_bungalow() -> Project:
    """Fernacre: 13.5 m x 7.5 m with a 6 m wide wing running 4.2 m north, both at 30 degrees."""
    project = new_project("fernacre", "Fernacre bungalow", "mm", "masonry")
    project = rebuild(project, place="Plot 3, Tarn Hollow", author="Deep Section demo")
    project = apply_edits(project, (_walls(), *_partitions()))
    project = put(project, *_openings(), *_rooms())
    project = apply_edits(project, tuple(DrawRoof(roof=roof) for roof in _roofs()))
    return put(project, *engineered(project), *_sections(), *_strips(), *_sheets())


def _walls() -> DrawWalls:
    corners = (
        ("sw", 0.0, 0.0),
        ("se", 13500.0, 0.0),
        ("ne", 13500.0, 7500.0),
        ("inside", 6000.0, 7500.0),
        ("wing-e", 6000.0, 11700.0),
        ("wing-w", 0.0, 11700.0),
    )
    return ring(corners, ("south", "east", "north", "wing-east", "wing-north", "west"), "wall-cavity")


def _partitions() -> tuple[DrawWalls, ...]:
    return (
        partition("cross", on("p1", "south", 8600.0), on("p2", "north", 4900.0)),
        partition("bath-wall", on("p3", "cross", 4100.0), on("p4", "east", 4100.0)),
    )


def _window(id: str, wall: str, at: float, width: float, height: float, across: int = 1) -> Opening:
    return window(id, wall, at, width, height, 2100.0, trim=0.0, set_in=SET_BACK, bars_across=across)


def _door(id: str, wall: str, at: float, width: float, height: float, **more: object) -> Opening:
    return door(id, wall, at, width, height, trim=0.0, **more)


def _openings() -> tuple[Opening, ...]:
    return (
        _window("w1", "south", 2400.0, 2400.0, 1500.0, 3),
        _door("d1", "south", 6300.0, 1010.0, 2100.0, set_in=SET_BACK),
        _window("w2", "south", 11000.0, 1800.0, 1200.0, 2),
        _window("w3", "east", 2000.0, 1200.0, 1200.0, 2),
        _window("w4", "east", 5700.0, 600.0, 900.0),
        _window("w5", "north", 2500.0, 1200.0, 1050.0, 2),
        _door("d2", "wing-east", 2100.0, 1500.0, 2100.0, hinge="end", set_in=SET_BACK),
        _window("w6", "wing-north", 3000.0, 2400.0, 1500.0, 3),
        _window("w7", "west", 2600.0, 1800.0, 1200.0, 2),
        _window("w8", "west", 8200.0, 1800.0, 1200.0, 2),
        _door("d3", "cross", 2400.0, 910.0, 2040.0),
        _door("d4", "bath-wall", 1200.0, 810.0, 2040.0),
    )


def _rooms() -> tuple[Room, ...]:
    places = (
        ("living", "Living", 3600.0, 4600.0),
        ("bed", "Bedroom", 11000.0, 2200.0),
        ("bath", "Bathroom", 11200.0, 5700.0),
    )
    return tuple(Room(id=f"room-{id}", name=name, x=x, y=y) for id, name, x, y in places)


def _roofs() -> tuple[RoofBlock, ...]:
    def block(id: str, name: str, x0: float, y0: float, x1: float, y1: float) -> RoofBlock:
        edge, end = eave(450.0), gable(200.0)
        return RoofBlock(
            id=id,
            name=name,
            outline=tuple(Corner(x=x, y=y) for x, y in ((x0, y0), (x1, y0), (x1, y1), (x0, y1))),
            edges=(edge, end, edge, end),
            pitch=0.57735026919,
            plate="plate",
            seat=60.0,
            make_up="roof",
            fascia_depth=200.0,
            fascia_thickness=25.0,
        )

    return (
        block("roof-main", "Main roof", 0.0, 0.0, 13500.0, 7500.0),
        block("roof-wing", "Wing roof", 0.0, 7500.0, 6000.0, 11700.0),
    )


def _sections() -> tuple[SectionLine, ...]:
    return (
        SectionLine(id="section-a", name="A", x1=9700.0, y1=-2200.0, x2=9700.0, y2=9700.0, look="right"),
        SectionLine(id="section-b", name="B", x1=-2200.0, y1=9300.0, x2=8200.0, y2=9300.0),
    )


def _strips() -> tuple[WallSection, ...]:
    return wall_sections(("south", 2400.0, "start"), ("west", 8200.0, "start"), ("wing-east", 2100.0, "start"))


def _sheets() -> tuple[Sheet, ...]:
    return (
        sheet(
            1,
            "Elevations",
            "A2",
            ("elevation:south", 100, 170, 312),
            ("elevation:east", 100, 440, 312),
            ("elevation:north", 100, 170, 152),
            ("elevation:west", 100, 440, 152),
        ),
        sheet(2, "Section and plan", "A2", ("section:section-a", 50, 185, 290), ("plan", 100, 455, 285)),
        sheet(3, "Schedules", "A3", ("schedule:openings", 100, 160, 235)),
        strips_sheet(4, "A1", 20, (165, 294), (425, 329.5), (685, 294)),
    )
