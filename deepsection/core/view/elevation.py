"""Elevations: the visible surfaces of a building from one side, above its ground line."""

from __future__ import annotations

import itertools

import shapely
from shapely.geometry import Polygon

from ..drawing import Drawing, Mark, Stroke, Symbol, extent, path
from ..geometry import Frame, Side, side_direction
from ..resolve import Building, ResolvedRoof
from ..units import Units, format_pitch
from ._levels import level_marks
from ._notes import note_marks
from ._seen import bounds_of, clipped_above, edge_strokes, face_regions, seen_faces
from .hatching import HatchTable
from .visible import faces_of

GROUND_REACH = 10.0
"""Paper mm that the ground line runs past the house on each side."""


def draw_elevation(
    building: Building, side: Side, scale: float, units: Units, notes: tuple[object, ...] = ()
) -> Drawing:
    """The elevation of the side that faces `side` (project north is up in plan)."""
    frame = Frame.looking(side_direction(side))
    outside = tuple(part for part in building.parts if part.outside)
    faces, edges = seen_faces(outside, frame.dx, frame.dy)
    above = clipped_above(faces, building.grade)
    hatches = HatchTable(scale)
    marks: list[Mark] = face_regions(above, frame, hatches)
    marks += edge_strokes(edges, building, floor=building.grade)
    messages: tuple[str, ...] = ()
    if above:
        u0, _, u1, _ = bounds_of(above)
        marks += _below_ground(building, frame)
        reach = GROUND_REACH * scale
        grade = next((level.sum.id for level in building.levels.values() if level.surface == "grade"), None)
        marks.append(
            Stroke(
                path((u0 - reach, building.grade), (u1 + reach, building.grade)), "ground", feature="ground", sum=grade
            )
        )
        for roof in building.roofs:
            marks += _pitch_mark(roof, frame, units, scale)
        marks += level_marks(building, u0 - reach * 0.2, u1 + reach * 0.4, scale, units)
        lost, found = note_marks(building, notes, frame, scale, f"elevation:{side}")
        marks += found
        messages += lost
    else:
        messages = ("Nothing stands here yet. Draw the outer walls on the plan above, and their elevation appears.",)
    return Drawing(
        name=f"elevation:{side}",
        title=f"{side.capitalize()} elevation",
        kind="elevation",
        scale=scale,
        marks=tuple(marks),
        hatches=hatches.all(),
        sums=tuple(building.sums.values()),
        bounds=extent(marks, scale),
        look=(frame.dx, frame.dy),
        messages=messages,
    )


def _below_ground(building: Building, frame: Frame) -> list[Mark]:
    """Dashed outlines of what stands below the ground line: walls and footings."""
    marks: list[Mark] = []
    for role in ("stem", "footing"):
        buried = [part for part in building.parts if part.role == role]
        faces = [face for held in faces_of(buried, frame.dx, frame.dy) for face in held]
        if not faces:
            continue
        whole = shapely.union_all([face.polygon for face in faces], grid_size=0.01)
        x0, y0, x1, _ = whole.bounds
        buried = whole.intersection(shapely.box(x0 - 1, y0 - 1, x1 + 1, building.grade))
        for polygon in getattr(buried, "geoms", [buried]):
            if not isinstance(polygon, Polygon) or polygon.is_empty:
                continue
            points = list(shapely.simplify(polygon, 0.01).exterior.coords)
            for start, end in itertools.pairwise(points):
                if max(start[1], end[1]) < building.grade - 1 or start[0] == end[0]:
                    marks.append(Stroke(path(start, end), "hidden", part=faces[0].part.key, feature="hidden"))
    return marks


def _pitch_mark(roof: ResolvedRoof, frame: Frame, units: Units, scale: float) -> list[Mark]:
    """The pitch triangle over the left slope, where the roof is seen end on."""
    plane = roof.planes[0]
    along = abs(plane.inward[0] * frame.dx + plane.inward[1] * frame.dy)
    if along > 0.02:
        return []
    ridge_u = roof.ridge[0][0] * frame.ux + roof.ridge[0][1] * frame.uy
    run = 9.0 * scale
    u = ridge_u - roof.run * 0.75
    v = roof.ridge_top.total - roof.block.pitch * (ridge_u - u - run) + 5.0 * scale
    rise = format_pitch(roof.block.pitch, units)
    over = "12" if units == "ft-in" else ""
    return [
        Symbol(
            "pitch", u, v, (rise.split(":")[0], over), values=(roof.block.pitch, 1.0), part=f"{roof.block.id}/roofing//"
        )
    ]
