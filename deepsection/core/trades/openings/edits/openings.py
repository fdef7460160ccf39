"""Edits of openings: moved and resized in their wall, of a kind or with exceptions from it."""

from __future__ import annotations

from typing import Annotated, Any, ClassVar, Literal

from pydantic import Field

from ....document.command import Command
from ....document.putting import PutElement
from ....document.rebuilding import changed, get_element, put
from ....document.values import Id, Mm, Name, Positive, WallEnd
from ....errors import RefusedEdit
from ....model.project import Project
from ..model import DESIGN_FIELDS, Kind, Opening


class PutKind(PutElement):
    kind: Literal["put_kind"] = "put_kind"
    phrase: ClassVar[str] = "change the kind {name}"
    adding: ClassVar[str] = "add the kind {name}"
    design: Kind


class PutOpening(PutElement):
    kind: Literal["put_opening"] = "put_opening"
    phrase: ClassVar[str] = "change {name}"
    adding: ClassVar[str] = "place {name}"
    opening: Opening


_PLAIN: dict[str, Any] = dict.fromkeys((*DESIGN_FIELDS, "number"))
"""What an opening has from its kind, left unsaid."""


class ResizeOpening(Command):
    """Another width for an opening; the edge that it names stays."""

    kind: Literal["resize_opening"] = "resize_opening"
    phrase: ClassVar[str] = "resize {name}"
    opening: Id
    width: Positive

    def apply(self, project: Project) -> Project:
        """The project with the opening resized. Raises: RefusedEdit, UnknownElement."""
        opening = get_element(project, self.opening, Opening)
        distance = _kept(opening, project.design_of(opening).width, self.width)
        return put(project, changed(opening, width=self.width, distance=distance))


def _kept(opening: Opening, before: float, after: float) -> float:
    """Where the middle of an opening goes when its width changes and the edge that it names stays."""
    shift = {"start": 0.5, "centre": 0.0, "end": -0.5}[opening.stays] * (after - before)
    return opening.distance + (shift if opening.end == "start" else -shift)


class MoveOpening(Command):
    """An opening moved along its wall to a distance from the end it is measured from, or to another."""

    kind: Literal["move_opening"] = "move_opening"
    phrase: ClassVar[str] = "move {name}"
    opening: Id
    distance: Mm
    end: WallEnd | None = None

    def apply(self, project: Project) -> Project:
        """The project with the opening moved. Raises: RefusedEdit, UnknownElement."""
        opening = get_element(project, self.opening, Opening)
        return put(project, changed(opening, distance=self.distance, end=self.end or opening.end))


class FollowKind(Command):
    """An opening made to follow a kind, without exceptions; the edge that it names stays. None: it stands alone."""

    kind: Literal["follow_kind"] = "follow_kind"
    phrase: ClassVar[str] = "choose the kind of {name}"
    opening: Id
    follows: Id | None

    def apply(self, project: Project) -> Project:
        """The project with the opening following. Raises: RefusedEdit, UnknownElement."""
        opening = get_element(project, self.opening, Opening)
        if self.follows == opening.kind:
            return project
        if self.follows is None:
            return put(project, alone(project, opening))
        kind = get_element(project, self.follows, Kind)
        if kind.unit != opening.unit:
            raise RefusedEdit(
                f"a {opening.unit} cannot follow a kind of {kind.unit}s", element=opening.id, field="kind"
            )
        distance = _kept(opening, project.design_of(opening).width, kind.design.width)
        return put(project, changed(opening, kind=kind.id, distance=distance, **_PLAIN))


class ClearExceptions(Command):
    """What an opening states against its kind taken back: all of it, or some fields."""

    kind: Literal["clear_exceptions"] = "clear_exceptions"
    phrase: ClassVar[str] = "clear exceptions of {name}"
    opening: Id
    fields: Annotated[tuple[str, ...], Field(max_length=40)] = ()

    def apply(self, project: Project) -> Project:
        """The project with the opening as its kind has it. Raises: RefusedEdit, UnknownElement."""
        opening = get_element(project, self.opening, Opening)
        if opening.kind is None:
            raise RefusedEdit("this opening follows no kind", element=opening.id, field="kind")
        if unknown := set(self.fields) - set(_PLAIN):
            raise RefusedEdit(f"no exception is called “{min(unknown)}”", element=opening.id, field="fields")
        cleared = dict.fromkeys(self.fields or _PLAIN)
        after: Opening = changed(opening, **cleared)
        width = project.design_of(after).width
        return put(project, changed(after, distance=_kept(opening, project.design_of(opening).width, width)))


class MakeKind(Command):
    """A new kind from what stands in an opening, which follows it from then on."""

    kind: Literal["make_kind"] = "make_kind"
    phrase: ClassVar[str] = "make a kind of {name}"
    opening: Id
    id: Id
    name: Name

    def apply(self, project: Project) -> Project:
        """The project with the kind. Raises: RefusedEdit, UnknownElement."""
        opening = get_element(project, self.opening, Opening)
        if any(element.id == self.id for element in project.elements()):
            raise RefusedEdit("a new kind needs a name of its own", element=opening.id, field="make_kind")
        made = Kind(
            id=self.id,
            name=self.name,
            number=project.number_of(opening),
            unit=opening.unit,
            design=project.design_of(opening),
        )
        return put(project, made, changed(opening, kind=made.id, **_PLAIN))


def alone(project: Project, opening: Opening) -> Opening:
    """An opening that states all of its design itself."""
    stated: dict[str, Any] = dict(project.design_of(opening))
    maker, note = project.words_of(opening)
    own: Opening = changed(opening, kind=None, number=project.number_of(opening), maker=maker, note=note, **stated)
    return own
