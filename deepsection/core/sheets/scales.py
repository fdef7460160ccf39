"""Drawing scales. Source: ISO 5455 (1:N), and 1:25, which builders use; imperial scales by common practice."""

from __future__ import annotations

from ..units import Units

METRIC = (1, 2, 5, 10, 20, 25, 50, 100, 200, 500, 1000)
IMPERIAL: dict[float, str] = {
    4: '3" = 1\'-0"',
    8: '1 1/2" = 1\'-0"',
    12: '1" = 1\'-0"',
    16: '3/4" = 1\'-0"',
    24: '1/2" = 1\'-0"',
    32: '3/8" = 1\'-0"',
    48: '1/4" = 1\'-0"',
    64: '3/16" = 1\'-0"',
    96: '1/8" = 1\'-0"',
    128: '3/32" = 1\'-0"',
    192: '1/16" = 1\'-0"',
    240: '1" = 20\'-0"',
    480: '1" = 40\'-0"',
}


def standard_scales(units: Units) -> tuple[float, ...]:
    """Scale denominators in use, the largest drawing first."""
    return tuple(IMPERIAL) if units == "ft-in" else tuple(float(scale) for scale in METRIC)


def scale_name(scale: float, units: Units) -> str:
    """How a scale is written.

    >>> scale_name(48, "ft-in"), scale_name(50, "mm")
    ('1/4" = 1\\'-0"', '1:50')
    """
    if units == "ft-in" and scale in IMPERIAL:
        return IMPERIAL[scale]
    return f"1:{scale:g}"
