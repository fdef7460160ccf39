"""Solids against trimesh, a general-purpose mesh library that shares no code with the solid engine or the cuts."""

from __future__ import annotations

import math

import numpy as np
import pytest
import shapely
import trimesh
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely.geometry import Polygon

from deepsection.core.geometry import Frame, LevelFrame, Plane3, Solid, bar_along, plane_under, prism, prism_along
from deepsection.core.tolerance import TOL

L_SHAPE = Polygon([(0, 0), (4000, 0), (4000, 1000), (1500, 1000), (1500, 3000), (0, 3000)])
HOLED = Polygon([(0, 0), (3000, 0), (3000, 2700), (0, 2700)], [[(900, 900), (2100, 900), (2100, 2100), (900, 2100)]])


def mesh_of(solid: Solid) -> trimesh.Trimesh:
    points, triangles = solid.mesh()
    return trimesh.Trimesh(points, triangles)


def turned(angle_deg: float) -> tuple[float, float]:
    return math.cos(math.radians(angle_deg)), math.sin(math.radians(angle_deg))


def bodies() -> dict[str, Solid]:
    """Every kind of solid: extruded up and along, with holes, less others, trimmed by planes."""
    wall = prism_along(HOLED, (500, 200), turned(30), 200)
    block = prism(L_SHAPE, 100, 2600)
    slope = plane_under((0, 0), (4000, 0), 900, 0.5)
    return {
        "upright": block,
        "standing": wall,
        "slanted": prism(Polygon([(0, 0), (3000, 400), (3400, 1500), (1200, 2900), (-200, 1400)]), -300, 2400),
        "clockwise": prism(Polygon([(0, 0), (-200, 1400), (1200, 2900), (3000, 400)]), 0, 2400),
        "bar": bar_along((0, 0, 2400, 90), (0, 0), turned(75), 38),
        "less": block.minus([wall, bar_along((100, 200, 900, 1200), (200, -100), turned(90), 600)]),
        "below": block.below(slope),
        "between": block.below(slope).above(slope.lifted(-300)),
    }


@pytest.mark.parametrize("name", bodies())
def test_bodies_are_closed_and_hold_their_volume(name: str) -> None:
    solid = bodies()[name]
    mesh = mesh_of(solid)
    assert mesh.is_watertight
    assert math.isclose(mesh.volume, solid.volume, rel_tol=1e-9)
    assert np.allclose(mesh.bounds.reshape(-1), solid.bounds, atol=1e-6)
    reach = solid.reach
    assert all(reach[k] <= solid.bounds[k] + 1e-6 and reach[k + 3] >= solid.bounds[k + 3] - 1e-6 for k in range(3))


def test_volumes_by_hand() -> None:
    """Arithmetic: area times thickness; the part of a box under a slope is a trapezoid times its width."""
    assert math.isclose(prism(L_SHAPE, 100, 2600).volume, (4000 * 1000 + 1500 * 2000) * 2500)
    assert math.isclose(
        prism_along(HOLED, (0, 0), turned(30), 200).volume, (3000 * 2700 - 1200 * 1200) * 200, rel_tol=1e-12
    )
    box = prism(Polygon([(0, 0), (1000, 0), (1000, 2000), (0, 2000)]), 0, 5000)
    under = box.below(plane_under((0, 0), (1000, 0), 1000, 0.5))
    assert math.isclose(under.volume, 1000 * 2000 * (1000 + 2000) / 2, rel_tol=1e-12)


@pytest.mark.parametrize("name", bodies())
def test_facets_cover_the_surface(name: str) -> None:
    """The facets' areas add up to the surface, and each lies in its plane."""
    solid = bodies()[name]
    total = 0.0
    for facet in solid.facets:
        normal = np.array(facet.normal)
        assert math.isclose(float(np.linalg.norm(normal)), 1.0, rel_tol=1e-9)
        vector = np.zeros(3)
        for ring in facet.rings:
            points = np.array(ring)
            assert np.allclose(points @ normal, facet.offset, atol=1e-5)
            vector += np.cross(points, np.roll(points, -1, axis=0)).sum(axis=0) / 2
        area = float(vector @ normal)
        assert area > 0, "rings run counter-clockwise seen from outside"
        total += area
    assert math.isclose(total, mesh_of(solid).area, rel_tol=1e-7)


def oracle_area(solid: Solid, frame: Frame) -> float:
    """Area of a section by trimesh."""
    depth = TOL.cut
    origin = (frame.x0 + frame.dx * depth, frame.y0 + frame.dy * depth, 0.0)
    section = mesh_of(solid).section(plane_origin=origin, plane_normal=(frame.dx, frame.dy, 0.0))
    if section is None:
        return 0.0
    flat, _ = section.to_2D()
    return float(flat.area)


@pytest.mark.parametrize("name", bodies())
@settings(max_examples=25, deadline=None)
@given(angle=st.floats(0, 360), x=st.floats(-500, 4200), y=st.floats(-500, 3200))
def test_cuts_have_the_area_of_the_reference(name: str, angle: float, x: float, y: float) -> None:
    solid, frame = bodies()[name], Frame.looking(round(angle, 3), round(x, 2), round(y, 2))
    ours = solid.cut(frame).area
    assert math.isclose(ours, oracle_area(solid, frame), rel_tol=1e-6, abs_tol=2.0)


@pytest.mark.parametrize("angle_deg", [0.0, 90.0, 180.0, 270.0, 17.0, 45.0, 212.5])
def test_a_near_face_in_the_plane_is_cut_and_a_far_one_is_not(angle_deg: float) -> None:
    """Solids are cut 0.005 mm along the look direction, whatever the angle of the wall."""
    rx, ry = turned(angle_deg)
    wall = bar_along((0, 0, 3000, 2500), (100, 50), (rx, ry), 200)
    away, towards = (ry, -rx), (-ry, rx)
    look = math.degrees(math.atan2(away[1], away[0]))
    near = Frame.looking(look, 100, 50)
    assert math.isclose(wall.cut(near).area, 3000 * 2500, rel_tol=1e-9)
    far = Frame.looking(look, 100 + away[0] * 200, 50 + away[1] * 200)
    assert wall.cut(far).area == 0
    back = Frame.looking(math.degrees(math.atan2(towards[1], towards[0])), 100 + away[0] * 200, 50 + away[1] * 200)
    assert math.isclose(wall.cut(back).area, 3000 * 2500, rel_tol=1e-9)


def test_nothing_left_is_empty() -> None:
    block = prism(L_SHAPE, 0, 1000)
    assert not block.is_empty
    assert block.minus([prism(L_SHAPE.buffer(10), -10, 1010)]).is_empty
    assert block.below(Plane3(0, 0, -5)).is_empty
    assert block.minus([prism(shapely.box(4000, 0, 5000, 3000), 0, 1000)]).volume == pytest.approx(block.volume)


def test_shortcuts_leave_a_body_as_it_is() -> None:
    block = prism(L_SHAPE, 0, 1000)
    assert block.below(Plane3(0, 0, 1000)) is block
    assert block.above(Plane3(0.0, 0.0, -1.0)) is block
    assert block.minus([prism(L_SHAPE, 2000, 3000)]) is block


@pytest.mark.parametrize("name", bodies())
@settings(max_examples=25, deadline=None)
@given(z=st.floats(-400, 3100), angle=st.floats(0, 360))
def test_level_cuts_have_the_area_of_the_reference(name: str, z: float, angle: float) -> None:
    """Against trimesh, and, as it is turned into the view, from every side the same."""
    solid, z = bodies()[name], round(z, 2)
    section = mesh_of(solid).section(plane_origin=(0.0, 0.0, z + TOL.cut), plane_normal=(0.0, 0.0, 1.0))
    wanted = 0.0 if section is None else float(section.to_2D()[0].area)
    flat = solid.level(z)
    assert math.isclose(flat.area, wanted, rel_tol=1e-6, abs_tol=2.0)
    frame = LevelFrame(*turned(angle), z)
    seen = solid.section(frame)
    assert math.isclose(seen.area, flat.area, rel_tol=1e-9, abs_tol=1e-3)
    if not flat.is_empty:
        spot = flat.representative_point()
        assert seen.buffer(1e-3).contains(shapely.Point(frame.to_view(spot.x, spot.y)))
        assert np.allclose(frame.to_plan(*frame.to_view(spot.x, spot.y)), (spot.x, spot.y), atol=1e-6)
