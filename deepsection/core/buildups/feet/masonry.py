"""Feet of masonry walls: leaves to the footing, damp-proof courses, fill, insulation carried down, edge strip."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import pairwise

from ..boards import BEYOND, TIES, is_double, second_layer, tie_rules, wall_tie
from ..buildup import BuildUp, Found, OtherKind
from ..parameters import Parameter, Values
from ..pieces import STRIP, Piece, block, sheet, under
from .framed import ground_rules
from .site import FootSite

THIN = 1.0
"""Thickness of a damp-proof course as it is drawn (mm)."""
DOWN = Parameter(
    "down", "Cavity kept clear below the damp-proof course", 225.0, 150.0, 600.0, "common practice: 225 mm or more"
)
STRIP_WIDE = Parameter("strip", "Insulation at the edge of the screed", 25.0, 10.0, 50.0)
BELL = Parameter("bell", "Render stops over the ground", 150.0, 100.0, 600.0, "common practice: 150 mm")
WEEPS = Parameter("weeps", "Spacing of the weep holes", 900.0, 300.0, 1500.0, "common practice: 900")
LAPS = Parameter("laps", "Wall insulation laps that of the floor", 150.0, 100.0, 600.0, "common practice: 150 mm")
GROUND_ROLES = ("structure", "insulation", "membrane", "finish", "slab")


def _cavity(site: FootSite, p: Values) -> Iterator[Piece]:
    wall = site.wall
    leaf, between, frame = wall.leaf, wall.between, wall.frame
    assert leaf is not None and between is not None
    outer, inner = between
    v, low = site.base, site.foot_top
    fill = v - max(p.down, _insulation_down(site, p))
    course = site.insulation.low if site.insulation is not None and site.insulation.low < v - 20.0 else v - THIN
    for id, held, words, high in (("outer", leaf, "outer", v - THIN), ("inner", frame, "inner", course)):
        yield Piece(
            f"{id}-below", f"dense block below the damp-proof course, {words} leaf", "structure", "block",
            block(held.outer, held.inner, low, high), "structure", ("structure",), takes=("stem",), tier=STRIP,
        )  # fmt: skip
    if site.insulation is not None and site.insulation.low < v - 20.0:
        yield Piece(
            "thermal-course",
            "course of load-bearing insulating block at the insulation of the floor",
            "structure",
            "block",
            block(frame.outer, frame.inner, site.insulation.low, v - THIN),
            "structure",
            ("thermal", "structure"),
            takes=("stem",),
            tier=STRIP,
        )
    yield Piece(
        "fill",
        "lean concrete in the cavity to {down} below the damp-proof course, sloped outward",
        "strip",
        "concrete",
        under([(inner, low), (inner, fill), (outer, fill - 25.0), (outer, low)]),
        "structure",
        ("structure",),
        takes=("stem",),
        tier=STRIP,
    )
    boards = wall.boards
    if boards is not None:
        edges = boards.inner, *((boards.middle,) if is_double(boards) else ()), boards.outer
        for number, (near, far) in enumerate(pairwise(edges)):
            yield Piece(
                "boards-down" + ("-outer" if number else ""), "cavity insulation carried down below that of the floor",
                "insulation", boards.layer.material,
                under([(near, _slope(site, fill, near)), (near, v), (far, v), (far, _slope(site, fill, far))]),
                "insulation", ("thermal", "weather"), takes=("stem",), tier=STRIP,
            )  # fmt: skip
        yield from second_layer(boards, v, v + BEYOND)
    gap = wall.gap
    if gap is not None:
        yield Piece(
            "weeps",
            "weep holes at {weeps} in the course over the damp-proof course",
            "vent_strip",
            "vent_strip",
            block(leaf.outer, leaf.inner, v + 1.0, v + 66.0),
            "finish",
            ("drainage",),
            every=p.weeps,
            wide=10.0,
            first=300.0,
            even=True,
            takes=("structure", "finish"),
            tier=STRIP,
        )
    for id, held in (("outer", leaf), ("inner", frame)):
        yield Piece(
            f"{id}-dpc",
            f"damp-proof course, {id} leaf",
            "membrane",
            "membrane",
            block(held.outer, held.inner, v - THIN, v),
            "sheet",
            ("weather", "air") if id == "inner" else ("weather",),
            takes=("stem",),
            tier=STRIP,
        )
    if gap is not None:
        yield _gap(site, gap.outer, gap.inner, fill)
    yield from wall_tie(wall, v + 225.0, p.ties)
    yield from _floor(site, p)
    yield from _bell(site, p)


def _gap(site: FootSite, outer: float, inner: float, fill: float) -> Piece:
    shape = under([
        (inner, _slope(site, fill, inner)), (inner, site.base), (outer, site.base), (outer, _slope(site, fill, outer)),
    ])  # fmt: skip
    return Piece(
        "clear",
        "cavity kept clear",
        "strip",
        "air",
        shape,
        "finish",
        ("weather", "drainage"),
        takes=("stem",),
        tier=STRIP,
    )


def _slope(site: FootSite, fill: float, u: float) -> float:
    """Height of the top of the fill."""
    assert site.wall.between is not None
    outer, inner = site.wall.between
    return fill - 25.0 * (u - inner) / (outer - inner)


def _insulation_down(site: FootSite, p: Values) -> float:
    """How far below the foot of the wall its insulation has to go to lap that of the floor (mm)."""
    return site.base - site.insulation.high + p.laps if site.insulation is not None else 0.0


def _floor(site: FootSite, p: Values) -> Iterator[Piece]:
    """The membrane of the floor up the wall to its damp-proof course, and the strip at the edge of the screed."""
    inner = site.wall.frame.inner
    face = max(site.stem[1], inner) if site.stem[1] > inner else inner
    barrier = site.barrier
    if barrier is not None:
        yield Piece(
            "membrane-up",
            "floor membrane turned up the wall, lapped with the damp-proof course",
            "membrane",
            barrier.layer.material,
            sheet(
                [
                    (face - 140.0, barrier.low + THIN),
                    (face - THIN, barrier.low + THIN),
                    (face - THIN, site.base - THIN),
                    (face + 60.0, site.base - THIN),
                ],
                THIN * 0.8,
            ),
            "sheet",
            ("weather", "vapour", "air"),
            takes=GROUND_ROLES,
            tier=STRIP,
        )
    upper = [held for held in site.slab if site.carrying is None or held.low >= site.carrying.high - 1.0]
    if upper and upper[0].high - upper[-1].low > 20.0:
        yield Piece(
            "edge-strip", "{strip} insulation at the edge of the floor", "insulation", "rigid",
            block(face - THIN - p.strip, face - THIN, upper[-1].low, min(upper[0].high, site.base)), "insulation",
            ("thermal",), takes=GROUND_ROLES, tier=STRIP,
        )  # fmt: skip


def _bell(site: FootSite, p: Values) -> Iterator[Piece]:
    """Where render stops over the ground: a bell bead with a drip."""
    skin = site.wall.layers[0]
    foot = max(site.base, site.ground + p.bell)
    if skin.layer.material != "render":
        return
    yield Piece(
        "bell",
        "render stops on a bell bead with drip, {bell} over the ground",
        "flashing",
        "flashing",
        under(
            [
                (skin.inner, foot),
                (skin.outer + 6.0, foot - 8.0),
                (skin.outer + 6.0, foot + 2.0),
                (skin.outer, foot + 4.0),
                (skin.outer - 3.0, foot + 2.0),
                (skin.inner, foot + 3.0),
            ]
        ),
        "sheet",
        ("drainage",),
        takes=("finish",),
        yields=("moulding", "steps", "porch_slab"),
        clears=block(skin.inner, skin.outer, site.base - 1.0, foot),
        tier=STRIP,
    )


def _bars(site: FootSite, p: Values) -> str:
    if site.wall.form != "cavity":
        return OtherKind("it is built under a cavity wall")
    leaf, frame = site.wall.leaf, site.wall.frame
    assert leaf is not None
    if site.deep:
        return OtherKind("the edge of a slab carries the wall")
    if site.stem[0] < leaf.outer - 1.0 or site.stem[1] > frame.inner + 1.0:
        wide = leaf.outer - frame.inner
        return f"the two leaves are {p.said(wide)} wide, more than their foundation wall: widen it"
    if site.base - max(p.down, _insulation_down(site, p)) - 25.0 < site.foot_top:
        return "the footing lies too high for the cavity to be kept clear: lower it"
    return ""


def _rules(site: FootSite, p: Values) -> Iterator[Found]:
    yield from ground_rules(site, p)
    yield from tie_rules(site.wall, p)
    if p.down < 224.95:
        yield Found(
            f"the cavity is kept clear {p.said(p.down)} below its damp-proof course: {p.said(225.0)}",
            "common practice, no source",
        )
    if site.insulation is not None and p.laps < 149.95:
        yield Found(
            f"wall insulation laps that of the floor by {p.said(p.laps)}: {p.said(150.0)}", "common practice, no source"
        )


CAVITY_FOOT = BuildUp(
    "foot-cavity", "wall_foot", "Cavity wall on its foundation", "cavity wall", _bars, _cavity,
    (DOWN, LAPS, STRIP_WIDE, BELL, WEEPS, TIES), _rules,
)  # fmt: skip


def _solid(site: FootSite, p: Values) -> Iterator[Piece]:
    frame = site.wall.frame
    yield Piece(
        "dpc", "damp-proof course through the wall", "membrane", "membrane",
        block(frame.outer, frame.inner, site.base - THIN, site.base), "sheet", ("weather", "air"),
        takes=("stem", "slab_edge"), tier=STRIP,
    )  # fmt: skip
    yield from _floor(site, p)


def _bars_solid(site: FootSite, p: Values) -> str:
    return "" if site.wall.form == "solid" else OtherKind("it is built under a wall of one leaf")


SOLID_FOOT = BuildUp(
    "foot-solid", "wall_foot", "Wall of one leaf", "wall of one leaf of masonry", _bars_solid, _solid, (STRIP_WIDE,),
    lambda site, p: ground_rules(site, p),
)  # fmt: skip
