"""What is seen of each material, as areas: against samples of a depth buffer that shares no code with the views."""

from __future__ import annotations

from collections import defaultdict

import numpy as np
import pytest
import shapely

from deepsection.core.geometry import Frame
from deepsection.core.resolve import resolve
from deepsection.core.view.faces import faces_of
from deepsection.core.view.visible import visible_faces
from deepsection.demo import fernacre_bungalow, otterfold_house, wrenfold_house
from tests.core.view.raster import depth_buffer

SAMPLES = 3_000_000


@pytest.mark.parametrize(("make", "look"), [(otterfold_house, 0.0), (wrenfold_house, 90.0), (fernacre_bungalow, 40.0)])
def test_projected_areas_per_material(make: object, look: float) -> None:
    """Within what sampling can tell: a boundary is wrong by less than half a sample on either side of it."""
    parts = [part for part in resolve(make()).parts if part.outside]  # type: ignore[operator]
    frame = Frame.looking(look)
    faces = visible_faces([face for held in faces_of(parts, frame.dx, frame.dy) for face in held])
    box = tuple(shapely.total_bounds([face.polygon for face in faces]))
    buffer = depth_buffer(parts, look, box, SAMPLES)  # type: ignore[arg-type]
    cell = float((buffer.us[1] - buffer.us[0]) * (buffer.vs[1] - buffer.vs[0]))
    own: dict[str, float] = defaultdict(float)
    edges: dict[str, float] = defaultdict(float)
    for face in faces:
        own[face.part.material] += face.polygon.area
        edges[face.part.material] += face.polygon.length
    sampled: dict[str, float] = defaultdict(float)
    for number, count in zip(*np.unique(buffer.part[buffer.part >= 0], return_counts=True)):
        sampled[parts[int(number)].material] += float(count) * cell
    assert set(sampled) <= set(own)
    assert sum(own.values()) == pytest.approx(sum(sampled.values()), rel=1e-3)
    side = float(np.sqrt(cell))
    for name, area in own.items():
        if area > 1e5:
            # A boundary is off by less than half a sample; along many of them a fifth is more than ever remains.
            assert abs(area - sampled[name]) < 0.2 * side * edges[name], (name, area, sampled[name])
