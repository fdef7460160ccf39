"""The hatches of one drawing: each placed pattern once, named by its index."""

from __future__ import annotations

import math
from dataclasses import replace

from ..catalog import hatch
from ..drawing import PlacedHatch, place_hatch
from ..geometry import Frame
from .faces import Face


def is_level(name: str) -> bool:
    """Whether a pattern is nothing but unbroken level lines, which look alike on every chord of an arc."""
    return all(family.angle == 0 and not family.dashes for family in hatch(name).families)


class HatchTable:
    """Collects placed hatches while a view is drawn."""

    def __init__(self, scale: float, shift: float = 0.0) -> None:
        """`shift`: how far to the right of its place (mm) what is hatched will be drawn."""
        self.scale, self.shift = scale, shift
        self._index: dict[PlacedHatch, int] = {}

    def add(self, name: str, origin: tuple[float, float] = (0.0, 0.0)) -> int:
        """Index of a pattern lying flat in the view."""
        return self._keep(place_hatch(name, self.scale, (origin[0] + self.shift, origin[1])))

    def add_face(self, name: str, face: Face, frame: Frame) -> int:
        """Index of a pattern on a face: its x runs level along the face, its y up the face."""
        nx, ny, nz = face.normal
        level = math.hypot(nx, ny)
        ex, ey = (-ny / level, nx / level) if level > 1e-9 else (frame.ux, frame.uy)
        up = (-nz * ey, nz * ex, nx * ey - ny * ex)
        if up[2] < 0:
            up = (-up[0], -up[1], -up[2])
        x0, y0, z0 = _unrolled(face, frame)
        origin = (round(x0 * frame.ux + y0 * frame.uy + self.shift, 3), round(z0, 3))
        axes = (
            round(ex * frame.ux + ey * frame.uy, 9),
            0.0,
            round(up[0] * frame.ux + up[1] * frame.uy, 9),
            round(up[2], 9),
        )
        return self._keep(place_hatch(name, self.scale, origin, axes))

    def _keep(self, hatch: PlacedHatch) -> int:
        return self._index.setdefault(hatch, len(self._index))

    def join(self, other: HatchTable) -> list[int]:
        """Per hatch of another table, its index in this one."""
        return [self._keep(hatch) for hatch in other.all()]

    def moved(self, index: int, aside: float, rise: float) -> int:
        """Index of the same hatch, so far to the right and so much higher."""
        held = self.all()[index]
        families = tuple(replace(one, base=(one.base[0] + aside, one.base[1] + rise)) for one in held.families)
        return self._keep(replace(held, families=families))

    def all(self) -> tuple[PlacedHatch, ...]:
        """Every hatch, by index."""
        return tuple(self._index)


def _unrolled(face: Face, frame: Frame) -> tuple[float, float, float]:
    """Where the pattern of a chord of an arc starts, so that it runs on from chord to chord as it does unrolled."""
    (nx, ny, _), curve = face.normal, face.part.curve
    if curve is None:
        return face.part.origin
    # From the centre to the chord's plane, negative when the face looks inward.
    reach = face.plane[2] * (nx * frame.dx + ny * frame.dy) - nx * curve.x - ny * curve.y
    unrolled = reach * math.atan2(ny, nx)
    return curve.x + nx * reach + ny * unrolled, curve.y + ny * reach - nx * unrolled, face.part.origin[2]
