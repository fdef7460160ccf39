"""Dimensions that matter for a kind of junction: overhang and heel of an eave, what stands over the ground."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from typing import Any

from ...buildups.library import SITES
from ...buildups.making import lies_of
from ...drawing import Dimension
from ...drawing.chains import Place, String, stretches
from ...geometry import Frame
from ...junctions import Junction
from ...resolve import Building
from ..setting import Setting
from .place import DetailPlace

NAME = "detail:measures"
ASIDE = 6.0
"""Paper mm from the wall to the line of a dimension."""

Span = tuple[str, tuple[float, float], tuple[float, float], float]
"""What is measured: its name, from and to (u outward, height; mm), and the offset of its line (paper mm)."""


def _eave(site: Any, scale: float) -> Iterator[Span]:
    """How far the fascia stands out from the wall, and how high the rafters stand over the plate."""
    low = (site.soffit if site.soffit is not None else site.rafter_top(site.reach)) - 4.0 * scale
    if site.reach - site.face > 8.0 * scale:
        yield "overhang", (site.reach, low), (site.face, low), 0.0
    if site.wall is not None:
        yield "heel", (0.0, site.plate), (0.0, site.rafter_top(0.0)), site.face / scale + ASIDE


def _foot(site: Any, scale: float) -> Iterator[Span]:
    """How high the foundation stands over the ground."""
    if site.over > 2.0 * scale and not site.steps:
        side = site.wall.outer + (ASIDE + 8.0) * scale
        yield "over the ground", (side, site.top - site.over), (side, site.top), 0.0


MEASURED: dict[str, Callable[[Any, float], Iterator[Span]]] = {"eave": _eave, "wall_foot": _foot}


def detail_measures(building: Building, junction: Junction, place: DetailPlace, setting: Setting) -> String:
    """The string of what matters at a junction, where a build-up knows it."""
    marks: list[Dimension] = []
    shown = setting.shows(NAME, usual=True)
    spans = MEASURED.get(junction.kind)
    site = SITES[junction.kind].site(building, junction) if spans is not None and shown else None
    lies = lies_of(building, junction) if site is not None else []
    if spans is not None and lies:
        assert isinstance(place.frame, Frame)
        x, y = lies[0].start
        origin = x * place.frame.ux + y * place.frame.uy
        for name, (u0, v0), (u1, v1), offset in spans(site, setting.scale):
            ends = (origin - u0, v0), (origin - u1, v1)
            if not all(place.window.holds(u, v) or name != "heel" for u, v in ends):
                continue
            length = abs(u1 - u0) + abs(v1 - v0)
            for piece in stretches([Place(0.0, "from"), Place(length, "to")], setting.measure, setting.scale):
                key = f"string:{NAME}:{name}"
                marks.append(Dimension(*ends[0], *ends[1], offset, piece.text, feature="measure", annotation=key))
    return String(NAME, shown, tuple(marks))
