"""Doors in inner walls: how their frames are packed, covered on both sides, and what lies under their leaves."""

from __future__ import annotations

from collections.abc import Iterator

from ...trades.openings.leaves import FRAME_FACE
from ...trades.openings.units import LEAF_DEPTH, LEAF_SET
from ..buildup import BuildUp, OtherKind
from ..parameters import Parameter, Values
from ..pieces import STRIP, Piece, block
from .framed import REVEAL, TRIM
from .site import OpeningSite

CASING = Parameter("casing", "Width of the casings", 63.5, 0.0, 150.0)
PACKERS = Parameter("packers", "Spacing of the packers", 500.0, 200.0, 900.0, "common practice: 500 mm or less")
STRIP_WIDE = Parameter("strip", "Width of the strip under the leaf", 40.0, 0.0, 150.0)
BACK = FRAME_FACE - REVEAL
"""Casings begin so far within the edge of the opening (mm), where they leave the edge of the frame to be seen."""
UNDERCUT = 8.0
"""Clearance under a leaf (mm). Common practice, no source."""
LEAST_GAP = 3.0
"""A clearance that is less than this (mm) takes no packers."""


def _casings(site: OpeningSite, p: Values, v: float, past: tuple[float, float]) -> Iterator[Piece]:
    """On both sides, over the joint between frame and wall, back from the edge of the frame."""
    for side, face, way in (("outer", site.wall.outer, 1.0), ("inner", site.wall.inner, -1.0)):
        if p.casing:
            yield Piece(
                f"casing-{side}", "{casing} casing, both sides", "trim", "trim",
                block(face, face + way * TRIM, v - BACK, v - BACK + p.casing), "finish", (), past=past,
                yields=("lining",), tier=STRIP,
            )  # fmt: skip


def _lined(site: OpeningSite, v: float) -> Iterator[Piece]:
    """Boards from a frame that is less deep than its wall to the faces of that."""
    for side, low, high in (
        ("outer", site.frame_out, site.wall.outer),
        ("inner", site.wall.inner, site.frame_in),
    ):
        if high - low > LEAST_GAP:
            yield Piece(
                f"lining-{side}", "lining out to the face of the wall", "trim", "trim",
                block(low, high, v - TRIM, v - 0.5), "finish", (), takes=("return",), tier=STRIP,
            )  # fmt: skip


def _jamb(site: OpeningSite, p: Values) -> Iterator[Piece]:
    yield from _packed(site, p)
    yield from _lined(site, 0.0)
    yield from _casings(site, p, 0.0, (0.0, -BACK))


def _packed(site: OpeningSite, p: Values) -> Iterator[Piece]:
    if site.gap >= LEAST_GAP:
        yield Piece(
            "packer", "frame packed plumb and fixed through pairs of wedges at {packers}", "blocking", "softwood",
            block(site.frame_out - 12.0, site.frame_in + 12.0, 0.2, site.gap - 0.2), "structure", (),
            every=p.packers, wide=40.0, first=100.0, even=True, takes=("infill",),
        )  # fmt: skip


def _head(site: OpeningSite, p: Values) -> Iterator[Piece]:
    yield from _lined(site, site.high)
    corner = p.casing - BACK
    yield from _casings(site, p, site.high, (corner, corner))


def _threshold(site: OpeningSite, p: Values) -> Iterator[Piece]:
    middle = site.frame_out - LEAF_SET - LEAF_DEPTH / 2
    reach = max(p.strip, LEAF_DEPTH) / 2
    if p.strip:
        yield Piece(
            "floor-strip", "{strip} strip under the leaf, where the finishes of the floors meet", "trim", "trim",
            block(middle - p.strip / 2, middle + p.strip / 2, site.low, site.low + 3.0), "finish", (),
            takes=("leaf", "sash"), yields=("frame", "threshold"), tier=STRIP,
            clears=block(middle - reach, middle + reach, site.low, site.low + UNDERCUT),
        )  # fmt: skip


def _bars(site: OpeningSite, p: Values) -> str:
    if site.outer_wall:
        return OtherKind("it is an opening in an outer wall")
    if site.unit != "door":
        return OtherKind("it is for doors")
    if site.bare:
        return OtherKind("it is for doors with a frame")
    return ""


def _bars_head(site: OpeningSite, p: Values) -> str:
    return _bars(site, p) or (OtherKind("it is for doors with a level head") if site.plain else "")


INNER_JAMB = BuildUp(
    "jamb-inner", "jamb", "Frame with casings", "door in an inner wall", _bars, _jamb, (PACKERS, CASING)
)
INNER_HEAD = BuildUp("head-inner", "head", "Frame with casings", "door in an inner wall", _bars_head, _head, (CASING,))
INNER_THRESHOLD = BuildUp(
    "threshold-inner", "threshold", "Strip on the floor", "door in an inner wall", _bars, _threshold, (STRIP_WIDE,)
)
