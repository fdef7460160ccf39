"""Strings of dimensions of a section: heights at both sides, clear heights in its rooms, spans and widths below."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import partial
from typing import Protocol

import numpy as np
import shapely
from shapely.geometry import LineString, Polygon

from ...drawing import Dimension, Label, text_width
from ...drawing.chains import Place, String, distinct, stretches
from ...drawing.cropping import Window
from ...drawing.detail import shown_from
from ...geometry import Frame, Point
from ...model import bearing_layer
from ...resolve import ROLES, Building, Part
from ...tolerance import TOL
from ...units import HeightSum
from ..setting import Setting
from ..sights import Sight
from .making import made

BESIDE, STEP, BELOW = 4.0, 7.5, 9.0
"""Paper mm from what is drawn beside a section to its first string, from one to the next, and to the first below."""
LEAST = 2.0
"""Heights closer together than this on paper (mm) are not dimensioned apart."""
PROBE = 1000.0
"""The clear height of a room is measured through a point so far above its floor (mm)."""
TALLEST = 15_000.0
"""No room is taller than this (mm)."""
SHARES = (0.2, 0.8, 0.35, 0.65, 0.5)
"""Where across a room its clear height is measured, the first at which nothing stands in the way, off its name."""
FOOTINGS = ("footing", "pad", "slab_edge")


class CutPlane(Protocol):
    """A plane that cuts the house, and its line in plan, drawn so far (mm) to the right of where it lies."""

    @property
    def frame(self) -> Frame:
        """Of the plane."""

    @property
    def plane(self) -> LineString:
        """Its line in plan."""

    @property
    def shift(self) -> float:
        """How far to the right it is drawn."""

    @property
    def sight(self) -> Sight:
        """How it sees points in space."""


@dataclass(frozen=True, slots=True)
class SectionFacts:
    """What a section shows, as its strings need it: its planes, what is cut of which parts, what is around it."""

    building: Building
    panels: Sequence[CutPlane]
    cut: Sequence[tuple[Part, Polygon]]
    box: tuple[float, float, float, float]
    reach: float
    low: float
    names: Sequence[Label]
    setting: Setting
    window: Window

    @property
    def scale(self) -> float:
        """Of the drawing."""
        return self.setting.scale

    def shows(self, name: str) -> bool:
        """Whether a string is shown."""
        return self.setting.shows(name)

    def named(self, room: str) -> tuple[float, float]:
        """From-to of the name of a room, with what stays clear of it for a figure."""
        text = next((text for label in self.names for text in label.texts if text.part == room), None)
        if text is None:
            return math.inf, -math.inf
        half = (text_width(text.text, text.size, text.face) / 2 + BESIDE) * self.scale
        return text.x - half, text.x + half

    def true_ends(self, polygon: Polygon) -> list[float]:
        """Left and right end of what is cut, less where the window cuts it off."""
        left, right = self.window.left + TOL.grid, self.window.right - TOL.grid
        return [end for end in polygon.bounds[::2] if left < end < right]

    def is_whole(self, polygon: Polygon) -> bool:
        """Whether what is cut ends within the top and the bottom of the window."""
        return bool(self.window.low + TOL.grid < polygon.bounds[1] and polygon.bounds[3] < self.window.high - TOL.grid)

    def along(self, shape: shapely.Geometry) -> list[tuple[float, float]]:
        """From-to in the section of what its line crosses of a shape in plan."""
        found = []
        for panel in self.panels:
            frame = panel.frame
            for piece in shapely.get_parts(shapely.intersection(panel.plane, shape)):
                ends = [x * frame.ux + y * frame.uy + panel.shift for x, y in piece.coords]
                if len(ends) > 1:
                    found.append((min(ends), max(ends)))
        return found

    def frame_at(self, u: float) -> Frame:
        """The frame of the plane that is drawn at a place."""
        return next((held.frame for held in self.panels if held.sight.holds(u)), self.panels[0].frame)


def section_strings(facts: SectionFacts, heights: Sequence[HeightSum]) -> Iterator[String]:
    """All strings of a section."""
    levels = list(_levels(facts, heights))
    yield from levels
    yield from _openings(facts, levels)
    yield clear_heights(facts)
    yield from _below(facts)


def room_beside(strings: Sequence[String], side: str) -> float:
    """Paper mm that the strings at a side take."""
    rows = sum(1 for held in strings if held.shown and held.marks and held.name.startswith(f"{side}:"))
    return BESIDE + rows * STEP if rows else 0.0


def height_string(facts: SectionFacts, name: str, row: int, places: Sequence[Place], *, usual: bool = True) -> String:
    """A string at the left or the right of all, or below it."""
    side = name.partition(":")[0]
    if side == "bottom":
        low = facts.low
        offset = -(BELOW + row * STEP)
        across = facts.window.across
        return made(facts.setting, name, places, lambda a, b: (across(a), low, across(b), low), offset, feature="width")
    u = facts.box[0] - facts.reach if side == "left" else facts.box[2] + facts.reach
    offset = (BESIDE + row * STEP) * (1.0 if side == "left" else -1.0)
    # Heights are counted from the datum, as the level marks beside them write them.
    line = partial(_upright, u, facts.window)
    return made(facts.setting, name, places, line, offset, feature="height", origin=0.0, usual=usual)


def _upright(u: float, window: Window, low: float, high: float) -> tuple[float, float, float, float]:
    return u, window.at(low), u, window.at(high)


def _levels(facts: SectionFacts, heights: Sequence[HeightSum]) -> Iterator[String]:
    """From level to level, and the overall height: at the left, by choice at the right."""
    for side in ("left", "right"):
        yield from level_strings(facts, side, heights, usual=side == "left")


def level_strings(
    facts: SectionFacts, side: str, heights: Sequence[HeightSum], row: int = 0, *, usual: bool
) -> Iterator[String]:
    """From level to level at a side, and the overall height; from a row on."""
    name = f"{side}:levels"
    near = 1.0 if facts.setting.rule_of(name).density == "denser" else LEAST * facts.scale
    places = distinct([Place(height.total, height.id) for height in heights], near)
    if len(places) < 2:
        return
    if heights[-1].total > places[-1].at:
        places[-1] = Place(heights[-1].total, heights[-1].id)
    string = height_string(facts, name, row, places, usual=usual)
    yield string
    if len(places) > 2:
        yield height_string(facts, f"{side}:overall", row + int(string.shown), [places[0], places[-1]], usual=usual)


def _openings(facts: SectionFacts, levels: Sequence[String]) -> Iterator[String]:
    """Sills and heads of the outermost openings that are cut, from the floor of their storey, at their sides."""
    found: dict[str, list[Place]] = {"left": [], "right": []}
    middle = (facts.box[0] + facts.box[2]) / 2
    for wall in facts.building.plan.walls:
        if wall.wall.status != "outer":
            continue
        for placed in facts.building.openings[wall.wall.id]:
            if placed.opening.unit == "niche":
                continue
            hole = wall.stand(placed.centre).panel(placed.left, placed.right, wall.inner, wall.outer)
            for low, high in facts.along(hole):
                id, base = placed.opening.id, facts.building.levels[wall.wall.base.level]
                own = [(base.z, base.sum.id), (placed.sill.total, f"{id}.sill"), (placed.head.total, f"{id}.head")]
                found["left" if low + high < 2 * middle else "right"] += [Place(*held) for held in own]
    for side, held in found.items():
        places = [place for place in held if facts.window.shows_height(place.at)]
        if len(places) > 1:
            row = sum(string.shown for string in levels if string.name.startswith(f"{side}:"))
            yield height_string(facts, f"{side}:openings", row, distinct(places))


def clear_heights(facts: SectionFacts) -> String:
    """In each room that is cut, how high it is between what is cut above and below."""
    name, marks = "inside:clear", list[Dimension]()
    shown = facts.setting.shows(name, shown_from("strings inside", facts.scale))
    for room, u, low, high in clear_spans(facts) if shown else ():
        ends = [Place(low, "floor"), Place(high, "ceiling")]
        for piece in stretches(ends, facts.setting.measure, facts.scale):
            line = _upright(u, facts.window, piece.start, piece.end)
            marks.append(Dimension(*line, 0.0, piece.text, feature="clear", annotation=f"string:{name}:{room}"))
    return String(name, shown, tuple(marks))


def clear_spans(facts: SectionFacts) -> Iterator[tuple[str, float, float, float]]:
    """(id, where it is measured, floor, ceiling) of the air of each room that is cut."""
    polygons = np.array([polygon for _, polygon in facts.cut], dtype=object)
    tree = shapely.STRtree(polygons)
    for held in facts.building.rooms:
        pieces = facts.along(held.space) if held.space else []
        if not pieces:
            continue
        low, high = max(pieces, key=lambda piece: piece[1] - piece[0])
        floor = facts.building.levels[held.level].z
        start, end = facts.named(held.room.id)
        places = [low + (high - low) * share for share in SHARES]
        for u in sorted(places, key=lambda at: start < at < end):
            span = _air(u, floor, polygons, tree)
            if span:
                yield held.room.id, u, *span
                break


def _air(u: float, floor: float, polygons: np.ndarray, tree: shapely.STRtree) -> Point | None:
    """From-to of the air over a floor at a place; none where nothing is above."""
    line = LineString([(u, floor - PROBE), (u, floor + TALLEST)])
    solid = shapely.intersection(polygons[tree.query(line, predicate="intersects")], line)
    bounds = shapely.bounds(solid).reshape(-1, 4)
    bounds = bounds[~np.isnan(bounds[:, 1])]
    at = floor + PROBE
    if ((bounds[:, 1] < at) & (bounds[:, 3] > at)).any():
        return None
    under, over = bounds[bounds[:, 3] <= at, 3], bounds[bounds[:, 1] >= at, 1]
    return (float(under.max()), float(over.min())) if len(under) and len(over) else None


def _ends(places: Sequence[Place]) -> list[Place]:
    return [min(places, key=lambda held: held.at), max(places, key=lambda held: held.at)]


def _below(facts: SectionFacts) -> Iterator[String]:
    """Widths of footings; faces of what bears, with the spans between; how far eaves reach; overall."""
    footings = [
        Place(end, part.role)
        for part, polygon in facts.cut
        if part.role in FOOTINGS
        for end in facts.true_ends(polygon)
    ]
    faces = []
    for wall in facts.building.plan.walls:
        layer = wall.layers[bearing_layer(facts.building.placed.make_ups[wall.wall.make_up])]
        if wall.wall.bears:
            faces += [Place(end, wall.wall.id) for piece in facts.along(layer.polygon) for end in piece]
    eaves = [end for part, polygon in facts.cut if ROLES[part.role].overhangs for end in facts.true_ends(polygon)]
    row = 0
    rows = [("bottom:footings", footings), ("bottom:walls", faces)]
    if faces:
        ends = _ends(faces)
        out = [Place(end, "eave") for end in ((min(eaves), max(eaves)) if eaves else ())]
        out = [held for held in out if held.at < ends[0].at - LEAST or held.at > ends[1].at + LEAST]
        rows += [("bottom:overhangs", [*ends, *out] if out else []), ("bottom:overall", _ends([*ends, *out]))]
    for name, places in rows:
        places = distinct(places)
        if len(places) > 1:
            string = height_string(facts, name, row, places)
            row += string.shown
            yield string
