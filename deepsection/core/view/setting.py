"""What a view is drawn with, besides the building and what is looked at."""

from __future__ import annotations

from dataclasses import dataclass

from ..model import GridLine, Note, ViewShow
from ..units import Units


@dataclass(frozen=True, slots=True)
class Setting:
    """Scale and units of a drawing, the notes and grid of its project, and how the view is shown.

    `left_out` are the elements that the view shows nothing of: notes on them are left out too.
    """

    scale: float
    units: Units
    notes: tuple[Note, ...] = ()
    grid: tuple[GridLine, ...] = ()
    show: ViewShow | None = None
    left_out: frozenset[str] = frozenset()
