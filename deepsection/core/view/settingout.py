"""The setting out of a stair: what its maker needs on one drawing."""

from __future__ import annotations

from ..drawing import Drawing, moved
from ..model import Stair
from ..resolve import Building
from ..trades.stairs.placed import STAIRS
from ..trades.stairs.setting_plan import setting_marks
from ._annotations import lettered
from .setting import Setting


def setting_title(stair: Stair) -> str:
    """The drawing's name: that of its stair."""
    return f"{stair.name}, setting out"


def draw_setting_out(building: Building, stair: Stair, name: str, setting: Setting) -> Drawing:
    """One string of a stair unfolded, with its steps, goings, heights from finish and angles."""
    placed = next((held for held in building[STAIRS] if held.stair.id == stair.id), None)
    own = setting_marks(placed, setting.units, setting.scale) if placed else []
    marks, (x0, y0, x1, y1), left_out, shifts = lettered(own, setting)
    # It stands at the height of its foot, as sections do.
    base = placed.base if placed else 0.0
    marks = tuple(moved(mark, 0.0, base) for mark in marks)
    message = f"{stair.name} cannot be built as it is: its particulars say why."
    return Drawing(
        name=name,
        title=setting_title(stair),
        kind="section",
        scale=setting.scale,
        marks=marks,
        sums=(placed.rise,) if placed else (),
        bounds=(x0, y0 + base, x1, y1 + base),
        messages=() if marks else (message,),
        left_out=left_out,
        shifts=shifts,
    )
