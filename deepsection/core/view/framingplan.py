"""Plans of a joist floor: its framing with members, holes and a schedule; its structure, for the engineer."""

from __future__ import annotations

from ..building.kind import PlanOf
from ..drawing import Drawing, Mark, extent
from ..geometry import Frame
from ..model import Deck, Floor
from ..resolve import Building
from ..trades.comments.plan import comment_marks
from ..trades.floors.deck_place import DECKS
from ..trades.floors.framing_plan import framing_marks, members_of
from ..trades.floors.place import FLOORS
from ..trades.floors.schedule_plan import schedule_marks
from ..trades.floors.structure_plan import structure_marks, structure_words
from ..trades.levels.placed import LEVELS
from ..trades.lines.plan import grid_marks
from ._floorstrings import floor_strings

BELOW = 8.0
"""Paper mm between the plan and its schedule."""


def framing_title(floor: Floor | Deck) -> str:
    """The plan's name: that of its floor."""
    return f"{floor.name} framing"


def structure_title(floor: Floor | Deck) -> str:
    """The name of the plan for the engineer: that of its floor."""
    return f"{floor.name} structure"


def draw_structural_plan(building: Building, floor: Floor | Deck, name: str, look_deg: float, scale: float) -> Drawing:
    """What an engineer needs of a floor, and nothing else."""
    return _draw(building, floor, (name, structure_title(floor)), look_deg, scale, for_engineer=True)


def draw_framing_plan(building: Building, floor: Floor | Deck, name: str, look_deg: float, scale: float) -> Drawing:
    """The framing of a floor, turned so that the look direction points up."""
    return _draw(building, floor, (name, framing_title(floor)), look_deg, scale, for_engineer=False)


def _draw(
    building: Building,
    floor: Floor | Deck,
    names: tuple[str, str],
    look_deg: float,
    scale: float,
    *,
    for_engineer: bool,
) -> Drawing:
    placed, frame = building.placed, Frame.looking(look_deg)
    flat = next((held for held in (*placed[FLOORS], *placed[DECKS]) if held.floor.id == floor.id), None)
    z = flat.top.z if flat else placed[LEVELS][floor.level].z
    shown = PlanOf(placed, floor.level, None, z, z, frame, scale)
    held = members_of(shown, flat) if flat else None
    marks: list[Mark] = []
    if flat and held and flat.bays:
        marks += (structure_marks if for_engineer else framing_marks)(shown, flat, *held)
        marks += floor_strings(shown, flat, holes=for_engineer)
        x0, y0, _, _ = extent(marks, scale)
        corner = (x0, y0 - BELOW * scale)
        if for_engineer:
            marks += structure_words(shown, flat, held[0], corner)
        else:
            marks += schedule_marks(shown, flat, *held, corner)
    marks += grid_marks(shown)
    for sort in ("framing", "structure"):
        marks += comment_marks(shown, f"plan:{sort}:{floor.id}")
    message = f"{floor.name} has no joists yet: it needs a place to lie, walls around it, and a make-up with joists."
    return Drawing(
        name=names[0],
        title=names[1],
        kind="plan",
        scale=scale,
        marks=tuple(marks),
        bounds=extent(marks, scale),
        look=(frame.dx, frame.dy),
        messages=() if marks else (message,),
    )
