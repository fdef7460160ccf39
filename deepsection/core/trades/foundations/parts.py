"""Solids below the walls: footings, foundation walls with their sill plates, and what covers the ground within."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator
from functools import lru_cache

import shapely
from shapely.geometry import MultiPolygon, Polygon
from shapely.ops import unary_union

from ...building.cutting import without
from ...building.parts import Part, part_key
from ...geometry import Solid, line_through, polygons_of, prism
from ...model import Band, Bands, Joint
from ...tolerance import TOL
from ..walls.place import join_strips
from ..walls.planned import PlannedWall
from .deepened import sloped, under_walls
from .ground_parts import ground_parts
from .place import PlacedFoundation
from .pony_parts import pony_walls
from .stretches import FAR, Stretch


@lru_cache(maxsize=64)
def foundation_parts(placed: PlacedFoundation, joints: tuple[Joint, ...]) -> tuple[Part, ...]:
    """Foundation walls flush with the outside of the frame, or with what stands before it on them; footings centred
    under them, both stepped; pony walls on them, ground layers within.
    """
    held, feet = placed.foundation, placed.feet
    if held.form == "deep edge":
        return deep_edged(placed, joints)
    margin, thick = (held.footing_width - held.stem_thickness) / 2, held.stem_thickness
    stems = strips(placed, joints, [(foot.ledge, foot.structure - thick) for foot in feet])
    footings = strips(placed, joints, [(foot.ledge + margin, foot.structure - thick - margin) for foot in feet])
    sills = strips(placed, joints, [(foot.outer, foot.inner) for foot in feet]) if placed.levels.sill else ()
    own = {wall.wall.id: stretches for wall, stretches in zip(placed.walls, placed.stretches)}
    tops = [
        (_within(strip, stretch.first, stretch.last), placed.stem_top(stretch))
        for strip in stems
        for stretch in own[strip.wall.id]
    ]

    def over(height: float) -> Polygon | MultiPolygon:
        """The foundation walls in plan that end above a height: what stands lower gives way to them."""
        return unary_union([area for area, top in tops if top > height + TOL.point])

    return (
        *_stepped(placed, stems, footings, own),
        *_sills(placed, sills, own, over),
        *pony_walls(placed, joints, over),
        *on_ground(placed, unary_union([wall.footprint for wall in stems]) if stems else Polygon()),
    )


SLOPED = 300.0
"""The inner side of a deep edge slopes over so much of its height (mm) at most, and stands upright below. Common
practice, no source."""


def deep_edged(placed: PlacedFoundation, joints: tuple[Joint, ...]) -> tuple[Part, ...]:
    """A slab whose edges go down to the footing level under the walls, their inner side rising 1 in 1."""
    held, feet, low, under = placed.foundation, placed.feet, placed.levels.footing.z, placed.slab_under
    assert under is not None and placed.slab is not None
    wide, rise = held.footing_width, min(max(under - low, 0.0), SLOPED)
    edges = strips(placed, joints, [(foot.ledge, foot.structure - wide) for foot in feet])
    slopes = strips(placed, joints, [(foot.structure - wide, foot.structure - wide - rise) for foot in feet])
    own = {wall.wall.id: stretches for wall, stretches in zip(placed.walls, placed.stretches)}
    found: list[Part] = []
    for edge, slope in zip(edges, slopes):
        stretches = own[edge.wall.id]
        for k, stretch in enumerate(stretches):
            bottom, slot = low - stretch.drop, _slot(edge, stretches, k)
            area = _within(edge, stretch.first, stretch.last)
            found.append(_concrete(placed, "slab_edge", edge, slot, prism(area, bottom, under + placed.slab_depth)))
            if not edge.axis.is_arc and rise:
                inner = _within(slope, stretch.first, stretch.last)
                line = line_through(slope.at(0.0, slope.outer), slope.at(slope.length, slope.outer))
                foot = max(bottom, under - rise)
                body = prism(inner, foot, under).above(sloped(line, slope.at(0.0, slope.inner), foot))
                found.append(_concrete(placed, "slab_edge", edge, f"{slot}:slope", body))
    around = unary_union([edge.footprint for edge in edges]) if edges else Polygon()
    return (*found, *on_ground(placed, around, tuple(found)))


def on_ground(placed: PlacedFoundation, within: Polygon | MultiPolygon, edges: tuple[Part, ...] = ()) -> Iterator[Part]:
    """What covers the ground, and where it is deeper under walls."""
    deep = tuple(_apart(under_walls(placed, within), edges))
    yield from deep
    yield from ground_parts(placed, within, (*edges, *deep))


def _apart(parts: Iterable[Part], others: tuple[Part, ...]) -> Iterator[Part]:
    """Parts less those that they reach into."""
    bodies = tuple(other.solid for other in others)
    yield from (without(part, bodies) for part in parts) if bodies else parts


def strips(
    placed: PlacedFoundation, joints: tuple[Joint, ...], faces: list[tuple[float, float]]
) -> tuple[PlannedWall, ...]:
    """Strips along its walls, joined as these are; `faces`: distances outward, per wall."""
    bands: dict[str, Bands] = {
        wall.wall.id: (Band("strip", outer, inner, True, True),) for wall, (outer, inner) in zip(placed.walls, faces)
    }
    plain = tuple(wall.wall for wall in placed.walls)
    return join_strips(plain, joints, bands, {wall.wall.id: wall.axis for wall in placed.walls})


def _within(strip: PlannedWall, first: float, last: float) -> Polygon | MultiPolygon:
    """What of a strip in plan lies between two distances along it."""
    if first <= -FAR and last >= FAR:
        return strip.footprint
    across = strip.strip(first, last, strip.inner - 1e4, strip.outer + 1e4)
    cut = shapely.intersection(strip.footprint, across, grid_size=TOL.node)
    return MultiPolygon(list(polygons_of(cut)))


def _slot(strip: PlannedWall, stretches: tuple[Stretch, ...], k: int) -> str:
    return strip.wall.id if len(stretches) < 2 else f"{strip.wall.id}:{k + 1}"


def _stepped(
    placed: PlacedFoundation,
    stems: tuple[PlannedWall, ...],
    footings: tuple[PlannedWall, ...],
    own: dict[str, tuple[Stretch, ...]],
) -> Iterator[Part]:
    """Foundation walls and footings, stretch by stretch; at a step the upper footing runs on over the lower one."""
    low, top = placed.levels.footing.z, placed.footing_top
    risers: dict[str, list[tuple[int, Solid]]] = {}
    for strip in footings:
        stretches = own[strip.wall.id]
        steps = risers.setdefault(strip.wall.id, [])
        for k, stretch in enumerate(stretches):
            area = _within(strip, stretch.first, stretch.last)
            solid = prism(area, low - stretch.drop, top - stretch.drop)
            yield _concrete(placed, "footing", strip, _slot(strip, stretches, k), solid)
            if k and abs(rise := stretch.drop - stretches[k - 1].drop) > TOL.point:
                above, below = (stretches[k - 1], stretch) if rise > 0 else (stretch, stretches[k - 1])
                runs = placed.overlap(abs(rise))
                cut = stretch.first
                over = (cut, min(cut + runs, below.last)) if rise > 0 else (max(cut - runs, below.first), cut)
                high = min(top - above.drop, placed.stem_top(below))
                riser = prism(_within(strip, *over), top - below.drop, high)
                steps.append((stretches.index(below), riser))
                yield _concrete(placed, "footing", strip, f"{strip.wall.id}:step:{k}", riser)
    for strip in stems:
        stretches = own[strip.wall.id]
        for k, stretch in enumerate(stretches):
            area = _within(strip, stretch.first, stretch.last)
            solid = prism(area, top - stretch.drop, placed.stem_top(stretch))
            solid = solid.minus([riser for at, riser in risers[strip.wall.id] if at == k])
            yield _concrete(placed, "stem", strip, _slot(strip, stretches, k), solid)


def _concrete(placed: PlacedFoundation, role: str, strip: PlannedWall, slot: str, solid: Solid) -> Part:
    id, levels = placed.foundation.id, placed.levels
    sums = ((levels.sill or levels.top).sum.id, levels.footing.sum.id)
    key = part_key(id, role, "", slot)
    return Part(key, id, role, "concrete", solid, sums=sums, function="structure", curve=strip.curve)


def _sills(
    placed: PlacedFoundation,
    sills: tuple[PlannedWall, ...],
    own: dict[str, tuple[Stretch, ...]],
    over: Callable[[float], Polygon | MultiPolygon],
) -> Iterator[Part]:
    """Sill plates on the foundation walls: a single one under a pony wall, else up to what they carry."""
    id, levels = placed.foundation.id, placed.levels
    for strip in sills:
        stretches = own[strip.wall.id]
        for k, stretch in enumerate(stretches):
            assert levels.sill is not None
            low = placed.stem_top(stretch)
            high = low + placed.plate if placed.is_pony(stretch) else levels.sill.z
            area = shapely.difference(_within(strip, stretch.first, stretch.last), over(low), grid_size=TOL.node)
            key = part_key(id, "sill_plate", "", _slot(strip, stretches, k))
            yield Part(
                key,
                id,
                "sill_plate",
                "softwood",
                prism(MultiPolygon(list(polygons_of(area))), low, high),
                axis=(*strip.run, 0.0),
                sums=(levels.sill.sum.id, levels.footing.sum.id),
                outside=False,
                function="structure",
                curve=strip.curve,
            )
