"""Names of drawing layers: our own, or by one of two published standards."""

from __future__ import annotations

from typing import Literal

LayerNames = Literal["plain", "iso13567", "ncs"]
"""`plain`: by the role of the pen. `iso13567`: ISO 13567-2, agent (2), element (6), presentation (2). `ncs`: US
National CAD Standard, discipline-major-minor. Both from memory; elements and minor groups that they leave open are
named by role."""

_NAMES: dict[str, tuple[str, str]] = {
    "GROUND": ("A-GROUNDE-", "A-ELEV-GRND"),
    "CUT-STRUCTURE": ("A-CUTSTRE-", "A-SECT-MCUT"),
    "CUT-LAYERS": ("A-CUTLAYE-", "A-SECT-MCUT-LAYR"),
    "OUTLINE": ("A-OUTLINE-", "A-ELEV-OTLN"),
    "EDGE": ("A-EDGE--E-", "A-ELEV-EDGE"),
    "CREASE": ("A-CREASEE-", "A-ELEV-CRSE"),
    "FINE": ("A-FINE--E-", "A-ELEV-FINE"),
    "EXISTING": ("A-EXISTNE-", "A-ELEV-EXST"),
    "TO-BE-REMOVED": ("A-REMOVEE-", "A-ELEV-DEMO"),
    "MEMBRANES": ("A-MEMBRNE-", "A-SECT-MEMB"),
    "BEYOND": ("A-BEYONDE-", "A-SECT-MBND"),
    "HATCH": ("A-HATCH-H-", "A-ELEV-PATT"),
    "HIDDEN": ("A-HIDDENE-", "A-ELEV-HIDN"),
    "CENTRE": ("A-GRID--G-", "S-GRID"),
    "LEVELS": ("A-LEVELSA-", "A-ANNO-LEVL"),
    "SECTION-MARKS": ("A-SECMRKJ-", "A-ANNO-SYMB-SECT"),
    "DIMENSIONS": ("A-DIMENSD-", "A-ANNO-DIMS"),
    "SYMBOLS": ("A-SYMBOLA-", "A-ANNO-SYMB"),
    "NOTES": ("A-NOTES-T-", "A-ANNO-NOTE"),
    "SLAB-EDGE": ("A-SLEDGEE-", "S-SLAB-EDGE"),
    "HOLES": ("A-HOLES-E-", "S-SLAB-OPNG"),
    "WALLS-BELOW": ("A-WALBLWE-", "S-WALL-BELW"),
    "WALLS-ABOVE": ("A-WALABVE-", "S-WALL-ABOV"),
    "BEAMS": ("A-BEAMS-E-", "S-BEAM"),
    "SPANS": ("A-SPANS-A-", "S-ANNO-SPAN"),
    "BACKGROUND": ("A-BACKGRX-", "A-ANNO-REFR"),
    "SHEET-FRAME": ("A-FRAME-B-", "A-ANNO-TTLB"),
    "SHEET-TITLE": ("A-TITLE-B-", "A-ANNO-TTLB-TEXT"),
    "VIEWPORTS": ("A-VIEWPT--", "A-ANNO-NPLT"),
}


def layer_name(plain: str, names: LayerNames) -> str:
    """The name of a layer in a standard; the ones that every file has keep theirs."""
    held = _NAMES.get(plain)
    return plain if names == "plain" or held is None else held[names == "ncs"]
