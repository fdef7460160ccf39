"""Plane and solid geometry. Knows no wall, sheet or format."""

from .arcs import arc_of, flatten
from .frames import Frame, Side, side_direction
from .plane import Line, Point, line_through, meet, offset_line, polygons_of, ring_of
from .solids import Facet, Plane3, Solid, box, plane_under, prism, prism_along

__all__ = [
    "Facet",
    "Frame",
    "Line",
    "Plane3",
    "Point",
    "Side",
    "Solid",
    "arc_of",
    "box",
    "flatten",
    "line_through",
    "meet",
    "offset_line",
    "plane_under",
    "polygons_of",
    "prism",
    "prism_along",
    "ring_of",
    "side_direction",
]
