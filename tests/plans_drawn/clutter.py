"""What stands beside walls in real drawings: fittings along them, dimensions and hatching taken apart, frames."""

from __future__ import annotations

import math
from typing import Any

from shapely import LineString, box
from shapely.geometry.base import BaseGeometry

from .manners import Sheet, frame
from .truth import TrueHouse, TrueWall


def _lines(space: Any, shape: BaseGeometry, layer: str) -> None:
    for piece in getattr(shape, "geoms", [shape]):
        coords = list(getattr(piece, "exterior", piece).coords)
        for a, b in zip(coords, coords[1:]):  # noqa: RUF007
            space.add_line(a, b, dxfattribs={"layer": layer})


def _inside(house: TrueHouse, wall: TrueWall, along: float) -> int:
    """The side of a wall on which a room is: 1 left, -1 right."""
    x, y = wall.at(along)
    turn = wall.direction(along)
    nx, ny = -math.sin(turn), math.cos(turn)
    reach = wall.thickness / 2 + 300
    left = LineString([(x, y), (x + nx * reach, y + ny * reach)]).length
    middle = house.body(opened=False).convex_hull.centroid
    return 1 if (middle.x - x) * nx + (middle.y - y) * ny > 0 and left else -1


def fittings(sheet: Sheet) -> None:
    """Counters, wardrobes and baths against straight walls, where no opening is: 600, 580 and 750 deep."""
    house, layer = sheet.house, sheet.layers["furniture"]
    body = house.body(opened=False)
    for n, wall in enumerate(house.walls):
        if wall.bulge or wall.length < 2500:
            continue
        deep = (600.0, 580.0, 750.0, 450.0)[n % 4]
        side = _inside(house, wall, wall.length / 2)
        turn = wall.direction(0)
        for share in (0.12, 0.55):
            low, high = wall.length * share, wall.length * share + 1500
            near = [held for held in house.openings if held.wall == n and low - 600 < held.distance < high + 600]
            if near or high > wall.length - 300:
                continue
            corners = []
            for along, out in ((low, 0.5), (high, 0.5), (high, deep), (low, deep)):
                x, y = wall.at(along)
                reach = (wall.thickness / 2 + out) * side
                corners.append((x - math.sin(turn) * reach, y + math.cos(turn) * reach))
            shape = LineString([*corners, corners[0]])
            if not shape.intersects(body.buffer(-1)):
                _lines(sheet.space, shape, layer)
                break


def exploded_dimensions(sheet: Sheet) -> None:
    """Strings of dimensions 400 and 900 mm outside of the outer walls, as lines, ticks and texts."""
    house, layer = sheet.house, sheet.layers["dim"]
    x0, y0, x1, y1 = house.body(opened=False).bounds
    for off in (400.0, 900.0):
        strings = (
            ((x0, y0 - off), (x1, y0 - off)),
            ((x0, y1 + off), (x1, y1 + off)),
            ((x0 - off, y0), (x0 - off, y1)),
        )
        for a, b in strings:
            sheet.space.add_line(a, b, dxfattribs={"layer": layer})
            for x, y in (a, b):
                sheet.space.add_line((x - 60, y - 60), (x + 60, y + 60), dxfattribs={"layer": layer})
                sheet.space.add_line((x, y - 120), (x, y + 250), dxfattribs={"layer": layer})
            text = f"{math.dist(a, b):.0f}"
            middle = (a[0] + b[0]) / 2, (a[1] + b[1]) / 2 + 40
            sheet.space.add_text(text, height=120, dxfattribs={"layer": layer, "insert": middle})


def exploded_hatching(sheet: Sheet) -> None:
    """Lines at 45 degrees through all walls, and tiles of 300 in the first room."""
    house, layer = sheet.house, sheet.layers["hatch"]
    body = house.body(opened=True)
    x0, y0, x1, y1 = body.bounds
    reach = x1 - x0 + y1 - y0
    for k in range(0, int(reach), 90):
        line = LineString([(x0 - (y1 - y0) + k, y0), (x0 + k, y1)]).intersection(body)
        for piece in getattr(line, "geoms", [line]):
            if piece.length > 1:
                a, b = piece.coords[0], piece.coords[-1]
                sheet.space.add_line(a, b, dxfattribs={"layer": layer})
    _, (x, y) = house.rooms[0]
    tiles = box(x - 900, y - 900, x + 900, y + 900).difference(house.body(opened=False).buffer(1))
    for k in range(7):
        for line in (
            ((x - 900 + 300 * k, y - 900), (x - 900 + 300 * k, y + 900)),
            ((x - 900, y - 900 + 300 * k), (x + 900, y - 900 + 300 * k)),
        ):
            held = LineString(line).intersection(tiles)
            if held.length > 1:
                _lines(sheet.space, held, layer)


def framed_units(sheet: Sheet) -> None:
    """Windows as frame, two panes and a sill that stands out; doors with a frame in each jamb, a leaf 40 thick."""
    house, space = sheet.house, sheet.space
    for n, opening in enumerate(house.openings):
        wall = house.walls[opening.wall]
        if wall.bulge or opening.kind == "opening":
            continue
        at, w, t = frame(house, opening), opening.width, wall.thickness
        if opening.kind == "window":
            layer = sheet.layers["window"]
            for a, b, c, d in ((-w / 2, w / 2, -35, 35), (-w / 2, -w / 2 + 60, -35, 35), (w / 2 - 60, w / 2, -35, 35)):
                _ring(space, [at(a, c), at(b, c), at(b, d), at(a, d)], layer)
            for left in (-6, 6):
                space.add_line(at(-w / 2 + 60, left), at(w / 2 - 60, left), dxfattribs={"layer": layer})
            out = t / 2 * (-1 if n % 2 else 1)
            more = out + (-50 if n % 2 else 50)
            _ring(
                space, [at(-w / 2 - 40, out), at(w / 2 + 40, out), at(w / 2 + 40, more), at(-w / 2 - 40, more)], layer
            )
        else:
            layer, side = sheet.layers["door"], 1 if n % 2 else -1
            for a, b in ((-w / 2, -w / 2 + 40), (w / 2 - 40, w / 2)):
                _ring(space, [at(a, -t / 2 - 12), at(b, -t / 2 - 12), at(b, t / 2 + 12), at(a, t / 2 + 12)], layer)
            hinge, r = (-w / 2 + 40) * side, w - 80
            leaf = [(hinge, 0.0), (hinge, r), (hinge + 40 * side, r), (hinge + 40 * side, 0.0)]
            _ring(space, [at(a, t / 2 + c) for a, c in leaf], layer)
            centre, tip, shut = at(hinge, t / 2), at(hinge, t / 2 + r), at(hinge + r * side, t / 2)
            turns = [math.degrees(math.atan2(p[1] - centre[1], p[0] - centre[0])) for p in (shut, tip)]
            if side < 0:
                turns.reverse()
            space.add_arc(centre, r, *turns, dxfattribs={"layer": sheet.layers["swing"]})


def _ring(space: Any, corners: list[tuple[float, float]], layer: str) -> None:
    space.add_lwpolyline(corners, close=True, dxfattribs={"layer": layer})
