"""What is known of a file before any of its pages is looked at."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

MM_PER_POINT = 25.4 / 72.0
"""Source: ISO 32000-1, 8.3.2.3: a unit of default user space is 1/72 in."""
MOST_PIXELS = 8_000_000
"""Pages and images are shown with so many at most."""
FINEST = 240.0
"""Pages are shown with so many dots per inch at most."""


@dataclass(frozen=True, slots=True)
class About:
    """The pages of a file (width, height, in its unit), and what it counts in: mm of paper, or a unit of its own.

    What a drawing counts in is `scale` mm, as its own dimensions, doors and walls tell, which `reason` says; it lies
    with its lower left corner `at` (mm), about its own place where it is drawn far from the origin; in the file that
    is at `corner`, in its unit.
    """

    pages: tuple[tuple[float, float], ...]
    counts: Literal["paper", "drawing"] = "paper"
    scale: float | None = None
    at: tuple[float, float] | None = None
    corner: tuple[float, float] = (0.0, 0.0)
    reason: str = ""
