"""Twelve houses of one's own, cut by straight, stepped and bent lines: areas against a slicer that shares no code."""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Callable
from functools import lru_cache

import numpy as np
import pytest
import shapely
import trimesh
from shapely.geometry import Polygon

from deepsection.core.buildups import with_pieces
from deepsection.core.drawing import Region
from deepsection.core.drawing.cropping import Window
from deepsection.core.edits import put
from deepsection.core.geometry import Solid
from deepsection.core.model import Project, SectionLine, SectionStep
from deepsection.core.resolve import Part, resolve
from deepsection.core.tolerance import TOL
from deepsection.core.view import draw_view
from deepsection.core.view.cut import cut_parts
from deepsection.core.view.section_panels import section_panels
from tests.builders import (
    block_house,
    box_house,
    gable,
    joist_house,
    l_house,
    plain_wall,
    roofed_l,
    stair_house,
    two_storeys,
    window,
)
from tests.turning import turned

Steps = tuple[tuple[float, float, float], ...]
SCENES: tuple[tuple[Callable[[], Project], float, float, Steps], ...] = (
    (lambda: gable(box_house(8000, 6000), 0.5, overhang=400, rake=300), 0.0, 4000.0, ()),
    (lambda: gable(box_house(9100, 6400, "ft-in"), 4 / 12, overhang=300), 17.0, 3150.0, ()),
    (lambda: joist_house(9000, 7000), 0.0, 2480.0, ((4200.0, 900.0, 0.0),)),
    (lambda: joist_house(9000, 7000, "ft-in"), 33.0, 4480.0, ((3900.0, -700.0, 0.0), (6100.0, 350.0, 0.0))),
    (lambda: two_storeys(9000, 7000), 0.0, 5210.0, ((5000.0, 0.0, 25.0),)),
    (lambda: two_storeys(8000, 6000, "ft-in"), 8.0, 3890.0, ((4300.0, 600.0, -30.0),)),
    (block_house, 0.0, 3300.0, ((4100.0, 1200.0, 0.0),)),
    (lambda: block_house("floor-joists", ground=True, inner=True), 45.0, 5200.0, ((5200.0, 0.0, -12.0),)),
    (l_house, 0.0, 3333.0, ((6500.0, 0.0, 40.0),)),
    (roofed_l, 21.0, 2777.0, ((5000.0, -800.0, 0.0), (8000.0, -800.0, 18.0))),
    (stair_house, 0.0, 4100.0, ((4000.0, -600.0, 0.0),)),
    (lambda: plain_wall(opening=window("o", "w", 3000.0, sill=700.0)), 12.0, 3000.0, ((2000.0, 40.0, 0.0),)),
)
"""(house, turned by degrees, x at which a line goes north, its steps: along, ahead, turn)."""


@lru_cache(maxsize=20_000)
def meshed(solid: Solid) -> trimesh.Trimesh:
    """A body of ours for the slicer: several planes cut it."""
    return trimesh.Trimesh(*solid.mesh())


def sliced(part: Part, dx: float, dy: float, base: float, left: float, right: float) -> float:
    """mm2 that trimesh cuts of a part by the plane at `base` along (dx, dy), between two places across it."""
    mesh = meshed(part.solid)
    if not mesh.is_watertight:
        ux, uy = dy, -dx
        matrix = [[ux, uy, 0.0, 0.0], [0.0, 0.0, 1.0, 0.0], [-dx, -dy, 0.0, base]]
        contours = part.solid.manifold.transform(matrix).slice(-TOL.cut).to_polygons()
        whole = shapely.Polygon()
        for ring in contours:
            whole = whole.symmetric_difference(Polygon(ring))
        return float(whole.intersection(shapely.box(left, -1e5, right, 1e5)).area)
    origin = (dx * (base + TOL.cut), dy * (base + TOL.cut), 0.0)
    section = mesh.section(plane_origin=origin, plane_normal=(dx, dy, 0.0))
    if section is None:
        return 0.0
    planar, back = section.to_2D()
    found = 0.0
    for polygon in planar.polygons_full:

        def placed(points: np.ndarray, back: np.ndarray = back) -> np.ndarray:
            """(n, 2) across and up of points of the slicer's own plane."""
            xyz = np.c_[points, np.zeros(len(points)), np.ones(len(points))] @ back.T
            return np.c_[xyz[:, 0] * dy - xyz[:, 1] * dx, xyz[:, 2]]

        upright = shapely.transform(polygon, placed)
        found += shapely.intersection(upright.buffer(0), shapely.box(left, -1e5, right, 1e5)).area
    return found


def scene(number: int) -> Project:
    make, degrees, x, steps = SCENES[number]
    held = tuple(SectionStep(along=along, ahead=ahead, turn=turn) for along, ahead, turn in steps)
    line = SectionLine(id="cut", name="K", x1=x, y1=-2000.0, x2=x, y2=11000.0, members=True, steps=held)
    return turned(put(make(), line), degrees)


@pytest.mark.parametrize("number", range(len(SCENES)))
def test_what_is_cut_of_each_material_is_what_an_independent_slicer_cuts(number: int) -> None:
    house = scene(number)
    building, line = resolve(house), house.find("cut")
    ours: dict[str, float] = defaultdict(float)
    theirs: dict[str, float] = defaultdict(float)
    for panel, part in zip(section_panels(line), line.parts, strict=True):
        # The plane by hand: from the ends of the part, looking to its left or right.
        run = math.hypot(part.x2 - part.x1, part.y2 - part.y1)
        tx, ty = (part.x2 - part.x1) / run, (part.y2 - part.y1) / run
        dx, dy = (-ty, tx) if line.look == "left" else (ty, -tx)
        base = part.x1 * dx + part.y1 * dy
        left, right = sorted((part.x1 * dy - part.y1 * dx, part.x2 * dy - part.y2 * dx))
        # With the pieces of build-ups, which a section shows at 1:10.
        built = with_pieces(building, panel.frame, panel.window, 10.0)
        for held in cut_parts(built, panel.frame, Window(left, right)):
            ours[held.part.material] += held.polygon.area
        for solid in built.parts:
            theirs[solid.material] += sliced(solid, dx, dy, base, left, right)
    assert sum(theirs.values()) > 1e5
    # Vapour control is 0.2 thick: less than the slicer tells apart where pieces take some of it.
    for material in (set(ours) | set(theirs)) - {"vapour_control"}:
        assert ours[material] == pytest.approx(theirs[material], rel=1e-4, abs=30.0), material
    # The drawing has no less: one hatched or filled piece for each, but for membranes, which lie on blank paper.
    drawing = draw_view(building, house, "section:cut", 10.0)
    drawn = [
        Polygon([(x, y) for x, y, _ in mark.rings[0]], [[(x, y) for x, y, _ in ring] for ring in mark.rings[1:]]).area
        for mark in drawing.marks
        if isinstance(mark, Region) and mark.feature == "cut" and mark.part and "/membrane/" not in mark.part
    ]
    membranes = sum(
        held.polygon.area
        for panel in section_panels(line)
        for held in cut_parts(with_pieces(building, panel.frame, panel.window, 10.0), panel.frame, panel.window)
        if held.part.function == "membrane"
    )
    assert sum(drawn) == pytest.approx(sum(theirs.values()) - membranes, rel=2e-3)
