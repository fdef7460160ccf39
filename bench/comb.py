"""An outline like a comb, with teeth of different widths and lengths: many edges for one roof."""

from __future__ import annotations


def comb(teeth: int) -> list[tuple[float, float]]:
    """Corners (mm) counter-clockwise; five per tooth and three more."""
    points = [(0.0, 0.0), (teeth * 10_000.0, 0.0)]
    for k in range(teeth, 0, -1):
        right, left = k * 10_000 - 3000 - k % 3 * 370, k * 10_000 - 7000 + k % 4 * 210
        top = 18_000 + k % 5 * 1000
        points += [(k * 10_000.0, 10_000.0), (right, 10_000.0), (right, top), (left, top), (left, 10_000.0)]
    return [*points, (0.0, 10_000.0)]
