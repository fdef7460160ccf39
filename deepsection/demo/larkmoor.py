"""The largest demo: two storeys, a workshop and a kitchen wing, a porch and two dormers. All of it is invented."""

from __future__ import annotations

from deepsection.core.edits import (
    AddDormer,
    AddOnRoof,
    AddSteps,
    AddStorey,
    Copied,
    DrawWalls,
    ProposeRoof,
    apply_edits,
    changed,
    put,
    rebuild,
)
from deepsection.core.model import (
    Beam,
    BeamEnd,
    Corner,
    FreeJoint,
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
from deepsection.core.trades.onroofs.edits import OnRoof
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
HEAD = parse_length("6'-10\"", "ft-in")
"""Windows and doors line up at their heads."""
PORCH = ("8'", "32'", "-7'", "0")
"""The porch: west, east, south and north of it."""
POSTS = ("8'-4\"", "16'", "24'", "31'-8\"")


def _ft(text: str) -> float:
    return parse_length(text, "ft-in")


def larkmoor_house() -> Project:
    """Larkmoor House: 40' x 28' on two storeys at 9:12, a workshop of 20' x 22' east of it, a kitchen to the north."""
    project = new_project("larkmoor", "Larkmoor House", "ft-in", ground="joists")
    project = rebuild(project, place="Sallow Bank, Larkmoor", author="Deep Section demo")
    x, y = _ft("40'"), _ft("28'")
    main = ring((("sw", 0.0, 0.0), ("se", x, 0.0), ("ne", x, y), ("nw", 0.0, y)), SIDES, "wall-lap")
    project = apply_edits(project, (main, _upper(), _workshop(), _kitchen(), *_partitions()))
    project = apply_edits(put(project, *_roofs()), (*_dormers(), _porch_roof()))
    porch = next(roof for roof in project.roofs if roof.id == "roof-porch")
    # No eave lies above it: it goes up until it is clear of the heads of the windows.
    project = put(project, changed(porch, name="Porch roof", offset=porch.offset + _ft("1'-9\"")))
    project = trimmed(project, "wall-lap", _ft('3 1/2"'), _ft('5"'))
    project = put(project, *_openings(project))
    project = bearing(project, "hall", "stair", "west-rooms", "east-rooms")
    spans = [changed(floor, span="east-west") for floor in project.floors]
    project = put(project, *spans, *_girders(), *engineered(project))
    project = put(project, _stair(), *_porch(project), *_rooms(), *_sections(), *_strips(), *_sheets())
    steps = (AddSteps(door="d1", id="steps-1"), AddSteps(door="d2", id="steps-2"), AddSteps(door="d3", id="steps-3"))
    through = (AddOnRoof(id=id, what=what, x=_ft(x), y=_ft(y)) for id, what, x, y in ON_ROOF)
    project = apply_edits(project, (*steps, *through))
    return put(project, changed(project.outside_steps[0], rails="both"))


def _upper() -> AddStorey:
    return AddStorey(
        below="floor",
        make_up="floor-joists",
        level="upper",
        plate="upper-plate",
        floor="upper-joists",
        ceiling="upper-ceiling",
        walls=tuple(Copied(of=side, id=f"upper-{side}") for side in SIDES),
    )


def _wing(stem: str, host: str, make_up: str, near: str, far: str, corners: tuple[tuple[str, str], ...]) -> DrawWalls:
    """Three walls against a side of the house: from one place on it around two corners to another."""
    ends = [TeeJoint(id=f"{stem}-{k}", wall=host, end="start", distance=_ft(at)) for k, at in (("a", near), ("d", far))]
    free = [FreeJoint(id=f"{stem}-{k}", x=_ft(x), y=_ft(y)) for k, (x, y) in zip("bc", corners)]
    ids = tuple(f"{stem}-{k}" for k in "abcd")
    return DrawWalls(
        joints=(ends[0], *free, ends[1]),
        chain=ids,
        walls=tuple(f"{stem}-wall-{n}" for n in (1, 2, 3)),
        make_up=make_up,
        base="floor",
        top="plate",
    )


def _workshop() -> DrawWalls:
    return _wing("shop", "east", "wall-batten", "24'", "2'", (("60'", "24'"), ("60'", "2'")))


def _kitchen() -> DrawWalls:
    return _wing("kitchen", "north", "wall-lap", "34'", "18'", (("6'", "42'"), ("22'", "42'")))


def _partitions() -> tuple[DrawWalls, ...]:
    def wall(id: str, first: tuple[str, str, str], second: tuple[str, str, str], *levels: str) -> DrawWalls:
        a, b = (on(joint, host, _ft(distance)) for joint, host, distance in (first, second))
        return partition(id, a, b, *levels)

    upper = ("upper", "upper-plate")
    return (
        wall("hall", ("p1", "south", "15'"), ("p2", "north", "25'")),
        wall("stair", ("p3", "south", "24'"), ("p4", "north", "16'")),
        wall("study", ("p5", "stair", "13'"), ("p6", "east", "13'")),
        wall("pantry", ("p7", "hall", "16'"), ("p8", "west", "12'")),
        wall("landing-west", ("p9", "upper-south", "15'"), ("p10", "upper-north", "25'"), *upper),
        wall("landing-east", ("p11", "upper-south", "24'"), ("p12", "upper-north", "16'"), *upper),
        wall("west-rooms", ("p13", "upper-west", "14'"), ("p14", "landing-west", "14'"), *upper),
        wall("east-rooms", ("p15", "landing-east", "14'"), ("p16", "upper-east", "14'"), *upper),
        wall("bath", ("p17", "landing-west", "7'"), ("p18", "landing-east", "7'"), *upper),
    )


def _girders() -> tuple[Post | Beam, ...]:
    """Under the bearing walls of the hall, and through the middle of workshop and kitchen; one over the landing."""
    size, foot = (_ft('4 1/2"'), _ft('9 1/4"')), LevelRule(level="crawl")
    lines = (
        ("girder-hall", "15'", ('4"', "7'", "14'", "21'", "27'-8\"")),
        ("girder-stair", "24'", ('4"', "7'", "14'", "21'", "27'-8\"")),
        ("girder-shop", "50'", ("2'-4\"", "9'-4\"", "16'-8\"", "23'-8\"")),
        ("girder-kitchen", "14'", ("27'-8\"", "35'", "41'-8\"")),
    )
    laid = [
        held
        for id, x, stops in lines
        for held in girder(id, tuple((_ft(x), _ft(y)) for y in stops), foot, "sill", size, 3)
    ]
    y, flush = _ft("14'"), LevelRule(level="upper-plate", offset=_ft('5 1/2"'))
    ends = [BeamEnd(x=_ft(x), y=y) for x in ("15'", "24'")]
    over = Beam(id="landing-beam", start=ends[0], end=ends[1], width=_ft('3"'), depth=_ft('5 1/2"'), plies=2, top=flush)
    return (*laid, over)


def _stair() -> Stair:
    """From the hall round three winders, and up along the wall of the dining room."""
    return Stair(
        id="main-stair",
        level="floor",
        upper="upper",
        x=_ft("19'-7 1/4\""),
        y=_ft("12'-1\""),
        turn=0.0,
        width=_ft("3'-1\""),
        turns=(StairTurn(after=1, kind="winders", side="left"),),
        build="housed",
        depth=_ft('11 1/4"'),
        nosing=_ft('1"'),
        tread=_ft('1"'),
        string=_ft('1 1/2"'),
        rails="left",
    )


def _window(id: str, wall: str, at: str, width: str, height: str, across: int = 2, up: int = 2) -> Opening:
    return window(id, wall, _ft(at), _ft(width), _ft(height), HEAD, bars_across=across, bars_up=up)


def _openings(project: Project) -> tuple[Opening, ...]:
    face = project.walls_by_id["dormer-1-s"].top.offset
    high, wide = _ft("1'-4\""), _ft("2'-6\"")
    small = [
        window(f"w{n}", f"dormer-{k}-s", _ft("2'-6\""), wide, high, face - _ft('5"'), bars_across=2, bars_up=1)
        for k, n in ((1, 26), (2, 27))
    ]
    return (
        door("d1", "south", _ft("20'"), _ft("3'-2\""), HEAD, trim=88.9),
        _window("w1", "south", "5'", "4'", "4'-6\""),
        _window("w2", "south", "11'", "4'", "4'-6\""),
        _window("w3", "south", "29'", "4'", "4'-6\""),
        _window("w4", "south", "35'", "4'", "4'-6\""),
        _window("w5", "west", "7'", "4'", "4'-6\""),
        _window("w6", "west", "20'", "6'", "4'-6\"", 3),
        _window("w7", "north", "6'", "5'", "4'-6\"", 3),
        _window("w8", "north", "37'", "2'-6\"", "3'", 1),
        _window("w9", "kitchen-wall-1", "7'", "4'", "3'-6\""),
        _window("w10", "kitchen-wall-2", "8'", "6'", "3'-6\"", 3, 1),
        door("d2", "kitchen-wall-3", _ft("7'"), _ft("3'-2\""), HEAD, trim=88.9),
        _window("w11", "shop-wall-1", "6'", "4'", "3'"),
        _window("w12", "shop-wall-1", "14'", "4'", "3'"),
        _window("w13", "shop-wall-2", "6'", "4'", "3'"),
        _window("w14", "shop-wall-2", "16'", "4'", "3'"),
        door("d3", "shop-wall-3", _ft("10'"), _ft("3'-6\""), HEAD, trim=88.9),
        _window("w15", "shop-wall-3", "16'", "3'", "3'"),
        _window("w16", "upper-south", "5'", "3'-6\"", "4'"),
        _window("w17", "upper-south", "11'", "3'-6\"", "4'"),
        _window("w18", "upper-south", "20'", "3'-6\"", "4'"),
        _window("w19", "upper-south", "29'", "3'-6\"", "4'"),
        _window("w20", "upper-south", "35'", "3'-6\"", "4'"),
        _window("w21", "upper-north", "6'", "4'", "4'"),
        _window("w22", "upper-north", "20'", "3'", "3'"),
        _window("w23", "upper-north", "34'", "4'", "4'"),
        _window("w24", "upper-west", "7'", "4'", "4'"),
        _window("w25", "upper-west", "21'", "4'", "4'"),
        *small,
        door("d4", "hall", _ft("8'"), _ft("3'"), HEAD, trim=0.0),
        door("d5", "stair", _ft("8'"), _ft("2'-8\""), HEAD, trim=0.0),
        door("d6", "study", _ft("6'"), _ft("2'-8\""), HEAD, trim=0.0),
        door("d7", "pantry", _ft("5'"), _ft("2'-6\""), HEAD, trim=0.0),
        door("d8", "north", _ft("22'"), _ft("3'-6\""), HEAD, trim=0.0),
        door("d9", "landing-west", _ft("11'"), _ft("2'-8\""), HEAD, trim=0.0),
        door("d10", "bath", _ft("3'"), _ft("2'-6\""), HEAD, trim=0.0),
        door("d11", "landing-east", _ft("8'-9\""), _ft("2'-6\""), HEAD, trim=0.0),
        door("d12", "landing-west", _ft("20'"), _ft("2'-8\""), HEAD, trim=0.0),
        door("d13", "landing-east", _ft("25'"), _ft("2'-8\""), HEAD, trim=0.0),
    )


def _roofs() -> tuple[RoofBlock, ...]:
    edge, end, abutment = eave(_ft('16"')), gable(_ft('12"')), RoofEdge(kind="abutment")

    def block(id: str, name: str, joints: tuple[str, ...], edges: tuple[RoofEdge, ...], plate: str) -> RoofBlock:
        return RoofBlock(
            id=id,
            name=name,
            outline=tied(*joints),
            edges=edges,
            pitch=9 / 12 if plate == "upper-plate" else 7 / 12,
            plate=plate,
            seat=_ft('3 1/2"'),
            make_up="roof",
            fascia_depth=_ft('7 1/4"'),
            gutter=_ft('5"'),
        )

    shop, kitchen = ("shop-d", "shop-c", "shop-b", "shop-a"), ("kitchen-a", "kitchen-d", "kitchen-c", "kitchen-b")
    return (
        block("roof-main", "Main roof", ("sw", "se", "ne", "nw"), (edge, end, edge, end), "upper-plate"),
        block("roof-shop", "Workshop roof", shop, (edge, end, edge, abutment), "plate"),
        block("roof-kitchen", "Kitchen roof", kitchen, (abutment, edge, end, edge), "plate"),
    )


def _dormers() -> tuple[AddDormer, ...]:
    return tuple(
        AddDormer(
            id=f"roof-dormer-{k}",
            form="gable",
            x0=_ft(west),
            y0=_ft("3'"),
            x1=_ft(east),
            y1=_ft("8'"),
            joints=(f"dormer-{k}-a", f"dormer-{k}-b", f"dormer-{k}-c", f"dormer-{k}-d"),
            walls=(f"dormer-{k}-w", f"dormer-{k}-s", f"dormer-{k}-e"),
        )
        for k, west, east in ((1, "7'-6\"", "12'-6\""), (2, "27'-6\"", "32'-6\""))
    )


def _porch_roof() -> ProposeRoof:
    west, east, south, north = (_ft(text) for text in PORCH)
    corners = ((west, south), (east, south), (east, north), (west, north))
    outline = tuple(Corner(x=x, y=y) for x, y in corners)
    return ProposeRoof(id="roof-porch", form="single", level="floor", plate="plate", outline=outline)


def _porch(project: Project) -> tuple[Post | Beam, ...]:
    """Four posts, and beams from one to the next under the low side of the porch roof."""
    bears = next(roof for roof in project.roofs if roof.id == "roof-porch").offset
    depth, wide = _ft('9 1/4"'), _ft('5 1/2"')
    head = LevelRule(level="plate", offset=bears - depth)
    south = _ft(PORCH[2]) + wide / 2
    posts = tuple(
        Post(id=f"post-{k}", x=_ft(x), y=south, width=wide, base=LevelRule(level="grade"), top=head)
        for k, x in enumerate(POSTS, 1)
    )
    beams = tuple(
        Beam(
            id=f"porch-beam-{k}",
            start=BeamEnd(post=f"post-{k}"),
            end=BeamEnd(post=f"post-{k + 1}"),
            width=wide,
            depth=depth,
            top=LevelRule(level="plate", offset=bears),
        )
        for k in range(1, len(POSTS))
    )
    return (*posts, *beams)


ON_ROOF: tuple[tuple[str, OnRoof, str, str], ...] = (
    ("chimney", "chimney", "16'-10\"", "25'"),
    ("pipe", "pipe", "33'", "20'"),
    ("downpipe-1", "downpipe", "0.5'", "0'"),
    ("downpipe-2", "downpipe", "39'-6\"", "28'"),
    ("downpipe-3", "downpipe", "59'", "2'"),
    ("downpipe-4", "downpipe", "22'", "41'"),
)


def _rooms() -> tuple[Room, ...]:
    places = (
        ("living", "Living room", "7'", "7'", "floor"),
        ("hall", "Hall", "17'-6\"", "5'", "floor"),
        ("study", "Study", "33'", "6'", "floor"),
        ("dining", "Dining room", "33'", "21'", "floor"),
        ("pantry", "Pantry", "7'", "22'", "floor"),
        ("kitchen", "Kitchen", "14'", "36'", "floor"),
        ("shop", "Workshop", "50'", "13'", "floor"),
        ("bed-1", "West bedroom", "7'", "7'", "upper"),
        ("bed-2", "South bedroom", "32'", "7'", "upper"),
        ("bed-3", "North bedroom", "6'", "21'", "upper"),
        ("bath", "Bath", "19'-6\"", "3'-6\"", "upper"),
        ("landing", "Landing", "17'-6\"", "15'", "upper"),
        ("bed-4", "East bedroom", "33'", "21'", "upper"),
    )
    return tuple(Room(id=f"room-{id}", name=name, x=_ft(x), y=_ft(y), level=level) for id, name, x, y, level in places)


def _sections() -> tuple[SectionLine, ...]:
    return (
        cut("a", "A", (_ft("18'"), _ft("-12'"), _ft("18'"), _ft("48'")), "right"),
        cut("b", "B", (_ft("-6'"), _ft("9'"), _ft("66'"), _ft("9'")), "left"),
        cut("c", "C", (_ft("22'-3\""), _ft("-12'"), _ft("22'-3\""), _ft("36'")), "left"),
    )


def _strips() -> tuple[WallSection, ...]:
    return wall_sections(
        ("south", _ft("11'"), "start"), ("west", _ft("20'"), "start"), ("kitchen-wall-1", _ft("7'"), "end")
    )


def _sheets() -> tuple[Sheet, ...]:
    return (
        sheet(1, "Plans", "ARCH D", ("plan", 48, 300, 340), ("plan:upper", 64, 720, 380)),
        sheet(
            2,
            "Elevations",
            "ARCH D",
            *four_sides(64, (260, 690), (450, 190)),
        ),
        sheet(3, "Sections", "ARCH D", ("section:section-a", 48, 270, 458), ("section:section-b", 64, 660, 190)),
        sheet(
            4,
            "Stair",
            "ARCH D",
            ("section:section-c", 32, 305, 330),
            ("section:setting:main-stair", 24, 735, 330),
        ),
        sheet(
            5,
            "Framing",
            "ARCH D",
            ("plan:framing:main-floor", 48, 260, 310),
            ("plan:framing:upper-joists", 48, 660, 330),
        ),
        sheet(
            6,
            "Structure",
            "ARCH D",
            ("plan:structure:main-floor", 48, 260, 330),
            ("plan:structure:upper-joists", 48, 660, 330),
        ),
        strips_sheet(7, "ARCH D", 16, (200, 330), (500, 330), (754, 295)),
    )
