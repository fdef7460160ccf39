"""Where the ground and what stands in it do not go together: foundations, and pads under posts."""

from __future__ import annotations

from collections.abc import Iterator

from shapely.geometry import Point

from ...building.diagnostics import Diagnostic
from ...units import Units, format_length
from ..ground.place import Ground
from ..posts.placed import PlacedPost
from .place import PlacedFoundation

SHOWS = {"ft-in": 152.4, "mm": 150.0}
"""A foundation wall of concrete ends so much above the ground (mm). IRC R404.1.6, 6 in (from memory)."""
HANGS = 5.0
"""A pad lies on the ground where its underside is as near to it as this (mm), or within."""
BESIDE = 1.0
"""Each side of a step is asked this far from it (mm)."""


def ground_faults(held: PlacedFoundation, ground: Ground, units: Units) -> Iterator[Diagnostic]:
    """Where the ground lies above the wall of a foundation, too near to its top, or lays a footing bare: the worst
    place of each wall."""
    for wall, stretches in zip(held.walls, held.stretches):
        places = []
        for stretch in stretches:
            first, last = max(stretch.first + BESIDE, 0.0), min(stretch.last - BESIDE, wall.length)
            for along in (first, (first + last) / 2, last):
                at = wall.at(along, wall.outer)
                sill = held.levels.sill
                wood = held.stem_top(stretch) if held.pony or sill is None else sill.z
                places.append((ground.z(*at), wood, held.footing_top - stretch.drop, at))
        z, wood, _, at = max(places, key=lambda place: place[0] - place[1])
        if z > wood:
            message = "the ground lies above the foundation here: raise the house, or lower the ground"
            yield Diagnostic("ground-high", message, wall.wall.id, "ground", z, wood, at=at)
        elif held.pony and wood - z < SHOWS[units] - 0.5:
            message = (
                f"the wall of {held.foundation.name} ends {format_length(wood - z, units)} above the ground here, and "
                f"pony walls need {format_length(SHOWS[units], units)}: step it less, or lower the ground"
            )
            yield Diagnostic("foundation-low", message, wall.wall.id, "ground", wood - z, SHOWS[units], at=at)
        z, _, top, at = min(places, key=lambda place: place[0] - place[2])
        if z < top:
            message = "the ground lies below the top of the footing here: the footing would be bare"
            yield Diagnostic("footing-bare", message, wall.wall.id, "ground", z, top, at=at)


def pad_faults(
    posts: tuple[PlacedPost, ...], held: tuple[PlacedFoundation, ...], ground: Ground, units: Units
) -> Iterator[Diagnostic]:
    """Pads under posts that hang over the ground, or over that of the crawl space that they stand in."""
    for placed in posts:
        post = placed.post
        if post.pad is None:
            continue
        point = Point(post.x, post.y)
        within = (own for own in held if any(outline.polygon.contains(point) for outline in own.outlines))
        own = next(within, None)
        z = own.ground_at((post.x, post.y)) if own else ground.z(post.x, post.y)
        bottom = placed.foot.total - post.pad.thickness
        if bottom > z + HANGS:
            message = (
                f"the pad under this post hangs {format_length(bottom - z, units)} over the ground: set its foot lower"
            )
            yield Diagnostic(
                "pad-bare", message, post.id, "base_offset", placed.foot.total, z + post.pad.thickness,
                at=(post.x, post.y),
            )  # fmt: skip
