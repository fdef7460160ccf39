"""What a drafter sets of build-ups: which one, its parameters, which pieces; for all of a kind, or for one junction."""

from __future__ import annotations

from typing import TYPE_CHECKING, Annotated, ClassVar

from pydantic import Field

from ...document.declaring import About, Declared
from ...document.values import Element, Id, Name, NotNegative
from ..drawings.model import DetailEnd, junction_name

if TYPE_CHECKING:
    from ...model.project import Project


class ParameterValue(Element):
    """A parameter of a build-up by its id, and what it is (mm)."""

    parameter: Name
    value: NotNegative


class PieceSwitch(Element):
    """A piece of a build-up by its id, and whether it is built."""

    piece: Name
    on: bool


class BuildUpSetting(Declared):
    """How the junctions of a kind are built, or the one where its `ends` meet, where that is not as usual.

    What is set for one holds over what is set for its kind.
    """

    about: ClassVar[About] = About("setting of a build-up", "settings of build-ups", removable=True)
    id: Id
    kind: Name
    ends: Annotated[tuple[DetailEnd, ...], Field(max_length=4)] = ()
    build_up: Name | None = None
    values: Annotated[tuple[ParameterValue, ...], Field(max_length=60)] = ()
    pieces: Annotated[tuple[PieceSwitch, ...], Field(max_length=120)] = ()

    @property
    def junction(self) -> str:
        """The id of its junction; of its kind alone where it is for all."""
        return junction_name(self.kind, [(end.element, end.feature, end.sub) for end in self.ends])

    @property
    def is_empty(self) -> bool:
        """Whether it says nothing."""
        return self.build_up is None and not self.values and not self.pieces

    def check(self, project: Project) -> None:
        """There is one for each kind and each junction. Raises: ValueError."""
        if any(held.id != self.id and held.junction == self.junction for held in project.build_ups):
            raise ValueError(f"{self.id}: how {self.junction} is built is set twice")
