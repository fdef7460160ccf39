"""What is drawn of a house: sections, elevations, notes, sheets, and how views are shown."""

from __future__ import annotations

from collections.abc import Iterator

import shapely
from shapely.geometry import MultiLineString

from ...building.diagnostics import Diagnostic
from ...building.kind import ElementKind
from ...building.placed import Placed
from ...model import ElevationView, Note, Project, SectionLine, Sheet, ViewShow, WallSection, along_from_start
from ...units import format_length
from ..levels.placed import LEVELS
from ..walls.planned import WALLS
from .fields import elevation_fields, note_fields, section_fields, sheet_fields
from .plan import wall_section_marks
from .wall_section_fields import wall_section_fields


def _missed(placed: Placed) -> Iterator[Diagnostic]:
    """Sections that do not go through the house."""
    house = [wall.footprint for wall in placed[WALLS].walls]
    for line in placed.project.sections if house else ():
        drawn = MultiLineString([[(one.x1, one.y1), (one.x2, one.y2)] for one in line.parts])
        if not shapely.intersects(drawn, house).any():
            message = f"section {line.name} misses the house; drag it across the walls"
            at = ((line.x1 + line.x2) / 2, (line.y1 + line.y2) / 2)
            yield Diagnostic("section-misses", message, line.id, "line", at=at)


def _low_windows(placed: Placed) -> Iterator[Diagnostic]:
    """Sections whose top is not above their bottom."""
    for line in placed.project.sections:
        if line.top is not None and line.bottom is not None and line.top <= line.bottom:
            message = f"section {line.name} shows nothing: its top is not above its bottom"
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


def _section_faults(placed: Placed) -> Iterator[Diagnostic]:
    yield from _steps_past(placed)
    yield from _missed(placed)
    yield from _low_windows(placed)


def _misplaced(placed: Placed) -> Iterator[Diagnostic]:
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


def _strip_title(project: Project, held: WallSection) -> tuple[str, str]:
    return f"Wall section {held.name}", "type where on its wall it lies, or choose an opening"


def _elevation_title(project: Project, view: ElevationView) -> tuple[str, str]:
    return view.name, "walls unfolded" if view.walls else "elevation along a direction of its own"


WALL_SECTION = ElementKind(
    WallSection, title=_strip_title, fields=wall_section_fields, plan=wall_section_marks, checks=_misplaced
)
SECTION = ElementKind(
    SectionLine,
    title=lambda project, line: (f"Section {line.name}", "drag its line or ends on the plan; arrow keys step it"),
    fields=section_fields,
    checks=_section_faults,
)
ELEVATION = ElementKind(ElevationView, title=_elevation_title, fields=elevation_fields)
SHOW = ElementKind(ViewShow, title=lambda project, show: (show.view, "how it is shown"), fields=lambda *_: ())
NOTE = ElementKind(Note, title=lambda project, note: (note.text, "note"), fields=note_fields)
SHEET = ElementKind(Sheet, title=lambda project, sheet: (sheet.name, "sheet"), fields=sheet_fields)
