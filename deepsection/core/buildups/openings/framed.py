"""Heads, sills and thresholds in framed walls: pan, flanges and tapes in order, head flashing, trim, seal, lining."""

from __future__ import annotations

from collections.abc import Iterator

from ..buildup import BuildUp, Found, OtherKind
from ..parameters import Parameter, Values
from ..pieces import METAL, SKIN, STRIP, Piece, bead, block, sheet, under
from .site import OpeningSite

FLANGE = 1.5
"""Thickness of tapes, of flashings and of the flanges of units (mm)."""
TRIM = 19.05
"""Thickness of trim boards (mm)."""
REVEAL, STAND = 6.0, 20.0
"""What a casing shows of the jamb, and how high a stool stands over the sill (mm): common practice, no source."""
CLOTHES = ("cladding", "reveal", "trim", "sill")
"""What gives way on the outside of the sheathing."""

NOSE = Parameter("nose", "Sill stands clear of the cladding by", 38.1, 25.4, 100.0, "common practice: 1 in or more")
FALL = Parameter(
    "fall", "Fall of the sill, per 100", 12.5, 5.0, 50.0, "common practice: 1 in 12 or more", is_share=True
)
PAN = Parameter("pan", "Pan flashing turned down over the membrane", 50.8, 25.4, 150.0)
DAM = Parameter("dam", "Height of the back dam", 9.5, 5.0, 25.0)
STOOL = Parameter("stool", "Thickness of the stool", 19.05, 12.0, 38.1)
UP = Parameter("up", "Head flashing behind the membrane", 76.2, 38.1, 250.0)
OVER = Parameter("over", "Cladding held over the head flashing", 6.4, 3.0, 20.0)
CASING = Parameter("casing", "Width of the casing", 63.5, 0.0, 150.0)


def flange_face(site: OpeningSite) -> float:
    """To the inner face of the flange of the unit, on the membrane and one tape."""
    return site.shell + 2 * SKIN + 0.5


def _sill(site: OpeningSite, p: Values) -> Iterator[Piece]:
    v, rough, shell = site.low, site.low - site.gap, site.shell
    back = site.frame_in - SKIN - 0.2
    yield Piece(
        "pan", "pan flashing over the rough sill, up the jambs, over the membrane", "flashing", "flashing",
        sheet([(back, v + p.dam), (back, rough), (shell + 0.6, rough), (shell + 0.6, rough - p.pan)][::-1], -SKIN),
        "sheet", ("weather", "drainage", "air"), takes=("infill", "lining", "membrane"), tier=STRIP,
    )  # fmt: skip
    flange = flange_face(site)
    if site.frame_out > flange + FLANGE:
        yield Piece(
            "flange", "flange of the unit over the pan, not bedded: it drains", "flashing", "unit_frame",
            block(flange, flange + FLANGE, rough - 30.0, v), "sheet", (), takes=CLOTHES,
        )  # fmt: skip
    yield from _sub_sill(site, p, shell + 5.0)
    yield from air_seal(site, v, -1.0)
    yield from _inside(site, p, v, rough)


def _sub_sill(site: OpeningSite, p: Values, back: float) -> Iterator[Piece]:
    """A sill of wood with a fall and a drip."""
    nose, fall = site.wall.outer + p.nose, p.fall / 100.0
    start = max(site.frame_out, back + 5.0)
    v, front = site.low - 1.0, site.low - 1.0 - (nose - start) * fall
    low = front - 32.0
    shape = under([
        (back, v), (start, v), (nose, front), (nose, low), (nose - 7.0, low), (nose - 7.0, low + 6.0),
        (nose - 13.0, low + 6.0), (nose - 13.0, low), (back, low),
    ])  # fmt: skip
    yield Piece(
        "sub-sill", "sill with fall, its drip {nose} clear", "sill", "trim", shape, "finish",
        ("weather", "drainage"), past=(max(site.trim, 0.0) + 20.0, max(site.trim, 0.0) + 20.0),
        takes=(*CLOTHES, "membrane"), clears=block(back, nose, low, v), tier=STRIP,
    )  # fmt: skip
    yield Piece(
        "sill-seal", "sealant under the sill", "sealant", "sealant", bead(site.wall.outer + 3.0, low - 3.0, 6.0),
        "finish", ("weather",),
    )  # fmt: skip


def air_seal(site: OpeningSite, v: float, side: float) -> Iterator[Piece]:
    """Foam in the clearance around the unit, and its seal to the frame; `side`: 1 above it, -1 below."""
    u = site.frame_in
    if site.gap >= 3.0:
        far = min(u + 50.0, site.frame_out)
        edge = v + side * site.gap
        low, high = (edge + SKIN, v) if side < 0 else (v, edge)
        yield Piece(
            "foam", "low-expansion foam on backer", "foam", "foam", block(u + 2.0, far, low, high), "finish",
            ("air", "thermal"), takes=("infill", "sheathing", "lining"), tier=STRIP,
        )  # fmt: skip
    else:
        yield Piece(
            "air-seal", "sealant between frame and rough opening", "sealant", "sealant",
            bead(u - 3.0, v - side * 3.0, 5.0), "finish", ("air",),
        )  # fmt: skip


def _inside(site: OpeningSite, p: Values, v: float, rough: float) -> Iterator[Piece]:
    """Stool and apron, and the vapour control turned to the frame under them."""
    wall = site.wall
    u, inner = wall.frame.inner, wall.inner
    back = site.frame_in
    if back - inner < 10.0:
        return
    yield Piece(
        "sill-vapour", "vapour control turned over the rough sill, taped to the frame", "tape", "vapour_control",
        sheet([(back - 1.4, v + 14.0), (back - 1.4, rough), (u, rough), (u, rough - 75.0)], 0.4),
        "sheet", ("vapour", "air"), takes=("lining", "membrane", "infill"),
    )  # fmt: skip
    if rough < v - 1.0:
        yield Piece(
            "stool-shim", "shims under the stool", "strip", "softwood", block(inner, back - 4.0, rough + 0.5, v),
            "finish", (), takes=("lining", "infill"),
        )  # fmt: skip
    yield Piece(
        "stool", "{stool} stool, sealed to the frame", "trim", "trim",
        block(inner - 22.0 - TRIM, back - 6.0, v + 0.5, v + 0.5 + p.stool), "finish", (), past=(p.casing, p.casing),
        takes=("lining", "return"), tier=STRIP,
    )  # fmt: skip
    yield Piece(
        "apron", "apron", "trim", "trim", block(inner - TRIM, inner, v - 70.0, v), "finish", (),
        past=(p.casing, p.casing), tier=STRIP,
    )  # fmt: skip


def _head(site: OpeningSite, p: Values) -> Iterator[Piece]:
    v, rough, wall = site.high, site.high + site.gap, site.wall
    flange = flange_face(site)
    clad = next((held for held in wall.layers if held.layer.function == "cladding"), wall.layers[0])
    foot = v + site.trim
    if site.frame_out > flange + FLANGE:
        yield Piece(
            "flange", "flange of the unit, bedded in sealant at head and jambs", "flashing", "unit_frame",
            block(flange, flange + FLANGE, v, rough + 30.0), "sheet", ("weather",), takes=CLOTHES, tier=STRIP,
        )  # fmt: skip
        yield Piece(
            "flange-bed", "bed of sealant behind the flange", "sealant", "sealant",
            block(site.shell + 0.6, flange, rough + 6.0, rough + 18.0), "finish", ("weather", "air"),
            takes=("membrane", "cladding"),
        )  # fmt: skip
        yield Piece(
            "head-tape", "head tape over the flange", "tape", "membrane",
            block(flange + FLANGE, flange + FLANGE + SKIN, rough + 4.0, rough + 90.0), "sheet", ("weather", "air"),
            past=(150.0, 150.0), takes=CLOTHES,
        )  # fmt: skip
    top = max(foot + p.up, rough + 100.0)
    face = flange + FLANGE + SKIN + 0.2
    drip = wall.outer + (TRIM if site.trim else 0.0) + 8.0
    line = [(face, top), (face, foot + 4.0), (drip, foot + 0.5), (drip, foot - 9.0)]
    yield Piece(
        "head-flashing", "rigid head flashing with end dams, fall and drip", "flashing", "flashing",
        sheet(line, METAL), "sheet", ("weather", "drainage"), past=(site.trim + 6.0, site.trim + 6.0), takes=CLOTHES,
        clears=block(clad.inner, clad.outer, foot + 0.5, foot + 4.0 + p.over), tier=STRIP,
    )  # fmt: skip
    yield Piece(
        "flap",
        "membrane flap taped down over the flashing",
        "membrane",
        "membrane",
        sheet(
            [(site.shell + 0.6, top + 60.0), (face + METAL + 0.2, top - 8.0), (face + METAL + 0.2, foot + 30.0)], SKIN
        ),
        "sheet",
        ("weather", "air"),
        past=(site.trim, site.trim),
        takes=("cladding",),
    )
    yield from air_seal(site, v, 1.0)
    yield from lined(site, p, v, rough)


def lined(site: OpeningSite, p: Values, v: float, rough: float, *, side: bool = False) -> Iterator[Piece]:
    """Vapour control turned in, extension jamb and casing at a head, or a side: there they stand between the stool and
    those of the head."""
    past, lining = ((-STAND, -REVEAL), (-STAND, -TRIM)) if side else ((p.casing, p.casing), (0.0, 0.0))
    wall, back = site.wall, site.frame_in
    u, inner = wall.frame.inner, wall.inner
    if back - inner < 10.0:
        return
    yield Piece(
        "head-vapour", "vapour control turned into the opening, taped to the frame", "tape", "vapour_control",
        sheet([(u, rough + 75.0), (u, rough), (back - 1.5, rough), (back - 1.5, v - 10.0)], 0.4),
        "sheet", ("vapour", "air"), takes=("lining", "membrane", "infill"),
    )  # fmt: skip
    yield Piece(
        "jamb-board", "extension jamb", "trim", "trim", block(inner, back - 6.0, v - TRIM, v - 0.5), "finish", (),
        takes=("lining", "return"), past=lining, tier=STRIP,
    )  # fmt: skip
    if p.casing:
        yield Piece(
            "casing", "{casing} casing", "trim", "trim", block(inner - TRIM, inner, v - REVEAL, v - REVEAL + p.casing),
            "finish", (), past=past, yields=("lining", "infill"), tier=STRIP,
        )  # fmt: skip


def _bars(site: OpeningSite, p: Values) -> str:
    if not site.outer_wall:
        return OtherKind("it is an inner opening")
    if site.plain:
        return OtherKind("it is for units with a level head")
    if not site.wall.is_framed:
        return OtherKind("it is built in a framed wall")
    if site.frame_in < site.wall.inner - 0.5:
        return "the wall is thinner than its unit: move the unit, or choose a thicker wall"
    if site.frame_in - 5.0 > site.shell:
        return "the unit stands before the sheathing"
    return ""


def _bars_plain(site: OpeningSite, p: Values) -> str:
    why = _bars(site, p)
    return why or (OtherKind("a leaf of brick stands before it") if site.wall.form == "veneer" else "")


def _sill_rules(site: OpeningSite, p: Values) -> Iterator[Found]:
    if p.fall < 100.0 / 12 - 0.05:
        yield Found(f"the sill falls 1 in {100.0 / p.fall:.0f}: 1 in 12 or more", "common practice, no source")


SILL = BuildUp(
    "sill-flanged", "sill", "Flanged unit in sheathing", "framed wall with cladding on its sheathing",
    _bars_plain, _sill, (PAN, DAM, NOSE, FALL, STOOL, CASING), _sill_rules,
)  # fmt: skip
HEAD = BuildUp(
    "head-flanged", "head", "Flanged unit in sheathing", "framed wall with cladding on its sheathing",
    _bars_plain, _head, (UP, OVER, CASING),
)  # fmt: skip

ANGLE = Parameter("angle", "Leg of the steel angle", 88.9, 50.8, 152.4, "by span; by engineer beyond 8 ft")
BEARING = Parameter("bearing", "Bearing of the angle", 101.6, 50.0, 300.0, "IRC 2021 R703.8.3: 4 in at least")
WEEPS = Parameter("weeps", "Spacing of the weep holes", 838.2, 200.0, 2000.0, "IRC 2021 R703.8.6: 33 in at most")
RISE = Parameter("rise", "Flashing up behind the membrane", 203.2, 100.0, 400.0)


def weeps(id: str, site: OpeningSite, p: Values, v: float) -> Iterator[Piece]:
    """Open head joints in the first course over a flashing, two at least."""
    leaf = site.wall.leaf
    if leaf is None:
        return
    count = max(2, int((site.width - 100.0) // p.weeps) + 1)
    every = (site.width - 110.0) / (count - 1)
    yield Piece(
        id,
        "weep holes at {weeps}, two at least",
        "vent_strip",
        "vent_strip",
        block(leaf.inner, leaf.outer, v, v + 55.0),
        "finish",
        ("drainage",),
        every=every,
        wide=10.0,
        first=50.0,
        takes=("cladding", "structure", "finish"),
        tier=STRIP,
    )


def _veneer_head(site: OpeningSite, p: Values) -> Iterator[Piece]:
    leaf, v = site.wall.leaf, site.high
    assert leaf is not None
    leg, thick = p.angle, 7.9
    back = leaf.inner
    shape = under([
        (back, v + leg), (back - thick, v + leg), (back - thick, v), (back + min(leg, leaf.thick - 12.0), v),
        (back + min(leg, leaf.thick - 12.0), v + thick), (back, v + thick),
    ])  # fmt: skip
    yield Piece(
        "angle", "galvanised steel angle, bearing {bearing} each side", "lintel", "steel", shape, "structure",
        ("structure",), past=(p.bearing, p.bearing), takes=("cladding", "cavity", "trim", "reveal"), tier=STRIP,
    )  # fmt: skip
    line = [
        (site.shell + 1.2, v + p.rise),
        (site.shell + 1.2, v + leg + 25.0),
        (back - thick - 1.2, v + leg + 2.0),
        (back, v + leg + 1.0),
        (back, v + thick + 0.5),
        (leaf.outer + 7.0, v + thick + 0.2),
        (leaf.outer + 12.0, v + thick - 6.0),
    ]
    yield Piece(
        "flashing", "flashing over the angle with end dams, up behind the membrane", "flashing", "flashing",
        sheet(line, METAL), "sheet", ("weather", "drainage"), past=(p.bearing, p.bearing),
        takes=("cladding", "cavity", "trim", "reveal", "membrane"), tier=STRIP,
    )  # fmt: skip
    yield from weeps("weeps", site, p, v + thick + METAL + 1.0)
    flange = flange_face(site)
    if site.frame_out > flange + FLANGE:
        yield Piece(
            "flange", "flange of the unit, bedded in sealant", "flashing", "unit_frame",
            block(flange, flange + FLANGE, v, v + site.gap + 30.0), "sheet", ("weather",), takes=(*CLOTHES, "cavity"),
        )  # fmt: skip
    yield Piece(
        "perimeter", "sealant on backer between angle and frame", "sealant", "sealant",
        bead(min(site.frame_out + 4.0, leaf.outer - 6.0), v - 4.0, 8.0), "finish", ("weather", "air"), takes=CLOTHES,
    )  # fmt: skip
    yield from air_seal(site, v, 1.0)
    yield from lined(site, p, v, v + site.gap)


def _bars_veneer(site: OpeningSite, p: Values) -> str:
    return _bars(site, p) or ("" if site.wall.form == "veneer" else OtherKind("no leaf of brick stands before it"))


def _veneer_rules(site: OpeningSite, p: Values) -> Iterator[Found]:
    if p.bearing < 101.55:
        yield Found(f"the angle bears {p.said(p.bearing)}: {p.said(101.6)} is asked for", "IRC 2021 R703.8.3")
    if p.weeps > 838.25:
        yield Found(f"weep holes at {p.said(p.weeps)}: {p.said(838.2)} at most", "IRC 2021 R703.8.6")


VENEER_HEAD = BuildUp(
    "head-veneer", "head", "Brick on a steel angle", "framed wall behind a leaf of brick", _bars_veneer, _veneer_head,
    (ANGLE, BEARING, WEEPS, RISE, CASING), _veneer_rules,
)  # fmt: skip


def _rowlock(site: OpeningSite, p: Values) -> Iterator[Piece]:
    leaf, v, fall = site.wall.leaf, site.low, p.fall / 100.0
    assert leaf is not None
    deep, nose = 92.0, leaf.outer + p.nose
    start = max(min(site.frame_out, leaf.outer), leaf.inner - 10.0)
    top = v - 6.0
    shape = under([
        (start, top), (nose, top - (nose - start) * fall), (nose, top - (nose - start) * fall - deep),
        (start, top - deep),
    ])  # fmt: skip
    yield Piece(
        "rowlock",
        "brick sill on edge with fall, {nose} past the face",
        "sill",
        "brick_modular",
        shape,
        "finish",
        ("weather",),
        takes=(*CLOTHES, "cavity"),
        clears=block(start, nose, top - deep - (nose - start) * fall, top + 6.0),
        tier=STRIP,
    )
    under_it = top - deep - 2.0
    line = [(site.shell + 1.2, v - 1.0), (site.shell + 1.2, under_it + 6.0), (start, under_it + 3.0),
            (leaf.outer + 8.0, under_it - (leaf.outer - start) * fall - 1.0)]  # fmt: skip
    yield Piece(
        "sill-flashing", "flashing under the sill, up behind it, with end dams", "flashing", "flashing",
        sheet(line, METAL), "sheet", ("weather", "drainage"), takes=(*CLOTHES, "cavity", "membrane"), tier=STRIP,
    )  # fmt: skip
    back = site.frame_in - SKIN - 0.2
    rough = v - site.gap
    yield Piece(
        "pan", "pan flashing over the rough sill, up the jambs, over the flashing", "flashing", "flashing",
        sheet([(back, v + p.dam), (back, rough), (site.shell + 2.6, rough), (site.shell + 2.6, rough - p.pan)][::-1],
              -SKIN),
        "sheet", ("weather", "drainage", "air"), takes=("infill", "lining", "membrane", "cavity", *CLOTHES), tier=STRIP,
    )  # fmt: skip
    yield Piece(
        "perimeter", "sealant between sill and frame", "sealant", "sealant",
        bead(max(site.frame_out, start) + 5.0, v - 3.0, 6.0), "finish", ("weather",), takes=CLOTHES,
    )  # fmt: skip
    yield from air_seal(site, v, -1.0)
    yield from _inside(site, p, v, rough)


ROWLOCK = BuildUp(
    "sill-rowlock",
    "sill",
    "Brick sill on edge",
    "framed wall behind a leaf of brick",
    _bars_veneer,
    _rowlock,
    (
        PAN,
        DAM,
        NOSE,
        Parameter(
            "fall", "Fall of the sill, per 100", 26.8, 5.0, 60.0, "15 degrees: BIA TN 36, from memory", is_share=True
        ),
        STOOL,
        CASING,
    ),
    _sill_rules,
)


def _threshold(site: OpeningSite, p: Values) -> Iterator[Piece]:
    v, shell = site.low, site.shell
    back = site.frame_in - SKIN - 0.2
    yield Piece(
        "pan", "pan flashing with back dam, turned down over the edge", "flashing", "flashing",
        sheet([(back, v + p.dam), (back, v), (shell + 0.6, v), (shell + 0.6, v - p.pan)][::-1], -SKIN),
        "sheet", ("weather", "drainage", "air", "vapour"), takes=("lining", "membrane", "cladding"), tier=STRIP,
    )  # fmt: skip
    if site.wall.frame.inner < site.frame_out - 60.0:
        yield Piece(
            "break",
            "dense insulation under the door, to the edge of the floor",
            "insulation",
            "rigid",
            block(site.wall.frame.inner, site.frame_out - 20.0, v - p.thick - SKIN, v - SKIN),
            "insulation",
            ("thermal",),
            takes=("stem", "sheathing", "rim_joist", "joist", "infill", "structure", "plate", "sill_plate", "blocking"),
            tier=STRIP,
        )
    for number, share in ((1, 0.25), (2, 0.75)):
        u = site.frame_in + (site.frame_out - site.frame_in) * share
        yield Piece(
            f"bed-{number}",
            "two beds of sealant under the sill",
            "sealant",
            "sealant",
            block(u - 5.0, u + 5.0, v, v + 1.0),
            "finish",
            ("air", "weather"),
        )
    nose = site.wall.outer + 12.0
    yield Piece(
        "apron-flashing", "apron under the sill, over the cladding below", "flashing", "flashing",
        sheet([(shell + 3.0, v - 1.2), (nose, v - 3.0), (nose, v - 30.0)], METAL), "sheet", ("weather", "drainage"),
        takes=("cladding", "trim", "reveal"), yields=("steps", "porch_slab", "sheathing"), tier=STRIP,
    )  # fmt: skip


BREAK = Parameter("thick", "Insulation under the door", 38.1, 12.0, 100.0)
THRESHOLD = BuildUp(
    "threshold-framed", "threshold", "Door sill on a pan", "framed wall", _bars, _threshold, (PAN, DAM, BREAK),
)  # fmt: skip
