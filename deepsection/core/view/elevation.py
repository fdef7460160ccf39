"""Elevations: the visible surfaces of a building from one side, above its ground line."""

from __future__ import annotations

import shapely
import shapely.affinity

from ..drawing import PITCH_RUN, Drawing, Mark, Stroke, extent, path
from ..geometry import Frame
from ..model import GridLine
from ..resolve import Building
from ..tolerance import TOL
from ..units import Units
from ._earth import Earth, earth_before
from ._ground import ground_sum
from ._lettering import Lettering, grid_bubbles, height_string, material_names, opening_numbers
from ._levels import level_heights, level_marks
from ._notes import note_marks
from ._pitches import gables_shown, pitch_marks
from ._seen import bounds_of, clipped_above, edge_strokes, face_regions, seen_faces
from ._symbols import opening_symbols
from .faces import faces_of
from .hatching import HatchTable

GROUND_REACH = 10.0
"""Paper mm that the ground line runs past the house on each side."""


def draw_elevation(
    building: Building,
    name: str,
    title: str,
    look_deg: float,
    scale: float,
    units: Units,
    notes: tuple[object, ...] = (),
    grid: tuple[GridLine, ...] = (),
) -> Drawing:
    """The building from outside, seen along a direction (degrees counter-clockwise from east)."""
    frame = Frame.looking(look_deg)
    outside = tuple(part for part in building.parts if part.outside)
    faces, edges = seen_faces(outside, frame.dx, frame.dy)
    x0, _, x1, _ = bounds_of(faces)
    reach = GROUND_REACH * scale
    earth = earth_before(building, frame, x0 - reach, x1 + reach)
    above = clipped_above(faces, earth)
    hatches = HatchTable(scale)
    marks: list[Mark] = face_regions(above, frame, hatches)
    marks += edge_strokes(edges, building, earth=earth)
    marks += opening_symbols(building, above, frame)
    messages: tuple[str, ...] = ()
    if above:
        u0, _, u1, _ = bounds_of(above)
        marks += _below_ground(building, frame, earth)
        line = [(min(max(u, u0 - reach), u1 + reach), v) for u, v in earth.profile]
        marks.append(Stroke(path(*line), "ground", feature="ground", sum=ground_sum(building, earth)))
        seen = {face.part.element for face in above}
        pitched = pitch_marks(building, frame, gables_shown(building, above), scale, units)
        marks += pitched
        heights = level_heights(building, seen, without=("finish",))
        marks += level_marks(heights, u0, u1 + reach, scale, units)
        marks += height_string(heights, earth.low, u0 - reach, scale, units)
        pitches = [shapely.Point(mark.x, mark.y).buffer(PITCH_RUN * scale) for mark in pitched]
        lettering = Lettering(scale, pitches)
        marks += opening_numbers(building, above, frame, lettering, scale)
        marks += material_names(above, lettering)
        marks += grid_bubbles(grid, frame, bounds_of(above), scale)
        lost, found = note_marks(building, notes, frame, scale, name)
        marks += found
        messages += lost
    else:
        messages = ("Nothing stands here yet. Draw the outer walls on the plan above, and their elevation appears.",)
    return Drawing(
        name=name,
        title=title,
        kind="elevation",
        scale=scale,
        marks=tuple(marks),
        hatches=hatches.all(),
        sums=tuple(building.sums.values()),
        bounds=extent(marks, scale),
        look=(frame.dx, frame.dy),
        messages=messages,
    )


def _below_ground(building: Building, frame: Frame, earth: Earth) -> list[Mark]:
    """Dashed outlines of what stands below the ground line: footings and walls. No line is drawn twice."""
    marks: list[Mark] = []
    drawn: shapely.Geometry = shapely.LineString()
    for role in ("footing", "stem"):
        buried = [part for part in building.parts if part.role == role]
        faces = [face for held in faces_of(buried, frame.dx, frame.dy) for face in held]
        if not faces:
            continue
        whole = shapely.union_all([face.polygon for face in faces], grid_size=TOL.point)
        below = shapely.affinity.translate(earth.body, 0.0, -TOL.point)
        lines = whole.boundary.intersection(below).difference(drawn.buffer(TOL.point * 2))
        drawn = drawn.union(lines)
        for line in shapely.get_parts(shapely.simplify(shapely.line_merge(lines), TOL.point)):
            if line.geom_type == "LineString":
                marks.append(Stroke(path(*line.coords), "hidden", part=faces[0].part.key, feature="hidden"))
    return marks
