"""Dormers: walls on a slope, and a block over them that runs into it."""

from __future__ import annotations

import math
from typing import ClassVar, Literal

import shapely
from shapely.geometry import LineString, Polygon

from ....catalog import usual
from ....document.command import Command
from ....document.rebuilding import changed, put
from ....document.values import Id, Mm
from ....errors import RefusedEdit
from ....geometry import Line, Point, line_through
from ....model.places import corner_point, roof_sides
from ....model.project import Project
from ....units import INCH
from ...levels.model import BaseRule
from ...walls.edits.walls import default_set_out
from ...walls.model import FreeJoint, TopRule, Wall
from ..model import SLOPING, Corner, RoofBlock, RoofEdge
from .proposing import FORMS
from .roofs import NEAR, plain_shape

LAP = 300.0
"""How far the front of a wall dormer may reach down before the wall below it (mm)."""
BELOW_RIDGE = 150.0
"""How far below the ridge of its host a dormer stays (mm)."""
LOWEST_FACE = 300.0
"""The least height (mm) of a dormer's front above the roof."""
NARROWEST = 600.0
"""The least width and depth of a dormer (mm)."""


class AddDormer(Command):
    """A dormer on a slope: walls around three sides of a rectangle, on the roof, and a block that runs into its slope.

    The rectangle's corners are given; its front is the side that looks down the slope. One whose front stands on the
    wall below interrupts the eave.
    """

    kind: Literal["add_dormer"] = "add_dormer"
    phrase: ClassVar[str] = "build a dormer"
    id: Id
    form: FORMS
    x0: Mm
    y0: Mm
    x1: Mm
    y1: Mm
    joints: tuple[Id, Id, Id, Id]
    walls: tuple[Id, Id, Id]

    def apply(self, project: Project) -> Project:
        """The project with walls and roof. Raises: RefusedEdit."""
        middle = ((self.x0 + self.x1) / 2, (self.y0 + self.y1) / 2)
        host = _under(project, middle)
        sides = roof_sides(project, host)
        below = [(line_through(a, b), k) for k, (a, b) in enumerate(sides) if host.edges[k].kind in SLOPING]
        line, k = min(below, key=lambda found: _away(found[0], sides[found[1]], middle))
        alongs = sorted(line.along((x, y)) for x in (self.x0, self.x1) for y in (self.y0, self.y1))
        depths = sorted(line.left_of((x, y)) for x in (self.x0, self.x1) for y in (self.y0, self.y1))
        first, last, front, back = alongs[0], alongs[-1], depths[0], depths[-1]
        if abs(front) < NEAR:
            front = 0.0
        if last - first < NARROWEST or back - front < NARROWEST or front < -NEAR:
            message = "a dormer is a rectangle on a slope, at least 600 mm (2') wide and deep"
            raise RefusedEdit(message, element=host.id, field="outline", limit=NARROWEST)
        wall_make_up = next(
            (wall.make_up for wall in project.walls if wall.status == "outer" and wall.top.level == host.plate), None
        )
        if wall_make_up is None:
            raise RefusedEdit("there are no outer walls below this roof to build the dormer like", element=host.id)

        def corner(along: float, inward: float) -> Point:
            x, y = line.at(along)
            return x - line.dy * inward, y + line.dx * inward

        spots = [corner(first, front), corner(last, front), corner(last, back), corner(first, back)]
        joints = [FreeJoint(id=id, x=x, y=y) for id, (x, y) in zip(self.joints, spots)]
        layers = {make_up.id: make_up for make_up in project.make_ups}
        thick = sum(layer.thickness for layer in layers[host.make_up].layers)
        pitch = host.edges[k].pitch or host.pitch
        units = project.units
        step = INCH if units == "ft-in" else 50.0
        flat = max(0.1, round(pitch / 3, 3))
        # As high as is usual, but no higher than that it dies into the slope before the ridge.
        head = _reach_up(project, host, k, line, (first + last) / 2)
        room = (head - front) * (pitch - flat if self.form == "single" else pitch)
        room -= thick if self.form == "single" else thick + host.pitch * (last - first) / 2
        face = min(usual("dormer_face", units), room - BELOW_RIDGE)
        if face < LOWEST_FACE:
            message = "the roof is too low here for such a dormer: place it farther down the slope, or make it narrower"
            raise RefusedEdit(message, element=host.id, field="outline", value=face, limit=LOWEST_FACE)
        rise = round((host.offset + host.edges[k].raised + max(front, 0.0) * pitch + thick + face) / step) * step
        make_up = layers[wall_make_up]
        # From the back of one cheek around the front to the back of the other; their outside is at the right.
        chain = (self.joints[3], self.joints[0], self.joints[1], self.joints[2])
        walls = [
            Wall(
                id=id,
                start=start,
                end=end,
                make_up=make_up.id,
                set_out=default_set_out(make_up, "outer"),
                outside="right",
                status="outer",
                base=BaseRule(level=host.plate, on_roof=True, offset=-LAP if not front and which == 1 else 0.0),
                top=TopRule(kind="roof", level=host.plate, offset=rise),
            )
            for which, (id, start, end) in enumerate(zip(self.walls, chain, chain[1:]))
        ]
        eave = RoofEdge(kind="eave", overhang=usual("dormer_overhang", units))
        gable = RoofEdge(kind="gable", overhang=usual("dormer_overhang", units))
        edges = {
            "gable": (gable, eave, RoofEdge(kind="joined"), eave),
            "hip": (eave, eave, RoofEdge(kind="joined"), eave),
            "single": (eave, gable, RoofEdge(kind="joined"), gable),
        }[self.form]
        name = next(f"Dormer {n}" for n in range(1, 1000) if all(roof.name != f"Dormer {n}" for roof in project.roofs))
        roof = changed(
            host,
            id=self.id,
            name=name,
            outline=tuple(Corner(joint=joint) for joint in self.joints),
            courts=(),
            edges=edges,
            pitch=host.pitch if self.form != "single" else flat,
            offset=rise,
            seat=min(host.seat, 50.0),
            fascia_depth=min(host.fascia_depth, usual("dormer_fascia", units)),
        )
        return put(put(project, *joints), *walls, roof)


def _under(project: Project, point: Point) -> RoofBlock:
    """The lowest roof over a place. Raises: RefusedEdit."""
    over = [
        roof
        for roof in project.roofs
        if Polygon([corner_point(project, corner) for corner in roof.outline]).contains(shapely.Point(point))
    ]
    if not over:
        raise RefusedEdit("there is no roof here to build a dormer on: put the roof on first", field="outline")
    return min(over, key=lambda roof: roof.offset)


def _reach_up(project: Project, roof: RoofBlock, edge: int, line: Line, along: float) -> float:
    """How far in from an edge its slope reaches at a place along it. Raises: RefusedEdit."""
    shape = plain_shape(project, roof)
    (x0, y0), far = line.at(along), 1e6
    ray = LineString([(x0, y0), (x0 - line.dy * far, y0 + line.dx * far)])
    found = 0.0
    for plane in shape.planes:
        if edge in plane.edges:
            part = ray.intersection(Polygon([vertex[:2] for vertex in plane.vertices]).buffer(1e-6))
            found = max([found, *(line.left_of((x, y)) for x, y in shapely.get_coordinates(part).tolist())])
    return found


def _away(line: Line, side: tuple[Point, Point], point: Point) -> float:
    """How far up a slope a point lies; past the ends of its edge it is not on it."""
    beside = max(0.0, -line.along(point), line.along(point) - math.dist(*side))
    inward = line.left_of(point)
    return (inward if inward >= 0 else 1e9) + beside * 10
