"""Build-ups of roofs: eaves, rakes, ridges, hips and valleys, where a roof ends at a wall, and
chimneys."""

from ..buildup import SiteKind, Ways
from .chimney_site import chimney_lies, chimney_site
from .chimneys import CHIMNEYS
from .crest_site import crest_lies, crest_site
from .eave_site import eave_lies, eave_site
from .eaves import CLOSED, FLUSH, FREE
from .masonry_eaves import MASONRY
from .open_eaves import OPEN
from .rake_site import rake_lies, rake_site
from .rakes import RAKES
from .ridges import HIPS, RIDGES
from .side_site import roof_side_lies, roof_side_site, roof_top_lies, roof_top_site
from .sides import APRONED, COVERED, STEPPED, TOP_COVERED
from .valleys import VALLEYS

CRESTS = SiteKind(crest_site, crest_lies)

ROOFS = (
    Ways("eave", SiteKind(eave_site, eave_lies), (CLOSED, OPEN, FLUSH, MASONRY, FREE)),
    Ways("rake", SiteKind(rake_site, rake_lies), RAKES),
    Ways("ridge", CRESTS, RIDGES),
    Ways("hip", CRESTS, HIPS),
    Ways("valley", CRESTS, VALLEYS),
    Ways("roof_top", SiteKind(roof_top_site, roof_top_lies), (APRONED, TOP_COVERED)),
    Ways("chimney", SiteKind(chimney_site, chimney_lies), CHIMNEYS),
    Ways("roof_side", SiteKind(roof_side_site, roof_side_lies), (STEPPED, COVERED)),
)

__all__ = ["ROOFS"]
