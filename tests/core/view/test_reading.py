"""Whether sheets can be read: every view, at every usual scale, of the demos and of houses as they come."""

from __future__ import annotations

import math
import random
from collections.abc import Callable

import pytest
from shapely.geometry import Point

from deepsection.core.drawing import Drawing, Text, explode
from deepsection.core.edits import MoveWall, apply_edits, put
from deepsection.core.geometry import Frame
from deepsection.core.model import GridLine, Project, Room, SectionLine, ViewShow
from deepsection.core.resolve import resolve, storeys
from deepsection.core.trades.drawings.model import Annotation
from deepsection.core.view import draw_view, list_views, plan_name
from deepsection.demo import DEMOS
from tests.builders import block_house, joist_house, l_house, roofed_l, stair_house, two_storeys, window
from tests.campaigns import share
from tests.reading import faults
from tests.turning import turned

SCALES = {"ft-in": (192.0, 96.0, 48.0, 24.0), "mm": (200.0, 100.0, 50.0, 20.0)}
LEFT_OUT = 0.02
"""At most this share of all texts finds no room."""


def read(project: Project, scale: float) -> tuple[list[object], int, list[str]]:
    """(what spoils lettering, number of texts, what was left out) of all views at a scale."""
    building = resolve(project)
    spoilt: list[object] = []
    count, left = 0, list[str]()
    for view in list_views(project):
        drawing = draw_view(building, project, view.name, scale)
        spoilt += [(view.name, fault) for fault in faults(drawing)]
        count += sum(isinstance(mark, Text) for mark in explode(drawing).marks)
        left += [f"{view.name}: {text}" for _, text in drawing.left_out]
    return spoilt, count, left


@pytest.mark.parametrize("size", share((0, 3), range(4)))
@pytest.mark.parametrize("make", DEMOS, ids=lambda make: make.__name__)
def test_every_view_of_the_demos_reads_at_the_usual_scales(make: Callable[[], Project], size: int) -> None:
    project = make()
    spoilt, count, left = read(project, SCALES[project.units][size])
    assert spoilt == []
    assert len(left) <= LEFT_OUT * count, left


BASES: tuple[Callable[[random.Random], Project], ...] = (
    lambda chance: joist_house(chance.uniform(4000, 14000), chance.uniform(4000, 9000), chance.choice(["mm", "ft-in"])),
    lambda chance: two_storeys(chance.uniform(5000, 12000), chance.uniform(5000, 9000), chance.choice(["mm", "ft-in"])),
    lambda chance: block_house(ground=chance.random() < 0.5, inner=chance.random() < 0.5),
    lambda chance: stair_house(chance.choice(["mm", "ft-in"])),
    lambda chance: l_house(chance.choice(["slab", "joists"])),
    lambda chance: roofed_l(chance.uniform(0.3, 1.0)),
)


def random_house(seed: int) -> Project:
    """A house of some size with windows, rooms, a section, lines of a grid, turned by some angle."""
    chance = random.Random(seed)
    house = BASES[seed % len(BASES)](chance)
    lengths = {wall.id: 3000.0 for wall in house.walls if wall.status == "outer"}
    for k, wall in enumerate(sorted(lengths)):
        if chance.random() < 0.8:
            house = put(house, window(f"win{k}", wall, chance.uniform(900, 2600), width=chance.uniform(400, 1300)))
    names = ("Hall", "Living room", "Store and larder", "Bath")
    for k in range(chance.randrange(1, 4)):
        house = put(house, Room(id=f"r{k}", name=names[k], x=chance.uniform(600, 3600), y=chance.uniform(600, 3600)))
    x = chance.uniform(500, 3000)
    house = put(house, SectionLine(id="s", name="A", x1=x, y1=-3000.0, x2=x + chance.uniform(0, 900), y2=14000.0))
    house = put(house, GridLine(id="g1", name="1", x=0.0, y=0.0, angle=90.0))
    house = put(house, GridLine(id="g2", name="2", x=chance.uniform(1500, 4000), y=0.0, angle=90.0))
    return turned(house, chance.choice([0.0, 0.0, 17.3, 90.0, chance.uniform(0, 360)]))


@pytest.mark.parametrize("seed", range(share(16, 60)))
def test_houses_as_they_come_read_as_well(seed: int) -> None:
    project = random_house(seed)
    spoilt, _, _ = read(project, SCALES[project.units][seed % 3])
    assert spoilt == []


@pytest.mark.parametrize("make", DEMOS, ids=lambda make: make.__name__)
def test_what_is_taken_where_it_stands_stays_there(make: Callable[[], Project]) -> None:
    """Lettering that gave way is dragged from where it is seen: moved by as much as it stands aside, it stays."""
    project = make()
    building = resolve(project)
    drawing = draw_view(building, project, "plan", SCALES[project.units][0])
    places = {mark.annotation: mark for mark in explode(drawing).marks if isinstance(mark, Text)}
    moved = [held for held in drawing.shifts if "#" not in held[0]][:12]
    assert moved
    kept = tuple(Annotation(key=key, dx=dx, dy=dy) for key, dx, dy in moved)
    again = draw_view(
        building, put(project, ViewShow(id="show-plan", view="plan", annotations=kept)), "plan", drawing.scale
    )
    after = {mark.annotation: mark for mark in explode(again).marks if isinstance(mark, Text)}
    for key, _, _ in moved:
        assert math.dist((places[key].x, places[key].y), (after[key].x, after[key].y)) < 0.01 * drawing.scale, key


def test_a_wall_that_is_dragged_moves_little_lettering() -> None:
    """By 10 mm: of the texts that say the same as before under 5 % move by more than their height; all can be read."""
    counts = [_dragged(make()) for make in share(DEMOS[:3], DEMOS)]
    count, far = (sum(held[k] for held in counts) for k in (0, 1))
    assert count > share(300, 500) and far < 0.05 * count


def _dragged(project: Project) -> tuple[int, int]:
    """(texts that say the same, those that moved) in plans and elevations as an outer wall is dragged by 10 mm.

    Placed anew, as a kept drawing is, the same document gives the same page, whatever was dragged before.
    """
    outer = next(wall for wall in project.walls if wall.status == "outer")
    after = apply_edits(project, (MoveWall(wall=outer.id, dx=10.0, dy=10.0),))
    scale = SCALES[project.units][1]
    building, moved = resolve(project), resolve(after)
    count = far = 0
    for view in list_views(project):
        if view.name.startswith(("plan:framing", "plan:structure", "plan:sheets", "section")):
            continue
        before = draw_view(building, project, view.name, scale)
        kept = draw_view(moved, after, view.name, scale)
        held = {key: (dx, dy) for key, dx, dy in before.shifts}
        dragged = draw_view(moved, after, view.name, scale, held=held)
        assert faults(dragged) == []
        assert draw_view(moved, after, view.name, scale).marks == kept.marks
        one, other = _by_key(before), _by_key(dragged)
        for key in one.keys() & other.keys():
            if one[key].text == other[key].text:
                count += 1
                way = math.dist((one[key].x, one[key].y), (other[key].x, other[key].y))
                far += way > 10.0 + one[key].size * scale
    return count, far


def _by_key(drawing: Drawing) -> dict[str, Text]:
    return {mark.annotation: mark for mark in explode(drawing).marks if isinstance(mark, Text) and mark.annotation}


@pytest.mark.parametrize("demo", DEMOS)
@pytest.mark.parametrize("size", share((0, 3), range(4)))
@pytest.mark.parametrize("degrees", [0.0, 23.0])
def test_no_room_has_the_name_of_another_in_it(demo: Callable[[], Project], size: int, degrees: float) -> None:
    """Where it does not fit it is led in from outside of the house, or left out and named: never from the next room."""
    project = turned(demo(), degrees) if degrees else demo()
    building, frame = resolve(project), Frame.looking(90.0)
    for storey in storeys(project):
        rooms = {held.room.id: held.space for held in building.rooms if held.level == storey.level and held.space}
        drawing = draw_view(building, project, plan_name(project, storey.level), SCALES[project.units][size])
        for mark in drawing.marks:
            kind, _, id = (getattr(mark, "annotation", None) or "").partition(":")
            if isinstance(mark, Text) and kind == "name" and id in rooms:
                at = Point(frame.turned_to_plan(mark.x, mark.y))
                others = [other for other, space in rooms.items() if space != rooms[id] and space.contains(at)]
                assert not others, (storey.name, mark.text)
