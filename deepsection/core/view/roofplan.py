"""The roof plan: every slope from above with its pitch, area and heights, overhangs, and what no roof covers."""

from __future__ import annotations

import math
from collections.abc import Iterator

import shapely
from shapely.geometry import LineString, Polygon

from ..building.kind import PlanOf
from ..drawing import (
    HERE,
    LESSER,
    NUMBER,
    Dimension,
    Drawing,
    Label,
    Lettered,
    Mark,
    Region,
    Stroke,
    Text,
    along,
    inside,
    path,
    readable,
    rings_of,
    text_width,
)
from ..geometry import Frame, polygons_of
from ..model import RAKED, SLOPING
from ..resolve import Building, ResolvedRoof, RoofPlane
from ..trades.ground.plan import spot_marks, step_marks
from ..trades.lines.plan import grid_marks
from ..trades.onroofs.placed import ROOF_FITTINGS
from ..trades.onroofs.plan import roof_plan_marks
from ..trades.roofs.plan import hidden_under, roof_marks
from ..units import Units, format_area, format_length, format_level, format_pitch
from ._annotations import lettered
from .setting import Setting
from .strings.roofs import roof_strings

ARROW = 12.0
"""Length of the arrow down a slope, paper mm."""
OPEN = 1e5
"""A place smaller than this (mm2) that no roof covers is the thickness of something."""
SMALL = 1.8
"""Height of the lettering of lengths (paper mm)."""
TEXT = 2.2
"""Height of lettering (paper mm)."""
ROW = 3.4
"""From one line of lettering to the next (paper mm)."""
THIN = 50.0
"""Half of the width (mm) below which what is left between roofs is no place."""
SHORT = 4.0
"""The overhang of an edge shorter than so many of it is not dimensioned: its neighbours say the same."""
SHARES = (0.5, 0.35, 0.65, 0.2, 0.8, 0.1, 0.9)
"""Where across a slope, and up it, its lettering is tried."""
LEAST = 14.0
"""A slope narrower than this on paper (mm) has no lettering of its own."""


def draw_roof_plan(building: Building, name: str, look_deg: float, setting: Setting) -> Drawing:
    """The roofs from above, turned so that the look direction points up; the walls below are dashed."""
    project, frame, scale = building.placed.project, Frame.looking(look_deg), setting.scale
    held: list[Lettered] = []
    for roof in sorted(building.roofs, key=lambda held: held.plate.total):
        for plane in roof.planes:
            held += _slope(roof, plane, frame)
    held += _walls(building, frame)
    held += _open(building, frame, scale)
    held += roof_marks(building.roofs, frame, "outline")
    held += roof_plan_marks(building.placed, frame, scale)
    taken = shapely.union_all([chimney.outline for chimney in building[ROOF_FITTINGS].chimneys])
    taken = taken.union(shapely.union_all([fitting.outline for fitting in building[ROOF_FITTINGS].fittings]))
    cover = shapely.union_all([plane.polygon for roof in building.roofs for plane in roof.planes])
    strings = list(roof_strings(building, frame, setting))
    held += [mark for string in strings for mark in string.marks]
    for roof in building.roofs:
        hidden = hidden_under(roof, building.roofs)
        held += _overhangs(roof, hidden, frame, project.units)
        held += _lengths(roof, hidden, frame, setting)
        held += _ridges(roof, hidden, frame, setting)
        for plane in roof.planes:
            held += _fall(roof, plane, taken, cover, frame, setting)
    lowest = min(
        (wall.wall.base.level for wall in building.plan.walls), key=lambda id: building.levels[id].z, default=""
    )
    site = PlanOf(building.placed, lowest, None, 0.0, 0.0, frame, scale)
    held += [*grid_marks(site), *spot_marks(site), *step_marks(site)]
    marks, bounds, left_out, shifts = lettered([*held, *setting.notes], setting)
    message = "No roof yet. Choose Roof, then click inside of the walls that it covers."
    return Drawing(
        name=name,
        title=ROOF_PLAN,
        kind="plan",
        scale=scale,
        marks=marks,
        bounds=bounds,
        look=(frame.dx, frame.dy),
        messages=() if building.roofs else (message,),
        left_out=left_out,
        shifts=shifts,
        strings=tuple((string.name, string.shown) for string in strings),
    )


ROOF_PLAN = "Roof plan"


def _slope(roof: ResolvedRoof, plane: RoofPlane, frame: Frame) -> Iterator[Mark]:
    for polygon in polygons_of(frame.turn(plane.polygon)):
        key = f"{roof.block.id}/roofing//{roof.slot_of(plane)}"
        yield Region(rings_of(polygon), fill="paper", part=key, feature="slope", sum=roof.ridge_top.id)


def _walls(building: Building, frame: Frame) -> Iterator[Mark]:
    """The outside of the walls below, dashed."""
    outer = [wall.footprint for wall in building.plan.walls if wall.wall.status == "outer"]
    if not outer:
        return
    for polygon in polygons_of(
        shapely.union_all(outer).buffer(1.0, join_style="mitre").buffer(-1.0, join_style="mitre")
    ):
        for ring in rings_of(frame.turn(Polygon(polygon.exterior))):
            yield Stroke(ring, "hidden", closed=True, feature="below")


def _open(building: Building, frame: Frame, scale: float) -> Iterator[Lettered]:
    """What lies within outer walls that go up to a roof, and under none."""
    for left in open_places(building):
        for polygon in polygons_of(frame.turn(left), min_area=OPEN):
            for ring in rings_of(polygon):
                yield Stroke(ring, "section", closed=True, feature="open")
            spot = polygon.representative_point()
            text = Text(spot.x, spot.y, "no roof here", TEXT, "centre", "middle", 0, "bold", pen="section")
            beside = inside(polygon, (spot.x, spot.y))
            yield Label(f"open:{round(spot.x)}:{round(spot.y)}", (text,), beside, NUMBER, polygon, backed=True)


def open_places(building: Building) -> list[shapely.Geometry]:
    """Per outline whose walls go up to a roof, what no roof and no floor above covers; empty without any roof."""
    if not building.roofs:
        return []
    cover = shapely.union_all([plane.polygon.buffer(2.0) for roof in building.roofs for plane in roof.planes])
    roofed = {wall.wall.base.level for wall in building.plan.walls if wall.wall.top.kind == "roof"}
    found = []
    for outline in building.plan.outlines:
        z = building.levels[outline.level].z
        above = [held.polygon for held in building.plan.outlines if building.levels[held.level].z > z]
        left = outline.polygon.difference(shapely.union_all([cover, *above])).buffer(-THIN).buffer(THIN)
        if outline.level in roofed and left.area > OPEN:
            found.append(left)
    return found


def _fall(
    roof: ResolvedRoof,
    plane: RoofPlane,
    taken: shapely.Geometry,
    cover: shapely.Geometry,
    frame: Frame,
    setting: Setting,
) -> Iterator[Lettered]:
    """The arrow down a slope with its pitch, and its true area; clear of what is taken, and of all other slopes that
    cover the house."""
    scale, units = setting.scale, setting.units
    for polygon in polygons_of(plane.polygon, min_area=(LEAST * scale) ** 2 / 2):
        inner = polygon.buffer(-LEAST / 2 * scale)
        inner = clear if not (clear := inner.difference(taken.buffer(ARROW / 2 * scale))).is_empty else inner
        spot = max(polygons_of(inner), key=lambda held: held.area, default=polygon).representative_point()
        if inner.is_empty:
            continue
        u, w = frame.plan_to_turned(spot.x, spot.y)
        du, dw = frame.plan_to_turned(-plane.inward[0], -plane.inward[1])
        half, key = ARROW / 2 * scale, f"{roof.block.id}/roofing//{roof.slot_of(plane)}"
        tip, tail = (u + du * half, w + dw * half), (u - du * half, w - dw * half)
        yield Stroke(path(tail, tip), "symbol", part=key, feature="fall")
        wing = 1.6 * scale
        sides = [(tip[0] - du * wing - s * dw * wing * 0.5, tip[1] - dw * wing + s * du * wing * 0.5) for s in (1, -1)]
        yield Region((path(tip, *sides),), fill="ink", part=key, feature="fall")
        angle = readable(math.degrees(math.atan2(dw, du)))
        up = (-math.sin(math.radians(angle)), math.cos(math.radians(angle)))
        pitch, area = format_pitch(plane.pitch, units), polygon.area * math.hypot(1.0, plane.pitch)
        said = []
        for text, off in ((pitch, ROW + 1.4), (format_area(area, units), 1.4)):
            place = (u + up[0] * off * scale, w + up[1] * off * scale)
            said.append(Text(*place, text, TEXT, "centre", "bottom", angle, "mono", key))
        under = -(ROW + TEXT + 2.8) * scale
        slope = frame.turn(polygon)
        places = (HERE, (up[0] * under, up[1] * under), *inside(slope, (u, w), SHARES))
        name = f"fall:{roof.block.id}:{roof.slot_of(plane)}:{round(polygon.centroid.x)}:{round(polygon.centroid.y)}"
        # On another slope it would be read as that one's.
        others = frame.turn(cover.difference(polygon.buffer(THIN)))
        yield Label(name, tuple(said), places, NUMBER, frame.turn(inner), never=others, beside=0.0)


def _overhangs(roof: ResolvedRoof, hidden: shapely.Geometry, frame: Frame, units: Units) -> Iterator[Mark]:
    """How far the slopes hang over, once per edge, from what that is measured from."""
    cover = shapely.union_all([plane.polygon for plane in roof.planes]).buffer(2.0).difference(hidden)
    for k, (edge, reach) in enumerate(zip(roof.block.edges, roof.reaches)):
        over = edge.overhang
        if edge.kind not in (*SLOPING, *RAKED) or over < 20.0:
            continue
        (x0, y0), (x1, y1) = roof.side(k)
        length = math.dist((x0, y0), (x1, y1)) or 1.0
        if length < SHORT * over:
            continue
        dx, dy = (x1 - x0) / length, (y1 - y0) / length
        x, y = x0 + dx * length * 0.25, y0 + dy * length * 0.25
        ends = [(x + dy * at, y - dx * at) for at in (reach - over, reach)]
        if not cover.contains(shapely.Point(x + dy * (reach - 5.0), y - dx * (reach - 5.0))):
            continue
        (u0, w0), (u1, w1) = (frame.plan_to_turned(*point) for point in ends)
        text = format_length(over, units)
        yield Dimension(u0, w0, u1, w1, 0.0, text, part=f"{roof.block.id}/roofing//", feature="overhang", raised=0.6)


def _lengths(roof: ResolvedRoof, hidden: shapely.Geometry, frame: Frame, setting: Setting) -> Iterator[Lettered]:
    """The true lengths of hips and valleys, at the top of the structure, beside them."""
    scale = setting.scale
    for seam in (*roof.of("hip"), *roof.of("valley")):
        text = f"{seam.kind} {setting.measure.length(seam.length)}"
        line = _longest(LineString([seam.start[:2], seam.end[:2]]).difference(hidden))
        if line is None or line.length < text_width(text, SMALL) * scale:
            continue
        place, angle = _above(frame, line, scale)
        key = f"{roof.block.id}/roofing//"
        words = Text(*place, text, SMALL, "centre", "bottom", angle, "mono", key, feature="length")
        yield _on_line(words, frame.turn(line), f"length:{roof.block.id}:{_named(line)}", LESSER, scale)


def _named(line: LineString) -> str:
    """A line by its middle."""
    return f"{round(line.centroid.x)}:{round(line.centroid.y)}"


def _on_line(text: Text, line: LineString, key: str, rank: int, scale: float) -> Label:
    """Lettering over a line of the drawing: along it, and under it; led to it from beside."""
    length = line.length
    a = math.radians(text.angle)
    spare = length - text_width(text.text, text.size, text.face) * scale
    places = along((math.cos(a), math.sin(a)), max(0.0, spare), 3.0 * scale, (0.0, -(text.size + 2.4) * scale))
    return Label(key, (text,), places, rank, line)


def _above(frame: Frame, line: LineString, scale: float) -> tuple[tuple[float, float], float]:
    """(place, angle) for lettering along a line, just above its middle."""
    (u0, w0), (u1, w1) = (frame.plan_to_turned(*point) for point in line.coords)
    angle = readable(math.degrees(math.atan2(w1 - w0, u1 - u0)))
    off = 1.2 * scale
    up = (-math.sin(math.radians(angle)) * off, math.cos(math.radians(angle)) * off)
    return ((u0 + u1) / 2 + up[0], (w0 + w1) / 2 + up[1]), angle


def _ridges(roof: ResolvedRoof, hidden: shapely.Geometry, frame: Frame, setting: Setting) -> Iterator[Lettered]:
    """The length of each level ridge, and the level of the covering over it; that alone where there is no room."""
    scale = setting.scale
    for seam in roof.of("ridge"):
        line = _longest(LineString([seam.start[:2], seam.end[:2]]).difference(hidden))
        if line is None:
            continue
        x, y = line.centroid.coords[0]
        over = max((p.covering for p in roof.planes if abs(p.top.z(x, y) - seam.start[2]) < 1.0), default=0.0)
        level = format_level(seam.start[2] + over, setting.units)
        texts = (f"ridge {setting.measure.length(seam.length)} at {level}", f"at {level}")
        text = next((held for held in texts if (text_width(held, TEXT) + 2.0) * scale <= line.length), None)
        if text is None:
            continue
        place, angle = _above(frame, line, scale)
        part = f"{roof.block.id}/roofing//"
        words = Text(*place, text, TEXT, "centre", "bottom", angle, "mono", part, roof.ridge_top.id)
        yield _on_line(words, frame.turn(line), f"ridge:{roof.block.id}:{_named(line)}", NUMBER, scale)


def _longest(shape: shapely.Geometry) -> LineString | None:
    """The longest straight piece of what is seen of a line."""
    pieces = [piece for piece in shapely.get_parts(shape) if isinstance(piece, LineString) and not piece.is_empty]
    return max(pieces, key=lambda piece: piece.length, default=None)
