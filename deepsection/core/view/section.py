"""Building sections: what the plane cuts, heavy and hatched, and what is seen beyond it, light."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, replace

import shapely
from shapely.geometry import MultiLineString

from ..building.kind import SectionOf
from ..drawing import Dimension, Drawing, Label, Lettered, Region, Stroke, extent
from ..drawing.cropping import FAR, Band, Window, cropped
from ..geometry import Frame
from ..kinds import KINDS
from ..model import SectionLine
from ..resolve import Building
from ._ground import EARTH_REACH, Ground, ground_marks, ground_under
from ._levels import level_heights, level_marks
from ._makeups import BELOW as LEGEND_BELOW
from ._makeups import make_up_legend, make_ups_of, section_make_ups
from ._names import room_names
from ._pitches import pitch_marks
from ._seen import boxes_of, clipped_above
from .composing import Composition
from .cut import CutPart, beyond_faces, cut_parts
from .cut_marks import cut_marks
from .edges import visible_edges
from .faces import Face
from .setting import Setting
from .sights import Sight
from .strings.depths import member_depths
from .strings.section import SectionFacts, room_beside, section_strings


def section_frame(line: SectionLine) -> Frame:
    """The frame of a section: its look direction, with depth zero on the line."""
    return Frame.facing(line.ahead, line.x1, line.y1)


def section_sights(line: SectionLine) -> tuple[Sight, ...]:
    """What a section shows: from the plane of each of its parts on."""
    if not line.steps:
        return (Sight(section_frame(line), start=0.0),)
    windows = ((part, section_window(part)) for part in line.parts)
    return tuple(Sight(section_frame(part), start=0.0, between=(held.left, held.right)) for part, held in windows)


def section_window(line: SectionLine) -> Window:
    """What a section shows of its plane: from end to end of its line, from its bottom to its top."""
    frame = section_frame(line)
    left, right = sorted(x * frame.ux + y * frame.uy for x, y in ((line.x1, line.y1), (line.x2, line.y2)))
    low = -FAR if line.bottom is None else line.bottom
    high = FAR if line.top is None else line.top
    return Window(left, right, (Band(low, high),))


@dataclass(frozen=True, slots=True)
class Shown:
    """The ground that a section shows, and what is seen behind its plane."""

    ground: Ground
    beyond: list[Face]


def draw_body(
    view: Composition, frame: Frame, window: Window, cut: list[CutPart], depth: float, *, members: bool
) -> Shown:
    """What a plane cuts, the ground, and what is seen to a depth behind, as a window shows it."""
    building, scale, before = view.building, view.setting.scale, view.marks
    view.marks = []
    held = [(one.part, one.polygon) for one in cut]
    ground = ground_under(building, frame, held, scale, window.left, window.right)
    faces = beyond_faces(building, frame, cut, window, depth, members=members)
    beyond = clipped_above(faces, ground.whole, ground.dug)
    view.beyond(beyond, visible_edges(tuple(beyond), backdrop=True))
    view.marks += ground_marks(building, ground, view.hatches)
    view.marks += cut_marks(cut, frame, scale, view.hatches)
    if not _within(window, cut, beyond):
        view.crop(window)
    view.marks = before + view.marks
    return Shown(ground, beyond)


def _within(window: Window, cut: Sequence[CutPart], beyond: Sequence[Face]) -> bool:
    """Whether nothing of what is cut and seen reaches past a window without breaks: then there is nothing to crop."""
    if len(window.bands) > 1 or any(held.polygon is not held.whole for held in cut):
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
    frame, scale, units, title = view.frame, setting.scale, setting.units, f"Section {line.name}"
    window, parts = section_window(line), [(part, section_frame(part), section_window(part)) for part in line.parts]
    cuts = [cut_parts(building, own, held) for _, own, held in parts]
    cut = [one for held in cuts for one in held]
    if not cut:
        return view.drawing(title, "section", (_nothing_cut(building, title, window, parts),))
    between = window.left, window.right
    seen, names, own = {one.part.element for one in cut}, list[Label](), list[Lettered]()
    own += pitch_marks(building, frame, seen, scale, units, between=between)
    for (part, plane, held), pieces in zip(parts, cuts):
        if not pieces:
            continue
        shown = draw_body(view, plane, held, pieces, line.depth, members=line.members)
        seen |= {face.part.element for face in shown.beyond}
        units_beyond = boxes_of([face for face in shown.beyond if face.part.function == "unit"])
        named = lettering_in(held, room_names(building, part, plane, scale, units_beyond))
        names += [label for label in named if isinstance(label, Label)]
        written = SectionOf(building.placed, plane, (held.left, held.right), scale)
        own += [mark for kind in KINDS for mark in kind.section(written)]
    every = level_heights(building, seen, between=(frame, *between))
    heights = [height for height in every if window.shows_height(height.total)]
    box, reach = shapely.total_bounds([one.polygon for one in cut]).tolist(), EARTH_REACH * scale
    facts = SectionFacts(
        building,
        MultiLineString([[(part.x1, part.y1), (part.x2, part.y2)] for part, _, _ in parts]),
        frame,
        [(one.part, one.polygon) for one in cut],
        box,
        reach,
        lowest(view.marks),
        names,
        setting,
        window,
    )
    strings = [*section_strings(facts, heights), member_depths(facts)]
    view.dimension(strings)
    left, right = (reach + room_beside(strings, side) * scale for side in ("left", "right"))
    levels = level_marks(heights, box[0] - left, box[2] + right, scale, units, sides=(1, -1))
    if setting.show and setting.show.make_ups:
        own += section_make_ups(building, facts.cut, scale)
        used = set(make_ups_of(building.placed.project, (one.part.element for one in cut)).values())
        x0, y0, *_ = extent((mark for mark in [*view.marks, *levels] if not isinstance(mark, Label)), scale)
        levels += make_up_legend(building.placed.project, used, (x0, y0 - LEGEND_BELOW * scale), scale)
    view.letter([*names, *lettering_in(window, own), *levels])
    return view.drawing(title, "section")


Part = tuple[SectionLine, Frame, Window]
"""A straight part of a section line, its frame, and what it shows."""


def _nothing_cut(building: Building, title: str, window: Window, parts: Sequence[Part]) -> str:
    """Why a section shows nothing."""
    if not window.tall > 0:
        return f"{title} shows nothing: its top is not above its bottom."
    if any(cut_parts(building, frame, Window(held.left, held.right)) for _, frame, held in parts):
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
            yield from cropped([mark], window, lambda index, _: index)
        elif isinstance(mark, Dimension) or window.holds(mark.x, mark.y):
            yield mark


def lowest(marks: Sequence[Lettered]) -> float:
    """How low what is cut and seen reaches."""
    rings = (
        mark.rings[0] if isinstance(mark, Region) else mark.path for mark in marks if isinstance(mark, (Region, Stroke))
    )
    return min(y for ring in rings for _, y, _ in ring)
