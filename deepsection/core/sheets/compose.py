"""A sheet as drawings placed on paper, with frame, title block, view titles and scale bars."""

from __future__ import annotations

from dataclasses import dataclass, replace

from ..drawing import Backdrop, Drawing, Mark, Region, Stroke, Symbol, Text, path, text_width
from ..drawing.pictures import Picture
from ..model import PlacedView, Project, Sheet
from ..resolve import Building
from ..units import FOOT, Units
from ..view import Opened, drawn, list_views
from .paper import BINDING, BORDER, Paper, paper
from .scales import scale_name, standard_scales

TITLE_WIDTH, TITLE_HEIGHT = 170.0, 34.0
TITLE_DROP = 13.0
"""Title block size, and how far a view's title lies below it; paper mm."""
TITLE_AT, TITLE_SIZE = 12.0, 5.0
"""From the number of a view to its title, and the height of that (paper mm), as they are drawn."""
TITLE_TALL, BAR_AT, BAR_LABEL = 4.0, 98.0, 4.0
"""A title's reach below its rule; where the scale bar begins, and what its last label takes; paper mm."""
CHECK_LINE = 100.0
"""Length on paper of the printed check line."""


@dataclass(frozen=True, slots=True)
class PlacedDrawing:
    """A drawing on paper: a view point (x, y) in real mm lies at (at_x + x / scale, at_y + y / scale)."""

    id: str
    drawing: Drawing
    scale: float
    at_x: float
    at_y: float
    left_out: tuple[str, ...] = ()
    """What could not be drawn of it, in words."""

    def box(self) -> tuple[float, float, float, float]:
        """x0, y0, x1, y1 on paper, mm."""
        x0, y0, x1, y1 = self.drawing.bounds
        return (
            self.at_x + x0 / self.scale,
            self.at_y + y0 / self.scale,
            self.at_x + x1 / self.scale,
            self.at_y + y1 / self.scale,
        )


@dataclass(frozen=True, slots=True)
class SheetDrawing:
    """Everything on one sheet. `own` is drawn in paper mm; messages name what does not fit."""

    name: str
    paper: Paper
    units: Units
    placed: tuple[PlacedDrawing, ...]
    own: Drawing
    messages: tuple[tuple[str, str], ...] = ()
    pictures: tuple[tuple[tuple[str, int], Picture], ...] = ()
    """What the pages of files under its views show, by file and page."""

    @property
    def pages(self) -> frozenset[tuple[str, int]]:
        """The pages of files that lie under its views."""
        return frozenset((held.file, held.page) for view in self.placed for held in view.drawing.backdrops)

    def picture(self, held: Backdrop) -> Picture:
        """What the page shows that lies under a view. Raises: KeyError where nobody has brought it."""
        return dict(self.pictures)[held.file, held.page]


def compose(project: Project, building: Building, sheet: Sheet, *, date: str) -> SheetDrawing:
    """The sheet with its views drawn at their scales. Raises: UnknownElement for an unknown paper."""
    size = paper(sheet.paper)
    known = {view.name for view in list_views(project)}
    placed, messages = [], []
    for view in sheet.placed:
        if view.view not in known:
            messages.append((view.id, f"the view “{view.view}” is no longer in this project"))
            continue
        held = place(project, building, view)
        placed.append(held)
        messages += [(view.id, message) for message in held.left_out]
        if message := _misfit(project, building, view, held, size):
            messages.append((view.id, message))
    own: list[Mark] = [*_frame(size), *_title_block(project, sheet, size, date)]
    for number, held in enumerate(placed, start=1):
        own += _view_title(held, number, project.units)
    return SheetDrawing(
        f"{sheet.number} {sheet.name}", size, project.units, tuple(placed), _on_paper(own, size), tuple(messages)
    )


def place(project: Project, building: Building, view: PlacedView) -> PlacedDrawing:
    """One view at its scale, its middle at the point of the sheet that it names."""
    drawing, held = drawn(Opened(project, building), view.view, view.scale, on_paper=True)
    x0, y0, x1, y1 = drawing.bounds
    at = view.x - (x0 + x1) / 2 / view.scale, view.y - (y0 + y1) / 2 / view.scale
    return PlacedDrawing(view.id, drawing, view.scale, *at, tuple(found.message for found in held.left_out))


def compose_view(project: Project, building: Building, name: str, scale: float) -> SheetDrawing:
    """One view alone, on paper cut to its size, with its title and scale bar."""
    drawing, _ = drawn(Opened(project, building), name, scale, on_paper=True)
    x0, y0, x1, y1 = drawing.bounds
    margin = 12.0
    width = max((x1 - x0) / scale, 110.0) + 2 * margin
    height = (y1 - y0) / scale + 2 * margin + 20.0
    size = Paper("view", width, height)
    held = PlacedDrawing("view", drawing, scale, margin - x0 / scale, margin + 20.0 - y0 / scale)
    return SheetDrawing(
        drawing.title, size, project.units, (held,), _on_paper(_view_title(held, 1, project.units), size)
    )


PICTURE = 60.0, 42.0
"""The size of a small picture of a house, in paper mm."""


def compose_picture(project: Project, building: Building, name: str) -> SheetDrawing:
    """A small picture of a view: what is built, without lettering, as large as it fits."""
    drawing, _ = drawn(Opened(project, building), name, project.scale)
    plain = (mark for mark in drawing.marks if isinstance(mark, Region | Stroke) and mark.pen != "hidden")
    # So small, boards and courses would print as a grey.
    built = tuple(
        replace(mark, hatch=None) if isinstance(mark, Region) else mark
        for mark in plain
        if mark.part or mark.feature == "ground"
    )
    points = [point for mark in built if isinstance(mark, Region) for ring in mark.rings for point in ring]
    u0, u1 = min((p[0] for p in points), default=0.0), max((p[0] for p in points), default=1.0)
    v0, v1 = min((p[1] for p in points), default=0.0), max((p[1] for p in points), default=1.0)
    width, height = PICTURE
    scale = max((u1 - u0) / (width - 4.0), (v1 - v0) / (height - 4.0), 1.0)
    at = width / 2 - (u0 + u1) / 2 / scale, height / 2 - (v0 + v1) / 2 / scale
    held = PlacedDrawing("picture", replace(drawing, marks=built, backdrops=()), scale, *at)
    size = Paper("picture", width, height)
    return SheetDrawing(project.name, size, project.units, (held,), _on_paper([], size))


def _on_paper(marks: list[Mark], size: Paper) -> Drawing:
    return Drawing("sheet", "", "sheet", 1.0, tuple(marks), bounds=(0.0, 0.0, size.width, size.height))


def _misfit(project: Project, building: Building, view: PlacedView, held: PlacedDrawing, size: Paper) -> str | None:
    x0, y0, x1, y1 = footprint(held, project.units)
    fx0, fy0, fx1, fy1 = size.frame
    if x0 >= fx0 and y0 >= fy0 and x1 <= fx1 and y1 <= fy1:
        return None
    if _fits(held, size, project.units):
        return f"{held.drawing.title} lies over the frame of the sheet; move it inward"
    if held.drawing.kind == "schedule":
        return f"{held.drawing.title} is larger than this paper; choose larger paper"
    smaller = (scale for scale in standard_scales(project.units) if scale > held.scale)
    # Lettering keeps its size on paper, so that only drawing the view again tells whether it fits.
    trials = (place(project, building, view.model_copy(update={"scale": scale})) for scale in smaller)
    fitting = next((trial for trial in trials if _fits(trial, size, project.units)), None)
    advice = f"it fits at {scale_name(fitting.scale, project.units)}" if fitting else "choose larger paper"
    return f"{held.drawing.title} does not fit at {scale_name(held.scale, project.units)}; {advice}"


def footprint(held: PlacedDrawing, units: Units) -> tuple[float, float, float, float]:
    """x0, y0, x1, y1 on paper of a placed view with its title and scale bar."""
    x0, y0, x1, y1 = held.box()
    field, count, _ = _bar(held.scale, units)
    bar = x0 + bar_at(held) + field * count / held.scale + BAR_LABEL if held.drawing.kind != "schedule" else x1
    return x0, y0 - TITLE_DROP - TITLE_TALL, max(x1, bar), y1


def _fits(held: PlacedDrawing, size: Paper, units: Units) -> bool:
    (x0, y0, x1, y1), (fx0, fy0, fx1, fy1) = footprint(held, units), size.frame
    return x1 - x0 <= fx1 - fx0 and y1 - y0 <= fy1 - fy0


def _frame(size: Paper) -> list[Mark]:
    x0, y0, x1, y1 = size.frame
    return [Stroke(path((x0, y0), (x1, y0), (x1, y1), (x0, y1)), "frame", closed=True, feature="frame")]


def title_block(size: Paper) -> tuple[float, float, float, float]:
    """x0, y0, x1, y1 of the title block, in the lower right corner of the frame."""
    x1, y0 = size.width - BORDER, BORDER
    return max(x1 - TITLE_WIDTH, BINDING), y0, x1, y0 + TITLE_HEIGHT


def _title_block(project: Project, sheet: Sheet, size: Paper, date: str) -> list[Mark]:
    """Project, sheet, number, scale, date and the check line. Source: ISO 7200 data fields (from memory)."""
    x0, y0, x1, y1 = title_block(size)
    ring = path((x0, y0), (x1, y0), (x1, y1), (x0, y1))
    scales = {view.scale for view in sheet.placed if not view.view.startswith("schedule:")}
    scale = "as noted" if scales else "none" if sheet.placed else "no views"
    if len(scales) == 1:
        scale = scale_name(scales.pop(), project.units)
    split = x1 - 34.0
    middle = y0 + 13.0
    marks: list[Mark] = [
        Region((ring,), fill="paper", pen="title", feature="title"),
        Stroke(path((split, y0), (split, y1)), "title"),
        Stroke(path((x0, middle), (split, middle)), "crease"),
        Text(x0 + 4, y1 - 4, project.name, 5.0, "left", "top", 0, "bold"),
        Text(x0 + 4, y1 - 11.5, project.place, 2.5, "left", "top"),
        Text(x0 + 4, y1 - 16.5, sheet.name, 3.5, "left", "top"),
        Text((split + x1) / 2, y1 - 5, "SHEET", 1.8, "centre", "top"),
        Text((split + x1) / 2, (y0 + y1) / 2 - 1, sheet.number, 9.0, "centre", "middle", 0, "bold"),
        Text((split + x1) / 2, y0 + 2.5, date, 2.2, "centre", "bottom", 0, "mono"),
        Text(split - 4, y1 - 16.5, f"Scale {scale}", 2.5, "right", "top", 0, "mono"),
        Text(split - 4, y1 - 4, project.author, 2.5, "right", "top"),
    ]
    if split - x0 >= CHECK_LINE + 8:
        a, b, y = x0 + 4, x0 + 4 + CHECK_LINE, y0 + 7.5
        marks.append(Stroke(path((a, y), (b, y)), "edge", feature="check_line"))
        marks += [Stroke(path((x, y - 1.2), (x, y + 1.2)), "edge") for x in (a, b)]
        marks.append(
            Text((a + b) / 2, y - 1.2, "this line measures 100 mm when printed at full size", 1.8, "centre", "top")
        )
    return marks


def _view_title(held: PlacedDrawing, number: int, units: Units) -> list[Mark]:
    x0, y0, x1, _ = held.box()
    x, y = x0, y0 - TITLE_DROP
    drawn = held.drawing.kind != "schedule"
    title = Symbol(
        "view_title",
        x,
        y,
        (str(number), held.drawing.title, scale_name(held.scale, units) if drawn else ""),
        values=(min(max(x1 - x0, 60.0), 90.0),),
    )
    if not drawn:
        return [title]
    field, count, labels = _bar(held.scale, units)
    bar = Symbol("scale_bar", x + bar_at(held), y, labels, values=(field, float(count), 1 / held.scale))
    return [title, bar]


def bar_at(held: PlacedDrawing) -> float:
    """From the number of a view to its scale bar: past its title (paper mm)."""
    return max(BAR_AT, TITLE_AT + text_width(held.drawing.title, TITLE_SIZE, "bold") + BAR_LABEL)


def _bar(scale: float, units: Units) -> tuple[float, int, tuple[str, ...]]:
    """Field length in real mm, number of fields and labels of a bar about 40 mm long."""
    unit = FOOT if units == "ft-in" else 1000.0
    field = next((step for step in (0.1, 0.25, 0.5, 1, 2, 4, 5, 10, 20, 50) if step * unit / scale >= 9.0), 100)
    mark = "'" if units == "ft-in" else " m"
    return field * unit, 4, tuple(f"{field * k:g}{mark}" for k in range(5))
