"""Dimensions and symbols as strokes, regions and text, for media that cannot carry them whole."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator
from dataclasses import replace
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from .advances import text_width
from .breaklines import break_line
from .marks import (
    LEVEL_KNEE,
    PITCH_RUN,
    Align,
    Dimension,
    Drawing,
    Mark,
    Region,
    Ring,
    Stroke,
    Symbol,
    Text,
    level_width,
    path,
    readable,
)

Plain = Stroke | Region | Text
_BULGE_HALF = 1.0
"""tan(180 / 4 deg): half a circle."""


def explode(drawing: Drawing) -> Drawing:
    """The same drawing with strokes, regions and text only."""
    return replace(drawing, marks=tuple(exploded(drawing.marks, drawing.scale)))


def exploded(marks: Iterable[Mark], scale: float) -> Iterator[Plain]:
    """Marks as strokes, regions and text only."""
    for mark in marks:
        if isinstance(mark, (Dimension, Symbol)):
            yield from _exploded(mark, scale)
        else:
            yield mark


@lru_cache(maxsize=5000)
def _exploded(mark: Dimension | Symbol, scale: float) -> tuple[Plain, ...]:
    drawn = explode_dimension(mark, scale) if isinstance(mark, Dimension) else _SYMBOLS[mark.kind](mark, scale)
    return tuple(_keyed(drawn, mark.annotation))


def _keyed(marks: Iterator[Plain], key: str | None) -> Iterator[Plain]:
    return marks if key is None else (replace(mark, annotation=key) for mark in marks)


def explode_dimension(mark: Dimension, scale: float) -> Iterator[Plain]:
    """Extension lines, dimension line with oblique ticks, and the text, readable from below or right."""
    length = math.hypot(mark.x2 - mark.x1, mark.y2 - mark.y1) or 1.0
    ux, uy = (mark.x2 - mark.x1) / length, (mark.y2 - mark.y1) / length
    nx, ny = -uy, ux
    side = 1.0 if mark.offset >= 0 else -1.0
    off, gap, over = mark.offset * scale, mark.gap * scale * side, 1.2 * scale * side
    ends = []
    for x, y in ((mark.x1, mark.y1), (mark.x2, mark.y2)):
        end = (x + nx * off, y + ny * off)
        ends.append(end)
        if abs(off) > abs(gap):
            yield Stroke(
                path((x + nx * gap, y + ny * gap), (end[0] + nx * over, end[1] + ny * over)),
                "dimension",
                part=mark.part,
            )
        tick = 1.1 * scale
        tx, ty = (ux + nx) * tick * 0.7, (uy + ny) * tick * 0.7
        yield Stroke(path((end[0] - tx, end[1] - ty), (end[0] + tx, end[1] + ty)), "symbol", part=mark.part)
    # By its line a string of dimensions is taken hold of.
    line = path(ends[0], ends[1]) if mark.measures is None else _with_break(ends[0], ends[1], scale)
    yield Stroke(line, "dimension", part=mark.part, handle=mark.handle, sum=mark.sum, annotation=mark.annotation)
    if not mark.text:
        return
    yield from leader_of(mark, scale)
    yield figure_of(mark, scale)


def _with_break(a: tuple[float, float], b: tuple[float, float], scale: float) -> Ring:
    """The line of a dimension over a break: its zigzag stands off its figure, at a quarter of it."""
    quarter = (a[0] * 0.75 + b[0] * 0.25, a[1] * 0.75 + b[1] * 0.25)
    return (*break_line(a, quarter, scale, past=0.0)[:-1], (*b, 0.0))


def leader_of(mark: Dimension, scale: float) -> Iterator[Stroke]:
    """The line from the middle of a dimension to its figure, where that stands aside."""
    if mark.led and mark.text:
        middle = middle_of(mark, scale)
        end = leader_end(figure_of(mark, scale), middle, scale)
        yield Stroke(path(middle, end), "note", part=mark.part, feature="leader")


def middle_of(mark: Dimension, scale: float) -> tuple[float, float]:
    """The middle of the line of a dimension."""
    length = math.hypot(mark.x2 - mark.x1, mark.y2 - mark.y1) or 1.0
    off = mark.offset * scale / length
    return (mark.x1 + mark.x2) / 2 - (mark.y2 - mark.y1) * off, (mark.y1 + mark.y2) / 2 + (mark.x2 - mark.x1) * off


def figure_axes(mark: Dimension) -> tuple[tuple[float, float], tuple[float, float], float]:
    """(the direction in which a figure stands aside, that in which it is raised, its angle in degrees)."""
    length = math.hypot(mark.x2 - mark.x1, mark.y2 - mark.y1) or 1.0
    ux, uy = (mark.x2 - mark.x1) / length, (mark.y2 - mark.y1) / length
    angle = readable(math.degrees(math.atan2(uy, ux)))
    return (ux, uy), (-math.sin(math.radians(angle)), math.cos(math.radians(angle))), angle


def figure_of(mark: Dimension, scale: float) -> Text:
    """The figure of a dimension, at its place."""
    (ux, uy), (px, py), angle = figure_axes(mark)
    off, high, aside = mark.offset * scale, (1.0 + mark.raised) * scale, mark.aside * scale
    x = (mark.x1 + mark.x2) / 2 - uy * off + px * high + ux * aside
    y = (mark.y1 + mark.y2) / 2 + ux * off + py * high + uy * aside
    return Text(x, y, mark.text, FIGURE_SIZE, "centre", "bottom", angle, "mono", mark.part, mark.sum, "dimension")


FIGURE_SIZE = 2.5
"""Height of figures (paper mm). Source: ISO 3098-1, nominal sizes."""


def leader_end(figure: Text, to: tuple[float, float], scale: float) -> tuple[float, float]:
    """Where a line from a place meets a figure: where its foot is nearest."""
    start, end = np.array(foot_of(figure, scale))
    x, y = nearest_on(start[None], end - start, np.array(to))[0].tolist()
    return x, y


def nearest_on(starts: NDArray[np.float64], along: NDArray[np.float64], to: NDArray[np.float64]) -> NDArray[np.float64]:
    """(n, 2) places nearest to one, each on a stretch `along` the same vector from one of (n, 2) starts."""
    share = np.clip((to - starts) @ along / ((along @ along) or 1.0), 0.0, 1.0)
    nearest: NDArray[np.float64] = starts + share[:, None] * along
    return nearest


def foot_of(figure: Text, scale: float) -> tuple[tuple[float, float], tuple[float, float]]:
    """The ends of the foot of a figure, at which the line that leads to it ends."""
    half = text_width(figure.text, figure.size, figure.face) / 2 * scale
    a = math.radians(figure.angle)
    x, y = figure.x + math.sin(a) * LEADER_GAP * scale, figure.y - math.cos(a) * LEADER_GAP * scale
    c, s = math.cos(a) * half, math.sin(a) * half
    return (x - c, y - s), (x + c, y + s)


LEADER_GAP = 0.6
"""Paper mm between a figure and the line that leads to it."""


def _box(foot: tuple[float, float], width: float, height: float, angle: float) -> Ring:
    """A box over lettering that is centred on its foot."""
    c, s = math.cos(math.radians(angle)), math.sin(math.radians(angle))
    corners = ((-width / 2, 0.0), (width / 2, 0.0), (width / 2, height), (-width / 2, height))
    return path(*((foot[0] + x * c - y * s, foot[1] + x * s + y * c) for x, y in corners))


def _level(mark: Symbol, scale: float) -> Iterator[Plain]:
    """A level mark: a triangle at the height, then name over height; values: side, shift of the lettering (paper mm).

    Source: ISO 129-1, level indication (from memory).
    """
    s = scale
    side, shift = mark.values
    x, y = mark.x, mark.y
    part, sum, feature = mark.part, mark.sum, "level_mark"
    tip = path((x, y), (x - 1.4 * s, y + 1.9 * s), (x + 1.4 * s, y + 1.9 * s))
    yield Region((tip,), fill="ink", pen="symbol", part=part, sum=sum, feature=feature)
    start, end = x + side * LEVEL_KNEE * s, x + side * level_width(mark.texts) * s
    line = y + shift * s
    knee = path((x - side * 2 * s, y), (x + side * 2 * s, y), (start, line), (end, line))
    yield Stroke(knee, "dimension", part=part, sum=sum, feature=feature)
    align: Align = "left" if side > 0 else "right"
    yield Text(start, line + 0.9 * s, mark.texts[0], 2.5, align, "bottom", 0, "bold", part, sum, feature=feature)
    yield Text(start, line - 0.9 * s, mark.texts[1], 2.5, align, "top", 0, "mono", part, sum, feature=feature)


def circle(x: float, y: float, radius: float) -> Ring:
    """A full circle as two half arcs."""
    return ((x - radius, y, _BULGE_HALF), (x + radius, y, _BULGE_HALF))


SECTION_END, SECTION_ARROW = 8.0, 7.0
"""Paper mm: the wide end of a section line, and the arrow on it."""


def _section(mark: Symbol, scale: float) -> Iterator[Plain]:
    """A section mark: the line ends wide, with an arrow to the look side (`angle`).

    `values`: the direction in which the line ends. Nothing is ringed: rings belong to grid lines. Source: ISO 128-3.
    """
    s, x, y = scale, mark.x, mark.y
    ox, oy = mark.values
    ax, ay = math.cos(math.radians(mark.angle)), math.sin(math.radians(mark.angle))
    end = path((x - ox * SECTION_END * s, y - oy * SECTION_END * s), (x, y))
    yield Stroke(end, "section_mark", part=mark.part)
    reach = SECTION_ARROW * s
    yield Stroke(path((x, y), (x + ax * reach * 0.6, y + ay * reach * 0.6)), "section_mark", part=mark.part)
    foot, wide = (x + ax * reach * 0.45, y + ay * reach * 0.45), 1.3 * s
    head = path(
        (foot[0] + ox * wide, foot[1] + oy * wide),
        (x + ax * reach, y + ay * reach),
        (foot[0] - ox * wide, foot[1] - oy * wide),
    )
    yield Region((head,), fill="section", part=mark.part)


def _pitch(mark: Symbol, scale: float) -> Iterator[Plain]:
    """A pitch mark: the triangle of rise over run under the slope; values: pitch, side (+1 rises right)."""
    pitch, side = mark.values
    s, run = scale, PITCH_RUN * scale
    rise = run * pitch
    x, y = mark.x, mark.y
    corner = path((x, y), (x + side * run, y), (x + side * run, y + rise))
    beside, below = x + side * (run + 1.0 * scale), y - 0.8 * scale
    reach = side * (text_width(mark.texts[0], 2.2) + 0.8) * scale
    back = path((beside - side * 0.5 * scale, y - 0.5 * scale), (beside + reach, y - 0.5 * scale))
    yield Region(((*back, *path(*((u, y + rise) for u, _, _ in reversed(back)))),), fill="paper", part=mark.part)
    yield Region((corner,), fill="paper", pen="symbol", part=mark.part)
    if mark.texts[1]:
        foot = (x + side * run / 2, below - 2.4 * s)
        yield Region((_box(foot, 4.6 * s, 2.6 * s, 0.0),), fill="paper", part=mark.part)
        yield Text(x + side * run / 2, below, mark.texts[1], 2.2, "centre", "top", 0, "mono", mark.part)
    align: Align = "left" if side > 0 else "right"
    yield Text(beside, y + rise / 2, mark.texts[0], 2.2, align, "middle", 0, "mono", mark.part)


def _scale_bar(mark: Symbol, scale: float) -> Iterator[Plain]:
    """A bar of alternating fields; values: field length in real mm, number of fields, mm per real mm."""
    field, count, ratio = mark.values
    height = 1.6 * scale
    for index in range(int(count)):
        x0 = mark.x + field * ratio * index
        ring = path(
            (x0, mark.y), (x0 + field * ratio, mark.y), (x0 + field * ratio, mark.y + height), (x0, mark.y + height)
        )
        yield Region((ring,), fill="ink" if index % 2 == 0 else "paper", pen="crease")
    for index in range(int(count) + 1):
        yield Text(
            mark.x + field * ratio * index, mark.y - 0.8 * scale, mark.texts[index], 2.0, "centre", "top", 0, "mono"
        )


def _north(mark: Symbol, scale: float) -> Iterator[Plain]:
    """A north point; `angle` is the direction of north on the drawing."""
    r = 4.0 * scale
    turn = math.radians(mark.angle)
    ax, ay = math.cos(turn), math.sin(turn)
    yield Region((circle(mark.x, mark.y, r),), pen="crease")
    arrow = path(
        (mark.x + ax * r, mark.y + ay * r),
        (mark.x - ax * r * 0.7 - ay * r * 0.5, mark.y - ay * r * 0.7 + ax * r * 0.5),
        (mark.x, mark.y),
        (mark.x, mark.y),
    )
    yield Region((arrow[:3],), fill="ink", pen="crease")
    yield Text(mark.x + ax * r * 1.45, mark.y + ay * r * 1.45, "N", 2.5, "centre", "middle", 0, "bold")


def _view_title(mark: Symbol, scale: float) -> Iterator[Plain]:
    """Number, name and scale under a view; values: width of the rule in paper mm."""
    number, name, note = mark.texts
    s = scale
    yield Region((circle(mark.x + 5 * s, mark.y + 1 * s, 4.2 * s),), fill="paper", pen="symbol")
    yield Text(mark.x + 5 * s, mark.y + 1 * s, number, 3.5, "centre", "middle", 0, "bold")
    yield Text(mark.x + 12 * s, mark.y + 2.2 * s, name, 5.0, "left", "bottom", 0, "bold")
    yield Stroke(path((mark.x + 9.2 * s, mark.y + 1 * s), (mark.x + mark.values[0] * s, mark.y + 1 * s)), "symbol")
    if note:
        yield Text(mark.x + 12 * s, mark.y - 0.4 * s, note, 2.5, "left", "top", 0, "mono")


_SYMBOLS = {
    "level": _level,
    "section": _section,
    "pitch": _pitch,
    "scale_bar": _scale_bar,
    "north": _north,
    "view_title": _view_title,
}
