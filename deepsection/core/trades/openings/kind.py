"""Windows, doors and niches, and the kinds that they follow: how they are placed, built, drawn and checked."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator
from dataclasses import replace
from functools import lru_cache

from ...building.diagnostics import Diagnostic
from ...building.kind import ElementKind
from ...building.parts import Part
from ...building.placed import Placed, Stage
from ...model import Kind, Opening, Project
from ...units import HeightSum
from ..levels.placed import LEVELS
from ..makeups.fields import make_up_name
from ..roofs.placed import ROOFS
from ..walls.bodies import WALL_TOPS, leaning
from ..walls.planned import WALLS, PlannedWall
from ..walls.tops import plate_sum
from .fields import kind_fields, opening_fields
from .headers import roofs_before, squeezed_headers
from .place import place_openings
from .placed import OPENINGS, PlacedOpening
from .plan import opening_plan_marks
from .returns import return_parts
from .swings import swing_faults
from .units import unit_parts


def _place(placed: Placed) -> dict[str, tuple[PlacedOpening, ...]]:
    project, levels = placed.project, placed[LEVELS]
    in_wall: dict[str, list[tuple[Opening, Kind | None]]] = defaultdict(list)
    kinds = {kind.id: kind for kind in project.kinds}
    for opening in project.openings:
        in_wall[opening.wall].append((opening, kinds.get(opening.kind or "")))
    made = {}
    for wall in placed[WALLS].walls:
        id, make_up = wall.wall.id, placed.make_ups[wall.wall.make_up]
        level, top = levels[wall.wall.base.level], plate_sum(wall, levels)
        made[id], faults = place_openings(wall, tuple(in_wall[id]), make_up, level, top)
        placed.findings += faults
    return made


def _sums(made: dict[str, tuple[PlacedOpening, ...]], _: Placed) -> Iterator[HeightSum]:
    for opening in (opening for own in made.values() for opening in own):
        yield opening.sill
        yield opening.head


def _parts(placed: Placed) -> Iterator[Part]:
    for wall in placed[WALLS].walls:
        make_up, top = placed.make_ups[wall.wall.make_up], placed[WALL_TOPS][wall.wall.id]
        trimmed, shown = make_up.layers[0].function == "cladding", top.shows(wall, 0, make_up)
        for opening in placed[OPENINGS][wall.wall.id]:
            yield from return_parts(wall, make_up, opening, top.base, shown)
            unit = unit_parts(wall, opening, trimmed, shown)
            yield from unit if wall.is_plumb else _lean(unit, wall, top.base)


@lru_cache(maxsize=256)
def _lean(parts: tuple[Part, ...], wall: PlannedWall, base: float) -> tuple[Part, ...]:
    """What stands in an opening, leaning with its wall."""
    return tuple(replace(part, solid=leaning(wall, part.solid, base)) for part in parts)


def _checks(placed: Placed) -> Iterator[Diagnostic]:
    project, plan = placed.project, placed[WALLS]
    yield from swing_faults(project, plan, placed[OPENINGS])
    for wall in plan.walls:
        own, make_up = placed[OPENINGS][wall.wall.id], placed.make_ups[wall.wall.make_up]
        yield from squeezed_headers(project, wall, make_up, own, placed[WALL_TOPS][wall.wall.id])
        yield from roofs_before(wall, own, placed[ROOFS])


def _title(project: Project, opening: Opening) -> tuple[str, str]:
    wall = project.walls_by_id[opening.wall]
    number = project.number_of(opening)
    return f"{opening.unit.capitalize()} {number}", f"in a wall of {make_up_name(project, wall.make_up)}"


def _kind_title(project: Project, kind: Kind) -> tuple[str, str]:
    count = sum(opening.kind == kind.id for opening in project.openings)
    return kind.name[:1].upper() + kind.name[1:], f"kind of {kind.unit}, followed by {count or 'none'}"


OPENING_STAGE = Stage(OPENINGS, _place, sums=_sums)
KIND = ElementKind(Kind, title=_kind_title, fields=kind_fields)
OPENING = ElementKind(
    Opening,
    title=_title,
    fields=opening_fields,
    heights=lambda opening: (f"head:{opening.id}", f"sill:{opening.id}"),
    make_up=lambda project, opening: project.walls_by_id[opening.wall].make_up,
    parts=_parts,
    plan=opening_plan_marks,
    checks=_checks,
)
