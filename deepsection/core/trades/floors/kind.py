"""Floors and the holes in them: how they are placed and built."""

from __future__ import annotations

from collections.abc import Callable, Iterator

from shapely.geometry import Polygon

from ...building.kind import ElementKind
from ...building.parts import Part
from ...building.placed import Key, Placed, Stage
from ...document.rebuilding import get_element
from ...model import Ceiling, Deck, Floor, FloorHole, Project
from ...rows.outcome import OutcomeTable
from ..levels.place import sum_id
from ..levels.placed import LEVELS
from ..makeups.fields import make_up_name
from ..posts.placed import BEAMS
from ..stairs.placed import STAIRS
from ..walls.planned import WALLS
from .built_in import around_floors
from .chimneys import chimney_holes
from .fields import floor_fields, hole_fields
from .hole_plan import hole_checks, hole_marks
from .parts import floor_parts
from .place import FLOORS, FloorPlan, plan_floor
from .span_checks import floor_advice, span_table


def _place(placed: Placed) -> tuple[FloorPlan, ...]:
    project, floors = placed.project, []
    for floor in project.floors:
        made, faults = plan_floor(
            floor,
            placed[WALLS],
            project.make_ups,
            project.foundations,
            tuple(placed[LEVELS].values()),
            _holes(placed, floor),
            tuple(deck for deck in project.decks if deck.level == floor.level),
            placed[BEAMS],
        )
        floors.append(made)
        placed.findings += faults
    return tuple(floors)


def _holes(placed: Placed, floor: Floor) -> tuple[tuple[str, Polygon], ...]:
    """What is left open of a floor: where stairs arrive, where chimneys go through, and what was drawn."""
    levels = placed[LEVELS]
    stairs = [(held.stair.id, held.hole) for held in placed[STAIRS] if held.stair.upper == floor.level and held.hole]
    drawn = [(hole.id, Polygon(hole.corners)) for hole in placed.project.floor_holes if hole.floor == floor.id]
    return (*stairs, *chimney_holes(placed, levels[floor.bearing].z), *drawn)


def parts_of(key: Key[tuple[FloorPlan, ...]]) -> Callable[[Placed], Iterator[Part]]:
    """The parts of the floors, or of the decks."""

    def parts(placed: Placed) -> Iterator[Part]:
        for flat in placed[key]:
            make_up = placed.make_ups[flat.floor.make_up]
            yield from floor_parts(
                flat.floor,
                make_up,
                flat.bays,
                flat.rims,
                (flat.over, flat.below),
                flat.under,
                flat.top,
                flat.closed,
                flat.upstand,
            )

    return parts


def own_title(project: Project, held: Floor | Deck | Ceiling) -> tuple[str, str]:
    """Name and make-up of what lies."""
    return held.name, make_up_name(project, held.make_up)


def outcome_of(key: Key[tuple[FloorPlan, ...]]) -> Callable[[Placed, Floor | Deck], tuple[OutcomeTable, ...]]:
    """What is said of the spans of a floor or deck."""

    def outcome(placed: Placed, floor: Floor | Deck) -> tuple[OutcomeTable, ...]:
        flat = next((held for held in placed[key] if held.floor.id == floor.id), None)
        return span_table(placed, flat) if flat else ()

    return outcome


FLOOR_STAGE = Stage(FLOORS, _place)
FLOOR = ElementKind(
    Floor,
    title=own_title,
    fields=floor_fields,
    heights=lambda floor: (sum_id(floor.level), sum_id(floor.bearing)),
    outcome=outcome_of(FLOORS),
    parts=parts_of(FLOORS),
    cuts=around_floors,
    advice=floor_advice,
)
FLOOR_HOLE = ElementKind(
    FloorHole,
    title=lambda project, hole: (hole.name, f"in {get_element(project, hole.floor, Floor).name}"),
    fields=hole_fields,
    plan=hole_marks,
    checks=hole_checks,
)
