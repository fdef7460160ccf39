"""Lines of a view, from its visible faces: what kind of edge lies between the two sides of each piece."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from ..geometry import Point
from ..tolerance import TOL
from .arrangement import PROBE, Arrangement, Ints, arrangement_of
from .faces import Face

FAR_BEHIND = 600.0
"""A depth jump of more than this is an outline, as against the sky."""
NEAR_BEHIND = 26.0
"""A depth jump of less than this is a fine edge: trims, frames, boards."""

CHORD_BEND = 0.3
"""Faces of a bent part that turn by less (difference of unit normals) are chords of one arc: no line between them."""


@dataclass(frozen=True, eq=False, slots=True)
class Edge:
    """A straight visible line: ends, pen, the nearer face and (where there is one) the face behind it."""

    start: Point
    end: Point
    pen: str
    face: Face
    other: Face | None


@lru_cache(maxsize=64)
def visible_edges(faces: tuple[Face, ...], *, backdrop: bool = False) -> tuple[Edge, ...]:
    """The lines between visible faces, each once, longest straight pieces.

    With `backdrop` the outline against nothing is drawn as an ordinary edge (behind a cut).
    """
    if not faces:
        return ()
    found = arrangement_of(faces)
    planes = np.array([face.plane for face in faces])
    pen, near, far = _classify(found.pieces.mean(axis=1), faces, planes, found.left, found.right, backdrop)
    starts, ends = _runs(found, pen, near, far)
    points = np.stack([found.pieces[starts, 0], found.pieces[ends, 1]], axis=1)
    long = np.abs(points[:, 1] - points[:, 0]).sum(axis=1) > TOL.point
    starts, lines = starts[long], points[long].tolist()
    return tuple(
        Edge((x0, y0), (x1, y1), PENS[name], faces[before], faces[behind] if behind >= 0 else None)
        for name, before, behind, ((x0, y0), (x1, y1)) in zip(
            pen[starts].tolist(), near[starts].tolist(), far[starts].tolist(), lines
        )
    )


def _runs(found: Arrangement, pen: Ints, near: Ints, far: Ints) -> tuple[Ints, Ints]:
    """First and last piece of each run of drawn pieces of one line that follow each other and are alike."""
    drawn = np.flatnonzero(pen >= 0)
    if not len(drawn):
        return drawn, drawn
    before, after = drawn[:-1], drawn[1:]
    on = found.line[before] == found.line[after]
    for alike in (pen, near, far):
        on &= alike[before] == alike[after]
    on &= (found.pieces[before, 1] == found.pieces[after, 0]).all(axis=1)
    breaks = np.flatnonzero(~on)
    return drawn[np.r_[0, breaks + 1]], drawn[np.r_[breaks, len(drawn) - 1]]


PENS = ("outline", "edge", "crease", "fine")
_OUTLINE, _EDGE, _CREASE, _FINE, _NONE = 0, 1, 2, 3, -1


def _classify(
    middles: NDArray[np.float64],
    faces: Sequence[Face],
    planes: NDArray[np.float64],
    left: NDArray[np.int_],
    right: NDArray[np.int_],
    backdrop: bool,
) -> tuple[NDArray[np.int_], NDArray[np.int_], NDArray[np.int_]]:
    """Per segment its pen (-1: no line), the nearer face beside it, and the other one (-1: none)."""
    alone = (left < 0) | (right < 0)
    one, two = np.where(alone, np.maximum(left, right), left), np.where(alone, np.maximum(left, right), right)
    depths = [(planes[side, :2] * middles).sum(axis=1) + planes[side, 2] for side in (one, two)]
    gap = depths[1] - depths[0]
    near, far = np.where(gap >= 0, one, two), np.where(gap >= 0, two, one)
    steep = np.abs(planes[:, :2]).max(axis=1)
    far_off = np.abs(gap)
    jump = far_off > 1.0 + np.maximum(steep[near], steep[far]) * PROBE * 4
    jumped = np.where(far_off > FAR_BEHIND, _OUTLINE, np.where(far_off > NEAR_BEHIND, _EDGE, _CREASE))
    normals = np.array([face.normal for face in faces])
    bent = np.array([face.part.curve is not None for face in faces])
    kinds = {name: k for k, name in enumerate(dict.fromkeys(face.part.material for face in faces))}
    made_of = np.array([kinds[face.part.material] for face in faces])
    bend = np.abs(normals[near] - normals[far]).max(axis=1)
    chord = (bend < CHORD_BEND) & (bent[near] | bent[far])
    flush = np.where((bend > 1e-3) & ~chord, _CREASE, np.where(made_of[near] != made_of[far], _FINE, _NONE))
    pen = np.where(jump, jumped, flush)
    pen = np.where(alone, _EDGE if backdrop else _OUTLINE, pen)
    return np.where(left == right, _NONE, pen), near, np.where(alone, -1, far)
