"""The document: one house and all its drawings, as one frozen, validated value."""

from __future__ import annotations

from collections.abc import Iterator
from functools import cached_property
from typing import Any, Literal, Self

from pydantic import model_validator

from ..errors import UnknownElement
from ..units import Units
from .drawn import ElevationView, Note, SectionLine, Sheet, ViewShow
from .elements import (
    SLOPING,
    Ceiling,
    ConstructionLine,
    Floor,
    Foundation,
    FreeJoint,
    GridLine,
    HostedJoint,
    Joint,
    MakeUp,
    RoofBlock,
    Room,
    Rung,
    Tradition,
    Wall,
)
from .ground import GroundSpot, GroundStep
from .onroofs import Chimney, Downpipe, RoofFitting
from .openings import Design, Kind, Opening, design_of, number_of
from .outdoors import OutsideSteps, Rail
from .posts import Beam, Post
from .values import Element, Id, Name

SCHEMA_VERSION = 1

COLLECTIONS = (
    "make_ups",
    "rungs",
    "joints",
    "walls",
    "kinds",
    "openings",
    "posts",
    "beams",
    "rooms",
    "construction",
    "grid",
    "spots",
    "steps",
    "outside_steps",
    "rails",
    "roofs",
    "chimneys",
    "fittings",
    "downpipes",
    "foundations",
    "floors",
    "ceilings",
    "sections",
    "elevations",
    "shows",
    "notes",
    "sheets",
)
"""Names of the tuples of elements, in the order in which they may refer to each other."""


class Project(Element):
    """Everything that is saved. Building it validates it: ids are unique and references resolve."""

    schema_version: Literal[1] = 1
    id: Id
    name: Name
    place: str = ""
    author: str = ""
    units: Units
    tradition: Tradition = "timber"
    scale: float = 48.0
    make_ups: tuple[MakeUp, ...] = ()
    rungs: tuple[Rung, ...] = ()
    joints: tuple[Joint, ...] = ()
    walls: tuple[Wall, ...] = ()
    kinds: tuple[Kind, ...] = ()
    openings: tuple[Opening, ...] = ()
    posts: tuple[Post, ...] = ()
    beams: tuple[Beam, ...] = ()
    rooms: tuple[Room, ...] = ()
    construction: tuple[ConstructionLine, ...] = ()
    grid: tuple[GridLine, ...] = ()
    spots: tuple[GroundSpot, ...] = ()
    steps: tuple[GroundStep, ...] = ()
    outside_steps: tuple[OutsideSteps, ...] = ()
    rails: tuple[Rail, ...] = ()
    roofs: tuple[RoofBlock, ...] = ()
    chimneys: tuple[Chimney, ...] = ()
    fittings: tuple[RoofFitting, ...] = ()
    downpipes: tuple[Downpipe, ...] = ()
    foundations: tuple[Foundation, ...] = ()
    floors: tuple[Floor, ...] = ()
    ceilings: tuple[Ceiling, ...] = ()
    sections: tuple[SectionLine, ...] = ()
    elevations: tuple[ElevationView, ...] = ()
    shows: tuple[ViewShow, ...] = ()
    notes: tuple[Note, ...] = ()
    sheets: tuple[Sheet, ...] = ()

    @cached_property
    def joints_by_id(self) -> dict[str, Joint]:
        """The joints by their ids."""
        return {joint.id: joint for joint in self.joints}

    @cached_property
    def walls_by_id(self) -> dict[str, Wall]:
        """The walls by their ids."""
        return {wall.id: wall for wall in self.walls}

    def elements(self) -> Iterator[Any]:
        """Every element, in document order."""
        for collection in COLLECTIONS:
            yield from getattr(self, collection)

    def find(self, id: str) -> Any:
        """The element of this id. Raises: UnknownElement."""
        for element in self.elements():
            if element.id == id:
                return element
        raise UnknownElement(f"nothing here is called “{id}”", element=id)

    def collection_of(self, id: str) -> str:
        """The name of the collection that holds this id. Raises: UnknownElement."""
        for collection in COLLECTIONS:
            if any(element.id == id for element in getattr(self, collection)):
                return collection
        raise UnknownElement(f"nothing here is called “{id}”", element=id)

    def kind_of(self, opening: Opening) -> Kind | None:
        """The kind that an opening follows."""
        return next((kind for kind in self.kinds if kind.id == opening.kind), None)

    def design_of(self, opening: Opening) -> Design:
        """What stands in an opening, its kind's facts and its own exceptions together."""
        return design_of(opening, self.kind_of(opening))

    def show_of(self, view: str) -> ViewShow | None:
        """How a view is shown, where that was said."""
        return next((show for show in self.shows if show.view == view), None)

    def number_of(self, opening: Opening) -> str:
        """What is written beside an opening."""
        return number_of(opening, self.kind_of(opening))

    @model_validator(mode="after")
    def _hold_together(self) -> Self:
        _check_ids(self)
        _check_walls(self)
        _check_rungs(self)
        _check_roofs(self)
        _check_floors(self)
        _check_posts(self)
        _check_outdoors(self)
        _check_on_roofs(self)
        return self


def _need(held: set[str], id: str | None, owner: str, field: str) -> None:
    if id is not None and id not in held:
        raise ValueError(f"{owner}: {field} names “{id}”, which is not in the project")


def _ids(elements: tuple[Any, ...]) -> set[str]:
    return {element.id for element in elements}


def _check_ids(project: Project) -> None:
    seen: set[str] = set()
    for element in project.elements():
        if element.id in seen:
            raise ValueError(f"two elements are called “{element.id}”")
        seen.add(element.id)
    for make_up in project.make_ups:
        if len(_ids(make_up.layers)) != len(make_up.layers):
            raise ValueError(f"{make_up.id}: two layers have one id")


def _check_walls(project: Project) -> None:
    joints, walls, rungs = _ids(project.joints), _ids(project.walls), _ids(project.rungs)
    layers = {make_up.id: _ids(make_up.layers) for make_up in project.make_ups}
    by_id = {joint.id: joint for joint in project.joints}
    for wall in project.walls:
        _need(joints, wall.start, wall.id, "start")
        _need(joints, wall.end, wall.id, "end")
        _need(set(layers), wall.make_up, wall.id, "make-up")
        _need(layers[wall.make_up], wall.set_out.layer, wall.id, "set-out face")
        _need(rungs, wall.base.level, wall.id, "foot")
        _need(rungs, wall.top.level, wall.id, "top")
        start, end = by_id[wall.start], by_id[wall.end]
        if start is end:
            raise ValueError(f"{wall.id}: a wall needs a length: it starts and ends at one point")
        if not (isinstance(start, FreeJoint) and isinstance(end, FreeJoint)):
            continue
        if abs(start.x - end.x) + abs(start.y - end.y) < 1.0:
            raise ValueError(f"{wall.id}: a wall needs a length: its ends lie on one point")
    for joint in project.joints:
        if isinstance(joint, HostedJoint):
            _need(walls, joint.wall, joint.id, "host")
        else:
            _need(walls, joint.through, joint.id, "the wall that passes")
    _check_hosts_end(project)
    kinds = {kind.id: kind for kind in project.kinds}
    for opening in project.openings:
        _need(walls, opening.wall, opening.id, "wall")
        _need(set(kinds), opening.kind, opening.id, "kind")
        if opening.kind and kinds[opening.kind].unit != opening.unit:
            raise ValueError(f"{opening.id}: a {opening.unit} cannot follow a kind of {kinds[opening.kind].unit}s")


def _check_hosts_end(project: Project) -> None:
    joints = {joint.id: joint for joint in project.joints}
    walls = {wall.id: wall for wall in project.walls}
    for joint in project.joints:
        waiting, seen = [joint.id], set()
        while waiting:
            current = joints[waiting.pop()]
            if isinstance(current, HostedJoint):
                if current.wall in seen:
                    continue
                seen.add(current.wall)
                host = walls[current.wall]
                if joint.id in (host.start, host.end):
                    raise ValueError(f"{joint.id}: a wall cannot stand on itself")
                waiting += [host.start, host.end]


def _check_rungs(project: Project) -> None:
    by_id = {rung.id: rung for rung in project.rungs}
    layers = {make_up.id: _ids(make_up.layers) for make_up in project.make_ups}
    if project.rungs and sum(rung.from_rung is None for rung in project.rungs) != 1:
        raise ValueError("the height ladder needs exactly one datum")
    for rung in project.rungs:
        _need(set(by_id), rung.from_rung, rung.id, "the rung below")
    for rung in project.rungs:
        seen, current = {rung.id}, rung
        while current.from_rung is not None:
            if current.from_rung in seen:
                raise ValueError(f"{rung.id}: the height ladder runs in a circle")
            seen.add(current.from_rung)
            current = by_id[current.from_rung]
        if rung.from_rung is not None:
            _need(_ids(rung.terms), rung.free, rung.id, "the free term")
            if not rung.terms or rung.free is None:
                raise ValueError(f"{rung.id}: a height needs at least one term, one of them free")
        for term in rung.terms:
            if term.layer is not None:
                _need(set(layers), term.layer.make_up, rung.id, f"the part “{term.name}”")
                _need(layers[term.layer.make_up], term.layer.layer, rung.id, f"the part “{term.name}”")


def _check_roofs(project: Project) -> None:
    rungs, joints, make_ups = _ids(project.rungs), _ids(project.joints), _ids(project.make_ups)
    for roof in project.roofs:
        _need(rungs, roof.plate, roof.id, "plate")
        _need(make_ups, roof.make_up, roof.id, "make-up")
        for ring in roof.rings:
            for corner in ring:
                _need(joints, corner.joint, roof.id, "corner")
        count = sum(len(ring) for ring in roof.rings)
        if len(roof.edges) != count:
            raise ValueError(f"{roof.id}: a roof with {count} corners has {count} edges, not {len(roof.edges)}")
        if not any(edge.kind in SLOPING for edge in roof.edges):
            raise ValueError(f"{roof.id}: at least one edge is an eave: gables alone hold no roof")
        for k, edge in enumerate(roof.edges, 1):
            if edge.kind in ("half_hip", "dutch_gable") and edge.height is None:
                raise ValueError(f"{roof.id}: edge {k} needs the height at which it turns")
            if edge.upper_pitch is not None and (edge.height is None or edge.kind != "eave"):
                raise ValueError(f"{roof.id}: edge {k} goes on at another pitch from a height above its eave")


def _check_on_roofs(project: Project) -> None:
    rungs, roofs = _ids(project.rungs), _ids(project.roofs)
    for chimney in project.chimneys:
        _need(rungs, chimney.base.level, chimney.id, "foot")
        if chimney.flue >= min(chimney.width, chimney.depth):
            raise ValueError(f"{chimney.id}: the flue is wider than the chimney; make one of them smaller")
    for pipe in project.downpipes:
        _need(roofs, pipe.roof, pipe.id, "roof")


def _check_posts(project: Project) -> None:
    rungs, posts = _ids(project.rungs), _ids(project.posts)
    for post in project.posts:
        _need(rungs, post.base.level, post.id, "foot")
        _need(rungs, post.top.level, post.id, "top")
    for beam in project.beams:
        _need(rungs, beam.top.level, beam.id, "level")
        _need(posts, beam.start.post, beam.id, "start")
        _need(posts, beam.end.post, beam.id, "end")
        if beam.start.post and beam.start.post == beam.end.post:
            raise ValueError(f"{beam.id}: a beam needs a length: it starts and ends at one post")


def _check_outdoors(project: Project) -> None:
    rungs = _ids(project.rungs)
    for steps in project.outside_steps:
        _need(rungs, steps.top.level, steps.id, "top")
    for rail in project.rails:
        _need(rungs, rail.base.level, rail.id, "foot")


def _check_floors(project: Project) -> None:
    rungs, make_ups = _ids(project.rungs), _ids(project.make_ups)
    for foundation in project.foundations:
        for field, rung in (
            ("level", foundation.level),
            ("footing level", foundation.footing),
            ("top", foundation.top),
            ("sill plate", foundation.sill),
            ("ground level", foundation.slab_level),
        ):
            _need(rungs, rung, foundation.id, field)
        _need(make_ups, foundation.slab, foundation.id, "slab make-up")
    for floor in project.floors:
        _need(rungs, floor.level, floor.id, "level")
        _need(rungs, floor.bearing, floor.id, "bearing level")
        _need(make_ups, floor.make_up, floor.id, "make-up")
    for ceiling in project.ceilings:
        _need(rungs, ceiling.level, ceiling.id, "level")
        _need(make_ups, ceiling.make_up, ceiling.id, "make-up")
    for room in project.rooms:
        _need(rungs, room.level, room.id, "level")
    for view in project.elevations:
        _need(_ids(project.rooms), view.room, view.id, "room")
