"""From the building to drawings: plan, elevations, sections; each a function of building, view and scale."""

from .comparing import ComparedRow, compare_heights
from .elevation import draw_elevation
from .kinds import View, framing_name, plan_name
from .opening import Opened, built, drawn, opened, without_faults
from .plan import draw_plan
from .section import draw_section, section_frame
from .setting import Setting
from .snaps import Snaps, plan_snaps
from .triangles import SlopeTriangle, slope_triangles
from .views import draw_view, list_views, look_of, plan_level, standing_name

__all__ = [
    "ComparedRow",
    "Opened",
    "Setting",
    "SlopeTriangle",
    "Snaps",
    "View",
    "built",
    "compare_heights",
    "draw_elevation",
    "draw_plan",
    "draw_section",
    "draw_view",
    "drawn",
    "framing_name",
    "list_views",
    "look_of",
    "opened",
    "plan_level",
    "plan_name",
    "plan_snaps",
    "section_frame",
    "slope_triangles",
    "standing_name",
    "without_faults",
]
