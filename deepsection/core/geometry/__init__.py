"""Plane and solid geometry. Knows no wall, sheet or format."""

from .arcs import arc_of, arcs_in, flatten
from .axis import Axis, Circle, Curve, bulge_of, crossing, through
from .boxes import Box, Boxes, Plane3, meetings, plane_under
from .facets import Facet
from .frames import CutFrame, Frame, LevelFrame, Side, compass, side_direction
from .lofts import lofted, revolved, shared, sheared
from .plane import Line, Point, half_plane, largest, line_through, meet, offset_line, plain_rings, polygons_of, ring_of
from .rising import rising
from .roofshape import Plane, RoofLine, RoofShape, Slope, Turn, moved_out, roof_over, roof_shape
from .segments import Segment, segment, segment_through
from .slabs import slab
from .solids import Solid, bar_along, crosses, prepare_facets, prism, prism_along, reaches_of

__all__ = [
    "Axis",
    "Box",
    "Boxes",
    "Circle",
    "Curve",
    "CutFrame",
    "Facet",
    "Frame",
    "LevelFrame",
    "Line",
    "Plane",
    "Plane3",
    "Point",
    "RoofLine",
    "RoofShape",
    "Segment",
    "Side",
    "Slope",
    "Solid",
    "Turn",
    "arc_of",
    "arcs_in",
    "bar_along",
    "bulge_of",
    "compass",
    "crosses",
    "crossing",
    "flatten",
    "half_plane",
    "largest",
    "line_through",
    "lofted",
    "meet",
    "meetings",
    "moved_out",
    "offset_line",
    "plain_rings",
    "plane_under",
    "polygons_of",
    "prepare_facets",
    "prism",
    "prism_along",
    "reaches_of",
    "revolved",
    "ring_of",
    "rising",
    "roof_over",
    "roof_shape",
    "segment",
    "segment_through",
    "shared",
    "sheared",
    "side_direction",
    "slab",
    "through",
]
