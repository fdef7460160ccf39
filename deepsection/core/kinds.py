"""Every kind of element, in the order in which plans show them, and every stage, in the order in which they run."""

from __future__ import annotations

from functools import cache
from typing import Any

from .building.kind import ElementKind
from .building.placed import Stage
from .trades.backgrounds.kind import BACKGROUND, MODEL_BODY
from .trades.buildups.kind import BUILD_UP_SETTING
from .trades.ceilings.kind import CEILING, CEILING_STAGE, VAULT_STAGE
from .trades.comments.kind import COMMENT
from .trades.decks.kind import DECK, DECK_STAGE
from .trades.drawings.kind import DETAIL, ELEVATION, NOTE, SECTION, SHEET, SHOW, WALL_SECTION
from .trades.floors.kind import FLOOR, FLOOR_HOLE, FLOOR_STAGE
from .trades.foundations.kind import FOUNDATION, FOUNDATION_STAGE, FOUNDATION_STEP, SET_DOWN
from .trades.ground.kind import GROUND_STAGE, SPOT, STEP
from .trades.levels.kind import LEVEL, LEVEL_STAGE
from .trades.lines.kind import CONSTRUCTION, GRID
from .trades.loads.kind import LOAD_STAGE
from .trades.lofts.kind import HATCH_STAGE, LOFT_HATCH
from .trades.makeups.kind import MAKE_UP
from .trades.onroofs.kind import CHIMNEY, DOWNPIPE, FITTING, ON_ROOF_STAGE
from .trades.openings.kind import KIND, OPENING, OPENING_STAGE
from .trades.outdoors.kind import OUTSIDE_STEPS, RAIL, RAIL_STAGE, STEPS_STAGE
from .trades.posts.kind import BEAM, BEAM_STAGE, POST, POST_STAGE
from .trades.readings.kind import PLAN_READ
from .trades.roofs.kind import ROOF, ROOF_STAGE
from .trades.rooms.kind import ROOM, ROOM_STAGE
from .trades.slabs.kind import PORCH_SLAB, SLAB_STAGE
from .trades.stairs.kind import STAIR, STAIR_STAGE
from .trades.walls.kind import FREE_JOINT, MOULDING_STAGE, SAVED_WALL, TEE_JOINT, WALL, WALL_STAGE, WALL_TOP_STAGE

STAGES: tuple[Stage[Any], ...] = (
    LEVEL_STAGE,
    WALL_STAGE,
    FOUNDATION_STAGE,
    OPENING_STAGE,
    # Before floors: these are left open where stairs arrive, and carried by beams.
    POST_STAGE,
    BEAM_STAGE,
    SLAB_STAGE,
    STAIR_STAGE,
    FLOOR_STAGE,
    DECK_STAGE,
    ROOF_STAGE,
    WALL_TOP_STAGE,
    MOULDING_STAGE,
    GROUND_STAGE,
    ON_ROOF_STAGE,
    STEPS_STAGE,
    RAIL_STAGE,
    ROOM_STAGE,
    VAULT_STAGE,
    HATCH_STAGE,
    CEILING_STAGE,
    LOAD_STAGE,
)
"""No stage reads a later one."""

KINDS: tuple[ElementKind, ...] = (
    LEVEL,
    MAKE_UP,
    CONSTRUCTION,
    # Under the walls: of a wall that stands on a grid line, the wall is what a click means.
    GRID,
    SPOT,
    STEP,
    FOUNDATION_STEP,
    SET_DOWN,
    FREE_JOINT,
    TEE_JOINT,
    SAVED_WALL,
    WALL,
    ROOF,
    KIND,
    OPENING,
    FOUNDATION,
    FLOOR,
    FLOOR_HOLE,
    DECK,
    PORCH_SLAB,
    STAIR,
    CEILING,
    LOFT_HATCH,
    POST,
    BEAM,
    OUTSIDE_STEPS,
    RAIL,
    CHIMNEY,
    FITTING,
    DOWNPIPE,
    ROOM,
    SECTION,
    WALL_SECTION,
    ELEVATION,
    DETAIL,
    BUILD_UP_SETTING,
    SHOW,
    BACKGROUND,
    PLAN_READ,
    MODEL_BODY,
    NOTE,
    COMMENT,
    SHEET,
)


@cache
def kind_for(model: type) -> ElementKind:
    """The declaration of a class of elements. Raises: LookupError."""
    for kind in KINDS:
        if kind.model is model:
            return kind
    raise LookupError(f"the kind of element {model.__name__} is not declared")
