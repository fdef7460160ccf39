"""Pens: line weight and dash by role. Source: ISO 128-2 line width series; roles by common practice."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Pen:
    """Width and dashes in mm on paper; `layer` is the drawing layer that files put it on."""

    name: str
    width: float
    layer: str
    dashes: tuple[float, ...] = ()
    grey: float = 0.0


PENS: dict[str, Pen] = {
    pen.name: pen
    for pen in (
        Pen("ground", 0.70, "GROUND"),
        Pen("cut", 0.50, "CUT-STRUCTURE"),
        Pen("cut_layer", 0.25, "CUT-LAYERS"),
        Pen("outline", 0.35, "OUTLINE"),
        Pen("edge", 0.25, "EDGE"),
        Pen("crease", 0.18, "CREASE"),
        Pen("fine", 0.13, "FINE"),
        Pen("existing", 0.18, "EXISTING", grey=0.35),
        Pen("removed", 0.25, "TO-BE-REMOVED", dashes=(1.6, 1.2)),
        Pen("membrane", 0.35, "MEMBRANES", dashes=(2.4, 0.8)),
        Pen("beyond", 0.18, "BEYOND", grey=0.35),
        Pen("hatch", 0.13, "HATCH", grey=0.25),
        Pen("hidden", 0.18, "HIDDEN", dashes=(2.0, 1.0)),
        Pen("centre", 0.18, "CENTRE", dashes=(6.0, 1.2, 0.6, 1.2)),
        Pen("level", 0.18, "LEVELS", dashes=(6.0, 1.2, 0.6, 1.2), grey=0.25),
        Pen("section", 0.25, "SECTION-MARKS", dashes=(6.0, 1.2, 0.6, 1.2)),
        Pen("section_mark", 0.50, "SECTION-MARKS"),
        Pen("dimension", 0.18, "DIMENSIONS"),
        Pen("symbol", 0.25, "SYMBOLS"),
        Pen("note", 0.18, "NOTES"),
        # Of structural plans, each on a layer of its own.
        Pen("slab_edge", 0.50, "SLAB-EDGE"),
        Pen("void", 0.25, "HOLES"),
        Pen("wall_below", 0.25, "WALLS-BELOW", dashes=(2.0, 1.0)),
        Pen("wall_above", 0.13, "WALLS-ABOVE"),
        Pen("beam", 0.35, "BEAMS", dashes=(5.0, 1.5)),
        Pen("span", 0.18, "SPANS"),
        Pen("background", 0.13, "BACKGROUND"),
        Pen("frame", 0.70, "SHEET-FRAME"),
        Pen("title", 0.25, "SHEET-TITLE"),
    )
}
"""Every pen by name. The dashes alternate line and gap."""


def pen_width(name: str) -> float:
    """Width in mm on paper."""
    return PENS[name].width
