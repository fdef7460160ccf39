"""Posts and beams: how they are placed, built and drawn in plan."""

from __future__ import annotations

from collections.abc import Iterator

from ...building.kind import ElementKind
from ...building.placed import Placed, Stage
from ...catalog import material
from ...model import Beam, Post, Project
from ...units import HeightSum
from ..levels.place import sum_id
from ..levels.placed import LEVELS
from ..loads.beams import beam_table
from .fields import beam_fields, post_fields
from .parts import beam_parts, post_parts
from .place import place_beams, place_posts
from .placed import BEAMS, POSTS, PlacedPost
from .plan import beam_marks, post_marks
from .pocket_parts import pocketed


def _post_sums(posts: tuple[PlacedPost, ...], _: Placed) -> Iterator[HeightSum]:
    for post in posts:
        yield post.foot
        yield post.top


def _post_title(project: Project, post: Post) -> tuple[str, str]:
    return "Post", f"{post.shape}, of {material(post.material).name.lower()}"


def _beam_title(project: Project, beam: Beam) -> tuple[str, str]:
    return "Beam", f"of {material(beam.material).name.lower()}"


POST_STAGE = Stage(POSTS, lambda placed: place_posts(placed.project, placed[LEVELS], placed.findings), sums=_post_sums)
BEAM_STAGE = Stage(
    BEAMS,
    lambda placed: place_beams(placed.project, placed[LEVELS], placed.findings),
    sums=lambda beams, _: (beam.top for beam in beams),
)
POST = ElementKind(
    Post,
    title=_post_title,
    fields=post_fields,
    heights=lambda post: (f"top:{post.id}", f"foot:{post.id}", sum_id(post.top.level), sum_id(post.base.level)),
    parts=lambda placed: (part for post in placed[POSTS] for part in post_parts(post)),
    cuts=pocketed,
    plan=post_marks,
)
BEAM = ElementKind(
    Beam,
    outcome=beam_table,
    title=_beam_title,
    fields=beam_fields,
    heights=lambda beam: (f"top:{beam.id}", sum_id(beam.top.level)),
    parts=lambda placed: (part for beam in placed[BEAMS] for part in beam_parts(beam)),
    plan=beam_marks,
)
