"""What foundations give way to: pockets for the ends of beams, posts, and the pads under them."""

from __future__ import annotations

from collections.abc import Sequence
from functools import lru_cache

from ...building.cutting import without
from ...building.parts import Part
from ...building.placed import Placed
from ...geometry import Solid, prism
from .parts import post_parts
from .placed import BEAMS, POSTS, PlacedBeam

AIR = 12.7
"""Left free beside and behind the end of a beam in a pocket (mm). Source: IRC R317.1, 1/2 in, from memory."""


def pocketed(placed: Placed, parts: Sequence[Part]) -> Sequence[Part]:
    """The parts of foundations and porch slabs without what posts, pads and beams take from them; others as are."""
    project = placed.project
    own = {held.id for held in project.foundations} | {held.id for held in project.porch_slabs}
    if not own:
        return parts
    posts = placed[POSTS]
    bodies = [part.solid for post in posts for part in post_parts(post)]
    beams = placed[BEAMS]
    bodies += [_pocket(beam) for beam in beams]
    taken = tuple(bodies)
    return tuple(without(part, taken) if part.element in own else part for part in parts)


@lru_cache(maxsize=256)
def _pocket(placed: PlacedBeam) -> Solid:
    """A beam with air beside and behind it, open above: it is set in from there."""
    area = placed.outline.buffer(AIR, join_style="mitre")
    return prism(area, placed.top.total - placed.beam.depth, placed.top.total + AIR)
