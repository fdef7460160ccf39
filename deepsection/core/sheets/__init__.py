"""Sheets: paper, scales, layout, title block."""

from .aligning import aligned
from .compose import PlacedDrawing, SheetDrawing, compose, compose_picture, compose_view
from .details import detail_sheets, unplaced_details
from .layout import free_place, free_view_ids
from .paper import PAPERS, Paper, paper
from .scales import scale_name, standard_scales
from .usual import usual_set

__all__ = [
    "PAPERS",
    "Paper",
    "PlacedDrawing",
    "SheetDrawing",
    "aligned",
    "compose",
    "compose_picture",
    "compose_view",
    "detail_sheets",
    "free_place",
    "free_view_ids",
    "paper",
    "scale_name",
    "standard_scales",
    "unplaced_details",
    "usual_set",
]
