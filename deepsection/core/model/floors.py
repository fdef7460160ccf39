"""Foundations, floors and ceilings."""

from __future__ import annotations

from typing import ClassVar, Literal

from .declaring import About, Declared, Ref
from .values import Id, Name, Positive


class Foundation(Declared):
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


JoistSpan = Literal["short", "east-west", "north-south"]


class Floor(Declared):
    """A joist floor under the outer walls of a storey: its top is the level, its joists bear at another.

    A rim joist closes it along the outside of the frames. `span` is the direction in which joists run.
    """

    about: ClassVar[About] = About(
        "floor",
        "floors",
        refs=(
            Ref("level", "rungs", "level"),
            Ref("bearing", "rungs", "bearing level"),
            Ref("make_up", "make_ups", "make-up"),
        ),
        group="floors",
    )
    id: Id
    name: Name
    level: Id
    bearing: Id
    make_up: Id
    span: JoistSpan = "short"


class Ceiling(Declared):
    """A flat ceiling whose joists bear at a level, over every closed outline of outer walls that reaches it.

    Joists run along the rafters above, or as `span` says.
    """

    about: ClassVar[About] = About(
        "ceiling",
        "ceilings",
        refs=(Ref("level", "rungs", "level"), Ref("make_up", "make_ups", "make-up")),
        group="floors",
    )
    id: Id
    name: Name
    level: Id
    make_up: Id
    span: Literal["roof"] | JoistSpan = "roof"
