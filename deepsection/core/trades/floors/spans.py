"""Spans of joists from first principles: a simply supported member under a uniform load. Inches, pounds, psi.

Source: NDS, chapters 3 and 4 (allowable stress design); published tables are named where the data hold them.
"""

from __future__ import annotations

import json
import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cache, lru_cache
from importlib.resources import files
from typing import Any, Literal

from ...catalog import lumber
from ...model import Layer
from ...units import INCH, Units, format_length, parse_length
from ..makeups.model import Tradition
from ..makeups.profiles import PROFILES

DeflectionLoad = Literal["live", "total"]


@dataclass(frozen=True, slots=True)
class JoistCase:
    """A joist b wide and d deep at a spacing (in), its design values with their factors, its loads and its limit."""

    b: float
    d: float
    spacing: float
    Fb: float
    E: float
    C_F: float = 1.0
    C_r: float = 1.0
    C_D: float = 1.0
    live_psf: float = 40.0
    dead_psf: float = 10.0
    deflection: float = 360.0
    deflection_load: DeflectionLoad = "live"


@dataclass(frozen=True, slots=True)
class JoistSpan:
    """The longest clear spans (in) that bending and deflection allow, and which of them governs."""

    L_bending: float
    L_deflection: float

    @property
    def max_span(self) -> float:
        """The shorter of the two (in)."""
        return min(self.L_bending, self.L_deflection)

    @property
    def governs(self) -> Literal["bending", "deflection"]:
        """What sets it."""
        return "bending" if self.L_bending <= self.L_deflection else "deflection"


def joist_span(case: JoistCase) -> JoistSpan:
    """The longest spans of a joist.

    Bending: w L2 / 8 = Fb' S, with Fb' = Fb C_F C_r C_D and S = b d2 / 6. Deflection: 5 w L4 / (384 E I) = L / n.

    >>> span = joist_span(JoistCase(1.5, 9.25, 16, 875, 1.4e6, C_F=1.1, C_r=1.15))
    >>> round(span.max_span, 2), span.governs
    (184.65, 'bending')
    """
    section, inertia = case.b * case.d**2 / 6, case.b * case.d**3 / 12
    stress = case.Fb * case.C_F * case.C_r * case.C_D
    per_inch = case.spacing / 144
    load = (case.live_psf + case.dead_psf) * per_inch
    deflecting = (case.live_psf if case.deflection_load == "live" else case.live_psf + case.dead_psf) * per_inch
    bending = math.sqrt(8 * stress * section / load) if load else math.inf
    stiff = (384 * case.E * inertia / (5 * deflecting * case.deflection)) ** (1 / 3) if deflecting else math.inf
    return JoistSpan(bending, stiff)


@dataclass(frozen=True, slots=True)
class PublishedSpan:
    """A span that a table gives (in), the table, and the species that it is for."""

    table: str
    species: str
    span: float
    source: str


@cache
def _data() -> dict[str, Any]:
    data: dict[str, Any] = json.loads(
        (files("deepsection.core.catalog") / "data" / "joist_spans.json").read_text("utf-8")
    )
    return data


def published_spans(case: JoistCase) -> tuple[PublishedSpan, ...]:
    """What published tables say of joists of this size and spacing under these loads; none where they say nothing."""
    found = []
    for table in _data()["tables"]:
        same = (case.live_psf, case.dead_psf, case.deflection) == (
            table["live_psf"],
            table["dead_psf"],
            table["deflection"],
        )
        for row in table["rows"] if same and case.deflection_load == "live" else ():
            span = row["spans"].get(f"{case.spacing:g}")
            if span and math.isclose(row["b"], case.b) and math.isclose(row["d"], case.d):
                length = parse_length(span, "ft-in") / INCH
                found.append(PublishedSpan(table["name"], table["species"], length, table["source"]))
    return tuple(found)


@dataclass(frozen=True, slots=True)
class Timber:
    """What joists are taken to be where nothing is said of them: design values (psi), and where they are from."""

    name: str
    Fb: float
    E: float
    C_r: float
    C_F: dict[str, float]
    source: str

    def size_factor(self, depth: float) -> float:
        """For a depth (in): that of the next deeper size; 1 where none are named, 0.9 for what is deeper than all."""
        deeper = [factor for size, factor in self.C_F.items() if float(size) >= depth - 0.01]
        return max(deeper) if deeper else (0.9 if self.C_F else 1.0)


@cache
def timber_for(tradition: Tradition) -> Timber:
    """The timber of joists in a tradition."""
    row = next(row for row in _data()["timber"] if row["tradition"] == tradition)
    return Timber(row["name"], row["Fb_psi"], row["E_psi"], row["C_r"], row["C_F"], row["source"])


On = Literal["floor", "ceiling"]
"""What joists carry: living areas, or a ceiling under a loft that nobody lives in."""


def _loads(tradition: Tradition, on: On) -> dict[str, Any]:
    return next(row for row in _data()["loads"] if (row["tradition"], row["on"]) == (tradition, on))


def usual_case(tradition: Tradition, b: float, d: float, spacing: float, on: On = "floor") -> JoistCase:
    """A joist (mm) of a floor or ceiling with the timber and the loads of a tradition."""
    timber, loads = timber_for(tradition), _loads(tradition, on)
    depth = d / INCH
    return JoistCase(
        b / INCH,
        depth,
        spacing / INCH,
        timber.Fb,
        timber.E,
        C_F=timber.size_factor(depth),
        C_r=timber.C_r,
        live_psf=loads["live_psf"],
        dead_psf=loads["dead_psf"],
        deflection=loads["deflection"],
        deflection_load=loads["deflection_load"],
    )


@dataclass(frozen=True, slots=True)
class JoistSize:
    """A size of joists: what it is called, its thickness and depth (mm)."""

    name: str
    thickness: float
    depth: float

    @classmethod
    def of(cls, thickness: float, depth: float, units: Units) -> JoistSize:
        """Under its nominal name where it has one, else by its sizes."""
        known = _sizes()["timber" if units == "ft-in" else "masonry"]
        same = (h for h in known if abs(h.thickness - thickness) < 0.6 and abs(h.depth - depth) < 0.6)
        by_sizes = f"{format_length(thickness, units)} x {format_length(depth, units)}"
        return next(same, cls(by_sizes, thickness, depth))


def size_of(layer: Layer, units: Units) -> JoistSize:
    """The size of the joists of a layer."""
    assert layer.framing is not None
    made = PROFILES[layer.framing.profile]
    if made.by_maker:
        name = f"{format_length(layer.thickness, units)} {made.members}"
        return JoistSize(name, layer.framing.thickness, layer.thickness)
    return JoistSize.of(layer.framing.thickness, layer.thickness, units)


def loads_said(tradition: Tradition, units: Units, concrete: float | None = None) -> str:
    """The loads of a tradition and the limit of joists, in words; of concrete its own weight instead (kN/m2)."""
    loads = _loads(tradition, "floor")
    dead = loads["dead_psf"] if concrete is None else concrete / PSF
    if units == "ft-in":
        said = [f"{load:g} psf" if concrete is None else f"{load:.0f} psf" for load in (loads["live_psf"], dead)]
    else:
        said = [f"{load * PSF:.2f} kN/m2" for load in (loads["live_psf"], dead)]
    words = f"live load {said[0]}, dead {said[1]}"
    if concrete is not None:
        return f"{words} with its own weight"
    return f"{words}, deflection span / {loads['deflection']:g}"


def own_weight(layers: Sequence[Layer]) -> float:
    """What the layers of a floor weigh (kN/m2): of beams and blocks what there is of both; insulation not counted."""
    weights, total = _data()["weights"]["kN_m3"], 0.0
    for layer in layers:
        framing, weight = layer.framing, weights.get(layer.material, 0.0) / 1000.0
        if framing is None:
            total += layer.thickness * weight
            continue
        above = layer.thickness - framing.flange
        share = (framing.flange * framing.thickness + above * framing.web) / framing.spacing
        total += share * weight + above * (1.0 - framing.web / framing.spacing) * (
            weights.get(framing.infill or "", 0.0) / 1000.0
        )
    return total


PSF = 0.04788
"""kN/m2 in a pound per square foot."""


@cache
def _sizes() -> dict[str, tuple[JoistSize, ...]]:
    imperial = tuple(JoistSize(held.nominal, held.thickness, held.depth) for held in lumber().values())
    metric = tuple(JoistSize(f"{t} x {d}", float(t), float(d)) for t, d in _data()["joists_mm"]["sizes"])
    return {"timber": imperial, "masonry": metric}


def joist_sizes(tradition: Tradition) -> tuple[JoistSize, ...]:
    """The sizes that joists of a tradition come in, the smallest first."""
    return _sizes()[tradition]


@lru_cache(maxsize=256)
def joist_reach(tradition: Tradition, size: JoistSize, spacing: float, on: On = "floor") -> tuple[float, str]:
    """How far joists of a size at a spacing (mm) span clear (mm), and by what: a published table where it holds them,
    else first principles."""
    case = usual_case(tradition, size.thickness, size.depth, spacing, on)
    published = published_spans(case)
    if published:
        return published[0].span * INCH, published[0].table
    span = joist_span(case)
    return span.max_span * INCH, f"{timber_for(tradition).name}, by {span.governs}"
