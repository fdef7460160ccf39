"""Parts of a suspended slab at another height: what they take of it, and the concrete that joins the two."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass

import shapely
from shapely.geometry import MultiPolygon, Polygon

from ...building.diagnostics import Diagnostic
from ...geometry import polygons_of
from ...model import Deck, Floor, MakeUp
from ...tolerance import TOL
from ..levels.placed import Level

LEAST = 1e4
"""What is less (mm2) is no part of a slab, and no overlap that is pointed out."""


@dataclass(frozen=True, slots=True)
class SlabPart:
    """A part of a slab in plan, and the upright concrete between its underside and that of the slab around it.

    The `upstand` lies under the higher one of the two, from `low` up to `high` (mm); it is empty where one slab ends
    against the other. `lower`: whether the part is the lower one. `over`: where layers lie over it.
    """

    deck: str
    area: Polygon
    upstand: MultiPolygon
    low: float
    high: float
    lower: bool
    over: MultiPolygon

    @property
    def is_level(self) -> bool:
        """Whether its underside is level with that of the slab around it, so that the same bears both."""
        return self.high - self.low < TOL.point

    @property
    def under_slab(self) -> Polygon | MultiPolygon:
        """The part and its upstand: below that, the slab around it has nothing of its own."""
        return shapely.union_all([self.area, self.upstand])


def slab_parts(
    floor: Floor,
    decks: Iterable[Deck],
    region: Polygon,
    over: Polygon | MultiPolygon,
    borne: Polygon | MultiPolygon,
    holes: Polygon | MultiPolygon,
    levels: dict[str, Level],
    make_ups: dict[str, MakeUp],
    found: list[Diagnostic],
) -> Iterator[SlabPart]:
    """The parts of a slab within a region, in their order; of those that overlap the first counts.

    Layers lie `over` the slab. A part whose underside is not at the bearing lies beside what is `borne`, never in it.
    One with joists is none.
    """
    under, top, taken = levels[floor.bearing].z, levels[floor.level].z, Polygon()

    def fault(code: str, message: str, field: str) -> None:
        point = deck.outline.representative_point()
        found.append(Diagnostic(code, message, deck.id, field, at=(point.x, point.y)))

    for deck in decks:
        own = make_ups[deck.make_up]
        if own.carrying is None or not region.contains(deck.outline.centroid):
            continue
        if not own.is_slab:
            message = f"{deck.name} has joists, and {floor.name} around it is a slab: take a make-up with a slab"
            fault("set-in-unlike", message, "make_up")
            continue
        if deck.outline.intersection(taken).area > LEAST:
            message = f"{deck.name} lies over another part of {floor.name}, or its upstand: move them apart"
            fault("set-in-over", message, "corners")
        own_top = levels[deck.level].z - deck.drop
        rise = own_top - own.depth - under
        beside = [taken, holes, *([] if abs(rise) < TOL.point else [borne])]
        within = shapely.intersection(deck.outline, region, grid_size=TOL.node)
        pieces = sorted(_pieces(within.difference(shapely.union_all(beside))).geoms, key=lambda held: -held.area)
        if not pieces or pieces[0].area < LEAST:
            message = f"nothing is left of {deck.name} beside what bears {floor.name}: move it off the walls below"
            fault("set-in-over", message, "corners")
            continue
        if sum(piece.area for piece in pieces[1:]) > LEAST:
            message = f"what bears {floor.name} parts {deck.name}: draw a part on either side of it"
            fault("set-in-over", message, "corners")
        area, upstand = pieces[0], MultiPolygon()
        if _is_joined(rise, top - own_top):
            ring = _ring(area, region, own.layers[own.carrying].thickness, lower=rise < 0)
            upstand = _pieces(ring.difference(shapely.union_all([borne, holes, taken])))
        low, high = sorted((under, under + rise))
        part = SlabPart(deck.id, area, upstand, low, high, rise < 0, _pieces(area.intersection(over)))
        taken = shapely.union_all([taken, part.under_slab])
        yield part


def _ring(area: Polygon, region: Polygon, thickness: float, *, lower: bool) -> shapely.Geometry:
    """A ring as thick as a part: around one that is lower, within one that is higher."""
    if lower:
        return region.intersection(area.buffer(thickness, join_style="mitre")).difference(area)
    return area.difference(area.buffer(-thickness, join_style="mitre"))


def _pieces(shape: shapely.Geometry) -> MultiPolygon:
    return MultiPolygon(list(polygons_of(shapely.set_precision(shape, TOL.node))))


def _is_joined(rise: float, drop: float) -> bool:
    """Whether a part whose underside lies so much higher than that of the slab around it, and its top so much lower,
    needs an upstand: where both its faces lie on the same side of those of the slab."""
    return (rise < -TOL.point and drop > TOL.point) or (rise > TOL.point and drop < -TOL.point)
