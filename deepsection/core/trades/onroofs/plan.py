"""Chimneys, roof windows, pipes, vents, gutters and downpipes in floor plans and in the roof plan."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

import shapely
from shapely.geometry import Polygon

from ...building.kind import PlanOf
from ...building.placed import Placed
from ...catalog import material
from ...drawing import LESSER, Handle, Label, Lettered, Mark, Region, Stroke, Text, around, path, rings_of, text_width
from ...geometry import Frame, polygons_of
from ..roofs.eaves import gutter_runs
from ..roofs.placed import ROOFS, ResolvedRoof
from .placed import ROOF_FITTINGS, PlacedChimney, PlacedDownpipe, PlacedFitting

TEXT = 1.8
"""Height of lettering (paper mm)."""
BESIDE = 1.2
"""Gap from a downpipe to its lettering (paper mm)."""
INSET = 60.0
"""Width of the frame of a roof window (mm)."""


def chimney_marks(shown: PlanOf) -> Iterator[Lettered]:
    """In a floor plan: the stacks that its cut goes through."""
    for chimney in shown.placed[ROOF_FITTINGS].chimneys:
        if chimney.foot.total < shown.cut < chimney.top.total:
            yield from _stack(chimney, shown.frame, "poche", "cut")


def downpipe_marks(shown: PlanOf) -> Iterator[Lettered]:
    """In a floor plan: the downpipes that its cut goes through."""
    for pipe in shown.placed[ROOF_FITTINGS].downpipes:
        if pipe.foot < shown.cut < pipe.plane.plate:
            yield _square(pipe, shown.frame)


def fitting_marks(shown: PlanOf) -> Iterator[Lettered]:
    """In a floor plan: what lies in the roof over it, dashed."""
    roofs = {roof.block.id for roof in shown.placed[ROOFS] if roof.block.plate == shown.plate}
    for fitting in shown.placed[ROOF_FITTINGS].fittings:
        if fitting.plane.roof in roofs:
            yield from _outline(fitting, shown.frame, "hidden", fitting.outline)


def roof_plan_marks(placed: Placed, frame: Frame, scale: float) -> Iterator[Lettered]:
    """From above."""
    held, roofs = placed[ROOF_FITTINGS], placed[ROOFS]
    yield from _gutters(roofs, frame)
    for chimney in held.chimneys:
        yield from _cricket(chimney, frame)
        yield from _stack(chimney, frame, "paper", "outline")
    for fitting in held.fittings:
        yield from _fitting(fitting, frame)
    for pipe in held.downpipes:
        yield _square(pipe, frame, "ink")
        u, w = frame.plan_to_turned(*pipe.at(pipe.plane.reach + pipe.roof.block.gutter + BESIDE * scale))
        du, dw = frame.plan_to_turned(*(-part for part in pipe.plane.inward))
        across = abs(dw) > abs(du)
        align = "centre" if across else ("left" if du > 0 else "right")
        valign = "middle" if not across else ("bottom" if dw > 0 else "top")
        key = f"{pipe.pipe.id}/downpipe//"
        text = Text(u, w, "downpipe", TEXT, align, valign, 0, "sans", key)  # type: ignore[arg-type]
        beside = around(text_width("downpipe", TEXT, "sans") * scale, 2 * TEXT * scale)
        at = shapely.Point(frame.plan_to_turned(*pipe.at(pipe.plane.reach + pipe.roof.block.gutter)))
        yield Label(f"downpipe:{pipe.pipe.id}", (text,), beside, LESSER, at.buffer(BESIDE * scale))


def _stack(placed: PlacedChimney, frame: Frame, fill: str, pen: str) -> Iterator[Lettered]:
    key, handle = f"{placed.chimney.id}/chimney//", Handle("move_chimney", placed.chimney.id, "x", "free")
    body = frame.turn(placed.outline)
    yield Region(rings_of(body), fill=fill, pen=pen, part=key, feature="cut", sum=placed.top.id, handle=handle)
    inside = "paper" if fill == "poche" else "ink"
    yield Region(rings_of(frame.turn(placed.flue)), fill=inside, pen="edge", part=key, feature="flue", handle=handle)


def _cricket(placed: PlacedChimney, frame: Frame) -> Iterator[Lettered]:
    if placed.cricket is None:
        return
    key = f"{placed.chimney.id}/cricket//"
    for ring in rings_of(frame.turn(placed.cricket.outline)):
        yield Stroke(ring, "edge", closed=True, part=key, feature="valley")
    ends = (frame.plan_to_turned(*point) for point in (placed.cricket.start, placed.cricket.end))
    yield Stroke(path(*ends), "edge", part=key, feature="ridge")


def _fitting(placed: PlacedFitting, frame: Frame) -> Iterator[Lettered]:
    kind = placed.fitting.fitting
    if kind == "window":
        yield from _outline(placed, frame, "edge", placed.outline, "paper")
        yield from _outline(
            placed, frame, "fine", placed.outline.buffer(-INSET, join_style="mitre"), material("glass").tone
        )
        return
    yield from _outline(placed, frame, "edge", placed.outline, "paper")
    if kind == "vent":
        corners = [frame.plan_to_turned(x, y) for x, y in list(placed.outline.exterior.coords)[:4]]
        key, handle = _named(placed)
        for a, b in ((0, 2), (1, 3)):
            yield Stroke(path(corners[a], corners[b]), "fine", part=key, feature="symbol", handle=handle)


def _named(placed: PlacedFitting) -> tuple[str, Handle]:
    return f"{placed.fitting.id}/{placed.fitting.fitting}//", Handle("move_fitting", placed.fitting.id, "x", "free")


def _outline(
    placed: PlacedFitting, frame: Frame, pen: str, outline: Polygon, fill: str | None = None
) -> Iterator[Lettered]:
    key, handle = _named(placed)
    if placed.fitting.fitting == "pipe":
        half = placed.fitting.width / 2
        u, w = frame.plan_to_turned(placed.fitting.x, placed.fitting.y)
        ring = ((u - half, w, 1.0), (u + half, w, 1.0))
        yield Region((ring,), fill=fill, pen=pen, part=key, feature="outline", sum=placed.top.id, handle=handle)
        return
    rings = rings_of(frame.turn(outline))
    yield Region(rings, fill=fill, pen=pen, part=key, feature="outline", sum=placed.top.id, handle=handle)


def _gutters(roofs: Sequence[ResolvedRoof], frame: Frame) -> Iterator[Lettered]:
    """The outer edge of every gutter, where no roof lies over it."""
    for roof in roofs:
        over = shapely.union_all([held.polygon for other in roofs if other is not roof for held in other.planes])
        for slot, _, area in gutter_runs(roof):
            for polygon in polygons_of(frame.turn(area.difference(over))):
                for ring in rings_of(polygon):
                    key = f"{roof.block.id}/gutter//{slot}"
                    yield Stroke(ring, "fine", closed=True, part=key, feature="gutter")


def _square(placed: PlacedDownpipe, frame: Frame, fill: str = "paper") -> Mark:
    pipe, roof = placed.pipe, placed.roof
    centre = roof.faces[placed.edge] + pipe.size / 2 if fill == "paper" else placed.plane.reach + roof.block.gutter / 2
    (x, y), half = placed.at(centre), pipe.size / 2
    dx, dy = placed.plane.line.dx * half, placed.plane.line.dy * half
    corners = [(x + a * dx - b * dy, y + a * dy + b * dx) for a, b in ((-1, -1), (1, -1), (1, 1), (-1, 1))]
    rings = rings_of(frame.turn(Polygon(corners)))
    handle = Handle("move_downpipe", pipe.id, "distance", "free")
    return Region(rings, fill=fill, pen="edge", part=f"{pipe.id}/downpipe//", feature="outline", handle=handle)
