"""Roofs with other corners, or other treatments of their edges."""

from __future__ import annotations

from collections.abc import Callable, Sequence

from ...document.rebuilding import changed
from .model import Corner, RoofBlock, RoofEdge


def with_corners(roof: RoofBlock, at: Callable[[Corner], Corner]) -> RoofBlock:
    """A roof with each corner of its outline and courts replaced."""
    outline, *courts = (tuple(at(corner) for corner in ring) for ring in roof.rings)
    held: RoofBlock = changed(roof, outline=outline, courts=tuple(courts))
    return held


def with_treatments(roof: RoofBlock, treatments: Sequence[RoofEdge]) -> RoofBlock:
    """A roof with another treatment per edge; each edge keeps its id."""
    edges = tuple(changed(treated, id=edge.id) for edge, treated in zip(roof.edges, treatments, strict=True))
    treated: RoofBlock = changed(roof, edges=edges)
    return treated
