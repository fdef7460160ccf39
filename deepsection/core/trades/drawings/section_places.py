"""Where a section is cut: through the middle of something, so far from walls, lines of the grid and other sections."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Sequence
from typing import Any

from ...document.motion import Motion
from ...document.nouns import called
from ...edits import PutSection, Transform, changed
from ...geometry import Point
from ...model import Project, SectionLine, SectionStep, joint_point, wall_axis
from ...rows.rows import Row, action_row, choice_row, degrees_row, length_row

ALONG = 0.9
"""What runs along a section by more than this (cosine) is not cut by moving that across."""
PARALLEL = 1e-3
"""What is parallel to a section is askew by less than this (sine)."""
ON = 1.0
"""A section lies where something is when it is this near (mm)."""
HAIR = 1e-6
"""What is moved by less than this (mm) is where it was."""
BESIDE = 1000.0
"""How far in its look direction the copy of a section lies (mm)."""


def place_rows(project: Project, line: SectionLine) -> list[Row]:
    """Through what a section goes, and how far it lies from the nearest of each kind beside it."""
    nx, ny = line.ahead

    def to(ahead: float) -> Sequence[Any]:
        """It, so far (mm) in its look direction."""
        moved = {
            "x1": line.x1 + nx * ahead, "y1": line.y1 + ny * ahead,
            "x2": line.x2 + nx * ahead, "y2": line.y2 + ny * ahead,
        }  # fmt: skip
        return [PutSection(section=changed(line, **moved))] if abs(ahead) > HAIR else []

    through = {id: (name, ahead) for id, name, ahead in _middles(project, line)}
    now = next((id for id, (_, ahead) in through.items() if abs(ahead) < ON), "")
    options = [("", "where it lies"), *((id, name) for id, (name, _) in through.items())]
    rows = [choice_row("through", "Through the middle of", now, options, lambda t: to(through[t][1]) if t else [])]
    for id, name, ahead in _beside(project, line):
        way = math.copysign(1.0, ahead)
        rows.append(
            length_row(
                id,
                f"From {name}",
                abs(ahead),
                project.units,
                lambda value, way=way, ahead=ahead: to(ahead - way * value),  # type: ignore[misc]
                least=0.0 if id in ("behind", "ahead") else -ON,
            )
        )
    return rows


def step_rows(project: Project, line: SectionLine) -> list[Row]:
    """Where a section steps sideways or bends, and by how much."""

    def put(steps: Sequence[SectionStep]) -> Sequence[Any]:
        return [PutSection(section=changed(line, steps=tuple(steps)))]

    def with_step(k: int, **changes: Any) -> Sequence[Any]:
        return put([changed(held, **changes) if n == k else held for n, held in enumerate(line.steps)])

    rows: list[Row] = []
    for k, held in enumerate(line.steps):
        rows += [
            length_row(f"step:{k}:along", f"Step {k + 1}: along the line", held.along, project.units,
                       lambda v, k=k: with_step(k, along=v), least=0.0),  # type: ignore[misc]
            length_row(f"step:{k}:ahead", f"Step {k + 1}: lies ahead by", held.ahead, project.units,
                       lambda v, k=k: with_step(k, ahead=v)),  # type: ignore[misc]
            degrees_row(f"step:{k}:turn", f"Step {k + 1}: turns by, degrees", held.turn,
                        lambda v, k=k: with_step(k, turn=v)),  # type: ignore[misc]
            action_row(f"step:{k}:remove", f"Remove step {k + 1}", put([*line.steps[:k], *line.steps[k + 1 :]])),
        ]  # fmt: skip
    last = line.steps[-1].along if line.steps else 0.0
    lies = line.steps[-1].ahead if line.steps else 0.0
    if last < line.length:
        made = SectionStep(along=(last + line.length) / 2, ahead=lies + BESIDE)
        rows.append(action_row("step", "Add a step", put([*line.steps, made])))
    return rows


def members_row(shown: bool, put: Callable[..., Sequence[Any]]) -> Row:
    """Whether members behind the cut are drawn, of sections and of wall sections."""
    return choice_row(
        "members",
        "Rafters and joists behind the cut",
        "shown" if shown else "left out",
        [("left out", "left out"), ("shown", "shown")],
        lambda t: put(members=t == "shown"),
    )


def copy_row(line: SectionLine) -> Row:
    """A section like it, a step ahead."""
    nx, ny = line.ahead
    motion = Motion(dx=nx * BESIDE, dy=ny * BESIDE)
    return action_row("copy", "Copy it, a step ahead", [Transform(elements=(line.id,), motion=motion, copies=1)])


def _ahead(line: SectionLine, point: Point) -> float:
    """How far in the look direction of a section a place lies (mm)."""
    nx, ny = line.ahead
    return (point[0] - line.x1) * nx + (point[1] - line.y1) * ny


def _middles(project: Project, line: SectionLine) -> Iterator[tuple[str, str, float]]:
    """(id, name, mm ahead) of openings that a section can be moved through, of stairs and rooms."""
    nx, ny = line.ahead
    for opening in sorted(project.openings, key=lambda held: _counted(project.number_of(held))):
        axis = wall_axis(project, project.walls_by_id[opening.wall])
        at = opening.distance if opening.end == "start" else axis.length - opening.distance
        dx, dy = axis.direction(at)
        if abs(dx * ny - dy * nx) < ALONG:
            yield opening.id, called(opening, project.number_of(opening)), _ahead(line, axis.at(at))
    for stair in project.stairs:
        yield stair.id, stair.name, _ahead(line, (stair.x, stair.y))
    for room in project.rooms:
        yield room.id, room.name, _ahead(line, (room.x, room.y))


def _counted(number: str) -> tuple[str, int, str]:
    """By letters first and then by numbers, so that W2 comes before W10."""
    letters = number.rstrip("0123456789")
    digits = number[len(letters) :]
    return letters, int(digits or 0), number


def _beside(project: Project, line: SectionLine) -> Iterator[tuple[str, str, float]]:
    """(field, name, mm ahead) of what is parallel to a section: the nearest outer wall on either side, the nearest line
    of the grid, and the nearest other section."""
    nx, ny = line.ahead
    walls = []
    for wall in project.walls:
        axis = wall_axis(project, wall)
        dx, dy = axis.direction(0.0)
        if wall.status == "outer" and not axis.is_arc and abs(dx * nx + dy * ny) < PARALLEL:
            walls.append(_ahead(line, joint_point(project, wall.start)))
    for field, name, own in (
        ("behind", "the nearest wall behind", [held for held in walls if held < 0.0]),
        ("ahead", "the nearest wall ahead", [held for held in walls if held >= 0.0]),
    ):
        if own:
            yield field, name, min(own, key=abs)
    grid = [
        (abs(ahead), held.name, ahead)
        for held in project.grid
        if abs(math.cos(math.radians(held.angle)) * nx + math.sin(math.radians(held.angle)) * ny) < PARALLEL
        for ahead in [_ahead(line, (held.x, held.y))]
    ]
    others = [
        (abs(ahead), held.name, ahead)
        for held in project.sections
        if held.id != line.id and abs(held.ahead[0] * ny - held.ahead[1] * nx) < PARALLEL
        for ahead in [_ahead(line, (held.x1, held.y1))]
    ]
    for field, noun, found in (("grid", "grid line", grid), ("other", "section", others)):
        if found:
            _, name, ahead = min(found)
            yield field, f"{noun} {name}", ahead
