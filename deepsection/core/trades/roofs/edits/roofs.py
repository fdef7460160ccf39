"""Edits of roofs: blocks drawn corner by corner, edges that change what they are or move, ridges."""

from __future__ import annotations

import math
from typing import Any, ClassVar, Literal

import shapely
from pydantic import Field
from shapely.geometry import Polygon

from ....catalog import usual
from ....document.command import Command
from ....document.putting import PutElement
from ....document.rebuilding import changed, get_element, put
from ....document.values import Id, Mm
from ....errors import GeometryError, RefusedEdit
from ....geometry import Point, RoofShape, Slope, line_through, roof_shape
from ....model.places import corner_point, roof_sides
from ....model.project import Project
from ....units import Units
from ..corners import with_corners, with_treatments
from ..model import RAKED, SLOPING, Corner, EdgeKind, RoofBlock, RoofEdge


class PutRoof(PutElement):
    kind: Literal["put_roof"] = "put_roof"
    phrase: ClassVar[str] = "change {name}"
    adding: ClassVar[str] = "put on {name}"
    roof: RoofBlock


NEAR = 60.0
"""An end meets another roof when its middle lies within this distance of that one's outline (mm)."""
NEAREST = 0.05
"""The share of the span that a ridge keeps from either eave."""
STRAIGHT = 1e-4
"""Sine of the angle below which two edges are one."""


class DrawRoof(Command):
    """A roof over an outline: a side that lies on or in another roof runs into it, and its ridge with it."""

    kind: Literal["draw_roof"] = "draw_roof"
    phrase: ClassVar[str] = "put on {name}"
    roof: RoofBlock

    def apply(self, project: Project) -> Project:
        """The project with the block, its ends settled. Raises: RefusedEdit."""
        corners = [corner_point(project, corner) for corner in self.roof.outline]
        others = [
            Polygon([corner_point(project, corner) for corner in other.outline])
            for other in project.roofs
            if other.id != self.roof.id
        ]
        count = len(corners)
        meets = [
            any(other.buffer(NEAR).contains(shapely.Point(_middle(corners, edge))) for other in others)
            for edge in range(count)
        ]
        ends = [edge for edge in range(count) if meets[edge] and (count != 4 or not meets[(edge + 2) % 4])]
        if count == 4 and all(meets):
            # Wholly over another roof, with one side on an eave of it: a cross gable flush with the wall there.
            ends = [(edge + 2) % 4 for edge in range(4) if self._on_eave(project, corners, edge)][:1]
        if not ends or any(edge.kind == "joined" for edge in self.roof.edges):
            return put(project, self.roof)
        eave = next(edge for edge in self.roof.edges if edge.kind in SLOPING)
        gable = next((edge for edge in self.roof.edges if edge.kind == "gable"), eave)
        joined, edges = ends[0], list(self.roof.edges)
        if count == 4 and gable is not eave:
            edges = [eave if (edge - joined) % 2 else gable.model_copy(update={"kind": "gable"}) for edge in range(4)]
        edges[joined] = RoofEdge(kind="joined")
        return put(project, with_treatments(self.roof, edges))

    def _on_eave(self, project: Project, corners: list[Point], edge: int) -> bool:
        """Whether a side lies on an eave of another roof on the same plate."""
        side = shapely.LineString([corners[edge], corners[(edge + 1) % len(corners)]])
        return any(
            treatment.kind in SLOPING and shapely.LineString(eave).buffer(NEAR).contains(side)
            for other in project.roofs
            if other.id != self.roof.id and other.plate == self.roof.plate
            for eave, treatment in zip(roof_sides(project, other), other.edges)
        )


class SetRoofEdge(Command):
    """An edge of a roof becomes an eave, a gable, a half hip ... with usual sizes where it has none."""

    kind: Literal["set_roof_edge"] = "set_roof_edge"
    phrase: ClassVar[str] = "change an edge of {name}"
    roof: Id
    edge: Id
    to: EdgeKind

    def apply(self, project: Project) -> Project:
        """The project with the edge changed. Raises: RefusedEdit."""
        roof, at = _edge_of(project, self.roof, self.edge)
        old = roof.edges[at]
        usual = _usual(roof, self.to, project.units)
        changes: dict[str, Any] = {"kind": self.to, "upper_pitch": None, "raised": 0.0}
        if self.to in ("abutment", "joined"):
            changes |= {"overhang": 0.0, "height": None}
        else:
            changes["overhang"] = old.overhang or usual
            turns = self.to in ("half_hip", "dutch_gable")
            changes["height"] = (old.height or _turn_height(project, roof, at)) if turns else None
        edges = tuple(changed(old, **changes) if k == at else edge for k, edge in enumerate(roof.edges))
        return put(project, changed(roof, edges=edges))


class MoveRoofEdge(Command):
    """An edge of a roof is drawn outward (or in): its corners leave the walls that they were tied to."""

    kind: Literal["move_roof_edge"] = "move_roof_edge"
    phrase: ClassVar[str] = "move an edge of {name}"
    roof: Id
    edge: Id
    by: Mm

    def apply(self, project: Project) -> Project:
        """The project with the roof's corners moved. Raises: RefusedEdit."""
        roof, at = _edge_of(project, self.roof, self.edge)
        ring, first = next((ring, first) for ring, first in _starts(roof) if first <= at < first + len(ring))
        a, b = ring[at - first], ring[(at - first + 1) % len(ring)]
        (x0, y0), (x1, y1) = corner_point(project, a), corner_point(project, b)
        length = math.dist((x0, y0), (x1, y1)) or 1.0
        dx, dy = (y1 - y0) / length * self.by, -(x1 - x0) / length * self.by

        def moved(corner: Corner) -> Corner:
            if corner not in (a, b):
                return corner
            x, y = corner_point(project, corner)
            return Corner(id=corner.id, x=x + dx, y=y + dy)

        return put(project, with_corners(roof, moved))


class MoveRidge(Command):
    """A ridge between two opposite eaves, moved away from the first at the same height: their pitches change."""

    kind: Literal["move_ridge"] = "move_ridge"
    phrase: ClassVar[str] = "move a ridge of {name}"
    roof: Id
    edges: tuple[Id, Id]
    by: Mm

    def apply(self, project: Project) -> Project:
        """The project with the two pitches changed. Raises: RefusedEdit."""
        sides = roof_sides(project, get_element(project, self.roof, RoofBlock))
        roof, first = _edge_of(project, self.roof, self.edges[0])
        ends = (first, _edge_of(project, self.roof, self.edges[1])[1])
        if any(roof.edges[k].kind != "eave" for k in ends):
            raise RefusedEdit("a ridge lies between two eaves", element=roof.id, field="edges")
        one, other = (line_through(*sides[k]) for k in ends)
        if abs(one.dx * other.dy - one.dy * other.dx) > STRAIGHT or one.dx * other.dx + one.dy * other.dy > 0:
            message = "only a ridge between two parallel eaves is moved; type a pitch for one of its edges instead"
            raise RefusedEdit(message, element=roof.id, field="edges")
        if any(roof.edges[k].upper_pitch for k in ends):
            message = "the ridge of a roof that breaks is moved by its pitches"
            raise RefusedEdit(message, element=roof.id, field="edges")
        span = one.left_of((other.x, other.y))
        pitches = [roof.edges[k].pitch or roof.pitch for k in ends]
        raised = [roof.edges[k].raised for k in ends]
        run = (pitches[1] * span + raised[1] - raised[0]) / (pitches[0] + pitches[1])
        runs = (run, span - run)
        moved = (run + self.by, span - run - self.by)
        if min(moved) < span * NEAREST:
            message = "the ridge comes too near to an eave"
            raise RefusedEdit(message, element=roof.id, field="edges", value=min(moved), limit=span * NEAREST)
        new = {k: pitch * old / now for k, pitch, old, now in zip(ends, pitches, runs, moved)}
        edges = tuple(changed(edge, pitch=new[k]) if k in new else edge for k, edge in enumerate(roof.edges))
        return put(project, changed(roof, edges=edges))


class SteepenRoof(Command):
    """All pitches of a roof times a factor: its ridges rise by it over their bearing lines, and stay in plan."""

    kind: Literal["steepen_roof"] = "steepen_roof"
    phrase: ClassVar[str] = "raise the ridge of {name}"
    roof: Id
    factor: float = Field(gt=0, le=20)

    def apply(self, project: Project) -> Project:
        """The project with the roof steeper, or flatter below a factor of 1. Raises: RefusedEdit, UnknownElement."""
        roof = get_element(project, self.roof, RoofBlock)

        def times(value: float | None) -> float | None:
            return None if value is None else value * self.factor

        edges = tuple(
            changed(
                edge, pitch=times(edge.pitch), upper_pitch=times(edge.upper_pitch), height=times(edge.height),
                raised=edge.raised * self.factor,
            )
            for edge in roof.edges
        )  # fmt: skip
        return put(project, changed(roof, pitch=roof.pitch * self.factor, edges=edges))


def plain_shape(project: Project, roof: RoofBlock) -> RoofShape:
    """The slopes of a roof over its set-out lines, without overhangs and breaks. Raises: RefusedEdit."""
    rings = [[corner_point(project, corner) for corner in ring] for ring in roof.rings]
    slopes = [
        Slope((edge.pitch or roof.pitch) if edge.kind in SLOPING else None, raised=edge.raised) for edge in roof.edges
    ]
    try:
        return roof_shape(rings, slopes)
    except GeometryError as error:
        raise RefusedEdit(str(error), element=roof.id, field="outline") from error


def _edge_of(project: Project, id: str, edge: str) -> tuple[RoofBlock, int]:
    """A roof, and the place of an edge among its edges. Raises: RefusedEdit, UnknownElement."""
    roof = get_element(project, id, RoofBlock)
    at = roof.edge_number(edge)
    if at is None:
        raise RefusedEdit("this roof has no such edge", element=roof.id, field="edge", value=edge)
    return roof, at


def _starts(roof: RoofBlock) -> list[tuple[tuple[Corner, ...], int]]:
    """The rings with the number of their first edge."""
    found, at = [], 0
    for ring in roof.rings:
        found.append((ring, at))
        at += len(ring)
    return found


def _usual(roof: RoofBlock, kind: str, units: Units) -> float:
    """The overhang of a like edge of the roof, else a usual one."""
    like = SLOPING if kind in SLOPING else RAKED
    alike = (edge.overhang for edge in roof.edges if edge.kind in like and edge.overhang)
    return next(alike, usual("eave_overhang" if kind in SLOPING else "gable_overhang", units))


def _turn_height(project: Project, roof: RoofBlock, edge: int) -> float:
    """Half of the rise over the length of an edge: where a half hip is usually begun. Common practice, no source."""
    span = math.dist(*roof_sides(project, roof)[edge])
    return max(round(span / 2 * roof.pitch / 2 / 50.0) * 50.0, 100.0)


def _middle(corners: list[Point], edge: int) -> Point:
    (x0, y0), (x1, y1) = corners[edge], corners[(edge + 1) % len(corners)]
    return (x0 + x1) / 2, (y0 + y1) / 2
