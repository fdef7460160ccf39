"""Elevations: the visible surfaces of a building from one side, above its ground line."""

from __future__ import annotations

import itertools
from collections.abc import Iterable
from functools import lru_cache

import shapely
import shapely.affinity

from ..drawing import Drawing, Lettered, Mark, Stroke, extent, path, rings_of
from ..geometry import Frame, polygons_of
from ..resolve import ROLES, Building
from ..tolerance import TOL
from ..units import HeightSum, SumTerm
from ._earth import Earth, earth_before
from ._gridlines import grid_bubbles
from ._ground import ground_sum
from ._lettering import legend, material_keys, material_words, opening_numbers
from ._levels import level_heights, level_marks, with_openings_and_eaves
from ._pitches import gables_shown, pitch_marks
from ._seen import bounds_of, clipped_above, seen_faces
from .composing import Composition
from .details.front_marks import front_lines
from .faces import Face, faces_of
from .setting import Setting
from .strings.elevation import WIDTHS, Front, height_strings, opening_heights, width_strings
from .strips.marks import strip_lines

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
    box = bounds_of(above or faces)
    heights = level_heights(building, {face.part.element for face in above}, without=("finish",))
    front, at = Front(building, above, frame, lowest), box[0] - reach
    from_ground, ground = _from_ground(heights, building, earth, at)
    view.dimension(height_strings(from_ground, ground, at, setting, opening_heights(front)))
    view.dimension(width_strings(front, setting))
    rows = sum(string.shown and string.name.startswith("bottom:") for string in view.strings)
    below = lowest - WIDTHS * scale * max(1, rows)
    marked = with_openings_and_eaves(heights, building, above, frame, scale)
    own: list[Lettered] = [
        *pitch_marks(building, frame, gables_shown(building, above), scale, setting.units, above),
        *level_marks(marked, box[0], box[2] + reach, scale, setting.units),
        *grid_bubbles(setting.grid, frame, box, scale),
        *legend(keys or {}, u0, below, scale),
    ]
    own += strip_lines(view, above, lowest, own)
    own += front_lines(view, {face.part.element for face in above})
    words = material_words(above, scale, view.changes, keys)
    view.letter([*own, *words, *opening_numbers(building, above, frame, scale)])
    return view.drawing(title, "elevation", () if above else (BURIED,))


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
