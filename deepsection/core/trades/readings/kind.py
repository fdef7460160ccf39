"""Plans as they were read: kept with the project, and not shown."""

from __future__ import annotations

from ...building.kind import ElementKind
from ...model import PlanRead

PLAN_READ = ElementKind(
    PlanRead, on_paper=True, title=lambda project, read: (read.level, "a plan as it was read"), fields=lambda *_: ()
)
