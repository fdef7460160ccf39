"""Sheets of a subfloor: rows, joints on joists, staggered; counts by hand, identities on generated floors."""

from __future__ import annotations

import math

import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st

from deepsection.core.drawing import Stroke, Text
from deepsection.core.edits import changed, put
from deepsection.core.model import FloorHole, Framing, Project, Sheets
from deepsection.core.particulars.fields import fields_of
from deepsection.core.resolve import resolve
from deepsection.core.trades.floors.bays import Bay, Boards
from deepsection.core.trades.floors.joists import layout
from deepsection.core.trades.floors.place import FLOORS
from deepsection.core.trades.floors.sheets import Piece, laid_sheets, sheets_needed
from deepsection.core.trades.floors.turned import Turned
from deepsection.core.view import draw_view
from tests.builders import two_storeys

BOARD = Sheets(length=2400.0, width=1200.0)
FRAMING = Framing(spacing=400.0, thickness=38.0)


def bay(width: float, depth: float, direction: tuple[float, float] = (0.0, 1.0), **more: object) -> tuple[Bay, Boards]:
    region = shapely.box(0.0, 0.0, width, depth)
    held = Bay("outline:a", region, direction, **more)
    covered = held.covered
    return held, Boards("outline:a", shapely.MultiPolygon([covered]))


def test_a_floor_of_whole_sheets_and_halves_by_hand() -> None:
    """9.6 x 4.8 m in sheets of 2.4 x 1.2: rows of four, and rows that begin and end with a half; the four halves come
    from two sheets.
    """
    pieces = laid_sheets(*bay(9600.0, 4800.0), FRAMING, BOARD)
    lengths = [sorted(round(piece.length) for piece in pieces if piece.row == row) for row in range(4)]
    assert lengths == [[2400] * 4, [1200, 1200, 2400, 2400, 2400]] * 2
    assert sheets_needed(pieces, BOARD) == 4 + 3 + 4 + 3 + 2


def test_sheets_that_do_not_fit_the_spacing_are_cut_at_the_last_joist() -> None:
    """At 450 on centre the last joist within 2400 is at 2250."""
    framing = changed(FRAMING, spacing=450.0)
    pieces = laid_sheets(*bay(9000.0, 1200.0), framing, BOARD)
    assert [round(piece.length) for piece in pieces] == [2250, 2250, 2250, 2250]
    assert sheets_needed(pieces, BOARD) == 4


@settings(max_examples=60, deadline=None)
@given(
    st.floats(1500.0, 15000.0),
    st.floats(1500.0, 12000.0),
    st.floats(0.0, math.tau),
    st.floats(0.0, 400.0),
    st.tuples(st.floats(0.0, 1.0), st.floats(0.0, 1.0), st.floats(0.1, 0.6), st.floats(0.1, 0.6)),
    st.sampled_from([(400.0, 38.0), (406.4, 38.1), (600.0, 47.0)]),
    st.sampled_from([BOARD, Sheets(length=2438.4, width=1219.2), Sheets(length=2400.0, width=600.0)]),
)
def test_sheets_cover_any_floor_once_and_meet_on_joists(
    width: float,
    depth: float,
    turn: float,
    shift: float,
    hole: tuple[float, float, float, float],
    members: tuple[float, float],
    sheets: Sheets,
) -> None:
    direction = (math.cos(turn), math.sin(turn))
    turned = Turned(direction)
    region = turned.rectangle(0.0, width, 0.0, depth)
    x, y, w, d = hole
    opening = turned.rectangle(
        x * width * (1 - w), (x * (1 - w) + w) * width, y * depth * (1 - d), (y * (1 - d) + d) * depth
    )
    held = Bay("outline:a", region, direction, holes=(("h", opening),), shift=shift)
    framing = Framing(spacing=members[0], thickness=members[1])
    over = shapely.MultiPolygon([part for part in getattr(held.covered, "geoms", [held.covered])])
    pieces = laid_sheets(held, Boards("outline:a", over), framing, sheets)
    assert sum(piece.area.area for piece in pieces) == pytest.approx(over.area, rel=1e-5)
    assert shapely.union_all([piece.area for piece in pieces]).area == pytest.approx(over.area, rel=1e-5)
    assert all(piece.length < sheets.length + 1.5 and piece.width < sheets.width + 1.5 for piece in pieces)
    assert sheets_needed(pieces, sheets) >= over.area / (sheets.length * sheets.width) - 1e-6
    on = [at + framing.thickness / 2 for _, at in layout(0.0, width, framing.spacing, framing.thickness, shift)]
    rows = _joints(turned, pieces, width, opening)
    for joints in rows.values():
        assert all(min(abs(at - joist) for joist in on) < 2.0 for at in joints)
    for row, joints in rows.items():
        for at in joints:
            for other in rows.get(row + 1, set()):
                # Where there are too few joists to choose from, joints may come together.
                assert abs(at - other) > framing.spacing / 2 or width < 3 * sheets.length


def _joints(turned: Turned, pieces: tuple[Piece, ...], width: float, hole: shapely.Polygon) -> dict[int, set[float]]:
    """Per row, where its pieces end: not at the edges of the floor, nor at those of its hole."""
    edges = turned.box(hole)
    found: dict[int, set[float]] = {}
    for piece in pieces:
        for at in (turned.box(piece.area).a0, turned.box(piece.area).a1):
            if min(abs(at), abs(at - width), abs(at - edges.a0), abs(at - edges.a1)) > 2.0:
                found.setdefault(piece.row, set()).add(round(at, 1))
    return found


def test_the_plan_of_a_subfloor() -> None:
    house = two_storeys(9600.0, 4800.0)
    floor = house.floors[-1].id
    drawing = draw_view(resolve(house), house, f"plan:sheets:{floor}", 50)
    drawn = [mark for mark in drawing.marks if isinstance(mark, Stroke) and mark.feature == "sheet"]
    said = [mark.text for mark in drawing.marks if isinstance(mark, Text) and mark.feature == "schedule"]
    assert len(drawn) == 4 + 5 + 4 + 5
    assert said[said.index("S") + 1] == "14" and "2400 x 1200" in said
    assert any(text.startswith("subfloor in sheets 2400 x 1200: 16 of them") for text in said)


def test_sheets_are_cut_around_a_hole_and_say_so() -> None:
    house = two_storeys(9600.0, 4800.0)
    floor = house.floors[-1].id
    corners = ((3000.0, 1500.0), (5000.0, 1500.0), (5000.0, 3000.0), (3000.0, 3000.0))
    house = put(house, FloorHole(id="h", floor=floor, corners=corners))
    flat = resolve(house)[FLOORS][-1]
    assert flat.over[0].area.area == pytest.approx(9600.0 * 4800.0 - 2000.0 * 1500.0)
    drawing = draw_view(resolve(house), house, f"plan:sheets:{floor}", 50)
    assert any(isinstance(mark, Text) and mark.text == "cut around" for mark in drawing.marks)


def test_the_size_of_sheets_is_typed() -> None:
    house = two_storeys(9600.0, 4800.0)
    make_up = house.find(house.floors[-1].make_up)

    def entered(project: Project, field: str, text: str) -> Project:
        row = next(row for row in fields_of(project, project.find(make_up.id)) if row.field.id == field)
        return put(project, *(edit.make_up for edit in row.edits(text)))

    wide = entered(house, "deck:sheet_width", "600")
    assert wide.find(make_up.id).layers[0].sheets == Sheets(length=2400.0, width=600.0)
    without = entered(house, "deck:laid", "one")
    assert without.find(make_up.id).layers[0].sheets is None
    again = entered(without, "deck:laid", "sheets")
    assert again.find(make_up.id).layers[0].sheets == BOARD
