"""Feet of outer walls: framed on slab, framed on joists, brick on its ledge, cavity wall on its foundation."""

from __future__ import annotations

from collections.abc import Iterator

from ..buildup import BuildUp, Found, OtherKind
from ..parameters import Parameter, Values
from ..pieces import METAL, SKIN, STRIP, Piece, bead, block, sheet, under
from .site import FootSite

GASKET = 6.0
"""Thickness of a sill gasket (mm), pressed to 2."""
BOLTS = Parameter("bolts", "Spacing of the anchor bolts", 1828.8, 300.0, 2500.0, "IRC 2021 R403.1.6: 6 ft at most")
EMBED = Parameter("embed", "Embedment of the bolts", 177.8, 100.0, 400.0, "IRC 2021 R403.1.6: 7 in at least")
LAP = Parameter("lap", "Siding below the top of the foundation", 25.4, 0.0, 100.0)
EDGE = Parameter("edge", "Insulation at the edge of the slab", 50.8, 0.0, 150.0, "IRC 2021 N1102.2.10: R-10, 2 ft deep")
DEPTH = Parameter("depth", "Depth of the insulation at the edge", 609.6, 150.0, 1500.0, "IRC 2021 N1102.2.10")
RISE = Parameter("rise", "Base flashing up behind the membrane", 203.2, 100.0, 400.0)
WEEPS = Parameter("weeps", "Spacing of the weep holes", 838.2, 200.0, 2000.0, "IRC 2021 R703.8.6: 33 in at most")
TIES = Parameter("ties", "Spacing of the ties upward", 406.4, 200.0, 900.0, "IRC 2021 R703.8.4: 2.67 sq ft each")
NOTCH = 20.0, 160.0
"""A foundation wall that is wider than the frame on it by this much (from, to; mm) is notched beside the slab."""


def anchors(site: FootSite, p: Values, top: float) -> Iterator[Piece]:
    """Anchor bolts through the plate on the foundation, in its middle third."""
    u = (site.wall.frame.outer + site.wall.frame.inner) / 2
    low = site.top - p.embed
    shape = under(
        [
            (u - 6.35, top + 16.0),
            (u - 6.35, low),
            (u - 6.35 - 38.0, low),
            (u - 6.35 - 38.0, low - 12.7),
            (u + 6.35, low - 12.7),
            (u + 6.35, top + 16.0),
        ]
    )
    washer = block(u - 30.0, u + 30.0, top, top + 5.0)
    nut = block(u - 11.0, u + 11.0, top + 5.0, top + 15.0)
    yield Piece(
        "bolt", '1/2" anchor bolt, {embed} embedded, at {bolts}', "fixing", "steel",
        shape.union(washer).union(nut), "sheet", ("structure",), every=p.bolts, wide=12.7, first=250.0, even=True,
        takes=("infill", "wall_plate", "plate", "sill_plate", "stem", "slab_edge", "stud", "blocking"), tier=STRIP,
        yields=("beam", "post", "joist"),
    )  # fmt: skip


def gasket(site: FootSite, low: float) -> Piece:
    """What lies between a plate and concrete."""
    frame = site.wall.frame
    return Piece(
        "gasket", "sill gasket under the treated plate", "strip", "membrane",
        block(frame.outer, frame.inner, low, low + 1.0), "sheet", ("air", "weather"), tier=STRIP,
    )  # fmt: skip


def skirt(site: FootSite, p: Values, low: float) -> Iterator[Piece]:
    """Sheathing, membrane and cladding down over the top of the foundation, with a starter strip that drips."""
    wall = site.wall
    foot = site.top - p.lap
    clad = next((held for held in wall.layers if held.layer.function == "cladding"), None)
    boards = next((held for held in wall.layers if held.layer.function == "sheathing"), None)
    wrap = next((held for held in wall.layers if held.layer.function == "membrane"), None)
    if clad is None or p.lap < 1.0:
        return
    if clad.inner < site.stem[0] - 0.5:
        return
    yield Piece(
        "skirt", "cladding {lap} below the top of the foundation", "cladding", clad.layer.material,
        block(clad.outer, clad.inner, foot, low), "finish", ("weather",), tier=STRIP, takes=("cladding",),
    )  # fmt: skip
    if wrap is not None and wrap.inner > site.stem[0] - 0.5:
        yield Piece(
            "skirt-membrane", "weather membrane over the joint, its edge sealed to the foundation", "membrane",
            wrap.layer.material, block(wrap.outer, wrap.inner, foot + 6.0, low), "membrane", ("weather", "air"),
            tier=STRIP, takes=("membrane",),
        )  # fmt: skip
    if boards is not None and boards.inner > site.stem[0] - 0.5:
        yield Piece(
            "skirt-sheathing", "sheathing lapped over the sill plate", "sheathing", boards.layer.material,
            block(boards.outer, boards.inner, foot + 6.0, low), "sheathing", ("air",), tier=STRIP, takes=("sheathing",),
        )  # fmt: skip
        yield Piece(
            "skirt-seal", "sealant between sheathing and foundation", "sealant", "sealant",
            block(boards.inner, boards.outer, foot + 1.0, foot + 6.0), "finish", ("air", "weather"),
        )  # fmt: skip
    yield Piece(
        "starter",
        "starter strip with drip",
        "flashing",
        "flashing",
        sheet(
            [
                (clad.inner, foot + 20.0),
                (clad.inner, foot - 0.5),
                (clad.outer + 3.0, foot - 3.0),
                (clad.outer + 3.0, foot - 9.0),
            ],
            METAL,
        ),
        "sheet",
        ("drainage",),
        takes=("cladding",),
        yields=("steps", "porch_slab", "ledger", "joist"),
    )


def _on_slab(site: FootSite, p: Values) -> Iterator[Piece]:
    yield gasket(site, site.base)
    yield from anchors(
        site, p, site.base + (site.wall.frame.layer.framing.thickness if site.wall.frame.layer.framing else 38.1)
    )
    yield from skirt(site, p, site.base)
    yield from slab_edge(site, p)
    yield Piece(
        "plate-seal", "sealant at the foot of the wall board", "sealant", "sealant",
        bead(site.wall.inner - 3.0, site.base + 3.0, 6.0), "finish", ("air", "vapour"),
    )  # fmt: skip


def slab_edge(site: FootSite, p: Values) -> Iterator[Piece]:
    """Insulation in a notch of the foundation wall beside the slab, up to the plate, and down its inner side; the
    retarder turned up beside the slab and under the plate."""
    slab, barrier = site.carrying, site.barrier
    if slab is None or p.edge < 1.0 or site.deep:
        return
    inner, plate = site.stem[1], site.wall.frame.inner
    under_it = site.insulation.low if site.insulation is not None else slab.low
    notched = NOTCH[0] < plate - inner < NOTCH[1]
    if notched:
        yield Piece(
            "edge-break", "rigid insulation in a notch of the foundation wall, up to the plate", "insulation", "rigid",
            block(inner, plate, under_it, slab.high - 0.5), "insulation", ("thermal",), tier=STRIP,
            takes=("stem", "insulation", "structure", "slab"),
        )  # fmt: skip
    top = under_it if notched else slab.high - 0.5
    low = max(slab.high - p.depth, site.foot_top)
    if low < top - 20.0:
        yield Piece(
            "edge-insulation", "{edge} rigid insulation inside of the foundation wall, {depth} deep", "insulation",
            "rigid", block(inner - p.edge, inner, low, top), "insulation", ("thermal",), tier=STRIP,
            takes=("structure", "insulation", "membrane", "finish", "slab"),
        )  # fmt: skip
    if barrier is not None:
        face = inner if notched else inner - p.edge
        line = [
            (face - 150.0, barrier.low),
            (face - 1.0, barrier.low),
            (face - 1.0, slab.high - 1.0),
            (site.wall.frame.outer - 15.0, slab.high - 1.0),
        ]
        yield Piece(
            "barrier-up", "vapour retarder turned up beside the slab and under the plate, sealed", "membrane",
            barrier.layer.material, sheet(line, -SKIN), "sheet", ("weather", "vapour", "air"), tier=STRIP,
            takes=("structure", "insulation", "stem"),
        )  # fmt: skip
    yield Piece(
        "vapour-down",
        "vapour control of the wall sealed to the retarder",
        "tape",
        "vapour_control",
        block(plate, plate - 0.6, site.base, site.base + 100.0),
        "sheet",
        ("vapour", "air"),
        takes=("lining", "membrane"),
    )


def _bars_slab(site: FootSite, p: Values) -> str:
    if not site.wall.is_framed:
        return OtherKind("it is built under a framed wall")
    if site.plate or site.pony:
        return OtherKind("the wall stands on joists")
    if not site.on_slab:
        return OtherKind("no slab lies at the foot of the wall")
    if site.wall.form == "veneer":
        return OtherKind("a leaf of brick stands before it")
    return ""


def ground_rules(site: FootSite, p: Values) -> Iterator[Found]:
    """What is asked between ground, foundation and wood."""
    if site.wall.is_framed:
        lap = dict(p.items()).get("lap", 0.0)
        clad = site.over - lap
        least = 101.6 if site.wall.form == "veneer" else 152.4
        over = site.over
        if over < least - 0.5:
            yield Found(
                f"the foundation stands {p.said(over)} over the ground: {p.said(least)} is asked for; raise it",
                "IRC 2021 R404.1.6",
            )
        if site.wall.form != "veneer" and clad < 152.4 - 0.5:
            yield Found(
                f"siding ends {p.said(clad)} over the ground: {p.said(152.4)} is asked for; let it lap less",
                "IRC 2021 R317.1",
            )
        if over < 203.2 - 0.5:
            yield Found(
                f"framing stands {p.said(over)} over the ground: {p.said(203.2)} where untreated", "IRC 2021 R317.1"
            )
    elif site.base - site.ground < 149.5:
        yield Found(
            f"the damp-proof course lies {p.said(site.base - site.ground)} over the ground: {p.said(150.0)} is "
            "asked for",
            "Approved Document C, from memory",
        )


def _slab_rules(site: FootSite, p: Values) -> Iterator[Found]:
    yield from ground_rules(site, p)
    yield from bolt_rules(p)


def bolt_rules(p: Values) -> Iterator[Found]:
    """What is asked of anchor bolts."""
    if p.bolts > 1828.85:
        yield Found(f"anchor bolts at {p.said(p.bolts)}: {p.said(1828.8)} at most", "IRC 2021 R403.1.6")
    if p.embed < 177.75:
        yield Found(f"anchor bolts go {p.said(p.embed)} in: {p.said(177.8)} at least", "IRC 2021 R403.1.6")


ON_SLAB = BuildUp(
    "foot-slab", "wall_foot", "Framed wall on a slab", "framed wall at a slab on the ground", _bars_slab, _on_slab,
    (BOLTS, EMBED, LAP, EDGE, DEPTH), _slab_rules,
)  # fmt: skip


def _on_joists(site: FootSite, p: Values) -> Iterator[Piece]:
    yield gasket(site, site.top)
    yield from anchors(site, p, site.top + min(site.plate, 38.1))
    yield from skirt(site, p, site.top)
    frame = site.wall.frame
    yield Piece(
        "sole-seal", "sealant under the sole plate", "sealant", "sealant",
        block(frame.outer - 30.0, frame.outer - 20.0, site.base, site.base + 1.0), "finish", ("air",),
    )  # fmt: skip


def _bars_joists(site: FootSite, p: Values) -> str:
    if not site.wall.is_framed:
        return OtherKind("it is built under a framed wall")
    if not site.plate:
        return OtherKind("no sill plate lies on the foundation")
    if site.wall.form == "veneer":
        return OtherKind("a leaf of brick stands before it")
    return ""


ON_JOISTS = BuildUp(
    "foot-joists", "wall_foot", "Framed wall on joists and foundation wall", "framed wall on a sill plate",
    _bars_joists, _on_joists, (BOLTS, EMBED, LAP), _slab_rules,
)  # fmt: skip


def _veneer(site: FootSite, p: Values) -> Iterator[Piece]:
    wall, leaf = site.wall, site.wall.leaf
    assert leaf is not None
    v = site.top
    shell = wall.shell
    line = [
        (shell + 1.2, v + p.rise), (shell + 1.2, v + 12.0), (shell + 3.0, v + 0.2), (leaf.outer + 6.0, v + 0.2),
        (leaf.outer + 11.0, v - 6.0),
    ]  # fmt: skip
    yield Piece(
        "base-flashing", "base flashing from the drip {rise} up behind the membrane", "flashing", "flashing",
        sheet(line, METAL), "sheet", ("weather", "drainage"), takes=("cladding", "cavity", "membrane"), tier=STRIP,
    )  # fmt: skip
    yield Piece(
        "weeps", "weep holes at {weeps} on the flashing", "vent_strip", "vent_strip",
        block(leaf.inner, leaf.outer, v + METAL + 0.6, v + METAL + 56.0), "finish", ("drainage",), every=p.weeps,
        wide=10.0, first=200.0, takes=("cladding",), tier=STRIP,
    )  # fmt: skip
    gap = wall.gap
    if gap is not None:
        yield Piece(
            "mortar-net", "mortar net in the air space", "strip", "vent_strip",
            block(gap.inner + 2.6, gap.outer, v + METAL + 0.6, v + 180.0), "finish", (), takes=("cavity",),
        )  # fmt: skip
        for number, high in ((1, 203.2), (2, 203.2 + p.ties)):
            yield Piece(
                f"tie-{number}",
                "corrugated ties at {ties} by 16 in",
                "fixing",
                "steel",
                under(
                    [
                        (shell + 2.0, v + high),
                        (shell + 2.0, v + high + 40.0),
                        (shell + 3.2, v + high + 40.0),
                        (shell + 3.2, v + high + 1.2),
                        (leaf.outer - 38.0, v + high + 1.2),
                        (leaf.outer - 38.0, v + high),
                    ]
                ),
                "sheet",
                ("structure",),
                every=406.4,
                wide=22.0,
                first=150.0,
                even=True,
                takes=("cladding", "cavity"),
                tier=STRIP,
            )
    yield gasket(site, site.top if site.plate else site.base)
    plate = site.top + site.plate if site.plate else site.base + 38.1
    yield from anchors(site, p, min(plate, (site.top if site.plate else site.base) + 38.1))
    if site.on_slab and not site.plate:
        yield from slab_edge(site, p)


def _bars_veneer(site: FootSite, p: Values) -> str:
    if site.wall.form != "veneer":
        return OtherKind("no leaf of brick stands before the wall")
    leaf = site.wall.leaf
    assert leaf is not None
    if site.stem[0] < leaf.outer - 1.0:
        return f"the brick reaches {p.said(leaf.outer - site.stem[0])} past the foundation wall: widen its ledge"
    return ""


def _veneer_rules(site: FootSite, p: Values) -> Iterator[Found]:
    yield from ground_rules(site, p)
    yield from bolt_rules(p)
    if p.weeps > 838.25:
        yield Found(f"weep holes at {p.said(p.weeps)}: {p.said(838.2)} at most", "IRC 2021 R703.8.6")
    if p.ties * 406.4 > 2.67 * 304.8**2 + 1.0:
        yield Found(f"each tie holds {p.ties * 406.4 / 304.8**2:.2f} sq ft: 2.67 at most", "IRC 2021 R703.8.4")
    gap = site.wall.gap
    if gap is not None and gap.thick < 25.35:
        yield Found(f"the air space is {p.said(gap.thick)}: {p.said(25.4)} at least", "IRC 2021 R703.8.4.2")


VENEER = BuildUp(
    "foot-veneer", "wall_foot", "Brick on its ledge before a frame", "framed wall behind a leaf of brick",
    _bars_veneer, _veneer, (RISE, WEEPS, TIES, BOLTS, EMBED, EDGE, DEPTH), _veneer_rules,
)  # fmt: skip
