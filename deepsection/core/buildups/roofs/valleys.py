"""Valleys: open ones lined with metal, closed ones on a sheet, lined ones on boards under tiles."""

from __future__ import annotations

from collections.abc import Callable, Iterator

import shapely
from shapely.geometry import Polygon

from ...geometry import Point, largest
from ..buildup import BuildUp, Found, OtherKind
from ..parameters import Parameter, Values
from ..pieces import MEMBERS, METAL, SKIN, STRIP, Piece, sheet, under
from .crest_site import CrestSite
from .ridges import SHEETS, TILES, Height, Spread, band, crossed, over

SHEET = Parameter("sheet", "Sheet under the valley, in all", 914.4, 450.0, 1500.0, "IRC 2021 R905.2.8.2: 36 in")
LINING = Parameter("lining", "Lining of metal, in all", 609.6, 400.0, 900.0, "IRC 2021 R905.2.8.2: 24 in")
RIB = Parameter("rib", "Rib in the middle of the lining", 25.4, 0.0, 50.0, "common practice: 1 in")
OPEN = Parameter("open", "Covering back from the middle", 76.2, 25.0, 150.0, "common practice: 3 in")
TRAY = Parameter("lining", "Lining, from the middle", 225.0, 150.0, 400.0, "common practice, no source")
BOARD = Parameter("board", "Valley boards, from the middle", 225.0, 125.0, 400.0, "common practice, no source")
CLEAR = Parameter("open", "Tiles back from the middle", 62.5, 50.0, 125.0, "common practice: 125 mm clear in all")
FILLET = Parameter("fillet", "Height of the tilting fillets", 25.0, 10.0, 50.0)
THICK, LAP = 19.0, 50.0
"""Thickness of valley boards; width of fillets and of the mortar under cut tiles (mm). Common practice, no source."""
TAKEN = ("roofing", "valley_flashing", "ridge_flashing", "hip_flashing")


def _cleared(site: CrestSite, wide: float) -> Polygon:
    """What is free over the middle, with flashings of metal that the roof would have on its covering there."""
    thick = max(site.left.layers.thick, site.right.layers.thick)
    whole = [under(band(site.underlay, site.spread(wide), 0.0, thick + 3.0))]
    if site.caps:
        far = site.caps + 2.0
        whole.append(under(band(site.covering, (far, far), -0.02, 3.0)))
    return largest(shapely.union_all(whole))


def _sheeted(site: CrestSite, p: Values) -> Piece:
    return Piece(
        "sheet", "ice-and-water sheet, {sheet} wide, on the deck", "membrane", "membrane",
        sheet(over(site.deck, site.spread(p.sheet / 2), 0.05), SKIN), "membrane", ("weather",), takes=("membrane",),
        tier=STRIP,
    )  # fmt: skip


def _lined(height: Height, spread: Spread, rib: float, lift: float) -> list[Point]:
    """A lining that follows both slopes, with a rib in its middle."""
    (left, middle, right) = over(height, spread, lift)
    if not rib:
        return [left, middle, right]
    return [left, (-4.0, height(-4.0) + lift), (0.0, middle[1] + rib), (4.0, height(4.0) + lift), right]


def _open(site: CrestSite, p: Values) -> Iterator[Piece]:
    yield _sheeted(site, p)
    yield Piece(
        "lining", "valley metal {lining} wide, rib {rib} high, cut to the eave line; no nail within 6 in of it",
        "flashing", "flashing",
        sheet(_lined(site.underlay, site.spread(p.lining / 2), p.rib, 0.9), METAL), "sheet", ("weather", "drainage"),
        takes=TAKEN, clears=_cleared(site, p.open), tier=STRIP,
    )  # fmt: skip


def _closed(site: CrestSite, p: Values) -> Iterator[Piece]:
    yield _sheeted(site, p)
    thick = site.right.layers.thick
    wide = site.spread(304.8)[1]
    yield Piece(
        "closed-cut", "courses of one slope run 12 in through, those of the other are cut 2 in from the middle",
        "roofing", site.right.layers.material,
        under([(0.0, site.covering(0.0)), (wide, site.covering(wide)), (wide, site.covering(wide) + thick),
               (0.0, max(site.covering(0.0), site.covering(-1e-9)) + thick)]),
        "finish", ("weather",), takes=("valley_flashing",), tier=STRIP,
    )  # fmt: skip


def _tiled(site: CrestSite, p: Values) -> Iterator[Piece]:
    for name, way, wide in zip(("left", "right"), (-1.0, 1.0), site.spread(p.board)):
        u = way * wide
        yield Piece(
            f"board-{name}", "19 valley boards let in flush with the rafters", "strip", "softwood",
            under([(0.0, site.structure(way * 1e-9)), (u, site.structure(u)), (u, site.structure(u) - THICK),
                   (0.0, site.structure(way * 1e-9) - THICK)]),
            "sheathing", ("structure",), takes=(*MEMBERS, "blocking"), tier=STRIP,
        )  # fmt: skip
    top = p.open + 8.0
    for name, way in (("left", -1.0), ("right", 1.0)):
        u0, u1 = way * top, way * (top + LAP)
        yield Piece(
            f"fillet-{name}", "tilting fillets along both sides", "strip", "softwood",
            under([(u0, site.underlay(u0)), (u1, site.underlay(u1) + p.fillet), (u1, site.underlay(u1))]),
            "structure", ("structure",), takes=TAKEN, axis=True, tier=STRIP,
        )  # fmt: skip
        yield Piece(
            f"bed-{name}", "cut tiles bedded on the lining", "strip", "mortar", _mortar(site, p, way, top), "finish",
            ("weather",), takes=TAKEN, tier=STRIP,
        )  # fmt: skip
    yield Piece(
        "lining", "valley lining over the fillets, edges welted, cut into the gutter at the eave", "flashing",
        "flashing", sheet(_over_fillets(site, p, top), 1.8), "sheet", ("weather", "drainage"), takes=TAKEN,
        clears=_cleared(site, p.open), tier=STRIP,
    )  # fmt: skip


def _over_fillets(site: CrestSite, p: Values, top: float) -> list[Point]:
    """The lining from welt to welt, on the underlay and over the two fillets."""
    half = []
    for way, wide in zip((-1.0, 1.0), site.spread(p.lining)):
        foot, crest, end = way * top, way * (top + LAP), way * max(wide, top + LAP + 20.0)
        half.append([
            (foot, site.underlay(foot) + 0.1), (crest, site.underlay(crest) + p.fillet + 0.1),
            (crest + way * 1.0, site.underlay(crest) + 0.1), (end, site.underlay(end) + 0.1),
        ])  # fmt: skip
    left, right = half
    return [*reversed(left), over(site.underlay, (1.0, 1.0), 0.1)[1], *right]


def _mortar(site: CrestSite, p: Values, way: float, top: float) -> Polygon:
    """Between the lining on its fillet and the underside of the tiles, from their cut edge inward."""
    u0, u1 = way * p.open, way * (top + LAP - 6.0)
    high = p.fillet + 6.0
    return under([
        (u0, site.underlay(u0) + 2.2), (way * top, site.underlay(way * top) + 2.2),
        (u1, site.underlay(u1) + p.fillet * (LAP - 6.0) / LAP + 2.2), (u1, site.underlay(u1) + high),
        (u0, site.underlay(u0) + high),
    ])  # fmt: skip


def _bars(tiled: bool) -> Callable[[CrestSite, Values], str]:
    def bars(site: CrestSite, p: Values) -> str:
        if site.is_tiled != tiled:
            return OtherKind("it is built under tiles" if tiled else "it is built under sheets and shingles")
        thick = min(site.left.layers.thick, site.right.layers.thick)
        if tiled and p.fillet + 8.0 > thick:
            return f"the tiles on their battens are {p.said(thick)} high: the fillet is to be lower"
        return ""

    return bars


def _rules(site: CrestSite, p: Values) -> Iterator[Found]:
    if p.lining < 609.55:
        yield Found(f"the valley metal is {p.said(p.lining)} wide: {p.said(609.6)} at least", "IRC 2021 R905.2.8.2")
    if p.sheet < 914.35:
        yield Found(f"the sheet is {p.said(p.sheet)} wide: {p.said(914.4)} at least", "IRC 2021 R905.2.8.2")


def _sheet_rules(site: CrestSite, p: Values) -> Iterator[Found]:
    if p.sheet < 914.35:
        yield Found(f"the sheet is {p.said(p.sheet)} wide: {p.said(914.4)} at least", "IRC 2021 R905.2.8.2")


VALLEYS = (
    BuildUp("valley-open", "valley", "Open, lined with metal", SHEETS, _bars(False), _open,
            (SHEET, LINING, RIB, OPEN), _rules, crossed),
    BuildUp("valley-closed", "valley", "Closed, courses run through", SHEETS, _bars(False), _closed, (SHEET,),
            _sheet_rules, crossed),
    BuildUp("valley-lined", "valley", "Lined, on boards", TILES, _bars(True), _tiled, (TRAY, BOARD, CLEAR, FILLET),
            tells=crossed),
)  # fmt: skip
