"""Chimneys through slopes: apron, sides, gutter or cricket, trays; on shingles and tiles, turned, at odd places."""

from __future__ import annotations

from typing import Any

import pytest

from deepsection.core.buildups import built_of, made_of
from deepsection.core.edits import put
from deepsection.core.model import Chimney, LevelRule, Project
from deepsection.core.resolve import resolve
from deepsection.demo import larkmoor_house, wrenfold_house
from tests.turning import turned

from .rig import after, built, framed, is_whole, masonry, of_kind


def with_stack(house: Project, **more: Any) -> Project:
    """With a stack of brick in its south slope."""
    sizes = {"x": 4200.0, "y": 1500.0, "width": 700.0, "depth": 560.0, **more}
    return put(house, Chimney(id="stack", base=LevelRule(level="floor"), **sizes))


HOUSES = {
    "shingles, gutter": lambda: with_stack(framed(0.5)),
    "steep, gutter": lambda: with_stack(framed(0.9)),
    "shingles, cricket": lambda: with_stack(framed(0.6), width=1000.0),
    "tiles": lambda: with_stack(masonry(0.6)),
    "tiles, turned": lambda: turned(with_stack(masonry(0.8)), 37.0, 1),
    "larkmoor": larkmoor_house,
    "wrenfold, turned": lambda: turned(wrenfold_house(), -64.0, 1),
}


@pytest.mark.parametrize("name", HOUSES)
def test_chimneys_are_flashed_without_clash_and_keep_the_weather_out(name: str) -> None:
    building = resolve(HOUSES[name]())
    (junction,) = of_kind(building, "chimney")
    held = built(building, junction)
    assert held.fault == "" and held.build_up.id == ("chimney-metric" if "tiles" in name else "chimney-inches")
    ids = {piece.id for piece in held.pieces}
    cricket = bool(dict(junction.facts)["cricket"])
    assert ("cricket-flashing" in ids) == cricket and ("back-gutter" in ids) != cricket
    assert is_whole(building, "chimney") == 1


def test_its_sides_are_flashed_along_both_and_the_apron_goes_past_its_corners() -> None:
    """By hand: bodies of the sides run over the depth of 560 each, the apron over 700 and 75 past each corner; both go
    up 6 in, out 4 and 6 (IRC 2021 R905.2.8.3 and common practice, from memory)."""
    building = resolve(with_stack(framed(0.5)))
    (junction,) = of_kind(building, "chimney")
    made = [(piece, part) for piece, part, _ in made_of(building, junction, 4.0)]
    sides = [(piece, part) for piece, part in made if piece.id == "side-flashing"]
    assert len(sides) == 2
    for piece, part in sides:
        assert part.solid.volume == pytest.approx(piece.shape.area * 560.0, rel=1e-6)
        assert piece.shape.bounds[2] - 350.0 == pytest.approx(101.6, abs=0.01)
        assert part.solid.bounds.z1 - part.solid.bounds.z0 == pytest.approx(0.5 * 560.0 + 152.4, abs=2.0)
    ((apron, body),) = [(piece, part) for piece, part in made if piece.id == "apron"]
    assert body.solid.volume == pytest.approx(apron.shape.area * 850.0, rel=1e-6)
    assert apron.shape.bounds[2] - 280.0 == pytest.approx(152.4, abs=2.0)
    roof = building.roofs[0].planes[0]
    x, y = (junction.runs[0].start[0] + junction.runs[0].end[0]) / 2, 1500.0
    covered = roof.covered(x, y)
    assert body.solid.bounds.z1 == pytest.approx(covered - 0.5 * 280.0 + 152.4, abs=3.0)


def test_timber_keeps_two_inches_clear_and_the_gap_is_stopped() -> None:
    """IRC 2021 R1003.18, R1003.19 (from memory): 2 in of air, closed with what does not burn."""
    building = resolve(with_stack(framed(0.5)))
    (junction,) = of_kind(building, "chimney")
    stops = [piece for piece in built(building, junction).pieces if piece.id.startswith("stop")]
    assert len(stops) == 2 and all("fire" in piece.does for piece in stops)
    assert all(piece.shape.bounds[2] - piece.shape.bounds[0] == pytest.approx(50.8) for piece in stops)


def test_a_low_flashing_is_said_and_odd_stacks_have_no_usual_pieces() -> None:
    low = after(with_stack(framed(0.5)), "chimney", parameter="side", text='3"')
    (junction,) = of_kind(resolve(low), "chimney")
    assert any('4" at least' in rule.words for rule in built(resolve(low), junction).rules)
    for odd in (with_stack(framed(0.5), turn=20.0), with_stack(framed(0.5), y=3000.0)):
        building = resolve(odd)
        (found,) = of_kind(building, "chimney")
        assert built_of(building, found) is None
