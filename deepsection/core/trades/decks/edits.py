"""Edits of decks: drawn with usual sizes, carried by a beam on posts, and guarded by rails."""

from __future__ import annotations

import math
from collections.abc import Iterator
from itertools import pairwise
from typing import Annotated, ClassVar, Literal

import numpy as np
import shapely
from pydantic import Field
from shapely.geometry import LineString, Polygon

from ...catalog import usual
from ...document.command import Command
from ...document.ids import free_among
from ...document.putting import PutElement
from ...document.rebuilding import get_element, put
from ...document.values import Id, Mm
from ...errors import RefusedEdit
from ...geometry import Point
from ...model.places import away_from_house, house_area
from ...model.project import Project
from ...units import format_length
from ..floors.model import Floor
from ..ground.surface_model import Ground
from ..levels.model import LevelRule, Rung
from ..levels.rises import height_of
from ..makeups.model import MakeUp
from ..outdoors.model import Rail
from ..posts.model import Beam, BeamEnd, Pad, Post
from .model import Deck, DeckCorner

SET_IN = 38.0
"""The middle of a rail stands this far in from the edge of its deck, half of its posts (mm)."""
LOWEST = 50.0
"""A post under a beam is as high as this (mm)."""
LEAST = 300.0
"""An edge shorter than this (mm) gets no rail."""
OWN = "floor-deck"
"""The make-up of decks that ships with projects."""


class PutDeck(PutElement):
    kind: Literal["put_deck"] = "put_deck"
    phrase: ClassVar[str] = "change {name}"
    deck: Deck


class DrawDeck(Command):
    """A deck below a level with usual sizes, whose joists run away from the house."""

    kind: Literal["draw_deck"] = "draw_deck"
    phrase: ClassVar[str] = "draw a deck"
    id: Id
    level: Id
    corners: Annotated[tuple[tuple[Mm, Mm], ...], Field(min_length=3, max_length=60)]

    def apply(self, project: Project) -> Project:
        """The project with the deck. Raises: RefusedEdit, UnknownElement."""
        get_element(project, self.level, Rung)
        framed = [held for held in project.make_ups if held.use == "floor" and any(la.framing for la in held.layers)]
        make_up = next((held for held in framed if held.id == OWN), framed[0] if framed else None)
        if make_up is None:
            raise RefusedEdit("no make-up of floors here has joists to build a deck of", element=self.id)
        taken = len(project.decks)
        floor = next((held for held in project.floors if held.level == self.level), None)
        if floor and house_area(project, self.level).contains(Polygon(self.corners).centroid):
            return put(project, set_down(project, floor, self.id, self.corners))
        deck = Deck(
            id=self.id,
            name=f"Deck {taken + 1}" if taken else "Deck",
            level=self.level,
            make_up=make_up.id,
            corners=tuple(DeckCorner(id=f"c{k}", x=x, y=y) for k, (x, y) in enumerate(self.corners, 1)),
            drop=usual("deck_drop", project.units),
            span="angle",
            angle=away_from_house(project, self.corners),
        )
        return put(project, deck)


def set_down(project: Project, floor: Floor, id: str, corners: tuple[Point, ...]) -> Deck:
    """A floor of its own within another one, as that is: a slab a usual height lower, joists at the same height until
    they are as much shallower as they are set down.
    """
    slab = get_element(project, floor.make_up, MakeUp).is_slab
    names = {held.name for held in project.decks}
    name = next(free for free in (f"{floor.name}, part {n}" for n in range(2, 99)) if free not in names)
    return Deck(
        id=id,
        name=name[:60],
        level=floor.level,
        make_up=floor.make_up,
        corners=tuple(DeckCorner(id=f"c{k}", x=x, y=y) for k, (x, y) in enumerate(corners, 1)),
        drop=usual("set_down", project.units) if slab else 0.0,
        span=floor.span,
        angle=floor.angle,
    )


class CarryDeck(Command):
    """A beam under the outer edge of a deck, square to its joists, on posts on pads."""

    kind: Literal["carry_deck"] = "carry_deck"
    phrase: ClassVar[str] = "lay a beam under {name}"
    deck: Id

    def apply(self, project: Project) -> Project:
        """The project with posts and beams. Raises: RefusedEdit, UnknownElement."""
        deck = get_element(project, self.deck, Deck)
        make_up, units = get_element(project, deck.make_up, MakeUp), project.units
        if deck.span != "angle":
            raise RefusedEdit("joists of this deck run by its shape: turn them first", element=deck.id, field="span")
        depth = make_up.depth
        run = _outwards(project, deck)
        free = shapely.difference(deck.outline, house_area(project, deck.level))
        if free.is_empty:
            raise RefusedEdit("this deck lies within the house", element=deck.id, field="corners")
        points = shapely.get_coordinates(free) @ np.array([run, (-run[1], run[0])]).T
        inner, outer = float(points[:, 0].min()), float(points[:, 0].max())
        edge = points[points[:, 0] > outer - 1.0]
        low, high = float(edge[:, 1].min()), float(edge[:, 1].max())
        width, beam_depth = 2 * usual("member_thickness", units), usual("beam_depth", units)
        post_width = usual("post_width", units)
        along = outer - max(min(usual("deck_overhang", units), (outer - inner) / 5), width / 2)
        low, high = low + post_width / 2, high - post_width / 2
        count = max(1, math.ceil((high - low) / usual("deck_posts", units)))
        spots = [_turned(run, along, low + (high - low) * k / count) for k in range(count + 1)]
        top = LevelRule(level=deck.level, offset=-deck.drop - depth)
        grade = next((rung.id for rung in project.rungs if rung.surface == "grade"), deck.level)
        ground = Ground(0.0, project.spots, project.steps)
        room = min(over_ground(project, top, spot) for spot in spots) - beam_depth
        if room < LOWEST:
            raise RefusedEdit(
                f"joists of {deck.name} lie too near to the ground for a beam under them, which is "
                f"{format_length(beam_depth, units)} deep: there are {format_length(room + beam_depth, units)}",
                element=deck.id,
                field="carry",
                value=room + beam_depth,
                limit=beam_depth + LOWEST,
            )
        ids = free_among({held.id for held in project.elements()}, deck.id[:30])
        pad = Pad(width=usual("pad_width", units), thickness=usual("pad_thickness", units))
        posts = [
            Post(
                id=next(ids),
                x=x,
                y=y,
                width=post_width,
                turn=math.degrees(math.atan2(run[1], run[0])) % 90.0,
                base=LevelRule(level=grade, offset=ground.z(x, y)),
                top=LevelRule(level=deck.level, offset=top.offset - beam_depth),
                pad=pad,
            )
            for x, y in spots
        ]
        beams = [
            Beam(
                id=next(ids),
                start=BeamEnd(post=a.id, past=post_width / 2 if a is posts[0] else 0.0),
                end=BeamEnd(post=b.id, past=post_width / 2 if b is posts[-1] else 0.0),
                width=width,
                depth=beam_depth,
                plies=2,
                top=top,
            )
            for a, b in pairwise(posts)
        ]
        return put(project, *posts, *beams)


class RailDeck(Command):
    """Rails with usual sizes along the free edges of a deck that have none."""

    kind: Literal["rail_deck"] = "rail_deck"
    phrase: ClassVar[str] = "put rails round {name}"
    deck: Id

    def apply(self, project: Project) -> Project:
        """The project with the rails. Raises: RefusedEdit, UnknownElement."""
        deck = get_element(project, self.deck, Deck)
        if shapely.difference(deck.outline, house_area(project, deck.level)).is_empty:
            raise RefusedEdit("this lies within the house: none of its edges is free", element=deck.id, field="rails")
        ids = free_among({held.id for held in project.elements()}, "rail")
        rails = [
            Rail(
                id=next(ids),
                x1=x1,
                y1=y1,
                x2=x2,
                y2=y2,
                base=LevelRule(level=deck.level, offset=-deck.drop),
                height=usual("rail_height", project.units),
                gap=usual("rail_gap", project.units),
            )
            for (x1, y1), (x2, y2) in _unguarded(project, deck)
        ]
        if not rails:
            raise RefusedEdit("every free edge of this deck has its rail", element=deck.id)
        return put(project, *rails)


def over_ground(project: Project, rule: LevelRule, at: Point) -> float:
    """How high a level lies over the ground at a place (mm)."""
    grade = next((rung.id for rung in project.rungs if rung.surface == "grade"), rule.level)
    high, low = (height_of(project.rungs, project.make_ups, level) for level in (rule.level, grade))
    return high + rule.offset - low - Ground(0.0, project.spots, project.steps).z(*at)


def _unguarded(project: Project, deck: Deck) -> Iterator[tuple[Point, Point]]:
    """The free edges of a deck without a rail, set in by half the thickness of its posts."""
    house = house_area(project, deck.level)
    there = shapely.union_all([LineString([(rail.x1, rail.y1), (rail.x2, rail.y2)]) for rail in project.rails]).buffer(
        LEAST / 2
    )
    free = shapely.difference(deck.outline, house)
    inner = free.buffer(-SET_IN, join_style="mitre")
    for piece in getattr(inner, "geoms", [inner]):
        ring = list(shapely.orient_polygons(piece).exterior.coords) if not piece.is_empty else []
        for a, b in pairwise(ring):
            line = LineString([a, b])
            along_house = line.interpolate(0.5, normalized=True).distance(house) < 2 * SET_IN
            if line.length > LEAST and not along_house and line.intersection(there).length < line.length / 2:
                yield a, b


def _outwards(project: Project, deck: Deck) -> Point:
    """Unit vector along the joists of a deck, away from the house."""
    angle = math.radians(deck.angle)
    dx, dy = math.cos(angle), math.sin(angle)
    away = math.radians(away_from_house(project, tuple((corner.x, corner.y) for corner in deck.corners)))
    return (dx, dy) if dx * math.cos(away) + dy * math.sin(away) >= 0.0 else (-dx, -dy)


def _turned(run: Point, along: float, across: float) -> Point:
    return run[0] * along - run[1] * across, run[1] * along + run[0] * across
