"""Open comments on the plan that they are about: a numbered flag at each place."""

from __future__ import annotations

from collections.abc import Iterator

from ...building.kind import PlanOf
from ...drawing import Mark, Region, Stroke, Text, path
from ...model import Comment, Project

FLAG, POLE = (5.0, 3.4), 6.0
"""Size of a flag and height of its pole (paper mm)."""
TEXT = 2.0
"""Height of its number (paper mm)."""


def open_comments(project: Project, view: str) -> list[tuple[int, Comment]]:
    """Those of a view that are open, each with its number in it."""
    own = [held for held in project.comments if held.view == view]
    return [(number, held) for number, held in enumerate(own, 1) if held.status == "open"]


def comment_marks(shown: PlanOf, view: str) -> Iterator[Mark]:
    """A flag on a pole at each place."""
    s = shown.scale
    for number, held in open_comments(shown.project, view):
        u, w = shown.frame.plan_to_turned(held.x, held.y)
        key = f"{held.id}/comment//"
        top, low = w + POLE * s, w + (POLE - FLAG[1]) * s
        yield Stroke(path((u, w), (u, top)), "section_mark", part=key, feature="comment")
        ring = path((u, low), (u + FLAG[0] * s, low), (u + FLAG[0] * s, top), (u, top))
        yield Region((ring,), fill="paper", pen="section_mark", part=key, feature="comment")
        place = (u + FLAG[0] / 2 * s, (top + low) / 2)
        yield Text(*place, str(number), TEXT, "centre", "middle", 0, "bold", key, feature="comment")
