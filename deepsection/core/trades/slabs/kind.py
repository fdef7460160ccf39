"""Porch slabs: how they are placed, built and drawn in plan."""

from __future__ import annotations

from ...building.kind import ElementKind
from ...building.placed import Stage
from ...model import PorchSlab
from ..levels.place import sum_id
from .fields import slab_fields
from .parts import slab_parts
from .place import place_slabs
from .placed import SLABS
from .plan import slab_marks

SLAB_STAGE = Stage(SLABS, place_slabs, sums=lambda slabs, _: (held.high for held in slabs))
PORCH_SLAB = ElementKind(
    PorchSlab,
    title=lambda project, slab: (slab.name, "on the ground"),
    fields=slab_fields,
    heights=lambda slab: (f"top:{slab.id}", sum_id(slab.level)),
    parts=lambda placed: (part for held in placed[SLABS] for part in slab_parts(held)),
    plan=slab_marks,
)
