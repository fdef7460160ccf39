"""How a string of dimensions is made of its places: shown or left out, moved, denser or coarser, as a view says."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence

from ...drawing import Dimension
from ...drawing.chains import Measure, Place, Stretch, String, coarse, stretches
from ..setting import Setting

Ends = Callable[[float, float], tuple[float, float, float, float]]


def made(
    setting: Setting,
    name: str,
    places: Sequence[Place],
    line: Ends,
    offset: float,
    *,
    feature: str,
    gap: float = 1.0,
    part: str | None = None,
    key: Callable[[Stretch], str] | None = None,
    usual: bool = True,
    origin: float | None = None,
    measure: Measure | None = None,
) -> String:
    """The string of a name, `side:row`, over some distinct places: `line` gives (x1, y1, x2, y2) from-to of a stretch.

    `offset` and `gap` are those of its dimensions (paper mm), `usual` whether it is shown where nothing was said,
    `origin` what its places are counted from, `key` names its figures.
    """
    held = setting.string(name)
    shown = setting.shows(name, usual)
    if not shown or len(places) < 2:
        return String(name, shown, ())
    measure = measure or setting.measure
    if setting.rule_of(name).density == "coarser":
        places = coarse(places, measure, setting.scale)
    away = offset + (held.away if offset >= 0 else -held.away)
    marks = tuple(
        Dimension(
            *(ends := line(stretch.start, stretch.end)),
            away,
            stretch.text,
            part=part,
            feature=feature,
            gap=gap,
            annotation=key(stretch) if key else f"string:{name}:{stretch.name}",
            between=stretch.between,
            measures=measured(ends, stretch.end - stretch.start),
        )
        for stretch in stretches(places, measure, setting.scale, origin)
    )
    return String(name, True, marks)


def measured(ends: tuple[float, float, float, float], length: float) -> float | None:
    """What a dimension between two places measures, where these are nearer to each other than that: over a break."""
    x1, y1, x2, y2 = ends
    return length if length - math.hypot(x2 - x1, y2 - y1) > 0.5 else None
