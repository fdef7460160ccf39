"""Documents as stored: versioned JSON, migrated step by step to the schema of today."""

from __future__ import annotations

import json
from collections.abc import Callable
from typing import Any

from pydantic import ValidationError

from ..document.faults import why_unreadable
from ..document.rebuilding import refusal
from ..errors import BadInput, UnknownVersion
from .project import SCHEMA_VERSION, Project


def _to_2(document: dict[str, Any]) -> dict[str, Any]:
    """Make-ups may say which layer bears; what does not say so goes by what is usual."""
    return {**document, "schema_version": 2}


MIGRATIONS: dict[int, Callable[[dict[str, Any]], dict[str, Any]]] = {1: _to_2}
"""From a schema version to the next one."""


def dump_project(project: Project) -> bytes:
    """The document as UTF-8 JSON; equal projects give equal bytes."""
    return project.model_dump_json().encode()


def load_project(data: bytes | str) -> Project:
    """The project of a stored document, migrated when it is older.

    Raises: BadInput when it is cut short or not a project, UnknownVersion when it is from the future.
    """
    try:
        document = json.loads(data)
    except (ValueError, RecursionError) as error:
        raise BadInput(f"this is not a whole project file: it {why_unreadable(data)}", field="file") from error
    if not isinstance(document, dict):
        raise BadInput("this is not a project file")
    version = document.get("schema_version")
    if not isinstance(version, int) or isinstance(version, bool) or version < 1 or version > SCHEMA_VERSION:
        raise UnknownVersion(
            f"this document has schema version {version!r}; this program knows 1 to {SCHEMA_VERSION}",
            field="schema_version",
            value=version if isinstance(version, (int, str)) else None,
            limit=SCHEMA_VERSION,
        )
    while version < SCHEMA_VERSION:
        document = MIGRATIONS[version](document)
        version = document["schema_version"]
    try:
        return Project.model_validate_json(json.dumps(document))
    except ValidationError as error:
        raise BadInput(f"this project file does not hold together: {refusal(error).message}") from error
