"""Walls and the corners where they meet: how they are placed, built, drawn in plan and checked."""

from __future__ import annotations

from collections.abc import Iterator
from functools import lru_cache

import shapely
from shapely.geometry import MultiPolygon, Polygon

from ...building.diagnostics import Diagnostic
from ...building.kind import ElementKind
from ...building.parts import Part
from ...building.placed import Placed, Stage
from ...model import FreeJoint, Project, TeeJoint, Wall, bearing_layer
from ...units import HeightSum, format_length
from ..floors.edges import course_starts, floor_edges, masonry_feet
from ..floors.place import FLOORS
from ..levels.place import sum_id
from ..levels.placed import LEVELS
from ..makeups.fields import make_up_name
from ..openings.placed import OPENINGS
from ..roofs.parts import roof_parts
from ..roofs.placed import ROOFS
from .bodies import WALL_TOPS, WallTop
from .fields import wall_fields
from .joint_fields import joint_fields
from .mouldings import MOULDINGS, Mouldings, mitres_of, moulding_faults, moulding_parts, moulding_sum
from .on_roofs import on_roofs
from .over_studs_parts import TOLERANCE, rafters_off_studs
from .parts import wall_parts
from .place import plan_walls
from .plan import wall_plan_marks
from .planned import WALLS, Outline, WallPlan
from .saved_fields import saved_wall_fields
from .saved_model import SavedWall
from .slots import with_slots
from .tops import ON_EDGE, Surroundings, foot_sum, plate_sum, wall_top


def _plan(placed: Placed) -> WallPlan:
    project = placed.project
    plan = plan_walls(project.walls, project.joints, placed.make_ups_for("wall"))
    placed.findings += plan.diagnostics
    return plan


def _plan_sums(plan: WallPlan, placed: Placed) -> Iterator[HeightSum]:
    for wall in plan.walls:
        yield plate_sum(wall, placed[LEVELS])
        yield foot_sum(wall, placed[LEVELS])


def _tops(placed: Placed) -> dict[str, WallTop]:
    project, plan, make_ups = placed.project, placed[WALLS], placed.make_ups
    around = _surroundings(placed)
    tops = {wall.wall.id: wall_top(wall, around, placed.findings) for wall in plan.walls}
    placed.findings += moulding_faults(plan, tops)
    return with_slots(project, plan, make_ups, tops)


def _surroundings(placed: Placed) -> Surroundings:
    project, plan, levels = placed.project, placed[WALLS], placed[LEVELS]
    floored = {held.under.id: held.outlined for held in placed[FLOORS]}
    edges = floor_edges(project.floors, project.foundations, levels)
    return Surroundings(
        levels,
        placed[ROOFS],
        frozenset(floored) | {ceiling.level for ceiling in project.ceilings},
        floored,
        edges,
        masonry_feet(project.floors, levels, placed.make_ups),
        course_starts(project.floors, edges, plan, levels, placed.make_ups),
        {level: _inside(plan.outlines_on(level)) for level in {wall.wall.base.level for wall in plan.walls}},
    )


@lru_cache(maxsize=64)
def _inside(outlines: tuple[Outline, ...]) -> Polygon | MultiPolygon:
    """What closed outlines hold, their walls included; prepared for many questions."""
    held = shapely.union_all([outline.polygon for outline in outlines]).buffer(ON_EDGE)
    shapely.prepare(held)
    return held


def _mouldings(placed: Placed) -> Mouldings:
    plan, levels = placed[WALLS], placed[LEVELS]
    tops, feet = [], {}
    for wall in plan.walls:
        for moulding in wall.wall.mouldings:
            top = moulding_sum(wall, moulding, foot_sum(wall, levels), plate_sum(wall, levels))
            tops.append(top)
            feet[f"{wall.wall.id}:{moulding.id}"] = top.total
    return Mouldings(tuple(tops), mitres_of(plan, feet))


def _parts(placed: Placed) -> Iterator[Part]:
    roofs, openings, tops = placed[ROOFS], placed[OPENINGS], placed[WALL_TOPS]
    for wall in placed[WALLS].walls:
        own, top = openings[wall.wall.id], tops[wall.wall.id]
        yield from on_roofs(wall, roofs, wall_parts(wall, placed.make_ups[wall.wall.make_up], own, top))
        yield from moulding_parts(wall, own, top, placed[MOULDINGS].lines_of(wall.wall))


def _advice(placed: Placed) -> Iterator[Diagnostic]:
    """Rafters that stand between the studs of a wall with a single top plate."""
    units = placed.project.units
    for wall in placed[WALLS].walls:
        make_up = placed.make_ups[wall.wall.make_up]
        framing = make_up.layers[bearing_layer(make_up)].framing
        if framing is None or framing.top_plates != 1 or not wall.wall.bears:
            continue
        own, top = placed[OPENINGS][wall.wall.id], placed[WALL_TOPS][wall.wall.id]
        roofs = [(roof, roof_parts(roof, placed.make_ups[roof.block.make_up])) for roof in placed[ROOFS]]
        found = list(rafters_off_studs(wall, top.plate, wall_parts(wall, make_up, own, top), roofs))
        if found:
            off, at = max(found)
            message = (
                f"{len(found)} rafters stand between the studs of a wall with a single top plate, the worst "
                f"{format_length(off, units)} off: lay both out at one spacing from one end, or take two plates"
            )
            yield Diagnostic("rafters-off-studs", message, wall.wall.id, "make_up", off, TOLERANCE, at=at)


def _heights(wall: Wall) -> list[str]:
    own = [f"moulding:{wall.id}:{moulding.id}" for moulding in wall.mouldings]
    return [f"top:{wall.id}", f"foot:{wall.id}", sum_id(wall.top.level), sum_id(wall.base.level), *own]


def _title(project: Project, wall: Wall) -> tuple[str, str]:
    return f"{wall.status.capitalize()} wall", make_up_name(project, wall.make_up)


WALL_STAGE = Stage(WALLS, _plan, sums=_plan_sums)
MOULDING_STAGE = Stage(MOULDINGS, _mouldings, sums=lambda held, _: held.tops)
WALL_TOP_STAGE = Stage(WALL_TOPS, _tops)
FREE_JOINT = ElementKind(
    FreeJoint, title=lambda project, joint: ("Corner", "a place where walls meet"), fields=joint_fields
)
TEE_JOINT = ElementKind(
    TeeJoint, title=lambda project, joint: ("Tee", "where a wall ends on another one"), fields=joint_fields
)
SAVED_WALL = ElementKind(
    SavedWall,
    title=lambda project, saved: (saved.name, f"a wall of {make_up_name(project, saved.make_up)}, kept for others"),
    fields=saved_wall_fields,
)
WALL = ElementKind(
    Wall, title=_title, fields=wall_fields, heights=_heights, parts=_parts, plan=wall_plan_marks, advice=_advice
)
