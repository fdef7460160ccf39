"""Posts and beams in plan: posts cut, beams above the cut dashed, with what drags them."""

from __future__ import annotations

from ..drawing import Handle, Mark, Region, Stroke, path, rings_of
from ..geometry import Frame
from ..resolve import Building


def post_marks(building: Building, level: str, cut: float, frame: Frame) -> list[Mark]:
    """The posts that stand on a level or cross the height at which its plan is cut, and the beams that they carry."""
    marks: list[Mark] = []
    crossing = [
        placed
        for placed in building.posts
        if placed.post.base.level == level or placed.foot.total < cut < placed.top.total
    ]
    for placed in crossing:
        post = placed.post
        key, handle = f"{post.id}/post//", Handle("move_post", post.id, "x", "free")
        u, w = frame.plan_to_turned(post.x, post.y)
        if post.shape == "round":
            half = post.width / 2
            ring = ((u - half, w, 1.0), (u + half, w, 1.0))
            marks.append(Region((ring,), fill="poche", pen="cut", part=key, feature="cut", handle=handle))
            continue
        marks.append(
            Region(
                rings_of(frame.turn(placed.outline)), fill="poche", pen="cut", part=key, feature="cut", handle=handle
            )
        )
    carried = {placed.post.id for placed in crossing}
    for held in building.beams:
        own = {held.beam.start.post, held.beam.end.post} & carried
        free = held.beam.start.post is None and held.beam.end.post is None
        if not (own or (free and cut < held.top.total)):
            continue
        corners = [frame.plan_to_turned(*point) for point in list(held.outline.exterior.coords)[:-1]]
        pen = "hidden" if held.top.total > cut else "edge"
        key = f"{held.beam.id}/beam//"
        marks.append(Stroke(path(*corners), pen, closed=True, part=key, feature="beam", sum=held.top.id))
    return marks
