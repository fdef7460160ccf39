"""Foundations: how they are placed and built, and what nothing carries."""

from __future__ import annotations

from collections.abc import Iterator

from ...building.diagnostics import Diagnostic
from ...building.kind import ElementKind
from ...building.parts import Part
from ...building.placed import Placed, Stage
from ...model import Foundation, FoundationStep, Project, SetDown
from ..ground.place import GROUND
from ..levels.place import sum_id
from ..levels.placed import LEVELS
from ..makeups.fields import make_up_name
from ..posts.placed import POSTS
from ..walls.planned import WALLS
from .carried import on_nothing
from .deepened import bearing_on_slab
from .fields import foundation_fields, set_down_fields, step_fields
from .in_ground import ground_faults, pad_faults
from .parts import foundation_parts
from .place import FOUNDATIONS, place_foundations
from .plan import set_down_marks, step_marks
from .set_downs import set_down_faults


def _parts(placed: Placed) -> Iterator[Part]:
    for held in placed[FOUNDATIONS]:
        yield from foundation_parts(held, placed.project.joints)


def _checks(placed: Placed) -> Iterator[Diagnostic]:
    yield from on_nothing(placed.project, placed[WALLS], placed[LEVELS], placed.make_ups)
    for held in placed[FOUNDATIONS]:
        yield from ground_faults(held, placed[GROUND], placed.project.units)
        yield from set_down_faults(held, placed.project.units)
        yield from bearing_on_slab(held, placed.project.units)
    yield from pad_faults(placed[POSTS], placed[FOUNDATIONS], placed[GROUND], placed.project.units)


def _title(project: Project, held: Foundation) -> tuple[str, str]:
    return held.name, make_up_name(project, held.slab) if held.slab else "foundation wall and footing"


def _step_title(project: Project, step: FoundationStep) -> tuple[str, str]:
    of = next(held for held in project.foundations if held.id == step.foundation)
    return f"Step of {of.name}", "along an endless line, square through its walls"


FOUNDATION_STAGE = Stage(FOUNDATIONS, place_foundations)
FOUNDATION = ElementKind(
    Foundation,
    title=_title,
    fields=foundation_fields,
    heights=lambda held: [sum_id(id) for id in (held.sill or held.top or held.level, held.footing)],
    make_up=lambda project, held: held.slab,
    parts=_parts,
    checks=_checks,
)
SET_DOWN = ElementKind(
    SetDown,
    title=lambda project, down: (down.name, "of the slab on the ground"),
    fields=set_down_fields,
    plan=set_down_marks,
)
FOUNDATION_STEP = ElementKind(FoundationStep, title=_step_title, fields=step_fields, plan=step_marks)
