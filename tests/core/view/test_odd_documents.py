"""Every view of every demo and of odd documents: marks or a word, never an error; every element told about, edited."""

from __future__ import annotations

from collections.abc import Callable
from itertools import pairwise

import pytest

from deepsection.core.drawing import Dimension, Region, Symbol
from deepsection.core.edits import DrawWalls, PutGroundSpot, Remove, apply_edits, put
from deepsection.core.errors import DeepSectionError
from deepsection.core.model import ElevationView, FreeJoint, LevelRule, Post, Project, SectionLine
from deepsection.core.particulars import describe_element, enter_all
from deepsection.core.resolve import resolve, storeys
from deepsection.core.sheets import standard_scales
from deepsection.core.starters.projects import new_project
from deepsection.core.trades.ground.model import GroundSpot
from deepsection.core.view import draw_view, list_views
from deepsection.demo import fernacre_bungalow, hollin_bothy, larkmoor_house
from tests.builders import box_house, gable
from tests.campaigns import LONG, most_demos

near = pytest.approx
STARTERS = [("timber", "ft-in", "slab"), ("timber", "mm", "joists"), ("masonry", "mm", "slab")]


def looked_at(project: Project) -> Project:
    """With sections outside of it, with nothing beyond, through its edge, and an elevation at an angle."""
    return put(
        project,
        SectionLine(id="o1", name="P", x1=-50e3, y1=-90e3, x2=50e3, y2=-90e3, look="left"),
        SectionLine(id="o2", name="Q", x1=-5e3, y1=3e3, x2=50e3, y2=3e3, look="left", depth=1.0),
        SectionLine(id="o3", name="R", x1=3e3, y1=-5e3, x2=3e3, y2=4e3, look="left", depth=0.001),
        SectionLine(id="o4", name="S", x1=100.0, y1=-5e3, x2=100.0, y2=4e3, look="right", depth=1.0),
        ElevationView(id="oblique", name="Oblique", look=37.0),
    )


def drawn_whole(project: Project) -> None:
    building = resolve(project)
    for view in list_views(project):
        drawing = draw_view(building, project, view.name, project.scale)
        assert drawing.marks or drawing.messages or view.name.startswith("plan"), view.name


def empty(tradition: str, units: str, ground: str) -> Project:
    return new_project("odd", "Odd", units, tradition, ground)  # type: ignore[arg-type]


@pytest.mark.parametrize(("tradition", "units", "ground"), STARTERS)
def test_hardly_anything_is_drawn(tradition: str, units: str, ground: str) -> None:
    """The ground alone; one wall; two walls that do not close; a house without its roof, a roof without its walls."""
    bare = empty(tradition, units, ground)
    drawn_whole(bare)
    drawn_whole(looked_at(bare))
    spot = GroundSpot(id="g", x=0.0, y=0.0, rise=-500.0)
    drawn_whole(looked_at(apply_edits(bare, [PutGroundSpot(spot=spot)])))
    make_up = next(held.id for held in bare.make_ups if held.use == "wall")
    storey = storeys(bare)[0]
    joints = (FreeJoint(id="a", x=0, y=0), FreeJoint(id="b", x=6000, y=0), FreeJoint(id="c", x=6000, y=4000))
    for count in (2, 3):
        walls = DrawWalls(
            joints=joints[:count],
            chain=("a", "b", "c")[:count],
            walls=("w1", "w2")[: count - 1],
            make_up=make_up,
            base=storey.level,
            top=storey.plate or "",
        )
        drawn_whole(looked_at(apply_edits(bare, [walls])))


@pytest.mark.parametrize("make", most_demos())
def test_demos_without_walls_or_roof_are_drawn(make: Callable[[], Project]) -> None:
    """As they are, their own views are drawn by other tests."""
    project = make()
    if LONG:
        drawn_whole(looked_at(project))
    for gone in (project.roofs, project.walls):
        if gone:
            drawn_whole(looked_at(Remove(elements=tuple(held.id for held in gone)).apply(project)))


def test_a_view_of_a_room_that_lost_a_wall_says_so() -> None:
    project = fernacre_bungalow()
    room = project.rooms[0]
    view = ElevationView(id="looked-in", name="Inside", look=90.0, room=room.id)
    for wall in project.walls:
        less = Remove(elements=(wall.id,)).apply(put(project, view))
        drawing = draw_view(resolve(less), less, "elevation:looked-in", 50)
        assert drawing.marks or "not enclosed" in drawing.messages[0]


@pytest.mark.parametrize("make", most_demos())
def test_every_element_has_particulars_that_take_their_own_text(make: Callable[[], Project]) -> None:
    """Of every class: told about, its fields entered as they stand, removed or refused in words."""
    project = make()
    building, seen = resolve(project), set()
    for element in project.elements():
        held = describe_element(project, building, element.id)
        assert held.title and "_" not in held.title
        if type(element) in seen:
            continue
        seen.add(type(element))
        for field in held.fields:
            if field.kind in ("length", "choice", "text", "pitch"):
                try:
                    apply_edits(project, enter_all(project, [element.id], field.id, field.text))
                except DeepSectionError as error:
                    assert error.message
        try:
            Remove(elements=(element.id,)).apply(project)
        except DeepSectionError as error:
            assert error.message


# --- heights and posts ----------------------------------------------------------------------------


def test_ridges_and_pitches_past_the_ends_of_a_section_are_not_marked() -> None:
    """A section that ends before the ridge: neither its level nor a triangle beyond its line."""
    house = gable(box_house(8000, 6000), 0.5, overhang=400.0, rake=300.0)
    project = put(house, SectionLine(id="short", name="K", x1=2000, y1=-2000, x2=2000, y2=1500, look="left"))
    whole = put(project, SectionLine(id="long", name="L", x1=2000, y1=-2000, x2=2000, y2=8000, look="left"))
    building = resolve(whole)
    short, full = (draw_view(building, whole, f"section:{id}", 50) for id in ("short", "long"))

    def levels(drawing: object) -> set[str]:
        return {mark.sum or "" for mark in drawing.marks if isinstance(mark, Symbol) and mark.kind == "level"}  # type: ignore[attr-defined]

    assert any(id.startswith("ridge:") for id in levels(full)) and not any(
        id.startswith("ridge:") for id in levels(short)
    )


def test_a_string_on_sloping_ground_starts_on_the_ground() -> None:
    project = hollin_bothy()
    building = resolve(project)
    for side in ("south", "east", "north", "west"):
        drawing = draw_view(building, project, f"elevation:{side}", 50)
        heights = [mark for mark in drawing.marks if isinstance(mark, Dimension) and mark.feature == "height"]
        ground = next(mark for mark in drawing.marks if mark.feature == "ground")
        foot, at = min(mark.y1 for mark in heights), heights[0].x1
        path = sorted((u, v) for u, v, _ in ground.path)  # type: ignore[union-attr]
        here = next(
            (v0 + (v1 - v0) * (at - u0) / (u1 - u0) for (u0, v0), (u1, v1) in pairwise(path) if u0 <= at <= u1),
            path[0][1],
        )
        floors = [level.z for level in building.levels.values() if level.surface != "grade"]
        assert foot == near(here, abs=1.0) or foot in floors, side


def test_figures_of_a_height_string_agree_with_the_level_marks_in_whole_millimetres() -> None:
    project = fernacre_bungalow()
    drawing = draw_view(resolve(project), project, "elevation:south", 50)
    heights = [mark for mark in drawing.marks if isinstance(mark, Dimension) and mark.feature == "height"]
    *chain, overall = sorted(heights, key=lambda mark: mark.offset)
    assert sum(int(mark.text) for mark in chain) == int(overall.text), "whole millimetres that add up"


def test_inside_elevations_mark_the_ceiling() -> None:
    """By hand: the clear height of a room is from its floor to the underside of the ceiling."""
    project = fernacre_bungalow()
    room = project.rooms[0]
    project = put(project, ElevationView(id="looked-in", name="Inside", look=90.0, room=room.id))
    drawing = draw_view(resolve(project), project, "elevation:looked-in", 50)
    marks = [mark for mark in drawing.marks if isinstance(mark, Symbol) and mark.kind == "level"]
    assert any("eiling" in mark.texts[0] for mark in marks)


def test_posts_that_cross_the_cut_are_in_the_plan_whatever_they_stand_on() -> None:
    project = larkmoor_house()
    drawing = draw_view(resolve(project), project, "plan", 50)
    shown = {mark.part for mark in drawing.marks if isinstance(mark, Region)}
    above = [post for post in project.posts if post.base.level != "crawl"]
    assert above and all(f"{post.id}/post//" in shown for post in above)
    tall = Post(
        id="tall", x=-2000, y=-2000, shape="square", width=140,
        base=LevelRule(level=above[0].base.level, offset=0.0),
        top=LevelRule(level=above[0].top.level, offset=0.0),
    )  # fmt: skip
    more = put(project, tall)
    assert "tall/post//" in {m.part for m in draw_view(resolve(more), more, "plan", 50).marks if isinstance(m, Region)}


def test_scales_are_those_of_the_standard_and_one_more() -> None:
    """ISO 5455 reductions 1:2, 1:5, 1:10 and their tenfolds (from memory), 1:1, and 1:25."""
    ladder = {1.0} | {float(step * 10**k) for step in (1, 2, 5) for k in range(4)}
    assert set(standard_scales("mm")) - ladder == {25.0} and 125.0 not in standard_scales("mm")
