"""DXF files taken apart: blocks with bounds, mirrored arcs, what is broken, hostile or no plan at all."""

from __future__ import annotations

import io
import math
import random
import time
from typing import Any

import ezdxf
import pytest

from deepsection.core.errors import BadInput
from deepsection.core.reading import read_plan
from deepsection.formats import _dxf_opened, dxf_drawn
from deepsection.formats.dxf_drawn import read_drawn
from tests.plan_files import plan_file, small_house
from tests.plans_drawn.manners import as_bytes, drawn
from tests.plans_drawn.truth import houses


@pytest.mark.parametrize(
    ("code", "unit"), [(1, "in"), (2, "ft"), (4, "mm"), (5, "cm"), (6, "m"), (0, None), (99, None)]
)
def test_units_come_from_the_header(code: int, unit: str | None) -> None:
    """$INSUNITS: 1 inches, 2 feet, 4 millimetres, 5 centimetres, 6 metres (published: DXF reference, from memory)."""
    assert read_drawn(plan_file(small_house, insunits=code)).unit == unit


def test_blocks_come_out_where_the_library_puts_them() -> None:
    """Scaled, turned, mirrored, in rows, nested, with base points: against ezdxf's own virtual entities."""
    rng = random.Random(4)
    document = ezdxf.new("R2010")
    inner, outer = document.blocks.new("IN", base_point=(30, -40)), document.blocks.new("OUT", base_point=(-5, 12))
    inner.add_line((0, 0), (100, 20))
    inner.add_arc((50, 50), 40, 20, 140)
    outer.add_blockref("IN", (200, 0), dxfattribs={"xscale": -1.5, "yscale": 1.5, "rotation": 33})
    outer.add_lwpolyline([(0, 0, 0.3), (60, 0, 0), (60, 40, -0.7)], format="xyb", close=True)
    space = document.modelspace()
    for _ in range(12):
        size = rng.uniform(0.3, 3)
        attribs = {
            "xscale": size * rng.choice((1, -1)),
            "yscale": size * rng.choice((1, -1)),
            "rotation": rng.uniform(0, 360),
        }
        space.add_blockref("OUT", (rng.uniform(-1e4, 1e4), rng.uniform(-1e4, 1e4)), dxfattribs=attribs)
    expected = [part for held in space for part in _apart(held)]
    found = read_drawn(as_bytes(document)).strokes
    ends = sorted(tuple(round(v, 3) for v in sorted((s.a, s.b))[0]) for s in found)
    wanted = sorted(tuple(round(v, 3) for v in sorted(pair)[0]) for part in expected for pair in _ends(part))
    assert ends == wanted
    middles = sorted((round(x, 2), round(y, 2)) for x, y in (_middle(s) for s in found if s.bulge))
    assert middles == sorted((round(x, 2), round(y, 2)) for part in expected for x, y in _arc_middles(part))


def _apart(entity: Any) -> list[Any]:
    if entity.dxftype() != "INSERT":
        return [entity]
    return [deep for part in entity.virtual_entities() for deep in _apart(part)]


def _ends(part: Any) -> list[list[tuple[float, float]]]:
    if part.dxftype() == "LINE":
        return [[tuple(part.dxf.start)[:2], tuple(part.dxf.end)[:2]]]
    if part.dxftype() == "ARC":
        return [[tuple(part.start_point)[:2], tuple(part.end_point)[:2]]]
    return [pair for piece in part.virtual_entities() for pair in _ends(piece)]


def _arc_middles(part: Any) -> list[tuple[float, float]]:
    if part.dxftype() == "ARC":
        sweep = (part.dxf.end_angle - part.dxf.start_angle) % 360
        return [tuple(next(iter(part.vertices([part.dxf.start_angle + sweep / 2]))))[:2]]
    return [] if part.dxftype() == "LINE" else [m for piece in part.virtual_entities() for m in _arc_middles(piece)]


def _middle(stroke: Any) -> tuple[float, float]:
    (x0, y0), (x1, y1), bulge = stroke.a, stroke.b, stroke.bulge
    return (x0 + x1) / 2 + (y1 - y0) / 2 * bulge, (y0 + y1) / 2 - (x1 - x0) / 2 * bulge


def test_blocks_within_blocks_without_end_are_refused_at_once() -> None:
    """Twelve levels of ten: 10^12 lines; and a block that holds itself."""
    document = ezdxf.new("R2010")
    document.blocks.new("B0").add_line((0, 0), (1, 1))
    for level in range(1, 13):
        block = document.blocks.new(f"B{level}")
        for k in range(10):
            block.add_blockref(f"B{level - 1}", (k, 0))
    document.modelspace().add_blockref("B12", (0, 0))
    start = time.monotonic()
    with pytest.raises(BadInput, match=r"up to|hold each other"):
        read_drawn(as_bytes(document))
    assert time.monotonic() - start < 10, "counted, not drawn"
    own = ezdxf.new("R2010")
    own.blocks.new("ME").add_blockref("ME", (1, 1))
    own.blocks.get("ME").add_line((0, 0), (5, 5))
    own.modelspace().add_blockref("ME", (0, 0))
    own.modelspace().add_line((0, 0), (100, 0))
    assert read_drawn(as_bytes(own)).strokes


def test_a_reference_that_is_not_here_is_listed() -> None:
    document = drawn(houses()[0], "pairs")
    block = document.blocks.new("SITE")
    block.block.dxf.flags = 4
    document.modelspace().add_blockref("SITE", (0, 0))
    found = read_drawn(as_bytes(document))
    assert any("SITE" in note and "not here" in note for note in found.notes)
    assert len(read_plan(found).walls) == 7


@pytest.mark.parametrize("data", [b"", b"not a dxf", b"  0\nSECTION\n", bytes(range(256)) * 20])
def test_what_is_no_dxf_is_refused(data: bytes) -> None:
    with pytest.raises(BadInput):
        read_drawn(data)


def test_a_file_that_is_cut_short_says_where() -> None:
    data = as_bytes(drawn(houses()[0], "pairs"))
    half = data[: len(data) // 2]
    with pytest.raises(BadInput, match=f"byte {len(half)}"):
        read_drawn(half)


def test_empty_and_huge_files_are_refused(monkeypatch: pytest.MonkeyPatch) -> None:
    with pytest.raises(BadInput, match="nothing in the model space"):
        read_drawn(plan_file(lambda space: None))
    monkeypatch.setattr(dxf_drawn, "MOST_STROKES", 3)
    with pytest.raises(BadInput, match="up to 3 are read"):
        read_drawn(plan_file(small_house))
    monkeypatch.setattr(_dxf_opened, "MOST_BYTES", 100)
    with pytest.raises(BadInput, match="MB"):
        read_drawn(plan_file(small_house))


def test_giant_and_broken_coordinates_are_listed() -> None:
    document = drawn(houses()[0], "pairs")
    space = document.modelspace()
    space.add_line((1e300, 0), (0, 1e300), dxfattribs={"layer": "FAR"})
    space.add_line((1e9, 1e9), (1e9 + 5, 1e9), dxfattribs={"layer": "FAR"})
    space.add_arc((1e200, 0), 1e250, 0, 90, dxfattribs={"layer": "FAR"})
    found = read_drawn(as_bytes(document))
    plan = read_plan(found)
    assert len(plan.walls) == 7 and any("FAR" in note for note in plan.notes)


@pytest.mark.parametrize("seed", range(40))
def test_mutated_files_are_read_or_refused_in_words(seed: int) -> None:
    """Lines of a sound file changed, lost, doubled or put elsewhere: a plan or a refusal, soon."""
    rng = random.Random(seed)
    lines = as_bytes(drawn(rng.choice(houses()), rng.choice(("pairs", "patterned", "over")))).split(b"\n")
    for _ in range(rng.choice((1, 3, 20, 200))):
        k = rng.randrange(len(lines))
        what = rng.randrange(5)
        if what == 0:
            lines[k] = rng.choice((b"1e308", b"nan", b"-1", b"99999999999", b"", b"\xff\xfe", b"INSERT", b"0"))
        elif what == 1:
            del lines[k]
        elif what == 2:
            lines.insert(k, lines[rng.randrange(len(lines))])
        elif what == 3:
            n = rng.randrange(len(lines))
            lines[k], lines[n] = lines[n], lines[k]
        else:
            del lines[k : k + rng.randrange(40)]
    start = time.monotonic()
    try:
        plan = read_plan(read_drawn(b"\n".join(lines)))
        assert plan.walls and all(math.isfinite(wall.length) for wall in plan.walls)
    except BadInput as error:
        assert error.message
    assert time.monotonic() - start < 30


def test_binary_and_old_code_pages_are_read() -> None:
    """Layers named in an old code page come out as they were typed."""
    document = ezdxf.new("R2000", setup=True)
    document.encoding = "cp1252"
    document.header["$INSUNITS"] = 4
    document.modelspace().add_line((0, 0), (5000, 0), dxfattribs={"layer": "WÄNDE"})
    out = io.StringIO()
    document.write(out)
    found = read_drawn(out.getvalue().encode("cp1252"))
    assert found.layers == ["WÄNDE"]


def bare(count: int, set_in: bool) -> bytes:
    """A file of entities alone, as small programs write it: no header, no tables; codes set in or not."""
    house = houses()[0]
    ring = [(x, y) for wall in house.walls for x, y in (wall.start, wall.end)]
    groups: list[tuple[int, object]] = [(0, "SECTION"), (2, "ENTITIES")]
    for k in range(count):
        (x0, y0), (x1, y1) = ring[k % len(ring)], ring[(k + 1) % len(ring)]
        groups += [(0, "LINE"), (8, "0"), (10, x0), (20, y0), (11, x1), (21, y1)]
    groups += [(0, "ENDSEC"), (0, "EOF")]
    return "".join(f"{code:>3}\n{value}\n" if set_in else f"{code}\n{value}\n" for code, value in groups).encode()


@pytest.mark.parametrize("set_in", [True, False])
def test_a_file_without_a_header_states_no_unit(set_in: bool) -> None:
    found = read_drawn(bare(20, set_in))
    assert found.unit is None and len(found.strokes) == 20


@pytest.mark.parametrize("set_in", [True, False])
def test_a_file_of_very_many_things_is_refused_before_it_is_opened(set_in: bool) -> None:
    data = bare(_dxf_opened.MOST_HELD + 10, set_in)
    with pytest.raises(BadInput, match=f"up to {_dxf_opened.MOST_HELD:,} are opened"):
        read_drawn(data)
    # Twice as many on the layer 0 are not taken for so many more.
    assert len(read_drawn(bare(1000, set_in)).strokes) == 1000
