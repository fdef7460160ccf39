"""Interior elevations: the walls of a room as one sees them from within, with all that stands on them."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Literal

import shapely
from shapely.geometry import LineString, Polygon

from ..drawing import Drawing, Stroke, rings_of
from ..drawing.cropping import Band, Window
from ..geometry import Frame, polygons_of
from ..model import ElevationView, SectionLine
from ..resolve import Building, Level, RoomSpace
from ..units import HeightSum, SumTerm
from ._lettering import legend, material_keys, material_words, opening_numbers
from ._levels import level_heights, level_marks
from .composing import Composition
from .cut import beyond_faces, cut_parts
from .cut_marks import cut_marks
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


@dataclass(frozen=True, slots=True)
class Inside:
    """A room that is drawn from within: the name of the view and its title, what it looks at, to a depth behind that.

    The plane of the frame goes through its point, which lies in the room; `room` is None where none is there.
    """

    name: str
    title: str
    kind: Literal["elevation", "section"]
    room: RoomSpace
    frame: Frame
    depth: float = FAR


def draw_interior(building: Building, view: ElevationView, setting: Setting) -> Drawing:
    """The inside of a room, along a direction: what is seen from the room's point."""
    look = Frame.looking(view.look)
    room = next(space for space in building.rooms if space.room.id == view.room)
    frame = Frame(look.dx, look.dy, room.room.x, room.room.y)
    return _drawn(building, Inside(f"elevation:{view.id}", view.name, "elevation", room, frame), setting)


def draw_room_section(building: Building, line: SectionLine, setting: Setting) -> Drawing:
    """The inside of the room of a section line: what that cuts of what stands there, and what is seen behind."""
    name, title = f"section:{line.id}", f"Section {line.name}"
    room = next(space for space in building.rooms if space.room.id == line.room)
    drawn = LineString([(line.x1, line.y1), (line.x2, line.y2)])
    within = [] if room.space is None else shapely.get_parts(drawn.intersection(room.space)).tolist()
    frame = Frame.facing(line.ahead, line.x1, line.y1)
    if not within or not any(piece.length for piece in within):
        message = f"{title} does not go through {room.room.name}. Drag its line into that, or let it show the house."
        return Composition(building, name, frame, setting).drawing(title, "section", (message,))
    at = max(within, key=lambda piece: piece.length).interpolate(0.5, normalized=True)
    inside = Inside(name, f"{title}, {room.room.name}", "section", room, replace(frame, x0=at.x, y0=at.y), line.depth)
    return _drawn(building, inside, setting)


def _drawn(building: Building, inside: Inside, setting: Setting) -> Drawing:
    """A room from within, cropped to its floor, ceiling and walls, outlined heavy."""
    room, frame, scale = inside.room, inside.frame, setting.scale
    drawn = Composition(building, inside.name, frame, setting)
    floor = building.levels[room.level]
    clear = None if room.space is None else _clear(building, frame, room.space, floor.z)
    if clear is None or room.space is None:
        message = f"{room.room.name} is not enclosed by walls, so it has no inside to show."
        return drawn.drawing(inside.title, inside.kind, (message,))
    reach = max(frame.depth(x, y) for x, y in room.space.exterior.coords)
    x0, v0, x1, v1 = clear.bounds
    window = Window(x0 - PAST, x1 + PAST)
    cut = cut_parts(building, frame, window)
    seen = beyond_faces(building, frame, cut, window, min(reach + PAST, inside.depth))
    faces = [piece for face in seen for piece in _within(face, clear)]
    drawn.surfaces(faces, visible_edges(tuple(faces), backdrop=True))
    inner = _standing(building)
    standing = [held for held in cut if held.part.element in inner and held.polygon.intersects(clear)]
    if standing:
        drawn.marks += cut_marks(standing, frame, scale, drawn.hatches)
        drawn.crop(Window(x0, x1, (Band(v0, v1),)))
    drawn.marks += [Stroke(ring, "cut", closed=True, feature="clear") for ring in rings_of(clear)]
    heights = [height for height in level_heights(building, set()) if v0 - 1.0 <= height.total <= v1 + 1.0]
    heights += _ceiling(room, floor, v1, heights)
    keys = material_keys(faces) if drawn.changes.keyed else None
    drawn.dimension(room_strings(Front(building, faces, frame, v0), clear.bounds, setting))
    own = [*level_marks(heights, x0, x1, scale, setting.units), *legend(keys or {}, x0, v0 - 2 * WIDTHS * scale, scale)]
    words = material_words(faces, scale, drawn.changes, keys)
    drawn.letter([*own, *words, *opening_numbers(building, faces, frame, scale)])
    return drawn.drawing(inside.title, inside.kind)


def _standing(building: Building) -> frozenset[str]:
    """The ids of what stands in rooms; all else bounds them: walls, floors, ceilings, roofs, chimneys, the ground."""
    project = building.placed.project
    own = [[held.id for held in group] for group in (project.stairs, project.posts, project.beams, project.rails)]
    return frozenset(id for group in own for id in group)


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
    inner = _standing(building)
    bounding = [held.polygon for held in cut if held.part.element not in inner]
    air = window.difference(shapely.union_all(bounding).buffer(0.5, join_style="mitre"))
    spot = shapely.Point(here, floor + AIR)
    held = next((piece for piece in polygons_of(air) if piece.contains(spot)), None)
    return None if held is None else Polygon(held.buffer(0.5, join_style="mitre").exterior).intersection(window)


def _within(face: Face, clear: Polygon) -> list[Face]:
    if clear.contains(face.polygon):
        return [face]
    pieces = polygons_of(face.polygon.intersection(clear))
    return [Face(piece, face.plane, face.part, face.normal) for piece in pieces]
