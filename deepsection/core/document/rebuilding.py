"""Documents and elements with parts replaced, validated anew; refusals in words."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any, TypeVar

from pydantic import ValidationError

from ..errors import RefusedEdit
from .declaring import Declared, collection_for, revised
from .faults import told
from .nouns import noun_of, with_article

if TYPE_CHECKING:
    from ..model.project import Project

E = TypeVar("E")


def rebuild(project: Project, **changes: Any) -> Project:
    """The project with fields replaced, validated anew. Raises: RefusedEdit."""
    try:
        return revised(project, **changes)
    except ValidationError as error:
        raise refusal(error) from error


def refusal(error: ValidationError) -> RefusedEdit:
    """The first fault of a validation, in words that name the field."""
    faults = error.errors()
    first = faults[0]
    path = [str(step) for step in first["loc"] if not isinstance(step, int)]
    message = str(first["msg"]).removeprefix("Value error, ")
    field = path[-1] if path else None
    element, _, rest = message.partition(": ")
    known = first["type"] == "value_error" and bool(rest) and " " not in element
    value = first.get("input")
    return RefusedEdit(
        rest if known else told(faults)[0],
        element=element if known else None,
        field=field,
        value=value if isinstance(value, (str, int, float)) else None,
    )


def changed(element: Any, **changes: Any) -> Any:
    """An element (or a rule within one) with fields replaced, validated anew. Raises: RefusedEdit."""
    try:
        return revised(element, **changes)
    except ValidationError as error:
        refused = refusal(error)
        refused.element = getattr(element, "id", None) if isinstance(element, Declared) else None
        raise refused from error


def put(project: Project, *elements: Any) -> Project:
    """The project with elements added, or replaced where their id is known."""
    changes: dict[str, Any] = {}
    for element in elements:
        collection = collection_for(type(project), type(element))
        held = changes.get(collection, getattr(project, collection))
        if any(old.id == element.id for old in held):
            changes[collection] = tuple(element if old.id == element.id else old for old in held)
        else:
            changes[collection] = (*held, element)
    return rebuild(project, **changes)


def get_element(project: Project, id: str, kind: type[E]) -> E:
    """The element of this id and kind. Raises: UnknownElement, RefusedEdit when it is of another kind."""
    element = project.find(id)
    if not isinstance(element, kind):
        is_, wanted = (with_article(noun_of(held)) for held in (type(element), kind))
        raise RefusedEdit(f"“{id}” is {is_}, not {wanted}", element=id)
    return element
