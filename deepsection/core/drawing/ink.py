"""The paper that lettering takes: boxes around texts, symbols and strings, on the drawing."""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from typing import Any

import numpy as np
import shapely
from numpy.typing import NDArray
from shapely.geometry import Polygon

from .advances import HANGING, LOWEST, TALLEST, text_width
from .marks import Text

Boxes = NDArray[np.float64]
"""(n, 4, 2) corners of rectangles, counter-clockwise."""
AROUND = 0.35
"""Paper mm that stay free around lettering."""


def text_corners(mark: Text, scale: float, around: float = AROUND) -> NDArray[np.float64]:
    """(4, 2) corners of the paper around a text."""
    wide, size = text_width(mark.text, mark.size, mark.face), mark.size
    left = {"left": 0.0, "centre": -wide / 2, "right": -wide}[mark.align]
    foot = {"bottom": 0.0, "middle": -size / 2, "top": -size}[mark.valign]
    low = foot - (LOWEST * size if HANGING.intersection(mark.text) else 0.0)
    box = (left - around, low - around, left + wide + around, foot + TALLEST * size + around)
    return turned_box(box, mark.angle, (mark.x, mark.y), scale)


def turned_box(
    box: tuple[float, float, float, float], angle: float, at: tuple[float, float], scale: float
) -> NDArray[np.float64]:
    """(4, 2) corners of a box (paper mm about a point) turned by an angle (deg) on the drawing."""
    x0, y0, x1, y1 = box
    c, s = math.cos(math.radians(angle)) * scale, math.sin(math.radians(angle)) * scale
    return np.array(
        [(at[0] + x * c - y * s, at[1] + x * s + y * c) for x, y in ((x0, y0), (x1, y0), (x1, y1), (x0, y1))]
    )


def joint_corners(
    marks: Iterable[Text], scale: float, around: float = AROUND, also: Sequence[tuple[float, float]] = ()
) -> NDArray[np.float64]:
    """(4, 2) corners of the one rectangle around some texts that run the same way, and around other points."""
    texts = list(marks)
    angle = math.radians(texts[0].angle)
    turn = np.array([[math.cos(angle), math.sin(angle)], [-math.sin(angle), math.cos(angle)]])
    held = [text_corners(mark, scale, around) for mark in texts]
    points = np.concatenate([*held, np.array(also).reshape(-1, 2)]) @ turn.T
    (x0, y0), (x1, y1) = points.min(axis=0), points.max(axis=0)
    corners: NDArray[np.float64] = np.array([(x0, y0), (x1, y0), (x1, y1), (x0, y1)]) @ turn
    return corners


def polygons(boxes: Sequence[NDArray[np.float64]] | Boxes) -> NDArray[Any]:
    """(n,) polygons of boxes."""
    return np.asarray(shapely.polygons(np.asarray(boxes, dtype=np.float64).reshape(-1, 4, 2)))


def text_box(mark: Text, scale: float, around: float = AROUND) -> Polygon:
    """The paper around a text."""
    return Polygon(text_corners(mark, scale, around))
