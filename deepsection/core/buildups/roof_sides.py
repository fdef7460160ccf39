"""Sides of roofs at walls: step flashing behind siding; cover flashing and stepped tray in a wall of masonry."""

from __future__ import annotations

from collections.abc import Iterator

from .buildup import BuildUp, Found, OtherKind
from .parameters import Parameter, Values
from .pieces import STRIP, Piece, block, sheet
from .roof_side_site import RoofSideSite

UP = Parameter("up", "Step flashing up the wall", 101.6, 75.0, 250.0, "IRC 2021 R905.2.8.3: 4 in; from memory")
OUT = Parameter("out", "Step flashing out on the roof", 101.6, 75.0, 250.0, "IRC 2021 R905.2.8.3: 4 in; from memory")
GAP = Parameter("gap", "Siding held above the roof", 50.8, 12.0, 150.0, "common practice: 2 in")
COVER = Parameter("cover", "Cover flashing up the wall", 150.0, 75.0, 300.0, "common practice: 150 mm")
DRESSED = Parameter("dressed", "Cover flashing over the tiles", 150.0, 75.0, 300.0, "common practice: 150 mm")
CHASE = Parameter("chase", "Cover flashing into the joint", 25.0, 15.0, 40.0, "common practice: 25 mm")
TRAY = Parameter("tray", "Tray rises to the inner leaf", 150.0, 75.0, 300.0, "common practice: 150 mm")
METAL, LEAD, SKIN = 0.8, 1.8, 1.0


def _stepped(site: RoofSideSite, p: Values) -> Iterator[Piece]:
    wall, low, shell = site.wall, site.underlay, site.wall.shell
    line = [(shell, low + p.up), (shell, low), (wall.outer + p.out, low)]
    yield Piece(
        "step-flashing",
        "step flashing with each course, {up} up, {out} out, kick-out at the eave; siding {gap} above the roof",
        "flashing", "flashing", sheet(line, METAL), "sheet", ("weather", "drainage"),
        takes=("membrane", "cladding", "roofing"), tier=STRIP,
        clears=block(shell, wall.outer, low, site.covering + p.gap),
    )  # fmt: skip


def _bars_stepped(site: RoofSideSite, p: Values) -> str:
    if site.wall.form != "framed":
        return OtherKind("it is built at a framed wall with siding")
    room = p.up - (site.covering - site.underlay)
    if room < p.gap:
        return f"the siding ends {p.said(p.gap)} above the roof, the flashing {p.said(room)}: let it go up farther"
    return ""


def _stepped_rules(site: RoofSideSite, p: Values) -> Iterator[Found]:
    for words, value in (("goes up", p.up), ("goes out", p.out)):
        if value < 101.6 - 0.05:
            said = f"the step flashing {words} {p.said(value)}: {p.said(101.6)} at least"
            yield Found(said, "IRC 2021 R905.2.8.3, from memory")


STEPPED = BuildUp(
    "side-stepped", "roof_side", "Step flashing behind siding", "framed wall with siding", _bars_stepped, _stepped,
    (UP, OUT, GAP), _stepped_rules,
)  # fmt: skip


def _covered(site: RoofSideSite, p: Values) -> Iterator[Piece]:
    wall = site.wall
    leaf = wall.leaf or wall.frame
    high, face = site.covering + p.cover, wall.outer
    line = [(leaf.outer - p.chase, high), (face, high), (face, site.covering), (face + p.dressed, site.covering)]
    yield Piece(
        "cover-flashing",
        "cover flashing stepped up the joints, {cover} up, {chase} in, {dressed} over the tiles",
        "flashing", "flashing", sheet(line, LEAD), "sheet", ("weather", "drainage"),
        takes=("structure", "finish", "cladding"), tier=STRIP,
    )  # fmt: skip
    if wall.form == "cavity" and wall.between is not None:
        outer, inner = wall.between
        foot = high + LEAD + 2.0
        line = [(inner + 1.0, foot + p.tray), (outer, foot + 10.0), (leaf.outer + 5.0, foot)]
        yield Piece(
            "step-tray", "stepped cavity tray with stop ends, weeps over it", "flashing", "membrane",
            sheet(line[::-1], SKIN), "sheet", ("weather", "drainage"),
            takes=("structure", "finish", "insulation", "cavity"), tier=STRIP,
        )  # fmt: skip


def _bars_covered(site: RoofSideSite, p: Values) -> str:
    return OtherKind("it is built at a wall of masonry") if site.wall.form in ("framed", "veneer") else ""


def _covered_rules(site: RoofSideSite, p: Values) -> Iterator[Found]:
    if p.cover < 149.95:
        yield Found(f"the cover flashing goes up {p.said(p.cover)}: {p.said(150.0)}", "common practice, no source")


COVERED = BuildUp(
    "side-covered", "roof_side", "Cover flashing and stepped tray", "wall of masonry", _bars_covered, _covered,
    (COVER, DRESSED, CHASE, TRAY), _covered_rules,
)  # fmt: skip
