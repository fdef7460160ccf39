"""The stages in order. Each is a function of the values it is given; `resolve` only threads them."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Callable
from contextlib import nullcontext
from dataclasses import replace
from functools import lru_cache
from typing import Any

import shapely
from shapely.geometry import LineString, MultiPolygon, Polygon
from shapely.geometry import Point as ShapelyPoint

from ..geometry import Solid
from ..model import Kind, MakeUp, Opening, Project, Room
from ..units import HeightSum
from .building import (
    Building,
    Diagnostic,
    Level,
    Outline,
    Part,
    PlacedBeam,
    PlacedOpening,
    PlacedPost,
    PlannedWall,
    RoomSpace,
    WallPlan,
)
from .floors.joists import ceiling_parts, floor_parts
from .floors.open_vaults import open_vaults
from .floors.place import FloorPlan, course_starts, floor_edges, plan_ceiling, plan_floor
from .floors.vaults import Vault, plan_vaults, vault_parts
from .foundations.carried import on_nothing
from .foundations.parts import FoundationLevels, foot_faces, foundation_parts
from .ground.checks import ground_faults, ground_sums
from .ground.surface import Ground
from .levels import resolve_levels, storeys
from .onroofs.model import OnRoofs
from .onroofs.parts import Piercing, on_roof_parts, passed, piercings
from .onroofs.place import place_on_roofs
from .openings.headers import roofs_before, squeezed_headers
from .openings.place import place_openings
from .openings.returns import return_parts
from .openings.swings import swing_faults
from .openings.units import unit_parts
from .outdoors.place import place_rails, place_steps, rail_parts, steps_parts
from .outdoors.posts import beam_parts, place_beams, place_posts, post_parts
from .roofs.eaves import downpipe_parts
from .roofs.model import ResolvedRoof
from .roofs.parts import roof_parts
from .roofs.place import place_roofs
from .walls.bodies import WallTop, leaning, opening_hole
from .walls.make_up_names import name_faults
from .walls.make_ups import order_faults
from .walls.mouldings import Mitres, mitres_of, moulding_faults, moulding_parts, moulding_sum
from .walls.on_roofs import above_all, decks_below, on_roofs
from .walls.parts import layer_bodies, wall_parts
from .walls.plan import plan_walls
from .walls.slots import with_slots
from .walls.tops import ON_EDGE, Surroundings, foot_sum, gable_footprints, plate_sum, wall_top

STAGES = ("levels", "wall plan", "openings", "floors", "roof planes", "wall tops", "solids")

Timer = Callable[[str], Any]


def resolve(project: Project, *, timer: Timer | None = None) -> Building:
    """The building of a project. `timer(stage)` may return a context to measure a stage in."""
    clock = timer or (lambda stage: nullcontext())
    make_ups = {make_up.id: make_up for make_up in project.make_ups}
    with clock("levels"):
        levels = resolve_levels(project.rungs, _of_use(project, "floor"))
    with clock("wall plan"):
        plan = plan_walls(project.walls, project.joints, _of_use(project, "wall"))
    found = list(plan.diagnostics)
    with clock("openings"):
        openings = _openings(project, plan, levels, make_ups, found)
    with clock("floors"):
        floors = tuple(
            plan_floor(floor, plan, make_ups, project.foundations, levels, found) for floor in project.floors
        )
    with clock("roof planes"):
        roofs = place_roofs(project, plan, levels, make_ups, found)
    with clock("wall tops"):
        around = _around(project, plan, levels, make_ups, floors, roofs)
        tops = {wall.wall.id: wall_top(wall, around, found) for wall in plan.walls}
        tops = with_slots(project, plan, make_ups, tops)
    grade = next((level.z for level in levels.values() if level.surface == "grade"), 0.0)
    ground = Ground(grade, project.spots, project.steps)
    on_top = place_on_roofs(project, roofs, levels, ground, found)
    posts, beams = place_posts(project, levels, found), place_beams(project, levels, found)
    steps, rails = place_steps(project, levels, ground, found), place_rails(project, levels, found)
    mouldings, mitres = _mouldings(plan, levels)
    found += moulding_faults(plan, tops)

    lowest = storeys(project)[0].level
    rooms = tuple(room_space(room, plan, lowest) for room in project.rooms)
    found += [
        Diagnostic(
            "room-open",
            f"{space.room.name} is not enclosed by walls",
            space.room.id,
            at=(space.room.x, space.room.y),
        )
        for space in rooms
        if space.space is None
    ]
    vaults = plan_vaults(project, rooms, roofs, levels, found)
    found += open_vaults(project, rooms, vaults, plan, tops)

    def make_parts() -> tuple[Part, ...]:
        return (
            _parts(project, plan, levels, make_ups, openings, floors, roofs, tops, posts, beams, mitres, on_top, vaults)
            + tuple(part for held in steps for part in steps_parts(held))
            + tuple(part for held in rails for part in rail_parts(held))
        )

    found += _missed_sections(project, plan)
    found += on_nothing(project, plan, levels, make_ups)
    found += swing_faults(project, plan, openings)
    for id in dict.fromkeys(wall.make_up for wall in project.walls):
        found += (*order_faults(make_ups[id]), *name_faults(make_ups[id]))
    sums = {level.sum.id: level.sum for level in levels.values()}
    for placed in (opening for held in openings.values() for opening in held):
        sums[placed.sill.id], sums[placed.head.id] = placed.sill, placed.head
    for own in (height for wall in plan.walls for height in (plate_sum(wall, levels), foot_sum(wall, levels))):
        sums.setdefault(own.id, own)
    for held in (*(end for post in posts for end in (post.foot, post.top)), *(beam.top for beam in beams)):
        sums.setdefault(held.id, held)
    for above in (*(held.top for held in steps), *(held.foot for held in rails)):
        sums.setdefault(above.id, above)
    for roof in roofs:
        sums.update({s.id: s for s in (roof.heel, *(eave for _, eave in roof.eaves), roof.ridge_top, *roof.proofs)})
    sums.update({height.id: height for height in mouldings})
    sums.update({height.id: height for height in on_top.sums})
    sums.update({height.id: height for height in ground_sums(project, levels)})
    found += ground_faults(ground, plan, levels, project)
    for wall in plan.walls:
        in_wall = openings[wall.wall.id]
        found += squeezed_headers(project, wall, make_ups[wall.wall.make_up], in_wall, tops[wall.wall.id])
        found += roofs_before(wall, in_wall, roofs)
    walls = plan.by_id

    def bodies(id: str) -> tuple[tuple[str, Solid], ...]:
        wall = walls[id]
        layers = layer_bodies(wall, make_ups[wall.wall.make_up], tops[id])
        lines = tuple(mitres[id, held.id] for held in wall.wall.mouldings)
        run = zip(wall.wall.mouldings, moulding_parts(wall, openings[id], tops[id], lines))
        decks = decks_below(wall, roofs)
        return (
            *((name, above_all(body, decks)) for name, body in layers),
            *((held.id, part.solid) for held, part in run),
        )

    def hole(id: str, placed: PlacedOpening) -> Solid | None:
        wall = walls[id]
        body = opening_hole(wall, placed, wall.inner, wall.outer)
        return leaning(wall, body, tops[id].base) if body is not None else None

    totals = {id: height.total for id, height in sums.items()}
    building = Building(
        levels,
        plan,
        openings,
        bodies,
        hole,
        mitres,
        posts,
        beams,
        roofs,
        rooms,
        make_parts,
        sums,
        tuple(found),
        ground,
        totals,
        on_top,
        steps,
        rails,
    )
    if timer:
        with clock("solids"):
            building.parts  # noqa: B018
    return building


def _mouldings(plan: WallPlan, levels: dict[str, Level]) -> tuple[list[HeightSum], dict[tuple[str, str], Mitres]]:
    """The heights of all mouldings, and the lines in plan that end them."""
    sums, feet = [], {}
    for wall in plan.walls:
        for held in wall.wall.mouldings:
            top = moulding_sum(wall, held, foot_sum(wall, levels), plate_sum(wall, levels))
            sums.append(top)
            feet[f"{wall.wall.id}:{held.id}"] = top.total
    return sums, mitres_of(plan, feet)


def _of_use(project: Project, use: str) -> tuple[MakeUp, ...]:
    """The make-ups of one use: a stage that reads no others is not built anew when others change."""
    return tuple(make_up for make_up in project.make_ups if make_up.use == use)


def _around(
    project: Project,
    plan: WallPlan,
    levels: dict[str, Level],
    make_ups: dict[str, MakeUp],
    floors: tuple[FloorPlan, ...],
    roofs: tuple[ResolvedRoof, ...],
) -> Surroundings:
    floored = {held.floor.bearing: held.outlined for held in floors}
    edges = floor_edges(project.floors, project.foundations, levels)
    return Surroundings(
        levels,
        roofs,
        frozenset(floored) | {ceiling.level for ceiling in project.ceilings},
        floored,
        edges,
        course_starts(project.floors, edges, plan, levels, make_ups),
        {level: _inside(plan.outlines_on(level)) for level in {wall.wall.base.level for wall in plan.walls}},
    )


@lru_cache(maxsize=64)
def _inside(outlines: tuple[Outline, ...]) -> Polygon | MultiPolygon:
    """What closed outlines hold, their walls included; prepared for many questions."""
    held = shapely.union_all([outline.polygon for outline in outlines]).buffer(ON_EDGE)
    shapely.prepare(held)
    return held


def _openings(
    project: Project, plan: WallPlan, levels: dict[str, Level], make_ups: dict[str, MakeUp], found: list[Diagnostic]
) -> dict[str, tuple[PlacedOpening, ...]]:
    held: dict[str, list[tuple[Opening, Kind | None]]] = defaultdict(list)
    kinds = {kind.id: kind for kind in project.kinds}
    for opening in project.openings:
        held[opening.wall].append((opening, kinds.get(opening.kind or "")))
    placed = {}
    for wall in plan.walls:
        top = plate_sum(wall, levels)
        placed[wall.wall.id], faults = place_openings(
            wall, tuple(held[wall.wall.id]), make_ups[wall.wall.make_up], levels[wall.wall.base.level], top
        )
        found += faults
    return placed


def _parts(
    project: Project,
    plan: WallPlan,
    levels: dict[str, Level],
    make_ups: dict[str, MakeUp],
    openings: dict[str, tuple[PlacedOpening, ...]],
    floors: tuple[FloorPlan, ...],
    roofs: tuple[ResolvedRoof, ...],
    tops: dict[str, WallTop],
    posts: tuple[PlacedPost, ...],
    beams: tuple[PlacedBeam, ...],
    mitres: dict[tuple[str, str], Mitres],
    on_top: OnRoofs,
    vaults: dict[str, tuple[Vault, ...]],
) -> tuple[Part, ...]:
    parts: list[Part] = []
    for wall in plan.walls:
        make_up = make_ups[wall.wall.make_up]
        placed = openings[wall.wall.id]
        parts += on_roofs(wall, roofs, wall_parts(wall, make_up, placed, tops[wall.wall.id]))
        lines = tuple(mitres[wall.wall.id, held.id] for held in wall.wall.mouldings)
        parts += moulding_parts(wall, placed, tops[wall.wall.id], lines)
        trimmed = make_up.layers[0].function == "cladding"
        for opening in placed:
            held = unit_parts(wall, opening, trimmed, tops[wall.wall.id].shows(wall, 0, make_up))
            shown = tops[wall.wall.id].shows(wall, 0, make_up)
            parts += return_parts(wall, make_up, opening, tops[wall.wall.id].base, shown)
            parts += held if wall.is_plumb else _lean(held, wall, tops[wall.wall.id].base)
    holes = piercings(on_top)
    roofing = [part for roof in roofs for part in roof_parts(roof, make_ups[roof.block.make_up], _over(roof, holes))]
    for foundation in project.foundations:
        walls = tuple(w for w in plan.on(foundation.level) if w.wall.status == "outer")
        parts += foundation_parts(
            foundation,
            make_ups[foundation.slab] if foundation.slab else None,
            walls,
            project.joints,
            tuple(foot_faces(wall, make_ups[wall.wall.make_up]) for wall in walls),
            plan.outlines_on(foundation.level),
            FoundationLevels(
                levels[foundation.top or foundation.level],
                levels[foundation.sill] if foundation.sill else None,
                levels[foundation.slab_level or foundation.level],
                levels[foundation.footing],
            ),
        )
    for post in posts:
        parts += post_parts(post)
    for beam in beams:
        parts += beam_parts(beam)
    for flat in floors:
        bearing, level = levels[flat.floor.bearing], levels[flat.floor.level]
        parts += floor_parts(
            flat.floor, make_ups[flat.floor.make_up], flat.bays, flat.rims, flat.below, bearing, level, flat.closed
        )
    for ceiling in project.ceilings:
        under = [wall for wall in plan.walls if wall.wall.top.level == ceiling.level]
        gables = shapely.union_all([gable for wall in under for gable in gable_footprints(wall, tops[wall.wall.id])])
        own = vaults.get(ceiling.level, ())
        spaces = shapely.union_all([vault.area for vault in own])
        planned = plan_ceiling(ceiling, plan, make_ups, floors, roofs, gables, spaces)
        parts += vault_parts(ceiling, make_ups[ceiling.make_up], own, levels[ceiling.level])
        parts += ceiling_parts(ceiling, make_ups[ceiling.make_up], planned.bays, planned.boards, levels[ceiling.level])
    parts = [*passed(parts, on_top), *roofing, *on_roof_parts(on_top, make_ups)]
    for pipe in on_top.downpipes:
        parts += downpipe_parts(pipe)
    return tuple(parts)


def _over(roof: ResolvedRoof, holes: tuple[Piercing, ...]) -> tuple[Piercing, ...]:
    """The holes that a roof may have: one that has none is not built anew for the others."""
    cover = shapely.union_all([plane.whole for plane in roof.planes])
    x0, y0, x1, y1 = cover.bounds
    reaches = (hole.body.reach for hole in holes)
    return tuple(
        hole for hole, at in zip(holes, reaches) if at.x0 <= x1 and at.x1 >= x0 and at.y0 <= y1 and at.y1 >= y0
    )


@lru_cache(maxsize=256)
def _lean(parts: tuple[Part, ...], wall: PlannedWall, base: float) -> tuple[Part, ...]:
    """What stands in an opening, leaning with its wall."""
    return tuple(replace(part, solid=leaning(wall, part.solid, base)) for part in parts)


def room_space(room: Room, plan: WallPlan, lowest: str) -> RoomSpace:
    """A room with the space around its point, on its level or on the lowest that walls may stand on."""
    spot = ShapelyPoint(room.x, room.y)
    level = room.level or lowest
    spaces = (space for outline in plan.outlines_on(level) for space in outline.spaces)
    return RoomSpace(room, level, next((space for space in spaces if space.contains(spot)), None))


def _missed_sections(project: Project, plan: WallPlan) -> list[Diagnostic]:
    if not plan.walls:
        return []
    house = [wall.footprint for wall in plan.walls]
    return [
        Diagnostic(
            "section-misses",
            f"section {line.name} misses the house; drag it across the walls",
            line.id,
            "line",
            at=((line.x1 + line.x2) / 2, (line.y1 + line.y2) / 2),
        )
        for line in project.sections
        if not shapely.intersects(LineString([(line.x1, line.y1), (line.x2, line.y2)]), house).any()
    ]
