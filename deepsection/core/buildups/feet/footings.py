"""Footings: strip under a foundation wall with key, drain, stone, filter and damp-proofing; strip under leaves."""

from __future__ import annotations

from collections.abc import Iterator

import shapely

from ..buildup import BuildUp, Found, OtherKind
from ..parameters import Parameter, Values
from ..pieces import STRIP, Piece, block, sheet, under
from .site import FootSite

PIPE = Parameter("pipe", "Diameter of the drain", 101.6, 50.0, 200.0, "IRC 2021 R405.1: 4 in usual")
STONE = Parameter("stone", "Stone around the drain", 152.4, 50.0, 400.0, "IRC 2021 R405.1: 6 in over, 2 in under")
COVER = Parameter("cover", "Cover of the bars", 76.2, 38.0, 150.0, "ACI 318: 3 in against earth")
ARCS = ("stem", "footing")
"""What stands in arcs, and what lies straight beside it ends at."""
KEY = Parameter("key", "Width of the key", 88.9, 0.0, 150.0)


def bars(site: FootSite, p: Values) -> Iterator[Piece]:
    """Two bars along the footing."""
    outer, inner = site.footing
    v = site.foot_low + p.cover + 6.35
    for number, u in ((1, outer - p.cover - 6.35), (2, inner + p.cover + 6.35)):
        if outer - inner > 2 * p.cover + 40.0 and v < site.foot_top - 30.0:
            yield Piece(
                f"bar-{number}",
                "2 #4 bars, {cover} cover",
                "fixing",
                "steel",
                shapely.Point(u, v).buffer(6.35, quad_segs=6),
                "sheet",
                ("structure",),
                takes=("footing",),
                tier=STRIP,
            )


def _strip(site: FootSite, p: Values) -> Iterator[Piece]:
    outer, inner = site.stem
    yield from bars(site, p)
    middle = (outer + inner) / 2
    if p.key and outer - inner > p.key + 40.0:
        yield Piece(
            "key", "key in the footing", "strip", "concrete",
            under([(middle - p.key / 2, site.foot_top), (middle + p.key / 2, site.foot_top),
                   (middle + p.key / 2 - 8.0, site.foot_top - 38.0), (middle - p.key / 2 + 8.0, site.foot_top - 38.0)]),
            "structure", ("structure",), takes=("footing",), tier=STRIP,
        )  # fmt: skip
    if site.ground > site.foot_top + 150.0:
        high = min(site.ground, site.top) - 1.0
        line = [(site.footing[0], site.foot_top + 1.0), (outer, site.foot_top + 1.0), (outer, high)]
        yield Piece(
            "damp-proofing", "damp-proofing from grade, turned onto the footing", "membrane", "membrane",
            sheet(line, -1.0), "sheet", ("weather",), takes=("strip",), yields=ARCS, tier=STRIP,
        )  # fmt: skip
    yield from _drain(site, p)


def _drain(site: FootSite, p: Values) -> Iterator[Piece]:
    """Pipe in stone beside the footing, never above its top, wrapped in filter cloth."""
    u0 = site.footing[0] + 1.0
    u1 = u0 + p.pipe + 2 * 50.8
    low = site.foot_low
    centre = (u0 + 50.8 + p.pipe / 2, low + 50.8 + p.pipe / 2)
    high = centre[1] + p.pipe / 2 + p.stone
    if high > site.ground - 50.0 or centre[1] + p.pipe / 2 > site.foot_top:
        return
    pipe = shapely.Point(centre).buffer(p.pipe / 2, quad_segs=8)
    yield Piece(
        "stone", "{stone} of washed stone over the drain", "strip", "gravel", block(u0, u1, low, high).difference(pipe),
        "finish", ("drainage",), yields=ARCS, tier=STRIP,
    )  # fmt: skip
    yield Piece(
        "drain",
        "{pipe} perforated drain to an outlet",
        "pipe",
        "plastic",
        pipe.difference(pipe.buffer(-4.0)),
        "finish",
        ("drainage",),
        takes=("strip",),
        yields=ARCS,
        clears=pipe,
        tier=STRIP,
    )
    yield Piece(
        "filter", "filter cloth around the stone", "membrane", "membrane",
        sheet([(u0, high), (u1, high), (u1, low)], 1.0), "sheet", (), tier=STRIP,
    )  # fmt: skip


def _bars(site: FootSite, p: Values) -> str:
    if site.deep:
        return OtherKind("the edge of a slab carries the wall")
    if site.tradition != "timber":
        return OtherKind("it is built under foundation walls of concrete")
    return ""


def _rules(site: FootSite, p: Values) -> Iterator[Found]:
    under_ground = site.ground - site.foot_low
    if under_ground < 304.8 - 0.5:
        yield Found(
            f"the footing lies {p.said(under_ground)} below the ground: {p.said(304.8)} at least", "IRC 2021 R403.1.4"
        )
    projection = site.footing[0] - site.stem[0]
    thick = site.foot_top - site.foot_low
    if projection > thick + 0.5:
        yield Found(
            f"the footing projects {p.said(projection)} and is {p.said(thick)} thick: not more than that",
            "IRC 2021 R403.1.1",
        )
    if 0 < projection < 50.8 - 0.5:
        yield Found(f"the footing projects {p.said(projection)}: {p.said(50.8)} at least", "IRC 2021 R403.1.1")


STRIP_FOOTING = BuildUp(
    "footing-strip", "footing", "Strip under a foundation wall", "foundation wall of concrete", _bars, _strip,
    (PIPE, STONE, COVER, KEY), _rules,
)  # fmt: skip


def _masonry(site: FootSite, p: Values) -> Iterator[Piece]:
    outer, inner = site.footing
    v = site.foot_low
    yield Piece(
        "blinding", "{blinding} blinding", "strip", "concrete", block(outer, inner, v - p.blinding, v), "finish", (),
        tier=STRIP,
    )  # fmt: skip


BLINDING = Parameter("blinding", "Thickness of the blinding", 50.0, 25.0, 100.0)


def _bars_masonry(site: FootSite, p: Values) -> str:
    if site.deep:
        return OtherKind("the edge of a slab carries the wall")
    return "" if site.tradition == "masonry" else OtherKind("it is built under walls of masonry")


def _masonry_rules(site: FootSite, p: Values) -> Iterator[Found]:
    depth = site.ground - site.foot_low
    if depth < 449.5:
        yield Found(
            f"the footing lies {p.said(depth)} below the ground: {p.said(450.0)} for frost",
            "Approved Document A, from memory",
        )
    projection, thick = site.footing[0] - site.stem[0], site.foot_top - site.foot_low
    if thick < projection - 0.5:
        yield Found(
            f"the footing is {p.said(thick)} thick, less than its projection", "Approved Document A, from memory"
        )


MASONRY_FOOTING = BuildUp(
    "footing-masonry", "footing", "Strip under leaves of masonry", "walls of masonry", _bars_masonry, _masonry,
    (BLINDING,), _masonry_rules,
)  # fmt: skip
