"""What of a building decides how a junction is built, in values that are equal where it is built alike."""

from __future__ import annotations

from ..resolve import Building
from .junction import Fact


def rounded(value: float, digits: int = 1) -> float:
    """A length to a tenth of a millimetre, or a share to more digits; zero has no sign."""
    return round(value, digits) + 0.0


def layers_of(building: Building, make_up: str | None) -> Fact:
    """The layers of a make-up, from the outside in or from the top down: what they are, not what they are called."""
    if make_up is None:
        return ()
    found: list[Fact] = []
    for layer in building.placed.make_ups[make_up].layers:
        framing = layer.framing
        members: Fact = (
            (
                rounded(framing.thickness),
                rounded(framing.spacing),
                framing.infill or "",
                framing.profile,
            )
            if framing
            else ()
        )
        found.append((layer.material, layer.function, rounded(layer.thickness), members))
    return tuple(found)
