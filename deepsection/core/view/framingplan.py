"""Plans of a floor: its framing with members, holes and a schedule; its structure, for the engineer; its sheets."""

from __future__ import annotations

from typing import Literal

from ..building.kind import PlanOf
from ..drawing import Drawing, Label, Lettered, extent
from ..drawing.chains import String
from ..geometry import Frame
from ..model import Deck, Floor
from ..resolve import Building
from ..trades.comments.plan import comment_marks
from ..trades.decks.place import DECKS
from ..trades.floors.framing_plan import framing_marks, members_of
from ..trades.floors.place import FLOORS, FloorPlan
from ..trades.floors.schedule_plan import schedule_marks
from ..trades.floors.sheets_plan import sheet_marks, sheet_schedule, sheeted
from ..trades.floors.structure_plan import structure_marks, structure_words
from ..trades.levels.placed import LEVELS
from ..trades.lines.plan import grid_marks
from ._annotations import lettered
from .setting import Setting
from .strings.axes import axes_along
from .strings.floor import floor_strings

BELOW = 8.0
"""Paper mm between the plan and its schedule."""


def framing_title(floor: Floor | Deck) -> str:
    """The plan's name: that of its floor."""
    return f"{floor.name} framing"


def structure_title(floor: Floor | Deck) -> str:
    """The name of the plan for the engineer: that of its floor."""
    return f"{floor.name} structure"


def sheets_title(floor: Floor | Deck) -> str:
    """The name of the plan of its subfloor: that of its floor."""
    return f"{floor.name} subfloor"


Sort = Literal["framing", "structure", "sheets"]
TITLES = {"framing": framing_title, "structure": structure_title, "sheets": sheets_title}
MISSING = {"framing": "joists", "structure": "joists and no slab", "sheets": "joists with sheets"}
"""What a floor needs for each of its plans."""


def draw_floor_plan(
    building: Building, floor: Floor | Deck, name: str, look_deg: float, setting: Setting, sort: Sort
) -> Drawing:
    """A plan of a floor, turned so that the look direction points up: its framing with a schedule, what an engineer
    needs of it and nothing else, or the sheets of its subfloor."""
    placed, frame, scale = building.placed, Frame.looking(look_deg), setting.scale
    flat = next((held for held in (*placed[FLOORS], *placed[DECKS]) if held.floor.id == floor.id), None)
    z = flat.top.z if flat else placed[LEVELS][floor.level].z
    shown = PlanOf(placed, floor.level, None, z, z, frame, scale)
    strings: list[String] = []
    held: list[Lettered] = []
    if flat and flat.bays:
        largest = max(flat.bays, key=lambda bay: bay.region.area)
        axes = axes_along(largest.direction, frame)
        strings += floor_strings(axes, flat, setting, holes=sort != "framing")
        held += _marks(shown, flat, sort, strings)
    if not held:
        held += grid_marks(shown)
    if sort != "sheets":
        for other in ("framing", "structure"):
            held += comment_marks(shown, f"plan:{other}:{floor.id}")
    message = f"{floor.name} has no {MISSING[sort]} yet: it needs a place to lie, walls around it, and such a make-up."
    marks, bounds, left_out, shifts = lettered([*held, *setting.notes], setting)
    return Drawing(
        name=name,
        title=TITLES[sort](floor),
        kind="plan",
        scale=scale,
        marks=marks,
        bounds=bounds,
        look=(frame.dx, frame.dy),
        messages=() if marks else (message,),
        left_out=left_out,
        shifts=shifts,
        strings=tuple((string.name, string.shown) for string in strings),
    )


def _marks(shown: PlanOf, flat: FloorPlan, sort: Sort, strings: list[String]) -> list[Lettered]:
    """What a plan of a floor shows, with its strings and what is said below it."""
    held = members_of(shown, flat)
    if held is None:
        return []
    layer, members = held
    boards = sheeted(shown.placed.make_ups[flat.floor.make_up])
    marks: list[Lettered] = []
    if sort == "structure":
        marks += structure_marks(shown, flat, layer, members)
    elif members and sort == "framing":
        marks += framing_marks(shown, flat, layer, members)
    elif members and boards and layer.framing:
        marks += sheet_marks(shown, flat, boards, layer.framing, members)
    if not marks:
        return []
    marks += [mark for string in strings for mark in string.marks]
    marks += grid_marks(shown)
    x0, y0, _, _ = extent((mark for mark in marks if not isinstance(mark, Label)), shown.scale)
    corner = (x0, y0 - BELOW * shown.scale)
    if sort == "structure":
        marks += structure_words(shown, flat, layer, corner)
    elif members and sort == "framing":
        marks += schedule_marks(shown, flat, layer, members, corner)
    elif boards and layer.framing:
        marks += sheet_schedule(shown, flat, boards, layer.framing, corner)
    return marks
