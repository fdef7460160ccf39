"""The straight parts of a section line, each with its plane and what it shows; bent ones beside each other."""

from __future__ import annotations

import itertools
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from shapely import affinity
from shapely.geometry import LineString, Polygon

from ..drawing import Label, Lettered, Mark, moved
from ..drawing.cropping import FAR, Band, Window
from ..geometry import Frame
from ..model import SectionLine
from .sights import Sight
from .unfolded import fold_marks


def section_frame(line: SectionLine) -> Frame:
    """The frame of a section: its look direction, with depth zero on the line."""
    return Frame.facing(line.ahead, line.x1, line.y1)


def section_window(line: SectionLine) -> Window:
    """What a section shows of its plane: from end to end of its line, from its bottom to its top."""
    frame = section_frame(line)
    left, right = sorted(x * frame.ux + y * frame.uy for x, y in ((line.x1, line.y1), (line.x2, line.y2)))
    low = -FAR if line.bottom is None else line.bottom
    high = FAR if line.top is None else line.top
    return Window(left, right, (Band(low, high),))


@dataclass(frozen=True, slots=True)
class Panel:
    """A straight part of a section line with its plane and what it shows there, drawn so far (mm) to the right of it.

    `turn`: by how much (degrees) it is turned against the part before it.
    """

    line: SectionLine
    frame: Frame
    window: Window
    shift: float = 0.0
    turn: float = 0.0

    @property
    def between(self) -> tuple[float, float]:
        """From where to where it lies on the drawing."""
        return self.window.left + self.shift, self.window.right + self.shift

    @property
    def plane(self) -> LineString:
        """Its line in plan."""
        return LineString([(self.line.x1, self.line.y1), (self.line.x2, self.line.y2)])

    @property
    def sight(self) -> Sight:
        """How it sees points in space: from its plane on, from end to end."""
        return Sight(self.frame, start=0.0, shift=self.shift, between=(self.window.left, self.window.right))

    def drawn(self, polygon: Polygon) -> Polygon:
        """Where what is cut in its plane is drawn."""
        return affinity.translate(polygon, self.shift, 0.0) if self.shift else polygon

    def placed(self, marks: Sequence[Lettered]) -> list[Lettered]:
        """Marks in its plane, where it is drawn."""
        if not self.shift:
            return list(marks)
        return [
            mark.moved(self.shift, 0.0) if isinstance(mark, Label) else moved(mark, self.shift, 0.0) for mark in marks
        ]


def section_panels(line: SectionLine) -> tuple[Panel, ...]:
    """The parts of a section line from its start to its end: each goes on where the one before it ends."""
    panels: list[Panel] = []
    turns = [0.0, *(step.turn for step in line.steps)]
    for part, turn in zip(line.parts, turns):
        frame, shift = section_frame(part), 0.0
        if panels:
            before = panels[-1]
            shift = before.shift
            if turn or shift:
                ends = before.frame.plan_to_turned(before.line.x2, before.line.y2)[0]
                shift += ends - frame.plan_to_turned(part.x1, part.y1)[0]
        panels.append(Panel(part, frame, section_window(part), shift, turn))
    return tuple(panels)


def runs_of(panels: Sequence[Panel]) -> list[list[Panel]]:
    """Parts that are parallel, one after the other."""
    runs: list[list[Panel]] = []
    for panel in panels:
        if runs and not panel.turn:
            runs[-1].append(panel)
        else:
            runs.append([panel])
    return runs


def reach_of(run: Sequence[Panel]) -> tuple[float, float]:
    """From where to where parts that are parallel lie in their planes."""
    return min(held.window.left for held in run), max(held.window.right for held in run)


def section_sights(line: SectionLine) -> tuple[Sight, ...]:
    """What a section shows: from the plane of each of its parts on."""
    if not line.steps:
        return (Sight(section_frame(line), start=0.0),)
    return tuple(panel.sight for panel in section_panels(line))


def bend_marks(panels: Sequence[Panel], low: float, high: float, scale: float) -> Iterator[Mark]:
    """Where a section line bends, a chain line, and by how much."""
    for number, (one, other) in enumerate(itertools.pairwise(panels), 1):
        if not other.turn:
            continue
        right = other.between[0] >= one.between[1] - 1.0
        u = other.between[0] if right else other.between[1]
        yield from fold_marks(u, low, high, abs(other.turn), f"fold:{one.line.id}:{number}", scale)
