"""The larger timber demo: two storeys over a crawl space, with a kitchen of one. All of it is invented."""

from __future__ import annotations

from itertools import pairwise

from deepsection.core.edits import (
    AddSteps,
    AddStorey,
    CarryDeck,
    Copied,
    DrawDeck,
    DrawLoftHatch,
    DrawWalls,
    RailDeck,
    apply_edits,
    changed,
    put,
    rebuild,
)
from deepsection.core.model import (
    Beam,
    BeamEnd,
    Downpipe,
    FoundationStep,
    FreeJoint,
    GroundSpot,
    LevelRule,
    Opening,
    Post,
    Project,
    RoofBlock,
    RoofEdge,
    Room,
    SectionLine,
    Sheet,
    Stair,
    StairTurn,
    TeeJoint,
    WallSection,
)
from deepsection.core.starters.projects import new_project
from deepsection.core.units import parse_length

from .pieces import (
    bearing,
    cut,
    door,
    eave,
    engineered,
    four_sides,
    gable,
    girder,
    on,
    partition,
    ring,
    sheet,
    strips_sheet,
    tied,
    trimmed,
    wall_sections,
    window,
)

SIDES = ("south", "east", "north", "west")


def _ft(text: str) -> float:
    return parse_length(text, "ft-in")


def otterfold_house() -> Project:
    """Otterfold House: two storeys of 32' x 24', and at its west side a kitchen 14' long under a lower roof."""
    project = new_project("otterfold", "Otterfold House", "ft-in", ground="joists")
    project = rebuild(project, place="Lot 3, Weir Lane, Otterfold", author="Deep Section demo")
    project = apply_edits(project, (_main_walls(), _upper_storey(), _kitchen_walls(), *_partitions()))
    project = put(project, *_roofs())
    for clad in ("wall-lap", "wall-pony"):
        project = trimmed(project, clad, _ft('3 1/2"'), _ft('5"'))
    project = _on_falling_ground(put(bearing(project, "wash"), *_beams()))
    project = put(project, *_openings(), _stair(), *_rooms(), *_downpipes(), *_sections(), *_strips(), *_sheets())
    project = put(project, *engineered(project))
    project = apply_edits(project, (AddSteps(door="d1", id="steps-1"), AddSteps(door="d2", id="steps-2")))
    project = put(project, changed(project.outside_steps[0], rails="both"))
    project = apply_edits(project, (_deck(), CarryDeck(deck="deck"), RailDeck(deck="deck"), _hatch()))
    return put(project, changed(project.find("hatch"), turn=180.0))


def _hatch() -> DrawLoftHatch:
    """Up into the loft from the landing."""
    return DrawLoftHatch(id="hatch", level="upper", x=_ft("28'-6\""), y=_ft("13'-2\""))


def _deck() -> DrawDeck:
    """Before the living room, over the falling ground: 12' deep."""
    west, east, south, north = _ft("31'"), _ft("44'"), _ft("5'"), _ft("19'")
    return DrawDeck(id="deck", level="floor", corners=((west, south), (east, south), (east, north), (west, north)))


def _main_walls() -> DrawWalls:
    x, y = _ft("32'"), _ft("24'")
    return ring((("sw", 0.0, 0.0), ("se", x, 0.0), ("ne", x, y), ("nw", 0.0, y)), SIDES, "wall-lap")


def _upper_storey() -> AddStorey:
    return AddStorey(
        below="floor",
        make_up="floor-joists",
        level="upper",
        plate="upper-plate",
        floor="upper-joists",
        ceiling="upper-ceiling",
        walls=tuple(Copied(of=side, id=f"upper-{side}") for side in SIDES),
    )


def _kitchen_walls() -> DrawWalls:
    x, low, high = _ft("-14'"), _ft("3'"), _ft("21'")
    return DrawWalls(
        joints=(
            TeeJoint(id="kitchen-a", wall="west", end="end", distance=low),
            FreeJoint(id="kitchen-b", x=x, y=low),
            FreeJoint(id="kitchen-c", x=x, y=high),
            TeeJoint(id="kitchen-d", wall="west", end="end", distance=high),
        ),
        chain=("kitchen-a", "kitchen-b", "kitchen-c", "kitchen-d"),
        walls=("kitchen-south", "kitchen-west", "kitchen-north"),
        make_up="wall-batten",
        base="floor",
        top="plate",
    )


def _partitions() -> tuple[DrawWalls, ...]:
    def wall(id: str, first: tuple[str, str, str], second: tuple[str, str, str], *levels: str) -> DrawWalls:
        a, b = (on(joint, host, _ft(distance)) for joint, host, distance in (first, second))
        return partition(id, a, b, *levels)

    upper = ("upper", "upper-plate")
    return (
        wall("hall", ("p1", "south", "12'"), ("p2", "north", "20'")),
        wall("wash", ("p3", "hall", "15'"), ("p4", "west", "9'")),
        wall("landing", ("p5", "upper-west", "9'"), ("p6", "upper-east", "15'"), *upper),
        wall("between", ("p7", "landing", "16'"), ("p8", "upper-north", "16'"), *upper),
        _front_rooms(),
        partition("bath-side", on("p11", "upper-south", _ft("14'-6\"")), "front-1", *upper),
    )


def _front_rooms() -> DrawWalls:
    """The walls of bath and front bedroom towards the landing: one behind the stair, the other a little further in."""
    x, low, high = _ft("14'-6\""), _ft("8'"), _ft("11'")
    return DrawWalls(
        joints=(
            on("p9", "upper-west", _ft("16'")),
            FreeJoint(id="front-1", x=x, y=low),
            FreeJoint(id="front-2", x=x, y=high),
            on("p10", "upper-east", high),
        ),
        chain=("p9", "front-1", "front-2", "p10"),
        walls=("bath", "front-jog", "front"),
        make_up="wall-inner",
        status="inner",
        base="upper",
        top="upper-plate",
    )


def _beams() -> tuple[Post | Beam, ...]:
    """In line with the wall of the laundry: a flush beam over the living room on a post, a girder under the floor."""
    y, flush = _ft("15'"), LevelRule(level="plate", offset=_ft('9 1/4"'))
    post = Post(
        id="living-post",
        x=_ft("22'"),
        y=y,
        width=_ft('5 1/2"'),
        base=LevelRule(level="floor"),
        top=LevelRule(level="plate"),
    )
    over = BeamEnd(post=post.id)
    ends = (BeamEnd(x=_ft("11'-11\""), y=y), over, BeamEnd(x=_ft("31'-10 1/2\""), y=y))
    beams = [
        Beam(id=f"living-beam-{n}", start=a, end=b, width=_ft('6"'), depth=_ft('9 1/4"'), plies=4, top=flush)
        for n, (a, b) in enumerate(pairwise(ends), 1)
    ]
    stops = tuple((_ft(x), y) for x in ('4"', "8'", "15'", "22'", "27'", "31'-8\""))
    below = girder("girder", stops, LevelRule(level="crawl"), "sill", (_ft('4 1/2"'), _ft('9 1/4"')), 3)
    return (post, *beams, *below)


def _on_falling_ground(project: Project) -> Project:
    """East of the front door the ground falls by 4': the foundation steps down twice, with pony walls on it."""
    foundation, y, drop = project.foundations[0], _ft("-5'"), _ft('18"')
    spots = (("-14'", "0"), ("13'", "0"), ("34'", "-4'"))
    lower = ("girder-post-3", "girder-post-4")
    return put(
        project,
        changed(foundation, pony="wall-pony"),
        *(GroundSpot(id=f"spot-{n}", x=_ft(x), y=y, rise=_ft(rise)) for n, (x, rise) in enumerate(spots, 1)),
        *(
            FoundationStep(
                id=f"foundation-step-{n}",
                foundation=foundation.id,
                x1=_ft(x),
                y1=_ft("24'"),
                x2=_ft(x),
                y2=0.0,
                drop=drop,
            )
            for n, x in enumerate(("19'-6\"", "28'-6\""), 1)
        ),
        *(
            changed(post, base=changed(post.base, offset=post.base.offset - drop))
            for post in project.posts
            if post.id in lower
        ),
    )


def _stair() -> Stair:
    """Along the laundry to a half landing at the west wall, and back to the landing above."""
    return Stair(
        id="main-stair",
        level="floor",
        upper="upper",
        x=_ft("8'-8\""),
        y=_ft("13'-3\""),
        turn=180.0,
        width=_ft("3'-1\""),
        turns=(StairTurn(after=7, kind="half landing", side="left", well=_ft('3"')),),
        build="cut",
        depth=_ft('11 1/4"'),
        nosing=_ft('1"'),
        tread=_ft('1"'),
        string=_ft('1 1/2"'),
        rails="left",
    )


HEAD = _ft("6'-10\"")
"""Windows and doors line up at their heads."""


def _window(id: str, wall: str, at: str, width: str, height: str, across: int = 2, up: int = 2) -> Opening:
    return window(id, wall, _ft(at), _ft(width), _ft(height), HEAD, bars_across=across, bars_up=up)


def _door(id: str, wall: str, at: str, width: str, trim: float = 0.0) -> Opening:
    return door(id, wall, _ft(at), _ft(width), HEAD, trim=trim)


def _openings() -> tuple[Opening, ...]:
    return (
        _door("d1", "south", "8'-6\"", "3'-2\"", 88.9),
        _window("w1", "south", "4'", "2'-6\"", "4'-6\"", 1),
        _window("w2", "south", "18'", "5'", "4'-6\"", 3),
        _window("w3", "south", "27'", "5'", "4'-6\"", 3),
        _window("w4", "east", "7'", "4'", "4'-6\""),
        _window("w5", "east", "17'", "4'", "4'-6\""),
        _window("w6", "north", "8'", "6'", "4'-6\"", 3),
        _window("w7", "north", "26'", "2'", "3'", 1),
        _window("w8", "kitchen-south", "7'", "5'", "3'-6\"", 3, 1),
        _window("w9", "kitchen-west", "9'", "6'", "3'-6\"", 3, 1),
        _door("d2", "kitchen-north", "9'", "3'-2\"", 88.9),
        _door("d10", "east", "12'", "3'-2\"", 88.9),
        _door("d3", "west", "18'", "3'-6\""),
        _door("d4", "hall", "6'", "2'-8\""),
        _door("d5", "wash", "1'-9\"", "2'-6\""),
        _window("w11", "upper-south", "4'", "3'", "4'"),
        _window("w12", "upper-south", "18'", "4'", "4'"),
        _window("w13", "upper-south", "27'", "4'", "4'"),
        _window("w14", "upper-east", "6'-6\"", "4'", "4'"),
        _window("w15", "upper-east", "18'-6\"", "4'", "4'"),
        _window("w16", "upper-north", "7'", "4'", "4'"),
        _window("w17", "upper-north", "23'", "4'", "4'"),
        _door("d6", "landing", "14'", "2'-8\""),
        _door("d7", "landing", "20'", "2'-8\""),
        _door("d8", "bath", "12'-9\"", "2'-6\""),
        _door("d9", "front", "3'", "2'-8\""),
    )


def _rooms() -> tuple[Room, ...]:
    places = (
        ("living", "Living room", "26'", "12'", "floor"),
        ("entry", "Hall", "6'", "5'-6\"", "floor"),
        ("wash", "Laundry", "7'", "20'", "floor"),
        ("kitchen", "Kitchen", "-7'", "15'", "floor"),
        ("bed-1", "Front bedroom", "26'", "4'", "upper"),
        ("bath", "Bath", "7'", "4'", "upper"),
        ("landing", "Landing", "22'", "13'", "upper"),
        ("bed-2", "West bedroom", "8'", "18'-6\"", "upper"),
        ("bed-3", "East bedroom", "25'", "18'-6\"", "upper"),
    )
    return tuple(Room(id=f"room-{id}", name=name, x=_ft(x), y=_ft(y), level=level) for id, name, x, y, level in places)


def _roofs() -> tuple[RoofBlock, ...]:
    edge, end, abutment = eave(_ft('16"')), gable(_ft('12"')), RoofEdge(kind="abutment")

    def block(id: str, name: str, joints: tuple[str, ...], edges: tuple[RoofEdge, ...], plate: str) -> RoofBlock:
        return RoofBlock(
            id=id,
            name=name,
            outline=tied(*joints),
            edges=edges,
            pitch=8 / 12,
            plate=plate,
            seat=_ft('3 1/2"'),
            make_up="roof",
            fascia_depth=_ft('7 1/4"'),
            gutter=_ft('5"'),
        )

    kitchen = ("kitchen-b", "kitchen-a", "kitchen-d", "kitchen-c")
    return (
        block("roof-main", "Main roof", ("sw", "se", "ne", "nw"), (edge, end, edge, end), "upper-plate"),
        block("roof-kitchen", "Kitchen roof", kitchen, (edge, abutment, edge, end), "plate"),
    )


def _downpipes() -> tuple[Downpipe, ...]:
    main, kitchen = "roof-main", "roof-kitchen"
    places = ((main, "e1", "31'-6\""), (main, "e3", "31'-6\""), (kitchen, "e1", "13'"), (kitchen, "e3", "1'"))
    return tuple(
        Downpipe(id=f"downpipe-{n}", roof=roof, edge=edge, distance=_ft(at), size=_ft('3"'))
        for n, (roof, edge, at) in enumerate(places, 1)
    )


def _sections() -> tuple[SectionLine, ...]:
    return (
        cut("a", "A", (_ft("19'"), _ft("-8'"), _ft("19'"), _ft("32'")), "right"),
        cut("b", "B", (_ft("-19'"), _ft("9'-9\""), _ft("37'"), _ft("9'-9\"")), "left"),
    )


def _strips() -> tuple[WallSection, ...]:
    return wall_sections(
        ("south", _ft("18'"), "start"), ("east", _ft("17'"), "start"), ("kitchen-west", _ft("9'"), "end")
    )


def _sheets() -> tuple[Sheet, ...]:
    return (
        sheet(1, "Plans", "ARCH D", ("plan", 48, 250, 330), ("plan:upper", 48, 685, 330)),
        sheet(
            2,
            "Elevations",
            "ARCH C",
            *four_sides(128, (160, 420), (350, 170)),
        ),
        sheet(3, "Section A", "ARCH B", ("section:section-a", 64, 232, 178)),
        sheet(4, "Section B", "ARCH B", ("section:section-b", 64, 234, 180)),
        sheet(
            5,
            "Framing",
            "ARCH C",
            ("plan:framing:main-floor", 64, 190, 240),
            ("plan:framing:upper-joists", 64, 440, 240),
        ),
        sheet(6, "Stair", "ARCH B", ("section:setting:main-stair", 16, 210, 170)),
        sheet(
            7,
            "Structure",
            "ARCH C",
            ("plan:structure:main-floor", 64, 190, 240),
            ("plan:structure:upper-joists", 64, 440, 240),
        ),
        sheet(8, "Deck", "ARCH B", ("plan:framing:deck", 48, 102, 180), ("elevation:east", 64, 320, 185)),
        sheet(
            9,
            "Subfloor",
            "ARCH C",
            ("plan:sheets:main-floor", 64, 190, 240),
            ("plan:sheets:upper-joists", 64, 440, 240),
        ),
        strips_sheet(10, "ARCH D", 16, (175, 330), (450, 291), (735, 332.5)),
    )
