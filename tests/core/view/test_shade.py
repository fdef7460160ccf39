"""Shade at 45 degrees: depths in closed form, and every sample against rays through the triangles of the house."""

from __future__ import annotations

import math

import numpy as np
import pytest
import shapely
from numpy.typing import NDArray

from deepsection.core.drawing import Drawing, Region
from deepsection.core.edits import put
from deepsection.core.geometry import Frame
from deepsection.core.model import Project, ViewShow
from deepsection.core.resolve import Building, Part, resolve
from deepsection.core.view import draw_view
from deepsection.core.view.faces import faces_of
from deepsection.core.view.visible import visible_faces
from deepsection.demo import otterfold_house, wrenfold_house
from tests.builders import box_house, gable

near = pytest.approx


def shaded(project: Project, side: str = "south") -> Drawing:
    show = ViewShow(id="shade", view=f"elevation:{side}", shade=True)
    house = put(project, show)
    return draw_view(resolve(house), house, f"elevation:{side}", 50.0)


def shade_of(drawing: Drawing) -> shapely.Geometry:
    marks = [mark for mark in drawing.marks if isinstance(mark, Region) and mark.feature == "shade"]
    assert all(mark.hatch is not None and drawing.hatches[mark.hatch].name == "shade" for mark in marks)
    return shapely.union_all(
        [shapely.Polygon(ring[0], ring[1:]) for ring in ([[p[:2] for p in r] for r in m.rings] for m in marks)]
    )


def test_an_eave_shades_the_wall_as_deep_as_it_reaches_out() -> None:
    """The light falls as far as it goes inward: the lower edge of the fascia, so far before the wall, throws its line
    as far below itself. Textbook rule of 45 degree shades and shadows."""
    project = gable(box_house(8000, 6000), 0.5, overhang=400.0)
    building = resolve(project)
    fascia = next(p.solid.bounds for p in building.parts if p.role == "fascia" and p.solid.bounds.y1 < 0)
    clad = next(p.solid.bounds for p in building.parts if p.key.startswith("south/cladding"))
    reach = clad.y0 - fascia.y0
    wall = shapely.box(clad.x0 + 2 * reach, building.levels["floor"].z + 5, clad.x1 - 50, fascia.z0 - 1)
    dark = shade_of(shaded(project)).intersection(wall)
    assert reach > 300
    assert dark.bounds[1] == near(fascia.z0 - reach, abs=1.0)
    assert dark.area == near((wall.bounds[2] - wall.bounds[0]) * (reach - 1), rel=2e-3), "one even strip"


def triangles_of(building: Building) -> NDArray[np.float64]:
    held = []
    for part in building.parts:
        if part.outside and not part.solid.is_empty:
            points, corners = part.solid.mesh()
            held.append(points[corners])
    return np.concatenate(held).astype(float)


def is_hit(start: NDArray[np.float64], way: NDArray[np.float64], triangles: NDArray[np.float64]) -> bool:
    """Whether a ray meets a triangle. Moller and Trumbore, Fast, minimum storage ray-triangle intersection (1997)."""
    a, e1, e2 = triangles[:, 0], triangles[:, 1] - triangles[:, 0], triangles[:, 2] - triangles[:, 0]
    p = np.cross(way, e2)
    det = (e1 * p).sum(axis=1)
    good = np.abs(det) > 1e-9
    inverse = 1.0 / np.where(good, det, 1.0)
    s = start - a
    u = (s * p).sum(axis=1) * inverse
    q = np.cross(s, e1)
    v = (q * way).sum(axis=1) * inverse
    t = (e2 * q).sum(axis=1) * inverse
    return bool((good & (u >= 0) & (v >= 0) & (u + v <= 1) & (t > 0.5)).any())


@pytest.mark.parametrize(("make", "side", "look"), [(otterfold_house, "west", 0.0), (wrenfold_house, "south", 90.0)])
def test_rays_to_the_light_meet_the_house_where_there_is_shade(make: object, side: str, look: float) -> None:
    """Of 700 random places that are seen, all but those within 3 mm of an edge of the shade agree."""
    project: Project = make()  # type: ignore[operator]
    building = resolve(project)
    dark = shade_of(shaded(project, side))
    frame = Frame.looking(look)
    outside: list[Part] = [part for part in building.parts if part.outside]
    faces = visible_faces([face for held in faces_of(outside, frame.dx, frame.dy) for face in held])
    lines = shapely.union_all([dark.boundary, *(face.polygon.boundary for face in faces)])
    shapely.prepare(lines)
    triangles, rng = triangles_of(building), np.random.default_rng(7)
    grade, wrong, asked, shady = building.levels["grade"].z, 0, 0, 0
    areas = np.array([face.polygon.area for face in faces])
    # To the light: to the left, up and towards the viewer.
    way = np.array([-frame.ux - frame.dx, -frame.uy - frame.dy, 1.0]) / math.sqrt(3)
    while asked < 700:
        face = faces[rng.choice(len(faces), p=areas / areas.sum())]
        x0, y0, x1, y1 = face.polygon.bounds
        u, v = rng.uniform(x0, x1), rng.uniform(y0, y1)
        spot = shapely.Point(u, v)
        facing = float(np.dot(face.normal, way))
        # What the light grazes is neither lit nor in shade.
        if v < grade or abs(facing) < 1e-3 or not face.polygon.contains(spot) or lines.distance(spot) < 3.0:
            continue
        asked += 1
        depth = face.depth(u, v)
        out = np.array(face.normal) * 0.05
        start = np.array([u * frame.ux + depth * frame.dx, u * frame.uy + depth * frame.dy, v]) + out
        expected = facing < 0 or is_hit(start, way, triangles)
        shady += expected
        wrong += expected != dark.contains(spot)
    assert wrong == 0 and 30 < shady < 650
