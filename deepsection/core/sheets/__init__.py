"""Sheets: paper, scales, layout, title block."""

from .compose import PlacedDrawing, SheetDrawing, compose, compose_view
from .paper import PAPERS, Paper, paper
from .scales import fitting_scale, scale_name, standard_scales

__all__ = [
    "PAPERS",
    "Paper",
    "PlacedDrawing",
    "SheetDrawing",
    "compose",
    "compose_view",
    "fitting_scale",
    "paper",
    "scale_name",
    "standard_scales",
]
