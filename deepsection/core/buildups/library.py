"""All build-ups that ship, by kind of junction, in the order in which they are thought of."""

from __future__ import annotations

from ..junctions.kinds import KindName
from .buildup import BuildUp, SiteKind
from .eave_site import eave_lies, eave_site
from .eaves import CLOSED, FLUSH, FREE
from .masonry_eaves import MASONRY

SITES: dict[KindName, SiteKind] = {
    "eave": SiteKind(eave_site, eave_lies),
}

BUILD_UPS: dict[KindName, tuple[BuildUp, ...]] = {
    "eave": (CLOSED, FLUSH, MASONRY, FREE),
}

BY_ID: dict[str, BuildUp] = {held.id: held for some in BUILD_UPS.values() for held in some}
