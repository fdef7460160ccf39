"""Note stacks: what the layers of a make-up are, in their order, on one leader with a dot in each of them."""

from __future__ import annotations

import itertools
from collections import defaultdict
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass

import numpy as np
import shapely
from shapely.geometry import LineString, Polygon

from ...drawing import Align, Mark, Region, Stroke, Text, path
from ...drawing.cropping import Window
from ...drawing.explode import circle
from ...drawing.tables import table_marks
from ...geometry import Point
from ...model import Layer, MakeUp
from ...resolve import Building, Part
from ...trades.makeups.wording import layer_words
from .._annotations import Annotations
from .._levels import spread
from .._makeups import make_ups_of
from .place import StripPlace

SIZE, ROW = 2.2, 3.7
"""Height of the letters of a note, and from row to row (paper mm)."""
CHANNEL, BETWEEN = 12.0, 3.0
"""From the strip to its notes, and from one stack to the next (paper mm)."""
DOT = 0.55
"""Radius of the dot in a layer (paper mm)."""
BESIDE, OVER = 3.5, 4.0
"""A leader through level layers stands so far from the edge of the strip, and goes so far past them (paper mm)."""
HEIGHTS = tuple(k / 12 for k in range(1, 12))
"""Where up a wall its leader may go through it, as shares of its height."""
MEMBERS = {"joist", "rafter", "slab"}
"""Roles of the members of floors, ceilings and roofs."""
MARGIN = 1.5
"""A leader keeps so far from breaks (paper mm)."""


@dataclass(frozen=True, slots=True)
class Stack:
    """Notes of one make-up: (key, words, part) of its head and of each layer; dots; the leader from dots to the edge.

    Places are those on the drawing, breaks taken.
    """

    make_up: MakeUp
    rows: tuple[tuple[str, str, str], ...]
    dots: tuple[Point, ...]
    leader: tuple[Point, ...]


def note_stacks(
    place: StripPlace, building: Building, cut: Iterable[tuple[Part, Polygon]], window: Window, scale: float
) -> list[Stack]:
    """A stack for each make-up that a strip cuts, where its layers are met best; high ones first."""
    units = building.placed.project.units
    found: dict[str, Stack] = {}
    for make_up, held, roles in _by_make_up(building, place.wall.wall.id, cut):
        lead = _across if make_up.use == "wall" else _down
        met = lead(place, make_up, held, window, scale)
        if met is None or make_up.id in found:
            continue
        rows = [(f"stack:{make_up.id}", make_up.name, f"{make_up.id}/note//")]
        for layer in make_up.layers:
            words = layer_words(layer, units)
            if layer.framing and make_up.use != "wall" and not (set(roles[layer.id]) & MEMBERS):
                words += ", behind the cut" if place.held.members else ", not at this cut"
            rows.append((f"stack:{make_up.id}:{layer.id}", words, f"{make_up.id}/note/{layer.id}/"))
        found[make_up.id] = Stack(make_up, tuple(rows), *met)
    return sorted(found.values(), key=lambda stack: -stack.leader[-1][1])


def _by_make_up(
    building: Building, first: str, cut: Iterable[tuple[Part, Polygon]]
) -> Iterator[tuple[MakeUp, dict[str, list[Polygon]], dict[str, list[str]]]]:
    """Per element that is built by a make-up, one of them first, then from the highest: what is cut of its layers, by
    their ids, and in which roles."""
    project, made = building.placed.project, building.placed.make_ups
    elements: dict[str, dict[str, list[Polygon]]] = defaultdict(lambda: defaultdict(list))
    roles: dict[str, dict[str, list[str]]] = defaultdict(lambda: defaultdict(list))
    for part, polygon in cut:
        layer = part.key.split("/")[2]
        elements[part.element][layer].append(polygon)
        roles[part.element][layer].append(part.role)
    tops = {id: max(one.bounds[3] for held in layers.values() for one in held) for id, layers in elements.items()}
    names = make_ups_of(project, elements)
    for id in sorted(names, key=lambda id: (id != first, -tops[id], id)):
        make_up = made[names[id]]
        if set(elements[id]) & {layer.id for layer in make_up.layers}:
            yield make_up, elements[id], roles[id]


Met = tuple[tuple[Point, ...], tuple[Point, ...]]
"""The dots in layers, and the leader from them to the edge of the strip."""


def _edge(place: StripPlace, window: Window) -> float:
    """u of the edge of a strip inside of the wall."""
    return window.left if place.out > 0 else window.right


def _across(
    place: StripPlace, make_up: MakeUp, held: dict[str, list[Polygon]], window: Window, scale: float
) -> Met | None:
    """Level through the upright layers of a wall, at the height at which most of them are met."""
    low = min(one.bounds[1] for layers in held.values() for one in layers)
    high = max(one.bounds[3] for layers in held.values() for one in layers)
    best: tuple[int, float, list[Point]] = (0, 0.0, [])
    for share in HEIGHTS:
        v = low + (high - low) * share
        if not all(window.shows_height(v + way * MARGIN * scale) for way in (-1.0, 1.0)):
            continue
        dots = list(_met(make_up.layers, held, LineString([(window.left, v), (window.right, v)])))
        if (len(dots), -abs(share - 0.7)) > best[:2]:
            best = len(dots), -abs(share - 0.7), dots
    if not best[2]:
        return None
    dots = [(window.across(u), window.at(v)) for u, v in best[2]]
    far = min(dots, key=lambda dot: -place.out * dot[0])
    return tuple(dots), (far, (window.across(_edge(place, window)), far[1]))


def _down(
    place: StripPlace, make_up: MakeUp, held: dict[str, list[Polygon]], window: Window, scale: float
) -> Met | None:
    """Upright through the layers of a roof, a floor or a ceiling, beside the edge of the strip."""
    edge = _edge(place, window)
    u = edge + place.out * BESIDE * scale
    line = LineString([(u, window.low), (u, window.high)])
    dots = list(_met(make_up.layers, held, line))
    if not dots:
        return None
    spans = [
        piece.bounds
        for layers in held.values()
        for one in layers
        for piece in [one.intersection(line)]
        if not piece.is_empty
    ]
    if make_up.use == "ceiling":
        turn, far = min(span[1] for span in spans) - OVER * scale, max(v for _, v in dots)
    else:
        turn, far = max(span[3] for span in spans) + OVER * scale, min(v for _, v in dots)
    turn, u, edge = window.at(turn), window.across(u), window.across(edge)
    return tuple((u, window.at(v)) for _, v in dots), ((u, window.at(far)), (u, turn), (edge, turn))


def _met(layers: Sequence[Layer], held: dict[str, list[Polygon]], line: LineString) -> Iterator[Point]:
    """In each layer that a line meets, the middle of the longest piece of it."""
    for layer in layers:
        if layer.id not in held:
            continue
        pieces = shapely.get_parts(shapely.intersection(np.array(held[layer.id], dtype=object), line))
        lengths = shapely.length(pieces)
        if len(pieces) and lengths.max() > 0:
            middle = pieces[int(lengths.argmax())].interpolate(0.5, normalized=True)
            yield middle.x, middle.y


def stack_marks(
    stacks: Sequence[Stack], place: StripPlace, edge: float, changes: Annotations, scale: float
) -> Iterator[Mark]:
    """The stacks beside a strip, from an edge on: heads and rows, leaders with their dots.

    `edge`: u from which on nothing else stands inside of the wall.
    """
    side = -place.out
    keyed = changes.keyed
    tall = [(1 if keyed else len(stack.rows)) * ROW * scale for stack in stacks]
    offsets = [0.0]
    for above, below in itertools.pairwise(tall):
        offsets.append(offsets[-1] - (above + below) / 2 - BETWEEN * scale)
    wanted = [stack.leader[-1][1] - offset for stack, offset in zip(stacks, offsets)]
    # High ones come first, so that what is wanted rises as it is read from the last.
    middles = [at + offset for at, offset in zip(reversed(spread(wanted[::-1], 0.0)), offsets)]
    align: Align = "left" if side > 0 else "right"
    u = edge + side * CHANNEL * scale
    for number, (stack, middle, height) in enumerate(zip(stacks, middles, tall), 1):
        yield from _led(stack, (u - side * 1.5 * scale, middle), height, edge, scale)
        rows = [(stack.rows[0][0], f"({number})", stack.rows[0][2])] if keyed else stack.rows
        for k, (key, words, part) in enumerate(rows):
            v = middle + height / 2 - (k + 0.5) * ROW * scale
            yield Text(
                u,
                v,
                words,
                SIZE,
                align,
                "middle",
                face="sans" if k else "bold",
                part=part,
                feature="note",
                annotation=key,
            )


def _led(stack: Stack, to: Point, height: float, edge: float, scale: float) -> Iterator[Mark]:
    """The leader of a stack from its dots to a bar beside its rows."""
    key = stack.rows[0][0]
    u, middle = to
    *_, last = stack.leader
    route = (*stack.leader, (edge, last[1]), (u, middle))
    yield Stroke(path(*route), "note", feature="leader", annotation=key)
    yield Stroke(path((u, middle - height / 2), (u, middle + height / 2)), "note", feature="leader", annotation=key)
    for dot in stack.dots:
        yield Region((circle(*dot, DOT * scale),), fill="poche", feature="leader", annotation=key)


def stack_legend(stacks: Sequence[Stack], corner: Point, scale: float) -> Iterator[Mark]:
    """What the numbers of stacks stand for, where they are keyed: layers in their order."""
    rows = [
        (f"({number})" if k == 0 else "", words)
        for number, stack in enumerate(stacks, 1)
        for k, (_, words, _) in enumerate(stack.rows)
    ]
    if rows:
        yield from table_marks(corner, ("No.", "make-up and its layers"), rows, (), scale)
