"""What stands already, what is new and what is to be removed: the house before the work, and after it."""

from __future__ import annotations

from functools import lru_cache
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from ..document.command import Command, all_named
from ..document.declaring import STATES, Standing, State
from ..document.rebuilding import changed, put
from ..document.values import Id
from ..errors import RefusedEdit
from ..model.project import Project
from .removing import Remove


class SetState(Command):
    """Elements are new, existing or to be removed."""

    kind: Literal["set_state"] = "set_state"
    phrase: ClassVar[str] = "make {name} {state}"
    elements: Annotated[tuple[Id, ...], Field(min_length=1, max_length=5000)]
    to: State

    def apply(self, project: Project) -> Project:
        """The project with the elements in this state. Raises: UnknownElement, RefusedEdit."""
        found = [project.find(id) for id in self.elements]
        for element in found:
            if not isinstance(element, Standing):
                raise RefusedEdit(
                    f"only what stands in the house is new, existing or to be removed: {element.about.noun}s are not",
                    element=element.id,
                    field="state",
                )
        return put(project, *(changed(element, state=self.to) for element in found))

    def words(self, project: Project) -> str:
        """What becomes of what."""
        return self.phrase.format(name=all_named(self.elements, project), state=STATES[self.to])


def _in_state(project: Project, state: State) -> tuple[str, ...]:
    return tuple(held.id for held in project.elements() if getattr(held, "state", None) == state)


@lru_cache(maxsize=8)
def after_works(project: Project) -> Project:
    """The house when the work is done: without what is to be removed; itself where that is nothing."""
    gone = _in_state(project, "removed")
    return Remove(elements=gone).apply(project) if gone else project


@lru_cache(maxsize=8)
def before_works(project: Project) -> Project:
    """The house before the work: without what is new."""
    gone = _in_state(project, "new")
    return Remove(elements=gone).apply(project) if gone else project
