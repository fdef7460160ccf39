"""Jambs, cut level: where their pieces lie, how many there are, what rules say, and that they turn with the house."""

from __future__ import annotations

import math

import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st

from deepsection.core.buildups import Wanted, built_of, made_of, set_build_ups
from deepsection.core.buildups.library import SITES
from deepsection.core.edits import apply_edits, changed, put
from deepsection.core.geometry import LevelFrame
from deepsection.core.junctions import Junction, found_junctions
from deepsection.core.model import Project
from deepsection.core.resolve import Building, Part, resolve
from deepsection.core.view.continuity import continuity_in
from deepsection.core.view.lines import junction_lines
from tests.turning import turned

from .rig import cut_at, framed, masonry, places


def jamb_of(project: Project, opening: str) -> tuple[Building, Junction]:
    building = resolve(project)
    return building, next(held for held in found_junctions(building) if held.id == f"jamb/{opening}.jambs")


def pieces_of(building: Building, junction: Junction) -> dict[str, list[Part]]:
    found: dict[str, list[Part]] = {}
    for piece, part, _ in made_of(building, junction, 4.0):
        found.setdefault(piece.id, []).append(part)
    return found


@pytest.mark.parametrize("project", [framed(), framed(make_up="wall-brick"), masonry()], ids=["lap", "brick", "cavity"])
@pytest.mark.parametrize("opening", ["w1", "w2"])
def test_both_sides_of_a_window_have_them_from_sill_to_head(project: Project, opening: str) -> None:
    building, junction = jamb_of(project, opening)
    site, window = SITES["jamb"].site(building, junction), project.find(opening)
    width = site.width
    for id, parts in pieces_of(building, junction).items():
        if id == "frame-tie":
            continue
        low, high = parts
        assert low.solid.volume == pytest.approx(high.solid.volume, rel=1e-9), id
        for part in parts:
            # Casing and extension jamb stand on the stool, and under those of the head.
            foot, top = {"casing": (20.0, 6.0), "jamb-board": (20.0, 19.05)}.get(id, (0.0, 0.0))
            wanted = site.low + foot, site.high - top
            assert (part.solid.reach.z0, part.solid.reach.z1) == pytest.approx(wanted), id
        # The two are mirrored about the middle of the opening.
        axis = 0 if window.wall == "south" else 1
        middles = [(part.solid.reach[axis] + part.solid.reach[axis + 3]) / 2 for part in parts]
        assert sum(middles) / 2 == pytest.approx(2100.0 if axis == 0 else 3000.0, abs=0.01), id
        assert abs(middles[0] - middles[1]) > width - 200.0


def test_what_closes_a_cavity_fills_it_and_laps_behind_the_frame() -> None:
    """By hand: the cavity is what the make-up has between its leaves; the closer is as wide as stated, less the sheet
    of the damp-proof course, which goes 25 mm past it."""
    building, junction = jamb_of(masonry(), "w1")
    site = SITES["jamb"].site(building, junction)
    outer, inner = site.wall.between
    held = pieces_of(building, junction)
    closer, course = held["closer"][0].solid.reach, held["jamb-dpc"][0].solid.reach
    assert closer.y1 - closer.y0 == pytest.approx(outer - inner - 0.8, abs=1e-6)
    assert closer.x1 - closer.x0 == pytest.approx(max(75.0, site.closed), abs=1e-6)
    assert course.x1 - course.x0 == pytest.approx(max(75.0, site.closed) + 25.0, abs=1e-6)
    height = site.high - site.low
    assert len(held["frame-tie"]) == 2 * (math.floor((height - 225.0 - 30.0) / 600.0) + 1)


def test_casing_foam_and_extension_jamb_stand_where_a_joiner_sets_them() -> None:
    """A casing of 2 1/2 in shows 1/4 in of the jamb; the extension jamb ends flush with the lining."""
    building, junction = jamb_of(framed(), "w1")
    site = SITES["jamb"].site(building, junction)
    held = pieces_of(building, junction)
    # A south wall: outward is -y.
    casing, jamb = held["casing"][0].solid.reach, held["jamb-board"][0].solid.reach
    assert casing.x1 - casing.x0 == pytest.approx(63.5) and casing.y0 == pytest.approx(-site.wall.inner)
    assert jamb.y1 == pytest.approx(-site.wall.inner) and jamb.x1 - jamb.x0 == pytest.approx(19.05 - 0.5)
    edge = min(casing.x1, jamb.x1)
    left = 2100.0 - site.width / 2
    assert edge - left == pytest.approx(6.0) or left - casing.x0 == pytest.approx(57.5)


@given(degrees=st.floats(-180, 180), wide=st.floats(50, 120))
@settings(max_examples=8, deadline=None)
def test_lines_close_however_the_house_is_turned_and_the_closer_is_set(degrees: float, wide: float) -> None:
    project = turned(masonry(), degrees, 1)
    building = resolve(project)
    edits = set_build_ups(project, building, "jamb", None, Wanted(parameter="closer", text=f"{wide:.1f}"))
    building, junction = jamb_of(apply_edits(project, edits), "w1")
    lines = junction_lines(building, junction)
    assert lines is not None and lines.words == ()
    assert {held.line for held in lines.lines if held.is_there} >= {"weather", "air", "thermal"}


def test_a_jamb_without_its_closer_is_open_to_cold() -> None:
    project = masonry()
    edits = set_build_ups(project, resolve(project), "jamb", None, Wanted(piece="closer", on=False))
    building = resolve(apply_edits(project, edits))
    _, place = next(pair for pair in places(building, "jamb") if pair[0].id == "jamb/w1.jambs")
    assert isinstance(place.frame, LevelFrame)
    built, cut = cut_at(building, place)
    (cold,) = continuity_in(built, cut, place.window, ["thermal"])
    assert not cold.closes or not cold.is_there


def test_rules_and_limits_are_said() -> None:
    project = masonry()
    building = resolve(project)

    def after(**wanted: str) -> Project:
        return apply_edits(project, set_build_ups(project, building, "jamb", None, Wanted(**wanted)))  # type: ignore[arg-type]

    def told(house: Project) -> str:
        building, junction = jamb_of(house, "w1")
        built = built_of(building, junction)
        assert built is not None
        return " ".join(found.words for found in built.rules)

    assert "laps 12 mm past the closer" in told(after(parameter="lap", text="12"))
    assert "frame ties stand at 800 mm" in told(after(parameter="ties", text="800"))
    assert "laps 12" not in told(project) and "ties" not in told(project)


def test_bare_openings_have_none() -> None:
    bare = put(framed(), changed(framed().find("d1"), operation="plain"))
    building, junction = jamb_of(bare, "d1")
    assert built_of(building, junction) is None


@pytest.mark.parametrize("project", [framed(), masonry()], ids=["framed", "masonry"])
def test_corners_show_every_layer_of_both_walls(project: Project) -> None:
    """Of each layer of both walls a piece is cut within the window, and none of them lies in another."""
    building = resolve(project)
    for junction, place in places(building, "wall_corner"):
        _, cut = cut_at(building, place)
        for id in junction.elements:
            layers = building.placed.make_ups[building.plan.by_id[id].wall.make_up].layers
            shown = {one.part.key.split("/")[2] for one in cut if one.part.element == id}
            # A unit that runs through the corner is of the leaf whose place it takes.
            shown |= {"inner" for one in cut if one.part.key.split("/")[2] == "quoin"}
            assert {layer.id for layer in layers if layer.function != "cavity"} <= shown, junction.id
        shapes = [one.polygon for one in cut]
        total = sum(shape.area for shape in shapes)
        assert shapely.union_all(shapes).area == pytest.approx(total, rel=2e-3)
