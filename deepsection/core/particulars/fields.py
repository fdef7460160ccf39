"""What is shown of an element, or of the project itself: the fields that its kind declares."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from ..building.kind import ElementKind
from ..document.declaring import STATES, Standing
from ..edits import SetProject, SetState
from ..kinds import kind_for
from ..model import Project
from ..rows.rows import Row, choice_row, text_row


def declaration_of(held: Any) -> ElementKind:
    """The declaration of an element's kind; the project has one too."""
    model: type = type(held)
    return PROJECT if model is Project else kind_for(model)


def fields_of(project: Project, element: Any) -> list[Row]:
    """Every field of an element, in the order in which it is shown."""
    rows = list(declaration_of(element).fields(project, element))
    return [*rows, _state_row(element)] if isinstance(element, Standing) else rows


def _state_row(element: Any) -> Row:
    """Whether an element is new, existing or to be removed."""

    def edits(text: str) -> Sequence[Any]:
        return [SetState(elements=(element.id,), to=text)]  # type: ignore[arg-type]

    return choice_row("state", "In the works it is", element.state, list(STATES.items()), edits)


def _project_fields(project: Project, _: Project) -> list[Row]:
    return [
        text_row("name", "Project", project.name, lambda t: [SetProject(name=t)]),
        text_row("place", "Place", project.place, lambda t: [SetProject(place=t)], empty=True),
        text_row("author", "Drawn by", project.author, lambda t: [SetProject(author=t)], empty=True),
        choice_row(
            "units",
            "Units",
            project.units,
            [("ft-in", "feet and inches"), ("mm", "millimetres")],
            lambda t: [SetProject(units=t)],  # type: ignore[arg-type]
        ),
    ]


def _project_title(project: Project, _: Project) -> tuple[str, str]:
    return project.name, project.place or "no place given yet"


PROJECT = ElementKind(Project, title=_project_title, fields=_project_fields, removable=lambda *_: False)
