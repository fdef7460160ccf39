"""Edges of floors at outer walls, ceilings at gable walls, feet of inner walls, porch slabs at walls."""

from __future__ import annotations

from collections.abc import Iterator

from ..boards import BEYOND, second_layer
from ..buildup import BuildUp, Found, OtherKind
from ..parameters import Parameter, Values
from ..pieces import BUILT, MEMBERS, STRIP, Piece, bead, block, sheet, under
from .site import CeilingSite, FloorSite, InnerSite, PorchSite

RIM = Parameter("rim", "Insulation inside of the rim", 139.7, 25.0, 300.0)
LAP = Parameter("lap", "Lap of the membrane", 152.4, 100.0, 300.0, "common practice: 6 in or more")
STRAPS = Parameter(
    "straps", "Spacing of the restraint straps", 2000.0, 400.0, 4000.0, "Approved Document A: 2 m at most, from memory"
)
SKIRT = Parameter("skirt", "Height of the skirting", 120.0, 0.0, 300.0)
LAP_MM = Parameter("lap", "Lap of the vapour control", 100.0, 50.0, 300.0)
JOINT = Parameter("joint", "Compressible joint", 12.7, 5.0, 50.0)
UPSTAND = Parameter("upstand", "Flashing up the wall", 152.4, 75.0, 300.0, "common practice: 6 in or more")


def _platform(site: FloorSite, p: Values) -> Iterator[Piece]:
    frame, wall = site.wall.frame, site.wall
    back = frame.outer - site.rim
    yield Piece(
        "rim-insulation", "{rim} insulation inside of the rim, its edges sealed", "insulation", "rigid",
        block(back, back - p.rim, site.under, site.carries), "insulation", ("thermal", "air", "vapour"),
        yields=("joist", "trimmer_joist", "header_joist", "blocking", "infill", "bridging", "beam", "post"), tier=STRIP,
    )  # fmt: skip
    yield Piece(
        "sole-seal", "sealant under the sole plate", "sealant", "sealant",
        block(frame.outer - 30.0, frame.outer - 20.0, site.top, site.top + 1.0), "finish", ("air",),
    )  # fmt: skip
    yield Piece(
        "rim-seal", "sealant under the rim", "sealant", "sealant",
        block(frame.outer - 30.0, frame.outer - 20.0, site.under, site.under + 1.0), "finish", ("air",),
    )  # fmt: skip
    wrap = next((held for held in wall.layers if held.layer.function == "membrane"), None)
    if wrap is not None and wrap.outer >= wall.shell - 0.1:
        at = site.top + 40.0
        yield Piece(
            "membrane-lap", "weather membrane lapped {lap} over that below, taped", "tape", "membrane",
            block(wrap.outer, wrap.outer + 0.8, at, at + p.lap), "sheet", ("weather", "air"), takes=("cladding",),
        )  # fmt: skip
    clad = wall.layers[0]
    if clad.layer.material == "board_batten":
        v = site.top
        yield Piece(
            "z-flashing",
            "Z-flashing at the break of the siding",
            "flashing",
            "flashing",
            sheet(
                [
                    (clad.inner + 1.0, v + 50.0),
                    (clad.inner + 1.0, v + 4.0),
                    (clad.outer + 4.0, v),
                    (clad.outer + 4.0, v - 8.0),
                ],
                1.0,
            ),
            "sheet",
            ("weather", "drainage"),
            takes=("cladding",),
            clears=block(clad.outer, clad.inner, v, v + 9.0),
        )
    _, spacing = site.joist
    if spacing and site.lie == "along":
        yield Piece(
            "blocking",
            "blocking to the first joist at 4'-0\"",
            "blocking",
            "softwood",
            block(back - p.rim, back - p.rim - 200.0, site.carries - 88.9, site.carries),
            "structure",
            ("structure",),
            every=1219.2,
            wide=38.1,
            first=600.0,
            takes=("infill",),
            yields=("joist", "blocking", "trimmer_joist", "header_joist"),
        )


def _bars_platform(site: FloorSite, p: Values) -> str:
    if not site.wall.is_framed:
        return OtherKind("it is built at a framed wall")
    if not site.rim:
        return OtherKind("no rim joist closes the floor at this wall")
    if p.rim > site.carries - site.under and p.rim > 300.0:
        return "the insulation is deeper than the floor"
    return ""


PLATFORM = BuildUp(
    "floor-platform", "floor_edge", "Platform frame with rim joist", "framed wall on a floor with a rim",
    _bars_platform, _platform, (RIM, LAP),
)  # fmt: skip


def boards_past(site: FloorSite) -> Iterator[Piece]:
    """Insulation between the leaves of a wall that goes on past a floor, in two layers where it is thick."""
    if site.wall.form == "cavity" and site.wall.boards is not None:
        yield from second_layer(site.wall.boards, site.under - BEYOND, site.top + BEYOND)


def _masonry(site: FloorSite, p: Values) -> Iterator[Piece]:
    frame, inner = site.wall.frame, site.wall.inner
    thick, spacing = site.joist
    yield from boards_past(site)
    if spacing and site.lie == "along":
        yield Piece(
            "strap",
            "30 x 5 restraint strap over three joists, at {straps}, with noggings",
            "fixing",
            "steel",
            under(
                [
                    (frame.outer, site.carries - 100.0),
                    (frame.outer + 5.0, site.carries - 100.0),
                    (frame.outer + 5.0, site.carries + 5.0),
                    (inner - 1000.0, site.carries + 5.0),
                    (inner - 1000.0, site.carries),
                    (frame.outer, site.carries),
                ]
            ),
            "sheet",
            ("structure",),
            every=p.straps,
            wide=30.0,
            first=600.0,
            even=True,
            takes=("structure", "sheathing", "lining", "insulation"),
            tier=STRIP,
        )
    elif spacing and site.hung:
        yield Piece(
            "hanger",
            "steel joist hanger at each joist",
            "fixing",
            "steel",
            under(
                [
                    (frame.inner + 75.0, site.carries),
                    (frame.inner + 75.0, site.carries + 2.0),
                    (frame.inner - 2.0, site.carries + 2.0),
                    (frame.inner - 2.0, site.under - 2.0),
                    (frame.inner - 60.0, site.under - 2.0),
                    (frame.inner - 60.0, site.under),
                    (frame.inner, site.under),
                    (frame.inner, site.carries),
                ]
            ),
            "sheet",
            ("structure",),
            every=spacing,
            wide=thick,
            first=0.0,
            takes=("structure", "lining", "joist"),
            tier=STRIP,
        )
    elif spacing:
        yield Piece(
            "joist-seal",
            "joist ends sealed where they are built in",
            "sealant",
            "sealant",
            bead(frame.inner - 3.0, site.under - 3.0, 6.0),
            "finish",
            ("air",),
            takes=("lining",),
        )
    if p.skirt:
        yield Piece(
            "skirting",
            "{skirt} skirting, 10 gap behind for the deck",
            "trim",
            "trim",
            block(inner, inner - 18.0, site.top, site.top + p.skirt),
            "finish",
            (),
        )


def _bars_masonry(site: FloorSite, p: Values) -> str:
    return OtherKind("it is built at a wall of masonry") if site.wall.is_framed else ""


def strap_rules(site: FloorSite, p: Values) -> Iterator[Found]:
    """How far apart restraint straps may stand."""
    if p.straps > 2000.05:
        yield Found(
            f"restraint straps at {p.said(p.straps)}: {p.said(2000.0)} at most", "Approved Document A, from memory"
        )


MASONRY_EDGE = BuildUp(
    "floor-masonry", "floor_edge", "Floor at a wall of masonry", "wall of masonry", _bars_masonry, _masonry,
    (STRAPS, SKIRT), strap_rules,
)  # fmt: skip


def _ceiling(site: CeilingSite, p: Values) -> Iterator[Piece]:
    u, z = site.wall.frame.inner, site.plate
    if site.quilt is not None and u - site.wall.inner > 1.0:
        yield Piece(
            "edge-quilt",
            "quilt pressed to the wall's frame, its lining stops at the ceiling",
            "infill",
            "quilt",
            block(u, site.wall.inner, z, site.quilt),
            "insulation",
            ("thermal",),
            takes=("lining", "membrane", "insulation"),
            tier=STRIP,
            yields=(*MEMBERS, "stud", "plate", "sheathing", "insulation", "structure", "rim_joist", "infill"),
        )
    frame = site.wall.frame
    if site.wall.form == "cavity" and site.quilt is not None:
        yield Piece(
            "thermal-course", "course of insulating block at the quilt", "structure", frame.layer.material,
            block(frame.outer, frame.inner, z, site.quilt), "structure", ("thermal", "structure"), takes=("structure",),
            yields=("joist", "trimmer_joist", "rafter"), tier=STRIP,
        )  # fmt: skip
    yield Piece(
        "ceiling-vapour", "vapour control over the ceiling, lapped {lap} and sealed to the wall's", "membrane",
        "vapour_control", sheet([(u - 1500.0, z), (u, z), (u, z - p.lap)][::-1], 0.4),
        "membrane", ("vapour", "air"), tier=STRIP, takes=("lining", "membrane"),
    )  # fmt: skip
    yield Piece(
        "board-seal", "sealant at the edge of the ceiling boards", "sealant", "sealant",
        bead(site.wall.inner - 3.0, z - site.board - 3.0, 6.0), "finish", ("air",), yields=BUILT,
    )  # fmt: skip


def _bars_ceiling(site: CeilingSite, p: Values) -> str:
    if not site.gable:
        return OtherKind("its eave says how the ceiling meets the wall")
    return "" if site.quilt is not None else OtherKind("no insulation lies on the ceiling")


CEILING = BuildUp(
    "ceiling-gable", "ceiling_edge", "Ceiling at a gable wall", "no slope comes down to the wall", _bars_ceiling,
    _ceiling, (LAP_MM,),
)  # fmt: skip


def _inner(site: InnerSite, p: Values) -> Iterator[Piece]:
    frame = site.wall.frame
    if site.slab:
        note = "damp-proof course under the wall" if not site.wall.is_framed else "gasket under a treated plate"
        yield Piece(
            "dpc", note, "membrane", "membrane", block(frame.outer, frame.inner, site.base, site.base + 1.0), "sheet",
            ("weather",), tier=STRIP,
        )  # fmt: skip
    if p.skirt:
        for side, face in (("a", site.wall.outer), ("b", site.wall.inner)):
            out = 15.0 if side == "a" else -15.0
            yield Piece(
                f"skirting-{side}",
                "{skirt} skirting",
                "trim",
                "trim",
                block(face, face + out, site.base, site.base + p.skirt),
                "finish",
                (),
                tier=STRIP,
            )


INNER = BuildUp(
    "inner-plain", "inner_foot", "Plate on the floor", "inner wall", lambda site, p: "", _inner,
    (Parameter("skirt", "Height of the skirting", 88.9, 0.0, 300.0),),
)  # fmt: skip


def _porch(site: PorchSite, p: Values) -> Iterator[Piece]:
    face = site.wall.outer
    yield Piece(
        "joint", "{joint} compressible joint, sealed on top", "strip", "rigid",
        block(face, face + p.joint, site.low, site.top - 10.0), "finish", (), takes=("porch_slab", "fixing"),
        tier=STRIP,
    )  # fmt: skip
    yield Piece(
        "joint-seal",
        "sealant in the joint",
        "sealant",
        "sealant",
        block(face, face + p.joint, site.top - 10.0, site.top),
        "finish",
        ("weather",),
        takes=("porch_slab", "fixing"),
        tier=STRIP,
    )
    shell = site.wall.shell
    if site.wall.is_framed and site.base < site.top + p.upstand - 1.0:
        yield Piece(
            "porch-flashing", "flashing from the slab {upstand} up behind the membrane", "flashing", "flashing",
            block(shell + 0.6, shell + 1.6, max(site.base, site.low), site.top + p.upstand), "sheet",
            ("weather", "drainage"), takes=("membrane", "cladding"), tier=STRIP,
        )  # fmt: skip


PORCH = BuildUp(
    "porch-joint", "porch_slab", "Slab with a joint", "porch slab", lambda site, p: "", _porch, (JOINT, UPSTAND),
)  # fmt: skip
