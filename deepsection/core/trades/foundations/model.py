"""Foundations."""

from __future__ import annotations

from typing import ClassVar

from ...document.declaring import About, Ref, Standing
from ...document.values import Id, Name, Positive


class Foundation(Standing):
    """Foundation wall and strip footing below the outer walls of a storey, and the ground layers within.

    The wall reaches up to `top`, by default to the level of the storey; a sill plate lies on it up to the level `sill`.
    The slab, or what else covers the ground, has its top at `slab_level`, by default that of the storey.
    """

    about: ClassVar[About] = About(
        "foundation",
        "foundations",
        refs=(
            Ref("level", "rungs", "level"),
            Ref("footing", "rungs", "footing level"),
            Ref("top", "rungs", "top"),
            Ref("sill", "rungs", "sill plate"),
            Ref("slab_level", "rungs", "ground level"),
            Ref("slab", "make_ups", "slab make-up"),
        ),
        group="foundations",
    )
    id: Id
    name: Name
    level: Id
    footing: Id
    stem_thickness: Positive
    footing_width: Positive
    footing_depth: Positive
    slab: Id | None = None
    slab_level: Id | None = None
    top: Id | None = None
    sill: Id | None = None
