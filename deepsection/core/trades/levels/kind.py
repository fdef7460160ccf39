"""Levels: what a rung of the height ladder is in the house."""

from __future__ import annotations

from ...building.kind import ElementKind
from ...building.placed import Placed, Stage
from ...edits import Remove
from ...errors import DeepSectionError
from ...model import Project, Rung
from .fields import rung_fields
from .place import resolve_levels, sum_id
from .placed import LEVELS, Level


def _place(placed: Placed) -> dict[str, Level]:
    return resolve_levels(placed.project.rungs, placed.make_ups_for("floor"))


def _title(project: Project, rung: Rung) -> tuple[str, str]:
    base = next((held.name for held in project.rungs if held.id == rung.from_rung), None)
    return rung.name, f"level, measured from {base}" if base else "the datum: every height is measured from here"


def _removable(project: Project, rung: Rung) -> bool:
    try:
        Remove(elements=(rung.id,)).apply(project)
    except DeepSectionError:
        return False
    return True


LEVEL_STAGE = Stage(LEVELS, _place, sums=lambda levels, _: (level.sum for level in levels.values()))
LEVEL = ElementKind(
    Rung, title=_title, fields=rung_fields, heights=lambda rung: (sum_id(rung.id),), removable=_removable
)
