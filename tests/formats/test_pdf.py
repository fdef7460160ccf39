"""PDF: a printed millimetre is a millimetre. Read back with pdfplumber, which shares no code with the writer."""

from __future__ import annotations

import io
import math

import numpy as np
import pdfplumber
import pypdfium2
import pytest

from deepsection.core.drawing import PENS, Stroke
from deepsection.core.model import Project
from deepsection.core.resolve import Building
from deepsection.core.sheets import SheetDrawing, compose_view
from deepsection.formats.writers import write_pdf, write_png

MM = 25.4 / 72


def test_a_100_mm_line_measures_100_mm(files: dict[str, bytes]) -> None:
    with pdfplumber.open(io.BytesIO(files["pdf"])) as pdf:
        lengths = [(float(line["x1"]) - float(line["x0"])) * MM for line in pdf.pages[0].lines]
    assert any(math.isclose(length, 100.0, abs_tol=1e-4) for length in lengths)


@pytest.mark.parametrize("scale", [24.0, 48.0, 96.0])
def test_a_wall_is_as_long_as_its_scale_says(house: Project, building: Building, scale: float) -> None:
    """The ground line of the north elevation, measured in the PDF, against its length in the drawing over the scale."""
    drawn = compose_view(house, building, "elevation:north", scale)
    ground = next(m for m in drawn.placed[0].drawing.marks if isinstance(m, Stroke) and m.feature == "ground")
    wanted = abs(ground.path[1][0] - ground.path[0][0]) / scale
    with pdfplumber.open(io.BytesIO(write_pdf(drawn))) as pdf:
        heavy = [line for line in pdf.pages[0].lines if math.isclose(float(line["linewidth"]) * MM, 0.70, abs_tol=1e-3)]
    assert any(math.isclose((float(line["x1"]) - float(line["x0"])) * MM, wanted, abs_tol=1e-3) for line in heavy)


def test_line_widths_are_the_pens(sheet: SheetDrawing, files: dict[str, bytes]) -> None:
    with pdfplumber.open(io.BytesIO(files["pdf"])) as pdf:
        page = pdf.pages[0]
        widths = {
            round(float(item["linewidth"]) * MM, 2)
            for item in (*page.lines, *page.curves, *page.rects)
            if item["stroke"]
        }
    assert widths <= {pen.width for pen in PENS.values()}
    assert {0.7, 0.5, 0.25, 0.18, 0.13} <= widths


def test_lettering_is_as_high_as_it_says(files: dict[str, bytes]) -> None:
    """2.5 mm notes and 5 mm view names (drawing practice): height of capitals, 0.698 of the size of the face."""
    with pdfplumber.open(io.BytesIO(files["pdf"])) as pdf:
        sizes = {round(float(char["size"]) * MM * 0.698, 1) for char in pdf.pages[0].chars if char["upright"]}
    assert {2.5, 5.0} <= sizes and min(sizes) >= 1.8


def test_fonts_are_embedded(files: dict[str, bytes]) -> None:
    with pdfplumber.open(io.BytesIO(files["pdf"])) as pdf:
        names = {char["fontname"] for char in pdf.pages[0].chars}
    assert names and all("Plex" in name for name in names)


def test_white_never_prints_as_black(house: Project, building: Building) -> None:
    """The paper within the window panes and walls stays light: under a tenth of an elevation is ink."""
    data = write_png(compose_view(house, building, "elevation:south", 96), dpi=100)
    image = (
        pypdfium2.PdfDocument(write_pdf(compose_view(house, building, "elevation:south", 96)))[0]
        .render(scale=100 / 72)
        .to_numpy()
    )
    assert data.startswith(b"\x89PNG")
    assert (image.mean(axis=2) < 100).mean() < 0.1
    assert np.median(image) == 255


def test_a_picture_has_the_size_of_its_paper(sheet: SheetDrawing, files: dict[str, bytes]) -> None:
    width = int.from_bytes(files["png"][16:20], "big")
    height = int.from_bytes(files["png"][20:24], "big")
    assert width == pytest.approx(sheet.paper.width / 25.4 * 150, abs=2)
    assert height == pytest.approx(sheet.paper.height / 25.4 * 150, abs=2)
