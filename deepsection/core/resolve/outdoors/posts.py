"""Solids of posts and beams, with what sets their heights, and what is wrong with them."""

from __future__ import annotations

import math
from functools import lru_cache

from shapely.geometry import Polygon

from ...geometry import Axis, Circle, line_through, prism, prism_along
from ...model import LevelRule, Post, Project
from ...model.places import beam_points
from ...units import HeightSum, SumTerm
from ..building import Diagnostic, Level, Part, PlacedBeam, PlacedPost, part_key
from ..outlines import disc, turned_rectangle

LOWEST = 50.0
"""A post or beam shorter than this (mm) is none."""


def place_posts(project: Project, levels: dict[str, Level], found: list[Diagnostic]) -> tuple[PlacedPost, ...]:
    """The posts that can stand; others are added to what is found wrong."""
    placed = []
    for post in project.posts:
        foot, top = (_height(rule, levels, post.id, end) for end, rule in (("foot", post.base), ("top", post.top)))
        rise = top.total - foot.total
        if rise < LOWEST:
            message = "the top of this post is not above its foot"
            at = (post.x, post.y)
            found.append(Diagnostic("post-too-low", message, post.id, "top_offset", rise, LOWEST, at=at))
            continue
        placed.append(PlacedPost(post, post_outline(post), foot, top))
    return tuple(placed)


def place_beams(project: Project, levels: dict[str, Level], found: list[Diagnostic]) -> tuple[PlacedBeam, ...]:
    """The beams that can lie; others are added to what is found wrong."""
    placed = []
    for beam in project.beams:
        start, end = beam_points(project, beam)
        length = math.dist(start, end)
        if length < LOWEST:
            message = "this beam spans nothing: its ends lie on one place"
            found.append(Diagnostic("beam-spans-nothing", message, beam.id, "end", length, LOWEST, at=start))
            continue
        line, half = Axis(start, end), beam.width / 2
        outline = line.strip(0.0, line.length, half, -half)
        placed.append(PlacedBeam(beam, outline, start, end, _height(beam.top, levels, beam.id, "top")))
    return tuple(placed)


def _height(rule: LevelRule, levels: dict[str, Level], id: str, end: str) -> HeightSum:
    height = levels[rule.level].sum
    return height.plus(f"{end}:{id}", f"{end} of {id}", SumTerm("offset", rule.offset, id)) if rule.offset else height


def post_outline(post: Post) -> Polygon:
    """The post in plan; a round one in chords."""
    if post.shape == "round":
        return disc(post.x, post.y, post.width)
    return turned_rectangle(post.x, post.y, post.width, post.depth or post.width, post.turn)


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
