"""What is shown of an element, or of the project itself: the fields that its kind declares."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from typing import Any

from ..building.kind import ElementKind
from ..document.declaring import STATES, Standing
from ..document.rebuilding import changed
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
        *_dimension_rows(project),
    ]


def _dimension_rows(project: Project) -> list[Row]:
    """The rules of all strings of dimensions."""
    rule = project.dimensioning

    def row(id: str, label: str, options: list[tuple[str, str]], *, number: bool = False) -> Row:
        def edits(text: str) -> Sequence[Any]:
            return [SetProject(dimensioning=changed(rule, **{id: int(text) if number else text}))]

        held = choice_row(id, label, str(getattr(rule, id)), options, edits)
        return replace(held, field=replace(held.field, under="Dimensions"))

    if project.units == "ft-in":
        parts = [(str(n), f'1/{n}"' if n > 1 else '1"') for n in (1, 2, 4, 8, 16, 32)]
        rounding = row("fraction", "Rounded to", parts, number=True)
    else:
        rounding = row("whole", "Rounded to", [(str(n), f"{n} mm") for n in (1, 5, 10)], number=True)
    return [
        row(
            "openings", "Openings", [("by tradition", "by tradition"), ("centres", "to centres"), ("sides", "to sides")]
        ),
        row("widths", "Widths of openings", [("hidden", "not shown"), ("shown", "in a string")]),
        row(
            "walls",
            "Inner walls",
            [
                ("by tradition", "by tradition"),
                ("frame", "one face of frame"),
                ("structure", "faces of structure"),
                ("finish", "finished faces"),
                ("none", "not shown"),
            ],
        ),
        rounding,
        row("equal", "Equal lengths", [("apart", "each"), ("together", "n x length = total")]),
        row("density", "Strings", [("coarser", "coarser"), ("usual", "as usual"), ("denser", "denser")]),
    ]


def _project_title(project: Project, _: Project) -> tuple[str, str]:
    return project.name, project.place or "no place given yet"


PROJECT = ElementKind(Project, title=_project_title, fields=_project_fields, removable=lambda *_: False)
