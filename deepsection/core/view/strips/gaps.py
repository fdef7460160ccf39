"""What a wall section leaves out on paper: as it states it, or as much as is needed for it to fit."""

from __future__ import annotations

from collections.abc import Sequence

from ...drawing.cropping import Window
from ...geometry import Point
from ...model import Project, StripBreak, WallSection
from ...resolve import Building
from ...units import Units
from .breaks import GAP, KEEP, LEAST, Feature, breaks_to_fit, most_saved, plain_stretches, within_plain

Said = tuple[str, ...]
USUAL_SCALE: dict[Units, float] = {"ft-in": 16.0, "mm": 20.0}
"""Of wall sections on paper, where no sheet says otherwise: 3/4 in to the foot. Common practice, no source."""


def paper_scale(project: Project, held: WallSection) -> float:
    """The scale at which a wall section stands on the first sheet that has it, else the usual one."""
    placed = (one for sheet in project.sheets for one in sheet.placed if one.view == f"section:{held.id}")
    return next((one.scale for one in placed), USUAL_SCALE[project.units])


def gaps_of(
    held: WallSection, building: Building, features: Sequence[Feature], whole: Window, scale: float
) -> tuple[list[Point], Said]:
    """From-to of what is left out, low ones first, and what is to be said of that."""
    title, keep = f"Wall section {held.name}", KEEP * scale
    if held.breaks is not None:
        return _stated(held, building, features, keep, f"of {title[0].lower()}{title[1:]}")
    if held.tall is None:
        return [], ()
    gap, least = GAP * scale, LEAST * scale
    plain = plain_stretches(features, whole.low + keep, whole.high - keep, keep)
    found = breaks_to_fit(plain, whole.tall - held.tall * scale, gap, least)
    if found is not None:
        return found, ()
    saved = most_saved(plain, gap, least)
    message = (
        f"{title} does not fit on {held.tall:g} mm of paper at 1:{scale:g}, even with breaks: it needs "
        f"{(whole.tall - saved) / scale:.0f} mm. Give it more height or a smaller scale, or make two of it."
    )
    return [span for span in plain if span[1] - span[0] >= gap + least], (message,)


def _stated(
    held: WallSection, building: Building, features: Sequence[Feature], keep: float, whose: str
) -> tuple[list[Point], Said]:
    """The breaks that a wall section states, each as far as it leaves out nothing that matters."""
    starts = [(building.levels[one.level].z + one.above, one.tall) for one in held.breaks or ()]
    return stated_spans([(low, low + tall) for low, tall in starts], features, keep, "Break", whose)


def stated_spans(
    spans: Sequence[Point], features: Sequence[Feature], keep: float, noun: str, whose: str
) -> tuple[list[Point], Said]:
    """Stated breaks, each as far as it leaves out nothing that matters; and what is to be said of them."""
    found, said = list[Point](), list[str]()
    for k, (low, high) in enumerate(spans, 1):
        free, inside = within_plain(low, high, features, keep)
        if inside:
            said.append(f"{noun} {k} {whose} would leave out the {inside}: it stops before it.")
        if free is None:
            said.append(f"{noun} {k} {whose} has nothing plain to leave out: move it.")
        elif any(free[0] < other[1] and free[1] > other[0] for other in found):
            said.append(f"{noun} {k} {whose} lies over another one: move it.")
        else:
            found.append(free)
    return sorted(found), tuple(said)


def stated_breaks(
    building: Building, held: WallSection, gaps: Sequence[Point], which: int
) -> tuple[int, tuple[StripBreak, ...]]:
    """(number, breaks) of a wall section in which one of its gaps is stated as it is drawn, to be moved.

    Other breaks that it states stay as they are stated; where it states none, all are stated as they are drawn.
    """
    if held.breaks is None:
        return which, tuple(_stated_as(building, gap) for gap in gaps)
    starts = [(building.levels[one.level].z + one.above, one.tall) for one in held.breaks]
    number = most_covering([(low, low + tall) for low, tall in starts], gaps[which])
    own = _stated_as(building, gaps[which])
    return number, (*held.breaks[:number], own, *held.breaks[number + 1 :])


def most_covering(spans: Sequence[Point], gap: Point) -> int:
    """The number of the span that covers the most of a gap."""
    return max(range(len(spans)), key=lambda k: min(gap[1], spans[k][1]) - max(gap[0], spans[k][0]))


def _stated_as(building: Building, gap: Point) -> StripBreak:
    """A gap as a break above the level below it, or above the lowest."""
    levels = sorted(building.levels.values(), key=lambda level: level.z)
    below = [level for level in levels if level.z <= gap[0]] or levels[:1]
    return StripBreak(level=below[-1].id, above=gap[0] - below[-1].z, tall=gap[1] - gap[0])
