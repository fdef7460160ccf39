"""Where wall sections are, in the building sections and elevations of their walls."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import replace

import numpy as np
import shapely
from shapely.geometry import box

from ...drawing import NUMBER, Handle, Label, Lettered, Stroke, Symbol, Text, extent, path
from ...geometry import Frame
from ...trades.drawings.plan import LETTER, named
from ..composing import Composition
from ..cut import CutPart
from ..faces import Face
from .place import INSIDE, MOST, StripPlace, reach_outside, strip_place

PARALLEL, FACING = 0.999, -0.9
"""Planes are parallel, and walls turn to the viewer, from this cosine on."""
AROUND = 1.5
"""Paper mm from what a wall section shows to the outline around it."""
NAME_UP = 5.5
"""Paper mm from an outline up to the name on it."""
OVER, LONG, UNDER = 1.5, 6.0, 1.0
"""In elevations a line stands so far above all that is seen at its place and so far below the ground, so long (mm)."""
BESIDE = 10.0
"""What is written so near to it from side to side is passed (paper mm)."""
NAME_PLACES = ((0.0, 0.0), (0.0, 4.0), (-7.0, 0.0), (7.0, 0.0), (0.0, 9.0), (-12.0, 2.0), (12.0, 2.0))
"""Where a name may stand in an elevation: paper mm from above its line."""


def _placed(view: Composition) -> Iterator[StripPlace]:
    """Where those cut whose marks are not hidden in a view."""
    for held in view.building.placed.project.wall_sections:
        place = strip_place(view.building, held)
        if place is not None and not view.changes.hides(f"section:{held.id}"):
            yield place


def strip_outlines(view: Composition, frame: Frame, cut: Sequence[CutPart]) -> Iterator[Lettered]:
    """In a section: around each wall that it cuts, what its wall section shows there, of those that look along it the
    nearest; with its name, and where its drawing is."""
    elements = {one.part.element for one in cut}
    nearest: dict[str, StripPlace] = {}
    for place in _placed(view):
        along = frame.dx * place.frame.dx + frame.dy * place.frame.dy
        if place.wall.wall.id not in elements or abs(along) < PARALLEL:
            continue
        before = nearest.get(place.wall.wall.id)
        if before is None or _away(place, frame) < _away(before, frame):
            nearest[place.wall.wall.id] = place
    for place in nearest.values():
        yield from _outlined(view, replace(place, frame=frame), cut)


def _away(place: StripPlace, frame: Frame) -> float:
    """How far from a plane the one of a wall section is, which is parallel to it (mm)."""
    return abs(place.frame.depth(frame.x0, frame.y0))


def _outlined(view: Composition, place: StripPlace, cut: Sequence[CutPart]) -> Iterator[Lettered]:
    scale = view.setting.scale
    outside = min(reach_outside(place, cut), MOST) + AROUND * scale
    window = place.window(place.held.outside or outside, min(place.held.inside or INSIDE, INSIDE) / 2)
    faces = sorted((place.outer, place.inner))
    pieces = np.array([held.polygon for held in cut], dtype=object)
    around = shapely.bounds(pieces)
    pieces = pieces[(around[:, 0] < window.right) & (around[:, 2] > window.left)]
    own = shapely.bounds(shapely.intersection(pieces, window.outline))
    own = own[(own[:, 0] < faces[1]) & (own[:, 2] > faces[0])]
    if not len(own):
        return
    x0, x1 = window.left, window.right
    y0 = float(own[:, 1].min()) - AROUND * scale
    y1 = float(own[:, 3].max()) + AROUND * scale
    id, part = place.held.id, f"{place.held.id}/section//"
    key = f"section:{id}"
    ring = path((x0, y0), (x1, y0), (x1, y1), (x0, y1))
    yield Stroke(ring, "section", closed=True, part=part, feature="window")
    out = x1 if place.out > 0 else x0
    text = Text(out, y1 + NAME_UP * scale, place.held.name, LETTER, "centre", "middle", 0, "bold", part, pen="section")
    words = named(view.building.placed.project, key, text, scale)
    inward = (x0 + x1 - 2 * out) / 2
    down = y0 - y1
    spots = [(0.0, 0.0), (inward, 0.0), (2 * inward, 0.0), (place.out * 7 * scale, -6 * scale)]
    spots += [(du, down - (NAME_UP + LETTER) * scale) for du in (0.0, inward, 2 * inward)]
    yield Label(key, words, spots, NUMBER, about=box(x0, y0, x1, y1), backed=True)


def strip_lines(
    view: Composition, faces: Iterable[Face], low: float, written: Iterable[Lettered]
) -> Iterator[Lettered]:
    """In an elevation: where wall sections go through walls that one sees, by their ends alone, above and below.

    `low`: how low what is drawn reaches. They stand above what is `written` there.
    """
    frame, scale = view.frame, view.setting.scale
    seen = [(face.part.element, face.polygon.bounds) for face in faces]
    elements = {element for element, _ in seen}
    boxes = [extent((mark,), scale) for mark in written if isinstance(mark, Symbol)]
    for place in _placed(view):
        out = place.wall.stand(place.along).out
        if place.wall.wall.id not in elements or out[0] * frame.dx + out[1] * frame.dy > FACING:
            continue
        x, y = place.wall.at(place.along, place.wall.outer)
        u = x * frame.ux + y * frame.uy
        top = max((held[3] for _, held in seen if held[0] <= u <= held[2]), default=None)
        if top is None:
            continue
        beside = BESIDE * scale
        top = max([top, *(held[3] for held in boxes if held[0] - beside < u < held[2] + beside)])
        key, part = f"section:{place.held.id}", f"{place.held.id}/section//"
        handle = Handle("move_wall_section", place.held.id, "distance", "along")
        v0, v1 = top + OVER * scale, top + (OVER + LONG) * scale
        below = low - UNDER * scale
        right = place.frame.dx * frame.ux + place.frame.dy * frame.uy > 0
        for ends in (((u, v0), (u, v1)), ((u, below), (u, below - LONG / 2 * scale))):
            yield Stroke(path(*ends), "section", part=part, feature="line", handle=handle)
        angle = 0.0 if right else 180.0
        yield Symbol("section", u, v1, (), angle, (0.0, 1.0), part=f"{part}end")
        text = Text(
            u, v1 + LETTER * 1.6 * scale, place.held.name, LETTER, "centre", "middle", 0, "bold", part, pen="section"
        )
        words = named(view.building.placed.project, key, text, scale)
        yield Label(key, words, [(du * scale, dv * scale) for du, dv in NAME_PLACES], NUMBER, backed=True)
