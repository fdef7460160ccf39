"""Files that lie under views: read true to their scale, printed true to it, and refused in words where they are broken.

Lines of PDF and SVG are held against what was drawn by ReportLab and by hand, in the units of their standards:
1/72 in of PDF (ISO 32000-1, 8.3.2.3), 1/96 in of a CSS pixel (CSS Values and Units, 5.2).
"""

from __future__ import annotations

import io
import itertools
import math
import random
from collections.abc import Callable
from dataclasses import replace

import ezdxf
import numpy as np
import pdfplumber
import pypdfium2
import pytest
from PIL import Image, ImageDraw
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas

from deepsection.core.drawing import Backdrop, Drawing
from deepsection.core.drawing.pictures import Picture
from deepsection.core.errors import BadInput
from deepsection.core.sheets import Paper, PlacedDrawing, SheetDrawing
from deepsection.formats.pictures import about_file, media_of, picture_of
from deepsection.formats.writers import write_dxf, write_pdf, write_png, write_svg

LINES = (((20.0, 30.0), (120.0, 30.0)), ((120.0, 30.0), (120.0, 90.0)), ((20.0, 30.0), (120.0, 90.0)))
"""Lines on a page of 200 by 150 mm."""


def pdf_file(rotation: int = 0, form: bool = False, crop: tuple[float, float, float, float] | None = None) -> bytes:
    out = io.BytesIO()
    canvas = Canvas(out, pagesize=(200 * mm, 150 * mm))
    if crop:
        canvas.setCropBox([edge * mm for edge in crop])
    canvas.setLineWidth(0.3 * mm)
    if form:
        canvas.beginForm("within")
        canvas.scale(2, 2)
    for (xa, ya), (xb, yb) in LINES:
        by = mm / 2 if form else mm
        canvas.line(xa * by, ya * by, xb * by, yb * by)
    if form:
        canvas.endForm()
        canvas.doForm("within")
    if rotation:
        canvas.setPageRotation(rotation)
    canvas.showPage()
    canvas.save()
    return out.getvalue()


PAPER = 'width="200mm" height="150mm" viewBox="0 0 200 150"'
NAMES = 'xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink"'


def svg_file(size: str = PAPER, body: str = "", by: float = 1.0) -> bytes:
    lines = "".join(
        f'<line x1="{xa * by}" y1="{(150 - ya) * by}" x2="{xb * by}" y2="{(150 - yb) * by}" stroke="black"/>'
        for (xa, ya), (xb, yb) in LINES
    )
    return f"<svg {NAMES} {size}>{lines}{body}</svg>".encode()


def dxf_file(insunits: int = 4, by: float = 50.0, at: tuple[float, float] = (0.0, 0.0)) -> bytes:
    document = ezdxf.new()
    document.header["$INSUNITS"] = insunits
    space = document.modelspace()
    for (xa, ya), (xb, yb) in LINES:
        space.add_line((xa * by + at[0], ya * by + at[1]), (xb * by + at[0], yb * by + at[1]))
    space.add_arc((70 * by + at[0], 60 * by + at[1]), 10 * by, 0, 90)
    space.add_text("Kitchen", height=4 * by).set_placement((40 * by + at[0], 80 * by + at[1]))
    out = io.StringIO()
    document.write(out)
    return out.getvalue().encode()


def png_file(dpi: float = 100.0, mode: str = "RGB", form: str = "PNG", **also: object) -> bytes:
    image = Image.new(mode, (round(200 / 25.4 * dpi), round(150 / 25.4 * dpi)), "white")
    pen = ImageDraw.Draw(image)
    for (xa, ya), (xb, yb) in LINES:
        pen.line([xa / 25.4 * dpi, (150 - ya) / 25.4 * dpi, xb / 25.4 * dpi, (150 - yb) / 25.4 * dpi], "black", 2)
    out = io.BytesIO()
    image.save(out, form, dpi=(dpi, dpi), **also)
    return out.getvalue()


FILES: dict[str, Callable[[], bytes]] = {
    "pdf": pdf_file,
    "svg": svg_file,
    "dxf": dxf_file,
    "png": png_file,
    "jpeg": lambda: png_file(form="JPEG"),
}


def has_line(picture: Picture, a: tuple[float, float], b: tuple[float, float], within: float = 0.01) -> bool:
    for line in picture.lines:
        for p, q in itertools.pairwise(line):
            ends = {(p[:2], q[:2]), (q[:2], p[:2])}
            if any(math.dist(s, a) < within and math.dist(e, b) < within for s, e in ends):
                return True
    return False


# --- read ---------------------------------------------------------------------------------------


@pytest.mark.parametrize("form", [False, True])
def test_a_pdf_is_as_large_as_its_paper(form: bool) -> None:
    data = pdf_file(form=form)
    assert about_file(data).pages[0] == pytest.approx((200, 150), abs=1e-3)
    picture = picture_of(data, 0)
    assert all(has_line(picture, a, b) for a, b in LINES)
    assert picture.image is not None


@pytest.mark.parametrize("rotation", [90, 180, 270])
def test_a_turned_page_is_read_as_it_is_looked_at(rotation: int) -> None:
    """Its lines lie where its image shows them: dark pixels along all of each line."""
    data = pdf_file(rotation=rotation)
    wide, high = about_file(data).pages[0]
    picture = picture_of(data, 0)
    with Image.open(io.BytesIO(picture.image or b"")) as held:
        alpha = np.asarray(held.getchannel("A"))
    for line in picture.lines:
        (xa, ya, _), (xb, yb, _) = line
        for share in (0.1, 0.37, 0.5, 0.9):
            x, y = xa + (xb - xa) * share, ya + (yb - ya) * share
            row, column = int((high - y) / high * alpha.shape[0]), int(x / wide * alpha.shape[1])
            assert alpha[row - 2 : row + 3, column - 2 : column + 3].max() > 200
    assert len(picture.lines) == len(LINES)


def test_a_cropped_page_begins_at_its_crop() -> None:
    data = pdf_file(crop=(10, 20, 160, 120))
    assert about_file(data).pages[0] == pytest.approx((150, 100), abs=1e-3)
    picture = picture_of(data, 0)
    assert all(has_line(picture, (a[0] - 10, a[1] - 20), (b[0] - 10, b[1] - 20)) for a, b in LINES)


@pytest.mark.parametrize(
    ("size", "by", "page"),
    [
        ('width="200mm" height="150mm" viewBox="0 0 200 150"', 1.0, (200, 150)),
        ('width="20cm" height="15cm" viewBox="0 0 2000 1500"', 10.0, (200, 150)),
        ('width="755.9055" height="566.9291"', 96 / 25.4, (200, 150)),
        ('viewBox="0 0 755.9055 566.9291"', 96 / 25.4, (200, 150)),
    ],
)
def test_an_svg_is_as_large_as_it_says(size: str, by: float, page: tuple[float, float]) -> None:
    data = svg_file(size, by=by)
    assert about_file(data).pages[0] == pytest.approx(page, abs=2e-3)
    picture = picture_of(data, 0)
    assert all(has_line(picture, a, b) for a, b in LINES)


@pytest.mark.parametrize(("insunits", "by", "scale"), [(4, 90.0, 1.0), (6, 0.09, 1000.0), (1, 90 / 25.4, 25.4)])
def test_a_dxf_counts_in_its_own_unit(insunits: int, by: float, scale: float) -> None:
    data = dxf_file(insunits, by, at=(by * 100, by * 40))
    about = about_file(data)
    assert about.counts == "drawing" and about.scale == pytest.approx(scale) and about.reason
    assert about.pages[0] == pytest.approx((100 * by, 60 * by))
    assert about.at == pytest.approx((120 * by * scale, 70 * by * scale))
    picture = picture_of(data, 0)
    for a, b in LINES:
        near = [((x - 20) * by, (y - 30) * by) for x, y in (a, b)]
        assert has_line(picture, *near, within=1e-6 * by)
    assert [word.text for word in picture.words] == ["Kitchen"]


@pytest.mark.parametrize(("dpi", "form"), [(100.0, "PNG"), (300.0, "PNG"), (150.0, "JPEG")])
def test_an_image_is_as_large_as_its_resolution_says(dpi: float, form: str) -> None:
    about = about_file(png_file(dpi, form=form))
    assert about.pages[0] == pytest.approx((200, 150), abs=25.4 / dpi)


def test_an_image_without_resolution_has_the_usual_one() -> None:
    out = io.BytesIO()
    Image.new("L", (960, 480), "white").save(out, "PNG")
    assert about_file(out.getvalue()).pages[0] == pytest.approx((254, 127))


def test_a_photograph_that_was_taken_upright_stands_upright() -> None:
    exif = Image.Exif()
    exif[0x0112] = 6
    data = png_file(form="JPEG", exif=exif)
    wide, high = about_file(data).pages[0]
    assert wide < high
    with Image.open(io.BytesIO(picture_of(data, 0).image or b"")) as held:
        assert held.width < held.height


@pytest.mark.parametrize("colour", [(0, 0, 0), (255, 255, 255), (200, 40, 40), (128, 128, 128), (250, 251, 252)])
def test_on_white_paper_an_image_looks_as_it_did(colour: tuple[int, int, int]) -> None:
    out = io.BytesIO()
    image = Image.new("RGB", (40, 40), "white")
    image.paste(colour, (5, 5, 30, 30))
    image.save(out, "PNG")
    with Image.open(io.BytesIO(picture_of(out.getvalue(), 0).image or b"")) as held:
        shown = Image.alpha_composite(Image.new("RGBA", held.size, "white"), held.convert("RGBA"))
    assert shown.getpixel((20, 20))[:3] == pytest.approx(colour, abs=2)
    assert shown.getpixel((35, 35))[:3] == (255, 255, 255)


def test_what_a_file_is_goes_by_what_is_in_it() -> None:
    assert {name: media_of(make()) for name, make in FILES.items()} == {
        "pdf": "application/pdf",
        "svg": "image/svg+xml",
        "dxf": "image/vnd.dxf",
        "png": "image/png",
        "jpeg": "image/jpeg",
    }


# --- printed ------------------------------------------------------------------------------------

SCALE = 50.0


def sheet_of(picture: Picture, backdrop: Backdrop) -> SheetDrawing:
    """A sheet of 400 by 300 mm with nothing but a background on it, at 1:50; the origin at (50, 40)."""
    drawing = Drawing("plan", "Plan", "plan", SCALE, (), bounds=(0, 0, 10_000, 7500), backdrops=(backdrop,))
    own = Drawing("sheet", "", "sheet", 1.0, (), bounds=(0, 0, 400, 300))
    held = PlacedDrawing("view", drawing, SCALE, 50.0, 40.0)
    key = backdrop.file, backdrop.page
    return SheetDrawing("A1", Paper("test", 400.0, 300.0), "mm", (held,), own, pictures=((key, picture),))


def under(picture: Picture, scale: float, turn: float = 0.0, at: tuple[float, float] = (0.0, 0.0)) -> Backdrop:
    c, s = scale * math.cos(math.radians(turn)), scale * math.sin(math.radians(turn))
    box = 0.0, 0.0, picture.width, picture.height
    return Backdrop("b1", "Old plan", "f" * 64, 0, (c, s, -s, c, *at), box, 1.0, True, True)


def on_paper(held: Backdrop, point: tuple[float, float]) -> tuple[float, float]:
    x, y = held.at(*point)
    return 50.0 + x / SCALE, 40.0 + y / SCALE


@pytest.mark.parametrize("name", ["pdf", "svg", "dxf", "png"])
@pytest.mark.parametrize(("scale", "turn", "at"), [(50.0, 0.0, (0.0, 0.0)), (35.0, 20.0, (2500.0, 300.0))])
def test_a_background_is_printed_true_to_scale(name: str, scale: float, turn: float, at: tuple[float, float]) -> None:
    """Ink lies along every line of the page, where the drawing is printed, to a pixel of 200 dpi (0.13 mm)."""
    picture = picture_of(FILES[name](), 0)
    units = 50.0 if name == "dxf" else 1.0
    held = under(picture, scale / units, turn, at)
    with Image.open(io.BytesIO(write_png(sheet_of(picture, held), dpi=200))) as shown:
        ink = np.asarray(shown.convert("L")) < 170
    corner = (20.0, 30.0) if name == "dxf" else (0.0, 0.0)
    for a, b in LINES:
        for share in np.linspace(0.02, 0.98, 30):
            page = [(p + (q - p) * share - o) * units for p, q, o in zip(a, b, corner)]
            x, y = on_paper(held, (page[0], page[1]))
            row, column = int((300 - y) / 25.4 * 200), int(x / 25.4 * 200)
            assert ink[row - 2 : row + 3, column - 2 : column + 3].any(), (a, b, share)


def test_lines_of_a_dxf_go_out_as_lines() -> None:
    picture = picture_of(dxf_file(), 0)
    held = under(picture, 1.0, 30.0, (100.0, -50.0))
    document = ezdxf.read(io.StringIO(write_dxf(sheet_of(picture, held)).decode()))
    drawn = [e for e in document.modelspace() if e.dxf.layer == "BACKGROUND"]
    lines = [(tuple(e.dxf.start)[:2], tuple(e.dxf.end)[:2]) for e in drawn if e.dxftype() == "LINE"]
    for a, b in LINES:
        p, q = (held.at((x - 20) * 50, (y - 30) * 50) for x, y in (a, b))
        assert any(math.dist(s, p) < 1e-6 and math.dist(e, q) < 1e-6 for s, e in lines)
    arcs = [e for e in drawn if e.dxftype() == "LWPOLYLINE"]
    assert len(arcs) == 1 and abs(arcs[0].get_points("b")[0][0]) == pytest.approx(math.tan(math.radians(90) / 4))
    with pdfplumber.open(io.BytesIO(write_pdf(sheet_of(picture, held)))) as pdf:
        longest = max(math.hypot(line["x1"] - line["x0"], line["y1"] - line["y0"]) for line in pdf.pages[0].lines)
    assert longest * 25.4 / 72 == pytest.approx(math.hypot(100, 60), abs=1e-2)


def test_a_filled_circle_of_a_dxf_is_filled() -> None:
    """A ring of two arcs: its middle is grey on paper."""
    document = ezdxf.new()
    document.header["$INSUNITS"] = 4
    space = document.modelspace()
    space.add_line((0, 0), (9000, 6000))
    hatch = space.add_hatch(color=7)
    hatch.paths.add_polyline_path([(6000, 2000, 1), (8000, 2000, 1)], is_closed=True)
    out = io.StringIO()
    document.write(out)
    picture = picture_of(out.getvalue().encode(), 0)
    held = under(picture, 1.0)
    with Image.open(io.BytesIO(write_png(sheet_of(picture, held), dpi=100))) as shown:
        x, y = on_paper(held, (7000.0, 2000.0))
        assert 150 < shown.convert("L").getpixel((int(x / 25.4 * 100), int((300 - y) / 25.4 * 100))) < 240


def test_an_image_that_a_dxf_cannot_hold_says_so() -> None:
    picture = picture_of(png_file(), 0)
    document = ezdxf.read(io.StringIO(write_dxf(sheet_of(picture, under(picture, 50.0))).decode()))
    texts = [e.dxf.text for e in document.modelspace().query("TEXT")]
    assert any("Old plan" in text and "cannot hold" in text for text in texts)


@pytest.mark.parametrize("name", ["pdf", "dxf"])
def test_what_is_cropped_is_not_printed(name: str) -> None:
    picture = picture_of(FILES[name](), 0)
    units = 50.0 if name == "dxf" else 1.0
    held = replace(under(picture, 50.0 / units), box=(0.0, 0.0, 80.0 * units, picture.height))
    with Image.open(io.BytesIO(write_png(sheet_of(picture, held), dpi=100))) as shown:
        ink = np.asarray(shown.convert("L")) < 170
    edge = int((50.0 + 80.0) / 25.4 * 100)
    assert ink[:, : edge - 1].any() and not ink[:, edge + 3 :].any()


@pytest.mark.parametrize("name", ["pdf", "dxf"])
def test_a_weak_background_prints_weakly(name: str) -> None:
    picture = picture_of(FILES[name](), 0)

    def darkest(strength: float) -> int:
        held = replace(under(picture, 1.0 if name == "dxf" else 50.0), strength=strength)
        with Image.open(io.BytesIO(write_png(sheet_of(picture, held), dpi=300))) as shown:
            return int(np.asarray(shown.convert("L")).min())

    assert darkest(1.0) < 60 < 120 < darkest(0.3) < 240


def test_an_svg_holds_the_page() -> None:
    for name in ("png", "dxf"):
        picture = picture_of(FILES[name](), 0)
        text = write_svg(sheet_of(picture, under(picture, 1.0))).decode()
        assert ("data:image/png;base64" in text) == (name == "png")
        assert "Kitchen" in text or name == "png"
        # The file of our own can lie under a view again, and shows the same.
        assert picture_of(text.encode(), 0).image


def test_equal_sheets_with_backgrounds_give_equal_bytes() -> None:
    for name in ("png", "dxf"):
        picture = picture_of(FILES[name](), 0)
        sheet = sheet_of(picture, under(picture, 10.0))
        assert write_pdf(sheet) == write_pdf(sheet) and write_dxf(sheet) == write_dxf(sheet)


# --- refused ------------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("data", "words"),
    [
        (b"", "empty"),
        (b"a letter to nobody", "neither"),
        (b"%PDF-1.7 and then nothing", "broken"),
        (pdf_file()[:400], "broken"),
        (png_file()[:300], "broken"),
        (svg_file()[:-9], "line 1"),
        (b"<svg><line/></svg>", "not an SVG"),
        (svg_file(body='<g id="a"><use xlink:href="#a"/></g>'), "within itself"),
        (dxf_file()[:-40], "cut short"),
    ],
)
def test_what_cannot_be_shown_is_refused_in_words(data: bytes, words: str) -> None:
    with pytest.raises(BadInput, match=words):
        about_file(data)
        picture_of(data, 0)


def test_too_much_is_refused_before_it_is_drawn() -> None:
    """Twelve levels of ten: a million million lines."""
    levels = "".join(f'<g id="l{k}">' + f'<use xlink:href="#l{k + 1}"/>' * 10 + "</g>" for k in range(12))
    data = svg_file(body=f'<defs>{levels}<line id="l12" x2="9"/></defs><use xlink:href="#l0"/>')
    with pytest.raises(BadInput, match="more than"):
        about_file(data)


def test_a_page_that_is_not_there() -> None:
    with pytest.raises(BadInput, match="1 pages"):
        picture_of(pdf_file(), 3)


def test_a_locked_pdf_says_so() -> None:
    out = io.BytesIO()
    canvas = Canvas(out, encrypt="secret")
    canvas.showPage()
    canvas.save()
    with pytest.raises(BadInput, match="password"):
        about_file(out.getvalue())


@pytest.mark.parametrize(
    "body",
    [
        '<image href="file:///etc/hostname" width="50" height="50"/>',
        '<image xlink:href="../../secret.png" width="50" height="50"/>',
        '<use xlink:href="other.svg#part"/>',
        "<style>@import url(http://127.0.0.1:9/x.css);</style>",
        "<script>alert(1)</script>",
    ],
)
def test_an_svg_knows_no_file_beside_it(body: str) -> None:
    assert picture_of(svg_file(body=body), 0).lines == picture_of(svg_file(), 0).lines


def test_entities_of_an_svg_are_not_followed() -> None:
    head = b'<!DOCTYPE svg [<!ENTITY x SYSTEM "file:///etc/hostname"><!ENTITY a "aaa"><!ENTITY b "&a;&a;&a;">]>'
    data = head + svg_file(body='<text x="5" y="20">&x;&b;</text>')
    picture = picture_of(data, 0)
    assert all(has_line(picture, a, b) for a, b in LINES)


@pytest.mark.parametrize("name", sorted(FILES))
def test_mutated_files_are_shown_or_refused(name: str) -> None:
    rng = random.Random(f"mutate {name}")
    whole = FILES[name]()
    for _ in range(15):
        data = bytearray(whole)
        for _ in range(rng.randint(1, 12)):
            at = rng.randrange(len(data))
            if rng.random() < 0.5:
                data[at] = rng.randrange(256)
            else:
                del data[at : at + rng.randint(1, 30)]
        try:
            about = about_file(bytes(data))
            picture = picture_of(bytes(data), len(about.pages) - 1)
        except BadInput as error:
            assert error.message
        else:
            assert picture.width > 0 and picture.height > 0


def test_the_page_is_drawn_by_the_same_library_as_the_preview() -> None:
    """The image is the page: its ink is where the library that renders PDF puts it."""
    data = pdf_file()
    document = pypdfium2.PdfDocument(data)
    drawn = np.asarray(document[0].render(scale=240 / 72).to_pil().convert("L"))
    document.close()
    with Image.open(io.BytesIO(picture_of(data, 0).image or b"")) as held:
        alpha = np.asarray(held.getchannel("A"))
    assert alpha.shape == drawn.shape and (alpha == 255 - drawn).mean() > 0.999
