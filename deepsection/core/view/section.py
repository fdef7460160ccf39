"""Building sections: what the plane cuts, heavy and hatched, and what is seen beyond it, light."""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
import shapely
from numpy.typing import NDArray
from shapely.geometry import LineString, Polygon

from ..building.kind import SectionOf
from ..catalog import material
from ..drawing import Drawing, Lettered, Mark, Region, Stroke, path, rings_of
from ..drawing.detail import SHOWN_FROM, shown_from
from ..geometry import Frame, polygons_of
from ..kinds import KINDS
from ..memo import BulkMemo
from ..model import SectionLine
from ..resolve import ROLES, Building, Part
from ..tolerance import TOL
from ._ground import EARTH_REACH, ground_marks, ground_under
from ._levels import level_heights, level_marks
from ._names import room_names
from ._pitches import pitch_marks
from ._quilt import quilt_strokes
from ._seen import boxes_of, clipped_above
from .composing import Composition
from .edges import visible_edges
from .faces import Face, behind, faces_of
from .hatching import HatchTable
from .setting import Setting
from .sights import Sight
from .strings.depths import member_depths
from .strings.section import SectionFacts, room_beside, section_strings
from .visible import visible_faces

DIAGONALS_FROM = 0.7
"""A member this small on paper (mm) is not crossed: it would clog."""


def section_frame(line: SectionLine) -> Frame:
    """The frame of a section: its look direction, with depth zero on the line."""
    look = line.ahead
    return Frame(_clean(look[0]), _clean(look[1]), line.x1, line.y1)


def section_sight(line: SectionLine) -> Sight:
    """What a section shows: from its plane on."""
    return Sight(section_frame(line), start=0.0)


def _clean(value: float) -> float:
    return float(round(value)) if abs(value - round(value)) < 1e-12 else value


@dataclass(frozen=True, eq=False, slots=True)
class CutPart:
    """A part and the polygon in which the section plane cuts it."""

    part: Part
    polygon: Polygon


@lru_cache(maxsize=20_000)
def _cut_polygons(part: Part, frame: Frame) -> tuple[Polygon, ...]:
    return tuple(polygons_of(shapely.set_precision(part.solid.cut(frame), TOL.grid)))


def cut_parts(building: Building, frame: Frame, u0: float, u1: float) -> list[CutPart]:
    """What the plane cuts, within the length of the section line."""
    found = []
    window = shapely.box(u0, -1e6, u1, 1e6)
    low, high, left, right = _reaches(building.parts, frame)
    for k in np.flatnonzero((low <= TOL.cut) & (high >= TOL.cut) & (right > u0) & (left < u1)).tolist():
        part = building.parts[k]
        for polygon in _cut_polygons(part, frame):
            inside = polygon if u0 <= left[k] and right[k] <= u1 else polygon.intersection(window)
            found += [CutPart(part, piece) for piece in polygons_of(inside)]
    return found


def _reaches(parts: tuple[Part, ...], frame: Frame) -> tuple[NDArray[np.float64], ...]:
    """Nearest and farthest depth, leftmost and rightmost u of the box around each part."""
    x0, y0, _, x1, y1, _ = _boxes(parts).T
    x, y = np.stack([x0, x1, x1, x0]), np.stack([y0, y0, y1, y1])
    depth = (x - frame.x0) * frame.dx + (y - frame.y0) * frame.dy
    u = x * frame.ux + y * frame.uy
    return depth.min(axis=0), depth.max(axis=0), u.min(axis=0), u.max(axis=0)


@lru_cache(maxsize=16)
def _boxes(parts: tuple[Part, ...]) -> NDArray[np.float64]:
    """(n, 6): the box around each part."""
    return np.array([part.solid.reach for part in parts]).reshape(-1, 6)


def beyond_faces(
    building: Building,
    frame: Frame,
    cut: list[CutPart],
    u0: float,
    u1: float,
    depth: float,
    *,
    members: bool = False,
) -> list[Face]:
    """What is seen behind the plane, to the look depth, where nothing is cut in front of it.

    `members`: those of roofs, floors and ceilings too.
    """
    plane = frame.x0 * frame.dx + frame.y0 * frame.dy + TOL.cut
    low, high, left, right = _reaches(building.parts, frame)
    near = np.flatnonzero((high > TOL.cut) & (low <= depth) & (right >= u0) & (left <= u1)).tolist()
    shown = ("seen", "as a member") if members else ("seen",)
    near = [k for k in near if ROLES[building.parts[k].role].beyond in shown]
    faces: list[Face] = []
    for k, held in zip(near, faces_of([building.parts[k] for k in near], frame.dx, frame.dy)):
        faces += held if low[k] >= TOL.cut else [piece for face in held for piece in behind(face, plane)]
    view = (frame.dx, frame.dy, "beyond", members)
    window = shapely.box(u0, -1e6, u1, 1e6)
    seen: list[Face] = []
    found = _past(visible_faces(faces, view), cut)
    for face, (left_u, _, right_u, _) in zip(found, boxes_of(found)):
        if left_u >= u0 and right_u <= u1:
            seen.append(face)
        else:
            pieces = polygons_of(face.polygon.intersection(window))
            seen += [Face(piece, face.plane, face.part, face.normal) for piece in pieces]
    return seen


def _past(faces: list[Face], cut: list[CutPart]) -> list[Face]:
    """What of visible faces is left beside what is cut before them."""
    if not faces or not cut:
        return faces
    by_element: dict[str, list[Polygon]] = defaultdict(list)
    for held in cut:
        by_element[held.part.element].append(held.polygon)
    occluders = np.array(
        [occluder for held in by_element.values() for occluder in _occluders(tuple(held))], dtype=object
    )
    k, n = shapely.STRtree(occluders).query([face.polygon for face in faces], predicate="intersects")
    before: dict[int, list[Polygon]] = defaultdict(list)
    for face, occluder in zip(k.tolist(), n.tolist()):
        before[face].append(occluders[occluder])
    hidden = [(faces[index], tuple(held)) for index, held in before.items()]
    left = dict(zip(before, _left_pieces(hidden)))
    return [piece for index, face in enumerate(faces) for piece in left.get(index, (face,))]


def _cut_away(wanted: Sequence[tuple[Face, tuple[Polygon, ...]]]) -> list[tuple[Face, ...]]:
    """Faces without the polygons before each."""
    occluders = np.array([held[0] if len(held) == 1 else shapely.union_all(held) for _, held in wanted], dtype=object)
    rest = shapely.difference(np.array([face.polygon for face, _ in wanted], dtype=object), occluders)
    return [
        tuple(
            Face(piece, face.plane, face.part, face.normal)
            for piece in polygons_of(shape)
            if piece.area / piece.length > TOL.sliver_width / 2
        )
        for (face, _), shape in zip(wanted, rest)
    ]


_left_pieces: BulkMemo[tuple[Face, tuple[Polygon, ...]], tuple[Face, ...]] = BulkMemo(_cut_away, size=10_000)


@lru_cache(maxsize=1000)
def _occluders(polygons: tuple[Polygon, ...]) -> tuple[Polygon, ...]:
    """What is cut of an element; the same cut makes the same occluders, so that what they hide stays known."""
    # They lie on the grid already: a plain union is exact there, and much cheaper than one that snaps.
    return tuple(polygons_of(shapely.union_all(shapely.set_precision(np.array(polygons), 0.0))))


def draw_section(
    building: Building,
    line: SectionLine,
    setting: Setting,
) -> Drawing:
    """The section along a line at a scale. A line that misses the house gives a message and no marks."""
    view = Composition(building, f"section:{line.id}", section_frame(line), setting)
    frame, scale, units, title = view.frame, setting.scale, setting.units, f"Section {line.name}"
    ends = [x * frame.ux + y * frame.uy for x, y in ((line.x1, line.y1), (line.x2, line.y2))]
    u0, u1 = min(ends), max(ends)
    cut = cut_parts(building, frame, u0, u1)
    if not cut:
        message = f"{title} misses the house. Drag its line across the walls on the plan."
        return view.drawing(title, "section", (message,))
    ground = ground_under(building, frame, [(held.part, held.polygon) for held in cut], scale, u0, u1)
    faces = beyond_faces(building, frame, cut, u0, u1, line.depth, members=line.members)
    beyond = clipped_above(faces, ground.whole, ground.dug)
    view.beyond(beyond, visible_edges(tuple(beyond), backdrop=True))
    view.marks += ground_marks(building, ground, view.hatches)
    view.marks += _cut_marks(cut, frame, scale, view.hatches, building)
    elements = {held.part.element for held in cut}
    units_beyond = boxes_of([face for face in beyond if face.part.function == "unit"])
    names = list(room_names(building, line, frame, scale, units_beyond))
    own: list[Lettered] = list(names)
    own += pitch_marks(building, frame, elements, scale, units, between=(u0, u1))
    heights = level_heights(building, elements | {face.part.element for face in beyond}, between=(frame, u0, u1))
    box, reach = shapely.total_bounds([held.polygon for held in cut]).tolist(), EARTH_REACH * scale
    facts = SectionFacts(
        building,
        line,
        frame,
        [(held.part, held.polygon) for held in cut],
        box,
        reach,
        _lowest(view.marks),
        names,
        setting,
    )
    strings = [*section_strings(facts, heights), member_depths(facts)]
    view.dimension(strings)
    left, right = (reach + room_beside(strings, side) * scale for side in ("left", "right"))
    own += level_marks(heights, box[0] - left, box[2] + right, scale, units, sides=(1, -1))
    shown = SectionOf(building.placed, frame, (u0, u1), scale)
    own += [mark for kind in KINDS for mark in kind.section(shown)]
    view.letter(own)
    return view.drawing(title, "section")


def _lowest(marks: Sequence[Lettered]) -> float:
    """How low what is cut and seen reaches."""
    rings = (
        mark.rings[0] if isinstance(mark, Region) else mark.path for mark in marks if isinstance(mark, (Region, Stroke))
    )
    return min(y for ring in rings for _, y, _ in ring)


def _cut_marks(cut: list[CutPart], frame: Frame, scale: float, hatches: HatchTable, building: Building) -> list[Mark]:
    """Regions of what is cut: below the scale where layers show, one filled shape per element."""
    marks: list[Mark] = []
    lumped: dict[str, list[CutPart]] = defaultdict(list)
    for held in sorted(_poured(cut), key=lambda held: (-material(held.part.material).order, held.part.key)):
        if not shown_from("layers", scale) and held.part.function != "unit":
            lumped[held.part.element].append(held)
        elif shown_from(held.part.function, scale):
            marks += _cut_mark(held, frame, scale, hatches)
    for group in lumped.values():
        whole = shapely.union_all([held.polygon.buffer(0.5, join_style="mitre") for held in group])
        for polygon in polygons_of(whole.buffer(-0.5, join_style="mitre")):
            marks.append(Region(rings_of(polygon), fill="poche", pen="cut", part=group[0].part.key, feature="cut"))
        # What is drawn as one can still be pointed at part by part.
        own = (held for held in group if shown_from(held.part.function, SHOWN_FROM["layers"]))
        marks += [Region(_rings(held.polygon), part=held.part.key, feature="cut") for held in own]
    return marks


POURED = ("slab_edge", "structure", "porch_slab")
"""The roles of an element that are cast with the edges of its slab: no line is drawn between them."""


def _poured(cut: list[CutPart]) -> list[CutPart]:
    """What is cut, with slabs and their edges in one."""
    edged = {(held.part.element, held.part.material) for held in cut if held.part.role == "slab_edge"}
    pours: dict[tuple[str, str], list[CutPart]] = defaultdict(list)
    kept = []
    for held in cut:
        pour = held.part.element, held.part.material
        if pour in edged and held.part.role in POURED:
            pours[pour].append(held)
        else:
            kept.append(held)
    for group in pours.values():
        first = min(group, key=lambda held: (held.part.role == "slab_edge", held.part.key)).part
        whole = shapely.union_all([held.polygon.buffer(0.5, join_style="mitre") for held in group])
        kept += [CutPart(first, polygon) for polygon in polygons_of(whole.buffer(-0.5, join_style="mitre"))]
    return kept


def _cut_mark(held: CutPart, frame: Frame, scale: float, hatches: HatchTable) -> list[Mark]:
    part, polygon = held.part, held.polygon
    made_of = material(part.material)
    width = _narrow(polygon) / scale
    structural = part.function == "structure"
    pen = "cut" if structural and width > 2.2 else "cut_layer" if width > 0.5 else "fine"
    hatch = hatches.add(made_of.cut) if made_of.cut and made_of.cut != "quilt" and width > 0.35 else None
    marks: list[Mark] = [
        Region(_rings(polygon), fill=made_of.tone, hatch=hatch, pen=pen, part=part.key, feature="cut", handle=None)
    ]
    if made_of.cut == "quilt":
        marks += quilt_strokes(polygon, part.key)
    across = part.axis is not None and abs(part.axis[0] * frame.dx + part.axis[1] * frame.dy) > 0.7
    if across and not hatch and width > DIAGONALS_FROM:
        marks += _diagonals(polygon, part.key)
    return marks


_rings = lru_cache(maxsize=20_000)(rings_of)


@lru_cache(maxsize=10_000)
def _narrow(polygon: Polygon) -> float:
    """The narrow side of the smallest rectangle around a polygon."""
    corners = list(shapely.oriented_envelope(polygon).exterior.coords)
    return min(math.dist(corners[0], corners[1]), math.dist(corners[1], corners[2]))


SOLID = 0.8
"""What fills less of its smallest rectangle is not crossed."""


@lru_cache(maxsize=10_000)
def _diagonals(polygon: Polygon, key: str) -> tuple[Mark, ...]:
    """Two diagonals: continuous lumber cut across; none over flanges with a web. Common practice, no source."""
    around = shapely.oriented_envelope(polygon)
    corners = list(around.exterior.coords)
    if polygon.area < SOLID * around.area:
        return ()
    lines = (LineString([corners[0], corners[2]]), LineString([corners[1], corners[3]]))
    marks: list[Mark] = []
    for line in lines:
        inside = line.intersection(polygon)
        for piece in getattr(inside, "geoms", [inside]):
            if isinstance(piece, LineString) and not piece.is_empty:
                marks.append(Stroke(path(*piece.coords), "fine", part=key, feature="lumber"))
    return tuple(marks)
