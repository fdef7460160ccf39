"""Every kind of junction: what it is called, and how much of it there is."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from ..trades.drawings.model import CUT_LEVEL

KindName = Literal[
    "eave",
    "rake",
    "ridge",
    "hip",
    "valley",
    "roof_break",
    "roof_top",
    "roof_side",
    "chimney",
    "roof_fitting",
    "head",
    "jamb",
    "sill",
    "threshold",
    "wall_corner",
    "wall_on_wall",
    "ceiling_edge",
    "floor_edge",
    "floor_on_wall",
    "stair_head",
    "stair_foot",
    "wall_foot",
    "inner_foot",
    "slab_step",
    "porch_slab",
    "slab_edge",
    "deck_ledger",
    "footing",
]


@dataclass(frozen=True, slots=True)
class JunctionKind:
    """A kind of junction: its words, whether it is counted in `metres` or in `pieces`."""

    name: KindName
    one: str
    many: str
    counted: Literal["metres", "pieces"]

    @property
    def cut(self) -> Literal["upright", "level"]:
        """Whether its details are cut upright or level."""
        return "level" if self.name in CUT_LEVEL else "upright"


JUNCTION_KINDS: dict[KindName, JunctionKind] = {
    kind.name: kind
    for kind in (
        JunctionKind("eave", "eave", "eaves", "metres"),
        JunctionKind("rake", "rake", "rakes", "metres"),
        JunctionKind("ridge", "ridge", "ridges", "metres"),
        JunctionKind("hip", "hip", "hips", "metres"),
        JunctionKind("valley", "valley", "valleys", "metres"),
        JunctionKind("roof_break", "break of a roof", "breaks of roofs", "metres"),
        JunctionKind("roof_top", "top of a lean-to roof", "tops of lean-to roofs", "metres"),
        JunctionKind("roof_side", "side of a roof at a wall", "sides of roofs at walls", "metres"),
        JunctionKind("chimney", "chimney through a roof", "chimneys through roofs", "pieces"),
        JunctionKind("roof_fitting", "opening in a roof", "openings in roofs", "pieces"),
        JunctionKind("head", "opening head", "opening heads", "metres"),
        JunctionKind("jamb", "jamb", "jambs", "metres"),
        JunctionKind("sill", "sill", "sills", "metres"),
        JunctionKind("threshold", "threshold", "thresholds", "metres"),
        JunctionKind("wall_corner", "wall corner", "wall corners", "pieces"),
        JunctionKind("wall_on_wall", "wall on a wall", "walls on walls", "pieces"),
        JunctionKind("ceiling_edge", "ceiling at a wall", "ceilings at walls", "metres"),
        JunctionKind("floor_edge", "floor edge", "floor edges", "metres"),
        JunctionKind("floor_on_wall", "floor on an inner wall", "floors on inner walls", "metres"),
        JunctionKind("stair_head", "stair head", "stair heads", "pieces"),
        JunctionKind("stair_foot", "stair foot", "stair feet", "pieces"),
        JunctionKind("wall_foot", "foot of an outer wall", "feet of outer walls", "metres"),
        JunctionKind("inner_foot", "foot of an inner wall", "feet of inner walls", "metres"),
        JunctionKind("slab_step", "step in a slab", "steps in slabs", "metres"),
        JunctionKind("porch_slab", "porch slab at a wall", "porch slabs at walls", "metres"),
        JunctionKind("slab_edge", "free edge of a slab", "free edges of slabs", "metres"),
        JunctionKind("deck_ledger", "deck at a wall", "decks at walls", "metres"),
        JunctionKind("footing", "footing", "footings", "metres"),
    )
}
"""From the roof down, as they are listed."""
