"""What ridges, hips and valleys are built around: two slopes that meet in a line, in the plane across that."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

import shapely
from shapely.geometry import Polygon

from ...geometry import Point
from ...junctions import Junction, Run
from ...resolve import Building, ResolvedRoof, RoofPlane
from ...trades.ceilings.place import CEILINGS
from ...trades.ceilings.vaults import VAULTS
from ...trades.makeups.model import Tradition
from ...trades.roofs.rafters import RIDGE_BOARD, rafter_places
from ..lie import Lie, Trim
from .slopes import SlopeLayers, edge_of, lie_along, rise_of, roof_of, slope_layers

ASIDE = 60.0
"""The slopes beside a line are asked for so far from it (mm)."""
APART = 25.0
"""A slope that lies so far from a line in height (mm) does not meet there."""
TIES = 1219.2
"""Ties from rafter to rafter stand no farther apart (mm): 4 ft. IRC 2021 R802.4.6, from memory."""
ALIKE = 1e-4
"""Falls that differ by no more than this are one."""


@dataclass(frozen=True, slots=True)
class Side:
    """A slope beside a line: its structure lies `base` over the line there, and falls away by `fall` for each mm;
    `depth`: of its rafters, plumb."""

    base: float
    fall: float
    depth: float
    layers: SlopeLayers


@dataclass(frozen=True, slots=True)
class CrestSite:
    """Distances across the line, to the right of it and to its left (mm, below 0), and heights over it.

    `rise`: of the line for each mm in plan; `caps`: how far flashings of metal lie on each slope; `attic`: the height
    of the line over the plate, where it is level; `is_over_rooms`: whether there are some below; `share`: plan of its
    roof for each length of all its ridges (mm); `board`: thickness and depth of the member in the line; `rafter`:
    thickness of the rafters.
    """

    tradition: Tradition
    left: Side
    right: Side
    caps: float
    attic: float
    rise: float
    is_over_rooms: bool
    share: float
    board: tuple[float, float]
    rafter: float

    def side(self, u: float) -> Side:
        """The slope at a distance."""
        return self.right if u >= 0 else self.left

    def structure(self, u: float) -> float:
        """Height of the top of the structure."""
        side = self.side(u)
        return side.base - side.fall * abs(u)

    def deck(self, u: float) -> float:
        """Height of the top of the deck, or of the structure where there is none."""
        return self.structure(u) + self.side(u).layers.deck

    def underlay(self, u: float) -> float:
        """Height of the top of the underlay."""
        return self.structure(u) + self.side(u).layers.underlay

    def covering(self, u: float) -> float:
        """Height of the top of the covering."""
        return self.structure(u) + self.side(u).layers.covering

    @property
    def slope(self) -> float:
        """The longer of the two lengths along the slopes for each mm in plan."""
        return max(self.left.layers.slope, self.right.layers.slope)

    def spread(self, width: float) -> tuple[float, float]:
        """To the left and to the right (mm): what lies on a slope so far from the line, at right angles to it there."""
        left, right = (width * math.hypot(1.0, self.rise) / side.layers.slope for side in (self.left, self.right))
        return left, right

    @property
    def is_tiled(self) -> bool:
        """Whether what covers it are tiles on battens."""
        return self.right.layers.material == "tile"


def crest_site(building: Building, junction: Junction) -> CrestSite | None:
    """What a ridge, a hip or a valley is built around; None where its slopes are not the same all along."""
    roof = roof_of(building, junction.ends[0].element)
    if roof is None:
        return None
    found = [_sides(building, junction, run) for run in junction.runs]
    if any(sides is None for sides in found):
        return None
    left, right = found[0]  # type: ignore[misc]
    if any(_differ(one, other) for sides in found for one, other in zip(sides or (), (left, right))):
        return None
    own = [run for run in junction.runs if abs(run.start[2] - run.end[2]) < 1.0]
    framing = _framing(building, roof)
    has_board = framing > 0 and all(end.feature == "edge" for end in junction.ends)
    depth = max(left.depth, right.depth)
    ridges = sum(seam.length for seam in roof.of("ridge"))
    return CrestSite(
        tradition=building.placed.project.tradition,
        left=left,
        right=right,
        caps=roof.block.caps,
        attic=own[0].start[2] - roof.plate.total if own else 0.0,
        rise=abs(rise_of(junction.runs[0])),
        is_over_rooms=_is_over_rooms(building, junction),
        share=Polygon(roof.bearing[0], roof.bearing[1:]).area / ridges if ridges else 0.0,
        board=(RIDGE_BOARD, depth) if has_board else (0.0, 0.0),
        rafter=framing,
    )


def crest_lies(building: Building, junction: Junction) -> list[Lie]:
    """Along each run, up or down it; ended at other lines of its roof, and at the eaves on its two sides."""
    roof = roof_of(building, junction.ends[0].element)
    if roof is None:
        return []
    eaves = () if junction.kind == "valley" else tuple(_at_eaves(roof, junction))
    return [
        _with_ties(building, roof, junction, lie_along(run, trims=(*_at_ends(roof, run), *eaves)))
        for run in junction.runs
    ]


def _framing(building: Building, roof: ResolvedRoof) -> float:
    """Thickness of the rafters of a roof (mm); 0 where it has none."""
    layers = building.placed.make_ups[roof.block.make_up].layers
    return next((layer.framing.thickness for layer in layers if layer.framing), 0.0)


def _middle(run: Run) -> tuple[float, float, float]:
    return tuple((a + b) / 2 for a, b in zip(run.start, run.end))  # type: ignore[return-value]


def _sides(building: Building, junction: Junction, run: Run) -> tuple[Side, Side] | None:
    """The slopes at the left and at the right of a run."""
    roofs = [roof for id in junction.elements if (roof := roof_of(building, id)) is not None]
    (x, y, z), (ox, oy) = _middle(run), run.out
    found = []
    for way in (-1.0, 1.0):
        spot = shapely.Point(x + way * ox * ASIDE, y + way * oy * ASIDE)
        near = [
            (abs(min(held.top.z(x, y) - z, held.top.z(x, y) + held.covering - z, key=abs)), held, roof)
            for roof in roofs
            for held in roof.planes
            if held.polygon.covers(spot)
        ]
        off, plane, roof = min(near, default=(math.inf, None, None), key=lambda one: one[0])
        if plane is None or roof is None or off > APART:
            return None
        fall = -way * (plane.top.a * ox + plane.top.b * oy)
        layers = slope_layers(building, roof, plane.pitch)
        found.append(Side(plane.top.z(x, y) - z, fall, plane.plumb_depth, layers))
    return found[0], found[1]


def _differ(one: Side, other: Side) -> bool:
    return abs(one.fall - other.fall) > ALIKE or abs(one.base - other.base) > 1.0 or one.layers != other.layers


def _is_over_rooms(building: Building, junction: Junction) -> bool:
    """Whether a ceiling, or a room that is vaulted, lies below it."""
    spots = shapely.MultiPoint([_middle(run)[:2] for run in junction.runs]).buffer(2 * ASIDE)
    vaults = (held.area for some in building[VAULTS].values() for held in some)
    areas: Iterator[shapely.Geometry] = (bay.region for held in building[CEILINGS] for bay in held.bays)
    return any(area.intersects(spots) for area in (*areas, *vaults))


def _at_ends(roof: ResolvedRoof, run: Run) -> Iterator[Trim]:
    """Upright planes through the lines that meet a run at its ends: it ends there."""
    middle = _middle(run)[:2]
    ends = [run.start[:2], run.end[:2]]
    for seam in roof.seams:
        if seam.kind not in ("ridge", "hip", "valley"):
            continue
        held = seam.start[:2], seam.end[:2]
        if any(math.dist(one, other) < 1.0 for one in ends for other in held):
            yield from _kept(held, middle)


def _at_eaves(roof: ResolvedRoof, junction: Junction) -> Iterator[Trim]:
    """The eaves to which the slopes of a junction come down."""
    middle = _middle(junction.runs[0])[:2]
    for end in junction.ends:
        edge = edge_of(roof, end.sub) if end.element == roof.block.id else None
        if edge is None:
            continue
        (x0, y0), (x1, y1) = roof.side(edge)
        length, off = math.dist((x0, y0), (x1, y1)), max(roof.reaches[edge], 0.0)
        ox, oy = (y1 - y0) / length * off, -(x1 - x0) / length * off
        yield from _kept(((x0 + ox, y0 + oy), (x1 + ox, y1 + oy)), middle)


def _kept(line: tuple[Point, Point], spot: Point) -> Iterator[Trim]:
    """The side of an upright plane on which a place lies; nothing where it lies in it."""
    (x0, y0), (x1, y1) = line
    length = math.dist((x0, y0), (x1, y1))
    normal = (y0 - y1) / length, (x1 - x0) / length
    offset = normal[0] * x0 + normal[1] * y0
    off = normal[0] * spot[0] + normal[1] * spot[1] - offset
    if off > 1.0:
        yield Trim(normal, offset)
    elif off < -1.0:
        yield Trim((-normal[0], -normal[1]), -offset)


def _with_ties(building: Building, roof: ResolvedRoof, junction: Junction, lie: Lie) -> Lie:
    """A ridge with the near faces of those rafters that are tied to those across: none farther apart than may be."""
    layers = building.placed.make_ups[roof.block.make_up].layers
    framing = next((layer.framing for layer in layers if layer.framing), None)
    plane = _plane_on(roof, junction)
    if junction.kind != "ridge" or framing is None or plane is None:
        return lie
    (sx, sy), (dx, dy) = lie.start, lie.along
    at = []
    for near in rafter_places(roof, plane, framing.thickness, framing.spacing):
        ends = [plane.line.at(held) for held in (near, near + framing.thickness)]
        at.append(min((x - sx) * dx + (y - sy) * dy for x, y in ends))
    step = max(1, math.floor(TIES / framing.spacing + 1e-6))
    inside = sorted(held for held in at if 0.0 <= held <= lie.length - framing.thickness)
    return replace(lie, rafters=tuple(inside[step // 2 :: step]))


def _plane_on(roof: ResolvedRoof, junction: Junction) -> RoofPlane | None:
    ids: Sequence[str] = [end.sub for end in junction.ends if end.element == roof.block.id]
    return next((held for held in roof.planes if any(roof.edge_id(edge) in ids for edge in held.edges)), None)
