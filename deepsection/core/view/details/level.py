"""Details that are cut level: jambs, wall corners, walls on walls, seen from above with outside at the left."""

from __future__ import annotations

from collections.abc import Iterator

from ...drawing.chains import Place, String, distinct
from ...drawing.cropping import Window
from ...geometry import LevelFrame
from ...junctions import Junction
from ..composing import Composition
from ..cut import CutPart
from ..cut_marks import cut_marks
from ..section import lowest, over_cut
from ..strings.making import made
from .place import DetailPlace, wall_of

BELOW, ROW = 6.0, 8.0
"""Paper mm from the window down to the first row of dimensions, and from row to row."""


def level_body(view: Composition, frame: LevelFrame, window: Window, cut: list[CutPart], tier: float) -> None:
    """What a level plane cuts, as a window shows it."""
    view.marks += cut_marks(cut, frame, view.setting.scale, view.hatches)
    view.marks += over_cut(view, view.building, frame, window, cut, tier)
    view.crop(window)


def level_strings(view: Composition, place: DetailPlace, junction: Junction) -> Iterator[String]:
    """The layers of the wall from face to face under the window, and the wall, to which they add up."""
    frame, window = place.frame, place.window
    wall = wall_of(view.building, junction)
    if wall is None or wall.axis.is_arc or not isinstance(frame, LevelFrame):
        return
    base, _ = frame.to_view(*wall.at(0.0, 0.0))
    faces = [Place(base - face, layer.layer) for layer in wall.layers for face in (layer.outer, layer.inner)]
    shown = distinct([held for held in faces if window.left <= held.at <= window.right])
    rows = [("layers", shown), ("wall", [shown[0], shown[-1]] if len(shown) > 2 else [])]
    low = lowest(view.marks)
    for row, (name, places) in enumerate(rows):
        if len(places) > 1:
            yield made(
                view.setting, f"bottom:{name}", places, lambda a, b: (a, low, b, low),
                -(BELOW + row * ROW), feature="width",
            )  # fmt: skip
