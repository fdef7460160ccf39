"""Solids of posts and beams."""

from __future__ import annotations

import math
from functools import lru_cache

from shapely.geometry import Polygon

from ...building.parts import Part, part_key
from ...geometry import Circle, line_through, prism, prism_along
from .placed import PlacedBeam, PlacedPost


@lru_cache(maxsize=512)
def post_parts(placed: PlacedPost) -> tuple[Part, ...]:
    """The solid of a post."""
    post = placed.post
    solid = prism(placed.outline, placed.foot.total, placed.top.total)
    curve = Circle(post.x, post.y, post.width / 2) if post.shape == "round" else None
    sums = (placed.foot.id, placed.top.id)
    key = part_key(post.id, "post")
    foot, upright = (post.x, post.y, placed.foot.total), (0.0, 0.0, 1.0)
    return (Part(key, post.id, "post", post.material, solid, upright, sums, foot, function="structure", curve=curve),)


@lru_cache(maxsize=512)
def beam_parts(placed: PlacedBeam) -> tuple[Part, ...]:
    """The solid of a beam."""
    beam, line = placed.beam, line_through(placed.start, placed.end)
    length = math.dist(placed.start, placed.end)
    top = placed.top.total
    profile = Polygon([(0, top - beam.depth), (length, top - beam.depth), (length, top), (0, top)])
    origin = (line.x - line.dy * beam.width / 2, line.y + line.dx * beam.width / 2)
    solid = prism_along(profile, origin, (line.dx, line.dy), beam.width)
    axis = (line.dx, line.dy, 0.0)
    key = part_key(beam.id, "beam")
    return (Part(key, beam.id, "beam", beam.material, solid, axis, (placed.top.id,), function="structure"),)
