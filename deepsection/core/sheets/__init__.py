"""Sheets: paper, scales, layout, title block."""

from .compose import PlacedDrawing, SheetDrawing, compose, compose_view
from .layout import free_place
from .paper import PAPERS, Paper, paper
from .scales import scale_name, standard_scales

__all__ = [
    "PAPERS",
    "Paper",
    "PlacedDrawing",
    "SheetDrawing",
    "compose",
    "compose_view",
    "free_place",
    "paper",
    "scale_name",
    "standard_scales",
]
