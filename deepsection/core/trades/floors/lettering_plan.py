"""Numbers of joists in a framing plan: a line across each group of like ones, and words between two of them."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from typing import Any

import shapely

from ...drawing import HERE, NUMBER, Label, Lettered, Mark, Stroke, Text, along, path, readable, text_width
from ...drawing.tables import TEXT
from ...geometry import Frame, Point
from .schedule import Numbered
from .turned import Box, Turned

SMALL = 1.8
"""Height of lettering at members (paper mm)."""
TICK = 1.6
"""Length of a tick at the end of a measure (paper mm)."""
GAP = 1.7
"""Joists farther apart than so many spacings are two groups."""
PLACES = (0.3, 0.05, 0.55, 0.15, 0.7)
"""Where along its joists the line of a group may lie: the first at which there is room."""


@dataclass(frozen=True, slots=True)
class Group:
    """Joists of one number side by side, in order."""

    number: str
    boxes: tuple[Box, ...]

    @property
    def places(self) -> Point:
        """The middles of the first and the last across."""
        return (self.boxes[0][0] + self.boxes[0][1]) / 2, (self.boxes[-1][0] + self.boxes[-1][1]) / 2

    @property
    def shared(self) -> Point:
        """The stretch along them that all of them run."""
        return max(box[2] for box in self.boxes), min(box[3] for box in self.boxes)

    def beside(self, room: float) -> list[tuple[float, float]]:
        """(from, to) across between neighbours, nearest to the middle first; of a single one, so much beside it."""
        if len(self.boxes) == 1:
            a0, a1, _, _ = self.boxes[0]
            return [(a1, a1 + room), (a0 - room, a0)]
        gaps = [(left[1], right[0]) for left, right in zip(self.boxes, self.boxes[1:])]
        middle = sum(self.places) / 2
        return sorted(gaps, key=lambda gap: abs((gap[0] + gap[1]) / 2 - middle))


def groups_of(own: Sequence[Numbered], direction: Point, spacing: float) -> list[Group]:
    """Joists of a bay by their numbers, side by side; the largest groups first."""
    turned = Turned(direction)
    boxes = [(piece.number, turned.box(piece.area)) for piece in own]
    # Joists of one number may lie in several bays between bearings: those that start at one place are together.
    rows = sorted(boxes, key=lambda held: (held[0], round(held[1][2], -3), held[1][0]))
    found: list[Group] = []
    run: list[Box] = []
    for k, (number, box) in enumerate(rows):
        run.append(box)
        after = rows[k + 1] if k + 1 < len(rows) else None
        beside = after and after[0] == number and _run_together(box, after[1])
        if not (after and beside and box[0] <= after[1][0] < box[1] + GAP * spacing):
            found.append(Group(number, tuple(run)))
            run = []
    return sorted(found, key=lambda group: -len(group.boxes))


class Numbering:
    """A bay whose joists are being numbered: what is taken already."""

    def __init__(self, frame: Frame, direction: Point, scale: float, taken: Sequence[Box]) -> None:
        self.frame, self.turned, self.scale, self.taken = frame, Turned(direction), scale, list(taken)

    def number(self, group: Group, texts: Sequence[str], key: str) -> Iterator[Lettered]:
        """A line across a group, and the first of some texts that finds room beside it; the last may do without."""
        boxes: list[Box] = []
        for text in texts:
            boxes = [box for box in self._boxes(group, text) if not any(box.meets(other) for other in self.taken)]
            if boxes:
                break
        cramped = not boxes
        boxes = boxes or list(self._boxes(group, text, cramped=True))
        self.taken.append(boxes[0])
        at = boxes[0][2] - 0.8 * self.scale
        yield from self._range(group, at, key)
        yield replace(self._text(text, boxes, group, at, key), backed=cramped)

    def _boxes(self, group: Group, text: str, *, cramped: bool = False) -> Iterator[Box]:
        """The places beside a group's joists; where they are `cramped`, those that pass its ends too."""
        low, high = group.shared
        for share in PLACES:
            at = low + (high - low) * share
            for gap in group.beside((TEXT + 1.2) * self.scale):
                box = self._box(text, gap, at)
                if box[3] < high or cramped:
                    yield box

    def _box(self, text: str, gap: tuple[float, float], at: float) -> Box:
        tall, long = (TEXT / 2 + 0.25) * self.scale, (text_width(text, TEXT) + 1.6) * self.scale
        middle = (gap[0] + gap[1]) / 2
        return Box(middle - tall, middle + tall, at + 0.8 * self.scale, at + long)

    def _range(self, group: Group, at: float, key: str) -> Iterator[Mark]:
        if len(group.boxes) > 1:
            a, b = (spot(self.frame, self.turned, place, at) for place in group.places)
            yield from line_with_ticks(a, b, self.scale, key, "range")

    def _text(self, text: str, boxes: Sequence[Box], group: Group, at: float, key: str) -> Label:
        spots = [spot(self.frame, self.turned, (box[0] + box[1]) / 2, (box[2] + box[3]) / 2) for box in boxes]
        (u0, w0), (u1, w1) = spots[0], spot(self.frame, self.turned, sum(boxes[0][:2]) / 2, boxes[0][3])
        angle = readable(math.degrees(math.atan2(w1 - w0, u1 - u0)))
        words = Text(u0, w0, text, TEXT, "centre", "middle", angle, "mono", key, feature="number")
        a, b = (spot(self.frame, self.turned, place, at) for place in group.places)
        about = shapely.LineString([a, b]) if len(group.boxes) > 1 else None
        return Label(f"framing:{key}:{text}", (words,), [(u - u0, w - w0) for u, w in spots], NUMBER, about)


def _run_together(a: Box, b: Box) -> bool:
    """Whether two joists run beside each other for the better part of their lengths."""
    return min(a[3], b[3]) - max(a[2], b[2]) > max(a[3] - a[2], b[3] - b[2]) / 2


def spot(frame: Frame, turned: Turned, across: float, along: float) -> Point:
    """A place in a bay, on the drawing."""
    return frame.plan_to_turned(*turned.at(across, along))


def line_with_ticks(a: Point, b: Point, scale: float, key: str, feature: str) -> Iterator[Mark]:
    """A thin line with a slanted tick at each end."""
    length = math.dist(a, b) or 1.0
    du, dw = (b[0] - a[0]) / length, (b[1] - a[1]) / length
    yield Stroke(path(a, b), "dimension", part=key, feature=feature)
    half = TICK * scale * 0.4
    for u, w in (a, b):
        ends = [(u + s * (du - dw) * half, w + s * (dw + du) * half) for s in (-1, 1)]
        yield Stroke(path(*ends), "symbol", part=key, feature=feature)


def measured(a: Point, b: Point, text: str, scale: float, key: str) -> Iterator[Lettered]:
    """A length between two points, its figure in its line, or past its end where it is longer than that."""
    length, wide = math.dist(a, b), (text_width(text, SMALL) + 1.0) * scale
    if length < 1.0:
        return
    du, dw = (b[0] - a[0]) / length, (b[1] - a[1]) / length
    yield from line_with_ticks(a, b, scale, key, "measure")
    past = length / 2 + wide / 2 + 0.8 * scale
    angle, row = readable(math.degrees(math.atan2(dw, du))), (SMALL + 1.4) * scale
    ways = (0.0, past, -past) if wide < length else (past, -past, 0.0)
    shifts = [(du * way - dw * side, dw * way + du * side) for side in (0.0, row, -row) for way in ways]
    (u0, w0), middle = shifts[0], ((a[0] + b[0]) / 2, (a[1] + b[1]) / 2)
    places = [(u - u0, w - w0) for u, w in shifts]
    about = shapely.LineString([a, b])
    yield on_paper((middle[0] + u0, middle[1] + w0), text, SMALL, angle, key, places=places, about=about)


def on_paper(
    place: Point,
    text: str,
    size: float,
    angle: float,
    key: str,
    *,
    places: Sequence[Point] = (HERE,),
    about: Any = None,
    rank: int = NUMBER,
) -> Label:
    """Lettering around a place, over a piece of blank paper."""
    words = Text(*place, text, size, "centre", "middle", angle, "mono", key, feature="number")
    return Label(f"framing:{key}:{text}", (words,), places, rank, about, backed=True)


def beside_line(angle: float, length: float, text: str, size: float, scale: float) -> tuple[Point, ...]:
    """Shifts of lettering along a line, then on both sides of it."""
    a, wide = math.radians(angle), text_width(text, size) * scale
    return along((math.cos(a), math.sin(a)), max(0.0, length - wide), wide / 2, rows(size, scale))


def rows(size: float, scale: float) -> tuple[float, ...]:
    """Shifts across lettering: none, then by rows to both sides."""
    row = (size + 1.6) * scale
    return (0.0, row, -row, 2 * row, -2 * row)
