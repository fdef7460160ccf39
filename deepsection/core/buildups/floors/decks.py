"""Decks at walls: the ledger on its strip and bolts, the flashing over it."""

from __future__ import annotations

from collections.abc import Iterator

from ...geometry import Point
from ..buildup import BuildUp, Found, OtherKind
from ..parameters import Parameter, Values
from ..pieces import METAL, SKIN, STRIP, Piece, block, sheet
from .deck_site import DeckSite

UP = Parameter("up", "Flashing up the wall", 152.4, 75.0, 300.0, "common practice: 6 in or more")
GAP = Parameter("gap", "Siding over the deck", 12.7, 0.0, 60.0)
BOLTS = Parameter("bolts", "Spacing of the bolts", 406.4, 150.0, 1000.0, "IRC 2021 Table R507.9.1.3(1), from memory")
DROP = Parameter("drop", "Flashing down over the ledger", 25.4, 10.0, 60.0)
EDGES = 50.8, 19.05
"""From the upper and the lower edge of a ledger to its bolts (mm). Source: IRC 2021 R507.9.1.3, 2 in and 3/4 in, from
memory."""
BOARDED = ("joist", "blocking", "rim_joist")
"""What meets the face of a ledger."""
BOLTED = ("ledger", "sheathing", "rim_joist", "infill", "membrane", "structure", "insulation")
"""What bolts go through."""
LEAST = 184.0
"""A ledger is so deep at least (mm): nominal 2x8. Source: IRC 2021 R507.9.1.1, from memory."""
SPACED = ((1828.8, 914.4), (2438.4, 914.4), (3048.0, 863.6), (3657.6, 736.6), (4267.2, 609.6), (4876.8, 533.4),
          (5486.4, 482.6))  # fmt: skip
"""(joists that run out so far at most, spacing of 1/2 in bolts at most; mm). Source: IRC 2021 Table R507.9.1.3(1), 40
psf live, 10 psf dead, sheathing of 1/2 in at most, from memory."""
ROD, WASHER = 12.7, (5.0, 38.0)
"""Thickness of bolts; how thick and how wide the washers under their heads and nuts are (mm)."""


def _bolts(site: DeckSite, p: Values, back: float, note: str) -> Iterator[Piece]:
    """Bolts by turns at the upper and at the lower edge of the ledger, from a back to its face."""
    out = site.face + site.ledger
    upper, lower = EDGES
    (thick, wide), rows = WASHER, (("", site.high - upper, 0.0), ("-low", site.low + lower + ROD, p.bolts / 2))
    for row, v, first in rows:
        rod = block(back, out + 2 * thick, v - ROD / 2, v + ROD / 2)
        plate = block(out, out + thick, v - wide / 2, v + wide / 2)
        yield Piece(
            f"ledger-bolt{row}", note, "fixing", "steel", rod.union(plate), "finish", ("structure",), every=p.bolts,
            wide=ROD, first=first + 150.0, even=not row, takes=BOLTED, yields=("joist", "blocking", "stud"),
        )  # fmt: skip


def _flashing(
    site: DeckSite, p: Values, high: float, note: str, takes: tuple[str, ...], into: tuple[Point, ...] = ()
) -> Piece:
    """The flashing over the ledger, between it and the boards: up the wall to a height, and from there into it."""
    inner, outer, v = site.face + SKIN + METAL, site.face + site.ledger + METAL, site.high + METAL
    line = [(outer, site.high - p.drop), (outer, v), (inner, v), (inner, high), *into]
    return Piece(
        "ledger-flashing", note, "flashing", "flashing", sheet(line, METAL), "sheet", ("weather", "drainage"),
        takes=takes, yields=(*BOARDED, "sheathing"), tier=STRIP,
    )  # fmt: skip


def _bars_framed(site: DeckSite, p: Values) -> str:
    form = site.wall.form
    if form == "veneer":
        return (
            "a ledger is not carried by a veneer of masonry (IRC 2021 R507.9.1.1, from memory): stand the deck on "
            "posts of its own"
        )
    return "" if form == "framed" else OtherKind("the wall is of masonry")


def _framed(site: DeckSite, p: Values) -> Iterator[Piece]:
    wrap = next((held for held in site.wall.layers if held.layer.function == "membrane"), None)
    over = wrap.outer if wrap is not None and wrap.outer > site.face else site.face
    top, lap = site.top + p.up + 50.0, site.low - 50.0
    # Behind the membrane above, over that below.
    line = [(over, lap), (over, site.low), (site.face, site.low), (site.face, top)]
    yield Piece(
        "ledger-strip", "self-adhered strip behind the ledger, over the membrane below", "membrane", "membrane",
        sheet(line if over > site.face else [(site.face, lap), (site.face, top)], -SKIN), "sheet", ("weather", "air"),
        takes=("membrane", "cladding", "corner_board"), yields=("sheathing",), tier=STRIP,
    )  # fmt: skip
    yield _flashing(
        site, p, site.top + p.up, "flashing {up} up behind the membrane, over the ledger and {drop} down",
        ("membrane", "cladding", "finish", "corner_board"),
    )  # fmt: skip
    if p.gap:
        yield Piece(
            "siding-gap", "siding {gap} over the deck", "strip", "air",
            block(over, site.wall.outer, site.top, site.top + p.gap), takes=("cladding", "corner_board"), tier=STRIP,
        )  # fmt: skip
    frame = site.wall.frame
    note = "1/2 in bolts through the rim, {bolts} apart, by turns at the upper and the lower edge; washers"
    yield from _bolts(site, p, frame.outer - 50.8, note)


def _rules(site: DeckSite, p: Values) -> Iterator[Found]:
    most = next((apart for span, apart in SPACED if site.span <= span + 0.5), None)
    if most is None:
        yield Found(
            f"joists run out {p.said(site.span)} from this ledger: the table of its bolts ends at "
            f"{p.said(SPACED[-1][0])}; bear them before",
            "IRC 2021 Table R507.9.1.3(1), from memory",
        )
    elif p.bolts > most + 0.5:
        yield Found(
            f"bolts at {p.said(p.bolts)}: {p.said(most)} at most where joists run out {p.said(site.span)}",
            "IRC 2021 Table R507.9.1.3(1), from memory",
        )
    if site.high - site.low < LEAST:
        yield Found(
            f"the ledger is {p.said(site.high - site.low)} deep: {p.said(LEAST)} at least; take deeper joists",
            "IRC 2021 R507.9.1.1, from memory",
        )
    yield from _over(site, p)


LEDGER = BuildUp(
    "ledger-bolted", "deck_ledger", "Ledger bolted through the rim", "framed wall", _bars_framed, _framed,
    (UP, DROP, GAP, BOLTS), _rules,
)  # fmt: skip

JOINT = Parameter(
    "joint", "Flashing into a joint over the deck", 150.0, 75.0, 300.0, "common practice: 150 over a deck"
)
DROP_MM = Parameter("drop", "Flashing down over the ledger", 25.0, 10.0, 60.0)
ANCHORS = Parameter("bolts", "Spacing of the anchors", 600.0, 150.0, 915.0, "by engineer; common practice, no source")
INTO = 25.0
"""A flashing goes so deep into its joint (mm). Common practice, no source."""
DEEP = 110.0
"""Resin anchors go so deep into masonry (mm). Common practice, no source."""


def _bars_masonry(site: DeckSite, p: Values) -> str:
    return OtherKind("a frame carries") if site.wall.is_framed else ""


def _masonry(site: DeckSite, p: Values) -> Iterator[Piece]:
    yield Piece(
        "ledger-strip", "damp-proof strip behind the ledger", "membrane", "membrane",
        block(site.face, site.face + SKIN, site.low, site.high), "sheet", ("weather",), tier=STRIP,
    )  # fmt: skip
    up = site.top + p.joint
    yield _flashing(
        site, p, up, "flashing over the ledger and {drop} down, {joint} up and into a joint",
        ("cladding", "structure", "finish"), ((site.face - INTO, up),),
    )  # fmt: skip
    yield from _bolts(
        site, p, site.face - DEEP, "resin anchors, {bolts} apart, by turns at the upper and the lower edge"
    )


def _over(site: DeckSite, p: Values) -> Iterator[Found]:
    if site.top > site.floor + 0.5:
        yield Found(
            f"the deck lies {p.said(site.top - site.floor)} over the floor inside: water runs in; let it lie lower",
            "common practice, no source",
        )


LEDGER_MASONRY = BuildUp(
    "ledger-anchored", "deck_ledger", "Ledger anchored to masonry", "wall of masonry", _bars_masonry, _masonry,
    (JOINT, DROP_MM, ANCHORS), _over,
)  # fmt: skip
