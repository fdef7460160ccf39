"""Edits of backgrounds: how they lie under their view is said by points that are pointed at."""

from __future__ import annotations

import math
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from ...document.command import Command
from ...document.putting import PutElement
from ...document.rebuilding import changed, put
from ...document.values import Element, Id, Mm, Positive
from ...errors import RefusedEdit
from ...model.project import Project
from .model import Background, Crop, ModelBody

APART = 1.0
"""Two points of a background that say something lie at least so far apart (mm in the view)."""
LEAST_CROP = 1e-3
"""Of the size of a page, what is left of it is at least so much."""


class PutBackground(PutElement):
    kind: Literal["put_background"] = "put_background"
    phrase: ClassVar[str] = "change background {name}"
    adding: ClassVar[str] = "lay {name} under a view"
    background: Background


class PutModelBody(PutElement):
    kind: Literal["put_model_body"] = "put_model_body"
    phrase: ClassVar[str] = "change grey body {name}"
    adding: ClassVar[str] = "show {name} as a grey body"
    body: ModelBody


class Spot(Element):
    """A point of a view (mm)."""

    x: Mm
    y: Mm


class _OfBackground(Command):
    """What is done to one background."""

    background: Id

    def _held(self, project: Project) -> Background:
        found = next((held for held in project.backgrounds if held.id == self.background), None)
        if found is None:
            raise RefusedEdit(f"there is no background “{self.background}”", element=self.background)
        return found

    def _way(self, a: Spot, b: Spot) -> tuple[float, float]:
        """How far apart two points lie (mm), and in which direction (radians). Raises: RefusedEdit."""
        far = math.dist((a.x, a.y), (b.x, b.y))
        if far < APART:
            raise RefusedEdit("these two points lie on each other; choose two that lie apart", element=self.background)
        return far, math.atan2(b.y - a.y, b.x - a.x)


class ScaleBackground(_OfBackground):
    """So large that two of its points are as far apart as they are known to be; the first stays where it is."""

    kind: Literal["scale_background"] = "scale_background"
    phrase: ClassVar[str] = "set the scale of a background"
    points: tuple[Spot, Spot]
    length: Positive

    def apply(self, project: Project) -> Project:
        """The project with it. Raises: RefusedEdit."""
        held = self._held(project)
        far, _ = self._way(*self.points)
        return put(project, _lying(held, self.points[0], self.points[0], self.length / far, 0.0))


class LayBackground(_OfBackground):
    """Points of it on points of the view: one moves it; two turn and, unless its scale is `kept`, size it too."""

    kind: Literal["lay_background"] = "lay_background"
    phrase: ClassVar[str] = "lay a background on its place"
    points: Annotated[tuple[Spot, ...], Field(min_length=1, max_length=2)]
    onto: Annotated[tuple[Spot, ...], Field(min_length=1, max_length=2)]
    kept: bool = False

    def apply(self, project: Project) -> Project:
        """The project with it. Raises: RefusedEdit."""
        held = self._held(project)
        if len(self.points) != len(self.onto):
            raise RefusedEdit("as many points of the view as of the background are needed", element=held.id)
        by, turn = 1.0, 0.0
        if len(self.points) == 2:
            (was, way), (now, goal) = self._way(*self.points), self._way(*self.onto)
            by, turn = 1.0 if self.kept else now / was, goal - way
        return put(project, _lying(held, self.points[0], self.onto[0], by, turn))


class StraightenBackground(_OfBackground):
    """Turned by the least angle that brings two of its points level, or one over the other; the first stays."""

    kind: Literal["straighten_background"] = "straighten_background"
    phrase: ClassVar[str] = "straighten a background"
    points: tuple[Spot, Spot]

    def apply(self, project: Project) -> Project:
        """The project with it. Raises: RefusedEdit."""
        held = self._held(project)
        _, way = self._way(*self.points)
        turn = -math.remainder(way, math.pi / 2)
        return put(project, _lying(held, self.points[0], self.points[0], 1.0, turn))


class CropBackground(_OfBackground):
    """Shown of it is what lies between two opposite corners; all of it where none are named."""

    kind: Literal["crop_background"] = "crop_background"
    phrase: ClassVar[str] = "crop a background"
    corners: tuple[Spot, Spot] | None = None

    def apply(self, project: Project) -> Project:
        """The project with it. Raises: RefusedEdit."""
        held = self._held(project)
        if self.corners is None:
            return put(project, changed(held, crop=None))
        (xa, ya), (xb, yb) = (held.on_page(spot.x, spot.y) for spot in self.corners)
        wide, high = held.size.width, held.size.height
        x0, x1 = sorted(min(max(x, 0.0), wide) for x in (xa, xb))
        y0, y1 = sorted(min(max(y, 0.0), high) for y in (ya, yb))
        if x1 - x0 < LEAST_CROP * wide or y1 - y0 < LEAST_CROP * high:
            raise RefusedEdit("nothing of the background lies between these corners", element=held.id)
        return put(project, changed(held, crop=Crop(left=x0, bottom=y0, right=x1, top=y1)))


def _lying(held: Background, a: Spot, onto: Spot, by: float, turn: float) -> Background:
    """A background turned (radians) and made larger about the point at `a`, which comes to lie `onto` another."""
    page = held.on_page(a.x, a.y)
    degrees = math.remainder(held.turn + math.degrees(turn), 360.0)
    # What is meant to be straight is straight.
    degrees = round(degrees) if abs(degrees - round(degrees)) < 1e-9 else degrees
    turned = changed(held, scale=held.scale * by, turn=degrees)
    x, y = turned.on_view(*page)
    lying: Background = changed(turned, x=turned.x + onto.x - x, y=turned.y + onto.y - y)
    return lying
