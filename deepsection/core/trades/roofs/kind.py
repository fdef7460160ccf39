"""Roofs: how blocks are placed, built and drawn in plan, and what came of them."""

from __future__ import annotations

from collections.abc import Iterator

import shapely

from ...building.kind import ElementKind
from ...building.parts import Part
from ...building.placed import Placed, Stage
from ...model import Project, RoofBlock
from ...rows.outcome import OutcomeTable
from ...units import HeightSum
from ..levels.placed import LEVELS
from ..onroofs.parts import Penetration, penetrations
from ..onroofs.placed import ROOF_FITTINGS
from ..walls.planned import WALLS
from .fields import roof_fields
from .outcome import roof_outcome
from .parts import roof_parts
from .place import place_roofs
from .placed import ROOFS, ResolvedRoof
from .plan import roof_plan_of


def _place(placed: Placed) -> tuple[ResolvedRoof, ...]:
    return place_roofs(placed.project, placed[WALLS], placed[LEVELS], placed.make_ups, placed.findings)


def _sums(roofs: tuple[ResolvedRoof, ...], _: Placed) -> Iterator[HeightSum]:
    for roof in roofs:
        yield from (roof.heel, *(eave for _, eave in roof.eaves), roof.ridge_top, *roof.proofs)


def _parts(placed: Placed) -> Iterator[Part]:
    holes = penetrations(placed[ROOF_FITTINGS])
    for roof in placed[ROOFS]:
        yield from roof_parts(roof, placed.make_ups[roof.block.make_up], _over(roof, holes))


def _over(roof: ResolvedRoof, holes: tuple[Penetration, ...]) -> tuple[Penetration, ...]:
    """The holes that a roof may have: one that has none is not built anew for the others."""
    cover = shapely.union_all([plane.whole for plane in roof.planes])
    x0, y0, x1, y1 = cover.bounds
    reaches = (hole.body.reach for hole in holes)
    return tuple(
        hole for hole, at in zip(holes, reaches) if at.x0 <= x1 and at.x1 >= x0 and at.y0 <= y1 and at.y1 >= y0
    )


def _outcome(placed: Placed, block: RoofBlock) -> tuple[OutcomeTable, ...]:
    roof = next((held for held in placed[ROOFS] if held.block.id == block.id), None)
    return roof_outcome(roof, placed.project.units) if roof else ()


def _title(project: Project, roof: RoofBlock) -> tuple[str, str]:
    return roof.name, "roof"


ROOF_STAGE = Stage(ROOFS, _place, sums=_sums)
ROOF = ElementKind(
    RoofBlock,
    title=_title,
    fields=roof_fields,
    heights=lambda roof: (f"ridge:{roof.id}", f"eave:{roof.id}", f"heel:{roof.id}"),
    outcome=_outcome,
    parts=_parts,
    cut_by_others=False,
    plan=roof_plan_of,
)
