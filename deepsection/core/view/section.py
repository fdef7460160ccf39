"""Building sections: what the plane cuts, heavy and hatched, and what is seen beyond it, light."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, replace

import shapely

from ..building.kind import SectionOf
from ..buildups import fixings_at, with_pieces
from ..catalog import material
from ..drawing import Dimension, Drawing, Label, Lettered, Mark, Region, Stroke, extent, path, rings_of
from ..drawing.cropping import FAR, Window, cropped
from ..drawing.outlines import points_along
from ..geometry import CutFrame, Frame
from ..kinds import KINDS
from ..model import SectionLine
from ..resolve import Building
from ..units import HeightSum
from ._gridlines import grid_bubbles
from ._ground import EARTH_REACH, Ground, ground_marks, ground_under
from ._levels import level_heights, level_marks
from ._makeups import BELOW as LEGEND_BELOW
from ._makeups import make_up_legend, make_ups_of, section_make_ups
from ._names import room_names
from ._pitches import pitch_marks
from ._seen import boxes_of, clipped_above
from .composing import Composition
from .continuity import continuity_in
from .cut import CutPart, beyond_faces, cut_parts
from .cut_marks import cut_marks
from .details.marks import detail_outlines
from .edges import visible_edges
from .faces import Face
from .hatching import HatchTable
from .line_marks import line_marks
from .section_panels import Panel, bend_marks, reach_of, runs_of, section_frame, section_panels
from .section_stacks import section_stacks
from .setting import Setting
from .strings.depths import member_depths
from .strings.section import SectionFacts, room_beside, section_strings
from .strips.marks import strip_outlines

EDGE = 0.01
"""What comes so near to an edge of a window (mm) ends at it."""


@dataclass(frozen=True, slots=True)
class Shown:
    """The ground that a section shows, and what is seen behind its plane."""

    ground: Ground
    beyond: list[Face]


def draw_body(
    view: Composition,
    frame: Frame,
    window: Window,
    cut: list[CutPart],
    depth: float,
    *,
    members: bool,
    within: Building | None = None,
) -> Shown:
    """What a plane cuts, the ground, and what is seen to a depth behind, as a window shows it."""
    building, scale, before = within or view.building, view.setting.scale, view.marks
    view.marks = []
    held = [(one.part, one.polygon) for one in cut]
    ground = ground_under(building, frame, held, scale, window.left, window.right)
    draft = view.setting.draft
    faces = [] if draft else beyond_faces(building, frame, cut, window, depth, members=members)
    beyond = clipped_above(faces, ground.whole, ground.dug)
    view.beyond(beyond, visible_edges(tuple(beyond), backdrop=True))
    view.marks += ground_marks(building, ground, view.hatches)
    view.marks += cut_marks(cut, frame, scale, view.hatches)
    view.marks += over_cut(view, building, frame, window, cut, scale)
    if not _within(window, cut, beyond):
        view.crop(window)
    view.marks = before + view.marks
    return Shown(ground, beyond)


def over_cut(
    view: Composition, building: Building, frame: CutFrame, window: Window, cut: list[CutPart], tier: float
) -> Iterator[Mark]:
    """What stands over what a plane cuts: fixings that show at a scale of 1:`tier`, and lines that were asked for."""
    for part, shape in fixings_at(building, frame, window, tier):
        tone = material(part.material).tone
        whole = window.outline.boundary.distance(shape.boundary) > 0.0
        yield Region(rings_of(shape), fill=tone, pen="fine" if whole else None, part=part.key, feature="fixing")
        if not whole:
            # What a window cuts off has no line there.
            edges = shape.boundary.difference(window.outline.boundary.buffer(EDGE))
            yield from (Stroke(path(*edge.coords), "fine", part=part.key, feature="fixing")
                        for edge in shapely.get_parts(shapely.line_merge(edges)) if edge.length > 1.0)  # fmt: skip
    show = view.setting.show
    if show and show.lines:
        yield from line_marks(
            continuity_in(building, cut, window, show.lines, frame=frame), building, view.setting.scale
        )


def _within(window: Window, cut: Sequence[CutPart], beyond: Sequence[Face]) -> bool:
    """Whether nothing of what is cut and seen reaches past a window without breaks: then there is nothing to crop."""
    if len(window.bands) > 1 or window.columns or any(held.polygon is not held.whole for held in cut):
        return False
    x0, _, x1, _ = shapely.total_bounds([face.polygon for face in beyond]).tolist() if beyond else (0.0,) * 4
    whole = window.low <= -FAR and window.high >= FAR
    return bool(whole and (not beyond or (window.left <= x0 and x1 <= window.right)))


def draw_section(
    building: Building,
    line: SectionLine,
    setting: Setting,
) -> Drawing:
    """The section along a line at a scale. A line that misses the house gives a message and no marks."""
    view = Composition(building, f"section:{line.id}", section_frame(line), setting)
    scale, title, panels = setting.scale, f"Section {line.name}", section_panels(line)
    built = [with_pieces(building, panel.frame, panel.window, scale) for panel in panels]
    cuts = [cut_parts(held, panel.frame, panel.window) for held, panel in zip(built, panels)]
    placed = [(one, panel.drawn(one.polygon)) for panel, held in zip(panels, cuts) for one in held]
    if not placed:
        return view.drawing(title, "section", (_nothing_cut(building, title, panels),))
    seen, names, own = {one.part.element for one, _ in placed}, list[Label](), list[Lettered]()
    for panel, pieces, within in zip(panels, cuts, built):
        if not pieces:
            continue
        beyond = _draw_panel(view, panel, pieces, line, within)
        if setting.draft:
            continue
        seen |= {face.part.element for face in beyond}
        labels, others = _panel_lettering(view, panel, pieces, beyond)
        # A room that two parts go through is named once.
        names += [label for label in labels if label.key not in {held.key for held in names}]
        own += others
    if setting.draft:
        return view.drawing(title, "section")
    heights: dict[str, HeightSum] = {}
    for run in runs_of(panels):
        frame, between = run[0].frame, reach_of(run)
        cut_here = {one.part.element for panel, held in zip(panels, cuts) if panel in run for one in held}
        own += run[0].placed(pitch_marks(building, frame, cut_here, scale, setting.units, between=between))
        heights |= {one.id: one for one in level_heights(building, seen, between=(frame, *between))}
    levels = [one for one in heights.values() if panels[0].window.shows_height(one.total)]
    levels.sort(key=lambda one: one.total)
    cut = [(one.part, polygon) for one, polygon in placed]
    x0, y0, x1, y1 = shapely.total_bounds([polygon for _, polygon in cut]).tolist()
    box, reach = (x0, y0, x1, y1), EARTH_REACH * scale
    window = replace(panels[0].window, left=min(p.between[0] for p in panels), right=max(p.between[1] for p in panels))
    facts = SectionFacts(building, panels, cut, box, reach, lowest(view.marks), names, setting, window)
    own += bend_marks(panels, y0, y1, scale)
    strings = [*section_strings(facts, levels), member_depths(facts)]
    view.dimension(strings)
    left, right = (reach + room_beside(strings, side) * scale for side in ("left", "right"))
    marked = list[Lettered](level_marks(levels, x0 - left, x1 + right, scale, setting.units, sides=(1, -1)))
    if setting.show and setting.show.stacks:
        own += section_stacks(building, cut, [*view.marks, *own], reach, scale)
    if setting.show and setting.show.make_ups:
        own += section_make_ups(building, cut, scale)
        used = set(make_ups_of(building.placed.project, (part.element for part, _ in cut)).values())
        left, low, *_ = extent((mark for mark in [*view.marks, *marked] if not isinstance(mark, Label)), scale)
        marked += make_up_legend(building.placed.project, used, (left, low - LEGEND_BELOW * scale), scale)
    view.letter([*names, *lettering_in(window, own), *marked])
    return view.drawing(title, "section")


def _draw_panel(
    view: Composition, panel: Panel, pieces: list[CutPart], line: SectionLine, within: Building
) -> list[Face]:
    """Draw a part of a section where it lies; what is seen behind it."""
    if not panel.shift:
        return draw_body(
            view, panel.frame, panel.window, pieces, line.depth, members=line.members, within=within
        ).beyond
    hatches = HatchTable(view.setting.scale, panel.shift)
    own = Composition(view.building, view.name, panel.frame, view.setting, hatches)
    shown = draw_body(own, panel.frame, panel.window, pieces, line.depth, members=line.members, within=within)
    view.take(own, panel.shift)
    return shown.beyond


def _panel_lettering(
    view: Composition, panel: Panel, pieces: list[CutPart], beyond: list[Face]
) -> tuple[list[Label], list[Lettered]]:
    """The names of rooms of a part of a section, and what else is written in it."""
    building, scale = view.building, view.setting.scale
    units_beyond = boxes_of([face for face in beyond if face.part.function == "unit"])
    named = panel.placed(
        list(lettering_in(panel.window, room_names(building, panel.line, panel.frame, scale, units_beyond)))
    )
    written = SectionOf(building.placed, panel.frame, (panel.window.left, panel.window.right), scale)
    own: list[Lettered] = [mark for kind in KINDS for mark in kind.section(written)]
    own += strip_outlines(view, panel.frame, pieces)
    own += detail_outlines(view, panel.frame, panel.window, pieces)
    x0, y0, x1, y1 = shapely.total_bounds([one.polygon for one in pieces]).tolist()
    top = max([y1, *(held[3] for held in boxes_of(beyond))])
    box = max(x0, panel.window.left), y0, min(x1, panel.window.right), min(top, panel.window.high)
    own += grid_bubbles(view.setting.grid, panel.frame, box, scale, ends=True)
    return [label for label in named if isinstance(label, Label)], panel.placed(own)


def _nothing_cut(building: Building, title: str, panels: Sequence[Panel]) -> str:
    """Why a section shows nothing."""
    if not panels[0].window.tall > 0:
        return f"{title} shows nothing: its top is not above its bottom."
    if any(cut_parts(building, held.frame, Window(held.window.left, held.window.right)) for held in panels):
        return f"{title} shows nothing: the house lies above its top or below its bottom."
    return f"{title} misses the house. Drag its line across the walls on the plan."


def lettering_in(window: Window, own: Iterable[Lettered]) -> Iterator[Lettered]:
    """Lettering about what a window shows; labels stay within it."""
    bounded = window.low > -FAR or window.high < FAR
    for mark in own:
        if not bounded:
            yield mark
        elif isinstance(mark, Label):
            if mark.about is None or mark.about.intersects(window.outline):
                within = window.outline if mark.within is None else mark.within.intersection(window.outline)
                yield replace(mark, within=within)
        elif isinstance(mark, (Stroke, Region)):
            yield from cropped([mark], window, lambda index, *_: index)
        elif isinstance(mark, Dimension) or window.holds(mark.x, mark.y):
            yield mark


def lowest(marks: Sequence[Lettered]) -> float:
    """How low what is cut and seen reaches."""
    rings = [
        mark.rings[0] if isinstance(mark, Region) else mark.path for mark in marks if isinstance(mark, (Region, Stroke))
    ]
    return float(points_along(rings)[0][:, 1].min())
