"""Edits of how a view is shown: its own lettering moved, rewritten or hidden; settings taken to other views."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Annotated, ClassVar, Literal, TypeVar

from pydantic import Field

from ...document.command import Command
from ...document.putting import PutElement
from ...document.rebuilding import changed, put
from ...document.values import Name
from ...model.project import Project
from .model import Annotation, Detail, ElevationView, Note, SectionLine, Sheet, StringShow, ViewShow, WallSection


class PutSection(PutElement):
    kind: Literal["put_section"] = "put_section"
    phrase: ClassVar[str] = "change section {name}"
    adding: ClassVar[str] = "draw section {name}"
    section: SectionLine


class PutWallSection(PutElement):
    kind: Literal["put_wall_section"] = "put_wall_section"
    phrase: ClassVar[str] = "change wall section {name}"
    adding: ClassVar[str] = "draw wall section {name}"
    wall_section: WallSection


class PutDetail(PutElement):
    kind: Literal["put_detail"] = "put_detail"
    phrase: ClassVar[str] = "change detail {name}"
    adding: ClassVar[str] = "draw detail {name}"
    detail: Detail


class PutElevation(PutElement):
    kind: Literal["put_elevation"] = "put_elevation"
    phrase: ClassVar[str] = "change {name}"
    adding: ClassVar[str] = "add {name}"
    elevation: ElevationView


class PutShow(PutElement):
    kind: Literal["put_show"] = "put_show"
    phrase: ClassVar[str] = "change how a view is shown"
    show: ViewShow


class PutNote(PutElement):
    kind: Literal["put_note"] = "put_note"
    phrase: ClassVar[str] = "write a note"
    note: Note


class PutSheet(PutElement):
    kind: Literal["put_sheet"] = "put_sheet"
    phrase: ClassVar[str] = "change sheet {name}"
    adding: ClassVar[str] = "add sheet {name}"
    sheet: Sheet


class SetAnnotation(Command):
    """Lettering that a view writes by itself, moved, rewritten or hidden; a plain annotation gives it back."""

    kind: Literal["set_annotation"] = "set_annotation"
    phrase: ClassVar[str] = "change the lettering of a view"
    view: Name
    annotation: Annotation

    def apply(self, project: Project) -> Project:
        """The project with the annotation in the place of one of the same key. Raises: RefusedEdit."""
        show = show_in(project, self.view)
        others = tuple(held for held in show.annotations if held.key != self.annotation.key)
        return put(project, changed(show, annotations=_not_plain((*others, self.annotation))))


class SetString(Command):
    """A string of dimensions of a view left out or shown, moved, denser or coarser, measured to other faces; a plain
    one is as the project says."""

    kind: Literal["set_string"] = "set_string"
    phrase: ClassVar[str] = "change a string of dimensions"
    view: Name
    string: StringShow

    def apply(self, project: Project) -> Project:
        """The project with the string in the place of one of the same name. Raises: RefusedEdit."""
        show = show_in(project, self.view)
        others = tuple(held for held in show.strings if held.name != self.string.name)
        return put(project, changed(show, strings=_not_plain((*others, self.string))))


class TidyLettering(Command):
    """All lettering of a view where it reads best: what was moved goes back, strings and notes too; what was rewritten
    or hidden stays so."""

    kind: Literal["tidy_lettering"] = "tidy_lettering"
    phrase: ClassVar[str] = "tidy the lettering of a view"
    view: Name

    def apply(self, project: Project) -> Project:
        """The project with no lettering of the view moved. Raises: RefusedEdit."""
        moved = [changed(note, offset=None) for note in project.notes if note.view == self.view and note.offset]
        project = put(project, *moved) if moved else project
        show = project.show_of(self.view)
        if show is None:
            return project
        annotations = _not_plain(changed(held, dx=0.0, dy=0.0) for held in show.annotations)
        strings = _not_plain(changed(held, away=0.0) for held in show.strings)
        return put(project, changed(show, annotations=annotations, strings=strings))


class CopyShow(Command):
    """How a view is shown, for other views too: all but its annotations, which are its own."""

    kind: Literal["copy_show"] = "copy_show"
    phrase: ClassVar[str] = "show other views alike"
    view: Name
    to: Annotated[tuple[Name, ...], Field(min_length=1, max_length=200)]

    def apply(self, project: Project) -> Project:
        """The project with the other views shown alike. Raises: RefusedEdit."""
        own = show_in(project, self.view)
        for name in self.to:
            other = show_in(project, name)
            project = put(project, changed(own, id=other.id, view=name, annotations=other.annotations))
        return project


H = TypeVar("H", Annotation, StringShow)


def _not_plain(items: Iterable[H]) -> tuple[H, ...]:
    """Those that say something."""
    return tuple(held for held in items if not held.is_plain)


def show_in(project: Project, view: str) -> ViewShow:
    """How a view is shown; a plain one by a free id where nothing was said yet."""
    held = project.show_of(view)
    if held is not None:
        return held
    taken = {element.id for element in project.elements()}
    id = next(f"show-{n}" for n in range(1, len(taken) + 2) if f"show-{n}" not in taken)
    return ViewShow(id=id, view=view)
