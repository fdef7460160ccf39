"""Make-ups: what a stack of layers is in the house."""

from __future__ import annotations

from collections.abc import Iterator

from ...building.diagnostics import Diagnostic
from ...building.kind import ElementKind
from ...building.placed import Placed
from ...model import MakeUp, Project
from .fields import make_up_fields
from .names import name_faults
from .order import order_faults


def _uses(project: Project, make_up: MakeUp) -> int:
    """How many elements are built of a make-up."""
    return sum(make_up.id in (getattr(e, "make_up", None), getattr(e, "slab", None)) for e in project.elements())


def _title(project: Project, make_up: MakeUp) -> tuple[str, str]:
    used = _uses(project, make_up)
    return make_up.name, f"{make_up.use} make-up, used {'once' if used == 1 else f'{used} times'}"


def _checks(placed: Placed) -> Iterator[Diagnostic]:
    for id in dict.fromkeys(wall.make_up for wall in placed.project.walls):
        yield from order_faults(placed.make_ups[id])
        yield from name_faults(placed.make_ups[id])


MAKE_UP = ElementKind(
    MakeUp,
    title=_title,
    fields=make_up_fields,
    make_up=lambda project, make_up: make_up.id,
    removable=lambda project, make_up: not _uses(project, make_up),
    checks=_checks,
)
