"""Where joints stand and how long walls are: plain arithmetic on the document."""

from __future__ import annotations

import math
from collections.abc import Sequence

import shapely
from shapely.geometry import MultiPolygon, Polygon
from shapely.ops import polygonize

from ..errors import RefusedEdit, UnknownElement
from ..geometry import Axis, Point
from ..tolerance import TOL
from ..trades.drawings.model import WallSection
from ..trades.openings.model import Opening
from ..trades.posts.model import Beam, BeamEnd
from ..trades.roofs.model import Corner, RoofBlock
from ..trades.walls.bands import layer_bands
from ..trades.walls.model import FreeJoint, TeeJoint, Wall
from .project import Project


def joint_point(project: Project, id: str) -> Point:
    """Plan point (x, y) mm of a joint; a hosted one is measured along its wall. Raises: UnknownElement."""
    joint = project.joints_by_id.get(id)
    if joint is None:
        raise UnknownElement(f"no joint is called “{id}”", element=id)
    if isinstance(joint, FreeJoint):
        return joint.x, joint.y
    host = project.walls_by_id[joint.wall]
    return along_wall(project, host, joint.end, joint.distance)


def wall_axis(project: Project, wall: Wall) -> Axis:
    """The set-out line of a wall, from its start to its end."""
    return Axis(joint_point(project, wall.start), joint_point(project, wall.end), wall.bulge)


def wall_points(project: Project, wall: Wall) -> tuple[Point, Point]:
    """Start and end (x, y) mm of the set-out line of a wall."""
    return joint_point(project, wall.start), joint_point(project, wall.end)


def wall_length(project: Project, wall: Wall) -> float:
    """Length in mm of the set-out line, joint to joint."""
    return wall_axis(project, wall).length


def along_wall(project: Project, wall: Wall, end: str, distance: float) -> Point:
    """Plan point at a distance from the named end along the set-out line; the end itself for a wall of no length."""
    axis = wall_axis(project, wall)
    if axis.chord < TOL.point:
        return axis.start
    return axis.at(distance if end == "start" else axis.length - distance)


WIDEST = 1e6
"""A house reaches no further than this (mm): a kilometre."""


def refuse_giants(project: Project) -> None:
    """Nothing, for a house of a size that can be built. Raises: RefusedEdit, with what lies farthest from the rest."""
    places = [(joint.id, joint_point(project, joint.id)) for joint in project.joints]
    for roof in project.roofs:
        places += [(roof.id, corner_point(project, corner)) for ring in roof.rings for corner in ring]
    for axis, field in ((0, "x"), (1, "y")):
        places.sort(key=lambda held: held[1][axis])
        if not places or places[-1][1][axis] - places[0][1][axis] <= WIDEST:
            continue
        middle = places[len(places) // 2][1][axis]
        id, point = max(places, key=lambda held: abs(held[1][axis] - middle))
        raise RefusedEdit(
            "this lies more than a kilometre from the rest of the house: a length was typed with a digit too many",
            element=id,
            field=field,
            value=point[axis],
            limit=middle + WIDEST,
        )


OnWall = Opening | TeeJoint | WallSection
"""What is measured from a named end of a wall."""


def standing_on(project: Project, wall: str) -> list[OnWall]:
    """All that is measured along a wall: openings, walls that meet it, wall sections."""
    held = (*project.openings, *project.joints, *project.wall_sections)
    return [one for one in held if isinstance(one, OnWall) and one.wall == wall]


def along_from_start(standing: OnWall, length: float) -> float:
    """Distance from the start of a wall of this length to what is measured from a named end of it."""
    return standing.distance if standing.end == "start" else length - standing.distance


def corner_point(project: Project, corner: Corner) -> Point:
    """Plan point (x, y) mm of an outline's corner."""
    return joint_point(project, corner.joint) if corner.joint else (corner.x, corner.y)


def roof_sides(project: Project, roof: RoofBlock) -> list[tuple[Point, Point]]:
    """The edges of a roof as (start, end) in plan, ring by ring."""
    rings = [[corner_point(project, corner) for corner in ring] for ring in roof.rings]
    return [(a, b) for ring in rings for a, b in zip(ring, (*ring[1:], ring[0]))]


def beam_points(project: Project, beam: Beam) -> tuple[Point, Point]:
    """Start and end (x, y) mm of a beam; at a post, the middle of it."""
    posts = {post.id: (post.x, post.y) for post in project.posts}

    def spot(end: BeamEnd) -> Point:
        return posts[end.post] if end.post else (end.x, end.y)

    return spot(beam.start), spot(beam.end)


def away_from_house(project: Project, corners: Sequence[Point]) -> float:
    """The direction square to a side of an outline that leads away from the house (degrees)."""
    points = [point for wall in project.walls for point in wall_points(project, wall)]
    x, y = (sum(corner[k] for corner in corners) / len(corners) for k in (0, 1))
    if not points:
        return 0.0
    near_x = min(max(x, min(p[0] for p in points)), max(p[0] for p in points))
    near_y = min(max(y, min(p[1] for p in points)), max(p[1] for p in points))
    dx, dy = (x - near_x, y - near_y) if (x, y) != (near_x, near_y) else (x - points[0][0], y - points[0][1])
    wanted = math.atan2(dy, dx)
    sides = [math.atan2(b[1] - a[1], b[0] - a[0]) + math.pi / 2 for a, b in zip(corners, (*corners[1:], corners[0]))]
    turned = [angle + turn for angle in sides for turn in (0.0, math.pi)]
    best = min(turned, key=lambda angle: abs(math.remainder(angle - wanted, math.tau)))
    return round(math.degrees(math.remainder(best, math.tau)), 9)


def house_area(project: Project, level: str) -> Polygon | MultiPolygon:
    """What the outer walls on a level hold in plan, about to their outside."""
    make_ups = {held.id: held for held in project.make_ups}
    walls = [wall for wall in project.walls if wall.base.level == level and wall.status == "outer"]
    lines = shapely.union_all([wall_axis(project, wall).line_string() for wall in walls], grid_size=TOL.node)
    outside = max((layer_bands(wall, make_ups[wall.make_up])[0].outer for wall in walls), default=0.0)
    return shapely.union_all(list(polygonize([lines]))).buffer(max(outside, 0.0), join_style="mitre")
