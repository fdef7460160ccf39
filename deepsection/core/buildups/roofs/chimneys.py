"""Chimneys of masonry through slopes: apron, flashing up the sides, gutter or cricket behind, tray, fire stops."""

from __future__ import annotations

from collections.abc import Callable, Iterator

from ...geometry import Point
from ...junctions.facts import rounded
from ...junctions.junction import Fact
from ...trades.makeups.model import Tradition
from ..buildup import BuildUp, Found, OtherKind
from ..parameters import Parameter, Values
from ..pieces import MEMBERS, SKIN, STRIP, Piece, block, sheet, under
from .chimney_site import ChimneySite

LEAD = 1.8
"""Thickness of sheet that is dressed (mm)."""
INCHES = (
    Parameter("up", "Flashing up the stack", 152.4, 100.0, 300.0, "common practice: 6 in"),
    Parameter("out", "Apron down over the covering", 152.4, 100.0, 300.0, "common practice: 6 in"),
    Parameter("side", "Flashing out at the sides", 101.6, 75.0, 250.0, "IRC 2021 R905.2.8.3: 4 in; from memory"),
    Parameter("chase", "Flashing into the joint", 25.4, 15.0, 40.0, "common practice: 1 in"),
    Parameter("gutter", "Width of the gutter behind", 152.4, 100.0, 300.0, "common practice: 6 in"),
    Parameter("tail", "Gutter up under the covering", 228.6, 150.0, 450.0, "common practice: 9 in"),
)
METRIC = (
    Parameter("up", "Flashing up the stack", 150.0, 100.0, 300.0, "common practice: 150 mm"),
    Parameter("out", "Apron down over the covering", 150.0, 100.0, 300.0, "common practice: 150 mm"),
    Parameter("side", "Flashing out at the sides", 150.0, 75.0, 250.0, "common practice: 150 mm"),
    Parameter("chase", "Flashing into the joint", 25.0, 15.0, 40.0, "common practice: 25 mm"),
    Parameter("gutter", "Width of the gutter behind", 150.0, 100.0, 300.0, "common practice: 150 mm"),
    Parameter("tail", "Gutter up under the covering", 225.0, 150.0, 450.0, "common practice: 225 mm"),
)
STEP = "IRC 2021 R905.2.8.3, from memory"
LEAST = 101.6
FRONT, SIDES = (0,), (1, 2)
TAKEN = ("roofing", "chimney", "cricket")
BOARD, TURN = 19.0, 25.0
"""Thickness of the boards of a gutter, and how far a tray is turned up (mm). Common practice, no source."""


def _front(site: ChimneySite, p: Values) -> Piece:
    face, far = site.down, site.down + p.out
    low = site.covering(face)
    line = [(face - p.chase, low + p.up), (face, low + p.up), (face, low), (far, site.covering(far))]
    return Piece(
        "apron", "front apron {up} up, {chase} into the joint, {out} down over the covering", "flashing", "flashing",
        sheet(line, LEAD), "sheet", ("weather", "drainage"), past=(75.0, 75.0), takes=TAKEN, tier=STRIP, runs=FRONT,
    )  # fmt: skip


def _sides(site: ChimneySite, p: Values) -> Piece:
    line: list[Point] = [(site.half - p.chase, p.up), (site.half, p.up), (site.half, 0.0), (site.half + p.side, 0.0)]
    return Piece(
        "side-flashing", "step flashing up the sides, {up} up, {side} out, chased in steps", "flashing", "flashing",
        sheet(line, LEAD), "sheet", ("weather", "drainage"), takes=TAKEN, tier=STRIP, runs=SIDES,
    )  # fmt: skip


def _back(site: ChimneySite, p: Values) -> Iterator[Piece]:
    """A gutter on boards behind the stack, its sheet up the stack and up the slope under the covering."""
    face = -site.up
    edge, level = face - p.gutter, _floor(site, p) - BOARD
    yield Piece(
        "gutter-board", "boards of the gutter, to fall to its ends", "strip", "softwood",
        under([(face, level), (face, level + BOARD), (edge, level + BOARD), (edge, level)]), "structure",
        ("structure",), takes=("roofing", "membrane", "sheathing", *MEMBERS), tier=STRIP, runs=FRONT,
        clears=under([(face, site.underlay(face)), (face, level), (edge, level),
                      (edge, min(site.underlay(edge), level))]),
    )  # fmt: skip
    top = level + BOARD + 0.1
    meets = min(edge, -(top - site.underlay(0.0)) / site.pitch)
    far = meets - p.tail / site.layers.slope
    line = [
        (far, site.underlay(far) + 0.1), (meets, site.underlay(meets) + 0.1), (edge, top), (face, top),
        (face, top + p.up), (face + p.chase, top + p.up),
    ]  # fmt: skip
    free = under([(edge - 25.0, top), (face, top), (face, top + p.up), (edge - 25.0, top + p.up)])
    yield Piece(
        "back-gutter", "back gutter {gutter} wide, {up} up the stack, {tail} up the slope under the covering",
        "flashing", "flashing", sheet(_plain(line), LEAD), "sheet", ("weather", "drainage"), past=(100.0, 100.0),
        takes=(*TAKEN, "membrane"), clears=free, tier=STRIP, runs=FRONT,
    )  # fmt: skip


def _plain(line: list[Point]) -> list[Point]:
    """A line without places that lie on each other."""
    found = [line[0]]
    for spot in line[1:]:
        if abs(spot[0] - found[-1][0]) + abs(spot[1] - found[-1][1]) > 1.0:
            found.append(spot)
    return found


def _floor(site: ChimneySite, p: Values) -> float:
    """Height of the floor of the gutter behind: over the covering, and over the underlay where it ends."""
    return max(site.covering(-site.up), site.underlay(-site.up - p.gutter) + BOARD)


def _behind(site: ChimneySite, p: Values) -> float:
    """Height of what lies behind the stack: the ridge of its cricket, or the floor of its gutter."""
    return site.covering(-site.up) + site.pitch * site.half if site.has_cricket else _floor(site, p)


def _saddle(site: ChimneySite, p: Values) -> Piece:
    """The flashing of the cricket up the back of the stack."""
    face, low = -site.up, _behind(site, p)
    return Piece(
        "cricket-flashing", "flashing of the cricket {up} up the stack, {chase} into the joint", "flashing", "flashing",
        sheet([(face - p.out, low), (face, low), (face, low + p.up), (face + p.chase, low + p.up)], LEAD), "sheet",
        ("weather", "drainage"), takes=TAKEN, tier=STRIP, runs=FRONT,
    )  # fmt: skip


def _tray(site: ChimneySite, p: Values) -> Iterator[Piece]:
    """Through both leaves of the stack over what is chased into them, turned up around the flue."""
    note = "tray through the stack over the flashing, turned up around the flue, weeps over it"
    lower, upper = site.flue
    for name, face, flue, v in (
        ("front", site.down, lower, site.covering(site.down) + p.up + 4.0),
        ("back", -site.up, upper, _behind(site, p) + p.up + 4.0),
    ):
        inner = flue + (2.0 if name == "front" else -2.0)
        line = [(face, v), (inner, v), (inner, v + TURN)]
        yield Piece(
            f"tray-{name}", note, "flashing", "membrane", sheet(line, SKIN if name == "back" else -SKIN), "sheet",
            ("weather",), takes=("chimney",), tier=STRIP, runs=FRONT,
        )  # fmt: skip


def _stops(site: ChimneySite) -> Iterator[Piece]:
    """What closes the gap between stack and timber."""
    for name, face, way in (("lower", site.down, 1.0), ("upper", -site.up, -1.0)):
        high = min(site.structure(face + way * site.gap), site.structure(face)) - 2.0
        yield Piece(
            f"stop-{name}", "mineral fibre in the gap to all timber, on a sheet of steel", "insulation", "quilt",
            block(face, face + way * site.gap, high - 100.0, high), "insulation", ("fire",),
            takes=("infill", "insulation"), yields=MEMBERS, tier=STRIP, runs=FRONT,
        )  # fmt: skip


def _chimney(site: ChimneySite, p: Values) -> Iterator[Piece]:
    yield _front(site, p)
    yield _sides(site, p)
    if site.has_cricket:
        yield _saddle(site, p)
    else:
        yield from _back(site, p)
    yield from _tray(site, p)
    yield from _stops(site)


def _bars(site: ChimneySite, p: Values) -> str:
    if p.chase * 2 > min(site.down + site.up, 2 * site.half) - 100.0:
        return f"the stack is {p.said(min(site.down + site.up, 2 * site.half))} wide: too narrow to be chased"
    return ""


def _rules(site: ChimneySite, p: Values) -> Iterator[Found]:
    for words, value in (("goes up", p.up), ("goes out", p.side)):
        if value < LEAST - 0.05:
            yield Found(f"the flashing {words} {p.said(value)}: {p.said(LEAST)} at least", STEP)


def _told(site: ChimneySite, p: Values) -> tuple[Fact, ...]:
    return rounded(site.down), rounded(site.up), rounded(site.half), rounded(site.depth)


def _of(tradition: Tradition) -> Callable[[ChimneySite, Values], str]:
    def bars(site: ChimneySite, p: Values) -> str:
        return OtherKind("it has the sizes of the other tradition") if site.tradition != tradition else _bars(site, p)

    return bars


CHIMNEYS = (
    BuildUp("chimney-inches", "chimney", "Apron, step flashing, gutter or cricket", "stack of masonry in one slope",
            _of("timber"), _chimney, INCHES, _rules, _told),
    BuildUp("chimney-metric", "chimney", "Apron, stepped flashing, gutter or cricket", "stack of masonry in one slope",
            _of("masonry"), _chimney, METRIC, _rules, _told),
)  # fmt: skip
