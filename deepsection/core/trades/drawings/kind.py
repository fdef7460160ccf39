"""What is drawn of a house: sections, elevations, notes, sheets, and how views are shown."""

from __future__ import annotations

from collections.abc import Iterator

import shapely
from shapely.geometry import LineString

from ...building.diagnostics import Diagnostic
from ...building.kind import ElementKind
from ...building.placed import Placed
from ...model import ElevationView, Note, Project, SectionLine, Sheet, ViewShow
from ..walls.planned import WALLS
from .fields import elevation_fields, note_fields, section_fields, sheet_fields


def _missed(placed: Placed) -> Iterator[Diagnostic]:
    """Sections that do not go through the house."""
    house = [wall.footprint for wall in placed[WALLS].walls]
    for line in placed.project.sections if house else ():
        if not shapely.intersects(LineString([(line.x1, line.y1), (line.x2, line.y2)]), house).any():
            message = f"section {line.name} misses the house; drag it across the walls"
            at = ((line.x1 + line.x2) / 2, (line.y1 + line.y2) / 2)
            yield Diagnostic("section-misses", message, line.id, "line", at=at)


def _elevation_title(project: Project, view: ElevationView) -> tuple[str, str]:
    return view.name, "walls unfolded" if view.walls else "elevation along a direction of its own"


SECTION = ElementKind(
    SectionLine,
    title=lambda project, line: (f"Section {line.name}", "drag its line or ends on the plan; arrow keys step it"),
    fields=section_fields,
    checks=_missed,
)
ELEVATION = ElementKind(ElevationView, title=_elevation_title, fields=elevation_fields)
SHOW = ElementKind(ViewShow, title=lambda project, show: (show.view, "how it is shown"), fields=lambda *_: ())
NOTE = ElementKind(Note, title=lambda project, note: (note.text, "note"), fields=note_fields)
SHEET = ElementKind(Sheet, title=lambda project, sheet: (sheet.name, "sheet"), fields=sheet_fields)
