"""Twelve manners of drawing one plan."""

from __future__ import annotations

import io
import itertools
import math
import random
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

import ezdxf
from shapely import LinearRing, Polygon
from shapely import box as Box

from .pen import Edge, draw_edge, draw_ring, edges
from .truth import Spot, TrueHouse, TrueOpening, TrueWall, rings


@dataclass
class Sheet:
    """A drawing that is made: its document, and how its lengths become those of the file."""

    house: TrueHouse
    document: Any
    layers: dict[str, str]

    @property
    def space(self) -> Any:
        return self.document.modelspace()


LAYERS = {
    "wall": "A-WALL",
    "door": "A-DOOR",
    "window": "A-GLAZ",
    "furniture": "A-FURN",
    "text": "A-ANNO-TEXT",
    "dim": "A-ANNO-DIMS",
    "hatch": "A-WALL-PATT",
    "swing": "A-DOOR-SWINGS",
}
GERMAN = {
    "wall": "Wände tragend",
    "door": "Türen",
    "window": "Fenster",
    "furniture": "Möbel",
    "text": "Beschriftung",
    "dim": "Bemaßung",
    "hatch": "Schraffur",
    "swing": "Türflügel",
}
NAMELESS = {key: f"L{n:02d}" for n, key in enumerate(LAYERS, 3)}
ONE = dict.fromkeys(LAYERS, "0")


def frame(house: TrueHouse, opening: TrueOpening) -> Callable[[float, float], Spot]:
    """A place beside the middle of an opening: along its wall, to the left of it."""
    wall = house.walls[opening.wall]
    x, y = wall.at(opening.distance)
    turn = wall.direction(opening.distance)
    cos, sin = math.cos(turn), math.sin(turn)
    return lambda along, left: (x + along * cos - left * sin, y + along * sin + left * cos)


def draw_door(space: Any, house: TrueHouse, opening: TrueOpening, door: str, swing: str) -> None:
    """Leaf and arc; the hinge at the low end, to the left."""
    at, w, t = frame(house, opening), opening.width, house.walls[opening.wall].thickness
    hinge, tip, shut = at(-w / 2, t / 2), at(-w / 2, t / 2 + w), at(w / 2, t / 2)
    space.add_line(hinge, tip, dxfattribs={"layer": door})
    first, last = (math.degrees(math.atan2(p[1] - hinge[1], p[0] - hinge[0])) for p in (shut, tip))
    space.add_arc(hinge, w, first, last, dxfattribs={"layer": swing})


def draw_window(space: Any, house: TrueHouse, opening: TrueOpening, layer: str) -> None:
    """Three lines from jamb to jamb: faces and glass."""
    wall = house.walls[opening.wall]
    t = wall.thickness
    if not wall.bulge:
        at, w = frame(house, opening), opening.width
        for left in (-t / 2, 0.0, t / 2):
            space.add_line(at(-w / 2, left), at(w / 2, left), dxfattribs={"layer": layer})
        return
    (cx, cy), radius = wall.circle
    ends = [wall.at(opening.distance + side * opening.width / 2) for side in (-1, 1)]
    if wall.bulge < 0:
        ends.reverse()
    first, last = (math.degrees(math.atan2(y - cy, x - cx)) for x, y in ends)
    for left in (-t / 2, 0.0, t / 2):
        space.add_arc((cx, cy), radius + left, first, last, dxfattribs={"layer": layer})


def draw_units(sheet: Sheet) -> None:
    for opening in sheet.house.openings:
        if opening.kind == "door":
            draw_door(sheet.space, sheet.house, opening, sheet.layers["door"], sheet.layers["swing"])
        elif opening.kind == "window":
            draw_window(sheet.space, sheet.house, opening, sheet.layers["window"])


def draw_texts(sheet: Sheet) -> None:
    for name, (x, y) in sheet.house.rooms:
        sheet.space.add_text(name, height=200, dxfattribs={"layer": sheet.layers["text"], "insert": (x - 400, y)})


def draw_dims(sheet: Sheet) -> None:
    """The overall length and width, beside the house."""
    for wall in sheet.house.walls[:2]:
        if wall.bulge:
            continue
        angle = math.degrees(wall.direction(0))
        nx, ny = math.sin(math.radians(angle)), -math.cos(math.radians(angle))
        base = (wall.start[0] + nx * 1500, wall.start[1] + ny * 1500)
        override = {"dimtxt": 180, "dimasz": 120, "dimlfac": 1.0, "dimpost": "<>"}
        dim = sheet.space.add_linear_dim(
            base, wall.start, wall.end, angle=angle, override=override, dxfattribs={"layer": sheet.layers["dim"]}
        )
        dim.render()


def draw_furniture(sheet: Sheet) -> None:
    """A table with chairs, a bed, a wardrobe near a wall, a round table, a sofa, in the middle of rooms."""
    space, layer = sheet.space, {"layer": sheet.layers["furniture"]}

    body = sheet.house.body(opened=False)

    def box(x: float, y: float, w: float, d: float) -> None:
        if body.intersects(Box(x, y, x + w, y + d)):
            return
        space.add_lwpolyline([(x, y), (x + w, y), (x + w, y + d), (x, y + d)], close=True, dxfattribs=layer)

    for k, (_, (x, y)) in enumerate(sheet.house.rooms):
        if k % 3 == 0:
            box(x - 700, y - 500, 1400, 800)
            for dx in (-500, 100):
                box(x + dx, y + 350, 420, 420)
                box(x + dx, y - 970, 420, 420)
        elif k % 3 == 1:
            box(x - 900, y - 1000, 1900, 850)
            box(x - 900, y - 1000, 1900, 220)
            space.add_circle((x, y + 700), 350, dxfattribs=layer)
        else:
            box(x - 800, y - 900, 1600, 1900)
            box(x - 700, y + 450, 600, 400)
            box(x + 100, y + 450, 600, 400)


def wall_edges(house: TrueHouse, *, opened: bool) -> list[list[Edge]]:
    circles = house.circles()
    return [edges(ring, circles) for ring in rings(house.body(opened=opened))]


def pairs(sheet: Sheet) -> None:
    for ring in wall_edges(sheet.house, opened=True):
        for edge in ring:
            draw_edge(sheet.space, edge, sheet.layers["wall"])
    draw_units(sheet)


def closed(sheet: Sheet) -> None:
    for ring in wall_edges(sheet.house, opened=True):
        draw_ring(sheet.space, ring, sheet.layers["wall"])
    draw_units(sheet)


def outlines(sheet: Sheet) -> None:
    for ring in wall_edges(sheet.house, opened=False):
        draw_ring(sheet.space, ring, sheet.layers["wall"])
    draw_blocks(sheet)


def centres(sheet: Sheet) -> None:
    """Wide polylines along the axes, broken at openings."""
    for index, wall in enumerate(sheet.house.walls):
        cuts = sorted(
            (held.distance - held.width / 2, held.distance + held.width / 2)
            for held in sheet.house.openings
            if held.wall == index
        )
        low = 0.0
        for a, b in [*cuts, (wall.length, wall.length)]:
            share = (a - low) / wall.length
            bulge = math.tan(math.atan(wall.bulge) * share) if wall.bulge else 0.0
            sheet.space.add_lwpolyline(
                [(*wall.at(low), bulge), (*wall.at(a), 0)],
                format="xyb",
                dxfattribs={"layer": sheet.layers["wall"], "const_width": wall.thickness},
            )
            low = b
    draw_units(sheet)


def hatched(sheet: Sheet, *, pattern: bool) -> None:
    area = sheet.house.body(opened=True)
    circles = sheet.house.circles()
    for polygon in getattr(area, "geoms", [area]):
        hatch = sheet.space.add_hatch(dxfattribs={"layer": sheet.layers["hatch"]})
        if pattern:
            hatch.set_pattern_fill("ANSI31", scale=20)
        for ring in rings(polygon):
            held = edges(ring, circles)
            hatch.paths.add_polyline_path([(*edge.a, edge.bulge) for edge in held], is_closed=True)
            if pattern:
                draw_ring(sheet.space, held, sheet.layers["wall"])
    draw_units(sheet)


def solids(sheet: Sheet) -> None:
    hatched(sheet, pattern=False)


def patterned(sheet: Sheet) -> None:
    hatched(sheet, pattern=True)


def wall_blocks(sheet: Sheet) -> None:
    """A block per straight piece of wall, scaled along and across; bows as closed outlines."""
    block = sheet.document.blocks.new("WALL_UNIT")
    block.add_lwpolyline([(0, -0.5), (1, -0.5), (1, 0.5), (0, 0.5)], close=True)
    area = sheet.house.body(opened=True)
    layer = {"layer": sheet.layers["wall"]}
    for index, wall in enumerate(sheet.house.walls):
        if wall.bulge:
            only = TrueHouse(
                "",
                (wall,),
                tuple(TrueOpening(0, o.distance, o.width, o.kind) for o in sheet.house.openings if o.wall == index),
                (),
            )
            for ring in rings(only.body(opened=True)):
                draw_ring(sheet.space, edges(ring, only.circles()), sheet.layers["wall"])
            continue
        turn = wall.direction(0)
        cuts = sorted(
            (held.distance - held.width / 2, held.distance + held.width / 2)
            for held in sheet.house.openings
            if held.wall == index
        )
        low = 0.0
        for a, b in [*cuts, (wall.length, wall.length)]:
            sheet.space.add_blockref(
                "WALL_UNIT",
                wall.at(low),
                dxfattribs={"xscale": a - low, "yscale": wall.thickness, "rotation": math.degrees(turn), **layer},
            )
            low = b
    assert area.area > 0
    draw_units(sheet)


def draw_blocks(sheet: Sheet) -> None:
    """Doors and windows as blocks of unit width, scaled to it, with attributes; their doors mirrored now and then."""
    for name in ("T-DOOR 01", "F-WINDOW 01"):
        block = sheet.document.blocks.new(name)
        for k, tag in enumerate(("NUMBER", "WIDTH", "HEIGHT", "SILL")):
            block.add_attdef(tag, (0, 0.3 + k * 0.1), dxfattribs={"height": 0.08, "layer": "0"})
        if "DOOR" in name:
            block.add_line((-0.5, 0), (-0.5, 1))
            block.add_arc((-0.5, 0), 1, 0, 90)
        else:
            block.add_lwpolyline([(-0.5, -0.08), (0.5, -0.08), (0.5, 0.08), (-0.5, 0.08)], close=True)
            block.add_line((-0.5, 0), (0.5, 0))
    for number, opening in enumerate(sheet.house.openings):
        if opening.kind == "opening":
            continue
        wall = sheet.house.walls[opening.wall]
        name, layer = ("T-DOOR 01", "door") if opening.kind == "door" else ("F-WINDOW 01", "window")
        flip = -1 if opening.kind == "door" and number % 2 else 1
        ref = sheet.space.add_blockref(
            name,
            wall.at(opening.distance),
            dxfattribs={
                "xscale": opening.width,
                "yscale": opening.width * flip,
                "zscale": opening.width,
                "rotation": math.degrees(wall.direction(opening.distance)),
                "layer": sheet.layers[layer],
            },
        )
        ref.add_auto_attribs(
            {
                "NUMBER": opening.number,
                "WIDTH": f"{opening.width:.0f}",
                "HEIGHT": "2100" if opening.kind == "door" else "1200",
                "SILL": "0" if opening.kind == "door" else "900",
            }
        )


def over(sheet: Sheet) -> None:
    for ring in wall_edges(sheet.house, opened=False):
        for edge in ring:
            draw_edge(sheet.space, edge, sheet.layers["wall"])
    draw_blocks(sheet)


def gaps(sheet: Sheet) -> None:
    for ring in wall_edges(sheet.house, opened=True):
        for edge in ring:
            draw_edge(sheet.space, edge, sheet.layers["wall"])


def everything(sheet: Sheet) -> None:
    pairs(sheet)
    draw_furniture(sheet)
    stairs(sheet)


def stairs(sheet: Sheet) -> None:
    """Eight treads in the last room."""
    _, (x, y) = sheet.house.rooms[-1]
    for k in range(8):
        sheet.space.add_line(
            (x - 900 + 250 * k, y - 1900),
            (x - 900 + 250 * k, y - 1050),
            dxfattribs={"layer": sheet.layers["furniture"]},
        )


def layered(sheet: Sheet) -> None:
    """Pairs, and the lines between the layers of outer walls where a house has them."""
    pairs(sheet)
    house = sheet.house
    outer = [wall for wall in house.walls if wall.layers]
    if not outer:
        return
    corners = [wall.start for wall in outer]
    around = Polygon(corners)
    holes = [house.hole(held) for held in house.openings]
    offset = outer[0].thickness / 2
    inward = -1.0
    for depth in outer[0].layers[:-1]:
        offset -= depth
        line = LinearRing(around.buffer(offset, join_style="mitre", mitre_limit=9).exterior)
        cut = line.difference(Polygon())
        for hole in holes:
            cut = cut.difference(hole)
        for piece in getattr(cut, "geoms", [cut]):
            spots = list(piece.coords)
            for a, b in itertools.pairwise(spots):
                sheet.space.add_line(a, b, dxfattribs={"layer": sheet.layers["wall"]})
    assert inward


MANNERS: dict[str, tuple[Callable[[Sheet], None], dict[str, str]]] = {
    "pairs": (pairs, LAYERS),
    "closed": (closed, LAYERS),
    "outlines": (outlines, LAYERS),
    "centres": (centres, LAYERS),
    "solids": (solids, LAYERS),
    "patterned": (patterned, LAYERS),
    "wall blocks": (wall_blocks, GERMAN),
    "over": (over, LAYERS),
    "gaps": (gaps, LAYERS),
    "everything": (everything, ONE),
    "layered": (layered, NAMELESS),
    "german": (pairs, GERMAN),
}


def drawn(house: TrueHouse, manner: str, *, insunits: int = 4) -> Any:
    """A document with the plan of a house in one of the manners."""
    draw, layers = MANNERS[manner]
    document = ezdxf.new("R2010", setup=True)
    document.header["$INSUNITS"] = insunits
    sheet = Sheet(house, document, layers)
    draw(sheet)
    draw_texts(sheet)
    draw_dims(sheet)
    return document


def as_bytes(document: Any) -> bytes:
    out = io.StringIO()
    document.write(out)
    return out.getvalue().encode("utf-8")


__all__ = ["MANNERS", "Sheet", "TrueWall", "as_bytes", "drawn", "random"]
