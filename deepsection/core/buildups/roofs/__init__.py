"""Build-ups of roofs: eaves, and where a roof ends at a wall."""

from ..buildup import SiteKind, Ways
from .eave_site import eave_lies, eave_site
from .eaves import CLOSED, FLUSH, FREE
from .masonry_eaves import MASONRY
from .open_eaves import OPEN
from .side_site import roof_side_lies, roof_side_site, roof_top_lies, roof_top_site
from .sides import APRONED, COVERED, STEPPED, TOP_COVERED

ROOFS = (
    Ways("eave", SiteKind(eave_site, eave_lies), (CLOSED, OPEN, FLUSH, MASONRY, FREE)),
    Ways("roof_top", SiteKind(roof_top_site, roof_top_lies), (APRONED, TOP_COVERED)),
    Ways("roof_side", SiteKind(roof_side_site, roof_side_lies), (STEPPED, COVERED)),
)

__all__ = ["ROOFS"]
