"""What bears a floor, as its framing plan and its structural plan both show it: walls, beams and posts."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator

import shapely

from ...building.kind import PlanOf
from ...drawing import Lettered, Region, Stroke, readable, rings_of
from ...geometry import Frame, polygons_of
from ..posts.placed import BEAMS, POSTS, PlacedBeam
from .lettering_plan import SMALL, beside_line, on_paper
from .place import FloorPlan
from .spans import JoistSize

EDGE = 1.0
"""Walls are shown as far as this (mm) past the floor that they carry."""


def outlines(frame: Frame, area: shapely.Geometry, pen: str, key: str, feature: str) -> Iterator[Lettered]:
    """The outlines of an area of the plan."""
    for polygon in polygons_of(frame.turn(area)):
        for ring in rings_of(polygon):
            yield Stroke(ring, pen, closed=True, part=key, feature=feature)


def walls_below(frame: Frame, flat: FloorPlan, pen: str, feature: str) -> Iterator[Lettered]:
    """The walls below that bear a floor, as far as it goes."""
    beams = [held.area for bay in flat.bays for held in bay.supports if held.sort != "wall"]
    walls = shapely.difference(flat.bearing, shapely.union_all(beams)) if beams else flat.bearing
    walls = shapely.intersection(walls, flat.area.buffer(EDGE, join_style="mitre"))
    yield from outlines(frame, walls, pen, f"{flat.floor.id}/bearing//", feature)


def beams_carrying(shown: PlanOf, flat: FloorPlan) -> list[tuple[PlacedBeam, bool]]:
    """The beams that carry a floor, and whether they are flush with it."""
    flush = {held.name: held.flush for bay in flat.bays for held in bay.supports if held.sort != "wall"}
    beams = shown.placed[BEAMS]
    return [(beam, flush[beam.beam.id]) for beam in beams if beam.beam.id in flush]


def posts_below(shown: PlanOf, carrying: Iterable[tuple[PlacedBeam, bool]], pen: str) -> Iterator[Lettered]:
    """The posts under beams."""
    under = {end.post for beam, _ in carrying for end in (beam.beam.start, beam.beam.end) if end.post}
    for post in shown.placed[POSTS]:
        if post.post.id in under:
            rings = rings_of(shown.frame.turn(post.outline))
            yield Region(rings, fill="poche", pen=pen, part=f"{post.post.id}/post//", feature="post")


def beam_text(shown: PlanOf, beam: PlacedBeam, flush: bool) -> str:
    """What a beam is made of, and where it lies."""
    held, units = beam.beam, shown.project.units
    size = JoistSize.of(held.width / held.plies, held.depth, units).name
    return f"{f'{held.plies} of ' if held.plies > 1 else ''}{size}, {'flush' if flush else 'below'}"


def beside_beam(shown: PlanOf, beam: PlacedBeam, text: str) -> Iterator[Lettered]:
    """Lettering beside a beam, on paper: joists run through below it."""
    (u0, w0), (u1, w1) = (shown.frame.plan_to_turned(*point) for point in (beam.start, beam.end))
    angle = readable(math.degrees(math.atan2(w1 - w0, u1 - u0)))
    a, off = math.radians(angle), beam.beam.width / 2 + (0.9 + SMALL / 2) * shown.scale
    place = ((u0 + u1) / 2 - math.sin(a) * off, (w0 + w1) / 2 + math.cos(a) * off)
    places = beside_line(angle, math.dist((u0, w0), (u1, w1)), text, SMALL, shown.scale)
    about = shapely.LineString([(u0, w0), (u1, w1)]).buffer(beam.beam.width / 2)
    yield on_paper(place, text, SMALL, angle, f"{beam.beam.id}/beam//", places=places, about=about)
