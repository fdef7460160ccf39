"""A floor for the engineer: its edge, holes, walls, beams, posts, spans, thickness, levels and loads."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence

import shapely

from ...building.kind import PlanOf
from ...drawing import NAME, Lettered, Region, Stroke, Text, around, arrow_head, path, readable, text_width
from ...drawing.tables import ROW, TEXT
from ...geometry import Point
from ...model import Deck, Layer, MakeUp
from ...units import Units, format_length, format_measured
from ..makeups.model import Tradition
from ..makeups.profiles import PROFILES
from ..walls.planned import WALLS
from .bays import Bay
from .bearing_plan import beam_text, beams_carrying, beside_beam, outlines, posts_below, walls_below
from .lettering_plan import SMALL, beside_line, on_paper, spot
from .members import Members
from .place import FloorPlan
from .profiles import is_timber
from .schedule import numbered
from .slab_spans import slab_spans
from .span_checks import free_stretches
from .spans import loads_said, own_weight, size_of, timber_for
from .turned import Turned

OFF = 100.0
"""An edge is off its bearing for at least so much of its length (mm)."""


def structure_marks(shown: PlanOf, flat: FloorPlan, layer: Layer, members: Members | None) -> Iterator[Lettered]:
    """All that a structural plan of a floor shows but its words and strings."""
    yield from _walls(shown, flat)
    yield from _edge(shown, flat)
    yield from _beams(shown, flat)
    for bay in flat.bays:
        yield from _spans(shown, flat, bay, layer, members) if members else _slab_spans(shown, flat, bay, layer)


def _walls(shown: PlanOf, flat: FloorPlan) -> Iterator[Lettered]:
    """What bears below, dashed; the walls on the floor, thin."""
    yield from walls_below(shown.frame, flat, "wall_below", "wall below")
    for wall in shown.placed[WALLS].on(flat.floor.level):
        if wall.footprint.intersects(flat.area):
            yield from outlines(shown.frame, wall.footprint, "wall_above", f"{wall.wall.id}/wall//", "wall above")


def _part_name(deck: Deck, units: Units) -> str:
    """What is set into a floor, and how much lower or higher its top lies."""
    if not deck.drop:
        return deck.name
    return f"{deck.name}, {format_length(abs(deck.drop), units)} {'lower' if deck.drop > 0 else 'higher'}"


def _edge(shown: PlanOf, flat: FloorPlan) -> Iterator[Lettered]:
    """The edge of the deck, the holes in it, and what of the edge is off its bearing."""
    key = f"{flat.floor.id}/edge//"
    yield from outlines(shown.frame, flat.area, "slab_edge", key, "edge")
    names = {held.id: (held.label or held.about.noun).capitalize() for held in shown.project.elements()}
    names |= {deck.id: _part_name(deck, shown.project.units) for deck in shown.project.decks}
    for part in flat.parts:
        yield from outlines(shown.frame, part.upstand, "wall_below", f"{part.deck}/upstand//", "upstand")
    for bay in flat.bays:
        for id, hole in bay.holes:
            own = f"{id}/hole//"
            yield from outlines(shown.frame, hole, "void", own, "hole")
            corners = [shown.frame.plan_to_turned(*point) for point in list(hole.exterior.coords)[:-1]]
            if len(corners) == 4 and not any(deck.id == id for deck in shown.project.decks):
                for a, b in ((0, 2), (1, 3)):
                    yield Stroke(path(corners[a], corners[b]), "void", part=own, feature="hole")
            place = shown.frame.plan_to_turned(hole.centroid.x, hole.centroid.y)
            name = names.get(id, "Hole")
            beside = around(text_width(name, SMALL) * shown.scale, 2 * SMALL * shown.scale)
            yield on_paper(place, name, SMALL, 0.0, own, places=beside, about=shown.frame.turn(hole), rank=NAME)
    if flat.bearing.is_empty:
        return
    for edge in off_bearing(flat):
        points = [shown.frame.plan_to_turned(x, y) for x, y in edge]
        yield Stroke(path(*points), "section_mark", part=key, feature="off bearing")
        middle = ((points[0][0] + points[-1][0]) / 2, (points[0][1] + points[-1][1]) / 2)
        words = "off its bearing"
        beside = around(text_width(words, SMALL) * shown.scale, 2 * SMALL * shown.scale)
        yield on_paper(middle, words, SMALL, 0.0, key, places=beside, about=shapely.LineString(points))


def off_bearing(flat: FloorPlan) -> list[tuple[Point, ...]]:
    """The pieces of the edge of a floor under which nothing bears; rims of decks hang on their joists."""
    if isinstance(flat.floor, Deck):
        return []
    left = shapely.difference(flat.area.boundary, flat.bearing.buffer(OFF / 20))
    pieces = shapely.get_parts(shapely.line_merge(left))
    return [tuple(piece.coords) for piece in pieces if piece.length > OFF]


def _beams(shown: PlanOf, flat: FloorPlan) -> Iterator[Lettered]:
    """Beams with their sizes, dashed, and the posts below."""
    carrying = beams_carrying(shown, flat)
    yield from posts_below(shown, carrying, "wall_below")
    for beam, flush in carrying:
        yield from outlines(shown.frame, beam.outline, "beam", f"{beam.beam.id}/beam//", "beam")
        text = beam_text(shown, beam, flush)
        short = math.dist(beam.start, beam.end) < len(text) * SMALL * shown.scale
        yield from beside_beam(shown, beam, text.partition(",")[0] if short else text)


def _spans(shown: PlanOf, flat: FloorPlan, bay: Bay, layer: Layer, members: Members) -> Iterator[Lettered]:
    """Between each two bearings an arrow along the joists that reach farthest, with their size and clear span."""
    assert layer.framing is not None
    units, turned = shown.project.units, Turned(bay.direction)
    size = size_of(layer, units).name
    own = [
        (turned.box(piece.area), piece) for piece in numbered(members.of("joist"), units) if piece.member.lies_in(bay)
    ]
    holes = [turned.box(hole) for _, hole in bay.holes]
    done: list[tuple[float, float]] = []
    for box, piece in sorted(own, key=lambda held: (-round(held[1].length), held[0])):
        middle = (box.s0 + box.s1) / 2
        if any(low < middle < high for low, high in done):
            continue
        alike = [held for held, other in own if other.number == piece.number and held.s0 < middle < held.s1]
        alike = [held for held in alike if not any(held.meets(hole) for hole in holes)] or [box]
        chosen = sorted(alike)[len(alike) // 2]
        done.append((chosen.s0, chosen.s1))
        across = chosen.a1 + layer.framing.spacing / 2
        for low, high in free_stretches(turned, chosen, flat.bearing):
            ends = [spot(shown.frame, turned, across, at) for at in (low, high)]
            words = (f"{size} @ {format_length(layer.framing.spacing, units)}", format_measured(high - low, units))
            yield from _span(ends[0], ends[1], words, shown.scale, f"{flat.floor.id}/joist//")


def _slab_spans(shown: PlanOf, flat: FloorPlan, bay: Bay, layer: Layer) -> Iterator[Lettered]:
    """Arrows between the bearings of a slab, with its thickness and clear span."""
    units = shown.project.units
    for held in slab_spans(flat, bay):
        ends = [shown.frame.plan_to_turned(*point) for point in (held.start, held.end)]
        words = (f"{format_length(layer.thickness, units)} {layer.name}", format_measured(held.clear, units))
        yield from _span(ends[0], ends[1], words, shown.scale, f"{flat.floor.id}/slab//")


def _span(a: Point, b: Point, words: tuple[str, str], scale: float, key: str) -> Iterator[Lettered]:
    """The arrow of a span, with words at both of its sides."""
    yield from _arrow(a, b, scale, key)
    angle = readable(math.degrees(math.atan2(b[1] - a[1], b[0] - a[0])))
    turn, place = math.radians(angle), ((a[0] + b[0]) / 2, (a[1] + b[1]) / 2)
    for text, off in zip(words, (1.9, -1.9)):
        at = (place[0] - math.sin(turn) * off * scale, place[1] + math.cos(turn) * off * scale)
        places = beside_line(angle, math.dist(a, b), text, SMALL, scale)
        yield on_paper(at, text, SMALL, angle, key, places=places, about=shapely.LineString([a, b]))


def _arrow(a: Point, b: Point, scale: float, key: str) -> Iterator[Lettered]:
    """A line with a head at each end."""
    yield Stroke(path(a, b), "span", part=key, feature="span")
    for back, tip in ((b, a), (a, b)):
        yield Region((arrow_head(back, tip, scale),), fill="ink", pen="span", part=key, feature="span")


def structure_words(shown: PlanOf, flat: FloorPlan, layer: Layer, corner: Point) -> Iterator[Lettered]:
    """Levels with what they are the top of, layers with their thickness, timber and loads; from a corner on down."""
    make_up, scale = shown.placed.make_ups[flat.floor.make_up], shown.scale
    for k, (text, sum) in enumerate(_said(shown, flat, layer, make_up)):
        place = (corner[0], corner[1] - (k + 0.5) * ROW * scale)
        yield Text(*place, text, TEXT, "left", "middle", part=f"{flat.floor.id}/edge//", sum=sum, feature="words")


def _said(shown: PlanOf, flat: FloorPlan, layer: Layer, make_up: MakeUp) -> Sequence[tuple[str, str | None]]:
    units, project = shown.project.units, shown.project
    level, bearing = flat.top, flat.under
    carries = "joists bear" if is_timber(layer) else "beams bear" if layer.framing else "the slab bears"
    at = make_up.layers.index(layer)
    top = make_up.layers[0].name if at else layer.name
    upper = sum(held.thickness for held in make_up.layers[: at + 1])
    layers = ", ".join(f"{held.name} {format_length(held.thickness, units)}" for held in make_up.layers)
    said: list[tuple[str, str | None]] = [
        (f"{level.name}: top of {top} at {format_length(level.z, units)}", level.sum.id),
        (f"{bearing.name}: {carries} at {format_length(bearing.z, units)}", bearing.sum.id),
        (f"thickness {format_length(upper, units)} over the bearing; layers from above: {layers}", None),
    ]
    loads = loads_said(project.tradition, units, None if is_timber(layer) else own_weight(make_up.layers))
    said.append((f"{_sized(project.tradition, flat, layer)}; {loads}", None))
    edges = len(off_bearing(flat))
    if edges:
        said.append((f"{edges} pieces of the edge lie off their bearing", None))
    return said


def _sized(tradition: Tradition, flat: FloorPlan, layer: Layer) -> str:
    """The timber that spans are reckoned with, or what is left to be sized."""
    if layer.framing is None:
        return "slab and bars to be sized"
    made = PROFILES[layer.framing.profile]
    if made.by_maker or flat.floor.sized != "by tables":
        return f"{made.members if made.by_maker else 'joists'} to be sized"
    return timber_for(tradition).name
