"""Parts of a suspended slab at another height: what they take of it, and the concrete that joins the two."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass

import shapely
from shapely.geometry import MultiPolygon, Polygon

from ...building.diagnostics import Diagnostic
from ...geometry import largest, polygons_of
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
    for deck in decks:
        own = make_ups[deck.make_up]
        if own.carrying is None or not region.contains(deck.outline.centroid):
            continue
        x, y = deck.outline.representative_point().coords[0]
        thick = own.layers[own.carrying].thickness
        if not own.is_slab:
            message = f"{deck.name} has joists, and {floor.name} around it is a slab: take a make-up with a slab"
            found.append(Diagnostic("set-in-unlike", message, deck.id, "make_up", at=(x, y)))
            continue
        if deck.outline.intersection(taken).area > LEAST:
            message = f"{deck.name} lies over another part of {floor.name}, or its upstand: move them apart"
            found.append(Diagnostic("set-in-over", message, deck.id, "corners", at=(x, y)))
        soffit = levels[deck.level].z - deck.drop - own.depth
        beside = shapely.union_all([taken, holes, *([] if abs(soffit - under) < TOL.point else [borne])])
        within = shapely.intersection(deck.outline, region, grid_size=TOL.node)
        area = largest(MultiPolygon(list(polygons_of(shapely.difference(within, beside, grid_size=TOL.node)))))
        if area.area < LEAST:
            message = f"nothing is left of {deck.name} beside what bears {floor.name}: move it off the walls below"
            found.append(Diagnostic("set-in-over", message, deck.id, "corners", at=(x, y)))
            continue
        joined = _is_joined(soffit - under, top - levels[deck.level].z + deck.drop)
        lower = soffit < under
        edge = area.buffer(thick if lower else -thick, join_style="mitre")
        ring = region.intersection(edge).difference(area) if lower else area.difference(edge)
        ring = shapely.difference(ring, shapely.union_all([borne, holes, taken]), grid_size=TOL.node)
        upstand = MultiPolygon(list(polygons_of(ring)) if joined else [])
        layers = MultiPolygon(list(polygons_of(shapely.intersection(area, over, grid_size=TOL.node))))
        part = SlabPart(deck.id, area, upstand, min(soffit, under), max(soffit, under), lower, layers)
        taken = shapely.union_all([taken, part.under_slab])
        yield part


def _is_joined(rise: float, drop: float) -> bool:
    """Whether a part whose underside lies so much higher than that of the slab around it, and its top so much lower,
    needs an upstand: where both its faces lie on the same side of those of the slab."""
    return (rise < -TOL.point and drop > TOL.point) or (rise > TOL.point and drop < -TOL.point)
