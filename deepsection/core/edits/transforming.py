"""Walls, posts, beams, rooms and lines moved, turned or mirrored as one, or copied so."""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import Annotated, Any, ClassVar, Literal

from pydantic import Field

from ..document.command import Command, all_named
from ..document.ids import free_among
from ..document.motion import Motion
from ..document.nouns import noun_of, with_article
from ..document.rebuilding import changed, put
from ..document.values import Id
from ..errors import RefusedEdit
from ..geometry import Axis, Point
from ..model.places import corner_point, joint_point, roof_sides
from ..model.project import Project
from ..tolerance import TOL
from ..trades.ceilings.model import Ceiling
from ..trades.drawings.model import SectionLine
from ..trades.floors.model import Floor
from ..trades.lines.model import GridLine
from ..trades.onroofs.model import Downpipe
from ..trades.openings.edits.arranging import next_number, numbers_of
from ..trades.openings.model import Opening
from ..trades.posts.model import Beam, Post
from ..trades.roofs.model import Corner, RoofBlock, RoofEdge
from ..trades.walls.edits.walls import with_joints_at
from ..trades.walls.model import FreeJoint, TeeJoint, Wall

MOST = 500
ON = 1.0
"""A corner that comes to lie this close to another (mm) is the same corner."""


class Transform(Command):
    """Elements moved as one; with `copies`, so many copies of them instead, each moved on from the last.

    What stands in walls goes with them. Corners that come to lie on corners of their storey join them. New elements
    are named after `stem`.
    """

    kind: Literal["transform"] = "transform"
    phrase: ClassVar[str] = "move {name}"
    elements: Annotated[tuple[Id, ...], Field(min_length=1, max_length=MOST)]
    motion: Motion
    copies: Annotated[int, Field(ge=0, le=50)] = 0
    stem: Id = "copy"

    def apply(self, project: Project) -> Project:
        """The project after it. Raises: RefusedEdit, UnknownElement."""
        chosen = [project.find(id) for id in dict.fromkeys(self.elements)]
        walls = [element for element in chosen if isinstance(element, Wall)]
        # What stands in a wall that goes too is not moved by itself.
        inside = {wall.id for wall in walls}
        chosen = [held for held in chosen if not (isinstance(held, Opening) and held.wall in inside)]
        for element in chosen:
            if not element.about.movable:
                name = with_article(noun_of(type(element)))
                raise RefusedEdit(f"{name} cannot be moved this way", element=element.id)
        if not self.copies:
            return self._moved(project, chosen, walls)
        for k in range(1, self.copies + 1):
            project = self._copied(project, chosen, walls, self.motion.times(k))
        return project

    def words(self, project: Project) -> str:
        """How they are moved or copied: by name, or several by kind and number."""
        motion = self.motion
        word = "mirror" if motion.mirror is not None else "turn" if motion.turn else "move"
        copied = "copy, mirrored, " if word == "mirror" else "copy, turned, " if word == "turn" else "copy "
        return f"{copied if self.copies else f'{word} '}{all_named(self.elements, project)}"

    # --- in place -------------------------------------------------------------------------------

    def _moved(self, project: Project, chosen: list[Any], walls: list[Wall]) -> Project:
        motion = self.motion
        places = {id: joint_point(project, id) for wall in walls for id in (wall.start, wall.end)}
        staged = with_joints_at(project, {id: motion.at(point) for id, point in places.items()})
        others = [held.moved(motion, held.id) for held in chosen if not isinstance(held, Wall)]
        moving = {wall.id for wall in walls}
        others += [held.turned(motion) for held in joists_between(project, moving)]
        # What a plan showed goes with the house that was built of it.
        there = {wall.id for wall in project.walls}
        reads = ((held, held.built() & there) for held in project.plans_read)
        others += [held.gone_along(motion) for held, built in reads if built and built <= moving]
        if others:
            staged = put(staged, *others)
        if motion.mirror is not None and walls:
            staged = put(staged, *(_mirrored(wall) for wall in walls))
        if motion.mirror is not None:
            roofs = {held.id for held in chosen if isinstance(held, RoofBlock)}
            turned = [_turned_round(roof) for roof in staged.roofs if _goes_along(roof, set(places), roofs)]
            staged = put(staged, *turned, *_pipes_turned(staged, turned)) if turned else staged
        return staged

    # --- copies ---------------------------------------------------------------------------------

    def _copied(self, project: Project, chosen: list[Any], walls: list[Wall], motion: Motion) -> Project:
        ids = free_among({element.id for element in project.elements()}, self.stem)
        made: list[Any] = []
        numbers = numbers_of(project)
        walls = [wall for wall in walls if not _lies_on_itself(project, wall, motion)]
        named = {wall.id: next(ids) for wall in walls}
        corners = _Corners(project, motion, named, {wall.base.level for wall in walls}, ids)
        for wall in walls:
            twin = _mirrored(wall) if motion.mirror is not None else wall
            start, end = corners.of(wall.start), corners.of(wall.end)
            made.append(changed(twin, id=named[wall.id], start=start, end=end))
            for opening in project.openings:
                if opening.wall == wall.id:
                    number = opening.number and next_number(opening.number, numbers)
                    made.append(changed(opening, id=next(ids), wall=named[wall.id], number=number))
        posts = {held.id: next(ids) for held in chosen if isinstance(held, Post)}
        for held in chosen:
            if isinstance(held, Wall):
                continue
            if isinstance(held, RoofBlock):
                made.append(_roof_copy(project, held, next(ids), motion, corners))
                continue
            loose = held.moved(motion, posts.get(held.id) or next(ids))
            if isinstance(loose, GridLine | SectionLine):
                loose = changed(loose, name=_next_name(loose.name, project, made))
            made.append(_beam_copy(project, held, loose, posts, motion) if isinstance(held, Beam) else loose)
        return put(project, *corners.made, *made)


def joists_between(project: Project, walls: set[str]) -> Iterator[Floor | Ceiling]:
    """The floors and ceilings all of whose walls are among some: what they carry, and what stands on them."""

    def within(on: str | None, bearing: str) -> bool:
        own = {wall.id for wall in project.walls if wall.base.level == on or wall.top.level == bearing}
        return bool(own) and own <= walls

    yield from (floor for floor in project.floors if within(floor.level, floor.bearing))
    yield from (ceiling for ceiling in project.ceilings if within(None, ceiling.level))


def _next_name(name: str, project: Project, made: list[Any]) -> str:
    """For the copy of a line that is known by its name, the next free one: a number or a letter, as it has."""
    taken = {
        held.name for held in (*project.grid, *project.sections, *made) if isinstance(held, GridLine | SectionLine)
    }
    names = (str(n) for n in range(1, 1000)) if name.isdigit() else (chr(k) for k in range(ord("A"), ord("Z") + 1))
    return next((free for free in names if free not in taken and free not in "IO"), f"{name}'")


def _mirrored(wall: Wall) -> Wall:
    """A wall whose line was mirrored, with its outside on the other hand."""
    side = "left" if wall.outside == "right" else "right"
    twin: Wall = changed(wall, outside=side, bulge=-wall.bulge if wall.bulge else 0.0)
    return twin


def _goes_along(roof: RoofBlock, joints: set[str], roofs: set[str]) -> bool:
    """Whether all corners of a roof are moved: those tied to joints with these, others with the roof itself."""
    corners = [corner for ring in roof.rings for corner in ring]
    return all(corner.joint in joints if corner.joint else roof.id in roofs for corner in corners)


def _turned_round(roof: RoofBlock) -> RoofBlock:
    """A roof over mirrored corners, counter-clockwise again: each edge keeps its treatment."""
    edges: list[RoofEdge] = []
    for ring in roof.rings:
        own = roof.edges[len(edges) : len(edges) + len(ring)]
        edges += [own[(len(ring) - 2 - k) % len(ring)] for k in range(len(ring))]
    outline, *courts = (ring[::-1] for ring in roof.rings)
    turned: RoofBlock = changed(roof, outline=outline, courts=tuple(courts), edges=tuple(edges))
    return turned


def _pipes_turned(project: Project, roofs: list[RoofBlock]) -> Iterator[Downpipe]:
    """The downpipes of roofs that were turned round: their edges start at the other end."""
    lengths = {(r.id, e.id): math.dist(*ends) for r in roofs for e, ends in zip(r.edges, roof_sides(project, r))}
    for pipe in project.downpipes:
        length = lengths.get((pipe.roof, pipe.edge))
        if length is not None:
            yield changed(pipe, distance=max(length - pipe.distance, 0.0))


def _roof_copy(project: Project, held: RoofBlock, id: str, motion: Motion, corners: _Corners) -> RoofBlock:
    """A copied roof over the copies of its walls; where a wall is not copied, over corners of its own."""

    def copied(corner: Corner) -> Corner:
        if corner.joint and corners.copied(corner.joint):
            return Corner(id=corner.id, joint=corners.of(corner.joint))
        x, y = motion.at(corner_point(project, corner))
        return Corner(id=corner.id, x=x, y=y)

    rings = [tuple(copied(corner) for corner in ring) for ring in held.rings]
    names = {roof.name for roof in project.roofs}
    name = next(free for k in range(2, len(names) + 3) if (free := f"{held.name[:50]} {k}") not in names)
    twin: RoofBlock = changed(held, id=id, name=name, outline=rings[0], courts=tuple(rings[1:]))
    return _turned_round(twin) if motion.mirror is not None else twin


def _beam_copy(project: Project, held: Beam, twin: Beam, posts: dict[str, str], motion: Motion) -> Beam:
    """A copied beam on the copies of its posts, or ending free where its post would be."""
    ends = {}
    places = {post.id: (post.x, post.y) for post in project.posts}
    for which in ("start", "end"):
        end = getattr(held, which)
        if end.post in posts:
            ends[which] = changed(end, post=posts[end.post])
        elif end.post:
            x, y = motion.at(places[end.post])
            ends[which] = changed(end, post=None, x=x, y=y)
    copy: Beam = changed(twin, **ends)
    return copy


def _lies_on_itself(project: Project, wall: Wall, motion: Motion) -> bool:
    """Whether a wall lies in the line it is mirrored in."""
    if motion.mirror is None:
        return False
    ends = (joint_point(project, wall.start), joint_point(project, wall.end))
    return all(math.dist(point, motion.at(point)) < ON for point in ends)


class _Corners:
    """The joints of copied walls: new ones, or those of the storey that they come to lie on."""

    def __init__(
        self, project: Project, motion: Motion, named: dict[str, str], levels: set[str], ids: Iterator[str]
    ) -> None:
        self.project, self.motion, self.named, self.ids = project, motion, named, ids
        self.made: list[Any] = []
        self._known: dict[str, str] = {}
        used = {id for wall in project.walls if wall.base.level in levels for id in (wall.start, wall.end)}
        self._there = [(id, joint_point(project, id)) for id in sorted(used)]

    def copied(self, id: str) -> bool:
        """Whether a joint was copied with a wall."""
        return id in self._known

    def of(self, id: str) -> str:
        """The joint that a copied wall has for one of its original."""
        if id in self._known:
            return self._known[id]
        joint = self.project.find(id)
        point = self.motion.at(joint_point(self.project, id))
        found = next((held for held, at in self._there if math.dist(at, point) < ON), None)
        if found is None:
            found = next(self.ids)
            if isinstance(joint, TeeJoint) and joint.wall in self.named:
                self.made.append(changed(joint, id=found, wall=self.named[joint.wall]))
            else:
                self.made.append(self._on_a_wall(found, point) or FreeJoint(id=found, x=point[0], y=point[1]))
        self._known[id] = found
        return found

    def _on_a_wall(self, id: str, point: Point) -> TeeJoint | None:
        """A tee, where a corner comes to lie on a wall of its storey."""
        levels = {wall.base.level for wall in self.project.walls if wall.id in self.named}
        for wall in self.project.walls:
            if wall.base.level not in levels:
                continue
            ends = (joint_point(self.project, wall.start), joint_point(self.project, wall.end))
            axis = Axis(*ends, wall.bulge)
            along = axis.along(point)
            if ON < along < axis.length - ON and abs(axis.left_of(point)) < TOL.point * 10:
                return TeeJoint(id=id, wall=wall.id, end="start", distance=along)
        return None
