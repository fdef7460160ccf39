"""DXF: opened with another reader's audit, in real units, on named layers, with real hatches and dimensions."""

from __future__ import annotations

import io
import math
import re

import ezdxf
import ezdxf.recover
import pytest
from ezdxf.document import Drawing as Document
from ezdxf.entities import DXFEntity

from deepsection.core.drawing import PENS, Dimension, Region, Stroke
from deepsection.core.edits import rebuild
from deepsection.core.model import Project
from deepsection.core.resolve import Building, resolve
from deepsection.core.sheets import SheetDrawing, compose, compose_view
from deepsection.formats.writers import write_dxf


def read(data: bytes) -> Document:
    document, auditor = ezdxf.recover.read(io.BytesIO(data))
    assert not auditor.errors and not auditor.fixes
    return document


@pytest.fixture(scope="module")
def document(files: dict[str, bytes]) -> Document:
    return read(files["dxf"])


def entities(document: Document, kind: str) -> list[DXFEntity]:
    """The entities of a kind in model space, those of blocks as they stand there."""
    model = document.modelspace()
    inserted = [entity for insert in model.query("INSERT") for entity in insert.virtual_entities()]
    return [*model.query(kind), *(entity for entity in inserted if entity.dxftype() == kind)]


def test_every_view_and_sheet_passes_the_audit(house: Project, building: Building) -> None:
    for sheet in house.sheets:
        read(write_dxf(compose(house, building, sheet, date="")))
    for view in ("plan", "section:section-b"):
        read(write_dxf(compose_view(house, building, view, 24)))


@pytest.mark.parametrize(("units", "code", "factor"), [("ft-in", 1, 1 / 25.4), ("mm", 4, 1.0)])
def test_units_are_real(house: Project, units: str, code: int, factor: float) -> None:
    """$INSUNITS 1 is inches, 4 millimetres (published: DXF reference, header variables). The house keeps its size."""
    project = rebuild(house, units=units)
    drawn = compose_view(project, resolve(project), "elevation:south", 96)
    document = read(write_dxf(drawn))
    assert document.header["$INSUNITS"] == code
    (ground,) = [line for line in document.modelspace().query("LINE") if line.dxf.layer == "GROUND"]
    mark = next(m for m in drawn.placed[0].drawing.marks if isinstance(m, Stroke) and m.feature == "ground")
    length = abs(mark.path[1][0] - mark.path[0][0])
    assert ground.dxf.start.distance(ground.dxf.end) == pytest.approx(length * factor, abs=1e-6)


def test_layers_are_named_by_role_with_their_widths(document: Document) -> None:
    used = {entity.dxf.layer for space in (document.modelspace(), document.layout("Layout1")) for entity in space}
    assert {"GROUND", "OUTLINE", "EDGE", "HATCH", "CUT-STRUCTURE", "LEVELS", "SHEET-FRAME"} <= used
    layers = {layer.dxf.name: layer for layer in document.layers}
    assert used <= set(layers)
    for pen in PENS.values():
        assert layers[pen.layer].dxf.lineweight == round(
            next(p.width for p in PENS.values() if p.layer == pen.layer) * 100
        )


def test_hatches_are_real_and_lie_where_the_marks_do(sheet: SheetDrawing, document: Document) -> None:
    hatches = [entity for entity in document.modelspace().query("HATCH") if entity.dxf.solid_fill == 0]
    marks = [
        mark
        for held in sheet.placed
        for mark in held.drawing.marks
        if isinstance(mark, Region) and mark.hatch is not None and held.drawing.hatches[mark.hatch].families
    ]
    assert len(hatches) == len(marks)
    assert {"LAP_BOARD", "SHINGLE", "EARTH"} <= {hatch.dxf.pattern_name for hatch in hatches}
    boards = next(hatch for hatch in hatches if hatch.dxf.pattern_name == "LAP_BOARD")
    (line,) = boards.pattern.lines
    assert math.hypot(*line.offset) == pytest.approx(6.0), "boards are 6 inches apart in the file too"


def test_dimensions_are_dimensions(house: Project, building: Building) -> None:
    document = read(write_dxf(compose_view(house, building, "plan", 96)))
    texts = [entity.dxf.text for entity in document.modelspace().query("DIMENSION")]
    assert texts.count("26'-0\"") == texts.count("54'-0\"") == 2, "overall on all four sides"
    assert {"36'-0\"", "18'-0\""} <= set(texts), "and the breaks of the north and south sides"
    measured = sorted(entity.get_measurement() for entity in document.modelspace().query("DIMENSION"))
    assert {round(value) for value in measured} >= {26 * 12, 54 * 12, 36 * 12, 18 * 12}


def test_layers_are_hatched_where_the_scale_shows_them(house: Project, building: Building) -> None:
    space = read(write_dxf(compose_view(house, building, "section:section-a", 48))).modelspace()
    assert {"CONCRETE", "EARTH"} <= {hatch.dxf.pattern_name for hatch in space.query("HATCH")}


def test_a_figure_beside_its_line_has_its_leader_and_one_left_out_is_blank(house: Project, building: Building) -> None:
    """As they stand on paper: the figure of the entity where it was placed, and the line that leads to it."""
    sheet = compose_view(house, building, "plan", 192)
    led = [mark for mark in sheet.placed[0].drawing.marks if isinstance(mark, Dimension) and mark.led]
    space = read(write_dxf(sheet)).modelspace()
    leaders = [line for line in space.query("LINE") if line.dxf.layer == "NOTES"]
    assert led and len(leaders) >= len(led)
    figures = {entity.dxf.text for entity in space.query("DIMENSION")}
    assert {mark.text for mark in led} <= figures and "<>" not in figures


def test_arcs_stay_arcs(house: Project, building: Building) -> None:
    """The swing of a door is one bulged polyline of a quarter circle."""
    document = read(write_dxf(compose_view(house, building, "plan", 96)))
    swings = [line for line in entities(document, "LWPOLYLINE") if line.has_arc and not line.closed]
    assert len(swings) == sum(opening.unit == "door" for opening in house.openings)
    for swing in swings:
        assert abs(swing.get_points("b")[0][0]) == pytest.approx(math.tan(math.pi / 8))


def test_straight_lines_lie_on_the_model(sheet: SheetDrawing, document: Document) -> None:
    """Each stroke of the first view is a line of the file at the same place, within 0.01 mm."""
    ends = set()
    for entity in entities(document, "LINE"):
        for point in (entity.dxf.start, entity.dxf.end):
            ends.add((round(point.x * 25.4, 1), round(point.y * 25.4, 1)))
    held = sheet.placed[0]
    strokes = [m for m in held.drawing.marks if isinstance(m, Stroke) and m.pen == "outline" and len(m.path) == 2]
    assert len(strokes) > 10
    for mark in strokes:
        for x, y, _ in mark.path:
            near = {(round(x + dx, 1), round(y + dy, 1)) for dx in (-0.05, 0, 0.05) for dy in (-0.05, 0, 0.05)}
            assert near & ends


def test_viewports_show_the_views_at_their_scale(sheet: SheetDrawing, document: Document) -> None:
    views = [entity for entity in document.layout("Layout1").query("VIEWPORT") if entity.dxf.id > 1]
    assert len(views) == len(sheet.placed)
    for view, held in zip(views, sheet.placed):
        assert view.dxf.view_height * 25.4 / view.dxf.height == pytest.approx(held.scale)


@pytest.mark.parametrize(
    ("names", "form"),
    [("iso13567", r"A-[A-Z-]{6}[A-Z]-|A-[A-Z-]{8}"), ("ncs", r"[A-Z](-[A-Z]{4}){1,3}")],
)
def test_layers_are_named_by_a_standard_where_one_asks(sheet: SheetDrawing, names: str, form: str) -> None:
    """ISO 13567-2: agent, element and presentation at fixed places, 2 + 6 + 2 characters. National CAD Standard: a
    discipline and up to three groups of four letters. Both from memory."""
    plain = ezdxf.read(io.StringIO(write_dxf(sheet).decode()))
    named = ezdxf.read(io.StringIO(write_dxf(sheet, names).decode()))  # type: ignore[arg-type]
    assert not named.audit().errors
    own = {layer.dxf.name for layer in named.layers} - {"0", "Defpoints", "DEFPOINTS"}
    assert all(re.fullmatch(form, name) for name in own), own
    assert len(own) == len({layer.dxf.name for layer in plain.layers} - {"0", "Defpoints", "DEFPOINTS"})
    used = [[entity.dxf.layer for entity in held.modelspace()] for held in (plain, named)]
    pairs = set(zip(*used))
    assert len(used[0]) == len(used[1]) and len(pairs) == len({first for first, _ in pairs}), "one name for one"
    assert {second for _, second in pairs} <= own | {"0"}


def test_units_are_blocks_that_stand_where_they_are_seen(house: Project, building: Building) -> None:
    """One block per opening that is seen, with its base at the lower left of the unit."""
    drawn = compose_view(house, building, "elevation:south", 48)
    document = read(write_dxf(drawn))
    inserts = {insert.dxf.name: insert for insert in document.modelspace().query("INSERT")}
    seen = {
        mark.part.split("/")[0]
        for mark in drawn.placed[0].drawing.marks
        if isinstance(mark, Region) and "/glass/" in (mark.part or "")
    }
    assert {f"UNIT-{id.upper()}" for id in seen} <= set(inserts) and len(document.blocks) > len(seen)
    (window,) = [opening for opening in house.openings if opening.id == "w1"]
    marks = [
        mark
        for mark in drawn.placed[0].drawing.marks
        if isinstance(mark, Stroke) and mark.handle and mark.handle.element == window.id
    ]
    left = min(x for mark in marks for x, _, _ in mark.path)
    low = min(y for mark in marks for _, y, _ in mark.path)
    at = inserts["UNIT-W1"].dxf.insert
    assert (at.x * 25.4, at.y * 25.4) == pytest.approx((left, low), abs=0.01)
