"""Build-ups of walls where they meet."""

from ..buildup import SiteKind, Ways
from .corner_site import corner_lies, corner_site
from .corners import CORNER, MASONRY_CORNER

WALLS = (Ways("wall_corner", SiteKind(corner_site, corner_lies), (CORNER, MASONRY_CORNER)),)

__all__ = ["WALLS"]
