"""What is drawn of a house: sections, elevations, notes, sheets, and how views are shown."""

from __future__ import annotations

from ...building.kind import ElementKind
from ...model import Detail, ElevationView, Note, Project, SectionLine, Sheet, ViewShow, WallSection
from .checks import section_faults, wall_section_faults
from .fields import detail_fields, elevation_fields, note_fields, section_fields, sheet_fields
from .plan import wall_section_marks
from .wall_section_fields import wall_section_fields


def _strip_title(project: Project, held: WallSection) -> tuple[str, str]:
    return f"Wall section {held.name}", "type where on its wall it lies, or choose an opening"


def _elevation_title(project: Project, view: ElevationView) -> tuple[str, str]:
    return view.name, "walls unfolded" if view.walls else "elevation along a direction of its own"


WALL_SECTION = ElementKind(
    WallSection,
    on_paper=True,
    title=_strip_title,
    fields=wall_section_fields,
    plan=wall_section_marks,
    checks=wall_section_faults,
)
SECTION = ElementKind(
    SectionLine,
    on_paper=True,
    title=lambda project, line: (f"Section {line.name}", "drag its line or ends on the plan; arrow keys step it"),
    fields=section_fields,
    checks=section_faults,
)
DETAIL = ElementKind(
    Detail,
    on_paper=True,
    title=lambda project, held: (f"Detail {held.name}", "a window on where parts meet; it goes with them"),
    fields=detail_fields,
)
ELEVATION = ElementKind(ElevationView, on_paper=True, title=_elevation_title, fields=elevation_fields)
SHOW = ElementKind(
    ViewShow, on_paper=True, title=lambda project, show: (show.view, "how it is shown"), fields=lambda *_: ()
)
NOTE = ElementKind(Note, on_paper=True, title=lambda project, note: (note.text, "note"), fields=note_fields)
SHEET = ElementKind(Sheet, on_paper=True, title=lambda project, sheet: (sheet.name, "sheet"), fields=sheet_fields)
