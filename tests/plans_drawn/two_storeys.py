"""A house of two storeys beside each other in one file: walls as closed pieces that butt, stair, levels, north."""

from __future__ import annotations

import io
import math
from typing import Any

import ezdxf

from .stairs import TrueStair, draw_stair

WIDE, DEEP, THICK, INNER = 9600.0, 7200.0, 365.0, 115.0
APART = 14_000.0
STAIR = TrueStair((4290.0, 3000.0), 90.0, (9, 8), "half landing", left=False, width=750.0, well=85.0)
SCREEN = (7450.0, 3500.0)
"""The middle of a screen of 100 on the layer of furniture, which meets no wall."""
SOUTH = {False: ((1500, 3000), (4200, 5210), (6500, 8000)), True: ((1500, 3000), (6500, 8000))}


def two_storeys(turn: float = 0.0, levels: tuple[str, str] | None = ("FFL +0.00", "FFL +2.90")) -> Any:
    """The document, turned by so many degrees."""
    document = ezdxf.new("R2010", units=4)
    space = document.modelspace()
    cos, sin = math.cos(math.radians(turn)), math.sin(math.radians(turn))

    class Turned:
        """The modelspace, with all that is drawn in it turned and beside the first plan."""

        def __init__(self, east: float) -> None:
            self.east = east

        def at(self, point: tuple[float, float]) -> tuple[float, float]:
            x, y = point[0] + self.east, point[1]
            return x * cos - y * sin, x * sin + y * cos

        def add_line(self, a: Any, b: Any, dxfattribs: Any) -> None:
            space.add_line(self.at(a), self.at(b), dxfattribs=dxfattribs)

        def words(self, text: str, at: tuple[float, float], height: float = 150.0) -> None:
            space.add_text(
                text, height=height, rotation=turn, dxfattribs={"insert": self.at(at), "layer": "A-ANNO-TEXT"}
            )

    for number, upper in enumerate((False, True)):
        sheet = Turned(number * APART)
        draw_plan(sheet, upper)
        draw_stair(sheet, STAIR)
        if levels:
            sheet.words(levels[number], (4100, 900))
        sheet.words("FIRST FLOOR PLAN" if upper else "GROUND FLOOR PLAN", (2500, -1500), 300.0)
    held = io.StringIO()
    document.write(held)
    return held.getvalue().encode()


def draw_plan(sheet: Any, upper: bool) -> None:
    def line(a: tuple[float, float], b: tuple[float, float], layer: str) -> None:
        sheet.add_line(a, b, dxfattribs={"layer": layer})

    def piece(x0: float, y0: float, x1: float, y1: float) -> None:
        ring = [(x0, y0), (x1, y0), (x1, y1), (x0, y1)]
        for a, b in zip(ring, [*ring[1:], ring[0]]):
            line(a, b, "A-WALL")

    def wall(level: bool, at: tuple[float, float], ends: tuple[float, float], opens: Any) -> None:
        cuts = [ends[0], *(v for pair in opens for v in pair), ends[1]]
        for a, b in zip(cuts[::2], cuts[1::2]):
            piece(*((a, at[0], b, at[1]) if level else (at[0], a, at[1], b)))

    north, west, east = ((2000, 3500), (6500, 7700)), ((2500, 4000),), ((3000, 4200),)
    wall(True, (0, THICK), (0, WIDE), SOUTH[upper])
    wall(True, (DEEP - THICK, DEEP), (0, WIDE), north)
    wall(False, (0, THICK), (THICK, DEEP - THICK), west)
    wall(False, (WIDE - THICK, WIDE), (THICK, DEEP - THICK), east)
    for x in (3800.0, 5500.0):
        wall(False, (x, x + INNER), (THICK, DEEP - THICK), ((1000, 1885),))
    panes = [(a, b, y) for a, b in SOUTH[upper] if a != 4200 for y in (160, 200)]
    panes += [(a, b, y) for a, b in north for y in (DEEP - 200, DEEP - 160)]
    for a, b, y in panes:
        line((a, y), (b, y), "A-GLAZ")
    for x, (a, b) in ((THICK / 2, west[0]), (WIDE - THICK / 2, east[0])):
        for off in (-20.0, 20.0):
            line((x + off, a), (x + off, b), "A-GLAZ")
    if not upper:
        for y in (140.0, 225.0):  # A leaf that is shut.
            line((4200, y), (5210, y), "A-DOOR")
    x, y = SCREEN
    for off in (-50.0, 50.0):
        line((x + off, y - 1100), (x + off, y + 1100), "A-FURN")
    names = ("BEDROOM 1", "LANDING", "BEDROOM 2") if upper else ("LIVING", "HALL", "KITCHEN")
    for name, where in zip(names, ((1500, 1500), (4400, 1400), (7000, 1500))):
        sheet.words(name, where, 200.0)
