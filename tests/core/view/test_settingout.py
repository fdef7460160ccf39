"""The setting out of stairs: heights and goings by hand, strings as large as the bodies that they are of."""

from __future__ import annotations

import math
from typing import Any

import pytest
import trimesh
from shapely.geometry import Polygon

from deepsection.core.drawing import Dimension, Drawing, Region, Stroke, Text
from deepsection.core.model import Project, StairTurn
from deepsection.core.resolve import resolve
from deepsection.core.trades.stairs.placed import STAIRS
from deepsection.core.trades.stairs.setting_plan import longer_side
from deepsection.core.units import format_length, parse_length
from deepsection.core.view import draw_view, list_views
from deepsection.demo import larkmoor_house, otterfold_house
from tests.builders import stair_house
from tests.turning import turned


def drawn(project: Project, scale: float = 20.0) -> Drawing:
    name = f"section:setting:{project.stairs[0].id}"
    assert name in [view.name for view in list_views(project)]
    return draw_view(resolve(project), project, name, scale)


def heights(drawing: Drawing) -> list[str]:
    return [mark.text for mark in drawing.marks if isinstance(mark, Text) and mark.feature == "height"]


TURNS: list[dict[str, Any]] = [
    {},
    {"turns": (StairTurn(after=5, kind="landing", side="left"),)},
    {"turns": (StairTurn(after=6, kind="half landing", side="right"),)},
    {"turns": (StairTurn(after=4, kind="winders", side="right"),)},
    {"turns": (StairTurn(after=3, kind="winders", side="left"), StairTurn(after=9, kind="landing", side="left"))},
]


@pytest.mark.parametrize("units", ["mm", "ft-in"])
@pytest.mark.parametrize("facts", TURNS)
def test_heights_from_finish_are_equal_risers(facts: dict[str, Any], units: Any) -> None:
    house = stair_house(units, **facts)
    placed = resolve(house)[STAIRS][0]
    rise, count = placed.rise.total, placed.stepping.risers
    words = heights(drawn(house))
    assert len(words) == count + 1 and words[0].startswith("finish") and words[-1].startswith("floor")
    for number in range(1, count):
        assert words[number] == f"{number}  {format_length(rise * number / count, units)}"


@pytest.mark.parametrize("build", ["housed", "cut", "mono", "concrete"])
@pytest.mark.parametrize("facts", TURNS)
@pytest.mark.parametrize("degrees", [0.0, 17.3])
def test_boards_are_those_of_the_body(build: str, facts: dict[str, Any], degrees: float) -> None:
    """A board cut through its middle is its volume by its thickness, mitres and all; by trimesh."""
    house = stair_house("mm", build=build, **facts)
    house = turned(house, degrees) if degrees else house
    building = resolve(house)
    placed, stair = building[STAIRS][0], house.stairs[0]
    drawing = drawn(house)
    boards = [mark for mark in drawing.marks if isinstance(mark, Region) and mark.feature == "board"]
    assert boards
    area = sum(Polygon([(x, y) for x, y, _ in ring]).area for mark in boards for ring in mark.rings[:1])
    keys = {mark.part for mark in boards}
    parts = [part for part in building.parts if part.key in keys]
    thick = stair.width if build == "concrete" else max(stair.string, 100.0) if build == "mono" else stair.string
    volume = sum(float(trimesh.Trimesh(*part.solid.mesh()).volume) for part in parts)
    assert area == pytest.approx(volume / thick, rel=1e-3)
    if build == "housed":
        side = longer_side(placed)
        assert all(f":{side}:" in str(key) for key in keys)


def test_goings_are_those_of_the_stair() -> None:
    """Larkmoor: three winders along the outer string, ten goings of 10 in after them; by hand 3 x and 100 in."""
    drawing = drawn(larkmoor_house())
    goings = [mark for mark in drawing.marks if isinstance(mark, Dimension) and mark.feature == "going"]
    assert len(goings) == 13 and [mark.text for mark in goings[3:]] == ['10"'] * 10
    # The outer string goes round a square of the width and the narrow end, in three parts of equal angle: the middle
    # one holds the corner.
    first, corner, third = (parse_length(mark.text, "ft-in") for mark in goings[:3])
    far = first / math.tan(math.radians(30.0))
    assert first == pytest.approx(third) and corner == pytest.approx(2 * (far - first), abs=2.0)
    pitches = [mark.text for mark in drawing.marks if isinstance(mark, Text) and mark.feature == "pitch"]
    # atan(7.65 / 10)
    assert pitches == ["pitch 37.4°: level cut 37.4°, plumb cut 52.6°"]


def test_flights_beside_a_landing_stand_in_line_and_each_step_is_housed() -> None:
    drawing = drawn(otterfold_house())
    runs = [mark.text for mark in drawing.marks if isinstance(mark, Dimension) and mark.feature == "run"]
    assert runs == ["5'-0\"", "5'-0\""]
    housings = [mark for mark in drawing.marks if isinstance(mark, Stroke) and mark.feature == "housing"]
    assert len(housings) == 2 * 12, "a tread and a riser for each of twelve; the landing is framed by itself"
    said = [mark.text for mark in drawing.marks if isinstance(mark, Text) and mark.feature == "words"]
    assert said[0].startswith('14 risers of 7 5/8" from finish to finish, 8\'-11 1/8" in all')
    assert any("throat" in line for line in said)
