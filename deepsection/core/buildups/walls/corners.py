"""Corners of outer walls, seen from above: leaves bonded, membranes lapped round, boards taped, edges protected."""

from __future__ import annotations

from collections.abc import Iterator

from ...catalog import material
from ..buildup import BuildUp, OtherKind
from ..faces import LayerFace
from ..parameters import Parameter, Values
from ..pieces import METAL, SKIN, STRIP, Piece, sheet, under
from .corner_site import LEAST_ANGLE, CornerSite

WRAP = Parameter("wrap", "Membrane lapped round the corner", 304.8, 150.0, 600.0, "common practice: 12 in each way")
FLASH = Parameter("flash", "Leg of the flashing behind the cladding", 76.2, 40.0, 200.0)
LAP = Parameter("lap", "Lap of the vapour control", 152.4, 50.0, 400.0)
TAPE = Parameter("tape", "Insulation taped round the corner", 100.0, 50.0, 300.0)

EDGE, BEDDED = 30.0, 40.0
"""Legs of beads and of tapes of linings (mm). Common practice, no source."""
FACES = ("lining", "membrane", "finish")


def _quoin(site: CornerSite, one: LayerFace, other: LayerFace, id: str) -> Iterator[Piece]:
    """A leaf of units, one of which runs through to the face of the other wall, courses in turn."""
    laid = material(one.layer.material).coursing
    if laid is None or one.layer.material != other.layer.material:
        return
    near, far = (other.inner, other.outer) if site.inside else (other.outer, other.inner)
    ends = [site.meet(one.outer, near), site.meet(one.inner, near)]
    edge = max(v for _, v in (*ends, site.meet(one.outer, far), site.meet(one.inner, far)))
    stop = max(min(v for _, v in ends) + laid.length, edge + laid.length / 4)
    role = "cladding" if one.layer.function == "cladding" else "structure"
    yield Piece(
        id, "units bonded at the corner, courses through in turn", role, one.layer.material,
        under([(one.outer, stop), ends[0], ends[1], (one.inner, stop)]), "structure", ("structure",),
        takes=("structure", "cladding"), tier=STRIP,
    )  # fmt: skip


def _wrapped(site: CornerSite, p: Values) -> Iterator[Piece]:
    """The weather membrane lapped round; a flashing behind cladding that no board covers."""
    one, other = site.one, site.other
    wraps = [next((h for h in wall.layers if h.layer.function == "membrane" and h.inner >= wall.shell - 0.1), None)
             for wall in (one, other)]  # fmt: skip
    if wraps[0] is None or wraps[1] is None:
        return
    a, b = wraps[0].outer, wraps[1].outer
    yield Piece(
        "wrap", "weather membrane lapped {wrap} round the corner", "membrane", "membrane",
        sheet(site.around(a, b, p.wrap), SKIN), "membrane", ("weather", "air"), takes=("cladding",), tier=STRIP,
    )  # fmt: skip
    if not site.boards and one.form == "framed":
        yield Piece(
            "corner-flashing", "metal angle behind the cladding, {flash} each way", "flashing", "flashing",
            sheet(site.around(a + SKIN, b + SKIN, p.flash), METAL), "sheet", ("weather",), takes=("cladding",),
            tier=STRIP,
        )  # fmt: skip


def _lined(site: CornerSite) -> Iterator[Piece]:
    """What the linings have in the corner of the room, or on its edge."""
    one, other = site.one, site.other
    linings = [wall.layers[-1].layer for wall in (one, other)]
    # Plaster runs through a corner of the room; boards are taped there.
    if any(held.function != "lining" or (held.material != "gypsum" and not site.inside) for held in linings):
        return
    reach, note = (EDGE, "corner bead") if site.inside else (BEDDED, "joint tape, filled over, in the corner")
    yield Piece(
        "lining-corner", note, "lining", "plaster",
        sheet(site.around(one.inner, other.inner, reach)[::-1], METAL), "sheet", (),
    )  # fmt: skip


def _sealed(site: CornerSite, p: Values) -> Iterator[Piece]:
    """Vapour control that laps in the corner, over the frames."""
    one, other = site.one, site.other
    if all(any(held.layer.material == "vapour_control" for held in wall.layers) for wall in (one, other)):
        yield Piece(
            "vapour-lap", "vapour control lapped {lap} in the corner, taped", "tape", "vapour_control",
            sheet(site.around(one.frame.inner - 0.3, other.frame.inner - 0.3, p.lap)[::-1], 0.4), "membrane",
            ("vapour", "air"), takes=("lining", "membrane"),
        )  # fmt: skip


def _framed(site: CornerSite, p: Values) -> Iterator[Piece]:
    if site.one.form == "veneer" and site.one.leaf and site.other.leaf:
        yield from _quoin(site, site.one.leaf, site.other.leaf, "quoin")
    yield from _wrapped(site, p)
    yield from _sealed(site, p)
    yield from _lined(site)


def _rendered(site: CornerSite) -> Iterator[Piece]:
    """A bead on the edge of render."""
    one, other = site.one.layers[0], site.other.layers[0]
    if site.inside or not (one.layer.material == other.layer.material == "render"):
        return
    yield Piece(
        "render-bead", "render corner bead", "flashing", "flashing",
        sheet(site.around(one.outer - 4.0, other.outer - 4.0, EDGE), METAL), "sheet", (), takes=("finish",),
    )  # fmt: skip


def _masonry(site: CornerSite, p: Values) -> Iterator[Piece]:
    one, other = site.one, site.other
    yield from _rendered(site)
    if one.leaf is not None and other.leaf is not None:
        yield from _quoin(site, one.leaf, other.leaf, "quoin-outer")
    boards = one.boards, other.boards
    if boards[0] is not None and boards[1] is not None and one.form == "cavity":
        a, b = boards[0].outer, boards[1].outer
        yield Piece(
            "board-tape", "boards cut tight and lapped at the corner, joint taped {tape} each way", "tape", "membrane",
            sheet(site.around(a, b, p.tape), SKIN), "sheet", (), takes=("cavity",), tier=STRIP,
        )  # fmt: skip
    yield from _quoin(site, one.frame, other.frame, "quoin")
    yield from _lined(site)


def _bars(site: CornerSite, p: Values) -> str:
    if site.one.form != site.other.form:
        return OtherKind("its walls are of two kinds")
    if not LEAST_ANGLE < site.angle < 180.0 - LEAST_ANGLE:
        return OtherKind("its walls meet too sharply, or nearly go straight on")
    return ""


def _bars_framed(site: CornerSite, p: Values) -> str:
    return _bars(site, p) or ("" if site.one.is_framed else OtherKind("it is a corner of framed walls"))


def _bars_masonry(site: CornerSite, p: Values) -> str:
    return _bars(site, p) or (OtherKind("it is a corner of walls of masonry") if site.one.is_framed else "")


CORNER = BuildUp(
    "corner-framed", "wall_corner", "Membrane round the corner", "framed walls", _bars_framed, _framed,
    (WRAP, FLASH, LAP),
)  # fmt: skip
MASONRY_CORNER = BuildUp(
    "corner-masonry", "wall_corner", "Leaves bonded at the corner", "walls of masonry", _bars_masonry, _masonry, (TAPE,)
)
