"""Walls that end on others, seen from above: backers and tapes on frames, ties and bond in masonry, strips between."""

from __future__ import annotations

from collections.abc import Iterator

from ...geometry import Point
from ..buildup import BuildUp, OtherKind
from ..parameters import Parameter, Values
from ..pieces import METAL, SKIN, STRIP, Piece, bead, block, sheet
from .corners import BEDDED, FLASH, LAP, WRAP
from .tee_site import TeeSite

TIES = Parameter("ties", "Spacing of the ties", 450.0, 225.0, 900.0, "common practice: every second course of block")
TIE = Parameter("tie", "Tie built into the wall", 75.0, 50.0, 200.0, "common practice: 225 in all")
LONG = 225.0
"""A tie is so long (mm). Common practice, no source."""
BOND = Parameter("bond", "Units built in", 75.0, 50.0, 225.0, "common practice: half of a unit")
PLUGS = Parameter("plugs", "Spacing of the fixings", 600.0, 300.0, 900.0, "common practice: 600 mm")
TWO, SIX = 38.1, 139.7
"""A 2x6 (mm)."""
ROW = 225.0
"""Courses of block (mm)."""


def _corners(site: TeeSite, u: float, out: float, within: float, reach: float) -> Iterator[tuple[str, list[Point]]]:
    """Along faces round both inner corners, so far each way: the one outward of the wall and the one within."""
    yield "outer", [(u, out + reach), (u, out), (u + reach, out)]
    yield "inner", [(u + reach, within), (u, within), (u, within - reach)]


def _linings(site: TeeSite) -> Iterator[Piece]:
    """What boards and plaster have in the two corners of the rooms."""
    wall = site.wall.layers
    lines = _corners(site, site.face, wall[0].outer, wall[-1].inner, BEDDED)
    for (name, line), side in zip(lines, (wall[0], wall[-1])):
        met = {site.layers[0].layer.material, side.layer.material}
        if met == {"gypsum"} or met == {"plaster"}:
            note = "joint tape, filled over, in the corners" if met == {"gypsum"} else "scrim in the corners"
            yield Piece(f"tape-{name}", note, "lining", "plaster", sheet(line, METAL), "sheet", ())


def _framed(site: TeeSite, p: Values) -> Iterator[Piece]:
    edge, middle = site.bears.outer, site.middle
    yield Piece(
        "backer", "2x6 backer flat in the wall, for the boards and the end stud", "stud", "softwood",
        block(edge - TWO, edge, middle - SIX / 2, middle + SIX / 2), "structure", ("structure",), takes=("infill",),
        yields=("stud", "header"), axis=True, tier=STRIP,
    )  # fmt: skip
    control = site.before("vapour_control")
    if control is not None and not site.is_outside:
        reach = site.wall.frame.thick / 2 + p.lap
        line = [(edge + 0.1, middle + reach), (edge + 0.1, middle - reach)]
        yield Piece(
            "vapour-strip", "strip of vapour control behind the end stud, {lap} past it, taped", "tape",
            "vapour_control", sheet(line, 0.4), "membrane", ("vapour", "air"), takes=("lining", "membrane", "stud"),
        )  # fmt: skip
    if site.are_outer and site.is_outside:
        yield from _weathered(site, p)
    yield from _linings(site)


def _weathered(site: TeeSite, p: Values) -> Iterator[Piece]:
    """Membranes of both walls lapped in the corner that is outside, a flashing behind the cladding of both."""
    on = site.before("membrane")
    own = next((held for held in site.wall.layers if held.layer.function == "membrane"), None)
    if on is None or own is None or own.inner < site.wall.frame.outer - 0.1:
        return
    a, b = on.outer, own.outer
    yield Piece(
        "wrap", "weather membrane lapped {wrap} round the corner", "membrane", "membrane",
        sheet([(a, b + p.wrap), (a, b), (a + p.wrap, b)], SKIN), "membrane", ("weather", "air"), takes=("cladding",),
        tier=STRIP,
    )  # fmt: skip
    a, b = a + SKIN, b + SKIN
    yield Piece(
        "corner-flashing", "metal angle behind the cladding, {flash} each way", "flashing", "flashing",
        sheet([(a, b + p.flash), (a, b), (a + p.flash, b)], METAL), "sheet", ("weather",), takes=("cladding",),
        tier=STRIP,
    )  # fmt: skip


def _tied(site: TeeSite, p: Values) -> Iterator[Piece]:
    edge, middle = site.bears.outer, site.middle
    yield Piece(
        "tie", "flat ties 20 x 2.5 at {ties}, {tie} into the wall", "fixing", "steel",
        block(edge - p.tie, edge - p.tie + LONG, middle - 10.0, middle + 10.0), "sheet", ("structure",), every=p.ties,
        wide=2.5, first=ROW, takes=("structure",), tier=STRIP,
    )  # fmt: skip
    yield from _linings(site)


def _bonded(site: TeeSite, p: Values) -> Iterator[Piece]:
    edge, frame = site.bears.outer, site.wall.frame
    yield Piece(
        "bond", "every second course built {bond} into the wall", "structure", frame.layer.material,
        block(edge - p.bond, edge, frame.inner, frame.outer), "structure", ("structure",), every=2 * ROW, wide=ROW - 10,
        first=ROW, takes=("structure",), tier=STRIP,
    )  # fmt: skip
    yield from _linings(site)


def _stripped(site: TeeSite, p: Values) -> Iterator[Piece]:
    edge, frame = site.bears.outer, site.wall.frame
    yield Piece(
        "strip", "damp-proof strip behind the end stud", "membrane", "membrane",
        sheet([(edge, frame.outer), (edge, frame.inner)], -SKIN), "membrane", ("weather",),
        takes=("stud", "lining", "finish"), tier=STRIP,
    )  # fmt: skip
    yield Piece(
        "plug", "plug and screw at {plugs}", "fixing", "steel",
        block(edge - 60.0, edge + TWO, site.middle - 3.0, site.middle + 3.0), "sheet", ("structure",), every=p.plugs,
        wide=6.0, first=150.0, even=True, takes=("structure", "stud"),
    )  # fmt: skip
    wall = site.wall.layers
    for name, v in (("outer", wall[0].outer + 3.0), ("inner", wall[-1].inner - 3.0)):
        yield Piece(
            f"seal-{name}", "sealant at the edge of the boards", "sealant", "sealant", bead(site.face + 3.0, v, 6.0),
            "finish", ("air",),
        )  # fmt: skip


def _bars_framed(site: TeeSite, p: Values) -> str:
    return "" if site.wall.is_framed and site.is_framed else OtherKind("it is built of framed walls")


def _bars_masonry(site: TeeSite, p: Values) -> str:
    return OtherKind("it is built of walls of masonry") if site.wall.is_framed or site.is_framed else ""


def _bars_tied(site: TeeSite, p: Values) -> str:
    why = _bars_masonry(site, p)
    if not why and p.tie > site.bears.thick - 20.0:
        return f"the wall is {p.said(site.bears.thick)} thick: ties cannot go {p.said(p.tie)} into it"
    return why


def _bars_bonded(site: TeeSite, p: Values) -> str:
    why = _bars_masonry(site, p)
    if not why and p.bond > site.bears.thick - 20.0:
        return f"the wall is {p.said(site.bears.thick)} thick: units cannot be built in {p.said(p.bond)}"
    return why


def _bars_mixed(site: TeeSite, p: Values) -> str:
    mixed = site.wall.is_framed and not site.is_framed
    return "" if mixed else OtherKind("it is a framed wall on one of masonry")


TEES = (
    BuildUp("tee-framed", "wall_on_wall", "On a backer", "framed walls", _bars_framed, _framed, (LAP, WRAP, FLASH)),
    BuildUp("tee-tied", "wall_on_wall", "Tied to the other wall", "walls of masonry", _bars_tied, _tied,
            (TIES, TIE)),
    BuildUp("tee-bonded", "wall_on_wall", "Bonded into the other wall", "walls of masonry", _bars_bonded, _bonded,
            (BOND,)),
    BuildUp("tee-mixed", "wall_on_wall", "Stud fixed to masonry", "framed wall on masonry", _bars_mixed, _stripped,
            (PLUGS,)),
)  # fmt: skip
