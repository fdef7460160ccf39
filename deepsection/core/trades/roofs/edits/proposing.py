"""Roofs of a plain form with usual sizes: over the walls around a point, or over an outline."""

from __future__ import annotations

import math
from typing import ClassVar, Literal

import shapely
from pydantic import Field
from shapely.geometry import LinearRing, LineString
from shapely.ops import polygonize

from ....catalog import usual
from ....document.command import Command
from ....document.rebuilding import changed, put
from ....document.values import Id, Mm
from ....errors import RefusedEdit
from ....geometry import Point
from ....model.places import corner_point, joint_point, roof_sides, wall_axis
from ....model.project import Project
from ....units import Units
from ...walls.model import FreeJoint
from ..corners import with_treatments
from ..model import Corner, RoofBlock, RoofEdge
from .roofs import NEAR, STRAIGHT, DrawRoof
from .wings import Wing, wings_of

SQUARE = 0.98
"""Sine of the angle of a corner that is nearly a right one."""
FORMS = Literal["hip", "gable", "single"]
RINGS = list[list[Corner]]
AT_CORNER = 3.0
"""A corner of a block this close to one of the outline (mm) is tied to what that one is tied to."""
AT_WALL = 300.0
"""A side lies against a wall when its middle is this close to the wall's line (mm)."""
CLEAR = 600.0
"""How far the top of a porch roof stays below the plate of the wall behind it (mm): below fascia and soffit."""


class ProposeRoof(Command):
    """A roof of a plain form with usual sizes: over the outer walls around a point, or over an outline.

    Gables over an outline of right angles are several blocks: the widest, and the smaller ones that run into it.
    """

    kind: Literal["propose_roof"] = "propose_roof"
    phrase: ClassVar[str] = "put on a roof"
    id: Id
    form: FORMS
    level: Id
    plate: Id
    x: Mm = 0.0
    y: Mm = 0.0
    outline: tuple[Corner, ...] = Field(default=(), max_length=200)

    def apply(self, project: Project) -> Project:
        """The project with the roof. Raises: RefusedEdit, where no walls enclose the point."""
        rings = [list(self.outline)] if self.outline else _around(project, self.level, (self.x, self.y))
        points = [[corner_point(project, corner) for corner in ring] for ring in rings]
        make_up = next((held.id for held in project.make_ups if held.use == "roof"), None)
        if make_up is None:
            raise RefusedEdit("this project has no make-up of a roof", field="make_up")
        wings = wings_of(points[0]) if self.form == "gable" and len(points) == 1 else ()
        if wings:
            return self._by_wings(project, make_up, wings, rings[0], points[0])
        roof = self._block(project, make_up, self.id, rings, _edges(points, self.form, project.units))
        if self.outline and self.form == "single":
            return put(project, _against(project, self.level, roof))
        return DrawRoof(roof=roof).apply(project)

    def _block(self, project: Project, make_up: str, id: str, rings: RINGS, edges: list[RoofEdge]) -> RoofBlock:
        return usual_block(project, make_up, id, rings, edges, self.plate, 0.5 if self.form != "single" else 0.25)

    def _by_wings(
        self, project: Project, make_up: str, wings: tuple[Wing, ...], ring: list[Corner], points: list[Point]
    ) -> Project:
        """A block per rectangle of the outline: gables over the ends, each smaller one running into a bigger one."""
        eave, gable = _usual(project.units)
        taken = {element.id for element in project.elements()}
        for wing in wings:
            id = next(id for n in range(1, 1000) if (id := self.id if n == 1 else f"{self.id}-{n}") not in taken)
            taken.add(id)
            edges = [gable if k in wing.gables else eave for k in range(4)]
            if wing.joined is not None:
                edges[wing.joined] = RoofEdge(kind="joined")
            tied = [
                next((c for c, p in zip(ring, points) if math.dist(p, at) < AT_CORNER), None) for at in wing.corners
            ]
            corners = [corner or Corner(x=at[0], y=at[1]) for corner, at in zip(tied, wing.corners)]
            project = DrawRoof(roof=self._block(project, make_up, id, [corners], edges)).apply(project)
        return project


def usual_seat(project: Project) -> float:
    """The level cut of the birdsmouth on the plate that is usual in a project's tradition (mm)."""
    return usual("masonry_seat" if project.tradition == "masonry" else "birdsmouth_seat", project.units)


def usual_block(
    project: Project, make_up: str, id: str, rings: RINGS, edges: list[RoofEdge], plate: str, pitch: float
) -> RoofBlock:
    """A block with the usual sizes of a project's tradition."""
    units, number = project.units, len(project.roofs) + 1
    return RoofBlock(
        id=id,
        name="Main roof" if number == 1 else f"Roof {number}",
        outline=tuple(rings[0]),
        courts=tuple(tuple(ring) for ring in rings[1:]),
        edges=tuple(edges),
        pitch=pitch,
        plate=plate,
        seat=usual_seat(project),
        make_up=make_up,
        fascia_depth=usual("fascia_depth", units),
        fascia_thickness=usual("fascia_thickness", units),
    )


def _usual(units: Units) -> tuple[RoofEdge, RoofEdge]:
    """An eave and a gable with usual overhangs."""
    return (
        RoofEdge(kind="eave", overhang=usual("eave_overhang", units)),
        RoofEdge(kind="gable", overhang=usual("gable_overhang", units)),
    )


def _against(project: Project, level: str, roof: RoofBlock) -> RoofBlock:
    """A single pitch with its high side against a wall, where one stands there: over a wing, or as a porch, whose top
    stays clear of an eave above it."""
    sides = roof_sides(project, roof)
    walls = [
        (wall, wall_axis(project, wall)) for wall in project.walls if wall.status == "outer" and not wall.base.on_roof
    ]

    def backing(side: tuple[Point, Point]) -> tuple[int, float]:
        """What stands along a side, and how long that is: 3, a wall of another storey; 2, one that goes on past it;
        1, any; 0, none."""
        spot = shapely.Point((side[0][0] + side[1][0]) / 2, (side[0][1] + side[1][1]) / 2)
        near = [(wall, axis) for wall, axis in walls if axis.line_string().distance(spot) < AT_WALL]
        found = [
            (3 if wall.base.level != level else 2 if axis.length > math.dist(*side) + NEAR else 1, axis.length)
            for wall, axis in near
        ]
        return max(found, default=(0, 0.0))

    count, found = len(sides), [backing(side) for side in sides]
    backed = [rank for rank, _ in found]
    # In an inside corner it leans on the long wall, not on the short return.
    high = max(range(count), key=lambda k: (backed[k], -backed[(k + 2) % count], found[k][1]))
    if count != 4 or not backed[high] or backed[high] == backed[(high + 2) % count]:
        return roof
    eave = next(edge for edge in roof.edges if edge.kind == "eave")
    gable = next(edge for edge in roof.edges if edge.kind == "gable")
    edges = [gable] * 4
    edges[high], edges[(high + 2) % 4] = RoofEdge(kind="abutment"), eave
    depth = math.dist(*sides[(high + 1) % 4])
    held_up = any(backed[k] for k in range(4) if k != high)
    offset = 0.0 if held_up else -round((depth * roof.pitch + CLEAR) / 50.0) * 50.0
    lean: RoofBlock = changed(with_treatments(roof, edges), offset=offset)
    return lean


def _edges(rings: list[list[Point]], form: str, units: Units) -> list[RoofEdge]:
    """The treatments of a plain form: eaves around; gables over the ends of wings; one eave along the longest side."""
    eave, gable = _usual(units)
    edges = [eave for ring in rings for _ in ring]
    outer = rings[0]
    lengths = [math.dist(a, b) for a, b in zip(outer, (*outer[1:], outer[0]))]
    count = len(outer)
    if form == "gable":
        if count == 4:
            short = 0 if lengths[0] + lengths[2] < lengths[1] + lengths[3] - 1.0 else 1
            ends = {short, short + 2}
        else:
            ends = {k for k in range(count) if _ends_wing(outer, k)}
        edges = [gable if k in ends else edge for k, edge in enumerate(edges)]
    if form == "single":
        low = lengths.index(max(lengths))
        edges = [eave if k == low else gable for k in range(len(edges))]
    return edges


def _ends_wing(ring: list[Point], k: int) -> bool:
    """Whether an edge closes the end of a wing, square, with an inside corner behind it on one side at least."""
    count = len(ring)

    def turn(at: int) -> float:
        return _turn(ring[(at - 1) % count], ring[at % count], ring[(at + 1) % count])

    sides = [math.dist(ring[at % count], ring[(at + 1) % count]) for at in (k - 1, k, k + 1)]
    square = min(turn(k), turn(k + 1)) > SQUARE and min(turn(k - 1), turn(k + 2)) < -SQUARE
    return square and sides[1] <= max(sides[0], sides[2]) + NEAR


def _turn(a: Point, b: Point, c: Point) -> float:
    """Sine of the angle by which a path turns left at b."""
    one, two = math.dist(a, b) or 1.0, math.dist(b, c) or 1.0
    return ((b[0] - a[0]) * (c[1] - b[1]) - (b[1] - a[1]) * (c[0] - b[0])) / one / two


def _around(project: Project, level: str, at: Point) -> RINGS:
    """The rings of the outer walls of a storey around a point, the outline first; arcs by chords."""
    walls = [wall for wall in project.walls if wall.status == "outer" and wall.base.level == level]
    lines = [wall_axis(project, wall).line_string() for wall in walls]
    spot = shapely.Point(at)
    faces = [face for face in polygonize(shapely.unary_union(lines, grid_size=0.01)) if face.contains(spot)]
    if not faces:
        raise RefusedEdit("no outer walls enclose this place: click inside of them, or draw the roof corner by corner")
    face = shapely.orient_polygons(min(faces, key=lambda held: held.area))
    used = {id for wall in walls for id in (wall.start, wall.end)}
    joints = {
        joint.id: joint_point(project, joint.id)
        for joint in project.joints
        if joint.id in used and isinstance(joint, FreeJoint)
    }
    return [_corners(ring, joints) for ring in (face.exterior, *face.interiors)]


def _corners(ring: LinearRing | LineString, joints: dict[str, Point]) -> list[Corner]:
    """The corners of a ring, from its south-west on; those between two edges of one line left out; at joints, tied."""
    points = [(float(x), float(y)) for x, y in ring.coords[:-1]]
    first = min(range(len(points)), key=lambda k: (round(points[k][1]), round(points[k][0])))
    points = points[first:] + points[:first]
    count = len(points)
    found = []
    for k, point in enumerate(points):
        if abs(_turn(points[k - 1], point, points[(k + 1) % count])) < STRAIGHT:
            continue
        joint = next((id for id, place in joints.items() if math.dist(place, point) < 1.0), None)
        found.append(Corner(joint=joint) if joint else Corner(x=point[0], y=point[1]))
    return found
