"""Returns: layers that turn into the reveals of openings, up to the frame or across the cavity behind them."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache

from shapely.geometry import MultiPolygon, Polygon
from shapely.geometry import box as rectangle
from shapely.ops import unary_union

from ...building.parts import Part, part_key
from ...catalog import material
from ...geometry import Solid, polygons_of
from ...model import MakeUp
from ..walls.bodies import leaning, wall_solid
from ..walls.planned import PlannedWall
from .leaves import frame_depth, inset, outline
from .placed import PlacedOpening

LEAST = 1.0
"""A return shorter than this (mm) is none."""


@dataclass(frozen=True, slots=True)
class Return:
    """A piece of a layer in a reveal: its profile (distance along, z), and from-to distances outward.

    `closes`: it lies beside the opening, across the cavity, and not within it.
    """

    layer: str
    material: str
    function: str
    profile: Polygon | MultiPolygon
    inner: float
    outer: float
    thickness: float
    closes: bool


@lru_cache(maxsize=2048)
def returns_of(wall: PlannedWall, make_up: MakeUp, placed: PlacedOpening) -> tuple[Return, ...]:
    """The returns at an opening, outer layers first."""
    if placed.opening.unit == "niche" or placed.design.returns == "none":
        return ()
    return tuple(_returns(wall, make_up, placed))


def _returns(wall: PlannedWall, make_up: MakeUp, placed: PlacedOpening) -> Iterator[Return]:
    face, back = placed.face, placed.face - frame_depth(placed)
    if placed.design.operation == "plain":
        face = back = (wall.outer + wall.inner) / 2
    shape = outline(placed)
    for position, (planned, layer) in enumerate(zip(wall.layers, make_up.layers)):
        if layer.reveal == "no":
            continue
        outside = planned.inner >= (face + back) / 2
        # Leaves laid in units turn behind the cavity and close it; what is thinner lines the reveal.
        if material(layer.material).coursing and layer.function in ("structure", "cladding"):
            low, high = _cavity(wall, make_up, position, outward=not outside)
            if high - low > LEAST:
                t = layer.thickness
                beside = [
                    rectangle(x0, placed.sill.total, x1, placed.head.total)
                    for x0, x1 in ((placed.left - t, placed.left), (placed.right, placed.right + t))
                ]
                profile = unary_union(beside)
                yield Return(layer.id, layer.material, layer.function, profile, low, high, t, closes=True)
            continue
        low, high = (face + layer.reveal_gap, planned.inner) if outside else (planned.outer, back - layer.reveal_gap)
        within = inset(shape, layer.thickness, open_foot=True)
        if high - low > LEAST and not within.is_empty:
            profile = MultiPolygon(list(polygons_of(shape.difference(within))))
            held = (layer.id, layer.material, layer.function)
            yield Return(*held, profile, low, high, layer.thickness, closes=False)


def _cavity(wall: PlannedWall, make_up: MakeUp, position: int, *, outward: bool) -> tuple[float, float]:
    """From-to distances outward of what lies behind a leaf, up to the next structure."""
    step = -1 if outward else 1
    found = []
    at = position + step
    while 0 <= at < len(make_up.layers) and make_up.layers[at].function in ("cavity", "insulation", "membrane"):
        found.append(wall.layers[at])
        at += step
    ends = (min((held.inner for held in found), default=0.0), max((held.outer for held in found), default=0.0))
    return ends if 0 <= at < len(make_up.layers) else (0.0, 0.0)


def closers(wall: PlannedWall, make_up: MakeUp, openings: tuple[PlacedOpening, ...], layer: int) -> list[Solid]:
    """What returned leaves take from a layer in a cavity."""
    planned = wall.layers[layer]
    taken = []
    for placed in openings:
        for held in returns_of(wall, make_up, placed):
            if held.closes and held.inner < planned.outer and held.outer > planned.inner:
                taken.append(wall_solid(wall, held.profile, held.inner - 1.0, held.outer + 1.0, placed.centre))
    return taken


@lru_cache(maxsize=1024)
def return_parts(
    wall: PlannedWall, make_up: MakeUp, placed: PlacedOpening, base: float, outside: bool
) -> tuple[Part, ...]:
    """The returns at an opening as parts."""
    return tuple(
        Part(
            part_key(placed.opening.id, "return", held.layer),
            placed.opening.id,
            "return",
            held.material,
            leaning(wall, wall_solid(wall, held.profile, held.inner, held.outer, placed.centre), base),
            sums=(placed.head.id, placed.sill.id),
            origin=(*wall.stand(placed.centre).at(placed.left, held.outer), placed.sill.total),
            outside=outside and not held.closes and held.inner >= placed.face - LEAST,
            function=held.function,
        )
        for held in returns_of(wall, make_up, placed)
    )
