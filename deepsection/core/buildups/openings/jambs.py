"""Jambs, seen from above: how a unit is fixed, flashed, sealed and lined at its sides, in frames and in cavity walls.

In the plane of a jamb u goes outward, and v from the edge of the opening into the wall.
"""

from __future__ import annotations

from collections.abc import Iterator

from ..boards import BEYOND, second_layer
from ..buildup import BuildUp, Found, OtherKind
from ..parameters import Parameter, Values
from ..pieces import SKIN, STRIP, Piece, bead, block, sheet
from .framed import CASING, CLOTHES, FLANGE, air_seal, flange_face, lined
from .masonry import perimeter
from .site import OpeningSite

TURN = Parameter("turn", "Membrane turned into the opening", 50.8, 12.0, 150.0)
CLOSER = Parameter("closer", "Width of the insulated closer", 75.0, 40.0, 150.0)
LAP = Parameter("lap", "Damp-proof course past the closer", 25.0, 10.0, 75.0, "common practice: 25 mm")
TIES = Parameter("ties", "Spacing of the frame ties", 600.0, 200.0, 900.0, "common practice: 600 mm")


def _flanged(site: OpeningSite, p: Values) -> Iterator[Piece]:
    """Membrane turned in, flange bedded in sealant on it, tape over both."""
    shell, rough, flange = site.shell, site.gap, flange_face(site)
    into = min(p.turn, shell - site.frame_in + 20.0)
    yield Piece(
        "membrane-turned", "membrane turned into the rough opening", "membrane", "membrane",
        sheet([(shell + 0.6, rough + 30.0), (shell + 0.6, rough - 0.9), (shell - into, rough - 0.9)], 0.6),
        "sheet", ("weather", "air"), takes=("sheathing", "membrane", "infill"), tier=STRIP,
    )  # fmt: skip
    if site.frame_out > flange + FLANGE:
        yield Piece(
            "flange", "flange of the unit, bedded in sealant", "flashing", "unit_frame",
            block(flange, flange + FLANGE, 0.0, rough + 30.0), "sheet", ("weather", "air"), takes=CLOTHES, tier=STRIP,
        )  # fmt: skip
        yield Piece(
            "flange-bed", "bed of sealant behind the flange", "sealant", "sealant",
            block(shell + 0.7, flange, rough + 6.0, rough + 18.0), "finish", ("weather", "air"),
            takes=("membrane", "cladding"),
        )  # fmt: skip
        yield Piece(
            "jamb-tape", "jamb tape over flange and membrane, under the head tape", "tape", "membrane",
            block(flange + FLANGE, flange + FLANGE + SKIN, rough + 4.0, rough + 90.0), "sheet", ("weather", "air"),
            takes=CLOTHES,
        )  # fmt: skip


def _clad(site: OpeningSite, p: Values) -> Iterator[Piece]:
    yield from _flanged(site, p)
    edge = site.trim or site.gap
    yield Piece(
        "jamb-seal", "sealant between cladding and trim", "sealant", "sealant",
        bead(site.wall.outer - 3.0, edge + 2.5, 5.0), "finish", ("weather",), takes=CLOTHES,
    )  # fmt: skip
    yield from air_seal(site, 0.0, 1.0)
    yield from lined(site, p, 0.0, site.gap, side=True)


def _veneer(site: OpeningSite, p: Values) -> Iterator[Piece]:
    leaf = site.wall.leaf
    assert leaf is not None
    yield from _flanged(site, p)
    yield Piece(
        "joint-seal", "sealant on backer between unit and brick", "sealant", "sealant",
        bead(min(site.frame_out, leaf.outer) + 4.5, -4.5, 8.0), "finish", ("weather",), takes=("reveal", "trim"),
    )  # fmt: skip
    yield from air_seal(site, 0.0, 1.0)
    yield from lined(site, p, 0.0, site.gap, side=True)


def _cavity(site: OpeningSite, p: Values) -> Iterator[Piece]:
    """An insulated closer between the leaves, with its damp-proof course; frame ties; sealed outside and in."""
    wall = site.wall
    leaf, between = wall.leaf, wall.between
    assert leaf is not None and between is not None
    outer, inner = between
    # In the place of what a leaf would turn into the cavity: that lets the cold through.
    wide = max(p.closer, site.closed)
    yield Piece(
        "closer", "insulated closer, fire-stopping the cavity", "insulation", "rigid",
        block(inner, outer - SKIN, 0.0, wide), "insulation", ("thermal", "fire", "air"),
        takes=("cavity", "insulation", "return"), tier=STRIP,
    )  # fmt: skip
    if wall.boards is not None:
        yield from second_layer(wall.boards, wide, wide + BEYOND)
    line = [(outer - SKIN, wide + p.lap), (outer - SKIN, 0.0)]
    yield Piece(
        "jamb-dpc", "vertical damp-proof course, {lap} past the closer", "membrane", "membrane",
        sheet(line, SKIN), "sheet", ("weather",), takes=("cavity", "insulation", "return"), tier=STRIP,
    )  # fmt: skip
    yield Piece(
        "frame-tie", "frame ties at {ties}, fixed to the inner leaf", "fixing", "steel",
        block(inner - 90.0, inner + 25.0, -2.0, 0.0), "structure", ("structure",), every=p.ties, wide=30.0,
        first=225.0, takes=("lining", "return"),
    )  # fmt: skip
    yield from perimeter(site, 0.0, 1.0)


def _bars(site: OpeningSite, p: Values) -> str:
    if not site.outer_wall:
        return OtherKind("it is an inner opening")
    if site.bare:
        return OtherKind("it is for units with a frame")
    if site.frame_in < site.wall.inner - 0.5:
        return "the wall is thinner than its unit: move the unit, or choose a thicker wall"
    return ""


def _bars_framed(site: OpeningSite, p: Values) -> str:
    if not site.wall.is_framed:
        return OtherKind("it is built in a framed wall")
    if site.wall.form == "veneer":
        return OtherKind("a leaf of brick stands before it")
    return _bars(site, p) or ("the unit stands before the sheathing" if site.frame_in - 5.0 > site.shell else "")


def _bars_veneer(site: OpeningSite, p: Values) -> str:
    return _bars(site, p) or ("" if site.wall.form == "veneer" else OtherKind("no leaf of brick stands before it"))


def _bars_cavity(site: OpeningSite, p: Values) -> str:
    if site.wall.form != "cavity":
        return OtherKind("it is built in a cavity wall")
    assert site.wall.between is not None
    why = _bars(site, p)
    return why or ("the unit stands before the cavity: set it back" if site.frame_in > site.wall.between[0] else "")


def _cavity_rules(site: OpeningSite, p: Values) -> Iterator[Found]:
    leaf = site.wall.leaf
    if leaf is not None and leaf.inner - site.frame_out > -30.0 + 0.5 and site.frame_out < leaf.inner + 30.0:
        past = min(site.frame_out, leaf.inner) - site.frame_in
        if past < 30.0:
            yield Found(
                f"the frame laps the closer by {p.said(max(past, 0.0))}: set it back to lap {p.said(30.0)}",
                "Approved Document C, from memory",
            )
    if p.lap < 24.95:
        yield Found(
            f"the damp-proof course laps {p.said(p.lap)} past the closer: {p.said(25.0)}", "common practice, no source"
        )
    if p.ties > 600.05:
        yield Found(f"frame ties stand at {p.said(p.ties)}: {p.said(600.0)} at most", "common practice, no source")


JAMB = BuildUp(
    "jamb-flanged", "jamb", "Flanged unit in sheathing", "framed wall with cladding on its sheathing",
    _bars_framed, _clad, (TURN, CASING),
)  # fmt: skip
VENEER_JAMB = BuildUp(
    "jamb-veneer", "jamb", "Flanged unit behind brick", "framed wall behind a leaf of brick",
    _bars_veneer, _veneer, (TURN, CASING),
)  # fmt: skip
CAVITY_JAMB = BuildUp(
    "jamb-cavity", "jamb", "Insulated closer, sealed frame", "cavity wall", _bars_cavity, _cavity,
    (CLOSER, LAP, TIES), _cavity_rules,
)  # fmt: skip
