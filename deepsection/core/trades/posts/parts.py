"""Solids of posts and beams."""

from __future__ import annotations

import math
from functools import lru_cache

from shapely.geometry import Polygon

from ...building.parts import Part, part_key
from ...geometry import Circle, line_through, prism, prism_along
from ...geometry.outlines import turned_rectangle
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
    own = Part(key, post.id, "post", post.material, solid, upright, sums, foot, function="structure", curve=curve)
    if post.pad is None:
        return (own,)
    area = turned_rectangle(post.x, post.y, post.pad.width, post.pad.width, post.turn)
    under = prism(area, placed.foot.total - post.pad.thickness, placed.foot.total)
    key = part_key(post.id, "pad")
    return own, Part(key, post.id, "pad", "concrete", under, sums=(placed.foot.id,), function="structure")


@lru_cache(maxsize=512)
def beam_parts(placed: PlacedBeam) -> tuple[Part, ...]:
    """The solids of a beam, ply by ply."""
    beam, line = placed.beam, line_through(placed.start, placed.end)
    length = math.dist(placed.start, placed.end)
    top, ply = placed.top.total, beam.width / beam.plies
    profile = Polygon([(0, top - beam.depth), (length, top - beam.depth), (length, top), (0, top)])
    parts = []
    for number in range(beam.plies):
        off = beam.width / 2 - ply * number
        solid = prism_along(profile, (line.x - line.dy * off, line.y + line.dx * off), (line.dx, line.dy), ply)
        key, axis = part_key(beam.id, "beam", slot=str(number) if number else ""), (line.dx, line.dy, 0.0)
        sums = (placed.top.id,)
        parts.append(Part(key, beam.id, "beam", beam.material, solid, axis, sums, function="structure"))
    return tuple(parts)
