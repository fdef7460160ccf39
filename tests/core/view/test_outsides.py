"""Elevations leave out what lies within the house: nothing of that may be seen from outside, whatever is built."""

from __future__ import annotations

from collections.abc import Iterator

import pytest

from deepsection.core.edits import changed, put
from deepsection.core.geometry import Frame
from deepsection.core.model import Project
from deepsection.core.resolve import resolve
from deepsection.core.view._earth import earth_before
from deepsection.core.view._seen import clipped_above
from deepsection.core.view.faces import faces_of
from deepsection.core.view.visible import visible_faces
from deepsection.demo import hollin_bothy
from tests.campaigns import most_demos
from tests.turning import turned

NARROW = 15.0
"""Wide (mm), what is seen past the edge of a cladding: the edges of sheets behind it are left to it."""


def seen_within(project: Project, look: float) -> Iterator[tuple[str, list[int]]]:
    """(key, bounds) of what elevations take to be within the house, and what is seen of it all the same."""
    frame, building = Frame.looking(look), resolve(project)
    parts = [part for part in building.parts if not part.solid.is_empty]
    faces = visible_faces([face for each in faces_of(parts, frame.dx, frame.dy) for face in each])
    earth = earth_before(building, frame, -1e5, 1e5)
    for face in clipped_above(faces, earth):
        if not face.part.outside and not face.polygon.buffer(-NARROW / 2).is_empty:
            yield face.part.key, [round(value) for value in face.polygon.bounds]


@pytest.mark.parametrize("make", most_demos(), ids=lambda make: make.__name__)
def test_what_elevations_leave_out_is_seen_from_nowhere_outside(make: object) -> None:
    project = make()  # type: ignore[operator]
    for look in (0.0, 90.0, 180.0, 270.0, 35.0):
        assert list(seen_within(project, look)) == [], (project.id, look)


@pytest.mark.parametrize("angle", [0.0, 17.0])
def test_lintels_and_plates_of_a_leaf_that_is_seen_are_seen(angle: float) -> None:
    project = hollin_bothy()
    rendered = next(held for held in project.make_ups if held.id == "wall-cavity")
    bare = changed(rendered, layers=rendered.layers[1:])
    project = turned(put(project, bare), angle)
    for look in (0.0, 90.0, 180.0, 270.0):
        assert list(seen_within(project, look)) == []
