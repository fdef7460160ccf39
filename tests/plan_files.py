"""Floor plans as DXF files, made with ezdxf for the tests."""

from __future__ import annotations

import io
from collections.abc import Callable
from typing import Any

import ezdxf


def plan_file(draw: Callable[[Any], None], *, insunits: int = 4) -> bytes:
    """A DXF file whose model space `draw` fills."""
    document = ezdxf.new("R2010")
    document.header["$INSUNITS"] = insunits
    for name, width in (("WINDOW-1800", 1800.0), ("DOOR-900", 900.0)):
        block = document.blocks.new(name)
        block.add_lwpolyline([(-width / 2, -50), (width / 2, -50), (width / 2, 50), (-width / 2, 50)], close=True)
    draw(document.modelspace())
    out = io.StringIO()
    document.write(out)
    return out.getvalue().encode()


def small_house(space: Any) -> None:
    """10 m x 7 m, a wall across with a doorway of 900, a wall off it, a window and a door block, and some furniture."""
    space.add_lwpolyline([(0, 0), (10000, 0), (10000, 7000), (0, 7000)], close=True, dxfattribs={"layer": "WALL-OUTER"})
    space.add_line((6000, 0), (6000, 2500), dxfattribs={"layer": "WALL-INNER"})
    space.add_line((6000, 3400), (6000, 7000), dxfattribs={"layer": "WALL-INNER"})
    space.add_line((6000, 4500), (10000, 4500), dxfattribs={"layer": "WALL-INNER"})
    space.add_blockref("WINDOW-1800", (3000, 0))
    space.add_blockref("DOOR-900", (8000, 7000))
    space.add_circle((2000, 2000), 400, dxfattribs={"layer": "FURNITURE"})
    space.add_text("Living", dxfattribs={"layer": "NOTES"})
