"""Numbers of joists in a framing plan: a line across each group of like ones, and words between two of them."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from ...drawing import Mark, Region, Stroke, Text, path, readable
from ...geometry import Frame, Point
from .schedule import Numbered
from .turned import Box, Turned

WIDE = 0.86
"""Width of a letter of the mono face, as a share of its height."""
TEXT, SMALL = 2.2, 1.8
"""Heights of lettering (paper mm)."""
ROW = 4.6
"""Height of a row of words or of a schedule (paper mm)."""
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


class Lettered:
    """A bay whose members are being numbered: what is taken already."""

    def __init__(self, frame: Frame, direction: Point, scale: float, taken: Sequence[Box]) -> None:
        self.frame, self.turned, self.scale, self.taken = frame, Turned(direction), scale, list(taken)

    def number(self, group: Group, texts: Sequence[str], key: str) -> Iterator[Mark]:
        """A line across a group, and the first of some texts that finds room beside it; the last may do without."""
        low, high = group.shared
        for text in texts:
            for share in PLACES:
                at = low + (high - low) * share
                for gap in group.beside((TEXT + 1.2) * self.scale):
                    box = self._box(text, gap, at)
                    if box[3] < high and not any(box.meets(other) for other in self.taken):
                        self.taken.append(box)
                        yield from self._range(group, at, key)
                        yield from self._text(text, box, key)
                        return

    def _box(self, text: str, gap: tuple[float, float], at: float) -> Box:
        tall, long = (TEXT / 2 + 0.25) * self.scale, (len(text) * TEXT * WIDE + 1.6) * self.scale
        middle = (gap[0] + gap[1]) / 2
        return Box(middle - tall, middle + tall, at + 0.8 * self.scale, at + long)

    def _range(self, group: Group, at: float, key: str) -> Iterator[Mark]:
        if len(group.boxes) > 1:
            a, b = (spot(self.frame, self.turned, place, at) for place in group.places)
            yield from line_with_ticks(a, b, self.scale, key, "range")

    def _text(self, text: str, box: Box, key: str) -> Iterator[Mark]:
        across, along = (box[0] + box[1]) / 2, (box[2] + box[3]) / 2
        (u0, w0), (u1, w1) = (spot(self.frame, self.turned, across, end) for end in (along, along + 1.0))
        angle = readable(math.degrees(math.atan2(w1 - w0, u1 - u0)))
        yield Text(u0, w0, text, TEXT, "centre", "middle", angle, "mono", key, feature="number")


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


def measured(a: Point, b: Point, text: str, scale: float, key: str) -> Iterator[Mark]:
    """A length between two points, its figure in its line, or past its end where it is longer than that."""
    length, wide = math.dist(a, b), (len(text) * SMALL * WIDE + 1.0) * scale
    if length < 1.0:
        return
    du, dw = (b[0] - a[0]) / length, (b[1] - a[1]) / length
    yield from line_with_ticks(a, b, scale, key, "measure")
    at = length / 2 if wide < length else length + wide / 2 + 0.8 * scale
    angle = readable(math.degrees(math.atan2(dw, du)))
    yield from on_paper((a[0] + du * at, a[1] + dw * at), text, SMALL, angle, key, scale)


def on_paper(place: Point, text: str, size: float, angle: float, key: str, scale: float) -> Iterator[Mark]:
    """Lettering around a place, over a piece of blank paper."""
    half, tall = (len(text) * size * WIDE / 2 + 0.4) * scale, (size / 2 + 0.4) * scale
    c, s = math.cos(math.radians(angle)), math.sin(math.radians(angle))
    corners = ((-half, -tall), (half, -tall), (half, tall), (-half, tall))
    blank = path(*((place[0] + a * c - b * s, place[1] + a * s + b * c) for a, b in corners))
    yield Region((blank,), fill="paper", part=key, feature="number")
    yield Text(*place, text, size, "centre", "middle", angle, "mono", key, feature="number")
