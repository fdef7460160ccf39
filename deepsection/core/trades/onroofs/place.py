"""What goes through roofs and hangs on them, in place: chimneys, windows, pipes, vents, downpipes, with heights."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator
from dataclasses import dataclass, replace
from functools import lru_cache

import shapely
from shapely.geometry import Polygon

from ...building.diagnostics import Diagnostic
from ...geometry import Point
from ...geometry.outlines import disc, turned_rectangle
from ...model import SLOPING, Chimney, Project, RoofFitting
from ...units import FOOT, INCH, HeightSum, SumTerm, Units, format_length, format_pitch
from ..ground.place import Ground
from ..levels.placed import Level
from ..roofs.placed import ResolvedRoof, RoofPlane
from ..roofs.slopes import local, place, world
from .model import ON_ROOFS
from .placed import Cricket, OnRoofs, PlacedChimney, PlacedDownpipe, PlacedFitting

CAP = 75.0
"""Thickness of the slab that caps a chimney (mm). Common practice, no source."""
LEAST_PIPE = 6 * INCH
"""A vent pipe ends at least this far above the roof (mm): IRC P3103.1.1, from memory."""
WIDE = 30 * INCH
"""A chimney wider than this along the ridge has a cricket behind it: IRC R1003.20, from memory."""
FREE = 2400.0
"""Height of a chimney with no roof anywhere near (mm)."""


@dataclass(frozen=True, slots=True)
class StackRule:
    """A chimney ends `above` the highest covering `within` a distance in plan (mm); 0: where it passes."""

    within: float
    above: float
    source: str


STACK_RULES = {
    "timber": (StackRule(0.0, 3 * FOOT, "IRC R1003.9"), StackRule(10 * FOOT, 2 * FOOT, "IRC R1003.9")),
    "masonry": (
        StackRule(0.0, 1000.0, "Approved Document J, diagram 17"),
        StackRule(600.0, 600.0, "Approved Document J, diagram 17"),
        StackRule(2300.0, 0.0, "Approved Document J, diagram 17"),
    ),
}
"""From memory. Of the second document: 1 m where it passes, and as high as the covering 2.3 m away; near a ridge,
600 over it. Taking 600 over any covering within 600 asks more than it on roofs steeper than 33 degrees."""


def place_on_roofs(
    project: Project, roofs: tuple[ResolvedRoof, ...], levels: dict[str, Level], ground: Ground, found: list[Diagnostic]
) -> OnRoofs:
    """What can be built; what cannot, or not well, is added to what is found wrong."""
    chimneys = tuple(_chimneys(project, roofs, levels, found))
    fittings = tuple(_fittings(project, roofs, found))
    found += _in_each_other(chimneys, fittings)
    return OnRoofs(chimneys, fittings, tuple(_downpipes(project, roofs, ground, found)))


def slope_over(roofs: Iterable[ResolvedRoof], point: Point) -> tuple[ResolvedRoof, RoofPlane] | None:
    """The highest slope over a place."""
    spot = shapely.Point(point)
    over = [(roof, plane) for roof in roofs for plane in roof.planes if plane.polygon.intersects(spot)]
    return max(over, key=lambda held: held[1].covered(*point), default=None)


# --- chimneys -----------------------------------------------------------------------------------


def _chimneys(
    project: Project, roofs: tuple[ResolvedRoof, ...], levels: dict[str, Level], found: list[Diagnostic]
) -> Iterator[PlacedChimney]:
    for chimney in project.chimneys:
        sizes = ((chimney.width, chimney.depth), (chimney.flue, chimney.flue))
        outline, flue = (turned_rectangle(chimney.x, chimney.y, *size, chimney.turn) for size in sizes)
        level = levels[chimney.base.level].sum
        above = (SumTerm("offset", chimney.base.offset, chimney.id, "base_offset"),) if chimney.base.offset else ()
        foot = level.plus(f"foot:{chimney.id}", "foot of the chimney", *above)
        rules = STACK_RULES[project.tradition]
        needed = max((_rule_top(chimney, outline, rule, roofs, project.units) for rule in rules), key=_total)
        top = needed
        at = (chimney.x, chimney.y)
        if needed is None:
            top = foot.plus(f"top:{chimney.id}", "top of the chimney", SumTerm("as it stands free", FREE, chimney.id))
            message = "no roof is near this chimney, so nothing tells its height: move it to the roof"
            found.append(Diagnostic("chimney-alone", message, chimney.id, "x", at=at))
        elif chimney.above is not None:
            own = StackRule(0.0, chimney.above, "")
            top = _rule_top(chimney, outline, own, roofs, project.units) or needed
            if top.total < needed.total - 0.5:
                missing = format_length(needed.total - top.total, project.units)
                message = f"this chimney ends {missing} lower than {rules[0].source} asks; make it higher"
                limit = chimney.above + needed.total - top.total
                found.append(Diagnostic("chimney-low", message, chimney.id, "above", chimney.above, limit, at=at))
        assert top is not None
        if top.total <= foot.total + CAP:
            message = "the top of this chimney is not above its foot: let it stand on a lower level"
            rise = top.total - foot.total
            found.append(Diagnostic("chimney-too-low", message, chimney.id, "base", rise, CAP, at=at))
            continue
        over = slope_over(roofs, at)
        if over is None:
            yield PlacedChimney(chimney, outline, flue, foot, top)
            continue
        roof, plane = over
        cricket = _cricket(chimney, outline, plane)
        yield PlacedChimney(chimney, outline, flue, foot, top, plane, roof.block.make_up, cricket)


def _total(height: HeightSum | None) -> float:
    return -math.inf if height is None else height.total


@lru_cache(maxsize=500)
def _rule_top(
    chimney: Chimney, outline: Polygon, rule: StackRule, roofs: tuple[ResolvedRoof, ...], units: Units
) -> HeightSum | None:
    """The height that a rule asks, with its terms; None when no roof is that near."""
    near = outline.buffer(rule.within, quad_segs=64) if rule.within else outline
    places = [
        (plane.covered(x, y), roof, plane, (x, y))
        for roof in roofs
        for plane in roof.planes
        if plane.polygon.intersects(near)
        for x, y in shapely.get_coordinates(plane.polygon.intersection(near)).tolist()
    ]
    if not places:
        return None
    _, roof, plane, point = max(places, key=lambda held: held[0])
    where = f"above all within {format_length(rule.within, units)}" if rule.within else "above where it passes"
    words = f"{where}, {rule.source}" if rule.source else where
    height = SumTerm(words, rule.above, chimney.id, "above")
    covering = covering_terms(roof, plane, point, units)
    found = roof.heel.plus(f"top:{chimney.id}", "top of the chimney", *covering, height)
    return replace(found, slope=up_to(plane, point))


def covering_terms(roof: ResolvedRoof, plane: RoofPlane, point: Point, units: Units) -> Iterator[SumTerm]:
    """From the heel of a roof up to its covering over a place."""
    turned = plane.heel - roof.heel.total
    if abs(turned) > 1e-6:
        yield SumTerm("up to this slope", turned, roof.block.id)
    run = plane.line.left_of(point)
    words = f"{format_pitch(plane.pitch, units)} over {format_length(run, units)}"
    yield SumTerm(words, plane.pitch * run, roof.block.id, "pitch")
    yield SumTerm("covering, measured plumb", plane.covering, roof.block.make_up)


def up_to(plane: RoofPlane, point: Point) -> tuple[tuple[float, float, float], tuple[float, float, float]]:
    """From the bearing line of a slope up to the place on it, at the top of the structure."""
    foot = plane.line.at(plane.line.along(point))
    return (*foot, plane.heel), (*point, plane.top.z(*point))


@lru_cache(maxsize=500)
def _cricket(chimney: Chimney, outline: Polygon, plane: RoofPlane) -> Cricket | None:
    """As high as half its width rises at the pitch of the slope, so that its valleys run at 45 degrees."""
    own = local(plane, outline)
    first, _, last, back = own.bounds
    width = last - first
    crosses = not plane.polygon.buffer(1.0).contains(outline)
    if chimney.cricket == "no" or crosses or (chimney.cricket == "rule" and width <= WIDE):
        return None
    middle = (first + last) / 2
    triangle = Polygon([(first, back), (last, back), (middle, back + width / 2)])
    area = triangle.intersection(local(plane, plane.polygon))
    if area.is_empty or area.geom_type != "Polygon":
        return None
    foot = plane.covered(*place(plane, middle, back))
    ends = place(plane, middle, back), place(plane, middle, min(back + width / 2, area.bounds[3]))
    base = place(plane, first, back), place(plane, last, back)
    return Cricket(world(plane, area), *ends, foot, foot + plane.pitch * width / 2, base)


# --- windows, pipes, vents ----------------------------------------------------------------------


def _fittings(project: Project, roofs: tuple[ResolvedRoof, ...], found: list[Diagnostic]) -> Iterator[PlacedFitting]:
    for fitting in project.fittings:
        at = (fitting.x, fitting.y)
        over = slope_over(roofs, at)
        if over is None:
            message = "there is no roof under this; move it onto a slope"
            found.append(Diagnostic("fitting-off-roof", message, fitting.id, "x", at=at))
            continue
        roof, plane = over
        along, inward = plane.line.along(at), plane.line.left_of(at)
        outline = _fitting_outline(fitting, plane, along, inward)
        if not plane.polygon.buffer(0.5).contains(outline):
            message = "this does not lie on one slope alone: move it clear of eaves, ridge, hips and valleys"
            found.append(Diagnostic("fitting-off-slope", message, fitting.id, "x", at=at))
            continue
        if fitting.fitting == "pipe" and fitting.height < LEAST_PIPE - 0.5:
            least = format_length(LEAST_PIPE, project.units)
            message = f"this pipe ends less than {least} above the roof (IRC P3103.1.1); make it higher"
            found.append(Diagnostic("pipe-low", message, fitting.id, "height", fitting.height, LEAST_PIPE, at=at))
        # A pipe is measured at its upper side, where the covering is highest.
        upper = place(plane, along, inward + (fitting.width / 2 if fitting.fitting == "pipe" else 0.0))
        height = SumTerm("above the covering", fitting.height, fitting.id, "height")
        terms = covering_terms(roof, plane, upper, project.units)
        name = f"top of the {ON_ROOFS[fitting.fitting]}"
        top = replace(roof.heel.plus(f"top:{fitting.id}", name, *terms, height), slope=up_to(plane, upper))
        yield PlacedFitting(fitting, plane, outline, along, inward, top)


def _fitting_outline(fitting: RoofFitting, plane: RoofPlane, along: float, inward: float) -> Polygon:
    if fitting.fitting == "pipe":
        return disc(fitting.x, fitting.y, fitting.width)
    half, up = fitting.width / 2, fitting.length / math.hypot(1.0, plane.pitch) / 2
    corners = [(-half, -up), (half, -up), (half, up), (-half, up)]
    return Polygon([place(plane, along + a, inward + i) for a, i in corners])


def _in_each_other(chimneys: tuple[PlacedChimney, ...], fittings: tuple[PlacedFitting, ...]) -> Iterator[Diagnostic]:
    """Things that stand in each other."""
    held = [(placed.chimney.id, placed.outline) for placed in chimneys]
    held += [(placed.fitting.id, placed.outline) for placed in fittings]
    for k, (id, outline) in enumerate(held):
        for other, taken in held[:k]:
            if outline.intersects(taken):
                message = "two things on the roof stand in one another: move one of them"
                spot = outline.intersection(taken).representative_point()
                yield Diagnostic("on-roof-overlap", message, id, "x", at=(spot.x, spot.y), others=(other,))


# --- downpipes ----------------------------------------------------------------------------------


def _downpipes(
    project: Project, roofs: tuple[ResolvedRoof, ...], ground: Ground, found: list[Diagnostic]
) -> Iterator[PlacedDownpipe]:
    by_id = {roof.block.id: roof for roof in roofs}
    for pipe in project.downpipes:
        roof = by_id.get(pipe.roof)
        edge = roof.block.edge_number(pipe.edge) if roof else None
        plane = next((held for held in roof.planes if edge in held.edges and not held.upper), None) if roof else None
        if roof is None or edge is None or plane is None or roof.block.edges[edge].kind not in SLOPING:
            spot = roof.side(edge or 0)[0] if roof else None
            message = "this downpipe hangs on no eave: remove it, or make its edge an eave again"
            found.append(Diagnostic("downpipe-without-eave", message, pipe.id, "edge", at=spot))
            continue
        along = plane.line.along(roof.side(edge)[0]) + pipe.distance
        outer = place(plane, along, 5.0 - plane.reach)
        if not roof.block.gutter or not roof.has_fascia(edge) or not plane.polygon.intersects(shapely.Point(outer)):
            message = "no gutter runs here: move the downpipe along the eave, or give the roof gutters and a fascia"
            found.append(Diagnostic("downpipe-without-gutter", message, pipe.id, "distance", at=outer))
            continue
        beside = place(plane, along, -roof.faces[edge] - pipe.size)
        below = [
            held.covered(*beside)
            for other in roofs
            for held in other.planes
            if other is not roof
            and held.polygon.intersects(shapely.Point(beside))
            and held.covered(*beside) < plane.plate
        ]
        yield PlacedDownpipe(pipe, roof, plane, edge, along, max([ground.z(*beside), *below]))
