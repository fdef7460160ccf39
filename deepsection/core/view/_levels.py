"""Level marks beside an elevation or section, and the level lines that lead to them."""

from __future__ import annotations

from collections import Counter, defaultdict
from collections.abc import Callable, Iterable, Iterator, Sequence
from dataclasses import replace

from ..drawing import Mark, Stroke, Symbol, path
from ..geometry import Frame, line_through
from ..resolve import Building, ResolvedRoof
from ..units import HeightSum, Units, format_level
from .faces import Face

CLEAR = 8.2
"""Paper mm between the lettering of two level marks."""
PUSHED = 11.0
"""Heights are added while no lettering is moved farther than this from its own (paper mm)."""
LEVEL = 1.0
"""Places whose heights differ by less than this (mm) are equally high."""
SQUARE_ON = 0.9999
"""An eave is marked when it faces the viewer so squarely (cosine)."""
GAP, STUB = 2.0, 6.0
"""Paper mm between the house and a level line, and from there to its mark."""


def level_heights(
    building: Building,
    elements: Iterable[str],
    *,
    without: Iterable[str] = (),
    between: tuple[Frame, float, float] | None = None,
) -> list[HeightSum]:
    """Levels, and the ridges of the roofs among some elements; low ones first, equal heights once.

    `without` names surfaces that a view does not mark; the top of a sill plate is never marked. `between`: a frame and
    the ends of a view in it, past which no ridge is marked.
    """
    seen, left_out = set(elements), {"sill", *without}
    shown = (level for level in building.levels.values() if not level.hidden)
    heights = [level.sum for level in shown if level.surface not in left_out]
    roofs = (roof for roof in building.roofs if roof.block.id in seen)
    heights += [roof.ridge_top for roof in roofs if between is None or _tops_within(roof, *between)]
    found: dict[int, HeightSum] = {}
    for height in heights:
        found.setdefault(round(height.total * 10), height)
    return [found[key] for key in sorted(found)]


def _tops_within(roof: ResolvedRoof, frame: Frame, u0: float, u1: float) -> bool:
    """Whether the highest places of a roof reach into a view between two ends."""
    ends = [point for seam in roof.seams for point in (seam.start, seam.end)]
    top = max((z for _, _, z in ends), default=0.0)
    us = [x * frame.ux + y * frame.uy for x, y, z in ends if z > top - LEVEL]
    return not us or (min(us) < u1 and max(us) > u0)


def with_openings_and_eaves(
    heights: list[HeightSum], building: Building, faces: Iterable[Face], frame: Frame, scale: float
) -> list[HeightSum]:
    """Heights with those that an elevation adds: the usual head of the openings of each storey, then the eaves that
    look at the viewer, high ones first; those that push no lettering far from its height.
    """
    seen = {(face.part.element, face.part.role == "fascia") for face in faces}
    fascias = {id for id, is_fascia in seen if is_fascia}
    held = heights
    for height in (*_heads(building, {id for id, _ in seen}), *eaves_facing(building, fascias, frame)):
        more = sorted([*held, height], key=lambda one: one.total)
        if all(abs(one.total - height.total) > 1.0 for one in held) and _pushed(more, scale) <= PUSHED:
            held = more
    return held


def _pushed(heights: list[HeightSum], scale: float) -> float:
    """How far lettering is moved from its height at the most (paper mm)."""
    wanted = [height.total / scale for height in heights]
    return max((abs(at - want) for at, want in zip(spread(wanted, CLEAR), wanted)), default=0.0)


def _heads(building: Building, seen: set[str]) -> Iterator[HeightSum]:
    """Per storey, the height at which most of the openings seen in its outer walls end; the highest storey first."""
    held: dict[float, list[HeightSum]] = defaultdict(list)
    for wall in building.plan.walls:
        if wall.wall.status == "outer":
            base = building.levels[wall.wall.base.level].z
            held[base] += [at.head for at in building.openings[wall.wall.id] if at.opening.id in seen]
    for base in sorted(held, reverse=True):
        alike = Counter(round(head.total) for head in held[base])
        usual = max(alike, key=lambda total: (alike[total], total), default=None)
        yield from [replace(h, label="head of openings") for h in held[base] if round(h.total) == usual][:1]


def eaves_facing(building: Building, seen: set[str], frame: Frame) -> Iterator[HeightSum]:
    """The eaves of roofs seen that look at the viewer, high ones first."""
    found = []
    for roof in (held for held in building.roofs if held.block.id in seen):
        for k, eave in roof.eaves:
            line = line_through(*roof.side(k))
            # Outward of an edge is to the right of it.
            if line.dy * frame.dx - line.dx * frame.dy < -SQUARE_ON:
                found.append(eave)
    yield from sorted(found, key=lambda eave: -eave.total)


def level_marks(
    heights: list[HeightSum],
    u0: float,
    u1: float,
    scale: float,
    units: Units,
    *,
    sides: Iterable[int] = (1,),
    at: Callable[[float], float] = float,
) -> list[Mark]:
    """Marks at the sides (+1 right, -1 left) of a view that spans u0 to u1, each at the end of its level line.

    Triangles stand `at` the true heights; lettering that would touch is moved apart, with a leader.
    """
    drawn = [at(height.total) for height in heights]
    shifts = [place - own for place, own in zip(spread(drawn, CLEAR * scale), drawn)]
    marks: list[Mark] = []
    for side in sides:
        edge = u1 if side > 0 else u0
        for height, z, shift in zip(heights, drawn, shifts):
            x = edge + side * (GAP + STUB) * scale
            key = f"level:{height.id}" if side > 0 else f"level:{height.id}:left"
            line = path((edge + side * GAP * scale, z), (x, z))
            marks.append(Stroke(line, "level", feature="level", sum=height.id, annotation=key))
            texts = (height.label[:1].upper() + height.label[1:], format_level(height.total, units))
            marks.append(
                Symbol("level", x, z, texts, values=(float(side), shift / scale), sum=height.id, annotation=key)
            )
    return marks


def spread(wanted: list[float], clear: float) -> list[float]:
    """Places at least `clear` apart, in order, as near as can be to the wanted ones (ascending).

    >>> spread([0.0, 1.0, 10.0], 4.0)
    [-1.5, 2.5, 10.0]
    """
    return spread_by(wanted, [clear] * len(wanted))


def spread_by(wanted: Sequence[float], clear: Sequence[float]) -> list[float]:
    """The same, each place so far from the one before it; the first of these says nothing.

    >>> spread_by([0.0, 1.0, 10.0], [0.0, 4.0, 2.0])
    [-1.5, 2.5, 10.0]
    """
    past = [sum(clear[1 : index + 1]) for index in range(len(wanted))]
    blocks: list[tuple[float, int]] = []
    for index, value in enumerate(wanted):
        mean, count = value - past[index], 1
        while blocks and blocks[-1][0] > mean:
            other, held = blocks.pop()
            mean, count = (mean * count + other * held) / (count + held), count + held
        blocks.append((mean, count))
    means = [mean for mean, count in blocks for _ in range(count)]
    return [mean + far for far, mean in zip(past, means)]
