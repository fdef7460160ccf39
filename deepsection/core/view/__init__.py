"""From the building to drawings: plan, elevations, sections; each a function of building, view and scale."""

from .comparing import ComparedRow, compare_heights
from .elevation import draw_elevation
from .opening import Opened, built, drawn, opened, without_faults
from .plan import Snaps, draw_plan, plan_snaps
from .section import draw_section, section_frame
from .setting import Setting
from .triangles import SlopeTriangle, slope_triangles
from .views import ViewName, draw_view, list_views, look_of, plan_level, plan_name, standing_name

__all__ = [
    "ComparedRow",
    "Opened",
    "Setting",
    "SlopeTriangle",
    "Snaps",
    "ViewName",
    "built",
    "compare_heights",
    "draw_elevation",
    "draw_plan",
    "draw_section",
    "draw_view",
    "drawn",
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
