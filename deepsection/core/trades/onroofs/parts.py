"""Solids of what goes through roofs, and what it takes from them."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator
from dataclasses import dataclass, replace
from functools import lru_cache

import shapely
from shapely.geometry import Polygon

from ...building.parts import Part, part_key
from ...geometry import Box, Circle, Plane3, Solid, prism, prism_along, slab
from ...model import MakeUp
from ..roofs.slopes import local, place, world
from .place import CAP
from .placed import KEPT_OFF, OnRoofs, PlacedChimney, PlacedFitting

CAP_OUT = 50.0
"""How far the cap of a chimney stands out (mm)."""
PAD_OUT, PAD = 150.0, 300.0
"""How far the footing of a chimney stands out, and how thick it is (mm)."""
FRAME, PANE = 60.0, 8.0
"""Width of the frame of a roof window, and thickness of its glass (mm)."""
COLLAR, SHEET = 100.0, 3.0
"""How far the flashing of a pipe reaches out, and its thickness (mm)."""
BELOW = 600.0
"""How far below the covering a pipe is drawn: from there on it is the plumber's (mm)."""
DECK_HOLE = 0.6
"""Share of a vent's width and length that is open through the deck."""


@dataclass(frozen=True, slots=True)
class Penetration:
    """A hole in a roof: what boards lose in plan, where no member may be, and what covering and deck lose."""

    id: str
    outline: Polygon
    clear: Polygon
    body: Solid

    def meets(self, area: shapely.Geometry) -> bool:
        """Whether it may go through an area in plan."""
        at = self.body.reach
        return bool(shapely.box(at.x0, at.y0, at.x1, at.y1).intersects(area))


def penetrations(held: OnRoofs) -> tuple[Penetration, ...]:
    """Of everything that goes through a roof."""
    return (*map(_of_chimney, held.chimneys), *map(_of_fitting, held.fittings))


@lru_cache(maxsize=256)
def _of_chimney(placed: PlacedChimney) -> Penetration:
    clear = placed.outline.buffer(KEPT_OFF, join_style="mitre")
    return Penetration(
        placed.chimney.id, placed.outline, clear, prism(placed.outline, placed.foot.total, placed.top.total)
    )


@lru_cache(maxsize=256)
def _of_fitting(placed: PlacedFitting) -> Penetration:
    fitting, plane = placed.fitting, placed.plane
    thick = plane.covering / math.hypot(1.0, plane.pitch)
    if fitting.fitting == "pipe":
        return Penetration(fitting.id, placed.outline, placed.outline, _pipe(placed, placed.outline))
    if fitting.fitting == "vent":
        return Penetration(fitting.id, Polygon(), Polygon(), _on_slope(placed, (-thick - 1.0, 1.0), 0.0, DECK_HOLE))
    # Square to the slope through the rafters: what it takes in plan at its upper and at its lower side.
    depth = plane.plumb_depth / math.hypot(1.0, plane.pitch)
    own = local(plane, placed.outline)
    shift = (thick + depth) * plane.pitch / math.hypot(1.0, plane.pitch)
    first, low, last, high = own.bounds
    clear = world(plane, shapely.box(first, low, last, high + shift))
    return Penetration(fitting.id, Polygon(), clear, _on_slope(placed, (-thick - 1.0, fitting.height)))


def _on_slope(placed: PlacedFitting, heights: tuple[float, float], inset: float = 0.0, share: float = 1.0) -> Solid:
    """A box square to the slope about the middle of a fitting, between two heights over the covering."""
    fitting, plane = placed.fitting, placed.plane
    rise = math.hypot(1.0, plane.pitch)
    cos, sin = 1.0 / rise, plane.pitch / rise
    half, up = fitting.width * share / 2 - inset, fitting.length * share / 2 - inset
    z = plane.heel + plane.pitch * placed.inward + plane.covering
    corners = [(-up, heights[0]), (up, heights[0]), (up, heights[1]), (-up, heights[1])]
    profile = Polygon([(placed.inward + s * cos - n * sin, z + s * sin + n * cos) for s, n in corners])
    return prism_along(profile, place(plane, placed.along - half), plane.inward, half * 2)


def _pipe(placed: PlacedFitting, outline: Polygon) -> Solid:
    return prism(outline, placed.top.total - placed.fitting.height - BELOW, placed.top.total)


def chimney_parts(held: OnRoofs, make_ups: dict[str, MakeUp]) -> Iterator[Part]:
    """Every part of the chimneys."""
    for placed in held.chimneys:
        covering = make_ups[placed.make_up].layers[0].material if placed.make_up else None
        yield from _chimney_parts(placed, covering)


def fitting_parts(held: OnRoofs) -> Iterator[Part]:
    """Every part of roof windows, pipes and vents."""
    for fitting in held.fittings:
        yield from _fitting_parts(fitting)


@lru_cache(maxsize=256)
def _chimney_parts(placed: PlacedChimney, covering: str | None) -> tuple[Part, ...]:
    chimney, top = placed.chimney, placed.top.total
    sums = (placed.top.id, placed.foot.id)

    # Courses are laid from the foot of the stack, from a corner of it.
    corner = (*placed.outline.exterior.coords[0], placed.foot.total)

    def part(role: str, material: str, solid: Solid, *, outside: bool = True) -> Part:
        key = part_key(chimney.id, role)
        return Part(
            key, chimney.id, role, material, solid, sums=sums, origin=corner, outside=outside, function="structure"
        )

    foot, cap = placed.foot.total, placed.outline.buffer(CAP_OUT, join_style="mitre")
    pad = placed.outline.buffer(PAD_OUT, join_style="mitre")
    found = [
        part("chimney", chimney.material, prism(placed.outline.difference(placed.flue), foot, top - CAP)),
        part("cap", "concrete", prism(cap.difference(placed.flue), top - CAP, top)),
        part("footing", "concrete", prism(pad, foot - PAD, foot)),
    ]
    cricket, plane = placed.cricket, placed.plane
    if cricket and plane and covering:
        (dx, dy), pitch = (plane.line.dx, plane.line.dy), plane.pitch
        body = prism(cricket.outline, cricket.foot - 1.0, cricket.ridge + 1.0).above(plane.top.lifted(plane.covering))
        for (x, y), sign in zip(cricket.base, (1.0, -1.0)):
            a, b = sign * pitch * dx, sign * pitch * dy
            body = body.below(Plane3(a, b, cricket.foot - a * x - b * y))
        found.append(part("cricket", covering, body))
    return tuple(found)


@lru_cache(maxsize=256)
def _fitting_parts(placed: PlacedFitting) -> tuple[Part, ...]:
    fitting, plane = placed.fitting, placed.plane
    thick = plane.covering / math.hypot(1.0, plane.pitch)

    def part(role: str, material: str, solid: Solid, curve: Circle | None = None) -> Part:
        key = part_key(fitting.id, role)
        sums = (placed.top.id,)
        return Part(key, fitting.id, role, material, solid, sums=sums, function="on_roof", curve=curve)

    if fitting.fitting == "window":
        whole = _on_slope(placed, (-thick, fitting.height))
        through = _on_slope(placed, (-thick - 1.0, fitting.height + 1.0), FRAME)
        pane = _on_slope(placed, (fitting.height - 3 * PANE, fitting.height - 2 * PANE), FRAME)
        return part("roof_frame", "unit_frame", whole.minus([through])), part("roof_glass", "glass", pane)
    if fitting.fitting == "vent":
        return (part("vent", "steel", _on_slope(placed, (0.0, fitting.height))),)
    collar = placed.outline.buffer(COLLAR, join_style="mitre").difference(placed.outline)
    low = plane.top.lifted(plane.covering)
    sheet = slab(collar, low, SHEET)
    curve = Circle(fitting.x, fitting.y, fitting.width / 2)
    return part("pipe", "steel", _pipe(placed, placed.outline), curve), part("collar", "steel", sheet)


def passed(parts: Iterable[Part], held: OnRoofs) -> tuple[Part, ...]:
    """Floors, ceilings and walls without what a chimney takes from them; their members stay clear of it."""
    kept = tuple(parts)
    for placed in held.chimneys:
        x0, y0, x1, y1 = placed.outline.buffer(KEPT_OFF).bounds
        around = Box(x0, y0, placed.foot.total, x1, y1, placed.top.total)
        kept = tuple(_cut_by(part, placed) if part.solid.reach.meets(around) else part for part in kept)
    return kept


@lru_cache(maxsize=2000)
def _cut_by(part: Part, placed: PlacedChimney) -> Part:
    outline = placed.outline.buffer(KEPT_OFF, join_style="mitre") if part.axis else placed.outline
    return replace(part, solid=part.solid.minus([prism(outline, placed.foot.total - 1.0, placed.top.total + 1.0)]))
