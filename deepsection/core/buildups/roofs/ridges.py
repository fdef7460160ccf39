"""Ridges and hips: caps and vent strip over a slot, tiles dry-fixed or bedded, flashings of metal."""

from __future__ import annotations

from collections.abc import Callable, Iterator

from ...geometry import Point
from ...junctions import Junction, found_junctions
from ...junctions.facts import rounded
from ...junctions.junction import Fact
from ...resolve import Building
from ..buildup import BuildUp, Found, OtherKind
from ..parameters import Parameter, Values
from ..pieces import SKIN, STRIP, Piece, bead, block, sheet, under
from ..settings import stated_of
from .crest_site import CrestSite, crest_site

SLOT = Parameter("slot", "Slot in the deck at each side", 25.4, 12.0, 60.0, "common practice: 1 in")
VENT = Parameter("vent", "Height of the vent strip", 19.05, 8.0, 40.0, "common practice: 3/4 in")
WIDE = Parameter("wide", "Vent strip, from the ridge", 139.7, 75.0, 250.0, "common practice: 11 in in all")
CAP = Parameter("cap", "Caps, from the line", 152.4, 100.0, 250.0, "common practice: 12 in in all")
LAP = Parameter("lap", "Underlay over the line", 152.4, 75.0, 450.0, "common practice: 6 in")
OVER = Parameter("lap", "Underlay over the line", 150.0, 75.0, 450.0, "common practice: 150 mm")
COLLAR = Parameter(
    "collar", "Collar tie below the ridge, at most", 457.2, 100.0, 1500.0, "IRC 2021 R802.4.6: upper third"
)
LEG = Parameter("leg", "Leg of the tile", 150.0, 100.0, 250.0, "common practice: 150 mm")
BED = Parameter("bed", "Tile over the covering", 15.0, 5.0, 40.0)
ROLL = Parameter("roll", "Roll on the covering, from the line", 140.0, 100.0, 250.0)
OPEN = Parameter("open", "Underlay back from the line", 30.0, 5.0, 60.0, "BS 5250: 5 mm along the ridge, from memory")
TIE = (19.05, 88.9)
"""A collar tie: 1x4 (mm)."""
CLAY, STRAP = 14.0, 1.5
"""Thickness of ridge tiles and of straps (mm). Common practice, no source."""
HANGS = 250.0
"""A strap reaches so far down each rafter, in plan (mm). Common practice, no source."""
NET = 18 * 25.4**2 / 304.8
"""Net free area of a ridge vent (mm2 per mm): 18 sq in per ft. Common practice, no source."""
COVERED = ("roofing", "ridge_flashing", "hip_flashing")

Height = Callable[[float], float]
Spread = tuple[float, float]
"""To the left and to the right of a line, in plan (mm)."""


def over(height: Height, spread: Spread, lift: float = 0.0) -> list[Point]:
    """A line over both slopes, from side to side, so far (mm) over a height that both know."""
    (left, right), peak = spread, max(height(0.0), height(-1e-9))
    return [(-left, height(-left) + lift), (0.0, peak + lift), (right, height(right) + lift)]


def band(height: Height, spread: Spread, low: float, high: float) -> list[Point]:
    """The corners of what lies over both slopes between two heights over one that both know."""
    return [*over(height, spread, low), *reversed(over(height, spread, high))]


def lapped(site: CrestSite, p: Values, line: str) -> Piece:
    """Underlay of one slope carried over that of the other."""
    return Piece(
        "lap", f"underlay lapped {{lap}} over the {line}", "membrane", "membrane",
        sheet(over(site.underlay, site.spread(p.lap), 0.05), SKIN), "membrane", ("weather",), takes=COVERED, tier=STRIP,
    )  # fmt: skip


def _caps(site: CrestSite, p: Values, lift: float, note: str) -> Piece:
    thick = site.right.layers.thick
    return Piece(
        "caps", note, "roofing", site.right.layers.material,
        under(band(site.covering, site.spread(p.cap), lift, lift + thick)), "finish", ("weather",), tier=STRIP,
    )  # fmt: skip


def _tie(site: CrestSite, p: Values) -> float:
    """How far under a ridge its collar ties are; 0 where they have no room there."""
    down = min(p.collar, site.attic / 3 - TIE[1])
    return down if site.rafter and site.board[1] and down > site.board[1] + 10.0 else 0.0


def _tied(site: CrestSite, p: Values) -> tuple[Fact, ...]:
    return rounded(_tie(site, p)), *crossed(site, p)


def crossed(site: CrestSite, p: Values) -> tuple[Fact, ...]:
    """What tells one line where slopes meet from another one, of the same pitches."""
    sides = ((rounded(side.fall, 4), rounded(side.base)) for side in (site.left, site.right))
    return *sides, rounded(site.caps), bool(site.board[1])


def _ties(site: CrestSite, p: Values) -> Iterator[Piece]:
    """What keeps the slopes together at a ridge: collar ties in the upper third, or straps where none has room."""
    if not site.rafter or not site.board[1]:
        return
    down = _tie(site, p)
    if down:
        low, high = -down - TIE[1], -down
        ends = [(side.base - v) / side.fall - 15.0 for side in (site.left, site.right) for v in (low, high)]
        shape = under([(-ends[0], low), (-ends[1], high), (ends[3], high), (ends[2], low)])
        yield Piece(
            "collar", "1x4 collar ties at 4 ft at most, in the upper third", "collar_tie", "softwood", shape,
            "structure", ("structure",), every=1.0, wide=TIE[0], first=site.rafter + 0.1, at_rafters=True,
            takes=("infill",), yields=("lining", "joist", "chimney"), tier=STRIP,
        )  # fmt: skip
        return
    yield Piece(
        "strap", "steel strap over the ridge, on pairs of rafters at 4 ft at most", "fixing", "steel",
        sheet(over(site.structure, site.spread(HANGS), 0.05), STRAP), "sheet", ("structure",), every=1.0, wide=30.0,
        at_rafters=True, takes=("sheathing", "membrane"), tier=STRIP,
    )  # fmt: skip


def _vented(site: CrestSite, p: Values) -> Iterator[Piece]:
    yield from _ties(site, p)
    half = site.board[0] / 2 + p.slot
    high = site.covering(0.0) - site.structure(0.0)
    slot = under(band(site.structure, (half, half), 0.2, high))
    yield Piece(
        "vent", "vent strip over a slot of {slot} each side, 18 sq in net per ft", "vent_strip", "vent_strip",
        under(band(site.covering, site.spread(p.wide), 0.0, p.vent * site.slope)), "finish", ("weather",),
        takes=("sheathing", "membrane", *COVERED), clears=slot, tier=STRIP,
    )  # fmt: skip
    yield _caps(site, p, p.vent * site.slope, "ridge caps nailed through the vent strip")


def _closed(site: CrestSite, p: Values) -> Iterator[Piece]:
    yield from _ties(site, p)
    yield lapped(site, p, "ridge")
    yield _caps(site, p, 0.0, "ridge caps, {cap} each way")


def _hip_caps(site: CrestSite, p: Values) -> Iterator[Piece]:
    yield lapped(site, p, "hip")
    yield _caps(site, p, 0.0, "hip caps, {cap} each way, from the eave up")


def _tile(site: CrestSite, p: Values, note: str) -> Piece:
    low = p.bed * site.slope
    return Piece(
        "tile", note, "roofing", "tile", under(band(site.covering, site.spread(p.leg), low, low + CLAY * site.slope)),
        "finish", ("weather",), tier=STRIP,
    )  # fmt: skip


def _dry(site: CrestSite, p: Values, line: str, vents: bool) -> Iterator[Piece]:
    """A batten on brackets, a roll over it that is stuck to the covering, tiles screwed to the batten."""
    top = min(site.covering(19.0), site.covering(-19.0)) + p.bed * site.slope - 2.0
    low = max(site.underlay(0.0), site.underlay(-1e-9)) + 1.0
    back = p.open if vents else 0.0
    yield Piece(
        "batten", f"38 batten on brackets along the {line}", "strip", "softwood", block(-19.0, 19.0, low, top),
        "structure", ("structure",), takes=COVERED, axis=True, tier=STRIP,
    )  # fmt: skip
    left, right = site.spread(p.roll)
    line_on = [(-left, site.covering(-left) + 0.05), (-45.0, site.covering(-45.0) + 0.05), (-19.0, top + 0.1),
               (19.0, top + 0.1), (45.0, site.covering(45.0) + 0.05), (right, site.covering(right) + 0.05)]  # fmt: skip
    clears = under(band(site.structure, (back, back), -1.0, site.right.layers.underlay + 1.0)) if back else None
    yield Piece(
        "roll", "vented roll stuck to the tiles, underlay {open} back" if vents else "roll stuck to the tiles",
        "membrane", "membrane", sheet(line_on, SKIN), "membrane", ("weather",),
        takes=("membrane", *COVERED), clears=clears, tier=STRIP,
    )  # fmt: skip
    yield _tile(site, p, f"{line} tile screwed and clamped to the batten at each joint")


def _bedded(site: CrestSite, p: Values, line: str) -> Iterator[Piece]:
    """Underlay over the line, tiles on mortar along both edges."""
    yield lapped(site, p, line)
    far, near = site.spread(p.leg), site.spread(p.leg - 55.0)
    low = p.bed * site.slope
    for number, (name, way) in enumerate((("left", -1.0), ("right", 1.0))):
        u0, u1 = way * near[number], way * far[number]
        shape = under([(u0, site.covering(u0)), (u1, site.covering(u1)), (u1, site.covering(u1) + low),
                       (u0, site.covering(u0) + low)])  # fmt: skip
        yield Piece(
            f"bed-{name}", "mortar bed, joints pointed", "strip", "mortar", shape, "finish", ("weather",), tier=STRIP,
        )  # fmt: skip
    yield _tile(site, p, f"{line} tile bedded on mortar and fixed with screws")


def _dry_ridge(site: CrestSite, p: Values) -> Iterator[Piece]:
    yield from _dry(site, p, "ridge", site.is_over_rooms)


def _bedded_ridge(site: CrestSite, p: Values) -> Iterator[Piece]:
    yield from _bedded(site, p, "ridge")


def _dry_hip(site: CrestSite, p: Values) -> Iterator[Piece]:
    yield from _dry(site, p, "hip", False)


def _bedded_hip(site: CrestSite, p: Values) -> Iterator[Piece]:
    yield from _bedded(site, p, "hip")


def _metal(line: str) -> Callable[[CrestSite, Values], Iterator[Piece]]:
    def pieces(site: CrestSite, p: Values) -> Iterator[Piece]:
        if line == "ridge":
            yield from _ties(site, p)
        yield lapped(site, p, line)
        for name, way in (("left", -1.0), ("right", 1.0)):
            u = way * max(site.caps - 20.0, 10.0)
            yield Piece(
                f"seal-{name}", "sealant under the edges of the flashing", "sealant", "sealant",
                bead(u, site.covering(u) - 3.0, 6.0), "finish", ("weather",), takes=("roofing",),
            )  # fmt: skip

    return pieces


def _usual(tiled: bool) -> Callable[[CrestSite, Values], str]:
    def bars(site: CrestSite, p: Values) -> str:
        if site.caps:
            return OtherKind("the roof has flashings of metal on its ridges and hips")
        if site.is_tiled != tiled:
            return OtherKind("it is built under tiles" if tiled else "it is built under sheets and shingles")
        return ""

    return bars


def _bars_vented(site: CrestSite, p: Values) -> str:
    why = _usual(False)(site, p)
    return why or ("" if site.is_over_rooms else "no room lies below that would need the air")


def _bars_metal(site: CrestSite, p: Values) -> str:
    return "" if site.caps else OtherKind("the roof has no flashings of metal on its ridges and hips")


def _vent_rules(site: CrestSite, p: Values) -> Iterator[Found]:
    asked = 0.4 * site.share / 300.0
    if asked * 0.995 > NET:
        has, needs = (value * 304.8 / 25.4**2 for value in (NET, asked))
        words = f"the ridge lets out {has:.1f} sq in per ft, {needs:.1f} are asked for: 40 % of 1/300 of the attic"
        yield Found(f"{words}. Set vents on the roof besides", "IRC 2021 R806.2, from memory")


VENTED = BuildUp(
    "ridge-vented", "ridge", "Vent strip under caps", "rooms below, no flashings of metal", _bars_vented, _vented,
    (SLOT, VENT, WIDE, CAP, COLLAR), _vent_rules, _tied,
)  # fmt: skip
SHEETS, TILES, METALS = "sheets or shingles", "tiles on battens", "flashings of metal on ridges and hips"
RIDGES = (
    VENTED,
    BuildUp("ridge-closed", "ridge", "Caps, closed", SHEETS, _usual(False), _closed, (CAP, LAP, COLLAR), tells=_tied),
    BuildUp("ridge-dry", "ridge", "Tiles, dry-fixed", TILES, _usual(True), _dry_ridge, (LEG, BED, ROLL, OPEN),
            tells=crossed),
    BuildUp("ridge-bedded", "ridge", "Tiles, bedded", TILES, _usual(True), _bedded_ridge, (LEG, BED, OVER),
            tells=crossed),
    BuildUp("ridge-metal", "ridge", "Flashing of metal", METALS, _bars_metal, _metal("ridge"), (LAP, COLLAR),
            tells=_tied),
)  # fmt: skip
HIPS = (
    BuildUp("hip-caps", "hip", "Caps", SHEETS, _usual(False), _hip_caps, (CAP, LAP), tells=crossed),
    BuildUp("hip-dry", "hip", "Tiles, dry-fixed", TILES, _usual(True), _dry_hip, (LEG, BED, ROLL), tells=crossed),
    BuildUp("hip-bedded", "hip", "Tiles, bedded", TILES, _usual(True), _bedded_hip, (LEG, BED, OVER), tells=crossed),
    BuildUp("hip-metal", "hip", "Flashing of metal", METALS, _bars_metal, _metal("hip"), (LAP,), tells=crossed),
)  # fmt: skip


def lets_air_out(building: Building, roof: str) -> bool:
    """Whether a ridge of a roof is built with a vent strip."""
    return any(
        held.kind == "ridge" and held.ends[0].element == roof and _is_vented(building, held)
        for held in found_junctions(building)
    )


def _is_vented(building: Building, junction: Junction) -> bool:
    stated, site = stated_of(building.placed.project, junction), crest_site(building, junction)
    if site is None or stated.build_up not in (None, VENTED.id) or "vent" in stated.off:
        return False
    return not VENTED.bars(site, Values(VENTED.parameters, {}))
