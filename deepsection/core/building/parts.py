"""Solid pieces of a building, each with a name for life."""

from __future__ import annotations

from dataclasses import dataclass

from ..geometry import Circle, Solid


@dataclass(frozen=True, eq=False, slots=True)
class Part:
    """A solid piece of the building. `axis` is the direction of a member; `face_axes` place a hatch.

    `shown` tells views where it may be seen: an enclosed part is never seen from outside.
    """

    key: str
    element: str
    role: str
    material: str
    solid: Solid
    axis: tuple[float, float, float] | None = None
    sums: tuple[str, ...] = ()
    origin: tuple[float, float, float] = (0.0, 0.0, 0.0)
    outside: bool = True
    function: str = ""
    curve: Circle | None = None
    """What a part with bent faces is bent around: no line is drawn between chords of an arc."""
    note: str = ""
    """What drawings say of a piece of a build-up."""
    does: tuple[str, ...] = ()
    """Which lines such a piece belongs to, and what else it does."""


def part_key(element: str, role: str, layer: str = "", slot: str = "") -> str:
    """The name of a part for life: element, role, layer, slot; slots mean something."""
    return f"{element}/{role}/{layer}/{slot}"
