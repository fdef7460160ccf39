"""Wrenfold House: an L of timber under one hip roof, with a bay, a dormer and a porch. Invented."""

from __future__ import annotations

from deepsection.core.edits import (
    AddBay,
    AddDormer,
    AddOnRoof,
    DrawWalls,
    ProposeRoof,
    SetRoofEdge,
    apply_edits,
    changed,
    put,
    rebuild,
)
from deepsection.core.model import Beam, BeamEnd, Corner, LevelRule, Opening, Post, Project, Room, SectionLine, Sheet
from deepsection.core.starters.projects import new_project
from deepsection.core.trades.onroofs.edits import OnRoof
from deepsection.core.units import parse_length

from .pieces import door, engineered, on, partition, ring, sheet, trimmed, window


def _ft(text: str) -> float:
    return parse_length(text, "ft-in")


HEAD = _ft("6'-10\"")
PORCH = ("30'", "40'", "25'", "32'")
"""The porch: west, east, south and north of it."""


def wrenfold_house() -> Project:
    """Wrenfold House: 47' x 25' with a wing of 26' x 16', hipped at 7:12; a gable over its north end."""
    project = new_project("wrenfold", "Wrenfold House", "ft-in")
    project = rebuild(project, place="Dyer's Yard, Thrushmere", author="Deep Section demo")
    project = apply_edits(project, (_walls(), *_partitions(), _bay()))
    project = _roofed(project)
    project = trimmed(project, "wall-lap", _ft('3 1/2"'), _ft('5"'))
    project = put(project, *engineered(project), *_openings(project), *_porch(project), *_rooms())
    return put(project, *_sections(), *_sheets())


def _walls() -> DrawWalls:
    corners = (
        ("sw", 0.0, 0.0),
        ("se", _ft("47'"), 0.0),
        ("ne", _ft("47'"), _ft("25'")),
        ("inner", _ft("26'"), _ft("25'")),
        ("wing-e", _ft("26'"), _ft("41'")),
        ("wing-w", 0.0, _ft("41'")),
    )
    return ring(corners, ("south", "east", "north", "wing-east", "wing-north", "west"), "wall-lap")


def _partitions() -> tuple[DrawWalls, ...]:
    return (
        partition("across", on("p1", "west", _ft("16'")), "inner"),
        partition("spine", on("p3", "south", _ft("27'")), on("p4", "north", _ft("20'"))),
        partition("bath-wall", on("p5", "spine", _ft("13'")), on("p6", "east", _ft("13'"))),
    )


def _bay() -> AddBay:
    return AddBay(
        wall="south",
        distance=_ft("10'"),
        width=_ft("9'"),
        out=_ft("2'"),
        shape="angled",
        joints=("b1", "b2", "b3", "b4"),
        walls=("bay-w", "bay-s", "bay-e"),
        rest="south-2",
    )


def _roofed(project: Project) -> Project:
    """The hip over all of it, a gable at the end of the wing, a dormer to the south, a porch in the corner."""
    main = ProposeRoof(id="roof-main", form="hip", level="floor", plate="plate", x=_ft("12'"), y=_ft("12'"))
    project = apply_edits(project, (main,))
    project = put(project, changed(project.roofs[0], pitch=7 / 12))
    points = [(corner.joint or "") for corner in project.roofs[0].outline]
    end = points.index("wing-e")
    dormer = AddDormer(
        id="roof-dormer",
        form="gable",
        x0=_ft("29'"),
        y0=_ft("2'-6\""),
        x1=_ft("35'"),
        y1=_ft("8'"),
        joints=("d-a", "d-b", "d-c", "d-d"),
        walls=("dormer-w", "dormer-s", "dormer-e"),
    )
    west, east, south, north = (_ft(text) for text in PORCH)
    corners = ((west, south), (east, south), (east, north), (west, north))
    outline = tuple(Corner(x=x, y=y) for x, y in corners)
    porch = ProposeRoof(id="roof-porch", form="single", level="floor", plate="plate", outline=outline)
    through = (AddOnRoof(id=id, what=what, x=_ft(x), y=_ft(y)) for id, what, x, y in ON_ROOF)
    project = apply_edits(
        project, (SetRoofEdge(roof="roof-main", edge=f"e{end + 1}", to="gable"), dormer, porch, *through)
    )
    low = next(roof for roof in project.roofs if roof.id == "roof-porch")
    # Clear of the door below, and still under the eave.
    return put(project, changed(low, offset=low.offset + _ft('7 1/4"')))


ON_ROOF: tuple[tuple[str, OnRoof, str, str], ...] = (
    ("chimney", "chimney", "25'", "14'-6\""),
    ("roof-window", "window", "21'-6\"", "33'"),
    ("bath-pipe", "pipe", "37'", "18'-6\""),
    ("attic-vent", "vent", "38'-6\"", "12'"),
    ("downpipe-1", "downpipe", "1'", "0'"),
    ("downpipe-2", "downpipe", "46'", "0'"),
    ("downpipe-3", "downpipe", "26'", "38'"),
)
"""The stack beside the living room, a window over the kitchen, the pipe of the bath, and what drains the eaves."""


def _window(id: str, wall: str, at: str, width: str, height: str, across: int = 2, up: int = 2) -> Opening:
    return window(id, wall, _ft(at), _ft(width), _ft(height), HEAD, bars_across=across, bars_up=up)


def _openings(project: Project) -> tuple[Opening, ...]:
    face = project.walls_by_id["dormer-s"].top.offset
    high, wide = _ft("1'-4\""), _ft("3'-6\"")
    return (
        _window("w1", "bay-s", "2'-6\"", "3'-6\"", "4'-6\"", 3),
        _window("w2", "south-2", "9'", "3'", "4'"),
        _window("w3", "south-2", "17'-6\"", "5'", "4'", 3),
        _window("w4", "south-2", "25'", "3'", "4'"),
        _window("w5", "east", "7'", "5'", "4'", 3),
        _window("w6", "east", "18'-6\"", "2'", "3'", 1),
        _window("w7", "wing-north", "13'", "6'", "4'-6\"", 3),
        _window("w8", "wing-east", "8'", "4'", "4'"),
        _window("w9", "west", "8'", "4'", "4'"),
        _window("w10", "west", "30'", "5'", "4'", 3),
        door("d1", "north", _ft("12'"), _ft("3'-2\""), _ft("6'-6\"")),
        door("d2", "across", _ft("14'"), _ft("3'"), HEAD, trim=0.0),
        door("d3", "spine", _ft("6'"), _ft("2'-8\""), HEAD, trim=0.0),
        door("d4", "bath-wall", _ft("3'"), _ft("2'-6\""), HEAD, trim=0.0),
        window("w11", "dormer-s", _ft("3'"), wide, high, face - _ft('5"'), bars_across=3, bars_up=1),
    )


def _porch(project: Project) -> tuple[Post | Beam, ...]:
    """Two posts and the beam under the low side of the porch roof."""
    bears = next(roof for roof in project.roofs if roof.id == "roof-porch").offset
    depth = _ft('9 1/4"')
    foot = LevelRule(level="floor", offset=-_ft("1'"))
    head = LevelRule(level="plate", offset=bears - depth)
    north = _ft(PORCH[3]) - _ft('2 3/4"')
    posts = tuple(
        Post(id=f"post-{k}", x=_ft(x), y=north, shape="square", width=_ft('5 1/2"'), base=foot, top=head)
        for k, x in enumerate(("30'-3\"", "39'-9\""), 1)
    )
    beam = Beam(
        id="porch-beam",
        start=BeamEnd(post="post-1"),
        end=BeamEnd(post="post-2"),
        width=_ft('5 1/2"'),
        depth=depth,
        top=LevelRule(level="plate", offset=bears),
    )
    return (*posts, beam)


def _rooms() -> tuple[Room, ...]:
    places = (
        ("living", "Living", "13'", "11'"),
        ("kitchen", "Kitchen", "13'", "32'"),
        ("bedroom", "Bedroom", "35'-6\"", "6'"),
        ("bath", "Bath", "37'", "18'-6\""),
    )
    return tuple(Room(id=f"room-{id}", name=name, x=_ft(x), y=_ft(y)) for id, name, x, y in places)


def _sections() -> tuple[SectionLine, ...]:
    return (
        SectionLine(id="section-a", name="A", x1=_ft("32'"), y1=_ft("-9'"), x2=_ft("32'"), y2=_ft("50'"), look="right"),
    )


def _sheets() -> tuple[Sheet, ...]:
    return (
        sheet(1, "Roof and south elevation", "ARCH B", ("plan:roof", 128, 106, 170), ("elevation:south", 96, 325, 200)),
        sheet(2, "Section and plan", "ARCH B", ("section:section-a", 128, 130, 200), ("plan", 96, 342, 180)),
    )
