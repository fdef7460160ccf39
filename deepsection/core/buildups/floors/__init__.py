"""Build-ups of floors, ceilings and slabs: at walls, under inner walls, at their steps and free edges."""

from ..buildup import SiteKind, Ways
from .bearings import FRAMED_BEARING, MASONRY_BEARING
from .deck_site import deck_site, ledger_lies
from .decks import LEDGER, LEDGER_MASONRY
from .edges import CEILING, INNER, MASONRY_EDGE, PLATFORM, PORCH
from .site import along_wall_lies, ceiling_site, floor_site, inner_lies, inner_site, porch_lies, porch_site
from .slab_edges import FRAMED_SLAB_EDGE, SLAB_EDGE, SLAB_ON_WALL, SLAB_STEP
from .slab_site import edge_site, ring_lies, step_site

FLOORS = (
    Ways("floor_edge", SiteKind(floor_site, along_wall_lies), (PLATFORM, SLAB_ON_WALL, MASONRY_EDGE)),
    Ways("floor_on_wall", SiteKind(floor_site, along_wall_lies), (FRAMED_BEARING, MASONRY_BEARING)),
    Ways("ceiling_edge", SiteKind(ceiling_site, along_wall_lies), (CEILING,)),
    Ways("inner_foot", SiteKind(inner_site, inner_lies), (INNER,)),
    Ways("slab_step", SiteKind(step_site, ring_lies), (SLAB_STEP,)),
    Ways("porch_slab", SiteKind(porch_site, porch_lies), (PORCH,)),
    Ways("slab_edge", SiteKind(edge_site, ring_lies), (FRAMED_SLAB_EDGE, SLAB_EDGE)),
    Ways("deck_ledger", SiteKind(deck_site, ledger_lies), (LEDGER, LEDGER_MASONRY)),
)

__all__ = ["FLOORS"]
