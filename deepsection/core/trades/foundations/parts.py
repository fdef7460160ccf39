"""Solids below the walls: footings, foundation walls with their sill plates, and what covers the ground within."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

from shapely.geometry import Polygon
from shapely.ops import unary_union

from ...building.parts import Part, part_key
from ...geometry import polygons_of, prism
from ...model import Band, Bands, Foundation, Joint, MakeUp
from ..levels.placed import Level
from ..walls.place import join_strips
from ..walls.planned import Outline, PlannedWall
from .faces import FootFaces


@dataclass(frozen=True, slots=True)
class FoundationLevels:
    """The levels of a foundation: top of its wall, of its sill plate (where it has one), of its ground, its footing."""

    top: Level
    sill: Level | None
    ground: Level
    footing: Level


@lru_cache(maxsize=64)
def foundation_parts(
    foundation: Foundation,
    slab: MakeUp | None,
    walls: tuple[PlannedWall, ...],
    joints: tuple[Joint, ...],
    feet: tuple[FootFaces, ...],
    outlines: tuple[Outline, ...],
    levels: FoundationLevels,
) -> tuple[Part, ...]:
    """Foundation walls flush with the outside of the frame, or with what stands before it on them; footings centred
    under them, ground layers within.
    """
    margin = (foundation.footing_width - foundation.stem_thickness) / 2
    plain = tuple(wall.wall for wall in walls)
    axes = {wall.wall.id: wall.axis for wall in walls}

    def strips(faces: list[tuple[float, float]]) -> tuple[PlannedWall, ...]:
        bands: dict[str, Bands] = {
            wall.wall.id: (Band("strip", outer, inner, True, True),) for wall, (outer, inner) in zip(walls, faces)
        }
        return join_strips(plain, joints, bands, axes)

    thick = foundation.stem_thickness
    top = levels.footing.z + foundation.footing_depth
    stems = strips([(foot.ledge, foot.structure - thick) for foot in feet])
    footings = strips([(foot.ledge + margin, foot.structure - thick - margin) for foot in feet])
    bodies = [
        ("stem", "concrete", stems, top, levels.top.z),
        ("footing", "concrete", footings, levels.footing.z, top),
    ]
    if levels.sill:
        sills = strips([(foot.outer, foot.inner) for foot in feet])
        bodies.append(("sill_plate", "softwood", sills, levels.top.z, levels.sill.z))
    parts = []
    for role, made_of, strip, low, high in bodies:
        for wall in strip:
            for polygon in polygons_of(wall.footprint):
                parts.append(
                    Part(
                        part_key(foundation.id, role, "", wall.wall.id),
                        foundation.id,
                        role,
                        made_of,
                        prism(polygon, low, high),
                        axis=(*wall.run, 0.0) if role == "sill_plate" else None,
                        sums=((levels.sill or levels.top).sum.id, levels.footing.sum.id),
                        outside=role != "sill_plate",
                        function="structure",
                        curve=wall.curve,
                    )
                )
    within = unary_union([wall.footprint for wall in stems]) if stems else Polygon()
    for outline in outlines if slab else ():
        z = levels.ground.z
        inside = outline.polygon.difference(within)
        for layer in slab.layers if slab else ():
            key = part_key(foundation.id, layer.function, layer.id, f"outline:{outline.name}")
            solid = prism(inside, z - layer.thickness, z)
            sums = (levels.ground.sum.id,)
            parts.append(
                Part(
                    key,
                    foundation.id,
                    layer.function,
                    layer.material,
                    solid,
                    sums=sums,
                    outside=False,
                    function=layer.function,
                )
            )
            z -= layer.thickness
    return tuple(parts)
