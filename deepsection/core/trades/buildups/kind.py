"""Settings of build-ups: what they are called."""

from __future__ import annotations

from ...building.kind import ElementKind
from ...model import BuildUpSetting

BUILD_UP_SETTING = ElementKind(
    BuildUpSetting,
    on_paper=True,
    title=lambda project, held: ("Build-up", "how junctions are built; set it in the list of junctions"),
    fields=lambda *_: (),
)
