"""Chimneys, roof windows, pipes, vents and downpipes: how they are placed, built and drawn in plan."""

from __future__ import annotations

from ...building.kind import ElementKind
from ...building.placed import Placed, Stage
from ...catalog import material
from ...model import Chimney, Downpipe, Project, RoofFitting
from ..ground.place import GROUND
from ..levels.placed import LEVELS
from ..roofs.eaves import downpipe_parts
from ..roofs.placed import ROOFS
from .fields import chimney_fields, downpipe_fields, fitting_fields
from .model import ON_ROOFS
from .parts import chimney_parts, fitting_parts, passed
from .place import place_on_roofs
from .placed import ROOF_FITTINGS, OnRoofs
from .plan import chimney_marks, downpipe_marks, fitting_marks


def _place(placed: Placed) -> OnRoofs:
    return place_on_roofs(placed.project, placed[ROOFS], placed[LEVELS], placed[GROUND], placed.findings)


def _chimney_title(project: Project, chimney: Chimney) -> tuple[str, str]:
    return "Chimney", f"of {material(chimney.material).name.lower()}"


def _fitting_title(project: Project, held: RoofFitting) -> tuple[str, str]:
    return ON_ROOFS[held.fitting].capitalize(), "on the slope over its place"


def _downpipe_title(project: Project, pipe: Downpipe) -> tuple[str, str]:
    return "Downpipe", f"from the gutter of {project.find(pipe.roof).name}"


ON_ROOF_STAGE = Stage(ROOF_FITTINGS, _place, sums=lambda held, _: held.sums)
CHIMNEY = ElementKind(
    Chimney,
    title=_chimney_title,
    fields=chimney_fields,
    heights=lambda held: (f"top:{held.id}", f"foot:{held.id}"),
    parts=lambda placed: chimney_parts(placed[ROOF_FITTINGS], placed.make_ups),
    cut_by_others=False,
    cuts=lambda placed, parts: passed(parts, placed[ROOF_FITTINGS]),
    plan=chimney_marks,
)
FITTING = ElementKind(
    RoofFitting,
    title=_fitting_title,
    fields=fitting_fields,
    heights=lambda held: (f"top:{held.id}", f"foot:{held.id}"),
    parts=lambda placed: fitting_parts(placed[ROOF_FITTINGS]),
    cut_by_others=False,
    plan=fitting_marks,
)
DOWNPIPE = ElementKind(
    Downpipe,
    title=_downpipe_title,
    fields=downpipe_fields,
    heights=lambda pipe: (f"eave:{pipe.roof}",),
    parts=lambda placed: (part for pipe in placed[ROOF_FITTINGS].downpipes for part in downpipe_parts(pipe)),
    cut_by_others=False,
    plan=downpipe_marks,
)
