"""Ceilings, and the vaults beside them: how they are placed and built."""

from __future__ import annotations

from collections.abc import Iterator

import shapely

from ...building.kind import ElementKind
from ...building.parts import Part
from ...building.placed import Placed, Stage
from ...model import Ceiling
from ..floors.chimneys import chimney_holes
from ..floors.kind import own_title
from ..floors.place import FLOORS
from ..levels.place import sum_id
from ..levels.placed import LEVELS
from ..lofts.place import HATCHES
from ..posts.placed import BEAMS
from ..roofs.placed import ROOFS
from ..rooms.placed import ROOMS
from ..walls.bodies import WALL_TOPS
from ..walls.planned import WALLS
from ..walls.tops import gable_footprints
from .checks import ceiling_advice, ceiling_table
from .fields import ceiling_fields
from .open_vaults import open_vaults
from .parts import ceiling_parts
from .place import CEILINGS, CeilingPlan, plan_ceiling
from .vaults import VAULTS, Vault, plan_vaults, vault_parts


def _place_vaults(placed: Placed) -> dict[str, tuple[Vault, ...]]:
    project, rooms = placed.project, placed[ROOMS]
    vaults = plan_vaults(project, rooms, placed[ROOFS], placed[LEVELS], placed.findings)
    placed.findings += open_vaults(project, rooms, vaults, placed[WALLS], placed[WALL_TOPS])
    return vaults


def _place_ceilings(placed: Placed) -> tuple[CeilingPlan, ...]:
    return tuple(_ceilings(placed))


def _ceilings(placed: Placed) -> Iterator[CeilingPlan]:
    plan, tops = placed[WALLS], placed[WALL_TOPS]
    for ceiling in placed.project.ceilings:
        level = placed[LEVELS][ceiling.level]
        under = [wall for wall in plan.walls if wall.wall.top.level == ceiling.level]
        gables = shapely.union_all([gable for wall in under for gable in gable_footprints(wall, tops[wall.wall.id])])
        own = placed[VAULTS].get(ceiling.level, ())
        spaces = shapely.union_all([vault.area for vault in own])
        yield plan_ceiling(
            ceiling,
            plan,
            placed.project.make_ups,
            shapely.union_all([held.area for held in placed[FLOORS] if held.under.id == ceiling.level]),
            placed[ROOFS],
            gables,
            spaces,
            placed[BEAMS],
            chimney_holes(placed, level.z),
            tuple((held.hatch.id, held.framed) for held in placed[HATCHES] if held.ceiling.id == ceiling.id),
            level,
        )


def _ceiling_parts(placed: Placed) -> Iterator[Part]:
    for flat in placed[CEILINGS]:
        ceiling, make_up = flat.ceiling, placed.make_ups[flat.ceiling.make_up]
        own = placed[VAULTS].get(ceiling.level, ())
        yield from vault_parts(ceiling, make_up, own, flat.level)
        yield from ceiling_parts(ceiling, make_up, flat.bays, flat.boards, flat.level)


VAULT_STAGE = Stage(VAULTS, _place_vaults)
CEILING_STAGE = Stage(CEILINGS, _place_ceilings)
CEILING = ElementKind(
    Ceiling,
    title=own_title,
    fields=ceiling_fields,
    heights=lambda ceiling: (sum_id(ceiling.level),),
    outcome=lambda placed, ceiling: next(
        (ceiling_table(placed, flat) for flat in placed[CEILINGS] if flat.ceiling.id == ceiling.id), ()
    ),
    parts=_ceiling_parts,
    advice=ceiling_advice,
)
