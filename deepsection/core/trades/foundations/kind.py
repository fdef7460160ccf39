"""Foundations: how they are built, and what nothing carries."""

from __future__ import annotations

from collections.abc import Iterator

from ...building.kind import ElementKind
from ...building.parts import Part
from ...building.placed import Placed
from ...model import Foundation, Project
from ..levels.place import sum_id
from ..levels.placed import LEVELS
from ..makeups.fields import make_up_name
from ..walls.planned import WALLS
from .carried import on_nothing
from .faces import foot_faces
from .fields import foundation_fields
from .parts import FoundationLevels, foundation_parts


def _parts(placed: Placed) -> Iterator[Part]:
    plan, levels, make_ups = placed[WALLS], placed[LEVELS], placed.make_ups
    for foundation in placed.project.foundations:
        walls = tuple(wall for wall in plan.on(foundation.level) if wall.wall.status == "outer")
        yield from foundation_parts(
            foundation,
            make_ups[foundation.slab] if foundation.slab else None,
            walls,
            placed.project.joints,
            tuple(foot_faces(wall, make_ups[wall.wall.make_up]) for wall in walls),
            plan.outlines_on(foundation.level),
            FoundationLevels(
                levels[foundation.top or foundation.level],
                levels[foundation.sill] if foundation.sill else None,
                levels[foundation.slab_level or foundation.level],
                levels[foundation.footing],
            ),
        )


def _title(project: Project, held: Foundation) -> tuple[str, str]:
    return held.name, make_up_name(project, held.slab) if held.slab else "foundation wall and footing"


FOUNDATION = ElementKind(
    Foundation,
    title=_title,
    fields=foundation_fields,
    heights=lambda held: [sum_id(id) for id in (held.sill or held.top or held.level, held.footing)],
    make_up=lambda project, held: held.slab,
    parts=_parts,
    checks=lambda placed: on_nothing(placed.project, placed[WALLS], placed[LEVELS], placed.make_ups),
)
