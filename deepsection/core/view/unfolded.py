"""Unfolded elevations: walls of a bay, or of any chain, each as one looks at it squarely, side by side."""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterator
from dataclasses import replace

import shapely
import shapely.affinity

from ..drawing import LETTER, Dimension, Drawing, Mark, Stroke, Text, moved, path
from ..geometry import Frame, half_plane, polygons_of
from ..model import ElevationView
from ..resolve import Building, PlannedWall
from ..units import Units, format_length
from ._annotations import annotated
from ._earth import earth_before
from ._ground import ground_sum
from ._lettering import Word, legend, material_keys, material_words, opening_numbers
from ._levels import level_heights, level_marks
from ._notes import note_boxes, note_marks
from ._seen import bounds_of, clipped_above, seen_faces
from .composing import Composition
from .edges import visible_edges
from .faces import Face
from .hatching import HatchTable
from .setting import Setting

BEFORE, BEHIND = 2000.0, 300.0
"""How far before and behind the outer face of a wall parts are shown with it (mm)."""
REACH = 8.0
"""Paper mm that the ground line runs past the outermost walls."""
WIDTHS, FOLD, RAISE = 10.0, 4.0, 3.2
"""Paper mm from the ground to the string of widths, by which a fold runs past what it parts, and a figure another."""


class _Panel:
    """One wall, seen squarely from outside: its faces from edge to edge, and how far they move to their place."""

    def __init__(self, building: Building, wall: PlannedWall, start: float) -> None:
        out = wall.stand(wall.length / 2).out
        self.wall = wall
        self.frame = Frame.looking(round(math.degrees(math.atan2(-out[1], -out[0])), 9))
        ends = [x * self.frame.ux + y * self.frame.uy for x, y in self._outer_corners(wall)]
        self.left, self.right = min(ends), max(ends)
        self.shift = start - self.left
        face = self.frame.depth(*wall.at(wall.length / 2, wall.outer))
        outside = tuple(part for part in building.parts if part.outside)
        seen, _ = seen_faces(outside, self.frame.dx, self.frame.dy)
        self.earth = earth_before(building, self.frame, self.left, self.right)
        self.faces = [piece for held in clipped_above(seen, self.earth) for piece in self._within(held, face)]

    @staticmethod
    def _outer_corners(wall: PlannedWall) -> list[tuple[float, float]]:
        """The ends of its outer face, where it meets its neighbours."""
        outermost = wall.layers[0].polygon
        rings = [polygon.exterior.coords for polygon in polygons_of(outermost)]
        points = [(x, y) for ring in rings for x, y in ring]
        return [p for p in points if wall.side * wall.axis.left_of(p) > wall.outer - 1.0] or points

    def _within(self, face: Face, plane: float) -> Iterator[Face]:
        a, b, c = face.plane
        near = half_plane(face.polygon.bounds, -a, -b, plane + BEHIND - c)
        if near is None:
            return
        window = shapely.box(self.left, -1e6, self.right, 1e6)
        for piece in polygons_of(face.polygon.intersection(window).intersection(near)):
            if min(face.depth(u, v) for u, v in piece.exterior.coords) > plane - BEFORE:
                yield Face(piece, face.plane, face.part, face.normal)


def draw_unfolded(
    building: Building,
    view: ElevationView,
    setting: Setting,
) -> Drawing:
    """The walls of a view beside each other, from left to right. Walls that are gone are left out."""
    panels: list[_Panel] = []
    for wall in (building.plan.by_id.get(id) for id in view.walls):
        if wall is not None:
            start = panels[-1].right + panels[-1].shift if panels else 0.0
            panels.append(_Panel(building, wall, start))
    look = panels[0].frame if panels else Frame.looking(view.look)
    drawn, scale = Composition(building, f"elevation:{view.id}", look, setting), setting.scale
    if not panels:
        message = f"The walls of {view.name} are gone. Select walls on the plan and unfold them anew."
        return drawn.drawing(view.name, "elevation", (message,))
    outside = tuple(part for part in building.parts if part.outside)
    keys = material_keys(face for panel in panels for face in panel.faces) if drawn.changes.keyed else None
    words: list[Word] = []
    lines: list[shapely.Geometry] = []
    notes, unpinned = list[Mark](), setting.notes
    for panel in panels:
        parts = {face.part.key for face in panel.faces}
        pinned = tuple(note for note in unpinned if note.anchor.part in parts)
        unpinned = tuple(note for note in unpinned if note not in pinned)
        hatches = HatchTable(scale, panel.shift)
        own = Composition(building, drawn.name, panel.frame, replace(setting, notes=pinned), hatches)
        own.surfaces(panel.faces, visible_edges(tuple(panel.faces)), shaded_by=outside)
        own.marks.append(
            Stroke(path(*panel.earth.profile), "ground", feature="ground", sum=ground_sum(building, panel.earth))
        )
        drawn.take(own, panel.shift)
        found = note_marks(building, own.setting, panel.frame, drawn.name, drawn.changes)[1]
        notes += [moved(mark, panel.shift, 0.0) for mark in found]
        lines.append(shapely.LineString([(u + panel.shift, v) for u, v in panel.earth.profile]))
        numbers = opening_numbers(building, panel.faces, panel.frame, scale)
        words += [_placed(word, panel.shift) for word in (*material_words(panel.faces, keys), *numbers)]
    drawn.setting = replace(setting, notes=unpinned)
    taken = [*(line.buffer(0.5 * scale) for line in lines), *note_boxes(notes, scale)]
    drawn.letter(_strings(panels, building, keys, setting), _once(sorted(words, key=lambda word: word.within)), taken)
    drawn.marks += notes
    return drawn.drawing(view.name, "elevation")


def _strings(panels: list[_Panel], building: Building, keys: dict[str, str] | None, setting: Setting) -> Iterator[Mark]:
    """Folds, widths, levels and the legend of unfolded walls."""
    scale, units = setting.scale, setting.units
    left, right = 0.0, panels[-1].right + panels[-1].shift
    top = max(bounds_of(panel.faces)[3] for panel in panels)
    low = min(panel.earth.low for panel in panels)
    yield from _folds(panels, low, top, scale)
    yield from _widths(panels, low, scale, units)
    seen = {face.part.element for panel in panels for face in panel.faces}
    heights = [h for h in level_heights(building, seen, without=("finish",)) if low <= h.total + 1.0 <= top + 2.0]
    yield from level_marks(heights, left, right + REACH * scale, scale, units)
    yield from legend(keys or {}, left, low - 2 * WIDTHS * scale, scale)


def _placed(word: Word, shift: float) -> Word:
    """A word of a panel where the panel stands."""
    beside = [place._replace(u=place.u + shift, about=_beside(place.about, shift)) for place in word.places]
    return replace(word, places=beside)


def _beside(polygon: shapely.Polygon, shift: float) -> shapely.Polygon:
    held: shapely.Polygon = shapely.affinity.translate(polygon, shift)
    return held


def _once(words: list[Word]) -> list[Word]:
    """Each word once: a material that several walls show is named on the first of them."""
    return list({word.key: word for word in reversed(words)}.values())[::-1]


def _folds(panels: list[_Panel], low: float, top: float, scale: float) -> Iterator[Mark]:
    """Where walls meet, a chain line, and the angle between them inside."""
    for one, other in itertools.pairwise(panels):
        u = other.left + other.shift
        (ax, ay), (bx, by) = (panel.wall.stand(panel.wall.length / 2).out for panel in (one, other))
        inner = 180.0 - math.degrees(math.acos(max(-1.0, min(1.0, ax * bx + ay * by))))
        line = path((u, low - FOLD * scale), (u, top + FOLD * scale))
        fold = Stroke(line, "centre", feature="fold")
        v = top + (FOLD + 1.0) * scale
        text = Text(u, v, f"{inner:.0f}°", 2.5, "centre", "bottom", face="mono", feature="fold")
        yield from annotated([fold, text], f"fold:{one.wall.wall.id}:{other.wall.wall.id}")


def _widths(panels: list[_Panel], low: float, scale: float, units: Units) -> Iterator[Mark]:
    """The true width of each wall, under it, and of all of them."""
    raised = 0.0
    for panel in panels:
        start, end = panel.left + panel.shift, panel.right + panel.shift
        text = format_length(end - start, units)
        # Of figures that do not fit beside each other every second one stands higher.
        raised = 0.0 if (len(text) + 1) * LETTER * scale < end - start or raised else RAISE
        yield Dimension(
            start, low, end, low, -WIDTHS, text, gap=WIDTHS - 2.0, feature="width", raised=raised,
            annotation=f"width:{panel.wall.wall.id}",
        )  # fmt: skip
    if len(panels) > 1:
        end = panels[-1].right + panels[-1].shift
        yield Dimension(
            0.0, low, end, low, -2 * WIDTHS, format_length(end, units), gap=2 * WIDTHS - 2.0, feature="width",
            annotation="width:overall",
        )  # fmt: skip
