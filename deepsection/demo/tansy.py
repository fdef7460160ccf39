"""The demo of bays and kinds: a brick lodge under wide eaves, in feet and inches. All of it is invented."""

from __future__ import annotations

from deepsection.core.edits import AddBay, DrawWalls, apply_edits, changed, put, rebuild
from deepsection.core.model import (
    Beam,
    BeamEnd,
    LevelRule,
    Opening,
    PorchSlab,
    Post,
    Project,
    RoofBlock,
    Room,
    SectionLine,
    Sheet,
    WallSection,
)
from deepsection.core.starters.projects import new_project
from deepsection.core.units import parse_length

from .pieces import eave, engineered, gable, on, partition, ring, sheet, strips_sheet, tied, wall_sections


def _ft(text: str) -> float:
    return parse_length(text, "ft-in")


def tansy_lodge() -> Project:
    """Tansy Lodge: 40' x 24' in brick at 4:12, a bowed and an angled bay under its south eave, a porch at its north."""
    project = new_project("tansy", "Tansy Lodge", "ft-in")
    project = rebuild(project, place="Lot 3, Fennel Lane, Marl Inlet", author="Deep Section demo")
    project = apply_edits(project, (_walls(), *_partitions(), *_bays()))
    project = put(project, *_lowered(project))
    project = put(project, *engineered(project), *_openings(), *_rooms(), _roof(), _slab(), *_porch())
    return put(project, *_sections(), *_strips(), *_sheets())


def _walls() -> DrawWalls:
    x, y = _ft("40'"), _ft("24'")
    corners = (("sw", 0.0, 0.0), ("se", x, 0.0), ("ne", x, y), ("nw", 0.0, y))
    return ring(corners, ("south", "east", "north", "west"), "wall-brick")


def _partitions() -> tuple[DrawWalls, ...]:
    return (
        partition("hall", on("p1", "south", _ft("20'")), on("p2", "north", _ft("20'"))),
        partition("bath-wall", on("p3", "hall", _ft("14'")), on("p4", "east", _ft("14'"))),
    )


BAYS = ("bow", "bay-left", "bay-front", "bay-right")


def _bays() -> tuple[AddBay, ...]:
    bow = AddBay(
        wall="south",
        distance=_ft("10'"),
        width=_ft("11'"),
        out=_ft("1'-4\""),
        shape="bowed",
        joints=("bow-w", "bow-e"),
        walls=("bow",),
        rest="south-2",
    )
    angled = AddBay(
        wall="south-2",
        distance=_ft("14'-6\""),
        width=_ft("9'"),
        out=_ft("1'-4\""),
        shape="angled",
        joints=("bay-a", "bay-b", "bay-c", "bay-d"),
        walls=("bay-left", "bay-front", "bay-right"),
        rest="south-3",
    )
    return bow, angled


def _lowered(project: Project) -> tuple[object, ...]:
    """The bays keep a height of their own: they end under the rafters that pass over them."""
    walls = (project.find(id) for id in BAYS)
    return tuple(changed(wall, top=changed(wall.top, kind="fixed", height=_ft("7'-4\""))) for wall in walls)


def _opening(id: str, unit: str, wall: str, at: str, kind: str, sill: str = "0", **more: object) -> Opening:
    facts = {"id": id, "unit": unit, "wall": wall, "end": "start", "distance": _ft(at), "sill": _ft(sill), "kind": kind}
    return Opening.model_validate(facts | more)


def _openings() -> tuple[Opening, ...]:
    low = "1'-5\""
    bow = "window-vertical"
    return (
        _opening("w1", "window", "bow", "2'-1\"", bow, low, width=_ft("2'-4\"")),
        _opening("w2", "window", "bow", "5'-8 1/2\"", bow, low),
        _opening("w3", "window", "bow", "9'-4\"", bow, low, width=_ft("2'-4\"")),
        _opening("w4", "window", "bay-front", "3'-2\"", "window-casements", "2'-5\"", width=_ft("3'-6\"")),
        _opening("w5", "window", "east", "6'", "window-arched", "2'-4\""),
        _opening("w6", "window", "east", "19'", "window-awning", "4'-10\""),
        _opening("w7", "window", "west", "8'", "window-group", "2'-4\"", shutters="pair"),
        _opening("w8", "window", "west", "18'", "window-vertical", low),
        _opening("w9", "window", "north", "7'", "window-awning", "4'-10\""),
        _opening("d1", "door", "north", "24'", "door-front", swing="in"),
        _opening("d2", "door", "north", "34'", "door-sliding"),
        _opening("d3", "door", "hall", "10'", "door-double", trim=0.0),
        _opening("d4", "door", "bath-wall", "5'", "door-pocket"),
        _opening("n1", "niche", "bath-wall", "14'", "niche", "3'", depth=_ft('3"')),
    )


def _rooms() -> tuple[Room, ...]:
    places = (
        ("sitting", "Sitting room", "30'", "6'"),
        ("studio", "Studio", "9'", "15'"),
        ("bath", "Bath", "30'", "19'"),
    )
    return tuple(Room(id=f"room-{id}", name=name, x=_ft(x), y=_ft(y)) for id, name, x, y in places)


def _roof() -> RoofBlock:
    edge, end = eave(_ft("3'")), gable(_ft('14"'))
    return RoofBlock(
        id="roof-main",
        name="Main roof",
        outline=tied("sw", "se", "ne", "nw"),
        edges=(edge, end, edge, end),
        pitch=4 / 12,
        plate="plate",
        seat=_ft('3 1/2"'),
        make_up="roof",
        fascia_depth=_ft('7 1/4"'),
    )


def _slab() -> PorchSlab:
    """Along the north, four inches below the floor, with an edge that goes down to frost."""
    x0, y0, x1, y1 = _ft('6"'), _ft("24'"), _ft("39'-6\""), _ft("26'-9\"")
    return PorchSlab(
        id="porch-slab",
        level="floor",
        corners=((x0, y0), (x1, y0), (x1, y1), (x0, y1)),
        drop=_ft('4"'),
        thickness=_ft('4"'),
        fall_to=90.0,
        edge="deep",
        edge_width=_ft("1'"),
        edge_depth=_ft("3'"),
    )


def _porch() -> tuple[Post | Beam, ...]:
    """Four round posts along the north, on the slab, and a beam over them, below the rafters."""
    foot, head = LevelRule(level="floor", offset=-_ft('4 3/8"')), LevelRule(level="plate", offset=-_ft('19"'))
    places = ("1'-6\"", "13'-10\"", "26'-2\"", "38'-6\"")
    posts = tuple(
        Post(id=f"post-{k}", x=_ft(x), y=_ft("25'-10\""), shape="round", width=_ft('8"'), base=foot, top=head)
        for k, x in enumerate(places, 1)
    )
    top = LevelRule(level="plate", offset=-_ft('9 3/4"'))
    beam = Beam(
        id="porch-beam",
        start=BeamEnd(post="post-1"),
        end=BeamEnd(post="post-4"),
        width=_ft('5 1/2"'),
        depth=_ft('9 1/4"'),
        top=top,
    )
    return (*posts, beam)


def _sections() -> tuple[SectionLine, ...]:
    return (
        SectionLine(id="section-a", name="A", x1=_ft("10'"), y1=_ft("-9'"), x2=_ft("10'"), y2=_ft("38'"), look="right"),
    )


def _strips() -> tuple[WallSection, ...]:
    return wall_sections(("north", _ft("7'"), "start"), ("east", _ft("6'"), "start"), ("west", _ft("15'"), "start"))


def _sheets() -> tuple[Sheet, ...]:
    return (
        sheet(
            1,
            "Plan and south elevation",
            "ARCH B",
            ("plan", 96, 119, 172),
            ("elevation:south", 96, 332, 190),
        ),
        sheet(2, "Schedules", "ARCH B", ("schedule:openings", 96, 215, 210)),
        strips_sheet(3, "ARCH D", 16, (180, 310), (460, 320), (730, 330)),
    )
