"""All build-ups that ship, by kind of junction, in the order in which they are thought of."""

from __future__ import annotations

from ..junctions.kinds import KindName
from .buildup import BuildUp, SiteKind
from .corner_site import corner_lies, corner_site
from .eave_site import eave_lies, eave_site
from .eaves import CLOSED, FLUSH, FREE
from .feet import ON_JOISTS, ON_SLAB, VENEER
from .floor_bearings import FRAMED_BEARING, MASONRY_BEARING
from .floor_edges import CEILING, INNER, MASONRY_EDGE, PLATFORM, PORCH
from .floor_site import along_wall_lies, ceiling_site, floor_site, inner_lies, inner_site, porch_lies, porch_site
from .foot_site import foot_lies, foot_site
from .footings import MASONRY_FOOTING, STRIP_FOOTING
from .framed_openings import HEAD, ROWLOCK, SILL, THRESHOLD, VENEER_HEAD
from .inner_openings import INNER_HEAD, INNER_JAMB, INNER_THRESHOLD
from .jambs import CAVITY_JAMB, JAMB, VENEER_JAMB
from .masonry_eaves import MASONRY
from .masonry_feet import CAVITY_FOOT, SOLID_FOOT
from .masonry_openings import CAVITY_THRESHOLD, HEADS, SILLS
from .open_eaves import OPEN
from .opening_site import jamb_lies, opening_lies, opening_site
from .roof_side_site import roof_side_lies, roof_side_site, roof_top_lies, roof_top_site
from .roof_sides import APRONED, COVERED, STEPPED, TOP_COVERED
from .slab_edges import FRAMED_SLAB_EDGE, SLAB_EDGE, SLAB_ON_WALL, SLAB_STEP
from .slab_site import edge_site, ring_lies, step_site
from .wall_corners import CORNER, MASONRY_CORNER

AROUND_OPENINGS = SiteKind(opening_site, opening_lies)
AT_FEET = SiteKind(foot_site, foot_lies)
SITES: dict[KindName, SiteKind] = {
    "eave": SiteKind(eave_site, eave_lies),
    "roof_top": SiteKind(roof_top_site, roof_top_lies),
    "roof_side": SiteKind(roof_side_site, roof_side_lies),
    "head": AROUND_OPENINGS,
    "jamb": SiteKind(opening_site, jamb_lies),
    "sill": AROUND_OPENINGS,
    "threshold": AROUND_OPENINGS,
    "wall_corner": SiteKind(corner_site, corner_lies),
    "wall_foot": AT_FEET,
    "footing": AT_FEET,
    "floor_edge": SiteKind(floor_site, along_wall_lies),
    "floor_on_wall": SiteKind(floor_site, along_wall_lies),
    "ceiling_edge": SiteKind(ceiling_site, along_wall_lies),
    "inner_foot": SiteKind(inner_site, inner_lies),
    "slab_step": SiteKind(step_site, ring_lies),
    "porch_slab": SiteKind(porch_site, porch_lies),
    "slab_edge": SiteKind(edge_site, ring_lies),
}

BUILD_UPS: dict[KindName, tuple[BuildUp, ...]] = {
    "eave": (CLOSED, OPEN, FLUSH, MASONRY, FREE),
    "roof_top": (APRONED, TOP_COVERED),
    "roof_side": (STEPPED, COVERED),
    "head": (HEAD, VENEER_HEAD, *HEADS, INNER_HEAD),
    "jamb": (JAMB, VENEER_JAMB, CAVITY_JAMB, INNER_JAMB),
    "sill": (SILL, ROWLOCK, *SILLS),
    "threshold": (THRESHOLD, CAVITY_THRESHOLD, INNER_THRESHOLD),
    "wall_corner": (CORNER, MASONRY_CORNER),
    "wall_foot": (ON_SLAB, ON_JOISTS, VENEER, CAVITY_FOOT, SOLID_FOOT),
    "footing": (STRIP_FOOTING, MASONRY_FOOTING),
    "floor_edge": (PLATFORM, SLAB_ON_WALL, MASONRY_EDGE),
    "floor_on_wall": (FRAMED_BEARING, MASONRY_BEARING),
    "ceiling_edge": (CEILING,),
    "inner_foot": (INNER,),
    "slab_step": (SLAB_STEP,),
    "porch_slab": (PORCH,),
    "slab_edge": (FRAMED_SLAB_EDGE, SLAB_EDGE),
}

BY_ID: dict[str, BuildUp] = {held.id: held for some in BUILD_UPS.values() for held in some}
