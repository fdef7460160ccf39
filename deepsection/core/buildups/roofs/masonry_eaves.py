"""Eaves of masonry walls: plate and strap, closer, soffit, vent slot, fillet, tray, quilt over the plate."""

from __future__ import annotations

import math
from collections.abc import Iterator

from ..boards import BEYOND, TIES, second_layer, tie_rules, wall_tie
from ..buildup import BuildUp, Found, OtherKind
from ..parameters import Parameter, Values
from ..pieces import MEMBERS, METAL, STRIP, Piece, bead, block, sheet, under
from .eave_site import EaveSite
from .eaves import STIFF, ceiling_seal, seat_rules, vault_quilt

CLEAR = Parameter(
    "clear", "Clear air over the insulation", 50.0, 20.0, 200.0, "BS 5250: 50 mm clear in an insulated slope"
)
SLOT = Parameter("slot", "Ventilation slot at the eaves", 25.0, 5.0, 100.0, "BS 5250: 25 mm, or 10 mm from 15 degrees")
STRAP = Parameter("strap", "Length of the holding-down straps", 1000.0, 300.0, 2000.0)
STRAPS = Parameter(
    "straps", "Spacing of the straps", 2000.0, 400.0, 4000.0, "Approved Document A: 2 m at most, from memory"
)
CLOSER = Parameter("closer", "Height of the cavity closer", 65.0, 30.0, 200.0)
FIRST = Parameter("first", "Projection of the first tile", 50.0, 20.0, 80.0)
FILLET = Parameter("fillet", "Height of the tilting fillet", 20.0, 5.0, 60.0)
LAP = Parameter("lap", "Lap of the vapour control", 100.0, 50.0, 300.0)
BEARERS = Parameter("bearers", "Spacing of the soffit bearers", 600.0, 300.0, 1200.0)


ROW = 225.0
"""Courses of block, and three of brick (mm): joints of both leaves lie level there."""


def _leaf_top(site: EaveSite, u: float) -> float:
    """The height at which what lies outside of the plate ends: under the rafters, or at the plate."""
    return min(site.plate, site.rafter_top(u) - site.rafter[0])


def _masonry(site: EaveSite, p: Values) -> Iterator[Piece]:
    assert site.wall is not None
    yield from _plate(site, p)
    if site.wall.between is not None:
        yield from _cavity(site, p)
    if site.quilt is not None:
        yield from _quilt(site, p)
    if site.soffit is not None:
        yield from _soffit(site, p)
    yield from vault_quilt(site, p)
    yield from ceiling_seal(site, p)
    yield from _edge(site, p)


def _plate(site: EaveSite, p: Values) -> Iterator[Piece]:
    wall = site.wall
    assert wall is not None
    inner = wall.frame.inner
    shape = under([
        (inner, site.plate - p.strap), (inner - 2.5, site.plate - p.strap), (inner - 2.5, site.plate + 2.5),
        (inner + 60.0, site.plate + 2.5), (inner + 60.0, site.plate), (inner, site.plate),
    ])  # fmt: skip
    yield Piece(
        "strap", "30 x 2.5 galvanised strap, {strap} down the leaf, at {straps}", "fixing", "steel", shape, "sheet",
        ("structure",), every=p.straps, wide=30.0, first=min(300.0, p.straps / 2), even=True,
        takes=("lining", "infill"), tier=STRIP,
        yields=MEMBERS,
    )  # fmt: skip


def _cavity(site: EaveSite, p: Values) -> Iterator[Piece]:
    assert site.wall is not None and site.wall.between is not None
    outer, inner = site.wall.between
    shape = under([
        (inner, _leaf_top(site, inner) - p.closer), (inner, _leaf_top(site, inner)),
        (outer, _leaf_top(site, outer)), (outer, _leaf_top(site, outer) - p.closer),
    ])  # fmt: skip
    yield Piece(
        "closer", "insulated closer in the head of the cavity", "insulation", "rigid", shape, "insulation",
        ("thermal", "fire", "air"), takes=("insulation", "cavity"), tier=STRIP,
    )  # fmt: skip
    low = _leaf_top(site, outer) - p.closer
    boards = site.wall.boards
    if boards is not None:
        rise = (_leaf_top(site, inner) - _leaf_top(site, outer)) / (outer - inner)
        high = low + rise * (outer - boards.outer)
        yield from second_layer(boards, high - BEYOND, high, rise)
    # In the bed joint of both leaves that is next under the closer.
    rows = math.ceil((site.plate - low + 25.0) / ROW)
    yield from wall_tie(site.wall, site.plate - rows * ROW, p.ties)


def _quilt(site: EaveSite, p: Values) -> Iterator[Piece]:
    """The quilt out to the closer's outer face, and the tray that keeps air clear over it."""
    wall = site.wall
    assert wall is not None and site.quilt is not None
    foot = wall.between[0] if wall.between else (wall.frame.outer + wall.frame.inner) / 2
    clear = p.clear * site.slope
    high = site.rafter_top(foot) - clear
    far = min(-(site.quilt + 150.0 - site.rafter_top(0.0) + clear) / site.pitch, -200.0)
    low = _leaf_top(site, foot)
    line = [(foot, low), (foot, high), (far, site.rafter_top(far) - clear)]
    kept = under([
        (foot, low), (foot, site.rafter_top(foot)), (far, site.rafter_top(far)), (far, site.rafter_top(far) - clear),
        (foot, high),
    ])  # fmt: skip
    if foot > 0.0:
        crest = min(site.quilt, site.rafter_top(0.0) - clear)
        knee = (site.rafter_top(0.0) - clear - site.quilt) / site.pitch
        top = [(foot, min(site.quilt, high))]
        if 0.0 < knee < foot:
            top.append((knee, site.quilt))
        shape = under([(0.0, site.plate), (foot, low), *top, (0.0, crest)])
        yield Piece(
            "quilt-end", "quilt carried over the plate to the closer's outer face", "infill", "quilt", shape,
            "insulation", ("thermal",), yields=MEMBERS, tier=STRIP,
        )  # fmt: skip
    yield Piece(
        "tray", "ventilator tray keeping {clear} clear over the quilt", "baffle", "baffle", sheet(line, -STIFF),
        "finish", (), takes=("infill", "insulation"), clears=kept, yields=MEMBERS, tier=STRIP,
    )  # fmt: skip


def _soffit(site: EaveSite, p: Values) -> Iterator[Piece]:
    low, face, inner = site.soffit_top, site.face, site.reach - site.board
    assert low is not None and site.soffit is not None
    yield Piece(
        "slot",
        "continuous {slot} ventilation slot with insect mesh",
        "vent_strip",
        "vent_strip",
        block(inner - p.slot, inner, site.soffit, low),
        "finish",
        ("weather",),
        takes=("soffit",),
        tier=STRIP,
        ends="roof",
    )
    if inner - face > 80.0:
        yield Piece(
            "wall-batten", "50 x 25 batten on the wall", "strip", "softwood", block(face, face + 25.0, low, low + 50.0),
            "structure", ("structure",), axis=True, takes=MEMBERS, tier=STRIP,
            yields=("moulding",),
        )  # fmt: skip
        yield Piece(
            "bearers", "50 x 25 soffit bearers at {bearers}", "strip", "softwood",
            block(face + 25.0, inner, low, low + 25.0), "structure", ("structure",), every=p.bearers, wide=50.0,
            first=60.0, yields=(*MEMBERS, "moulding"),
        )  # fmt: skip
    yield Piece(
        "soffit-seal", "sealant between soffit and wall", "sealant", "sealant",
        bead(face + 3.0, site.soffit - 3.0, 6.0), "finish", ("weather",), yields=("moulding", "trim"),
    )  # fmt: skip


def _edge(site: EaveSite, p: Values) -> Iterator[Piece]:
    """Fillet, tray and first course at the lower edge of the covering."""
    edge, top = site.reach, site.on_deck(site.reach)
    back = edge - 90.0
    fillet = under([(back, site.on_deck(back)), (edge, top), (edge, top + p.fillet)])
    yield Piece(
        "fillet", "tilting fillet", "strip", "softwood", fillet, "structure", ("structure",), ends="roof",
        takes=("roofing", "membrane", "cladding"), axis=True, tier=STRIP,
    )  # fmt: skip
    far = edge - 400.0
    down = top - 45.0
    line = [
        (far, site.on_deck(far)), (back, site.on_deck(back)), (edge + 1.2, top + p.fillet), (edge + 1.2, down),
        (edge + 14.0, down - 12.0),
    ]  # fmt: skip
    yield Piece(
        "support-tray", "underlay support tray, over the fascia into the gutter", "flashing", "membrane",
        sheet(line, METAL), "sheet", ("weather", "drainage"), ends="roof",
        yields=("gutter",), takes=("roofing", "membrane", "cladding"), tier=STRIP,
    )  # fmt: skip
    over = site.covering - site.deck
    fall = p.first * site.pitch
    yield Piece(
        "first-course",
        "first course projecting {first}",
        "roofing",
        "tile",
        under(
            [
                (edge, top + over - 22.0),
                (edge + p.first, top + over - 22.0 - fall),
                (edge + p.first, top + over - fall),
                (edge, top + over),
            ]
        ),
        "finish",
        ("weather",),
        ends="roof",
    )


def _bars(site: EaveSite, p: Values) -> str:
    if site.wall is None or site.wall.is_framed:
        return OtherKind("it is built on a wall of masonry")
    foot = site.wall.between[0] if site.wall.between else 0.0
    room = site.rafter_top(foot) - p.clear * site.slope - _leaf_top(site, foot)
    if site.quilt is not None and room < 0.0:
        left = p.clear + room / site.slope
        return f"the rafters leave {p.said(left)} of the {p.said(p.clear)} of clear air: raise the heel"
    if site.soffit is not None and site.reach - site.board - site.face < p.slot + 20.0:
        return "the soffit is too narrow for its slot: make the overhang wider"
    return ""


def _rules(site: EaveSite, p: Values) -> Iterator[Found]:
    degrees = math.degrees(math.atan(site.pitch))
    least = 10.0 if degrees >= 15.0 else 25.0
    if site.soffit is not None and site.quilt is not None and p.slot < least - 0.05:
        yield Found(f"a slot of {p.said(p.slot)} at {degrees:.0f} degrees: {p.said(least)} is asked for", "BS 5250")
    if p.straps > 2000.05:
        yield Found(f"straps at {p.said(p.straps)}: {p.said(2000.0)} at most", "Approved Document A, from memory")
    if site.quilt is not None and p.clear < 49.95:
        yield Found(f"{p.said(p.clear)} of clear air over the insulation: {p.said(50.0)} is asked for", "BS 5250")
    yield from seat_rules(site, p)
    if site.wall is not None:
        yield from tie_rules(site.wall, p)


MASONRY = BuildUp(
    "eave-masonry", "eave", "Masonry wall, boxed", "wall of masonry", _bars, _masonry,
    (CLEAR, SLOT, STRAP, STRAPS, CLOSER, FIRST, FILLET, BEARERS, LAP, TIES), _rules,
)  # fmt: skip
