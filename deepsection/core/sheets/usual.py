"""The usual set of a house: plans, four sides, sections, wall sections, framing, on sheets at fitting scales."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Any

from ..document.ids import free_among
from ..edits import PutSection, PutSheet, PutWallSection, changed, put
from ..errors import RefusedEdit
from ..geometry import Point, Side
from ..model import PlacedView, Project, SectionLine, Sheet, WallSection
from ..resolve import Building, resolve, storeys
from ..trades.decks.place import DECKS
from ..trades.floors.place import FLOORS
from ..view import SCHEDULE, framing_name, list_views, plan_name
from ..view.strips.gaps import USUAL_SCALE
from ..view.strips.proposals import usual_places
from .compose import footprint, place, title_block
from .paper import Paper, paper
from .scales import standard_scales

PAPER = {"ft-in": "ARCH C", "mm": "A2"}
"""The paper of an office drawing of a house. Common practice, no source."""
LARGEST = {"ft-in": 24.0, "mm": 25.0}
"""No general drawing is larger than this."""
PAST = 3500.0
"""A section line reaches so far past the house (mm): its marks stand clear of the strings of dimensions."""
STRIPS = 3
"""So many wall sections stand on their sheet."""
CLEAR = 6.0
"""Paper mm between what stands side by side."""
SIDES: tuple[Side, ...] = ("south", "east", "north", "west")


def usual_set(project: Project, building: Building) -> list[Any]:
    """The edits that lay out the usual set: sections and wall sections where there are none, and sheets beside those
    that there are.

    Sheets that show nothing yet are filled first. Raises: RefusedEdit for a project without walls.
    """
    if not building.plan.walls:
        raise RefusedEdit("there is no house to lay out yet: draw its walls first", field="sheets")
    lines, strips = list(_sections(project, building)), _wall_sections(project, building)
    edits: list[Any] = [PutSection(section=line) for line in lines]
    edits += [PutWallSection(wall_section=held) for held in strips]
    staged = put(project, *lines, *strips)
    whole = resolve(staged) if edits else building
    plans = [plan_name(staged, held.level) for held in storeys(staged) if building.plan.on(held.level)]
    if any(view.name == "plan:roof" for view in list_views(staged)):
        plans.append("plan:roof")
    named = {view.name for view in list_views(staged)}
    laid = [flat.floor.id for flat in (*building[FLOORS], *building[DECKS]) if flat.bays]
    # A slab has no members: its plan is that of its structure.
    framing = [name if (name := framing_name(id)) in named else f"plan:structure:{id}" for id in laid]
    largest = LARGEST[staged.units]
    walls = [f"section:{held.id}" for held in staged.wall_sections[:STRIPS]]
    groups = [
        ("Plans", plans, largest),
        ("Elevations", [f"elevation:{side}" for side in SIDES], largest),
        ("Sections", [f"section:{line.id}" for line in staged.sections[:2]], largest),
        *([("Wall sections", walls, USUAL_SCALE[staged.units])] if walls else []),
        *([("Framing", framing, largest)] if framing else []),
        *([("Schedules", [SCHEDULE], largest)] if staged.openings else []),
    ]
    empty = [held for held in staged.sheets if not held.placed]
    for name, views, scale in groups:
        sheet = empty.pop(0) if empty else _sheet(staged)
        filled = _filled(staged, whole, changed(sheet, name=name, paper=PAPER[staged.units], placed=()), views, scale)
        edits.append(PutSheet(sheet=filled))
        staged = put(staged, filled)
    return edits


def _sections(project: Project, building: Building) -> Iterator[SectionLine]:
    """A long and a cross section through the middle of the house, where it has none of its own."""
    if project.sections:
        return
    points = [point for wall in building.plan.walls for point in (wall.start, wall.end)]
    (x0, x1), (y0, y1) = ((min(values), max(values)) for values in zip(*points))
    x, y = (x0 + x1) / 2, (y0 + y1) / 2
    ids = free_among({held.id for held in project.elements()}, "section")
    along = SectionLine(id=next(ids), name="A", x1=x0 - PAST, y1=y, x2=x1 + PAST, y2=y, look="left")
    across = SectionLine(id=next(ids), name="B", x1=x, y1=y1 + PAST, x2=x, y2=y0 - PAST, look="left")
    yield from (along, across) if x1 - x0 >= y1 - y0 else (changed(across, name="A"), changed(along, name="B"))


def _sheet(project: Project) -> Sheet:
    ids = free_among({held.id for held in project.elements()}, "sheet")
    numbers = {held.number for held in project.sheets}
    number = next(f"A{k}" for k in range(1, len(numbers) + 2) if f"A{k}" not in numbers)
    return Sheet(id=next(ids), number=number, name="Sheet", paper=PAPER[project.units])


def _wall_sections(project: Project, building: Building) -> list[WallSection]:
    """Those that are usual, where there are none."""
    if project.wall_sections:
        return []
    return [held.wall_section for held in usual_places(project, building)[:STRIPS]]


def _filled(project: Project, building: Building, sheet: Sheet, views: Sequence[str], largest: float) -> Sheet:
    """A sheet with views in rows, at the largest scale at which all of them find room.

    Where not all do at any scale, those that do at the smallest.
    """
    taken = {held.id for other in project.sheets if other.id != sheet.id for held in other.placed}
    ids = [f"view-{k}" for k in range(1, len(taken) + len(views) + 1) if f"view-{k}" not in taken]
    scales = [scale for scale in standard_scales(project.units) if scale >= largest]
    for count in range(len(views), 0, -1):
        for scale in scales:
            wanted = [PlacedView(id=id, view=view, scale=scale, x=0.0, y=0.0) for id, view in zip(ids, views[:count])]
            boxes = [footprint(place(project, building, held), project.units) for held in wanted]
            spots = in_rows([(x1 - x0, y1 - y0) for x0, y0, x1, y1 in boxes], paper(sheet.paper))
            if spots:
                placed = tuple(
                    changed(held, x=round(x - box[0], 3), y=round(y - box[1], 3))
                    for held, box, (x, y) in zip(wanted, boxes, spots)
                )
                filled: Sheet = changed(sheet, placed=placed)
                return filled
    return sheet


def in_rows(sizes: Sequence[tuple[float, float]], size: Paper) -> list[Point] | None:
    """The lower left corners of boxes (width, height) on paper, in rows of equally many, evenly apart; None: no room.

    They stand in order from the top left, those of a row on one line, clear of frame and title block.

    >>> len(in_rows([(100.0, 80.0)] * 4, paper("A2")) or [])
    4
    """
    x0, y0, x1, y1 = size.frame
    left, _, _, above = title_block(size)
    for columns in range(len(sizes), 0, -1):
        rows = [sizes[k : k + columns] for k in range(0, len(sizes), columns)]
        heights = [max(tall for _, tall in row) for row in rows]
        widths = [sum(wide for wide, _ in row) + CLEAR * (len(row) + 1) for row in rows]
        low = y0 if x0 + widths[-1] <= left else above
        free = y1 - low - sum(heights) - CLEAR * (len(rows) + 1)
        if free < 0 or max(widths) > x1 - x0:
            continue
        # Columns stand under each other where rows are of one length.
        found: list[Point] = []
        y = y1
        for row, tall in zip(rows, heights):
            y -= tall + CLEAR + free / (len(rows) + 1)
            right = left if low == y0 and row is rows[-1] else x1
            gap = (right - x0 - sum(wide for wide, _ in row)) / (len(row) + 1)
            x = x0
            for wide, _ in row:
                x += gap
                found.append((x, y))
                x += wide
        return found
    return None
