"""Steps and rails before the house: how they are placed, built and drawn in plan."""

from __future__ import annotations

from ...building.kind import ElementKind
from ...building.placed import Stage
from ...catalog import material
from ...model import OutsideSteps, Project, Rail
from ..ground.place import GROUND
from ..levels.place import sum_id
from ..levels.placed import LEVELS
from .fields import rail_fields, steps_fields
from .parts import rail_parts, steps_parts
from .place import place_rails, place_steps
from .placed import RAILS, STEPS
from .plan import rail_marks, steps_marks


def _steps_title(project: Project, steps: OutsideSteps) -> tuple[str, str]:
    return steps.form.capitalize(), f"of {material(steps.material).name.lower()}, down to the ground"


def _rail_title(project: Project, rail: Rail) -> tuple[str, str]:
    return "Rail", f"of {material(rail.material).name.lower()}"


STEPS_STAGE = Stage(
    STEPS,
    lambda placed: place_steps(placed.project, placed[LEVELS], placed[GROUND], placed.findings),
    sums=lambda made, _: (steps.top for steps in made),
)
RAIL_STAGE = Stage(
    RAILS,
    lambda placed: place_rails(placed.project, placed[LEVELS], placed.findings),
    sums=lambda made, _: (rail.foot for rail in made),
)
OUTSIDE_STEPS = ElementKind(
    OutsideSteps,
    title=_steps_title,
    fields=steps_fields,
    heights=lambda steps: (f"top:{steps.id}", sum_id(steps.top.level)),
    parts=lambda placed: (part for steps in placed[STEPS] for part in steps_parts(steps)),
    plan=steps_marks,
)
RAIL = ElementKind(
    Rail,
    title=_rail_title,
    fields=rail_fields,
    heights=lambda rail: (f"foot:{rail.id}", sum_id(rail.base.level)),
    parts=lambda placed: (part for rail in placed[RAILS] for part in rail_parts(rail)),
    plan=rail_marks,
)
