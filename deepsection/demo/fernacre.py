"""The masonry demo: an L-shaped bungalow in millimetres. All of it is invented."""

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
    SetIn,
    Sheet,
    apply_edits,
    put,
    rebuild,
)
from deepsection.core.model.edits import DrawRoof
from deepsection.core.model.masonry import new_masonry_project

SET_BACK = SetIn(layer="outer", face="outer", distance=70.0)


def fernacre_bungalow() -> Project:
    """Fernacre: 13.5 m x 7.5 m with a 6 m wide wing running 4.2 m north, both at 30 degrees."""
    project = new_masonry_project("fernacre", "Fernacre bungalow")
    project = rebuild(project, place="Plot 3, Tarn Hollow", author="Deep Section demo")
    project = apply_edits(project, (_walls(), *_partitions()))
    project = put(project, *_openings(), *_rooms())
    project = apply_edits(project, tuple(DrawRoof(roof=roof) for roof in _roofs()))
    return put(project, *_sections(), *_sheets())


def _walls() -> DrawWalls:
    corners = (
        ("sw", 0.0, 0.0),
        ("se", 13500.0, 0.0),
        ("ne", 13500.0, 7500.0),
        ("inside", 6000.0, 7500.0),
        ("wing-e", 6000.0, 11700.0),
        ("wing-w", 0.0, 11700.0),
    )
    return DrawWalls(
        joints=tuple(FreeJoint(id=id, x=x, y=y) for id, x, y in corners),
        chain=(*(id for id, _, _ in corners), "sw"),
        walls=("south", "east", "north", "wing-east", "wing-north", "west"),
        make_up="wall-cavity",
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

    def on(id: str, wall: str, distance: float) -> HostedJoint:
        return HostedJoint(id=id, wall=wall, end="start", distance=distance)

    return (
        inner("cross", on("p1", "south", 8600.0), on("p2", "north", 4900.0)),
        inner("bath-wall", on("p3", "cross", 4100.0), on("p4", "east", 4100.0)),
    )


def _opening(
    id: str, unit: str, wall: str, at: float, width: float, head: float, height: float, **more: object
) -> Opening:
    return Opening.model_validate(
        {
            "id": id,
            "wall": wall,
            "end": "start",
            "distance": at,
            "width": width,
            "height": height,
            "sill": head - height,
            "unit": unit,
            "number": id.upper(),
            "trim": 0.0,
            "set_in": SET_BACK if wall not in ("cross", "bath-wall") else SetIn(),
            **more,
        }
    )


def _openings() -> tuple[Opening, ...]:
    return (
        _opening("w1", "window", "south", 2400.0, 2400.0, 2100.0, 1500.0, bars_across=3),
        _opening("d1", "door", "south", 6300.0, 1010.0, 2100.0, 2100.0),
        _opening("w2", "window", "south", 11000.0, 1800.0, 2100.0, 1200.0, bars_across=2),
        _opening("w3", "window", "east", 2000.0, 1200.0, 2100.0, 1200.0, bars_across=2),
        _opening("w4", "window", "east", 5700.0, 600.0, 2100.0, 900.0),
        _opening("w5", "window", "north", 2500.0, 1200.0, 2100.0, 1050.0, bars_across=2),
        _opening("d2", "door", "wing-east", 2100.0, 1500.0, 2100.0, 2100.0, hinge="end"),
        _opening("w6", "window", "wing-north", 3000.0, 2400.0, 2100.0, 1500.0, bars_across=3),
        _opening("w7", "window", "west", 2600.0, 1800.0, 2100.0, 1200.0, bars_across=2),
        _opening("w8", "window", "west", 8200.0, 1800.0, 2100.0, 1200.0, bars_across=2),
        _opening("d3", "door", "cross", 2400.0, 910.0, 2040.0, 2040.0),
        _opening("d4", "door", "bath-wall", 1200.0, 810.0, 2040.0, 2040.0),
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
        eave, gable = RoofEdge(kind="eave", overhang=450.0), RoofEdge(kind="gable", overhang=200.0)
        return RoofBlock(
            id=id,
            name=name,
            outline=tuple(Corner(x=x, y=y) for x, y in ((x0, y0), (x1, y0), (x1, y1), (x0, y1))),
            edges=(eave, gable, eave, gable),
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


def _sheets() -> tuple[Sheet, ...]:
    def at(id: str, view: str, scale: float, x: float, y: float) -> PlacedView:
        return PlacedView(id=id, view=view, scale=scale, x=x, y=y)

    return (
        Sheet(
            id="sheet-1",
            number="A1",
            name="Elevations",
            paper="A3",
            placed=(
                at("v1", "elevation:south", 125, 110, 235),
                at("v2", "elevation:east", 125, 318, 235),
                at("v3", "elevation:north", 125, 110, 130),
                at("v4", "elevation:west", 125, 318, 130),
            ),
        ),
        Sheet(
            id="sheet-2",
            number="A2",
            name="Section and plan",
            paper="A3",
            placed=(at("v5", "section:section-a", 75, 130, 215), at("v6", "plan", 125, 316, 205)),
        ),
    )
