"""Edges of slabs: on the walls that carry them, where a part lies at another height, free ones on the ground."""

from __future__ import annotations

from collections.abc import Iterator

import shapely

from ..buildup import BuildUp, Found, OtherKind
from ..parameters import Parameter, Values
from ..pieces import STRIP, Piece, block, sheet, under
from .edges import boards_past
from .site import FloorSite
from .slab_site import EdgeSite, StepSite

BAR = 12.0
"""Diameter of the bars that are drawn (mm): their number and size are an engineer's."""
COVER = Parameter(
    "cover",
    "Cover of the bars",
    25.0,
    15.0,
    75.0,
    "Eurocode 2, exposure XC1: 15 mm and 10 mm of allowance, from memory",
)
STRIP_WIDE = Parameter("strip", "Edge strip of the screed", 25.0, 5.0, 50.0)
SKIRT = Parameter("skirt", "Height of the skirting", 120.0, 0.0, 300.0)
BEARING = 90.0
LINKS = Parameter("links", "Spacing of the links", 200.0, 100.0, 400.0)
TURN = Parameter("turn", "Waterproofing turned up", 75.0, 0.0, 300.0)
TRIM = Parameter("trim", "Edge trim of the finish", 20.0, 0.0, 60.0)
BASE = Parameter("base", "Hardcore under the slab", 100.0, 50.0, 300.0)
GROUND_COVER = Parameter("cover", "Cover of the mesh", 40.0, 25.0, 75.0)
BASE_IN = Parameter("base", "Gravel under the slab", 101.6, 50.0, 300.0, "IRC 2021 R506.2.2: 4 in")
GROUND_COVER_IN = Parameter("cover", "Cover of the mesh", 38.1, 25.0, 75.0)
ARRIS = Parameter("arris", "Arris taken off", 10.0, 0.0, 25.0)
AT_WALL = 100.0
"""What lies under a slab ends so far before what it ends at, whose foot goes down there (mm)."""
ON_GROUND = ("stem", "footing", "structure", "insulation", "membrane", "finish")
"""Roles of what stands in the ground beside a slab."""


def _bar(id: str, u: float, v: float, takes: tuple[str, ...]) -> Piece:
    return Piece(
        id, "reinforcement by engineer, {cover} cover", "fixing", "steel", shapely.Point(u, v).buffer(BAR / 2, 6),
        "sheet", ("structure",), takes=takes, tier=STRIP,
    )  # fmt: skip


def _on_wall(site: FloorSite, p: Values) -> Iterator[Piece]:
    frame, inner = site.wall.frame, site.wall.inner
    in_from = p.cover + BAR / 2
    yield from boards_past(site)
    for name, v in (("low", site.under + in_from), ("high", site.carries - in_from)):
        if site.slab > 2 * in_from + BAR:
            yield _bar(f"edge-bar-{name}", frame.outer - in_from, v, ("slab", "structure"))
    over = site.top - site.carries
    if over > 1.0:
        yield Piece(
            "edge-strip", "{strip} edge strip beside the screed", "strip", "rigid",
            block(inner, inner - p.strip, site.carries, site.top), "insulation", (), takes=("finish", "insulation"),
            tier=STRIP,
        )  # fmt: skip
    if p.skirt:
        yield Piece(
            "skirting", "{skirt} skirting, clear of the finish", "trim", "trim",
            block(inner, inner - 18.0, site.top + 2.0, site.top + p.skirt), "finish", (),
        )  # fmt: skip


def _bars_on_wall(site: FloorSite, p: Values) -> str:
    if not site.slab:
        return OtherKind("the floor has no slab")
    return OtherKind("it is built at a wall of masonry") if site.wall.is_framed else ""


def _bearing(site: FloorSite, p: Values) -> Iterator[Found]:
    thick = site.wall.frame.thick
    if site.lie != "along" and thick < BEARING - 0.05:
        yield Found(
            f"the slab bears on {p.said(thick)}: {p.said(BEARING)} at least",
            "Approved Document A, section 2C, from memory",
        )


SLAB_ON_WALL = BuildUp(
    "floor-slab", "floor_edge", "Slab on a wall of masonry", "slab on a wall of masonry", _bars_on_wall, _on_wall,
    (COVER, STRIP_WIDE, SKIRT), _bearing,
)  # fmt: skip


def _step(site: StepSite, p: Values) -> Iterator[Piece]:
    roles = ("slab", "upstand")
    if site.upstand:
        # It stands under the slab around a lower part, within a higher one.
        side = 1.0 if site.is_lower else -1.0
        low, high = min(site.under, site.own_under), max(site.carries, site.own_carries)
        near, far = side * p.cover, side * (site.upstand - p.cover)
        link = [(near, high - p.cover), (near, low + p.cover), (far, low + p.cover), (far, high - p.cover)]
        yield Piece(
            "links", "links through the step at {links}, {cover} cover, by engineer", "fixing", "steel",
            sheet(link, 8.0 * side), "sheet", ("structure",), takes=roles,
            every=p.links, wide=8.0, first=p.cover, tier=STRIP,
        )  # fmt: skip
    upper, face = (site.top, 1.0) if site.is_lower else (site.own_top, -1.0)
    over = upper - (site.carries if site.is_lower else site.own_carries)
    if p.trim and over > 1.0:
        deep = min(over, p.trim)
        yield Piece(
            "edge-trim", "metal angle on the edge of the finish", "flashing", "steel",
            under([(0.0, upper - deep), (0.0, upper), (face * p.trim, upper), (face * p.trim, upper - 2.0),
                   (face * 2.0, upper - 2.0), (face * 2.0, upper - deep)]),
            "sheet", (), takes=("finish", "insulation"),
        )  # fmt: skip
    if p.turn and site.is_lower:
        turn = min(p.turn, site.top - site.own_top)
        yield Piece(
            "waterproofing", "waterproofing over the lower part, turned up {turn}", "membrane", "membrane",
            sheet([(-1000.0, site.own_top), (0.0, site.own_top), (0.0, site.own_top + turn)], 2.0), "membrane", (),
            tier=STRIP,
        )  # fmt: skip


SLAB_STEP = BuildUp(
    "step-slab", "slab_step", "Slab with a step", "part of a slab at another height", lambda site, p: "", _step,
    (COVER, LINKS, TRIM, TURN),
)  # fmt: skip


def _edge(site: EdgeSite, p: Values) -> Iterator[Piece]:
    far, below = AT_WALL - site.goes_in, site.thickness
    inner = -site.wide if site.deep else 150.0
    if inner - far > p.base:
        yield Piece(
            "sub-base", "{base} compacted stone under the slab", "strip", "gravel",
            under([site.at(far, below), site.at(inner, below), site.at(inner, below + p.base),
                   site.at(far, below + p.base)]),
            "finish", ("drainage",), ends="roof", yields=(*ON_GROUND, "slab_edge", "porch_slab", "steps"), tier=STRIP,
        )  # fmt: skip
    if p.arris:
        yield Piece(
            "arris", "arris taken off, {arris}", "strip", "air",
            under([site.at(-p.arris), site.at(0.0), site.at(0.0, p.arris)]), takes=("porch_slab",),
        )  # fmt: skip
    high = min(p.cover, below - 20.0)
    yield Piece(
        "mesh", "mesh by engineer, {cover} cover", "fixing", "steel",
        under([site.at(-site.goes_in, high), site.at(-p.cover, high), site.at(-p.cover, high + 6.0),
               site.at(-site.goes_in, high + 6.0)]),
        "sheet", ("structure",), takes=("porch_slab",), yields=ON_GROUND, tier=STRIP,
    )  # fmt: skip
    v = site.top - site.deep + p.cover + BAR / 2
    for name, u in (("outer", -p.cover - BAR / 2), ("inner", -site.wide + p.cover + BAR / 2)):
        if site.deep > below + 2 * p.cover and site.wide > 2 * (p.cover + BAR):
            yield Piece(
                f"edge-bar-{name}", "2 bars along the edge, by engineer", "fixing", "steel",
                shapely.Point(u, v).buffer(BAR / 2, 6), "sheet", ("structure",), takes=("slab_edge",), tier=STRIP,
            )  # fmt: skip


def _bars_edge(site: EdgeSite, p: Values) -> str:
    return "" if site.tradition == "masonry" else OtherKind("it is built beside houses of masonry")


def _bars_edge_in(site: EdgeSite, p: Values) -> str:
    return OtherKind("it is built beside framed houses") if site.tradition == "masonry" else ""


SLAB_EDGE = BuildUp(
    "edge-hardcore", "slab_edge", "Edge on hardcore", "slab on the ground, masonry", _bars_edge, _edge,
    (BASE, GROUND_COVER, ARRIS),
)  # fmt: skip
FRAMED_SLAB_EDGE = BuildUp(
    "edge-gravel", "slab_edge", "Edge on gravel", "slab on the ground, framed house", _bars_edge_in, _edge,
    (BASE_IN, GROUND_COVER_IN, ARRIS),
)  # fmt: skip
