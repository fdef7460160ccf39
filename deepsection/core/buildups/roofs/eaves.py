"""Eaves of framed walls and roofs: closed soffit with a vented attic, without one, and over nothing."""

from __future__ import annotations

from collections.abc import Iterator

from ..buildup import BuildUp, Found, OtherKind
from ..parameters import Parameter, Values
from ..pieces import BUILT, MEMBERS, METAL, ROOFED, SKIN, STRIP, Piece, bead, block, sheet, under
from .eave_site import EaveSite

STIFF = 3.0
"""Thickness of baffles (mm)."""
TILT = 6.0
"""How far a drip is turned out (mm)."""

CLEAR = Parameter("clear", "Clear air over the insulation", 25.4, 10.0, 150.0, "IRC 2021 R806.3: 1 in at least")
ICE = Parameter("ice", "Ice sheet, inside the warm wall", 609.6, 0.0, 3000.0, "IRC 2021 R905.1.2: 24 in at least")
VENT = Parameter("vent", "Width of the vent strip", 50.8, 15.0, 300.0)
FRIEZE = Parameter("frieze", "Depth of the frieze board", 139.7, 20.0, 400.0)
DRIP = Parameter("drip", "Height of the drip edge", 38.1, 12.0, 100.0)
SUBFASCIA = Parameter("subfascia", "Thickness of the sub-fascia", 38.1, 15.0, 100.0)
STARTER = Parameter("starter", "Projection of the first course", 12.7, 5.0, 50.0)
BOARDS = ("trim", "moulding", "corner_board")
"""What stands before a wall under its eave."""
WALLS = ("cladding", "sheathing", "infill", "stud", "chimney")
"""What an eave that runs into a wall or a chimney ends at."""
LAP = Parameter("lap", "Lap of the vapour control", 101.6, 50.0, 300.0)


def roof_edge(site: EaveSite, p: Values, ice: bool = True) -> Iterator[Piece]:
    """What the covering of a roof has at its lower edge: drip edge, ice sheet, starter course."""
    edge = site.reach
    top = site.on_deck(edge)
    back = edge - 76.2
    yield Piece(
        "drip-edge", "metal drip edge under the underlay", "flashing", "flashing",
        sheet([(edge + TILT, top - p.drip - TILT), (edge + 1.5, top - p.drip), (edge + 1.5, top + 0.2),
               (back, site.on_deck(back) + 0.2)][::-1], METAL),
        "sheet", ("weather", "drainage"), ends="roof", tier=STRIP, takes=("membrane",), yields=WALLS,
    )  # fmt: skip
    if ice and p.ice:
        far = site.inside - p.ice
        yield Piece(
            "ice-sheet", "ice-and-water sheet to {ice} inside of the wall, underlay lapped over it", "membrane",
            "membrane", sheet([(far, site.on_deck(far) + 0.1), (edge, top + 0.1)], SKIN),
            "membrane", ("weather",), ends="roof", tier=STRIP, takes=("membrane",), yields=WALLS,
        )  # fmt: skip
    over, lift = site.covering - site.deck, 1.5 * site.slope
    yield Piece(
        "starter",
        "starter course projecting {starter}",
        "roofing",
        "shingle",
        under(
            [
                (edge, top + lift),
                (edge + p.starter, top + lift - p.starter * site.pitch),
                (edge + p.starter, top - p.starter * site.pitch + over),
                (edge, top + over),
            ]
        ),
        "finish",
        ("weather",),
        ends="roof",
    )


def air_path(site: EaveSite, p: Values) -> Iterator[Piece]:
    """The baffle that keeps air clear over the quilt, and closes the quilt's edge against the wind."""
    if site.quilt is None:
        return
    clear = p.clear * site.slope
    foot = site.rafter_top(0.0) - clear
    far = min(-(site.quilt + 150.0 - foot) / site.pitch, -200.0)
    rise = site.rafter_top(far) - clear
    line = [(0.0, site.plate), (0.0, foot), (far, rise)]
    kept = under(
        [(0.0, site.plate), (0.0, site.rafter_top(0.0)), (far, site.rafter_top(far)), (far, rise), (0.0, foot)]
    )
    yield Piece(
        "baffle", "baffle keeping {clear} clear, closed to the plate", "baffle", "baffle",
        sheet(line, STIFF), "finish", (), takes=("infill", "insulation"), clears=kept, tier=STRIP,
        yields=(*MEMBERS, "cladding", "sheathing", "stud", "lining", "structure", "header", "blocking"),
    )  # fmt: skip


def vault_quilt(site: EaveSite, p: Values) -> Iterator[Piece]:
    """What fills the space over the plate where the room within is vaulted, up to the air path."""
    if site.wall is None or site.quilt is None:
        return
    clear, inner = p.clear * site.slope, site.wall.inner
    yield Piece(
        "vault-quilt", "quilt over the plate, to that of the vault", "infill", "quilt",
        under([(0.0, site.plate), (0.0, site.rafter_top(0.0) - clear), (inner, site.rafter_top(inner) - clear),
               (inner, site.plate)]),
        "insulation", ("thermal",), yields=(*MEMBERS, "infill", "lining", "insulation"), within="vault", tier=STRIP,
    )  # fmt: skip


def ceiling_seal(site: EaveSite, p: Values) -> Iterator[Piece]:
    """Vapour control over the boards of the ceiling, turned down onto that of the wall, and the boards' sealed edge."""
    if site.wall is None or site.quilt is None:
        return
    u, z = site.wall.frame.inner, site.plate
    yield Piece(
        "ceiling-vapour", "vapour control over the ceiling, lapped {lap} and sealed to the wall's", "membrane",
        "vapour_control", sheet([(u - 1500.0, z), (u, z), (u, z - p.lap)][::-1], 0.4),
        "membrane", ("vapour", "air"), within="ceiling", tier=STRIP, takes=("lining", "membrane"),
    )  # fmt: skip
    yield Piece(
        "board-seal", "sealant at the edge of the ceiling boards", "sealant", "sealant",
        bead(site.inside - 3.0, site.board_low - 3.0, 6.0), "finish", ("air",),
        within="ceiling", yields=BUILT,
    )  # fmt: skip


def _closed(site: EaveSite, p: Values) -> Iterator[Piece]:
    low, face = site.soffit_top, site.face
    assert low is not None and site.soffit is not None
    inner = site.reach - site.board
    back = inner - p.subfascia
    yield Piece(
        "subfascia", "{subfascia} sub-fascia", "sub_fascia", "softwood",
        under([(back, low), (inner, low), (inner, site.rafter_top(inner)), (back, site.rafter_top(back))]),
        "structure", ("structure",), ends="roof", takes=("rafter", "trimmer"), axis=True, yields=WALLS,
        tier=STRIP,
    )  # fmt: skip
    ledger = face + 38.1
    yield Piece(
        "ledger", "2x4 ledger", "ledger", "softwood", block(face, ledger, low, low + 88.9),
        "structure", ("structure",), axis=True, yields=BOARDS, takes=("rafter", "trimmer"), tier=STRIP,
    )  # fmt: skip
    middle = (back + ledger) / 2 + (back - ledger) / 4
    vent = block(middle - p.vent / 2, middle + p.vent / 2, site.soffit, low)
    yield Piece(
        "vent", "continuous vent strip {vent}, 9 sq in net per ft", "vent_strip", "vent_strip", vent,
        "finish", ("weather",), takes=("soffit",), tier=STRIP, ends="wall",
    )  # fmt: skip
    yield Piece(
        "frieze", "frieze board, sealant behind", "frieze", "trim",
        block(face, face + 19.05, site.soffit - p.frieze, site.soffit), "finish", ("weather",), tier=STRIP,
        yields=(*BOARDS, *ROOFED),
    )  # fmt: skip
    yield Piece(
        "frieze-seal", "sealant behind the frieze", "sealant", "sealant",
        bead(face + 3.0, site.soffit - p.frieze - 3.0, 6.0), "finish", ("weather",),
        yields=(*BOARDS, *ROOFED),
    )  # fmt: skip
    yield from framed(site, p)


def rafter_ties(site: EaveSite) -> Iterator[Piece]:
    """A steel tie from the plates to each rafter."""
    _, thick, spacing = site.rafter
    if not spacing or site.wall is None or not site.wall.is_framed or not site.plates:
        return
    low, u = site.plate - site.plates, site.wall.frame.inner
    shape = under([
        (-6.0, low + 6.0), (-50.0, low + 6.0), (-50.0, site.plate), (-60.0, site.rafter_top(-60.0) - 30.0),
        (-20.0, site.rafter_top(-20.0) - 30.0), (-6.0, site.plate),
    ])  # fmt: skip
    if site.rafter_top(-60.0) - 30.0 > site.plate + 40.0 and u < -60.0:
        yield Piece(
            "tie", "steel tie at each rafter", "fixing", "steel", shape, "sheet", ("structure",),
            every=spacing, wide=1.2, first=thick + 0.1, at_rafters=True, takes=("infill",),
        )  # fmt: skip


def wall_head(site: EaveSite, p: Values) -> Iterator[Piece]:
    """Sheathing and weather membrane of the wall up to the foot of the air path, the membrane taped to the plate."""
    if site.wall is None or not site.wall.is_framed or site.quilt is None:
        return
    boards = next((held for held in site.wall.layers if held.layer.function == "sheathing"), None)
    wrap = next((held for held in site.wall.layers if held.layer.function == "membrane"), None)
    if boards is None or wrap is None or wrap.inner < boards.outer - 1.0:
        return
    low = site.plate - site.plates - 150.0
    high = site.rafter_top(boards.inner) - p.clear * site.slope
    room = site.rafter_top(wrap.outer) - p.clear * site.slope
    if min(high, room) < site.plate + 20.0:
        return
    yield Piece(
        "head-sheathing", "sheathing carried up to the air path", "sheathing", boards.layer.material,
        under([(boards.outer, low), (boards.inner, low), (boards.inner, high), (boards.outer, room)]),
        "sheathing", ("air",), tier=STRIP, takes=("rafter", "trimmer", "sheathing", "cladding"),
    )  # fmt: skip
    yield Piece(
        "head-membrane", "weather membrane up over the sheathing, taped at its top", "membrane", wrap.layer.material,
        block(wrap.inner, wrap.outer, low, room - 1.0), "membrane", ("weather", "air"), tier=STRIP,
        takes=("rafter", "trimmer", "membrane", "cladding"),
    )  # fmt: skip
    yield Piece(
        "head-tape", "tape from the membrane to the baffle", "tape", "membrane",
        sheet([(wrap.outer, room - 60.0), (wrap.outer, room + 1.0), (boards.inner - 2.0, high + 1.0)][::-1], SKIN),
        "sheet", ("air", "weather"), takes=("rafter", "trimmer"),
    )  # fmt: skip


def _bars_closed(site: EaveSite, p: Values) -> str:
    if site.wall is None or not site.wall.is_framed:
        return OtherKind("it is built on a framed wall")
    if site.is_open:
        return OtherKind("the tails of its rafters show")
    if site.soffit is None:
        return "the overhang leaves no room for a soffit: make it wider"
    room = site.reach - site.board - p.subfascia - site.face - 38.1
    if room < p.vent + 10.0:
        return f"its soffit is {p.said(room)} wide between ledger and sub-fascia: too narrow for the vent strip"
    return no_air(site, p)


def no_air(site: EaveSite, p: Values) -> str:
    """Why there is no room for an air path over the plate."""
    foot = site.rafter_top(0.0) - p.clear * site.slope
    if site.quilt is not None and foot - site.plate < 20.0:
        return (
            f"the rafter leaves {p.said(max(foot - site.plate, 0.0))} over the plate below its air path: raise the heel"
        )
    return ""


def air_rules(site: EaveSite, p: Values) -> Iterator[Found]:
    """What is asked of the air over the insulation, and of the insulation over the plate."""
    if site.quilt is None:
        return
    if p.clear < 25.4 - 0.05:
        yield Found(
            f"{p.said(p.clear)} of clear air over the insulation: {p.said(25.4)} is asked for", "IRC 2021 R806.3"
        )
    if 0 < p.ice < 609.6 - 0.05:
        yield Found(
            f"the ice sheet ends {p.said(p.ice)} inside of the wall: {p.said(609.6)} is asked for", "IRC 2021 R905.1.2"
        )


NET = 9 * 25.4**2 / 304.8 / 50.8
"""Net free area of a vent strip for each width and length: 9 sq in per ft of 2 in. Common practice, no source."""


def vent_needs(site: EaveSite, provided: float, remedy: str) -> Iterator[Found]:
    """What is asked of the area of vents (mm2 per mm of eaves), from the plan of the attic: by the eaves alone, or half
    of it high up."""
    if site.quilt is None or site.attic <= 0.0:
        return
    asked = site.attic / (600.0 if site.high_vents else 150.0)
    if provided < asked * 0.995:
        has, needs = (value * 304.8 / 25.4**2 for value in (provided, asked))
        yield Found(
            f"the eaves let in {has:.1f} sq in per ft, {needs:.1f} are asked for: 1/150 of the attic, or 1/300 with 40 "
            f"to 50 % of it high up. {remedy}, or set vents on the roof",
            "IRC 2021 R806.2",
        )


def seat_rules(site: EaveSite, p: Values) -> Iterator[Found]:
    """What is asked of the seat of the rafters."""
    if site.wall is None or not site.seat:
        return
    least, on = (38.1, "wood") if site.wall.is_framed or site.plates else (76.2, "masonry")
    if site.seat < least - 0.05:
        yield Found(
            f"rafters have a seat of {p.said(site.seat)} on {on}: {p.said(least)} is asked for", "IRC 2021 R802.6"
        )


def _rules(site: EaveSite, p: Values) -> Iterator[Found]:
    yield from vent_needs(site, NET * p.vent, "Make the strip wider")
    yield from air_rules(site, p)
    yield from seat_rules(site, p)


def framed(site: EaveSite, p: Values) -> Iterator[Piece]:
    """What every eave on a framed wall has, whatever closes it from below."""
    yield from air_path(site, p)
    yield from rafter_ties(site)
    yield from wall_head(site, p)
    yield from vault_quilt(site, p)
    yield from ceiling_seal(site, p)
    yield from roof_edge(site, p)


def _flush_rules(site: EaveSite, p: Values) -> Iterator[Found]:
    yield from air_rules(site, p)
    yield from seat_rules(site, p)
    if site.quilt is not None:
        yield Found(
            "no vent lets air in at this eave: make the overhang wider, or set vents on the roof", "IRC 2021 R806.2"
        )


def _bars_flush(site: EaveSite, p: Values) -> str:
    if site.wall is None or not site.wall.is_framed:
        return OtherKind("it is built on a framed wall")
    return no_air(site, p)


def _bars_free(site: EaveSite, p: Values) -> str:
    return "" if site.wall is None else OtherKind("a wall stands under it")


def _free(site: EaveSite, p: Values) -> Iterator[Piece]:
    yield from roof_edge(site, p, ice=False)


CLOSED = BuildUp(
    "eave-closed", "eave", "Closed soffit, vented", "framed wall, overhang with room for a soffit",
    _bars_closed, _closed, (CLEAR, VENT, SUBFASCIA, FRIEZE, DRIP, ICE, STARTER, LAP), _rules,
)  # fmt: skip
FLUSH = BuildUp(
    "eave-flush", "eave", "Without a vented soffit", "framed wall, no room for a vented soffit",
    _bars_flush, framed, (CLEAR, DRIP, ICE, STARTER, LAP), _flush_rules,
)  # fmt: skip
FREE = BuildUp(
    "eave-free", "eave", "Over no wall", "no wall stands under it", _bars_free, _free, (DRIP, ICE, STARTER),
)  # fmt: skip
