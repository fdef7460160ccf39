"""Steps from a deck down to the ground."""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import ClassVar, Literal

import shapely
from shapely.geometry import LineString, MultiLineString, Polygon
from shapely.ops import substring

from ...catalog import usual
from ...document.command import Command
from ...document.ids import free_ids
from ...document.rebuilding import changed, get_element, put, rebuild
from ...document.values import Id
from ...errors import RefusedEdit
from ...model.places import house_area
from ...model.project import Project
from ...units import format_length
from ..levels.model import LevelRule
from ..outdoors.model import OutsideSteps, Rail
from .edits import LEAST, over_ground
from .model import Deck

AT_HOUSE = 100.0
"""What of an edge lies as near as this (mm) to the house is not free."""
CROSSES = 200.0
"""Rails as near as this (mm) to the upper edge of steps are opened there."""
LOW = 3
"""Steps of no more risers have no rails. Source: IRC R311.7.8, handrails from four risers on; from memory."""


class StepDeck(Command):
    """Open steps with usual sizes from the middle of a free edge of a deck; rails there are opened for them."""

    kind: Literal["step_deck"] = "step_deck"
    phrase: ClassVar[str] = "put steps to {name}"
    deck: Id
    corner: Id
    id: Id

    def apply(self, project: Project) -> Project:
        """The project with the steps. Raises: RefusedEdit, UnknownElement."""
        deck, units = get_element(project, self.deck, Deck), project.units
        edge = next((line for corner, line in free_edges(project, deck) if corner == self.corner), None)
        if edge is None:
            raise RefusedEdit("steps lead down from an edge of a deck that is free", element=deck.id, field="steps")
        width = min(usual("deck_steps_width", units), edge.length)
        least = usual("deck_steps_least", units)
        if width < least:
            raise RefusedEdit(
                f"this edge is {format_length(edge.length, units)} long: steps are {format_length(least, units)} wide "
                "at least",
                element=deck.id,
                field="steps",
                value=edge.length,
                limit=least,
            )
        middle, half = edge.interpolate(0.5, normalized=True), width / 2
        gap = substring(edge, edge.length / 2 - half, edge.length / 2 + half).buffer(CROSSES, cap_style="flat")
        high = over_ground(project, LevelRule(level=deck.level, offset=-deck.drop), (middle.x, middle.y))
        steps = OutsideSteps(
            id=self.id,
            x=middle.x,
            y=middle.y,
            turn=_outward(edge),
            width=width,
            going=usual("going", units),
            most_rise=usual("riser", units),
            top=LevelRule(level=deck.level, offset=-deck.drop),
            material="softwood",
            build="strings",
            rails="both" if high > LOW * usual("riser", units) else "none",
        )
        return put(_opened(project, deck.level, gap), steps)


def free_edges(project: Project, deck: Deck) -> Iterator[tuple[str, LineString]]:
    """The edges of a deck away from the house, each by the corner that names it: what of it is free, its inside at the
    left."""
    house = house_area(project, deck.level).buffer(AT_HOUSE, join_style="mitre")
    turned = deck.outline.exterior.is_ccw
    for a, b in deck.edges:
        ends = [(a.x, a.y), (b.x, b.y)] if turned else [(b.x, b.y), (a.x, a.y)]
        for piece in _pieces(LineString(ends).difference(house)):
            if piece.length > LEAST:
                yield a.id, piece
                break


def way_of(edge: LineString) -> str:
    """To which side an edge looks outward, in words."""
    names = ("east", "north-east", "north", "north-west", "west", "south-west", "south", "south-east")
    return names[round(_outward(edge) / 45.0) % 8]


def _outward(edge: LineString) -> float:
    """Which way an edge looks (degrees): corners go round to the left, so that it is to its right."""
    (x0, y0), (x1, y1) = edge.coords[0], edge.coords[-1]
    return round(math.degrees(math.atan2(x0 - x1, y1 - y0)), 6)


def _opened(project: Project, level: Id, gap: Polygon) -> Project:
    """The project with the rails of a level open within an area."""
    ids, rails = free_ids(project, "rail"), list[Rail]()
    for rail in project.rails:
        line = LineString([(rail.x1, rail.y1), (rail.x2, rail.y2)])
        if rail.base.level != level or not line.intersects(gap):
            rails.append(rail)
            continue
        pieces = [piece for piece in _pieces(line.difference(gap)) if piece.length > LEAST]
        for k, piece in enumerate(pieces):
            (x1, y1), (x2, y2) = piece.coords
            rails.append(changed(rail, id=next(ids) if k else rail.id, x1=x1, y1=y1, x2=x2, y2=y2))
    return rebuild(project, rails=tuple(rails))


def _pieces(shape: shapely.Geometry) -> list[LineString]:
    found = list(shape.geoms) if isinstance(shape, MultiLineString) else [shape]
    return [piece for piece in found if isinstance(piece, LineString) and not piece.is_empty]


__all__ = ["StepDeck", "free_edges", "way_of"]
