"""Build-ups of the feet of outer walls, and of their footings."""

from ..buildup import SiteKind, Ways
from .footings import MASONRY_FOOTING, STRIP_FOOTING
from .framed import ON_JOISTS, ON_SLAB, VENEER
from .masonry import CAVITY_FOOT, SOLID_FOOT
from .site import foot_lies, foot_site

SEEN = SiteKind(foot_site, foot_lies)

FEET = (
    Ways("wall_foot", SEEN, (ON_SLAB, ON_JOISTS, VENEER, CAVITY_FOOT, SOLID_FOOT)),
    Ways("footing", SEEN, (STRIP_FOOTING, MASONRY_FOOTING)),
)

__all__ = ["FEET"]
