"""Interior elevations: the walls of a room as one sees them from within, with all that stands on them."""

from __future__ import annotations

import shapely
from shapely.geometry import Polygon

from ..drawing import Drawing, Stroke, rings_of
from ..drawing.cropping import Window
from ..geometry import Frame, polygons_of
from ..model import ElevationView
from ..resolve import Building, Level, RoomSpace
from ..units import HeightSum, SumTerm
from ._lettering import legend, material_keys, material_words, opening_numbers
from ._levels import level_heights, level_marks
from .composing import Composition
from .cut import beyond_faces, cut_parts
from .edges import visible_edges
from .faces import Face
from .setting import Setting
from .sights import Sight
from .strings.elevation import WIDTHS, Front, room_strings

AIR = 1000.0
"""Above its floor by so much a room is surely air (mm)."""
FAR = 1e6
PAST = 1000.0
"""How far past the room its section is looked at (mm)."""


def draw_interior(
    building: Building,
    view: ElevationView,
    setting: Setting,
) -> Drawing:
    """The inside of a room, along a direction: what is seen from the room's point, within floor, ceiling and walls."""
    look = Frame.looking(view.look)
    room = next(space for space in building.rooms if space.room.id == view.room)
    drawn = Composition(building, f"elevation:{view.id}", Frame(look.dx, look.dy, room.room.x, room.room.y), setting)
    frame, scale = drawn.frame, setting.scale
    floor = building.levels[room.level]
    clear = None if room.space is None else _clear(building, frame, room.space, floor.z)
    if clear is None or room.space is None:
        message = f"{room.room.name} is not enclosed by walls, so it has no inside to show."
        return drawn.drawing(view.name, "elevation", (message,))
    reach = max(frame.depth(x, y) for x, y in room.space.exterior.coords)
    x0, _, x1, _ = clear.bounds
    window = Window(x0 - PAST, x1 + PAST)
    cut = cut_parts(building, frame, window)
    seen = beyond_faces(building, frame, cut, window, reach + PAST)
    faces = [piece for face in seen for piece in _within(face, clear)]
    drawn.surfaces(faces, visible_edges(tuple(faces), backdrop=True))
    drawn.marks += [Stroke(ring, "cut", closed=True, feature="clear") for ring in rings_of(clear)]
    u0, v0, u1, v1 = clear.bounds
    heights = [height for height in level_heights(building, set()) if v0 - 1.0 <= height.total <= v1 + 1.0]
    heights += _ceiling(room, floor, v1, heights)
    keys = material_keys(faces) if drawn.changes.keyed else None
    drawn.dimension(room_strings(Front(building, faces, frame, v0), clear.bounds, setting))
    own = [*level_marks(heights, u0, u1, scale, setting.units), *legend(keys or {}, u0, v0 - 2 * WIDTHS * scale, scale)]
    words = material_words(faces, scale, drawn.changes, keys)
    drawn.letter([*own, *words, *opening_numbers(building, faces, frame, scale)])
    return drawn.drawing(view.name, "elevation")


def interior_sights(building: Building, view: ElevationView) -> tuple[Sight, ...]:
    """What the inside of a room shows: from its point on."""
    look = Frame.looking(view.look)
    rooms = [space.room for space in building.rooms if space.room.id == view.room]
    return tuple(Sight(Frame(look.dx, look.dy, room.x, room.y), start=0.0) for room in rooms)


def _ceiling(room: RoomSpace, floor: Level, top: float, marked: list[HeightSum]) -> list[HeightSum]:
    """The height of the ceiling of a room where its section is highest, unless a level is marked there."""
    if any(abs(height.total - top) < 1.0 for height in marked):
        return []
    terms = (SumTerm(floor.name, floor.z, floor.sum.id), SumTerm("clear height", top - floor.z, room.room.id))
    return [HeightSum(f"ceiling:{room.room.id}", "ceiling", terms)]


def _clear(building: Building, frame: Frame, space: Polygon, floor: float) -> Polygon | None:
    """The air of a room in the plane through its point: what its section leaves free around it."""
    here, at = frame.plan_to_turned(frame.x0, frame.y0)
    line = frame.turn(space).intersection(shapely.LineString([(here - FAR, at), (here + FAR, at)]))
    own = next((part for part in shapely.get_parts(line) if part.bounds[0] <= here <= part.bounds[2]), None)
    if own is None:
        return None
    # From wall to wall, also where the plane goes through a doorway.
    window = shapely.box(own.bounds[0], floor - PAST, own.bounds[2], floor + 6 * PAST)
    cut = cut_parts(building, frame, Window(window.bounds[0], window.bounds[2]))
    air = window.difference(shapely.union_all([held.polygon for held in cut]).buffer(0.5, join_style="mitre"))
    spot = shapely.Point(here, floor + AIR)
    held = next((piece for piece in polygons_of(air) if piece.contains(spot)), None)
    return None if held is None else Polygon(held.buffer(0.5, join_style="mitre").exterior).intersection(window)


def _within(face: Face, clear: Polygon) -> list[Face]:
    if clear.contains(face.polygon):
        return [face]
    pieces = polygons_of(face.polygon.intersection(clear))
    return [Face(piece, face.plane, face.part, face.normal) for piece in pieces]
