"""What holds for every writer: identical bytes, every mark, nothing lost to odd text."""

from __future__ import annotations

import io
import re
from dataclasses import replace
from xml.etree import ElementTree

import ezdxf
import orjson
import pdfplumber
import pytest

from deepsection.core.drawing import Drawing, Text, explode
from deepsection.core.model import Project, Sheet
from deepsection.core.resolve import Building, resolve
from deepsection.core.sheets import PAPERS, SheetDrawing, compose
from deepsection.formats.writers import MEDIA_TYPES, WRITERS
from tests.builders import box_house

ODD = 'Ø 1/2" <b>&amp; “roof” ½ é – 中'


@pytest.mark.parametrize("name", WRITERS)
def test_writing_twice_gives_the_same_bytes(name: str, sheet: SheetDrawing, files: dict[str, bytes]) -> None:
    assert WRITERS[name](sheet) == files[name]
    assert name in MEDIA_TYPES


@pytest.mark.parametrize("name", WRITERS)
def test_an_empty_sheet_can_be_written(name: str) -> None:
    house = box_house(8000, 6000)
    drawn = compose(house, resolve(house), Sheet(id="s", number="1", name="Empty", paper="A4"), date="")
    assert len(WRITERS[name](drawn)) > 300


@pytest.mark.parametrize("paper", PAPERS)
@pytest.mark.parametrize("name", ["pdf", "svg"])
def test_every_paper_has_its_size(name: str, paper: str, house: Project, building: Building) -> None:
    drawn = compose(house, building, Sheet(id="s", number="1", name="Empty", paper=paper), date="")
    data = WRITERS[name](drawn)
    if name == "pdf":
        with pdfplumber.open(io.BytesIO(data)) as pdf:
            size = float(pdf.pages[0].width) / 72 * 25.4, float(pdf.pages[0].height) / 72 * 25.4
    else:
        root = ElementTree.fromstring(data)
        size = float(root.attrib["width"].removesuffix("mm")), float(root.attrib["height"].removesuffix("mm"))
    assert size == pytest.approx((PAPERS[paper].width, PAPERS[paper].height), abs=0.01)


def with_text(sheet: SheetDrawing, text: str) -> SheetDrawing:
    own = replace(sheet.own, marks=(*sheet.own.marks, Text(100.0, 100.0, text)))
    return replace(sheet, own=own)


@pytest.mark.parametrize("name", WRITERS)
@pytest.mark.parametrize("text", [ODD, "", " ", "(\\) %%d {\\H3;x}", "\t"])
def test_odd_text_does_no_harm(name: str, text: str, sheet: SheetDrawing) -> None:
    data = WRITERS[name](with_text(sheet, text))
    if name == "svg":
        found = [node.text for node in ElementTree.fromstring(data).iter("{http://www.w3.org/2000/svg}text")]
        assert text in found or not text.strip()
    if name == "dxf" and text == ODD:
        document = ezdxf.read(io.StringIO(data.decode()))
        assert text in [entity.dxf.text for entity in document.layout("Layout1").query("TEXT")]


def test_texts_are_the_same_in_every_format(sheet: SheetDrawing, files: dict[str, bytes]) -> None:
    def texts(drawing: Drawing) -> list[str]:
        return [mark.text for mark in explode(drawing).marks if isinstance(mark, Text) and mark.text.strip()]

    wanted = sorted(texts(sheet.own) + [text for held in sheet.placed for text in texts(held.drawing)])
    svg = sorted(
        node.text or "" for node in ElementTree.fromstring(files["svg"]).iter("{http://www.w3.org/2000/svg}text")
    )
    assert svg == wanted
    document = ezdxf.read(io.StringIO(files["dxf"].decode()))
    dxf = [e.dxf.text for space in (document.modelspace(), document.layout("Layout1")) for e in space.query("TEXT")]
    measures = [e.dxf.text for e in document.modelspace().query("DIMENSION")]
    assert measures and sorted(dxf + measures) == wanted, "those of dimensions stand in them"
    with pdfplumber.open(io.BytesIO(files["pdf"])) as pdf:
        printed = re.sub(r"\s+", "", "".join(char["text"] for char in pdf.pages[0].chars))
    for text in set(wanted):
        assert re.sub(r"\s+", "", text) in printed


def test_json_holds_the_marks(sheet: SheetDrawing, files: dict[str, bytes]) -> None:
    data = orjson.loads(files["json"])
    assert [held["id"] for held in data["placed"]] == [held.id for held in sheet.placed]
    assert len(data["placed"][0]["drawing"]["marks"]) == len(explode(sheet.placed[0].drawing).marks)
    part = next(mark["part"] for mark in data["placed"][0]["drawing"]["marks"] if mark.get("depth") is not None)
    assert part.count("/") == 3, "a mark carries its part key: element, role, layer, slot"
