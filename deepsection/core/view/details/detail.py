"""Details: a window on a cut across a junction, with what every piece is."""

from __future__ import annotations

from collections.abc import Sequence

from ...buildups import built_of, fixings_at, with_pieces
from ...drawing import Drawing, Lettered, Stroke
from ...drawing.breaklines import break_line
from ...geometry import Frame
from ...junctions import Junction
from ...junctions.sizes import DETAIL_SIZES
from ...model import Detail
from ...resolve import Building
from .._levels import level_heights, level_marks
from ..composing import Composition
from ..continuity import continuity_in
from ..cut import CutPart, cut_parts
from ..line_marks import gap_words
from ..planes import plane_of
from ..section import draw_body, lowest
from ..setting import Setting
from ..strings.depths import member_depths
from ..strings.section import SectionFacts
from ..strings.strip import layer_strings
from .level import level_body, level_strings
from .measures import detail_measures
from .notes import column_width, note_columns, piece_notes, staggered
from .place import DetailPlace, crossed, detail_place, junction_of

BESIDE = 6.0
"""Paper mm from the notes to the levels."""
WHOLE = 0.9
"""The layers of a wall are dimensioned where a detail shows this much of its thickness."""


def draw_detail(building: Building, held: Detail, setting: Setting) -> Drawing:
    """The detail at a scale: what its plane cuts and what is seen behind, within its window."""
    name, title, scale = f"detail:{held.id}", f"Detail {held.name}", setting.scale
    blank = Composition(building, name, Frame(0.0, 1.0), setting)
    junction = junction_of(building, held)
    if junction is None:
        message = f"{title} has lost its place: what met there does not meet any more. Remove it, or undo."
        return blank.drawing(title, "section", (message,))
    place = detail_place(building, held, junction)
    if place is None:
        message = f"{title} lies past the end of its {junction.about.one}. Type another distance, or none."
        return blank.drawing(title, "section", (message,))
    # However small it is looked at, it shows all that it shows at its own scale.
    tier = min(scale, DETAIL_SIZES[junction.kind].scale(setting.units))
    building = with_pieces(building, place.frame, place.window, tier)
    cut = cut_parts(building, place.frame, place.window)
    if not cut:
        message = f"{title} cuts nothing here. Type another distance, or show more around it."
        return blank.drawing(title, "section", (message,))
    look = place.frame if isinstance(place.frame, Frame) else Frame.facing((-place.frame.uy, place.frame.ux), 0.0, 0.0)
    view = Composition(building, name, look, setting)
    if isinstance(place.frame, Frame):
        draw_body(view, place.frame, place.window, cut, held.depth, members=held.members)
    else:
        level_body(view, place.frame, place.window, cut, tier)
    window = place.window
    view.marks += [
        Stroke(break_line(*ends, scale), "fine", feature="break")
        for ends in crossed(place, [one.polygon for one in cut])
    ]
    fixings = fixings_at(building, place.frame, window, tier)
    box = (window.left, window.low, window.right, window.high)
    shown = [*cut, *(CutPart(part, shape, shape) for part, shape in fixings)]
    notes = piece_notes(shown, building, scale)
    if isinstance(place.frame, Frame):
        own = _heights(view, place, junction, cut, column_width(notes, box, -1.0))
    else:
        own, notes = [], staggered(notes, shown, (window.left + window.right) / 2, scale)
        view.dimension(level_strings(view, place, junction))
    view.letter([*own, *note_columns(notes, box, scale, view.changes)])
    return view.drawing(title, "section", _faults(building, junction, title, cut, place) if setting.on_paper else ())


def _heights(
    view: Composition, place: DetailPlace, junction: Junction, cut: Sequence[CutPart], notes: float
) -> list[Lettered]:
    """The strings of an upright detail, and its levels beyond the notes at its left, so wide (paper mm)."""
    building, setting, window, frame = view.building, view.setting, place.window, place.frame
    assert isinstance(frame, Frame)
    box = (window.left, window.low, window.right, window.high)
    pairs = [(one.part, one.polygon) for one in cut]
    plane = plane_of(frame, window)
    facts = SectionFacts(building, (plane,), pairs, box, 0.0, lowest(view.marks), (), setting, window)
    walls = [building.plan.by_id[id] for id in junction.elements if id in building.plan.by_id]
    # Across a hip or a valley rafters are cut askew: what they measure there is not what they are.
    depths = [] if junction.kind in ("hip", "valley") else [member_depths(facts)]
    strings = [*depths, detail_measures(building, junction, place, setting)]
    for wall in walls[:1]:
        if sum(high - low for low, high in facts.along(wall.footprint)) >= WHOLE * (wall.outer - wall.inner):
            strings += list(layer_strings(facts, wall))
    view.dimension(strings)
    elements = {one.part.element for one in cut}
    heights = level_heights(building, elements, between=(frame, window.left, window.right))
    shown = sorted((one for one in heights if window.shows_height(one.total)), key=lambda one: one.total)
    left = window.left - (notes + BESIDE) * setting.scale
    return list(level_marks(shown, left, window.right, setting.scale, setting.units, sides=(-1,)))


def _faults(
    building: Building, junction: Junction, title: str, cut: Sequence[CutPart], place: DetailPlace
) -> tuple[str, ...]:
    """What is wrong with how a junction is built, so that it is seen before it is printed."""
    built = built_of(building, junction)
    if built is None:
        return ()
    said = [f"{title}: {built.build_up.name} {built.fault}"] if built.fault else []
    for line in continuity_in(building, cut, place.window, frame=place.frame):
        said += [f"{title}: {words}" for words in gap_words(line, building)] if line.is_there else []
    return tuple(said)
