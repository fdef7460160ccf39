"""Floors over inner walls that bear them: what steadies the joists there, and closes the ceilings on both sides."""

from __future__ import annotations

from collections.abc import Iterator

from ..buildup import BuildUp, Found, OtherKind
from ..parameters import Parameter, Values
from ..pieces import STRIP, Piece, block, under
from .edges import STRAPS, strap_rules
from .site import FloorSite

NAILER = Parameter("nailer", "Ceiling carried beside the wall by", 38.1, 19.0, 100.0, "common practice: 1 1/2 in")
BLOCKS = Parameter("blocks", "Spacing of the blocks to the next joist", 1219.2, 300.0, 2438.4)
TAPE = 40.0
"""Leg of the tape in the corner of wall and ceiling (mm). Common practice, no source."""
LAID = ("joist", "trimmer_joist", "header_joist", "blocking", "bridging", "beam", "post")


def _taped(site: FloorSite) -> Iterator[Piece]:
    """Where boards of the ceiling meet those of the wall, on both sides."""
    wall = site.wall
    if not site.board or any(held.layer.material != "gypsum" for held in (wall.layers[0], wall.layers[-1])):
        return
    v = site.under - site.board
    for side, face, way in (("a", wall.outer, 1.0), ("b", wall.inner, -1.0)):
        yield Piece(
            f"corner-{side}", "joint tape, filled over, where ceiling and wall meet", "lining", "plaster",
            under([(face, v), (face + way * TAPE, v), (face + way * TAPE, v - 0.8), (face + way * 0.8, v - 0.8),
                   (face + way * 0.8, v - TAPE), (face, v - TAPE)]), "sheet", (),
        )  # fmt: skip


def _framed(site: FloorSite, p: Values) -> Iterator[Piece]:
    frame = site.wall.frame
    thick, spacing = site.joist
    if spacing and site.lie == "along":
        yield Piece(
            "nailer", "board on the plate that carries the ceiling's edge, {nailer} past the frame", "blocking",
            "softwood", block(frame.outer + p.nailer, frame.inner - p.nailer, site.under, site.under + 38.1),
            "structure", ("structure",), takes=("infill",), yields=LAID, tier=STRIP, axis=True,
        )  # fmt: skip
        deep = min(88.9, site.carries - site.under - 45.0)
        if deep > 30.0:
            for side, face, way in (("a", frame.outer, 1.0), ("b", frame.inner, -1.0)):
                yield Piece(
                    f"block-{side}", "blocks to the next joist at {blocks}, both sides", "blocking", "softwood",
                    block(face - way * frame.thick / 2, face + way * 300.0, site.carries - deep, site.carries),
                    "structure", ("structure",), every=p.blocks, wide=38.1, first=600.0, takes=("infill",),
                    yields=LAID,
                )  # fmt: skip
    elif spacing:
        yield Piece(
            "toe-nails", "three 8d toe-nails at each joist", "fixing", "steel",
            block(frame.outer - 20.0, frame.outer - 23.0, site.under - 35.0, site.under + 30.0), "sheet",
            ("structure",), every=spacing, wide=3.0, first=thick / 2, takes=("plate", "joist", "blocking"),
        )  # fmt: skip
    yield from _taped(site)


def _masonry(site: FloorSite, p: Values) -> Iterator[Piece]:
    frame = site.wall.frame
    _, spacing = site.joist
    if spacing and site.lie == "along":
        yield Piece(
            "strap", "30 x 5 restraint strap over three joists on both sides, at {straps}, with noggings", "fixing",
            "steel", block(frame.outer + 1000.0, frame.inner - 1000.0, site.carries, site.carries + 5.0), "sheet",
            ("structure",), every=p.straps, wide=30.0, first=600.0, even=True, takes=("structure", "sheathing"),
            tier=STRIP,
        )  # fmt: skip
    elif spacing:
        yield Piece(
            "beam-filling", "blockwork made up between the joists, to the floor", "structure", frame.layer.material,
            block(frame.outer, frame.inner, site.under, site.carries), "structure", ("structure", "fire"),
            takes=("infill",), yields=(*LAID, "structure"), tier=STRIP,
        )  # fmt: skip
    yield from _taped(site)


def _bars_framed(site: FloorSite, p: Values) -> str:
    if not site.wall.is_framed:
        return OtherKind("the wall is of masonry")
    return "" if site.joist[1] else OtherKind("no joists of timber bear on it")


def _bars_masonry(site: FloorSite, p: Values) -> str:
    if site.wall.is_framed:
        return OtherKind("the wall is framed")
    return "" if site.joist[1] else OtherKind("no joists of timber bear on it")


def _bearing(site: FloorSite, p: Values) -> Iterator[Found]:
    least, on = (38.1, "wood") if site.wall.is_framed else (76.2, "masonry")
    # Joists of both sides that do not lap share the wall.
    if site.lie == "across" and site.wall.frame.thick < least - 0.05:
        yield Found(
            f"joists bear on {p.said(site.wall.frame.thick)} of {on}: {p.said(least)} at least",
            "IRC 2021 R502.6, from memory",
        )


def _straps(site: FloorSite, p: Values) -> Iterator[Found]:
    yield from _bearing(site, p)
    yield from strap_rules(site, p)


FRAMED_BEARING = BuildUp(
    "bearing-framed", "floor_on_wall", "Joists on the plates of a wall", "framed wall below", _bars_framed, _framed,
    (NAILER, BLOCKS), _bearing,
)  # fmt: skip
MASONRY_BEARING = BuildUp(
    "bearing-masonry", "floor_on_wall", "Joists on a wall of masonry", "wall of masonry below", _bars_masonry,
    _masonry, (STRAPS,), _straps,
)  # fmt: skip
