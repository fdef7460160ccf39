"""Roofs that end at walls, at their side or their top: flashing behind siding; flashing and tray in masonry."""

from __future__ import annotations

from collections.abc import Iterator

from ..buildup import BuildUp, Found, OtherKind
from ..parameters import Parameter, Values
from ..pieces import METAL, SKIN, STRIP, Piece, block, sheet
from .side_site import RoofSideSite

STEPS = "IRC 2021 R905.2.8.3: 4 in; from memory"
UP = Parameter("up", "Flashing up the wall", 101.6, 75.0, 250.0, STEPS)
OUT = Parameter("out", "Flashing out on the roof", 101.6, 75.0, 250.0, STEPS)
APRON = Parameter("out", "Apron out on the roof", 127.0, 75.0, 300.0, "common practice: 5 in")
GAP = Parameter("gap", "Siding held above the roof", 50.8, 12.0, 150.0, "common practice: 2 in")
COVER = Parameter("cover", "Flashing up the wall", 150.0, 75.0, 300.0, "common practice: 150 mm")
DRESSED = Parameter("dressed", "Flashing over the tiles", 150.0, 75.0, 300.0, "common practice: 150 mm")
CHASE = Parameter("chase", "Flashing into the joint", 25.0, 15.0, 40.0, "common practice: 25 mm")
TRAY = Parameter("tray", "Tray rises to the inner leaf", 150.0, 75.0, 300.0, "common practice: 150 mm")
LEAD = 1.8
LEAST = 101.6
"""Flashing goes at least so far up and out (mm)."""


def _behind(site: RoofSideSite, p: Values, id: str, note: str, lies_on: float) -> Piece:
    """Flashing up behind siding and its membrane, that lies on a layer of the roof."""
    wall, shell = site.wall, site.wall.shell
    low, far = site.over(shell, lies_on), wall.outer + p.out
    line = [(shell, low + p.up), (shell, low), (far, site.over(far, lies_on))]
    gap = site.over(wall.outer, site.underlay), site.over(wall.outer, site.covering) + p.gap
    return Piece(
        id, note, "flashing", "flashing", sheet(line, METAL), "sheet", ("weather", "drainage"),
        takes=("membrane", "cladding", "roofing", "ridge_flashing"), clears=block(shell, wall.outer, *gap), tier=STRIP,
    )  # fmt: skip


def _stepped(site: RoofSideSite, p: Values) -> Iterator[Piece]:
    note = "step flashing with each course, {up} up, {out} out, kick-out at the eave; siding {gap} above the roof"
    yield _behind(site, p, "step-flashing", note, site.underlay)


def _apron(site: RoofSideSite, p: Values) -> Iterator[Piece]:
    note = "apron flashing {up} up behind the membrane, {out} out over the covering; siding {gap} above it"
    yield _behind(site, p, "apron", note, site.covering)


def _bars_behind(site: RoofSideSite, p: Values) -> str:
    if site.wall.form != "framed":
        return OtherKind("it is built at a framed wall with siding")
    room = p.up - (site.covering - site.underlay)
    if room < p.gap:
        return f"the siding ends {p.said(p.gap)} above the roof, the flashing {p.said(room)}: let it go up farther"
    return ""


def _least(site: RoofSideSite, p: Values) -> Iterator[Found]:
    for words, value in (("goes up", p.up), ("goes out", p.out)):
        if value < LEAST - 0.05:
            said = f"the flashing {words} {p.said(value)}: {p.said(LEAST)} at least"
            yield Found(said, "IRC 2021 R905.2.8.3, from memory")


STEPPED = BuildUp(
    "side-stepped", "roof_side", "Step flashing behind siding", "framed wall with siding", _bars_behind, _stepped,
    (UP, OUT, GAP), _least,
)  # fmt: skip
APRONED = BuildUp(
    "top-apron", "roof_top", "Apron behind siding", "framed wall with siding", _bars_behind, _apron,
    (UP, APRON, GAP), _least,
)  # fmt: skip


def _chased(site: RoofSideSite, p: Values, flashing: str, tray: str) -> Iterator[Piece]:
    """Flashing in a joint of a wall of masonry, down its face and over the tiles; a tray over it in a cavity."""
    wall, leaf = site.wall, site.wall.leaf or site.wall.frame
    face, far = wall.outer, wall.outer + p.dressed
    low = site.over(face, site.covering)
    high = low + p.cover
    line = [(leaf.outer - p.chase, high), (face, high), (face, low), (far, site.over(far, site.covering))]
    yield Piece(
        "cover-flashing", flashing, "flashing", "flashing", sheet(line, LEAD), "sheet", ("weather", "drainage"),
        takes=("structure", "finish", "cladding", "ridge_flashing"), tier=STRIP,
    )  # fmt: skip
    if wall.form == "cavity" and wall.between is not None:
        outer, inner = wall.between
        foot = high + LEAD + 2.0
        yield Piece(
            "step-tray", tray, "flashing", "membrane",
            sheet([(leaf.outer + 5.0, foot), (outer, foot + 10.0), (inner + 1.0, foot + p.tray)], SKIN), "sheet",
            ("weather", "drainage"), takes=("structure", "finish", "insulation", "cavity"), tier=STRIP,
        )  # fmt: skip


def _covered(site: RoofSideSite, p: Values) -> Iterator[Piece]:
    note = "cover flashing stepped up the joints, {cover} up, {chase} in, {dressed} over the tiles"
    yield from _chased(site, p, note, "stepped cavity tray with stop ends, weeps over it")


def _top_covered(site: RoofSideSite, p: Values) -> Iterator[Piece]:
    note = "apron flashing {cover} up, {chase} into the joint, {dressed} down over the tiles"
    yield from _chased(site, p, note, "cavity tray with stop ends, weeps at 900 over it")


def _bars_masonry(site: RoofSideSite, p: Values) -> str:
    return OtherKind("it is built at a wall of masonry") if site.wall.form in ("framed", "veneer") else ""


def _covered_rules(site: RoofSideSite, p: Values) -> Iterator[Found]:
    if p.cover < 149.95:
        yield Found(f"the flashing goes up {p.said(p.cover)}: {p.said(150.0)}", "common practice, no source")


COVERED = BuildUp(
    "side-covered", "roof_side", "Cover flashing and stepped tray", "wall of masonry", _bars_masonry, _covered,
    (COVER, DRESSED, CHASE, TRAY), _covered_rules,
)  # fmt: skip
TOP_COVERED = BuildUp(
    "top-covered", "roof_top", "Apron flashing and tray", "wall of masonry", _bars_masonry, _top_covered,
    (COVER, DRESSED, CHASE, TRAY), _covered_rules,
)  # fmt: skip
