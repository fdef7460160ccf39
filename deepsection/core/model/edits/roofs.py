"""Edits of roofs: blocks proposed over walls or drawn corner by corner, edges that change what they are, ridges."""

from __future__ import annotations

import math
from typing import Any, Literal

import shapely
from pydantic import Field
from shapely.geometry import LinearRing, LineString, Polygon
from shapely.ops import polygonize

from ...errors import GeometryError, RefusedEdit
from ...geometry import Line, Point, Slope, line_through, roof_shape
from ...units import FOOT, INCH
from ..elements import SLOPING, BaseRule, Corner, EdgeKind, FreeJoint, RoofBlock, RoofEdge, TopRule, Wall
from ..places import corner_point, joint_point, wall_axis
from ..project import Project
from ..values import Element, Id, Mm
from .rebuilding import changed, held, put, with_corners
from .walls import default_set_out

NEAR = 60.0
"""An end meets another roof when its middle lies within this distance of that one's outline (mm)."""
BELOW_RIDGE = 150.0
"""How far below the ridge of its host a dormer stays (mm)."""
LOWEST_FACE = 300.0
"""The least height (mm) of a dormer's front above the roof."""
NARROWEST = 600.0
"""The least width and depth of a dormer (mm)."""
STRAIGHT = 1e-4
"""Sine of the angle below which two edges are one."""
SQUARE = 0.98
"""Sine of the angle of a corner that is nearly a right one."""
FORMS = Literal["hip", "gable", "single"]
RINGS = list[list[Corner]]


class DrawRoof(Element):
    """A roof over an outline: a side that lies on or in another roof runs into it, and its ridge with it."""

    kind: Literal["draw_roof"] = "draw_roof"
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
        if not ends or any(edge.kind == "joined" for edge in self.roof.edges):
            return put(project, self.roof)
        eave = next(edge for edge in self.roof.edges if edge.kind in SLOPING)
        gable = next((edge for edge in self.roof.edges if edge.kind == "gable"), eave)
        joined, edges = ends[0], list(self.roof.edges)
        if count == 4 and gable is not eave:
            edges = [eave if (edge - joined) % 2 else gable.model_copy(update={"kind": "gable"}) for edge in range(4)]
        edges[joined] = RoofEdge(kind="joined")
        return put(project, changed(self.roof, edges=tuple(edges)))


class ProposeRoof(Element):
    """A roof of a plain form with usual sizes: over the outer walls around a point, or over an outline."""

    kind: Literal["propose_roof"] = "propose_roof"
    id: Id
    form: FORMS
    level: Id
    plate: Id
    x: Mm = 0.0
    y: Mm = 0.0
    outline: tuple[Corner, ...] = Field(default=(), max_length=200)

    def apply(self, project: Project) -> Project:
        """The project with the block. Raises: RefusedEdit, where no walls enclose the point."""
        rings = [list(self.outline)] if self.outline else _around(project, self.level, (self.x, self.y))
        points = [[corner_point(project, corner) for corner in ring] for ring in rings]
        imperial = project.units == "ft-in"
        make_up = next((held.id for held in project.make_ups if held.use == "roof"), None)
        if make_up is None:
            raise RefusedEdit("this project has no make-up of a roof", field="make_up")
        seat = 60.0 if project.tradition == "masonry" else (3.5 * INCH if imperial else 90.0)
        number = len(project.roofs) + 1
        roof = RoofBlock(
            id=self.id,
            name="Main roof" if number == 1 else f"Roof {number}",
            outline=tuple(rings[0]),
            courts=tuple(tuple(ring) for ring in rings[1:]),
            edges=tuple(_edges(points, self.form, imperial)),
            pitch=0.5 if self.form != "single" else 0.25,
            plate=self.plate,
            seat=seat,
            make_up=make_up,
            fascia_depth=7.25 * INCH if imperial else 190.0,
            fascia_thickness=0.75 * INCH if imperial else 20.0,
        )
        if self.outline and self.form == "single":
            return put(project, _against(project, self.level, roof))
        return DrawRoof(roof=roof).apply(project)


class AddDormer(Element):
    """A dormer on a slope: walls around three sides of a rectangle, on the roof, and a block that runs into its slope.

    The rectangle's corners are given; its front is the side that looks down the slope.
    """

    kind: Literal["add_dormer"] = "add_dormer"
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
        sides = _sides(project, host)
        below = [(line_through(a, b), k) for k, (a, b) in enumerate(sides) if host.edges[k].kind in SLOPING]
        line, k = min(below, key=lambda found: _away(found[0], sides[found[1]], middle))
        alongs = sorted(line.along((x, y)) for x in (self.x0, self.x1) for y in (self.y0, self.y1))
        depths = sorted(line.left_of((x, y)) for x in (self.x0, self.x1) for y in (self.y0, self.y1))
        first, last, front, back = alongs[0], alongs[-1], depths[0], depths[-1]
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
        imperial = project.units == "ft-in"
        step = INCH if imperial else 50.0
        flat = max(0.1, round(pitch / 3, 3))
        # As high as is usual, but no higher than that it dies into the slope before the ridge.
        head = _reach_up(project, host, k, line, (first + last) / 2)
        room = (head - front) * (pitch - flat if self.form == "single" else pitch)
        room -= thick if self.form == "single" else thick + host.pitch * (last - first) / 2
        face = min(48 * INCH if imperial else 1200.0, room - BELOW_RIDGE)
        if face < LOWEST_FACE:
            message = "the roof is too low here for such a dormer: place it farther down the slope, or make it narrower"
            raise RefusedEdit(message, element=host.id, field="outline", value=face, limit=LOWEST_FACE)
        rise = round((host.offset + max(front, 0.0) * pitch + thick + face) / step) * step
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
                base=BaseRule(level=host.plate, on_roof=True),
                top=TopRule(kind="roof", level=host.plate, offset=rise),
            )
            for id, start, end in zip(self.walls, chain, chain[1:])
        ]
        eave = RoofEdge(kind="eave", overhang=8 * INCH if imperial else 200.0)
        gable = RoofEdge(kind="gable", overhang=8 * INCH if imperial else 200.0)
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
            fascia_depth=min(host.fascia_depth, 5.5 * INCH if imperial else 140.0),
        )
        return put(put(project, *joints), *walls, roof)


class SetRoofEdge(Element):
    """An edge of a roof becomes an eave, a gable, a half hip ... with usual sizes where it has none."""

    kind: Literal["set_roof_edge"] = "set_roof_edge"
    roof: Id
    edge: int = Field(ge=0)
    to: EdgeKind

    def apply(self, project: Project) -> Project:
        """The project with the edge changed. Raises: RefusedEdit."""
        roof = held(project, self.roof, RoofBlock)
        if self.edge >= len(roof.edges):
            raise RefusedEdit("this roof has no such edge", element=roof.id, field="edge", value=self.edge)
        old = roof.edges[self.edge]
        usual = _usual(roof, self.to, project.units == "ft-in")
        changes: dict[str, Any] = {"kind": self.to, "upper_pitch": None, "raised": 0.0}
        if self.to in ("abutment", "joined"):
            changes |= {"overhang": 0.0, "height": None}
        else:
            changes["overhang"] = old.overhang or usual
            turns = self.to in ("half_hip", "dutch_gable")
            changes["height"] = (old.height or _turn_height(project, roof, self.edge)) if turns else None
        edges = tuple(changed(old, **changes) if k == self.edge else edge for k, edge in enumerate(roof.edges))
        return put(project, changed(roof, edges=edges))


class MoveRoofEdge(Element):
    """An edge of a roof is drawn outward (or in): its corners leave the walls that they were tied to."""

    kind: Literal["move_roof_edge"] = "move_roof_edge"
    roof: Id
    edge: int = Field(ge=0)
    by: Mm

    def apply(self, project: Project) -> Project:
        """The project with the roof's corners moved. Raises: RefusedEdit."""
        roof = held(project, self.roof, RoofBlock)
        if self.edge >= len(roof.edges):
            raise RefusedEdit("this roof has no such edge", element=roof.id, field="edge", value=self.edge)
        ring, first = next((ring, first) for ring, first in _starts(roof) if first <= self.edge < first + len(ring))
        a, b = ring[self.edge - first], ring[(self.edge - first + 1) % len(ring)]
        (x0, y0), (x1, y1) = corner_point(project, a), corner_point(project, b)
        length = math.dist((x0, y0), (x1, y1)) or 1.0
        dx, dy = (y1 - y0) / length * self.by, -(x1 - x0) / length * self.by

        def moved(corner: Corner) -> Corner:
            if corner not in (a, b):
                return corner
            x, y = corner_point(project, corner)
            return Corner(x=x + dx, y=y + dy)

        return put(project, with_corners(roof, moved))


def _against(project: Project, level: str, roof: RoofBlock) -> RoofBlock:
    """A single pitch with its high side against a wall, where one stands there: over a wing, or as a porch, whose top
    stays clear of an eave above it."""
    sides = _sides(project, roof)
    walls = [wall_axis(project, wall) for wall in project.walls if wall.base.level == level and wall.status == "outer"]

    def walled(side: tuple[Point, Point]) -> bool:
        spot = shapely.Point((side[0][0] + side[1][0]) / 2, (side[0][1] + side[1][1]) / 2)
        return any(axis.line_string().distance(spot) < AT_WALL for axis in walls)

    count = len(sides)
    high = next((k for k, side in enumerate(sides) if walled(side) and not walled(sides[(k + 2) % count])), None)
    if high is None or count != 4:
        return roof
    eave = next(edge for edge in roof.edges if edge.kind == "eave")
    gable = next(edge for edge in roof.edges if edge.kind == "gable")
    edges = [gable] * 4
    edges[high], edges[(high + 2) % 4] = RoofEdge(kind="abutment"), eave
    depth = math.dist(*sides[(high + 1) % 4])
    held_up = walled(sides[(high + 1) % 4]) or walled(sides[(high + 3) % 4])
    offset = 0.0 if held_up else -round((depth * roof.pitch + CLEAR) / 50.0) * 50.0
    lean: RoofBlock = changed(roof, edges=tuple(edges), offset=offset)
    return lean


AT_WALL = 300.0
"""A side lies against a wall when its middle is this close to the wall's line (mm)."""
CLEAR = 600.0
"""How far the top of a porch roof stays below the plate of the wall behind it (mm): below fascia and soffit."""


def _sides(project: Project, roof: RoofBlock) -> list[tuple[Point, Point]]:
    rings = [[corner_point(project, corner) for corner in ring] for ring in roof.rings]
    return [(a, b) for ring in rings for a, b in zip(ring, (*ring[1:], ring[0]))]


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
    rings = [[corner_point(project, corner) for corner in ring] for ring in roof.rings]
    slopes = [Slope((held.pitch or roof.pitch) if held.kind in SLOPING else None) for held in roof.edges]
    try:
        shape = roof_shape(rings, slopes)
    except GeometryError as error:
        raise RefusedEdit(str(error), element=roof.id, field="outline") from error
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


def _starts(roof: RoofBlock) -> list[tuple[tuple[Corner, ...], int]]:
    """The rings with the number of their first edge."""
    found, at = [], 0
    for ring in roof.rings:
        found.append((ring, at))
        at += len(ring)
    return found


def _usual(roof: RoofBlock, kind: str, imperial: bool) -> float:
    """The overhang of a like edge of the roof, else a usual one."""
    like = ("eave", "dutch_gable") if kind in SLOPING else ("gable", "half_hip")
    alike = (edge.overhang for edge in roof.edges if edge.kind in like and edge.overhang)
    return next(alike, (16 * INCH if imperial else 400.0) if kind in SLOPING else (FOOT if imperial else 300.0))


def _turn_height(project: Project, roof: RoofBlock, edge: int) -> float:
    """Half of the rise over the length of an edge: where a half hip is usually begun. Common practice, no source."""
    ring, first = next((ring, first) for ring, first in _starts(roof) if first <= edge < first + len(ring))
    a, b = ring[edge - first], ring[(edge - first + 1) % len(ring)]
    span = math.dist(corner_point(project, a), corner_point(project, b))
    return max(round(span / 2 * roof.pitch / 2 / 50.0) * 50.0, 100.0)


def _edges(rings: list[list[Point]], form: str, imperial: bool) -> list[RoofEdge]:
    """The treatments of a plain form: eaves around; gables over the ends of wings; one eave along the longest side."""
    eave = RoofEdge(kind="eave", overhang=16 * INCH if imperial else 400.0)
    gable = RoofEdge(kind="gable", overhang=FOOT if imperial else 300.0)
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


def _middle(corners: list[Point], edge: int) -> Point:
    (x0, y0), (x1, y1) = corners[edge], corners[(edge + 1) % len(corners)]
    return (x0 + x1) / 2, (y0 + y1) / 2
