"""Edits that part a wall in two, or turn its direction round; what stands on it keeps its place."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any, ClassVar, Literal

from ....document.anchors import PartAnchor
from ....document.command import Command
from ....document.ids import free_ids
from ....document.rebuilding import changed, get_element, put
from ....document.values import Id, Mm, WallEnd
from ....errors import RefusedEdit
from ....model.places import OnWall, along_from_start, standing_on, wall_axis
from ....model.project import Project
from ...drawings.model import Note, WallSection
from ...openings.model import Opening
from ..model import FreeJoint, Wall

SHORTEST = 50.0
"""A piece of a wall shorter than this (mm) is no wall."""

_OTHER: dict[Any, Any] = {"start": "end", "end": "start", "centre": "centre", "left": "right", "right": "left"}


class SplitWall(Command):
    """A wall parted at a distance from its start: it keeps its id on the start piece, a new wall is the rest.

    Openings go with their centre, tees with their place.
    """

    kind: Literal["split_wall"] = "split_wall"
    phrase: ClassVar[str] = "split a wall"
    wall: Id
    distance: Mm
    joint: Id
    second: Id

    def apply(self, project: Project) -> Project:
        """The project with the wall in two. Raises: RefusedEdit, UnknownElement."""
        wall = get_element(project, self.wall, Wall)
        axis = wall_axis(project, wall)
        length = axis.length
        if not SHORTEST <= self.distance <= length - SHORTEST:
            raise RefusedEdit(
                "a wall is split between its ends, and both pieces need a length",
                element=wall.id,
                field="split",
                value=self.distance,
                limit=length,
            )
        taken = {element.id for element in project.elements()}
        if taken & {self.joint, self.second} or self.joint == self.second:
            raise RefusedEdit("the pieces of a split wall need new names", element=wall.id, field="split")
        first, rest = axis.part(0.0, self.distance), axis.part(self.distance, length)
        return put(
            project,
            FreeJoint(id=self.joint, x=first.end[0], y=first.end[1]),
            changed(wall, end=self.joint, bulge=first.bulge),
            changed(wall, id=self.second, start=self.joint, bulge=rest.bulge),
            *(self._placed(held, length) for held in standing_on(project, wall.id)),
            *self._notes(project, length),
        )

    def _notes(self, project: Project, length: float) -> Iterator[Note]:
        """Notes on the layers of the wall, each on the piece that has its place."""
        for note in project.notes:
            anchor = note.anchor
            if not isinstance(anchor, PartAnchor) or anchor.element != self.wall or anchor.end is None:
                continue
            away = anchor.distance
            along = {"start": away, "middle": length / 2 + away, "end": length - away}[anchor.end]
            if along <= self.distance and anchor.end != "start":
                yield changed(note, anchor=changed(anchor, end="end", distance=self.distance - along))
            elif along > self.distance and anchor.end == "end":
                yield changed(note, anchor=_on(anchor, self.second))
            elif along > self.distance:
                moved = changed(anchor, end="start", distance=along - self.distance)
                yield changed(note, anchor=_on(moved, self.second))

    def _placed(self, standing: OnWall, length: float) -> Any:
        """What stands on the wall, on the piece that has its place; measured from the same end as before."""
        along = along_from_start(standing, length)
        if along <= self.distance:
            return changed(standing, distance=along if standing.end == "start" else self.distance - along)
        rest = along - self.distance
        return changed(
            standing, wall=self.second, distance=rest if standing.end == "start" else length - self.distance - rest
        )


class ReverseWall(Command):
    """A wall turned round, start for end; its outside, openings and tees stay where they are."""

    kind: Literal["reverse_wall"] = "reverse_wall"
    phrase: ClassVar[str] = "turn a wall round"
    wall: Id

    def apply(self, project: Project) -> Project:
        """The project with the wall turned round. Raises: RefusedEdit, UnknownElement."""
        wall = get_element(project, self.wall, Wall)
        turned = changed(wall, start=wall.end, end=wall.start, bulge=-wall.bulge or 0.0, outside=_OTHER[wall.outside])
        standing = [_from_the_other_end(held) for held in standing_on(project, wall.id)]
        return put(project, turned, *standing, *_notes_turned(project, wall.id))


def _from_the_other_end(held: OnWall) -> Any:
    """What stands on a wall whose start becomes its end, where it is."""
    if isinstance(held, Opening):
        return changed(held, end=_end(held.end), hinge=_end(held.hinge), stays=_OTHER[held.stays])
    if isinstance(held, WallSection):
        return changed(held, end=_end(held.end), look=_end(held.look))
    return changed(held, end=_end(held.end))


def _notes_turned(project: Project, wall: str) -> Iterator[Note]:
    """Notes on the layers of a wall whose start becomes its end."""
    for note in project.notes:
        anchor = note.anchor
        if isinstance(anchor, PartAnchor) and anchor.element == wall and anchor.end is not None:
            away = -anchor.distance if anchor.end == "middle" else anchor.distance
            yield changed(note, anchor=changed(anchor, end=_OTHER.get(anchor.end, anchor.end), distance=away))


def _on(anchor: PartAnchor, wall: str) -> PartAnchor:
    return anchor.model_copy(update={"element": wall})


def _end(end: WallEnd) -> WallEnd:
    turned: WallEnd = _OTHER[end]
    return turned


def split_at(project: Project, wall: str, distance: float) -> SplitWall:
    """The edit that parts a wall, with names that are free."""
    joint, second = next(free_ids(project, "split")), next(free_ids(project, "wall"))
    return SplitWall(wall=wall, distance=distance, joint=joint, second=second)
