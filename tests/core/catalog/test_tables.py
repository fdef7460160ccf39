"""Catalogue, pens, paper and scales against the standards that they quote."""

from __future__ import annotations

import itertools
import math

import pytest

from deepsection.core.catalog import hatch, hatches, lumber, material, materials, starter_rows, usual, usual_sizes
from deepsection.core.drawing import PENS
from deepsection.core.errors import BadInput, UnknownElement
from deepsection.core.sheets import PAPERS, scale_name, standard_scales
from deepsection.core.starters.projects import Ground, make_ups, new_project
from deepsection.core.units import Units


@pytest.mark.parametrize(
    ("nominal", "thickness", "depth"),
    [("2x4", 1.5, 3.5), ("2x6", 1.5, 5.5), ("2x8", 1.5, 7.25), ("2x10", 1.5, 9.25), ("2x12", 1.5, 11.25)],
)
def test_dressed_lumber(nominal: str, thickness: float, depth: float) -> None:
    """Source: PS 20, American Softwood Lumber Standard, dressed sizes of dry lumber (from memory)."""
    assert lumber()[nominal].thickness == pytest.approx(thickness * 25.4)
    assert lumber()[nominal].depth == pytest.approx(depth * 25.4)


def test_every_row_names_its_source_and_its_hatches_exist() -> None:
    for row in materials().values():
        assert row.source
        for name in (row.cut, row.seen):
            assert name is None or name == "quilt" or hatch(name).source
    assert all(pattern.families for pattern in hatches().values())
    with pytest.raises(UnknownElement):
        material("unobtainium")


def test_cladding_stands_before_sheathing_before_frame() -> None:
    order = [material(id).order for id in ("trim", "lap_board", "plywood", "softwood", "gypsum")]
    assert order == sorted(order) and len(set(order)) == len(order)


def test_pen_widths_are_of_the_series() -> None:
    """Source: ISO 128-2, line widths 0.13 to 2 mm, in the ratio 1 : sqrt 2 (from memory)."""
    series = {0.13, 0.18, 0.25, 0.35, 0.5, 0.7, 1.0}
    assert {pen.width for pen in PENS.values()} <= series


@pytest.mark.parametrize(
    ("name", "size"),
    [("A4", (297, 210)), ("A3", (420, 297)), ("A2", (594, 420)), ("A1", (841, 594)), ("A0", (1189, 841))],
)
def test_iso_paper(name: str, size: tuple[float, float]) -> None:
    """Source: ISO 216; each size is the one above it, halved; A0 is a square metre."""
    paper = PAPERS[name]
    assert (paper.width, paper.height) == size
    assert math.isclose(paper.width / paper.height, math.sqrt(2), rel_tol=5e-3)


def test_paper_in_inches() -> None:
    """Sources: ANSI/ASME Y14.1 for ANSI sizes; architectural sizes by common practice."""
    inches = {name: (round(p.width / 25.4, 6), round(p.height / 25.4, 6)) for name, p in PAPERS.items()}
    assert inches["ANSI B"] == (17, 11) and inches["ANSI D"] == (34, 22)
    assert inches["ARCH B"] == (18, 12) and inches["ARCH D"] == (36, 24)


def test_scales_of_the_standard() -> None:
    """Source: ISO 5455, recommended reductions 1:2, 1:5, 1:10 and their decades (from memory)."""
    metric = standard_scales("mm")
    assert {5, 10, 20, 50, 100, 200, 500, 1000} <= set(metric)
    assert all(a < b for a, b in itertools.pairwise(metric))


def test_imperial_scales_say_what_they_are() -> None:
    """Arithmetic: 1/4 inch to the foot is 1:48."""
    for scale in standard_scales("ft-in"):
        name = scale_name(scale, "ft-in")
        left, right = name.split(" = ")
        whole, _, fraction = left.rstrip('"').partition(" ")
        inches = sum(
            float(p.split("/")[0]) / float(p.split("/")[1]) if "/" in p else float(p) for p in (whole, fraction) if p
        )
        assert int(right.split("'")[0]) * 12 / inches == scale


def test_usual_sizes_name_their_source_and_agree_in_both_units() -> None:
    """Both columns are what the trade rounds to: they differ by less than a sixth."""
    sizes = usual_sizes()
    assert len(sizes) > 35
    for id, size in sizes.items():
        assert size.of and size.source, id
        assert abs(size.imperial - size.metric) < max(size.imperial, size.metric) / 6, id
    assert usual("rail_height", "ft-in") == 914.4 and usual("rail_height", "mm") == 900.0
    assert "R312.1.2" in sizes["rail_height"].source
    with pytest.raises(KeyError):
        usual("moat", "mm")


def test_starters_name_the_sources_of_their_make_ups_and_hold_lumber_as_it_is_dressed() -> None:
    """Dressed depths by PS 20 (from memory): 2x4 3 1/2, 2x6 5 1/2, 2x10 9 1/4, all 1 1/2 thick."""
    dressed = {name: (held.thickness, held.depth) for name, held in lumber().items()}
    for tradition, starter in starter_rows().items():
        for row in starter["make_ups"]:
            assert row["source"], (tradition, row["id"])
    for make_up in make_ups("ft-in"):
        for layer in make_up.layers:
            nominal = layer.name.split()[0]
            if layer.framing and nominal in dressed:
                assert (layer.framing.thickness, layer.thickness) == pytest.approx(dressed[nominal]), layer.name


@pytest.mark.parametrize("units", ["ft-in", "mm"])
@pytest.mark.parametrize("ground", ["slab", "joists"])
def test_a_starter_is_a_whole_document_in_both_units(units: Units, ground: Ground) -> None:
    project = new_project("p", "House", units, "timber", ground)
    assert project.floors == () if ground == "slab" else project.floors[0].bearing == "sill"
    plate = next(rung for rung in project.rungs if rung.id == "plate")
    # Bottom plate, precut stud, two top plates: 97 1/8 in for a stud of 92 5/8 in (common practice, no source).
    rise = sum(term.value * term.count for term in plate.terms)
    assert rise == pytest.approx(97.125 * 25.4 if units == "ft-in" else 2500.0)
    with pytest.raises(BadInput, match="stands on a slab"):
        new_project("p", "House", "mm", "masonry", "joists")
    with pytest.raises(BadInput, match="in millimetres"):
        new_project("p", "House", "ft-in", "masonry")
