"""Strings of dimensions of a wall section: heights outside or inside, what the wall is thick, depths in the ground."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from ...drawing.chains import Place, String, distinct
from ...resolve import PlannedWall
from ...units import HeightSum
from ..strips.place import StripPlace
from .section import FOOTINGS, SectionFacts, clear_spans, height_string, level_strings


def strip_strings(
    facts: SectionFacts, place: StripPlace, heights: Sequence[HeightSum], ground: float | None
) -> Iterator[String]:
    """All strings of a wall section; `ground`: the height of the ground at the wall."""
    for out in (True, False):
        side = "right" if (place.out > 0) == out else "left"
        row = 0
        for name, places in (("openings", _opening(facts, place)), ("ground", _depths(facts, ground))):
            if len(places) > 1:
                string = height_string(facts, f"{side}:{name}", 0, places, usual=out)
                row = max(row, int(string.shown))
                yield string
        clear = distinct(_clear(facts))
        if len(clear) > 1:
            string = height_string(facts, f"{side}:clear", row, clear, usual=out)
            row += int(string.shown)
            yield string
        yield from level_strings(facts, side, heights, row, usual=out)
    yield from layer_strings(facts, place.wall)


def _opening(facts: SectionFacts, place: StripPlace) -> list[Place]:
    """Sills and heads of what is cut, each from the floor of its storey to the top of its wall."""
    found = []
    for wall in facts.building.plan.walls:
        if wall.wall.status != place.wall.wall.status:
            continue
        for placed in facts.building.openings[wall.wall.id]:
            hole = wall.stand(placed.centre).panel(placed.left, placed.right, wall.inner, wall.outer)
            if placed.opening.unit != "niche" and facts.along(hole):
                id, base = placed.opening.id, facts.building.levels[wall.wall.base.level]
                found += [Place(base.z, base.sum.id), Place(placed.sill.total, f"{id}.sill")]
                found.append(Place(placed.head.total, f"{id}.head"))
                top = facts.building.levels.get(wall.wall.top.level)
                found += [Place(top.z, top.sum.id)] if top else []
    return distinct([held for held in found if facts.window.low <= held.at <= facts.window.high])


def _clear(facts: SectionFacts) -> list[Place]:
    """Floors and ceilings of its rooms: how high each is, and how much lies between them."""
    spans = [span for _, *span in clear_spans(facts)]
    return [Place(at, end) for _, low, high in spans for at, end in ((low, "floor"), (high, "ceiling"))]


def _depths(facts: SectionFacts, ground: float | None) -> list[Place]:
    """From the ground to the top and the bottom of the footing."""
    ends = [end for part, polygon in facts.cut if part.role in FOOTINGS for end in polygon.bounds[1::2]]
    if ground is None or not ends or min(ends) > ground:
        return []
    return distinct([Place(min(ends), "bottom"), Place(max(ends), "footing"), Place(ground, "grade")])


def layer_strings(facts: SectionFacts, wall: PlannedWall) -> Iterator[String]:
    """The layers of the wall from face to face, below all else, and the wall, to which they add up."""
    spans = [(layer.layer, span) for layer in wall.layers for span in facts.along(layer.whole)]
    places = distinct([Place(end, id) for id, span in spans for end in span])
    layers = height_string(facts, "bottom:layers", 0, places)
    yield layers
    if len(places) > 2:
        yield height_string(facts, "bottom:wall", int(layers.shown), [places[0], places[-1]])
