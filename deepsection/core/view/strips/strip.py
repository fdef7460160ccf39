"""Wall sections: from under the footing to above the eave, with what every layer is; cut short on paper."""

from __future__ import annotations

import itertools
from collections.abc import Iterator, Sequence
from dataclasses import replace

from ...buildups import with_pieces
from ...drawing import Drawing, Label, Lettered, Mark, Region, Stroke, moved, path
from ...drawing.breaklines import break_line
from ...drawing.cropping import Window
from ...drawing.detail import shown_from
from ...drawing.marks import Handle
from ...geometry import Frame, Point
from ...model import WallSection
from ...resolve import ROLES, Building
from ...units import HeightSum
from .._earth import earth_along
from .._levels import eaves_facing, level_heights, level_marks
from ..composing import Composition
from ..cut import CutPart, cut_parts
from ..cut_lines import course_height
from ..details.marks import detail_outlines
from ..planes import cut_spans, plane_of
from ..section import draw_body, lowest
from ..setting import Setting
from ..sights import Sight
from ..strings.section import SectionFacts, room_beside
from ..strings.strip import strip_strings
from .breaks import GAP, Feature, broken, broken_across, features_of
from .gaps import gaps_of, paper_scale, stated_breaks
from .gaps_across import gaps_across, stated_inside
from .pieces import course_notes, piece_notes
from .place import StripPlace, strip_place, strip_window
from .stacks import note_stacks, stack_legend, stack_marks

AROUND = 3000.0
"""Pieces of build-ups are made so far around the outer face of the wall (mm)."""
HEAVY = ("structure", "insulation")
"""Pieces of build-ups that no break leaves out."""
LEGEND_BELOW = 22.0
"""Paper mm from what is drawn to the legend of keyed notes, below the string of layers."""


def strip_sights(building: Building, held: WallSection) -> tuple[Sight, ...]:
    """What a wall section shows: from its plane on, from side to side."""
    place = strip_place(building, held)
    if place is None:
        return ()
    window, _ = strip_window(building, place, 1.0)
    return (plane_of(place.frame, window).sight,)


def draw_strip(building: Building, held: WallSection, setting: Setting) -> Drawing:
    """The wall section at a scale: on paper with its breaks, else whole, with these as bands."""
    name, title = f"section:{held.id}", f"Wall section {held.name}"
    place = strip_place(building, held)
    if place is None:
        blank = Composition(building, name, Frame(0.0, 1.0), setting)
        return blank.drawing(title, "section", (f"{title} lies past the end of its wall. Type another distance.",))
    beside = Window(place.outer - AROUND, place.outer + AROUND)
    built = with_pieces(building, place.frame, beside, setting.scale)
    strip = _Strip(Composition(built, name, place.frame, setting), place, building)
    if not strip.cut:
        return strip.view.drawing(title, "section", (f"{title} cuts nothing here. {_remedy(held)}",))
    strip.draw()
    return strip.view.drawing(title, "section", strip.messages)


def _remedy(held: WallSection) -> str:
    """What to change where a wall section shows nothing."""
    if held.top is not None or held.bottom is not None:
        return "Its top or bottom leaves nothing to show: type others, or none."
    return "Type another distance."


class _Strip:
    """A wall section that is being drawn."""

    def __init__(self, view: Composition, place: StripPlace, plain: Building) -> None:
        self.plain = plain
        self.view, self.place, self.scale = view, place, view.setting.scale
        self.whole, self.cut = strip_window(view.building, place, self.scale)
        self.messages: tuple[str, ...] = ()
        if not self.cut:
            return
        self.heights = _heights(view.building, place, self.cut, self.whole)
        # Flashings, membranes and boards of build-ups go on over a break as layers do.
        held = (one for one in self.cut if not one.part.note or one.part.function in HEAVY)
        cut = [(ROLES[one.part.role].words, one.polygon) for one in held]
        features = features_of(cut, [(height.label, height.total) for height in self.heights])
        features.append(_ground_line(view.building, place, self.whole))
        on_paper, project = view.setting.on_paper, view.building.placed.project
        printed = self.scale if on_paper else paper_scale(project, place.held)
        self.gaps, self.messages = gaps_of(place.held, view.building, features, self.whole, printed)
        self.aside, more = gaps_across(place, view.building, self.cut, self.whole, printed)
        self.messages += more
        self.window = self.whole
        if on_paper:
            self.window = broken(self.whole, self.gaps, GAP * self.scale)
            self.window = broken_across(self.window, self.aside, GAP * self.scale, place.outer)
        self.left, self.right = (self.window.across(u) for u in (self.window.left, self.window.right))

    def draw(self) -> None:
        """Its body, strings, levels and notes."""
        view, window, held = self.view, self.window, self.place.held
        view.setting = replace(view.setting, notes=_notes_at(view.setting.notes, window))
        body = draw_body(view, view.frame, window, self.cut, held.depth, members=held.members)
        view.marks += _break_lines(self) if view.setting.on_paper else _bands(self)
        view.marks += _ends(self)
        low = lowest(view.marks)
        facts = SectionFacts(
            view.building,
            (plane_of(view.frame, window),),
            [(one.part, one.polygon) for one in self.cut],
            (self.left, low, self.right, window.at(window.high)),
            0.0,
            low,
            (),
            view.setting,
            window,
        )
        strings = list(strip_strings(facts, self.place, self.heights, body.ground.whole.height_at(self.place.outer)))
        view.dimension(strings)
        view.letter(self._lettering(facts, {side: room_beside(strings, side) for side in ("left", "right")}))

    def _lettering(self, facts: SectionFacts, beside: dict[str, float]) -> Iterator[Lettered]:
        view, window, place, scale = self.view, self.window, self.place, self.scale
        left, right = self.left - beside["left"] * scale, self.right + beside["right"] * scale
        shown = [height for height in self.heights if window.shows_height(height.total)]
        sides = (int(place.out),)
        yield from level_marks(shown, left, right, scale, view.setting.units, sides=sides, at=window.at)
        if not shown_from("note stacks", scale):
            return
        stacks = note_stacks(place, view.building, facts.cut, window, scale)
        yield from stack_marks(stacks, place, left if place.out > 0 else right, view.changes, scale)
        if view.changes.keyed:
            yield from stack_legend(stacks, (self.left, facts.low - LEGEND_BELOW * scale), scale)
        if not shown_from("notes of pieces", scale):
            return
        yield from detail_outlines(view, view.frame, window, self.cut)
        yield from piece_notes(self.cut, place, window, scale, view.setting.units)
        yield from course_notes(self._coursed(), place, window, scale, view.setting.units)

    def _coursed(self) -> list[CutPart]:
        """What is laid in courses, whatever flashings and weep holes take from it."""
        keys = {one.part.key for one in self.cut if course_height(one) is not None}
        parts = tuple(self.plain.by_key[key] for key in sorted(keys) if key in self.plain.by_key)
        return cut_parts(self.plain.with_parts(parts), self.view.frame, self.whole) if parts else []


def _ground_line(building: Building, place: StripPlace, whole: Window) -> Feature:
    """The ground outside of the wall, from its lowest place to its highest."""
    ends = sorted((place.outer, whole.right if place.out > 0 else whole.left))
    earth = earth_along(building.ground, place.frame, *ends)
    return Feature(earth.low, earth.high, "ground line")


def _heights(building: Building, place: StripPlace, cut: Sequence[CutPart], whole: Window) -> list[HeightSum]:
    """Levels that a strip shows, and the eaves over its wall; low ones first."""
    elements = {one.part.element for one in cut}
    between = place.frame, whole.left, whole.right
    out = place.wall.stand(place.along).out
    heights = level_heights(building, elements, between=between)
    for eave in eaves_facing(building, elements, Frame(-out[0], -out[1])):
        if all(abs(one.total - eave.total) > 1.0 for one in heights):
            heights.append(eave)
    return sorted((one for one in heights if whole.shows_height(one.total)), key=lambda one: one.total)


def _notes_at(notes: Sequence[Lettered], window: Window) -> tuple[Lettered, ...]:
    """A drafter's notes where the places that they point at are drawn: each goes with its dot."""
    shifts: dict[str, Point] = {}
    for mark in notes:
        if isinstance(mark, Region) and mark.part:
            u, v, _ = mark.rings[0][0]
            shifts[mark.part] = window.across(u) - u, window.at(v) - v
    found = list[Lettered]()
    for mark in notes:
        id = mark.key.partition(":")[2] if isinstance(mark, Label) else getattr(mark, "part", None)
        by = shifts.get(id or "", (0.0, 0.0))
        found.append(mark.moved(*by) if isinstance(mark, Label) else moved(mark, *by))
    return tuple(found)


def _break_lines(strip: _Strip) -> Iterator[Mark]:
    """On paper: two lines at each break, from side to side."""
    window, part = strip.window, f"{strip.place.held.id}/break//"
    for below, above in itertools.pairwise(window.bands):
        for v in (below.high + below.shift, above.low + above.shift):
            line = break_line((strip.left, v), (strip.right, v), strip.scale)
            yield Stroke(line, "fine", part=part, feature="break")


def _bands(strip: _Strip) -> Iterator[Mark]:
    """On the bench: what is left out on paper, to be dragged."""
    held, window = strip.place.held, strip.whole
    for k, (low, high) in enumerate(strip.gaps):
        part = f"{held.id}/break/{k}/"
        number, own = stated_breaks(strip.view.building, held, strip.gaps, k)
        stated = ";".join(f"{one.level},{one.above:.3f},{one.tall:.3f}" for one in own)
        handle = Handle("move_break", held.id, f"{number};{stated}", "z")
        ring = path((window.left, low), (window.right, low), (window.right, high), (window.left, high))
        yield Region((ring,), pen="hidden", part=part, feature="break", handle=handle)
    for k, (left, right) in enumerate(strip.aside):
        number, inside = stated_inside(strip.place, strip.aside, k)
        stated = ";".join(f"{one.inward:.3f},{one.wide:.3f}" for one in inside)
        handle = Handle("move_inside_break", held.id, f"{number},{strip.place.out:g};{stated}", "along")
        ring = path((left, window.low), (right, window.low), (right, window.high), (left, window.high))
        yield Region((ring,), pen="hidden", part=f"{held.id}/break/{k}/aside", feature="break", handle=handle)


def _ends(strip: _Strip) -> Iterator[Mark]:
    """Break lines where floors, ceilings and roofs go on past the sides or are broken, walls past the ends."""
    window, polygons, held = strip.window, [one.polygon for one in strip.cut], strip.place.held
    low, high, left, right = window.low, window.high, window.left, window.right
    inner = (edge for pair in itertools.pairwise(window.columns) for edge in (pair[0].high, pair[1].low))
    edges = [((edge, low), (edge, high)) for edge in (left, right, *inner)]
    edges += [((left, v), (right, v)) for stated, v in ((held.bottom, low), (held.top, high)) if stated is not None]
    for start, end in edges:
        for span in cut_spans(polygons, start, end):
            ends = [(window.across(u), window.at(v)) for u, v in span]
            yield Stroke(break_line(ends[0], ends[1], strip.scale), "fine", feature="break")
