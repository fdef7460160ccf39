"""What a wall section leaves out of floors and ceilings inside of the wall, for it to be as wide as is stated."""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Sequence

from ...drawing.cropping import Window
from ...geometry import Point
from ...model import InsideBreak
from ...resolve import ROLES, Building
from ..cut import CutPart
from .breaks import GAP, KEEP, LEAST, Feature, breaks_to_fit, most_saved, plain_stretches
from .gaps import Said, most_covering, stated_spans
from .place import StripPlace

WIDE = 300.0
"""What is cut this wide (mm) and fills its box less than FULL goes up or down: a break would part it."""
FULL = 0.98


def gaps_across(
    place: StripPlace, building: Building, cut: Sequence[CutPart], whole: Window, scale: float
) -> tuple[list[Point], Said]:
    """From-to of what is left out inside of the wall, from left to right, for a strip to be as wide as is stated."""
    held = place.held
    keep, gap, least = KEEP * scale, GAP * scale, LEAST * scale
    ends = sorted((place.inner, whole.left if place.out > 0 else whole.right))
    if held.inside_breaks is not None:
        features = [Feature(end, end, "edge") for end in ends] + _across(building, cut, whole)
        spans = [_span(place, one) for one in held.inside_breaks]
        found, said = stated_spans(spans, features, keep, "Inside break", f"of wall section {held.name}")
        return [span for span in found if ends[0] < span[0] and span[1] < ends[1]], said
    if held.wide is None:
        return [], ()
    plain = plain_stretches(_across(building, cut, whole), ends[0] + keep, ends[1] - keep, keep)
    excess = whole.right - whole.left - held.wide * scale
    fitting = breaks_to_fit(plain, excess, gap, least)
    if fitting is not None:
        return fitting, ()
    needs = (whole.right - whole.left - most_saved(plain, gap, least)) / scale
    message = (
        f"Wall section {held.name} does not fit on {held.wide:g} mm of paper from side to side at 1:{scale:g}, even "
        f"with breaks: it needs {needs:.0f} mm. Give it more, or show less of what lies inside."
    )
    return [span for span in plain if span[1] - span[0] >= gap + least], (message,)


def _span(place: StripPlace, held: InsideBreak) -> Point:
    """From-to (u) of a stated break."""
    low, high = sorted(place.inner - place.out * at for at in (held.inward, held.inward + held.wide))
    return low, high


def stated_inside(place: StripPlace, gaps: Sequence[Point], which: int) -> tuple[int, tuple[InsideBreak, ...]]:
    """(number, breaks) of a wall section in which one of its gaps inside is stated as it is drawn, to be moved.

    Other breaks that it states stay as they are stated; where it states none, all are stated as they are drawn.
    """
    stated, own = place.held.inside_breaks, [_stated_as(place, gap) for gap in gaps]
    if stated is None:
        return which, tuple(own)
    number = most_covering([_span(place, one) for one in stated], gaps[which])
    return number, (*stated[:number], own[which], *stated[number + 1 :])


def _stated_as(place: StripPlace, gap: Point) -> InsideBreak:
    """A gap as a break inward of the inner face."""
    near = min(place.out * (place.inner - u) for u in gap)
    return InsideBreak(inward=max(near, 0.0), wide=gap[1] - gap[0])


def _across(building: Building, cut: Sequence[CutPart], whole: Window) -> list[Feature]:
    """What matters from left to right: both sides of what stands, the ends of what lies, what slopes."""
    project = building.placed.project
    groups = [[held.id for held in group] for group in (project.floors, project.ceilings, project.decks, project.roofs)]
    flat = {id for group in groups for id in group}
    found, lying = list[Feature](), defaultdict[str, list[Point]](list)
    for one in cut:
        x0, y0, x1, y1 = one.polygon.bounds
        slopes = x1 - x0 > WIDE and one.polygon.area < FULL * (x1 - x0) * (y1 - y0)
        if one.part.element in flat and not slopes:
            lying[one.part.element].append((x0, x1))
        else:
            ends = [(x0, x1)] if slopes else [(x0, x0), (x1, x1)]
            found += [Feature(a, b, ROLES[one.part.role].words) for a, b in ends]
    for spans in lying.values():
        end = -math.inf
        for a, b in sorted(spans):
            if a > end + 1.0:
                found += [Feature(at, at, "edge") for at in (end, a) if math.isfinite(at)]
            end = max(end, b)
        found.append(Feature(end, end, "edge"))
    return [held for held in found if whole.left + 1.0 < held.high and held.low < whole.right - 1.0]
