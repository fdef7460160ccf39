"""The language that views speak: marks with pens, hatches, text, dimensions."""

from .explode import explode
from .marks import (
    LETTER,
    PITCH_RUN,
    WIDE,
    Align,
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
    extent,
    moved,
    path,
    readable,
    rings_of,
)
from .patterns import PlacedHatch, place_hatch
from .pens import PENS, Pen, pen_width
from .steplines import step_line

__all__ = [
    "LETTER",
    "PENS",
    "PITCH_RUN",
    "WIDE",
    "Align",
    "Dimension",
    "Drawing",
    "Handle",
    "Mark",
    "Pen",
    "PlacedHatch",
    "Region",
    "Ring",
    "Stroke",
    "Symbol",
    "Text",
    "arrow_head",
    "every_ring",
    "explode",
    "extent",
    "moved",
    "path",
    "pen_width",
    "place_hatch",
    "readable",
    "rings_of",
    "step_line",
]
