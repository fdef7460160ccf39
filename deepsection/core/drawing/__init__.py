"""The language that views speak: marks with pens, hatches, text, dimensions."""

from .advances import text_width
from .explode import FIGURE_SIZE, explode
from .extent import extent
from .labels import FIGURE, FIRM, FIRST, HERE, LAST, LESSER, NAME, NUMBER, Label, Lettered, along, around, inside
from .marks import (
    PITCH_RUN,
    Align,
    Backdrop,
    Dimension,
    Drawing,
    Handle,
    Mark,
    Region,
    Ring,
    Stroke,
    Symbol,
    Text,
    arrow_head,
    every_ring,
    moved,
    path,
    readable,
    rings_of,
)
from .patterns import PlacedHatch, place_hatch
from .pens import PENS, Pen, pen_width
from .placing import PlacedMarks, place
from .steplines import step_line

__all__ = [
    "FIGURE",
    "FIGURE_SIZE",
    "FIRM",
    "FIRST",
    "HERE",
    "LAST",
    "LESSER",
    "NAME",
    "NUMBER",
    "PENS",
    "PITCH_RUN",
    "Align",
    "Backdrop",
    "Dimension",
    "Drawing",
    "Handle",
    "Label",
    "Lettered",
    "Mark",
    "Pen",
    "PlacedHatch",
    "PlacedMarks",
    "Region",
    "Ring",
    "Stroke",
    "Symbol",
    "Text",
    "along",
    "around",
    "arrow_head",
    "every_ring",
    "explode",
    "extent",
    "inside",
    "moved",
    "path",
    "pen_width",
    "place",
    "place_hatch",
    "readable",
    "rings_of",
    "step_line",
    "text_width",
]
