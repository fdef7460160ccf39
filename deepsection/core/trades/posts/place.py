"""Posts and beams: what sets their heights, and what is wrong with them."""

from __future__ import annotations

import math
from collections.abc import Iterator

from shapely.geometry import Polygon

from ...building.diagnostics import Diagnostic
from ...geometry import Axis
from ...geometry.outlines import disc, turned_rectangle
from ...model import LevelRule, Post, Project
from ...model.places import beam_points
from ...units import HeightSum, SumTerm
from ..levels.placed import Level
from .placed import PlacedBeam, PlacedPost

LOWEST = 50.0
"""A post or beam shorter than this (mm) is none."""


def place_posts(project: Project, levels: dict[str, Level], found: list[Diagnostic]) -> tuple[PlacedPost, ...]:
    """The posts that can stand, no higher than the beams on them; others are added to what is found wrong."""
    placed = []
    for post in project.posts:
        foot, top = (_height(rule, levels, post.id, end) for end, rule in (("foot", post.base), ("top", post.top)))
        for under in _undersides(project, post, levels):
            if foot.total < under.total < top.total:
                top = under
        rise = top.total - foot.total
        if rise < LOWEST:
            message = "the top of this post is not above its foot"
            at = (post.x, post.y)
            found.append(Diagnostic("post-too-low", message, post.id, "top_offset", rise, LOWEST, at=at))
            continue
        placed.append(PlacedPost(post, post_outline(post), foot, top))
    return tuple(placed)


def _undersides(project: Project, post: Post, levels: dict[str, Level]) -> Iterator[HeightSum]:
    """The undersides of the beams that end on a post."""
    for beam in project.beams:
        if post.id in (beam.start.post, beam.end.post):
            top = _height(beam.top, levels, beam.id, "top")
            yield top.plus(f"top:{post.id}", f"top of {post.id}", SumTerm("beam", -beam.depth, beam.id, "depth"))


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
        whole, half = Axis(start, end), beam.width / 2
        start, end = whole.at(-beam.start.past), whole.at(whole.length + beam.end.past)
        line = Axis(start, end)
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
