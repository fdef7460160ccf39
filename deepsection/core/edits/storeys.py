"""Edits of whole storeys: one more on top, or the top one taken away."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Annotated, Any, ClassVar, Literal

from pydantic import Field

from ..document.command import Command
from ..document.rebuilding import changed, get_element, put, rebuild
from ..document.values import Element, Id
from ..errors import RefusedEdit
from ..model.project import Project
from ..trades.floors.lay_edits import floor_terms
from ..trades.floors.model import Floor
from ..trades.levels.model import BaseRule, Rung
from ..trades.levels.rises import plate_of
from ..trades.makeups.model import MakeUp
from ..trades.roofs.corners import with_corners
from ..trades.roofs.model import RoofBlock
from ..trades.walls.model import TeeJoint, Wall
from .removing import Remove


class Copied(Element):
    """What a new element is like: the one that is copied, and the id of the copy."""

    of: Id
    id: Id


class AddStorey(Command):
    """A floor on the plate of a storey, with a plate, outer walls and a ceiling as below; the roofs go up.

    `walls` and `joints` say what is copied: outer walls, and the joints by which they stand on each other.
    """

    kind: Literal["add_storey"] = "add_storey"
    phrase: ClassVar[str] = "add a storey over {name}"
    below: Id
    make_up: Id
    level: Id
    plate: Id
    floor: Id
    ceiling: Id
    walls: tuple[Copied, ...] = ()
    joints: tuple[Copied, ...] = ()

    def apply(self, project: Project) -> Project:
        """The project with the storey. Raises: RefusedEdit, UnknownElement."""
        below = get_element(project, self.below, Rung)
        bearing = plate_of(project.rungs, below.id)
        if bearing is None:
            raise RefusedEdit(f"{below.name} has no plate to stand a storey on", element=below.id)
        taken = {element.id for element in project.elements()}
        new = (self.level, self.plate, self.floor, self.ceiling, *(held.id for held in (*self.walls, *self.joints)))
        for id in new:
            if id in taken:
                raise RefusedEdit(f"“{id}” is in use; a new storey needs new names", element=below.id, value=id)
        if any(floor.bearing == bearing.id for floor in project.floors):
            raise RefusedEdit(f"a floor lies on {bearing.name} already", element=below.id)
        make_up = get_element(project, self.make_up, MakeUp)
        terms = floor_terms(make_up)
        if not terms:
            raise RefusedEdit(
                "that make-up has no joists and no slab to carry a floor", element=below.id, field="make_up"
            )
        name = _free("Upper floor", (rung.name for rung in project.rungs))
        level = Rung(id=self.level, name=name, surface="deck", from_rung=bearing.id, terms=terms, free=terms[0].id)
        plate_name = _free("Upper plate", (rung.name for rung in project.rungs))
        plate = changed(bearing, id=self.plate, name=plate_name, from_rung=level.id)
        floor = Floor(id=self.floor, name=name, level=level.id, bearing=bearing.id, make_up=make_up.id)
        raised: list[Any] = [changed(roof, plate=plate.id) for roof in project.roofs if roof.plate == bearing.id]
        below_it = next((ceiling for ceiling in project.ceilings if ceiling.level == bearing.id), None)
        if below_it is not None:
            raised.append(changed(below_it, id=self.ceiling, name=f"{below_it.name}, {name.lower()}", level=plate.id))
        return put(project, level, plate, floor, *raised, *self._copies(project, plate))

    def _copies(self, project: Project, plate: Rung) -> Iterable[Any]:
        walls = {wall.id: wall for wall in project.walls}
        new = {copied.of: copied.id for copied in (*self.walls, *self.joints)}
        for copied in self.joints:
            joint = get_element(project, copied.of, TeeJoint)
            yield changed(joint, id=copied.id, wall=new.get(joint.wall, joint.wall))
        for copied in self.walls:
            if copied.of not in walls:
                raise RefusedEdit(f"there is no wall “{copied.of}” to copy", element=copied.of, field="walls")
            wall = walls[copied.of]
            yield changed(
                wall,
                id=copied.id,
                start=new.get(wall.start, wall.start),
                end=new.get(wall.end, wall.end),
                base=BaseRule(level=self.level),
                top=changed(wall.top, level=plate.id),
            )


def storey_above(project: Project, below: str) -> AddStorey:
    """The edit that puts a storey over another one, all outer walls copied, with ids that are free.

    Raises: RefusedEdit when the project has no make-up for floors.
    """
    make_up = next((held for held in project.make_ups if held.use == "floor" and floor_terms(held)), None)
    if make_up is None:
        raise RefusedEdit("this project has no make-up for floors; bring one from another project", element=below)
    taken = {element.id for element in project.elements()}
    number = next(n for n in range(2, 100) if not any(id.startswith(f"s{n}-") for id in taken))
    walls = [wall for wall in project.walls if wall.base.level == below and wall.status == "outer"]
    ids = {wall.id for wall in walls}
    ends = {id for wall in walls for id in (wall.start, wall.end)}
    hosted = [j for j in project.joints if isinstance(j, TeeJoint) and j.id in ends and j.wall in ids]
    return AddStorey(
        below=below,
        make_up=make_up.id,
        level=f"s{number}-floor",
        plate=f"s{number}-plate",
        floor=f"s{number}-joists",
        ceiling=f"s{number}-ceiling",
        walls=tuple(Copied(of=wall.id, id=f"s{number}-w{n}") for n, wall in enumerate(walls, 1)),
        joints=tuple(Copied(of=joint.id, id=f"s{number}-j{n}") for n, joint in enumerate(hosted, 1)),
    )


class PartCorners(Command):
    """A wall given corners of its own, so that it moves without the walls of other storeys at its corners.

    Walls of its own storey, and the roofs on its plate, go along to the new corners.
    """

    kind: Literal["part_corners"] = "part_corners"
    phrase: ClassVar[str] = "detach the corners of a wall"
    wall: Id
    joints: Annotated[tuple[Copied, ...], Field(min_length=1)]

    def apply(self, project: Project) -> Project:
        """The project with the corners parted. Raises: RefusedEdit, UnknownElement."""
        wall = get_element(project, self.wall, Wall)
        new = {copied.of: copied.id for copied in self.joints}
        taken = {element.id for element in project.elements()}
        if not set(new) <= {wall.start, wall.end} or taken & set(new.values()):
            raise RefusedEdit("only the corners of this wall can be parted, under new names", element=wall.id)
        joints = [changed(joint, id=new[joint.id]) for joint in project.joints if joint.id in new]
        walls = [
            changed(other, start=new.get(other.start, other.start), end=new.get(other.end, other.end))
            for other in project.walls
            if other.base.level == wall.base.level and {other.start, other.end} & set(new)
        ]
        roofs = [
            with_corners(roof, lambda corner: changed(corner, joint=new.get(corner.joint or "", corner.joint)))
            for roof in project.roofs
            if roof.plate == wall.top.level
        ]
        return put(project, *joints, *walls, *roofs)


def parted_corners(project: Project, wall: Wall) -> PartCorners | None:
    """The edit that gives a wall corners of its own; none where it shares none with other storeys."""
    others = [other for other in project.walls if other.base.level != wall.base.level]
    ends = {id for other in others for id in (other.start, other.end)}
    shared = [id for id in (wall.start, wall.end) if id in ends]
    taken = {element.id for element in project.elements()}
    free = (id for n in range(1, 10_000) if (id := f"corner-{n}") not in taken)
    return PartCorners(wall=wall.id, joints=tuple(Copied(of=id, id=next(free)) for id in shared)) if shared else None


class RemoveStorey(Command):
    """A storey on a joist floor taken away with all that stands on it; its roofs come down to the plate below."""

    kind: Literal["remove_storey"] = "remove_storey"
    phrase: ClassVar[str] = "remove the storey {name}"
    level: Id

    def apply(self, project: Project) -> Project:
        """The project without the storey. Raises: RefusedEdit, UnknownElement."""
        level = get_element(project, self.level, Rung)
        floor = next((floor for floor in project.floors if floor.level == level.id), None)
        if floor is None or project.find(floor.bearing).surface != "plate":
            raise RefusedEdit(f"{level.name} does not lie on walls below; it stays", element=level.id)
        plate = plate_of(project.rungs, level.id)
        if plate is not None and any(other.bearing == plate.id for other in project.floors):
            raise RefusedEdit("another storey stands on this one; take that away first", element=level.id)
        rungs = {level.id, *((plate.id,) if plate else ())}
        gone = {wall.id for wall in project.walls if wall.base.level in rungs}
        gone |= {room.id for room in project.rooms if room.level in rungs}
        gone |= {ceiling.id for ceiling in project.ceilings if ceiling.level in rungs}
        gone |= set(_standing_on(project, {*rungs, floor.id}))
        lowered = [changed(roof, plate=floor.bearing) for roof in project.roofs if roof.plate in rungs]
        project = put(project, *lowered) if lowered else project
        if gone:
            project = Remove(elements=tuple(sorted(gone))).apply(project)
        kept = {
            name: tuple(held for held in getattr(project, name) if held.id not in {*rungs, floor.id})
            for name in project.collections
        }
        return rebuild(project, **kept)


def _standing_on(project: Project, gone: set[str]) -> Iterable[str]:
    """What else cannot be without a level or a floor: stairs up to it, hatches over it, holes in it and so on.

    Roofs come down; walls that only end there are left to whoever drew them.
    """
    for element in project.elements():
        left = not element.about.removable or isinstance(element, Wall | RoofBlock)
        if not left and any(value in gone for ref in element.about.refs for value in ref.values(element)):
            yield element.id


def _free(name: str, names: Iterable[str]) -> str:
    taken = set(names)
    return next(held for held in (name, *(f"{name} {n}" for n in range(2, 99))) if held not in taken)
