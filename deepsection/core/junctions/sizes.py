"""How much of a junction a detail shows, and at which scale it stands on paper, where nothing else is said."""

from __future__ import annotations

from dataclasses import dataclass

from ..units import Units
from .kinds import KindName


@dataclass(frozen=True, slots=True)
class DetailSize:
    """Of the details of a kind of junction: what is shown around it (mm) and the scales in both units.

    Of those that are cut level, `below` is so far into the opening or past the corner, `above` along the wall.
    `past` what reaches outward at it (an overhang) and within (the thickness of its wall) `outward` and `inward` go on.
    """

    outward: float
    inward: float
    below: float
    above: float
    scales: tuple[float, float] = (10.0, 8.0)

    def scale(self, units: Units) -> float:
        """1 to 10 is 1 1/2 in to the foot, 1 to 5 is 3 in. Common practice, no source."""
        return self.scales[1 if units == "ft-in" else 0]


FINE = (5.0, 4.0)
DETAIL_SIZES: dict[KindName, DetailSize] = {
    "eave": DetailSize(250.0, 500.0, 400.0, 550.0),
    "rake": DetailSize(250.0, 450.0, 400.0, 400.0),
    "ridge": DetailSize(600.0, 600.0, 550.0, 250.0),
    "hip": DetailSize(600.0, 600.0, 550.0, 250.0),
    "valley": DetailSize(600.0, 600.0, 500.0, 300.0),
    "roof_break": DetailSize(600.0, 600.0, 550.0, 300.0),
    "roof_top": DetailSize(800.0, 400.0, 500.0, 500.0),
    "roof_side": DetailSize(500.0, 250.0, 350.0, 450.0),
    "chimney": DetailSize(500.0, 600.0, 450.0, 500.0),
    "jamb": DetailSize(200.0, 250.0, 250.0, 350.0, FINE),
    "wall_corner": DetailSize(200.0, 450.0, 200.0, 700.0, FINE),
    "wall_on_wall": DetailSize(400.0, 400.0, 450.0, 450.0, FINE),
    "head": DetailSize(200.0, 250.0, 200.0, 400.0, FINE),
    "sill": DetailSize(200.0, 250.0, 350.0, 200.0, FINE),
    "threshold": DetailSize(350.0, 350.0, 450.0, 200.0, FINE),
    "ceiling_edge": DetailSize(200.0, 500.0, 300.0, 350.0),
    "floor_edge": DetailSize(250.0, 500.0, 500.0, 350.0),
    "floor_on_wall": DetailSize(600.0, 600.0, 500.0, 400.0),
    "wall_foot": DetailSize(400.0, 450.0, 600.0, 350.0),
    "inner_foot": DetailSize(400.0, 400.0, 400.0, 300.0, FINE),
    "slab_step": DetailSize(600.0, 600.0, 500.0, 250.0),
    "slab_edge": DetailSize(400.0, 600.0, 600.0, 200.0),
    "porch_slab": DetailSize(700.0, 350.0, 550.0, 400.0),
    "deck_ledger": DetailSize(650.0, 350.0, 500.0, 450.0),
    "footing": DetailSize(500.0, 400.0, 200.0, 550.0),
}
"""Common practice, no source. Kinds that are not here are no lines: they have no details."""
