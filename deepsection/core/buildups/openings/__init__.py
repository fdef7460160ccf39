"""Build-ups around openings: heads, jambs, sills, thresholds."""

from ..buildup import SiteKind, Ways
from .framed import HEAD, ROWLOCK, SILL, THRESHOLD, VENEER_HEAD
from .inner import INNER_HEAD, INNER_JAMB, INNER_THRESHOLD
from .jambs import CAVITY_JAMB, JAMB, VENEER_JAMB
from .masonry import CAVITY_THRESHOLD, HEADS, SILLS
from .site import jamb_lies, opening_lies, opening_site

AROUND = SiteKind(opening_site, opening_lies)

OPENINGS = (
    Ways("head", AROUND, (HEAD, VENEER_HEAD, *HEADS, INNER_HEAD)),
    Ways("jamb", SiteKind(opening_site, jamb_lies), (JAMB, VENEER_JAMB, CAVITY_JAMB, INNER_JAMB)),
    Ways("sill", AROUND, (SILL, ROWLOCK, *SILLS)),
    Ways("threshold", AROUND, (THRESHOLD, CAVITY_THRESHOLD, INNER_THRESHOLD)),
)

__all__ = ["OPENINGS"]
