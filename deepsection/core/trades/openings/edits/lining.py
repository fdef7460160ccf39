"""Edits that line openings up in an elevation: heads, sills, one over another, equal spacing, under a gable."""

from __future__ import annotations

import math
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from ....document.command import Command
from ....document.rebuilding import changed, get_element, put
from ....document.values import Id
from ....errors import RefusedEdit
from ....geometry import line_through
from ....model.places import along_from_start, roof_sides, wall_axis, wall_length
from ....model.project import Project
from ...roofs.edits.roofs import plain_shape
from ...walls.model import Wall
from ..model import Opening

Several = Annotated[tuple[Id, ...], Field(min_length=2, max_length=200)]
UNDER = 1500.0
"""A gable stands over a wall when its edge lies this close to it in plan (mm)."""
PARALLEL = 0.02
"""Sine of the angle below which an edge runs along a wall."""
ON_EDGE = 1.0
"""A ridge ends at a gable when it ends this close to its edge (mm)."""


class LineUpOpenings(Command):
    """Openings with their heads, their sills or their middles in line with those of the first."""

    kind: Literal["line_up_openings"] = "line_up_openings"
    phrase: ClassVar[str] = "line up openings"
    openings: Several
    by: Literal["heads", "sills", "middles"]

    def apply(self, project: Project) -> Project:
        """The project with the others lined up. Raises: RefusedEdit, UnknownElement."""
        first, *others = (get_element(project, id, Opening) for id in self.openings)
        if self.by == "middles":
            return put(project, *(_over(project, first, other) for other in others))
        up = project.design_of(first).height if self.by == "heads" else 0.0
        return put(project, *(_raised(project, other, first.sill + up, self.by) for other in others))


def _raised(project: Project, opening: Opening, height: float, by: str) -> Opening:
    """An opening with its head or its sill so high over the floor of its wall. Raises: RefusedEdit."""
    sill = height - (project.design_of(opening).height if by == "heads" else 0.0)
    if sill < 0 or (opening.unit == "door" and sill > 0.5):
        number = project.number_of(opening)
        why = "would stand below the floor" if sill < 0 else "would stand off the floor"
        raise RefusedEdit(f"{number} {why}: its height differs too much", element=opening.id, field="sill", value=sill)
    lined: Opening = changed(opening, sill=sill)
    return lined


def _over(project: Project, first: Opening, other: Opening) -> Opening:
    """An opening with its middle over (or under) that of another, square to the wall of that one."""
    axis, own = (wall_axis(project, get_element(project, opening.wall, Wall)) for opening in (first, other))
    at = along_from_start(first, axis.length)
    (x, y), (dx, dy) = axis.at(at), axis.direction(at)
    ox, oy = own.direction(own.length / 2)
    if abs(dx * oy - dy * ox) > PARALLEL:
        raise RefusedEdit(
            f"{project.number_of(other)} is in a wall that runs another way", element=other.id, field="distance"
        )
    return _at(project, other, own.along((x, y)))


class SpaceOpenings(Command):
    """Openings of one wall with one clear distance between them; the outermost two stay."""

    kind: Literal["space_openings"] = "space_openings"
    phrase: ClassVar[str] = "space openings"
    openings: Annotated[tuple[Id, ...], Field(min_length=3, max_length=200)]

    def apply(self, project: Project) -> Project:
        """The project with the openings spaced. Raises: RefusedEdit, UnknownElement."""
        found = [get_element(project, id, Opening) for id in self.openings]
        if len({opening.wall for opening in found}) > 1:
            raise RefusedEdit("openings of one wall are spaced; these are in several", element=found[0].id)
        length = wall_length(project, get_element(project, found[0].wall, Wall))
        row = sorted(found, key=lambda opening: along_from_start(opening, length))
        widths = [project.design_of(opening).width for opening in row]
        left = along_from_start(row[0], length) - widths[0] / 2
        right = along_from_start(row[-1], length) + widths[-1] / 2
        gap = (right - left - sum(widths)) / (len(row) - 1)
        if gap < 0:
            message = "there is no room between the outermost two for the others"
            raise RefusedEdit(message, element=row[0].id, field="distance", value=gap, limit=0.0)
        spaced, at = [], left
        for opening, width in zip(row, widths):
            spaced.append(_at(project, opening, at + width / 2))
            at += width + gap
        return put(project, *spaced)


class CentreUnderGable(Command):
    """An opening moved under the peak of the gable over its wall."""

    kind: Literal["centre_under_gable"] = "centre_under_gable"
    phrase: ClassVar[str] = "centre {name} under its gable"
    opening: Id

    def apply(self, project: Project) -> Project:
        """The project with the opening moved. Raises: RefusedEdit, UnknownElement."""
        opening = get_element(project, self.opening, Opening)
        peak = gable_peak(project, opening)
        if peak is None:
            raise RefusedEdit("no gable stands over this wall", element=opening.id, field="distance")
        return put(project, _at(project, opening, peak))


def gable_peak(project: Project, opening: Opening) -> float | None:
    """How far from the start of its wall the peak of the gable over an opening is; none when there is no gable.

    Of several gables the one whose peak is nearest.
    """
    axis = wall_axis(project, get_element(project, opening.wall, Wall))
    at = along_from_start(opening, axis.length)
    x, y = axis.at(axis.length / 2)
    dx, dy = axis.direction(axis.length / 2)
    peaks = []
    for roof in project.roofs:
        gables = [side for side, edge in zip(roof_sides(project, roof), roof.edges) if edge.kind == "gable"]
        over = [line_through(*side) for side in gables if math.dist(*side) > ON_EDGE]
        over = [line for line in over if abs(line.dx * dy - line.dy * dx) < PARALLEL]
        near = [line for line in over if abs(line.left_of((x, y))) < UNDER]
        if not near:
            continue
        ridges = [seam for seam in plain_shape(project, roof).lines if seam.kind == "ridge"]
        ends = [point[:2] for seam in ridges for point in (seam.start, seam.end)]
        peaks += [axis.along(end) for end in ends for line in near if abs(line.left_of(end)) < ON_EDGE]
    return min(peaks, key=lambda peak: abs(peak - at), default=None)


def _at(project: Project, opening: Opening, along: float) -> Opening:
    """An opening at a distance from the start of its wall."""
    length = wall_length(project, get_element(project, opening.wall, Wall))
    moved: Opening = changed(opening, distance=along if opening.end == "start" else length - along)
    return moved
