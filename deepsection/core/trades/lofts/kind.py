"""Loft hatches: how they are placed, built, drawn in plan and section."""

from __future__ import annotations

from collections.abc import Iterator

from ...building.kind import ElementKind
from ...building.parts import Part
from ...building.placed import Placed, Stage
from ...model import LoftHatch
from ..levels.place import sum_id
from .fields import hatch_fields
from .parts import hatch_parts
from .place import HATCHES, place_hatches
from .plan import hatch_marks, hatch_section_marks


def _parts(placed: Placed) -> Iterator[Part]:
    for held in placed[HATCHES]:
        layers = placed.make_ups[held.ceiling.make_up].layers
        yield from hatch_parts(held, next((layer.thickness for layer in layers if layer.framing), 0.0))


HATCH_STAGE = Stage(HATCHES, place_hatches)
LOFT_HATCH = ElementKind(
    LoftHatch,
    title=lambda project, hatch: (hatch.name, "in the ceiling, with a ladder" if hatch.ladder != "none" else "a flap"),
    fields=hatch_fields,
    heights=lambda hatch: (sum_id(hatch.level),),
    parts=_parts,
    plan=hatch_marks,
    section=hatch_section_marks,
)
