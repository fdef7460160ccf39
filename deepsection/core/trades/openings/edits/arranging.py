"""Edits that arrange openings on their wall: repeated, spread, centred, mirrored, copied elsewhere."""

from __future__ import annotations

from typing import Annotated, Any, ClassVar, Literal

from pydantic import Field

from ....document.command import Command
from ....document.rebuilding import changed, get_element, put
from ....document.values import Id, Mm, Positive, WallEnd
from ....errors import RefusedEdit
from ....model.places import along_from_start, wall_length
from ....model.project import Project
from ...walls.model import Wall
from ..model import Opening

Ids = Annotated[tuple[Id, ...], Field(min_length=1, max_length=200)]


class RepeatOpening(Command):
    """Copies of an opening at a spacing, middle to middle, away from the end that it is measured from."""

    kind: Literal["repeat_opening"] = "repeat_opening"
    phrase: ClassVar[str] = "repeat {name}"
    opening: Id
    ids: Ids
    spacing: Positive

    def apply(self, project: Project) -> Project:
        """The project with the copies. Raises: RefusedEdit, UnknownElement."""
        opening = get_element(project, self.opening, Opening)
        taken = numbers_of(project)
        copies = [
            _copy(project, opening, id, taken, distance=opening.distance + k * self.spacing)
            for k, id in enumerate(self.ids, 1)
        ]
        return put(project, *copies)


class SpreadOpenings(Command):
    """An opening and copies of it over its whole wall, with one clear distance between them and to the ends."""

    kind: Literal["spread_openings"] = "spread_openings"
    phrase: ClassVar[str] = "spread {name} over its wall"
    opening: Id
    ids: Ids

    def apply(self, project: Project) -> Project:
        """The project with the openings spread. Raises: RefusedEdit, UnknownElement."""
        opening = get_element(project, self.opening, Opening)
        wall = get_element(project, opening.wall, Wall)
        count, length, width = len(self.ids) + 1, wall_length(project, wall), project.design_of(opening).width
        gap = (length - count * width) / (count + 1)
        if gap <= 0:
            raise RefusedEdit(
                f"{count} of them are wider than their wall together",
                element=opening.id,
                field="spread",
                value=count,
                limit=int(length // width),
            )
        middles = [gap + width / 2 + k * (gap + width) for k in range(count)]
        taken = numbers_of(project)
        copies = [_copy(project, opening, id, taken, distance=at) for id, at in zip(self.ids, middles[1:])]
        return put(project, changed(opening, distance=middles[0]), *copies)


class CentreOpening(Command):
    """An opening moved to the middle between its neighbours on the wall, or the ends of the wall."""

    kind: Literal["centre_opening"] = "centre_opening"
    phrase: ClassVar[str] = "centre {name}"
    opening: Id

    def apply(self, project: Project) -> Project:
        """The project with the opening centred. Raises: RefusedEdit, UnknownElement."""
        opening = get_element(project, self.opening, Opening)
        length = wall_length(project, get_element(project, opening.wall, Wall))
        own = along_from_start(opening, length)
        before, after = [0.0], [length]
        for other in project.openings:
            if other.wall == opening.wall and other.id != opening.id:
                middle, half = along_from_start(other, length), project.design_of(other).width / 2
                (before if middle < own else after).append(middle + half if middle < own else middle - half)
        middle = (max(before) + min(after)) / 2
        return put(project, changed(opening, distance=middle if opening.end == "start" else length - middle))


class MirrorOpening(Command):
    """A copy of an opening on the other side of the middle of its wall, hung the other way round."""

    kind: Literal["mirror_opening"] = "mirror_opening"
    phrase: ClassVar[str] = "mirror {name}"
    opening: Id
    id: Id

    def apply(self, project: Project) -> Project:
        """The project with the copy. Raises: RefusedEdit, UnknownElement."""
        opening = get_element(project, self.opening, Opening)
        other: dict[str, Any] = {"start": "end", "end": "start"}
        share = project.design_of(opening).share
        turned = {"end": other[opening.end], "hinge": other[opening.hinge]}
        if share != 0.5:
            turned["share"] = 1 - share
        return put(project, _copy(project, opening, self.id, numbers_of(project), **turned))


class CopyOpening(Command):
    """A copy of an opening on another wall, or elsewhere on its own."""

    kind: Literal["copy_opening"] = "copy_opening"
    phrase: ClassVar[str] = "copy {name}"
    opening: Id
    id: Id
    wall: Id
    end: WallEnd = "start"
    distance: Mm

    def apply(self, project: Project) -> Project:
        """The project with the copy. Raises: RefusedEdit, UnknownElement."""
        opening = get_element(project, self.opening, Opening)
        get_element(project, self.wall, Wall)
        place: dict[str, Any] = {"wall": self.wall, "end": self.end, "distance": self.distance}
        return put(project, _copy(project, opening, self.id, numbers_of(project), **place))


def _copy(project: Project, opening: Opening, id: str, taken: set[str], **changes: Any) -> Opening:
    """A copy by another id; one with a number of its own gets the next of those that are not taken."""
    if any(element.id == id for element in project.elements()):
        raise RefusedEdit(f"something is already called “{id}”", element=opening.id, field="id", value=id)
    number = None if opening.number is None else next_number(opening.number, taken)
    copy: Opening = changed(opening, id=id, number=number, **changes)
    return copy


def next_number(number: str, taken: set[str]) -> str:
    """The number with its count raised past all that are taken, among which it is then."""
    stem = number.rstrip("0123456789")
    used = [int(held[len(stem) :]) for held in taken if held.startswith(stem) and held[len(stem) :].isdigit()]
    raised = f"{stem}{max(used, default=0) + 1}"
    taken.add(raised)
    return raised


def numbers_of(project: Project) -> set[str]:
    """The numbers that openings show."""
    return {project.number_of(opening) for opening in project.openings}


def copies_of(project: Project, opening: Opening, count: int) -> tuple[str, ...]:
    """Free ids for copies of an opening, numbered from 1."""
    taken = {element.id for element in project.elements()}
    stems = (f"{opening.id[:24]}-c{n}-" for n in range(1, 10_000))
    stem = next(stem for stem in stems if not any(id.startswith(stem) for id in taken))
    return tuple(f"{stem}{k}" for k in range(1, count + 1))
