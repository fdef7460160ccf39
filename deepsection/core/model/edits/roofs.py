"""Edits of roofs: a block drawn over a rectangle, its ends running into the roofs that they meet."""

from __future__ import annotations

import math
from typing import Literal

from ...geometry import Point
from ..elements import RoofBlock, RoofEdge
from ..places import corner_point
from ..project import Project
from ..values import Element
from .rebuilding import changed, put

NEAR = 60.0
"""An end meets another roof when its middle lies within this distance of that one's outline (mm)."""


class DrawRoof(Element):
    """A gable roof over a rectangle: a side that lies on or in another roof runs into it, and its ridge with it."""

    kind: Literal["draw_roof"] = "draw_roof"
    roof: RoofBlock

    def apply(self, project: Project) -> Project:
        """The project with the block, its ends settled. Raises: RefusedEdit."""
        corners = [corner_point(project, corner) for corner in self.roof.outline]
        others = [
            [corner_point(project, corner) for corner in other.outline]
            for other in project.roofs
            if other.id != self.roof.id
        ]
        meets = [any(_holds(other, _middle(corners, edge)) for other in others) for edge in range(4)]
        ends = [edge for edge in range(4) if meets[edge] and not meets[(edge + 2) % 4]]
        if not ends:
            return put(project, self.roof)
        eave = next(edge for edge in self.roof.edges if edge.kind == "eave")
        gable = next((edge for edge in self.roof.edges if edge.kind == "gable"), eave)
        joined = ends[0]
        edges = [eave if (edge - joined) % 2 else gable.model_copy(update={"kind": "gable"}) for edge in range(4)]
        edges[joined] = RoofEdge(kind="joined")
        return put(project, changed(self.roof, edges=tuple(edges)))


def _middle(corners: list[Point], edge: int) -> Point:
    (x0, y0), (x1, y1) = corners[edge], corners[(edge + 1) % 4]
    return (x0 + x1) / 2, (y0 + y1) / 2


def _holds(corners: list[Point], point: Point) -> bool:
    """Whether a convex outline, counter-clockwise, holds a point, or nearly."""
    for (x0, y0), (x1, y1) in zip(corners, corners[1:] + corners[:1]):
        length = math.dist((x0, y0), (x1, y1)) or 1.0
        left = ((x1 - x0) * (point[1] - y0) - (y1 - y0) * (point[0] - x0)) / length
        if left < -NEAR:
            return False
    return True
