"""Heads, sills and thresholds in cavity walls: lintels, tray, weeps, closers, sills of stone, metal and wood, seal."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from functools import partial

from ..buildup import BuildUp, Found, OtherKind
from ..parameters import Parameter, Values
from ..pieces import METAL, SKIN, STRIP, Piece, bead, block, sheet, under
from .framed import weeps
from .site import OpeningSite

RISE = Parameter("rise", "Rise of the cavity tray", 150.0, 100.0, 300.0, "BS 5628-3: 150 mm, from memory")
WEEPS = Parameter("weeps", "Spacing of the weep holes", 900.0, 200.0, 1500.0, "common practice: 900, two at least")
BEARS = Parameter("bearing", "Bearing of the lintel", 150.0, 100.0, 300.0, "common practice: 150 mm")
CLOSER = Parameter("closer", "Height of the insulated closer", 50.0, 20.0, 150.0)
FALL = Parameter(
    "fall", "Fall of the sill, per 100", 10.0, 4.0, 40.0, "common practice: 1 in 12 or more", is_share=True
)
CLEAR = Parameter("clear", "Drip clear of the wall by", 40.0, 15.0, 100.0, "common practice: 40 mm, 25 mm at least")
BOARD = Parameter("board", "Thickness of the window board", 25.0, 12.0, 50.0)
OUTSIDE = ("sill", "finish", "structure", "cavity", "insulation", "return", "reveal")


def _head(form: str, site: OpeningSite, p: Values) -> Iterator[Piece]:
    wall, v = site.wall, site.high
    leaf, between = wall.leaf, wall.between
    assert leaf is not None and between is not None
    outer, inner = between
    past = (p.bearing, p.bearing)
    foot = v
    if form == "concrete":
        foot = v + (site.lintel or 140.0)
    elif form == "steel":
        toe = leaf.outer - 15.0
        shape = under(
            [
                (toe, v),
                (toe, v + 3.0),
                (outer, v + 3.0),
                (inner + 8.0, v + p.rise),
                (inner - 60.0, v + p.rise),
                (inner - 60.0, v + p.rise - 3.0),
                (inner + 5.0, v + p.rise - 3.0),
                (inner + 5.0, v + 3.0),
                (inner - 85.0, v + 3.0),
                (inner - 85.0, v),
                (inner + 8.0, v),
                (inner + 8.0, v + p.rise - 20.0),
                (outer - 3.0, v),
            ]
        )
        yield Piece(
            "lintel", "steel cavity lintel, bearing {bearing} each side", "lintel", "steel", shape, "structure",
            ("structure",), past=past, takes=("structure", "finish", "cavity", "insulation", "lintel"), tier=STRIP,
            clears=block(inner - wall.frame.thick, leaf.outer, v, v),
        )  # fmt: skip
        foot = v + 3.5
    else:
        yield Piece(
            "shelf", "steel angle under the outer leaf, bearing {bearing} each side", "lintel", "steel",
            under([(outer, v + 100.0), (outer - 8.0, v + 100.0), (outer - 8.0, v), (leaf.outer - 15.0, v),
                   (leaf.outer - 15.0, v + 8.0), (outer, v + 8.0)]),
            "structure", ("structure",), past=past, takes=("structure", "finish", "cavity", "insulation", "lintel"),
            tier=STRIP,
        )  # fmt: skip
        foot = v + 8.5
    yield from _tray(form, site, p, foot)
    if form != "steel":
        yield Piece(
            "head-closer",
            "insulated closer",
            "insulation",
            "rigid",
            block(inner, outer, v, v + p.closer),
            "insulation",
            ("thermal", "fire", "air"),
            takes=("cavity", "insulation"),
            yields=("lintel",),
            tier=STRIP,
        )
    else:
        yield Piece(
            "lintel-fill", "insulation in the lintel", "insulation", "rigid",
            under([(inner + 8.5, v + 0.5), (outer - 6.0, v + 0.5), (inner + 8.5, v + p.rise - 26.0)]), "insulation",
            ("thermal",), takes=("cavity", "insulation"), tier=STRIP,
        )  # fmt: skip
    yield from weeps("weeps", site, p, foot + 1.5)
    yield from perimeter(site, v, 1.0)
    yield from _bead(site, v)


def _tray(form: str, site: OpeningSite, p: Values, foot: float) -> Iterator[Piece]:
    leaf, between = site.wall.leaf, site.wall.between
    assert leaf is not None and between is not None
    outer, inner = between
    if form == "steel":
        line = [
            (leaf.outer, foot),
            (outer, foot),
            (inner + 8.6, site.high + p.rise + 1.0),
            (inner - 30.0, site.high + p.rise + 1.0),
        ]
    else:
        top = foot + p.rise
        line = [(leaf.outer, foot), (outer, foot), (inner, top), (inner - 30.0, top)]
    yield Piece(
        "cavity-tray", "cavity tray rising {rise} to the inner leaf, with stop ends", "flashing", "membrane",
        sheet(line, -METAL), "sheet", ("weather", "drainage"), past=(p.bearing, p.bearing),
        takes=("structure", "finish", "cavity", "insulation", "lintel"), tier=STRIP,
    )  # fmt: skip


def perimeter(site: OpeningSite, v: float, side: float) -> Iterator[Piece]:
    """Sealant on backer between frame and wall outside, tape or sealant inside."""
    yield Piece(
        "perimeter", "sealant on backer, outside", "sealant", "sealant",
        bead(site.frame_out + 4.5, v - side * 4.5, 8.0), "finish", ("weather", "air"), takes=("return", "reveal"),
    )  # fmt: skip
    yield Piece(
        "inner-seal", "tape from the frame to the inner leaf, under the plaster", "tape", "vapour_control",
        sheet([(site.frame_in - 2.0, v - side * 14.0), (site.frame_in - 2.0, v - side * 0.6),
               (site.wall.frame.inner, v - side * 0.6)], 0.5),
        "sheet", ("air", "vapour"), takes=("return", "lining"),
    )  # fmt: skip


def _bead(site: OpeningSite, v: float) -> Iterator[Piece]:
    """Where render ends over an opening: a stop bead with a drip."""
    skin = site.wall.layers[0]
    if skin.layer.material != "render":
        return
    yield Piece(
        "stop-bead", "render stop bead with drip", "flashing", "flashing",
        under([(skin.inner, v), (skin.outer + 4.0, v - 5.0), (skin.outer + 4.0, v + 2.0), (skin.outer + 2.0, v + 2.0),
               (skin.outer + 2.0, v - 2.0), (skin.inner, v + 2.5)]),
        "sheet", ("drainage",), takes=("finish", "return"),
    )  # fmt: skip


def _sill(form: str, site: OpeningSite, p: Values) -> Iterator[Piece]:
    wall, v = site.wall, site.low
    leaf, between = wall.leaf, wall.between
    assert leaf is not None and between is not None
    outer, inner = between
    fall, nose = p.fall / 100.0, wall.outer + p.clear + 10.0
    start = site.frame_out
    back = max(site.frame_in + 25.0, inner + 5.0)
    deep = {"stone": 75.0, "metal": 2.0, "wood": 45.0}[form]
    front = v - (nose - start) * fall
    low = front - deep if form != "metal" else v - 12.0
    if form == "metal":
        line = [
            (start + 1.5, v + 20.0),
            (start + 1.5, v - 2.0),
            (nose, front - 2.0),
            (nose, front - 42.0),
            (nose + 6.0, front - 46.0),
        ]
        yield Piece(
            "sill-board", "pressed metal sill with fall, upturned behind, end caps", "sill", "flashing",
            sheet(line, 2.0), "sheet", ("weather", "drainage"), takes=OUTSIDE, tier=STRIP,
            clears=under([(start, v), (nose, front - 1.0), (nose + 8.0, front - 48.0), (wall.outer, front - 48.0),
                          (wall.outer, front - 4.0), (start, v - 6.0)]),
        )  # fmt: skip
        bed = under(
            [
                (start, v - 4.5),
                (wall.outer, v - 4.5 - (wall.outer - start) * fall),
                (wall.outer, v - 30.0),
                (start, v - 30.0),
            ]
        )
        yield Piece(
            "bed", "bed to fall", "strip", "mortar", bed, "finish", (), takes=OUTSIDE,
        )  # fmt: skip
        low = v - 30.0
    else:
        shape = under([
            (back, v), (start, v), (nose, front), (nose, low), (nose - 7.0, low), (nose - 7.0, low + 8.0),
            (nose - 15.0, low + 8.0), (nose - 15.0, low), (back, low),
        ])  # fmt: skip
        material, words = {"stone": ("stone", "stone sill"), "wood": ("trim", "hardwood sill")}[form]
        yield Piece(
            "sill-board", f"{words} with fall, its drip {{clear}} clear of the wall", "sill", material, shape, "finish",
            ("weather", "drainage"), past=(50.0, 50.0), takes=OUTSIDE, tier=STRIP,
            clears=block(back, nose, low, v),
        )  # fmt: skip
    line = [(wall.outer - 5.0, low - 0.2), (back - 1.2, low - 0.2), (back - 1.2, v - 0.2)]
    yield Piece(
        "sill-dpc", "damp-proof course under the sill, up its back and ends", "membrane", "membrane",
        sheet(line, -SKIN), "sheet", ("weather",), takes=OUTSIDE, past=(50.0, 50.0), tier=STRIP,
    )  # fmt: skip
    yield Piece(
        "sill-closer", "insulated closer under the frame", "insulation", "rigid",
        block(inner, min(back - 2.2, outer), v - max(p.closer, v - low), v), "insulation", ("thermal", "air"),
        takes=("cavity", "insulation"), tier=STRIP,
    )  # fmt: skip
    yield from perimeter(site, v, -1.0)
    yield Piece(
        "window-board", "{board} window board, sealed to the frame", "trim", "softwood",
        block(wall.inner - 30.0, site.frame_in - 3.0, v + 1.2, v + 1.2 + p.board), "finish", (), past=(40.0, 40.0),
        takes=("lining", "return"), tier=STRIP,
    )  # fmt: skip


def _threshold(site: OpeningSite, p: Values) -> Iterator[Piece]:
    v, wall = site.low, site.wall
    line = [(wall.outer + 3.0, v - 60.0), (wall.outer + 3.0, v - 0.3), (wall.frame.inner, v - 0.3)]
    yield Piece(
        "tray", "damp-proof tray under the door, lapped on the damp-proof course, down outside", "flashing", "membrane",
        sheet(line, -SKIN), "sheet", ("weather", "drainage", "air", "vapour"), takes=("finish", "lining", "return"),
        tier=STRIP,
    )  # fmt: skip
    yield Piece(
        "tray-up", "tray turned up behind the frame", "flashing", "membrane",
        block(site.frame_in - 2.0, site.frame_in - 1.2, v - 0.3, v + 14.0), "sheet", ("weather", "air"),
        takes=("finish", "lining", "return"),
    )  # fmt: skip
    assert wall.between is not None
    outer, inner = wall.between
    yield Piece(
        "closer", "insulated closer under the door", "insulation", "rigid",
        block(inner, outer, v - 1.3 - p.closer, v - 1.3), "insulation", ("thermal", "air"),
        takes=("stem", "strip", "insulation"), tier=STRIP,
    )  # fmt: skip
    yield Piece(
        "perimeter", "sealant under the door, outside and inside", "sealant", "sealant",
        bead(site.frame_out + 4.0, v + 4.0, 7.0), "finish", ("weather", "air"),
    )  # fmt: skip


def _bars(site: OpeningSite, p: Values) -> str:
    if not site.outer_wall:
        return OtherKind("it is an inner opening")
    if site.plain:
        return OtherKind("it is for units with a level head")
    if site.wall.form != "cavity":
        return OtherKind("it is built in a cavity wall")
    if site.frame_in < site.wall.inner - 0.5:
        return "the wall is thinner than its unit: move the unit, or choose a thicker wall"
    assert site.wall.between is not None
    if site.frame_in > site.wall.between[0] + 1.0:
        return "the unit stands before the cavity: set it back"
    return ""


def _rules(site: OpeningSite, p: Values) -> Iterator[Found]:
    if dict(p.items()).get("bearing", 150.0) < 149.95:
        yield Found(f"the lintel bears {p.said(p.bearing)}: {p.said(150.0)} is usual", "common practice, no source")
    if dict(p.items()).get("rise", 150.0) < 149.95:
        yield Found(f"the tray rises {p.said(p.rise)}: {p.said(150.0)} is asked for", "BS 5628-3, from memory")
    leaf = site.wall.leaf
    if leaf is not None and site.frame_out > leaf.inner + 1.0:
        return
    if leaf is not None and leaf.inner - site.frame_out > 70.0:
        yield Found(
            f"the frame does not lap the closer by {p.said(30.0)}: set it farther out", "common practice, no source"
        )


def _sill_rules(site: OpeningSite, p: Values) -> Iterator[Found]:
    if p.fall < 100.0 / 12 - 0.05:
        yield Found(f"the sill falls 1 in {100.0 / p.fall:.0f}: 1 in 12 or more", "common practice, no source")
    if p.clear < 24.95:
        yield Found(f"the drip stands {p.said(p.clear)} clear: {p.said(25.0)} at least", "common practice, no source")


def _make_head(form: str, name: str) -> BuildUp:
    pieces: Callable[[OpeningSite, Values], Iterator[Piece]] = partial(_head, form)
    parameters = (RISE, WEEPS, BEARS) if form == "steel" else (RISE, WEEPS, BEARS, CLOSER)
    return BuildUp(f"head-{form}", "head", name, "cavity wall", _bars, pieces, parameters, _rules)


def _make_sill(form: str, name: str) -> BuildUp:
    pieces: Callable[[OpeningSite, Values], Iterator[Piece]] = partial(_sill, form)
    return BuildUp(
        f"sill-{form}", "sill", name, "cavity wall", _bars, pieces, (FALL, CLEAR, CLOSER, BOARD), _sill_rules
    )


HEADS = tuple(
    _make_head(form, name)
    for form, name in (
        ("concrete", "Concrete lintels, tray over the outer one"),
        ("steel", "Steel cavity lintel with its own tray"),
        ("angle", "Steel angle under the outer leaf"),
    )
)
SILLS = tuple(
    _make_sill(form, name) for form, name in (("stone", "Stone sill"), ("metal", "Metal sill"), ("wood", "Wood sill"))
)
CAVITY_THRESHOLD = BuildUp(
    "threshold-cavity", "threshold", "Door on a tray", "cavity wall", _bars, _threshold, (CLOSER,)
)
