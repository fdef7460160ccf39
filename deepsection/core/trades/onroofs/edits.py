"""Chimneys, windows, pipes and vents put on a roof, and downpipes on its eaves, with usual sizes."""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import ClassVar, Literal

import shapely
from pydantic import Field
from shapely.geometry import Polygon

from ...catalog import usual
from ...document.command import Command
from ...document.putting import PutElement
from ...document.rebuilding import changed, put
from ...document.values import Id, Mm
from ...errors import RefusedEdit
from ...geometry import Line, Point, line_through
from ...model.places import corner_point, roof_sides
from ...model.project import Project
from ..levels.model import LevelRule
from ..roofs.edits.roofs import plain_shape
from ..roofs.model import SLOPING, RoofBlock
from .model import ON_ROOFS, Chimney, Downpipe, RoofFitting


class PutChimney(PutElement):
    kind: Literal["put_chimney"] = "put_chimney"
    phrase: ClassVar[str] = "change a chimney"
    chimney: Chimney


class PutFitting(PutElement):
    kind: Literal["put_fitting"] = "put_fitting"
    phrase: ClassVar[str] = "change a {name}"
    fitting: RoofFitting


class PutDownpipe(PutElement):
    kind: Literal["put_downpipe"] = "put_downpipe"
    phrase: ClassVar[str] = "change a downpipe"
    pipe: Downpipe


OnRoof = Literal["chimney", "window", "pipe", "vent", "downpipe"]
BESIDE = 3000.0
"""A downpipe is hung on an eave this close to the place that is pointed at (mm)."""


class AddOnRoof(Command):
    """Something with usual sizes on the roof over a place; a downpipe at the eave nearest to it, with its gutter."""

    kind: Literal["add_on_roof"] = "add_on_roof"
    phrase: ClassVar[str] = "put a {name} on the roof"
    id: Id
    what: OnRoof = Field(description="chimney, roof window, pipe, vent or downpipe")
    x: Mm
    y: Mm

    def words(self, project: Project) -> str:
        """What is put on the roof."""
        return self.phrase.format(name=ON_ROOFS[self.what])

    def apply(self, project: Project) -> Project:
        """The project with it. Raises: RefusedEdit, where there is no roof or no eave."""
        here, units = (self.x, self.y), project.units
        if self.what == "downpipe":
            return self._downpipe(project)
        if self.what == "chimney":
            chimney = Chimney(
                id=self.id,
                x=self.x,
                y=self.y,
                width=usual("chimney_width", units),
                depth=usual("chimney_depth", units),
                flue=usual("flue", units),
                turn=_turned(project, here),
                material="brick_modular" if units == "ft-in" else "brick",
                base=LevelRule(level=_lowest(project)),
            )
            return put(project, chimney)
        if not any(_covers(project, roof, here) for roof in project.roofs):
            message = "there is no roof here: click on the slope that it goes through"
            raise RefusedEdit(message, element=self.id, field="x")
        names = {
            "window": ("roof_window_width", "roof_window_length", "roof_window_height"),
            "pipe": ("pipe_width", "pipe_width", "pipe_height"),
            "vent": ("vent_width", "vent_width", "vent_height"),
        }[self.what]
        width, length, height = (usual(name, units) for name in names)
        fitting = RoofFitting(
            id=self.id, fitting=self.what, x=self.x, y=self.y, width=width, length=length, height=height
        )
        return put(project, fitting)

    def _downpipe(self, project: Project) -> Project:
        near = min(_eaves(project, (self.x, self.y)), key=lambda found: found[0], default=None)
        if near is None or near[0] > BESIDE:
            message = "there is no eave here: click near the eave whose gutter it drains"
            raise RefusedEdit(message, element=self.id, field="edge")
        _, roof, edge, line = near
        pipe = Downpipe(
            id=self.id, roof=roof.id, edge=str(roof.edges[edge].id), distance=max(0.0, line.along((self.x, self.y))),
            size=usual("downpipe", project.units),
        )  # fmt: skip
        hung = roof if roof.gutter else changed(roof, gutter=usual("gutter", project.units))
        return put(project, hung, pipe)


def _eaves(project: Project, point: Point) -> Iterator[tuple[float, RoofBlock, int, Line]]:
    """(distance, roof, edge, its line) of every eave."""
    for roof in project.roofs:
        for k, (start, end) in enumerate(roof_sides(project, roof)):
            if roof.edges[k].kind in SLOPING:
                away = shapely.LineString([start, end]).distance(shapely.Point(point))
                yield float(away), roof, k, line_through(start, end)


def _covers(project: Project, roof: RoofBlock, point: Point) -> bool:
    """Whether a roof with its overhangs lies over a place."""
    reach = max((edge.overhang for edge in roof.edges), default=0.0) + 300.0
    outline = Polygon([corner_point(project, corner) for corner in roof.outline])
    return bool(outline.buffer(reach).contains(shapely.Point(point)))


def _turned(project: Project, point: Point) -> float:
    """The angle (degrees) of the eave of the slope over a place, else of the nearest: a stack stands square to it."""
    spot = shapely.Point(point)
    for roof in project.roofs:
        if _covers(project, roof, point):
            for plane in plain_shape(project, roof).planes:
                if Polygon([vertex[:2] for vertex in plane.vertices]).covers(spot):
                    return _angle(plane.base[0])
    near = min(_eaves(project, point), key=lambda found: found[0], default=None)
    return _angle(near[3]) if near else 0.0


def _angle(line: Line) -> float:
    return round(math.degrees(math.atan2(line.dy, line.dx)) % 180.0, 6)


def _lowest(project: Project) -> str:
    """The level that a stack stands on: that of the footings, else the lowest that a wall stands on."""
    if project.foundations:
        return project.foundations[0].footing
    if project.walls:
        return project.walls[0].base.level
    return next(rung.id for rung in project.rungs if rung.from_rung is None)
