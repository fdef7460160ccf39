"""Build-ups of walls where they meet."""

from ..buildup import SiteKind, Ways
from .corner_site import corner_lies, corner_site
from .corners import CORNER, MASONRY_CORNER
from .tee_site import tee_lies, tee_site
from .tees import TEES

WALLS = (
    Ways("wall_corner", SiteKind(corner_site, corner_lies), (CORNER, MASONRY_CORNER)),
    Ways("wall_on_wall", SiteKind(tee_site, tee_lies), TEES),
)

__all__ = ["WALLS"]
