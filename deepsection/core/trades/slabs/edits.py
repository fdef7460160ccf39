"""Edits of porch slabs."""

from __future__ import annotations

import math
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from ...catalog import usual
from ...document.command import Command
from ...document.putting import PutElement
from ...document.rebuilding import get_element, put
from ...document.values import Id, Mm
from ...model.places import wall_points
from ...model.project import Project
from ..levels.model import Rung
from .model import PorchSlab


class PutPorchSlab(PutElement):
    kind: Literal["put_porch_slab"] = "put_porch_slab"
    phrase: ClassVar[str] = "change {name}"
    slab: PorchSlab


class DrawPorchSlab(Command):
    """A slab at a level with usual sizes, which falls away from the walls of the house."""

    kind: Literal["draw_porch_slab"] = "draw_porch_slab"
    phrase: ClassVar[str] = "draw a porch slab"
    id: Id
    level: Id
    corners: Annotated[tuple[tuple[Mm, Mm], ...], Field(min_length=3, max_length=40)]

    def apply(self, project: Project) -> Project:
        """The project with the slab. Raises: RefusedEdit, UnknownElement."""
        get_element(project, self.level, Rung)
        units, taken = project.units, len(project.porch_slabs)
        slab = PorchSlab(
            id=self.id,
            name=f"Porch slab {taken + 1}" if taken else "Porch slab",
            level=self.level,
            corners=self.corners,
            drop=usual("slab_drop", units),
            thickness=usual("slab_thickness", units),
            fall_to=_away(project, self.corners),
            edge_width=usual("slab_edge_width", units),
            edge_depth=usual("slab_edge_depth", units),
        )
        return put(project, slab)


def _away(project: Project, corners: tuple[tuple[float, float], ...]) -> float:
    """The direction square to a side of a slab that leads away from the house (deg)."""
    points = [point for wall in project.walls for point in wall_points(project, wall)]
    x, y = (sum(corner[k] for corner in corners) / len(corners) for k in (0, 1))
    if not points:
        return 0.0
    near_x = min(max(x, min(p[0] for p in points)), max(p[0] for p in points))
    near_y = min(max(y, min(p[1] for p in points)), max(p[1] for p in points))
    dx, dy = (x - near_x, y - near_y) if (x, y) != (near_x, near_y) else (x - points[0][0], y - points[0][1])
    wanted = math.atan2(dy, dx)
    sides = [math.atan2(b[1] - a[1], b[0] - a[0]) + math.pi / 2 for a, b in zip(corners, (*corners[1:], corners[0]))]
    turned = [angle + turn for angle in sides for turn in (0.0, math.pi)]
    best = min(turned, key=lambda angle: abs(math.remainder(angle - wanted, math.tau)))
    return round(math.degrees(math.remainder(best, math.tau)), 9)
