"""Posts and beams in plan: posts cut, beams above the cut dashed, with what drags them."""

from __future__ import annotations

from collections.abc import Iterator

from ...building.kind import PlanOf
from ...drawing import Handle, Mark, Region, Ring, Stroke, path, rings_of
from .placed import BEAMS, POSTS, PlacedBeam, PlacedPost


def _crossing(shown: PlanOf) -> list[PlacedPost]:
    """The posts that stand on the level, or cross the height at which its plan is cut."""
    return [
        placed
        for placed in shown.placed[POSTS]
        if placed.post.base.level == shown.level or placed.foot.total < shown.cut < placed.top.total
    ]


def post_marks(shown: PlanOf) -> Iterator[Mark]:
    """The posts of the plan, cut."""
    for placed in _crossing(shown):
        post = placed.post
        key, handle = f"{post.id}/post//", Handle("move_post", post.id, "x", "free")
        if post.shape == "round":
            (u, w), half = shown.frame.plan_to_turned(post.x, post.y), post.width / 2
            rings: tuple[Ring, ...] = (((u - half, w, 1.0), (u + half, w, 1.0)),)
        else:
            rings = rings_of(shown.frame.turn(placed.outline))
        yield Region(rings, fill="poche", pen="cut", part=key, feature="cut", handle=handle)


def beams_shown(shown: PlanOf) -> Iterator[PlacedBeam]:
    """The beams that the posts of the plan carry, and those without posts above its cut, below that of the next."""
    carried = {placed.post.id for placed in _crossing(shown)}
    for placed in shown.placed[BEAMS]:
        own = {placed.beam.start.post, placed.beam.end.post} & carried
        free = placed.beam.start.post is None and placed.beam.end.post is None
        if own or (free and shown.cut < placed.top.total < shown.next_cut):
            yield placed


def beam_marks(shown: PlanOf) -> Iterator[Mark]:
    """The beams of the plan, dashed where they are above the cut."""
    for placed in beams_shown(shown):
        corners = [shown.frame.plan_to_turned(*point) for point in list(placed.outline.exterior.coords)[:-1]]
        pen = "hidden" if placed.top.total > shown.cut else "edge"
        key = f"{placed.beam.id}/beam//"
        yield Stroke(path(*corners), pen, closed=True, part=key, feature="beam", sum=placed.top.id)
