"""How wide a strip of floor a beam carries, how far it spans, and how far it reaches under that."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np
import shapely
from shapely.geometry import LineString, Polygon

from ...building.diagnostics import Diagnostic
from ...building.placed import Placed
from ...geometry import Point
from ...model import Beam
from ...rows.outcome import OutcomeRow, OutcomeTable
from ...units import INCH, Units, format_length, format_measured
from ..decks.place import DECKS
from ..floors.lying import TOUCH, Lying, lying_joists
from ..floors.place import FLOORS, FloorPlan
from ..floors.span_checks import carrying_in
from ..floors.spans import JoistSize, joist_span, timber_for, usual_case
from ..levels.placed import LEVELS
from ..makeups.model import Tradition
from ..posts.placed import BEAMS, POSTS, PlacedBeam
from ..walls.planned import WALLS
from .placed import LOADS, Loads

REPEATED = 3
"""Members that share a load are stronger together from so many on. Source: NDS 4.3.9, from memory."""
LEAST = 50.0
"""What bears a joist over less of its length (mm) is the same bearing."""
TIMBER = "softwood"
"""The material of beams whose design values are known here."""


@dataclass(frozen=True, slots=True)
class BeamSpan:
    """A beam under joists: how wide a strip of floor it carries, its clear span, how far it reaches under that (mm);
    `others`: what else stands on it, which is not counted."""

    beam: Beam
    carried: float
    clear: float
    reach: float
    others: tuple[str, ...]
    engineered: bool
    middle: Point

    @property
    def is_enough(self) -> bool:
        """Whether it reaches, under the floor alone."""
        return self.clear <= self.reach + 1.0


def beam_spans(placed: Placed, loads: Loads) -> Iterator[BeamSpan]:
    """The timber beams that carry joists."""
    floors = [flat for flat in (*placed[FLOORS], *placed[DECKS]) if flat.bays]
    for beam in placed[BEAMS]:
        own = [flat for flat in floors if any(held.name == beam.beam.id for bay in flat.bays for held in bay.supports)]
        if not own or beam.beam.material != TIMBER:
            continue
        carried = sum(_carried(placed, flat, beam) for flat in own)
        if carried:
            ids = {flat.floor.id for flat in own}
            others = tuple(id for id, held in loads.carriers.items() if beam.beam.id in held and id not in ids)
            yield BeamSpan(
                beam.beam,
                carried,
                _clear(placed, beam),
                _reach(placed.project.tradition, beam.beam, carried),
                others,
                all(flat.floor.sized == "by an engineer" for flat in own),
                ((beam.start[0] + beam.end[0]) / 2, (beam.start[1] + beam.end[1]) / 2),
            )


def _carried(placed: Placed, flat: FloorPlan, beam: PlacedBeam) -> float:
    """How wide a strip of a floor lies on a beam: half of the longest span on each side of it (mm)."""
    layer = carrying_in(placed, flat)
    return _strip(lying_joists(flat, layer.framing), beam.outline) if layer and layer.framing else 0.0


@lru_cache(maxsize=512)
def _strip(joists: tuple[Lying, ...], outline: Polygon) -> float:
    near = outline.buffer(TOUCH)
    lines = np.array([joist.line for joist in joists])
    low = high = 0.0
    for k in np.flatnonzero(shapely.intersects(lines, near)).tolist() if len(lines) else ():
        before, after = _beside(joists[k], near)
        low, high = max(low, before), max(high, after)
    return low + high


def _beside(joist: Lying, near: Polygon) -> tuple[float, float]:
    """Half of the span of a joist before a beam and after it; beyond the last bearing, all of what stands out. Which is
    before follows from its direction, which joists of one bay share."""
    start = joist.line.coords[0]
    own = [math.dist(start, point) for point in shapely.get_coordinates(joist.line.intersection(near)).tolist()]
    middle = (min(own) + max(own)) / 2
    before = [to for _, to in joist.bearings if to < min(own) - LEAST]
    after = [start_ for start_, _ in joist.bearings if start_ > max(own) + LEAST]
    low = (middle - max(before)) / 2 if before else middle
    high = (min(after) - middle) / 2 if after else joist.length - middle
    return low, high


def _clear(placed: Placed, beam: PlacedBeam) -> float:
    """The longest stretch of a beam between posts and walls (mm)."""
    line = LineString([beam.start, beam.end])
    ends = {end.post for end in (beam.beam.start, beam.beam.end) if end.post}
    posts = [held.outline for held in placed[POSTS] if held.post.id in ends]
    bottom, levels = beam.top.total - beam.beam.depth, placed[LEVELS]
    # Walls that begin below it: others stand on it.
    walls = [
        wall.footprint
        for wall in placed[WALLS].walls
        if levels[wall.wall.base.level].z + wall.wall.base.offset < bottom - LEAST
        and wall.footprint.distance(line.boundary) < LEAST
    ]
    free = shapely.difference(line, shapely.union_all([*posts, *walls]))
    return max((part.length for part in shapely.get_parts(free)), default=0.0)


def _reach(tradition: Tradition, beam: Beam, carried: float) -> float:
    """How far a beam reaches under a strip of floor, by first principles (mm)."""
    case = usual_case(tradition, beam.width, beam.depth, carried)
    case = replace(case, C_r=timber_for(tradition).C_r if beam.plies >= REPEATED else 1.0)
    return joist_span(case).max_span * INCH


def beam_advice(placed: Placed) -> Iterator[Diagnostic]:
    """Beams that do not reach under the floor alone."""
    units = placed.project.units
    for held in beam_spans(placed, placed[LOADS]):
        if held.is_enough or held.engineered:
            continue
        reach, carried = format_measured(held.reach, units), format_measured(held.carried, units)
        message = (
            f"this beam spans {format_measured(held.clear, units)} and carries {carried} of floor; "
            f"{_of(held.beam, units)} reach {reach} under that alone: set a post under it, or take more plies or a "
            "deeper one"
        )
        yield Diagnostic("beam-span", message, held.beam.id, "depth", held.clear, held.reach, at=held.middle)


def beam_table(placed: Placed, beam: Beam) -> tuple[OutcomeTable, ...]:
    """What a beam carries and how far it reaches, as text."""
    held = next((own for own in beam_spans(placed, placed[LOADS]) if own.beam.id == beam.id), None)
    if held is None:
        return ()
    units = placed.project.units
    rows = [
        OutcomeRow("strip of floor", format_measured(held.carried, units)),
        OutcomeRow("clear span", format_measured(held.clear, units)),
    ]
    if held.others:
        rows.append(OutcomeRow("and more", "walls, posts or roofs: an engineer sizes it"))
    reach = f"{_of(beam, units)} reach {format_measured(held.reach, units)} under the floor alone"
    return (OutcomeTable("Carries", reach, tuple(rows)),)


def _of(beam: Beam, units: Units) -> str:
    size = JoistSize.of(beam.width / beam.plies, beam.depth, units)
    name = size.name if "x" in size.name else format_length(beam.depth, units)
    return f"{beam.plies} of {name}" if beam.plies > 1 else name
