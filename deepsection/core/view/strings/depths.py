"""How deep the members are that a section cuts: joists, rafters, beams; per floor and roof, those alike once."""

from __future__ import annotations

import math
from collections import defaultdict

import numpy as np
import shapely
from shapely.geometry import LineString, Polygon

from ...building.parts import Part
from ...drawing import Dimension
from ...drawing.chains import Place, String, stretches
from ...drawing.detail import shown_from
from ...geometry import Point
from .section import SectionFacts

LEVEL_MEMBERS = ("joist", "beam", "slab", "ridge_board")
SLOPED_MEMBERS = ("rafter",)
"""Roles whose depth is measured upright, and square to their slope."""
LIKE = ("beam", "ridge_board", "rafter")
"""Those of one depth are measured once in a section."""
ALONG = 0.7
"""A member is cut along when its axis lies in the section by so much (cosine)."""
SHARES = (0.3, 0.5, 0.7, 0.2, 0.8)
"""Where along a member its depth is measured, the first at which it is whole."""
BESIDE = 2.5
"""Paper mm from a member that is cut across to the line of its depth."""
LEAST = 1.5
"""A depth smaller than this on paper (mm) is not measured."""


def member_depths(facts: SectionFacts) -> String:
    """The depths of members, from 1:25 on or where a view asks for them."""
    name, marks = "inside:depths", list[Dimension]()
    shown = facts.setting.shows(name, usual=shown_from("depths", facts.scale))
    found: dict[tuple[str, str], list[tuple[Part, Polygon]]] = defaultdict(list)
    for part, polygon in facts.cut if shown else ():
        if facts.is_whole(polygon) and (part.role in LEVEL_MEMBERS or part.role in SLOPED_MEMBERS):
            found[part.element, part.role].append((part, polygon))
    middle, said = (facts.box[0] + facts.box[2]) / 2, set[tuple[str, str]]()
    for (element, role), held in found.items():
        ends = [ends for part, polygon in _best_first(held, middle) if (ends := _depth(facts, part, polygon))]
        if not ends or math.dist(*ends[0]) < LEAST * facts.scale:
            continue
        (a, b), key = ends[0], f"string:{name}:{element}:{role}"
        places = [Place(0.0, "bottom"), Place(math.dist(a, b), "top")]
        for piece in stretches(places, facts.setting.measure, facts.scale):
            if role in LIKE and (role, piece.text) in said:
                continue
            said.add((role, piece.text))
            marks.append(Dimension(*a, *b, 0.0, piece.text, feature="depth", annotation=key))
    return String(name, shown, tuple(marks))


def _best_first(held: list[tuple[Part, Polygon]], middle: float) -> list[tuple[Part, Polygon]]:
    """The long ones first, of those that are alike the nearest to the middle of the section."""

    def order(one: tuple[Part, Polygon]) -> tuple[float, float, str]:
        box = one[1].bounds
        return -round(math.hypot(box[2] - box[0], box[3] - box[1])), abs((box[0] + box[2]) / 2 - middle), one[0].key

    return sorted(held, key=order)


def _depth(facts: SectionFacts, part: Part, polygon: Polygon) -> tuple[Point, Point] | None:
    """From its lower side to its upper; none of what is cut across on a slope, or is not whole where it is measured."""
    axis, box = part.axis, polygon.bounds
    frame = facts.frame_at((box[0] + box[2]) / 2)
    along = axis is not None and abs(axis[0] * frame.ux + axis[1] * frame.uy) > ALONG * math.hypot(*axis[:2])
    if part.role in SLOPED_MEMBERS:
        if axis is None or not along:
            return None
        u = axis[0] * frame.ux + axis[1] * frame.uy
        size = math.hypot(u, axis[2])
        across = (-axis[2] / size, u / size) if u > 0 else (axis[2] / size, -u / size)
    else:
        across = (0.0, 1.0)
    if not along:
        side = box[2] + BESIDE * facts.scale
        return (side, box[1]), (side, box[3])
    reach = math.hypot(box[2] - box[0], box[3] - box[1])
    for share in SHARES:
        u, v = _on(polygon, share)
        line = LineString(
            [(u - across[0] * reach, v - across[1] * reach), (u + across[0] * reach, v + across[1] * reach)]
        )
        pieces = shapely.get_parts(shapely.intersection(polygon, line))
        if len(pieces) == 1 and pieces[0].length > 0:
            ends = shapely.get_coordinates(pieces[0])[[0, -1]]
            low, high = ends[np.argsort(ends @ across)].tolist()
            return (low[0], low[1]), (high[0], high[1])
    return None


def _on(polygon: Polygon, share: float) -> Point:
    """The middle of a polygon where it is cut upright at a share of its width."""
    x0, y0, x1, y1 = polygon.bounds
    u = x0 + (x1 - x0) * share
    held = shapely.intersection(polygon, LineString([(u, y0 - 1.0), (u, y1 + 1.0)]))
    middle = shapely.centroid(held)
    return (middle.x, middle.y) if not middle.is_empty else (u, (y0 + y1) / 2)
