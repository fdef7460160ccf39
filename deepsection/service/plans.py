"""From a plan that was read to edits: outlines become outer walls, lines inner ones, gaps and blocks openings."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Any

from deepsection.core.errors import BadInput, RefusedEdit
from deepsection.core.geometry import Point, line_through
from deepsection.core.model import DrawWalls, FreeJoint, HostedJoint, Joint, Opening, Project, wall_length, wall_points
from deepsection.core.model.edits import PutOpening
from deepsection.formats.dxf_plan import FoundPlan, FoundUnit, FoundWall

from .work import checked_edits

ON_WALL = 250.0
"""The end of an inner wall stands on a wall when it lies this close to its line; a block belongs to one (mm)."""
DOOR_HEAD, WINDOW_HEAD, WINDOW_HEIGHT = 2100.0, 2100.0, 1200.0
"""Heights that a plan does not tell. Common practice, no source."""


@dataclass(frozen=True, slots=True)
class PlannedEdits:
    """The edits that build a plan, and what of it could not be built, in words."""

    edits: tuple[Any, ...]
    built: tuple[str, ...]
    skipped: tuple[str, ...]


def plan_edits(project: Project, found: FoundPlan, *, prefix: str) -> PlannedEdits:
    """Edits for a project. `prefix` begins every new id. What the building refuses is left out and listed.

    Raises: BadInput when nothing can be built.
    """
    builder = _Builder(project, prefix)
    for outline in found.outlines:
        builder.outline(outline)
    for wall in found.walls:
        builder.wall(wall)
    for unit in found.units:
        builder.unit(unit)
    if not builder.edits:
        raise BadInput("nothing of this plan could be built: " + "; ".join(builder.skipped[:3]), field="file")
    walls = sum(len(edit.walls) for edit in builder.edits if isinstance(edit, DrawWalls))
    openings = sum(isinstance(edit, PutOpening) for edit in builder.edits)
    built = (f"{walls} walls", f"{openings} openings", f"read in {found.unit}")
    return PlannedEdits(tuple(builder.edits), built, (*found.skipped, *builder.skipped))


class _Builder:
    """Collects edits, each tried on the building that the ones before it make."""

    def __init__(self, project: Project, prefix: str) -> None:
        self.project, self.prefix = project, prefix
        self.edits: list[Any] = []
        self.skipped: list[str] = []
        self._count = 0
        walls = [held for held in project.make_ups if held.use == "wall"]
        if not walls:
            raise BadInput("this project has no make-up for walls", field="make_up")
        self._outer, self._inner = walls[0].id, walls[-1].id
        floors = [rung.id for rung in project.rungs if rung.surface in ("slab", "deck")]
        plates = [rung.id for rung in project.rungs if rung.surface == "plate"]
        if not floors or not plates:
            raise BadInput("this project has no floor and plate to set walls between", field="rungs")
        self._base, self._top = floors[0], plates[0]

    def _id(self, kind: str) -> str:
        self._count += 1
        return f"{self.prefix}-{kind}{self._count}"

    def _try(self, what: str, *edits: Any) -> bool:
        try:
            self.project = checked_edits(self.project, edits)
        except RefusedEdit as error:
            self.skipped.append(f"{what}: {error.message}")
            return False
        self.edits += edits
        return True

    def outline(self, corners: tuple[Point, ...]) -> None:
        """Outer walls around a closed outline."""
        joints = tuple(FreeJoint(id=self._id("joint"), x=x, y=y) for x, y in corners)
        ids = tuple(joint.id for joint in joints)
        draw = DrawWalls(
            joints=joints,
            chain=(*ids, ids[0]),
            walls=tuple(self._id("wall") for _ in ids),
            make_up=self._outer,
            base=self._base,
            top=self._top,
        )
        self._try(f"an outline of {len(ids)} walls", draw)

    def wall(self, wall: FoundWall) -> None:
        """An inner wall along a line; its ends stand on the walls that they meet."""
        start, end = self._joint(wall.start), self._joint(wall.end)
        id = self._id("wall")
        draw = DrawWalls(
            joints=(start, end),
            chain=(start.id, end.id),
            walls=(id,),
            make_up=self._inner,
            status="inner",
            base=self._base,
            top=self._top,
        )
        if not self._try("a wall line", draw):
            return
        length = math.dist(wall.start, wall.end)
        for low, high in wall.gaps:
            share = (low + high) / 2 / length
            x, y = (a + (b - a) * share for a, b in zip(wall.start, wall.end))
            self.unit(FoundUnit("door", (x, y), high - low))

    def _joint(self, point: Point) -> Joint:
        host = self._nearest(point)
        if host is None:
            return FreeJoint(id=self._id("joint"), x=point[0], y=point[1])
        wall, along, _ = host
        return HostedJoint(id=self._id("joint"), wall=wall, end="start", distance=along)

    def _nearest(self, point: Point) -> tuple[str, float, float] | None:
        """The wall whose line is nearest: id, distance along, length."""
        best: tuple[float, tuple[str, float, float]] | None = None
        for wall in self.project.walls:
            line, length = line_through(*wall_points(self.project, wall)), wall_length(self.project, wall)
            along, away = line.along(point), abs(line.left_of(point))
            if away < ON_WALL and -ON_WALL < along < length + ON_WALL and (best is None or away < best[0]):
                best = away, (wall.id, min(max(along, 0.0), length), length)
        return best[1] if best else None

    def unit(self, unit: FoundUnit) -> None:
        """A window or door on the nearest wall."""
        host = self._nearest(unit.at)
        if host is None:
            self.skipped.append(f"a {unit.kind} that stands on no wall")
            return
        letter = "W" if unit.kind == "window" else "D"
        taken = {held.number for held in self.project.openings}
        number = next(f"{letter}{n}" for n in range(1, len(taken) + 2) if f"{letter}{n}" not in taken)
        inner = next(wall for wall in self.project.walls if wall.id == host[0]).status == "inner"
        window = unit.kind == "window"
        opening = Opening(
            id=self._id(unit.kind),
            wall=host[0],
            end="start",
            distance=host[1],
            width=unit.width,
            height=WINDOW_HEIGHT if window else DOOR_HEAD,
            sill=WINDOW_HEAD - WINDOW_HEIGHT if window else 0.0,
            unit="window" if window else "door",
            number=number,
            trim=0.0 if inner or self.project.tradition == "masonry" else 88.9,
        )
        self._try(f"{unit.kind} {number}", PutOpening(opening=opening))
