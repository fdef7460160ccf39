"""A typed text becomes edits: the way back from the particulars."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from ..edits import apply_edits
from ..errors import BadInput, UnknownElement
from ..model import Project
from .fields import fields_of


def enter_all(project: Project, elements: Sequence[str], field: str, text: str) -> list[Any]:
    """The edits of one text typed into the same field of several elements; each sees what those before it did.

    Raises: as `enter`, and RefusedEdit when one cannot take it: then none does.
    """
    edits: list[Any] = []
    for element in elements:
        made = enter(project, element, field, text)
        project = apply_edits(project, made)
        edits += made
    return edits


def enter(project: Project, element: str, field: str, text: str) -> Sequence[Any]:
    """The edits that a text typed into a field stands for; `element` is an id, or `project`.

    Raises: BadInput (with element and field) when the text cannot be taken, UnknownElement.
    """
    held = project if element == "project" else project.find(element)
    row = next((row for row in fields_of(project, held) if row.field.id == field), None)
    if row is None:
        raise UnknownElement(f"there is no field “{field}” here", element=element, field=field)
    try:
        return row.edits(text)
    except BadInput as error:
        error.element, error.field = error.element or element, error.field or field
        raise
