"""All build-ups that ship, by kind of junction."""

from __future__ import annotations

from ..junctions.kinds import KindName
from .buildup import BuildUp, SiteKind
from .feet import FEET
from .floors import FLOORS
from .openings import OPENINGS
from .roofs import ROOFS
from .walls import WALLS

ALL = (*ROOFS, *OPENINGS, *WALLS, *FLOORS, *FEET)

SITES: dict[KindName, SiteKind] = {held.kind: held.seen for held in ALL}
"""How each kind of junction is seen by its build-ups."""

BUILD_UPS: dict[KindName, tuple[BuildUp, ...]] = {held.kind: held.build_ups for held in ALL}
"""Its build-ups, in the order in which they are thought of."""

BY_ID: dict[str, BuildUp] = {held.id: held for some in BUILD_UPS.values() for held in some}
