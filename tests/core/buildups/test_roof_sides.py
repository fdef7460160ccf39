"""Sides of roofs at walls: found wherever a wing leans on a house, flashed up the slope, in walls of both kinds."""

from __future__ import annotations

import math
from collections.abc import Callable

import pytest
import shapely

from deepsection.core.buildups import made_of
from deepsection.core.document.motion import Motion
from deepsection.core.edits import Transform, apply_edits, changed, put
from deepsection.core.geometry import Frame, Solid, prism_along, rising
from deepsection.core.geometry.solids import rings_as_areas
from deepsection.core.junctions import Junction
from deepsection.core.model import Project
from deepsection.core.resolve import Building, resolve
from deepsection.core.tolerance import TOL
from deepsection.demo import larkmoor_house, otterfold_house, quillback_house, wrenfold_house
from tests.builders import cavity_box
from tests.turning import turned

from .rig import built, cut_at, is_whole, of_kind, places


def sides(building: Building) -> list[Junction]:
    return of_kind(building, "roof_side")


def in_masonry(project: Project, kind: str = "roof_side") -> Project:
    """With the walls that roofs lean on as cavity walls."""
    cavity = cavity_box(8000.0, 6000.0)
    make_up = cavity.find(cavity.walls[0].make_up)
    project = put(project, changed(make_up, id="cavity"))
    leaned_on = {held.elements[-1] for held in of_kind(resolve(project), kind)}
    return put(
        project, *(changed(project.find(wall), make_up="cavity", set_out=cavity.walls[0].set_out) for wall in leaned_on)
    )


def mirrored(project: Project) -> Project:
    ids = tuple(held.id for held in project.elements() if held.about.movable)
    return apply_edits(project, [Transform(elements=ids, motion=Motion(mirror=37.0))])


HOUSES = {
    "quillback": quillback_house,
    "otterfold": otterfold_house,
    "larkmoor": larkmoor_house,
    "masonry": lambda: in_masonry(larkmoor_house()),
    "turned": lambda: turned(quillback_house(), 31.0, 1),
    "mirrored": lambda: mirrored(otterfold_house()),
}


@pytest.mark.parametrize("name", HOUSES)
def test_each_side_of_a_roof_at_a_wall_is_flashed_along_both_slopes(name: str) -> None:
    """The volume of the flashing by hand: its profile by the length of the slopes in plan, however steep they are."""
    building = resolve(HOUSES[name]())
    found = sides(building)
    assert len(found) == (2 if name in ("larkmoor", "masonry") else 1)
    for junction in found:
        held = built(building, junction)
        assert held.build_up.id == ("side-covered" if name == "masonry" else "side-stepped") and held.fault == ""
        flat = sum(math.dist(run.start[:2], run.end[:2]) for run in junction.runs)
        for piece in held.pieces:
            parts = [part for one, part, _ in made_of(building, junction, 4.0) if one.id == piece.id]
            assert len(parts) == len(junction.runs) == 2
            assert sum(part.solid.volume for part in parts) == pytest.approx(piece.shape.area * flat, rel=1e-6)
    assert is_whole(building, "roof_side") == len(found)


@pytest.mark.parametrize("house", [wrenfold_house, larkmoor_house, lambda: turned(wrenfold_house(), -58.0, 1)])
@pytest.mark.parametrize("walls", ["framed", "masonry"])
def test_the_top_of_a_roof_at_a_wall_has_an_apron_over_its_covering(house: Callable[[], Project], walls: str) -> None:
    """4 in up and 5 out over the covering, that falls by the pitch; in masonry 150 and 150."""
    project = house() if walls == "framed" else in_masonry(house(), "roof_top")
    building = resolve(project)
    assert not any("open to the sky" in held.message for held in building.diagnostics)
    (junction,) = of_kind(building, "roof_top")
    held = built(building, junction)
    assert held.build_up.id == ("top-apron" if walls == "framed" else "top-covered")
    (run,), wall = junction.runs, building.plan.by_id[junction.elements[-1]]
    assert run.out[0] * wall.stand().out[0] + run.out[1] * wall.stand().out[1] > 0.99
    x0, y0, x1, y1 = held.pieces[0].shape.bounds
    up, out = (101.6, 127.0) if walls == "framed" else (150.0, 150.0)
    near = wall.outer if walls == "masonry" else x0
    fall = 0.25 * (x1 - near)
    assert x1 == pytest.approx(wall.outer + out, abs=0.5)
    assert y1 - y0 == pytest.approx(up + fall, abs=2.5)
    assert is_whole(building, "roof_top") == 1


def test_siding_ends_above_the_roof_and_a_short_flashing_is_said() -> None:
    """By hand: 2 in over the covering of 9.5 plumb at 8 in 12; the flashing goes 4 in up from the underlay."""
    building = resolve(quillback_house())
    (junction,) = sides(building)
    (piece,) = built(building, junction).pieces
    assert piece.clears is not None
    slope = math.hypot(1.0, 8 / 12)
    low, high = piece.shape.bounds[1], piece.shape.bounds[3]
    assert low == pytest.approx((15.875 + 1.0) * slope, abs=0.2) and high - low == pytest.approx(101.6, abs=0.01)
    assert piece.clears.bounds[3] == pytest.approx(low + 9.525 * slope + 50.8, abs=0.2)
    place = next(place for held, place in places(building, "roof_side"))
    whole, _ = cut_at(building, place)
    wall = junction.elements[-1]
    cut = [part.solid.section(place.frame) for part in whole.parts if part.element == wall and part.role == "cladding"]
    lows = [part.bounds[1] for shape in cut for part in shapely.get_parts(shape)]
    assert any(low == pytest.approx(place.v + piece.clears.bounds[3], abs=0.5) for low in lows)


@pytest.mark.parametrize("way", [(1.0, 0.0), (0.6, -0.8)])
def test_a_body_that_rises_is_cut_as_the_engine_cuts_it(way: tuple[float, float]) -> None:
    """Against slices of the body in the engine, in planes across it, along it and askew; its volume stays."""
    profile = shapely.Polygon([(0, 0), (100, 0), (100, 20), (20, 20), (20, 80), (0, 80)])
    body = prism_along(profile, (500.0, -300.0), way, 900.0)
    up = rising(body, (500.0, -300.0), (way[1], -way[0]), 0.75)
    assert up.volume == pytest.approx(body.volume)
    tight, wide = up.bounds, up.reach
    assert all(wide[k] <= tight[k] + 1e-6 and wide[k + 3] >= tight[k + 3] - 1e-6 for k in range(3))
    assert tight.z1 - tight.z0 == pytest.approx(80.0 + 0.75 * 900.0)
    for degrees in (0.0, 27.0, 90.0, 141.0):
        x, y = 500.0 + way[0] * 50 + way[1] * 400, -300.0 + way[1] * 50 - way[0] * 400
        frame = Frame.looking(degrees, x, y)
        engine = _by_engine(up, frame)
        assert up.cut(frame).symmetric_difference(engine).area < 1e-3 * max(engine.area, 1.0)
    higher = up.level(up.bounds.z0 + 200.0)
    assert not higher.is_empty


def _by_engine(body: Solid, frame: Frame) -> shapely.Geometry:
    depth = frame.x0 * frame.dx + frame.y0 * frame.dy + TOL.cut
    turn = ((frame.ux, frame.uy, 0.0, 0.0), (0.0, 0.0, 1.0, 0.0), (-frame.dx, -frame.dy, 0.0, depth))
    return rings_as_areas(body.manifold.transform(turn).slice(0.0).to_polygons())


def test_slopes_of_two_pitches_are_two_sides_each_with_its_own_heights() -> None:
    """Layers lie higher over a steeper slope, plumb: 16.9 of deck and underlay by its slope."""
    house = quillback_house()
    wing = house.find("roof-wing")
    edges = [changed(edge, pitch=0.4) if k == 0 else edge for k, edge in enumerate(wing.edges)]
    building = resolve(put(house, changed(wing, edges=edges)))
    found = sides(building)
    assert [held.ends[-1].sub for held in found] == ["flatter", "steeper"]
    for junction, pitch in zip(found, (0.4, 2 / 3)):
        assert dict(junction.facts)["pitch"] == pytest.approx(pitch, abs=1e-4) and len(junction.runs) == 1
        (piece,) = built(building, junction).pieces
        assert piece.shape.bounds[1] == pytest.approx((15.875 + 1.0) * math.hypot(1.0, pitch), abs=0.1)
    assert is_whole(building, "roof_side") == 2
