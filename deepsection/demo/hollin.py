"""The sloping demo: a rendered bothy on a battered stone plinth, on ground that falls. All of it is invented."""

from __future__ import annotations

from deepsection.core.edits import DrawRoof, DrawWalls, PutWall, apply_edits, changed, put, rebuild
from deepsection.core.model import (
    FreeJoint,
    GridLine,
    GroundSpot,
    Layer,
    MakeUp,
    Moulding,
    Opening,
    Project,
    RoofBlock,
    Room,
    SectionLine,
    SectionSpot,
    SetIn,
    Sheet,
    Wall,
    WallSection,
)
from deepsection.core.starters.projects import new_project

from .pieces import door, eave, engineered, gable, on, partition, ring, sheet, strips_sheet, tied, wall_sections, window

LONG, DEEP = 10800.0, 6600.0
SET_BACK = SetIn(layer="outer", face="outer", distance=70.0)
SIDES = ("south", "east", "north", "west")
GARDEN = "garden-wall"


def hollin_bothy() -> Project:
    """Hollin Bothy: 10.8 m x 6.6 m under a gable roof, its hall vaulted; beside it a garden wall of stone."""
    project = new_project("hollin", "Hollin Bothy", "mm", "masonry")
    project = rebuild(project, place="Upper Close, Thrushmere", author="Deep Section demo")
    project = put(project, _stone())
    project = apply_edits(project, (_walls(), *_partitions(), _garden()))
    project = apply_edits(project, tuple(_dressed(project, id) for id in SIDES))
    project = apply_edits(project, (_built(project),))
    project = put(project, *_openings(), *_rooms(), *_grid(), *_ground())
    project = apply_edits(project, (DrawRoof(roof=_roof()),))
    project = put(project, *_under_roof(project))
    return put(project, *engineered(project), *_sections(), *_strips(), *_sheets())


def _stone() -> MakeUp:
    layer = Layer(id="stone", name="coursed stone", material="stone", function="structure", thickness=450.0)
    return MakeUp(id="wall-stone", name="stone wall 450", use="wall", layers=(layer,))


def _walls() -> DrawWalls:
    corners = (("sw", 0.0, 0.0), ("se", LONG, 0.0), ("ne", LONG, DEEP), ("nw", 0.0, DEEP))
    return ring(corners, SIDES, "wall-cavity")


def _partitions() -> tuple[DrawWalls, ...]:
    return (
        partition("cross", on("p1", "south", 6600.0), on("p2", "north", 4200.0)),
        partition("bath-wall", on("p3", "cross", 4000.0), on("p4", "east", 4000.0)),
    )


def _garden() -> DrawWalls:
    """Along the upper side of the garden, clear of the house."""
    return DrawWalls(
        joints=(FreeJoint(id="g1", x=-8700.0, y=1200.0), FreeJoint(id="g2", x=-4200.0, y=1200.0)),
        chain=("g1", "g2"),
        walls=(GARDEN,),
        make_up="wall-stone",
        base="floor",
        top="plate",
    )


def _built(project: Project) -> PutWall:
    """Battered on both faces, and stepped up towards the house."""
    wall = project.find(GARDEN)
    top = changed(wall.top, kind="fixed", height=1850.0, steps=({"distance": 2400.0, "rise": 300.0},))
    base = changed(wall.base, offset=-150.0)
    return PutWall(wall=changed(wall, top=top, base=base, batter_outer=4.0, batter_inner=4.0))


PLINTH = ((0.0, 0.0), (200.0, 0.0), (90.0, 1150.0), (0.0, 1210.0))
BAND = ((0.0, 0.0), (40.0, 0.0), (40.0, 150.0), (0.0, 175.0))
"""Sections (out, up): a battered plinth with a weathered top, and a flat band over the heads."""


def _dressed(project: Project, id: str) -> PutWall:
    def moulding(name: str, ring: tuple[tuple[float, float], ...], offset: float) -> Moulding:
        section = tuple(SectionSpot(out=out, up=up) for out, up in ring)
        return Moulding(id=name, name=name, offset=offset, material="stone", section=section)

    dressed = (moulding("plinth", PLINTH, -600.0), moulding("band", BAND, 2150.0))
    return PutWall(wall=changed(project.find(id), mouldings=dressed))


def _window(id: str, wall: str, at: float, width: float, height: float, across: int = 1) -> Opening:
    return window(id, wall, at, width, height, 2100.0, trim=0.0, set_in=SET_BACK, bars_across=across, bars_up=2)


def _openings() -> tuple[Opening, ...]:
    return (
        _window("w1", "south", 1800.0, 1500.0, 1200.0, 3),
        door("d1", "south", 4200.0, 1010.0, 2100.0, trim=0.0, set_in=SET_BACK),
        _window("w2", "south", 8700.0, 1500.0, 1200.0, 3),
        _window("w3", "east", 2000.0, 1200.0, 1200.0, 2),
        _window("w4", "north", 2400.0, 900.0, 900.0, 2),
        _window("w5", "north", 7500.0, 1500.0, 1200.0, 3),
        _window("w6", "west", 3300.0, 1500.0, 1200.0, 3),
        door("d2", "cross", 1600.0, 810.0, 2040.0, trim=0.0),
        door("d3", "bath-wall", 1000.0, 760.0, 2040.0, trim=0.0),
    )


VAULT = 0.3
"""The pitch to which the hall is vaulted."""


def _under_roof(project: Project) -> tuple[Wall, ...]:
    """The inner walls go up to the roof, beside the vault."""
    walls = (project.find(id) for id in ("cross", "bath-wall"))
    return tuple(changed(wall, top=changed(wall.top, kind="roof")) for wall in walls)


def _rooms() -> tuple[Room, ...]:
    places = (("hall", "Hall", 3300.0, 3300.0), ("bed", "Bedroom", 8700.0, 2000.0), ("bath", "Bath", 8700.0, 5400.0))
    vaults = {"hall": VAULT}
    return tuple(Room(id=f"room-{id}", name=name, x=x, y=y, vault=vaults.get(id)) for id, name, x, y in places)


def _grid() -> tuple[GridLine, ...]:
    upright = ((f"{n}", x) for n, x in enumerate((0.0, 6600.0, LONG), 1))
    level = (("A", 0.0), ("B", DEEP))
    return (
        *(GridLine(id=f"grid-{name}", name=name, x=x, y=0.0, angle=90.0) for name, x in upright),
        *(GridLine(id=f"grid-{name}", name=name, x=0.0, y=y, angle=0.0) for name, y in level),
    )


def _ground() -> tuple[GroundSpot, ...]:
    west, east, south, north = -600.0, LONG + 600.0, -600.0, DEEP + 600.0
    places = (
        (-9000.0, 600.0, 150.0),
        (west, south, 0.0),
        (east, south, -350.0),
        (west, north, 50.0),
        (east, north, -250.0),
    )
    return tuple(GroundSpot(id=f"spot-{n}", x=x, y=y, rise=rise) for n, (x, y, rise) in enumerate(places, 1))


def _roof() -> RoofBlock:
    edge, end = eave(400.0), gable(150.0)
    return RoofBlock(
        id="roof-main",
        name="Main roof",
        outline=tied("sw", "se", "ne", "nw"),
        edges=(edge, end, edge, end),
        pitch=0.7,
        plate="plate",
        seat=60.0,
        make_up="roof",
        fascia_depth=200.0,
        fascia_thickness=25.0,
    )


def _sections() -> tuple[SectionLine, ...]:
    return (
        SectionLine(id="section-a", name="A", x1=5400.0, y1=-4200.0, x2=5400.0, y2=10800.0, look="left"),
        SectionLine(id="section-b", name="B", x1=-3900.0, y1=2000.0, x2=14700.0, y2=2000.0),
    )


def _strips() -> tuple[WallSection, ...]:
    return wall_sections(("south", 1800.0, "start"), ("west", 3300.0, "start"), ("south", 8700.0, "start"))


def _sheets() -> tuple[Sheet, ...]:
    return (
        sheet(
            1,
            "Elevations",
            "A2",
            ("elevation:south", 100, 170, 310),
            ("elevation:east", 100, 440, 310),
            ("elevation:north", 100, 170, 160),
            ("elevation:west", 100, 440, 160),
        ),
        sheet(2, "Section and plan", "A2", ("plan", 100, 168, 250), ("section:section-a", 50, 448.5, 250)),
        sheet(3, "Long section", "A2", ("section:section-b", 50, 297, 250)),
        strips_sheet(4, "A1", 20, (165, 300), (425, 339.5), (685, 300)),
    )
