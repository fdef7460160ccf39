"""Rakes and verges: barges on lookouts or on the wall, drip edges, tiles on an undercloak, gable ladders, straps."""

from __future__ import annotations

from collections.abc import Iterator

from ...junctions.facts import rounded
from ...junctions.junction import Fact
from ..buildup import BuildUp, Found, OtherKind
from ..parameters import Parameter, Values
from ..pieces import METAL, STRIP, Piece, bead, block, sheet, under
from .eaves import BOARDS, DRIP, STARTER, TILT
from .rake_site import RakeSite

BACK = 76.2
"""A drip edge reaches so far back on the roof (mm): 3 in. Common practice, no source."""
TWO, FLAT, NOGGING = 38.1, 88.9, 47.0
"""A 2x4, and the thickness of noggings (mm)."""
LOOKOUTS = Parameter("lookouts", "Spacing of the lookouts", 609.6, 300.0, 1219.2, "common practice: 24 in")
LADDER = Parameter("ladder", "Spacing of the noggings of the ladder", 600.0, 300.0, 900.0, "common practice: 600 mm")
FRIEZE = Parameter("frieze", "Depth of the frieze board", 139.7, 20.0, 400.0)
VERGE = Parameter("verge", "Tiles past the barge or the wall", 50.0, 38.0, 60.0, "BS 5534: 38 to 60 mm, from memory")
STRAPS = Parameter("straps", "Spacing of the lateral straps", 2000.0, 600.0, 2500.0,
                   "Approved Document A: 2 m at most, from memory")  # fmt: skip
CLOSER = Parameter("closer", "Height of the cavity closer", 65.0, 30.0, 200.0)
CLOTHES = ("sheathing", "cladding", "membrane", "finish", "stud", "infill", "plate")
"""What a wall has on it and in it where lookouts lie across."""
CLOAK, EDGE = 4.5, 90.0
"""Thickness of an undercloak and how far it reaches in (mm). Common practice, no source."""


def _metal_edge(site: RakeSite, p: Values) -> Iterator[Piece]:
    """Drip edge over the underlay, down over the barge; the covering past it."""
    edge, top = site.reach, site.layers.underlay
    yield Piece(
        "drip-edge", "metal drip edge over the underlay", "flashing", "flashing",
        sheet([(edge - BACK, top + 0.1), (edge + 1.2, top + 0.1), (edge + 1.2, top - p.drip),
               (edge + TILT, top - p.drip - TILT)], METAL),
        "sheet", ("weather", "drainage"), tier=STRIP, takes=("roofing", "membrane"),
    )  # fmt: skip
    yield Piece(
        "projection", "covering {starter} past the barge", "roofing", site.layers.material,
        block(edge, edge + p.starter, top + 1.2, site.layers.covering), "finish", ("weather",),
    )  # fmt: skip


def _cloaked(site: RakeSite, p: Values, edge: float) -> Iterator[Piece]:
    """Undercloak from the wall or the barge out, tiles over it, mortar between."""
    low, far = site.layers.underlay, edge + p.verge
    yield Piece(
        "undercloak", "undercloak board, rough side up", "strip", "fibre_cement",
        block(edge - EDGE, far - 6.0, low, low + CLOAK), "finish", ("weather",), takes=("roofing",), tier=STRIP,
    )  # fmt: skip
    rise = 0.45 * (site.layers.covering - low)
    yield Piece(
        "verge-mortar", "mortar bedding, struck flush", "strip", "mortar",
        under([(far - 75.0, low + CLOAK), (far - 12.0, low + CLOAK), (far - 6.0, low + CLOAK + rise),
               (far - 75.0, low + CLOAK + rise)]),
        "finish", ("weather",), takes=("roofing",), tier=STRIP,
    )  # fmt: skip
    yield Piece(
        "verge-tile", "tiles {verge} past the edge, clipped", "roofing", site.layers.material,
        under([(edge, low + CLOAK + rise), (far, low + CLOAK + rise), (far, site.layers.covering),
               (edge, site.layers.covering)]),
        "finish", ("weather",), tier=STRIP,
    )  # fmt: skip


def _capped(site: RakeSite, p: Values, edge: float) -> Iterator[Piece]:
    """A dry verge: units that clip over the ends of the battens and of the tiles."""
    low, top, far = site.layers.underlay, site.layers.covering, edge + p.verge
    yield Piece(
        "verge-tile", "tiles and battens {verge} past the edge", "roofing", site.layers.material,
        block(edge, far - 3.0, low, top), "finish", ("weather",), tier=STRIP,
    )  # fmt: skip
    yield Piece(
        "verge-unit", "dry verge unit, screwed to each batten", "flashing", "plastic",
        sheet([(far - 60.0, top + 0.1), (far - 2.9, top + 0.1), (far - 2.9, low - 30.0), (far + 2.0, low - 38.0)], 3.0),
        "finish", ("weather", "drainage"), tier=STRIP,
    )  # fmt: skip


def _edge(site: RakeSite, p: Values) -> Iterator[Piece]:
    yield from _capped(site, p, site.reach) if site.is_tiled else _metal_edge(site, p)


def _frieze(site: RakeSite, p: Values) -> Iterator[Piece]:
    face, low = site.face, site.soffit
    yield Piece(
        "frieze", "frieze board, sealant behind", "frieze", "trim", block(face, face + 19.05, low - p.frieze, low),
        "finish", ("weather",), tier=STRIP, yields=BOARDS,
    )  # fmt: skip
    yield Piece(
        "frieze-seal", "sealant behind the frieze", "sealant", "sealant",
        bead(face + 3.0, low - p.frieze - 3.0, 6.0), "finish", ("weather",), yields=BOARDS,
    )  # fmt: skip


def _fly(site: RakeSite, note: str) -> Piece:
    """The rafter behind the barge, which lookouts or a ladder carry."""
    back = site.reach - site.board
    return Piece(
        "fly-rafter", note, "sub_fascia", "softwood", block(back - TWO, back, site.soffit_top, 0.0), "structure",
        ("structure",), axis=True, tier=STRIP,
    )  # fmt: skip


def _carried(site: RakeSite, p: Values) -> Iterator[Piece]:
    """Lookouts let into the rafters, as far back as they need, and the rafter behind the barge that they carry."""
    yield _fly(site, "2x fly rafter behind the barge")
    yield Piece(
        "lookout", "2x4 lookouts flat at {lookouts}, let into the rafters", "blocking", "softwood",
        block(site.carrier[1], site.reach - site.board - TWO, -TWO * site.slope, 0.0), "structure", ("structure",),
        every=p.lookouts / site.slope, wide=FLAT / site.slope, first=p.lookouts / site.slope / 2, even=True,
        takes=("rafter", "trimmer", "baffle", *CLOTHES), tier=STRIP,
    )  # fmt: skip
    if site.is_boxed and site.overhang > 2.5 * TWO:
        low = site.soffit_top
        yield Piece(
            "nailer", "2x2 nailer for the soffit", "ledger", "softwood",
            block(site.face, site.face + TWO, low, low + TWO),
            "structure", ("structure",), axis=True, tier=STRIP, yields=BOARDS,
        )  # fmt: skip


def _lookouts(site: RakeSite, p: Values) -> Iterator[Piece]:
    yield from _carried(site, p)
    yield from _frieze(site, p)
    yield from _edge(site, p)


def _free(site: RakeSite, p: Values) -> Iterator[Piece]:
    if site.has_box and site.rafters:
        yield from _carried(site, p)
    yield from _edge(site, p)


def _close(site: RakeSite, p: Values) -> Iterator[Piece]:
    yield from _edge(site, p)


def _ladder(site: RakeSite, p: Values) -> Iterator[Piece]:
    """A fly rafter and noggings over the outer leaf, from the rafter on the inner one."""
    yield _fly(site, "fly rafter of the gable ladder")
    yield Piece(
        "ladder", "100 x 47 noggings at {ladder}, over the outer leaf", "blocking", "softwood",
        block(site.rafters[0][1], site.reach - site.board - TWO, -100.0 * site.slope, 0.0), "structure", ("structure",),
        every=p.ladder / site.slope, wide=NOGGING / site.slope, first=p.ladder / site.slope / 2, even=True,
        takes=("structure", "insulation", "cavity", *CLOTHES), tier=STRIP,
    )  # fmt: skip


def _verge(site: RakeSite, p: Values, dry: bool) -> Iterator[Piece]:
    wall = site.wall
    assert wall is not None
    top = 0.5
    if site.has_box and site.rafters:
        yield from _ladder(site, p)
        top += 100.0 * site.slope
    if wall.between is not None:
        outer, inner = wall.between
        yield Piece(
            "closer", "cavity closed along the slope", "insulation", "rigid",
            block(inner, outer, -top - p.closer, -top),
            "insulation", ("thermal", "fire", "air"), takes=("insulation", "cavity"), tier=STRIP,
        )  # fmt: skip
    if site.rafters:
        yield from _strap(site, p)
    edge = site.reach
    if not site.is_tiled:
        yield from _metal_edge(site, p)
    elif dry:
        yield from _capped(site, p, edge)
    else:
        yield from _cloaked(site, p, edge)


def _strap(site: RakeSite, p: Values) -> Iterator[Piece]:
    """A strap from the cavity face of the inner leaf over it, under the rafters and the noggings between them."""
    wall = site.wall
    assert wall is not None
    face, low = wall.frame.outer, -site.depth
    far = site.rafters[min(2, len(site.rafters) - 1)][0] - 20.0
    shape = under([
        (far, low - 5.0), (face + 5.0, low - 5.0), (face + 5.0, low - 105.0), (face, low - 105.0), (face, low - 10.0),
        (far, low - 10.0),
    ])  # fmt: skip
    yield Piece(
        "lateral-strap", "30 x 5 strap under three rafters at {straps}, noggings and packing over it", "fixing",
        "steel", shape, "sheet", ("structure",), every=p.straps / site.slope, wide=30.0,
        first=p.straps / site.slope / 2, even=True, takes=("insulation", "structure", "lining", "infill", "cavity"),
        yields=("rafter", "trimmer", "joist"), tier=STRIP,
    )  # fmt: skip


def _bedded(site: RakeSite, p: Values) -> Iterator[Piece]:
    yield from _verge(site, p, dry=False)


def _dry(site: RakeSite, p: Values) -> Iterator[Piece]:
    yield from _verge(site, p, dry=True)


def _framed(site: RakeSite) -> bool:
    return site.wall is not None and site.wall.form in ("framed", "veneer")


def _bars_lookouts(site: RakeSite, p: Values) -> str:
    if not _framed(site):
        return OtherKind("it is built on a framed wall")
    if not site.rafters:
        return OtherKind("the roof has no rafters")
    return "" if site.has_box else f"the rake stands out {p.said(max(site.overhang, 0.0))}: too little for lookouts"


def _bars_close(site: RakeSite, p: Values) -> str:
    return "" if _framed(site) else OtherKind("it is built on a framed wall")


def _bars_verge(site: RakeSite, p: Values) -> str:
    return OtherKind("it is built on a wall of masonry") if site.wall is None or _framed(site) else ""


def _bars_bedded(site: RakeSite, p: Values) -> str:
    return _bars_verge(site, p) or ("" if site.is_tiled else OtherKind("it is built under tiles"))


def _bars_free(site: RakeSite, p: Values) -> str:
    return "" if site.wall is None else OtherKind("a wall stands under it")


def _back_span(site: RakeSite, p: Values) -> Iterator[Found]:
    back = site.rafters[0][1] - site.carrier[1]
    if back < 2 * site.out - 1.0:
        words = f"lookouts stand out {p.said(site.out)} and reach back {p.said(back)}: twice as far back as out"
        yield Found(words, "common practice, no source")


def _strap_rules(site: RakeSite, p: Values) -> Iterator[Found]:
    if p.straps > 2000.05:
        yield Found(
            f"lateral straps at {p.said(p.straps)}: {p.said(2000.0)} at most", "Approved Document A, from memory"
        )


def _laid(site: RakeSite, p: Values) -> tuple[Fact, ...]:
    """Where the rafters lie beside a rake, and how thick its boards are."""
    return (rounded(site.board), rounded(site.reach), *((rounded(low), rounded(high)) for low, high in site.rafters))


RAKED = (DRIP, STARTER, VERGE)
VERGES = (VERGE, CLOSER, LADDER, STRAPS, DRIP, STARTER)
RAKES = (
    BuildUp("rake-lookouts", "rake", "Barge on lookouts", "framed wall, overhang", _bars_lookouts, _lookouts,
            (LOOKOUTS, FRIEZE, *RAKED), _back_span, _laid),
    BuildUp("rake-close", "rake", "Barge on the wall", "framed wall, hardly an overhang", _bars_close, _close, RAKED,
            tells=_laid),
    BuildUp("verge-bedded", "rake", "Verge on an undercloak, bedded", "wall of masonry", _bars_bedded, _bedded, VERGES,
            _strap_rules, _laid),
    BuildUp("verge-dry", "rake", "Verge, dry-fixed", "wall of masonry", _bars_verge, _dry, VERGES, _strap_rules, _laid),
    BuildUp("rake-free", "rake", "Over no wall", "no wall stands under it", _bars_free, _free, (LOOKOUTS, *RAKED),
            tells=_laid),
)  # fmt: skip
