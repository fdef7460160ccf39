"""Slabs between parallel sloping planes: held against the same bodies cut out of upright prisms by the solid engine."""

from __future__ import annotations

import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely.geometry import Polygon

from deepsection.core.geometry import Frame, Plane3, prism, slab
from deepsection.core.geometry.facets import mesh_facets

SHAPES = (
    Polygon([(0, 0), (4000, 0), (4000, 3000), (0, 3000)]),
    Polygon([(0, 0), (4000, 500), (2500, 3000)]),
    Polygon([(0, 0), (5000, 0), (5000, 2000), (2000, 2000), (2000, 4000), (0, 4000)]),
    Polygon([(0, 0), (4000, 0), (4000, 3000), (0, 3000)], [[(1000, 1000), (1000, 2000), (2000, 2000), (2000, 1000)]]),
)
near = pytest.approx


@pytest.mark.parametrize("shape", SHAPES)
@given(a=st.floats(-1.5, 1.5), b=st.floats(-1.5, 1.5), thick=st.floats(5.0, 400.0), look=st.floats(0.0, 360.0))
@settings(max_examples=25, deadline=None)
def test_a_slab_is_what_two_planes_leave_of_a_prism(
    shape: Polygon, a: float, b: float, thick: float, look: float
) -> None:
    low = Plane3(a, b, 200.0)
    body = slab(shape, low, thick)
    other = prism(shape, -50_000.0, 50_000.0).below(low.lifted(thick)).above(low)
    assert body.volume == near(shape.area * thick, rel=1e-9) and body.volume == near(other.volume, rel=1e-6)
    assert body.reach.z0 <= body.bounds.z0 + 1e-6 and body.reach.z1 >= body.bounds.z1 - 1e-6
    frame = Frame.looking(look, 1500.0, 1200.0)
    assert body.cut(frame).symmetric_difference(other.cut(frame)).area < 1.0


@pytest.mark.parametrize("shape", SHAPES)
def test_its_facets_are_those_of_its_mesh(shape: Polygon) -> None:
    body = slab(shape, Plane3(0.5, -0.25, 100.0), 60.0)
    wanted = {tuple(round(n, 6) + 0.0 for n in (*held.normal, held.offset)) for held in mesh_facets(*body.mesh())}
    found = {tuple(round(n, 6) + 0.0 for n in (*held.normal, held.offset)) for held in body.facets}
    assert {held[:3] for held in found} == {held[:3] for held in wanted} and len(found) == len(wanted)
    assert sorted(held[3] for held in found) == near(sorted(held[3] for held in wanted), abs=1e-3)
    for held in body.facets:
        for x, y, z in (point for ring in held.rings for point in ring):
            assert held.normal[0] * x + held.normal[1] * y + held.normal[2] * z == near(held.offset, abs=1e-6)
    rings = [held.rings for held in body.facets if held.normal[2] > 0.1]
    assert len(rings) == 1 and len(rings[0]) == 1 + len(shape.interiors)
    plan = Polygon([(x, y) for x, y, _ in rings[0][0]])
    assert shapely.equals(plan, Polygon(shape.exterior))
