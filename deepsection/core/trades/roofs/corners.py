"""Corners of roofs, replaced."""

from __future__ import annotations

from collections.abc import Callable

from ...document.rebuilding import changed
from .model import Corner, RoofBlock


def with_corners(roof: RoofBlock, at: Callable[[Corner], Corner]) -> RoofBlock:
    """A roof with each corner of its outline and courts replaced."""
    outline, *courts = (tuple(at(corner) for corner in ring) for ring in roof.rings)
    held: RoofBlock = changed(roof, outline=outline, courts=tuple(courts))
    return held
