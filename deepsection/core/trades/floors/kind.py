"""Floors and ceilings: how they are placed and built."""

from __future__ import annotations

from collections.abc import Callable, Iterator

import shapely
from shapely.geometry import Polygon

from ...building.kind import ElementKind
from ...building.parts import Part
from ...building.placed import Key, Placed, Stage
from ...document.rebuilding import get_element
from ...geometry.outlines import turned_rectangle
from ...model import Ceiling, Deck, Floor, FloorHole, Project
from ...rows.outcome import OutcomeTable
from ..levels.place import sum_id
from ..levels.placed import LEVELS
from ..lofts.place import HATCHES
from ..makeups.fields import make_up_name
from ..onroofs.parts import KEPT_OFF
from ..posts.placed import BEAMS
from ..roofs.placed import ROOFS
from ..rooms.placed import ROOMS
from ..stairs.placed import STAIRS
from ..walls.bodies import WALL_TOPS
from ..walls.planned import WALLS
from ..walls.tops import gable_footprints
from .built_in import around_floors
from .ceiling_checks import ceiling_checks, ceiling_table
from .ceilings import CEILINGS, CeilingPlan, plan_ceiling
from .deck_checks import deck_checks
from .deck_fields import deck_fields
from .deck_parts import against_ledgers
from .deck_place import DECKS, deck_sums, place_decks
from .deck_plan import deck_marks
from .fields import ceiling_fields, floor_fields, hole_fields
from .hole_plan import hole_checks, hole_marks
from .open_vaults import open_vaults
from .parts import ceiling_parts, floor_parts
from .place import FLOORS, FloorPlan, plan_floor
from .span_checks import floor_checks, span_table
from .vaults import VAULTS, Vault, plan_vaults, vault_parts


def _place(placed: Placed) -> tuple[FloorPlan, ...]:
    project, plan, levels = placed.project, placed[WALLS], placed[LEVELS]
    return tuple(
        plan_floor(
            floor,
            plan,
            placed.make_ups,
            project.foundations,
            levels,
            _holes(placed, floor),
            tuple(deck for deck in project.decks if deck.level == floor.level),
            placed[BEAMS],
            placed.findings,
        )
        for floor in project.floors
    )


def _holes(placed: Placed, floor: Floor) -> tuple[tuple[str, Polygon], ...]:
    """What is left open of a floor: where stairs arrive, where chimneys go through, and what was drawn."""
    levels = placed[LEVELS]
    stairs = [(held.stair.id, held.hole) for held in placed[STAIRS] if held.stair.upper == floor.level and held.hole]
    drawn = [(hole.id, Polygon(hole.corners)) for hole in placed.project.floor_holes if hole.floor == floor.id]
    return (*stairs, *_chimneys(placed, levels[floor.bearing].z), *drawn)


def _chimneys(placed: Placed, z: float) -> tuple[tuple[str, Polygon], ...]:
    """The chimneys that begin below a height, each with what framing keeps off."""
    levels = placed[LEVELS]
    return tuple(
        (held.id, turned_rectangle(held.x, held.y, held.width + 2 * KEPT_OFF, held.depth + 2 * KEPT_OFF, held.turn))
        for held in placed.project.chimneys
        if levels[held.base.level].z + held.base.offset < z
    )


def _place_vaults(placed: Placed) -> dict[str, tuple[Vault, ...]]:
    project, rooms = placed.project, placed[ROOMS]
    vaults = plan_vaults(project, rooms, placed[ROOFS], placed[LEVELS], placed.findings)
    placed.findings += open_vaults(project, rooms, vaults, placed[WALLS], placed[WALL_TOPS])
    return vaults


def _parts_of(key: Key[tuple[FloorPlan, ...]]) -> Callable[[Placed], Iterator[Part]]:
    """The parts of the floors, or of the decks."""

    def parts(placed: Placed) -> Iterator[Part]:
        for flat in placed[key]:
            make_up = placed.make_ups[flat.floor.make_up]
            yield from floor_parts(
                flat.floor, make_up, flat.bays, flat.rims, (flat.over, flat.below), flat.under, flat.top, flat.closed
            )

    return parts


def _place_ceilings(placed: Placed) -> tuple[CeilingPlan, ...]:
    return tuple(_ceilings(placed))


def _ceilings(placed: Placed) -> Iterator[CeilingPlan]:
    plan, tops, make_ups = placed[WALLS], placed[WALL_TOPS], placed.make_ups
    for ceiling in placed.project.ceilings:
        level = placed[LEVELS][ceiling.level]
        under = [wall for wall in plan.walls if wall.wall.top.level == ceiling.level]
        gables = shapely.union_all([gable for wall in under for gable in gable_footprints(wall, tops[wall.wall.id])])
        own = placed[VAULTS].get(ceiling.level, ())
        spaces = shapely.union_all([vault.area for vault in own])
        yield plan_ceiling(
            ceiling,
            plan,
            make_ups,
            placed[FLOORS],
            placed[ROOFS],
            gables,
            spaces,
            placed[BEAMS],
            _chimneys(placed, level.z),
            tuple((held.hatch.id, held.framed) for held in placed[HATCHES] if held.ceiling.id == ceiling.id),
            level,
        )


def _ceiling_parts(placed: Placed) -> Iterator[Part]:
    for flat in placed[CEILINGS]:
        ceiling, make_up = flat.ceiling, placed.make_ups[flat.ceiling.make_up]
        own = placed[VAULTS].get(ceiling.level, ())
        yield from vault_parts(ceiling, make_up, own, flat.level)
        yield from ceiling_parts(ceiling, make_up, flat.bays, flat.boards, flat.level)


def _title(project: Project, held: Floor | Deck | Ceiling) -> tuple[str, str]:
    return held.name, make_up_name(project, held.make_up)


def _outcome(placed: Placed, floor: Floor | Deck) -> tuple[OutcomeTable, ...]:
    flat = next((held for held in (*placed[FLOORS], *placed[DECKS]) if held.floor.id == floor.id), None)
    return span_table(placed, flat) if flat else ()


FLOOR_STAGE = Stage(FLOORS, _place)
VAULT_STAGE = Stage(VAULTS, _place_vaults)
FLOOR = ElementKind(
    Floor,
    title=_title,
    fields=floor_fields,
    heights=lambda floor: (sum_id(floor.level), sum_id(floor.bearing)),
    outcome=_outcome,
    parts=_parts_of(FLOORS),
    cuts=around_floors,
    checks=floor_checks,
)
DECK_STAGE = Stage(DECKS, place_decks, sums=deck_sums)
DECK = ElementKind(
    Deck,
    title=_title,
    fields=deck_fields,
    heights=lambda deck: (f"top:{deck.id}", f"under:{deck.id}", sum_id(deck.level)),
    outcome=_outcome,
    parts=_parts_of(DECKS),
    cuts=against_ledgers,
    plan=deck_marks,
    checks=deck_checks,
)
FLOOR_HOLE = ElementKind(
    FloorHole,
    title=lambda project, hole: (hole.name, f"in {get_element(project, hole.floor, Floor).name}"),
    fields=hole_fields,
    plan=hole_marks,
    checks=hole_checks,
)
CEILING_STAGE = Stage(CEILINGS, _place_ceilings)
CEILING = ElementKind(
    Ceiling,
    title=_title,
    fields=ceiling_fields,
    heights=lambda ceiling: (sum_id(ceiling.level),),
    outcome=lambda placed, ceiling: next(
        (ceiling_table(placed, flat) for flat in placed[CEILINGS] if flat.ceiling.id == ceiling.id), ()
    ),
    parts=_ceiling_parts,
    checks=ceiling_checks,
)
