"""What is wrong with sections and wall sections: where they lie, what they would show, what they would leave out."""

from __future__ import annotations

from collections.abc import Iterator

import shapely
from shapely.geometry import LineString, MultiLineString

from ...building.diagnostics import Diagnostic
from ...building.placed import Placed
from ...model import SectionLine, WallSection, along_from_start
from ...units import INCH, format_length
from ..levels.placed import LEVELS
from ..walls.planned import WALLS, PlannedWall

ALONG = 1e-6
"""A wall runs along a section when it is askew by less than this (sine)."""
IN_FACE = 0.05
"""A section this near to a face lies in it (mm)."""


def _missed(placed: Placed) -> Iterator[Diagnostic]:
    """Sections that do not go through the house."""
    house = [wall.footprint for wall in placed[WALLS].walls]
    for line in placed.project.sections if house else ():
        if line.room:
            # It says on its drawing whether it goes through its room.
            continue
        drawn = MultiLineString([[(one.x1, one.y1), (one.x2, one.y2)] for one in line.parts])
        if not shapely.intersects(drawn, house).any():
            message = f"section {line.name} misses the house; drag it across the walls"
            at = ((line.x1 + line.x2) / 2, (line.y1 + line.y2) / 2)
            yield Diagnostic("section-misses", message, line.id, "line", at=at)


def _low_windows(placed: Placed) -> Iterator[Diagnostic]:
    """Sections and wall sections whose top is not above their bottom."""
    held: list[tuple[SectionLine | WallSection, str]] = []
    held += [(line, f"section {line.name}") for line in placed.project.sections]
    held += [(strip, f"wall section {strip.name}") for strip in placed.project.wall_sections]
    for line, named in held:
        if line.top is not None and line.bottom is not None and line.top <= line.bottom:
            message = f"{named} shows nothing: its top is not above its bottom"
            yield Diagnostic("section-low", message, line.id, "top", line.top, line.bottom)


def _steps_past(placed: Placed) -> Iterator[Diagnostic]:
    """Steps of sections past the ends of their lines."""
    units = placed.project.units
    for line in placed.project.sections:
        for k, step in enumerate(line.steps):
            if step.along >= line.length:
                long = format_length(line.length, units)
                message = f"step {k + 1} of section {line.name} lies past the end of its line, which is {long} long"
                field = f"step:{k}:along"
                at = (line.x2, line.y2)
                yield Diagnostic("section-step-off", message, line.id, field, step.along, line.length, at=at)


def _crossing(placed: Placed) -> Iterator[Diagnostic]:
    """Sections whose line bends so that it crosses itself."""
    for line in placed.project.sections:
        ends = [(x, y) for one in line.parts for x, y in ((one.x1, one.y1), (one.x2, one.y2))]
        if line.steps and not LineString(ends).is_simple:
            message = f"the line of section {line.name} crosses itself; what it shows there it shows twice"
            number = next((k for k, step in enumerate(line.steps) if step.turn), 0)
            yield Diagnostic("section-crosses", message, line.id, f"step:{number}:turn", at=ends[0])


def _in_faces(placed: Placed) -> Iterator[Diagnostic]:
    """Sections whose plane is a face of a layer of a wall: a hair to one side or the other, another drawing."""
    walls = [held for held in placed[WALLS].walls if held.curve is None]
    step = format_length(INCH / 8 if placed.project.units == "ft-in" else 3.0, placed.project.units)
    for line in placed.project.sections:
        part = next((part for part in line.parts for wall in walls if _in_face(part, wall)), None)
        if part is not None:
            message = (
                f"section {line.name} runs in a face of a wall; it cuts what lies ahead of that. "
                f"Move it by {step} to be sure which side is meant"
            )
            yield Diagnostic("section-in-face", message, line.id, "through", at=(part.x1, part.y1))


def _in_face(line: SectionLine, wall: PlannedWall) -> bool:
    """Whether a straight section lies in a face of a layer of a straight wall that runs along it."""
    (nx, ny), (dx, dy) = line.ahead, wall.run
    if abs(dx * nx + dy * ny) > ALONG or not _beside(line, wall):
        return False
    faces = (wall.at(0.0, face) for layer in wall.layers for face in (layer.outer, layer.inner))
    return any(abs((x - line.x1) * nx + (y - line.y1) * ny) < IN_FACE for x, y in faces)


def _beside(line: SectionLine, wall: PlannedWall) -> bool:
    """Whether a section runs along a stretch of a wall, and not only past it."""
    dx, dy = wall.run
    ends = sorted(x * dx + y * dy for x, y in ((line.x1, line.y1), (line.x2, line.y2)))
    own = sorted(x * dx + y * dy for x, y in (wall.start, wall.end))
    return ends[0] < own[1] and own[0] < ends[1]


def section_faults(placed: Placed) -> Iterator[Diagnostic]:
    """What is wrong with the sections of a house."""
    yield from _in_faces(placed)
    yield from _steps_past(placed)
    yield from _crossing(placed)
    yield from _missed(placed)
    yield from _low_windows(placed)


def wall_section_faults(placed: Placed) -> Iterator[Diagnostic]:
    """Wall sections past the ends of their wall, and breaks that would leave out a level."""
    units = placed.project.units
    for held in placed.project.wall_sections:
        wall = placed[WALLS].by_id[held.wall]
        along = along_from_start(held, wall.length)
        if not 0.0 <= along <= wall.length:
            long = format_length(wall.length, units)
            message = f"wall section {held.name} lies past the end of its wall, which is {long} long"
            yield Diagnostic("wall-section-off", message, held.id, "from_start", along, wall.length, at=wall.at(along))
        for k, one in enumerate(held.breaks or ()):
            low = placed[LEVELS][one.level].z + one.above
            for level in placed[LEVELS].values():
                if low < level.z < low + one.tall:
                    message = (
                        f"break {k + 1} of wall section {held.name} would leave out {level.name}: it stops before it"
                    )
                    field = f"break:{k}:above"
                    yield Diagnostic("break-over-level", message, held.id, field, one.above, at=wall.at(along))
