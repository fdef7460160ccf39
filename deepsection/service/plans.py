"""From a plan that was read to edits: outlines become outer walls, lines inner ones, gaps and blocks openings."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass
from functools import partial
from typing import Any

from deepsection.core.edits import DrawWalls, PutOpening
from deepsection.core.errors import BadInput, RefusedEdit
from deepsection.core.geometry import Point, line_through
from deepsection.core.model import FreeJoint, Joint, Opening, Project, TeeJoint, wall_length, wall_points
from deepsection.core.resolve import storeys
from deepsection.formats.dxf_plan import FoundOutline, FoundPlan, FoundUnit, FoundWall

from .work import checked_edits

ON_WALL = 250.0
"""The end of an inner wall stands on a wall when it lies this close to its line; a block belongs to one (mm)."""
DOOR_HEAD, WINDOW_HEAD, WINDOW_HEIGHT = 2100.0, 2100.0, 1200.0
"""Heights that a plan does not tell. Common practice, no source."""


Progress = Callable[[int, int], None]
LEFT_OUT = "-"
"""Chosen for a layer of a file instead of a make-up: nothing on it is read."""


@dataclass(frozen=True, slots=True)
class PlannedEdits:
    """The edits that build a plan, and what of it could not be built, in words."""

    edits: tuple[Any, ...]
    built: tuple[str, ...]
    skipped: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class LayerOffer:
    """A layer of a file: what was found on it, and the make-up that its walls get unless another one is chosen."""

    name: str
    outlines: int
    lines: int
    units: int
    make_up: str | None


def layer_choices(project: Project, chosen: Iterable[str]) -> dict[str, str]:
    """Make-up by layer, from texts such as `WALLS=wall-lap` (an id or a name) or `FURNITURE=-`. Raises: BadInput."""
    known = {held.id: held.id for held in project.make_ups if held.use == "wall"}
    known |= {held.name.casefold(): held.id for held in project.make_ups if held.use == "wall"}
    choices = {}
    for text in chosen:
        layer, equals, name = (part.strip() for part in text.partition("="))
        make_up = LEFT_OUT if name == LEFT_OUT else known.get(name, known.get(name.casefold()))
        if not equals or not layer:
            raise BadInput(
                f"“{text}” is no choice for a layer; give LAYER=MAKE-UP, or LAYER=-", field="layer", value=text
            )
        if make_up is None:
            names = ", ".join(held.name for held in project.make_ups if held.use == "wall")
            raise BadInput(f"no make-up for walls is called “{name}”; there is {names}", field="layer", value=text)
        choices[layer] = make_up
    return choices


def left_out(choices: Mapping[str, str]) -> set[str]:
    """The layers that are not read."""
    return {layer for layer, make_up in choices.items() if make_up == LEFT_OUT}


def layer_offers(project: Project, found: FoundPlan) -> list[LayerOffer]:
    """The layers of a plan, for a choice of make-ups before it is built. Raises: BadInput."""
    outer, inner = _usual(project)
    offers = []
    for name in found.layers:
        groups = (found.outlines, found.walls, found.units)
        outlines, lines, units = (sum(held.layer == name for held in group) for group in groups)
        make_up = outer if outlines else inner if lines else None
        offers.append(LayerOffer(name, outlines, lines, units, make_up))
    return offers


def plan_edits(
    project: Project,
    found: FoundPlan,
    *,
    prefix: str,
    make_ups: Mapping[str, str] | None = None,
    told: Progress | None = None,
) -> PlannedEdits:
    """Edits for a project. `prefix` begins every new id; `make_ups` names those of layers, by id.

    What the building refuses is left out and listed; `told` hears how far it is, as (done, of all).
    Raises: BadInput when nothing can be built.
    """
    builder = _Builder(project, prefix, make_ups or {})
    steps: list[Callable[[], None]] = [partial(builder.outline, held) for held in found.outlines]
    steps += [partial(builder.wall, held) for held in found.walls]
    steps += [partial(builder.unit, held) for held in found.units]
    for done, step in enumerate(steps, 1):
        step()
        if told:
            told(done, len(steps))
    if not builder.edits:
        raise BadInput("nothing of this plan could be built: " + "; ".join(builder.skipped[:3]), field="file")
    walls = sum(len(edit.walls) for edit in builder.edits if isinstance(edit, DrawWalls))
    openings = sum(isinstance(edit, PutOpening) for edit in builder.edits)
    built = (f"{walls} walls", f"{openings} openings", f"read in {found.unit}")
    return PlannedEdits(tuple(builder.edits), built, (*found.skipped, *builder.skipped))


def _usual(project: Project) -> tuple[str, str]:
    """The make-ups of outer and inner walls where none is chosen: the first and the last."""
    walls = [held.id for held in project.make_ups if held.use == "wall"]
    if not walls:
        raise BadInput("this project has no make-up for walls", field="make_up")
    return walls[0], walls[-1]


class _Builder:
    """Collects edits, each tried on the building that the ones before it make."""

    def __init__(self, project: Project, prefix: str, make_ups: Mapping[str, str]) -> None:
        self.project, self.prefix = project, prefix
        self.edits: list[Any] = []
        self.skipped: list[str] = []
        self._count = 0
        self._outer, self._inner = _usual(project)
        self._chosen = make_ups
        storey = storeys(project)[0]
        if storey.plate is None:
            raise BadInput("this project has no floor and plate to set walls between", field="rungs")
        self._base, self._top = storey.level, storey.plate

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

    def outline(self, outline: FoundOutline) -> None:
        """Outer walls around a closed outline."""
        joints = tuple(FreeJoint(id=self._id("joint"), x=x, y=y) for x, y in outline.corners)
        ids = tuple(joint.id for joint in joints)
        draw = DrawWalls(
            joints=joints,
            chain=(*ids, ids[0]),
            walls=tuple(self._id("wall") for _ in ids),
            make_up=self._chosen.get(outline.layer, self._outer),
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
            make_up=self._chosen.get(wall.layer, self._inner),
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
        return TeeJoint(id=self._id("joint"), wall=wall, end="start", distance=along)

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
