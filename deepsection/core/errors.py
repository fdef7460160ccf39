"""What can go wrong, as one tree.

    DeepSectionError
      BadInput            what somebody typed or sent cannot be taken
        BadLength         text that is not a length
        BadPitch          text that is not a pitch
        UnknownElement    an id that names nothing
        UnknownVersion    a document of a schema this program does not know
        RefusedEdit       an edit that the document or the building refuses
      GeometryError       a shape that cannot be built
      StaleVersion        an edit made against a version that is no longer the latest

Each carries the place it speaks of: element id, field, value and limit, where they apply.
"""

from __future__ import annotations


class DeepSectionError(Exception):
    """Root of all errors raised on purpose."""

    def __init__(
        self,
        message: str,
        *,
        element: str | None = None,
        field: str | None = None,
        value: str | float | None = None,
        limit: str | float | None = None,
    ) -> None:
        super().__init__(message)
        self.message = message
        self.element = element
        self.field = field
        self.value = value
        self.limit = limit


class BadInput(DeepSectionError):
    """Something typed or sent that cannot be taken."""


class BadLength(BadInput):
    """Text that does not read as a length."""


class BadPitch(BadInput):
    """Text that does not read as a roof pitch, or one out of range."""


class UnknownElement(BadInput):
    """An id that names nothing in the project."""


class UnknownVersion(BadInput):
    """A document written by a schema version that this program does not know."""


class RefusedEdit(BadInput):
    """An edit that would leave a document or building that cannot be."""


class GeometryError(DeepSectionError):
    """A shape that cannot be built from what was given."""


class StaleVersion(DeepSectionError):
    """An edit made against a version that is not the latest any more."""


__all__ = [
    "BadInput",
    "BadLength",
    "BadPitch",
    "DeepSectionError",
    "GeometryError",
    "RefusedEdit",
    "StaleVersion",
    "UnknownElement",
    "UnknownVersion",
]
