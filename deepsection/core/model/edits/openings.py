"""Edits of openings: moved and resized in their wall."""

from __future__ import annotations

from typing import Literal

from ..elements import Element, Id, Mm, Opening, Positive, WallEnd
from ..project import Project
from .rebuilding import changed, held, put


class ResizeOpening(Element):
    """Another width for an opening; the edge that it names stays."""

    kind: Literal["resize_opening"] = "resize_opening"
    opening: Id
    width: Positive

    def apply(self, project: Project) -> Project:
        """The project with the opening resized. Raises: RefusedEdit, UnknownElement."""
        opening = held(project, self.opening, Opening)
        shift = {"start": 0.5, "centre": 0.0, "end": -0.5}[opening.stays] * (self.width - opening.width)
        sign = 1 if opening.end == "start" else -1
        return put(project, changed(opening, width=self.width, distance=opening.distance + sign * shift))


class MoveOpening(Element):
    """An opening moved along its wall to a distance from the end it is measured from, or to another."""

    kind: Literal["move_opening"] = "move_opening"
    opening: Id
    distance: Mm
    end: WallEnd | None = None

    def apply(self, project: Project) -> Project:
        """The project with the opening moved. Raises: RefusedEdit, UnknownElement."""
        opening = held(project, self.opening, Opening)
        return put(project, changed(opening, distance=self.distance, end=self.end or opening.end))
