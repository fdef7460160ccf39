"""Wall sections in files: cut short on paper, with figures that stay true, and every layer in words."""

from __future__ import annotations

import io

import ezdxf.recover
import pdfplumber
import pytest
from ezdxf.entities import Dimension

from deepsection.core.resolve import resolve
from deepsection.core.sheets import SheetDrawing, compose_view
from deepsection.core.trades.makeups.wording import layer_words
from deepsection.core.units import parse_length
from deepsection.demo import fernacre_bungalow
from deepsection.formats.writers import write_dxf, write_pdf

VIEW, SCALE = "section:wall-section-1", 10.0


@pytest.fixture(scope="module")
def strip() -> SheetDrawing:
    project = fernacre_bungalow()
    drawn = compose_view(project, resolve(project), VIEW, SCALE)
    # At 1:10 it is higher than the paper it may take: it has a break.
    assert any(getattr(mark, "measures", None) for mark in drawn.placed[0].drawing.marks)
    return drawn


def test_a_dimension_over_a_break_measures_the_true_length_in_dxf(strip: SheetDrawing) -> None:
    document, auditor = ezdxf.recover.read(io.BytesIO(write_dxf(strip)))
    assert not auditor.errors
    over = 0
    for held in document.modelspace().query("DIMENSION"):
        assert isinstance(held, Dimension)
        start, end = held.dxf.defpoint2, held.dxf.defpoint3
        factor = held.override().get("dimlfac", 1.0)
        if " x " not in held.dxf.text:
            assert start.distance(end) * factor == pytest.approx(parse_length(held.dxf.text, "mm"), abs=1.0)
        over += factor > 1.001
    assert over >= 2


def test_every_layer_stands_on_paper_in_its_order(strip: SheetDrawing) -> None:
    project = fernacre_bungalow()
    with pdfplumber.open(io.BytesIO(write_pdf(strip))) as pdf:
        words = pdf.pages[0].extract_text_lines()
    tops = {line["text"]: line["top"] for line in words}

    def row(text: str) -> float:
        """How far down a row of a stack stands: beside it other lettering may stand on the same line."""
        return min(top for line, top in tops.items() if text in line)

    for name in ("wall-cavity", "slab"):
        make_up = next(held for held in project.make_ups if held.id == name)
        rows = [row(layer_words(layer, "mm")) for layer in make_up.layers]
        assert rows == sorted(rows)
    assert any("Wall section 1" in line for line in tops)


def test_what_is_left_out_makes_the_paper_smaller(strip: SheetDrawing) -> None:
    project = fernacre_bungalow()
    held = project.wall_sections[0].model_copy(update={"tall": None})
    rest = tuple(one for one in project.wall_sections if one.id != held.id)
    whole = project.model_copy(update={"wall_sections": (held, *rest)})
    taller = compose_view(whole, resolve(whole), VIEW, SCALE)
    assert taller.paper.height > strip.paper.height + 20.0 and strip.placed[0].drawing.messages == ()
