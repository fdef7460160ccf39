"""Elevations: the visible surfaces of a building from one side, above its ground line."""

from __future__ import annotations

import itertools
from collections.abc import Iterable, Sequence
from functools import lru_cache

import shapely
import shapely.affinity

from ..drawing import PITCH_RUN, Drawing, Mark, Stroke, Symbol, extent, path, rings_of
from ..geometry import Frame, polygons_of
from ..resolve import ROLES, Building
from ..tolerance import TOL
from ..units import HeightSum, SumTerm
from ._earth import Earth, earth_before
from ._ground import ground_sum
from ._lettering import legend, material_keys, material_words, opening_numbers
from ._levels import level_heights, level_marks, with_openings_and_eaves
from ._measures import WIDTHS, grid_bubbles, height_string, width_string
from ._pitches import gables_shown, pitch_marks
from ._seen import bounds_of, clipped_above, seen_faces
from .composing import Composition
from .faces import Face, faces_of
from .setting import Setting

GROUND_CLEAR = 0.5
"""Lettering stays so far off the ground line (paper mm)."""
GROUND_REACH = 10.0
"""Paper mm that the ground line runs past the house on each side."""


NOTHING = "Nothing stands here yet. Draw the outer walls on the plan above, and their elevation appears."
BURIED = "The ground hides all of the house on this side. Lower its heights on the plan, or raise the house."


def draw_elevation(
    building: Building,
    name: str,
    title: str,
    look_deg: float,
    setting: Setting,
) -> Drawing:
    """The building from outside, seen along a direction (degrees counter-clockwise from east)."""
    view = Composition(building, name, Frame.looking(look_deg), setting)
    frame, scale = view.frame, setting.scale
    outside = tuple(part for part in building.parts if part.outside)
    faces, edges = seen_faces(outside, frame.dx, frame.dy)
    x0, _, x1, _ = bounds_of(faces)
    reach = GROUND_REACH * scale
    earth = earth_before(building, frame, x0 - reach, x1 + reach)
    above = clipped_above(faces, earth)
    view.surfaces(above, edges, shaded_by=outside, earth=earth)
    if not faces:
        return view.drawing(title, "elevation", (NOTHING,))
    u0, _, u1, _ = bounds_of(above or faces)
    buried = [*_below_ground(building, frame, earth), *(() if above else _outline(faces))]
    view.marks += buried
    line = [(min(max(u, u0 - reach), u1 + reach), v) for u, v in earth.profile]
    view.marks.append(Stroke(path(*line), "ground", feature="ground", sum=ground_sum(building, earth)))
    lowest = min(extent(buried, scale)[1], earth.low) if buried else earth.low
    keys = material_keys(above) if view.changes.keyed else None
    measures = _measures(building, above or faces, above, earth, frame, setting, reach, lowest)
    own = [*measures, *legend(keys or {}, u0, lowest - WIDTHS * scale, scale)]
    clear = shapely.LineString(line).buffer(GROUND_CLEAR * scale)
    words = [*material_words(above, keys), *opening_numbers(building, above, frame, scale)]
    view.letter(own, words, [clear, *_pitch_boxes(view.changes.applied(own), scale)])
    return view.drawing(title, "elevation", () if above else (BURIED,))


def _measures(
    building: Building,
    drawn: Sequence[Face],
    above: Sequence[Face],
    earth: Earth,
    frame: Frame,
    setting: Setting,
    reach: float,
    lowest: float,
) -> list[Mark]:
    """Pitches, levels, strings of heights and widths, and the grid."""
    scale, units = setting.scale, setting.units
    box = bounds_of(drawn)
    heights = level_heights(building, {face.part.element for face in above}, without=("finish",))
    marked = with_openings_and_eaves(heights, building, above, frame, scale)
    return [
        *pitch_marks(building, frame, gables_shown(building, above), scale, units, above),
        *level_marks(marked, box[0], box[2] + reach, scale, units),
        *height_string(*_from_ground(heights, building, earth, box[0] - reach), box[0] - reach, scale, units),
        *width_string(building, above, frame, lowest, scale, units),
        *grid_bubbles(setting.grid, frame, box, scale),
    ]


def _from_ground(heights: list[HeightSum], building: Building, earth: Earth, u: float) -> tuple[list[HeightSum], float]:
    """The heights of a string at a place, and the lowest of them: it stands on the ground there, however that falls."""
    if earth.flat is not None:
        return heights, earth.low
    z = next((v for at, v in reversed(earth.profile) if at <= u), earth.profile[0][1])
    for (a, low), (b, high) in itertools.pairwise(earth.profile):
        if a <= u < b:
            z = low + (high - low) * (u - a) / (b - a)
    grades = {level.sum.id for level in building.levels.values() if level.surface == "grade"}
    ground = HeightSum("ground:string", "ground", (SumTerm("ground at this end", z),))
    return [ground, *(held for held in heights if held.id not in grades and held.total > z)], z


def _pitch_boxes(marks: Iterable[Mark], scale: float) -> list[shapely.Geometry]:
    """The paper that pitch marks take."""
    return [
        shapely.Point(mark.x, mark.y).buffer(PITCH_RUN * scale)
        for mark in marks
        if isinstance(mark, Symbol) and mark.kind == "pitch"
    ]


def _outline(faces: Iterable[Face]) -> list[Mark]:
    """The dashed outline of a house that the ground hides."""
    whole = shapely.union_all([face.polygon for face in faces], grid_size=TOL.point)
    return [
        Stroke(ring, "hidden", closed=True, feature="hidden")
        for piece in polygons_of(whole)
        for ring in rings_of(piece)
    ]


def _below_ground(building: Building, frame: Frame, earth: Earth) -> tuple[Mark, ...]:
    """Dashed outlines of what stands below the ground line: footings and walls. No line is drawn twice."""
    walls = building.plan.by_id
    held = (
        [part for part in building.parts if part.role == role and (role != "structure" or part.element in walls)]
        for role in (role.id for role in ROLES.values() if role.below_ground)
    )
    faces = (faces_of(parts, frame.dx, frame.dy) for parts in held)
    return _buried(tuple(tuple(face for own in by_part for face in own) for by_part in faces), earth)


@lru_cache(maxsize=64)
def _buried(groups: tuple[tuple[Face, ...], ...], earth: Earth) -> tuple[Mark, ...]:
    """The outlines of each group of faces below the earth, but for what one before has drawn."""
    marks: list[Mark] = []
    drawn: shapely.Geometry = shapely.LineString()
    for faces in groups:
        if not faces:
            continue
        whole = shapely.union_all([face.polygon for face in faces], grid_size=TOL.point)
        below = shapely.affinity.translate(earth.body, 0.0, -TOL.point)
        lines = whole.boundary.intersection(below).difference(drawn.buffer(TOL.point * 2))
        drawn = drawn.union(lines)
        for line in shapely.get_parts(shapely.simplify(shapely.line_merge(lines), TOL.point)):
            if line.geom_type == "LineString":
                marks.append(Stroke(path(*line.coords), "hidden", part=faces[0].part.key, feature="hidden"))
    return tuple(marks)
