"""Backgrounds: what they are called, and that the view is there that they lie under."""

from __future__ import annotations

from collections.abc import Iterator
from typing import get_args

from ...building.diagnostics import Diagnostic
from ...building.kind import ElementKind
from ...building.placed import Placed
from ...geometry import Side
from ...model import Background, ModelBody, Project
from ..levels.place import storeys
from .fields import background_fields, body_fields


def _title(project: Project, held: Background) -> tuple[str, str]:
    return held.name, "a file under a view, to be drawn over"


def _lost(placed: Placed) -> Iterator[Diagnostic]:
    project = placed.project
    if not project.backgrounds:
        return
    levels = {"", "roof", *(storey.level for storey in storeys(project))}
    elevations = {*get_args(Side), *(held.id for held in project.elevations)}
    for held in project.backgrounds:
        sort, _, which = held.view.partition(":")
        if which not in (levels if sort == "plan" else elevations):
            message = f"{held.name} lies under a view that is no longer there; remove it, or lay the file anew"
            yield Diagnostic("background-lost", message, held.id, "view")


def _body_title(project: Project, held: ModelBody) -> tuple[str, str]:
    return held.name, "what of a model was not taken over, in the solid view"


MODEL_BODY = ElementKind(ModelBody, on_paper=True, title=_body_title, fields=body_fields)
BACKGROUND = ElementKind(Background, on_paper=True, title=_title, fields=background_fields, checks=_lost)
