"""Roofs in plan: their edges, which can be dragged, and the lines that slopes meet in."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import lru_cache

import shapely
from shapely.geometry import LineString, Polygon

from ...building.kind import PlanOf
from ...drawing import Handle, Mark, Stroke, path
from ...geometry import Frame
from .placed import ROOFS, ResolvedRoof, RoofSeam

VALLEY_CLEAR = 1.0
"""Lines that lie within this distance of a valley are the valley's (mm)."""
LINES = ("ridge", "hip", "valley", "break")


@dataclass(frozen=True, slots=True)
class RoofSide:
    """An edge of a roof in the turned plan, by its id and its number: the middle and length of its bearing line, the
    way out, and what it is."""

    roof: str
    edge: str
    number: int
    u: float
    w: float
    du: float
    dw: float
    length: float
    kind: str


@lru_cache(maxsize=64)
def roof_marks(roofs: tuple[ResolvedRoof, ...], frame: Frame, pen: str = "hidden") -> tuple[Mark, ...]:
    """Edges, ridges, hips and valleys; a line that two roofs share is drawn once."""
    marks: list[Mark] = []
    valleys = [
        LineString([seam.start[:2], seam.end[:2]]) for roof in roofs for seam in roof.of("valley") if seam.others
    ]
    drawn = shapely.union_all(valleys).buffer(VALLEY_CLEAR) if valleys else Polygon()
    for roof in roofs:
        hidden = hidden_under(roof, roofs)
        key = f"{roof.block.id}/roofing//"
        whole = shapely.union_all([plane.polygon for plane in roof.planes], grid_size=0.1)
        if whole.is_empty:
            continue
        outline = whole.boundary.difference(shapely.union_all([drawn, hidden]))
        for edge, line in _edges(roof, outline):
            handle = Handle("move_roof_edge", roof.block.id, roof.edge_id(edge), "across") if edge is not None else None
            sum = roof.eave_of(edge).id if edge is not None else roof.eave.id
            for piece in shapely.get_parts(shapely.line_merge(line)):
                points = frame.turn(piece).coords
                if piece.length > VALLEY_CLEAR:
                    marks.append(Stroke(path(*points), pen, part=key, feature="roof_edge", sum=sum, handle=handle))
        for seam in roof.seams:
            if seam.kind not in LINES:
                continue
            for line in shapely.get_parts(LineString([seam.start[:2], seam.end[:2]]).difference(hidden)):
                if line.length > VALLEY_CLEAR:
                    sum_of = roof.ridge_top.id if seam.kind == "ridge" else None
                    points = frame.turn(line).coords
                    handle = _ridge_handle(roof, seam)
                    marks.append(Stroke(path(*points), pen, part=key, feature=seam.kind, sum=sum_of, handle=handle))
    return tuple(marks)


def _ridge_handle(roof: ResolvedRoof, seam: RoofSeam) -> Handle | None:
    """A ridge between two eaves can be dragged across."""
    if seam.kind != "ridge" or len(seam.edges) != 2 or any(roof.block.edges[k].kind != "eave" for k in seam.edges):
        return None
    return Handle("move_ridge", roof.block.id, ":".join(roof.edge_id(k) for k in seam.edges), "across")


def hidden_under(roof: ResolvedRoof, roofs: Sequence[ResolvedRoof]) -> shapely.Geometry:
    """What of a roof lies under roofs that bear higher."""
    over = [other for other in roofs if other.plate.total > roof.plate.total + VALLEY_CLEAR]
    return shapely.union_all([plane.polygon for other in over for plane in other.planes])


def _edges(roof: ResolvedRoof, outline: shapely.Geometry) -> Iterator[tuple[int | None, shapely.Geometry]]:
    """What is left of the outline of a roof, edge by edge; None for what belongs to none."""
    rest = outline
    for k, reach in enumerate(roof.reaches):
        (x0, y0), (x1, y1) = roof.side(k)
        length = math.dist((x0, y0), (x1, y1)) or 1.0
        dx, dy = (x1 - x0) / length, (y1 - y0) / length
        far = 2 * max(0.0, *roof.reaches) + length
        start = (x0 + dy * reach - dx * far, y0 - dx * reach - dy * far)
        end = (x1 + dy * reach + dx * far, y1 - dx * reach + dy * far)
        near = LineString([start, end]).buffer(VALLEY_CLEAR, cap_style="flat")
        own = rest.intersection(near)
        if own.length > VALLEY_CLEAR * 4:
            yield k, own
            rest = rest.difference(near)
    if rest.length > VALLEY_CLEAR * 4:
        yield None, rest


def roof_sides(roofs: Sequence[ResolvedRoof], frame: Frame) -> tuple[RoofSide, ...]:
    """The edges of roofs, to change them on the plan."""
    found = []
    for roof in roofs:
        for k, edge in enumerate(roof.block.edges):
            (x0, y0), (x1, y1) = roof.side(k)
            length = math.dist((x0, y0), (x1, y1)) or 1.0
            middle = frame.plan_to_turned((x0 + x1) / 2, (y0 + y1) / 2)
            out = frame.plan_to_turned((y1 - y0) / length, -(x1 - x0) / length)
            found.append(RoofSide(roof.block.id, roof.edge_id(k), k + 1, *middle, *out, length, edge.kind))
    return tuple(found)


def roof_plan_of(shown: PlanOf) -> tuple[Mark, ...]:
    """The roofs over the storey, dashed."""
    over = tuple(roof for roof in shown.placed[ROOFS] if roof.block.plate == shown.plate)
    return roof_marks(over, shown.frame)
