"""Eaves whose rafter tails show: frieze blocks with screened holes between them, boards over them."""

from __future__ import annotations

import math
from collections.abc import Iterator

from ..buildup import BuildUp, Found, OtherKind
from ..parameters import Parameter, Values
from ..pieces import MEMBERS, STRIP, Piece, bead, block, under
from .eave_site import EaveSite
from .eaves import (
    CLEAR,
    DRIP,
    ICE,
    LAP,
    STARTER,
    air_rules,
    framed,
    no_air,
    seat_rules,
    vent_needs,
)

BLOCK = Parameter("block", "Thickness of the frieze blocks", 38.1, 19.0, 50.8)
HOLE = Parameter("hole", "Diameter of the screened holes", 50.8, 19.0, 76.2)
HOLES = Parameter("holes", "Spacing of the holes", 152.4, 60.0, 406.4, "common practice: three in a bay of 24 in")
SCREEN = 0.75
"""What a screen leaves of a hole. Common practice, no source."""
WIDE = 100.0
"""Tails that stand out less than this (mm) beyond the wall are not shown as such."""


def _block(site: EaveSite, p: Values) -> tuple[float, float, float, float]:
    """Inner and outer face of a frieze block, its foot and its top at the inner face."""
    assert site.wall is not None
    wrap = next((held for held in site.wall.layers if held.layer.function == "membrane"), None)
    u0 = (wrap.outer if wrap is not None else site.wall.shell) + 0.5
    u1 = u0 + p.block
    return u0, u1, site.rafter_top(u1) - site.rafter[0], site.rafter_top(u0)


def _open(site: EaveSite, p: Values) -> Iterator[Piece]:
    u0, u1, low, _ = _block(site, p)
    end = site.reach - site.board
    shape = under([(u0, low), (u1, low), (u1, site.rafter_top(u1)), (u0, site.rafter_top(u0))])
    yield Piece(
        "frieze-block", "{block} frieze blocks between the tails", "blocking", "softwood", shape, "structure",
        ("weather", "air", "fire"), takes=("cladding", "trim", "moulding", "frieze"), yields=(*MEMBERS, "sheathing"),
        axis=True, tier=STRIP,
    )  # fmt: skip
    middle = site.rafter_top(u1) - p.hole / 2 - 12.0
    yield Piece(
        "holes", "screened holes of {hole} at {holes}", "vent_strip", "vent_strip",
        block(u1, u1 + 1.0, middle - p.hole / 2, middle + p.hole / 2), "sheet", (), every=p.holes, wide=p.hole,
        first=p.holes / 2, yields=MEMBERS, tier=STRIP,
    )  # fmt: skip
    yield Piece(
        "tail-boards", "matched boards on the tails, face down", "sheathing", "softwood",
        under([(u, over(u)) for u, over in ((u0, site.rafter_top), (end, site.rafter_top), (end, site.on_deck),
                                            (u0, site.on_deck))]),
        "sheathing", ("weather",), ends="roof", takes=("sheathing",), tier=STRIP,
    )  # fmt: skip
    yield Piece(
        "block-seal", "sealant under the frieze blocks", "sealant", "sealant", bead(u1 - 4.0, low - 3.0, 6.0), "finish",
        ("weather",), takes=("cladding",), yields=MEMBERS,
    )  # fmt: skip
    yield from framed(site, p)


def _bars(site: EaveSite, p: Values) -> str:
    if site.wall is None or not site.wall.is_framed:
        return OtherKind("it is built on a framed wall")
    if not site.is_open:
        return OtherKind("the roof has soffits under its eaves")
    if site.reach - site.board - site.face < WIDE:
        return f"the tails stand out {p.said(max(site.reach - site.board - site.face, 0.0))}: make the overhang wider"
    _, _, low, top = _block(site, p)
    if p.hole + 40.0 > top - low:
        return f"a hole of {p.said(p.hole)} is too large for blocks of {p.said(top - low)}: make it smaller"
    return no_air(site, p)


def _rules(site: EaveSite, p: Values) -> Iterator[Found]:
    net = math.pi / 4 * p.hole**2 * SCREEN / p.holes
    yield from vent_needs(site, net, "Make more or larger holes")
    yield from air_rules(site, p)
    yield from seat_rules(site, p)


OPEN = BuildUp(
    "eave-open", "eave", "Open tails, vented between them", "framed wall, the tails of the rafters show", _bars, _open,
    (CLEAR, BLOCK, HOLE, HOLES, DRIP, ICE, STARTER, LAP), _rules,
)  # fmt: skip
