"""Plans with all that stands beside walls in real drawings, on layers that say what they are, or say nothing."""

from __future__ import annotations

from collections.abc import Callable

import ezdxf
import pytest

from deepsection.core.reading import read_plan
from deepsection.formats.dxf_drawn import read_drawn
from tests.campaigns import share
from tests.plans_drawn import clutter
from tests.plans_drawn.judge import Verdict, judged
from tests.plans_drawn.manners import LAYERS, NAMELESS, ONE, Sheet, as_bytes, draw_texts, gaps, pairs
from tests.plans_drawn.truth import houses

ALL = (gaps, clutter.framed_units, clutter.fittings, clutter.exploded_dimensions, clutter.exploded_hatching)
CASES: dict[str, tuple[Callable[[Sheet], None], ...]] = {
    "frames, sills, thick leaves": (gaps, clutter.framed_units),
    "fittings along walls": (pairs, clutter.fittings),
    "dimensions taken apart": (pairs, clutter.exploded_dimensions),
    "hatching taken apart": (pairs, clutter.exploded_hatching),
}


def shares(parts: tuple[Callable[[Sheet], None], ...], layers: dict[str, str]) -> tuple[Verdict, list[str]]:
    total = Verdict()
    for house in houses():
        document = ezdxf.new("R2010", setup=True)
        document.header["$INSUNITS"] = 4
        sheet = Sheet(house, document, layers)
        for part in parts:
            part(sheet)
        draw_texts(sheet)
        plan = read_plan(read_drawn(as_bytes(document)))
        total.add(judged(house, plan.walls, plan.openings))
    return total, total.wrong


@pytest.mark.parametrize("layers", share([NAMELESS, ONE], [NAMELESS, ONE, LAYERS]))
@pytest.mark.parametrize("case", CASES)
def test_what_stands_beside_walls_is_none(case: str, layers: dict[str, str]) -> None:
    verdict, wrong = shares(CASES[case], layers)
    walls, openings, kinds, false = verdict.shares
    assert walls >= 0.95 and openings >= 0.9 and kinds >= 0.9 and false <= 0.02, wrong


@pytest.mark.parametrize("layers", [LAYERS, NAMELESS], ids=["named", "nameless"])
def test_all_of_it_together(layers: dict[str, str]) -> None:
    """On one layer alone, all of it together is not read: frames, dimensions, hatching, walls are one web."""
    verdict, wrong = shares(ALL, layers)
    walls, openings, kinds, false = verdict.shares
    assert walls >= 0.95 and openings >= 0.9 and kinds >= 0.9 and false <= 0.02, wrong
