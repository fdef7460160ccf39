"""What all edits are: typed commands that turn a project into another one, and say what they do."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING, Any, ClassVar

from .declaring import Declared
from .nouns import all_called, called
from .values import Element

if TYPE_CHECKING:
    from ..model.project import Project


class Command(Element):
    """A change that is stated, and told apart from others by its `kind`.

    `phrase` is what it does, in a few words for undo and the history, with the `{name}` of what it is done to;
    `adding` the same where that is new.
    """

    phrase: ClassVar[str]
    adding: ClassVar[str | None] = None

    @classmethod
    def __pydantic_init_subclass__(cls, **kwargs: Any) -> None:
        super().__pydantic_init_subclass__(**kwargs)
        if "kind" in cls.model_fields and not hasattr(cls, "phrase"):
            raise TypeError(f"the edit {cls.__name__} lacks its phrase")

    def apply(self, project: Project) -> Project:
        """The project after it. Raises: RefusedEdit, UnknownElement."""
        raise NotImplementedError

    def words(self, project: Project) -> str:
        """What it does to a project: `move W1`."""
        carried = next((getattr(self, name) for name in type(self).model_fields if name != "kind"), None)
        known = {element.id: element for element in project.elements()}
        element = carried if hasattr(carried, "id") else known.get(str(carried))
        new = element is not None and element.id not in known
        phrase = self.adding if self.adding and new else self.phrase
        return phrase.format(name=named(element, project) or "it")


def named(element: Any, project: Project) -> str:
    """What an element is called: its number on drawings, or its name."""
    return element.label_in(project) if isinstance(element, Declared) else ""


def all_named(ids: Sequence[str], project: Project) -> str:
    """One element by its name, several by kind and number."""
    known = {element.id: element for element in project.elements()}
    held = [known[id] for id in ids if id in known]
    if len(held) == 1:
        return called(held[0], named(held[0], project) if held[0].about.numbered else None)
    return all_called(held) if held else "it"
