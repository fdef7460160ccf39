"""Decks at walls: the ledger on its strip, bolted by the table, flashed; turned, mirrored, in both units."""

from __future__ import annotations

from itertools import pairwise
from typing import Any

import pytest

from deepsection.core.buildups.making import made_of
from deepsection.core.document.motion import Motion
from deepsection.core.drawing import Region, Text
from deepsection.core.edits import CarryDeck, DrawDeck, Transform, TurnJoists, apply_edits, changed, put
from deepsection.core.junctions import grouped
from deepsection.core.model import Project
from deepsection.core.resolve import resolve
from deepsection.core.view import draw_view
from deepsection.core.view.continuity import continuity_in
from deepsection.core.view.details.making import detail_of
from deepsection.demo import otterfold_house
from tests.builders import cavity_box, gable, joist_house
from tests.core.buildups.rig import after, built, cut_at, is_whole, of_kind, places
from tests.turning import turned

EAST = ((8000.0, 1000.0), (12000.0, 1000.0), (12000.0, 5000.0), (8000.0, 5000.0))
ROUND = ((5000.0, -3000.0), (12000.0, -3000.0), (12000.0, 5000.0), (8000.0, 5000.0), (8000.0, 1000.0), (5000.0, 1000.0))


def decked(corners: Any = EAST, house: Project | None = None) -> Project:
    """A deck before a house of 9 x 6 m, on beams and posts."""
    house = apply_edits(house or joist_house(9000.0, 6000.0), (DrawDeck(id="deck", level="floor", corners=corners),))
    return apply_edits(house, (CarryDeck(deck="deck"),)) if corners is EAST else house


def mirrored(project: Project) -> Project:
    ids = tuple(held.id for held in project.elements() if held.about.movable)
    return apply_edits(project, [Transform(elements=ids, motion=Motion(mirror=37.0))])


HOUSES = {
    "plain": decked(),
    "feet": decked(house=joist_house(9000.0, 6000.0, "ft-in")),
    "turned": turned(decked(), 31.0, 1),
    "mirrored": mirrored(decked()),
    "along": apply_edits(decked(), (TurnJoists(floor="deck"),)),
    "round a corner": decked(ROUND),
    "round a corner, turned": turned(decked(ROUND), -117.0, 1),
}


@pytest.mark.parametrize("name", HOUSES)
def test_ledgers_keep_the_weather_out(name: str) -> None:
    """As many as there are walls beside the deck: what keeps weather out runs on behind each, and nothing overlaps."""
    assert is_whole(resolve(HOUSES[name]), "deck_ledger") == (2 if "round" in name else 1)


def test_a_ledger_by_hand() -> None:
    """4 m of it at the east wall, on its sheathing; boards of 28 over it."""
    building = resolve(HOUSES["plain"])
    (ledger,) = of_kind(building, "deck_ledger")
    assert ledger.length == pytest.approx(4000.0, abs=0.5)
    parts = {piece.id: part for piece, part, _ in made_of(building, ledger, 4.0)}
    (board,) = (part for part in building.parts if part.role == "ledger")
    strip, sheet = parts["ledger-strip"].solid.bounds, parts["ledger-flashing"].solid.bounds
    assert strip.x0 == pytest.approx(board.solid.bounds.x0, abs=0.01), "on the sheathing, behind the ledger"
    assert strip.z0 == pytest.approx(board.solid.bounds.z0 - 50.0, abs=0.01), "over the membrane below"
    assert sheet.z1 - (board.solid.bounds.z1 + 28.0) == pytest.approx(152.4, abs=0.01)
    assert board.solid.bounds.z1 - sheet.z0 == pytest.approx(25.4, abs=0.01), "down over its face"


def test_bolts_stand_by_turns_in_two_rows() -> None:
    """The edges that the code asks for: 2 in from the upper one, 3/4 in from the lower one (IRC 2021 R507.9.1.3, from
    memory). At 406.4 in each row along 4 m, from 150: 10 in the upper one, the last as far from its end."""
    building = resolve(HOUSES["plain"])
    (ledger,) = of_kind(building, "deck_ledger")
    (board,) = (part for part in building.parts if part.role == "ledger")
    bolts = [(piece.id, part) for piece, part, _ in made_of(building, ledger, 4.0) if "bolt" in piece.id]
    upper = sorted(part.solid.bounds.y0 for id, part in bolts if not id.endswith("low"))
    lower = sorted(part.solid.bounds.y0 for id, part in bolts if id.endswith("low"))
    assert len(upper) == 11 and max(b - a for a, b in pairwise(upper)) <= 406.4 + 0.1
    assert upper[0] - 1000.0 == pytest.approx(5000.0 - upper[-1] - 12.7, abs=1.0), "as far from both ends"
    assert lower and all(abs(one - other) > 20.0 for one in lower for other in upper[:1])
    middles = {round((part.solid.bounds.z0 + part.solid.bounds.z1) / 2 - board.solid.bounds.z0, 1) for _, part in bolts}
    assert min(middles) >= 19.05 and max(middles) <= 184.0 - 50.8 + 0.1


@pytest.mark.parametrize(
    ("reach", "most"),
    # IRC 2021 Table R507.9.1.3(1), 1/2 in bolts, sheathing of 1/2 in at most, from memory: 6, 10, 14 and 18 ft.
    [(1700.0, 914.4), (2950.0, 863.6), (4200.0, 609.6), (5400.0, 482.6)],
)
def test_the_spacing_of_bolts_by_the_table(reach: float, most: float) -> None:
    corners = ((8000.0, 1000.0), (9012.0 + reach, 1000.0), (9012.0 + reach, 5000.0), (8000.0, 5000.0))
    house = apply_edits(joist_house(9000.0, 6000.0), (DrawDeck(id="deck", level="floor", corners=corners),))
    building = resolve(house)
    (ledger,) = of_kind(building, "deck_ledger")
    assert built(building, ledger).rules == (), "16 in holds them all"
    for spacing, wrong in ((most, False), (most + 25.0, True)):
        wider = resolve(after(house, "deck_ledger", parameter="bolts", text=f"{spacing:g}"))
        words = [held.words for held in built(wider, ledger).rules]
        assert bool(words) is wrong and all("bolts at" in said for said in words), (spacing, words)


def test_joists_that_run_too_far_out_of_a_ledger_are_said() -> None:
    corners = ((8000.0, 1000.0), (15_000.0, 1000.0), (15_000.0, 5000.0), (8000.0, 5000.0))
    house = apply_edits(joist_house(9000.0, 6000.0), (DrawDeck(id="deck", level="floor", corners=corners),))
    building = resolve(house)
    (ledger,) = of_kind(building, "deck_ledger")
    assert any("bear them before" in held.words for held in built(building, ledger).rules)


def test_no_ledger_on_a_veneer() -> None:
    """IRC 2021 R507.9.1.1, from memory: it is not supported on stone or masonry veneer."""
    house = joist_house(9000.0, 6000.0)
    house = put(house, *(changed(wall, make_up="wall-brick") for wall in house.walls))
    building = resolve(decked(house=house))
    (ledger,) = of_kind(building, "deck_ledger")
    assert "veneer" in built(building, ledger).fault and not built(building, ledger).pieces


def test_ledgers_on_masonry_are_anchored_and_flashed_into_a_joint() -> None:
    house = gable(cavity_box(9000.0, 6000.0), 0.6, overhang=450, rake=200)
    building = resolve(apply_edits(house, (DrawDeck(id="deck", level="floor", corners=EAST),)))
    ledgers = of_kind(building, "deck_ledger")
    assert [built(building, held).build_up.id for held in ledgers] == ["ledger-anchored"]
    (flashing,) = (part for piece, part, _ in made_of(building, ledgers[0], 4.0) if piece.id == "ledger-flashing")
    (board,) = (part for part in building.parts if part.role == "ledger")
    assert flashing.solid.bounds.x0 == pytest.approx(board.solid.bounds.x0 - 25.0, abs=0.01), "25 into its joint"
    assert is_whole(building, "deck_ledger") == 1


def test_a_deck_over_the_floor_is_said() -> None:
    project = decked()
    higher = put(project, changed(project.decks[0], drop=-20.0))
    building = resolve(higher)
    (ledger,) = of_kind(building, "deck_ledger")
    assert any("water runs in" in held.words for held in built(building, ledger).rules)


def test_a_strip_that_is_switched_off_leaves_the_wall_open() -> None:
    house = decked()
    for piece in ("ledger-strip", "ledger-flashing"):
        house = after(house, "deck_ledger", piece=piece, on=False)
    ((_, place),) = places(resolve(house), "deck_ledger")
    whole, cut = cut_at(resolve(house), place)
    lines = {line.line: line for line in continuity_in(whole, cut, place.window, frame=place.frame)}
    (gap,) = lines["weather"].gaps
    assert gap.width > 150.0, "the depth of the deck"


def test_decks_that_are_built_alike_are_one_group() -> None:
    north = tuple((x - 3000.0, y + 4500.0) for x, y in EAST)
    house = decked()
    house = apply_edits(house, (DrawDeck(id="terrace", level="floor", corners=north), TurnJoists(floor="terrace")))
    alike = grouped(of_kind(resolve(house), "deck_ledger"))
    assert sum(len(group.junctions) for group in alike) == 2


def test_the_deck_of_the_demo_closes() -> None:
    assert is_whole(resolve(otterfold_house()), "deck_ledger") == 1


def test_what_bolts_go_through_is_noted_whole() -> None:
    """Wherever its plane lies: one note of the ledger, of the rim behind it one, each of its whole depth."""
    house = decked(house=joist_house(9000.0, 6000.0, "ft-in"))
    (ledger,) = of_kind(resolve(house), "deck_ledger")
    cut_through = 0
    for along in range(1900, 2100, 12):
        detail = changed(detail_of(ledger, "d", "1, deck at a wall"), along=float(along))
        project = put(house, detail)
        drawing = draw_view(resolve(project), project, "detail:d", 8.0)
        regions = [mark for mark in drawing.marks if isinstance(mark, Region) and mark.feature == "cut"]
        cut_through += sum("ledger-bolt" in (mark.part or "") for mark in regions)
        text = " ".join(mark.text for mark in drawing.marks if isinstance(mark, Text))
        assert text.count("ledger 1 1/2") == 1 and text.count("rim joist 1 1/2") == 1, text
    assert cut_through, "one of them at least goes through a bolt"
