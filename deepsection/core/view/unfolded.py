"""Unfolded elevations: walls of a bay, or of any chain, each as one looks at it squarely, side by side."""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterator

import shapely

from ..drawing import Drawing, Label, Mark, Stroke, Text, path
from ..drawing.chains import Place
from ..geometry import Frame, half_plane, polygons_of
from ..model import ElevationView
from ..resolve import Building, PlannedWall
from ._annotations import annotated
from ._earth import earth_before
from ._ground import ground_sum
from ._lettering import legend, material_keys, material_words, opening_numbers
from ._levels import level_heights, level_marks
from ._seen import bounds_of, clipped_above, seen_faces
from .composing import Composition
from .edges import visible_edges
from .faces import Face
from .hatching import HatchTable
from .setting import Setting
from .sights import Sight
from .strings.elevation import panel_strings

BEFORE, BEHIND = 2000.0, 300.0
"""How far before and behind the outer face of a wall parts are shown with it (mm)."""
REACH = 8.0
"""Paper mm that the ground line runs past the outermost walls."""
WIDTHS, FOLD = 10.0, 4.0
"""Paper mm from the ground to the string of widths, and by which a fold runs past what it parts."""


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
        self.depths = face - BEFORE, face + BEHIND
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
    panels = _panels(building, view)
    look = panels[0].frame if panels else Frame.looking(view.look)
    drawn, scale = Composition(building, f"elevation:{view.id}", look, setting), setting.scale
    if not panels:
        message = f"The walls of {view.name} are gone. Select walls on the plan and unfold them anew."
        return drawn.drawing(view.name, "elevation", (message,))
    outside = tuple(part for part in building.parts if part.outside)
    keys = material_keys(face for panel in panels for face in panel.faces) if drawn.changes.keyed else None
    words: list[Label] = []
    for panel in panels:
        hatches = HatchTable(scale, panel.shift)
        own = Composition(building, drawn.name, panel.frame, setting, hatches)
        own.surfaces(panel.faces, visible_edges(tuple(panel.faces)), shaded_by=outside)
        own.marks.append(
            Stroke(path(*panel.earth.profile), "ground", feature="ground", sum=ground_sum(building, panel.earth))
        )
        drawn.take(own, panel.shift)
        numbers = opening_numbers(building, panel.faces, panel.frame, scale)
        named = material_words(panel.faces, scale, drawn.changes, keys)
        words += [label.moved(panel.shift, 0.0) for label in (*named, *numbers)]
    edges = [Place(0.0, "start"), *(Place(panel.right + panel.shift, panel.wall.wall.id) for panel in panels)]
    drawn.dimension(panel_strings(edges, min(panel.earth.low for panel in panels), WIDTHS, setting))
    drawn.letter(
        [*_strings(panels, building, keys, setting), *{label.key: label for label in reversed(words)}.values()]
    )
    return drawn.drawing(view.name, "elevation")


def _panels(building: Building, view: ElevationView) -> list[_Panel]:
    panels: list[_Panel] = []
    for wall in (building.plan.by_id.get(id) for id in view.walls):
        if wall is not None:
            start = panels[-1].right + panels[-1].shift if panels else 0.0
            panels.append(_Panel(building, wall, start))
    return panels


def unfolded_sights(building: Building, view: ElevationView) -> tuple[Sight, ...]:
    """What each panel of unfolded walls shows."""
    return tuple(
        Sight(panel.frame, shift=panel.shift, between=(panel.left, panel.right), depths=panel.depths)
        for panel in _panels(building, view)
    )


def _strings(panels: list[_Panel], building: Building, keys: dict[str, str] | None, setting: Setting) -> Iterator[Mark]:
    """Folds, levels and the legend of unfolded walls."""
    scale, units = setting.scale, setting.units
    left, right = 0.0, panels[-1].right + panels[-1].shift
    top = max(bounds_of(panel.faces)[3] for panel in panels)
    low = min(panel.earth.low for panel in panels)
    yield from _folds(panels, low, top, scale)
    seen = {face.part.element for panel in panels for face in panel.faces}
    heights = [h for h in level_heights(building, seen, without=("finish",)) if low <= h.total + 1.0 <= top + 2.0]
    yield from level_marks(heights, left, right + REACH * scale, scale, units)
    yield from legend(keys or {}, left, low - 2 * WIDTHS * scale, scale)


def _folds(panels: list[_Panel], low: float, top: float, scale: float) -> Iterator[Mark]:
    """Where walls meet, a chain line, and the angle between them inside."""
    for one, other in itertools.pairwise(panels):
        u = other.left + other.shift
        (ax, ay), (bx, by) = (panel.wall.stand(panel.wall.length / 2).out for panel in (one, other))
        inner = 180.0 - math.degrees(math.acos(max(-1.0, min(1.0, ax * bx + ay * by))))
        yield from fold_marks(u, low, top, inner, f"fold:{one.wall.wall.id}:{other.wall.wall.id}", scale)


def fold_marks(u: float, low: float, top: float, degrees: float, key: str, scale: float) -> Iterator[Mark]:
    """A chain line at a place, past what it parts, with an angle over it."""
    line = path((u, low - FOLD * scale), (u, top + FOLD * scale))
    fold = Stroke(line, "centre", feature="fold")
    v = top + (FOLD + 1.0) * scale
    text = Text(u, v, f"{degrees:.0f}°", 2.5, "centre", "bottom", face="mono", feature="fold")
    yield from annotated([fold, text], key)
