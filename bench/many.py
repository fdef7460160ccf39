"""Parts moved aside, to make a scene of several houses, and what memory that takes."""

from __future__ import annotations

import resource
from dataclasses import replace
from typing import Any

from deepsection.core.geometry import Box, Solid
from deepsection.core.resolve import Part


class Shifted(Solid):
    """A body moved along x."""

    def __init__(self, body: Solid, dx: float) -> None:
        self._body, self._dx = body, dx
        x0, y0, z0, x1, y1, z1 = body.reach
        self.reach = Box(x0 + dx, y0, z0, x1 + dx, y1, z1)

    def _build(self) -> Any:
        return self._body.manifold.translate((self._dx, 0.0, 0.0))

    def cut(self, frame: Any) -> Any:
        """Not needed for what is seen."""
        raise NotImplementedError


def shifted(part: Part, dx: float) -> Part:
    """A part moved along x, under a name of its own."""
    return replace(part, key=f"{dx:.0f}:{part.key}", solid=Shifted(part.solid, dx))


def peak_mib() -> float:
    """Most memory that this process has held, MiB."""
    return resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024
