"""Edits: typed commands, each a pure function from project to project.

The union `Edit` is told apart by `kind`. New ids arrive in the edit, so that applying it twice to
one project gives one result. What the document cannot hold is refused here; what the building
cannot be is a diagnostic of the building.
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterable
from typing import Annotated, Any, Literal

from pydantic import Field, TypeAdapter, ValidationError

from ..errors import DeepSectionError, RefusedEdit
from .elements import (
    BaseRule,
    Ceiling,
    Element,
    Foundation,
    FreeJoint,
    HostedJoint,
    Id,
    Joint,
    MakeUp,
    Mm,
    Name,
    Note,
    Opening,
    Positive,
    RoofBlock,
    Room,
    Rung,
    SectionLine,
    SetOut,
    Sheet,
    TopRule,
    Wall,
    WallEnd,
)
from .places import corner_point, joint_point, wall_points
from .project import COLLECTIONS, Project


def rebuild(project: Project, **changes: Any) -> Project:
    """The project with fields replaced, validated anew. Raises: RefusedEdit."""
    data = {name: getattr(project, name) for name in type(project).model_fields}
    data.update(changes)
    try:
        return Project.model_validate(data)
    except ValidationError as error:
        raise refusal(error) from error


def refusal(error: ValidationError) -> RefusedEdit:
    """The first fault of a validation, in words that name the field."""
    first = error.errors()[0]
    path = [str(step) for step in first["loc"] if not isinstance(step, int)]
    message = str(first["msg"]).removeprefix("Value error, ")
    field = path[-1] if path else None
    element, _, rest = message.partition(": ")
    known = bool(rest) and " " not in element
    value = first.get("input")
    return RefusedEdit(
        rest if known else (f"{field.replace('_', ' ')}: {message}" if field else message),
        element=element if known else None,
        field=field,
        value=value if isinstance(value, (str, int, float)) else None,
    )


def changed(element: Any, **changes: Any) -> Any:
    """An element with fields replaced, validated anew. Raises: RefusedEdit."""
    data = {name: getattr(element, name) for name in type(element).model_fields}
    data.update(changes)
    try:
        return type(element).model_validate(data)
    except ValidationError as error:
        refused = refusal(error)
        refused.element = element.id
        raise refused from error


def put(project: Project, *elements: Any) -> Project:
    """The project with elements added, or replaced where their id is known."""
    changes: dict[str, Any] = {}
    for element in elements:
        collection = _COLLECTION_OF[type(element)]
        held = changes.get(collection, getattr(project, collection))
        if any(old.id == element.id for old in held):
            changes[collection] = tuple(element if old.id == element.id else old for old in held)
        else:
            changes[collection] = (*held, element)
    return rebuild(project, **changes)


_COLLECTION_OF: dict[type, str] = {
    MakeUp: "make_ups",
    Rung: "rungs",
    FreeJoint: "joints",
    HostedJoint: "joints",
    Wall: "walls",
    Opening: "openings",
    Room: "rooms",
    RoofBlock: "roofs",
    Foundation: "foundations",
    Ceiling: "ceilings",
    SectionLine: "sections",
    Note: "notes",
    Sheet: "sheets",
}


class _Put(Element):
    def apply(self, project: Project) -> Project:
        """The project with this element added, or replaced by id. Raises: RefusedEdit."""
        return put(project, getattr(self, self.__class__._carries()))

    @classmethod
    def _carries(cls) -> str:
        return next(name for name in cls.model_fields if name != "kind")


class PutMakeUp(_Put):
    kind: Literal["put_make_up"] = "put_make_up"
    make_up: MakeUp


class PutRung(_Put):
    kind: Literal["put_rung"] = "put_rung"
    rung: Rung


class PutJoint(_Put):
    kind: Literal["put_joint"] = "put_joint"
    joint: Joint


class PutWall(_Put):
    kind: Literal["put_wall"] = "put_wall"
    wall: Wall


class PutOpening(_Put):
    kind: Literal["put_opening"] = "put_opening"
    opening: Opening


class PutRoom(_Put):
    kind: Literal["put_room"] = "put_room"
    room: Room


class PutRoof(_Put):
    kind: Literal["put_roof"] = "put_roof"
    roof: RoofBlock


class PutFoundation(_Put):
    kind: Literal["put_foundation"] = "put_foundation"
    foundation: Foundation


class PutCeiling(_Put):
    kind: Literal["put_ceiling"] = "put_ceiling"
    ceiling: Ceiling


class PutSection(_Put):
    kind: Literal["put_section"] = "put_section"
    section: SectionLine


class PutNote(_Put):
    kind: Literal["put_note"] = "put_note"
    note: Note


class PutSheet(_Put):
    kind: Literal["put_sheet"] = "put_sheet"
    sheet: Sheet


class SetProject(Element):
    """Name, place, author, units or working scale of the project."""

    kind: Literal["set_project"] = "set_project"
    name: Name | None = None
    place: str | None = Field(default=None, max_length=120)
    author: str | None = Field(default=None, max_length=120)
    units: Literal["ft-in", "mm"] | None = None
    scale: float | None = Field(default=None, ge=1, le=2000)

    def apply(self, project: Project) -> Project:
        """The project with what is given replaced."""
        given = {
            name: getattr(self, name)
            for name in ("name", "place", "author", "units", "scale")
            if getattr(self, name) is not None
        }
        return rebuild(project, **given)


class DrawWalls(Element):
    """A chain of walls through joints, new ones given here; closed when it returns to its first.

    A closed chain has its outside on the outside of the loop; an open one on the left.
    """

    kind: Literal["draw_walls"] = "draw_walls"
    joints: tuple[Joint, ...] = ()
    chain: Annotated[tuple[Id, ...], Field(min_length=2)]
    walls: Annotated[tuple[Id, ...], Field(min_length=1)]
    make_up: Id
    status: Literal["outer", "inner"] = "outer"
    base: Id
    top: Id

    def apply(self, project: Project) -> Project:
        """The project with the chain built. Raises: RefusedEdit."""
        if len(self.walls) != len(self.chain) - 1:
            raise RefusedEdit("a chain of walls has one wall between each two joints", field="walls")
        make_up = next((held for held in project.make_ups if held.id == self.make_up), None)
        if make_up is None:
            raise RefusedEdit(f"no make-up is called “{self.make_up}”", field="make_up")
        staged = put(project, *self.joints) if self.joints else project
        points = [self._point(staged, id) for id in self.chain]
        closed = self.chain[0] == self.chain[-1]
        outside: Literal["left", "right"] = "right" if closed and _area(points) > 0 else "left"
        for index, (start, end) in enumerate(itertools.pairwise(points)):
            if math.dist(start, end) < 1.0:
                raise RefusedEdit(
                    "a wall needs a length", element=self.walls[index], field="length", value=0.0, limit=1.0
                )
        walls = [
            Wall(
                id=id,
                start=start,
                end=end,
                make_up=make_up.id,
                set_out=default_set_out(make_up, self.status),
                outside=outside,
                status=self.status,
                base=BaseRule(level=self.base),
                top=TopRule(kind="roof" if self.status == "outer" else "level", level=self.top),
            )
            for id, start, end in zip(self.walls, self.chain, self.chain[1:])
        ]
        return put(staged, *walls)

    @staticmethod
    def _point(project: Project, id: str) -> tuple[float, float]:
        if all(joint.id != id for joint in project.joints):
            raise RefusedEdit(f"no joint is called “{id}”", field="chain", value=id)
        return joint_point(project, id)


def default_set_out(make_up: MakeUp, status: str) -> SetOut:
    """The usual set-out face: outside of the frame; the middle of it for inner walls."""
    structure = next((layer for layer in make_up.layers if layer.function == "structure"), make_up.layers[0])
    return SetOut(layer=structure.id, face="outer" if status == "outer" else "middle")


def _area(points: list[tuple[float, float]]) -> float:
    return sum(a[0] * b[1] - b[0] * a[1] for a, b in itertools.pairwise(points)) / 2


class MoveJoint(Element):
    """A joint moved to a point; a hosted one slides along its wall to the nearest place."""

    kind: Literal["move_joint"] = "move_joint"
    joint: Id
    x: Mm
    y: Mm

    def apply(self, project: Project) -> Project:
        """The project with the joint moved. Raises: RefusedEdit, UnknownElement."""
        return put(project, _moved(project, self.joint, (self.x, self.y)))


def _moved(project: Project, id: str, to: tuple[float, float]) -> FreeJoint | HostedJoint:
    joint = project.find(id)
    if isinstance(joint, FreeJoint):
        moved: FreeJoint = changed(joint, x=to[0], y=to[1])
        return moved
    if not isinstance(joint, HostedJoint):
        raise RefusedEdit("only a joint can be moved to a point", element=id)
    host = project.find(joint.wall)
    start, end = wall_points(project, host)
    if joint.end == "end":
        start, end = end, start
    length = math.dist(start, end)
    along = ((to[0] - start[0]) * (end[0] - start[0]) + (to[1] - start[1]) * (end[1] - start[1])) / length
    hosted: HostedJoint = changed(joint, distance=min(max(along, 0.0), length))
    return hosted


class MoveWall(Element):
    """A wall shifted in plan; walls that share its joints stretch."""

    kind: Literal["move_wall"] = "move_wall"
    wall: Id
    dx: Mm
    dy: Mm

    def apply(self, project: Project) -> Project:
        """The project with both joints of the wall shifted. Raises: RefusedEdit, UnknownElement."""
        wall = _wall(project, self.wall)
        joints = [
            _moved(project, id, (point[0] + self.dx, point[1] + self.dy))
            for id, point in zip((wall.start, wall.end), wall_points(project, wall))
        ]
        return put(project, *joints)


def _wall(project: Project, id: str) -> Wall:
    wall = project.find(id)
    if not isinstance(wall, Wall):
        raise RefusedEdit(f"“{id}” is not a wall", element=id)
    return wall


class FlipWall(Element):
    """The outside of a wall put on the other side of its line."""

    kind: Literal["flip_wall"] = "flip_wall"
    wall: Id

    def apply(self, project: Project) -> Project:
        """The project with the wall flipped. Raises: UnknownElement."""
        wall = _wall(project, self.wall)
        return put(project, changed(wall, outside="right" if wall.outside == "left" else "left"))


class UseMakeUp(Element):
    """Another make-up for a wall, on its usual set-out face; openings measure set-in from the frame."""

    kind: Literal["use_make_up"] = "use_make_up"
    wall: Id
    make_up: Id

    def apply(self, project: Project) -> Project:
        """The project with the wall built otherwise. Raises: RefusedEdit, UnknownElement."""
        wall, make_up = _wall(project, self.wall), project.find(self.make_up)
        if not isinstance(make_up, MakeUp) or make_up.use != "wall":
            raise RefusedEdit("that make-up is not one for walls", element=self.wall, field="make_up")
        layers = {layer.id for layer in make_up.layers}
        openings = [
            changed(opening, set_in=changed_set_in(opening, layers))
            for opening in project.openings
            if opening.wall == wall.id
        ]
        set_out = default_set_out(make_up, wall.status)
        return put(project, changed(wall, make_up=make_up.id, set_out=set_out), *openings)


def changed_set_in(opening: Opening, layers: set[str]) -> Any:
    """The set-in of an opening, measured from the whole wall when its layer is gone."""
    keep = opening.set_in.layer is None or opening.set_in.layer in layers
    return opening.set_in if keep else type(opening.set_in)()


class ResizeOpening(Element):
    """Another width for an opening; the edge that it names stays."""

    kind: Literal["resize_opening"] = "resize_opening"
    opening: Id
    width: Positive

    def apply(self, project: Project) -> Project:
        """The project with the opening resized. Raises: RefusedEdit, UnknownElement."""
        opening = project.find(self.opening)
        if not isinstance(opening, Opening):
            raise RefusedEdit(f"“{self.opening}” is not an opening", element=self.opening)
        shift = {"start": 0.5, "centre": 0.0, "end": -0.5}[opening.stays] * (self.width - opening.width)
        sign = 1 if opening.end == "start" else -1
        return put(project, changed(opening, width=self.width, distance=opening.distance + sign * shift))


class MoveOpening(Element):
    """An opening moved along its wall to a distance from the end it is measured from, or to another."""

    kind: Literal["move_opening"] = "move_opening"
    opening: Id
    distance: Mm
    end: WallEnd | None = None

    def apply(self, project: Project) -> Project:
        """The project with the opening moved. Raises: RefusedEdit, UnknownElement."""
        opening = project.find(self.opening)
        return put(project, changed(opening, distance=self.distance, end=self.end or opening.end))


class SetTerm(Element):
    """Another value for one part of a rise sum."""

    kind: Literal["set_term"] = "set_term"
    rung: Id
    term: Id
    value: Mm

    def apply(self, project: Project) -> Project:
        """The project with the part changed. Raises: RefusedEdit, UnknownElement."""
        rung = project.find(self.rung)
        if self.value <= 0:
            raise RefusedEdit(
                "a part of a height must be more than nothing",
                element=rung.id,
                field=self.term,
                value=self.value,
                limit=0.0,
            )
        if all(term.id != self.term for term in rung.terms):
            raise RefusedEdit(f"{rung.name} has no part “{self.term}”", element=rung.id, field=self.term)
        terms = tuple(changed(term, value=self.value) if term.id == self.term else term for term in rung.terms)
        return put(project, changed(rung, terms=terms))


class SetTotal(Element):
    """Another total for a rise sum; its free term absorbs the difference."""

    kind: Literal["set_total"] = "set_total"
    rung: Id
    total: Mm

    def apply(self, project: Project) -> Project:
        """The project with the total kept by the free term. Raises: RefusedEdit, UnknownElement."""
        rung = project.find(self.rung)
        if rung.from_rung is None:
            raise RefusedEdit("the datum has no height of its own", element=rung.id, field="total")
        others = sum(term.value * term.count for term in rung.terms if term.id != rung.free)
        free = next(term for term in rung.terms if term.id == rung.free)
        value = (self.total - others) / free.count
        if value <= 0:
            below = project.find(rung.from_rung).name
            raise RefusedEdit(
                f"{rung.name} would leave nothing for “{free.name}”: "
                f"its height from {below} must be more than the other parts",
                element=rung.id,
                field="total",
                value=self.total,
                limit=others,
            )
        terms = tuple(changed(term, value=value) if term is free else term for term in rung.terms)
        return put(project, changed(rung, terms=terms))


class Remove(Element):
    """Elements taken away, with what cannot stand without them.

    Openings go with their wall; walls that met a removed one keep their end where it was.
    """

    kind: Literal["remove"] = "remove"
    elements: Annotated[tuple[Id, ...], Field(min_length=1)]

    def apply(self, project: Project) -> Project:
        """The project without the elements. Raises: UnknownElement, RefusedEdit."""
        gone = set(self.elements)
        for id in gone:
            if project.collection_of(id) == "joints":
                raise RefusedEdit("a joint goes with its walls; remove the walls", element=id)
        walls = tuple(wall for wall in project.walls if wall.id not in gone)
        used = {id for wall in walls for id in (wall.start, wall.end)}
        kept: dict[str, Any] = {
            name: tuple(element for element in getattr(project, name) if element.id not in gone) for name in COLLECTIONS
        }
        kept["openings"] = tuple(o for o in kept["openings"] if o.wall not in gone)
        kept["joints"] = tuple(_freed(project, joint, gone) for joint in project.joints if joint.id in used)
        kept["roofs"] = tuple(_untied(project, roof, used) for roof in kept["roofs"])
        return rebuild(project, **kept)


def _freed(project: Project, joint: Joint, gone: set[str]) -> Joint:
    if isinstance(joint, HostedJoint) and joint.wall in gone:
        x, y = joint_point(project, joint.id)
        return FreeJoint(id=joint.id, x=x, y=y, join=joint.join)
    return joint


def _untied(project: Project, roof: RoofBlock, used: set[str]) -> RoofBlock:
    if all(corner.joint is None or corner.joint in used for corner in roof.outline):
        return roof
    outline = []
    for corner in roof.outline:
        if corner.joint is not None and corner.joint not in used:
            x, y = corner_point(project, corner)
            corner = type(corner)(x=x, y=y)
        outline.append(corner)
    untied: RoofBlock = changed(roof, outline=tuple(outline))
    return untied


Edit = Annotated[
    PutMakeUp
    | PutRung
    | PutJoint
    | PutWall
    | PutOpening
    | PutRoom
    | PutRoof
    | PutFoundation
    | PutCeiling
    | PutSection
    | PutNote
    | PutSheet
    | SetProject
    | DrawWalls
    | MoveJoint
    | MoveWall
    | FlipWall
    | UseMakeUp
    | ResizeOpening
    | MoveOpening
    | SetTerm
    | SetTotal
    | Remove,
    Field(discriminator="kind"),
]

EDITS: TypeAdapter[Any] = TypeAdapter(tuple[Edit, ...])


def apply_edits(project: Project, edits: Iterable[Any]) -> Project:
    """The project after a group of edits: all of them, or an error and none.

    Raises: RefusedEdit, UnknownElement.
    """
    for edit in edits:
        try:
            project = edit.apply(project)
        except DeepSectionError:
            raise
        except ValidationError as error:
            raise refusal(error) from error
    return project
