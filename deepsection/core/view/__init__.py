"""From the building to drawings: plan, elevations, sections; each a function of building, view and scale."""

from .comparing import ComparedRow, compare_heights
from .elevation import draw_elevation
from .figures import figure_edits
from .kinds import View, framing_name, plan_name
from .opening import Opened, built, drawn, opened, without_faults
from .openingschedule import NAME as SCHEDULE
from .openingschedule import TITLE as SCHEDULE_TITLE
from .openingschedule import OpeningRow, cells_of, heads_of, opening_rows, opening_table
from .plan import draw_plan, plan_with_sections
from .section import draw_section
from .section_panels import section_frame
from .setting import Setting
from .snaps import Snaps, plan_snaps
from .triangles import SlopeTriangle, slope_triangles
from .views import anchor_in, draw_view, lies_over_files, list_views, look_of, plan_level, standing_name

__all__ = [
    "SCHEDULE",
    "SCHEDULE_TITLE",
    "ComparedRow",
    "Opened",
    "OpeningRow",
    "Setting",
    "SlopeTriangle",
    "Snaps",
    "View",
    "anchor_in",
    "built",
    "cells_of",
    "compare_heights",
    "draw_elevation",
    "draw_plan",
    "draw_section",
    "draw_view",
    "drawn",
    "figure_edits",
    "framing_name",
    "heads_of",
    "lies_over_files",
    "list_views",
    "look_of",
    "opened",
    "opening_rows",
    "opening_table",
    "plan_level",
    "plan_name",
    "plan_snaps",
    "plan_with_sections",
    "section_frame",
    "slope_triangles",
    "standing_name",
    "without_faults",
]
