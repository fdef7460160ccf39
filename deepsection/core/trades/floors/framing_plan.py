"""A floor's framing in plan: members to scale with their numbers, what bears them, and holes."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence

from shapely.geometry import Polygon

from ...building.kind import PlanOf
from ...building.parts import part_key
from ...drawing import NAME, Handle, Lettered, Region, Stroke, around, path, readable, rings_of, text_width
from ...geometry import Frame, Point
from ...model import Layer
from ...units import format_length, format_measured
from ..posts.placed import PlacedBeam
from .bearing_plan import beam_text, beams_carrying, beside_beam, posts_below, walls_below
from .holes import rectangles_of
from .lettering_plan import SMALL, Numbering, beside_line, groups_of, measured, on_paper, spot
from .members import Members, floor_members, hangers
from .place import FloorPlan
from .schedule import Numbered, numbered
from .span_checks import carrying_in
from .spans import size_of
from .turned import Box, Turned

HANGER = 1.6
"""Length of the stroke of a hanger (paper mm)."""
ROOMY = 20.0
"""A hole as wide as this (paper mm) has room for its figures."""
AROUND = ("rim_joist", "framed_edge", "ledger")
"""What closes a floor along its edges."""
PENS = {
    "joist": "fine",
    "blocking": "fine",
    "rim_joist": "crease",
    "framed_edge": "crease",
    "ledger": "edge",
    "trimmer_joist": "edge",
    "header_joist": "edge",
}


def members_of(shown: PlanOf, flat: FloorPlan) -> tuple[Layer, Members | None] | None:
    """The layer that carries a floor, with its members where it is framed; none where nothing carries."""
    layer = carrying_in(shown.placed, flat)
    if layer is None or layer.framing is None:
        return (layer, None) if layer else None
    return layer, floor_members(flat.bays, flat.rims, layer.framing, flat.floor.between)


def framing_marks(shown: PlanOf, flat: FloorPlan, layer: Layer, members: Members) -> Iterator[Lettered]:
    """All that the framing plan of a floor shows but its schedule."""
    pieces = numbered(members.all, shown.project.units)
    yield from walls_below(shown.frame, flat, "hidden", "bearing")
    yield from _members(shown.frame, flat, layer, pieces)
    yield from _beams(shown, flat)
    yield from _hangers(shown, flat, members)
    yield from _numbers(shown, flat, layer, pieces)
    yield from _beside_members(shown, flat, pieces)
    yield from _holes(shown, flat)


def _numbers(shown: PlanOf, flat: FloorPlan, layer: Layer, pieces: Sequence[Numbered]) -> Iterator[Lettered]:
    """How many joists of which number, group by group; the largest group of a number also says size and spacing."""
    assert layer.framing is not None
    units, spacing, said = shown.project.units, layer.framing.spacing, set[str]()
    size = size_of(layer, units).name
    for bay in flat.bays:
        own = [piece for piece in pieces if piece.member.lies_in(bay)]
        turned = Turned(bay.direction)
        rims = [piece for piece in pieces if piece.member.role in AROUND]
        holes, room = [turned.box(hole) for _, hole in bay.holes], SMALL * shown.scale
        taken = [*(turned.box(piece.area) for piece in (*own, *rims)), *holes]
        for hole in holes:
            lines = _measures_of(turned.box(bay.region), hole, shown.scale)
            taken += [Box(held.a0 - room, held.a1 + room, held.s0 - room, held.s1 + room) for held in lines]
        numbering = Numbering(shown.frame, bay.direction, shown.scale, taken)
        joists = [piece for piece in own if piece.member.role == "joist"]
        for group in groups_of(joists, bay.direction, spacing):
            number = group.number
            short = f"{len(group.boxes)} {number}" if len(group.boxes) > 1 else number
            told = len(group.boxes) == 1 or number in said
            texts = [*([] if told else [f"{short}  {size} @ {format_length(spacing, units)}"]), short]
            yield from numbering.number(group, texts, f"{flat.floor.id}/joist//")
            said.add(number)


def _members(frame: Frame, flat: FloorPlan, layer: Layer, pieces: Sequence[Numbered]) -> Iterator[Lettered]:
    for piece in pieces:
        role, (dx, dy) = piece.member.role, piece.member.direction
        key = part_key(flat.floor.id, role, layer.id, piece.member.slot)
        across = math.degrees(math.atan2(-dx, dy))
        handle = Handle("shift_joists", flat.floor.id, f"{across:.6f}", "across") if role == "joist" else None
        if role == "bridging":
            yield from _crossed(frame, piece, key)
            continue
        for ring in rings_of(frame.turn(piece.area)):
            yield Stroke(ring, PENS[role], closed=True, part=key, feature="member", handle=handle)


def _crossed(frame: Frame, piece: Numbered, key: str) -> Iterator[Lettered]:
    """A pair of bars as two crossing lines."""
    turned = Turned(piece.member.direction)
    a0, a1, s0, s1 = turned.box(piece.area)
    for ends in (((a0, s0), (a1, s1)), ((a0, s1), (a1, s0))):
        yield Stroke(path(*(spot(frame, turned, *end) for end in ends)), "edge", part=key, feature="member")


def _beams(shown: PlanOf, flat: FloorPlan) -> Iterator[Lettered]:
    """Beams with what they are made of, dashed where they lie under the joists; the posts under them."""
    carrying = beams_carrying(shown, flat)
    yield from posts_below(shown, carrying, "edge")
    said: set[tuple[str, Point]] = set()
    for beam, flush in carrying:
        pen, rings = "edge" if flush else "hidden", rings_of(shown.frame.turn(beam.outline))
        # All of it can be pointed at, not its edges alone.
        yield Region(rings, part=f"{beam.beam.id}/beam//", feature="beam", sum=beam.top.id)
        for ring in rings:
            yield Stroke(ring, pen, closed=True, part=f"{beam.beam.id}/beam//", feature="beam", sum=beam.top.id)
        text = beam_text(shown, beam, flush)
        run = _run(beam)
        if (text, run) not in said:
            # Pieces in one line are said once.
            said.add((text, run))
            yield from beside_beam(shown, beam, text)


def _run(beam: PlacedBeam) -> Point:
    """What beams in one line have in common: their direction, and how far the line is from the origin."""
    (x0, y0), (x1, y1) = beam.start, beam.end
    length = math.dist((x0, y0), (x1, y1)) or 1.0
    dx, dy = (x1 - x0) / length, (y1 - y0) / length
    sign = 1.0 if (dx, dy) > (-dx, -dy) else -1.0
    return round(math.atan2(dy * sign, dx * sign), 3), round((x0 * dy - y0 * dx) * sign, 0)


def _hangers(shown: PlanOf, flat: FloorPlan, members: Members) -> Iterator[Lettered]:
    """A stroke across each end that hangs."""
    frame, half = shown.frame, HANGER * shown.scale / 2
    for (x, y), (dx, dy) in hangers(members):
        u, w = frame.plan_to_turned(x, y)
        du, dw = frame.plan_to_turned(-dy, dx)
        key = f"{flat.floor.id}/hanger//"
        yield Stroke(
            path((u - du * half, w - dw * half), (u + du * half, w + dw * half)), "cut", part=key, feature="hanger"
        )


def _beside_members(shown: PlanOf, flat: FloorPlan, pieces: Sequence[Numbered]) -> Iterator[Lettered]:
    """The numbers of trimmers, headers and rims, beside them: plies of one are said together."""
    said: list[tuple[str, Point]] = []
    for piece in pieces:
        role = piece.member.role
        if role not in ("trimmer_joist", "header_joist", *AROUND):
            continue
        plies = 1 if role in AROUND else sum(1 for held in pieces if _same_beam(held, piece))
        line = Turned(piece.member.direction).middle(piece.area)
        u, w = shown.frame.plan_to_turned(*line.interpolate(0.5, normalized=True).coords[0])
        if any(
            number == piece.number and math.dist(place, (u, w)) < 3.0 * SMALL * shown.scale for number, place in said
        ):
            continue
        said.append((piece.number, (u, w)))
        (u0, w0), (u1, w1) = (shown.frame.plan_to_turned(*point) for point in line.coords)
        angle = readable(math.degrees(math.atan2(w1 - w0, u1 - u0)))
        text = f"{plies} {piece.number}" if plies > 1 else piece.number
        places = beside_line(angle, math.dist((u0, w0), (u1, w1)), text, SMALL, shown.scale)
        about = shown.frame.turn(line)
        yield on_paper((u, w), text, SMALL, angle, f"{flat.floor.id}/{role}//", places=places, about=about)


def _same_beam(a: Numbered, b: Numbered) -> bool:
    """Whether two pieces are plies of one trimmer or header."""
    return a.number == b.number and a.member.slot.rpartition(":")[0] == b.member.slot.rpartition(":")[0]


def _holes(shown: PlanOf, flat: FloorPlan) -> Iterator[Lettered]:
    """Holes with their names and sizes, and how far they lie from the nearest edges of their bay."""
    names = {held.id: (held.label or held.about.noun).capitalize() for held in shown.project.elements()}
    for bay in flat.bays:
        turned = Turned(bay.direction)
        edges = turned.box(bay.region)
        for id, hole in bay.holes:
            yield from _hole(shown, turned, edges, hole, id, names.get(id, "hole"))


def _is_small(box: Box, scale: float) -> bool:
    return min(box.a1 - box.a0, box.s1 - box.s0) < ROOMY * scale


def _measures_of(edges: Box, box: Box, scale: float) -> list[Box]:
    """The lines along which a hole is measured: from the nearest edges of its bay, and across it where it is large."""
    a0, a1, s0, s1 = box
    near_a = (edges.a0, a0) if a0 - edges.a0 <= edges.a1 - a1 else (a1, edges.a1)
    near_s = (edges.s0, s0) if s0 - edges.s0 <= edges.s1 - s1 else (s1, edges.s1)
    along, across = s0 + (s1 - s0) * 0.2, a0 + (a1 - a0) * 0.2
    lines = [Box(*near_a, along, along), Box(across, across, *near_s)]
    return lines if _is_small(box, scale) else [*lines, Box(a0, a1, along, along), Box(across, across, s0, s1)]


def _hole(shown: PlanOf, turned: Turned, edges: Box, hole: Polygon, id: str, name: str) -> Iterator[Lettered]:
    box = turned.box(hole)
    a0, a1, s0, s1 = box
    key, scale, units = f"{id}/hole//", shown.scale, shown.project.units

    def at(across: float, along: float) -> Point:
        return spot(shown.frame, turned, across, along)

    for ring in rings_of(shown.frame.turn(hole)):
        yield Stroke(ring, "edge", closed=True, part=key, feature="hole")
    for line in _measures_of(edges, box, scale):
        start, end = sorted((at(line.a0, line.s0), at(line.a1, line.s1)))
        yield from measured(start, end, format_measured(math.dist(start, end), units), scale, key)
    if _is_small(box, scale):
        # No room for figures inside: its sizes stand with its name.
        name = f"{name} {format_measured(a1 - a0, units)} x {format_measured(s1 - s0, units)}"
    middle = at((a0 + a1) / 2 + (a1 - a0) * 0.15, (s0 + s1) / 2 + (s1 - s0) * 0.1)
    if len(largest := rectangles_of(turned, hole)) > 1:
        middle = shown.frame.plan_to_turned(*largest[0].centroid.coords[0])
    beside = around(text_width(name, SMALL) * scale, 2 * SMALL * scale)
    yield on_paper(middle, name, SMALL, 0.0, key, places=beside, about=shown.frame.turn(hole), rank=NAME)
